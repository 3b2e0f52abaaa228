// coldbrick/formats.hpp - pixel formats: how many bytes a pixel has and in which order its channels lie in memory.
//
//     Bitmap<Rgba8>  board{{720, 450}};
//     Pixels<Bgr8>   frame{{.top_left = memory, .size = {640, 480}, .stride = 1984}};
//     Bitmap<Index8> display{{128, 96}, palettes::quay()};                      // palette.hpp
//     Bitmap<Bit1>   sign{{296, 128}};                                          // 37 bytes a row
//
// The order belongs to the buffer's type; drawing gives the same colours in all of them. A format of one's own is
// defined by its traits:
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
#include "coldbrick/detail/target.hpp"

#include <concepts>
#include <cstddef>
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
struct Rgbx8 {};   // four bytes: red, green, blue, and one that is 255 where something is drawn and is not read
struct Bgrx8 {};   // the same: blue, green, red
struct Argb8 {};   // four bytes: alpha (straight), red, green, blue
struct Abgr8 {};   // four bytes: alpha (straight), blue, green, red
// Four bytes as those of Rgba8 and Bgra8, but each colour channel multiplied by alpha, as a fraction of 255, and
// rounded to the nearest. Read, it is divided by alpha and rounded to the nearest, at most 255; where alpha is 0, it is
// 0. Inks are laid on what is read.
struct PremultipliedRgba8 {};
struct PremultipliedBgra8 {};
// Two bytes, the lower one first: five bits of red, six of green, five of blue, from the highest on. The nearest value
// of each channel; read, v of at most m is v * 255 / m, rounded to the nearest.
struct Rgb565 {};
struct Rgb565Swapped {};  // the same, the higher byte first
struct Rgb555 {};         // the lower byte first: a bit that is 0, and five bits each of red, green and blue
struct Rgba4444 {};       // the lower byte first: four bits each of red, green, blue and alpha (straight)
// One bit, eight pixels to a byte: the leftmost is the highest bit, and each row begins a new byte. 1 is white, 0
// black; a colour is white if its luma is 128 or more. Bits behind the last pixel of a row are left as they are.
struct Bit1 {};

template <class Format>
struct FormatTraits;

struct Span;

namespace detail {

struct CoverSpan;
struct Trace;
struct TraceSteps;

// Which byte of a pixel has which channel, of formats that are three or four bytes of red, green, blue and then alpha.
enum class ChannelOrder : std::uint8_t { other, rgb, bgr };

// How a format is written and read: colours of 8 bits a channel, or of 16 (the deep ones).
struct FormatKernel {
    int pixel_bits;
    ChannelOrder order = ChannelOrder::other;
    bool has_alpha = false;
    bool is_gray = false;
    bool is_indexed = false;  // whether a pixel is the number of a palette's entry
    bool is_sparse = false;   // whether some of the bits of a pixel's bytes are not its own
    bool is_color = false;    // whether a pixel's bytes are those of a Color
    bool is_by_byte = false;  // whether each byte is a channel of its own, or straight alpha, which is the last
    // So many pixels of a row, from one on, which lie in the target's memory.
    void (*load)(const Target& target, Point first, int count, Color* colors) = nullptr;
    void (*store)(const Target& target, const Color* colors, int count, Point first) = nullptr;
    void (*load_deep)(const Target& target, Point first, int count, Color16* colors) = nullptr;
    void (*store_deep)(const Target& target, const Color16* colors, int count, Point first) = nullptr;
    // Source-over of one colour: on spans that lie in the target, and on those with the coverage of each pixel
    // (others are left out). Null: pixel by pixel.
    void (*blend)(const Target& target, std::span<const Span> spans, Color color) = nullptr;
    void (*cover)(const Target& target, std::span<const CoverSpan> spans, Color color) = nullptr;
    // The same on the pixels of a trace. Null: as spans.
    void (*trace)(const Target& target, const Trace& trace, TraceSteps steps, Color color) = nullptr;

    // One pixel of whole bytes: sets it to an opaque colour, and lays a translucent one on it, source-over. Null: by
    // the others.
    void (*put)(std::uint8_t* pixel, Color color) noexcept = nullptr;
    void (*lay)(std::uint8_t* pixel, Color color) noexcept = nullptr;

