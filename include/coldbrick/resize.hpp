// coldbrick/resize.hpp - a picture in another size.
//
//     Bitmap<Rgb8> half  = resized(photo, {.width = 320, .height = 240}, Scaling::box);
//     Bitmap<Rgb8> large = resized(photo, {.width = 900});                           // as usual
//     Bitmap<Rgb8> thumb = resized(photo, {.width = 96}, Scaling::lanczos);          // the height in proportion
//     Bitmap<Rgb8> small = resized(photo, {.width = 96}, Scaling::box, {.threads = 0});  // on all processors
//
// Of a view, the pixels of its clip are taken. Colours are weighted by their alpha, and mixed in encoded values.
#pragma once

#include "coldbrick/convert.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/threads.hpp"

#include <optional>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// What a pixel of the result gets.
// nearest:  the pixel under its centre; of two as near, the one to the right or below.
// box:      the mean of the area that it covers, exact to the nearest value. To reduce.
// bilinear: the mean weighted by a triangle, as wide as two pixels of the larger of both pictures. To enlarge.
// lanczos:  weighted by C. Lanczos' kernel with three lobes, 3 sinc(pi x) sinc(pi x / 3). To reduce; it overshoots a
//           little at edges, which keeps them sharp.
enum class Scaling { nearest, box, bilinear, lanczos };

// How pictures are resized where nothing is said: by box to reduce, by bilinear to enlarge either side.
[[nodiscard]] constexpr Scaling usual_scaling(Size from, Size to) noexcept {
    return to.width <= from.width && to.height <= from.height ? Scaling::box : Scaling::bilinear;
}

namespace detail {
// Throws Error for an unknown method.
void check_scaling(std::string_view what, Scaling how);

// Throws Error for a picture that can only be resized by nearest.
void check_mixed(const Surface& to);

// With one side 0, it is in proportion to the other, rounded and at least 1. Throws Error for sizes below 0, or with
// two sides of 0.
Size proportional(Size of, Size wanted);

// Into a surface of the same format, or of one that it converts to.
void resize(const Surface& from, const Surface& to, Scaling how, int threads = 1);

}  // namespace detail

// In the picture's format, by usual_scaling() if nothing else is said; an Index8 picture can only be resized by
// Scaling::nearest (convert it to Rgba8). Throws Error for that, if the picture's clip is empty, or for a size that no
// bitmap can have.
// On several threads the pixels are the same.
template <Picture P>
[[nodiscard]] auto resized(const P& picture, Size size, std::optional<Scaling> scaling = std::nullopt,
                           const Threads& on = {}) {
    const auto& from = detail::SurfaceAccess::of(picture);
    const auto own_size = detail::enlarged_size(from, 1);
    const auto whole = detail::proportional(own_size, size);
    const auto how = scaling.value_or(usual_scaling(own_size, whole));
    auto result = detail::unset_bitmap<typename detail::FormatOf<P>::type>(from, whole);
    detail::resize(from, detail::SurfaceAccess::of(result), how, on.threads);
    return result;
}

}  // namespace v0
}  // namespace coldbrick
