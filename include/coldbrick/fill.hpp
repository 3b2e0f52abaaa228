// coldbrick/fill.hpp - how a shape is filled.
//
//     fill(chart, star, {.rule = FillRule::nonzero}, colors::teal);
//     fill(chart, moon, {.edge = Edge::smooth}, colors::gold);
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/geometry.hpp"

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// Which parts of a polygon are inside. even_odd: where an odd number of outlines lies between a point and far away.
// nonzero: where the outlines go round a point in one direction more often than in the other.
enum class FillRule { even_odd, nonzero };

// What becomes of the pixels on a filled polygon's edges. inclusive: the outline's pixels belong to the polygon.
// shared: only the interior counts, and a pixel centre exactly on an edge belongs to the polygon for which that is a
// top or left edge, so that polygons with common edges cover each pixel exactly once.
enum class Edges { inclusive, shared };

// How a shape is filled. The rule and what becomes of edges matter to polygons and paths only.
struct Fill {
    FillRule rule = FillRule::even_odd;
    Edges edges = Edges::inclusive;
    Edge edge = Edge::crisp;

    friend bool operator==(const Fill&, const Fill&) = default;
};

}  // namespace v0
}  // namespace coldbrick
