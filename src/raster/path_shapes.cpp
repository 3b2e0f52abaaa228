// Fills and strokes of paths.
#include "raster/flat_path_scans.hpp"
#include "raster/polygon_strokes.hpp"
#include "raster/shape_scans.hpp"
#include "raster/stroker.hpp"

namespace coldbrick::detail {

Box scan_flat(const FlatPath& flat, const Fill& how, const Box& clip, const SpanReceiver& receiver) {
    if (how.edges == Edges::shared) return scan_inside_tracks(flat, how.rule, clip, receiver);
    auto closed = flat;
    for (auto& track : closed.tracks) track.close();
    return scan_merged(receiver, [&](const SpanReceiver& gather) {
        const auto interior = scan_inside_tracks(closed, how.rule, clip, gather);
        return enclosing(interior, scan_thin_tracks(closed, Stroke{}, clip, gather));
    });
}

Box scan_fill(const Path& shape, const Fill& how, const Box& clip, const SpanReceiver& receiver) {
    return scan_flat(flatten(shape, detail_in(clip, crisp_flatness)), how, clip, receiver);
}

Box scan_stroke(const Path& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    check_stroke(how);
    auto flat = flatten(shape, detail_in(clip, crisp_flatness, how));
    const auto scan_tracks = [&](const FlatPath& tracks, const Stroke& along, const SpanReceiver& to) {
        return along.width == 1 ? scan_thin_tracks(tracks, along, clip, to) : scan_wide_tracks(tracks, along, clip, to);
    };
    if (!PolygonStroke{how}.needs_fill()) return scan_tracks(flat, how, receiver);
    const auto parts = split_rings(std::move(flat));
    if (parts.rings.tracks.empty()) return scan_tracks(parts.lines, how, receiver);
    const auto along_rings = spans_of([&](const SpanReceiver& gather) {
        scan_polygon_stroke(
            how, gather,
            [&](const Stroke& trace, const SpanReceiver& to) { return scan_tracks(parts.rings, trace, to); },
            [&](const SpanReceiver& to) { scan_flat(parts.rings, Fill{}, clip, to); });
    });
    const auto along_lines = spans_of([&](const SpanReceiver& gather) { scan_tracks(parts.lines, how, gather); });
    return pass_on(union_of(along_rings, along_lines), receiver);
}

}  // namespace coldbrick::detail
