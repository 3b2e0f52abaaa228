// Shapes that have one run of pixels in each row: filled, and their outline.
//
// Rows is a value with top() and bottom(), the rows from top to bottom - 1, and run(y) for each of these.
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

template <class Rows>
Box scan_inside(const Rows& rows, const Box& clip, const SpanSink& sink) {
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
