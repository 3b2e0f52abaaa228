// Clips that are more than a box: regions, crisp and smooth.
#pragma once

#include "coldbrick/draw.hpp"
#include "coldbrick/region.hpp"
#include "coldbrick/smooth_region.hpp"

#include <vector>

namespace coldbrick::inline v0::detail {

// Scans an area as far as the surface's clip and masks show it, and tells its witness.
Box scan_masked(const Surface& surface, const AreaRef& area, const SpanReceiver& receiver);

}  // namespace coldbrick::inline v0::detail