    // Of one pixel; 0 where several share a byte.
    [[nodiscard]] constexpr int pixel_bytes() const noexcept { return pixel_bits / 8; }
    // Of so many pixels from the beginning of a row.
    [[nodiscard]] constexpr std::ptrdiff_t row_bytes(int width) const noexcept {
        return (std::ptrdiff_t{width} * pixel_bits + 7) / 8;
    }
};

extern const FormatKernel gray8_kernel;
extern const FormatKernel rgb8_kernel;
extern const FormatKernel bgr8_kernel;
extern const FormatKernel rgba8_kernel;
extern const FormatKernel bgra8_kernel;
extern const FormatKernel index8_kernel;
extern const FormatKernel gray16_kernel;
extern const FormatKernel rgba16_kernel;
extern const FormatKernel rgbx8_kernel;
extern const FormatKernel bgrx8_kernel;
extern const FormatKernel argb8_kernel;
extern const FormatKernel abgr8_kernel;
extern const FormatKernel premultiplied_rgba8_kernel;
extern const FormatKernel premultiplied_bgra8_kernel;
extern const FormatKernel rgb565_kernel;
extern const FormatKernel rgb565_swapped_kernel;
extern const FormatKernel rgb555_kernel;
extern const FormatKernel rgba4444_kernel;
extern const FormatKernel bit1_kernel;

// Source-over of one colour through colours that are loaded and stored again: of formats without channels of 16 bits,
// a palette or a gray.
void blend_by_colors(const Target& target, std::span<const Span> spans, Color color);
void cover_by_colors(const Target& target, std::span<const CoverSpan> spans, Color color);

// The built-in formats: one entry each.
template <int bits, const FormatKernel& of>
struct BuiltInEntry {
    static constexpr int pixel_bits = bits;
    static constexpr const FormatKernel& kernel = of;
};
template <class Format>
struct BuiltIn {};
template <>
struct BuiltIn<Gray8> : BuiltInEntry<8, gray8_kernel> {};
template <>
struct BuiltIn<Rgb8> : BuiltInEntry<24, rgb8_kernel> {};
template <>
struct BuiltIn<Bgr8> : BuiltInEntry<24, bgr8_kernel> {};
template <>
struct BuiltIn<Rgba8> : BuiltInEntry<32, rgba8_kernel> {};
template <>
struct BuiltIn<Bgra8> : BuiltInEntry<32, bgra8_kernel> {};
template <>
struct BuiltIn<Index8> : BuiltInEntry<8, index8_kernel> {};
template <>
struct BuiltIn<Gray16> : BuiltInEntry<16, gray16_kernel> {};
template <>
struct BuiltIn<Rgba16> : BuiltInEntry<64, rgba16_kernel> {};
template <>
struct BuiltIn<Rgbx8> : BuiltInEntry<32, rgbx8_kernel> {};
template <>
struct BuiltIn<Bgrx8> : BuiltInEntry<32, bgrx8_kernel> {};
template <>
struct BuiltIn<Argb8> : BuiltInEntry<32, argb8_kernel> {};
template <>
struct BuiltIn<Abgr8> : BuiltInEntry<32, abgr8_kernel> {};
template <>
struct BuiltIn<PremultipliedRgba8> : BuiltInEntry<32, premultiplied_rgba8_kernel> {};
template <>
struct BuiltIn<PremultipliedBgra8> : BuiltInEntry<32, premultiplied_bgra8_kernel> {};
template <>
struct BuiltIn<Rgb565> : BuiltInEntry<16, rgb565_kernel> {};
template <>
struct BuiltIn<Rgb565Swapped> : BuiltInEntry<16, rgb565_swapped_kernel> {};
template <>
struct BuiltIn<Rgb555> : BuiltInEntry<16, rgb555_kernel> {};
template <>
struct BuiltIn<Rgba4444> : BuiltInEntry<16, rgba4444_kernel> {};
template <>
struct BuiltIn<Bit1> : BuiltInEntry<1, bit1_kernel> {};

template <class T, class... Others>
concept AnyOf = (std::same_as<T, Others> || ...);

template <class T>
concept BuiltInFormat = requires {
    BuiltIn<T>::pixel_bits;
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

    static std::uint8_t* address(const Target& target, Point pixel) {
        return target.top_left + pixel.y * target.stride + std::ptrdiff_t{pixel.x} * Traits::pixel_bytes;
    }
    static void load(const Target& target, Point first, int count, Color* colors) {
        const auto* pixels = static_cast<const std::uint8_t*>(address(target, first));
        for (int i = 0; i < count; ++i, pixels += Traits::pixel_bytes) colors[i] = Traits::load(pixels);
    }
    static void store(const Target& target, const Color* colors, int count, Point first) {
        auto* pixels = address(target, first);
        for (int i = 0; i < count; ++i, pixels += Traits::pixel_bytes) Traits::store(colors[i], pixels);
    }

    static constexpr FormatKernel kernel{.pixel_bits = 8 * Traits::pixel_bytes,
                                         .has_alpha = Traits::has_alpha,
                                         .load = load,
                                         .store = store,
                                         .blend = blend_by_colors,
                                         .cover = cover_by_colors};
};

}  // namespace detail

template <class T>
concept PixelFormat = detail::BuiltInFormat<T> || detail::OwnFormat<T>;

namespace detail {

template <PixelFormat Format>
constexpr int pixel_bits_of() noexcept {
    if constexpr (BuiltInFormat<Format>) return BuiltIn<Format>::pixel_bits;
    if constexpr (!BuiltInFormat<Format>) return 8 * FormatTraits<Format>::pixel_bytes;
}

template <PixelFormat Format>
constexpr int pixel_bytes_of() noexcept {
    static_assert(pixel_bits_of<Format>() % 8 == 0,
                  "a pixel of Bit1 is less than a byte: bits_per_pixel and row_bytes() say what it takes");
    return pixel_bits_of<Format>() / 8;
}

template <PixelFormat Format>
constexpr const FormatKernel& kernel_of() noexcept {
    if constexpr (BuiltInFormat<Format>) return BuiltIn<Format>::kernel;
    if constexpr (!BuiltInFormat<Format>) return OwnKernel<Format>::kernel;
}

}  // namespace detail

// How many bits a pixel of the format takes.
template <PixelFormat Format>
inline constexpr int bits_per_pixel = detail::pixel_bits_of<Format>();

// How many bytes; of formats whose pixels are whole bytes, all but Bit1.
template <PixelFormat Format>
inline constexpr int bytes_per_pixel = detail::pixel_bytes_of<Format>();

// How many bytes so many pixels take from the beginning of a row: the least stride.
template <PixelFormat Format>
[[nodiscard]] constexpr std::ptrdiff_t row_bytes(int width) noexcept {
    return (std::ptrdiff_t{width} * bits_per_pixel<Format> + 7) / 8;
}

}  // namespace v0
}  // namespace coldbrick
