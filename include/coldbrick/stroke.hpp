// coldbrick/stroke.hpp - the pen: how a shape is stroked.
//
//     stroke(chart, mast, {.width = 14, .cap = Cap::round}, slate);
//     stroke(chart, frame, {.width = 6, .align = Align::inside}, gold);
//     stroke(chart, leading_line, {.width = 2, .dash = {12, 6}}, magenta);
//     stroke(chart, shoal, {.width = 1.25, .edge = Edge::smooth}, slate);
//
// Left out, everything is as usual: one pixel wide, centred, flush ends, mitered corners, no dashes. Which pixels a
// stroke covers is said in docs/pixel-rules.md, "Strokes".
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/geometry.hpp"

#include <cstdint>
#include <type_traits>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// On which side of a closed shape's edge the stroke lies: half on each side, or inside, or outside its fill. Lines,
// polylines, arcs and open paths have no inside; they are stroked centred.
enum class Align { center, inside, outside };

// How the ends of a line, and of dashes, look. flush: square, at the end pixel's far side. square: square, going on by
// half the width. round: a disc around the end pixel.
enum class Cap { flush, square, round };

// How corners look on their outer side. miter: the edges go on until they meet, if that is not further away than the
// miter limit allows, else bevel. bevel: cut off straight. round: an arc.
enum class Join { miter, bevel, round };

// The width of a pen in pixels: 1/256 to max_coordinate, in steps of 1/256. Any number can be given in its place.
class Width {
  public:
    template <class Number>
    requires std::is_arithmetic_v<Number>
    constexpr Width(Number pixels) noexcept : pixels_{rounded(static_cast<double>(pixels))} {}

    [[nodiscard]] constexpr double pixels() const noexcept { return pixels_; }

    // Whether it is a number of whole pixels.
    [[nodiscard]] constexpr bool is_whole() const noexcept { return rounded(pixels_, 1) == pixels_; }

    friend constexpr bool operator==(const Width&, const Width&) = default;

  private:
    // To the nearest step; numbers that are none, or not allowed anyway, stay as they are.
    static constexpr double rounded(double value, double steps = 256) noexcept {
        if (!(value >= 0 && value <= max_coordinate)) return value;
        const auto nearest = (static_cast<std::int64_t>(2 * value * steps) + 1) / 2;
        return static_cast<double>(nearest) / steps;
    }

    double pixels_;
};

struct Stroke {
    // 1 is the hairline. Widths that are not whole are for smooth edges, for shapes with fractional coordinates, and
    // under a transform.
    Width width = 1;
    Align align = Align::center;
    Cap cap = Cap::flush;
    Join join = Join::miter;
    // The longest miter, from inner to outer corner, in widths; 1 or more. As stroke-miterlimit in SVG 2, 13.5.5.
    double miter_limit = 4;
    // Lengths along the path in pixels, of dashes and gaps in turn; of an odd number, the list is run through twice.
    // Empty: no dashes. None may be negative, and together they must be 1/64 or more. A dash of length 0 with round
    // caps is a dot.
    std::vector<double> dash = {};
    // How far into the list the path begins.
    double dash_offset = 0;
    Edge edge = Edge::crisp;

    friend bool operator==(const Stroke&, const Stroke&) = default;
};

}  // namespace v0
}  // namespace coldbrick
