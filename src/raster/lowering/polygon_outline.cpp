#include "raster/lowering/polygon_outline.hpp"

#include "raster/lowering/arc_outline.hpp"
#include "raster/lowering/simple_ring.hpp"
#include "raster/strokes/polygon_strokes.hpp"

#include <algorithm>
#include <optional>
#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

namespace {

// What lies inside closed subpaths.
void draw_inside(const FlatPath& lines, Contours& contours) {
    for (const auto& subpath : lines.subpaths) {
        for (const auto& node : subpath.nodes) contours.to(node.at);
        contours.close();
    }
}

}  // namespace

Outline::Group inside_of(const SharedLines& lines, FillRule rule) {
    return {.rule = rule, .draw = [lines](Contours& contours) { draw_inside(*lines, contours); }};
}

Outline::Group stroke_of(const SharedLines& lines, const Pen& pen, const Stroke& how) {
    return {.rule = FillRule::nonzero, .draw = [lines, pen, how = how](Contours& contours) {
                for (const auto& subpath : lines->subpaths) draw_stroke(subpath, pen, how, contours);
            }};
}

Outline stroke_beside(const SharedLines& edges, bool are_clockwise, const Pen& pen) {
    const auto sides = [&](void (*draw)(const Subpath&, bool, const Pen&, Contours&)) {
        return [=](Contours& contours) {
            for (const auto& subpath : edges->subpaths) draw(subpath, are_clockwise, pen, contours);
        };
    };
    auto outline = Outline{.origin = edges->origin, .groups = {}, .truth = Outline::in_first_only};
    outline.groups.push_back({.rule = FillRule::nonzero, .draw = sides(draw_grown)});
    outline.groups.push_back({.rule = FillRule::nonzero, .draw = sides(draw_shrunk), .only_counterclockwise = true});
    return outline;
}

