// Small upright circles, ellipses and rounded boxes with smooth edges, and their strokes, in one opaque colour.
#pragma once

#include "coldbrick/detail/area_ref.hpp"
#include "coldbrick/pixels.hpp"

#include <optional>

namespace coldbrick::inline v0::detail {

// Lays the colour on the area, and gives the box that was touched: the same pixels as the general path. Nothing if it
// is no such shape, or not all of it lies in the surface. There may be no observer and no clip.
std::optional<Box> paint_smooth_round(const Surface& surface, Color color, const AreaRef& area);
std::optional<Box> paint_smooth_ring(const Surface& surface, Color color, const AreaRef& area);

// Whether the second one can be for such strokes.
[[nodiscard]] bool is_usual_smooth_stroke(const Stroke& how) noexcept;

}  // namespace coldbrick::inline v0::detail
