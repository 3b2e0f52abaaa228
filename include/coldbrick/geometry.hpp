// coldbrick/geometry.hpp - points, sizes and boxes on the pixel grid.
//
//     Box berth{.at = {32, 282}, .size = {148, 96}};                          // top-left pixel and size
//     Box same = Box::between({.from = {32, 282}, .to = {179, 377}});   // both corner pixels belong to it
//     Box post = Box::placed({.anchor = Anchor::bottom, .at = {80, 281}, .size = {9, 40}});   // stands there
//     Box seen = intersection(berth, Box{.at = {0, 0}, .size = {100, 300}});
//     Point lamp = berth.inset(4).point(Anchor::top) + Point{0, -12};
//
// x grows to the right and y downward; (0, 0) is the top-left pixel of a buffer. An integer coordinate names a pixel
// and means its centre (docs/pixel-rules.md, "The grid").
#pragma once

#include "coldbrick/detail/public.hpp"

#include <cstdint>
#include <limits>
#include <type_traits>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// The largest coordinate, radius or size that a shape may have; the least coordinate is its negative. Drawing is
// exact over the whole range, wherever the buffer lies.
inline constexpr int max_coordinate = (1 << 30) - 1;

struct Position;
struct AnyPosition;

// A pixel, by its column and row; or so many columns and rows from one pixel to another.
struct Point {
    int x = 0;
    int y = 0;
    constexpr operator Position() const noexcept;
    constexpr operator AnyPosition() const noexcept;
    friend constexpr bool operator==(const Point&, const Point&) = default;
    friend constexpr Point operator+(Point a, Point b) noexcept { return {.x = a.x + b.x, .y = a.y + b.y}; }
    friend constexpr Point operator-(Point a, Point b) noexcept { return {.x = a.x - b.x, .y = a.y - b.y}; }
    friend constexpr Point operator-(Point a) noexcept { return {.x = -a.x, .y = -a.y}; }
    friend constexpr Point operator*(Point a, int factor) noexcept { return {.x = a.x * factor, .y = a.y * factor}; }
};

// A place in the plane, in pixels; or how far one is from another. Whole numbers are pixel centres; a Point is such a
// place.
struct Position {
    double x = 0;
    double y = 0;
    constexpr operator AnyPosition() const noexcept;
    friend constexpr bool operator==(const Position&, const Position&) = default;
    friend constexpr Position operator+(Position a, Position b) noexcept { return {.x = a.x + b.x, .y = a.y + b.y}; }
    friend constexpr Position operator-(Position a, Position b) noexcept { return {.x = a.x - b.x, .y = a.y - b.y}; }
    friend constexpr Position operator-(Position a) noexcept { return {.x = -a.x, .y = -a.y}; }
    friend constexpr Position operator*(Position a, double factor) noexcept {
        return {.x = a.x * factor, .y = a.y * factor};
    }
};

constexpr Point::operator Position() const noexcept {
    return {.x = static_cast<double>(x), .y = static_cast<double>(y)};
}

namespace detail {

// A number of any type, kept as a double.
class AnyNumber {
  public:
    template <class Number>
    requires std::is_arithmetic_v<Number>
    constexpr AnyNumber(Number value) noexcept : value_{static_cast<double>(value)} {}
    constexpr operator double() const noexcept { return value_; }
    constexpr AnyNumber& operator+=(double by) noexcept { return *this = value_ + by; }
    constexpr AnyNumber& operator-=(double by) noexcept { return *this = value_ - by; }
    constexpr AnyNumber& operator*=(double by) noexcept { return *this = value_ * by; }

  private:
    double value_;
};

}  // namespace detail

// A Position as an argument: a Point, a Position, or two numbers of any type in braces, {x, y + 10}.
struct AnyPosition {
    detail::AnyNumber x = 0;
    detail::AnyNumber y = 0;
    constexpr operator Position() const noexcept { return {.x = x, .y = y}; }
    friend constexpr bool operator==(const AnyPosition& a, const AnyPosition& b) noexcept {
        return double{a.x} == double{b.x} && double{a.y} == double{b.y};
    }
    friend constexpr Position operator+(const AnyPosition& a, const Position& b) noexcept {
        return {.x = a.x + b.x, .y = a.y + b.y};
    }
    friend constexpr Position operator-(const AnyPosition& a, const Position& b) noexcept {
        return {.x = a.x - b.x, .y = a.y - b.y};
    }
    friend constexpr bool operator==(const AnyPosition& a, const Position& b) noexcept {
        return double{a.x} == b.x && double{a.y} == b.y;
    }
};

