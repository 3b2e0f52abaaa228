// The outlines of parts of circles and ellipses: in the directions of a turn.
#pragma once

#include "raster/lowering/outline.hpp"

#include <optional>

namespace coldbrick::inline v0::detail {

// What one group covers more than another within it.
[[nodiscard]] Outline nested(Point origin, Outline::Group outer, Outline::Group inner);

// The directions of a turn, as far as a reach.
[[nodiscard]] Outline::Group wedge_of(const EllipseGeometry& geometry, const Turn& turn, double reach);

// The part of what lies within a curve beside an ellipse that is in the directions of a turn.
[[nodiscard]] Outline::Group sector_of(const EllipseGeometry& geometry, double distance, const Turn& turn);

// Whether a curve beside an ellipse is followed as a whole.
[[nodiscard]] bool is_followed(const EllipseGeometry& geometry, double distance) noexcept;

// A smooth stroke of a part of a circle, or of an ellipse without caps: what its outer side's sector has more than the
// inner side's, and caps that lie beside each other. Nothing where the inner side has no radius, where caps may meet,
// and around circles so large that only what is seen of them is followed.
[[nodiscard]] std::optional<Outline> stroke_of_round_arc(const ArcGeometry& arc, const Turn& turn, const Stroke& how);

}  // namespace coldbrick::inline v0::detail
