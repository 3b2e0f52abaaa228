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
};

struct Polyline {
    std::vector<Position> through = {};
    bool closed = false;
};

// One or more rings of vertices.
struct Polygon {
    std::vector<std::vector<Position>> rings = {};
};

// A width and a height in pixels, above 0.
struct Extents {
    double width = 0;
    double height = 0;
};

// From half a pixel left of and above `at`: with whole numbers, the pixels of a Box.
struct Box {
    Position at = {};
    Extents size = {};
};

struct RoundedBox {
    Box box = {};
    double corner_radius = 0;
};

// Reaches half a pixel further than its radius, as a pixel does from its centre: radius 0 is a dot one pixel wide.
struct Circle {
    Position center = {};
    double radius = 0;
};

// The same with a radius along each axis, turned clockwise about its centre.
class Ellipse {
  public:
    struct Around {
        Position center = {};
        Position radii = {};
        Angle turned = {};
    };
    static Ellipse around(const Around& place) noexcept { return Ellipse{place}; }

    // A circle is an ellipse.
    Ellipse(const Circle& circle) noexcept
        : Ellipse{Around{.center = circle.center, .radii = {circle.radius, circle.radius}}} {}

    [[nodiscard]] const Around& place() const noexcept { return place_; }

  private:
    explicit Ellipse(const Around& place) noexcept : place_{place} {}
    Around place_;
};

struct Arc {
    Ellipse of;
    Sweep sweep = {};
};

struct Sector {
    Ellipse of;
    Sweep sweep = {};
};

struct Chord {
    Ellipse of;
    Sweep sweep = {};
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
