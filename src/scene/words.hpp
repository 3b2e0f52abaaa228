// A scene's text as statements of words, each with its place.
#pragma once

#include "coldbrick/scene.hpp"

#include <string>
#include <string_view>
#include <vector>

namespace coldbrick::detail {

// A word, or a part of one. Spaces occur only inside parentheses and quotes.
struct Word {
    std::string text;
    Place place;
};

struct Statement {
    std::vector<Word> words;
    bool sound = true;  // no fault in it so far
};

// Gathers what is wrong with a scene.
class Faults {
  public:
    // Something about a whole word, or about a part of it.
    void add(const Word& word, std::string what, std::string advice = {});

    // In the order of their places.
    [[nodiscard]] std::vector<Fault> sorted() &&;
    [[nodiscard]] std::size_t count() const noexcept { return faults_.size(); }

  private:
    std::vector<Fault> faults_;
};

// How many characters (code points) UTF-8 text has.
[[nodiscard]] int character_count(std::string_view text) noexcept;

// The part of a word from one byte to another.
[[nodiscard]] Word part_of(const Word& word, std::size_t begin, std::size_t end);

// The text between quotes for a message, shortened if long, control characters replaced.
[[nodiscard]] std::string in_quotes(std::string_view text);

// "a", "a and b", "a, b and c"; with "or" or another word for "and".
[[nodiscard]] std::string in_words(const std::vector<std::string_view>& list, std::string_view last);

// The lines of a text, without their ends (LF or CRLF).
[[nodiscard]] std::vector<std::string_view> lines_of(std::string_view text);

// The statements, without comments and empty lines. A statement goes on after a line that ends with a backslash.
[[nodiscard]] std::vector<Statement> split_statements(std::string_view text, Faults& faults);

}  // namespace coldbrick::detail
