// The colours along a gradient.
#pragma once

#include "coldbrick/gradient.hpp"

#include <array>
#include <cstdint>
#include <vector>

namespace coldbrick::inline v0::detail {

// At so many places.
inline constexpr int ramp_bits = 12;
inline constexpr int ramp_size = 1 << ramp_bits;

// The 8x8 ordered dither matrix of B. E. Bayer, "An optimum method for two-level rendition of continuous-tone
// pictures", ICC 1973: in each pixel, at which part of a step, in 64ths, a value is rounded up.
inline constexpr auto dither_matrix = [] {
    std::array<std::array<std::uint8_t, 8>, 8> matrix{};
    for (unsigned y = 0; y < 8; ++y) {
        for (unsigned x = 0; x < 8; ++x) {
            // The bits of x ^ y and y, from the last one on, in turn.
            auto value = 0U;
            for (unsigned bit = 0; bit < 3; ++bit) {
                value = value * 4 + (((x ^ y) >> bit) & 1U) * 2 + ((y >> bit) & 1U);
            }
            matrix[y][x] = static_cast<std::uint8_t>(value);
        }
    }
    return matrix;
}();

// A colour rounded down to 8 bits, and from which threshold on each channel is rounded up.
struct Dithered {
    Color floor;
    Color up_from;
};

// Rounds so many colours, by thresholds that come again after eight.
void round_up(const Dithered* colors, const std::array<std::uint8_t, 8>& thresholds, int count, Color* to) noexcept;

// In both depths.
struct Ramp {
    std::array<Color16, ramp_size> deep;
    std::array<Color, ramp_size> colors;
    std::vector<Dithered> dithered_colors;  // if they are asked for
    bool is_opaque;

    Ramp(const std::vector<Stop>& stops, Dither dither);
};

}  // namespace coldbrick::inline v0::detail
