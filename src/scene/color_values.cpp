#include "scene/color_values.hpp"

#include "scene/budget.hpp"

#include <algorithm>
#include <charconv>
#include <cmath>

namespace coldbrick::inline v0::detail {

namespace {

std::uint8_t channel(double value) noexcept {
    return static_cast<std::uint8_t>(std::clamp(std::floor(value + 0.5), 0.0, 255.0));
}

}  // namespace

Color mixed_colors(Color a, Color b, double part) noexcept {
    constexpr auto opaque = 255.0;
    const auto weight_a = (1 - part) * a.alpha / opaque;
    const auto weight_b = part * b.alpha / opaque;
    const auto both = weight_a + weight_b;
    if (both <= 0) return {.alpha = 0};
    const auto of = [&](std::uint8_t from, std::uint8_t to) {
        return channel((weight_a * from + weight_b * to) / both);
    };
    return {.red = of(a.red, b.red),
            .green = of(a.green, b.green),
            .blue = of(a.blue, b.blue),
            .alpha = channel(both * opaque)};
}

Color lightened(Color color, double part) noexcept {
    const auto to = part < 0 ? 0.0 : 255.0;
    const auto of = [&](std::uint8_t value) { return channel(value + (to - value) * std::fabs(part)); };
    return {.red = of(color.red), .green = of(color.green), .blue = of(color.blue), .alpha = color.alpha};
}

std::string written(double value, const NumberForm& form) {
    std::string text;
    if (form.decimals < 0) {
        text = in_digits(value);
    } else {
        constexpr auto longest = 400U;  // of a double with 15 digits after the point
        text.resize(longest);
        const auto [end, error] =
            std::to_chars(text.data(), text.data() + text.size(), value, std::chars_format::fixed, form.decimals);
        text.resize(static_cast<std::size_t>(end - text.data()));
    }
    // No minus before nothing.
    if (text.starts_with('-') && text.find_first_not_of("-0.") == std::string::npos) text.erase(0, 1);
    const auto width = static_cast<std::size_t>(form.width);
    if (text.size() < width) {
        const auto sign = form.filled_with == '0' && text.starts_with('-') ? 1U : 0U;
        text.insert(sign, width - text.size(), form.filled_with);
    }
    return text;
}

}  // namespace coldbrick::inline v0::detail
