// coldbrick/formats.hpp - pixel formats: how many bytes a pixel has and in which order its channels lie in memory.
//
//     Bitmap<Rgba8>  board{{720, 450}};
//     Pixels<Bgr8>   frame{{.top_left = memory, .size = {640, 480}, .stride = 1984}};
//     Bitmap<Index8> display{{128, 96}, palettes::quay()};                      // palette.hpp
//
// The order belongs to the buffer's type; drawing gives the same colours in all of them. A format of one's own is told
// by its traits:
//
//     struct Rgb332 {};
//     template <>
//     struct coldbrick::FormatTraits<Rgb332> {
//         static constexpr int pixel_bytes = 1;                // 1, 2, 3, 4, 6 or 8
//         static constexpr bool has_alpha = false;             // without it, load() gives alpha 255
//         static void store(coldbrick::Color color, std::uint8_t* pixel);
//         static coldbrick::Color load(const std::uint8_t* pixel);
//     };
#pragma once

#include "coldbrick/color.hpp"
#include "coldbrick/detail/public.hpp"

#include <concepts>
#include <cstdint>
#include <span>
#include <type_traits>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

struct Gray8 {};   // one byte: the luma
struct Rgb8 {};    // three bytes: red, green, blue
struct Bgr8 {};    // three bytes: blue, green, red
struct Rgba8 {};   // four bytes: red, green, blue, alpha (straight)
struct Bgra8 {};   // four bytes: blue, green, red, alpha (straight)
struct Index8 {};  // one byte: the number of a colour in the buffer's palette
struct Gray16 {};  // two bytes, a number in the machine's order: the luma
struct Rgba16 {};  // four such numbers: red, green, blue, alpha (straight)
// Two bytes, the lower one first: five bits of red, six of green, five of blue, from the highest on. The nearest value
// of each channel; read, v of at most m is v * 255 / m, rounded to the nearest.
struct Rgb565 {};

template <class Format>
struct FormatTraits;

struct Span;

namespace detail {

struct Target;
struct CoverSpan;

// How a format is written and read: colours of 8 bits a channel, or of 16 (the deep ones).
struct FormatKernel {
    int pixel_bytes;
    bool has_alpha = false;
    bool is_gray = false;
    bool is_sparse = false;  // whether some of a pixel's bytes are not its own
    bool is_color = false;   // whether a pixel's bytes are those of a Color
    void (*load)(const Target& target, const std::uint8_t* pixels, int count, Color* colors) = nullptr;
    void (*store)(const Target& target, const Color* colors, int count, std::uint8_t* pixels) = nullptr;
    void (*load_deep)(const Target& target, const std::uint8_t* pixels, int count, Color16* colors) = nullptr;
    void (*store_deep)(const Target& target, const Color16* colors, int count, std::uint8_t* pixels) = nullptr;
    // Source-over of one colour: on spans that lie in the target, and on those that tell the coverage of each pixel
    // (others are left out). Null: pixel by pixel.
    void (*blend)(const Target& target, std::span<const Span> spans, Color color) = nullptr;
    void (*cover)(const Target& target, std::span<const CoverSpan> spans, Color color) = nullptr;
};

extern const FormatKernel gray8_kernel;
extern const FormatKernel rgb8_kernel;
extern const FormatKernel bgr8_kernel;
extern const FormatKernel rgba8_kernel;
extern const FormatKernel bgra8_kernel;
extern const FormatKernel index8_kernel;
extern const FormatKernel gray16_kernel;
extern const FormatKernel rgba16_kernel;
extern const FormatKernel rgb565_kernel;

// The built-in formats: one entry each.
template <int bytes, const FormatKernel& of>
struct BuiltInEntry {
    static constexpr int pixel_bytes = bytes;
    static constexpr const FormatKernel& kernel = of;
};
template <class Format>
struct BuiltIn {};
template <>
struct BuiltIn<Gray8> : BuiltInEntry<1, gray8_kernel> {};
template <>
struct BuiltIn<Rgb8> : BuiltInEntry<3, rgb8_kernel> {};
template <>
struct BuiltIn<Bgr8> : BuiltInEntry<3, bgr8_kernel> {};
template <>
struct BuiltIn<Rgba8> : BuiltInEntry<4, rgba8_kernel> {};
template <>
struct BuiltIn<Bgra8> : BuiltInEntry<4, bgra8_kernel> {};
template <>
struct BuiltIn<Index8> : BuiltInEntry<1, index8_kernel> {};
template <>
struct BuiltIn<Gray16> : BuiltInEntry<2, gray16_kernel> {};
template <>
struct BuiltIn<Rgba16> : BuiltInEntry<8, rgba16_kernel> {};
template <>
struct BuiltIn<Rgb565> : BuiltInEntry<2, rgb565_kernel> {};

template <class T, class... Others>
concept AnyOf = (std::same_as<T, Others> || ...);

template <class T>
concept BuiltInFormat = requires {
    BuiltIn<T>::pixel_bytes;
};

template <class T>
concept OwnFormat = requires(Color color, std::uint8_t* pixel, const std::uint8_t* bytes) {
    requires AnyOf<std::integral_constant<int, FormatTraits<T>::pixel_bytes>, std::integral_constant<int, 1>,
                   std::integral_constant<int, 2>, std::integral_constant<int, 3>, std::integral_constant<int, 4>,
                   std::integral_constant<int, 6>, std::integral_constant<int, 8>>;
    { FormatTraits<T>::has_alpha } -> std::convertible_to<bool>;
    FormatTraits<T>::store(color, pixel);
    { FormatTraits<T>::load(bytes) } -> std::convertible_to<Color>;
};

template <class Format>
struct OwnKernel {
    using Traits = FormatTraits<Format>;

    static void load(const Target&, const std::uint8_t* pixels, int count, Color* colors) {
        for (int i = 0; i < count; ++i, pixels += Traits::pixel_bytes) colors[i] = Traits::load(pixels);
    }
    static void store(const Target&, const Color* colors, int count, std::uint8_t* pixels) {
        for (int i = 0; i < count; ++i, pixels += Traits::pixel_bytes) Traits::store(colors[i], pixels);
    }

    static constexpr FormatKernel kernel{
        .pixel_bytes = Traits::pixel_bytes, .has_alpha = Traits::has_alpha, .load = load, .store = store};
};

}  // namespace detail

template <class T>
concept PixelFormat = detail::BuiltInFormat<T> || detail::OwnFormat<T>;

namespace detail {

template <PixelFormat Format>
constexpr int pixel_bytes_of() noexcept {
    if constexpr (BuiltInFormat<Format>) return BuiltIn<Format>::pixel_bytes;
    if constexpr (!BuiltInFormat<Format>) return FormatTraits<Format>::pixel_bytes;
}

template <PixelFormat Format>
constexpr const FormatKernel& kernel_of() noexcept {
    if constexpr (BuiltInFormat<Format>) return BuiltIn<Format>::kernel;
    if constexpr (!BuiltInFormat<Format>) return OwnKernel<Format>::kernel;
}

}  // namespace detail

// How many bytes a pixel of the format takes.
template <PixelFormat Format>
inline constexpr int bytes_per_pixel = detail::pixel_bytes_of<Format>();

}  // namespace v0
}  // namespace coldbrick
