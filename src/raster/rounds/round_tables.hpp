// The rows of round shapes and of the curves parallel to their edge, as tables.
#pragma once

#include "geometry/budget_memory.hpp"
#include "raster/edges/ellipse_geometry.hpp"
#include "raster/rows/ellipse_rows.hpp"
#include "raster/spans/runs.hpp"
#include "raster/strokes/stroker.hpp"

#include "coldbrick/stroke.hpp"

#include <algorithm>
#include <type_traits>
#include <utility>

namespace coldbrick::inline v0::detail {

// A box with corners of a radius.
struct CornerBox {
    Box box;
    int corner_radius = 0;
};

// Rows first to end - 1 of what is at most `distance` away from an ellipse's fill, or lies at least -distance inside
// it; distance 0 is the fill. Columns beyond right need not be exact.
void tabulate(const WholeEllipse& ellipse, int distance, const Window& rows, RunTable& table);

// The same for a rounded box. Corners of a box without corner radius are as the join says.
void tabulate(const CornerBox& shape, int distance, Join join, const Window& rows, RunTable& table);

// Memory for tables of some hundred rows.
using TableMemory = CallMemory<32768>;

// A band of whole widths.
struct WholeBand {
    int out;
    int in;

    explicit WholeBand(const Stroke& how) noexcept
        : out{static_cast<int>(Band{how}.out)}, in{static_cast<int>(Band{how}.in)} {}
};

// The pixels of one table that the other has not, cut by what cut.row(y) leaves of each row.
template <class Cut>
Box scan_between(const RunTable& outer, const RunTable& inner, const Cut& cut, const Box& clip, const SpanSink& sink) {
    SpanBatch batch{window_of(clip), sink};
    const auto begin = std::max(outer.top(), batch.window().top);
    const auto end = std::min(outer.bottom(), batch.window().bottom);
    struct Rows {
        const Run* runs;
        int top;
        int bottom;
    };
    const auto wholes = Rows{outer.data(), outer.top(), outer.bottom()};
    const auto holes = Rows{inner.data(), inner.top(), inner.bottom()};
    const auto parts = [=](int y) {
        const auto whole = wholes.runs[y - wholes.top];
        const auto is_beside = y < holes.top || y >= holes.bottom;
        const auto hole = is_beside ? Run{.left = 0, .right = 0} : holes.runs[y - holes.top];
        if (hole.left >= hole.right) return std::pair{whole, Run{.left = 0, .right = 0}};
        return std::pair{Run{.left = whole.left, .right = std::min(hole.left, whole.right)},
                         Run{.left = std::max(hole.right, whole.left), .right = whole.right}};
    };
    if constexpr (std::is_same_v<Cut, NoCut>) {
        batch.add_pairs(begin, end, parts);
    } else {
        batch.add_rows(begin, end, [&](int y, const auto& emit) {
            const auto allowed = cut.row(y);
            const auto [before, after] = parts(y);
            allowed.cut(before, emit);
            if (after.left < after.right) allowed.cut(after, emit);
            return true;
        });
    }
    return batch.finish();
}

}  // namespace coldbrick::inline v0::detail
