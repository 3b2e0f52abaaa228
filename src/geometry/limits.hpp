// What a shape's numbers may be, and the errors for what they may not.
#pragma once

#include "coldbrick/angle.hpp"
#include "coldbrick/fill.hpp"
#include "coldbrick/geometry.hpp"

#include <initializer_list>
#include <span>
#include <string>
#include <string_view>

// The layers above the core use these too.
namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {
namespace detail {

constexpr bool is_coordinate(int value) noexcept { return value >= -max_coordinate && value <= max_coordinate; }

// Width times height.
constexpr std::uint64_t pixel_count(Size size) noexcept {
    return static_cast<std::uint64_t>(size.width) * static_cast<std::uint64_t>(size.height);
}

// A number as it is written: up to ten digits, without zeros at the end, the same in every language.
[[nodiscard]] std::string in_digits(double value);

// "<width> x <height>".
[[nodiscard]] std::string in_words(Size size);

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

// Throws Error "<what>: <field> is <number>, which is none; allowed are <names>" for a value of an enumeration that is
// none of its members, which have the numbers from 0 on.
[[noreturn]] void refuse_choice(std::string_view what, std::string_view field, int number,
                                std::span<const std::string_view> names);

[[noreturn]] inline void refuse_choice(std::string_view what, std::string_view field, int number,
                                       std::initializer_list<std::string_view> names) {
    refuse_choice(what, field, number, std::span{names.begin(), names.size()});
}

template <class Choice>
void check_choice(std::string_view what, std::string_view field, Choice choice,
                  std::span<const std::string_view> names) {
    const auto number = static_cast<int>(choice);
    if (number < 0 || number >= static_cast<int>(names.size())) refuse_choice(what, field, number, names);
}
template <class Choice>
void check_choice(std::string_view what, std::string_view field, Choice choice,
                  std::initializer_list<std::string_view> names) {
    check_choice(what, field, choice, std::span{names.begin(), names.size()});
}

[[noreturn]] void refuse_edge(std::string_view what, Edge edge);
[[noreturn]] void refuse_rule(std::string_view what, FillRule rule);
inline void check_edge(std::string_view what, Edge edge) {
    if (edge != Edge::crisp && edge != Edge::smooth) refuse_edge(what, edge);
}
inline void check_rule(std::string_view what, FillRule rule) {
    if (rule != FillRule::even_odd && rule != FillRule::nonzero) refuse_rule(what, rule);
}

// A box to be drawn has at least one pixel, and its corner pixels or its size are within max_coordinate.
void check_box(std::string_view shape, const Box& box);

}  // namespace detail
}  // namespace v0
}  // namespace coldbrick
