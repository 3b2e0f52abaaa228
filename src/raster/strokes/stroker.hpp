// The pen: from subpaths to the contours of what it covers.
//
// Every straight piece of a subpath covers a rectangle on each side, every corner a wedge on its outer side, every end
// a cap. All these go round in the same direction, so that the winding number of a place says how many cover it, and
// what is covered at all is what is inside by the nonzero rule: overlaps, loops and pieces shorter than the pen is wide
// need no care.
#pragma once

#include "raster/edges/contours.hpp"
#include "raster/edges/subpath.hpp"

#include "coldbrick/budget.hpp"

namespace coldbrick::inline v0::detail {

// No buffer lies further away from a coordinate, in pixels.
inline constexpr double beyond_everything = 4294967296.0;

// How a pen draws a subpath.
struct Pen {
    double left = 0.5;  // how far it reaches on either side, in pixels
    double right = 0.5;
    Cap cap = Cap::flush;
    Join join = Join::miter;
    double miter_limit = 4;
    // How far it goes on beyond the ends.
    double beyond = 0;
    // By how much the whole subpath is moved sideways: ends stay as far along as they were.
    Vec moved = {};
    // The discs of round caps: how far to the left of the subpath, and how far from its ends inwards, their centres
    // lie.
    double disc_radius = 0.5;
    double disc_left = 0;
    double disc_inset = 0;

    // Whether the discs lie around the ends and are as wide as the subpath.
    [[nodiscard]] bool has_round_ends() const noexcept {
        return cap == Cap::round && left == disc_radius && right == disc_radius && disc_left == 0 && disc_inset == 0;
    }
    // How far from the subpath it may reach, in pixels.
    [[nodiscard]] double reach() const noexcept;
};

// Corners between directions whose scalar product is above minus that are mitered by a pen's usual limit.
inline constexpr double least_miter = 0.87;

// The pen for a stroke along the subpath itself, such as a polyline: of even width it is moved by half a pixel to the
// upper left (rule 3).
[[nodiscard]] Pen pen_along(const Stroke& how) noexcept;

// The pen for a stroke along the rings of an area: centred on them, whatever its width (rule 4, "Polygons").
[[nodiscard]] Pen pen_along_rings(const Stroke& how) noexcept;

// The pen for a stroke around the edge of a closed shape, which goes clockwise: what the alignment puts outside lies on
// the left (rule 3).
[[nodiscard]] Pen pen_around(const Stroke& how) noexcept;

// Of such a pen, what draws outside, and what draws inside. At a sharp corner the inner one comes out at the other side
// of the shape: what it draws counts inside only.
[[nodiscard]] Pen outer_side(Pen pen) noexcept;
[[nodiscard]] Pen inner_side(Pen pen) noexcept;

// How far from a shape's edge, or from a line, a stroke may reach, in pixels: with its longest miters, however it is
// drawn.
[[nodiscard]] double reach_of(const Stroke& how) noexcept;

// Draws what the pen covers as contours.
void draw_subpath(const Subpath& subpath, const Pen& pen, Contours& contours);

// Draws a closed subpath grown on its outer side, by what the pen reaches to the left of one that goes clockwise.
void draw_grown(const Subpath& subpath, bool is_clockwise, const Pen& pen, Contours& contours);

// Draws what is left of such a subpath's inside, counter-clockwise: without what the pen reaches to the right of one
// that goes clockwise. Places that are in its reach more than once are enclosed the other way round.
void draw_shrunk(const Subpath& subpath, bool is_clockwise, const Pen& pen, Contours& contours);

// The same with dashes: only those that may reach into the contours' window.
void draw_dashes(const Subpath& subpath, const Pen& pen, const Stroke& how, Contours& contours);

// Either of them, as the stroke says.
inline void draw_stroke(const Subpath& subpath, const Pen& pen, const Stroke& how, Contours& contours) {
    how.dash.empty() ? draw_subpath(subpath, pen, contours) : draw_dashes(subpath, pen, how, contours);
}

// Throws Error for what a stroke may not have.
void check_each_of(const Stroke& how);
inline void check_stroke(const Stroke& how) {
    const auto is_usual = how.align == Align::center && how.cap == Cap::flush && how.join == Join::miter &&
                          (how.edge == Edge::crisp || how.edge == Edge::smooth) && how.width.pixels() > 0 &&
                          how.width.pixels() <= max_coordinate && how.miter_limit >= 1 && how.dash_offset == 0 &&
                          how.dash.empty();
    if (!is_usual) check_each_of(how);
}

// Throws Error for a width that is not whole.
void check_whole_width(const Stroke& how);

// What a stroke of a closed shape covers: what is at most `out` away from the fill, but not what lies `in` inside.
// Widths that are not whole are centred without a shift.
struct Band {
    double out;
    double in;

    constexpr Band(double reaches_out, double reaches_in) noexcept : out{reaches_out}, in{reaches_in} {}
    explicit Band(const Stroke& how) noexcept;
};

// Whether it is the outline of a closed shape: what lies at its edge, inside.
inline bool is_hairline(const Stroke& how) noexcept {
    return how.width == Width{1} && how.align != Align::outside && how.dash.empty();
}

}  // namespace coldbrick::inline v0::detail
