// The strokes of closed shapes whose rows at a distance from the edge are known.
#pragma once

#include "raster/rounds/closed_shapes.hpp"
#include "raster/rounds/round_tables.hpp"
#include "shapes/shape_scans.hpp"

#include "coldbrick/budget.hpp"

#include <optional>
#include <variant>

namespace coldbrick::inline v0::detail {

// The outline's pixels, by the rows of the fill. tabulate(distance, join, rows, table) returns the rows.
template <class Tabulate>
Box scan_table_outline(const Tabulate& tabulate_at, const Box& clip, const SpanSink& sink) {
    TableMemory memory;
    RunTable fill{&memory};
    auto rows = window_of(clip);
    --rows.top;
    ++rows.bottom;
    tabulate_at(0, Join::miter, rows, fill);
    return scan_outline(fill, clip, sink);
}

template <class Tabulate>
Box scan_band(const Tabulate& tabulate_at, const Stroke& how, const Box& clip, const SpanSink& sink) {
    const WholeBand band{how};
    const auto rows = window_of(clip);
    TableMemory memory;
    RunTable outer{&memory};
    RunTable inner{&memory};
    tabulate_at(band.out, how.join, rows, outer);
    tabulate_at(-band.in, how.join, rows, inner);
    return scan_between(outer, inner, NoCut{}, clip, sink);
}

// A stroke along the edges of a geometry that a shape is lowered to, by a pen around them.
template <class Shape, class ScanHairline>
Box scan_along_edges(const Shape& shape, const Stroke& how, const Box& clip, const SpanSink& sink,
                     const ScanHairline& scan_hairline_of) {
    const auto tolerance = detail_in(clip, crisp_flatness, how);
    const auto geometry = geometry_of(shape, tolerance);
    return scan_around(
        {.edges = std::visit(
             [&](const auto& of) -> CountedVector<Subpath> {
                 if constexpr (requires { edges_of(of, tolerance); }) return edges_of(of, tolerance);
                 return {};
             },
             geometry),
         .origin = origin_of(geometry)},
        how, clip, sink, [&](const SpanSink& gather) { scan_fill(shape, clip, gather); }, scan_hairline_of);
}

template <class Tabulate, class Shape>
Box scan_closed(const Tabulate& tabulate_at, const Shape& shape, const Stroke& how, const Box& clip,
                const SpanSink& sink) {
    if (is_hairline(how)) return scan_table_outline(tabulate_at, clip, sink);
    if (how.dash.empty()) return scan_band(tabulate_at, how, clip, sink);
    return scan_along_edges(shape, how, clip, sink,
                            [&](const SpanSink& gather) { scan_table_outline(tabulate_at, clip, gather); });
}

// The box of a stroke without dashes around a box's edge, or that of an upright ellipse in it.
inline std::optional<Box> band_box(const Box& box, const Stroke& how) {
    if (!how.dash.empty()) return std::nullopt;
    // Cut off at coordinates' ends, on both sides, where a size would be no number.
    const auto out = WholeBand{how}.out;
    const auto last = box.last();
    return Box::between(
        {.from = {.x = box.at.x - out, .y = box.at.y - out}, .to = {.x = last.x + out, .y = last.y + out}});
}

}  // namespace coldbrick::inline v0::detail
