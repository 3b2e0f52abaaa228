// coldbrick/quantize.hpp - the palette that suits a picture, and the picture in it.
//
//     const auto few = palette_for(photo, 64);                   // the 64 colours that come nearest to all of its own
//     Bitmap<Index8> flat = convert(photo, few);                 // each pixel the nearest of them
//     Bitmap<Index8> fine = diffused(photo, few);                // with the errors passed on to the pixels around
//     Bitmap<Index8> calm = ordered(photo, few);                 // with a pattern that stays where it is
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
void order(const Surface& from, const Surface& to);
}  // namespace detail

// How colours that a palette does not have are replaced: by the nearest one; as ordered() does; as diffused() does.
enum class Dithering { none, ordered, diffused };

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

// The picture in a palette, each pixel by the nearest colour to its own with a threshold of an 8 x 8 pattern added (B.
// E. Bayer, "An optimum method for two-level rendition of continuous-tone pictures", ICC 1973), as large as the colours
// of the palette are apart. What does not change from one picture to the next gets the same pixels. Throws Error if the
// clip is empty.
template <Picture P>
[[nodiscard]] Bitmap<Index8> ordered(const P& picture, Palette palette) {
    const auto& from = detail::SurfaceAccess::of(picture);
    Bitmap<Index8> result{detail::enlarged_size(from, 1), std::move(palette)};
    detail::order(from, detail::SurfaceAccess::of(result));
    return result;
}

}  // namespace v0
}  // namespace coldbrick
