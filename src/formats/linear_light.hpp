// Channels in proportion to light: the sRGB curve of IEC 61966-2-1.
#pragma once

#include <cstdint>

namespace coldbrick::inline v0::detail {

// The light of an encoded channel, from 0 to 1.
[[nodiscard]] double light_of(std::uint8_t channel) noexcept;
[[nodiscard]] double light_of(std::uint16_t channel) noexcept;

// The channel of a light from 0 to 1, what lies outside cut off, rounded to the nearest.
void from_light(double light, std::uint8_t& channel) noexcept;
void from_light(double light, std::uint16_t& channel) noexcept;

}  // namespace coldbrick::inline v0::detail
