// Texts from outside in messages.
#include "coldbrick/error.hpp"

#include <string>

namespace coldbrick::inline v0 {

namespace {

constexpr unsigned byte_at(std::string_view text, std::size_t at) noexcept {
    return at < text.size() ? static_cast<unsigned char>(text[at]) : 0U;
}

// The bytes of the character at a place, by the table of well-formed UTF-8 (Unicode, section 3.9); 0 if it is none.
std::size_t character_bytes(std::string_view text, std::size_t at) noexcept {
    const auto lead = byte_at(text, at);
    if (lead < 0x80U) return 1;
    const auto count = lead >= 0xf0U ? 4U : lead >= 0xe0U ? 3U : 2U;
    if (lead < 0xc2U || lead > 0xf4U) return 0;
    for (std::size_t i = 1; i < count; ++i) {
        if ((byte_at(text, at + i) & 0xc0U) != 0x80U) return 0;
    }
    const auto second = byte_at(text, at + 1);
    const auto is_overlong = (lead == 0xe0U && second < 0xa0U) || (lead == 0xf0U && second < 0x90U);
    const auto is_beyond = (lead == 0xedU && second > 0x9fU) || (lead == 0xf4U && second > 0x8fU);
    return is_overlong || is_beyond ? 0 : count;
}

// Control characters (C0, DEL, C1), line and paragraph separators, and those that change the direction of writing.
bool is_control(std::string_view character) noexcept {
    const auto first = byte_at(character, 0);
    if (character.size() == 1) return first < 0x20U || first == 0x7fU;
    if (character.size() == 2) return first == 0xc2U && byte_at(character, 1) < 0xa0U;
    if (first != 0xe2U) return false;
    const auto [second, third] = std::pair{byte_at(character, 1), byte_at(character, 2)};
    return (second == 0x80U && third >= 0xa8U && third <= 0xaeU) ||
           (second == 0x81U && third >= 0xa6U && third <= 0xa9U);
}

void add_escape(std::string& shown, unsigned byte) {
    constexpr auto* digits = "0123456789abcdef";
    shown.append({'\\', 'x', digits[byte >> 4U], digits[byte & 15U]});
}

}  // namespace

std::string printable(std::string_view text, std::size_t longest) {
    std::string shown;
    for (std::size_t at = 0; at < text.size();) {
        const auto bytes = character_bytes(text, at);
        const auto character = text.substr(at, bytes > 0 ? bytes : 1);
        if (at + character.size() > longest) return shown + "...";
        if (bytes > 0 && !is_control(character)) {
            shown += character;
        } else {
            for (std::size_t i = 0; i < character.size(); ++i) add_escape(shown, byte_at(character, i));
        }
        at += character.size();
    }
    return shown;
}

}  // namespace coldbrick::inline v0
