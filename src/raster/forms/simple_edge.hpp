// Polygons that do not meet themselves.
#pragma once

#include "raster/edges/flat_path.hpp"

#include <optional>

namespace coldbrick::inline v0::detail {

// The edge of an inclusive polygon, clockwise, if it is simple: one ring that does not meet itself, with corners that
// are mitered. What it covers is then inside of the outer side of its outline, which has far fewer edges than both
// sides and the polygon.
[[nodiscard]] std::optional<Track> simple_edge(const FlatPath& lines);

}  // namespace coldbrick::inline v0::detail
