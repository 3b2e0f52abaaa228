// Small circles, ellipses and rounded boxes with smooth edges, in memory of their own.
#pragma once

#include "geometry/thresholds.hpp"
#include "raster/rounds/quarter_areas.hpp"

#include "coldbrick/detail/span_sink.hpp"

#include <array>
#include <cstddef>
#include <cstdint>
#include <span>

namespace coldbrick::inline v0::detail {

// The coverage of a small shape's rows in its upper half. Its right half is the left one mirrored, its lower half the
// upper one upside down.
class SmallRound {
  public:
    static constexpr int largest = thresholds::small_round;

    // In a box of up to that size, but for what lies within the inner rows, if they are not null.
    SmallRound(const Size& size, const QuarterRows& rows, const QuarterRows* inner) noexcept;

    // A row: columns begin to end - 1 are covered by bytes, and so are their mirror images; the columns between are
    // whole, by bytes as well if they are few, or the hole.
    struct Row {
        std::uint8_t begin;
        std::uint8_t end;
        bool is_split;  // whether they are kept apart,
        bool has_hole;  // and are the hole
        std::array<std::uint8_t, largest> bytes;
    };

    [[nodiscard]] const Size& size() const noexcept { return size_; }
    // The first row that is covered, and the first behind the upper half.
    [[nodiscard]] int top() const noexcept { return top_; }
    [[nodiscard]] int end() const noexcept { return (size_.height + 1) / 2; }
    [[nodiscard]] const Row& row(int row) const noexcept { return rows_[static_cast<std::size_t>(row)]; }

    // The box around what is covered, if the shape's box begins there.
    [[nodiscard]] Box covered(Point at) const noexcept {
        if (top_ == end()) return {};
        return {.at = {.x = at.x + left_, .y = at.y + top_},
                .size = {.width = size_.width - 2 * left_, .height = size_.height - 2 * top_}};
    }

  private:
    void set_row(const QuarterRows::Columns& columns, int row) noexcept;
    void set_row_with_hole(const QuarterRows::Columns& columns, const QuarterRows::Columns& hole, int row) noexcept;
    void mirror(Row& row, std::uint8_t* end) const noexcept;

    Size size_;
    int left_;
    int top_;
    std::array<Row, largest / 2> rows_;
};

// What lies between such edges, or within the outer one, if the inner one is null.
SmallRound small_round(const Size& size, const QuarterEdge& edge, const QuarterEdge* inner);

// The circle of a diameter up to this. It is computed once, and takes memory then: throws std::bad_alloc.
inline constexpr int largest_kept_circle = thresholds::small_circle;
const SmallRound& small_circle(int diameter);

// Such a shape at a place, as spans.
class SmallRoundSpans {
  public:
    SmallRoundSpans(const SmallRound& shape, Point at) noexcept;

    [[nodiscard]] std::span<const CoverSpan> all() const noexcept { return {spans_.data(), count_}; }

  private:
    std::size_t count_ = 0;
    std::array<CoverSpan, std::size_t{3} * SmallRound::largest> spans_;  // the first count_ are set
};

}  // namespace coldbrick::inline v0::detail
