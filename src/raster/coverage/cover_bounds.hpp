// The box around what is covered, from how far its contours reach.
#pragma once

#include "raster/coverage/chains.hpp"
#include "raster/coverage/windings.hpp"
#include "raster/spans/window.hpp"

#include "coldbrick/geometry.hpp"

#include <functional>

namespace coldbrick::inline v0::detail {

// Returns the smallest box around the pixels that scan(window) finds of what finished chains enclose. scan returns the
// box around those in a part of the chains' window; it is asked for some rows and columns at the outermost places. If
// it finds none there in many rows, as of needles, the box is one that contains them.
[[nodiscard]] Box bounds_of_cover(const Chains& chains, const CoverRule& rule,
                                  const std::function<Box(const Window&)>& scan);

}  // namespace coldbrick::inline v0::detail
