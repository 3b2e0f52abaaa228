// What an expression of the language can be.
#pragma once

#include "coldbrick/color.hpp"

#include <cstdint>

namespace coldbrick::inline v0::detail {

// none: it had a fault, which has been reported. cell: text from outside, or out of a table, that is a number or a
// colour where one is needed. row: of a table. box: the place of something that was drawn.
enum class ValueKind : std::uint8_t { none, number, pair, color, text, cell, row, ink, face, box };

// How a number was written.
enum class Unit : std::uint8_t { none, percent, angle };

struct Value {
    ValueKind kind = ValueKind::none;
    Unit unit = Unit::none;
    std::uint32_t index = 0;  // of a text, table, ink, face, box: where it is kept
    Color color = {};
    double x = 0;  // a number, or the first of a pair; of a row its number, of a cell too
    double y = 0;  // the second; of a cell its column

    static constexpr Value number(double of, Unit unit = Unit::none) noexcept {
        return {.kind = ValueKind::number, .unit = unit, .x = of};
    }
    static constexpr Value pair(double x, double y) noexcept { return {.kind = ValueKind::pair, .x = x, .y = y}; }
    static constexpr Value colored(Color of) noexcept { return {.kind = ValueKind::color, .color = of}; }
    static constexpr Value kept(ValueKind kind, std::size_t index) noexcept {
        return {.kind = kind, .index = static_cast<std::uint32_t>(index)};
    }
};

// "a number", "a colour" and so on.
[[nodiscard]] constexpr const char* in_words(ValueKind kind) noexcept {
    switch (kind) {
        case ValueKind::number:
            return "a number";
        case ValueKind::pair:
            return "a pair";
        case ValueKind::color:
            return "a colour";
        case ValueKind::text:
        case ValueKind::cell:
            return "a text";
        case ValueKind::row:
            return "a row of a table";
        case ValueKind::ink:
            return "an ink of more than one colour";
        case ValueKind::face:
            return "a face";
        case ValueKind::box:
            return "the place of something drawn";
        default:
            return "nothing";
    }
}

}  // namespace coldbrick::inline v0::detail
