// Bytes to characters.
#pragma once

#include <cstddef>
#include <cstdint>
#include <string_view>
#include <vector>

namespace coldbrick::inline v0::detail {

// A character and its first byte.
struct PlacedCharacter {
    char32_t character;
    std::size_t at;
};

// Throws Error "text: ..." with the position of the first byte that is no UTF-8 (RFC 3629, section 4). A letter and a
// mark behind it that make a character of the built-in faces together become one.
[[nodiscard]] std::vector<PlacedCharacter> characters_of(std::string_view words);

}  // namespace coldbrick::inline v0::detail
