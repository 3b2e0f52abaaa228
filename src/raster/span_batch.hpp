// The way from a rasteriser to a receiver: spans are clipped to columns, gathered, handed over some hundreds at a time,
// and the box around them is kept.
#pragma once

#include <algorithm>
#include <limits>
#include <vector>

#include "coldbrick/spans.hpp"
#include "raster/window.hpp"

namespace coldbrick::detail {

class SpanBatch {
  public:
    SpanBatch(const Window& window, const SpanReceiver& receiver) noexcept : window_{window}, receiver_{receiver} {}

    // Columns left to right - 1 of a row inside the window, as far as they are inside the window; none if right <= left.
    void add(int y, int left, int right) {
        add_inside(y, std::max(left, window_.left), std::min(right, window_.right));
    }

    // The same for columns that are known to be inside the window.
    void add_inside(int y, int left, int right) {
        if (left >= right) return;
        spans_[count_++] = {.y = y, .x = left, .length = right - left};
        if (count_ == capacity) deliver();
    }

    // Hands over what is left, and returns the box around all spans.
    Box finish() {
        deliver();
        return box_of(touched_);
    }

    [[nodiscard]] const Window& window() const noexcept { return window_; }

  private:
    static constexpr std::size_t capacity = 256;

    void deliver();

    Window window_;
    SpanReceiver receiver_;
    Window touched_{.left = std::numeric_limits<int>::max(),
                    .top = std::numeric_limits<int>::max(),
                    .right = std::numeric_limits<int>::min(),
                    .bottom = std::numeric_limits<int>::min()};
    std::size_t count_ = 0;
    Span spans_[capacity];
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
