// A straight edge, row by row: its hairline's pixels, or where it crosses the row.
#pragma once

#include "geometry/integers.hpp"
#include "raster/spans/convex_rows.hpp"

#include "coldbrick/geometry.hpp"

#include <algorithm>
#include <cstdint>

namespace coldbrick::inline v0::detail {

// An edge whose first point is not below its second, and of two in one row the left one.
struct PointEdge {
    Point upper;
    Point lower;

    static constexpr PointEdge between(Point a, Point b) noexcept {
        const auto in_order = a.y != b.y ? a.y < b.y : a.x <= b.x;
        return in_order ? PointEdge{a, b} : PointEdge{b, a};
    }

    [[nodiscard]] constexpr int left() const noexcept { return std::min(upper.x, lower.x); }
    [[nodiscard]] constexpr int right() const noexcept { return std::max(upper.x, lower.x); }
    [[nodiscard]] constexpr std::int64_t width() const noexcept { return std::int64_t{right()} - left(); }
    [[nodiscard]] constexpr std::int64_t height() const noexcept { return std::int64_t{lower.y} - upper.y; }
    [[nodiscard]] constexpr bool steep() const noexcept { return height() >= width(); }
};

// The hairline of an edge (rule 3): in each row from upper.y to lower.y a run of one pixel or more.
//
// With dx, dy and t = y - upper.y, a steep edge has in its row the pixel nearest to x(t) = dx*t / dy, of two the
// left: ceil(x(t) - 1/2) = floor((2*dx*t + dy - 1) / (2*dy)). In a flat edge, the k-th pixel from the upper end lies
// in row t if t - 1/2 < dy*k / |dx| <= t + 1/2, so the last one of the row is k = floor(|dx|*(2*t + 1) / (2*dy)) or
// the lower end.
//
// Steps is ExactSteps, or ShortSteps for edges up to short_extent.
template <class Steps>
class HairlineRows {
  public:
    // Starts in the given row of the edge.
    HairlineRows(const PointEdge& edge, int row) noexcept : end_{edge.lower.x}, kind_{kind_of(edge)} {
        const auto x = edge.upper.x;
        const auto dx = edge.width();
        const auto dy = edge.height();
        const auto t = std::int64_t{row} - edge.upper.y;
        const auto before = t == 0 ? 0 : static_cast<int>(floor_div(dx * (2 * t - 1), 2 * dy) + 1);
        switch (kind_) {
            case Kind::steep:
                steps_ = Steps{x, 2 * (edge.lower.x - std::int64_t{x}) * t + (dy - 1),
                               2 * (edge.lower.x - std::int64_t{x}), 2 * dy};
                break;
            case Kind::rightward:
                steps_ = dy == 0 ? Steps{end_, 0, 0, 1} : Steps{x, dx * (2 * t + 1), 2 * dx, 2 * dy};
                run_.right = x + before;
                break;
            case Kind::leftward:
                steps_ = Steps{x, (2 * dy - 1) - dx * (2 * t + 1), -2 * dx, 2 * dy};
                run_.left = x + 1 - before;
                break;
        }
        follow();
    }

    // The pixels in the row at hand.
    [[nodiscard]] const Run& run() const noexcept { return run_; }

    // On to the next row, which the edge has.
    void advance() noexcept {
        steps_.advance();
        follow();
    }

  private:
    enum class Kind : std::uint8_t { steep, rightward, leftward };

    static Kind kind_of(const PointEdge& edge) noexcept {
        if (edge.steep() && edge.height() > 0) return Kind::steep;
        return edge.lower.x < edge.upper.x ? Kind::leftward : Kind::rightward;
    }

    // The run of the row that the steps have come to, after that of the row before.
    void follow() noexcept {
        const auto x = steps_.value();
        if (kind_ == Kind::steep) {
            run_ = {.left = static_cast<int>(x), .right = static_cast<int>(x) + 1};
        } else if (kind_ == Kind::rightward) {
            run_ = {.left = run_.right, .right = static_cast<int>(std::min<std::int64_t>(x, end_)) + 1};
        } else {
            run_ = {.left = static_cast<int>(std::max<std::int64_t>(x, end_)), .right = run_.left};
        }
    }

    Steps steps_;
    Run run_{.left = 0, .right = 0};
    int end_;  // flat edges: the last pixel
    Kind kind_;
};

// Where an edge of height 1 or more crosses the rows from upper.y to lower.y - 1, rounded up to a pixel: as an empty
// run before the first pixel that is not left of the edge.
template <class Steps>
class CrossingRows {
  public:
    CrossingRows(const PointEdge& edge, int row) noexcept {
        const auto dx = std::int64_t{edge.lower.x} - edge.upper.x;
        const auto t = std::int64_t{row} - edge.upper.y;
        steps_ = Steps{edge.upper.x, dx * t + (edge.height() - 1), dx, edge.height()};
    }

    [[nodiscard]] Run run() const noexcept {
        const auto x = static_cast<int>(steps_.value());
        return {.left = x, .right = x};
    }

    void advance() noexcept { steps_.advance(); }

  private:
    Steps steps_;
};

}  // namespace coldbrick::inline v0::detail
