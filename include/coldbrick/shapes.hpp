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
//     Arc      {.of = Circle{.center = {236, 148}, .radius = 130}, .sweep = {.from = 197_deg, .by = 46_deg}}
//     Sector   {.of = Circle{.center = {236, 148}, .radius = 130}, .sweep = {.from = 197_deg, .by = 46_deg}}
//     Chord    {.of = Circle{.center = {236, 148}, .radius = 130}, .sweep = {.from = 197_deg, .by = 46_deg}}
//     Polygon  {{410, 366}, {474, 366}, {442, 212}}
//     regular_polygon({.center = {80, 60}, .radius = 24, .points = 6})
//     star    ({.center = {80, 60}, .radius = 24, .points = 5})
//
// Which pixels belong to each, filled and stroked, is said in docs/pixel-rules.md. Coordinates, radii and sizes lie
// within max_coordinate; a shape is checked when it is drawn or asked for its pixels, and Error is thrown then.
#pragma once

#include "coldbrick/angle.hpp"
#include "coldbrick/geometry.hpp"

#include <initializer_list>
#include <optional>
#include <utility>
#include <vector>

namespace coldbrick {

// A straight line between the centres of two pixels; both belong to it. It is the same line whichever comes first.
struct Line {
    Point from;
    Point to;

    friend bool operator==(const Line&, const Line&) = default;
};

// Lines from each point to the next; if closed, also from the last to the first. One point gives one pixel; none is
// refused.
struct Polyline {
    std::vector<Point> through;
    bool closed = false;

    friend bool operator==(const Polyline&, const Polyline&) = default;
};

// All pixels with dx*dx + dy*dy <= radius*radius + radius: 2*radius + 1 pixels wide and high. Radius 0 is one pixel.
struct Circle {
    Point center;
    int radius = 0;

    struct Placed {
        Anchor anchor = Anchor::center;
        Point at;
        int radius = 0;
    };

    // The circle of whose box the anchor is the given pixel: with Anchor::bottom it stands there.
    static constexpr Circle placed(const Placed& place) {
        const auto diameter = static_cast<int>(std::int64_t{2} * place.radius + 1);
        const auto box = Box::placed({.anchor = place.anchor, .at = place.at, .size = {diameter, diameter}});
        return {.center = {.x = box.at.x + place.radius, .y = box.at.y + place.radius}, .radius = place.radius};
    }

    friend bool operator==(const Circle&, const Circle&) = default;
};

// An ellipse that touches all four sides of its box, however thin; or the same turned about its centre.
class Ellipse {
  public:
    struct Around {
        Point center;
        Radii radii;
        Angle turned = {};
    };

    // By centre and radii: 2*radii.x + 1 pixels wide and 2*radii.y + 1 high, before it is turned.
    // Throws Error if a radius is negative, anything lies beyond max_coordinate, or the angle is no number.
    static Ellipse around(const Around& place);

    // The ellipse that fits the box; even widths and heights have their centre between pixels. Throws Error if the
    // box is empty or lies beyond max_coordinate.
    static Ellipse within(const Box& box);

    // A circle is an ellipse. Throws Error as drawing the circle would.
    Ellipse(const Circle& circle);

    // The same ellipse, turned clockwise about its centre by the angle instead of what it was turned by. Throws Error
    // if the angle is no number.
    [[nodiscard]] Ellipse turned(Angle angle) const;

    // The smallest box around it before it is turned, and by how much it is turned.
    [[nodiscard]] constexpr const Box& box() const noexcept { return box_; }
    [[nodiscard]] constexpr Angle turn() const noexcept { return turn_; }

    friend bool operator==(const Ellipse&, const Ellipse&) = default;

  private:
    explicit constexpr Ellipse(const Box& box) noexcept : box_{box} {}
    Box box_;
    Angle turn_;
};

// A box with each corner replaced by a quarter of a circle of diameter 2*corner_radius, which may be at most half the
// shorter side. Radius 0 is the box.
struct RoundedBox {
    Box box;
    int corner_radius = 0;

    friend bool operator==(const RoundedBox&, const RoundedBox&) = default;
};

// The part of an ellipse's or circle's outline that lies in the directions of the sweep from its centre: a line, that
// can be stroked. A sweep of 0 is one pixel.
struct Arc {
    Ellipse of;
    Sweep sweep;

    friend bool operator==(const Arc&, const Arc&) = default;
};

// The part of an ellipse or circle that lies in the directions of the sweep from its centre, as a slice of a cake; its
// centre pixel belongs to it.
struct Sector {
    Ellipse of;
    Sweep sweep;

    friend bool operator==(const Sector&, const Sector&) = default;
};

// The part of an ellipse or circle that the straight line between the ends of an arc cuts off, on the arc's side.
struct Chord {
    Ellipse of;
    Sweep sweep;

    friend bool operator==(const Chord&, const Chord&) = default;
};

// The vertices of one closed outline of a polygon, in either direction.
using Ring = std::vector<Point>;

// One or more rings; with several, the fill rule decides what is inside. A ring of one or two vertices is a pixel or
// a line. A polygon without rings, and a ring without vertices, is refused.
class Polygon {
  public:
    Polygon(std::initializer_list<Point> vertices) : rings_{Ring{vertices}} {}
    explicit Polygon(Ring vertices) { rings_.push_back(std::move(vertices)); }
    explicit Polygon(std::vector<Ring> rings) : rings_{std::move(rings)} {}

    [[nodiscard]] const std::vector<Ring>& rings() const noexcept { return rings_; }

    friend bool operator==(const Polygon&, const Polygon&) = default;

  private:
    std::vector<Ring> rings_;
};

// A polygon of equal sides around a centre. The vertices lie on the circle of the radius, each in the nearest pixel;
// the first straight above the centre, and all of them turned clockwise by `turned`.
struct RegularPolygon {
    Point center;
    int radius = 0;
    int points = 3;
    Angle turned = {};
};

// A star: as many points on the circle of the radius, and between them as many inner corners.
struct Star {
    Point center;
    int radius = 0;
    int points = 5;
    // How far the inner corners are from the centre. Left out: where the lines from each point to the next but one
    // cross, which makes straight edges; with fewer than 5 points, half the radius.
    std::optional<int> inner_radius = std::nullopt;
    Angle turned = {};
};

// Throw Error if a radius is negative, anything lies beyond max_coordinate, an angle is no number, there are fewer than
// 3 points (of a star, 2) or more than 1,000,000, or the inner radius is over the radius.
[[nodiscard]] Polygon regular_polygon(const RegularPolygon& form);
[[nodiscard]] Polygon star(const Star& form);

// Which parts of a polygon are inside. even_odd: where an odd number of outlines lies between a point and far away.
// nonzero: where the outlines go round a point in one direction more often than in the other.
enum class FillRule { even_odd, nonzero };

// What becomes of the pixels on a filled polygon's edges. inclusive: the outline's pixels belong to the polygon.
// shared: only the interior counts, and a pixel centre exactly on an edge belongs to the polygon for which that is a
// top or left edge, so that polygons with common edges cover each pixel exactly once.
enum class Edges { inclusive, shared };

// How a shape is filled. The rule and what becomes of edges matter to polygons and paths only.
struct Fill {
    FillRule rule = FillRule::even_odd;
    Edges edges = Edges::inclusive;
    Edge edge = Edge::crisp;

    friend bool operator==(const Fill&, const Fill&) = default;
};

}  // namespace coldbrick
