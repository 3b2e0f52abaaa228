#include "raster/spans/span_sets.hpp"

#include "raster/spans/span_batch.hpp"

#include <algorithm>
#include <limits>

namespace coldbrick::inline v0::detail {

namespace {

// Goes along the ends of a row's spans: columns at which the set is entered or left.
class Ends {
  public:
    Ends(const Span* first, const Span* end) noexcept : at_{first}, end_{end} { look(); }

    // The next column, or one beyond all after the last.
    [[nodiscard]] std::int64_t next() const noexcept { return next_; }
    [[nodiscard]] bool inside() const noexcept { return inside_; }

    void advance() noexcept {
        if (inside_) ++at_;
        inside_ = !inside_;
        look();
    }

  private:
    void look() noexcept { next_ = at_ == end_ ? finished : std::int64_t{at_->x} + (inside_ ? at_->length : 0); }

    static constexpr auto finished = std::numeric_limits<std::int64_t>::max();
    const Span* at_;
    const Span* end_;
    std::int64_t next_ = finished;
    bool inside_ = false;
};

// The columns of a row for which keep(in a, in b).
template <class Keep>
void combine_row(int y, Ends in_a, Ends in_b, const Keep& keep, SpanSet& result) {
    auto begun = std::int64_t{0};
    auto kept = false;
    constexpr auto finished = std::numeric_limits<std::int64_t>::max();
    for (auto x = std::min(in_a.next(), in_b.next()); x != finished; x = std::min(in_a.next(), in_b.next())) {
        if (in_a.next() == x) in_a.advance();
        if (in_b.next() == x) in_b.advance();
        const auto keeps = keep(in_a.inside(), in_b.inside());
        if (keeps == kept) continue;
        if (keeps) {
            begun = x;
        } else {
            result.push_back({.y = y, .x = static_cast<int>(begun), .length = static_cast<int>(x - begun)});
        }
        kept = keeps;
    }
}

// Where a row's spans end.
const Span* end_of_row(const Span* at, const Span* end) noexcept {
    const auto y = at->y;
    while (at != end && at->y == y) ++at;
    return at;
}

// The set whose pixels are those for which keep(in a, in b).
template <class Keep>
SpanSet combine(std::span<const Span> a, std::span<const Span> b, const Keep& keep) {
    SpanSet result;
    spend_work(a.size() + b.size());
    result.reserve(std::max(a.size(), b.size()) + std::min(a.size(), b.size()) / 4);
    const auto* in_a = a.data();
    const auto* in_b = b.data();
    const auto* const end_a = in_a + a.size();
    const auto* const end_b = in_b + b.size();
    const auto alone = [&](const Span* from, const Span* to, bool is_kept) {
        if (is_kept) result.insert(result.end(), from, to);
        return to;
    };
    while (in_a != end_a && in_b != end_b) {
        if (in_a->y < in_b->y) {
            in_a = alone(in_a, end_of_row(in_a, end_a), keep(true, false));
        } else if (in_b->y < in_a->y) {
            in_b = alone(in_b, end_of_row(in_b, end_b), keep(false, true));
        } else {
            const auto* const next_a = end_of_row(in_a, end_a);
            const auto* const next_b = end_of_row(in_b, end_b);
            combine_row(in_a->y, {in_a, next_a}, {in_b, next_b}, keep, result);
            in_a = next_a;
            in_b = next_b;
        }
    }
    alone(in_a, end_a, keep(true, false));
    alone(in_b, end_b, keep(false, true));
    return result;
}

}  // namespace

SpanSet intersection_of(std::span<const Span> a, std::span<const Span> b) {
    return combine(a, b, [](bool in_a, bool in_b) { return in_a && in_b; });
}

SpanSet difference_of(std::span<const Span> a, std::span<const Span> b) {
    return combine(a, b, [](bool in_a, bool in_b) { return in_a && !in_b; });
}

SpanSet union_of(std::span<const Span> a, std::span<const Span> b) {
    return combine(a, b, [](bool in_a, bool in_b) { return in_a || in_b; });
}

SpanSet symmetric_difference_of(std::span<const Span> a, std::span<const Span> b) {
    return combine(a, b, [](bool in_a, bool in_b) { return in_a != in_b; });
}

Box box_around(std::span<const Span> spans) noexcept {
    if (spans.empty()) return {};
    auto left = spans.front().x;
    auto right = left;
    for (const auto& run : spans) {
        left = std::min(left, run.x);
        right = std::max(right, run.x + (run.length - 1));
    }
    return Box::between({.from = {.x = left, .y = spans.front().y}, .to = {.x = right, .y = spans.back().y}});
}

Box pass_on(const SpanSet& spans, const SpanSink& sink) {
    if (!spans.empty()) sink.take(sink.context, spans);
    return box_around(spans);
}

std::span<const Span> rows_of(std::span<const Span> spans, int first, int end) {
    const auto from = std::partition_point(spans.begin(), spans.end(), [=](const Span& run) { return run.y < first; });
    const auto to = std::partition_point(from, spans.end(), [=](const Span& run) { return run.y < end; });
    return {from, to};
}

namespace {

SpanSet moved_down(const SpanSet& spans, int rows) {
    auto moved = spans;
    for (auto& run : moved) run.y += rows;
    return moved;
}

SpanSet without_ends(const SpanSet& spans) {
    SpanSet shrunk;
    for (const auto& run : spans) {
        if (run.length > 2) shrunk.push_back({.y = run.y, .x = run.x + 1, .length = run.length - 2});
    }
    return shrunk;
}

}  // namespace

// The pixels of which one of the four neighbours lies outside.
Box scan_set_outline(std::span<const Span> spans, const Box& clip, const SpanSink& sink) {
    const auto window = window_of(clip);
    if (window.empty()) return {};
    constexpr auto least = std::numeric_limits<int>::min();
    const auto rows = rows_of(spans, std::max(window.top, least + 1) - 1, window.bottom);
    const auto below = rows_of(spans, window.bottom,
                               window.bottom == std::numeric_limits<int>::max() ? window.bottom : window.bottom + 1);
    SpanSet all{rows.begin(), rows.end()};
    all.insert(all.end(), below.begin(), below.end());
    const auto inner = intersection_of(without_ends(all), intersection_of(moved_down(all, 1), moved_down(all, -1)));
    SpanBatch batch{window, sink};
    for (const auto& run : difference_of(all, inner)) {
        if (run.y >= window.top && run.y < window.bottom) batch.add(run.y, run.x, run.x + run.length);
    }
    return batch.finish();
}

Box scan_set(std::span<const Span> spans, const Box& clip, const SpanSink& sink) {
    SpanBatch batch{window_of(clip), sink};
    if (batch.window().empty()) return {};
    for (const auto& run : rows_of(spans, batch.window().top, batch.window().bottom)) {
        batch.add(run.y, run.x, run.x + run.length);
    }
    return batch.finish();
}

}  // namespace coldbrick::inline v0::detail
