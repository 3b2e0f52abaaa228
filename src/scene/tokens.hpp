// A scene's text as statements of words, each with its place.
#pragma once

#include "coldbrick/scene.hpp"

#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

// A word, or a part of one, in a text that outlives it. Spaces occur only inside parentheses and quotes.
struct Word {
    std::string_view text;
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

    // Something to be noticed that is no fault; the same at one place is reported once, however often it happens.
    void remark(const Word& word, std::string what);
    [[nodiscard]] std::vector<Remark> take_remarks() noexcept { return std::move(remarks_); }

    // The file that words are in from here on: empty for the scene itself, else as an include names it.
    void set_file(std::string_view file) noexcept { file_ = file; }

    // What says, of a fault while the scene runs, through which loops and shapes it was met; empty outside of loops and
    // shapes.
    using Way = std::function<std::string()>;
    void set_way(Way way) { way_ = std::move(way); }

    // In the order of their places.
    [[nodiscard]] std::vector<Fault> sorted() &&;
    [[nodiscard]] std::size_t count() const noexcept { return count_; }

    // Whether as many as are reported are there: advice for further ones is not worth looking for.
    [[nodiscard]] bool is_enough() const noexcept { return count_ > static_cast<std::size_t>(max_faults); }

  private:
    std::vector<Fault> faults_;  // the first ones
    std::size_t count_ = 0;
    std::vector<Remark> remarks_;
    std::string_view file_;
    Way way_;
};

// A word as it is spelled now (grammar.hpp); reports a remark for one of the version before.
[[nodiscard]] Word current_spelling(const Word& word, Faults& faults);

// How many characters (code points) UTF-8 text has.
[[nodiscard]] int character_count(std::string_view text) noexcept;

// The part of a word from one byte to another.
[[nodiscard]] Word part_of(const Word& word, std::size_t begin, std::size_t end);

// The parts of a word between the commas that are in no parentheses and quotes.
[[nodiscard]] std::vector<Word> split_at_commas(const Word& word);

// Where the quoted text ends that begins with the quote at a place: behind its last quote; npos if it has no end.
[[nodiscard]] std::size_t end_of_quoted(std::string_view text, std::size_t begin) noexcept;

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

    // The next statement, whose words are parts of the text; nothing at the end.
    std::optional<Statement> next();

  private:
    std::string_view rest_;
    Faults& faults_;
    int number_ = 0;
};

}  // namespace coldbrick::inline v0::detail
