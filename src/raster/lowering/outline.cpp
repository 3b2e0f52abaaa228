#include "raster/lowering/outline.hpp"

#include "raster/lowering/arc_outline.hpp"
#include "raster/lowering/letter_outline.hpp"
#include "raster/lowering/polygon_outline.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <memory>
#include <optional>
#include <variant>

namespace coldbrick::inline v0::detail {

namespace {

using Group = Outline::Group;

// Pixel centres on a crisp edge belong to what is inside.
double slack_in(const Contours& contours) noexcept { return contours.is_smooth() ? 0 : fixed_slack; }

Group inside_of(const EllipseGeometry& geometry) {
    return {.rule = FillRule::even_odd,
            .draw = [geometry](Contours& contours) { geometry.draw_parallel(slack_in(contours), contours); }};
}

Group inside_of(const BoxGeometry& box) {
    return {.rule = FillRule::even_odd,
            .draw = [box](Contours& contours) { draw_box(box, slack_in(contours), Join::miter, contours); }};
}

// What lies between a curve and another one within it. Crisp, one group of both; smooth, one each.
template <class DrawAt>
Outline between(Point origin, const Band& band, Edge edge, const DrawAt& draw_at) {
    if (edge == Edge::crisp) {
        return {.origin = origin, .groups = {Group{.rule = FillRule::even_odd, .draw = [=](Contours& contours) {
                                                       draw_at(band.out + slack_in(contours), contours);
                                                       draw_at(-band.in + slack_in(contours), contours);
                                                   }}}};
    }
    const auto group = [&](double distance) {
        return Group{.rule = FillRule::nonzero, .draw = [=](Contours& contours) { draw_at(distance, contours); }};
    };
    return nested(origin, group(band.out), group(-band.in));
}

Outline band_of(const EllipseGeometry& geometry, const Band& band, Edge edge) {
    return between(geometry.origin(), band, edge,
                   [geometry](double distance, Contours& contours) { geometry.draw_parallel(distance, contours); });
}

Outline band_of(const BoxGeometry& box, const Band& band, Join join, Edge edge) {
    return between(box.origin, band, edge,
                   [=](double distance, Contours& contours) { draw_box(box, distance, join, contours); });
}

// A pen around the edges of something. With sides that reach different distances at sharp corners: of what goes inside,
// only what is inside counts.
Outline stroke_around(Point origin, const SharedLines& edges, Group inside, const Stroke& how) {
    const auto pen = pen_around(how);
    // What lies between the edge and a stroke so thin that it does not reach it.
    auto before = pen;
    before.left = 0;
    before.right = -pen.left;
    if (how.align == Align::center && !how.dash.empty()) {
        // Each dash is a path of its own, on both sides of the edge (rule 4).
        if (pen.left >= 0) return {.origin = origin, .groups = {stroke_of(edges, pen, how)}};
        before.cap = Cap::flush;
        return {.origin = origin,
                .groups = {stroke_of(edges, inner_side(pen), how), stroke_of(edges, before, how)},
                .truth = Outline::in_first_only};
    }
    if (how.align != Align::center) {
        return {.origin = origin,
                .groups = {std::move(inside), stroke_of(edges, pen, how)},
                .truth = how.align == Align::inside ? Outline::in_both : Outline::in_second_only};
    }
    auto inner = stroke_of(edges, inner_side(pen), how);
    if (pen.left < 0) {
        return {.origin = origin,
                .groups = {std::move(inside), std::move(inner), stroke_of(edges, before, how)},
                .truth = Outline::in_both};
    }
    if (pen.left == 0) {
        return {.origin = origin, .groups = {std::move(inside), std::move(inner)}, .truth = Outline::in_both};
    }
    return {.origin = origin,
            .groups = {std::move(inside), std::move(inner), stroke_of(edges, outer_side(pen), how)},
            .truth = Outline::in_third_or_both_others};
}

SharedLines shared(Point origin, CountedVector<Subpath> subpaths) {
    return std::make_shared<const FlatPath>(FlatPath{.origin = origin, .subpaths = std::move(subpaths)});
}

// A pen around the edges of a geometry, which has been found to be inside of them.
template <class Of>
Outline stroke_around(const Of& geometry, const Tolerance& tolerance, Group inside, const Stroke& how) {
    const auto origin = origin_of(geometry);
    return stroke_around(origin, shared(origin, edges_of(geometry, tolerance)), std::move(inside), how);
}

Outline fill_outline(const EllipseGeometry& geometry, const Fill&, const Tolerance&) {
    return {.origin = geometry.origin(), .groups = {inside_of(geometry)}};
}

Outline fill_outline(const BoxGeometry& geometry, const Fill&, const Tolerance&) {
    return {.origin = geometry.origin, .groups = {inside_of(geometry)}};
}

// Of what is drawn by its edges.
template <class Of>
Outline fill_by_edges(const Of& geometry, const Tolerance& tolerance, FillRule rule) {
    const auto origin = origin_of(geometry);
    return {.origin = origin, .groups = {inside_of(shared(origin, edges_of(geometry, tolerance)), rule)}};
}

template <class Swept>
Outline swept_fill(const Swept& geometry, const Tolerance& tolerance) {
    if (Turn{geometry.sweep}.is_whole) return fill_outline(geometry.of, Fill{}, tolerance);
    return fill_by_edges(geometry, tolerance, FillRule::even_odd);
}
Outline fill_outline(const SectorGeometry& geometry, const Fill& how, const Tolerance& tolerance) {
    const Turn turn{geometry.sweep};
    if (how.edge == Edge::crisp || turn.is_whole || !is_followed(geometry.of, 0))
        return swept_fill(geometry, tolerance);
    return {.origin = geometry.of.origin(), .groups = {sector_of(geometry.of, 0, turn)}};
}
Outline fill_outline(const ChordGeometry& geometry, const Fill&, const Tolerance& tolerance) {
    return swept_fill(geometry, tolerance);
}

Outline fill_outline(const ArcGeometry&, const Fill&, const Tolerance&) { return {}; }

Outline fill_outline(const RingGeometry& geometry, const Fill& how, const Tolerance& tolerance) {
    if (!geometry.sweep || Turn{*geometry.sweep}.is_whole)
        return band_of(geometry.of, {0, geometry.thickness}, how.edge);
    return fill_by_edges(geometry, tolerance, FillRule::nonzero);
}

Outline fill_outline(const PixelsGeometry& geometry, const Fill&, const Tolerance& tolerance) {
    return fill_by_edges(geometry, tolerance, FillRule::nonzero);
}

Outline fill_outline(const LinesGeometry& geometry, const Fill& how, const Tolerance& tolerance) {
    return fill_polygonal(geometry, how, tolerance);
}

Outline fill_outline(const LettersGeometry& geometry, const Fill&, const Tolerance&) {
    auto outline = Outline{.origin = geometry.lines.origin, .groups = {}};
    if (!geometry.lines.subpaths.empty()) {
        outline.groups.push_back(pen_group(geometry.lines, geometry.weight / 2));
    }
    if (!geometry.outlines.subpaths.empty()) {
        outline.groups.push_back(inside_of(lines_of(geometry.outlines), FillRule::nonzero));
    }
    if (outline.groups.size() == 2) outline.truth = Outline::in_either;
    return outline;
}

Outline stroke_outline(const LettersGeometry& geometry, const Stroke& how, const Tolerance&) {
    const auto of_outlines = [&] {
        auto closed = geometry.outlines;
        for (auto& subpath : closed.subpaths) {
            if (subpath.nodes.size() > 2) subpath.close();
        }
        const auto edges = std::make_shared<const FlatPath>(std::move(closed));
        return stroke_around(edges->origin, edges, inside_of(edges, FillRule::nonzero), how);
    };
    if (geometry.lines.subpaths.empty()) return geometry.outlines.subpaths.empty() ? Outline{} : of_outlines();
    auto of_lines = stroke_of_pen(geometry, how);
    if (geometry.outlines.subpaths.empty()) return of_lines;
    return either(std::move(of_lines), of_outlines());
}

// By the edge.
template <class Of>
Outline edge_stroke(const Of& geometry, const Stroke& how, const Tolerance& tolerance) {
    const auto edges = shared(origin_of(geometry), edges_of(geometry, tolerance));
    const auto pen = pen_around(how);
    if (how.edge == Edge::smooth && how.dash.empty() && pen.left >= 0) return stroke_beside(edges, true, pen);
    return stroke_around(edges->origin, edges, inside_of(edges, FillRule::nonzero), how);
}

// Dashes along a curve: smooth, what is inside has the same chords.
template <class Of>
Outline dashes_around(const Of& geometry, const Stroke& how, const Tolerance& tolerance) {
    if (how.edge == Edge::smooth) return edge_stroke(geometry, how, tolerance);
    return stroke_around(geometry, tolerance, inside_of(geometry), how);
}

Outline stroke_outline(const EllipseGeometry& geometry, const Stroke& how, const Tolerance& tolerance) {
    return how.dash.empty() ? band_of(geometry, Band{how}, how.edge) : dashes_around(geometry, how, tolerance);
}

Outline stroke_outline(const BoxGeometry& geometry, const Stroke& how, const Tolerance& tolerance) {
    return how.dash.empty() ? band_of(geometry, Band{how}, how.join, how.edge)
                            : dashes_around(geometry, how, tolerance);
}

template <class Swept>
Outline swept_stroke(const Swept& geometry, const Stroke& how, const Tolerance& tolerance) {
    return Turn{geometry.sweep}.is_whole ? stroke_outline(geometry.of, how, tolerance)
                                         : edge_stroke(geometry, how, tolerance);
}
Outline stroke_outline(const SectorGeometry& geometry, const Stroke& how, const Tolerance& tolerance) {
    return swept_stroke(geometry, how, tolerance);
}
Outline stroke_outline(const ChordGeometry& geometry, const Stroke& how, const Tolerance& tolerance) {
    return swept_stroke(geometry, how, tolerance);
}
Outline stroke_outline(const RingGeometry& geometry, const Stroke& how, const Tolerance& tolerance) {
    return edge_stroke(geometry, how, tolerance);
}
Outline stroke_outline(const PixelsGeometry& geometry, const Stroke& how, const Tolerance& tolerance) {
    auto rounded = how;
    rounded.join = Join::round;
    return edge_stroke(geometry, rounded, tolerance);
}

Outline stroke_outline(const ArcGeometry& arc, const Stroke& how, const Tolerance& tolerance) {
    auto centered = how;
    centered.align = Align::center;
    const Turn turn{arc.sweep};
    if (!how.dash.empty()) {
        const auto lines = shared(arc.of.origin(), {subpath_of(arc, tolerance)});
        return {.origin = arc.of.origin(), .groups = {stroke_of(lines, pen_around(centered), centered)}};
    }
    if (turn.is_whole) return band_of(arc.of, Band{centered}, how.edge);
    if (auto outline = stroke_of_round_arc(arc, turn, centered)) return *std::move(outline);
    auto outline = band_of(arc.of, Band{centered}, Edge::crisp);
    outline.groups.push_back(wedge_of(arc.of, turn, 2.0 * (arc.of.a() + arc.of.b() + how.width.pixels())));
    outline.truth = Outline::in_both;
    if (how.cap == Cap::flush) return outline;
    const auto geometry = arc.of;
    outline.groups.push_back(
        {.rule = FillRule::nonzero, .draw = [=, centered = std::move(centered)](Contours& contours) {
             draw_arc_caps(geometry, turn, centered, contours);
         }});
    outline.truth = Outline::in_third_or_both_others;
    return outline;
}

Outline stroke_outline(const LinesGeometry& geometry, const Stroke& how, const Tolerance& tolerance) {
    return stroke_polygonal(geometry, how, tolerance);
}

}  // namespace

void draw_box(const BoxGeometry& box, double distance, Join join, Contours& contours) {
    const auto least = Vec{box.left - distance, box.top - distance};
    const auto most = Vec{box.right + distance, box.bottom + distance};
    if (least.x >= most.x || least.y >= most.y) return;
    const auto is_sharp = box.corner_radius == 0 && (distance < 0 || join != Join::round);
    const auto radius = is_sharp ? 0 : std::max(box.corner_radius + distance, 0.0);
    const auto cut = is_sharp && join == Join::bevel ? std::max(distance, 0.0) : radius;
    // Around each corner from one side to the next: `inward` points to the inside from both.
    const auto corner = [&](Vec tip, Vec from, Vec to) {
        const auto center = tip - (from + to) * cut;
        contours.to(center + from * cut);
        if (cut > 0 && radius > 0) contours.arc(center, radius, from, to);
        if (cut > 0 && radius == 0) contours.to(center + to * cut);
    };
    corner({most.x, least.y}, {0, -1}, {1, 0});
    corner(most, {1, 0}, {0, 1});
    corner({least.x, most.y}, {0, 1}, {-1, 0});
    corner(least, {-1, 0}, {0, -1});
    contours.close();
}

CoverRule draw_outline(const Outline& outline, const Placement& placement, Chains& chains) {
    Contours contours{chains, outline.origin};
    placement.apply(contours, outline.origin);
    auto rule = CoverRule{.truth = outline.truth};
    for (std::size_t i = 0; i < outline.groups.size(); ++i) {
        contours.begin_group(static_cast<int>(i));
        outline.groups[i].draw(contours);
        rule.masks[i] = outline.groups[i].rule == FillRule::even_odd ? 1 : -1;
        if (!outline.groups[i].only_counterclockwise) continue;
        rule.masks[i] = std::numeric_limits<int>::min();
        rule.signs[i] = -1;
    }
    return rule;
}

Outline outline_of(const Geometry& geometry, const Fill& how, const Tolerance& tolerance) {
    return std::visit([&](const auto& of) { return fill_outline(of, how, tolerance); }, geometry);
}

Outline outline_of(const Geometry& geometry, const Stroke& how, const Tolerance& tolerance) {
    check_stroke(how);
    return std::visit([&](const auto& of) { return stroke_outline(of, how, tolerance); }, geometry);
}

}  // namespace coldbrick::inline v0::detail
