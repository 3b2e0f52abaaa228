#include "coldbrick/color_models.hpp"

#include "geometry/integers.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <cmath>
#include <string>

namespace coldbrick::inline v0 {

namespace {

void check_part(const char* what, double value) {
    if (value >= 0 && value <= 1) return;
    throw Error{std::string{what} + " is " + std::to_string(value) + "; allowed is 0 to 1"};
}

std::uint8_t channel(double part) noexcept {
    return detail::nearest_whole<std::uint8_t>(std::clamp(part, 0.0, 1.0) * 255);
}

// Channels from `least` to `most`, in the proportion of a hue: both models agree on it.
Color color_of_hue(Angle hue, double least, double most, double alpha) noexcept {
    const auto turned = hue.in_degrees() / 60;
    const auto sixth = turned - 6 * std::floor(turned / 6);
    const auto ramp = [&](double from) {
        const auto place = sixth + from - 6 * std::floor((sixth + from) / 6);
        // Up in one sixth of the turn, high for two, down in one, low for two.
        const auto height = std::clamp(std::min(place, 4 - place), 0.0, 1.0);
        return channel(least + (most - least) * height);
    };
    return {.red = ramp(2), .green = ramp(0), .blue = ramp(4), .alpha = channel(alpha)};
}

// The greatest and the least channel, 0 to 1, and the hue.
struct Extremes {
    double most;
    double least;
    Angle hue;

    explicit Extremes(Color color) noexcept {
        const auto red = color.red / 255.0;
        const auto green = color.green / 255.0;
        const auto blue = color.blue / 255.0;
        most = std::max({red, green, blue});
        least = std::min({red, green, blue});
        if (most == least) return;
        const auto sixth = [&] {
            if (most == red) return (green - blue) / (most - least) + (green < blue ? 6 : 0);
            if (most == green) return (blue - red) / (most - least) + 2;
            return (red - green) / (most - least) + 4;
        }();
        hue = Angle::degrees(60 * sixth);
    }
};

}  // namespace

Color color_of(const Hsl& color) {
    check_part("hsl: saturation", color.saturation);
    check_part("hsl: lightness", color.lightness);
    check_part("hsl: alpha", color.alpha);
    const auto reach = color.saturation * std::min(color.lightness, 1 - color.lightness);
    return color_of_hue(color.hue, color.lightness - reach, color.lightness + reach, color.alpha);
}

Color color_of(const Hsv& color) {
    check_part("hsv: saturation", color.saturation);
    check_part("hsv: value", color.value);
    check_part("hsv: alpha", color.alpha);
    return color_of_hue(color.hue, color.value * (1 - color.saturation), color.value, color.alpha);
}

Hsl hsl_of(Color color) noexcept {
    const Extremes of{color};
    const auto lightness = (of.most + of.least) / 2;
    const auto reach = std::min(lightness, 1 - lightness);
    return {.hue = of.hue,
            .saturation = reach > 0 ? std::min((of.most - lightness) / reach, 1.0) : 0,
            .lightness = lightness,
            .alpha = color.alpha / 255.0};
}

Hsv hsv_of(Color color) noexcept {
    const Extremes of{color};
    return {.hue = of.hue,
            .saturation = of.most > 0 ? (of.most - of.least) / of.most : 0,
            .value = of.most,
            .alpha = color.alpha / 255.0};
}

Color mixed(Color from, Color to, double part) {
    check_part("mixed: part", part);
    const auto between = [part](std::uint8_t a, std::uint8_t b) {
        return detail::nearest_whole<std::uint8_t>(a + (b - a) * part);
    };
    return {.red = between(from.red, to.red),
            .green = between(from.green, to.green),
            .blue = between(from.blue, to.blue),
            .alpha = between(from.alpha, to.alpha)};
}

Color random_color(std::uint64_t seed) noexcept {
    // SplitMix64: G. L. Steele, D. Lea, C. H. Flood, "Fast splittable pseudorandom number generators", OOPSLA 2014.
    auto bits = seed + 0x9e3779b97f4a7c15U;
    bits = (bits ^ (bits >> 30U)) * 0xbf58476d1ce4e5b9U;
    bits = (bits ^ (bits >> 27U)) * 0x94d049bb133111ebU;
    bits ^= bits >> 31U;
    const auto byte = [bits](unsigned number) { return static_cast<std::uint8_t>(bits >> (8 * number)); };
    return {.red = byte(0), .green = byte(1), .blue = byte(2)};
}

}  // namespace coldbrick::inline v0
