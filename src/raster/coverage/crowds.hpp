// Pixels that very many chains cross.
//
// There are up to n^2 places at which n chains cross each other, so that their order cannot be followed where hundreds
// of them cross a single pixel. What is covered of such a pixel is measured along lines across it. It depends on what
// is in the pixel alone whether this is done: pixels are the same whatever window they are seen in.
#pragma once

#include "raster/coverage/chains.hpp"
#include "raster/coverage/windings.hpp"

#include <cstdint>
#include <memory_resource>
#include <vector>

namespace coldbrick::inline v0::detail {

// Pixels of a row, from the window's upper left corner on.
struct Crowd {
    int row;
    int left;
    int right;
};

// All crowds, from top to bottom and from left to right.
[[nodiscard]] std::pmr::vector<Crowd> crowds_of(const Chains& chains, std::pmr::memory_resource* memory);

// How much of each pixel of a crowd is covered, to 1/255 but for what chains do between the lines.
[[nodiscard]] std::pmr::vector<std::uint8_t> cover_of(const Crowd& crowd, const Chains& chains, const CoverRule& rule,
                                                      std::pmr::memory_resource* memory);

}  // namespace coldbrick::inline v0::detail
