// The boxes around shapes.
#include "geometry/limits.hpp"
#include "raster/dashes.hpp"
#include "raster/ellipse_rows.hpp"
#include "raster/find_bounds.hpp"
#include "raster/outer_box.hpp"
#include "raster/outline.hpp"
#include "raster/polygon_checks.hpp"
#include "raster/round_tables.hpp"
#include "raster/search_bounds.hpp"
#include "raster/shape_scans.hpp"

#include "coldbrick/region.hpp"
#include "coldbrick/vertices.hpp"

#include <cmath>
#include <limits>
#include <vector>

namespace coldbrick::detail {

namespace {

Box box_around(const std::vector<Point>& points) {
    auto box = Box{.at = points.front(), .size = {.width = 1, .height = 1}};
    for (const auto point : points) box = enclosing(box, {.at = point, .size = {.width = 1, .height = 1}});
    return box;
}

Box box_around(const Polygon& polygon) {
    check_polygon(polygon);
    auto box = Box{};
    for (const auto& ring : polygon.rings()) box = enclosing(box, box_around(ring));
    return box;
}

// Of a fill that has no form of its own.
template <class Shape>
Box search_fill(const Shape& shape, const Fill& how, const std::function<Box(const Box&)>& scan) {
    return find_bounds(&shape, how, Transform{}, scan);
}
template <class Shape>
Box search_fill(const Shape& shape) {
    return search_fill(shape, Fill{}, [&](const Box& clip) { return scan_fill(shape, clip, nobody); });
}

bool is_turned(const Ellipse& shape) noexcept {
    return shape.box().size.width != shape.box().size.height && shape.turn() != Angle{};
}

// Checks a shape.
template <class Shape>
void check_fill_of(const Shape& shape) {
    (void)scan_fill(shape, Box{}, nobody);
}

}  // namespace

Box fill_bounds(const Box& shape) {
    check_box("box", shape);
    return shape;
}

Box fill_bounds(const Circle& shape) { return checked_box(shape); }

Box fill_bounds(const RoundedBox& shape) {
    check_fill_of(shape);
    return shape.box;
}

Box fill_bounds(const Ellipse& shape) {
    if (is_turned(shape)) return search_fill(shape);
    check_fill_of(shape);
    return shape.box();
}

Box fill_bounds(const Sector& shape) { return search_fill(shape); }
Box fill_bounds(const Chord& shape) { return search_fill(shape); }
Box fill_bounds(const Region& shape) { return shape.bounds(); }
Box fill_bounds(const VertexList& shape) {
    check_fillable(shape);
    return search_fill(shape);
}

Box fill_bounds(const Polygon& shape, const Fill& how) {
    if (how.edges == Edges::inclusive) return box_around(shape);
    return search_fill(shape, how, [&](const Box& clip) { return scan_fill(shape, how, clip, nobody); });
}

Box fill_bounds(const Path& shape, const Fill& how) {
    return search_fill(shape, how, [&](const Box& clip) { return scan_fill(shape, how, clip, nobody); });
}

namespace {

bool is_drawn_as_hairline(const Fill&) noexcept { return false; }
bool is_drawn_as_hairline(const Stroke& how) noexcept { return how.edge == Edge::crisp && is_hairline(how); }

// The contours of an area, wherever they are. A crisp outline of width 1 has the pixels of the fill that are at its
// edge.
template <class How>
Outline recorded_outline(const ShapeRef& shape, const How& how, const Detail& detail) {
    if constexpr (std::is_same_v<How, Stroke>) {
        const auto is_rim = is_drawn_as_hairline(how) && !lines_of(shape, detail);
        if (is_rim && arc_of(shape)) return outline_of(shape, Stroke{.width = 3}, detail);
        if (is_rim) return outline_of(shape, Fill{}, detail);
    }
    return outline_of(shape, how, detail);
}

std::vector<FineSegment> segments_of(const Outline& outline, const Placement& placement) {
    std::vector<FineSegment> segments;
    Contours recording{outline.origin, segments};
    placement.apply(recording, outline.origin);
    for (std::size_t i = 0; i < outline.groups.size(); ++i) {
        recording.begin_group(static_cast<int>(i));
        outline.groups[i].draw(recording);
    }
    return segments;
}

bool is_dashed(const Fill&) noexcept { return false; }
bool is_dashed(const Stroke& how) noexcept { return !how.dash.empty(); }

// Whether a crisp shape has, of its rim, the pixels that are nearest to the lines between its points.
bool is_of_hairlines(const ShapeRef& shape, const Fill& how) {
    return how.edge == Edge::crisp && how.edges == Edges::inclusive && has_inside(shape);
}
bool is_of_hairlines(const ShapeRef& shape, const Stroke& how) {
    const auto is_aligned = has_inside(shape) && how.align != Align::center;
    return is_drawn_as_hairline(how) && !is_aligned && !ellipse_of(shape) && !box_of_shape(shape) &&
           !sector_of(shape) && !chord_of(shape) && !arc_of(shape);
}

// Those of the points are the outermost ones.
Box box_around_nodes(const FlatPath& flat) {
    constexpr auto most = 2147483000.0;
    auto least = Vec{most, most};
    auto greatest = Vec{-most, -most};
    for (const auto& track : flat.tracks) {
        for (const auto& node : track.nodes) {
            const auto pixel = Vec{std::ceil(node.at.x - 0.5), std::ceil(node.at.y - 0.5)};
            least = {std::min(least.x, pixel.x), std::min(least.y, pixel.y)};
            greatest = {std::max(greatest.x, pixel.x), std::max(greatest.y, pixel.y)};
        }
    }
    const auto point = [&](Vec at) {
        const auto whole = [=](double value) { return static_cast<int>(std::clamp(value, -most, most)); };
        return Point{.x = whole(at.x + flat.origin.x), .y = whole(at.y + flat.origin.y)};
    };
    return Box::between({.from = point(least), .to = point(greatest)});
}

double reach_outside(const Fill&) noexcept { return 0; }
double reach_outside(const Stroke& how) noexcept { return Band{how}.out; }

// Of a whole ellipse, by how far it reaches to each side.
template <class How>
Box box_of_ellipse(const EllipseForm& form, const How& how) {
    const auto out = reach_outside(how);
    const auto most = std::min(double{1} * std::numeric_limits<int>::max(), 4e9);
    const auto pixel = [&](double center, double reach, int origin) {
        const auto edge = center + reach;
        const auto first = how.edge == Edge::smooth ? floor_of(edge + 0.5) : ceil_of(edge);
        return static_cast<int>(std::clamp(static_cast<double>(first) + origin, -most, most));
    };
    // The last pixel is the first one in a mirror.
    const auto last = [&](double center, double reach, int origin) { return -pixel(-center, -reach, -origin); };
    const auto [x, y] = form.center();
    const auto [w, h] = Vec{form.half_width() + out, form.half_height() + out};
    return Box::between({.from = {pixel(x, -w, form.origin().x), pixel(y, -h, form.origin().y)},
                         .to = {last(x, w, form.origin().x), last(y, h, form.origin().y)}});
}

// By the contours, recorded wherever they are.
template <class How>
Box find_by_contours(const ShapeRef& shape, const How& how, const Placement& placement, const Box& outer,
                     const std::function<Box(const Box&)>& scan) {
    const auto detail = Detail{.flatness = crisp_flatness / placement.scale(), .is_measured = is_dashed(how)};
    if (is_of_hairlines(shape, how)) return box_around_nodes(placement(lines_of(shape, detail).value()));
    const auto outline = recorded_outline(shape, how, detail);
    const auto segments = segments_of(outline, placement);
    const auto known = KnownArea{.segments = segments,
                                 .truth = outline.truth,
                                 .is_smooth = how.edge == Edge::smooth,
                                 .is_straight = is_straight(shape)};
    return search_bounds(known, outer, scan);
}

template <class How>
Box find(const ShapeRef& shape, const How& how, const Transform& by, const std::function<Box(const Box&)>& scan) {
    scan(Box{});  // which checks them
    const Placement placement{by};
    const auto outer = outer_box(shape, reach_of(how), placement);
    const auto few_rows = how.edge == Edge::smooth ? 1 << 9 : 1 << 12;
    constexpr auto many_rows = 1 << 16;
    constexpr auto large = 1 << 22;
    const auto is_dashed_hairline = is_dashed(how) && is_drawn_as_hairline(how);
    const auto rows = outer.size.height;
    const auto is_large = !is_straight(shape) && std::max(outer.size.width, rows) > large;
    if (std::holds_alternative<const Region*>(shape)) return bounds_by_rows(outer, scan);
    try {
        if (rows <= (is_dashed_hairline ? many_rows : few_rows)) return bounds_by_rows(outer, scan);
        if (is_large && !is_dashed(how) && placement.is_identity()) {
            if (const auto form = ellipse_of(shape)) return box_of_ellipse(*form, how);
        }
        if (is_large || is_dashed_hairline) return outer;
        return find_by_contours(shape, how, placement, outer, scan);
    } catch (const TooManyEdges&) {
        return outer;
    }
}

}  // namespace

Box find_bounds(const ShapeRef& shape, const Fill& how, const Transform& by,
                const std::function<Box(const Box&)>& scan) {
    return find(shape, how, by, scan);
}

Box find_bounds(const ShapeRef& shape, const Stroke& how, const Transform& by,
                const std::function<Box(const Box&)>& scan) {
    return find(shape, how, by, scan);
}

Box grown(const Box& box, int by) noexcept {
    constexpr auto least = std::int64_t{std::numeric_limits<int>::min()};
    constexpr auto most = std::int64_t{std::numeric_limits<int>::max()};
    const auto first = [&](int at) { return static_cast<int>(std::max(std::int64_t{at} - by, least)); };
    const auto last = [&](int at, int size) {
        return static_cast<int>(std::min(std::int64_t{at} + size - 1 + by, most));
    };
    return Box::between({.from = {.x = first(box.at.x), .y = first(box.at.y)},
                         .to = {.x = last(box.at.x, box.size.width), .y = last(box.at.y, box.size.height)}});
}

namespace {

// Of the strokes that have no form of their own.
template <class Shape>
Box bounds_of_stroke(const Shape& shape, const Stroke& how) {
    return find_bounds(&shape, how, Transform{},
                       [&](const Box& clip) { return scan_stroke(shape, how, clip, nobody); });
}

// Checks them.
template <class Shape>
void check(const Shape& shape, const Stroke& how) {
    (void)scan_stroke(shape, how, Box{}, nobody);
}

}  // namespace

Box stroke_bounds(const Line& shape, const Stroke& how) {
    return stroke_bounds(Polyline{.through = {shape.from, shape.to}}, how);
}

Box stroke_bounds(const Polyline& shape, const Stroke& how) {
    check(shape, how);
    return how.width == 1 && how.dash.empty() ? box_around(shape.through) : bounds_of_stroke(shape, how);
}

Box stroke_bounds(const Polygon& shape, const Stroke& how) {
    check(shape, how);
    const auto is_outline = is_hairline(how) && how.align == Align::center;
    return is_outline ? box_around(shape) : bounds_of_stroke(shape, how);
}

Box stroke_bounds(const Box& shape, const Stroke& how) { return stroke_bounds(RoundedBox{.box = shape}, how); }

Box stroke_bounds(const RoundedBox& shape, const Stroke& how) {
    check(shape, how);
    return how.dash.empty() ? grown(shape.box, Band{how}.out) : bounds_of_stroke(shape, how);
}

Box stroke_bounds(const Circle& shape, const Stroke& how) { return stroke_bounds(Ellipse{shape}, how); }

Box stroke_bounds(const Ellipse& shape, const Stroke& how) {
    check(shape, how);
    if (how.dash.empty() && !is_turned(shape)) return grown(shape.box(), Band{how}.out);
    return bounds_of_stroke(shape, how);
}

Box stroke_bounds(const Arc& shape, const Stroke& how) { return bounds_of_stroke(shape, how); }
Box stroke_bounds(const Sector& shape, const Stroke& how) { return bounds_of_stroke(shape, how); }
Box stroke_bounds(const Chord& shape, const Stroke& how) { return bounds_of_stroke(shape, how); }
Box stroke_bounds(const Path& shape, const Stroke& how) { return bounds_of_stroke(shape, how); }
Box stroke_bounds(const VertexList& shape, const Stroke& how) { return bounds_of_stroke(shape, how); }

}  // namespace coldbrick::detail
