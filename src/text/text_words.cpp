#include "text/text_words.hpp"

#include "text/face_source.hpp"
#include "text/unicode.hpp"

#include "coldbrick/budget.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <string_view>

namespace coldbrick::inline v0::detail {

namespace {

void add_faces(const Face& face, std::vector<Face>& to) {
    to.push_back(face);
    for (const auto& other : face.fallback()) add_faces(other, to);
}

// Which face each character is drawn by: the first that has it; marks and what joins letters go with these.
void choose_faces(TextWords& words) {
    words.faces.assign(words.letters.size(), 0);
    if (words.all_faces.size() == 1) return;
    std::uint8_t before = 0;
    for (std::size_t i = 0; i < words.letters.size(); ++i) {
        const auto letter = words.letters[i];
        const auto has = [&](std::size_t face) { return words.all_faces[face].source().has(letter); };
        auto& chosen = words.faces[i];
        if (is_invisible(letter) || letter == soft_hyphen || (i > 0 && is_mark(letter) && has(before))) {
            chosen = before;
            continue;
        }
        for (std::size_t face = 0; face < words.all_faces.size(); ++face) {
            if (!has(face)) continue;
            chosen = static_cast<std::uint8_t>(face);
            break;
        }
        before = chosen;
    }
}

// Of each character its script; what goes with any, as spaces and figures, is of the one before it, or else after it.
void find_scripts(TextWords& words) {
    words.scripts.assign(words.letters.size(), 0);
    const auto has_scripts = std::any_of(words.all_faces.begin(), words.all_faces.end(),
                                         [](const Face& face) { return face.source().has_scripts(); });
    if (!has_scripts) return;
    for (const auto& [begin, end, level] : words.paragraphs) {
        std::uint32_t script = 0;
        auto first = end;
        for (auto i = begin; i < end; ++i) {
            const auto own = script_of(words.letters[i]);
            if (own != 0) script = own;
            if (own != 0 && first == end) first = i;
            words.scripts[i] = script;
        }
        for (auto i = begin; i < first && first < end; ++i) words.scripts[i] = words.scripts[first];
    }
    for (std::size_t i = 0; i < words.letters.size(); ++i) {
        if (!words.all_faces[words.faces[i]].source().has_scripts()) words.scripts[i] = 0;
    }
}

// A letter with thousands of marks would take their square to shape.
void check_marks(const TextWords& words) {
    constexpr auto most = 1024;
    auto count = 0;
    for (std::size_t i = 0; i < words.letters.size(); ++i) {
        count = is_mark(words.letters[i]) ? count + 1 : 0;
        if (count <= most) continue;
        throw Error{"text: more than " + std::to_string(most) + " marks hang on one letter, up to byte " +
                    std::to_string(words.characters[i].at) + " of the words; that many are allowed"};
    }
}

void find_paragraphs(TextWords& words) {
    const auto& letters = words.letters;
    for (std::size_t begin = 0; begin <= letters.size();) {
        auto end = begin;
        while (end < letters.size() && !ends_line(letters[end])) ++end;
        // A line feed behind a carriage return.
        const auto shown = end > begin && letters[end - 1] == U'\r' ? end - 1 : end;
        words.paragraphs.push_back({.begin = begin, .end = shown, .level = 0});
        begin = end + 1;
    }
}

}  // namespace

std::vector<Face> all_faces(const Face& face) {
    std::vector<Face> all;
    add_faces(face, all);
    return all;
}

TextWords words_of(const Text& text) {
    TextWords words;
    words.characters = characters_of(text.words);
    constexpr std::size_t most_characters = 1 << 18;
    if (words.characters.size() > most_characters) {
        throw Error{"text: the words have " + std::to_string(words.characters.size()) + " characters; allowed are " +
                    std::to_string(most_characters)};
    }
    constexpr std::uint64_t steps_of_character = 16;
    spend_work(steps_of_character * words.characters.size());
    words.letters.reserve(words.characters.size());
    for (const auto& [character, at] : words.characters) {
        const auto is_break = text.along && (ends_line(character) || character == U'\r');
        words.letters += is_break ? U' ' : character;
    }
    words.all_faces = all_faces(text.face);
    find_paragraphs(words);
    const auto goes_right = [](char32_t letter) { return letter < first_leftward; };
    const auto is_uniform = words.all_faces.size() == 1 && !text.face.source().has_scripts() && !text.wrap &&
                            text.direction != TextDirection::right_to_left &&
                            std::all_of(words.letters.begin(), words.letters.end(), goes_right);
    if (is_uniform) return words;
    check_marks(words);
    choose_faces(words);
    words.levels.assign(words.letters.size(), 0);
    if (text.wrap && !text.along) words.begins_line.assign(words.letters.size(), false);
    for (auto& [begin, end, level] : words.paragraphs) {
        const auto of = std::u32string_view{words.letters}.substr(begin, end - begin);
        const auto levels = bidi_levels(of, text.direction);
        level = levels.paragraph;
        std::copy(levels.each.begin(), levels.each.end(), words.levels.begin() + static_cast<std::ptrdiff_t>(begin));
        if (words.begins_line.empty()) continue;
        const auto begins = line_begins(of);
        std::copy(begins.begin(), begins.end(), words.begins_line.begin() + static_cast<std::ptrdiff_t>(begin));
    }
    find_scripts(words);
    return words;
}

}  // namespace coldbrick::inline v0::detail
