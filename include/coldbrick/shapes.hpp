// coldbrick/shapes.hpp - the shapes: plain values that say where, and know nothing of colours or buffers.
//
//     Line     {.from = {18, 431}, .to = {702, 377}}
//     Polyline {.through = {{18, 431}, {96, 402}, {171, 418}}, .closed = true}
//     Box      {.at = {32, 282}, .size = {148, 96}}                  // geometry.hpp
//     Circle   {.center = {236, 148}, .radius = 34}
//     Ellipse::around({.center = {528, 190}, .radii = {72, 21}})
//     Ellipse::within({.at = {456, 169}, .size = {145, 43}})         // fits this box, sides odd or even
//     Ellipse::around({.center = {528, 190}, .radii = {72, 21}, .turned = 15_deg})
//     RoundedBox{.box = {.at = {32, 282}, .size = {148, 96}}, .corner_radius = 8}
//     Ring     {.center = {236, 148}, .radius = 130, .inner_radius = 104}
//     Arc      {.of = Circle{.center = {236, 148}, .radius = 130}, .sweep = {.from = 197_deg, .by = 46_deg}}
//     Sector   {.of = Circle{.center = {236, 148}, .radius = 130}, .sweep = {.from = 197_deg, .by = 46_deg}}
//     Chord    {.of = Circle{.center = {236, 148}, .radius = 130}, .sweep = {.from = 197_deg, .by = 46_deg}}
//     Polygon  {{410, 366}, {474, 366}, {442, 212}}
//     regular_polygon({.center = {80, 60}, .radius = 24, .points = 6})
//     star    ({.center = {80, 60}, .radius = 24, .points = 5})
//
//     subpixel::Circle{.center = {236.5, 148.25}, .radius = 34.5}    // the same with fractional coordinates
//
// Which pixels belong to each, filled and stroked, is said in docs/pixel-rules.md. Coordinates, radii and sizes lie
// within max_coordinate; a shape is checked when it is drawn or asked for its pixels, and Error is thrown then.
//
// Each shape is one template with two kinds of coordinate: whole ones, and fractional ones in the namespace subpixel.
// There, whole numbers are pixel centres as everywhere, and a shape with whole numbers covers what the one of the same
// name covers; coordinates and sizes are rounded to multiples of 1/256 pixel when it is drawn. Paths (path.hpp) have
// fractional coordinates of their own.
#pragma once

#include "coldbrick/angle.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/geometry.hpp"

#include <initializer_list>
#include <optional>
#include <utility>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// A straight line between the centres of two pixels; both belong to it. It is the same line whichever comes first.
template <class Number>
struct BasicLine {
    typename Coordinates<Number>::Place from;
    typename Coordinates<Number>::Place to;

    friend bool operator==(const BasicLine&, const BasicLine&) = default;
};

// Lines from each point to the next; if closed, also from the last to the first. One point gives one pixel; none is
// refused.
template <class Number>
struct BasicPolyline {
    std::vector<typename Coordinates<Number>::Place> through;
    bool closed = false;

    friend bool operator==(const BasicPolyline&, const BasicPolyline&) = default;
};

// All pixels with dx*dx + dy*dy <= radius*radius + radius: 2*radius + 1 pixels wide and high. Radius 0 is one pixel.
// As a curve, it reaches half a pixel further than its radius.
template <class Number>
struct BasicCircle {
    typename Coordinates<Number>::Place center;
    Number radius = 0;

    struct Placed {
        Anchor anchor = Anchor::center;
        typename Coordinates<Number>::Place at;
        Number radius = 0;
    };

    // The circle of whose box the anchor is the given pixel: with Anchor::bottom it stands there.
    static constexpr BasicCircle placed(const Placed& place) {
        const auto diameter = diameter_of(place.radius);
        const auto box =
            BasicBox<Number>::placed({.anchor = place.anchor, .at = place.at, .size = {diameter, diameter}});
        return {.center = {.x = box.at.x + place.radius, .y = box.at.y + place.radius}, .radius = place.radius};
    }

    friend bool operator==(const BasicCircle&, const BasicCircle&) = default;

  private:
    static constexpr Number diameter_of(Number radius) {
        if constexpr (std::is_same_v<Number, int>) return static_cast<int>(std::int64_t{2} * radius + 1);
        return 2 * radius + 1;
    }
};

// An ellipse that touches all four sides of its box, however thin; or the same turned about its centre.
template <class Number>
class BasicEllipse {
  public:
    struct Around {
        typename Coordinates<Number>::Place center;
        typename Coordinates<Number>::Reach radii;
        Angle turned = {};
    };

    // By centre and radii: 2*radii.x + 1 pixels wide and 2*radii.y + 1 high, before it is turned.
    // Throws Error if a radius is negative, anything lies beyond max_coordinate, or the angle is no number.
    static BasicEllipse around(const Around& place);

    // The ellipse that fits the box; even widths and heights have their centre between pixels. Throws Error if the
    // box is empty or lies beyond max_coordinate.
    static BasicEllipse within(const BasicBox<Number>& box);

    // A circle is an ellipse. Throws Error as drawing the circle would.
    BasicEllipse(const BasicCircle<Number>& circle);

    // The same ellipse, turned clockwise about its centre by the angle instead of what it was turned by. Throws Error
    // if the angle is no number.
    [[nodiscard]] BasicEllipse turned(Angle angle) const;

    // The smallest box around it before it is turned, and by how much it is turned.
    [[nodiscard]] constexpr BasicBox<Number> box() const noexcept { return box_; }
    [[nodiscard]] constexpr Angle turn() const noexcept { return turn_; }

