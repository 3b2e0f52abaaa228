// Sets of pixels as lists of spans, sorted by row and column, which neither overlap nor touch.
#pragma once

#include "coldbrick/budget.hpp"
#include "coldbrick/detail/span_sink.hpp"

#include <vector>

namespace coldbrick::inline v0::detail {

using SpanSet = CountedVector<Span>;

// What is in both; in the first but not in the second; in either; in one of them only. Time and memory grow with the
// number of spans.
[[nodiscard]] SpanSet intersection_of(std::span<const Span> a, std::span<const Span> b);
[[nodiscard]] SpanSet difference_of(std::span<const Span> a, std::span<const Span> b);
[[nodiscard]] SpanSet union_of(std::span<const Span> a, std::span<const Span> b);
[[nodiscard]] SpanSet symmetric_difference_of(std::span<const Span> a, std::span<const Span> b);

// The smallest box around them.
[[nodiscard]] Box box_around(std::span<const Span> spans) noexcept;

// Hands them over; gives the box around them.
Box pass_on(const SpanSet& spans, const SpanSink& sink);

// What scan(sink) reports in order, each pixel once.
template <class Scan>
[[nodiscard]] SpanSet spans_of(const Scan& scan) {
    SpanSet spans;
    const auto gather = [](void* context, std::span<const Span> more) {
        auto& gathered = *static_cast<SpanSet*>(context);
        gathered.insert(gathered.end(), more.begin(), more.end());
    };
    scan(SpanSink{.context = &spans, .take = gather, .repeats = Repeats::never});
    return spans;
}

// Of sorted spans, those in the rows first to end - 1; those inside the clip; the pixels of which one of the four
// neighbours is in none of them.
[[nodiscard]] std::span<const Span> rows_of(std::span<const Span> spans, int first, int end);
Box scan_set(std::span<const Span> spans, const Box& clip, const SpanSink& sink);
Box scan_set_outline(std::span<const Span> spans, const Box& clip, const SpanSink& sink);

}  // namespace coldbrick::inline v0::detail
