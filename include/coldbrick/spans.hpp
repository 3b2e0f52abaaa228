// coldbrick/spans.hpp - the pixels of a shape, without any buffer: spans, bounds, membership.
//
//     for_each_span(Circle{.center = {64, 48}, .radius = 20}, clip, [&](const Span& run) { ... });
//     for_each_span(stroked(Line{.from = {0, 0}, .to = {9, 4}}), clip, [&](const Span& run) { ... });
//     Box  around = bounds(stroked(Circle{.center = {64, 48}, .radius = 20}, {.width = 6}));
//     bool hit    = contains(filled(star, {.rule = FillRule::nonzero}), Point{70, 41});
//
// An area is what these functions, and fill() of draw.hpp, accept: a Box, RoundedBox, Circle, Ellipse, Sector, Chord,
// Polygon or Path (its interior and edges), a filled() polygon or path, or a stroked() shape. Drawing an area touches
// exactly the pixels that are told here.
#pragma once

#include "coldbrick/geometry.hpp"
#include "coldbrick/path.hpp"
#include "coldbrick/shapes.hpp"
#include "coldbrick/stroke.hpp"

#include <cstdint>
#include <span>
#include <type_traits>
#include <utility>

namespace coldbrick {

// The pixels of row y in columns x to x + length - 1.
struct Span {
    int y;
    int x;
    int length;
    friend constexpr bool operator==(const Span&, const Span&) = default;
};

// A polygon or path and how it is filled, as one area. Made by filled().
struct Filled {
    Polygon polygon;
    Fill how;
};
struct FilledPath {
    Path path;
    Fill how;
};

// The stroke of a shape as an area. Made by stroked().
template <class Shape>
struct Stroked {
    Shape shape;
    Stroke how;
};

[[nodiscard]] inline Filled filled(Polygon polygon, const Fill& how) {
    return {.polygon = std::move(polygon), .how = how};
}

[[nodiscard]] inline FilledPath filled(Path path, const Fill& how) { return {.path = std::move(path), .how = how}; }

template <class Shape>
[[nodiscard]] Stroked<Shape> stroked(Shape shape, const Stroke& how = {}) {
    return {.shape = std::move(shape), .how = how};
}

class Region;
struct VertexList;

namespace detail {

struct VertexElement;

// Whether a receiver of spans may be told of a pixel twice.
enum class Repeats { harmless, never };

// One pixel in each of consecutive rows (or columns) from the first on. The k-th of count lies in the column (or row)
// that is the whole part of (place + k * step) / 2^32.
struct Trace {
    int first;
    int count;
    std::int64_t place;
    std::int64_t step;
};

// Who takes the spans: called with up to some hundreds of them at a time.
struct SpanReceiver {
    void* context;
    void (*take)(void* context, std::span<const Span> spans);
    Repeats repeats;
    // Take what of a hairline lies inside the clip without making spans of it. Null: as spans. Only where repeats are
    // harmless.
    void (*take_down)(void* context, const Trace& by_row) = nullptr;
    void (*take_across)(void* context, const Trace& by_column) = nullptr;
};

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

// The same for any area.
template <class Shape>
Box scan(const Shape& shape, const Box& clip, const SpanReceiver& receiver) {
    return scan_fill(shape, clip, receiver);
}
inline Box scan(const Polygon& shape, const Box& clip, const SpanReceiver& receiver) {
    return scan_fill(shape, Fill{}, clip, receiver);
}
inline Box scan(const Path& shape, const Box& clip, const SpanReceiver& receiver) {
    return scan_fill(shape, Fill{}, clip, receiver);
}
inline Box scan(const FilledPath& area, const Box& clip, const SpanReceiver& receiver) {
    return scan_fill(area.path, area.how, clip, receiver);
}
inline Box scan(const Filled& area, const Box& clip, const SpanReceiver& receiver) {
    return scan_fill(area.polygon, area.how, clip, receiver);
}
template <class Shape>
Box scan(const Stroked<Shape>& area, const Box& clip, const SpanReceiver& receiver) {
    return scan_stroke(area.shape, area.how, clip, receiver);
}

}  // namespace detail

// Calls visit(const Span&) for each span of the area inside the clip, and returns the smallest box around them (empty
// where there are none). Spans come sorted by y, then x; they neither overlap nor touch, so each pixel comes once.
// The time grows with what is inside the clip, not with the size of the shape. Throws Error as drawing the area
// would, before the first visit; an exception out of visit goes through.
template <class Area, class Visit>
Box for_each_span(const Area& area, const Box& clip, Visit&& visit) {
    using Called = std::remove_reference_t<Visit>;
    const auto take = [](void* context, std::span<const Span> spans) {
        auto& call = *static_cast<Called*>(context);
        for (const auto& run : spans) call(run);
    };
    auto* context = const_cast<void*>(static_cast<const void*>(&visit));
    return detail::scan(area, clip, {.context = context, .take = take, .repeats = detail::Repeats::never});
}

// The smallest box around all pixels of the area, wherever they lie; empty where it has none. Throws Error as drawing
// the area would. Boxes, rounded boxes, circles, ellipses that are not turned, and their strokes take no time;
// polygons, and strokes of lines and polygons, time in proportion to the number of vertices. All others (shared edges,
// turned ellipses, sectors, chords, arcs, dashes, polygons aligned inside or outside) may look at all rows of a shape.
[[nodiscard]] Box bounds(const Box& shape);
[[nodiscard]] Box bounds(const Circle& shape);
[[nodiscard]] Box bounds(const Ellipse& shape);
[[nodiscard]] Box bounds(const RoundedBox& shape);
[[nodiscard]] Box bounds(const Sector& shape);
[[nodiscard]] Box bounds(const Chord& shape);
[[nodiscard]] Box bounds(const Polygon& shape);
[[nodiscard]] Box bounds(const Filled& area);
[[nodiscard]] Box bounds(const Path& shape);
[[nodiscard]] Box bounds(const FilledPath& area);
[[nodiscard]] Box bounds(const Region& region);
[[nodiscard]] Box bounds(const VertexList& list);
template <class Shape>
[[nodiscard]] Box bounds(const Stroked<Shape>& area) {
    return detail::stroke_bounds(area.shape, area.how);
}

// Whether the pixel belongs to the area: whether drawing it would touch the pixel, on a large enough buffer. Throws
// Error as drawing the area would.
template <class Area>
[[nodiscard]] bool contains(const Area& area, Point pixel) {
    return !for_each_span(area, Box{.at = pixel, .size = {.width = 1, .height = 1}}, [](const Span&) {}).empty();
}

}  // namespace coldbrick
