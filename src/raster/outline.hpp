// The outlines of shapes and of their strokes, as what is smooth, transformed or between the pixels is drawn from them.
#pragma once

#include "raster/cover.hpp"
#include "raster/ellipse_form.hpp"
#include "raster/flatten.hpp"
#include "raster/stroker.hpp"

#include "coldbrick/spans.hpp"

#include <functional>
#include <optional>
#include <vector>

namespace coldbrick::detail {

// Up to most_groups groups of contours, relative to an origin, and what is covered by the groups in which a place is
// inside.
struct Outline {
    struct Group {
        FillRule rule;
        std::function<void(Contours&)> draw;
    };
    Point origin;
    std::vector<Group> groups;
    GroupTruth truth = CoverRule{}.truth;

    static constexpr auto in_either = group_truth([](unsigned inside) { return inside < 4; });
    static constexpr auto in_both = group_truth([](unsigned inside) { return inside == 3; });
    static constexpr auto in_second_only = group_truth([](unsigned inside) { return inside == 2; });
    static constexpr auto in_third_or_both_others =
        group_truth([](unsigned inside) { return inside < 8 && inside >= 3; });
};

// A box with round corners, relative to an origin: its true sides.
struct BoxForm {
    Point origin;
    double left;
    double top;
    double right;
    double bottom;
    double corner_radius;
};

// The part of an ellipse in a sweep.
struct SweptForm {
    EllipseForm of;
    Sweep sweep;
};

// Shapes by kind. Throw Error for what a shape may not be.
[[nodiscard]] std::optional<EllipseForm> ellipse_of(const ShapeRef& shape);
[[nodiscard]] std::optional<BoxForm> box_of_shape(const ShapeRef& shape);
[[nodiscard]] std::optional<SweptForm> sector_of(const ShapeRef& shape);
[[nodiscard]] std::optional<SweptForm> chord_of(const ShapeRef& shape);
[[nodiscard]] std::optional<SweptForm> arc_of(const ShapeRef& shape);

// Lines, polylines, polygons, paths and vertex lists.
[[nodiscard]] std::optional<FlatPath> lines_of(const ShapeRef& shape, const Detail& detail);

// Whether it is made of lines around an inside: a polygon or a path.
[[nodiscard]] bool has_inside(const ShapeRef& shape) noexcept;

// The lines of a shape: all those of a polygon are rings, and of a path those that are closed.
[[nodiscard]] RingsAndLines rings_and_lines(const ShapeRef& shape, FlatPath flat);

// The elements of a vertex list, or one of them; triangles go clockwise.
[[nodiscard]] FlatPath tracks_of(const VertexList& list);
[[nodiscard]] FlatPath tracks_of(const VertexElement& element);

// Draws what is at most a distance away from a box, or at least so far inside if it is negative.
void draw_box(const BoxForm& box, double distance, Join join, Contours& contours);

// The same detail relative to where a form begins.
[[nodiscard]] Detail of_form(const EllipseForm& form, const Detail& detail) noexcept;

// The edge of a sector, from its centre on, and of a chord, from where the arc begins; clockwise.
[[nodiscard]] Track edge_of_sector(const SweptForm& sector, const Detail& detail);
[[nodiscard]] Track edge_of_chord(const SweptForm& chord, const Detail& detail);

// The edge of a box, clockwise from the beginning of its upper side.
[[nodiscard]] Track edge_of(const BoxForm& box, const Detail& detail);

// What goes on beyond the rays at the ends of an arc's stroke: half a disc, or half a square.
void draw_arc_caps(const EllipseForm& form, const Turn& turn, const Stroke& how, Contours& contours);

// The outline of a fill, and of a stroke, with curves in so much detail where they become chords beforehand. They look
// at the shape when they are drawn.
[[nodiscard]] Outline outline_of(const ShapeRef& shape, const Fill& how, const Detail& detail);
[[nodiscard]] Outline outline_of(const ShapeRef& shape, const Stroke& how, const Detail& detail);

// A pen along lines, centred.
[[nodiscard]] Outline stroke_along(FlatPath flat, const Stroke& how);

}  // namespace coldbrick::detail
