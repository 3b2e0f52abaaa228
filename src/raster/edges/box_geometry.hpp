// A box between true sides, with corners or without.
#pragma once

#include "coldbrick/geometry.hpp"

namespace coldbrick::inline v0::detail {

// A box with round corners, relative to an origin: its true sides.
struct BoxGeometry {
    Point origin;
    double left;
    double top;
    double right;
    double bottom;
    double corner_radius;
};

}  // namespace coldbrick::inline v0::detail
