#include "scene/tokens.hpp"

#include "scene/grammar.hpp"

#include <algorithm>
#include <optional>
#include <string>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

constexpr bool is_space(char c) noexcept { return c == ' ' || c == '\t' || c == '\v' || c == '\f' || c == '\r'; }

// Cuts one line into words.
class LineSplitter {
  public:
    LineSplitter(std::string_view line, int number, Faults& faults)
        : line_{line.substr(0, comment_in(line))}, number_{number}, faults_{faults} {}

    // Whether the statement goes on in the next line.
    bool split(Statement& statement) {
        auto text = line_;
        while (!text.empty() && is_space(text.back())) text.remove_suffix(1);
        const auto goes_on = text.ends_with('\\');
        if (goes_on) text.remove_suffix(1);
        line_ = text;
        while (skip_spaces()) statement.words.push_back(next_word());
        statement.sound = statement.sound && sound_;
        return goes_on;
    }

  private:
    // Where a comment begins: at the first // that is not between quotes.
    static std::size_t comment_in(std::string_view line) noexcept {
        auto in_quotes = false;
        for (std::size_t i = 0; i < line.size(); ++i) {
            if (line[i] == '\\' && in_quotes) {
                ++i;  // what follows is no quote
                continue;
            }
            if (line[i] == '"') in_quotes = !in_quotes;
            if (!in_quotes && line.substr(i, 2) == "//") return i;
        }
        return line.size();
    }

    bool skip_spaces() {
        while (at_ < line_.size() && is_space(line_[at_])) ++at_;
        return at_ < line_.size();
    }

    Word next_word() {
        const auto begin = at_;
        if (line_[at_] == '"') return next_quoted();
        std::vector<std::size_t> open;
        for (; at_ < line_.size() && (!open.empty() || !is_space(line_[at_])); ++at_) {
            if (line_[at_] == '"') {
                const auto end = end_of_quoted(line_, at_);
                if (end == std::string_view::npos) return next_quoted();  // which says so
                at_ = end - 1;
                continue;
            }
            if (line_[at_] == '(') open.push_back(at_);
            if (line_[at_] == ')' && !open.empty()) open.pop_back();
        }
        if (!open.empty()) {
            sound_ = false;
            faults_.add(word_from(open.back(), open.back() + 1), "this parenthesis is not closed",
                        "write the ')' on the same line");
        }
        return word_from(begin, at_);
    }

    // From one quote to the next that has no backslash before it; both belong to the word.
    Word next_quoted() {
        const auto begin = at_;
        const auto end = end_of_quoted(line_, begin);
        if (end == std::string_view::npos) {
            sound_ = false;
            faults_.add(word_from(begin, begin + 1), "this quote is not closed", "write the '\"' on the same line");
        }
        at_ = std::min(end, line_.size());
        return word_from(begin, at_);
    }

    // Words come from left to right, so that no character is counted again.
    [[nodiscard]] Word word_from(std::size_t begin, std::size_t end) {
        if (begin < counted_) {
            counted_ = 0;
            column_ = 1;
        }
        column_ += character_count(line_.substr(counted_, begin - counted_));
        counted_ = begin;
        return {.text = line_.substr(begin, end - begin), .place = {.line = number_, .column = column_}};
    }

    std::string_view line_;
    int number_;
    Faults& faults_;
    std::size_t at_ = 0;
    std::size_t counted_ = 0;  // how many bytes stand before the column
    int column_ = 1;
    bool sound_ = true;
};

}  // namespace

void Faults::remark(const Word& word, std::string what) {
    constexpr std::size_t most_kept = 1000;
    const auto is_same = [&](const Remark& before) {
        return before.place == word.place && before.what == what && before.file == file_;
    };
    if (remarks_.size() >= most_kept || std::any_of(remarks_.begin(), remarks_.end(), is_same)) return;
    remarks_.push_back({.place = word.place, .what = std::move(what), .file = std::string{file_}});
}

Word current_spelling(const Word& word, Faults& faults) {
    const auto now = new_spelling(word.text);
    if (now.empty()) return word;
    faults.remark(word, in_quotes(word.text) + " is an old spelling: write " + in_quotes(now));
    auto current = word;
    current.text = now;
    return current;
}

