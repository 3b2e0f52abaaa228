// Paths as tracks: curves as their chords.
#pragma once

#include "raster/edges/flat_path.hpp"

#include "coldbrick/path.hpp"

namespace coldbrick::inline v0::detail {

// With chords that follow curves in so much detail; what is seen is told in pixels. Throws Error if the path is empty.
[[nodiscard]] FlatPath flatten(const Path& path, const Detail& detail);

}  // namespace coldbrick::inline v0::detail
