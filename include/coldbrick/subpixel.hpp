// coldbrick/subpixel.hpp - the shapes with fractional coordinates.
//
//     fill  (chart, subpixel::Circle{.center = {236.5, 148.25}, .radius = 34.5}, {.edge = Edge::smooth}, gold);
//     stroke(chart, subpixel::Line{.from = {18.25, 431}, .to = {702, 376.75}}, {.width = 3}, colors::white);
//
// Whole numbers are pixel centres, as everywhere, and a shape with whole numbers covers what the one of the same name
// in shapes.hpp covers. Coordinates and sizes are rounded to multiples of 1/256 pixel; they lie within max_coordinate,
// and Error is thrown for others when the shape is drawn. Paths (path.hpp) have fractional coordinates of their own.
#pragma once

#include "coldbrick/angle.hpp"
#include "coldbrick/geometry.hpp"

#include <optional>
#include <vector>

namespace coldbrick::subpixel {

struct Line {
    Position from = {};
    Position to = {};

    friend bool operator==(const Line&, const Line&) = default;
};

struct Polyline {
    std::vector<Position> through = {};
    bool closed = false;

    friend bool operator==(const Polyline&, const Polyline&) = default;
};

// One or more rings of vertices.
struct Polygon {
    std::vector<std::vector<Position>> rings = {};

    friend bool operator==(const Polygon&, const Polygon&) = default;
};

// A width and a height in pixels, above 0.
struct Extents {
    double width = 0;
    double height = 0;

    friend bool operator==(const Extents&, const Extents&) = default;
};

// From half a pixel left of and above `at`: with whole numbers, the pixels of a Box.
struct Box {
    Position at = {};
    Extents size = {};

    friend bool operator==(const Box&, const Box&) = default;
};

struct RoundedBox {
    Box box = {};
    double corner_radius = 0;

    friend bool operator==(const RoundedBox&, const RoundedBox&) = default;
};

// Reaches half a pixel further than its radius, as a pixel does from its centre: radius 0 is a dot one pixel wide.
struct Circle {
    Position center = {};
    double radius = 0;

    friend bool operator==(const Circle&, const Circle&) = default;
};

// The same with a radius along each axis, turned clockwise about its centre.
class Ellipse {
  public:
    struct Around {
        Position center = {};
        Position radii = {};
        Angle turned = {};

        friend bool operator==(const Around&, const Around&) = default;
    };
    static Ellipse around(const Around& place) noexcept { return Ellipse{place}; }

    // A circle is an ellipse.
    Ellipse(const Circle& circle) noexcept
        : Ellipse{Around{.center = circle.center, .radii = {circle.radius, circle.radius}}} {}

    [[nodiscard]] const Around& place() const noexcept { return place_; }

    friend bool operator==(const Ellipse&, const Ellipse&) = default;

  private:
    explicit Ellipse(const Around& place) noexcept : place_{place} {}
    Around place_;
};

struct Arc {
    Ellipse of;
    Sweep sweep = {};

    friend bool operator==(const Arc&, const Arc&) = default;
};

struct Sector {
    Ellipse of;
    Sweep sweep = {};

    friend bool operator==(const Sector&, const Sector&) = default;
};

struct Chord {
    Ellipse of;
    Sweep sweep = {};

    friend bool operator==(const Chord&, const Chord&) = default;
};

// As regular_polygon() and star() of shapes.hpp, but with the vertices where they truly are.
struct RegularPolygon {
    Position center = {};
    double radius = 0;
    int points = 3;
    Angle turned = {};
};

struct Star {
    Position center = {};
    double radius = 0;
    int points = 5;
    std::optional<double> inner_radius = std::nullopt;
    Angle turned = {};
};

[[nodiscard]] Polygon regular_polygon(const RegularPolygon& form);
[[nodiscard]] Polygon star(const Star& form);

}  // namespace coldbrick::subpixel
