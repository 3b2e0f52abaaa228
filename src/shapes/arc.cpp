// Arcs.
#include "raster/lowering/outline.hpp"
#include "shapes/swept_rows.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace coldbrick::inline v0::detail {

namespace {

// The width-1 arc: what of the outline lies in the wedge.
Box scan_thin_arc(const Arc& shape, const Box& clip, const SpanSink& sink) {
    const auto geometry = ellipse_form(shape.of);
    const Wedge wedge{geometry.origin(), geometry.center(), Turn{shape.sweep}};
    const EllipseTable fill{whole_of(shape.of), 0, clip};
    return scan_outline(fill.rows(), clip, sink, wedge);
}

// The pixel that stands for an arc too short to have a pixel's centre in its directions: of the outline's pixels near
// its beginning, the one nearest to it.
Box scan_short_arc(const Arc& shape, const Box& clip, const SpanSink& sink) {
    const auto geometry = ellipse_form(shape.of);
    const auto place = geometry.rim(Turn{shape.sweep}.begin());
    const auto near = Point{.x = geometry.origin().x + static_cast<int>(std::floor(place.x)),
                            .y = geometry.origin().y + static_cast<int>(std::floor(place.y))};
    constexpr auto reach = 4;
    const auto around = Box{.at = {.x = near.x - reach, .y = near.y - reach}, .size = {2 * reach + 1, 2 * reach + 1}};
    if (!scan_thin_arc(shape, around,
                       {.context = nullptr, .take = [](void*, std::span<const Span>) {}, .repeats = Repeats::never})
             .empty()) {
        return scan_thin_arc(shape, clip, sink);
    }
    const auto outline = spans_of([&](const SpanSink& gather) { scan_stroke(shape.of, Stroke{}, around, gather); });
    auto nearest = Box{};
    auto least = std::numeric_limits<double>::infinity();
    for (const auto& run : outline) {
        for (auto x = run.x; x < run.x + run.length; ++x) {
            const auto away =
                length(Vec{double{1} * x - geometry.origin().x, double{1} * run.y - geometry.origin().y} - place);
            if (away >= least) continue;
            least = away;
            nearest = {.at = {.x = x, .y = run.y}, .size = {1, 1}};
        }
    }
    return scan_fill(nearest, clip, sink);
}

Box scan_hairline_arc(const Arc& shape, const Box& clip, const SpanSink& sink) {
    const Turn turn{shape.sweep};
    const auto& size = shape.of.box().size;
    const auto longest = turn.degrees * (std::numbers::pi / 360) * std::max(size.width, size.height);
    constexpr auto few_pixels = 3;
    const auto is_short = !turn.is_whole && longest < few_pixels;
    return is_short ? scan_short_arc(shape, clip, sink) : scan_thin_arc(shape, clip, sink);
}

Box scan_wide_arc(const Arc& shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    const WholeBand band{how};
    const auto geometry = ellipse_form(shape.of);
    const Turn turn{shape.sweep};
    const Wedge wedge{geometry.origin(), geometry.center(), turn};
    const EllipseTable outer{whole_of(shape.of), band.out, clip};
    const EllipseTable inner{whole_of(shape.of), -band.in, clip};
    const auto scan_body = [&](const SpanSink& gather) {
        return scan_between(outer.rows(), inner.rows(), wedge, clip, gather);
    };
    if (turn.is_whole || how.cap == Cap::flush) return scan_body(sink);
    return scan_merged(sink, [&](const SpanSink& gather) {
        const auto body = scan_body(gather);
        return enclosing(body,
                         scan_contours(geometry.origin(), FillRule::nonzero, clip, gather,
                                       [&](Contours& contours) { draw_arc_caps(geometry, turn, how, contours); }));
    });
}

}  // namespace

template <class Number>
Geometry geometry_of(const BasicArc<Number>& shape, const Tolerance&) {
    check_sweep("arc", shape.sweep);
    return ArcGeometry{.of = ellipse_form(shape.of), .sweep = shape.sweep};
}
template Geometry geometry_of(const BasicArc<int>&, const Tolerance&);
template Geometry geometry_of(const BasicArc<double>&, const Tolerance&);

Box scan_stroke(const Arc& shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    check_sweep("arc", shape.sweep);
    check_stroke(how);
    auto centered = how;
    centered.align = Align::center;
    if (how.dash.empty()) {
        return how.width == Width{1} ? scan_hairline_arc(shape, clip, sink)
                                     : scan_wide_arc(shape, centered, clip, sink);
    }
    const auto geometry = ellipse_form(shape.of);
    auto subpath = subpath_of({.of = geometry, .sweep = shape.sweep}, detail_in(clip, crisp_flatness, how));
    const auto scan_hairline_of = [&](const SpanSink& gather) { return scan_hairline_arc(shape, clip, gather); };
    if (how.width != Width{1}) {
        // An arc has no inside: its dashes are what the pen covers.
        const auto pen = pen_around(centered);
        return scan_contours(geometry.origin(), FillRule::nonzero, clip, sink,
                             [&](Contours& contours) { draw_stroke(subpath, pen, centered, contours); });
    }
    return scan_around({.edges = {std::move(subpath)}, .origin = geometry.origin()}, centered, clip, sink,
                       scan_hairline_of, scan_hairline_of);
}

}  // namespace coldbrick::inline v0::detail
