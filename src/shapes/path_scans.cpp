// Fills and strokes of paths.
#include "raster/strokes/flat_path_scans.hpp"
#include "raster/strokes/polygon_strokes.hpp"
#include "raster/strokes/stroker.hpp"
#include "shapes/flatten.hpp"
#include "shapes/shape_scans.hpp"

#include <algorithm>

namespace coldbrick::inline v0::detail {

Box scan_fill(const Path& shape, const Fill& how, const Box& clip, const SpanSink& sink) {
    return scan_flat(flatten(shape, detail_in(clip, crisp_flatness)), how, clip, sink);
}

Box scan_stroke(const Path& shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    check_stroke(how);
    auto flat = flatten(shape, detail_in(clip, crisp_flatness, how));
    const auto scan_subpaths = [&](const FlatPath& subpaths, const Pen& pen, const Stroke& along, const SpanSink& to) {
        return along.width == Width{1} ? scan_thin_subpaths(subpaths, along, clip, to)
                                       : scan_wide_subpaths(subpaths, pen, along, clip, to);
    };
    if (!PolygonStroke{how}.needs_fill()) return scan_subpaths(flat, pen_along(how), how, sink);
    const auto parts = split_rings(std::move(flat));
    if (parts.rings.subpaths.empty()) return scan_subpaths(parts.lines, pen_along(how), how, sink);
    const auto along_rings = spans_of([&](const SpanSink& gather) {
        scan_polygon_stroke(
            how, gather,
            [&](const Stroke& trace, const SpanSink& to) {
                return scan_subpaths(parts.rings, pen_along_rings(trace), trace, to);
            },
            [&](const SpanSink& to) { scan_flat(parts.rings, Fill{}, clip, to); });
    });
    const auto along_lines =
        spans_of([&](const SpanSink& gather) { scan_subpaths(parts.lines, pen_along(how), how, gather); });
    return pass_on(union_of(along_rings, along_lines), sink);
}

Geometry geometry_of(const Path& shape, const Tolerance& tolerance) {
    const auto is_curve = [](const Path::Step& step) {
        return step.kind == Path::Step::Kind::cubic || step.kind == Path::Step::Kind::arc;
    };
    const auto steps = shape.steps();
    const auto is_straight = std::none_of(steps.begin(), steps.end(), is_curve);
    return LinesGeometry{.flat = flatten(shape, tolerance),
                         .has_inside = true,
                         .is_area_only = true,
                         .is_straight = is_straight,
                         .margin = is_straight ? 0 : tolerance.flatness};
}

}  // namespace coldbrick::inline v0::detail
