#include "raster/forms/outline.hpp"

#include "raster/forms/arc_outline.hpp"
#include "raster/forms/letter_outline.hpp"
#include "raster/forms/simple_ring.hpp"
#include "raster/strokes/polygon_strokes.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <memory>
#include <optional>
#include <variant>

namespace coldbrick::inline v0::detail {

namespace {

using Group = Outline::Group;
using SharedLines = std::shared_ptr<const FlatPath>;

// What lies inside closed tracks.
void draw_inside(const FlatPath& lines, Contours& contours) {
    for (const auto& track : lines.tracks) {
        for (const auto& node : track.nodes) contours.to(node.at);
        contours.close();
    }
}

SharedLines reversed(FlatPath lines) {
    for (auto& track : lines.tracks) track.reverse();
    return std::make_shared<const FlatPath>(std::move(lines));
}

Group inside_of(const SharedLines& lines, FillRule rule) {
    return {.rule = rule, .draw = [lines](Contours& contours) { draw_inside(*lines, contours); }};
}

// An area that does not matter, beside that of a pixel, in so much detail.
double little_in(const Detail& detail) noexcept {
    const auto across = 16 * std::min(detail.flatness, smooth_flatness);
    return across * across;
}

Group grown_of(const SharedLines& lines, const Pen& pen, GrownRing ring) {
    return {.rule = FillRule::nonzero, .draw = [lines, pen, ring = std::move(ring)](Contours& contours) {
                draw_grown(*lines, ring, pen, contours);
            }};
}

// What an inclusive polygon covers, if it is simple.
std::optional<Group> grown_of(const SharedLines& lines, Edge edge, const Detail& detail) {
    const auto pen = pen_along(Stroke{.edge = edge});
    auto ring = grown_ring(*lines, pen, little_in(detail));
    return ring ? std::optional{grown_of(lines, pen, *std::move(ring))} : std::nullopt;
}

// A pen along tracks, or around the edge of something.
Group stroke_of(const SharedLines& lines, const Pen& pen, const Stroke& how) {
    return {.rule = FillRule::nonzero, .draw = [=](Contours& contours) {
                for (const auto& track : lines->tracks) draw_stroke(track, pen, how, contours);
            }};
}

// The outline of width 1 that belongs to an inclusive polygon. Open subpaths count as closed.
Group rim_of(const SharedLines& lines, Edge edge) {
    auto closed = std::make_shared<FlatPath>(*lines);
    for (auto& track : closed->tracks) {
        if (track.nodes.size() > 2) track.close();
    }
    const auto hairline = Stroke{.edge = edge};
    return stroke_of(closed, pen_along(hairline), hairline);
}

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
        return {.origin = origin, .groups = {{.rule = FillRule::even_odd, .draw = [=](Contours& contours) {
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

std::vector<Group> inclusive_fill(const SharedLines& rings, Edge edge, const Detail& detail) {
    if (auto grown = grown_of(rings, edge, detail)) return {*std::move(grown)};
    return {inside_of(rings, FillRule::even_odd), rim_of(rings, edge)};
}

// A pen around edges that do not cross: what they enclose, grown, without what is left of it shrunk.
Outline stroke_beside(const SharedLines& edges, bool are_clockwise, const Pen& pen) {
    const auto sides = [&](void (*draw)(const Track&, bool, const Pen&, Contours&)) {
        return [=](Contours& contours) {
            for (const auto& track : edges->tracks) draw(track, are_clockwise, pen, contours);
        };
    };
    auto outline = Outline{.origin = edges->origin, .groups = {}, .truth = Outline::in_first_only};
    outline.groups.push_back({.rule = FillRule::nonzero, .draw = sides(draw_grown)});
    outline.groups.push_back({.rule = FillRule::nonzero, .draw = sides(draw_shrunk), .only_counterclockwise = true});
    return outline;
}

// Of a ring that does not meet itself, what two pens cover and its fill are what it encloses, grown by the wider pen,
// without what is out of the thinner one's reach inside; and miters on the inner side that come out beyond other edges.
// Outside, it is what is not in its fill.
std::optional<Outline> stroke_of_ring(const SharedLines& rings, const Stroke& how, const Detail& detail) {
    // (A fill has miters. They are within the thinner pen's at least.)
    const auto has_miters = how.join == Join::miter || (how.join == Join::round && how.align == Align::outside);
    const auto is_fit = how.edge == Edge::smooth && how.align != Align::inside && how.dash.empty() && has_miters;
    if (!is_fit) return std::nullopt;
    const auto width = how.width.pixels();
    auto pen = pen_along_rings(how);
    pen.left = how.align == Align::outside ? width + 0.5 : (width + 1) / 2;
    pen.right = (width - 1) / 2;
    auto ring = grown_ring(*rings, pen, little_in(detail));
    if (!ring || ring->has_cut_corners) return std::nullopt;
    if (how.align == Align::outside) {
        auto filled = grown_of(rings, how.edge, detail);
        if (!filled) return std::nullopt;
        return nested(rings->origin, grown_of(rings, pen, *std::move(ring)), *std::move(filled));
    }
    auto outline = stroke_beside(rings, ring->is_clockwise, pen);
    if (ring->beyond.empty()) return outline;
    auto& groups = outline.groups;
    groups.push_back(inside_of(rings, FillRule::even_odd));
    groups.push_back({.rule = FillRule::nonzero, .draw = [=, ring = *std::move(ring)](Contours& contours) {
                          draw_inner_miters(*rings, ring, pen, contours);
                      }});
    outline.truth = Outline::in_first_only_or_fourth_only;
    return outline;
}

// Whether it is one contour around a single straight line, or a dot.
bool is_straight_stroke(const FlatPath& lines, const Stroke& how) {
    if (lines.tracks.size() != 1 || !how.dash.empty() || how.edge == Edge::crisp) return false;
    const auto& track = lines.tracks.front();
    const auto& nodes = track.nodes;
    const auto is_of_curve = [](const Track::Node& node) { return node.in != Vec{} || node.out != Vec{}; };
    return nodes.size() <= 2 && !track.closed && std::none_of(nodes.begin(), nodes.end(), is_of_curve);
}

// Rings as rule 4 has it for polygons, and lines beside them.
Outline stroke_polygonal(RingsAndLines parts, const Stroke& how, const Detail& detail) {
    if (parts.rings.tracks.empty()) {
        const auto is_simple = is_straight_stroke(parts.lines, how);
        auto outline = stroke_along(std::move(parts.lines), pen_along(how), how);
        outline.is_simple = is_simple;
        return outline;
    }
    const PolygonStroke rule{how};
    if (parts.lines.tracks.empty() && !rule.needs_fill())
        return stroke_along(std::move(parts.rings), pen_along_rings(how), how);
    const auto has_lines = !parts.lines.tracks.empty();
    const auto rings = std::make_shared<FlatPath>(std::move(parts.rings));
    if (!has_lines) {
        if (auto of_ring = stroke_of_ring(rings, how, detail)) return *std::move(of_ring);
    }
    auto outline = stroke_along(std::move(parts.lines), pen_along(how), how);
    auto& groups = outline.groups;
    for (const auto& trace : rule.traces()) groups.push_back(stroke_of(rings, pen_along_rings(trace), trace));
    const auto traces = groups.size() - 1;
    if (rule.is_within_rim()) {
        groups.push_back(inside_of(rings, FillRule::even_odd));
        groups.push_back(rim_of(rings, how.edge));
        const auto rim = 1U << (groups.size() - 1);
        outline.truth = group_truth([=](unsigned inside) { return (inside & 1U) != 0 || (inside & ~1U) == rim; });
        return outline;
    }
    // The outline of a fill is within the thinner pen, if it has its miters at least.
    const auto limit_of_fills = Stroke{}.miter_limit;
    const auto has_outline =
        traces == 2 && how.dash.empty() && how.join == Join::miter && how.miter_limit >= limit_of_fills;
    if (has_outline) {
        groups.push_back(inside_of(rings, FillRule::even_odd));
    } else if (rule.needs_fill()) {
        for (auto& group : inclusive_fill(rings, how.edge, detail)) groups.push_back(std::move(group));
    }
    outline.truth = group_truth([&](unsigned inside) {
        const auto filled = inside >> (1 + traces) != 0;
        const auto wider = traces == 2 && (inside & 4U) != 0;
        return (inside & 1U) != 0 || rule.covers((inside & 2U) != 0, wider, filled);
    });
    return outline;
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
    const auto lines = std::make_shared<const FlatPath>(form.flat);
    if (!form.has_inside) return {.origin = lines->origin, .groups = {inside_of(lines, FillRule::nonzero)}};
    auto outline = Outline{.origin = lines->origin, .groups = {}};
    const auto turn = how.edge == Edge::smooth ? turn_of_convex(*lines) : 0;
    if (how.edges == Edges::shared) {
        outline.is_simple = turn != 0;
        outline.groups.push_back(turn < 0 ? inside_of(reversed(*lines), how.rule) : inside_of(lines, how.rule));
        return outline;
    }
    if (auto grown = grown_of(lines, how.edge, detail)) {
        outline.is_simple = turn != 0;
        outline.groups.push_back(*std::move(grown));
        return outline;
    }
    outline.groups.push_back(inside_of(lines, how.rule));
    outline.groups.push_back(rim_of(lines, how.edge));
    outline.truth = Outline::in_either;
    return outline;
}

Outline fill_outline(const LettersForm& form, const Fill&, const Detail&) {
    auto outline = Outline{.origin = form.lines.origin, .groups = {}};
    if (!form.lines.tracks.empty()) {
        outline.groups.push_back(pen_group(form.lines, form.weight / 2));
    }
    if (!form.outlines.tracks.empty()) {
        outline.groups.push_back(inside_of(std::make_shared<const FlatPath>(form.outlines), FillRule::nonzero));
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
    return form.outlines.tracks.empty() ? of_lines : either(std::move(of_lines), of_outlines());
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
    outline.groups.push_back({.rule = FillRule::nonzero,
                              .draw = [=](Contours& contours) { draw_arc_caps(form, turn, centered, contours); }});
    outline.truth = Outline::in_third_or_both_others;
    return outline;
}

Outline stroke_outline(const LinesForm& form, const Stroke& how, const Detail& detail) {
    return stroke_polygonal(rings_and_lines(form), how, detail);
}

}  // namespace

Outline stroke_along(FlatPath flat, const Pen& pen, const Stroke& how) {
    const auto lines = std::make_shared<FlatPath>(std::move(flat));
    return {.origin = lines->origin, .groups = {stroke_of(lines, pen, how)}};
}

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
