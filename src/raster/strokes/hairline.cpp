// Lines, polylines and the outlines of polygons to spans.
#include "raster/strokes/hairline.hpp"

#include "geometry/trigonometry.hpp"
#include "raster/rows/edge_rows.hpp"
#include "raster/spans/record.hpp"
#include "raster/strokes/dashes.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace coldbrick::inline v0::detail {

namespace {

// The steps from first to last; narrowed to those whose values are from least to most.
struct StepRange {
    std::int64_t first;
    std::int64_t last;

    void narrow(const ShortSteps& steps, int least, int most) noexcept {
        constexpr std::int64_t unit = std::int64_t{1} << 32U;
        const auto to_least = least * unit - steps.place();
        const auto beyond_most = (std::int64_t{most} + 1) * unit - steps.place();
        if (steps.step() > 0) {
            first = std::max(first, ceil_div(to_least, steps.step()));
            last = std::min(last, ceil_div(beyond_most, steps.step()) - 1);
        } else if (steps.step() < 0) {
            first = std::max(first, floor_div(-beyond_most, -steps.step()) + 1);
            last = std::min(last, floor_div(-to_least, -steps.step()));
        } else if (to_least > 0 || beyond_most <= 0) {
            last = first - 1;
        }
    }
};

// A short edge: how far its points lie along the longer direction, from `begin` on, and across it, from `offset` on.
struct ShortEdge {
    explicit ShortEdge(const PointEdge& edge) noexcept
        : is_steep{edge.steep()},
          along{is_steep ? edge.height() : edge.width()},
          across{(is_steep ? edge.width() : edge.height()) * (edge.lower.x < edge.upper.x ? -1 : 1)},
          begin{is_steep ? edge.upper.y : edge.left()},
          offset{is_steep ? edge.upper.x : (across < 0 ? edge.lower.y : edge.upper.y)},
          steps{offset, along - 1, 2 * across, 2 * along} {}

    // The pixels of some steps.
    [[nodiscard]] LinePixels pixels(const StepRange& range) const noexcept {
        const auto count = static_cast<int>(range.last - range.first + 1);
        const auto trace = Trace{.first = static_cast<int>(begin + range.first),
                                 .count = count,
                                 .place = steps.place() + range.first * steps.step(),
                                 .step = steps.step()};
        const auto point_at = [&](int k) {
            const auto place = static_cast<int>((trace.place + k * trace.step) >> 32U);
            return is_steep ? Point{.x = place, .y = trace.first + k} : Point{.x = trace.first + k, .y = place};
        };
        return {.trace = trace,
                .is_steep = is_steep,
                .box = Box::between({.from = point_at(0), .to = point_at(count - 1)})};
    }

    bool is_steep;
    std::int64_t along;
    std::int64_t across;  // less than 0: to the left, or upwards
    int begin;
    int offset;
    ShortSteps steps;
};

// One pixel in each row if it is steep, else in each column.
Box trace(const PointEdge& between, const Window& window, const SpanSink& sink) {
    const ShortEdge edge{between};
    const auto steep = edge.is_steep;
    const auto [near, far] = steep ? std::pair{window.top, window.bottom} : std::pair{window.left, window.right};
    auto range = StepRange{.first = std::max<std::int64_t>(0, std::int64_t{near} - edge.begin),
                           .last = std::min(edge.along, std::int64_t{far} - 1 - edge.begin)};
    const auto [least, end] = steep ? std::pair{window.left, window.right} : std::pair{window.top, window.bottom};
    const auto [low, high] = std::minmax({edge.offset, static_cast<int>(edge.offset + edge.across)});
    if (low < least || high >= end) range.narrow(edge.steps, least, end - 1);
    if (range.first > range.last) return {};
    const auto visible = edge.pixels(range);
    (steep ? sink.take_down : sink.take_across)(sink.context, visible.trace);
    return visible.box;
}

template <class Steps>
Box scan_rows(const PointEdge& edge, int first, int last, SpanBatch& batch) {
    HairlineRows<Steps> rows{edge, first};
    batch.add_rows(first, last + 1, [&](int, const auto& emit) {
        emit(rows.run().left, rows.run().right);
        rows.advance();
        return true;
    });
    return batch.finish();
}

Box scan_edge(const PointEdge& edge, const Box& clip, const SpanSink& sink) {
    const auto window = window_of(clip);
    const auto first = std::max(edge.upper.y, window.top);
    const auto last = std::min(edge.lower.y, window.bottom - 1);
    if (first > last || edge.right() < window.left || edge.left() >= window.right) return {};
    const auto is_short = std::max(edge.width(), edge.height()) <= short_extent;
    // In an edge much flatter than this, runs are long enough to be quicker.
    const auto has_short_runs = edge.height() > 0 && edge.width() < 8 * edge.height();
    if (is_short && has_short_runs && sink.take_down != nullptr) return trace(edge, window, sink);
    SpanBatch batch{window, sink};
    return is_short ? scan_rows<ShortSteps>(edge, first, last, batch) : scan_rows<ExactSteps>(edge, first, last, batch);
}

// Of a line that is hardly seen.
constexpr std::uint64_t steps_of_line = 8;

// Calls use(a, b) for each line of the path; a path of one point is a line from there to there.
template <class Use>
void for_each_line(std::span<const Point> path, bool closed, const Use& use) {
    for (std::size_t i = 1; i < path.size(); ++i) {
        spend_work(steps_of_line);
        use(path[i - 1], path[i]);
    }
    if (path.size() == 1 || (closed && path.size() > 2)) use(path.back(), path.front());
}

Box scan_lines(std::span<const Point> path, bool closed, const Box& clip, const SpanSink& sink) {
    auto touched = Box{};
    for_each_line(path, closed, [&](Point a, Point b) {
        touched = enclosing(touched, scan_edge(PointEdge::between(a, b), clip, sink));
    });
    return touched;
}

// The same with dashes: each is the pixels of some steps along the longer direction.
class DashedHairline {
  public:
    DashedHairline(const Stroke& how, const Box& clip, const SpanSink& sink)
        : pattern_{how}, clip_{clip}, sink_{sink} {}

