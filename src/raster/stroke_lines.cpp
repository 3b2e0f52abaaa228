// Strokes of lines, polylines and polygons.
#include "geometry/limits.hpp"
#include "raster/ellipse_rows.hpp"
#include "raster/hairline.hpp"
#include "raster/polygon_checks.hpp"
#include "raster/polygon_strokes.hpp"
#include "raster/shape_scans.hpp"
#include "raster/stroker.hpp"

namespace coldbrick::detail {

namespace {

constexpr Vec from_origin(Point point, Point origin) noexcept {
    return {static_cast<double>(point.x) - origin.x, static_cast<double>(point.y) - origin.y};
}

Track track_of(const std::vector<Point>& path, bool closed, Point origin) {
    Track track;
    track.nodes.reserve(path.size());
    for (const auto point : path) track.add(from_origin(point, origin));
    if (closed && path.size() > 2) track.close();
    return track;
}

// The discs of round caps at whole pixels are exactly the ellipses in their boxes.
Box disc_box(Point at, int width) noexcept {
    return {.at = {.x = at.x - width / 2, .y = at.y - width / 2}, .size = {width, width}};
}

Box scan_cap(Point at, int width, const Box& clip, const SpanReceiver& receiver) {
    return scan_ellipse(disc_box(at, width), clip, receiver);
}

Box scan_open(const std::vector<Point>& path, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    const auto origin = path.front();
    const auto track = track_of(path, false, origin);
    auto pen = pen_along(how);
    const auto has_discs = how.cap == Cap::round && how.dash.empty();
    if (!has_discs) {
        return scan_contours(origin, FillRule::nonzero, clip, receiver,
                             [&](Contours& contours) { draw_stroke(track, pen, how, contours); });
    }
    pen.cap = Cap::flush;
    return scan_merged(receiver, [&](const SpanReceiver& gather) {
        auto touched = scan_cap(path.front(), how.width, clip, gather);
        touched = enclosing(touched, scan_cap(path.back(), how.width, clip, gather));
        if (track.nodes.size() == 1) return touched;
        return enclosing(touched, scan_contours(origin, FillRule::nonzero, clip, gather,
                                                [&](Contours& contours) { draw_track(track, pen, contours); }));
    });
}

Box scan_rings(const std::vector<Ring>& rings, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    const auto origin = rings.front().front();
    const auto pen = pen_along(how);
    return scan_contours(origin, FillRule::nonzero, clip, receiver, [&](Contours& contours) {
        for (const auto& ring : rings) draw_stroke(track_of(ring, true, origin), pen, how, contours);
    });
}

}  // namespace

Box scan_stroke(const Line& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    check_point("line", "from", shape.from);
    check_point("line", "to", shape.to);
    check_stroke(how);
    if (how.width == 1) return scan_hairline(shape, how, clip, receiver);
    return scan_open({shape.from, shape.to}, how, clip, receiver);
}

Box scan_stroke(const Polyline& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    check_polyline(shape);
    check_stroke(how);
    if (how.width == 1) return scan_hairline(shape, how, clip, receiver);
    if (shape.closed && shape.through.size() > 2) return scan_rings({shape.through}, how, clip, receiver);
    return scan_open(shape.through, how, clip, receiver);
}

Box scan_stroke(const Polygon& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    check_polygon(shape);
    check_stroke(how);
    const auto scan_trace = [&](const Stroke& trace, const SpanReceiver& to) {
        return trace.width == 1 ? scan_hairline(shape, trace, clip, to) : scan_rings(shape.rings(), trace, clip, to);
    };
    return scan_polygon_stroke(how, receiver, scan_trace,
                               [&](const SpanReceiver& gather) { scan_fill(shape, Fill{}, clip, gather); });
}

}  // namespace coldbrick::detail
