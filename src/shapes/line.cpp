// Lines and polylines.
#include "geometry/limits.hpp"
#include "raster/rows/ellipse_rows.hpp"
#include "raster/strokes/hairline.hpp"
#include "shapes/line_subpaths.hpp"

#include <optional>

namespace coldbrick::inline v0::detail {

namespace {

Subpath subpath_of(std::span<const Point> path, bool closed, Point origin) {
    Subpath subpath;
    subpath.nodes.reserve(path.size());
    for (const auto point : path) subpath.add(from_origin(point, origin));
    if (closed && path.size() > 2) subpath.close();
    return subpath;
}

// The discs of round caps at whole pixels are exactly the ellipses in their boxes.
Box disc_box(Point at, int width) noexcept {
    return {.at = {.x = at.x - width / 2, .y = at.y - width / 2}, .size = {width, width}};
}

Box scan_cap(Point at, int width, const Box& clip, const SpanSink& sink) {
    return scan_ellipse(disc_box(at, width), clip, sink);
}

Box scan_open(std::span<const Point> path, const Stroke& how, const Box& clip, const SpanSink& sink) {
    const auto origin = path.front();
    const auto width = static_cast<int>(how.width.pixels());
    const auto subpath = subpath_of(path, false, origin);
    auto pen = pen_along(how);
    const auto has_discs = how.cap == Cap::round && how.dash.empty();
    if (!has_discs) {
        return scan_contours(origin, FillRule::nonzero, clip, sink,
                             [&](Contours& contours) { draw_stroke(subpath, pen, how, contours); });
    }
    pen.cap = Cap::flush;
    return scan_merged(sink, [&](const SpanSink& gather) {
        auto touched = scan_cap(path.front(), width, clip, gather);
        touched = enclosing(touched, scan_cap(path.back(), width, clip, gather));
        if (subpath.nodes.size() == 1) return touched;
        return enclosing(touched, scan_contours(origin, FillRule::nonzero, clip, gather,
                                                [&](Contours& contours) { draw_subpath(subpath, pen, contours); }));
    });
}

}  // namespace

Box scan_rings(const std::vector<std::vector<Point>>& rings, const Stroke& how, const Box& clip, const SpanSink& sink) {
    const auto origin = rings.front().front();
    const auto pen = pen_along(how);
    return scan_contours(origin, FillRule::nonzero, clip, sink, [&](Contours& contours) {
        for (const auto& ring : rings) draw_stroke(subpath_of(ring, true, origin), pen, how, contours);
    });
}

template <class Number>
Geometry geometry_of(const BasicLine<Number>& shape, const Tolerance&) {
    LineSubpaths subpaths{"line"};
    const auto ends = std::array{checked_place("line", "from", shape.from), checked_place("line", "to", shape.to)};
    subpaths.add(ends, false);
    return LinesGeometry{.flat = subpaths.take()};
}
template Geometry geometry_of(const BasicLine<int>&, const Tolerance&);
template Geometry geometry_of(const BasicLine<double>&, const Tolerance&);

template <class Number>
Geometry geometry_of(const BasicPolyline<Number>& shape, const Tolerance&) {
    if constexpr (std::is_same_v<Number, int>) check_polyline(shape);
    LineSubpaths subpaths{"polyline"};
    subpaths.add_checked(shape.through, shape.closed);
    return LinesGeometry{.flat = subpaths.take()};
}
template Geometry geometry_of(const BasicPolyline<int>&, const Tolerance&);
template Geometry geometry_of(const BasicPolyline<double>&, const Tolerance&);

Box scan_stroke(const Line& shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    check_point("line", "from", shape.from);
    check_point("line", "to", shape.to);
    check_stroke(how);
    if (how.width == Width{1}) return scan_hairline(shape.from, shape.to, how, clip, sink);
    return scan_open(std::array{shape.from, shape.to}, how, clip, sink);
}

Box scan_stroke(const Polyline& shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    check_polyline(shape);
    check_stroke(how);
    if (how.width == Width{1}) return scan_hairline(shape.through, shape.closed, how, clip, sink);
    if (shape.closed && shape.through.size() > 2) return scan_rings({shape.through}, how, clip, sink);
    return scan_open(shape.through, how, clip, sink);
}

std::optional<Box> stroke_bounds(const Line& shape, const Stroke& how) {
    if (how.width != Width{1} || !how.dash.empty()) return std::nullopt;
    return Box::between({.from = shape.from, .to = shape.to});
}

std::optional<Box> stroke_bounds(const Polyline& shape, const Stroke& how) {
    if (how.width != Width{1} || !how.dash.empty()) return std::nullopt;
    return box_around(shape.through);
}

}  // namespace coldbrick::inline v0::detail
