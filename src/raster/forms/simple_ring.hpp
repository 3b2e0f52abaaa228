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
    CountedVector<std::uint32_t> beyond;  // its corners with such miters
    bool has_cut_corners;                 // of which the pen does not cover all that is in its reach
};
// Nothing if the lines are another thing than one ring, or if it encloses some of it more than once. What is less than
// a number of pixels does not matter.
[[nodiscard]] std::optional<GrownRing> grown_ring(const FlatPath& lines, const Pen& pen, double little);

// Draws what it covers; and of that only these miters.
void draw_grown(const FlatPath& lines, const GrownRing& ring, const Pen& pen, Contours& contours);
void draw_inner_miters(const FlatPath& lines, const GrownRing& ring, const Pen& pen, Contours& contours);

// Of a ring of so many corners, three or more, that always turns to the same side, and goes up and down once: 1 if it
// goes clockwise, -1 if the other way. 0 of other rings.
template <class At>
int turn_of_convex(std::size_t count, const At& at) noexcept {
    auto tops = 0;
    auto is_right = false;
    auto is_left = false;
    auto last = at(0);
    auto before = last - at(count - 1);
    for (std::size_t i = 1; i <= count; ++i) {
        const auto next = at(i < count ? i : 0);
        const auto after = next - last;
        const auto turn = cross(before, after);
        is_right = is_right || turn > 0;
        is_left = is_left || turn < 0;
        if ((is_right && is_left) || (turn == 0 && dot(before, after) < 0)) return 0;
        tops += before.y < 0 && after.y >= 0 ? 1 : 0;
        before = after;
        last = next;
    }
    if (is_right == is_left || tops != 1) return 0;
    return is_right ? 1 : -1;
}

}  // namespace coldbrick::inline v0::detail
