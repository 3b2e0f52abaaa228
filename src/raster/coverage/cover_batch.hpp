// From the sweeps of coverage to a sink: stretches of rows, in order, are clipped to columns, gathered,
// handed over some at a time, and the box around them is kept.
#pragma once

#include "raster/coverage/cover.hpp"

#include <algorithm>
#include <array>
#include <limits>

namespace coldbrick::inline v0::detail {

class CoverBatch {
  public:
    CoverBatch(const Window& window, const SpanSink& sink) noexcept : window_{window}, sink_{sink} {}

    [[nodiscard]] const Window& window() const noexcept { return window_; }

    // Columns left to right - 1 of a row inside the window, all covered alike.
    void add_alike(int y, int left, int right, std::uint8_t all) {
        left = std::max(left, window_.left);
        right = std::min(right, window_.right);
        if (all == 0 || left >= right) return;
        make_room(0);
        push({.y = y, .x = left, .length = right - left, .each = nullptr, .all = all});
    }

    // Columns from left on, each covered by its own byte. The bytes are kept until finish().
    void add_kept(int y, int left, const std::uint8_t* each, int count) {
        auto right = std::min(left + count, window_.right);
        auto begin = std::max(left, window_.left);
        // The box is around what is covered.
        while (begin < right && each[right - left - 1] == 0) --right;
        while (begin < right && each[begin - left] == 0) ++begin;
        if (begin >= right) return;
        make_room(0);
        push({.y = y, .x = begin, .length = right - begin, .each = each + (begin - left), .all = 255});
    }

    // Columns in the window, of which set(bytes) sets the bytes that they are covered by. There may be up to most_set.
    static constexpr int most_set = 1024;
    template <class Set>
    void add_set(int y, int left, int count, const Set& set) {
        make_room(count);
        auto* const bytes = bytes_.data() + used_;
        set(bytes);
        auto begin = 0;
        while (count > 0 && bytes[count - 1] == 0) --count;
        while (begin < count && bytes[begin] == 0) ++begin;
        used_ += count;
        if (begin < count)
            push({.y = y, .x = left + begin, .length = count - begin, .each = bytes + begin, .all = 255});
    }

    // Hands over what is left, and returns the box around all that is covered.
    Box finish() {
        deliver();
        return box_of({.left = left_, .top = top_, .right = right_, .bottom = bottom_});
    }

  private:
    static constexpr std::size_t capacity = 96;
    static constexpr int most_bytes = 2048;

    void make_room(int bytes) {
        if (count_ == capacity || used_ + bytes > most_bytes) deliver();
    }

    void push(const CoverSpan& span) noexcept {
        left_ = std::min(left_, span.x);
        right_ = std::max(right_, span.x + span.length);
        spans_[count_++] = span;
    }

    void deliver() {
        if (count_ == 0) return;
        if (bottom_ == top_) top_ = spans_[0].y;
        bottom_ = spans_[count_ - 1].y + 1;
        take_cover(sink_, {spans_.data(), count_});
        count_ = 0;
        used_ = 0;
    }

    Window window_;
    SpanSink sink_;
    int left_ = std::numeric_limits<int>::max();
    int right_ = std::numeric_limits<int>::min();
    int top_ = 0;
    int bottom_ = 0;
    std::size_t count_ = 0;
    int used_ = 0;
    std::array<CoverSpan, capacity> spans_;       // the first count_ are set
    std::array<std::uint8_t, most_bytes> bytes_;  // that they are covered by: the first used_ are set
};

}  // namespace coldbrick::inline v0::detail
