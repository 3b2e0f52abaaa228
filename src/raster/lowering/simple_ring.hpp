// Rings that do not meet themselves, and pens along them.
#pragma once

#include "raster/edges/flat_path.hpp"
#include "raster/strokes/stroker.hpp"

#include <cstdint>
#include <optional>

namespace coldbrick::inline v0::detail {

// What a ring that does not meet itself encloses, grown by the reach of a pen on its outer side: what lies inside of
// the outer side alone, and the miters on the inner side that come out beyond other edges. These are far fewer edges
// than those of both sides and the ring.
struct GrownRing {
    bool is_clockwise;
    CountedVector<std::uint32_t> beyond = {};  // its corners with such miters
    bool has_cut_corners = false;              // of which the pen does not cover all that is in its reach
};
// Nothing if the lines are another thing than one ring, or if it encloses some of it more than once. What is less than
// a number of pixels does not matter.
[[nodiscard]] std::optional<GrownRing> grown_ring(const FlatPath& lines, const Pen& pen, double little);

// Draws what it covers; and of that only these miters.
void draw_grown(const FlatPath& lines, const GrownRing& ring, const Pen& pen, Contours& contours);
void draw_inner_miters(const FlatPath& lines, const GrownRing& ring, const Pen& pen, Contours& contours);

// Of one ring that always turns to the same side, never back, and goes round once: 1 if it goes clockwise, -1 if the
// other way. 0 of other lines.
[[nodiscard]] int turn_of_convex(const FlatPath& lines);

}  // namespace coldbrick::inline v0::detail
