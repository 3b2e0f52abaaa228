// Fills and strokes of subpaths.
#pragma once

#include "raster/edges/flat_path.hpp"
#include "raster/strokes/stroker.hpp"

#include "coldbrick/detail/span_sink.hpp"
#include "coldbrick/fill.hpp"

namespace coldbrick::inline v0::detail {

// Width 1, with dashes or without.
Box scan_thin_subpaths(const FlatPath& flat, const Stroke& how, const Box& clip, const SpanSink& sink);

// Width 2 and more, by a pen.
Box scan_wide_subpaths(const FlatPath& flat, const Pen& pen, const Stroke& how, const Box& clip, const SpanSink& sink);

// A fill; subpaths count as closed.
Box scan_flat(const FlatPath& flat, const Fill& how, const Box& clip, const SpanSink& sink);

// What lies inside; subpaths count as closed.
Box scan_inside_subpaths(const FlatPath& flat, FillRule rule, const Box& clip, const SpanSink& sink);

}  // namespace coldbrick::inline v0::detail
