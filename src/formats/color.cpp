#include "coldbrick/color.hpp"

#include "coldbrick/color_names.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <array>
#include <string>

namespace coldbrick {

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

}  // namespace

std::optional<Color> find_color(std::string_view text) noexcept {
    if (text.starts_with('#')) return from_hex(text.substr(1));
    return from_name(text);
}

Color parse_color(std::string_view text) {
    if (const auto color = find_color(text)) return *color;
    throw Error{"color: '" + std::string{text} +
                "' is no colour; allowed are #rgb, #rgba, #rrggbb, #rrggbbaa and the CSS colour names"};
}

}  // namespace coldbrick