constexpr Point::operator AnyPosition() const noexcept { return {.x = x, .y = y}; }
constexpr Position::operator AnyPosition() const noexcept { return {.x = x, .y = y}; }

// How a shape's rim is drawn. crisp: a pixel belongs to the shape or does not. smooth: it gets as much ink as the shape
// covers of its area (docs/pixel-rules.md, "Smooth edges").
enum class Edge { crisp, smooth };

// A number of columns and rows.
struct Size {
    int width = 0;
    int height = 0;
    friend constexpr bool operator==(const Size&, const Size&) = default;
    friend constexpr Size operator+(Size a, Size b) noexcept {
        return {.width = a.width + b.width, .height = a.height + b.height};
    }
    friend constexpr Size operator-(Size a, Size b) noexcept {
        return {.width = a.width - b.width, .height = a.height - b.height};
    }
};

// A width and a height in pixels that need not be whole.
struct Extents {
    double width = 0;
    double height = 0;
    friend constexpr bool operator==(const Extents&, const Extents&) = default;
};

// How far an ellipse reaches from its centre pixel, along x and along y, in pixels.
struct Radii {
    int x = 0;
    int y = 0;
    friend constexpr bool operator==(const Radii&, const Radii&) = default;
};

// What places, sizes and radii are made of: whole numbers, or doubles for what may lie between pixels.
template <class Number>
struct Coordinates;
template <>
struct Coordinates<int> {
    using Place = Point;
    using Extent = Size;
    using Reach = Radii;
};
template <>
struct Coordinates<double> {
    using Place = Position;
    using Extent = Extents;
    using Reach = Position;
};

// One of nine points of a box: its corners, the middles of its sides, its middle. Where a side has an even number of
// pixels, the middle is the second of the two in the middle.
enum class Anchor { top_left, top, top_right, left, center, right, bottom_left, bottom, bottom_right };

namespace detail {

[[noreturn]] void refuse_anchor(int number);

template <class Number>
constexpr Number lesser(Number a, Number b) noexcept {
    return b < a ? b : a;
}
template <class Number>
constexpr Number greater(Number a, Number b) noexcept {
    return a < b ? b : a;
}
template <class Number>
constexpr Number clamped(Number value, Number least, Number most) noexcept {
    return lesser(greater(value, least), most);
}

}  // namespace detail

// The pixels in columns at.x to at.x + size.width - 1 and rows at.y to at.y + size.height - 1. It is a shape, a clip,
// and the answer to "where was drawn?". A box without pixels has size {0, 0}; such a box can be an answer or a clip,
// but drawing it is refused. With numbers that are not whole it reaches from half a pixel left of and above `at`.
template <class Number>
struct BasicBox {
    using Place = typename Coordinates<Number>::Place;
    using Extent = typename Coordinates<Number>::Extent;

    Place at;
    Extent size;

    // Two opposite corner pixels of a box, in any order; both belong to the box.
    struct Corners {
        Place from;
        Place to;
    };

    // The box whose opposite corners are the two given pixels. Of corners in whole numbers so far apart that a size
    // would be more than 2^31 - 1, it is cut off at max_coordinate, on both sides.
    static constexpr BasicBox between(const Corners& corners) noexcept {
        const auto [x, width] = side(corners.from.x, corners.to.x);
        const auto [y, height] = side(corners.from.y, corners.to.y);
        return {.at = {.x = x, .y = y}, .size = {.width = width, .height = height}};
    }

    struct Placed {
        Anchor anchor = Anchor::top_left;
        Place at;
        Extent size;
    };

    // The box of that size whose anchor is the given pixel: with Anchor::bottom it stands there, with Anchor::top it
    // hangs from there. A place or size beyond max_coordinate gives an unspecified box. Throws Error for an anchor that
    // is none of the nine.
    static constexpr BasicBox placed(const Placed& place) {
        const auto number = static_cast<int>(place.anchor);
        if (number < 0 || number > static_cast<int>(Anchor::bottom_right)) detail::refuse_anchor(number);
        // The anchors are in the order of reading, three in a row.
        return {.at = {.x = moved(place.at.x, -before(place.size.width, number % 3)),
                       .y = moved(place.at.y, -before(place.size.height, number / 3))},
                .size = place.size};
    }

    [[nodiscard]] constexpr bool empty() const noexcept { return !(size.width > 0 && size.height > 0); }

    // The bottom-right pixel, of a box that has one and lies within the numbers.
    [[nodiscard]] constexpr Place last() const noexcept {
        return {.x = at.x + (size.width - 1), .y = at.y + (size.height - 1)};
    }

