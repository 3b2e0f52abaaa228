// The kernels of the formats: rule 5 of docs/pixel-rules.md.
#include "coldbrick/formats.hpp"

#include "pixels/kernels.hpp"

#include <algorithm>
#include <array>

namespace coldbrick {

namespace {

using detail::CoverSpan;
using detail::FormatKernel;
using detail::pattern_period;
using detail::pixel_address;
using detail::product_255;
using detail::Surface;

// Where each channel lies in a pixel.
struct Order {
    std::size_t red;
    std::size_t green;
    std::size_t blue;
};
inline constexpr auto rgb = Order{.red = 0, .green = 1, .blue = 2};
inline constexpr auto bgr = Order{.red = 2, .green = 1, .blue = 0};
inline constexpr std::size_t alpha_place = 3;

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
void store(const Surface&, const Color* colors, int count, std::uint8_t* pixels) noexcept {
    for (int i = 0; i < count; ++i, pixels += pixel_bytes) {
        const auto pixel = encode<order>(colors[i]);
        std::memcpy(pixels, pixel.data(), pixel_bytes);
    }
}

template <Order order, int pixel_bytes>
void load(const Surface&, const std::uint8_t* pixels, int count, Color* colors) noexcept {
    for (int i = 0; i < count; ++i, pixels += pixel_bytes) {
        colors[i] = {.red = pixels[order.red],
                     .green = pixels[order.green],
                     .blue = pixels[order.blue],
                     .alpha = pixel_bytes == 4 ? pixels[alpha_place] : std::uint8_t{255}};
    }
}

// Grays lie `step` bytes apart: 1, or more where they are a channel of something.
template <int step>
void store_gray(const Surface&, const Color* colors, int count, std::uint8_t* pixels) noexcept {
    for (int i = 0; i < count; ++i, pixels += step) *pixels = luma(colors[i]);
}

template <int step>
void load_gray(const Surface&, const std::uint8_t* pixels, int count, Color* colors) noexcept {
    for (int i = 0; i < count; ++i, pixels += step) colors[i] = gray(*pixels);
}

// Source-over on opaque pixels, byte by byte: (s*a + d*(255 - a)) / 255, rounded to the nearest. For t from 0 to
// 255*255, t / 255 rounded is (u + (u >> 8)) >> 8 with u = t + 128.
class OpaqueBlend {
  public:
    OpaqueBlend(const std::uint8_t* pixel, std::size_t pixel_bytes, std::uint8_t alpha) noexcept
        : rest_{static_cast<std::uint16_t>(255 - alpha)} {
        for (std::size_t i = 0; i < pattern_period; ++i) {
            source_[i] = static_cast<std::uint16_t>(pixel[i % pixel_bytes] * alpha + 128);
        }
    }

    void operator()(std::uint8_t* bytes, std::size_t count) const noexcept {
        for (; count >= pattern_period; count -= pattern_period, bytes += pattern_period) {
            for (std::size_t i = 0; i < pattern_period; ++i) bytes[i] = blended(bytes[i], i);
        }
        for (std::size_t i = 0; i < count; ++i) bytes[i] = blended(bytes[i], i);
    }

  private:
    [[nodiscard]] std::uint8_t blended(std::uint8_t below, std::size_t i) const noexcept {
        const auto sum = static_cast<std::uint16_t>(source_[i] + static_cast<std::uint16_t>(below * rest_));
        return static_cast<std::uint8_t>(static_cast<std::uint16_t>(sum + (sum >> 8U)) >> 8U);
    }

    std::array<std::uint16_t, pattern_period> source_{};
    std::uint16_t rest_;
};

// Porter and Duff's over on straight alpha, each result the exact fraction rounded to the nearest (halves up). With
// alphas a and b in 255ths, the new alpha is (255*a + b*(255 - a)) / 255, and the new colour is (s*a*255 + d*b*(255 -
// a)) / (255*a + b*(255 - a)).
void over(std::uint8_t* pixel, const std::uint8_t* source) noexcept {
    const auto above = std::uint32_t{source[alpha_place]} * 255U;
    const auto below = std::uint32_t{pixel[alpha_place]} * (255U - source[alpha_place]);
    const auto whole = above + below;
    if (whole == 0) return;
    for (std::size_t i = 0; i < alpha_place; ++i) {
        const auto sum = source[i] * above + pixel[i] * below;
        pixel[i] = static_cast<std::uint8_t>((2 * sum + whole) / (2 * whole));
    }
    pixel[alpha_place] = static_cast<std::uint8_t>((2 * whole + 255U) / 510U);
}

template <class Blend>
void blend_each(const Surface& surface, std::span<const Span> spans, const Blend& blend) {
    for (const auto& run : spans) {
        blend(pixel_address(surface, run.x, run.y), static_cast<std::size_t>(run.length));
    }
}

void blend_gray(const Surface& surface, std::span<const Span> spans, Color color) {
    const auto source = luma(color);
    blend_each(surface, spans, OpaqueBlend{&source, 1, color.alpha});
}

template <Order order>
void blend_opaque(const Surface& surface, std::span<const Span> spans, Color color) {
    const auto source = encode<order>(color);
    const auto blend = OpaqueBlend{source.data(), 3, color.alpha};
    blend_each(surface, spans, [&](std::uint8_t* pixels, std::size_t count) { blend(pixels, 3 * count); });
}

// On opaque pixels `over` is the opaque blend of all four bytes, alpha like a channel that is 255 in the source; so
// stretches of opaque pixels take the fast way.
class AlphaBlend {
  public:
    AlphaBlend(const Bytes4& source, const Bytes4& full) noexcept
        : source_{source}, opaque_{full.data(), full.size(), source[alpha_place]} {}

