// coldbrick/table.hpp - tables: files of comma-separated values, as spreadsheets and databases write them.
//
//     const auto boats = read_table("boats.csv");
//     for (std::size_t row = 0; row < boats.rows.size(); ++row) {
//         const auto& name = boats.cell(row, "name");
//         use(name);
//     }
//
// The format is RFC 4180's: the first line names the columns; cells with commas, quotes or line ends stand between
// quotes, quotes in them are doubled; lines end with CRLF or LF. Empty lines are left out. Link coldbrick::scene.
#pragma once

#include "coldbrick/detail/public.hpp"

#include <cstddef>
#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

inline constexpr std::size_t max_table_columns = 65'536;

struct TableRow {
    int line = 0;                    // in the file, from 1: where it begins
    std::vector<std::string> cells;  // as many as there are columns
};

struct Table {
    std::string name;                  // as given; stands before places in messages
    std::vector<std::string> columns;  // their names, all different
    std::vector<TableRow> rows;

    // A cell by its row's number and its column's name. Throws Error if there is no such column.
    [[nodiscard]] const std::string& cell(std::size_t row, std::string_view column) const;
};

// Reads a table out of a text, or out of a file of at most so many bytes. Throws Error "name:line:column: ..." for what
// is no table: a quote that is not closed or stands inside a cell, a row with more or fewer cells than there are
// columns, a column without a name, two of one name, or more than max_table_columns; LimitError inside a budget.
[[nodiscard]] Table parse_table(std::string_view text, std::string_view name = "table");
[[nodiscard]] Table read_table(const std::string& path, std::uint64_t file_bytes = std::uint64_t{1} << 28U);

}  // namespace v0
}  // namespace coldbrick
