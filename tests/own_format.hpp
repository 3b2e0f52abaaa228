// A pixel format of one's own.
#pragma once

#include <coldbrick/formats.hpp>

#include <cstdint>

// Five bits of red, six of green, five of blue in two bytes.
struct OwnRgb565 {};
template <>
struct coldbrick::FormatTraits<OwnRgb565> {
    static constexpr int pixel_bytes = 2;
    static constexpr bool has_alpha = false;
    static void store(Color color, std::uint8_t* pixel) {
        const auto bits = (color.red >> 3U << 11U) | (color.green >> 2U << 5U) | (color.blue >> 3U);
        pixel[0] = static_cast<std::uint8_t>(bits);
        pixel[1] = static_cast<std::uint8_t>(bits >> 8U);
    }
    static Color load(const std::uint8_t* pixel) {
        const auto bits = static_cast<unsigned>(pixel[0] | pixel[1] << 8U);
        const auto scaled = [](unsigned value, unsigned most) {
            return static_cast<std::uint8_t>((value * 255 + most / 2) / most);
        };
        return {.red = scaled(bits >> 11U, 31), .green = scaled(bits >> 5U & 63U, 63), .blue = scaled(bits & 31U, 31)};
    }
};
