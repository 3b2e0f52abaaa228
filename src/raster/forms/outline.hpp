// The outlines of forms and of their strokes, as what is smooth, transformed or between the pixels is drawn from them.
#pragma once

#include "raster/coverage/cover.hpp"
#include "raster/forms/forms.hpp"
#include "raster/forms/placement.hpp"
#include "raster/strokes/stroker.hpp"

#include "coldbrick/fill.hpp"

#include <functional>
#include <vector>

namespace coldbrick::inline v0::detail {

// Up to most_groups groups of contours, relative to an origin, and what is covered by the groups in which a place is
// inside.
struct Outline {
    struct Group {
        FillRule rule;
        std::function<void(Contours&)> draw;
        bool only_counterclockwise = false;  // smooth: what contours enclose clockwise is not inside
    };
    Point origin;
    std::vector<Group> groups;
    GroupTruth truth = CoverRule{}.truth;
    bool is_simple = false;  // smooth: its contour is one that goes clockwise and encloses nothing twice
    static constexpr auto in_first_only = group_truth([](unsigned inside) { return inside == 1; });
    static constexpr auto in_either = group_truth([](unsigned inside) { return inside < 4; });
    static constexpr auto in_both = group_truth([](unsigned inside) { return inside == 3; });
    static constexpr auto in_second_only = group_truth([](unsigned inside) { return inside == 2; });
    static constexpr auto in_first_only_or_fourth_only =
        group_truth([](unsigned inside) { return (inside & 3U) == 1 || (inside & 12U) == 8; });
    static constexpr auto in_third_or_both_others =
        group_truth([](unsigned inside) { return inside < 8 && inside >= 3; });
};

// Draws what is at most a distance away from a box, or at least so far inside if it is negative.
void draw_box(const BoxForm& box, double distance, Join join, Contours& contours);

// What goes on beyond the rays at the ends of an arc's stroke: half a disc, or half a square.
void draw_arc_caps(const EllipseForm& form, const Turn& turn, const Stroke& how, Contours& contours);

// The outline of a fill, and of a stroke, with curves in so much detail where they become chords beforehand. They look
// at the form when they are drawn.
[[nodiscard]] Outline outline_of(const Form& form, const Fill& how, const Detail& detail);
[[nodiscard]] Outline outline_of(const Form& form, const Stroke& how, const Detail& detail);

// Draws all its groups where they are placed, and returns what is covered then.
CoverRule draw_outline(const Outline& outline, const Placement& placement, Chains& chains);

// A pen along lines.
[[nodiscard]] Outline stroke_along(FlatPath flat, const Pen& pen, const Stroke& how);

}  // namespace coldbrick::inline v0::detail
