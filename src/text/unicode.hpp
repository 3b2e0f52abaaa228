// What Unicode says of characters, in one of two sources: fonts/unicode.cpp, or no_fonts/unicode.cpp for a library
// without font files.
#pragma once

#include "coldbrick/text.hpp"

#include <cstdint>
#include <string_view>
#include <vector>

namespace coldbrick::inline v0::detail {

// Where a line is broken by force: a line feed, a separator.
[[nodiscard]] constexpr bool ends_line(char32_t c) noexcept {
    return c == U'\n' || c == 0x2028 || c == 0x2029 || c == 0x85 || c == 0x0b || c == 0x0c;
}

[[nodiscard]] constexpr bool is_space(char32_t c) noexcept {
    return c == U' ' || c == U'\t' || (c >= 0x2000 && c <= 0x200a && c != 0x2007) || c == 0x205f || c == 0x3000;
}

// Drawn only where a line ends with it.
inline constexpr char32_t soft_hyphen = 0xad;

// What is not drawn, nor takes any room, and has no drawing in a face (most of Default_Ignorable_Code_Point).
[[nodiscard]] constexpr bool is_invisible(char32_t c) noexcept {
    return (c >= 0x200b && c <= 0x200f) || (c >= 0x202a && c <= 0x202e) || (c >= 0x2060 && c <= 0x206f) ||
           (c >= 0xfe00 && c <= 0xfe0f) || c == 0xfeff || c == 0x034f || c == 0x061c || c == 0x180e ||
           (c >= 0xe0000 && c <= 0xe0fff);
}

// The first character that may go to the left: Hebrew.
inline constexpr char32_t first_leftward = 0x590;

// How deep in each other the directions of a paragraph are (UAX 9): even ones go to the right.
struct BidiLevels {
    std::uint8_t paragraph;
    std::vector<std::uint8_t> each;
};
[[nodiscard]] BidiLevels bidi_levels(std::u32string_view paragraph, TextDirection direction);

// What stands in its place where letters go to the left: another bracket, itself.
[[nodiscard]] char32_t mirrored(char32_t c) noexcept;

// The tag of its script (ISO 15924); 0: it goes with what stands around it.
[[nodiscard]] std::uint32_t script_of(char32_t c) noexcept;

// Whether it hangs on the letter before.
[[nodiscard]] bool is_mark(char32_t c) noexcept;

// Whether a line may begin with each of the characters of a paragraph (UAX 14).
[[nodiscard]] std::vector<bool> line_begins(std::u32string_view paragraph);

}  // namespace coldbrick::inline v0::detail
