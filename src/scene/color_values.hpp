// Colours out of others, and numbers in texts.
#pragma once

#include "scene/program.hpp"

#include <string>

namespace coldbrick::inline v0::detail {

// Between two colours, as gradients are: in proportion to what each covers.
[[nodiscard]] Color mixed_colors(Color a, Color b, double part) noexcept;

// Towards white, or with a negative part towards black.
[[nodiscard]] Color lightened(Color color, double part) noexcept;

// A number as it is written in a text.
[[nodiscard]] std::string written(double value, const NumberForm& form);

}  // namespace coldbrick::inline v0::detail
