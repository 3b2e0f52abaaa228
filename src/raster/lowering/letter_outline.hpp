// What a round pen covers along lines: the letters that it draws.
#pragma once

#include "raster/lowering/outline.hpp"

namespace coldbrick::inline v0::detail {

// A round pen of that radius along lines, whose ends are the middles of its own.
[[nodiscard]] Outline::Group pen_group(const FlatPath& lines, double radius);

// A stroke around what the pen of letters covers. Throws Error for dashes.
[[nodiscard]] Outline stroke_of_pen(const LettersGeometry& geometry, const Stroke& how);

// What either of two outlines from one origin covers.
[[nodiscard]] Outline either(Outline a, Outline b);

}  // namespace coldbrick::inline v0::detail
