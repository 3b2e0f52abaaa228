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

// What becomes of four such pixels: (s*a + d*(255 - a)) / 255, rounded to the nearest, with the numbers s*a + 128 for
// the first and third byte of each pixel, and for the others.
inline void mix_four(EightNumbers even_source, EightNumbers odd_source, EightNumbers rest, FourWords& pixels) noexcept {
    constexpr auto every_other = std::uint32_t{0x00ff00ff};
    const auto mixed = [=](FourWords below, EightNumbers source) __attribute__((always_inline)) {
        const auto numbers = reinterpret_cast<EightNumbers>(below) * rest + source;
        return reinterpret_cast<FourWords>((numbers + (numbers >> 8)) >> 8);
    };
    const auto even = mixed(pixels & every_other, even_source);
    const auto odd = mixed((pixels >> 8) & every_other, odd_source);
    pixels = even | (odd << 8);
}

// The bytes of a word as numbers in each of four words: the first and the third one.
inline EightNumbers numbers_of(std::uint32_t word) noexcept {
    constexpr auto every_other = std::uint32_t{0x00ff00ff};
    return reinterpret_cast<EightNumbers>(FourWords{} + (word & every_other));
}

// Lays a colour, of which a word has the bytes, on four pixels, all by the same alpha.
class SameAlpha {
  public:
    SameAlpha(std::uint32_t source, unsigned alpha) noexcept
        : alpha_{static_cast<std::uint16_t>(alpha)},
          rest_{EightNumbers{} + static_cast<std::uint16_t>(255 - alpha)},
          even_{numbers_of(source) * alpha_ + std::uint16_t{128}},
          odd_{numbers_of(source >> 8U) * alpha_ + std::uint16_t{128}} {}

    [[nodiscard]] unsigned at(int) const noexcept { return alpha_; }
    void mix(int, FourWords& pixels) const noexcept { mix_four(even_, odd_, rest_, pixels); }
    void mix_few(int, FourWords& pixels) const noexcept { mix(0, pixels); }

  private:
    std::uint16_t alpha_;
    EightNumbers rest_;
    EightNumbers even_;
    EightNumbers odd_;
};

// The same, each by an alpha of its own.
class EachAlpha {
  public:
    EachAlpha(std::uint32_t source, const std::uint8_t* alphas) noexcept
        : alphas_{alphas}, even_{numbers_of(source)}, odd_{numbers_of(source >> 8U)} {}

    [[nodiscard]] unsigned at(int i) const noexcept { return alphas_[i]; }
    // By those of four pixels from one on.
    void mix(int first, FourWords& pixels) const noexcept {
        std::uint32_t four = 0;
        std::memcpy(&four, alphas_ + first, sizeof four);
        mix_by(four, pixels);
    }
    // Of two or three pixels, by those of the first two and then of the last two.
    void mix_few(int count, FourWords& pixels) const noexcept {
        std::array<std::uint16_t, 2> two;
        std::memcpy(&two[0], alphas_, 2);
        std::memcpy(&two[1], alphas_ + count - 2, 2);
        std::uint32_t four = 0;
        std::memcpy(&four, two.data(), sizeof four);
        mix_by(four, pixels);
    }

  private:
    void mix_by(std::uint32_t four, FourWords& pixels) const noexcept {
        using Bytes = std::uint8_t __attribute__((vector_size(16)));
        const auto bytes = reinterpret_cast<Bytes>(FourWords{four});
        // Each byte becomes a number, and each number two.
        const auto numbers = reinterpret_cast<EightNumbers>(
            __builtin_shufflevector(bytes, Bytes{}, 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23));
        const auto alphas = __builtin_shufflevector(numbers, numbers, 0, 0, 1, 1, 2, 2, 3, 3);
        constexpr auto half = std::uint16_t{128};
        mix_four(even_ * alphas + half, odd_ * alphas + half, 255 - alphas, pixels);
    }

    const std::uint8_t* alphas_;
    EightNumbers even_;
    EightNumbers odd_;
};

// Pixels with alpha. Where they are opaque, `over` is the opaque blend of all four bytes, alpha like a channel that is
// 255 in the source; so stretches of opaque pixels take the fast path.
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
