// coldbrick/quantize.hpp - the palette that suits a picture, and the picture in it.
//
//     const auto few = palette_for(photo, 64);                   // the 64 colours that come nearest to all of its own
//     Bitmap<Index8> flat = convert(photo, few);                 // each pixel the nearest of them
//     Bitmap<Index8> fine = diffused(photo, few);                // with the errors passed on to the pixels around
//
// Of a view, the pixels of its clip are the picture. Colours are taken in 8 bits a channel, alpha among them.
#pragma once

#include "coldbrick/convert.hpp"
#include "coldbrick/detail/public.hpp"

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

namespace detail {
Palette palette_for(const Surface& picture, int most);
void diffuse(const Surface& from, const Surface& to);
}  // namespace detail

// The picture's own colours if they are no more than `most` (1 to 256), sorted; else as many that are chosen for it:
// the space of its colours is cut in two again and again where they differ most, by their squares and how often they
// come (P. Heckbert, "Color image quantization for frame buffer display", SIGGRAPH 1982, with X. Wu's choice of the
// cuts by variance), and each of them is then moved to the mean of those that it stands for. Throws Error for another
// number, and if the clip is empty.
template <Picture P>
[[nodiscard]] Palette palette_for(const P& picture, int most = 256) {
    return detail::palette_for(detail::SurfaceAccess::of(picture), most);
}

// The picture in a palette, by the nearest colours of it; what each lacks is passed on to the pixels right of it and
// below, in 16ths (R. W. Floyd and L. Steinberg, "An adaptive algorithm for spatial grayscale", 1976). Throws Error if
// the clip is empty.
template <Picture P>
[[nodiscard]] Bitmap<Index8> diffused(const P& picture, Palette palette) {
    const auto& from = detail::SurfaceAccess::of(picture);
    Bitmap<Index8> result{detail::enlarged_size(from, 1), std::move(palette)};
    detail::diffuse(from, detail::SurfaceAccess::of(result));
    return result;
}

}  // namespace v0
}  // namespace coldbrick
