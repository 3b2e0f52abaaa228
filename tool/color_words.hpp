// Colours as the commands print them.
#pragma once

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <string>

#include <fmt/core.h>

namespace coldbrick::tool {

// As a scene writes it: #rrggbb, or #rrggbbaa where it is not opaque.
inline std::string hex(Color color) {
    const auto rgb = fmt::format("#{:02x}{:02x}{:02x}", color.red, color.green, color.blue);
    return color.alpha == 255 ? rgb : rgb + fmt::format("{:02x}", color.alpha);
}

// Its name of CSS Color 4, alpha left aside: "gold", or "near gold".
inline std::string name_in_words(Color color) {
    const auto name = nearest_name(color);
    const auto is_exact = std::any_of(named_colors.begin(), named_colors.end(), [&](const NamedColor& named) {
        return named.name == name && named.color == with_alpha(color, 255);
    });
    return std::string{is_exact ? "" : "near "} + std::string{name};
}

// "#ffd700 gold", "#ffd70080 gold, alpha 128", "transparent".
inline std::string in_words(Color color) {
    if (color.alpha == 0) return "transparent";
    const auto alpha = color.alpha == 255 ? std::string{} : fmt::format(", alpha {}", color.alpha);
    return fmt::format("{} {}{}", hex(color), name_in_words(color), alpha);
}

}  // namespace coldbrick::tool
