// How much of each pixel lies inside contours: exact areas, to pixels' 255ths.
//
// Contours are cut into chains (chains.hpp). A sweep finds at which chains inside and outside change (chain_order.hpp).
// The areas to the right of these are summed up, row by row (cover_sums.hpp).
#pragma once

#include "raster/coverage/chains.hpp"
#include "raster/coverage/windings.hpp"

#include "coldbrick/detail/span_sink.hpp"

#include <array>
#include <cstddef>
#include <memory_resource>
#include <span>

namespace coldbrick::inline v0::detail {

// Memory for the contours of one drawing call: the first kilobytes of it are at hand.
using ContourMemory = CallMemory<16384>;

// Hands spans to a sink: one that takes only pixels gets those that have any coverage.
void take_cover(const SpanSink& sink, std::span<const CoverSpan> spans);

// Hands the coverage over, row by row, and returns the box around the pixels that have any. What throws has reported
// nothing.
Box scan_chains(Chains& chains, const CoverRule& rule, const SpanSink& sink, std::pmr::memory_resource* memory);

// The same of finished chains, in a part of their window.
Box scan_part(const Chains& chains, const Window& part, const CoverRule& rule, const SpanSink& sink);

// The same of a contour that goes clockwise and does not meet itself: what lies inside.
Box scan_simple_chains(Chains& chains, const SpanSink& sink, std::pmr::memory_resource* memory);

}  // namespace coldbrick::inline v0::detail
