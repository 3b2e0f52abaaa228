// A box that is proven to contain a form, however large, without drawing it.
#pragma once

#include "raster/forms/forms.hpp"
#include "raster/forms/placement.hpp"

namespace coldbrick::inline v0::detail {

// A box around all pixels of a form that reaches so far beyond its edge, before it is placed.
[[nodiscard]] Box outer_box(const Form& form, double reach, const Placement& placement);

// The same of a form whose edge lies in a box of places, relative to an origin.
[[nodiscard]] Box outer_box(Point origin, const Surroundings& own, double reach, const Placement& placement);

}  // namespace coldbrick::inline v0::detail
