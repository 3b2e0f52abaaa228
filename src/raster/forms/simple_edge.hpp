// Polygons that do not meet themselves.
#pragma once

#include "raster/edges/flat_path.hpp"

#include <optional>
#include <span>

namespace coldbrick::inline v0::detail {

// The edge of an inclusive polygon, clockwise, if it is simple: one ring that does not meet itself, with corners that
// are mitered. What it covers is then inside of the outer side of its outline, which has far fewer edges than both
// sides and the polygon.
[[nodiscard]] std::optional<Track> simple_edge(const FlatPath& lines);

// Which way a ring goes round its middle, if it does so once and always on that way as seen from there, so that it does
// not meet itself: 1 clockwise, -1 the other way; 0 if it does not.
[[nodiscard]] int way_round_middle(std::span<const Vec> ring) noexcept;

// The same of the corners of the only ring there is.
[[nodiscard]] int way_round_middle(const FlatPath& lines);

}  // namespace coldbrick::inline v0::detail
