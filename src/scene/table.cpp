// Comma-separated values, RFC 4180.
#include "coldbrick/table.hpp"

#include "files/readers.hpp"

#include "coldbrick/budget.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>

namespace coldbrick::inline v0 {

namespace {

class TableReader {
  public:
    TableReader(std::string_view text, std::string_view name) : text_{text}, name_{name} {
        constexpr std::string_view byte_order_mark = "\xef\xbb\xbf";
        if (text_.starts_with(byte_order_mark)) text_.remove_prefix(byte_order_mark.size());
    }

    Table read() {
        Table table{.name = std::string{name_}, .columns = {}, .rows = {}};
        auto is_head = true;
        while (at_ < text_.size()) {
            const auto line = line_;
            const auto begin = at_;
            auto row = read_row(is_head ? max_table_columns : table.columns.size());
            if (row.size() == 1 && row[0].empty() && text_[begin] != '"') continue;
            if (is_head) {
                if (cells_ > max_table_columns) {
                    refuse(line, 1,
                           "the table has " + std::to_string(cells_) + " columns; allowed are " +
                               std::to_string(max_table_columns));
                }
                table.columns = std::move(row);
                check_columns(table.columns, line);
            } else if (cells_ != table.columns.size()) {
                refuse(line, 1,
                       "this row has " + std::to_string(cells_) + " cells, and the table " +
                           std::to_string(table.columns.size()) + " columns");
            } else {
                table.rows.push_back({.line = line, .cells = std::move(row)});
            }
            is_head = false;
        }
        if (is_head) refuse(1, 1, "the table is empty; its first line names the columns");
        return table;
    }

  private:
    [[noreturn]] void refuse(int line, int column, const std::string& what) const {
        throw Error{printable(name_) + ":" + std::to_string(line) + ":" + std::to_string(column) + ": " + what};
    }

    void check_columns(std::vector<std::string>& columns, int line) const {
        for (auto& column : columns) {
            while (column.ends_with(' ')) column.pop_back();
            column.erase(0, std::min(column.find_first_not_of(' '), column.size()));
        }
        for (std::size_t i = 0; i < columns.size(); ++i) {
            if (columns[i].empty()) refuse(line, 1, "column " + std::to_string(i + 1) + " has no name");
        }
        auto sorted = columns;
        std::sort(sorted.begin(), sorted.end());
        const auto twice = std::adjacent_find(sorted.begin(), sorted.end());
        if (twice != sorted.end()) refuse(line, 1, "there are two columns '" + printable(*twice) + "'");
    }

    [[nodiscard]] int column() const noexcept {
        return static_cast<int>(std::min<std::size_t>(at_ - line_begin_, 1U << 30U)) + 1;
    }

    // Whether a line ends here.
    [[nodiscard]] bool at_line_end() const noexcept {
        return at_ == text_.size() || text_[at_] == '\n' || text_.substr(at_, 2) == "\r\n";
    }

    void next_line() noexcept {
        if (at_ < text_.size() && text_[at_] == '\r') ++at_;
        if (at_ < text_.size()) ++at_;
        ++line_;
        line_begin_ = at_;
    }

    // Of more cells than these, the others are counted and not kept.
    std::vector<std::string> read_row(std::size_t most) {
        std::vector<std::string> cells;
        constexpr std::size_t many = 1024;
        cells.reserve(std::min(most, many));
        for (cells_ = 1;; ++cells_) {
            auto cell = at_ < text_.size() && text_[at_] == '"' ? read_quoted() : read_plain();
            detail::spend_work(4);
            if (cells_ <= most) {
                memory_.add(sizeof cell + cell.size());
                cells.push_back(std::move(cell));
            }
            if (at_line_end()) break;
            ++at_;  // the comma
        }
        next_line();
        return cells;
    }

    std::string read_plain() {
        const auto begin = at_;
        while (!at_line_end() && text_[at_] != ',') {
            if (text_[at_] == '"')
                refuse(line_, column(),
                       "a quote inside of a cell; put the cell between quotes, and double those in it");
            ++at_;
        }
        return std::string{text_.substr(begin, at_ - begin)};
    }

    std::string read_quoted() {
        const auto line = line_;
        const auto at_column = column();
        std::string cell;
        ++at_;
        while (true) {
            if (at_ == text_.size()) refuse(line, at_column, "this quote is not closed");
            const auto next = text_[at_++];
            if (next == '"') {
                if (at_ == text_.size() || text_[at_] != '"') break;
                ++at_;
            }
            cell += next;
            if (next == '\n') {
                ++line_;
                line_begin_ = at_;
            }
        }
        if (!at_line_end() && text_[at_] != ',') {
            refuse(line_, column(), "behind the quote that ends a cell there is neither a comma nor the line's end");
        }
        return cell;
    }

    std::string_view text_;
    std::string_view name_;
    std::size_t at_ = 0;
    std::size_t line_begin_ = 0;
    std::size_t cells_ = 0;  // of the last row
    int line_ = 1;
    detail::MemoryHold memory_;
};

}  // namespace

const std::string& Table::cell(std::size_t row, std::string_view column) const {
    const auto found = std::find(columns.begin(), columns.end(), column);
    if (found == columns.end()) throw Error{printable(name) + ": there is no column '" + printable(column) + "'"};
    return rows.at(row).cells[static_cast<std::size_t>(found - columns.begin())];
}

Table parse_table(std::string_view text, std::string_view name) { return TableReader{text, name}.read(); }

Table read_table(const std::string& path, std::uint64_t file_bytes) {
    return parse_table(detail::read_text_file(path, file_bytes), path);
}

}  // namespace coldbrick::inline v0
