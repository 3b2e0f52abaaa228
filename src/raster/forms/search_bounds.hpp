// The box around what lies inside contours, found without going through all of its rows.
#pragma once

#include "raster/coverage/cover.hpp"

#include "coldbrick/budget.hpp"
#include "coldbrick/geometry.hpp"

#include <functional>
#include <vector>

namespace coldbrick::inline v0::detail {

// What is known of an area before it is looked at.
struct KnownArea {
    const CountedVector<FineSegment>& segments;  // its contours, whole
    GroupTruth truth;                            // by which groups it is covered (outline.hpp)
    bool is_smooth;                              // whether a pixel counts as soon as it has any area in common with it
    bool is_straight;                            // whether the contours are exact, and no chords of curves
};

// The box around what scan(clip) finds in an outer box. It is the smallest one, but for areas that are so thin or so
// many rows high that looking on would take too long: then it is one that contains them.
[[nodiscard]] Box search_bounds(const KnownArea& area, const Box& outer, const std::function<Box(const Box&)>& scan);

}  // namespace coldbrick::inline v0::detail
