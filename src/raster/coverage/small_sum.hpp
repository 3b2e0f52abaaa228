// The coverage of small shapes of few edges, in memory of their own.
#pragma once

#include "raster/coverage/cover.hpp"

#include <optional>

namespace coldbrick::inline v0::detail {

// Hands the coverage over if nothing but areas has to be added up (rule.clockwise), and all edges lie within the window
// in a box of up to 64x64 pixels; gives the box around the pixels that have any. Takes no memory: what throws has told
// nothing.
std::optional<Box> sum_small_coverage(const CoverEdges& edges, const CoverRule& rule, const SpanReceiver& receiver);

}  // namespace coldbrick::inline v0::detail
