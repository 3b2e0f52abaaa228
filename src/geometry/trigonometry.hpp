// Directions of angles, the same to the last bit everywhere: by basic operations, which IEEE 754 defines exactly.
#pragma once

#include "coldbrick/angle.hpp"

#include <cmath>
#include <cstdint>

// The layers above the core use these too.
namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {
namespace detail {

// A vector, or a place relative to another, in pixels.
struct Vec {
    double x = 0;
    double y = 0;
    friend constexpr bool operator==(const Vec&, const Vec&) = default;
    friend constexpr Vec operator+(Vec a, Vec b) noexcept { return {a.x + b.x, a.y + b.y}; }
    friend constexpr Vec operator-(Vec a, Vec b) noexcept { return {a.x - b.x, a.y - b.y}; }
    friend constexpr Vec operator-(Vec a) noexcept { return {-a.x, -a.y}; }
    friend constexpr Vec operator*(Vec a, double factor) noexcept { return {a.x * factor, a.y * factor}; }
};

constexpr double dot(Vec a, Vec b) noexcept { return a.x * b.x + a.y * b.y; }

// Above 0 where b is clockwise of a.
constexpr double cross(Vec a, Vec b) noexcept { return a.x * b.y - a.y * b.x; }

// A quarter turn counter-clockwise: from a direction to its left side.
constexpr Vec left_of(Vec a) noexcept { return {a.y, -a.x}; }

// The next whole number below or equal, and above or equal, of a number within 2^62.
constexpr std::int64_t floor_of(double value) noexcept {
    const auto whole = static_cast<std::int64_t>(value);
    return whole - (value < static_cast<double>(whole) ? 1 : 0);
}
constexpr std::int64_t ceil_of(double value) noexcept { return -floor_of(-value); }

inline double length(Vec a) noexcept { return std::sqrt(dot(a, a)); }

// The direction of a vector that is not 0.
inline Vec unit(Vec a) noexcept { return a * (1 / length(a)); }

// The cosine and sine of an angle; exact for multiples of 90 degrees, and of equal size for odd multiples of 45.
Vec direction_of(Angle angle) noexcept;

// The direction that a vector has, in (-180, 180] degrees; of 0, 0 that is 0. The error is below 1e-13 degrees.
Angle angle_of(Vec vector) noexcept;

// The vector turned clockwise by the angle of which that is the direction.
constexpr Vec turned(Vec a, Vec direction) noexcept {
    return {a.x * direction.x - a.y * direction.y, a.x * direction.y + a.y * direction.x};
}

}  // namespace detail
}  // namespace v0
}  // namespace coldbrick
