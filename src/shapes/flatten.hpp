// Paths as subpaths: curves as their chords.
#pragma once

#include "raster/edges/flat_path.hpp"

#include "coldbrick/path.hpp"

namespace coldbrick::inline v0::detail {

// With chords that follow curves in so much detail; the visible part is in pixels. Throws Error if the path is empty.
[[nodiscard]] FlatPath flatten(const Path& path, const Tolerance& tolerance);

}  // namespace coldbrick::inline v0::detail
