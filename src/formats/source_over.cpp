#include "formats/source_over.hpp"

#include "formats/kernels.hpp"
#include "geometry/vectors.hpp"

#include <bit>

namespace coldbrick::inline v0::detail {

namespace {

// For t from 0 to 255*255, t / 255 rounded is (u + (u >> 8)) >> 8 with u = t + 128.
COLDBRICK_INLINE std::uint8_t blended(const OpaqueBlend& by, std::uint8_t below, std::size_t i) noexcept {
    const auto sum = static_cast<std::uint16_t>(by.source[i] + static_cast<std::uint16_t>(below * by.rest));
    return static_cast<std::uint8_t>(static_cast<std::uint16_t>(sum + (sum >> 8U)) >> 8U);
}

// Bytes are read and written, so memory decides how fast it goes: it is prefetched some bytes ahead.
COLDBRICK_INLINE void ask_for_next(const std::uint8_t* bytes) noexcept {
    constexpr auto ahead = 4096;
    constexpr auto line = 64;
    prefetch_at(bytes, ahead);
    prefetch_at(bytes, ahead + line);
}

COLDBRICK_INLINE void blend_period(const OpaqueBlend& by, std::uint8_t* bytes) noexcept {
    for (std::size_t i = 0; i < OpaqueBlend::period; ++i) bytes[i] = blended(by, bytes[i], i);
}

COLDBRICK_INLINE void blend_bytes(const OpaqueBlend& by, std::uint8_t* bytes, std::size_t count) noexcept {
    constexpr auto period = OpaqueBlend::period;
    for (; count >= period; count -= period, bytes += period) {
        ask_for_next(bytes);
        blend_period(by, bytes);
    }
    // Then a few vectors at a time, as far as they go.
    constexpr auto few = period / 4;
    std::size_t done = 0;
    for (; count - done >= few; done += few) {
        for (std::size_t i = 0; i < few; ++i) bytes[done + i] = blended(by, bytes[done + i], done + i);
    }
    for (; done < count; ++done) bytes[done] = blended(by, bytes[done], done);
}

constexpr std::size_t pixels_at_once = OpaqueBlend::period / 4;

COLDBRICK_INLINE bool are_all_opaque(const std::uint8_t* pixels, std::size_t count) noexcept {
    auto common = ~std::uint32_t{0};
    for (std::size_t i = 0; i < count; ++i) {
        std::uint32_t word = 0;
        std::memcpy(&word, pixels + 4 * i, sizeof word);
        common &= word;
    }
    std::array<std::uint8_t, 4> bytes;
    std::memcpy(bytes.data(), &common, sizeof bytes);
    return bytes[alpha_place] == 255;
}

// As over(), by pixels that lie so many bytes apart: whole numbers in doubles, which are exact.
template <std::size_t step>
COLDBRICK_INLINE void over_period(const std::uint8_t* source, std::uint8_t* pixels) noexcept {
    std::array<std::uint32_t, pixels_at_once> above;
    std::array<std::uint32_t, pixels_at_once> below;
    for (std::size_t i = 0; i < pixels_at_once; ++i) std::memcpy(&above[i], source + step * i, 4);
    std::memcpy(below.data(), pixels, OpaqueBlend::period);
    for (std::size_t i = 0; i < pixels_at_once; ++i) {
        const auto part = [](std::uint32_t word, unsigned shift) COLDBRICK_KERNEL {
            return static_cast<double>(static_cast<std::int32_t>(word >> shift & 255U));
        };
        // Fractions of at most 255 * 255: one below a half is farther from it than what is added to make up for
        // rounding.
        const auto mixed = [](double value, unsigned shift) COLDBRICK_KERNEL {
            return static_cast<std::uint32_t>(static_cast<std::int32_t>(value + (0.5 + 1e-9))) << shift;
        };
        constexpr auto is_little = std::endian::native == std::endian::little;
        constexpr auto alpha_shift = is_little ? 24U : 0U;
        const auto alpha = part(above[i], alpha_shift);
        const auto ink = alpha * 255;
        const auto rest = part(below[i], alpha_shift) * (255 - alpha);
        const auto sum = ink + rest;
        const auto per_sum = 1 / (sum > 0 ? sum : 1);
        auto result = mixed(sum * (1 / 255.0), alpha_shift);
        const auto lay = [&](unsigned shift) COLDBRICK_KERNEL {
            const auto at = is_little ? shift : shift + 8;
            result |= mixed((part(above[i], at) * ink + part(below[i], at) * rest) * per_sum, at);
        };
        lay(0);
        lay(8);
        lay(16);
        below[i] = sum > 0 ? result : below[i];
    }
    std::memcpy(pixels, below.data(), OpaqueBlend::period);
}

// A pixel, and the blend for opaque ones.
COLDBRICK_INLINE void blend_pixels(const std::uint8_t* pixel, const OpaqueBlend& opaque, std::uint8_t* pixels,
                                   std::size_t count) noexcept {
    for (; count >= pixels_at_once; count -= pixels_at_once, pixels += OpaqueBlend::period) {
        ask_for_next(pixels);
        if (are_all_opaque(pixels, pixels_at_once)) {
            blend_period(opaque, pixels);
        } else {
            over_period<0>(pixel, pixels);
        }
    }
    for (std::size_t i = 0; i < count; ++i) over(pixels + 4 * i, pixel);
}

// The bytes of one pixel after the other, on opaque pixels: (s*a + d*(255 - a)) / 255 each, with alpha as a channel
// that is 255 in the source.
COLDBRICK_INLINE void blend_opaque_period(const std::uint8_t* source, std::uint8_t* pixels) noexcept {
    // Of each pixel: its alpha in every byte, and the pixel as if it were opaque.
    std::array<std::uint32_t, pixels_at_once> alphas;
    std::array<std::uint32_t, pixels_at_once> opaque;
    constexpr auto is_little = std::endian::native == std::endian::little;
    for (std::size_t i = 0; i < pixels_at_once; ++i) {
        std::uint32_t word = 0;
        std::memcpy(&word, source + 4 * i, sizeof word);
        alphas[i] = (is_little ? word >> 24U : word & 255U) * 0x01010101U;
        opaque[i] = word | (is_little ? 0xff000000U : 0xffU);
    }
    const auto* const alpha = reinterpret_cast<const std::uint8_t*>(alphas.data());
    const auto* const above = reinterpret_cast<const std::uint8_t*>(opaque.data());
    for (std::size_t i = 0; i < OpaqueBlend::period; ++i) {
        const auto rest = static_cast<std::uint16_t>(255 - alpha[i]);
        const auto sum = static_cast<std::uint16_t>(static_cast<std::uint16_t>(above[i] * alpha[i]) +
                                                    static_cast<std::uint16_t>(pixels[i] * rest) + 128);
        pixels[i] = static_cast<std::uint8_t>(static_cast<std::uint16_t>(sum + (sum >> 8U)) >> 8U);
    }
}

// How many of the pixels at the beginning are opaque, in steps of pixels_at_once.
COLDBRICK_INLINE std::size_t count_opaque(const std::uint8_t* pixels, std::size_t count) noexcept {
    std::size_t found = 0;
    for (; count - found >= pixels_at_once && are_all_opaque(pixels + 4 * found, pixels_at_once);
         found += pixels_at_once) {
        ask_for_next(pixels + 4 * found);
    }
    return found;
}

COLDBRICK_INLINE void blend_row_inline(const std::uint8_t* source, std::uint8_t* pixels, std::size_t count) noexcept {
    while (count >= pixels_at_once) {
        const auto replaced = count_opaque(source, count);
        if (replaced > 0) {
            std::memcpy(pixels, source, 4 * replaced);
        } else {
            ask_for_next(pixels);
            if (are_all_opaque(pixels, pixels_at_once)) {
                blend_opaque_period(source, pixels);
            } else {
                over_period<4>(source, pixels);
            }
        }
        const auto done = replaced > 0 ? replaced : pixels_at_once;
        count -= done;
        pixels += 4 * done;
        source += 4 * done;
    }
    for (std::size_t i = 0; i < count; ++i) over(pixels + 4 * i, source + 4 * i);
}

constexpr std::array<std::uint8_t, 4> opaque_pixel(std::array<std::uint8_t, 4> pixel) noexcept {
    pixel[alpha_place] = 255;
    return pixel;
}

}  // namespace

// With alphas a and b in 255ths, the new alpha is (255*a + b*(255 - a)) / 255, and the new colour is (s*a*255 +
// d*b*(255 - a)) / (255*a + b*(255 - a)).
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

OpaqueBlend::OpaqueBlend(const std::uint8_t* pixel, std::size_t pixel_bytes, std::uint8_t alpha) noexcept
    : rest{static_cast<std::uint16_t>(255 - alpha)} {
    for (std::size_t i = 0; i < period; ++i) {
        source[i] = i < pixel_bytes ? static_cast<std::uint16_t>(pixel[i] * alpha + 128) : source[i - pixel_bytes];
    }
}

void OpaqueBlend::operator()(std::uint8_t* bytes, std::size_t count) const noexcept {
    run_in_vectors([&]() COLDBRICK_KERNEL { blend_bytes(*this, bytes, count); });
}

AlphaBlend::AlphaBlend(const std::array<std::uint8_t, 4>& pixel) noexcept
    : pixel_{pixel}, opaque_{opaque_pixel(pixel).data(), 4, pixel[alpha_place]} {}

void AlphaBlend::operator()(std::uint8_t* pixels, std::size_t count) const noexcept {
    run_in_vectors([&]() COLDBRICK_KERNEL { blend_pixels(pixel_.data(), opaque_, pixels, count); });
}

bool are_opaque(const std::uint8_t* pixels, std::size_t count) noexcept {
    auto are = false;
    run_in_vectors([&]() COLDBRICK_KERNEL { are = are_all_opaque(pixels, count); });
    return are;
}

void blend_row(const std::uint8_t* source, std::uint8_t* pixels, std::size_t count) noexcept {
    run_in_vectors([&]() COLDBRICK_KERNEL { blend_row_inline(source, pixels, count); });
}

}  // namespace coldbrick::inline v0::detail
