// Polygons that do not meet themselves.
#pragma once

#include "raster/edges/flat_path.hpp"
#include "raster/strokes/stroker.hpp"

#include <cstdint>
#include <optional>

namespace coldbrick::inline v0::detail {

// An inclusive polygon of one ring that does not meet itself. It covers what lies inside of the outer side of its
// outline (of width 1), which has far fewer edges than both sides and the polygon; and the miters on the inner side
// that come out beyond other edges.
struct SimpleRing {
    Track edge;                           // clockwise
    CountedVector<std::uint32_t> beyond;  // its corners with such miters
};
[[nodiscard]] std::optional<SimpleRing> simple_ring(const FlatPath& lines);

// Draws the miter on the inner side of a corner.
void draw_inner_miter(const Track& edge, std::uint32_t corner, const Pen& pen, Contours& contours);

}  // namespace coldbrick::inline v0::detail
