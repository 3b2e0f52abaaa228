// Calls that cannot be meant as they are written: each does not compile, and says what to write.
#pragma once

#include "coldbrick/detail/area_ref.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/ink.hpp"
#include "coldbrick/pixels.hpp"
#include "coldbrick/source_place.hpp"

#include <concepts>
#include <cstddef>
#include <initializer_list>
#include <type_traits>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

class PreparedInk;

namespace detail {

// Anything. An array of it takes a list in braces whose fields have no such names (in GNU C++ alone); in the place of a
// shape, it makes the call worse than any that is right.
struct Anything {
    template <class Given>
    Anything(const Given&) noexcept;
};

template <class T>
concept InkLike = std::convertible_to<T, Ink> || std::same_as<std::remove_cvref_t<T>, PreparedInk>;
template <class T>
concept TextLike = std::convertible_to<T, const char*> && !std::is_null_pointer_v<std::remove_cvref_t<T>>;
template <class T>
concept NumberLike = std::is_arithmetic_v<std::remove_cvref_t<T>>;
template <class T>
concept HowLike = std::same_as<std::remove_cvref_t<T>, Fill> || std::same_as<std::remove_cvref_t<T>, Stroke> ||
    std::same_as<std::remove_cvref_t<T>, Edge>;
template <class T>
concept PlaceLike = std::same_as<std::remove_cvref_t<T>, SourcePlace>;
template <class T>
concept AreaLike = AnyArea<std::remove_cvref_t<T>> || AnyShape<std::remove_cvref_t<T>>;

// Whether one of the arguments is something to draw on, or its address: other functions of these names are none of
// ours.
template <class... Given>
concept HaveTarget = (DrawnOn<std::remove_pointer_t<std::remove_cvref_t<Given>>> || ...);

// Says what is wrong with a target, if it is none.
template <class T>
consteval void explain_target() {
    if constexpr (std::is_pointer_v<std::remove_cvref_t<T>>) {
        static_assert(never<T>, "the target is given by its address: write the bitmap or view itself, without &");
    } else if constexpr (!DrawnOn<T>) {
        static_assert(never<T>, "the target comes first: fill(chart, shape, ink), stroke(chart, shape, pen, ink)");
    }
}

// Says what is wrong with what is given as ink.
template <class I>
consteval void explain_ink() {
    if constexpr (TextLike<I>) {
        static_assert(never<I>, "a text is no ink: write colors::red, 0xff0000_rgb or parse_color(\"red\")");
    } else if constexpr (NumberLike<I>) {
        static_assert(never<I>, "a number is no ink: write 0xff0000_rgb, gray(128), or PaletteEntry{3} on Index8");
    } else if constexpr (requires(const I& function) { function(0, 0); }) {
        static_assert(never<I>,
                      "a function as ink takes the pixel as one Point: [](Point pixel) { return Color{...}; }");
    } else if constexpr (HowLike<I>) {
        static_assert(never<I>, "how it is drawn comes before the ink: fill(chart, shape, Edge::smooth, ink)");
    } else if constexpr (AreaLike<I>) {
        static_assert(never<I>, "the ink comes last: fill(chart, shape, ink)");
    } else {
        static_assert(never<I>,
                      "an ink is a colour such as colors::red or 0xff0000_rgb, a gradient, a pattern, a "
                      "picture, or a function Color(Point)");
    }
}

// Says what is wrong with how something is drawn.
template <class H>
consteval void explain_how() {
    if constexpr (InkLike<H>) {
        static_assert(never<H>,
                      "the ink comes last: fill(chart, shape, Edge::smooth, ink), stroke(chart, shape, pen, ink)");
    } else if constexpr (NumberLike<H>) {
        static_assert(never<H>, "a number is no pen: write {.width = 3}");
    } else {
        static_assert(never<H>,
                      "how it is drawn is a Fill such as {.rule = FillRule::nonzero}, a pen such as {.width = 3}, "
                      "or Edge::smooth");
    }
}

// The arguments after the target of calls that are right, as far as braces do not matter.
template <class T, class A, class I>
concept RightFill = DrawnOn<T> && InkLike<I>;
template <class T, class A, class H, class I>
concept RightHow = DrawnOn<T> &&((HowLike<H> && InkLike<I>) || (InkLike<H> && PlaceLike<I>));

template <class T, class A, class H, class I>
consteval void explain_call() {
    if constexpr (DrawnOn<T>) {
        if constexpr (!HowLike<H> && !(InkLike<H> && PlaceLike<I>)) {
            explain_how<H>();
        } else {
            explain_ink<I>();
        }
    } else {
        explain_target<T>();
    }
}
template <class T, class A, class I>
consteval void explain_call() {
    if constexpr (DrawnOn<T>) {
        explain_ink<I>();
    } else {
        explain_target<T>();
    }
}

}  // namespace detail

