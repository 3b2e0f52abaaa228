// Strokes of polygons and closed paths, the same on all sides: rule 4 of docs/pixel-rules.md, "Polygons".
#pragma once

#include "raster/spans/span_sets.hpp"

#include "coldbrick/stroke.hpp"

#include <cmath>
#include <vector>

namespace coldbrick::inline v0::detail {

// What such a stroke is put together from: strokes of odd widths along the edge, centred (traces), and the inclusive
// fill.
class PolygonStroke {
  public:
    explicit PolygonStroke(const Stroke& how) : how_{how} {}

    // One, or of a centred stroke of even width a thinner and a wider one.
    [[nodiscard]] std::vector<Stroke> traces() const {
        const auto width = how_.width.pixels();
        if (is_within_rim()) return width < 0.5 ? std::vector{trace(1 - 2 * width)} : std::vector<Stroke>{};
        if (how_.align == Align::inside) return {trace(2 * width - 1)};
        if (how_.align == Align::outside) return {trace(2 * width + 1)};
        if (!is_even()) return {trace(width)};
        return {trace(width - 1), trace(width + 1)};
    }

    [[nodiscard]] bool needs_fill() const noexcept { return how_.align != Align::center || is_even(); }

    // Whether it is inside and so thin that it has only what of the fill lies neither inside of the rings nor on the
    // trace.
    [[nodiscard]] bool is_within_rim() const noexcept {
        return how_.align == Align::inside && how_.width.pixels() <= 0.5;
    }

    // Whether a place is covered, by whether it is on the first trace, on the second one, and in the fill.
    [[nodiscard]] bool covers(bool first, bool second, bool filled) const noexcept {
        if (how_.align == Align::inside) return first && filled;
        if (how_.align == Align::outside) return first && !filled;
        return first || (second && !filled);
    }

  private:
    [[nodiscard]] bool is_even() const noexcept {
        return how_.width.is_whole() && std::fmod(how_.width.pixels(), 2) == 0;
    }
    [[nodiscard]] Stroke trace(double width) const {
        auto along = how_;
        along.width = width;
        along.align = Align::center;
        return along;
    }

    Stroke how_;
};

// Crisp: scan_trace(stroke, sink) reports a trace, scan_fill_of(sink) the fill.
template <class ScanTrace, class ScanFill>
Box scan_polygon_stroke(const Stroke& how, const SpanSink& sink, const ScanTrace& scan_trace,
                        const ScanFill& scan_fill_of) {
    const PolygonStroke rule{how};
    const auto traces = rule.traces();
    if (!rule.needs_fill()) return scan_trace(traces.front(), sink);
    const auto spans_along = [&](const Stroke& trace) {
        return spans_of([&](const SpanSink& gather) { scan_trace(trace, gather); });
    };
    const auto filled = spans_of(scan_fill_of);
    const auto first = spans_along(traces.front());
    if (how.align == Align::inside) return pass_on(intersection_of(first, filled), sink);
    if (how.align == Align::outside) return pass_on(difference_of(first, filled), sink);
    return pass_on(union_of(first, difference_of(spans_along(traces.back()), filled)), sink);
}

}  // namespace coldbrick::inline v0::detail
