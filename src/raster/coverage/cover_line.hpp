// Lines between what is covered and what is not, in rows that they go through from top to bottom.
#pragma once

#include "raster/coverage/cover_row.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <type_traits>
#include <utility>

namespace coldbrick::inline v0::detail {

// What it leaves of pixels is told for as many columns in each row: one more than it goes over wherever it lies, on the
// covered side.
struct RowLine {
    double start;  // its left end in the first of the rows
    double slope;
    double width;      // from its left to its right end in a row
    double steepness;  // half of 1 / width
    int columns;
    bool is_left_side;
    // In the row at hand:
    double left = 0;
    std::int64_t begin = 0;

    [[nodiscard]] std::int64_t end() const noexcept { return begin + columns; }

    static constexpr auto most_columns = 512;

    // Comes to a row, so many behind the first one, of a window so wide. Places far outside of it are as good as some
    // just outside.
    void come_to(int row, int window_width) noexcept {
        constexpr auto outside = 2 * most_columns;
        left = start + row * slope;
        const auto end_of_line = is_left_side ? left : left + width;
        const auto near_end = std::clamp(end_of_line, double{-outside}, double{1} * window_width + outside);
        const auto column = static_cast<std::int64_t>(near_end + outside) - outside;
        begin = is_left_side ? column : column + 1 - columns;
    }
};

// Through a place at the top of the first row.
inline RowLine row_line(double x, double slope, bool is_left_side) noexcept {
    const auto width = std::fabs(slope);
    return {.start = x + std::min(slope, 0.0),
            .slope = slope,
            .width = width,
            .steepness = width > 0 ? 0.5 / width : 0,
            .columns = static_cast<int>(std::min(width, double{RowLine::most_columns})) + 2,
            .is_left_side = is_left_side};
}

// How much of so many columns lies on the covered side of a line.
template <class Count>
void set_bytes_along(const RowLine& line, Count columns, std::uint8_t* bytes) noexcept {
    const auto [width, steepness] = std::pair{line.width, line.steepness};
    const auto scale = line.is_left_side ? 255.0 : -255.0;
    const auto base = (line.is_left_side ? 0.0 : 255.0) + half_of_byte;
    auto reach = static_cast<double>(line.begin) - line.left;
    // What lies right of the line up to the end of a column.
    auto before = 0.0;
    for (int i = 0; i < columns; ++i) {
        reach += 1;
        const auto beyond_left = std::max(reach, 0.0);
        const auto over_line = std::min(beyond_left, width);
        const auto right_of_line = over_line * over_line * steepness + (beyond_left - over_line);
        bytes[i] = static_cast<std::uint8_t>(static_cast<int>(base + scale * (right_of_line - before)));
        before = right_of_line;
    }
}

// Of all its columns: steep lines have two.
inline void set_bytes_along(const RowLine& line, std::uint8_t* bytes) noexcept {
    if (line.columns == 2) return set_bytes_along(line, std::integral_constant<int, 2>{}, bytes);
    set_bytes_along(line, line.columns, bytes);
}

}  // namespace coldbrick::inline v0::detail
