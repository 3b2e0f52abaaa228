// What the strokes of closed shapes have in common.
#pragma once

#include "raster/spans/span_sets.hpp"
#include "raster/strokes/stroker.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>

namespace coldbrick::inline v0::detail {

// The edges of a shape's fill, clockwise around it, relative to an origin.
struct EdgeTracks {
    CountedVector<Subpath> edges;
    Point origin;
};

// A stroke along the edge of a shape by a pen around it: with dashes, or of shapes whose parallel curves have no
// geometry of their own. scan_inside(sink) reports the fill, scan_hairline(sink) its outline.
template <class ScanInside, class ScanHairline>
Box scan_around(const EdgeTracks& along, const Stroke& how, const Box& clip, const SpanSink& sink,
                const ScanInside& scan_fill_of, const ScanHairline& scan_hairline_of) {
    const auto is_hair = how.width == Width{1} && how.align != Align::outside;
    auto pen_stroke = how;
    if (is_hair) {
        // Dashes of a hairline are cut out of it by wider ones.
        pen_stroke.width = 3;
        pen_stroke.align = Align::center;
    }
    const auto spans_by = [&](const Pen& pen) {
        return spans_of([&](const SpanSink& gather) {
            scan_contours(along.origin, FillRule::nonzero, clip, gather, [&](Contours& contours) {
                for (const auto& edge : along.edges) draw_stroke(edge, pen, pen_stroke, contours);
            });
        });
    };
    const auto pen = pen_around(pen_stroke);
    if (is_hair) return pass_on(intersection_of(spans_by(pen), spans_of(scan_hairline_of)), sink);
    // Each dash is a path of its own, on both sides of the edge (rule 4).
    if (how.align == Align::center && !how.dash.empty()) return pass_on(spans_by(pen), sink);
    const auto inside = spans_of(scan_fill_of);
    if (how.align == Align::outside) return pass_on(difference_of(spans_by(pen), inside), sink);
    const auto inner = intersection_of(spans_by(how.align == Align::inside ? pen : inner_side(pen)), inside);
    if (how.align == Align::inside) return pass_on(inner, sink);
    // Chords lie beside their curves: so that nothing is left out between both, the outer one reaches inwards as well.
    auto outer = outer_side(pen);
    constexpr auto beside = 1.0 / 64;
    outer.right = std::min(beside, pen.right);
    return pass_on(union_of(spans_by(outer), inner), sink);
}

}  // namespace coldbrick::inline v0::detail
