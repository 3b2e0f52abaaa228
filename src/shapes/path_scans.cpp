// Fills and strokes of paths.
#include "raster/strokes/flat_path_scans.hpp"
#include "raster/strokes/polygon_strokes.hpp"
#include "raster/strokes/stroker.hpp"
#include "shapes/flatten.hpp"
#include "shapes/shape_scans.hpp"

#include <algorithm>

namespace coldbrick::inline v0::detail {

Box scan_fill(const Path& shape, const Fill& how, const Box& clip, const SpanReceiver& receiver) {
    return scan_flat(flatten(shape, detail_in(clip, crisp_flatness)), how, clip, receiver);
}

Box scan_stroke(const Path& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    check_stroke(how);
    auto flat = flatten(shape, detail_in(clip, crisp_flatness, how));
    const auto scan_tracks = [&](const FlatPath& tracks, const Pen& pen, const Stroke& along, const SpanReceiver& to) {
        return along.width == Width{1} ? scan_thin_tracks(tracks, along, clip, to)
                                       : scan_wide_tracks(tracks, pen, along, clip, to);
    };
    if (!PolygonStroke{how}.needs_fill()) return scan_tracks(flat, pen_along(how), how, receiver);
    const auto parts = split_rings(std::move(flat));
    if (parts.rings.tracks.empty()) return scan_tracks(parts.lines, pen_along(how), how, receiver);
    const auto along_rings = spans_of([&](const SpanReceiver& gather) {
        scan_polygon_stroke(
            how, gather,
            [&](const Stroke& trace, const SpanReceiver& to) {
                return scan_tracks(parts.rings, pen_along_rings(trace), trace, to);
            },
            [&](const SpanReceiver& to) { scan_flat(parts.rings, Fill{}, clip, to); });
    });
    const auto along_lines =
        spans_of([&](const SpanReceiver& gather) { scan_tracks(parts.lines, pen_along(how), how, gather); });
    return pass_on(union_of(along_rings, along_lines), receiver);
}

Form form_of(const Path& shape, const Detail& detail) {
    const auto is_curve = [](const Path::Step& step) {
        return step.kind == Path::Step::Kind::cubic || step.kind == Path::Step::Kind::arc;
    };
    const auto steps = shape.steps();
    const auto is_straight = std::none_of(steps.begin(), steps.end(), is_curve);
    return LinesForm{.flat = flatten(shape, detail),
                     .has_inside = true,
                     .is_area_only = true,
                     .is_straight = is_straight,
                     .margin = is_straight ? 0 : detail.flatness};
}

}  // namespace coldbrick::inline v0::detail
