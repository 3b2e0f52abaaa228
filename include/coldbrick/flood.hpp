// coldbrick/flood.hpp - the pixels of one colour around a place, as a region.
//
//     fill(chart, flood(chart, {.from = {5, 5}, .tolerance = 8}), colors::gold);
#pragma once

#include "coldbrick/pixels.hpp"
#include "coldbrick/region.hpp"

namespace coldbrick {

// Which pixels are neighbours: the four beside each, or also the four at its corners.
enum class Neighbors { four, eight };

struct FloodFrom {
    Point from;
    // By how much a pixel's channels may differ from those of the first pixel, each on its own; 0 to 255, in 255ths of
    // the whole also where a format has 16 bits, and of the palette's colours where it has numbers.
    int tolerance = 0;
    Neighbors neighbors = Neighbors::four;
};

namespace detail {

Region flood(const Surface& surface, const FloodFrom& how);

}  // namespace detail

// The pixels that are equal or similar to the one given and can be reached from it by way of such pixels, in the clip
// of the picture. Throws Error if the pixel lies outside of it, or the tolerance is not from 0 to 255.
template <Picture P>
[[nodiscard]] Region flood(const P& picture, const FloodFrom& how) {
    return detail::flood(detail::SurfaceAccess::of(picture), how);
}

}  // namespace coldbrick