// fill() and stroke() as they are not written.
template <class T, class A>
requires detail::HaveTarget<T, A>
void fill(T&&, const A&) {
    if constexpr (!detail::DrawnOn<T>) {
        detail::explain_target<T>();
    } else if constexpr (detail::InkLike<A>) {
        static_assert(detail::never<T>, "fill() takes a shape and an ink; clear(chart, colour) sets all pixels");
    } else {
        static_assert(detail::never<T>, "an ink is missing: fill(chart, shape, ink)");
    }
}
template <class T, class A>
requires detail::HaveTarget<T, A>
void stroke(T&&, const A&) { static_assert(detail::never<T>, "an ink is missing: stroke(chart, shape, pen, ink)"); }
template <class T, class A, class I>
requires(detail::HaveTarget<T, A, I> && !detail::RightFill<T, A, I>) void fill(T&&, const A&, const I&) {
    detail::explain_call<T, A, I>();
}
template <class T, class A, class I>
requires(detail::HaveTarget<T, A, I> && !detail::RightFill<T, A, I>) void stroke(T&&, const A&, const I&) {
    if constexpr (detail::DrawnOn<T> && detail::HowLike<I>) {
        static_assert(detail::never<T>, "an ink is missing: stroke(chart, shape, pen, ink)");
    } else {
        detail::explain_call<T, A, I>();
    }
}
template <class T, class A>
requires detail::HaveTarget<T, A>
void fill(T&&, const A&, const Fill&) {
    static_assert(detail::never<T>, "an ink is missing: fill(chart, shape, {.rule = FillRule::nonzero}, ink)");
}
template <class T, class A>
requires detail::HaveTarget<T, A>
void stroke(T&&, const A&, const Stroke&) {
    static_assert(detail::never<T>, "an ink is missing: stroke(chart, shape, {.width = 3}, ink)");
}
template <class T, class A>
requires detail::HaveTarget<T, A>
void fill(T&&, const A&, std::initializer_list<int>) {
    static_assert(detail::never<T>, "numbers in braces are no ink: write Color{255, 0, 0}, or 0xff0000_rgb");
}
template <class T, class A>
requires detail::HaveTarget<T, A>
void stroke(T&&, const A&, std::initializer_list<int>) {
    static_assert(detail::never<T>, "numbers in braces are no ink: write Color{255, 0, 0}, or 0xff0000_rgb");
}
template <class T, class A, class H, class I>
requires(detail::HaveTarget<T, A, H, I> && !detail::RightHow<T, A, H, I>) void fill(T&&, const A&, const H&, const I&) {
    detail::explain_call<T, A, H, I>();
}
template <class T, class A, class H, class I>
requires(detail::HaveTarget<T, A, H, I> && !detail::RightHow<T, A, H, I>) void stroke(T&&, const A&, const H&,
                                                                                      const I&) {
    detail::explain_call<T, A, H, I>();
}
// With braces for how it is drawn.
template <class T, class A, class I>
requires(detail::HaveTarget<T, A, I> && !detail::RightHow<T, A, Fill, I>) void fill(T&&, const A&, const Fill&,
                                                                                    const I&) {
    detail::explain_call<T, A, Fill, I>();
}
template <class T, class A, class I>
requires(detail::HaveTarget<T, A, I> && !detail::RightHow<T, A, Stroke, I>) void stroke(T&&, const A&, const Stroke&,
                                                                                        const I&) {
    detail::explain_call<T, A, Stroke, I>();
}
template <class T, class A, detail::InkLike I>
requires detail::HaveTarget<T, A>
void fill(T&&, const A&, const I&, const Fill&) {
    static_assert(detail::never<T>, "the ink comes last: fill(chart, shape, {.edge = Edge::smooth}, ink)");
}
template <class T, class A, detail::InkLike I>
requires detail::HaveTarget<T, A>
void stroke(T&&, const A&, const I&, const Stroke&) {
    static_assert(detail::never<T>, "the ink comes last: stroke(chart, shape, {.width = 3}, ink)");
}
#if !defined(__clang__)
template <detail::DrawnOn T, std::size_t n>
void fill(T&&, const detail::Anything&, const detail::Anything (&)[n], const Ink&) {
    static_assert(detail::never<T>, "the fields of a fill are rule, edges and edge: {.edge = Edge::smooth}");
}
template <detail::DrawnOn T, std::size_t n>
void stroke(T&&, const detail::Anything&, const detail::Anything (&)[n], const Ink&) {
    static_assert(detail::never<T>,
                  "the fields of a pen are width, align, cap, join, miter_limit, dash, dash_offset "
                  "and edge, in this order: {.width = 3, .cap = Cap::round}");
}
#endif
template <class T, class A, class B, class C, class D, class... More>
requires(detail::HaveTarget<T, A> && (sizeof...(More) > 0 || !detail::PlaceLike<D>)) void fill(T&&, const A&, const B&,
                                                                                               const C&, const D&,
                                                                                               const More&...) {
    static_assert(detail::never<T>,
                  "these are too many arguments: fill(chart, Box{.at = {32, 282}, .size = {148, 96}}, ink)");
}
template <class T, class A, class B, class C, class D, class... More>
requires(detail::HaveTarget<T, A> &&
         (sizeof...(More) > 0 || !detail::PlaceLike<D>)) void stroke(T&&, const A&, const B&, const C&, const D&,
                                                                     const More&...) {
    static_assert(detail::never<T>,
                  "these are too many arguments: stroke(chart, Line{.from = {1, 2}, .to = {9, 8}}, pen, ink)");
}

