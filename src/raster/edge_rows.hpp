// A straight edge, row by row: its hairline's pixels, or where it crosses the row.
#pragma once

#include "geometry/integers.hpp"
#include "raster/convex_rows.hpp"

#include "coldbrick/geometry.hpp"

#include <algorithm>
#include <cstdint>

namespace coldbrick::detail {

// An edge whose first point is not below its second, and of two in one row the left one.
struct Edge {
    Point upper;
    Point lower;

    static constexpr Edge between(Point a, Point b) noexcept {
        const auto in_order = a.y != b.y ? a.y < b.y : a.x <= b.x;
        return in_order ? Edge{a, b} : Edge{b, a};
    }

    [[nodiscard]] constexpr int left() const noexcept { return std::min(upper.x, lower.x); }
    [[nodiscard]] constexpr int right() const noexcept { return std::max(upper.x, lower.x); }
    [[nodiscard]] constexpr std::int64_t width() const noexcept { return std::int64_t{right()} - left(); }
    [[nodiscard]] constexpr std::int64_t height() const noexcept { return std::int64_t{lower.y} - upper.y; }
    [[nodiscard]] constexpr bool steep() const noexcept { return height() >= width(); }
};

// The hairline of an edge (rule 3): in each row from upper.y to lower.y a run of one pixel or more.
//
// With dx, dy and t = y - upper.y, a steep edge has in its row the pixel nearest to x(t) = dx*t / dy, of two
// the left: ceil(x(t) - 1/2) = floor((2*dx*t + dy - 1) / (2*dy)). In a flat edge, the k-th pixel from the
// upper end lies in row t if t - 1/2 < dy*k / |dx| <= t + 1/2, so that the run of row t ends before k =
// floor((2*|dx|*t + |dx|) / (2*dy)) + 1.
//
// Steps is ExactSteps, or ShortSteps for edges up to short_extent.
template <class Steps>
class HairlineRows {
  public:
    // Starts in the given row of the edge.
    HairlineRows(const Edge& edge, int row) noexcept
        : upper_x_{edge.upper.x},
          steep_{edge.steep() && edge.height() > 0},
          leftward_{edge.lower.x < edge.upper.x} {
        const auto dx = std::int64_t{edge.lower.x} - edge.upper.x;
        const auto dy = edge.height();
        const auto t = std::int64_t{row} - edge.upper.y;
        if (steep_) {
            steps_ = Steps{2 * dx * t + (dy - 1), 2 * dx, 2 * dy};
            return;
        }
        count_ = static_cast<Value>(edge.width() + 1);
        if (dy == 0) {
            steps_ = Steps{edge.width(), 0, 1};
            return;
        }
        begin_ = t == 0 ? 0 : static_cast<Value>(floor_div(edge.width() * (2 * t - 1), 2 * dy) + 1);
        steps_ = Steps{edge.width() * (2 * t + 1), 2 * edge.width(), 2 * dy};
    }

    // The pixels in the row at hand.
    [[nodiscard]] Run run() const noexcept {
        if (steep_) {
            const auto x = static_cast<int>(upper_x_ + steps_.value());
            return {.left = x, .right = x + 1};
        }
        const auto end = std::min<Value>(steps_.value() + 1, count_);
        if (leftward_) {
            return {.left = static_cast<int>(upper_x_ - end + 1),
                    .right = static_cast<int>(upper_x_ - begin_ + 1)};
        }
        return {.left = static_cast<int>(upper_x_ + begin_), .right = static_cast<int>(upper_x_ + end)};
    }

    // On to the next row, which the edge has.
    void advance() noexcept {
        begin_ = steps_.value() + 1;
        steps_.advance();
    }

  private:
    using Value = typename Steps::Value;

    Steps steps_;
    Value upper_x_;
    Value begin_ = 0;  // flat edges: the run's first pixel, counted from the upper end
    Value count_ = 0;  // flat edges: pixels in all
    bool steep_;
    bool leftward_;
};

// Where an edge of height 1 or more crosses the rows from upper.y to lower.y - 1, rounded up to a pixel: as
// an empty run before the first pixel that is not left of the edge.
template <class Steps>
class CrossingRows {
  public:
    CrossingRows(const Edge& edge, int row) noexcept : upper_x_{edge.upper.x} {
        const auto dx = std::int64_t{edge.lower.x} - edge.upper.x;
        const auto t = std::int64_t{row} - edge.upper.y;
        steps_ = Steps{dx * t + (edge.height() - 1), dx, edge.height()};
    }

    [[nodiscard]] Run run() const noexcept {
        const auto x = static_cast<int>(upper_x_ + steps_.value());
        return {.left = x, .right = x};
    }

    void advance() noexcept { steps_.advance(); }

  private:
    Steps steps_;
    typename Steps::Value upper_x_;
};

}  // namespace coldbrick::detail