    // The next line of the path. The k-th of its pixels is k * length / steps along it; the path begins half a pixel
    // before the first one.
    void line(Point a, Point b) {
        const auto along = Vec{static_cast<double>(b.x) - a.x, static_cast<double>(b.y) - a.y};
        const auto by_row = std::fabs(along.y) >= std::fabs(along.x);
        const auto steps = std::max(std::fabs(along.x), std::fabs(along.y));
        const auto size = length(along);
        const auto per_step = steps > 0 ? size / steps : 1.0;
        const auto from = by_row ? a.y : a.x;
        const auto to = by_row ? b.y : b.x;
        const auto window = window_of(clip_);
        const auto [near, far] = by_row ? std::pair{window.top, window.bottom} : std::pair{window.left, window.right};
        // Which steps lie in the clip.
        const auto ahead = to >= from;
        const auto first = std::max(0.0, ahead ? double{1} * near - from : double{1} * from - (far - 1));
        const auto last = std::min(steps, ahead ? double{1} * (far - 1) - from : double{1} * from - near);
        if (first <= last) {
            const auto edge = PointEdge::between(a, b);
            pattern_.for_each(begin_ + first * per_step, begin_ + last * per_step, [&](const DashPattern::Dash& dash) {
                const auto k = std::max(first, std::ceil((dash.begin - begin_) / per_step));
                const auto end = std::min(last, std::ceil((dash.end - begin_) / per_step) - 1);
                if (k <= end) scan_steps(edge, by_row, ahead ? from + k : from - end, ahead ? from + end : from - k);
            });
        }
        begin_ += size;
    }

    [[nodiscard]] const Box& touched() const noexcept { return touched_; }

  private:
    // The pixels of an edge in some rows, or columns.
    void scan_steps(const PointEdge& edge, bool by_row, double first, double last) {
        auto part = window_of(clip_);
        (by_row ? part.top : part.left) = static_cast<int>(first);
        (by_row ? part.bottom : part.right) = static_cast<int>(last) + 1;
        touched_ = enclosing(touched_, scan_edge(edge, box_of(part), sink_));
    }

    DashPattern pattern_;
    Box clip_;
    SpanSink sink_;
    double begin_ = 0.5;
    Box touched_;
};

// One path after the other: lines from point to point, each with the pattern from its beginning.
Box scan_path(std::span<const Point> path, bool closed, const Stroke& how, const Box& clip, const SpanSink& sink) {
    if (how.dash.empty()) return scan_lines(path, closed, clip, sink);
    DashedHairline dashed{how, clip, sink};
    for_each_line(path, closed, [&](Point a, Point b) { dashed.line(a, b); });
    return dashed.touched();
}

}  // namespace

Box scan_hairline(Point from, Point to, const Stroke& how, const Box& clip, const SpanSink& sink) {
    if (how.dash.empty()) return scan_edge(PointEdge::between(from, to), clip, sink);
    const auto ends = std::array{from, to};
    return scan_directly(0, sink, [&](const SpanSink& gather) { return scan_path(ends, false, how, clip, gather); });
}

LinePixels line_pixels(const PointEdge& edge) noexcept {
    const ShortEdge pixels{edge};
    return pixels.pixels({.first = 0, .last = pixels.along});
}

Box scan_hairline(std::span<const Point> path, bool closed, const Stroke& how, const Box& clip, const SpanSink& sink) {
    return scan_directly(path.size() * steps_of_line, sink,
                         [&](const SpanSink& gather) { return scan_path(path, closed, how, clip, gather); });
}

Box scan_hairline(const std::vector<std::vector<Point>>& rings, const Stroke& how, const Box& clip,
                  const SpanSink& sink) {
    std::uint64_t work = 0;
    for (const auto& ring : rings) work += ring.size() * steps_of_line;
    return scan_directly(work, sink, [&](const SpanSink& gather) {
        auto touched = Box{};
        for (const auto& ring : rings) touched = enclosing(touched, scan_path(ring, true, how, clip, gather));
        return touched;
    });
}

}  // namespace coldbrick::inline v0::detail
