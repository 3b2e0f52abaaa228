// Words to letters in their places.
#pragma once

#include "text/face_source.hpp"
#include "text/rows.hpp"
#include "text/text_words.hpp"

#include "coldbrick/text.hpp"

namespace coldbrick::inline v0::detail {

struct PlacedLetter {
    std::uint8_t face;  // among all faces
    std::uint32_t glyph;
    std::size_t at;  // the byte of its first character
    LetterPlace place;
};

struct LaidText {
    std::vector<Face> all_faces;
    SizedFaces faces;                   // null where no letter is of it
    std::vector<PlacedLetter> letters;  // those that are drawn
    TextLayout layout;                  // but for its pixels
    // How many letters there are up to the end of each line; empty along a path.
    std::vector<std::size_t> line_ends;
};

// Whether the places of carets are asked for.
enum class Carets { none, all };

// Throws Error for what the text may not be.
[[nodiscard]] LaidText laid(const Text& text, Carets carets = Carets::none);

// Letters up to that height are drawn one by one, and kept.
inline constexpr double most_kept_height = 96;

// Of a text that follows a path: puts its glyphs, and the carets of its only line, in their places.
void lay_along(const TextPath& along, double slant, const TextWords& words, const Row& row,
               const std::vector<double>& carets, LaidText& text);

// Throws Error for letters of too many lines and curves together.
void check_steps(const Lettering& letters);

// Throws Error unless a number of a text is in its range.
void check_number(const char* field, double value, double least, double most);

}  // namespace coldbrick::inline v0::detail
