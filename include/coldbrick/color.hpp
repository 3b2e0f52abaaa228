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

#include <cstdint>
#include <optional>
#include <string_view>

namespace coldbrick {

// Channels from 0 to 255; alpha 255 is opaque, alpha 0 leaves what is below as it is.
struct Color {
    std::uint8_t red = 0;
    std::uint8_t green = 0;
    std::uint8_t blue = 0;
    std::uint8_t alpha = 255;
    friend constexpr bool operator==(const Color&, const Color&) = default;
};

// The opaque gray with this value in each channel.
constexpr Color gray(std::uint8_t value) noexcept { return {.red = value, .green = value, .blue = value}; }

// The same colour with another alpha.
constexpr Color with_alpha(Color color, std::uint8_t alpha) noexcept {
    color.alpha = alpha;
    return color;
}

// The gray value of a colour, alpha left aside: the Rec. 709 luma of its encoded channels,
// (2126 red + 7152 green + 722 blue) / 10000, rounded to the nearest. The luma of gray(v) is v.
constexpr std::uint8_t luma(Color color) noexcept {
    const auto weighted = 2126U * color.red + 7152U * color.green + 722U * color.blue;
    return static_cast<std::uint8_t>((weighted + 5000U) / 10000U);
}

// Reads "#rgb", "#rgba", "#rrggbb", "#rrggbbaa" (digits in either case; in the short forms each counts twice)
// or one of the colour names of CSS Color 4, section 6.1, or "transparent" (section 6.3), in either case.
// Throws Error for anything else.
Color parse_color(std::string_view text);

// The same, with nothing instead of an Error.
std::optional<Color> find_color(std::string_view text) noexcept;

inline namespace literals {

// 0xrrggbb_rgb: an opaque colour. More than 24 bits do not compile.
consteval Color operator""_rgb(unsigned long long digits) {
    if (digits > 0xffffffULL) throw "an _rgb colour has six digits: 0xrrggbb_rgb";
    return {.red = static_cast<std::uint8_t>(digits >> 16U),
            .green = static_cast<std::uint8_t>(digits >> 8U & 0xffU),
            .blue = static_cast<std::uint8_t>(digits & 0xffU)};
}

// 0xrrggbbaa_rgba: a colour with its alpha. More than 32 bits do not compile.
consteval Color operator""_rgba(unsigned long long digits) {
    if (digits > 0xffffffffULL) throw "an _rgba colour has eight digits: 0xrrggbbaa_rgba";
    return {.red = static_cast<std::uint8_t>(digits >> 24U),
            .green = static_cast<std::uint8_t>(digits >> 16U & 0xffU),
            .blue = static_cast<std::uint8_t>(digits >> 8U & 0xffU),
            .alpha = static_cast<std::uint8_t>(digits & 0xffU)};
}

}  // namespace literals

}  // namespace coldbrick
