// What a shape's numbers may be, and the errors for what they may not.
#pragma once

#include "coldbrick/angle.hpp"
#include "coldbrick/geometry.hpp"

#include <string_view>

namespace coldbrick::detail {

constexpr bool is_coordinate(int value) noexcept { return value >= -max_coordinate && value <= max_coordinate; }

// Width times height.
constexpr std::uint64_t pixel_count(Size size) noexcept {
    return static_cast<std::uint64_t>(size.width) * static_cast<std::uint64_t>(size.height);
}

// Throws Error "<shape>: <field> is <value>; allowed is <least> to <most>".
[[noreturn]] void refuse(std::string_view shape, std::string_view field, std::int64_t value, std::int64_t least,
                         std::int64_t most);

// Throws the Error for a point of which a coordinate is beyond max_coordinate.
[[noreturn]] void refuse_point(std::string_view shape, std::string_view field, Point point);

inline void check_point(std::string_view shape, std::string_view field, Point point) {
    if (!is_coordinate(point.x) || !is_coordinate(point.y)) refuse_point(shape, field, point);
}

inline void check_radius(std::string_view shape, std::string_view field, int radius) {
    if (radius < 0 || radius > max_coordinate) refuse(shape, field, radius, 0, max_coordinate);
}

// Throws Error for an angle that is no finite number.
void check_angle(std::string_view shape, std::string_view field, Angle angle);

// A box to be drawn has at least one pixel, and its corner pixels or its size are within max_coordinate.
void check_box(std::string_view shape, const Box& box);

}  // namespace coldbrick::detail
