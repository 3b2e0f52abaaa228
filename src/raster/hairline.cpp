// Lines, polylines and the outlines of polygons to spans.
#include "coldbrick/error.hpp"
#include "geometry/limits.hpp"
#include "raster/edge_rows.hpp"
#include "raster/polygon_checks.hpp"
#include "raster/span_batch.hpp"

namespace coldbrick::detail {

namespace {

Box scan_edge(const Edge& edge, const Box& clip, const SpanReceiver& receiver) {
    SpanBatch batch{window_of(clip), receiver};
    const auto& window = batch.window();
    const auto first = std::max(edge.upper.y, window.top);
    const auto last = std::min(edge.lower.y, window.bottom - 1);
    if (first > last || edge.right() < window.left || edge.left() >= window.right) return {};
    HairlineRows rows{edge, first};
    const auto inside = edge.left() >= window.left && edge.right() < window.right;
    if (inside) {
        for (auto y = first; y <= last; ++y, rows.advance()) {
            const auto [left, right] = rows.run();
            batch.add_inside(y, left, right);
        }
    } else {
        for (auto y = first; y <= last; ++y, rows.advance()) {
            const auto [left, right] = rows.run();
            batch.add(y, left, right);
        }
    }
    return batch.finish();
}

// Calls use(a, b) for each line of the path; a path of one point is a line from there to there.
template <class Use>
void for_each_line(const std::vector<Point>& path, bool closed, const Use& use) {
    for (std::size_t i = 1; i < path.size(); ++i) use(path[i - 1], path[i]);
    if (path.size() == 1 || (closed && path.size() > 2)) use(path.back(), path.front());
}

Box scan_lines(const std::vector<Point>& path, bool closed, const Box& clip, const SpanReceiver& receiver) {
    auto touched = Box{};
    for_each_line(path, closed, [&](Point a, Point b) {
        touched = enclosing(touched, scan_edge(Edge::between(a, b), clip, receiver));
    });
    return touched;
}

// Where each pixel may come only once, the lines' spans are gathered and merged first.
template <class Scan>
Box scan_merged(const SpanReceiver& receiver, const Scan& scan) {
    if (receiver.repeats == Repeats::harmless) return scan(receiver);
    SpanMerger merger;
    scan(merger.receiver());
    return merger.pass_on(receiver);
}

}  // namespace

Box scan_stroke(const Line& shape, const Box& clip, const SpanReceiver& receiver) {
    check_point("line", "from", shape.from);
    check_point("line", "to", shape.to);
    return scan_edge(Edge::between(shape.from, shape.to), clip, receiver);
}

Box scan_stroke(const Polyline& shape, const Box& clip, const SpanReceiver& receiver) {
    check_polyline(shape);
    return scan_merged(receiver, [&](const SpanReceiver& gather) {
        return scan_lines(shape.through, shape.closed, clip, gather);
    });
}

Box scan_stroke(const Polygon& shape, const Box& clip, const SpanReceiver& receiver) {
    check_polygon(shape);
    return scan_merged(receiver, [&](const SpanReceiver& gather) {
        auto touched = Box{};
        for (const auto& ring : shape.rings()) {
            touched = enclosing(touched, scan_lines(ring, true, clip, gather));
        }
        return touched;
    });
}

}  // namespace coldbrick::detail
