// Lines, polylines and the outlines of polygons to spans.
#include "geometry/limits.hpp"
#include "raster/edge_rows.hpp"
#include "raster/polygon_checks.hpp"
#include "raster/span_batch.hpp"

#include "coldbrick/error.hpp"

namespace coldbrick::detail {

namespace {

// The whole of a short edge, as one pixel in each row if it is steep, else in each column.
Box trace(const Edge& edge, const SpanReceiver& receiver) {
    const auto along = std::max(edge.width(), edge.height());
    const auto across = std::min(edge.width(), edge.height());
    const auto leftward = edge.lower.x < edge.upper.x;
    const auto start = along - 1;
    const auto step = leftward ? -2 * across : 2 * across;
    if (edge.steep()) {
        const ShortSteps columns{edge.upper.x, start, step, 2 * along};
        receiver.take_down(receiver.context, {.first = edge.upper.y,
                                              .count = static_cast<int>(along + 1),
                                              .place = columns.place(),
                                              .step = columns.step()});
    } else {
        const ShortSteps rows{leftward ? edge.lower.y : edge.upper.y, start, step, 2 * along};
        receiver.take_across(receiver.context, {.first = edge.left(),
                                                .count = static_cast<int>(along + 1),
                                                .place = rows.place(),
                                                .step = rows.step()});
    }
    return Box::between({.from = edge.upper, .to = edge.lower});
}

template <class Steps>
Box scan_rows(const Edge& edge, int first, int last, SpanBatch& batch) {
    HairlineRows<Steps> rows{edge, first};
    batch.add_rows(first, last, [&](int) {
        const auto run = rows.run();
        rows.advance();
        return run;
    });
    return batch.finish();
}

Box scan_edge(const Edge& edge, const Box& clip, const SpanReceiver& receiver) {
    const auto window = window_of(clip);
    const auto first = std::max(edge.upper.y, window.top);
    const auto last = std::min(edge.lower.y, window.bottom - 1);
    if (first > last || edge.right() < window.left || edge.left() >= window.right) return {};
    const auto is_short = std::max(edge.width(), edge.height()) <= short_extent;
    const auto inside = first == edge.upper.y && last == edge.lower.y && edge.left() >= window.left &&
                        edge.right() < window.right;
    // In an edge much flatter than this, runs are long enough to be quicker.
    const auto has_short_runs = edge.height() > 0 && edge.width() < 8 * edge.height();
    if (inside && is_short && has_short_runs && receiver.take_down != nullptr) return trace(edge, receiver);
    SpanBatch batch{window, receiver};
    return is_short ? scan_rows<ShortSteps>(edge, first, last, batch)
                    : scan_rows<ExactSteps>(edge, first, last, batch);
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
