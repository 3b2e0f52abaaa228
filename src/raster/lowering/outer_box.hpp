// A box that is proven to contain a geometry, however large, without drawing it.
#pragma once

#include "raster/lowering/geometries.hpp"
#include "raster/lowering/placement.hpp"

namespace coldbrick::inline v0::detail {

// A box around all pixels of a geometry that reaches so far beyond its edge, before it is placed.
[[nodiscard]] Box outer_box(const Geometry& geometry, double reach, const Placement& placement);

// The same of a geometry whose edge lies in a box of places, relative to an origin.
[[nodiscard]] Box outer_box(Point origin, const Surroundings& own, double reach, const Placement& placement);

}  // namespace coldbrick::inline v0::detail
