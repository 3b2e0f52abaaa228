#include "geometry/limits.hpp"

#include "coldbrick/error.hpp"

#include <cmath>
#include <string>

namespace coldbrick::detail {

void refuse(std::string_view shape, std::string_view field, std::int64_t value, std::int64_t least, std::int64_t most) {
    throw Error{std::string{shape} + ": " + std::string{field} + " is " + std::to_string(value) + "; allowed is " +
                std::to_string(least) + " to " + std::to_string(most)};
}

void refuse_point(std::string_view shape, std::string_view field, Point point) {
    const auto name = std::string{field};
    if (!is_coordinate(point.x)) refuse(shape, name + ".x", point.x, -max_coordinate, max_coordinate);
    refuse(shape, name + ".y", point.y, -max_coordinate, max_coordinate);
}

void check_angle(std::string_view shape, std::string_view field, Angle angle) {
    if (std::isfinite(angle.in_degrees())) return;
    throw Error{std::string{shape} + ": " + std::string{field} + " is no finite number"};
}

void check_box(std::string_view shape, const Box& box) {
    check_point(shape, "at", box.at);
    const auto check_extent = [shape](std::string_view field, int at, int extent) {
        const auto last = std::int64_t{at} + extent - 1;
        if (extent < 1 || (extent > max_coordinate && last > max_coordinate)) {
            refuse(shape, field, extent, 1, max_coordinate);
        }
    };
    check_extent("size.width", box.at.x, box.size.width);
    check_extent("size.height", box.at.y, box.size.height);
}

}  // namespace coldbrick::detail
