// Shapes that have one run of pixels in each row: filled, and their outline.
//
// Rows is a value with top() and bottom(), the rows from top to bottom - 1, and run(y) for each of these. If it also
// has columns(), what lies within a clip is not clipped row by row.
#pragma once

#include "raster/spans/span_batch.hpp"

#include <algorithm>

namespace coldbrick::inline v0::detail {

// The pixels of a row from left to right - 1; none if right <= left.
struct Run {
    int left;
    int right;
};

// A cut that leaves everything.
struct NoCut {
    struct Row {
        template <class Emit>
        void cut(const Run& run, const Emit& emit) const {
            emit(run.left, run.right);
        }
    };
    [[nodiscard]] static Row row(int) noexcept { return {}; }
};

// A box.
class BoxRows {
  public:
    explicit BoxRows(const Box& box) noexcept : box_{box} {}
    [[nodiscard]] int top() const noexcept { return box_.at.y; }
    [[nodiscard]] int bottom() const noexcept { return box_.at.y + box_.size.height; }
    [[nodiscard]] Run columns() const noexcept { return {.left = box_.at.x, .right = box_.at.x + box_.size.width}; }
    [[nodiscard]] Run run(int) const noexcept { return columns(); }

  private:
    Box box_;
};

// Rows that all lie within the clip.
template <class Rows>
Box scan_unclipped(const Rows& rows, const SpanSink& sink) {
    constexpr auto at_once = 64;
    Span spans[at_once];
    const auto top = rows.top();
    const auto end = rows.bottom();
    for (auto y = top; y < end;) {
        const auto count = std::min(at_once, end - y);
        for (auto i = 0; i < count; ++i, ++y) {
            const auto [left, right] = rows.run(y);
            spans[i] = {.y = y, .x = left, .length = right - left};
        }
        sink.take(sink.context, {spans, static_cast<std::size_t>(count)});
    }
    const auto [left, right] = rows.columns();
    return {.at = {.x = left, .y = top}, .size = {.width = right - left, .height = end - top}};
}

template <class Rows>
Box scan_inside(const Rows& rows, const Box& clip, const SpanSink& sink) {
    if constexpr (requires { rows.columns(); }) {
        const auto columns = rows.columns();
        if (is_within(Window{columns.left, rows.top(), columns.right, rows.bottom()}, clip)) {
            return scan_unclipped(rows, sink);
        }
    }
    SpanBatch batch{window_of(clip), sink};
    const auto first = std::max(rows.top(), batch.window().top);
    const auto end = std::min(rows.bottom(), batch.window().bottom);
    batch.add_rows(first, end, [&](int y, const auto& emit) {
        const auto run = rows.run(y);
        emit(run.left, run.right);
        return true;
    });
    return batch.finish();
}

// The pixels that have one of their four neighbours outside (rule 3 of docs/pixel-rules.md), cut by what cut.row(y)
// leaves of each row.
template <class Rows, class Cut = NoCut>
Box scan_outline(const Rows& rows, const Box& clip, const SpanSink& sink, const Cut& cut = {}) {
    SpanBatch batch{window_of(clip), sink};
    const auto begin = std::max(rows.top(), batch.window().top);
    const auto end = std::min(rows.bottom(), batch.window().bottom);
    if (begin >= end) return {};
    constexpr auto nothing = Run{.left = 0, .right = 0};
    auto above = begin > rows.top() ? rows.run(begin - 1) : nothing;
    auto here = rows.run(begin);
    batch.add_rows(begin, end, [&](int y, const auto& emit) {
        const auto allowed = cut.row(y);
        const auto below = y + 1 < rows.bottom() ? rows.run(y + 1) : nothing;
        const auto inner = Run{.left = std::max({here.left + 1, above.left, below.left}),
                               .right = std::min({here.right - 1, above.right, below.right})};
        if (inner.left < inner.right) {
            allowed.cut({.left = here.left, .right = inner.left}, emit);
            allowed.cut({.left = inner.right, .right = here.right}, emit);
        } else {
            allowed.cut(here, emit);
        }
        above = here;
        here = below;
        return true;
    });
    return batch.finish();
}

}  // namespace coldbrick::inline v0::detail
