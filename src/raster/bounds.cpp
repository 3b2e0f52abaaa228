// The boxes around shapes.
#include "geometry/limits.hpp"
#include "raster/edge_rows.hpp"
#include "raster/ellipse_rows.hpp"
#include "raster/find_bounds.hpp"
#include "raster/polygon_checks.hpp"
#include "raster/round_tables.hpp"

#include <limits>
#include <vector>

namespace coldbrick {

namespace {

using detail::PointEdge;

constexpr auto whole_line = detail::Window{
    .left = -max_coordinate, .top = -max_coordinate, .right = max_coordinate + 1, .bottom = max_coordinate + 1};

Box box_around(const std::vector<Point>& points) {
    auto box = Box{.at = points.front(), .size = {.width = 1, .height = 1}};
    for (const auto point : points) box = enclosing(box, {.at = point, .size = {.width = 1, .height = 1}});
    return box;
}

Box box_around(const Polygon& polygon) {
    detail::check_polygon(polygon);
    auto box = Box{};
    for (const auto& ring : polygon.rings()) box = enclosing(box, box_around(ring));
    return box;
}

Box box_in_rows(const Filled<Polygon>& area, int first, int last) {
    const auto rows =
        detail::Window{.left = whole_line.left, .top = first, .right = whole_line.right, .bottom = last + 1};
    return for_each_span(area, detail::box_of(rows), [](const Span&) {});
}

// Finds the columns of a polygon with shared edges: halves the rows, and leaves out those in which no edge comes
// further left or right than what is known to be covered.
class ColumnSearch {
  public:
    ColumnSearch(const Filled<Polygon>& area, Box known) : area_{area}, known_{known} {
        for (const auto& ring : area.shape.rings()) {
            auto from = ring.back();
            for (const auto to : ring) {
                if (from.y != to.y) edges_.push_back(PointEdge::between(from, to));
                from = to;
            }
        }
    }

    Box search(int first, int last) {
        std::vector<detail::Run> waiting{{.left = first, .right = last}};
        while (!waiting.empty()) {
            const auto [top, bottom] = waiting.back();
            waiting.pop_back();
            if (top > bottom || !may_widen(top, bottom)) continue;
            const auto middle = top + (bottom - top) / 2;
            known_ = enclosing(known_, box_in_rows(area_, middle, middle));
            waiting.push_back({.left = top, .right = middle - 1});
            waiting.push_back({.left = middle + 1, .right = bottom});
        }
        return known_;
    }

  private:
    static std::int64_t crossing(const PointEdge& edge, int y) noexcept {
        const auto dx = std::int64_t{edge.lower.x} - edge.upper.x;
        return edge.upper.x + detail::ceil_div(dx * (std::int64_t{y} - edge.upper.y), edge.height());
    }

    [[nodiscard]] bool may_widen(int top, int bottom) const noexcept {
        auto left = std::numeric_limits<std::int64_t>::max();
        auto right = std::numeric_limits<std::int64_t>::min();
        for (const auto& edge : edges_) {
            const auto from = std::max(top, edge.upper.y);
            const auto to = std::min(bottom, edge.lower.y - 1);
            if (from > to) continue;
            const auto [a, b] = std::minmax({crossing(edge, from), crossing(edge, to)});
            left = std::min(left, a);
            right = std::max(right, b);
        }
        return left < right && (left < known_.at.x || right - 1 > known_.last().x);
    }

