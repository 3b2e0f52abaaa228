// coldbrick/draw.hpp - the drawing calls: a region and an ink, on a bitmap or a view.
//
//     clear (chart, 0x0b2239_rgb);
//     fill  (chart, Circle{.center = {236, 148}, .radius = 34}, 0xe8b23a_rgb);
//     fill  (chart, star, {.rule = FillRule::nonzero}, colors::teal);
//     stroke(chart, Line{.from = {18, 431}, .to = {702, 377}}, colors::white);
//     stroke(chart, Circle{.center = {236, 148}, .radius = 52}, {.width = 6}, 0xfff1c9_rgb);
//     fill  (chart, moon, Edge::smooth, Hatch{.spacing = 6});                      // pattern.hpp, gradient.hpp
//     fill  (chart, transformed(stroked(star, pen), Transform{}.turn(30_deg)), Ink{gold, {.blend = Blend::screen}});
//     mark  (chart, Point{9, 31}, colors::red);
//
// All of them: what lies off the buffer or outside the view's clip is left out, which is no error; each pixel is
// touched at most once; the box around the touched pixels is returned (empty where there are none). Error is thrown
// for what cannot be meant, and then nothing has been drawn. A Drawing (drawing.hpp) takes the same calls and remembers
// them, with the place in the source that made each; the box returned is then that of all pixels, wherever they lie.
// Nothing is remembered from one call to the next. Calls on different buffers may run at the same time; on one buffer,
// only if their clips have no byte in common.
#pragma once

#include "coldbrick/detail/mistakes.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/geometry.hpp"
#include "coldbrick/ink.hpp"
#include "coldbrick/pixels.hpp"
#include "coldbrick/shapes.hpp"
#include "coldbrick/source_place.hpp"
#include "coldbrick/spans.hpp"
#include "coldbrick/stroke.hpp"

#include <type_traits>
#include <utility>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

namespace detail {

// Lays the ink on the spans that the scan finds inside the surface's clip.
Box paint(const Surface& surface, const Ink& ink, const AreaRef& area);

Box mark(const Surface& surface, Point at, const Ink& ink);

}  // namespace detail

// Sets every pixel of the target (of a view: of its clip) to the colour. It replaces and never blends: with alpha
// below 255 the pixels become translucent where the format has alpha, and take the colour as it is where not.
template <detail::DrawnOn T>
Box clear(T&& target, Color color, SourcePlace where = SourcePlace::current()) {
    detail::check_is_target<T>();
    if constexpr (detail::Recorder<T>) {
        return target.recorder().clear(color, where);
    } else if constexpr (Target<T>) {
        const auto& surface = detail::SurfaceAccess::of(target);
        detail::clear(surface, color);
        return surface.window;
    }
}

// The same with an entry of the palette of an Index8 buffer. Throws Error if there is none.
template <detail::PixelTarget T>
Box clear(T&& target, PaletteEntry entry) {
    const auto& surface = detail::SurfaceAccess::of(target);
    detail::paint(surface, Ink{Ink{entry}, {.blend = Blend::replace}}, detail::area_ref(surface.window));
    return surface.window;
}

// Lays the ink on one pixel.
template <detail::DrawnOn T>
Box mark(T&& target, Point at, const Ink& ink, SourcePlace where = SourcePlace::current()) {
    detail::check_is_target<T>();
    if constexpr (detail::Recorder<T>) {
        return target.recorder().area(Box{.at = at, .size = {.width = 1, .height = 1}}, ink, where);
    } else if constexpr (Target<T>) {
        return detail::mark(detail::SurfaceAccess::of(target), at, ink);
    }
}

// Lays the ink on every pixel of an area: the inside of a Box, Circle, Ellipse or Polygon, or any filled() or
// stroked() one (spans.hpp).
template <detail::DrawnOn T, class Area>
Box fill(T&& target, const Area& area, const Ink& ink, SourcePlace where = SourcePlace::current()) {
    detail::check_is_target<T>();
    detail::check_is_area<Area>();
    if constexpr (detail::Recorder<T> && detail::AnyArea<Area>) {
        return target.recorder().area(area, ink, where);
    } else if constexpr (Target<T> && detail::AnyArea<Area>) {
        return detail::paint(detail::SurfaceAccess::of(target), ink, detail::as_area(area));
    }
}

// The same with smooth edges, and of a Polygon or Path with a fill rule or edges other than the usual.
template <detail::DrawnOn T, class Shape>
Box fill(T&& target, const Shape& shape, const Fill& how, const Ink& ink, SourcePlace where = SourcePlace::current()) {
    detail::check_is_target<T>();
    detail::check_is_fillable<Shape>();
    if constexpr (detail::Recorder<T> && detail::FillableAnywhere<Shape>) {
        return target.recorder().area(detail::area_of(shape, how), ink, where);
    } else if constexpr (Target<T> && detail::FillableAnywhere<Shape>) {
        return detail::paint(detail::SurfaceAccess::of(target), ink, detail::area_ref(shape, how));
    }
}

// Lays the ink on the stroke of a shape, by a pen as stroke.hpp describes it. Of a transformed() shape, the pen is
// transformed with it, as that of a stroked() one is.
template <detail::DrawnOn T, class Shape>
Box stroke(T&& target, const Shape& shape, const Stroke& how, const Ink& ink,
           SourcePlace where = SourcePlace::current()) {
    detail::check_is_target<T>();
    detail::check_is_strokable<Shape>();
    if constexpr (detail::Recorder<T> && detail::Strokable<Shape>) {
        return target.recorder().area(detail::area_of(shape, how), ink, where);
    } else if constexpr (Target<T> && detail::Strokable<Shape>) {
        return detail::paint(detail::SurfaceAccess::of(target), ink, detail::area_ref(shape, how));
    }
}

// The same with the usual pen: one pixel wide, the outline that fits the fill.
template <detail::DrawnOn T, class Shape>
Box stroke(T&& target, const Shape& shape, const Ink& ink, SourcePlace where = SourcePlace::current()) {
    return stroke(target, shape, Stroke{}, ink, where);
}

// The usual fill and pen with other edges: fill(chart, moon, Edge::smooth, gold).
template <detail::DrawnOn T, class Shape>
Box fill(T&& target, const Shape& shape, Edge edge, const Ink& ink, SourcePlace where = SourcePlace::current()) {
    return fill(target, shape, Fill{.edge = edge}, ink, where);
}
template <detail::DrawnOn T, class Shape>
Box stroke(T&& target, const Shape& shape, Edge edge, const Ink& ink, SourcePlace where = SourcePlace::current()) {
    return stroke(target, shape, Stroke{.edge = edge}, ink, where);
}

}  // namespace v0
}  // namespace coldbrick
