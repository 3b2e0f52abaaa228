#include "geometry/limits.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/threads.hpp"

#include <algorithm>
#include <cmath>
#include <locale>
#include <sstream>
#include <string>
#include <thread>

namespace coldbrick::inline v0::detail {

std::string in_digits(double value) {
    std::ostringstream text;
    text.imbue(std::locale::classic());
    constexpr auto digits = 10;
    text.precision(digits);
    text << value;
    return text.str();
}

std::string in_words(Size size) { return std::to_string(size.width) + " x " + std::to_string(size.height); }

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

void refuse_choice(std::string_view what, std::string_view field, int number, std::span<const std::string_view> names) {
    std::string list;
    for (const auto name : names) {
        if (!list.empty()) list += name == *(names.end() - 1) ? " and " : ", ";
        list += name;
    }
    throw Error{std::string{what} + ": " + std::string{field} + " has the number " + std::to_string(number) +
                ", which is none of its values; allowed are " + list};
}

void refuse_anchor(int number) {
    refuse_choice("box", "anchor", number,
                  {"top_left", "top", "top_right", "left", "center", "right", "bottom_left", "bottom", "bottom_right"});
}

void refuse_edge(std::string_view what, Edge edge) {
    refuse_choice(what, "edge", static_cast<int>(edge), {"crisp", "smooth"});
}

void refuse_rule(std::string_view what, FillRule rule) {
    refuse_choice(what, "rule", static_cast<int>(rule), {"even_odd", "nonzero"});
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

unsigned allowed_threads(std::string_view what, int threads) {
    if (threads < 0 || threads > max_threads) refuse(what, "threads", threads, 0, max_threads);
    return threads > 0 ? static_cast<unsigned>(threads) : std::max(1U, std::thread::hardware_concurrency());
}

}  // namespace coldbrick::inline v0::detail
