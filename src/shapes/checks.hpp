// The numbers of shapes as they are drawn: whole ones, and others rounded to 1/256. All throw Error "<shape>: <field>
// is <value>; allowed is ..." for what may not be.
#pragma once

#include "geometry/limits.hpp"
#include "geometry/trigonometry.hpp"

#include "coldbrick/shapes.hpp"

#include <cmath>
#include <string_view>

namespace coldbrick::inline v0::detail {

// A coordinate, from -max_coordinate on; a length, from `least` on.
[[nodiscard]] double checked_number(std::string_view shape, std::string_view field, double value, double least);

[[nodiscard]] Position checked_place(std::string_view shape, std::string_view field, Position at);
[[nodiscard]] inline Position checked_place(std::string_view shape, std::string_view field, Point at) {
    check_point(shape, field, at);
    return at;
}

[[nodiscard]] inline double checked_length(std::string_view shape, std::string_view field, double value) {
    return checked_number(shape, field, value, 0);
}
[[nodiscard]] inline double checked_length(std::string_view shape, std::string_view field, int value) {
    check_radius(shape, field, value);
    return value;
}

// The sides of a box.
[[nodiscard]] inline BasicBox<double> checked_sides(std::string_view shape, const Box& box) {
    check_box(shape, box);
    return {.at = box.at, .size = {.width = double{1} * box.size.width, .height = double{1} * box.size.height}};
}
[[nodiscard]] BasicBox<double> checked_sides(std::string_view shape, const subpixel::Box& box);

inline void check_sweep(std::string_view shape, const Sweep& sweep) {
    check_angle(shape, "sweep.from", sweep.from);
    check_angle(shape, "sweep.by", sweep.by);
}

// Whole pixels to start from, and a place relative to them.
[[nodiscard]] inline Point origin_at(Position at) noexcept {
    return {.x = static_cast<int>(std::floor(at.x)), .y = static_cast<int>(std::floor(at.y))};
}
[[nodiscard]] inline Vec from_origin(Position at, Point origin) noexcept { return {at.x - origin.x, at.y - origin.y}; }

}  // namespace coldbrick::inline v0::detail
