// What operators and functions of numbers give.
#pragma once

#include "scene/functions.hpp"
#include "scene/program.hpp"

namespace coldbrick::inline v0::detail {

// Of the operators that take two numbers.
[[nodiscard]] double of_numbers(Op op, double a, double b) noexcept;

// Of the functions that take one number.
[[nodiscard]] double of_one(Function function, double value) noexcept;

}  // namespace coldbrick::inline v0::detail
