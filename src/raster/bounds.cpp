// The boxes around shapes.
#include "geometry/limits.hpp"
#include "raster/edge_rows.hpp"
#include "raster/ellipse_rows.hpp"
#include "raster/polygon_checks.hpp"

#include <limits>
#include <vector>

namespace coldbrick {

namespace {

using detail::Edge;

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

Box box_in_rows(const Filled& area, int first, int last) {
    const auto rows =
        detail::Window{.left = whole_line.left, .top = first, .right = whole_line.right, .bottom = last + 1};
    return for_each_span(area, detail::box_of(rows), [](const Span&) {});
}

// Finds the columns of a polygon with shared edges: halves the rows, and leaves out those in which no edge comes
// further left or right than what is known to be covered.
class ColumnSearch {
  public:
    ColumnSearch(const Filled& area, Box known) : area_{area}, known_{known} {
        for (const auto& ring : area.polygon.rings()) {
            auto from = ring.back();
            for (const auto to : ring) {
                if (from.y != to.y) edges_.push_back(Edge::between(from, to));
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
    static std::int64_t crossing(const Edge& edge, int y) noexcept {
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

    const Filled& area_;
    Box known_;
    std::vector<Edge> edges_;
};

Box box_around_interior(const Filled& area) {
    const auto outer = box_around(area.polygon);
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

Box bounds(const Ellipse& shape) { return shape.box(); }

Box bounds(const Polygon& shape) { return box_around(shape); }

Box bounds(const Filled& area) {
    return area.how.edges == Edges::shared ? box_around_interior(area) : box_around(area.polygon);
}

Box bounds(const Stroked<Line>& area) {
    detail::check_point("line", "from", area.shape.from);
    detail::check_point("line", "to", area.shape.to);
    return Box::between({.from = area.shape.from, .to = area.shape.to});
}

Box bounds(const Stroked<Polyline>& area) {
    detail::check_polyline(area.shape);
    return box_around(area.shape.through);
}

Box bounds(const Stroked<Polygon>& area) { return box_around(area.shape); }
Box bounds(const Stroked<Box>& area) { return bounds(area.shape); }
Box bounds(const Stroked<Circle>& area) { return bounds(area.shape); }
Box bounds(const Stroked<Ellipse>& area) { return bounds(area.shape); }

}  // namespace coldbrick