    friend bool operator==(const BasicEllipse&, const BasicEllipse&) = default;

  private:
    explicit constexpr BasicEllipse(const BasicBox<Number>& box) noexcept : box_{box} {}
    BasicBox<Number> box_;
    Angle turn_;
};
extern template class BasicEllipse<int>;
extern template class BasicEllipse<double>;

// A box with each corner replaced by a quarter of a circle of diameter 2*corner_radius, which may be at most half the
// shorter side. Radius 0 is the box.
template <class Number>
struct BasicRoundedBox {
    BasicBox<Number> box;
    Number corner_radius = 0;

    friend bool operator==(const BasicRoundedBox&, const BasicRoundedBox&) = default;
};

// What lies between two circles around one centre, both outlines included: radius - inner_radius + 1 pixels thick. With
// an inner radius of 0 there is no hole. With a sweep, the part of it in these directions, as a sector's.
template <class Number>
struct BasicRing {
    typename Coordinates<Number>::Place center;
    Number radius = 0;
    Number inner_radius = 0;  // 0 to radius
    std::optional<Sweep> sweep = std::nullopt;

    friend bool operator==(const BasicRing&, const BasicRing&) = default;
};

// The part of an ellipse's or circle's outline that lies in the directions of the sweep from its centre: a line, that
// can be stroked. A sweep of 0 is one pixel.
template <class Number>
struct BasicArc {
    BasicEllipse<Number> of;
    Sweep sweep;

    friend bool operator==(const BasicArc&, const BasicArc&) = default;
};

// The part of an ellipse or circle that lies in the directions of the sweep from its centre, as a slice of a cake; its
// centre pixel belongs to it.
template <class Number>
struct BasicSector {
    BasicEllipse<Number> of;
    Sweep sweep;

    friend bool operator==(const BasicSector&, const BasicSector&) = default;
};

// The part of an ellipse or circle that the straight line between the ends of an arc cuts off, on the arc's side.
template <class Number>
struct BasicChord {
    BasicEllipse<Number> of;
    Sweep sweep;

    friend bool operator==(const BasicChord&, const BasicChord&) = default;
};

// One or more rings: the vertices of a closed outline each, in either direction. With several, the fill rule decides
// what is inside. A ring of one or two vertices is a pixel or a line. A polygon without rings, and a ring without
// vertices, is refused.
template <class Number>
class BasicPolygon {
  public:
    using Vertices = std::vector<typename Coordinates<Number>::Place>;

    BasicPolygon(std::initializer_list<typename Coordinates<Number>::Place> vertices) : rings_{Vertices{vertices}} {}
    explicit BasicPolygon(Vertices vertices) { rings_.push_back(std::move(vertices)); }
    explicit BasicPolygon(std::vector<Vertices> rings) : rings_{std::move(rings)} {}

    [[nodiscard]] const std::vector<Vertices>& rings() const& noexcept { return rings_; }
    [[nodiscard]] std::vector<Vertices> rings() && noexcept { return std::move(rings_); }

    friend bool operator==(const BasicPolygon&, const BasicPolygon&) = default;

  private:
    std::vector<Vertices> rings_;
};

// A polygon of equal sides around a centre. The vertices lie on the circle of the radius, each in the nearest pixel (or
// where they truly are, with fractional coordinates); the first straight above the centre, and all of them turned
// clockwise by `turned`.
template <class Number>
struct BasicRegularPolygon {
    typename Coordinates<Number>::Place center;
    Number radius = 0;
    int points = 3;
    Angle turned = {};
};

// A star: as many points on the circle of the radius, and between them as many inner corners.
template <class Number>
struct BasicStar {
    typename Coordinates<Number>::Place center;
    Number radius = 0;
    int points = 5;
    // How far the inner corners are from the centre. Left out: where the lines from each point to the next but one
    // cross, which makes straight edges; with fewer than 5 points, half the radius.
    std::optional<Number> inner_radius = std::nullopt;
    Angle turned = {};
};

using Line = BasicLine<int>;
using Polyline = BasicPolyline<int>;
using Circle = BasicCircle<int>;
using Ellipse = BasicEllipse<int>;
using RoundedBox = BasicRoundedBox<int>;
using Ring = BasicRing<int>;
using Arc = BasicArc<int>;
using Sector = BasicSector<int>;
using Chord = BasicChord<int>;
using Polygon = BasicPolygon<int>;
using RegularPolygon = BasicRegularPolygon<int>;
using Star = BasicStar<int>;

// Throw Error if a radius is negative, anything lies beyond max_coordinate, an angle is no number, there are fewer than
// 3 points (of a star, 2) or more than 1,000,000, or the inner radius is over the radius.
[[nodiscard]] Polygon regular_polygon(const RegularPolygon& form);
[[nodiscard]] Polygon star(const Star& form);

namespace subpixel {

using Box = BasicBox<double>;
using Line = BasicLine<double>;
using Polyline = BasicPolyline<double>;
using Circle = BasicCircle<double>;
using Ellipse = BasicEllipse<double>;
using RoundedBox = BasicRoundedBox<double>;
using Ring = BasicRing<double>;
using Arc = BasicArc<double>;
using Sector = BasicSector<double>;
using Chord = BasicChord<double>;
using Polygon = BasicPolygon<double>;
using RegularPolygon = BasicRegularPolygon<double>;
using Star = BasicStar<double>;

[[nodiscard]] Polygon regular_polygon(const RegularPolygon& form);
[[nodiscard]] Polygon star(const Star& form);

}  // namespace subpixel

}  // namespace v0
}  // namespace coldbrick
