// The rows of circles and ellipses.
#pragma once

#include "raster/convex_rows.hpp"

#include "coldbrick/shapes.hpp"

namespace coldbrick::detail {

// The box around a circle. Throws Error for a centre or radius out of range.
Box checked_box(const Circle& circle);

}  // namespace coldbrick::detail
