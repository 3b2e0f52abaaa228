#include "shapes/checks.hpp"

#include "coldbrick/error.hpp"

#include <cmath>
#include <string>

namespace coldbrick::inline v0::detail {

double checked_number(std::string_view shape, std::string_view field, double value, double least) {
    if (!(value >= least && value <= max_coordinate)) {
        auto text = std::isfinite(value) ? in_digits(value) : std::string{"no finite number"};
        throw Error{std::string{shape} + ": " + std::string{field} + " is " + text + "; allowed is " +
                    (least > 0 ? "1/256" : std::to_string(static_cast<int>(least))) + " to " +
                    std::to_string(max_coordinate)};
    }
    constexpr auto steps = 256.0;
    return std::floor(value * steps + 0.5) / steps;
}

Position checked_place(std::string_view shape, std::string_view field, Position at) {
    const auto name = std::string{field};
    return {.x = checked_number(shape, name + ".x", at.x, -max_coordinate),
            .y = checked_number(shape, name + ".y", at.y, -max_coordinate)};
}

BasicBox<double> checked_sides(std::string_view shape, const subpixel::Box& box) {
    constexpr auto least = 1.0 / 256;
    return {.at = checked_place(shape, "at", box.at),
            .size = {.width = checked_number(shape, "size.width", box.size.width, least),
                     .height = checked_number(shape, "size.height", box.size.height, least)}};
}

}  // namespace coldbrick::inline v0::detail