    void operator()(std::uint8_t* pixels, std::size_t count) const noexcept {
        constexpr auto stretch = pattern_period / 4;
        while (count > 0) {
            const auto length = std::min(count, stretch);
            auto least_alpha = std::uint8_t{255};
            for (std::size_t i = 0; i < length; ++i) least_alpha = std::min(least_alpha, pixels[4 * i + alpha_place]);
            if (least_alpha == 255) {
                opaque_(pixels, 4 * length);
            } else {
                for (std::size_t i = 0; i < length; ++i) over(pixels + 4 * i, source_.data());
            }
            pixels += 4 * length;
            count -= length;
        }
    }

  private:
    Bytes4 source_;
    OpaqueBlend opaque_;
};

template <Order order>
void blend_alpha(const Surface& surface, std::span<const Span> spans, Color color) {
    blend_each(surface, spans, AlphaBlend{encode<order>(color), encode<order>(with_alpha(color, 255))});
}

// Source-over of one colour on pixels that are covered in part, each pixel by its own alpha.
template <int pixel_bytes>
void cover_opaque(std::uint8_t* pixels, const std::uint8_t* source, unsigned alpha, const CoverSpan& span) noexcept {
    for (int i = 0; i < span.length; ++i, pixels += pixel_bytes) {
        const auto a = alpha == 255 ? span.each[i] : product_255(alpha, span.each[i]);
        for (int byte = 0; byte < pixel_bytes; ++byte) {
            const auto sum = source[byte] * a + pixels[byte] * (255U - a) + 128U;
            pixels[byte] = static_cast<std::uint8_t>((sum + (sum >> 8U)) >> 8U);
        }
    }
}

void cover_gray(const Surface& surface, const CoverSpan& span, Color color) {
    const auto source = luma(color);
    cover_opaque<1>(pixel_address(surface, span.x, span.y), &source, color.alpha, span);
}

template <Order order>
void cover_rgb(const Surface& surface, const CoverSpan& span, Color color) {
    const auto source = encode<order>(color);
    cover_opaque<3>(pixel_address(surface, span.x, span.y), source.data(), color.alpha, span);
}

// The four bytes of two pixels mixed, two channels at a time: (s*a + d*(255 - a)) / 255 of each.
std::uint32_t mixed_bytes(std::uint32_t source, std::uint32_t below, std::uint32_t alpha) noexcept {
    constexpr auto every_other = std::uint32_t{0x00ff00ff};
    constexpr auto half = std::uint32_t{0x00800080};
    const auto mixed = [=](std::uint32_t s, std::uint32_t d) {
        const auto sum = s * alpha + d * (255U - alpha) + half;
        return ((sum + ((sum >> 8U) & every_other)) >> 8U) & every_other;
    };
    return mixed(source & every_other, below & every_other) |
           (mixed((source >> 8U) & every_other, (below >> 8U) & every_other) << 8U);
}

template <Order order>
void cover_alpha(const Surface& surface, const CoverSpan& span, Color color) {
    auto source = encode<order>(color);
    const auto full = encode<order>(with_alpha(color, 255));
    std::uint32_t full_bytes = 0;
    std::memcpy(&full_bytes, full.data(), sizeof full_bytes);
    auto* pixels = pixel_address(surface, span.x, span.y);
    for (int i = 0; i < span.length; ++i, pixels += 4) {
        const auto alpha = product_255(color.alpha, span.each[i]);
        if (pixels[alpha_place] == 255) {
            std::uint32_t below = 0;
            std::memcpy(&below, pixels, sizeof below);
            const auto result = mixed_bytes(full_bytes, below, alpha);
            std::memcpy(pixels, &result, sizeof result);
        } else {
            source[alpha_place] = alpha;
            over(pixels, source.data());
        }
    }
}

template <Order order>
constexpr FormatKernel opaque_kernel() noexcept {
    return {.pixel_bytes = 3,
            .load = load<order, 3>,
            .store = store<order, 3>,
            .blend = blend_opaque<order>,
            .cover = cover_rgb<order>};
}

template <Order order>
constexpr FormatKernel alpha_kernel() noexcept {
    return {.pixel_bytes = 4,
            .has_alpha = true,
            .load = load<order, 4>,
            .store = store<order, 4>,
            .blend = blend_alpha<order>,
            .cover = cover_alpha<order>};
}

// One byte of a pixel of several, as gray.
template <int step>
constexpr FormatKernel byte_channel{
    .pixel_bytes = step, .is_gray = true, .is_sparse = true, .load = load_gray<step>, .store = store_gray<step>};

}  // namespace

namespace detail {

constexpr FormatKernel gray8_kernel{.pixel_bytes = 1,
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

}  // namespace coldbrick
