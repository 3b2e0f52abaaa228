// Reports the pixels that drawing calls touch.
#pragma once

#include "coldbrick/detail/span_sink.hpp"
#include "coldbrick/ink.hpp"
#include "coldbrick/pixels.hpp"

#include <cstddef>
#include <span>

namespace coldbrick::inline v0::detail {

class Observer {
  public:
    Observer() = default;
    Observer(const Observer&) = delete;
    Observer(Observer&&) = delete;
    Observer& operator=(const Observer&) = delete;
    Observer& operator=(Observer&&) = delete;
    virtual ~Observer() = default;

    // Whether one call may report a pixel twice.
    [[nodiscard]] virtual Repeats repeats() const noexcept = 0;

    // What is laid on the pixels that come, and, if it matters to the ink, the box around their shape.
    virtual void begin(const Ink& ink, const Box& shape) = 0;

    // Pixels on which ink has been laid: whole; as far as they are covered; one in each of some rows or columns.
    virtual void touched(std::span<const Span> spans) = 0;
    virtual void touched(std::span<const CoverSpan> spans) = 0;
    virtual void touched_down(const Trace& by_row) = 0;
    virtual void touched_across(const Trace& by_column) = 0;
};

// Reports each pixel once the sink has had it.
class Observed {
  public:
    Observed(const SpanSink& to, Observer& observer) noexcept : to_{to}, observer_{observer} {}

    // Of the same kind as the one it passes on to, while this lives.
    [[nodiscard]] SpanSink sink() noexcept;

  private:
    SpanSink to_;
    Observer& observer_;
};

// Calls take(rows) for the rows of a box, some at a time.
template <class Take>
void for_rows_of(const Box& box, const Take& take) {
    constexpr std::size_t at_once = 32;
    Span rows[at_once];
    const auto end = box.at.y + box.size.height;
    for (auto y = box.at.y; y < end;) {
        std::size_t count = 0;
        for (; count < at_once && y < end; ++y) rows[count++] = {.y = y, .x = box.at.x, .length = box.size.width};
        take(std::span<const Span>{rows, count});
    }
}

// Reports a painted box to the surface's observer, if there is one.
void report_box(const Surface& surface, const Box& box);

}  // namespace coldbrick::inline v0::detail
