// coldbrick/flood.hpp - the pixels of one colour around a place, as a region.
//
//     fill(chart, FloodFrom{.from = {5, 5}, .tolerance = 8}, colors::gold);
//     const Region lake = flood(chart, {.from = {5, 5}, .neighbors = Neighbors::eight});
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/draw.hpp"
#include "coldbrick/pixels.hpp"
#include "coldbrick/region.hpp"

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

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

// Throws Error for a tolerance or neighbours that are not allowed.
void check_flood(const FloodFrom& how);

Region flood(const Surface& surface, const FloodFrom& how);
Box fill_flood(const Surface& surface, const FloodFrom& how, const Ink& ink);

}  // namespace detail

// Lays the ink on the pixels of flood(target, from), or remembers to do so: a Drawing has no pixels to look at before
// it is drawn. Throws Error for a tolerance that is not from 0 to 255; a place outside of the clip is none.
template <Target T>
Box fill(T&& target, const FloodFrom& from, const Ink& ink, SourcePlace where = SourcePlace::current()) {
    if constexpr (detail::Recorder<T>) {
        return target.recorder().flood(from, ink, where);
    } else {
        return detail::fill_flood(detail::SurfaceAccess::of(target), from, ink);
    }
}

// The pixels that are equal or similar to the one given and can be reached from it through such pixels, in the clip
// of the picture. Throws Error if the pixel lies outside of it, or the tolerance is not from 0 to 255.
template <Picture P>
[[nodiscard]] Region flood(const P& picture, const FloodFrom& how) {
    return detail::flood(detail::SurfaceAccess::of(picture), how);
}

}  // namespace v0
}  // namespace coldbrick
