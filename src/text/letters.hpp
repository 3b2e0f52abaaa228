// What the built-in faces are made of: drawings of letters and marks, and how marks sit on letters.
#pragma once

#include <array>
#include <cstdint>
#include <span>
#include <string_view>

namespace coldbrick::inline v0::detail {

enum class Mark : std::uint8_t {
    grave,
    acute,
    circumflex,
    tilde,
    diaeresis,
    ring,
    caron,
    breve,
    macron,
    dot_above,
    double_acute,
    cedilla,
    ogonek,
    comma_below,
    comma_above,
    apostrophe,  // to the right of tall letters, in place of a caron
    diaeresis_tonos,
};

// A letter of the line face: the characters that it stands for, how far it reaches from its first stem to its last one,
// and the path of the pen as path data.
struct LineLetter {
    std::u32string_view characters;
    double width;
    std::string_view path;
};
struct LineMark {
    Mark mark;
    std::string_view path;
};

[[nodiscard]] std::span<const LineLetter> line_letters() noexcept;
[[nodiscard]] std::span<const LineLetter> filled_line_letters() noexcept;
[[nodiscard]] std::span<const LineMark> line_marks() noexcept;

// A letter of a pixel face: its rows from the top of the capitals down, of '#' and '.', parted by '/'. Rows above them
// come before a '^', which stands for a '/'.
struct PixelLetter {
    std::u32string_view characters;
    std::string_view rows;
};
struct PixelMark {
    Mark mark;
    std::string_view rows;
};

[[nodiscard]] std::span<const PixelLetter> pixel_letters() noexcept;
[[nodiscard]] std::span<const PixelMark> pixel_marks() noexcept;
[[nodiscard]] std::span<const PixelLetter> tiny_letters() noexcept;
[[nodiscard]] std::span<const PixelMark> tiny_marks() noexcept;

// A character that is a letter with a mark.
struct Composed {
    char32_t character;
    char32_t letter;
    Mark mark;
};
[[nodiscard]] std::span<const Composed> composed_characters() noexcept;

// A character that is others, made smaller: superscripts and fractions. Empty parts: the space that it takes.
struct Smaller {
    char32_t character;
    std::u32string_view above;  // what stands high
    std::u32string_view below;  // what stands low, behind a fraction's line
};
[[nodiscard]] std::span<const Smaller> smaller_characters() noexcept;

}  // namespace coldbrick::inline v0::detail