    const Filled<Polygon>& area_;
    Box known_;
    std::vector<PointEdge> edges_;
};

Box box_around_interior(const Filled<Polygon>& area) {
    const auto outer = box_around(area.shape);
    auto top = outer.at.y;
    auto bottom = outer.last().y;
    while (top <= bottom && box_in_rows(area, top, top).empty()) ++top;
    if (top > bottom) return {};
    while (box_in_rows(area, bottom, bottom).empty()) --bottom;
    const auto known = enclosing(box_in_rows(area, top, top), box_in_rows(area, bottom, bottom));
    return ColumnSearch{area, known}.search(top + 1, bottom - 1);
}

}  // namespace

Box bounds(const Box& shape) {
    detail::check_box("box", shape);
    return shape;
}

Box bounds(const Circle& shape) { return detail::checked_box(shape); }

Box bounds(const Ellipse& shape) {
    const auto is_turned = shape.box().size.width != shape.box().size.height && shape.turn() != Angle{};
    if (!is_turned) return shape.box();
    return detail::bounds_by_rows(detail::box_around_turned(shape),
                                  [&](const Box& clip) { return detail::scan_fill(shape, clip, detail::nobody); });
}

Box bounds(const RoundedBox& shape) {
    (void)detail::scan_fill(shape, Box{}, detail::nobody);
    return shape.box;
}

Box bounds(const Sector& shape) {
    return detail::bounds_by_rows(bounds(shape.of),
                                  [&](const Box& clip) { return detail::scan_fill(shape, clip, detail::nobody); });
}

Box bounds(const Chord& shape) {
    return detail::bounds_by_rows(bounds(shape.of),
                                  [&](const Box& clip) { return detail::scan_fill(shape, clip, detail::nobody); });
}

Box bounds(const Polygon& shape) { return box_around(shape); }

Box detail::fill_bounds(const Polygon& shape, const Fill& how) {
    return how.edges == Edges::shared ? box_around_interior({.shape = shape, .how = how}) : box_around(shape);
}

namespace detail {

namespace {

// Of the strokes that have no form of their own: looked for in a box that is large enough.
template <class Shape>
Box bounds_in(const Box& outer, const Shape& shape, const Stroke& how) {
    return bounds_by_rows(outer, [&](const Box& clip) { return scan_stroke(shape, how, clip, nobody); });
}

template <class Shape>
void check(const Shape& shape, const Stroke& how) {
    (void)scan_stroke(shape, how, Box{}, nobody);
}

// The box grown by what a stroke around it adds, with its longest miters.
Box grown_for(const Box& box, const Stroke& how, bool has_corners) {
    const auto longest = has_corners && how.join == Join::miter ? std::max(how.miter_limit, 2.0) : 2.0;
    const auto by = std::min(how.width * longest + 4, double{1} * max_coordinate);
    return grown(box, static_cast<int>(by));
}

}  // namespace

Box grown(const Box& box, int by) noexcept {
    constexpr auto least = std::int64_t{std::numeric_limits<int>::min()};
    constexpr auto most = std::int64_t{std::numeric_limits<int>::max()};
    const auto first = [&](int at) { return static_cast<int>(std::max(std::int64_t{at} - by, least)); };
    const auto extent = [&](int at, int size) {
        return static_cast<int>(std::min(std::int64_t{at} + size + by - first(at), most));
    };
    return {.at = {.x = first(box.at.x), .y = first(box.at.y)},
            .size = {.width = extent(box.at.x, box.size.width), .height = extent(box.at.y, box.size.height)}};
}

Box stroke_bounds(const Line& shape, const Stroke& how) {
    return stroke_bounds(Polyline{.through = {shape.from, shape.to}}, how);
}

Box stroke_bounds(const Polyline& shape, const Stroke& how) {
    check(shape, how);
    const auto thin = box_around(shape.through);
    if (!how.dash.empty()) return bounds_in(grown_for(thin, how, true), shape, how);
    return how.width == 1 ? thin : bounds_of_lines(shape, how);
}

Box stroke_bounds(const Polygon& shape, const Stroke& how) {
    check(shape, how);
    const auto thin = box_around(shape);
    if (!how.dash.empty() || how.align != Align::center) {
        return bounds_in(grown_for(thin, how, true), shape, how);
    }
    return how.width == 1 ? thin : bounds_of_lines(shape, how);
}

Box stroke_bounds(const Box& shape, const Stroke& how) { return stroke_bounds(RoundedBox{.box = shape}, how); }

Box stroke_bounds(const RoundedBox& shape, const Stroke& how) {
    check(shape, how);
    const auto outer = grown(shape.box, Band{how}.out);
    return how.dash.empty() ? outer : bounds_in(outer, shape, how);
}

Box stroke_bounds(const Circle& shape, const Stroke& how) { return stroke_bounds(Ellipse{shape}, how); }

Box stroke_bounds(const Ellipse& shape, const Stroke& how) {
    check(shape, how);
    const auto is_turned = shape.box().size.width != shape.box().size.height && shape.turn() != Angle{};
    if (how.dash.empty() && !is_turned) return grown(shape.box(), Band{how}.out);
    return bounds_in(grown_for(box_around_turned(shape), how, false), shape, how);
}

Box stroke_bounds(const Arc& shape, const Stroke& how) {
    return bounds_in(grown_for(box_around_turned(shape.of), how, false), shape, how);
}

Box stroke_bounds(const Sector& shape, const Stroke& how) {
    return bounds_in(grown_for(box_around_turned(shape.of), how, true), shape, how);
}

Box stroke_bounds(const Chord& shape, const Stroke& how) {
    return bounds_in(grown_for(box_around_turned(shape.of), how, true), shape, how);
}

}  // namespace detail

}  // namespace coldbrick
