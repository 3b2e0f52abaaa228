// Lines one pixel wide between pixels.
#pragma once

#include "raster/rows/edge_rows.hpp"

#include "coldbrick/detail/span_sink.hpp"
#include "coldbrick/stroke.hpp"

#include <span>
#include <vector>

namespace coldbrick::inline v0::detail {

// With dashes or without: one line; from each point to the next, and if closed from the last to the first; rings.
Box scan_hairline(Point from, Point to, const Stroke& how, const Box& clip, const SpanSink& sink);
Box scan_hairline(std::span<const Point> path, bool closed, const Stroke& how, const Box& clip, const SpanSink& sink);
Box scan_hairline(const std::vector<std::vector<Point>>& rings, const Stroke& how, const Box& clip,
                  const SpanSink& sink);

// The pixels of a hairline, one in each row if it is steep, else one in each column, and the box around them.
struct LinePixels {
    Trace trace;
    bool is_steep;
    Box box;
};

// Those of a line of up to short_extent rows and columns, all of it.
[[nodiscard]] LinePixels line_pixels(const PointEdge& edge) noexcept;

}  // namespace coldbrick::inline v0::detail
