// The coverage of small convex polygons, side by side.
#pragma once

#include "raster/coverage/cover.hpp"

#include <optional>
#include <span>

namespace coldbrick::inline v0::detail {

// The most corners of such a polygon.
inline constexpr std::size_t most_convex_corners = 16;

// Which way the corners go round something convex: 1 clockwise on the screen, -1 the other way; 0 if they do not, or it
// is more than 512 pixels wide or high.
[[nodiscard]] int convex_turn(std::span<const FinePoint> corners) noexcept;

// Hands the coverage over if the corners are those of something convex that lies within the clip and is up to 512
// pixels wide and high; gives the box around the pixels that have any. Takes no memory: what throws has told nothing.
std::optional<Box> scan_convex_cover(std::span<const FinePoint> corners, const Box& clip, const SpanReceiver& receiver);

}  // namespace coldbrick::inline v0::detail
