// coldbrick/convert.hpp - a picture in another pixel format, or enlarged.
//
//     Bitmap<Gray8> proof = convert<Gray8>(chart);
//     Bitmap<Rgba8> wide  = convert<Rgba8>(chart, {.threads = 0});   // the same pixels, on all processors
//     Bitmap<Rgb8>  large = enlarge(chart, 6);
//
// Of a view, the pixels of its clip are taken; they start at (0, 0) in the new bitmap. Throws Error if there are
// none.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/pixels.hpp"
#include "coldbrick/threads.hpp"

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

namespace detail {

template <class T>
struct FormatOf;
template <class Format>
struct FormatOf<Pixels<Format>> {
    using type = std::remove_const_t<Format>;
};
template <PixelFormat Format>
struct FormatOf<Bitmap<Format>> {
    using type = Format;
};

void convert(const Surface& from, const Surface& to, int threads = 1);
void enlarge(const Surface& from, const Surface& to, int factor);

// The factor times the size of the clip. Throws Error if the factor is below 1, the clip empty or the result too
// large.
Size enlarged_size(const Surface& from, int factor);

// A new bitmap, with the palette of another picture if both have one, whose pixels are going to be set.
template <PixelFormat Format>
Bitmap<Format> unset_bitmap(const Surface& like, Size size) {
    auto bitmap = SurfaceAccess::unset_bitmap<Format>(size);
    if constexpr (std::same_as<Format, Index8>) {
        if (like.palette) bitmap.set_palette(*like.palette);
    }
    return bitmap;
}

}  // namespace detail

// The same colours in another format. To gray: the luma. To a format without alpha: the colour channels as they
// are. To 16 bits a channel and back: as widened() and narrowed() say. To Index8: the nearest colours of the picture's
// palette, or of palettes::quay().
template <PixelFormat Format, Picture P>
[[nodiscard]] Bitmap<Format> convert(const P& picture, const Threads& on = {}) {
    const auto& from = detail::SurfaceAccess::of(picture);
    auto result = detail::unset_bitmap<Format>(from, detail::enlarged_size(from, 1));
    detail::convert(from, detail::SurfaceAccess::of(result), on.threads);
    return result;
}

// The numbers of the nearest colours in a palette.
template <Picture P>
[[nodiscard]] Bitmap<Index8> convert(const P& picture, Palette palette, const Threads& on = {}) {
    const auto& from = detail::SurfaceAccess::of(picture);
    auto result = detail::SurfaceAccess::unset_bitmap<Index8>(detail::enlarged_size(from, 1));
    result.set_palette(std::move(palette));
    detail::convert(from, detail::SurfaceAccess::of(result), on.threads);
    return result;
}

// Each pixel as a square of factor by factor pixels (1 or more), without smoothing.
template <Picture P>
[[nodiscard]] auto enlarge(const P& picture, int factor) {
    const auto& from = detail::SurfaceAccess::of(picture);
    auto result = detail::unset_bitmap<typename detail::FormatOf<P>::type>(from, detail::enlarged_size(from, factor));
    detail::enlarge(from, detail::SurfaceAccess::of(result), factor);
    return result;
}

}  // namespace v0
}  // namespace coldbrick
