// Paths as tracks: curves as their chords.
#pragma once

#include "raster/track.hpp"

#include "coldbrick/path.hpp"

#include <vector>

namespace coldbrick::detail {

struct FlatPath {
    Point origin;
    std::vector<Track> tracks;  // one for each subpath, relative to the origin
};

// With chords that are so far from the curves at most. Throws Error if the path is empty.
[[nodiscard]] FlatPath flatten(const Path& path, double flatness);

}  // namespace coldbrick::detail