// mark() and clear().
template <class T, class X, class Y, class... More>
requires detail::HaveTarget<T> && detail::NumberLike<X> && detail::NumberLike<Y>
void mark(T&&, const X&, const Y&, const More&...) {
    static_assert(detail::never<T>, "a pixel is one argument: mark(chart, Point{3, 4}, ink)");
}
template <class T, class I>
requires(detail::HaveTarget<T, I> && !(detail::DrawnOn<T> && detail::InkLike<I>)) void mark(T&&, Point, const I&) {
    detail::explain_call<T, Point, I>();
}
template <class T>
requires detail::HaveTarget<T>
void mark(T&&, Point) { static_assert(detail::never<T>, "an ink is missing: mark(chart, Point{3, 4}, ink)"); }
template <class T>
requires detail::HaveTarget<T>
void clear(T&&) { static_assert(detail::never<T>, "a colour is missing: clear(chart, colors::white)"); }
template <class T, class I>
requires(detail::HaveTarget<T, I> &&
         !(detail::DrawnOn<T> &&
           (std::convertible_to<I, Color> || std::same_as<I, PaletteEntry>))) void clear(T&&, const I&) {
    if constexpr (detail::DrawnOn<T> && detail::InkLike<I>) {
        static_assert(detail::never<T>,
                      "clear() takes one colour of 8 bits: fill(chart, chart.box(), ink) takes any ink");
    } else {
        detail::explain_call<T, Point, I>();
    }
}

}  // namespace v0
}  // namespace coldbrick
