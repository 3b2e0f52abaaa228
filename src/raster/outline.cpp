#include "raster/outline.hpp"

#include "geometry/limits.hpp"
#include "raster/outline_tracks.hpp"
#include "raster/polygon_strokes.hpp"
#include "raster/round_tables.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/region.hpp"
#include "coldbrick/vertices.hpp"

#include <cmath>
#include <memory>

namespace coldbrick::detail {

Detail of_form(const EllipseForm& form, const Detail& detail) noexcept {
    return detail.relative_to({double{1} * form.origin().x, double{1} * form.origin().y});
}

Track edge_of_sector(const SweptForm& sector, const Detail& detail) {
    Track track;
    track.add(sector.of.center());
    sector.of.add_rim(Turn{sector.sweep}, of_form(sector.of, detail), track);
    track.close();
    return track;
}

Track edge_of_chord(const SweptForm& chord, const Detail& detail) {
    Track track;
    chord.of.add_rim(Turn{chord.sweep}, of_form(chord.of, detail), track);
    if (!track.nodes.empty()) track.nodes.front().smooth = track.nodes.back().smooth = false;
    track.close();
    return track;
}

namespace {

using Group = Outline::Group;
using SharedLines = std::shared_ptr<const FlatPath>;

bool has_region(const ShapeRef& shape) noexcept { return std::holds_alternative<const Region*>(shape); }

// What lies inside closed tracks.
void draw_inside(const FlatPath& lines, Contours& contours) {
    for (const auto& track : lines.tracks) {
        for (const auto& node : track.nodes) contours.to(node.at);
        contours.close();
    }
}

Group inside_of(const SharedLines& lines, FillRule rule) {
    return {.rule = rule, .draw = [lines](Contours& contours) { draw_inside(*lines, contours); }};
}

// Whether two lines have a place in common.
bool do_meet(Vec a, Vec b, Vec c, Vec d) noexcept {
    const auto c_side = cross(b - a, c - a);
    const auto d_side = cross(b - a, d - a);
    const auto a_side = cross(d - c, a - c);
    const auto b_side = cross(d - c, b - c);
    return c_side * d_side <= 0 && a_side * b_side <= 0;
}

// The edge of an inclusive polygon, clockwise, if it is simple: one ring that does not meet itself, with corners that
// are mitered. What it covers is then inside of the outer side of its outline, which has far fewer edges than both
// sides and the polygon.
std::optional<Track> simple_edge(const FlatPath& lines) {
    if (lines.tracks.size() != 1) return std::nullopt;
    auto track = lines.tracks.front();
    auto& nodes = track.nodes;
    const auto count = nodes.size();
    constexpr std::size_t most = 64;
    if (count < 3 || count > most) return std::nullopt;
    const auto at = [&](std::size_t i) { return nodes[i % count].at; };
    auto twice_area = 0.0;
    for (std::size_t i = 0; i < count; ++i) {
        twice_area += cross(at(i) - at(0), at(i + 1) - at(0));
        const auto before = unit(at(i + 1) - at(i));
        const auto after = unit(at(i + 2) - at(i + 1));
        constexpr auto least_miter = 0.87;
        if (dot(before, after) < -least_miter) return std::nullopt;
        for (std::size_t k = i + 2; k < count; ++k) {
            const auto is_neighbour = k + 1 == count && i == 0;
            if (!is_neighbour && do_meet(at(i), at(i + 1), at(k), at(k + 1))) return std::nullopt;
        }
    }
    if (twice_area < 0) std::reverse(nodes.begin(), nodes.end());
    track.closed = true;
    return track;
}

// What such a polygon covers.
std::optional<Group> grown_of(const FlatPath& lines, Edge edge) {
    auto track = simple_edge(lines);
    if (!track) return std::nullopt;
    const auto pen = pen_along(Stroke{.edge = edge});
    return Group{.rule = FillRule::nonzero, .draw = [pen, edge_track = *std::move(track)](Contours& contours) {
                     draw_grown(edge_track, pen, contours);
                 }};
}

Group inside_of(Track edge) {
    auto lines = std::make_shared<FlatPath>();
    lines->tracks.push_back(std::move(edge));
    return inside_of(lines, FillRule::even_odd);
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

Group band_of(const EllipseForm& form, const Band& band) {
    return {.rule = FillRule::even_odd, .draw = [=](Contours& contours) {
                form.draw_parallel(band.out + slack_in(contours), contours);
                form.draw_parallel(-band.in + slack_in(contours), contours);
            }};
}

Group band_of(const BoxForm& box, const Band& band, Join join) {
    return {.rule = FillRule::even_odd, .draw = [=](Contours& contours) {
                draw_box(box, band.out + slack_in(contours), join, contours);
                draw_box(box, -band.in + slack_in(contours), join, contours);
            }};
}

Track edge_of(const EllipseForm& form, const Detail& detail) {
    Track track;
    // The ellipse begins where its first axis ends.
    const auto from = Angle::radians(std::atan2(form.direction().y, form.direction().x));
    form.add_rim(Turn{{.from = from, .by = Angle::degrees(360)}}, of_form(form, detail), track);
    track.close();
    return track;
}

// A pen around the edges of something. With sides that reach different ways at sharp corners: of what goes inside, only
// what is inside counts.
Outline stroke_around(Point origin, const SharedLines& edges, Group inside, const Stroke& how) {
    const auto pen = pen_around(how);
    if (how.align != Align::center) {
        return {.origin = origin,
                .groups = {std::move(inside), stroke_of(edges, pen, how)},
                .truth = how.align == Align::inside ? Outline::in_both : Outline::in_second_only};
    }
    auto inner = stroke_of(edges, inner_side(pen), how);
    if (pen.left <= 0)
        return {.origin = origin, .groups = {std::move(inside), std::move(inner)}, .truth = Outline::in_both};
    return {.origin = origin,
            .groups = {std::move(inside), std::move(inner), stroke_of(edges, outer_side(pen), how)},
            .truth = Outline::in_third_or_both_others};
}

// A pen around a shape's edge.
Outline stroke_around(Point origin, Track edge, Group inside, const Stroke& how) {
    auto lines = std::make_shared<FlatPath>();
    lines->tracks.push_back(std::move(edge));
    return stroke_around(origin, lines, std::move(inside), how);
}

std::vector<Group> inclusive_fill(const SharedLines& rings, Edge edge) {
    if (auto grown = grown_of(*rings, edge)) return {*std::move(grown)};
    return {inside_of(rings, FillRule::even_odd), rim_of(rings, edge)};
}

// Rings as rule 4 has it for polygons, and lines beside them.
Outline stroke_polygonal(RingsAndLines parts, const Stroke& how) {
    if (parts.rings.tracks.empty()) return stroke_along(std::move(parts.lines), how);
    const PolygonStroke rule{how};
    if (parts.lines.tracks.empty() && !rule.needs_fill()) return stroke_along(std::move(parts.rings), how);
    auto outline = stroke_along(std::move(parts.lines), how);
    const auto rings = std::make_shared<FlatPath>(std::move(parts.rings));
    auto& groups = outline.groups;
    for (const auto& trace : rule.traces()) groups.push_back(stroke_of(rings, pen_along(trace), trace));
    const auto traces = groups.size() - 1;
    if (rule.needs_fill()) {
        for (auto& group : inclusive_fill(rings, how.edge)) groups.push_back(std::move(group));
    }
    outline.truth = group_truth([&](unsigned inside) {
        const auto filled = inside >> (1 + traces) != 0;
        const auto wider = traces == 2 && (inside & 4U) != 0;
        return (inside & 1U) != 0 || rule.covers((inside & 2U) != 0, wider, filled);
    });
    return outline;
}

// The directions of a turn, as far as a reach.
Group wedge_of(const SweptForm& arc, double reach) {
    const Turn turn{arc.sweep};
    const auto center = arc.of.center();
    return {.rule = FillRule::nonzero, .draw = [=](Contours& contours) {
                contours.to(center);
                auto at = turn.begin();
                contours.to(center + at * reach);
                for (auto rest = turn.degrees; rest > 90; rest -= 90) {
                    const auto next = -left_of(at);
                    contours.to(center + (at + next) * reach);
                    contours.to(center + next * reach);
                    at = next;
                }
                contours.to(center + (at + turn.end()) * reach);
                contours.to(center + turn.end() * reach);
                contours.close();
            }};
}

Outline arc_stroke(const SweptForm& arc, Stroke how, const Detail& detail) {
    how.align = Align::center;
    const Turn turn{arc.sweep};
    if (!how.dash.empty()) {
        Track track;
        arc.of.add_rim(turn, of_form(arc.of, detail), track);
        if (turn.is_whole) track.close();
        auto lines = std::make_shared<FlatPath>();
        lines->tracks.push_back(std::move(track));
        return {.origin = arc.of.origin(), .groups = {stroke_of(lines, pen_around(how), how)}};
    }
    const Band band{how};
    auto outline = Outline{.origin = arc.of.origin(), .groups = {band_of(arc.of, band)}};
    if (turn.is_whole) return outline;
    outline.groups.push_back(wedge_of(arc, 2.0 * (arc.of.a() + arc.of.b() + how.width)));
    outline.truth = Outline::in_both;
    if (how.cap == Cap::flush) return outline;
    outline.groups.push_back(
        {.rule = FillRule::nonzero, .draw = [=](Contours& contours) { draw_arc_caps(arc.of, turn, how, contours); }});
    outline.truth = Outline::in_third_or_both_others;
    return outline;
}

Outline ellipse_stroke(const EllipseForm& form, const Stroke& how, const Detail& detail) {
    if (how.dash.empty()) return {.origin = form.origin(), .groups = {band_of(form, Band{how})}};
    return stroke_around(form.origin(), edge_of(form, detail), inside_of(form), how);
}

// Of a sector or chord, by its edge.
template <class EdgeOf>
Outline swept_stroke(const SweptForm& part, const Stroke& how, const Detail& detail, const EdgeOf& edge_of_part) {
    if (Turn{part.sweep}.is_whole) return ellipse_stroke(part.of, how, detail);
    auto edge = edge_of_part(part, detail);
    return stroke_around(part.of.origin(), edge, inside_of(edge), how);
}

template <class EdgeOf>
Outline swept_fill(const SweptForm& part, const Detail& detail, const EdgeOf& edge_of_part) {
    const auto is_whole = Turn{part.sweep}.is_whole;
    auto inside = is_whole ? inside_of(part.of) : inside_of(edge_of_part(part, detail));
    return {.origin = part.of.origin(), .groups = {std::move(inside)}};
}

Outline region_fill(const Region& region) {
    auto lines = std::make_shared<FlatPath>();
    lines->tracks = outline_tracks(region.spans(), region.bounds().at);
    return {.origin = region.bounds().at, .groups = {inside_of(lines, FillRule::nonzero)}};
}

Outline region_stroke(const Region& region, const Stroke& how) {
    auto rounded = how;
    rounded.join = Join::round;
    const auto origin = region.bounds().at;
    auto lines = std::make_shared<FlatPath>();
    lines->tracks = outline_tracks(region.spans(), origin);
    return stroke_around(origin, lines, inside_of(lines, FillRule::nonzero), rounded);
}

}  // namespace

bool has_inside(const ShapeRef& shape) noexcept {
    return std::holds_alternative<const Polygon*>(shape) || std::holds_alternative<const Path*>(shape) ||
           std::holds_alternative<const subpixel::Polygon*>(shape);
}

Outline stroke_along(FlatPath flat, const Stroke& how) {
    const auto lines = std::make_shared<FlatPath>(std::move(flat));
    return {.origin = lines->origin, .groups = {stroke_of(lines, pen_along(how), how)}};
}

RingsAndLines rings_and_lines(const ShapeRef& shape, FlatPath flat) {
    if (std::holds_alternative<const Path*>(shape)) return split_rings(std::move(flat));
    auto none = FlatPath{.origin = flat.origin, .tracks = {}};
    if (has_inside(shape)) return {.rings = std::move(flat), .lines = std::move(none)};
    return {.rings = std::move(none), .lines = std::move(flat)};
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

Track edge_of(const BoxForm& box, const Detail& detail) {
    const auto from_box = detail.relative_to({double{1} * box.origin.x, double{1} * box.origin.y});
    Track track;
    const auto k = box.corner_radius;
    const auto corner = [&](Vec tip, Vec from, Vec to) {
        if (k == 0) return track.add(tip);
        const auto place = RoundPlaces{.center = tip - (from + to) * k, .half_axes = {k, k}};
        track.add_joint(place(from), place.along(from));
        add_chords(from, to, place, from_box, track);
        track.add_joint(place(to), place.along(to));
    };
    corner({box.right, box.top}, {0, -1}, {1, 0});
    corner({box.right, box.bottom}, {1, 0}, {0, 1});
    corner({box.left, box.bottom}, {0, 1}, {-1, 0});
    corner({box.left, box.top}, {-1, 0}, {0, -1});
    // A path begins where its first straight side does.
    track.rotate_to_last();
    track.close();
    return track;
}

Outline outline_of(const ShapeRef& shape, const Fill& how, const Detail& detail) {
    if (const auto ellipse = ellipse_of(shape)) return {.origin = ellipse->origin(), .groups = {inside_of(*ellipse)}};
    if (const auto box = box_of_shape(shape)) return {.origin = box->origin, .groups = {inside_of(*box)}};
    if (const auto sector = sector_of(shape)) return swept_fill(*sector, detail, edge_of_sector);
    if (const auto chord = chord_of(shape)) return swept_fill(*chord, detail, edge_of_chord);
    if (has_region(shape)) return region_fill(*std::get<const Region*>(shape));
    if (const auto* const list = std::get_if<const VertexList*>(&shape)) check_fillable(**list);
    const auto lines = std::make_shared<FlatPath>(lines_of(shape, detail).value());
    if (!has_inside(shape)) return {.origin = lines->origin, .groups = {inside_of(lines, FillRule::nonzero)}};
    auto outline = Outline{.origin = lines->origin, .groups = {inside_of(lines, how.rule)}};
    if (how.edges == Edges::shared) return outline;
    if (auto grown = grown_of(*lines, how.edge)) {
        outline.groups = {*std::move(grown)};
        return outline;
    }
    outline.groups.push_back(rim_of(lines, how.edge));
    outline.truth = Outline::in_either;
    return outline;
}

Outline outline_of(const ShapeRef& shape, const Stroke& how, const Detail& detail) {
    check_stroke(how);
    if (const auto ellipse = ellipse_of(shape)) return ellipse_stroke(*ellipse, how, detail);
    if (const auto box = box_of_shape(shape)) {
        if (how.dash.empty()) return {.origin = box->origin, .groups = {band_of(*box, Band{how}, how.join)}};
        return stroke_around(box->origin, edge_of(*box, detail), inside_of(*box), how);
    }
    if (const auto arc = arc_of(shape)) return arc_stroke(*arc, how, detail);
    if (const auto sector = sector_of(shape)) return swept_stroke(*sector, how, detail, edge_of_sector);
    if (const auto chord = chord_of(shape)) return swept_stroke(*chord, how, detail, edge_of_chord);
    if (has_region(shape)) return region_stroke(*std::get<const Region*>(shape), how);
    return stroke_polygonal(rings_and_lines(shape, lines_of(shape, detail).value()), how);
}

}  // namespace coldbrick::detail
