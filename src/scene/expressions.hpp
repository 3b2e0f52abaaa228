// Expressions as they are written to steps.
#pragma once

#include "scene/grammar.hpp"
#include "scene/scope.hpp"

#include <cstddef>
#include <string>
#include <string_view>

namespace coldbrick::inline v0::detail {

// What an expression may not be, and which bytes of it: thrown to where it is reported.
struct Refusal {
    std::size_t begin;
    std::size_t end;
    std::string what;
    std::string advice;
};

inline constexpr auto expression_advice = "a value is a number, or an expression such as 18+4*25 or (18 + 100)";

// Writes the steps of one expression behind those that the program has. Throws Refusal.
void read_expression(std::string_view text, Reads reads, Program& program, Scope& scope, const Faults& faults);

// What is wrong with words, and what would be right.
struct Mistake {
    std::string what;
    std::string advice;
};

// Of digits with letters behind them that are no unit; of a name that is none here; of one that has no value yet; of a
// function that there is not.
[[nodiscard]] Mistake wrong_unit(std::string_view all, std::string_view unit, Reads reads);
[[nodiscard]] Mistake unknown_name(std::string_view name, Reads reads, const Scope& scope, const Faults& faults);
[[nodiscard]] Mistake unfinished_name(const KnownName& known);
[[nodiscard]] Mistake unknown_function(std::string_view name, Reads reads);

constexpr bool is_digit(char c) noexcept { return c >= '0' && c <= '9'; }
// Also the bytes of letters beyond ASCII: no name has them, but it is reported as one.
constexpr bool is_letter(char c) noexcept {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_' || static_cast<unsigned char>(c) >= 0x80U;
}

}  // namespace coldbrick::inline v0::detail
