#include "text/utf8.hpp"

#include "text/letters.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/face.hpp"

#include <algorithm>
#include <map>
#include <string>
#include <utility>

namespace coldbrick::inline v0 {

namespace detail {

namespace {

[[noreturn]] void refuse(std::string_view words, std::size_t at) {
    constexpr std::string_view digits = "0123456789abcdef";
    const auto byte = static_cast<unsigned char>(words[at]);
    throw Error{"text: byte " + std::to_string(at) + " of the words is 0x" + digits[byte >> 4U] + digits[byte & 15U] +
                ", which is no UTF-8 there"};
}

// How many bytes a character has that begins so; 0 for a byte that begins none.
std::size_t length_of(unsigned char first) noexcept {
    if (first < 0x80) return 1;
    if (first >= 0xc2 && first < 0xe0) return 2;
    if (first >= 0xe0 && first < 0xf0) return 3;
    return first >= 0xf0 && first < 0xf5 ? 4 : 0;
}

// The marks that come behind their letters: of the block Combining Diacritical Marks.
char32_t with_mark(char32_t letter, char32_t mark) {
    static const auto known = [] {
        constexpr std::pair<char32_t, Mark> marks[] = {
            {0x300, Mark::grave},  {0x301, Mark::acute},        {0x302, Mark::circumflex}, {0x303, Mark::tilde},
            {0x304, Mark::macron}, {0x306, Mark::breve},        {0x307, Mark::dot_above},  {0x308, Mark::diaeresis},
            {0x30a, Mark::ring},   {0x30b, Mark::double_acute}, {0x30c, Mark::caron},      {0x327, Mark::cedilla},
            {0x328, Mark::ogonek}};
        std::map<std::pair<char32_t, char32_t>, char32_t> all;
        for (const auto& [combining, of] : marks) {
            for (const auto& [character, base, mark_of] : composed_characters()) {
                if (mark_of != of) continue;
                all[{base, combining}] = character;
                if (base == U'ı') all[{U'i', combining}] = character;
            }
        }
        return all;
    }();
    const auto found = known.find({letter, mark});
    return found == known.end() ? 0 : found->second;
}

}  // namespace

std::vector<PlacedCharacter> characters_of(std::string_view words) {
    std::vector<PlacedCharacter> characters;
    characters.reserve(words.size());
    for (std::size_t at = 0; at < words.size();) {
        const auto first = static_cast<unsigned char>(words[at]);
        const auto length = length_of(first);
        if (length == 0) refuse(words, at);
        auto value = static_cast<char32_t>(length == 1 ? first : first & (0x7fU >> length));
        for (std::size_t i = 1; i < length; ++i) {
            if (at + i >= words.size()) refuse(words, at);
            const auto next = static_cast<unsigned char>(words[at + i]);
            if ((next & 0xc0U) != 0x80) refuse(words, at + i);
            value = value << 6U | (next & 0x3fU);
        }
        const auto is_too_long = (length == 3 && value < 0x800) || (length == 4 && value < 0x10000);
        const auto is_surrogate = value >= 0xd800 && value < 0xe000;
        if (is_too_long || is_surrogate || value > 0x10ffff) refuse(words, at);
        const auto whole =
            characters.empty() || value < 0x300 || value > 0x36f ? 0 : with_mark(characters.back().character, value);
        if (whole != 0) {
            characters.back().character = whole;
        } else {
            characters.push_back({.character = value, .at = at});
        }
        at += length;
    }
    return characters;
}

}  // namespace detail

std::string utf8(char32_t character) {
    const auto is_surrogate = character >= 0xd800 && character < 0xe000;
    if (character > 0x10ffff || is_surrogate) {
        throw Error{"utf8: the character is " + std::to_string(static_cast<std::uint32_t>(character)) +
                    "; allowed are 0 to 1114111 but for 55296 to 57343"};
    }
    std::string bytes;
    const auto add = [&](unsigned value) { bytes += static_cast<char>(value); };
    const auto rest = [&](unsigned shift) { add(0x80U | (character >> shift & 0x3fU)); };
    if (character < 0x80) {
        add(character);
    } else if (character < 0x800) {
        add(0xc0U | character >> 6U);
        rest(0);
    } else if (character < 0x10000) {
        add(0xe0U | character >> 12U);
        rest(6);
        rest(0);
    } else {
        add(0xf0U | character >> 18U);
        rest(12);
        rest(6);
        rest(0);
    }
    return bytes;
}

}  // namespace coldbrick::inline v0
