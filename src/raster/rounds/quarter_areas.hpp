// How much of each pixel lies inside a quarter of an upright ellipse, or of a curve that runs beside it.
#pragma once

#include "geometry/trigonometry.hpp"

#include "coldbrick/budget.hpp"
#include "coldbrick/geometry.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstddef>
#include <cstdint>
#include <vector>

namespace coldbrick::inline v0::detail {

// The upper left part of a shape's edge: straight up to the left end of a quarter of an ellipse, along that to its top,
// and straight on to the right. Of an ellipse it ends at its axes, of a rounded box at the box's. Places count from the
// upper left corner of a box of pixels.
struct QuarterEdge {
    Vec center;           // of the quarter
    Vec half_axes;        // 0 for a sharp corner
    double distance = 0;  // how far outside of the quarter the edge runs beside it, or inside if it is negative
};

// A pixel's area in the steps that areas are measured in: so many that a byte is the nearest one, but for a millionth.
inline constexpr auto area_bits = 20;
inline constexpr auto whole_area = std::int32_t{255} << area_bits;
constexpr std::uint8_t byte_of_area(std::int32_t area) noexcept {
    return static_cast<std::uint8_t>((area + (1 << (area_bits - 1))) >> area_bits);
}

// How much such a shape covers of the pixels in the left half of a box, row by row in the upper half. The box's right
// half and lower half are mirror images: a middle column or row, which an odd number of them has, is covered as much as
// its half is.
class QuarterRows {
  public:
    // Columns begin to end - 1 are covered by the areas, those from end on whole.
    struct Columns {
        int begin;
        int end;
        const std::int32_t* areas;

        [[nodiscard]] std::int32_t area_of(int column) const noexcept {
            if (column < begin) return 0;
            return column < end ? areas[column - begin] : whole_area;
        }
    };
    [[nodiscard]] Columns of_row(int row) const noexcept {
        row -= shift;
        if (row < top) return {.begin = columns, .end = columns, .areas = nullptr};
        if (row >= straight_from) {
            const auto begin = shift + left;
            return {.begin = begin, .end = begin + (straight < whole_area ? 1 : 0), .areas = &straight};
        }
        const auto& [column, count, area] = rows[row - first];
        return {.begin = shift + column, .end = shift + column + count, .areas = areas + area};
    }

    // Where a row's first area is, of which column, and how many there are.
    struct Row {
        int column;
        int count;
        int area;
    };
    const Row* rows;  // from the first that was asked for to where the edge goes straight up
    const std::int32_t* areas;
    int first;
    int top;  // of the shape
    int straight_from;
    int left;               // the first column where it is straight,
    std::int32_t straight;  // and how much of it is covered there
    int columns;            // of the left half of the box
    int shift = 0;          // how far into the box it begins, on both axes
};

// Memory for such rows: for intermediate numbers, and for what is kept.
struct QuarterRoom {
    double* numbers;
    QuarterRows::Row* rows;
    std::int32_t* areas;

    // How many of each are needed.
    static constexpr std::size_t most_areas(std::size_t columns, std::size_t rows) noexcept {
        return 2 * columns + rows + 8;
    }
    static constexpr std::size_t most_numbers(std::size_t columns, std::size_t rows) noexcept {
        return 13 * (columns + rows) + 192;
    }
};

// For boxes up to a size.
template <int largest>
struct SmallQuarterRoom {
    static constexpr std::size_t half = (largest + 1) / 2;
    std::array<QuarterRows::Row, half> rows;
    std::array<std::int32_t, QuarterRoom::most_areas(half, half)> areas;
};
template <int largest>
struct SmallQuarterNumbers {
    static constexpr std::size_t half = (largest + 1) / 2;
    alignas(32) std::array<double, QuarterRoom::most_numbers(half, half)> numbers;
};

// The part of a quarter that is asked for: rows and columns from the first to the end.
struct QuarterPart {
    int first_row;
    int end_row;
    int first_column;
    int end_column;

    static constexpr QuarterPart all_of(const Size& box) noexcept {
        return {.first_row = 0, .end_row = (box.height + 1) / 2, .first_column = 0, .end_column = (box.width + 1) / 2};
    }
};

// For others.
class LargeQuarterRoom {
  public:
    explicit LargeQuarterRoom(const QuarterPart& part)
        : numbers_(QuarterRoom::most_numbers(columns_of(part), rows_of(part))),
          rows_(rows_of(part)),
          areas_(QuarterRoom::most_areas(columns_of(part), rows_of(part))) {}
    [[nodiscard]] QuarterRoom room() noexcept {
        return {.numbers = numbers_.data(), .rows = rows_.data(), .areas = areas_.data()};
    }

  private:
    static std::size_t columns_of(const QuarterPart& part) noexcept {
        return static_cast<std::size_t>(std::max(part.end_column - part.first_column, 0)) + 1;
    }
    static std::size_t rows_of(const QuarterPart& part) noexcept {
        return static_cast<std::size_t>(std::max(part.end_row - part.first_row, 0));
    }

    CountedVector<double> numbers_;
    CountedVector<QuarterRows::Row> rows_;
    CountedVector<std::int32_t> areas_;
};

// Finds them for a part of a box: in its other columns they are not set. Places on the curve are found where it
// crosses the sides of pixels; what it leaves between two of them is the area of an arc, exact for ellipses.
QuarterRows find_quarter(const QuarterEdge& edge, const Size& box, const QuarterPart& part,
                         const QuarterRoom& room) noexcept;

}  // namespace coldbrick::inline v0::detail
