// coldbrick/shapes.hpp - the shapes: plain values that say where, and know nothing of colours or buffers.
//
//     Line     {.from = {18, 431}, .to = {702, 377}}
//     Polyline {.through = {{18, 431}, {96, 402}, {171, 418}}, .closed = true}
//     Box      {.at = {32, 282}, .size = {148, 96}}                  // geometry.hpp
//     Circle   {.center = {236, 148}, .radius = 34}
//     Ellipse::around({.center = {528, 190}, .radii = {72, 21}})
//     Ellipse::within({.at = {456, 169}, .size = {145, 43}})         // fits this box, sides odd or even
//     Polygon  {{410, 366}, {474, 366}, {442, 212}}
//
// Which pixels belong to each, filled and stroked, is said in docs/pixel-rules.md. Coordinates, radii and sizes lie
// within max_coordinate; a shape is checked when it is drawn or asked for its pixels, and Error is thrown then.
#pragma once

#include "coldbrick/geometry.hpp"

#include <initializer_list>
#include <utility>
#include <vector>

namespace coldbrick {

// A straight line between the centres of two pixels; both belong to it. It is the same line whichever comes first.
struct Line {
    Point from;
    Point to;
};

// Lines from each point to the next; if closed, also from the last to the first. One point gives one pixel; none is
// refused.
struct Polyline {
    std::vector<Point> through;
    bool closed = false;
};

// All pixels with dx*dx + dy*dy <= radius*radius + radius: 2*radius + 1 pixels wide and high. Radius 0 is one pixel.
struct Circle {
    Point center;
    int radius = 0;
};

// An ellipse that touches all four sides of its box, however thin.
class Ellipse {
  public:
    struct Around {
        Point center;
        Radii radii;
    };

    // By centre and radii: 2*radii.x + 1 pixels wide and 2*radii.y + 1 high.
    // Throws Error if a radius is negative or anything lies beyond max_coordinate.
    static Ellipse around(const Around& place);

    // The ellipse that fits the box; even widths and heights have their centre between pixels. Throws Error if the
    // box is empty or lies beyond max_coordinate.
    static Ellipse within(const Box& box);

    // The smallest box around it.
    [[nodiscard]] constexpr const Box& box() const noexcept { return box_; }

  private:
    explicit constexpr Ellipse(const Box& box) noexcept : box_{box} {}
    Box box_;
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

  private:
    std::vector<Ring> rings_;
};

// Which parts of a polygon are inside. even_odd: where an odd number of outlines lies between a point and far away.
// nonzero: where the outlines go round a point in one direction more often than in the other.
enum class FillRule { even_odd, nonzero };

// What becomes of the pixels on a filled polygon's edges. inclusive: the outline's pixels belong to the polygon.
// shared: only the interior counts, and a pixel centre exactly on an edge belongs to the polygon for which that is a
// top or left edge, so that polygons with common edges cover each pixel exactly once.
enum class Edges { inclusive, shared };

// How a polygon is filled.
struct Fill {
    FillRule rule = FillRule::even_odd;
    Edges edges = Edges::inclusive;
};

}  // namespace coldbrick
