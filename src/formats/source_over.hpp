// Source-over of one colour on runs of pixels: rule 5 of docs/pixel-rules.md.
#pragma once

#include <array>
#include <bit>
#include <cstddef>
#include <cstdint>
#include <cstring>

namespace coldbrick::inline v0::detail {

// Where alpha lies in a pixel of four bytes.
inline constexpr std::size_t alpha_place = 3;

// Porter and Duff's over on straight alpha, on one pixel of four bytes: each result the exact fraction rounded to the
// nearest (halves up).
void over(std::uint8_t* pixel, const std::uint8_t* source) noexcept;

// Every byte of a pixel without alpha: (s*a + d*(255 - a)) / 255, rounded to the nearest.
class OpaqueBlend {
  public:
    // Bytes of the colour, up to 4 of them, and its alpha.
    OpaqueBlend(const std::uint8_t* pixel, std::size_t pixel_bytes, std::uint8_t alpha) noexcept;

    // On so many bytes, which begin with a whole pixel.
    void operator()(std::uint8_t* bytes, std::size_t count) const noexcept;

    // How many bytes are taken at once; every pixel size and every vector divides it.
    static constexpr std::size_t period = 96;

    // For each byte of a period: s*a + 128; and 255 - a.
    std::array<std::uint16_t, period> source;
    std::uint16_t rest;
};

// Four pixels of four bytes, alpha last.
using FourPixels = std::array<std::uint64_t, 2>;
inline bool are_opaque(const FourPixels& words) noexcept {
    const auto alphas = std::uint64_t{std::endian::native == std::endian::little ? 0xff000000U : 0xffU} * 0x100000001U;
    return (words[0] & words[1] & alphas) == alphas;
}

// Four words, and the same as eight numbers. What takes them is for processors that have such vectors, and for others
// compiled to plain arithmetic.
using FourWords = std::uint32_t __attribute__((vector_size(16)));
using EightNumbers = std::uint16_t __attribute__((vector_size(16)));

// Lays a colour, of which a word has the bytes, on four such pixels, each by the alpha that both of its numbers are:
// (s*a + d*(255 - a)) / 255, rounded to the nearest.
inline void mix_four(std::uint32_t source, EightNumbers alphas, FourWords& pixels) noexcept {
    constexpr auto every_other = std::uint32_t{0x00ff00ff};
    const auto mixed = [=](FourWords below, std::uint32_t ink) __attribute__((always_inline)) {
        const auto numbers = reinterpret_cast<EightNumbers>(below) * (255 - alphas) +
                             reinterpret_cast<EightNumbers>(FourWords{ink, ink, ink, ink} & every_other) * alphas +
                             std::uint16_t{128};
        return reinterpret_cast<FourWords>((numbers + (numbers >> 8)) >> 8);
    };
    const auto even = mixed(pixels & every_other, source);
    const auto odd = mixed((pixels >> 8) & every_other, source >> 8U);
    pixels = even | (odd << 8);
}

// All by the same alpha.
struct SameAlpha {
    std::uint16_t alpha;

    [[nodiscard]] unsigned at(int) const noexcept { return alpha; }
    void mix(std::uint32_t source, int, FourWords& pixels) const noexcept {
        mix_four(source, EightNumbers{} + alpha, pixels);
    }
    void mix_last(std::uint32_t source, int, FourWords& pixels) const noexcept { mix(source, 0, pixels); }
};

// Each by an alpha of its own.
struct EachAlpha {
    const std::uint8_t* alphas;

    [[nodiscard]] unsigned at(int i) const noexcept { return alphas[i]; }
    // Those of four pixels from one on.
    void mix(std::uint32_t source, int first, FourWords& pixels) const noexcept {
        std::uint32_t four = 0;
        std::memcpy(&four, alphas + first, sizeof four);
        mix_by(source, four, pixels);
    }
    // Of two or three pixels, the first two and then the last two.
    void mix_last(std::uint32_t source, int count, FourWords& pixels) const noexcept {
        std::array<std::uint16_t, 2> two;
        std::memcpy(&two[0], alphas, 2);
        std::memcpy(&two[1], alphas + count - 2, 2);
        std::uint32_t four = 0;
        std::memcpy(&four, two.data(), sizeof four);
        mix_by(source, four, pixels);
    }

  private:
    static void mix_by(std::uint32_t source, std::uint32_t four, FourWords& pixels) noexcept {
        using Bytes = std::uint8_t __attribute__((vector_size(16)));
        const auto bytes = reinterpret_cast<Bytes>(FourWords{four});
        // Each byte becomes a number, and each number two.
        const auto numbers = reinterpret_cast<EightNumbers>(
            __builtin_shufflevector(bytes, Bytes{}, 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23));
        mix_four(source, __builtin_shufflevector(numbers, numbers, 0, 0, 1, 1, 2, 2, 3, 3), pixels);
    }
};

// Pixels with alpha. Where they are opaque, `over` is the opaque blend of all four bytes, alpha like a channel that is
// 255 in the source; so stretches of opaque pixels take the fast way.
class AlphaBlend {
  public:
    // A pixel of the colour.
    explicit AlphaBlend(const std::array<std::uint8_t, 4>& pixel) noexcept;

    // On so many pixels.
    void operator()(std::uint8_t* pixels, std::size_t count) const noexcept;

  private:
    std::array<std::uint8_t, 4> pixel_;
    OpaqueBlend opaque_;
};

// Whether so many pixels of four bytes, alpha last, are opaque.
bool are_opaque(const std::uint8_t* pixels, std::size_t count) noexcept;

// A row of pixels of four bytes, alpha last, over another: each as `over` does it.
void blend_row(const std::uint8_t* source, std::uint8_t* pixels, std::size_t count) noexcept;

}  // namespace coldbrick::inline v0::detail
