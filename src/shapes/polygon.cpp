// Polygons.
//
// With inclusive edges, the runs of row_sweep.hpp are those of the hairlines: a run reaches up to the pixel at which
// its edge crosses the row, so no gap opens between run and interior. With shared edges they are empty runs, each
// before the first pixel right of the crossing or on it.
#include "geometry/budget_memory.hpp"
#include "raster/rows/edge_rows.hpp"
#include "raster/rows/row_sweep.hpp"
#include "raster/strokes/hairline.hpp"
#include "raster/strokes/polygon_strokes.hpp"
#include "shapes/line_subpaths.hpp"
#include "shapes/small_areas.hpp"

#include <algorithm>
#include <memory_resource>
#include <optional>
#include <vector>

namespace coldbrick::inline v0::detail {

namespace {

// An edge that has a part in the window, with the direction in which the outline goes along it: 1 down, -1 up.
struct DirectedEdge {
    PointEdge edge;
    int first_row;  // the first in the window
    int direction;
};

// What differs between inclusive and shared edges.
template <class EdgeRows>
struct ActiveEdge {
    EdgeRows rows;
    int last_row;
    int direction;
    [[nodiscard]] Run run() const noexcept { return rows.run(); }
    void advance() noexcept { rows.advance(); }
};

template <class EdgeRows, class Kind>
struct LatticeEdges {
    using Waiting = DirectedEdge;
    using Active = ActiveEdge<EdgeRows>;
    static Active activate(const Waiting& waiting) noexcept {
        return {.rows = EdgeRows{waiting.edge, waiting.first_row},
                .last_row = Kind::last_row(waiting.edge),
                .direction = waiting.direction};
    }
};

template <class Steps>
struct InclusiveEdges : LatticeEdges<HairlineRows<Steps>, InclusiveEdges<Steps>> {
    static constexpr bool crosses_last_row = false;
    static bool counts(const PointEdge&) noexcept { return true; }
    static int last_row(const PointEdge& edge) noexcept { return edge.lower.y; }
};

template <class Steps>
struct SharedEdges : LatticeEdges<CrossingRows<Steps>, SharedEdges<Steps>> {
    static constexpr bool crosses_last_row = true;
    static bool counts(const PointEdge& edge) noexcept { return edge.height() > 0; }
    static int last_row(const PointEdge& edge) noexcept { return edge.lower.y - 1; }
};

std::size_t vertex_count(const Polygon& polygon) noexcept {
    std::size_t count = 0;
    for (const auto& ring : polygon.rings()) count += ring.size();
    return count;
}

template <class Kind>
void find_edges(const Polygon& polygon, const Window& window, std::pmr::vector<DirectedEdge>& edges) {
    edges.reserve(vertex_count(polygon));
    for (const auto& ring : polygon.rings()) {
        auto from = ring.back();
        for (const auto to : ring) {
            const auto edge = PointEdge::between(from, to);
            const auto visible =
                edge.upper.y < window.bottom && Kind::last_row(edge) >= window.top && edge.left() < window.right;
            if (visible && Kind::counts(edge)) {
                edges.push_back({.edge = edge,
                                 .first_row = std::max(edge.upper.y, window.top),
                                 .direction = from.y < to.y ? 1 : -1});
            }
            from = to;
        }
    }
}

// Whether all edges are short enough for ShortSteps.
bool is_short(const Polygon& polygon) noexcept {
    const auto [least, most] = [&] {
        auto low = polygon.rings().front().front();
        auto high = low;
        for (const auto& ring : polygon.rings()) {
            for (const auto [x, y] : ring) {
                low = {.x = std::min(low.x, x), .y = std::min(low.y, y)};
                high = {.x = std::max(high.x, x), .y = std::max(high.y, y)};
            }
        }
        return std::pair{low, high};
    }();
    return std::int64_t{most.x} - least.x <= short_extent && std::int64_t{most.y} - least.y <= short_extent;
}

// Polygons of a few dozen vertices need no memory but this.
using EdgeMemory = CallMemory<4096>;

template <class Kind>
Box sweep(const Polygon& polygon, FillRule rule, const Window& window, const SpanSink& sink) {
    EdgeMemory memory;
    std::pmr::vector<DirectedEdge> edges{&memory};
    find_edges<Kind>(polygon, window, edges);
    auto work = std::uint64_t{2} * edges.size();
    if (has_budget()) {
        for (const auto& each : edges) {
            work +=
                static_cast<std::uint64_t>(std::max(0, std::min(each.edge.lower.y, window.bottom) - each.first_row));
        }
    }
    return scan_in_budget(work, sink, [&](const SpanSink& to) {
        SpanBatch batch{window, to};
        RowSweep<Kind>{edges, window, rule}.run(batch);
        return batch.finish();
    });
}

template <class Steps>
Box sweep(const Polygon& polygon, const Fill& how, const Window& window, const SpanSink& sink) {
    if (how.edges == Edges::shared) return sweep<SharedEdges<Steps>>(polygon, how.rule, window, sink);
    return sweep<InclusiveEdges<Steps>>(polygon, how.rule, window, sink);
}

// The box around a triangle's pixels, if it is small.
std::optional<Box> small_triangle_box(const Polygon& polygon, const Box& window) noexcept {
    if (polygon.rings().size() != 1 || polygon.rings().front().size() != 3) return std::nullopt;
    const auto& corners = polygon.rings().front();
    for (const auto at : corners) {
        if (!coldbrick::contains(window, at)) return std::nullopt;
    }
    const auto [left, right] = std::minmax({corners[0].x, corners[1].x, corners[2].x});
    const auto [top, bottom] = std::minmax({corners[0].y, corners[1].y, corners[2].y});
    if (right - left >= RowEnds::most || bottom - top >= RowEnds::most) return std::nullopt;
    return Box{.at = {.x = left, .y = top}, .size = {.width = right - left + 1, .height = bottom - top + 1}};
}

}  // namespace

// Whatever lies in a row between two pixels of a triangle's hairline is inside.
std::optional<RowEnds> small_triangle(const Polygon& shape, const Box& window) noexcept {
    const auto box = small_triangle_box(shape, window);
    if (!box) return std::nullopt;
    std::optional<RowEnds> rows{*box};
    const auto& corners = shape.rings().front();
    auto from = corners[2];
    for (const auto to : corners) {
        rows->add_hairline(PointEdge::between(from, to));
        from = to;
    }
    return rows;
}

Box scan_fill(const Polygon& shape, const Fill& how, const Box& clip, const SpanSink& sink) {
    check_polygon(shape);
    const auto window = window_of(clip);
    if (window.empty()) return {};
    if (how.edges == Edges::inclusive) {
        if (const auto rows = small_triangle(shape, clip)) return scan_unclipped(*rows, sink);
    }
    return is_short(shape) ? sweep<ShortSteps>(shape, how, window, sink) : sweep<ExactSteps>(shape, how, window, sink);
}

Box scan_stroke(const Polygon& shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    check_polygon(shape);
    check_stroke(how);
    const auto scan_trace = [&](const Stroke& trace, const SpanSink& to) {
        return trace.width == Width{1} ? scan_hairline(shape.rings(), trace, clip, to)
                                       : scan_rings(shape.rings(), trace, clip, to);
    };
    return scan_polygon_stroke(how, sink, scan_trace,
                               [&](const SpanSink& gather) { scan_fill(shape, Fill{}, clip, gather); });
}

namespace {

template <class Number>
void check_rings(const BasicPolygon<Number>& shape) {
    if constexpr (std::is_same_v<Number, int>) {
        check_polygon(shape);
    } else if (shape.rings().empty()) {
        throw Error{"polygon: it has no rings; it needs one at least"};
    }
}

}  // namespace

template <class Number>
Geometry geometry_of(const BasicPolygon<Number>& shape, const Tolerance&) {
    check_rings(shape);
    LineSubpaths subpaths{"polygon"};
    for (const auto& ring : shape.rings()) subpaths.add_checked(ring, true);
    return LinesGeometry{.flat = subpaths.take(), .has_inside = true};
}
template Geometry geometry_of(const BasicPolygon<int>&, const Tolerance&);
template Geometry geometry_of(const BasicPolygon<double>&, const Tolerance&);

namespace {

Box box_around(const Polygon& shape) {
    auto box = Box{};
    for (const auto& ring : shape.rings()) box = enclosing(box, detail::box_around(ring));
    return box;
}

}  // namespace

std::optional<Box> fill_bounds(const Polygon& shape, const Fill& how) {
    return how.edges == Edges::inclusive ? std::optional{box_around(shape)} : std::nullopt;
}

std::optional<Box> stroke_bounds(const Polygon& shape, const Stroke& how) {
    const auto is_outline = is_hairline(how) && how.align == Align::center;
    return is_outline ? std::optional{box_around(shape)} : std::nullopt;
}

}  // namespace coldbrick::inline v0::detail
