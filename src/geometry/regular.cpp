// Regular polygons and stars.
#include "geometry/limits.hpp"
#include "geometry/trigonometry.hpp"

#include "coldbrick/shapes.hpp"

namespace coldbrick {

namespace {

constexpr int most_points = 1'000'000;

void check_form(std::string_view shape, Point center, int radius, int points, int least_points, Angle turned) {
    detail::check_point(shape, "center", center);
    detail::check_radius(shape, "radius", radius);
    if (points < least_points || points > most_points) {
        detail::refuse(shape, "points", points, least_points, most_points);
    }
    detail::check_angle(shape, "turned", turned);
}

// The pixel nearest to the place at a distance from the centre, in the direction that lies a part of a turn clockwise
// of straight up. The same distances left and right of the centre give the same columns.
Point place_at(std::string_view shape, Point center, double distance, double part, Angle turned) {
    const auto direction = detail::direction_of(Angle::degrees(part * 360 - 90) + turned);
    const auto nearest = [](double value) {
        // Halves, and what comes to them but for the last bits, go away from the centre.
        constexpr auto half = 0.5 + 1e-9;
        return static_cast<std::int64_t>(value + (value < 0 ? -half : half));
    };
    const auto x = center.x + nearest(direction.x * distance);
    const auto y = center.y + nearest(direction.y * distance);
    for (const auto value : {x, y}) {
        if (std::abs(value) > max_coordinate) {
            detail::refuse(shape, "a vertex", value, -max_coordinate, max_coordinate);
        }
    }
    return {.x = static_cast<int>(x), .y = static_cast<int>(y)};
}

// How far from the centre the lines from each point to the next but one cross.
double usual_inner_radius(const Star& form) noexcept {
    if (form.points < 5) return form.radius / 2.0;
    const auto half_step = Angle::degrees(180.0 / form.points);
    return form.radius * detail::direction_of(half_step * 2).x / detail::direction_of(half_step).x;
}

}  // namespace

Polygon regular_polygon(const RegularPolygon& form) {
    constexpr auto shape = "regular polygon";
    check_form(shape, form.center, form.radius, form.points, 3, form.turned);
    Ring ring;
    ring.reserve(static_cast<std::size_t>(form.points));
    for (int i = 0; i < form.points; ++i) {
        ring.push_back(place_at(shape, form.center, form.radius, double{1} * i / form.points, form.turned));
    }
    return Polygon{std::move(ring)};
}

Polygon star(const Star& form) {
    check_form("star", form.center, form.radius, form.points, 2, form.turned);
    if (form.inner_radius && (*form.inner_radius < 0 || *form.inner_radius > form.radius)) {
        detail::refuse("star", "inner_radius", *form.inner_radius, 0, form.radius);
    }
    const auto inner = form.inner_radius ? *form.inner_radius : usual_inner_radius(form);
    Ring ring;
    ring.reserve(2 * static_cast<std::size_t>(form.points));
    for (int i = 0; i < 2 * form.points; ++i) {
        const auto part = double{0.5} * i / form.points;
        ring.push_back(place_at("star", form.center, i % 2 == 0 ? form.radius : inner, part, form.turned));
    }
    return Polygon{std::move(ring)};
}

}  // namespace coldbrick
