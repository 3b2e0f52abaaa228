// What a polygon or polyline must have before it is drawn.
#pragma once

#include "coldbrick/shapes.hpp"

namespace coldbrick::inline v0::detail {

// At least one point, each within max_coordinate; else Error.
void check_polyline(const Polyline& polyline);

// At least one ring, in each at least one vertex, each vertex within max_coordinate; else Error.
void check_polygon(const Polygon& polygon);

}  // namespace coldbrick::inline v0::detail
