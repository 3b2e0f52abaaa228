// Fills and strokes of paths.
#include "raster/closed_shapes.hpp"
#include "raster/find_bounds.hpp"
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
    return scan_flat(flatten(shape, crisp_flatness), how, clip, receiver);
}

Box scan_stroke(const Path& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    check_stroke(how);
    const auto flat = flatten(shape, crisp_flatness);
    if (how.align == Align::center) {
        return how.width == 1 ? scan_thin_tracks(flat, how, clip, receiver)
                              : scan_wide_tracks(flat, how, clip, receiver);
    }
    return scan_on_side(
        how, receiver,
        [&](const Stroke& twice, const SpanReceiver& gather) { scan_wide_tracks(flat, twice, clip, gather); },
        [&](const SpanReceiver& gather) { scan_flat(flat, Fill{}, clip, gather); });
}

Box stroke_bounds(const Path& shape, const Stroke& how) {
    check_stroke(how);
    return bounds_of_tracks(flatten(shape, crisp_flatness), how,
                            [&](const Box& clip) { return scan_stroke(shape, how, clip, nobody); });
}

}  // namespace coldbrick::detail

namespace coldbrick {

Box bounds(const Path& shape) { return detail::fill_bounds(shape, Fill{}); }

Box detail::fill_bounds(const Path& shape, const Fill& how) {
    const auto flat = flatten(shape, crisp_flatness);
    return bounds_of_tracks(flat, Stroke{}, [&](const Box& clip) { return scan_flat(flat, how, clip, nobody); });
}

}  // namespace coldbrick