    // One of its nine points, of a box as for last(); the middle one. Anchors that are none of the nine are as
    // bottom_right.
    [[nodiscard]] constexpr Place point(Anchor anchor) const noexcept {
        const auto number = detail::clamped(static_cast<int>(anchor), 0, static_cast<int>(Anchor::bottom_right));
        return {.x = moved(at.x, before(size.width, number % 3)), .y = moved(at.y, before(size.height, number / 3))};
    }
    [[nodiscard]] constexpr Place center() const noexcept { return point(Anchor::center); }

    // The same box smaller by so much on each side, or larger by a negative number, as far as the numbers go; empty,
    // {}, if nothing is left.
    [[nodiscard]] constexpr BasicBox inset(Number by) const noexcept {
        const auto inner = BasicBox{.at = {.x = moved(at.x, by), .y = moved(at.y, by)},
                                    .size = {.width = shrunk(size.width, by), .height = shrunk(size.height, by)}};
        return empty() || inner.empty() ? BasicBox{} : inner;
    }

    friend constexpr bool operator==(const BasicBox&, const BasicBox&) = default;

  private:
    struct Side {
        Number at;
        Number extent;
    };
    static constexpr Side side(Number a, Number b) noexcept {
        auto first = detail::lesser(a, b);
        auto last = detail::greater(a, b);
        if constexpr (std::is_same_v<Number, int>) {
            if (std::int64_t{last} - first >= std::numeric_limits<int>::max()) {
                first = detail::greater(first, -max_coordinate);
                last = detail::lesser(last, max_coordinate);
            }
        }
        return {first, last - first + 1};
    }

    // How far the first, middle or last third is from the beginning of a side.
    static constexpr Number before(Number extent, int third) noexcept {
        if (third == 0) return 0;
        if (third == 2) return extent - 1;
        if constexpr (std::is_same_v<Number, int>) return extent / 2;
        return (extent - 1) / 2;
    }
    static constexpr Number moved(Number at, Number by) noexcept {
        if constexpr (std::is_same_v<Number, int>) return as_int(std::int64_t{at} + by);
        return at + by;
    }
    static constexpr Number shrunk(Number extent, Number by) noexcept {
        if constexpr (std::is_same_v<Number, int>) return as_int(std::int64_t{extent} - std::int64_t{2} * by);
        return extent - 2 * by;
    }
    static constexpr int as_int(std::int64_t value) noexcept {
        using Limits = std::numeric_limits<int>;
        return static_cast<int>(detail::clamped<std::int64_t>(value, Limits::min(), Limits::max()));
    }
};

using Box = BasicBox<int>;
using Corners = Box::Corners;

// Whether the pixel lies in the box. No pixel lies in an empty box.
constexpr bool contains(const Box& box, Point pixel) noexcept {
    const auto reaches = [](int at, int extent, int value) { return value >= at && std::int64_t{value} - at < extent; };
    return reaches(box.at.x, box.size.width, pixel.x) && reaches(box.at.y, box.size.height, pixel.y);
}

// The pixels that both boxes have. Where there are none: Box{}. The boxes may be of any size.
constexpr Box intersection(const Box& a, const Box& b) noexcept {
    if (a.empty() || b.empty()) return {};
    const auto last = [](int at, int extent) { return std::int64_t{at} + extent - 1; };
    const auto first = Point{.x = detail::greater(a.at.x, b.at.x), .y = detail::greater(a.at.y, b.at.y)};
    const auto last_x = detail::lesser(last(a.at.x, a.size.width), last(b.at.x, b.size.width));
    const auto last_y = detail::lesser(last(a.at.y, a.size.height), last(b.at.y, b.size.height));
    if (last_x < first.x || last_y < first.y) return {};
    return {
        .at = first,
        .size = {.width = static_cast<int>(last_x - first.x + 1), .height = static_cast<int>(last_y - first.y + 1)}};
}

// The smallest box around both, as for two areas that are to be redrawn together. An empty box adds nothing. The
// boxes lie within max_coordinate of the origin.
constexpr Box enclosing(const Box& a, const Box& b) noexcept {
    if (a.empty()) return b.empty() ? Box{} : b;
    if (b.empty()) return a;
    return Box::between(
        {.from = {.x = detail::lesser(a.at.x, b.at.x), .y = detail::lesser(a.at.y, b.at.y)},
         .to = {.x = detail::greater(a.last().x, b.last().x), .y = detail::greater(a.last().y, b.last().y)}});
}

}  // namespace v0
}  // namespace coldbrick
