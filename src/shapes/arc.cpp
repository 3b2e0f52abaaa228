// Arcs.
#include "raster/forms/outline.hpp"
#include "shapes/swept_rows.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace coldbrick::inline v0::detail {

namespace {

// The width-1 arc: what of the outline lies in the wedge.
Box scan_thin_arc(const Arc& shape, const Box& clip, const SpanReceiver& receiver) {
    const auto form = ellipse_form(shape.of);
    const Wedge wedge{form.origin(), form.center(), Turn{shape.sweep}};
    const EllipseTable fill{whole_of(shape.of), 0, clip};
    return scan_outline(fill.rows(), clip, receiver, wedge);
}

// The pixel that stands for an arc too short to have a pixel's centre in its directions: of the outline's pixels near
// its beginning, the one nearest to it.
Box scan_short_arc(const Arc& shape, const Box& clip, const SpanReceiver& receiver) {
    const auto form = ellipse_form(shape.of);
    const auto place = form.rim(Turn{shape.sweep}.begin());
    const auto near = Point{.x = form.origin().x + static_cast<int>(std::floor(place.x)),
                            .y = form.origin().y + static_cast<int>(std::floor(place.y))};
    constexpr auto reach = 4;
    const auto around = Box{.at = {.x = near.x - reach, .y = near.y - reach}, .size = {2 * reach + 1, 2 * reach + 1}};
    if (!scan_thin_arc(shape, around,
                       {.context = nullptr, .take = [](void*, std::span<const Span>) {}, .repeats = Repeats::never})
             .empty()) {
        return scan_thin_arc(shape, clip, receiver);
    }
    const auto outline = spans_of([&](const SpanReceiver& gather) { scan_stroke(shape.of, Stroke{}, around, gather); });
    auto nearest = Box{};
    auto least = std::numeric_limits<double>::infinity();
    for (const auto& run : outline) {
        for (auto x = run.x; x < run.x + run.length; ++x) {
            const auto away = length(Vec{double{1} * x - form.origin().x, double{1} * run.y - form.origin().y} - place);
            if (away >= least) continue;
            least = away;
            nearest = {.at = {.x = x, .y = run.y}, .size = {1, 1}};
        }
    }
    return scan_fill(nearest, clip, receiver);
}

Box scan_hairline_arc(const Arc& shape, const Box& clip, const SpanReceiver& receiver) {
    const Turn turn{shape.sweep};
    const auto& size = shape.of.box().size;
    const auto longest = turn.degrees * (std::numbers::pi / 360) * std::max(size.width, size.height);
    constexpr auto few_pixels = 3;
    const auto is_short = !turn.is_whole && longest < few_pixels;
    return is_short ? scan_short_arc(shape, clip, receiver) : scan_thin_arc(shape, clip, receiver);
}

Box scan_wide_arc(const Arc& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    const WholeBand band{how};
    const auto form = ellipse_form(shape.of);
    const Turn turn{shape.sweep};
    const Wedge wedge{form.origin(), form.center(), turn};
    const EllipseTable outer{whole_of(shape.of), band.out, clip};
    const EllipseTable inner{whole_of(shape.of), -band.in, clip};
    const auto scan_body = [&](const SpanReceiver& gather) {
        return scan_between(outer.rows(), inner.rows(), wedge, clip, gather);
    };
    if (turn.is_whole || how.cap == Cap::flush) return scan_body(receiver);
    return scan_merged(receiver, [&](const SpanReceiver& gather) {
        const auto body = scan_body(gather);
        return enclosing(body, scan_contours(form.origin(), FillRule::nonzero, clip, gather,
                                             [&](Contours& contours) { draw_arc_caps(form, turn, how, contours); }));
    });
}

}  // namespace

template <class Number>
Form form_of(const BasicArc<Number>& shape, const Detail&) {
    check_sweep("arc", shape.sweep);
    return ArcForm{.of = ellipse_form(shape.of), .sweep = shape.sweep};
}
template Form form_of(const BasicArc<int>&, const Detail&);
template Form form_of(const BasicArc<double>&, const Detail&);

Box scan_stroke(const Arc& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    check_sweep("arc", shape.sweep);
    check_stroke(how);
    auto centered = how;
    centered.align = Align::center;
    if (how.dash.empty()) {
        return how.width == Width{1} ? scan_hairline_arc(shape, clip, receiver)
                                     : scan_wide_arc(shape, centered, clip, receiver);
    }
    const auto form = ellipse_form(shape.of);
    auto track = track_of({.of = form, .sweep = shape.sweep}, detail_in(clip, crisp_flatness, how));
    const auto scan_hairline_of = [&](const SpanReceiver& gather) { return scan_hairline_arc(shape, clip, gather); };
    if (how.width != Width{1}) {
        // An arc has no inside: its dashes are what the pen covers.
        const auto pen = pen_around(centered);
        return scan_contours(form.origin(), FillRule::nonzero, clip, receiver,
                             [&](Contours& contours) { draw_stroke(track, pen, centered, contours); });
    }
    return scan_around({.edges = {std::move(track)}, .origin = form.origin()}, centered, clip, receiver,
                       scan_hairline_of, scan_hairline_of);
}

}  // namespace coldbrick::inline v0::detail
