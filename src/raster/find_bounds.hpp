// How the box around a shape's pixels is found where no formula gives it.
#pragma once

#include "raster/ellipse_form.hpp"
#include "raster/window.hpp"

#include "coldbrick/spans.hpp"

#include <cmath>

namespace coldbrick::detail {

// Takes no spans.
inline constexpr SpanReceiver nobody{
    .context = nullptr, .take = [](void*, std::span<const Span>) {}, .repeats = Repeats::harmless};

// The smallest box around the pixels that scan(clip) finds within a box: some thousand rows at a time, so that memory
// stays small. Time grows with the rows.
template <class Scan>
Box bounds_by_rows(const Box& outer, const Scan& scan) {
    constexpr auto at_once = std::int64_t{1} << 14U;
    const auto rows = window_of(outer);
    auto box = Box{};
    for (auto top = std::int64_t{rows.top}; top < rows.bottom; top += at_once) {
        auto part = rows;
        part.top = static_cast<int>(top);
        part.bottom = static_cast<int>(std::min<std::int64_t>(top + at_once, rows.bottom));
        box = enclosing(box, scan(box_of(part)));
    }
    return box;
}

// A box that is not too small for a turned ellipse.
inline Box box_around_turned(const Ellipse& ellipse) noexcept {
    const EllipseForm form{ellipse};
    const auto half_height = std::ceil(form.half_height());
    const auto half_width = std::ceil(std::sqrt(form.a() * form.a() + form.b() * form.b()));
    const auto edge = [](double at) { return static_cast<int>(std::clamp(at, -2147483000.0, 2147483000.0)); };
    const auto x = form.origin().x + form.center().x;
    const auto y = form.origin().y + form.center().y;
    const auto left = edge(std::floor(x - half_width));
    const auto top = edge(std::floor(y - half_height));
    const auto extent = [&](double end, int first) {
        return static_cast<int>(std::min(end + 1 - first, 2147483000.0));
    };
    return {
        .at = {.x = left, .y = top},
        .size = {.width = extent(std::ceil(x + half_width), left), .height = extent(std::ceil(y + half_height), top)}};
}

// The box grown on all sides, as far as the numbers go.
Box grown(const Box& box, int by) noexcept;

// Of wide strokes without dashes, centred.
Box bounds_of_lines(const Polyline& shape, const Stroke& how);
Box bounds_of_lines(const Polygon& shape, const Stroke& how);

}  // namespace coldbrick::detail
