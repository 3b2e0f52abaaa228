// What readers and writers of QOI share: "The Quite OK Image Format Specification", version 1.0.
#pragma once

#include "coldbrick/color.hpp"

#include <array>
#include <cstdint>

namespace coldbrick::inline v0::detail {

inline constexpr std::uint8_t qoi_rgb = 0xfe;
inline constexpr std::uint8_t qoi_rgba = 0xff;
inline constexpr std::array<std::uint8_t, 8> qoi_end = {0, 0, 0, 0, 0, 0, 0, 1};

// Where a colour stands among those that have been seen.
constexpr std::size_t qoi_place(const Color& color) noexcept {
    return (color.red * 3U + color.green * 5U + color.blue * 7U + color.alpha * 11U) % 64;
}

// At first: transparent black everywhere.
constexpr std::array<Color, 64> qoi_unseen() noexcept {
    std::array<Color, 64> seen{};
    seen.fill({.alpha = 0});
    return seen;
}

}  // namespace coldbrick::inline v0::detail
