// coldbrick/color_models.hpp - colours by hue, mixtures of colours, colours by chance.
//
//     Color buoy   = color_of(Hsl{.hue = 12_deg, .saturation = 0.8, .lightness = 0.5});
//     Hsv   of_it  = hsv_of(buoy);
//     Color dusk   = mixed(colors::navy, colors::coral, 0.25);        // a quarter of the way to coral
//     Color any    = random_color(7);                                 // always the same for 7
#pragma once

#include "coldbrick/angle.hpp"
#include "coldbrick/color.hpp"
#include "coldbrick/detail/public.hpp"

#include <cstdint>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// Hue (0 is red, 120 degrees green, 240 blue), saturation and lightness from 0 to 1, as CSS Color 4, section 7.
struct Hsl {
    Angle hue = {};
    double saturation = 0;
    double lightness = 0;
    double alpha = 1;
};

// Hue, saturation and value (the largest channel) from 0 to 1: the hexcone model of A. R. Smith, "Color gamut
// transform pairs", SIGGRAPH 1978.
struct Hsv {
    Angle hue = {};
    double saturation = 0;
    double value = 0;
    double alpha = 1;
};

// Channels are rounded to the nearest. Any hue is taken; Error is thrown for other numbers outside 0 to 1.
[[nodiscard]] Color color_of(const Hsl& color);
[[nodiscard]] Color color_of(const Hsv& color);

// The hue of grays is 0, as is the saturation. Hues are from 0 to below 360 degrees.
[[nodiscard]] Hsl hsl_of(Color color) noexcept;
[[nodiscard]] Hsv hsv_of(Color color) noexcept;

// The mixture of two colours, channel by channel, alpha among them: part 0 is the first, 1 the second. Throws
// Error for a part outside 0 to 1.
[[nodiscard]] Color mixed(Color from, Color to, double part);

// An opaque colour that looks chosen by chance: the same for the same seed, on every machine.
[[nodiscard]] Color random_color(std::uint64_t seed) noexcept;

}  // namespace v0
}  // namespace coldbrick
