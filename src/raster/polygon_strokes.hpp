// Strokes of polygons and closed paths, the same on all sides: rule 4 of docs/pixel-rules.md, "Polygons".
#pragma once

#include "raster/span_sets.hpp"

#include "coldbrick/stroke.hpp"

#include <vector>

namespace coldbrick::detail {

// What such a stroke is put together from: strokes of odd widths along the edge, centred (traces), and the inclusive
// fill.
class PolygonStroke {
  public:
    explicit PolygonStroke(const Stroke& how) : how_{how} {}

    // One, or of a centred stroke of even width a thinner and a wider one.
    [[nodiscard]] std::vector<Stroke> traces() const {
        if (how_.align == Align::inside) return {trace(2 * how_.width - 1)};
        if (how_.align == Align::outside) return {trace(2 * how_.width + 1)};
        if (is_odd()) return {trace(how_.width)};
        return {trace(how_.width - 1), trace(how_.width + 1)};
    }

    [[nodiscard]] bool needs_fill() const noexcept { return how_.align != Align::center || !is_odd(); }

    // Whether a place is covered, by whether it is on the first trace, on the second one, and in the fill.
    [[nodiscard]] bool covers(bool first, bool second, bool filled) const noexcept {
        if (how_.align == Align::inside) return first && filled;
        if (how_.align == Align::outside) return first && !filled;
        return first || (second && !filled);
    }

  private:
    [[nodiscard]] bool is_odd() const noexcept { return how_.width % 2 == 1; }
    [[nodiscard]] Stroke trace(int width) const {
        auto along = how_;
        along.width = width;
        along.align = Align::center;
        return along;
    }

    Stroke how_;
};

// Crisp: scan_trace(stroke, receiver) tells a trace, scan_fill_of(receiver) the fill.
template <class ScanTrace, class ScanFill>
Box scan_polygon_stroke(const Stroke& how, const SpanReceiver& receiver, const ScanTrace& scan_trace,
                        const ScanFill& scan_fill_of) {
    const PolygonStroke rule{how};
    const auto traces = rule.traces();
    if (!rule.needs_fill()) return scan_trace(traces.front(), receiver);
    const auto spans_along = [&](const Stroke& trace) {
        return spans_of([&](const SpanReceiver& gather) { scan_trace(trace, gather); });
    };
    const auto filled = spans_of(scan_fill_of);
    const auto first = spans_along(traces.front());
    if (how.align == Align::inside) return pass_on(intersection_of(first, filled), receiver);
    if (how.align == Align::outside) return pass_on(difference_of(first, filled), receiver);
    return pass_on(union_of(first, difference_of(spans_along(traces.back()), filled)), receiver);
}

}  // namespace coldbrick::detail
