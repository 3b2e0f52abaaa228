// A box that is proven to contain a shape, however large, without drawing it.
#pragma once

#include "raster/placement.hpp"

#include "coldbrick/spans.hpp"

namespace coldbrick::detail {

// A box around all pixels of a shape that reaches so far beyond its edge, before it is placed. Throws Error for what a
// shape may not be.
[[nodiscard]] Box outer_box(const ShapeRef& shape, double reach, const Placement& placement);

// Whether it is made of straight lines alone.
[[nodiscard]] bool is_straight(const ShapeRef& shape) noexcept;

}  // namespace coldbrick::detail
