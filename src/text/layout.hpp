// Words to letters in their places.
#pragma once

#include "text/face_source.hpp"
#include "text/utf8.hpp"

#include "coldbrick/text.hpp"

namespace coldbrick::inline v0::detail {

struct PlacedLetter {
    char32_t letter;
    LetterPlace place;
};

struct LaidText {
    std::unique_ptr<SizedFace> face;
    std::vector<PlacedLetter> letters;  // those that are drawn
    TextLayout layout;                  // but for its pixels
};

// Throws Error for what the text may not be.
[[nodiscard]] LaidText laid(const Text& text);

// Of a text that follows a path: puts its letters, and the carets of its only line, in their places.
void lay_along(const TextPath& along, double letter_spacing, double slant,
               const std::vector<PlacedCharacter>& characters, LaidText& text);

}  // namespace coldbrick::inline v0::detail
