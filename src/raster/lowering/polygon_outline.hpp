// The outlines of polygons and paths: of straight lines from point to point.
#pragma once

#include "raster/lowering/outline.hpp"

#include <memory>

namespace coldbrick::inline v0::detail {

// Lines of an outline's own, or those of a geometry.
using SharedLines = std::shared_ptr<const FlatPath>;
inline SharedLines lines_of(const FlatPath& of_form) noexcept { return {SharedLines{}, &of_form}; }

// What lies inside closed subpaths.
[[nodiscard]] Outline::Group inside_of(const SharedLines& lines, FillRule rule);

// A pen along subpaths, or around the edge of something.
[[nodiscard]] Outline::Group stroke_of(const SharedLines& lines, const Pen& pen, const Stroke& how);

// A pen around edges that do not cross: what they enclose, grown, without what is left of it shrunk.
[[nodiscard]] Outline stroke_beside(const SharedLines& edges, bool are_clockwise, const Pen& pen);

// A fill, and a stroke: of rings as rule 4 has it for polygons, and of lines beside them.
[[nodiscard]] Outline fill_polygonal(const LinesGeometry& geometry, const Fill& how, const Tolerance& tolerance);
[[nodiscard]] Outline stroke_polygonal(const LinesGeometry& geometry, const Stroke& how, const Tolerance& tolerance);

}  // namespace coldbrick::inline v0::detail