namespace {

SharedLines reversed(FlatPath lines) {
    for (auto& subpath : lines.subpaths) subpath.reverse();
    return std::make_shared<const FlatPath>(std::move(lines));
}

// An area that does not matter, beside that of a pixel, in so much detail.
double little_in(const Tolerance& tolerance) noexcept {
    const auto across = 16 * std::min(tolerance.flatness, smooth_flatness);
    return across * across;
}

// The pen that grows an inclusive polygon: along its rings, of width 1.
Pen pen_of_fills(Edge edge) noexcept { return pen_along(Stroke{.edge = edge}); }

Outline::Group grown_of(const SharedLines& lines, const Pen& pen, GrownRing ring) {
    return {.rule = FillRule::nonzero, .draw = [lines, pen, ring = std::move(ring)](Contours& contours) {
                draw_grown(*lines, ring, pen, contours);
            }};
}

// What an inclusive polygon covers, if it is simple.
std::optional<Outline::Group> grown_of(const SharedLines& lines, Edge edge, const Tolerance& tolerance) {
    const auto pen = pen_of_fills(edge);
    auto ring = grown_ring(*lines, pen, little_in(tolerance));
    return ring ? std::optional{grown_of(lines, pen, *std::move(ring))} : std::nullopt;
}

// The outline of width 1 that belongs to an inclusive polygon. Open subpaths count as closed.
Outline::Group rim_of(const SharedLines& lines, Edge edge) {
    auto closed = std::make_shared<FlatPath>(*lines);
    for (auto& subpath : closed->subpaths) {
        if (subpath.nodes.size() > 2) subpath.close();
    }
    const auto hairline = Stroke{.edge = edge};
    return stroke_of(closed, pen_along(hairline), hairline);
}

void add_inclusive_fill(const SharedLines& rings, Edge edge, const Tolerance& tolerance, Outline::Groups& groups) {
    if (auto grown = grown_of(rings, edge, tolerance)) return groups.push_back(*std::move(grown));
    groups.push_back(inside_of(rings, FillRule::even_odd));
    groups.push_back(rim_of(rings, edge));
}

// Of a ring that does not meet itself, what two pens cover and its fill are what it encloses, grown by the wider pen,
// without what is out of the thinner one's reach inside; and miters on the inner side that come out beyond other edges.
// Outside, it is what is not in its fill.
std::optional<Outline> stroke_of_ring(const SharedLines& rings, const Stroke& how, const Tolerance& tolerance) {
    // (A fill has miters. They are within the thinner pen's at least.)
    const auto has_miters = how.join == Join::miter || (how.join == Join::round && how.align == Align::outside);
    const auto is_fit = how.edge == Edge::smooth && how.align != Align::inside && how.dash.empty() && has_miters;
    if (!is_fit) return std::nullopt;
    const auto width = how.width.pixels();
    auto pen = pen_along_rings(how);
    pen.left = how.align == Align::outside ? width + 0.5 : (width + 1) / 2;
    pen.right = (width - 1) / 2;
    auto ring = grown_ring(*rings, pen, little_in(tolerance));
    if (!ring || ring->has_cut_corners) return std::nullopt;
    if (how.align == Align::outside) {
        auto filled = grown_of(rings, how.edge, tolerance);
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
    if (lines.subpaths.size() != 1 || !how.dash.empty() || how.edge == Edge::crisp) return false;
    const auto& subpath = lines.subpaths.front();
    const auto& nodes = subpath.nodes;
    const auto is_of_curve = [](const Subpath::Node& node) { return node.in != Vec{} || node.out != Vec{}; };
    return nodes.size() <= 2 && !subpath.closed && std::none_of(nodes.begin(), nodes.end(), is_of_curve);
}

}  // namespace

Outline fill_polygonal(const LinesGeometry& geometry, const Fill& how, const Tolerance& tolerance) {
    const auto lines = lines_of(geometry.flat);
    if (!geometry.has_inside) return {.origin = lines->origin, .groups = {inside_of(lines, FillRule::nonzero)}};
    auto outline = Outline{.origin = lines->origin, .groups = {}};
    const auto turn = how.edge == Edge::smooth ? turn_of_convex(*lines) : 0;
    if (how.edges == Edges::shared) {
        outline.is_simple = turn != 0;
        outline.groups.push_back(turn < 0 ? inside_of(reversed(*lines), how.rule) : inside_of(lines, how.rule));
        return outline;
    }
    if (turn != 0) {
        outline.is_simple = true;
        outline.groups.push_back(grown_of(lines, pen_of_fills(how.edge), {.is_clockwise = turn > 0}));
        return outline;
    }
    if (auto grown = grown_of(lines, how.edge, tolerance)) {
        outline.groups.push_back(*std::move(grown));
        return outline;
    }
    outline.groups.push_back(inside_of(lines, how.rule));
    outline.groups.push_back(rim_of(lines, how.edge));
    outline.truth = Outline::in_either;
    return outline;
}

Outline stroke_polygonal(const LinesGeometry& geometry, const Stroke& how, const Tolerance& tolerance) {
    const auto& subpaths = geometry.flat.subpaths;
    const auto is_ring = [&](const Subpath& subpath) {
        return geometry.has_inside && (subpath.closed || !geometry.is_area_only);
    };
    const auto has_rings = std::any_of(subpaths.begin(), subpaths.end(), is_ring);
    const auto has_lines = !std::all_of(subpaths.begin(), subpaths.end(), is_ring);
    if (!has_rings) {
        auto outline = stroke_along(geometry.flat, pen_along(how), how);
        outline.is_simple = is_straight_stroke(geometry.flat, how);
        return outline;
    }
    const PolygonStroke rule{how};
    if (!has_lines && !rule.needs_fill()) return stroke_along(geometry.flat, pen_along_rings(how), how);
    auto rings = lines_of(geometry.flat);
    auto outline = Outline{.origin = geometry.flat.origin, .groups = {}};
    if (has_lines) {
        auto parts = rings_and_lines(geometry);
        rings = std::make_shared<const FlatPath>(std::move(parts.rings));
        outline.groups.push_back(
            stroke_of(std::make_shared<const FlatPath>(std::move(parts.lines)), pen_along(how), how));
    } else {
        if (auto of_ring = stroke_of_ring(rings, how, tolerance)) return *std::move(of_ring);
        outline.groups.push_back({.rule = FillRule::nonzero, .draw = [](Contours&) {}});
    }
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
        add_inclusive_fill(rings, how.edge, tolerance, groups);
    }
    outline.truth = group_truth([&](unsigned inside) {
        const auto filled = inside >> (1 + traces) != 0;
        const auto wider = traces == 2 && (inside & 4U) != 0;
        return (inside & 1U) != 0 || rule.covers((inside & 2U) != 0, wider, filled);
    });
    return outline;
}

Outline stroke_along(const FlatPath& lines, const Pen& pen, const Stroke& how) {
    return {.origin = lines.origin, .groups = {stroke_of(lines_of(lines), pen, how)}};
}

}  // namespace coldbrick::inline v0::detail
