// coldbrick/formats.hpp - pixel formats: how many bytes a pixel has and in which order its channels lie in
// memory.
//
//     Bitmap<Rgba8> board{{720, 450}};
//     Pixels<Bgr8>  frame{{.top_left = memory, .size = {640, 480}, .stride = 1984}};
//
// The order belongs to the buffer's type; drawing gives the same colours in all of them.
#pragma once

#include <concepts>

namespace coldbrick {

struct Gray8 {};  // one byte: the luma
struct Rgb8 {};   // three bytes: red, green, blue
struct Bgr8 {};   // three bytes: blue, green, red
struct Rgba8 {};  // four bytes: red, green, blue, alpha (straight)
struct Bgra8 {};  // four bytes: blue, green, red, alpha (straight)

template <class T>
concept PixelFormat = std::same_as<T, Gray8> || std::same_as<T, Rgb8> || std::same_as<T, Bgr8> ||
    std::same_as<T, Rgba8> || std::same_as<T, Bgra8>;

namespace detail {
struct FormatKernel;
}

// The kernels that write a format; of use to the library only.
template <PixelFormat Format>
const detail::FormatKernel& kernel_of() noexcept;

// How many bytes a pixel of the format takes.
template <PixelFormat Format>
inline constexpr int bytes_per_pixel = 4;
template <>
inline constexpr int bytes_per_pixel<Gray8> = 1;
template <>
inline constexpr int bytes_per_pixel<Rgb8> = 3;
template <>
inline constexpr int bytes_per_pixel<Bgr8> = 3;

}  // namespace coldbrick
