#include "raster/forms/outline.hpp"

#include "raster/forms/arc_outline.hpp"
#include "raster/forms/letter_outline.hpp"
#include "raster/forms/polygon_outline.hpp"

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
double slack_in(const Contours& contours) noexcept { return contours.is_smooth() ? 0 : fine_slack; }

Group inside_of(const EllipseForm& form) {
    return {.rule = FillRule::even_odd,
            .draw = [form](Contours& contours) { form.draw_parallel(slack_in(contours), contours); }};
}

Group inside_of(const BoxForm& box) {
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

Outline band_of(const EllipseForm& form, const Band& band, Edge edge) {
    return between(form.origin(), band, edge,
                   [form](double distance, Contours& contours) { form.draw_parallel(distance, contours); });
}

Outline band_of(const BoxForm& box, const Band& band, Join join, Edge edge) {
    return between(box.origin, band, edge,
                   [=](double distance, Contours& contours) { draw_box(box, distance, join, contours); });
}

// A pen around the edges of something. With sides that reach different ways at sharp corners: of what goes inside, only
// what is inside counts.
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

SharedLines shared(Point origin, CountedVector<Track> tracks) {
    return std::make_shared<const FlatPath>(FlatPath{.origin = origin, .tracks = std::move(tracks)});
}

// A pen around the edges of a form, which has been found to be inside of them.
template <class Of>
Outline stroke_around(const Of& form, const Detail& detail, Group inside, const Stroke& how) {
    const auto origin = origin_of(form);
    return stroke_around(origin, shared(origin, edges_of(form, detail)), std::move(inside), how);
}

Outline fill_outline(const EllipseForm& form, const Fill&, const Detail&) {
    return {.origin = form.origin(), .groups = {inside_of(form)}};
}

Outline fill_outline(const BoxForm& form, const Fill&, const Detail&) {
    return {.origin = form.origin, .groups = {inside_of(form)}};
}

// Of what is drawn by its edges.
template <class Of>
Outline fill_by_edges(const Of& form, const Detail& detail, FillRule rule) {
    const auto origin = origin_of(form);
    return {.origin = origin, .groups = {inside_of(shared(origin, edges_of(form, detail)), rule)}};
}

template <class Swept>
Outline swept_fill(const Swept& form, const Detail& detail) {
    if (Turn{form.sweep}.is_whole) return fill_outline(form.of, Fill{}, detail);
    return fill_by_edges(form, detail, FillRule::even_odd);
}
Outline fill_outline(const SectorForm& form, const Fill& how, const Detail& detail) {
    const Turn turn{form.sweep};
    if (how.edge == Edge::crisp || turn.is_whole || !is_followed(form.of, 0)) return swept_fill(form, detail);
    return {.origin = form.of.origin(), .groups = {sector_of(form.of, 0, turn)}};
}
Outline fill_outline(const ChordForm& form, const Fill&, const Detail& detail) { return swept_fill(form, detail); }

Outline fill_outline(const ArcForm&, const Fill&, const Detail&) { return {}; }

Outline fill_outline(const RingForm& form, const Fill& how, const Detail& detail) {
    if (!form.sweep || Turn{*form.sweep}.is_whole) return band_of(form.of, {0, form.thickness}, how.edge);
    return fill_by_edges(form, detail, FillRule::nonzero);
}

Outline fill_outline(const PixelsForm& form, const Fill&, const Detail& detail) {
    return fill_by_edges(form, detail, FillRule::nonzero);
}

Outline fill_outline(const LinesForm& form, const Fill& how, const Detail& detail) {
    return fill_polygonal(form, how, detail);
}

Outline fill_outline(const LettersForm& form, const Fill&, const Detail&) {
    auto outline = Outline{.origin = form.lines.origin, .groups = {}};
    if (!form.lines.tracks.empty()) {
        outline.groups.push_back(pen_group(form.lines, form.weight / 2));
    }
    if (!form.outlines.tracks.empty()) {
        outline.groups.push_back(inside_of(lines_of(form.outlines), FillRule::nonzero));
    }
    if (outline.groups.size() == 2) outline.truth = Outline::in_either;
    return outline;
}

Outline stroke_outline(const LettersForm& form, const Stroke& how, const Detail&) {
    const auto of_outlines = [&] {
        auto closed = form.outlines;
        for (auto& track : closed.tracks) {
            if (track.nodes.size() > 2) track.close();
        }
        const auto edges = std::make_shared<const FlatPath>(std::move(closed));
        return stroke_around(edges->origin, edges, inside_of(edges, FillRule::nonzero), how);
    };
    if (form.lines.tracks.empty()) return form.outlines.tracks.empty() ? Outline{} : of_outlines();
    auto of_lines = stroke_of_pen(form, how);
    if (form.outlines.tracks.empty()) return of_lines;
    return either(std::move(of_lines), of_outlines());
}

// By the edge.
template <class Of>
Outline edge_stroke(const Of& form, const Stroke& how, const Detail& detail) {
    const auto edges = shared(origin_of(form), edges_of(form, detail));
    const auto pen = pen_around(how);
    if (how.edge == Edge::smooth && how.dash.empty() && pen.left >= 0) return stroke_beside(edges, true, pen);
    return stroke_around(edges->origin, edges, inside_of(edges, FillRule::nonzero), how);
}

// Dashes along a curve: smooth, what is inside has the same chords.
template <class Of>
Outline dashes_around(const Of& form, const Stroke& how, const Detail& detail) {
    if (how.edge == Edge::smooth) return edge_stroke(form, how, detail);
    return stroke_around(form, detail, inside_of(form), how);
}

Outline stroke_outline(const EllipseForm& form, const Stroke& how, const Detail& detail) {
    return how.dash.empty() ? band_of(form, Band{how}, how.edge) : dashes_around(form, how, detail);
}

Outline stroke_outline(const BoxForm& form, const Stroke& how, const Detail& detail) {
    return how.dash.empty() ? band_of(form, Band{how}, how.join, how.edge) : dashes_around(form, how, detail);
}

template <class Swept>
Outline swept_stroke(const Swept& form, const Stroke& how, const Detail& detail) {
    return Turn{form.sweep}.is_whole ? stroke_outline(form.of, how, detail) : edge_stroke(form, how, detail);
}
Outline stroke_outline(const SectorForm& form, const Stroke& how, const Detail& detail) {
    return swept_stroke(form, how, detail);
}
Outline stroke_outline(const ChordForm& form, const Stroke& how, const Detail& detail) {
    return swept_stroke(form, how, detail);
}
Outline stroke_outline(const RingForm& form, const Stroke& how, const Detail& detail) {
    return edge_stroke(form, how, detail);
}
Outline stroke_outline(const PixelsForm& form, const Stroke& how, const Detail& detail) {
    auto rounded = how;
    rounded.join = Join::round;
    return edge_stroke(form, rounded, detail);
}

Outline stroke_outline(const ArcForm& arc, const Stroke& how, const Detail& detail) {
    auto centered = how;
    centered.align = Align::center;
    const Turn turn{arc.sweep};
    if (!how.dash.empty()) {
        const auto lines = shared(arc.of.origin(), {track_of(arc, detail)});
        return {.origin = arc.of.origin(), .groups = {stroke_of(lines, pen_around(centered), centered)}};
    }
    if (turn.is_whole) return band_of(arc.of, Band{centered}, how.edge);
    if (auto outline = stroke_of_round_arc(arc, turn, centered)) return *std::move(outline);
    auto outline = band_of(arc.of, Band{centered}, Edge::crisp);
    outline.groups.push_back(wedge_of(arc.of, turn, 2.0 * (arc.of.a() + arc.of.b() + how.width.pixels())));
    outline.truth = Outline::in_both;
    if (how.cap == Cap::flush) return outline;
    const auto form = arc.of;
    outline.groups.push_back(
        {.rule = FillRule::nonzero, .draw = [=, centered = std::move(centered)](Contours& contours) {
             draw_arc_caps(form, turn, centered, contours);
         }});
    outline.truth = Outline::in_third_or_both_others;
    return outline;
}

Outline stroke_outline(const LinesForm& form, const Stroke& how, const Detail& detail) {
    return stroke_polygonal(form, how, detail);
}

}  // namespace

void draw_box(const BoxForm& box, double distance, Join join, Contours& contours) {
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

Outline outline_of(const Form& form, const Fill& how, const Detail& detail) {
    return std::visit([&](const auto& of) { return fill_outline(of, how, detail); }, form);
}

Outline outline_of(const Form& form, const Stroke& how, const Detail& detail) {
    check_stroke(how);
    return std::visit([&](const auto& of) { return stroke_outline(of, how, detail); }, form);
}

}  // namespace coldbrick::inline v0::detail
