#include "coldbrick/palette.hpp"

#include "coldbrick/error.hpp"

#include <array>
#include <limits>
#include <string>

namespace coldbrick::inline v0 {

Palette::Palette(std::vector<Color> colors) : colors_{std::move(colors)} {
    constexpr std::size_t most = 256;
    if (!colors_.empty() && colors_.size() <= most) return;
    throw Error{"palette: it has " + std::to_string(colors_.size()) + " colours; allowed are 1 to 256"};
}

Color Palette::operator[](std::size_t number) const {
    if (number < colors_.size()) return colors_[number];
    throw Error{"palette: entry " + std::to_string(number) + " is asked for; allowed is 0 to " +
                std::to_string(colors_.size() - 1)};
}

std::size_t Palette::nearest(Color color) const noexcept {
    const auto away = [&](const Color& other) {
        const auto square = [](int a, int b) { return (a - b) * (a - b); };
        return square(color.red, other.red) + square(color.green, other.green) + square(color.blue, other.blue) +
               square(color.alpha, other.alpha);
    };
    std::size_t best = 0;
    auto least = std::numeric_limits<int>::max();
    for (std::size_t i = 0; i < colors_.size() && least > 0; ++i) {
        const auto distance = away(colors_[i]);
        if (distance >= least) continue;
        least = distance;
        best = i;
    }
    return best;
}

namespace palettes {

namespace {

using namespace literals;

struct Named {
    std::string_view name;
    const Palette& (*palette)();
};

constexpr auto known =
    std::to_array<Named>({{"quay", quay}, {"two_tone", two_tone}, {"gray_steps", gray_steps}, {"cube", cube}});

}  // namespace

const Palette& quay() {
    // Chosen so that any two are at least 23 apart in CIE 1976 L*a*b*, also as eyes without red or green cones see them
    // (F. Vienot, H. Brettel, J. D. Mollon, "Digital video colourmaps for checking the legibility of displays by
    // dichromats", Color Research and Application 24, 1999).
    static const Palette palette{{0x10202c_rgb, 0x713631_rgb, 0x103ca8_rgb, 0x535602_rgb, 0x356cb7_rgb, 0xe05549_rgb,
                                  0x2ca896_rgb, 0x8d97cb_rgb, 0xe28c1e_rgb, 0xa8dff7_rgb, 0xeee56d_rgb, 0xf6f1e3_rgb}};
    return palette;
}

const Palette& two_tone() {
    static const Palette palette{{gray(0), gray(255)}};
    return palette;
}

const Palette& gray_steps() {
    static const Palette palette = [] {
        std::vector<Color> grays;
        grays.reserve(16);
        for (int i = 0; i < 16; ++i) grays.push_back(gray(static_cast<std::uint8_t>(17 * i)));
        return Palette{std::move(grays)};
    }();
    return palette;
}

const Palette& cube() {
    static const Palette palette = [] {
        std::vector<Color> colors;
        colors.reserve(216);
        const auto step = [](int i) { return static_cast<std::uint8_t>(51 * i); };
        for (int red = 0; red < 6; ++red) {
            for (int green = 0; green < 6; ++green) {
                for (int blue = 0; blue < 6; ++blue) {
                    colors.push_back({.red = step(red), .green = step(green), .blue = step(blue)});
                }
            }
        }
        return Palette{std::move(colors)};
    }();
    return palette;
}

const Palette* find(std::string_view name) {
    for (const auto& [word, palette] : known) {
        if (word == name) return &palette();
    }
    return nullptr;
}

std::span<const std::string_view> names() noexcept {
    static constexpr auto words = [] {
        std::array<std::string_view, known.size()> list;
        for (std::size_t i = 0; i < known.size(); ++i) list[i] = known[i].name;
        return list;
    }();
    return words;
}

}  // namespace palettes

}  // namespace coldbrick::inline v0
