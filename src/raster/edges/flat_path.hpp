// Lines and flattened curves, as subpaths from one origin.
#pragma once

#include "raster/edges/subpath.hpp"

#include "coldbrick/budget.hpp"

#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

struct FlatPath {
    Point origin;
    CountedVector<Subpath> subpaths;  // one for each subpath, relative to the origin
};

// Subpaths that are stroked as polygons are, and others.
struct RingsAndLines {
    FlatPath rings;
    FlatPath lines;
};

// By whether they are closed.
[[nodiscard]] inline RingsAndLines split_rings(FlatPath flat) {
    RingsAndLines parts{.rings = {.origin = flat.origin, .subpaths = {}},
                        .lines = {.origin = flat.origin, .subpaths = {}}};
    for (auto& subpath : flat.subpaths)
        (subpath.closed ? parts.rings : parts.lines).subpaths.push_back(std::move(subpath));
    return parts;
}

}  // namespace coldbrick::inline v0::detail
