// The ways to find the spans of each shape, and the boxes around them, as area_scans.cpp chooses among them.
#pragma once

#include "coldbrick/spans.hpp"

namespace coldbrick::detail {

// Each hands the shape's spans inside the clip to the receiver, and returns the smallest box around them.
Box scan_fill(const Box& shape, const Box& clip, const SpanReceiver& receiver);
Box scan_fill(const Circle& shape, const Box& clip, const SpanReceiver& receiver);
Box scan_fill(const Ellipse& shape, const Box& clip, const SpanReceiver& receiver);
Box scan_fill(const RoundedBox& shape, const Box& clip, const SpanReceiver& receiver);
Box scan_fill(const Sector& shape, const Box& clip, const SpanReceiver& receiver);
Box scan_fill(const Chord& shape, const Box& clip, const SpanReceiver& receiver);
Box scan_fill(const Polygon& shape, const Fill& how, const Box& clip, const SpanReceiver& receiver);
Box scan_fill(const Path& shape, const Fill& how, const Box& clip, const SpanReceiver& receiver);
Box scan_fill(const Region& shape, const Box& clip, const SpanReceiver& receiver);
Box scan_fill(const VertexList& shape, const Box& clip, const SpanReceiver& receiver);
Box scan_fill(const VertexElement& shape, const Box& clip, const SpanReceiver& receiver);
Box scan_stroke(const Line& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver);
Box scan_stroke(const Polyline& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver);
Box scan_stroke(const Polygon& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver);
Box scan_stroke(const Box& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver);
Box scan_stroke(const Circle& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver);
Box scan_stroke(const Ellipse& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver);
Box scan_stroke(const RoundedBox& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver);
Box scan_stroke(const Arc& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver);
Box scan_stroke(const Sector& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver);
Box scan_stroke(const Chord& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver);
Box scan_stroke(const Path& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver);
Box scan_stroke(const Region& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver);
Box scan_stroke(const VertexList& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver);
Box scan_stroke(const VertexElement& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver);

// The smallest box around a fill.
Box fill_bounds(const Box& shape);
Box fill_bounds(const Circle& shape);
Box fill_bounds(const Ellipse& shape);
Box fill_bounds(const RoundedBox& shape);
Box fill_bounds(const Sector& shape);
Box fill_bounds(const Chord& shape);
Box fill_bounds(const Region& shape);
Box fill_bounds(const VertexList& shape);
Box fill_bounds(const Polygon& shape, const Fill& how);
Box fill_bounds(const Path& shape, const Fill& how);

// The smallest box around a stroke.
Box stroke_bounds(const Line& shape, const Stroke& how);
Box stroke_bounds(const Polyline& shape, const Stroke& how);
Box stroke_bounds(const Polygon& shape, const Stroke& how);
Box stroke_bounds(const Box& shape, const Stroke& how);
Box stroke_bounds(const Circle& shape, const Stroke& how);
Box stroke_bounds(const Ellipse& shape, const Stroke& how);
Box stroke_bounds(const RoundedBox& shape, const Stroke& how);
Box stroke_bounds(const Arc& shape, const Stroke& how);
Box stroke_bounds(const Sector& shape, const Stroke& how);
Box stroke_bounds(const Chord& shape, const Stroke& how);
Box stroke_bounds(const Path& shape, const Stroke& how);
Box stroke_bounds(const Region& shape, const Stroke& how);
Box stroke_bounds(const VertexList& shape, const Stroke& how);

// The same for shapes with smooth edges, under a transform, or between the pixels; and the smallest box around them.
Box scan_figure(const ShapeRef& shape, const Fill& how, const Transform& by, const Box& clip,
                const SpanReceiver& receiver);
Box scan_figure(const ShapeRef& shape, const Stroke& how, const Transform& by, const Box& clip,
                const SpanReceiver& receiver);
Box figure_bounds(const ShapeRef& shape, const Fill& how, const Transform& by);
Box figure_bounds(const ShapeRef& shape, const Stroke& how, const Transform& by);

// Throws Error for what a fill may not have.
void check_fill(const Fill& how);

}  // namespace coldbrick::detail
