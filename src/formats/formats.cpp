// The kernels of the formats: rule 5 of docs/pixel-rules.md.
#include "coldbrick/formats.hpp"

#include "formats/kernels.hpp"
#include "formats/source_over.hpp"

#include <algorithm>
#include <array>

namespace coldbrick::inline v0 {

namespace {

using detail::alpha_place;
using detail::AlphaBlend;
using detail::CoverSpan;
using detail::FormatKernel;
using detail::OpaqueBlend;
using detail::over;
using detail::pixel_address;
using detail::product_255;

// Where each channel lies in a pixel.
struct Order {
    std::size_t red;
    std::size_t green;
    std::size_t blue;
};
inline constexpr auto rgb = Order{.red = 0, .green = 1, .blue = 2};
inline constexpr auto bgr = Order{.red = 2, .green = 1, .blue = 0};

using Bytes4 = std::array<std::uint8_t, 4>;

// Without alpha the fourth byte does not count.
template <Order order>
Bytes4 encode(Color color) noexcept {
    Bytes4 pixel;
    pixel[order.red] = color.red;
    pixel[order.green] = color.green;
    pixel[order.blue] = color.blue;
    pixel[alpha_place] = color.alpha;
    return pixel;
}

template <Order order, int pixel_bytes>
void store(const detail::Target& target, const Color* colors, int count, Point first) noexcept {
    auto* pixels = pixel_address<pixel_bytes>(target, first);
    for (int i = 0; i < count; ++i, pixels += pixel_bytes) {
        const auto pixel = encode<order>(colors[i]);
        std::memcpy(pixels, pixel.data(), pixel_bytes);
    }
}

template <Order order, int pixel_bytes>
void load(const detail::Target& target, Point first, int count, Color* colors) noexcept {
    const auto* pixels = pixel_address<pixel_bytes>(target, first);
    for (int i = 0; i < count; ++i, pixels += pixel_bytes) {
        colors[i] = {.red = pixels[order.red],
                     .green = pixels[order.green],
                     .blue = pixels[order.blue],
                     .alpha = pixel_bytes == 4 ? pixels[alpha_place] : std::uint8_t{255}};
    }
}

// Grays lie `step` bytes apart: 1, or more where they are a channel of something.
template <int step>
void store_gray(const detail::Target& target, const Color* colors, int count, Point first) noexcept {
    auto* pixels = pixel_address<step>(target, first);
    for (int i = 0; i < count; ++i, pixels += step) *pixels = luma(colors[i]);
}

template <int step>
void load_gray(const detail::Target& target, Point first, int count, Color* colors) noexcept {
    const auto* pixels = pixel_address<step>(target, first);
    for (int i = 0; i < count; ++i, pixels += step) colors[i] = gray(*pixels);
}

template <class Blend>
void blend_each(const detail::Target& target, std::span<const Span> spans, const Blend& blend) {
    for (const auto& run : spans) {
        blend(pixel_address(target, run.x, run.y), static_cast<std::size_t>(run.length));
    }
}

void blend_gray(const detail::Target& target, std::span<const Span> spans, Color color) {
    const auto source = luma(color);
    blend_each(target, spans, OpaqueBlend{&source, 1, color.alpha});
}

template <Order order>
void blend_opaque(const detail::Target& target, std::span<const Span> spans, Color color) {
    const auto source = encode<order>(color);
    const auto blend = OpaqueBlend{source.data(), 3, color.alpha};
    blend_each(target, spans, [&](std::uint8_t* pixels, std::size_t count) { blend(pixels, 3 * count); });
}

template <Order order>
void blend_alpha(const detail::Target& target, std::span<const Span> spans, Color color) {
    blend_each(target, spans, AlphaBlend{encode<order>(color)});
}

// Source-over of one colour on pixels that are covered in part, each pixel by its own alpha: calls lay(pixel, alpha).
template <int pixel_bytes, class Lay>
void cover_each(const detail::Target& target, std::span<const CoverSpan> spans, unsigned alpha, const Lay& lay) {
    for (const auto& [y, x, length, each, all] : spans) {
        if (each == nullptr) continue;
        auto* pixel = pixel_address<pixel_bytes>(target, {.x = x, .y = y});
        for (int i = 0; i < length; ++i, pixel += pixel_bytes) {
            lay(pixel, alpha == 255 ? each[i] : product_255(alpha, each[i]));
        }
    }
}

// (s*a + d*(255 - a)) / 255, rounded to the nearest, for four bytes, two at a time.
std::uint32_t mixed_bytes(std::uint32_t source, std::uint32_t below, std::uint32_t alpha) noexcept {
    constexpr auto every_other = std::uint32_t{0x00ff00ff};
    constexpr auto half = std::uint32_t{0x00800080};
    const auto mixed_pair = [=](std::uint32_t s, std::uint32_t d) {
        const auto sum = s * alpha + d * (255U - alpha) + half;
        return ((sum + ((sum >> 8U) & every_other)) >> 8U) & every_other;
    };
    return mixed_pair(source & every_other, below & every_other) |
           (mixed_pair((source >> 8U) & every_other, (below >> 8U) & every_other) << 8U);
}

template <std::size_t count>
std::uint32_t read_bytes(const std::uint8_t* bytes) noexcept {
    std::uint32_t word = 0;
    for (std::size_t i = 0; i < count; ++i) word |= std::uint32_t{bytes[i]} << (8 * i);
    return word;
}

template <std::size_t count>
void write_bytes(std::uint32_t word, std::uint8_t* bytes) noexcept {
    for (std::size_t i = 0; i < count; ++i) bytes[i] = static_cast<std::uint8_t>(word >> (8 * i));
}

void cover_gray(const detail::Target& target, std::span<const CoverSpan> spans, Color color) {
    const std::uint32_t source = luma(color);
    cover_each<1>(target, spans, color.alpha, [=](std::uint8_t* pixel, unsigned alpha) {
        *pixel = static_cast<std::uint8_t>(mixed_bytes(source, *pixel, alpha));
    });
}

template <Order order>
void cover_rgb(const detail::Target& target, std::span<const CoverSpan> spans, Color color) {
    const auto source = read_bytes<3>(encode<order>(color).data());
    cover_each<3>(target, spans, color.alpha, [=](std::uint8_t* pixel, unsigned alpha) {
        write_bytes<3>(mixed_bytes(source, read_bytes<3>(pixel), alpha), pixel);
    });
}

template <Order order>
void cover_alpha(const detail::Target& target, std::span<const CoverSpan> spans, Color color) {
    const auto full = encode<order>(with_alpha(color, 255));
    const auto full_bytes = read_bytes<4>(full.data());
    cover_each<4>(target, spans, color.alpha, [=](std::uint8_t* pixel, unsigned alpha) {
        if (pixel[alpha_place] == 255) {
            write_bytes<4>(mixed_bytes(full_bytes, read_bytes<4>(pixel), alpha), pixel);
        } else {
            auto source = full;
            source[alpha_place] = static_cast<std::uint8_t>(alpha);
            over(pixel, source.data());
        }
    });
}

constexpr bool is_color(const Order& order) noexcept {
    return order.red == 0 && order.green == 1 && order.blue == 2 && alpha_place == 3;
}

template <Order order>
constexpr FormatKernel opaque_kernel() noexcept {
    return {.pixel_bits = 24,
            .load = load<order, 3>,
            .store = store<order, 3>,
            .blend = blend_opaque<order>,
            .cover = cover_rgb<order>};
}

template <Order order>
constexpr FormatKernel alpha_kernel() noexcept {
    return {.pixel_bits = 32,
            .has_alpha = true,
            .is_color = is_color(order),
            .load = load<order, 4>,
            .store = store<order, 4>,
            .blend = blend_alpha<order>,
            .cover = cover_alpha<order>};
}

// One byte of a pixel of several, as gray.
template <int step>
constexpr FormatKernel byte_channel{
    .pixel_bits = 8 * step, .is_gray = true, .is_sparse = true, .load = load_gray<step>, .store = store_gray<step>};

}  // namespace

namespace detail {

constexpr FormatKernel gray8_kernel{.pixel_bits = 8,
                                    .is_gray = true,
                                    .load = load_gray<1>,
                                    .store = store_gray<1>,
                                    .blend = blend_gray,
                                    .cover = cover_gray};
constexpr FormatKernel rgb8_kernel = opaque_kernel<rgb>();
constexpr FormatKernel bgr8_kernel = opaque_kernel<bgr>();
constexpr FormatKernel rgba8_kernel = alpha_kernel<rgb>();
constexpr FormatKernel bgra8_kernel = alpha_kernel<bgr>();

const FormatKernel& byte_channel_of(int pixel_bytes) noexcept {
    return pixel_bytes == 3 ? byte_channel<3> : byte_channel<4>;
}

}  // namespace detail

}  // namespace coldbrick::inline v0
