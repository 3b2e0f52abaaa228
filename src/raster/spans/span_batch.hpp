// From a rasteriser to a sink: spans, in the order of their rows, are clipped to columns, gathered,
// handed over some hundreds at a time, and the box around them is kept.
#pragma once

#include "raster/spans/window.hpp"

#include "coldbrick/budget.hpp"
#include "coldbrick/detail/span_sink.hpp"

#include <algorithm>
#include <limits>
#include <vector>

namespace coldbrick::inline v0::detail {

class SpanBatch {
  public:
    SpanBatch(const Window& window, const SpanSink& sink) noexcept : window_{window}, sink_{sink} {}

    // Columns left to right - 1 of a row inside the window, as far as they are inside the window; none if right <=
    // left.
    void add(int y, int left, int right) {
        left = std::max(left, window_.left);
        right = std::min(right, window_.right);
        if (left >= right) return;
        *room() = {.y = y, .x = left, .length = right - left};
        ++count_;
        left_ = std::min(left_, left);
        right_ = std::max(right_, right);
    }

    // The most spans that add_rows() takes for one row.
    static constexpr int most_in_row = 64;

    // The same for rows from y to end - 1: emit_row(y, emit) calls emit(left, right) for each span of the row, up to
    // most_in_row of them, and says whether to go on. Gives the row after the last one.
    template <class EmitRow>
    int add_rows(int y, int end, const EmitRow& emit_row) {
        const auto first_column = window_.left;
        const auto columns_end = window_.right;
        for (auto more = true; more && y < end;) {
            auto* next = room();
            auto* const full = spans_ + (capacity - most_in_row);
            auto least = left_;
            auto most = right_;
            while (more && y < end && next <= full) {
                const auto emit = [&](int left, int right) {
                    left = std::max(left, first_column);
                    right = std::min(right, columns_end);
                    if (left >= right) return;
                    *next++ = {.y = y, .x = left, .length = right - left};
                    least = std::min(least, left);
                    most = std::max(most, right);
                };
                more = emit_row(y, emit);
                ++y;
            }
            count_ = static_cast<std::size_t>(next - spans_);
            left_ = least;
            right_ = most;
        }
        return y;
    }

    // The same of two runs in each row, of which parts(y) gives the columns.
    template <class Parts>
    void add_pairs(int y, int end, const Parts& parts) {
        const auto window = window_;
        while (y < end) {
            auto* next = room();
            const auto rows = static_cast<int>((static_cast<std::size_t>(spans_ + capacity - next)) / 2);
            const auto stop = end - y > rows ? y + rows : end;
            auto least = left_;
            auto most = right_;
            const auto take = [&](int left, int right) {
                left = std::max(left, window.left);
                right = std::min(right, window.right);
                if (left >= right) return;
                *next++ = {.y = y, .x = left, .length = right - left};
                least = std::min(least, left);
                most = std::max(most, right);
            };
            for (; y < stop; ++y) {
                const auto [first, second] = parts(y);
                take(first.left, first.right);
                take(second.left, second.right);
            }
            count_ = static_cast<std::size_t>(next - spans_);
            left_ = least;
            right_ = most;
        }
    }

    // Hands over what is left, and returns the box around all spans.
    Box finish() {
        deliver();
        return box_of({.left = left_, .top = top_, .right = right_, .bottom = bottom_});
    }

    [[nodiscard]] const Window& window() const noexcept { return window_; }

  private:
    static constexpr std::size_t capacity = 4UL * most_in_row;

    // Where the next spans go: there is room for those of a row.
    Span* room() {
        if (count_ > capacity - most_in_row) deliver();
        return spans_ + count_;
    }

    void deliver();

    Window window_;
    SpanSink sink_;
    // The box around the spans so far; its rows, around those handed over.
    int left_ = std::numeric_limits<int>::max();
    int right_ = std::numeric_limits<int>::min();
    int top_ = 0;
    int bottom_ = 0;
    std::size_t count_ = 0;
    Span spans_[capacity];  // the first count_ are set
};

// Takes spans in any order, with repeats, and passes them on sorted, each pixel once.
class SpanMerger {
  public:
    // For the scans whose spans are to be merged.
    [[nodiscard]] SpanSink sink() noexcept;

    // Hands the merged spans to the sink and returns the box around them.
    Box pass_on(const SpanSink& sink);

  private:
    CountedVector<Span> spans_;
};

// Runs scan(sink), which reports spans in any order and with repeats. They are gathered and merged first: so each pixel
// comes once, and all memory that the scan needs it has before the first pixel is reported.
template <class Scan>
Box scan_merged(const SpanSink& sink, const Scan& scan) {
    SpanMerger merger;
    scan(merger.sink());
    return merger.pass_on(sink);
}

}  // namespace coldbrick::inline v0::detail
