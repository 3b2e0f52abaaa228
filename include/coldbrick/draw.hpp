// coldbrick/draw.hpp - the drawing calls: a region and an ink, on a bitmap or a view.
//
//     clear (chart, 0x0b2239_rgb);
//     fill  (chart, Circle{.center = {236, 148}, .radius = 34}, 0xe8b23a_rgb);
//     fill  (chart, star, {.rule = FillRule::nonzero}, colors::teal);
//     stroke(chart, Line{.from = {18, 431}, .to = {702, 377}}, colors::white);
//     mark  (chart, Point{9, 31}, colors::red);
//
// All of them: what lies off the buffer or outside the view's clip is left out, which is no error; each pixel
// is touched at most once; the box around the touched pixels is returned (empty where there are none). Error
// is thrown for what cannot be meant, and then nothing has been drawn. Nothing is remembered from one call to
// the next. Calls on different buffers may run at the same time; on one buffer, only if their clips have no
// byte in common.
#pragma once

#include "coldbrick/geometry.hpp"
#include "coldbrick/ink.hpp"
#include "coldbrick/pixels.hpp"
#include "coldbrick/shapes.hpp"
#include "coldbrick/spans.hpp"

namespace coldbrick {

namespace detail {

// Lays an ink on spans that lie inside the surface's clip.
class Painter {
  public:
    Painter(const Surface& surface, const Ink& ink) noexcept;
    [[nodiscard]] SpanReceiver receiver() noexcept;
    [[nodiscard]] const Box& clip() const noexcept { return surface_.clip; }

  private:
    void paint_opaque(std::span<const Span> spans) const noexcept;
    void blend(std::span<const Span> spans) const noexcept;

    Surface surface_;
    Color color_;
    std::uint8_t pattern_[64];  // the ink's pixel, over and over
};

Box mark(const Surface& surface, Point at, const Ink& ink);

}  // namespace detail

// Sets every pixel of the target (of a view: of its clip) to the colour. It replaces and never blends: with
// alpha below 255 the pixels become translucent where the format has alpha, and take the colour as it is
// where not.
template <Target T>
Box clear(T&& target, Color color) noexcept {
    const auto& surface = detail::SurfaceAccess::of(target);
    detail::clear(surface, color);
    return surface.clip;
}

// Lays the ink on one pixel.
template <Target T>
Box mark(T&& target, Point at, const Ink& ink) {
    return detail::mark(detail::SurfaceAccess::of(target), at, ink);
}

// Lays the ink on every pixel of an area: the inside of a Box, Circle, Ellipse or Polygon, or any filled() or
// stroked() one (spans.hpp).
template <Target T, class Area>
Box fill(T&& target, const Area& area, const Ink& ink) {
    detail::Painter painter{detail::SurfaceAccess::of(target), ink};
    return detail::scan(area, painter.clip(), painter.receiver());
}

// The same for a polygon with a fill rule or edges other than the usual.
template <Target T>
Box fill(T&& target, const Polygon& polygon, const Fill& how, const Ink& ink) {
    detail::Painter painter{detail::SurfaceAccess::of(target), ink};
    return detail::scan_fill(polygon, how, painter.clip(), painter.receiver());
}

// Lays the ink on the outline of a shape, one pixel wide: a Line, Polyline, Polygon, Box, Circle or Ellipse.
template <Target T, class Shape>
Box stroke(T&& target, const Shape& shape, const Ink& ink) {
    detail::Painter painter{detail::SurfaceAccess::of(target), ink};
    return detail::scan_stroke(shape, painter.clip(), painter.receiver());
}

}  // namespace coldbrick
