// Lines and polylines.
#include "geometry/limits.hpp"
#include "raster/rows/ellipse_rows.hpp"
#include "raster/strokes/hairline.hpp"
#include "shapes/line_tracks.hpp"

#include <optional>

namespace coldbrick::inline v0::detail {

namespace {

Track track_of(std::span<const Point> path, bool closed, Point origin) {
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

Box scan_open(std::span<const Point> path, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    const auto origin = path.front();
    const auto width = static_cast<int>(how.width.pixels());
    const auto track = track_of(path, false, origin);
    auto pen = pen_along(how);
    const auto has_discs = how.cap == Cap::round && how.dash.empty();
    if (!has_discs) {
        return scan_contours(origin, FillRule::nonzero, clip, receiver,
                             [&](Contours& contours) { draw_stroke(track, pen, how, contours); });
    }
    pen.cap = Cap::flush;
    return scan_merged(receiver, [&](const SpanReceiver& gather) {
        auto touched = scan_cap(path.front(), width, clip, gather);
        touched = enclosing(touched, scan_cap(path.back(), width, clip, gather));
        if (track.nodes.size() == 1) return touched;
        return enclosing(touched, scan_contours(origin, FillRule::nonzero, clip, gather,
                                                [&](Contours& contours) { draw_track(track, pen, contours); }));
    });
}

}  // namespace

Box scan_rings(const std::vector<std::vector<Point>>& rings, const Stroke& how, const Box& clip,
               const SpanReceiver& receiver) {
    const auto origin = rings.front().front();
    const auto pen = pen_along(how);
    return scan_contours(origin, FillRule::nonzero, clip, receiver, [&](Contours& contours) {
        for (const auto& ring : rings) draw_stroke(track_of(ring, true, origin), pen, how, contours);
    });
}

template <class Number>
Form form_of(const BasicLine<Number>& shape, const Detail&) {
    LineTracks tracks{"line"};
    const auto ends = std::array{checked_place("line", "from", shape.from), checked_place("line", "to", shape.to)};
    tracks.add(ends, false);
    return LinesForm{.flat = tracks.take()};
}
template Form form_of(const BasicLine<int>&, const Detail&);
template Form form_of(const BasicLine<double>&, const Detail&);

template <class Number>
Form form_of(const BasicPolyline<Number>& shape, const Detail&) {
    if constexpr (std::is_same_v<Number, int>) check_polyline(shape);
    LineTracks tracks{"polyline"};
    tracks.add_checked(shape.through, shape.closed);
    return LinesForm{.flat = tracks.take()};
}
template Form form_of(const BasicPolyline<int>&, const Detail&);
template Form form_of(const BasicPolyline<double>&, const Detail&);

Box scan_stroke(const Line& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    check_point("line", "from", shape.from);
    check_point("line", "to", shape.to);
    check_stroke(how);
    if (how.width == Width{1}) return scan_hairline(shape.from, shape.to, how, clip, receiver);
    return scan_open(std::array{shape.from, shape.to}, how, clip, receiver);
}

Box scan_stroke(const Polyline& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    check_polyline(shape);
    check_stroke(how);
    if (how.width == Width{1}) return scan_hairline(shape.through, shape.closed, how, clip, receiver);
    if (shape.closed && shape.through.size() > 2) return scan_rings({shape.through}, how, clip, receiver);
    return scan_open(shape.through, how, clip, receiver);
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
