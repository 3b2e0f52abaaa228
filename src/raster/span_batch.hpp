// The way from a rasteriser to a receiver: spans, in the order of their rows, are clipped to columns, gathered,
// handed over some hundreds at a time, and the box around them is kept.
#pragma once

#include "raster/window.hpp"

#include "coldbrick/spans.hpp"

#include <algorithm>
#include <limits>
#include <vector>

namespace coldbrick::detail {

class SpanBatch {
  public:
    SpanBatch(const Window& window, const SpanReceiver& receiver) noexcept : window_{window}, receiver_{receiver} {}

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

    // The same for each row from first to last, with run_of(y) giving left and right.
    template <class RunOf>
    void add_rows(int first, int last, const RunOf& run_of) {
        while (first <= last) {
            const auto end = last - first < chunk ? last : first + (chunk - 1);
            add_chunk(first, end, run_of);
            first = end + 1;
        }
    }

    // Hands over what is left, and returns the box around all spans.
    Box finish() {
        deliver();
        return box_of({.left = left_, .top = top_, .right = right_, .bottom = bottom_});
    }

    [[nodiscard]] const Window& window() const noexcept { return window_; }

  private:
    static constexpr int chunk = 64;
    static constexpr std::size_t capacity = 4UL * chunk;

    template <class RunOf>
    void add_chunk(int first, int last, const RunOf& run_of) {
        auto* const begin = room();
        auto* end = begin;
        auto least = left_;
        auto most = right_;
        for (auto y = first; y <= last; ++y) {
            const auto run = run_of(y);
            const auto left = std::max(run.left, window_.left);
            const auto right = std::min(run.right, window_.right);
            *end = {.y = y, .x = left, .length = right - left};
            if (left >= right) continue;
            ++end;
            least = std::min(least, left);
            most = std::max(most, right);
        }
        count_ = static_cast<std::size_t>(end - spans_);
        left_ = least;
        right_ = most;
    }

    // Where the next spans go: there is room for a chunk of them.
    Span* room() {
        if (count_ > capacity - chunk) deliver();
        return spans_ + count_;
    }

    void deliver();

    Window window_;
    SpanReceiver receiver_;
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
    [[nodiscard]] SpanReceiver receiver() noexcept;

    // Hands the merged spans to the receiver and returns the box around them.
    Box pass_on(const SpanReceiver& receiver);

  private:
    std::vector<Span> spans_;
};

}  // namespace coldbrick::detail
