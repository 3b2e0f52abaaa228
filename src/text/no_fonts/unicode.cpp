// Without libraries: what the built-in faces need, whose scripts all go to the right.
#include "text/unicode.hpp"

#include "coldbrick/error.hpp"

namespace coldbrick::inline v0::detail {

BidiLevels bidi_levels(std::u32string_view paragraph, TextDirection direction) {
    if (direction == TextDirection::right_to_left) {
        throw Error{
            "text: direction is right_to_left; allowed is left_to_right: the library has been built without "
            "font files (COLDBRICK_FONTS)"};
    }
    return {.paragraph = 0, .each = std::vector<std::uint8_t>(paragraph.size(), 0)};
}

char32_t mirrored(char32_t c) noexcept { return c; }

std::uint32_t script_of(char32_t) noexcept { return 0; }

bool is_mark(char32_t c) noexcept { return c >= 0x300 && c <= 0x36f; }

// What concerns spaces, hyphens, dashes and places for breaks.
std::vector<bool> line_begins(std::u32string_view paragraph) {
    const auto may_end_behind = [](char32_t c) {
        return is_space(c) || c == U'-' || c == 0x2010 || c == 0x2012 || c == 0x2013 || c == 0x2014 || c == 0x200b ||
               c == 0xad;
    };
    std::vector<bool> begins(paragraph.size(), false);
    for (std::size_t i = 1; i < paragraph.size(); ++i) {
        begins[i] = may_end_behind(paragraph[i - 1]) && !is_space(paragraph[i]);
    }
    return begins;
}

}  // namespace coldbrick::inline v0::detail
