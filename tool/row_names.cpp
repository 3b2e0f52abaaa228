#include "row_names.hpp"

#include "commands.hpp"

#include <algorithm>
#include <charconv>
#include <functional>
#include <map>
#include <string_view>

#include <fmt/core.h>
#include <fmt/format.h>

namespace coldbrick::tool {

namespace {

// The text with what stands in braces filled in: {name}, and {name:03} for a number with three digits at least. Throws
// Error for a name that fill() does not know.
template <class Fill>
std::string filled_in(std::string_view text, const Fill& fill) {
    std::string result;
    while (true) {
        const auto open = text.find('{');
        result += text.substr(0, open);
        if (open == std::string_view::npos) return result;
        const auto close = text.find('}', open);
        if (close == std::string_view::npos) throw WrongCall{"-o: a brace is not closed"};
        result += fill(text.substr(open + 1, close - open - 1));
        text.remove_prefix(close + 1);
    }
}

class RowNames {
  public:
    RowNames(const Table& table, const std::vector<OutsideValue>& set, const std::string& pattern)
        : table_{table}, set_{set}, pattern_{pattern} {}

    std::vector<std::string> all() {
        std::map<std::string, int, std::less<>> lines;
        for (std::size_t row = 0; row < table_.rows.size(); ++row) {
            const auto line = table_.rows[row].line;
            names_.push_back(name_of_row(row));
            const auto [known, is_new] = lines.emplace(names_.back(), line);
            if (is_new) continue;
            throw Error{fmt::format("{}:{}: this row's file would be {}, as that of line {}; nothing is written",
                                    printable(table_.name), line, printable(names_.back()), known->second)};
        }
        for (const auto& [name, line] : lines) check_frames(name, line, lines);
        return std::move(names_);
    }

  private:
    // Frame 11 of "a" and frame 1 of "a1" would be one file.
    void check_frames(std::string_view name, int line, const std::map<std::string, int, std::less<>>& lines) const {
        const auto brace = name.find('{');
        if (brace == std::string_view::npos) return;
        const auto rest = name.substr(brace);
        for (auto digits = brace; digits > 0 && name[digits - 1] >= '0' && name[digits - 1] <= '9'; --digits) {
            const auto shorter = lines.find(fmt::format("{}{}", name.substr(0, digits - 1), rest));
            if (shorter == lines.end()) continue;
            throw Error{
                fmt::format("{}:{}: files of this row's frames, {}, could have the names of those of line {}, {}; "
                            "put something between the row's part and the frame's; nothing is written",
                            printable(table_.name), line, printable(name), shorter->second, printable(shorter->first))};
        }
    }

    [[nodiscard]] std::string name_of_row(std::size_t row) const {
        const auto line = table_.rows[row].line;
        auto name = filled_in(pattern_, [&](std::string_view word) {
            if (word.starts_with("frame")) return fmt::format("{{{}}}", word);  // one file for each of its frames
            const auto colon = std::min(word.find(':'), word.size());
            const auto column = word.substr(0, colon);
            const auto is_number = column == "row" && std::find(table_.columns.begin(), table_.columns.end(), "row") ==
                                                          table_.columns.end();
            auto value = is_number ? std::to_string(row + 1) : cell_of(row, column);
            if (colon < word.size()) value = padded(value, word.substr(colon + 1));
            check_name(value, line, column);
            return value;
        });
        return name;
    }

    std::string cell_of(std::size_t row, std::string_view column) const {
        for (const auto& value : set_) {
            if (value.name == column) return value.value;
        }
        const auto found = std::find(table_.columns.begin(), table_.columns.end(), column);
        if (found == table_.columns.end()) {
            throw WrongCall{fmt::format("-o has {{{}}}, and {} no such column; it has {}", printable(column),
                                        printable(table_.name), columns_in_words())};
        }
        return table_.rows[row].cells[static_cast<std::size_t>(found - table_.columns.begin())];
    }

    [[nodiscard]] std::string columns_in_words() const {
        std::string words;
        constexpr std::size_t most = 1000;
        for (const auto& column : table_.columns) {
            if (words.size() > most) return words + ", ...";
            words += (words.empty() ? "" : ", ") + printable(column, 40);
        }
        return words;
    }

    static std::string padded(std::string value, std::string_view form) {
        auto width = std::size_t{0};
        const auto [end, error] = std::from_chars(form.data(), form.data() + form.size(), width);
        constexpr std::size_t most = 99;
        if (!form.starts_with('0') || error != std::errc{} || end != form.data() + form.size() || width > most) {
            throw WrongCall{fmt::format("-o has :{} in braces; allowed is as in {{row:03}}", printable(form))};
        }
        if (value.size() < width) value.insert(0, width - value.size(), '0');
        return value;
    }

    // A cell cannot lead elsewhere.
    void check_name(const std::string& value, int line, std::string_view column) const {
        using namespace std::string_view_literals;
        // Braces would stand for the numbers of frames.
        const auto is_bad =
            value.empty() || value == "." || value == ".." || value.find_first_of("/{}\0"sv) != std::string::npos;
        if (!is_bad) return;
        throw Error{fmt::format("{}:{}: '{}' (column {}) cannot be part of a file's name; nothing is written",
                                printable(table_.name), line, printable(value), printable(column))};
    }

    const Table& table_;
    const std::vector<OutsideValue>& set_;
    const std::string& pattern_;
    std::vector<std::string> names_;
};

}  // namespace

std::vector<std::string> names_of_rows(const Table& table, const std::vector<OutsideValue>& set,
                                       const std::string& pattern) {
    return RowNames{table, set, pattern}.all();
}

}  // namespace coldbrick::tool
