// coldbrick/convert.hpp - a picture in another pixel format, or enlarged.
//
//     Bitmap<Gray8> proof = convert<Gray8>(chart);
//     Bitmap<Rgb8>  large = enlarge(display, 6);
//
// Of a view, the pixels of its clip are taken; they start at (0, 0) in the new bitmap. Throws Error if there are
// none.
#pragma once

#include "coldbrick/pixels.hpp"

namespace coldbrick {

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

void convert(const Surface& from, const Surface& to);
void enlarge(const Surface& from, const Surface& to, int factor) noexcept;

// The factor times the size of the clip. Throws Error if the factor is below 1, the clip empty or the result too
// large.
Size enlarged_size(const Surface& from, int factor);

}  // namespace detail

// The same colours in another format. To gray: the luma. To a format without alpha: the colour channels as they are.
template <PixelFormat Format, Picture P>
[[nodiscard]] Bitmap<Format> convert(const P& picture) {
    const auto& from = detail::SurfaceAccess::of(picture);
    Bitmap<Format> result{detail::enlarged_size(from, 1)};
    detail::convert(from, detail::SurfaceAccess::of(result));
    return result;
}

// Each pixel as a square of factor by factor pixels (1 or more), without smoothing.
template <Picture P>
[[nodiscard]] auto enlarge(const P& picture, int factor) {
    const auto& from = detail::SurfaceAccess::of(picture);
    Bitmap<typename detail::FormatOf<P>::type> result{detail::enlarged_size(from, factor)};
    detail::enlarge(from, detail::SurfaceAccess::of(result), factor);
    return result;
}

}  // namespace coldbrick
