// How much of each pixel lies inside a quarter of an upright ellipse: exact areas, by formula.
#pragma once

#include "geometry/trigonometry.hpp"

#include "coldbrick/geometry.hpp"

#include <algorithm>
#include <cmath>
#include <cstddef>

namespace coldbrick::inline v0::detail {

// The upper left part of a shape's edge: straight up to the left end of a quarter of an ellipse, along that to its top,
// and straight on to the right. Of an ellipse it ends at its axes, of a rounded box at the box's. Places count from the
// upper left corner of a box of pixels.
struct QuarterEdge {
    Vec center;           // of the quarter
    Vec half_axes;        // 0 for a sharp corner
    double distance = 0;  // how far outside of the quarter the edge runs beside it, or inside if it is negative
};

// How much such a shape, with the edge on the quarter itself, covers of the pixels in the left half of a box, row by
// row in the upper half. The box's right half and lower half are mirror images: a middle column or row, which an odd
// number of them has, is covered as much as its half is.
class QuarterAreas {
  public:
    // Rows first to end - 1 are asked for. `room` is for needed(box, end - first) numbers, which are kept there.
    QuarterAreas(const QuarterEdge& edge, const Size& box, int first, int end, double* room) noexcept;

    static std::size_t needed(const Size& box, int rows) noexcept {
        return static_cast<std::size_t>((box.width + 1) / 2) + static_cast<std::size_t>(rows) + 2;
    }

    // Columns begin to end - 1 are covered in part, those from end on whole.
    struct Columns {
        int begin;
        int end;
    };
    [[nodiscard]] Columns of_row(int row) const noexcept {
        const auto band = band_of(row);
        if (band.bottom <= top_) return {.begin = columns_, .end = columns_};
        const auto begin = std::min(static_cast<int>(band.across_bottom), columns_);
        // Where the shape begins within the row, no column is covered whole.
        if (band.top < top_) return {.begin = begin, .end = columns_};
        const auto last = static_cast<int>(band.across_top);
        return {.begin = begin, .end = std::clamp(last + (band.across_top > last ? 1 : 0), begin, columns_)};
    }

    // Calls set(column, area) with how much of each of those is covered, from the left on.
    template <class Set>
    void for_each_area(int row, const Columns& columns, const Set& set) const noexcept {
        const auto band = band_of(row);
        const auto per_area = 1 / (band.bottom - band.top);
        for (auto column = columns.begin; column < columns.end; ++column) {
            const auto begin = double{1} * column;
            const auto end = std::min(begin + 1, middle_.x);
            const auto from = Place{std::max(begin, left_), heights_[column]};
            const auto to = Place{end, heights_[column + 1]};
            // The curve may turn straight within the column.
            const auto turns = center_.x > from.x && center_.x < end;
            const auto area = turns
                                  ? area_below(from, {center_.x, top_}, band) + area_below({center_.x, top_}, to, band)
                                  : area_below(from, to, band);
            set(column, end - begin == 1 ? area * per_area : 2 * area * per_area);
        }
    }

  private:
    // The part of a row that lies in the upper half.
    struct Band {
        double top;
        double bottom;
        double across_top;  // where the curve crosses its sides
        double across_bottom;
    };
    // A place on the curve.
    struct Place {
        double x;
        double y;
    };

    [[nodiscard]] Band band_of(int row) const noexcept {
        const auto* const across = &across_[row - first_];
        return {.top = double{1} * row,
                .bottom = std::min(double{1} * row + 1, middle_.y),
                .across_top = across[0],
                .across_bottom = across[1]};
    }

    // What of a band lies between two places, below the curve from one to the other.
    [[nodiscard]] double area_below(const Place& left, const Place& right, const Band& band) const noexcept {
        if (right.y >= band.bottom) return 0;
        if (left.y <= band.top) return (right.x - left.x) * (band.bottom - band.top);
        const auto from = left.y > band.bottom ? Place{band.across_bottom, band.bottom} : left;
        const auto to = right.y < band.top ? Place{band.across_top, band.top} : right;
        const auto across = to.x - from.x;
        return (right.x - to.x) * (band.bottom - band.top) + across * (band.bottom - (from.y + to.y) / 2) +
               area_beyond_chord(across, from.y - to.y);
    }

    // Between a chord and its arc. On the unit circle, a chord of length 2s cuts off asin(s) - s sqrt(1 - s^2), which
    // is a series in s for short ones.
    [[nodiscard]] double area_beyond_chord(double across, double down) const noexcept {
        const auto u = across * scale_.x;
        const auto v = down * scale_.y;
        const auto square = (u * u + v * v) / 4;
        const auto s = std::sqrt(square);
        constexpr auto is_short = 0.15;
        if (square > is_short) return axes_.x * axes_.y * (std::asin(std::min(s, 1.0)) - s * std::sqrt(1 - square));
        constexpr auto first = 2.0 / 3;
        constexpr auto second = 1.0 / 5;
        constexpr auto third = 3.0 / 28;
        constexpr auto fourth = 5.0 / 72;
        return axes_.x * axes_.y * square * s * (first + square * (second + square * (third + square * fourth)));
    }

    Vec center_;
    Vec axes_;
    Vec scale_;    // from places to the unit circle
    Vec middle_;   // of the box
    double left_;  // of the shape
    double top_;
    int first_;
    int columns_;
    double* heights_;  // of the edge at the left side of each column, and at the middle
    double* across_;   // and its place at the upper side of each row from the first one on, and at the end
};

}  // namespace coldbrick::inline v0::detail
