// Row sources of small areas: plain values that know all their rows, or pixels, at once.
#pragma once

#include "geometry/thresholds.hpp"
#include "raster/rows/ellipse_rows.hpp"
#include "raster/rows/row_ends.hpp"
#include "raster/spans/convex_rows.hpp"
#include "raster/strokes/hairline.hpp"

#include "coldbrick/detail/area_ref.hpp"

#include <optional>

namespace coldbrick::inline v0::detail {

// The rows of a triangle within the window and RowEnds::most rows and columns, filled as usual.
std::optional<RowEnds> small_triangle(const Polygon& shape, const Box& window) noexcept;

// The shape of a type of the library's that it is where it stands; null of others.
template <class Shape>
const Shape* as(const AreaRef& area) noexcept {
    return area.shape.kind == number_in<Shape, AllShapes> ? static_cast<const Shape*>(area.shape.shape) : nullptr;
}

// Whether it is what a call has that gives nothing else.
constexpr bool is_usual(const Fill& how) noexcept {
    return how.rule == FillRule::even_odd && how.edges == Edges::inclusive && how.edge == Edge::crisp;
}
inline bool is_usual(const Stroke& how) noexcept {
    return how.width == Width{1} && how.edge == Edge::crisp && how.dash.empty() && how.align == Align::center &&
           how.cap == Cap::flush && how.join == Join::miter && how.miter_limit == Stroke{}.miter_limit &&
           how.dash_offset == 0;
}

// Returns use(rows) of a box, a circle or a triangle that is small, lies in the window and is filled as usual, and
// use(pixels) of such a line's hairline, all without a transform. They are the pixels that scan() reports. Returns
// an empty box of other areas, and checks none.
template <class Use>
Box with_small_rows(const AreaRef& area, const Box& window, const Use& use) {
    if (area.shape.own_calls != nullptr || (area.by != nullptr && !area.by->is_identity())) return {};
    if (area.stroke != nullptr) {
        const auto* const line = as<Line>(area);
        if (line == nullptr || !is_usual(*area.stroke)) return {};
        const auto edge = PointEdge::between(line->from, line->to);
        if (!contains(window, edge.upper) || !contains(window, edge.lower)) return {};
        const auto steps = std::max(edge.width(), edge.height());
        return steps >= 1 && steps <= thresholds::small_area ? use(line_pixels(edge)) : Box{};
    }
    if (!is_usual(*area.fill)) return {};
    if (const auto* const box = as<Box>(area)) {
        const auto& [width, height] = box->size;
        const auto is_small = width >= 1 && width <= thresholds::small_area && height >= 1 && is_within(*box, window);
        return is_small ? use(BoxRows{*box}) : Box{};
    }
    if (const auto* const circle = as<Circle>(area)) {
        const auto& [center, radius] = *circle;
        // A radius on either side of a pixel of the window is within the numbers.
        if (radius < 0 || radius > (largest_small - 1) / 2 || !contains(window, center)) return {};
        const auto diameter = 2 * radius + 1;
        const auto box = Box{.at = {.x = center.x - radius, .y = center.y - radius}, .size = {diameter, diameter}};
        return is_within(box, window) ? use(SmallCircleRows{box}) : Box{};
    }
    const auto* const polygon = as<Polygon>(area);
    const auto triangle = polygon != nullptr ? small_triangle(*polygon, window) : std::nullopt;
    return triangle ? use(*triangle) : Box{};
}

}  // namespace coldbrick::inline v0::detail
