// What lies on one side of a straight line, and in the directions of a sweep, row by row.
#pragma once

#include "geometry/trigonometry.hpp"
#include "raster/runs.hpp"

#include <cmath>
#include <limits>

namespace coldbrick::detail {

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
        if (normal_.x > 0) return {.left = column(std::ceil(x)), .right = whole_row.right};
        return {.left = whole_row.left, .right = column(std::floor(x) + 1)};
    }

  private:
    static int column(double x) noexcept {
        return static_cast<int>(
            std::clamp(x, static_cast<double>(whole_row.left), static_cast<double>(whole_row.right)));
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

    [[nodiscard]] Runs runs(int y) const noexcept {
        if (kind_ == Kind::whole) return Runs{whole_row};
        const auto after_begin = Runs{begin_.run(y)};
        const auto before_end = Runs{end_.run(y)};
        if (kind_ == Kind::wide) return after_begin | before_end;
        const auto both = after_begin & before_end;
        return kind_ == Kind::ray ? both & Runs{ahead_.run(y)} : both;
    }

  private:
    enum class Kind : std::uint8_t { whole, ray, narrow, wide };

    HalfPlane begin_;  // clockwise of the beginning, up to half a turn
    HalfPlane end_;    // counter-clockwise of the end
    HalfPlane ahead_;  // on the side of the beginning's direction
    Kind kind_;
};

}  // namespace coldbrick::detail
