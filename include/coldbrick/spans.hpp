// coldbrick/spans.hpp - the pixels of a shape, without any buffer: spans, bounds, membership.
//
//     for_each_span(Circle{.center = {64, 48}, .radius = 20}, clip, [&](const Span& run) { sum += run.length; });
//     for_each_span(stroked(Line{.from = {0, 0}, .to = {9, 4}}), clip, [&](const Span& run) { sum += run.length; });
//     Box  around = bounds(stroked(Circle{.center = {64, 48}, .radius = 20}, {.width = 6}));
//     bool hit    = contains(filled(star, {.rule = FillRule::nonzero}), Point{70, 41});
//
// An area is what these functions, and fill() of draw.hpp, accept: a Box, RoundedBox, Circle, Ellipse, Sector, Chord,
// Polygon or Path (its interior and edges), Region or VertexList, a shape of one's own, a filled() or stroked() shape,
// any of them transformed(), or a Figure (figure.hpp). Drawing an area touches exactly these pixels;
// of one with smooth edges those that it covers by 1/510 or more of their area.
//
// A type of one's own is a shape for all verbs if there is, in its namespace, a function that gives its outline, as a
// path in fractional coordinates:
//
//     fill(chart, Burgee{.hoist = {40, 12}, .length = 30, .drop = 16}, {.edge = Edge::smooth}, gold);
//
//     struct Burgee {
//         Position hoist;
//         double length;
//         double drop;
//     };
//     Path outline(const Burgee& flag) {
//         const auto& [x, y] = flag.hoist;
//         return Path{}.move(flag.hoist).line({x + flag.length, y + flag.drop / 2}).line({x, y + flag.drop}).close();
//     }
//
// or one that gives its spans in a clip, std::vector<Span> spans(const Shoal& shoal, const Box& clip): sorted by y,
// then x, without overlaps or touching ones; what lies outside of the clip is left out. They are asked for in the clip
// of the call, or, where a stroke, smooth edges, a transform or bounds need the whole shape, in a box of all
// coordinates. Error is thrown for spans in another order.
#pragma once

#include "coldbrick/detail/area_ref.hpp"
#include "coldbrick/detail/public.hpp"

#include <span>
#include <type_traits>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// Calls visit(const Span&) for each span of the area inside the clip, and returns the smallest box around them (empty
// where there are none). Spans come sorted by y, then x; they neither overlap nor touch, so each pixel comes once.
// The time grows with what is inside the clip, not with the size of the shape. Throws Error as drawing the area
// would, before the first visit; an exception out of visit goes through.
template <class Area, class Visit>
Box for_each_span(const Area& area, const Box& clip, Visit&& visit) {
    detail::check_is_area<Area>();
    if constexpr (detail::AnyArea<Area>) {
        using Called = std::remove_reference_t<Visit>;
        const auto take = [](void* context, std::span<const Span> spans) {
            auto& call = *static_cast<Called*>(context);
            for (const auto& run : spans) call(run);
        };
        auto* context = const_cast<void*>(static_cast<const void*>(&visit));
        return detail::scan(detail::as_area(area), detail::within_numbers(clip),
                            {.context = context, .take = take, .repeats = detail::Repeats::never});
    }
}

// The smallest box around all pixels of the area, wherever they lie; empty where it has none. Throws Error as drawing
// the area would. Boxes, rounded boxes, circles, ellipses that are not turned, and their strokes take no time;
// polygons, and strokes of lines and polygons, time in proportion to the number of vertices. All others (shared edges,
// turned ellipses, sectors, chords, arcs, dashes, polygons aligned inside or outside) may look at all rows of a shape.
template <class Area>
[[nodiscard]] Box bounds(const Area& area) {
    detail::check_is_area<Area>();
    if constexpr (detail::AnyArea<Area>) return detail::bounds_of(detail::as_area(area));
}

// Whether the pixel belongs to the area: whether drawing it would touch the pixel, on a large enough buffer. Throws
// Error as drawing the area would.
template <class Area>
[[nodiscard]] bool contains(const Area& area, Point pixel) {
    return !for_each_span(area, Box{.at = pixel, .size = {.width = 1, .height = 1}}, [](const Span&) {}).empty();
}

}  // namespace v0
}  // namespace coldbrick
