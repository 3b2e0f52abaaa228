// Forms to spans and coverage, where whole numbers do not define their pixels.
#pragma once

#include "raster/lowering/geometries.hpp"
#include "raster/lowering/placement.hpp"

namespace coldbrick::inline v0::detail {

// Hands the spans of a geometry, filled or stroked and placed, to the sink.
Box scan_geometry(const Geometry& geometry, const Fill& how, const Placement& placement, const Box& clip,
                  const SpanSink& sink);
Box scan_geometry(const Geometry& geometry, const Stroke& how, const Placement& placement, const Box& clip,
                  const SpanSink& sink);

// Of a clip that is larger than any picture, only what may have something of a geometry in it that reaches so far
// beyond its edge: a sweep goes over windows whose width is a number.
[[nodiscard]] Box seen_part(const Geometry& geometry, double reach, const Placement& placement, const Box& clip);

}  // namespace coldbrick::inline v0::detail
