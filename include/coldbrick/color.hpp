// coldbrick/color.hpp - colours: 8 bits each of red, green, blue and alpha, alpha straight.
//
//     using namespace coldbrick::literals;
//     Color gold  = 0xe8b23a_rgb;                  // opaque
//     Color shade = 0x0b223980_rgba;               // about half translucent
//     Color mist  = gray(196);
//     Color other = parse_color("#39466b");        // or "#fb0", "#39466b80", "seagreen"
//     Color known = colors::seagreen;              // color_names.hpp
//
// A colour has no channel order: that belongs to the buffer it is drawn on.
#pragma once

#include "coldbrick/detail/public.hpp"

#include <concepts>
#include <cstddef>
#include <cstdint>
#include <optional>
#include <string_view>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// Channels from 0 to 255; alpha 255 is opaque, alpha 0 leaves what is below as it is. (The opacity of an Ink is a
// fraction of that alpha, from 0 to 1: alpha 128 is about opacity 0.5.)
struct Color {
    std::uint8_t red = 0;
    std::uint8_t green = 0;
    std::uint8_t blue = 0;
    std::uint8_t alpha = 255;
    friend constexpr bool operator==(const Color&, const Color&) = default;
};

// The opaque gray with this value in each channel.
constexpr Color gray(std::uint8_t value) noexcept { return {.red = value, .green = value, .blue = value}; }

// The same colour with another alpha, 0 to 255.
constexpr Color with_alpha(Color color, std::uint8_t alpha) noexcept {
    color.alpha = alpha;
    return color;
}
template <std::floating_point Fraction>
constexpr Color with_alpha(Color color, Fraction) noexcept {
    static_assert(detail::never<Fraction>,
                  "alpha is a whole number from 0 to 255: with_alpha(color, 128), or Ink{color, {.opacity = 0.5}}");
    return color;
}

// The gray value of a colour, alpha left aside: the Rec. 709 luma of its encoded channels, (2126 red + 7152 green +
// 722 blue) / 10000, rounded to the nearest. The luma of gray(v) is v.
constexpr std::uint8_t luma(Color color) noexcept {
    const auto weighted = 2126U * color.red + 7152U * color.green + 722U * color.blue;
    return static_cast<std::uint8_t>((weighted + 5000U) / 10000U);
}

// A colour of 16 bits a channel, from 0 to 65535, for the formats that have as many.
struct Color16 {
    std::uint16_t red = 0;
    std::uint16_t green = 0;
    std::uint16_t blue = 0;
    std::uint16_t alpha = 65535;
    friend constexpr bool operator==(const Color16&, const Color16&) = default;
};

// The same colour in 16 bits, and the nearest one in 8 bits. Each 8-bit value v is 257 * v.
constexpr Color16 widened(Color color) noexcept {
    const auto wide = [](std::uint8_t value) { return static_cast<std::uint16_t>(257 * value); };
    return {.red = wide(color.red), .green = wide(color.green), .blue = wide(color.blue), .alpha = wide(color.alpha)};
}
constexpr Color narrowed(Color16 color) noexcept {
    const auto narrow = [](std::uint16_t value) { return static_cast<std::uint8_t>((value + 128U) / 257U); };
    return {.red = narrow(color.red),
            .green = narrow(color.green),
            .blue = narrow(color.blue),
            .alpha = narrow(color.alpha)};
}

// As luma() of a Color: (2126 red + 7152 green + 722 blue) / 10000, rounded to the nearest.
constexpr std::uint16_t luma(Color16 color) noexcept {
    const auto weighted = 2126ULL * color.red + 7152ULL * color.green + 722ULL * color.blue;
    return static_cast<std::uint16_t>((weighted + 5000U) / 10000U);
}

// Reads "#rgb", "#rgba", "#rrggbb", "#rrggbbaa" (digits in either case; in the short forms each counts twice), one
// of the colour names of CSS Color 4, section 6.1, or "transparent" (section 6.3), in either case; and as in scenes
// "rgb(11,34,57)", "rgba(11,34,57,128)" and "gray(196)", in whole numbers from 0 to 255, "hsl(210,50%,40%)" and
// "hsv(0.25turn,0.5,1)", with the hue in degrees unless it says turn, and parts from 0 to 1 or in per cent. Throws
// Error for anything else.
Color parse_color(std::string_view text);

// The same, with nothing instead of an Error.
std::optional<Color> find_color(std::string_view text) noexcept;

namespace detail {

// Whether a literal is 0x and this many hexadecimal digits.
template <std::size_t digits, char... letters>
constexpr bool has_hex_digits() noexcept {
    constexpr char text[] = {letters...};
    if (sizeof text != digits + 2 || text[0] != '0' || (text[1] != 'x' && text[1] != 'X')) return false;
    for (std::size_t i = 2; i < sizeof text; ++i) {
        const auto letter = text[i];
        const auto is_hex =
            (letter >= '0' && letter <= '9') || (letter >= 'a' && letter <= 'f') || (letter >= 'A' && letter <= 'F');
        if (!is_hex) return false;
    }
    return true;
}

template <char... letters>
constexpr Color color_of_literal() noexcept {
    constexpr char text[] = {letters...};
    const auto value = [](char letter) { return letter <= '9' ? letter - '0' : (letter | 0x20) - 'a' + 10; };
    const auto channel = [&](std::size_t i) {
        return static_cast<std::uint8_t>(value(text[2 * i + 2]) * 16 + value(text[2 * i + 3]));
    };
    return {.red = channel(0),
            .green = channel(1),
            .blue = channel(2),
            .alpha = sizeof text == 10 ? channel(3) : std::uint8_t{255}};
}

}  // namespace detail

inline namespace literals {

// 0xrrggbb_rgb: an opaque colour. Anything but 0x and six hexadecimal digits does not compile.
template <char... letters>
constexpr Color operator""_rgb() noexcept {
    static_assert(detail::has_hex_digits<6, letters...>(), "an _rgb colour is written 0xrrggbb_rgb");
    return detail::color_of_literal<letters...>();
}

// 0xrrggbbaa_rgba: a colour with its alpha. Anything but 0x and eight hexadecimal digits does not compile.
template <char... letters>
constexpr Color operator""_rgba() noexcept {
    static_assert(detail::has_hex_digits<8, letters...>(), "an _rgba colour is written 0xrrggbbaa_rgba");
    return detail::color_of_literal<letters...>();
}

}  // namespace literals

}  // namespace v0
}  // namespace coldbrick
