// Lines and flattened curves, as tracks from one origin.
#pragma once

#include "raster/edges/track.hpp"

#include "coldbrick/budget.hpp"

#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

struct FlatPath {
    Point origin;
    CountedVector<Track> tracks;  // one for each subpath, relative to the origin
};

// Tracks that are stroked as polygons are, and others.
struct RingsAndLines {
    FlatPath rings;
    FlatPath lines;
};

// By whether they are closed.
[[nodiscard]] inline RingsAndLines split_rings(FlatPath flat) {
    RingsAndLines parts{.rings = {.origin = flat.origin, .tracks = {}}, .lines = {.origin = flat.origin, .tracks = {}}};
    for (auto& track : flat.tracks) (track.closed ? parts.rings : parts.lines).tracks.push_back(std::move(track));
    return parts;
}

}  // namespace coldbrick::inline v0::detail
