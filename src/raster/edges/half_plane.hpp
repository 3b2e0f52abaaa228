// What lies on one side of a straight line, and in the directions of a sweep, row by row.
#pragma once

#include "geometry/trigonometry.hpp"
#include "raster/spans/runs.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace coldbrick::inline v0::detail {

inline constexpr Run whole_row{.left = std::numeric_limits<int>::min(), .right = std::numeric_limits<int>::max()};

// The pixels p, relative to an origin, with dot(normal, p - through) >= 0: the line belongs to it.
class HalfPlane {
  public:
    HalfPlane(Point origin, Vec through, Vec normal) noexcept
        : origin_{origin}, through_{through}, normal_{normal}, slope_{normal.x != 0 ? -normal.y / normal.x : 0} {}

    [[nodiscard]] Run run(int y) const noexcept {
        const auto down = static_cast<double>(std::int64_t{y} - origin_.y) - through_.y;
        if (normal_.x == 0) return normal_.y * down >= 0 ? whole_row : Run{.left = 0, .right = 0};
        // A multiple of 45 degrees is exact: the slope is then 0, 1 or -1.
        const auto x = through_.x + down * slope_ + origin_.x;
        if (normal_.x > 0) return {.left = column(ceil_of(limited(x))), .right = whole_row.right};
        return {.left = whole_row.left, .right = column(floor_of(limited(x)) + 1)};
    }

  private:
    // Within what whole numbers hold; a line along the rows may cross them far out.
    static constexpr double limited(double x) noexcept { return std::clamp(x, -1e18, 1e18); }
    static constexpr int column(std::int64_t x) noexcept {
        return static_cast<int>(std::clamp<std::int64_t>(x, whole_row.left, whole_row.right));
    }

    Point origin_;
    Vec through_;
    Vec normal_;
    double slope_;
};

// A sweep that goes clockwise, by less than a full turn unless it is whole.
struct Turn {
    Angle from;
    double degrees = 0;
    bool is_whole = false;

    explicit Turn(const Sweep& sweep) noexcept
        : from{sweep.by.in_degrees() < 0 ? sweep.from + sweep.by : sweep.from},
          degrees{std::fabs(sweep.by.in_degrees())},
          is_whole{degrees >= 360} {}

    // The directions of its ends.
    [[nodiscard]] Vec begin() const noexcept { return direction_of(from); }
    [[nodiscard]] Vec end() const noexcept {
        // Both ends on their own, so that each is exact if it is a multiple of 45 degrees.
        return direction_of(from + Angle::degrees(degrees));
    }
};

// The pixels whose direction from a centre lies in a turn, ends included; the centre itself if it is a pixel.
class Wedge {
  public:
    Wedge(Point origin, Vec center, const Turn& turn) noexcept
        : begin_{origin, center, -left_of(turn.begin())},
          end_{origin, center, left_of(turn.end())},
          ahead_{origin, center, turn.begin()},
          kind_{turn.is_whole         ? Kind::whole
                : turn.degrees == 0   ? Kind::ray
                : turn.degrees <= 180 ? Kind::narrow
                                      : Kind::wide} {}

    // What of a row lies in the turn: one run or two, the left one first. The second may be empty.
    struct Row {
        Run first;
        Run second;

        // Calls emit(left, right) for the parts of a run that lie in it.
        template <class Emit>
        void cut(const Run& run, const Emit& emit) const {
            emit(std::max(run.left, first.left), std::min(run.right, first.right));
            if (second.left < second.right) emit(std::max(run.left, second.left), std::min(run.right, second.right));
        }
    };

    [[nodiscard]] Row row(int y) const noexcept {
        constexpr auto none = Run{.left = 0, .right = 0};
        if (kind_ == Kind::whole) return {.first = whole_row, .second = none};
        const auto from = begin_.run(y);
        const auto to = end_.run(y);
        if (kind_ == Kind::narrow) return {.first = both(from, to), .second = none};
        if (kind_ == Kind::ray) return {.first = both(both(from, to), ahead_.run(y)), .second = none};
        // Either of two half-rows, which may leave something out between them.
        const auto& [left, right] = from.left <= to.left ? std::pair{from, to} : std::pair{to, from};
        if (right.left > left.right) return {.first = left, .second = right};
        return {.first = {.left = left.left, .right = std::max(left.right, right.right)}, .second = none};
    }

  private:
    static constexpr Run both(const Run& a, const Run& b) noexcept {
        return {.left = std::max(a.left, b.left), .right = std::min(a.right, b.right)};
    }

    enum class Kind : std::uint8_t { whole, ray, narrow, wide };

    HalfPlane begin_;  // clockwise of the beginning, up to half a turn
    HalfPlane end_;    // counter-clockwise of the end
    HalfPlane ahead_;  // on the side of the beginning's direction
    Kind kind_;
};

}  // namespace coldbrick::inline v0::detail
