// The functions of the language.
#pragma once

#include <array>
#include <cstdint>
#include <string_view>

namespace coldbrick::inline v0::detail {

enum class Function : std::uint8_t {
    abs,
    atan,
    ceil,
    clamp,
    cos,
    entry,
    floor,
    gray,
    hsl,
    hsv,
    lighten,
    max,
    min,
    mix,
    mod,
    power,
    random,
    rgb,
    rgba,
    round,
    sin,
    sqrt,
    tan
};

struct FunctionForm {
    Function function;
    std::string_view name;
    int least = 1;  // values
    int most = 1;
    std::string_view example = {};
};

inline constexpr auto functions = std::to_array<FunctionForm>({
    {Function::abs, "abs", 1, 1, "abs(-4)"},
    {Function::atan, "atan", 1, 2, "atan(1), or atan(30,40): the direction of 30 down and 40 to the right"},
    {Function::ceil, "ceil", 1, 1, "ceil(3.2)"},
    {Function::clamp, "clamp", 3, 3, "clamp(tide,0,6): not under 0, not over 6"},
    {Function::cos, "cos", 1, 1, "cos(60)"},
    {Function::entry, "entry", 1, 1, "entry(3)"},
    {Function::floor, "floor", 1, 1, "floor(3.8)"},
    {Function::gray, "gray", 1, 1, "gray(196)"},
    {Function::hsl, "hsl", 3, 3, "hsl(210,50%,40%)"},
    {Function::hsv, "hsv", 3, 3, "hsv(210,50%,40%)"},
    {Function::lighten, "lighten", 2, 2, "lighten(navy,20%), or lighten(navy,-0.2) for darker"},
    {Function::max, "max", 1, 255, "max(3,4)"},
    {Function::min, "min", 1, 255, "min(3,4)"},
    {Function::mix, "mix", 3, 3, "mix(navy,gold,0.25)"},
    {Function::mod, "mod", 2, 2, "mod(17,5)"},
    {Function::power, "power", 2, 2, "power(2,10)"},
    {Function::random, "random", 0, 2, "random(), or random(5,9): at least 5, less than 9"},
    {Function::rgb, "rgb", 3, 3, "rgb(11,34,57)"},
    {Function::rgba, "rgba", 4, 4, "rgba(11,34,57,128)"},
    {Function::round, "round", 1, 1, "round(3.5)"},
    {Function::sin, "sin", 1, 1, "sin(30)"},
    {Function::sqrt, "sqrt", 1, 1, "sqrt(2)"},
    {Function::tan, "tan", 1, 1, "tan(45)"},
});

constexpr const FunctionForm& geometry_of(Function function) noexcept {
    return functions[static_cast<std::size_t>(function)];
}

// Null if there is none of that name.
constexpr const FunctionForm* find_function(std::string_view name) noexcept {
    for (const auto& form : functions) {
        if (form.name == name) return &form;
    }
    return nullptr;
}

// Whether its values and what it gives are numbers, whatever they are.
constexpr bool is_number_function(Function function) noexcept {
    switch (function) {
        case Function::abs:
        case Function::ceil:
        case Function::cos:
        case Function::floor:
        case Function::mod:
        case Function::power:
        case Function::random:
        case Function::round:
        case Function::sin:
        case Function::sqrt:
        case Function::tan:
            return true;
        default:
            return false;
    }
}

// Whether its value is a colour.
constexpr bool makes_color(Function function) noexcept {
    return function == Function::rgb || function == Function::rgba || function == Function::gray ||
           function == Function::hsl || function == Function::hsv;
}

}  // namespace coldbrick::inline v0::detail
