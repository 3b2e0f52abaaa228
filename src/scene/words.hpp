// A scene's text as statements of words, each with its place.
#pragma once

#include "coldbrick/scene.hpp"

#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

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

    // Something to be noticed that is no fault.
    void remark(const Word& word, std::string what);
    [[nodiscard]] std::vector<Remark> take_remarks() noexcept { return std::move(remarks_); }

    // In the order of their places.
    [[nodiscard]] std::vector<Fault> sorted() &&;
    [[nodiscard]] std::size_t count() const noexcept { return count_; }

    // Whether there are as many as are told: advice for further ones is not worth looking for.
    [[nodiscard]] bool is_enough() const noexcept { return count_ > static_cast<std::size_t>(max_faults); }

  private:
    std::vector<Fault> faults_;  // the first ones
    std::size_t count_ = 0;
    std::vector<Remark> remarks_;
};

// How many characters (code points) UTF-8 text has.
[[nodiscard]] int character_count(std::string_view text) noexcept;

// The part of a word from one byte to another.
[[nodiscard]] Word part_of(const Word& word, std::size_t begin, std::size_t end);

// The text between quotes for a message, shortened if long, control characters replaced.
[[nodiscard]] std::string in_quotes(std::string_view text);

// "a", "a and b", "a, b and c"; with "or" or another word for "and".
[[nodiscard]] std::string in_words(const std::vector<std::string_view>& list, std::string_view last);

// A line of a text by its number, from 1, without its end (LF or CRLF); empty behind the last one.
[[nodiscard]] std::string_view line_of(std::string_view text, int number) noexcept;

// Reads the statements one by one, without comments and empty lines. A statement goes on after a line that ends with a
// backslash.
class StatementReader {
  public:
    StatementReader(std::string_view text, Faults& faults) noexcept;

    // The next statement; nothing at the end.
    std::optional<Statement> next();

  private:
    std::string_view rest_;
    Faults& faults_;
    int number_ = 0;
};

}  // namespace coldbrick::inline v0::detail
