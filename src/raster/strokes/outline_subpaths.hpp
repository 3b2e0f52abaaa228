// The outlines of a set of pixels.
#pragma once

#include "raster/edges/subpath.hpp"

#include "coldbrick/budget.hpp"
#include "coldbrick/detail/span_sink.hpp"

namespace coldbrick::inline v0::detail {

// The edges of the pixels' squares that have pixels on one side only, as closed subpaths relative to an origin:
// clockwise around the set, counter-clockwise around its holes. Pixels that touch at a corner only have outlines of
// their own. The spans are sorted, and neither overlap nor touch.
[[nodiscard]] CountedVector<Subpath> outline_subpaths(std::span<const Span> spans, Point origin);

}  // namespace coldbrick::inline v0::detail
