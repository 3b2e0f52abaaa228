// Fills and strokes of tracks.
#pragma once

#include "raster/edges/flat_path.hpp"
#include "raster/strokes/stroker.hpp"

#include "coldbrick/detail/span_receiver.hpp"
#include "coldbrick/fill.hpp"

namespace coldbrick::inline v0::detail {

// Width 1, with dashes or without.
Box scan_thin_tracks(const FlatPath& flat, const Stroke& how, const Box& clip, const SpanReceiver& receiver);

// Width 2 and more, by a pen.
Box scan_wide_tracks(const FlatPath& flat, const Pen& pen, const Stroke& how, const Box& clip,
                     const SpanReceiver& receiver);

// A fill; tracks count as closed.
Box scan_flat(const FlatPath& flat, const Fill& how, const Box& clip, const SpanReceiver& receiver);

// What lies inside; tracks count as closed.
Box scan_inside_tracks(const FlatPath& flat, FillRule rule, const Box& clip, const SpanReceiver& receiver);

}  // namespace coldbrick::inline v0::detail
