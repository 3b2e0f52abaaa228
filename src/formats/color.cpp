#include "coldbrick/color.hpp"

#include "coldbrick/color_models.hpp"
#include "coldbrick/color_names.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <optional>
#include <string>

namespace coldbrick::inline v0 {

namespace {

constexpr char lower(char letter) noexcept {
    return letter >= 'A' && letter <= 'Z' ? static_cast<char>(letter - 'A' + 'a') : letter;
}

constexpr int hex_value(char letter) noexcept {
    const auto digit = lower(letter);
    if (digit >= '0' && digit <= '9') return digit - '0';
    if (digit >= 'a' && digit <= 'f') return digit - 'a' + 10;
    return -1;
}

std::optional<Color> from_hex(std::string_view digits) noexcept {
    const auto is_short = digits.size() == 3 || digits.size() == 4;
    if (!is_short && digits.size() != 6 && digits.size() != 8) return std::nullopt;
    if (std::any_of(digits.begin(), digits.end(), [](char c) { return hex_value(c) < 0; })) return std::nullopt;
    auto channels = std::array<std::uint8_t, 4>{0, 0, 0, 255};
    const auto step = is_short ? std::size_t{1} : std::size_t{2};
    for (std::size_t i = 0; i < digits.size() / step; ++i) {
        const auto high = hex_value(digits[i * step]);
        const auto low = hex_value(digits[i * step + step - 1]);
        channels[i] = static_cast<std::uint8_t>(high * 16 + low);
    }
    return Color{.red = channels[0], .green = channels[1], .blue = channels[2], .alpha = channels[3]};
}

std::optional<Color> from_name(std::string_view text) noexcept {
    const auto precedes = [](std::string_view a, std::string_view b) {
        return std::lexicographical_compare(a.begin(), a.end(), b.begin(), b.end(),
                                            [](char p, char q) { return lower(p) < lower(q); });
    };
    const auto* const found =
        std::lower_bound(named_colors.begin(), named_colors.end(), text,
                         [&](const NamedColor& entry, std::string_view name) { return precedes(entry.name, name); });
    if (found == named_colors.end() || precedes(text, found->name)) return std::nullopt;
    return found->color;
}

// A number with a point or without, and what follows it.
struct Number {
    double value;
    std::string_view unit;
};

std::optional<Number> number_of(std::string_view text) noexcept {
    while (text.starts_with(' ')) text.remove_prefix(1);
    while (text.ends_with(' ')) text.remove_suffix(1);
    auto value = 0.0;
    const auto [end, fault] = std::from_chars(text.data(), text.data() + text.size(), value, std::chars_format::fixed);
    if (fault != std::errc{} || !std::isfinite(value)) return std::nullopt;
    return Number{.value = value, .unit = text.substr(static_cast<std::size_t>(end - text.data()))};
}

std::optional<double> channel_of(std::string_view text) noexcept {
    const auto number = number_of(text);
    const auto is_channel = number && number->unit.empty() && number->value >= 0 && number->value <= 255 &&
                            number->value == std::floor(number->value);
    return is_channel ? std::optional{number->value} : std::nullopt;
}

std::optional<double> part_of(std::string_view text) noexcept {
    const auto number = number_of(text);
    if (!number || (!number->unit.empty() && number->unit != "%")) return std::nullopt;
    const auto part = number->unit.empty() ? number->value : number->value / 100;
    return part >= 0 && part <= 1 ? std::optional{part} : std::nullopt;
}

std::optional<Angle> hue_of(std::string_view text) noexcept {
    const auto number = number_of(text);
    if (!number) return std::nullopt;
    if (number->unit.empty() || number->unit == "deg") return Angle::degrees(number->value);
    return number->unit == "turn" ? std::optional{Angle::turns(number->value)} : std::nullopt;
}

// "rgb(11,34,57)" and so on.
std::optional<Color> from_function(std::string_view name, std::string_view inside) {
    std::array<std::string_view, 4> parts;
    std::size_t count = 0;
    for (;; ++count) {
        if (count == parts.size()) return std::nullopt;
        const auto comma = inside.find(',');
        parts[count] = inside.substr(0, comma);
        if (comma == std::string_view::npos) break;
        inside.remove_prefix(comma + 1);
    }
    ++count;
    if (name == "hsl" || name == "hsv") {
        const auto hue = hue_of(parts[0]);
        const auto second = part_of(parts[1]);
        const auto third = part_of(parts[2]);
        if (count != 3 || !hue || !second || !third) return std::nullopt;
        if (name == "hsl") return color_of(Hsl{.hue = *hue, .saturation = *second, .lightness = *third});
        return color_of(Hsv{.hue = *hue, .saturation = *second, .value = *third});
    }
    const auto needed = name == "rgb" ? 3U : (name == "rgba" ? 4U : (name == "gray" ? 1U : 0U));
    if (count != needed) return std::nullopt;
    auto channels = std::array<std::uint8_t, 4>{0, 0, 0, 255};
    for (std::size_t i = 0; i < count; ++i) {
        const auto value = channel_of(parts[i]);
        if (!value) return std::nullopt;
        channels[i] = static_cast<std::uint8_t>(*value);
    }
    if (count == 1) return gray(channels[0]);
    return Color{.red = channels[0], .green = channels[1], .blue = channels[2], .alpha = channels[3]};
}

}  // namespace

std::optional<Color> find_color(std::string_view text) noexcept {
    if (text.starts_with('#')) return from_hex(text.substr(1));
    const auto open = text.find('(');
    if (open == std::string_view::npos || !text.ends_with(')')) return from_name(text);
    return from_function(text.substr(0, open), text.substr(open + 1, text.size() - open - 2));
}

Color parse_color(std::string_view text) {
    if (const auto color = find_color(text)) return *color;
    throw Error{"color: '" + std::string{text} +
                "' is no colour; allowed are #rgb, #rgba, #rrggbb, #rrggbbaa, the CSS colour names, rgb(11,34,57), "
                "rgba(11,34,57,128), gray(196), hsl(210,50%,40%) and hsv(210,50%,40%)"};
}

}  // namespace coldbrick::inline v0
