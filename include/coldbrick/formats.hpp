// coldbrick/formats.hpp - pixel formats: how many bytes a pixel has and in which order its channels lie in memory.
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

// How many bytes a pixel of the format takes.
template <PixelFormat Format>
inline constexpr int bytes_per_pixel = 4;
template <>
inline constexpr int bytes_per_pixel<Gray8> = 1;
template <>
inline constexpr int bytes_per_pixel<Rgb8> = 3;
template <>
inline constexpr int bytes_per_pixel<Bgr8> = 3;

namespace detail {

// How a format is written and read; of use to the library only.
struct FormatKernel;
extern const FormatKernel gray8_kernel;
extern const FormatKernel rgb8_kernel;
extern const FormatKernel bgr8_kernel;
extern const FormatKernel rgba8_kernel;
extern const FormatKernel bgra8_kernel;

template <PixelFormat Format>
constexpr const FormatKernel& kernel_of() noexcept {
    if constexpr (std::same_as<Format, Gray8>) return gray8_kernel;
    if constexpr (std::same_as<Format, Rgb8>) return rgb8_kernel;
    if constexpr (std::same_as<Format, Bgr8>) return bgr8_kernel;
    if constexpr (std::same_as<Format, Rgba8>) return rgba8_kernel;
    if constexpr (std::same_as<Format, Bgra8>) return bgra8_kernel;
}

}  // namespace detail

}  // namespace coldbrick
