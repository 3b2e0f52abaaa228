// Fills and strokes of paths.
#include "raster/closed_shapes.hpp"
#include "raster/flat_path_scans.hpp"

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
    const auto flat = flatten(shape, detail_in(clip, crisp_flatness, how));
    if (how.align == Align::center) {
        return how.width == 1 ? scan_thin_tracks(flat, how, clip, receiver)
                              : scan_wide_tracks(flat, how, clip, receiver);
    }
    return scan_on_side(
        how, receiver,
        [&](const Stroke& twice, const SpanReceiver& gather) { scan_wide_tracks(flat, twice, clip, gather); },
        [&](const SpanReceiver& gather) { scan_flat(flat, Fill{}, clip, gather); });
}

}  // namespace coldbrick::detail
