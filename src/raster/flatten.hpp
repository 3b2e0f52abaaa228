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

// With chords that follow curves in so much detail; what is seen is told in pixels. Throws Error if the path is empty.
[[nodiscard]] FlatPath flatten(const Path& path, const Detail& detail);

// Tracks that are stroked as polygons are, and others.
struct RingsAndLines {
    FlatPath rings;
    FlatPath lines;
};

// By whether they are closed.
[[nodiscard]] RingsAndLines split_rings(FlatPath flat);

}  // namespace coldbrick::detail
