// What each shape has, in a source of its own, as area_scans.cpp chooses from it.
//
// Every shape is lowered by geometry_of, which checks it. A shape in whole pixels may know its crisp pixels exactly as
// well (scan_fill, scan_stroke), and the box around them (fill_bounds, stroke_bounds, which need not check anything;
// nothing where it must be searched).
#pragma once

#include "raster/lowering/geometries.hpp"
#include "raster/rounds/round_cover.hpp"

#include "coldbrick/detail/area_ref.hpp"
#include "coldbrick/lettering.hpp"
#include "coldbrick/region.hpp"
#include "coldbrick/vertices.hpp"

#include <optional>

namespace coldbrick::inline v0::detail {

// The geometry of a shape, with curves in so much detail. Throws Error for what the shape may not be.
template <class Number>
Geometry geometry_of(const BasicBox<Number>& shape, const Tolerance& tolerance);
template <class Number>
Geometry geometry_of(const BasicRoundedBox<Number>& shape, const Tolerance& tolerance);
template <class Number>
Geometry geometry_of(const BasicCircle<Number>& shape, const Tolerance& tolerance);
template <class Number>
Geometry geometry_of(const BasicEllipse<Number>& shape, const Tolerance& tolerance);
template <class Number>
Geometry geometry_of(const BasicRing<Number>& shape, const Tolerance& tolerance);
template <class Number>
Geometry geometry_of(const BasicSector<Number>& shape, const Tolerance& tolerance);
template <class Number>
Geometry geometry_of(const BasicChord<Number>& shape, const Tolerance& tolerance);
template <class Number>
Geometry geometry_of(const BasicArc<Number>& shape, const Tolerance& tolerance);
template <class Number>
Geometry geometry_of(const BasicLine<Number>& shape, const Tolerance& tolerance);
template <class Number>
Geometry geometry_of(const BasicPolyline<Number>& shape, const Tolerance& tolerance);
template <class Number>
Geometry geometry_of(const BasicPolygon<Number>& shape, const Tolerance& tolerance);
Geometry geometry_of(const Path& shape, const Tolerance& tolerance);
Geometry geometry_of(const Region& shape, const Tolerance& tolerance);
Geometry geometry_of(const Lettering& shape, const Tolerance& tolerance);
Geometry geometry_of(const VertexList& shape, const Tolerance& tolerance);
Geometry geometry_of(const VertexElement& shape, const Tolerance& tolerance);

// Each hands the shape's spans inside the clip to the sink, and returns the smallest box around them. Throws Error
// for what the shape may not be.
Box scan_fill(const Box& shape, const Box& clip, const SpanSink& sink);
Box scan_fill(const RoundedBox& shape, const Box& clip, const SpanSink& sink);
Box scan_fill(const Circle& shape, const Box& clip, const SpanSink& sink);
Box scan_fill(const Ellipse& shape, const Box& clip, const SpanSink& sink);
Box scan_fill(const Ring& shape, const Box& clip, const SpanSink& sink);
Box scan_fill(const Sector& shape, const Box& clip, const SpanSink& sink);
Box scan_fill(const Chord& shape, const Box& clip, const SpanSink& sink);
Box scan_fill(const Polygon& shape, const Fill& how, const Box& clip, const SpanSink& sink);
Box scan_fill(const Path& shape, const Fill& how, const Box& clip, const SpanSink& sink);
Box scan_fill(const Region& shape, const Box& clip, const SpanSink& sink);
Box scan_fill(const VertexList& shape, const Box& clip, const SpanSink& sink);
Box scan_fill(const VertexElement& shape, const Box& clip, const SpanSink& sink);
Box scan_stroke(const Box& shape, const Stroke& how, const Box& clip, const SpanSink& sink);
Box scan_stroke(const RoundedBox& shape, const Stroke& how, const Box& clip, const SpanSink& sink);
Box scan_stroke(const Circle& shape, const Stroke& how, const Box& clip, const SpanSink& sink);
Box scan_stroke(const Ellipse& shape, const Stroke& how, const Box& clip, const SpanSink& sink);
Box scan_stroke(const Ring& shape, const Stroke& how, const Box& clip, const SpanSink& sink);
Box scan_stroke(const Sector& shape, const Stroke& how, const Box& clip, const SpanSink& sink);
Box scan_stroke(const Chord& shape, const Stroke& how, const Box& clip, const SpanSink& sink);
Box scan_stroke(const Arc& shape, const Stroke& how, const Box& clip, const SpanSink& sink);
Box scan_stroke(const Line& shape, const Stroke& how, const Box& clip, const SpanSink& sink);
Box scan_stroke(const Polyline& shape, const Stroke& how, const Box& clip, const SpanSink& sink);
Box scan_stroke(const Polygon& shape, const Stroke& how, const Box& clip, const SpanSink& sink);
Box scan_stroke(const Path& shape, const Stroke& how, const Box& clip, const SpanSink& sink);
Box scan_stroke(const Region& shape, const Stroke& how, const Box& clip, const SpanSink& sink);
Box scan_stroke(const VertexList& shape, const Stroke& how, const Box& clip, const SpanSink& sink);
Box scan_stroke(const VertexElement& shape, const Stroke& how, const Box& clip, const SpanSink& sink);

// An upright round shape of whole pixels. Throws Error for what the shape may not be.
std::optional<RoundPart> round_part(const RoundedBox& shape);
std::optional<RoundPart> round_part(const Circle& shape);
std::optional<RoundPart> round_part(const Ellipse& shape);

// The smallest box around a fill or a stroke, of a shape that has been checked.
std::optional<Box> fill_bounds(const Box& shape);
std::optional<Box> fill_bounds(const RoundedBox& shape);
std::optional<Box> fill_bounds(const Circle& shape);
std::optional<Box> fill_bounds(const Ellipse& shape);
std::optional<Box> fill_bounds(const Polygon& shape, const Fill& how);
std::optional<Box> fill_bounds(const Region& shape);
std::optional<Box> stroke_bounds(const Box& shape, const Stroke& how);
std::optional<Box> stroke_bounds(const RoundedBox& shape, const Stroke& how);
std::optional<Box> stroke_bounds(const Circle& shape, const Stroke& how);
std::optional<Box> stroke_bounds(const Ellipse& shape, const Stroke& how);
std::optional<Box> stroke_bounds(const Line& shape, const Stroke& how);
std::optional<Box> stroke_bounds(const Polyline& shape, const Stroke& how);
std::optional<Box> stroke_bounds(const Polygon& shape, const Stroke& how);
std::optional<Box> stroke_bounds(const Region& shape, const Stroke& how);

}  // namespace coldbrick::inline v0::detail
