// The words of a text, and what is known of each of their characters before it is known how large they are.
#pragma once

#include "text/utf8.hpp"

#include "coldbrick/text.hpp"

#include <cstdint>
#include <string>
#include <vector>

namespace coldbrick::inline v0::detail {

struct TextWords {
    // What a line break by force ends.
    struct Paragraph {
        std::size_t begin;
        std::size_t end;
        std::uint8_t level;
    };

    std::vector<PlacedCharacter> characters;
    // Of each character; the three after the first are empty where all is of one face, that knows no scripts, and goes
    // to the right.
    std::u32string letters;
    std::vector<std::uint8_t> levels;    // how deep its direction is
    std::vector<std::uint8_t> faces;     // which face it is drawn by
    std::vector<std::uint32_t> scripts;  // tags
    std::vector<bool> begins_line;       // whether a line may begin with it; empty for texts that are not wrapped

    std::vector<Paragraph> paragraphs;
    std::vector<Face> all_faces;  // the text's own, and those to fall back on

    [[nodiscard]] bool is_uniform() const noexcept { return levels.empty(); }

    // The byte where a character begins.
    [[nodiscard]] std::size_t byte(std::size_t i, const Text& text) const noexcept {
        return i < characters.size() ? characters[i].at : text.words.size();
    }
};

// Throws Error for words that are no UTF-8, or too many. Of a text along a path, line breaks are spaces.
[[nodiscard]] TextWords words_of(const Text& text);

// A face and those to fall back on, and those that they fall back on.
[[nodiscard]] std::vector<Face> all_faces(const Face& face);

}  // namespace coldbrick::inline v0::detail
