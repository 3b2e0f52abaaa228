// Rows of what is cut out of ellipses: several runs in a row.
#pragma once

#include "raster/edges/half_plane.hpp"
#include "raster/rounds/round_tables.hpp"
#include "shapes/checks.hpp"
#include "shapes/closed_strokes.hpp"
#include "shapes/round_shapes.hpp"

#include <algorithm>

namespace coldbrick::inline v0::detail {

// The rows of an ellipse's fill, one more than the clip on either side, for outlines.
class EllipseTable {
  public:
    EllipseTable(const WholeEllipse& ellipse, int distance, const Box& clip) : table_{&memory_} {
        auto rows = window_of(clip);
        --rows.top;
        ++rows.bottom;
        tabulate(ellipse, distance, rows, table_);
    }
    [[nodiscard]] const RunTable& rows() const noexcept { return table_; }

  private:
    TableMemory memory_;
    RunTable table_;
};

template <class Rows>
Box scan_runs(const Rows& rows, const Box& clip, const SpanSink& sink) {
    SpanBatch batch{window_of(clip), sink};
    const auto begin = std::max(rows.top(), batch.window().top);
    const auto end = std::min(rows.bottom(), batch.window().bottom);
    batch.add_rows(begin, end, [&](int y, const auto& emit) {
        for (const auto& [left, right] : rows.runs(y)) emit(left, right);
        return true;
    });
    return batch.finish();
}

// The pixels that have one of their four neighbours outside.
template <class Rows>
Box scan_runs_outline(const Rows& rows, const Box& clip, const SpanSink& sink) {
    SpanBatch batch{window_of(clip), sink};
    const auto begin = std::max(rows.top(), batch.window().top);
    const auto end = std::min(rows.bottom(), batch.window().bottom);
    if (begin >= end) return {};
    auto above = rows.runs(begin - 1);
    auto here = rows.runs(begin);
    batch.add_rows(begin, end, [&](int y, const auto& emit) {
        const auto below = rows.runs(y + 1);
        for (const auto& [left, right] : here - (here.shrunk() & above & below)) emit(left, right);
        above = here;
        here = below;
        return true;
    });
    return batch.finish();
}

// The fill, or the stroke, of a closed shape with a sweep, by its rows.
template <class Rows, class Shape>
Box scan_stroke_by_rows(const Shape& shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    const auto scan_hairline_of = [&](const SpanSink& gather) {
        return scan_runs_outline(Rows{shape, clip}, clip, gather);
    };
    if (is_hairline(how)) return scan_hairline_of(sink);
    return scan_along_edges(shape, how, clip, sink, scan_hairline_of);
}

}  // namespace coldbrick::inline v0::detail
