// coldbrick/angle.hpp - angles that say their unit, and sweeps that say their direction.
//
//     90_deg      0.25_turn      1.5707963_rad                                // the same angle
//     Sweep{.from = 197_deg, .by = 46_deg}                                    // from there, so far
//     Sweep::clockwise({.from = 197_deg, .to = 243_deg})                      // the same: from there to there
//     Sweep::counter_clockwise({.from = 243_deg, .to = 197_deg})              // the same the other way round
//
// 0 is east (+x), and angles grow clockwise on the screen: 90 degrees is south, 180 west, 270 north
// (docs/pixel-rules.md, "The grid"). They may be negative and over a full turn.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/geometry.hpp"

#include <numbers>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// An angle. Kept in degrees, so that quarter and eighth turns are exact.
class Angle {
  public:
    constexpr Angle() noexcept = default;
    [[nodiscard]] static constexpr Angle degrees(double value) noexcept { return Angle{value}; }
    [[nodiscard]] static constexpr Angle turns(double value) noexcept { return Angle{value * 360}; }
    [[nodiscard]] static constexpr Angle radians(double value) noexcept {
        return Angle{value * (180 / std::numbers::pi)};
    }

    [[nodiscard]] constexpr double in_degrees() const noexcept { return degrees_; }
    [[nodiscard]] constexpr double in_turns() const noexcept { return degrees_ / 360; }
    [[nodiscard]] constexpr double in_radians() const noexcept { return degrees_ * (std::numbers::pi / 180); }

    // The same to the last bit on every machine; exact for multiples of 90 degrees. Of no finite number, none.
    [[nodiscard]] double sine() const noexcept;
    [[nodiscard]] double cosine() const noexcept;

    friend constexpr Angle operator+(Angle a, Angle b) noexcept { return Angle{a.degrees_ + b.degrees_}; }
    friend constexpr Angle operator-(Angle a, Angle b) noexcept { return Angle{a.degrees_ - b.degrees_}; }
    friend constexpr Angle operator-(Angle a) noexcept { return Angle{-a.degrees_}; }
    friend constexpr Angle operator*(Angle a, double factor) noexcept { return Angle{a.degrees_ * factor}; }
    friend constexpr Angle operator*(double factor, Angle a) noexcept { return Angle{a.degrees_ * factor}; }
    friend constexpr Angle operator/(Angle a, double parts) noexcept { return Angle{a.degrees_ / parts}; }
    // How often one goes into the other.
    friend constexpr double operator/(Angle a, Angle b) noexcept { return a.degrees_ / b.degrees_; }
    friend constexpr bool operator==(const Angle&, const Angle&) noexcept = default;
    friend constexpr bool operator<(Angle a, Angle b) noexcept { return a.degrees_ < b.degrees_; }

  private:
    explicit constexpr Angle(double value) noexcept : degrees_{value} {}
    double degrees_ = 0;
};

constexpr Angle operator""_deg(long double value) noexcept { return Angle::degrees(static_cast<double>(value)); }
constexpr Angle operator""_deg(unsigned long long value) noexcept { return Angle::degrees(static_cast<double>(value)); }
constexpr Angle operator""_turn(long double value) noexcept { return Angle::turns(static_cast<double>(value)); }
constexpr Angle operator""_turn(unsigned long long value) noexcept { return Angle::turns(static_cast<double>(value)); }
constexpr Angle operator""_rad(long double value) noexcept { return Angle::radians(static_cast<double>(value)); }
constexpr Angle operator""_rad(unsigned long long value) noexcept { return Angle::radians(static_cast<double>(value)); }

// The place at a distance from another, in the direction of an angle.
[[nodiscard]] Position place_at(Position from, Angle direction, double distance) noexcept;

// A part of a turn: from a direction on, clockwise by a positive angle, counter-clockwise by a negative one. Both ends
// belong to it. A full turn or more, in either direction, is all directions.
struct Sweep {
    Angle from;
    Angle by;

    struct Ends {
        Angle from;
        Angle to;
    };

    // From one direction to the other as the clock goes, or against it. Where `to` lies behind `from` it is reached
    // in the next turn: clockwise from 350 to 10 degrees are 20 degrees, from 10 to 350 are 340, from 0 to 360 a full
    // turn, and from 90 to 90 none.
    static Sweep clockwise(const Ends& ends) noexcept;
    static Sweep counter_clockwise(const Ends& ends) noexcept;

    friend bool operator==(const Sweep&, const Sweep&) = default;
};

}  // namespace v0
}  // namespace coldbrick
