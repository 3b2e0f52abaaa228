// coldbrick/prepared_ink.hpp - an ink made ready for pixels of a format: what it sets there, and what becomes of those
// below, is found out once for many calls.
//
//     const PreparedInk shade{chart, Ink{colors::teal, {.blend = Blend::multiply}}};
//     for (int x = 9; x < 90; x += 9) fill(chart, Circle{.center = {x, 40}, .radius = 3}, shade);
//
// The pixels are those that the ink itself gives. On other pixels of the same format it serves as well, on an Index8
// buffer as long as the palette has the same entries; Error is thrown for pixels of another format or palette. What a
// Drawing keeps is the ink. Copies share what does not change; calls from several threads may share one.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/draw.hpp"

#include <type_traits>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

class PreparedInk;

namespace detail {

// paint/prepared.hpp
class ReadyInk;

Shared<ReadyInk> ready_ink(const Target& target, const Ink& ink);
const Ink& ink_of(const Shared<ReadyInk>& ready) noexcept;

// Throws Error for pixels of another format or palette.
void check_ready(const Target& target, const Shared<ReadyInk>& ready);

// Lay it on the area, or on a pixel. Throw Error for pixels of another format or palette.
Box paint(const Surface& surface, const Shared<ReadyInk>& ready, const AreaRef& area);
Box mark(const Surface& surface, Point at, const Shared<ReadyInk>& ready);

// An argument that is a prepared ink itself.
template <class T>
concept Prepared = std::is_same_v<T, PreparedInk>;

}  // namespace detail

class PreparedInk {
  public:
    // Throws Error for an ink that such pixels cannot take.
    template <detail::PixelTarget T>
    PreparedInk(const T& target, const Ink& ink) : ready_{detail::ready_ink(detail::SurfaceAccess::of(target), ink)} {}

    [[nodiscard]] const Ink& ink() const noexcept { return detail::ink_of(ready_); }

    // For the calls below.
    [[nodiscard]] const detail::Shared<detail::ReadyInk>& ready() const noexcept { return ready_; }

  private:
    detail::Shared<detail::ReadyInk> ready_;
};

// The calls of draw.hpp.
template <detail::DrawnOn T, class Area, detail::Prepared P>
Box fill(T&& target, const Area& area, const P& ink, SourcePlace where = SourcePlace::current()) {
    if constexpr (!detail::PixelTarget<T>) {
        return fill(target, area, ink.ink(), where);
    } else {
        detail::check_is_area<Area>();
        return detail::paint(detail::SurfaceAccess::of(target), ink.ready(), detail::as_area(area));
    }
}

template <detail::DrawnOn T, class Shape, detail::Prepared P>
Box fill(T&& target, const Shape& shape, const Fill& how, const P& ink, SourcePlace where = SourcePlace::current()) {
    if constexpr (!detail::PixelTarget<T>) {
        return fill(target, shape, how, ink.ink(), where);
    } else {
        detail::check_is_fillable<Shape>();
        return detail::paint(detail::SurfaceAccess::of(target), ink.ready(), detail::area_ref(shape, how));
    }
}

template <detail::DrawnOn T, class Shape, detail::Prepared P>
Box fill(T&& target, const Shape& shape, Edge edge, const P& ink, SourcePlace where = SourcePlace::current()) {
    return fill(target, shape, Fill{.edge = edge}, ink, where);
}

template <detail::DrawnOn T, class Shape, detail::Prepared P>
Box stroke(T&& target, const Shape& shape, const Stroke& how, const P& ink,
           SourcePlace where = SourcePlace::current()) {
    if constexpr (!detail::PixelTarget<T>) {
        return stroke(target, shape, how, ink.ink(), where);
    } else {
        detail::check_is_strokable<Shape>();
        return detail::paint(detail::SurfaceAccess::of(target), ink.ready(), detail::area_ref(shape, how));
    }
}

template <detail::DrawnOn T, class Shape, detail::Prepared P>
Box stroke(T&& target, const Shape& shape, const P& ink, SourcePlace where = SourcePlace::current()) {
    return stroke(target, shape, Stroke{}, ink, where);
}

template <detail::DrawnOn T, class Shape, detail::Prepared P>
Box stroke(T&& target, const Shape& shape, Edge edge, const P& ink, SourcePlace where = SourcePlace::current()) {
    return stroke(target, shape, Stroke{.edge = edge}, ink, where);
}

template <detail::DrawnOn T, detail::Prepared P>
Box mark(T&& target, Point at, const P& ink, SourcePlace where = SourcePlace::current()) {
    if constexpr (!detail::PixelTarget<T>) {
        return mark(target, at, ink.ink(), where);
    } else {
        return detail::mark(detail::SurfaceAccess::of(target), at, ink.ready());
    }
}

}  // namespace v0
}  // namespace coldbrick
