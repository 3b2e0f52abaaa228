// At which chains inside begins and ends.
#pragma once

#include "raster/coverage/chains.hpp"
#include "raster/coverage/windings.hpp"

#include <cstdint>
#include <memory_resource>
#include <vector>

namespace coldbrick::inline v0::detail {

// A part of a chain along which what is covered begins to its right (side 1) or ends (-1).
struct ChainPart {
    std::uint32_t first;  // the edge in which it begins
    int side;
    double top;
    double bottom;
};

// All such parts, in any order. Chains may cross, touch and lie on each other.
[[nodiscard]] std::pmr::vector<ChainPart> sided_parts(const Chains& chains, const CoverRule& rule,
                                                      std::pmr::memory_resource* memory);

// The area of what contours of one group, which go round counter-clockwise on the screen, enclose more than once or the
// other way round.
[[nodiscard]] double area_enclosed_otherwise(const Chains& chains, std::pmr::memory_resource* memory);

}  // namespace coldbrick::inline v0::detail