void Faults::add(const Word& word, std::string what, std::string advice) {
    constexpr std::size_t most_kept = 1000;
    if (++count_ > most_kept) return;
    faults_.push_back({.place = word.place,
                       .length = std::max(1, character_count(word.text)),
                       .what = std::move(what),
                       .advice = std::move(advice),
                       .way = way_ ? way_() : std::string{},
                       .file = std::string{file_}});
}

std::vector<Fault> Faults::sorted() && {
    std::stable_sort(faults_.begin(), faults_.end(), [](const Fault& a, const Fault& b) {
        if (a.file != b.file) return a.file < b.file;
        return a.place.line != b.place.line ? a.place.line < b.place.line : a.place.column < b.place.column;
    });
    return std::move(faults_);
}

int character_count(std::string_view text) noexcept {
    return static_cast<int>(std::count_if(text.begin(), text.end(), [](char c) {
        constexpr auto continuation = 0x80U;
        return (static_cast<unsigned char>(c) & 0xc0U) != continuation;
    }));
}

Word part_of(const Word& word, std::size_t begin, std::size_t end) {
    return {
        .text = word.text.substr(begin, end - begin),
        .place = {.line = word.place.line, .column = word.place.column + character_count(word.text.substr(0, begin))}};
}

std::size_t end_of_quoted(std::string_view text, std::size_t begin) noexcept {
    auto end = text.find_first_of("\"\\", begin + 1);
    while (end != std::string_view::npos && text[end] == '\\') end = text.find_first_of("\"\\", end + 2);
    return end == std::string_view::npos ? end : end + 1;
}

std::vector<Word> split_at_commas(const Word& word) {
    std::vector<Word> parts;
    std::size_t begin = 0;
    auto depth = 0;
    auto place = word.place;
    const auto add = [&](std::size_t end) {
        parts.push_back({.text = word.text.substr(begin, end - begin), .place = place});
        place.column += character_count(word.text.substr(std::min(begin, word.text.size()), end + 1 - begin));
        begin = end + 1;
    };
    for (std::size_t i = 0; i < word.text.size(); ++i) {
        if (word.text[i] == '"') {
            i = std::min(end_of_quoted(word.text, i), word.text.size()) - 1;
            continue;
        }
        if (word.text[i] == '(') ++depth;
        if (word.text[i] == ')') --depth;
        if (word.text[i] == ',' && depth <= 0) add(i);
    }
    add(word.text.size());
    return parts;
}

std::string in_quotes(std::string_view text) {
    constexpr std::size_t longest = 40;
    auto result = printable(text, longest);
    result.insert(result.begin(), '\'');
    result.push_back('\'');
    return result;
}

std::string in_words(const std::vector<std::string_view>& list, std::string_view last) {
    std::string result;
    for (std::size_t i = 0; i < list.size(); ++i) {
        if (i > 0 && i + 1 == list.size()) {
            result.append(" ").append(last).append(" ");
        } else if (i > 0) {
            result += ", ";
        }
        constexpr std::size_t longest = 40;
        result += printable(list[i], longest);
    }
    return result;
}

namespace {

// The next line of a text, without its end; the text goes on behind it.
std::string_view take_line(std::string_view& text) noexcept {
    const auto end = std::min(text.find('\n'), text.size());
    auto line = text.substr(0, end);
    if (line.ends_with('\r')) line.remove_suffix(1);
    text.remove_prefix(std::min(end + 1, text.size()));
    return line;
}

}  // namespace

std::string_view line_of(std::string_view text, int number) noexcept {
    auto line = std::string_view{};
    for (int i = 0; i < number; ++i) line = take_line(text);
    return line;
}

StatementReader::StatementReader(std::string_view text, Faults& faults) noexcept : rest_{text}, faults_{faults} {
    constexpr std::string_view byte_order_mark = "\xef\xbb\xbf";
    if (rest_.starts_with(byte_order_mark)) rest_.remove_prefix(byte_order_mark.size());
}

std::optional<Statement> StatementReader::next() {
    Statement statement;
    while (!rest_.empty()) {
        const auto line = take_line(rest_);
        const auto goes_on = LineSplitter{line, ++number_, faults_}.split(statement);
        if (!goes_on && !statement.words.empty()) return statement;
    }
    return statement.words.empty() ? std::nullopt : std::optional{std::move(statement)};
}

}  // namespace coldbrick::inline v0::detail
