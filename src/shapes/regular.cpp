// Regular polygons and stars.
#include "geometry/limits.hpp"
#include "geometry/trigonometry.hpp"

#include "coldbrick/budget.hpp"
#include "coldbrick/error.hpp"
#include "coldbrick/shapes.hpp"

#include <cmath>
#include <string>

namespace coldbrick::inline v0 {

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
double usual_inner_radius(double radius, int points) noexcept {
    if (points < 5) return radius / 2;
    const auto half_step = Angle::degrees(180.0 / points);
    return radius * detail::direction_of(half_step * 2).x / detail::direction_of(half_step).x;
}

// The same for places that need not be pixels.
void check_form(std::string_view shape, Position center, double radius, int points, int least_points, Angle turned) {
    const auto is_within = [](double value) { return value >= -max_coordinate && value <= max_coordinate; };
    if (!is_within(center.x) || !is_within(center.y) || !is_within(radius) || radius < 0) {
        throw Error{std::string{shape} + ": center is " + std::to_string(center.x) + "," + std::to_string(center.y) +
                    " and radius " + std::to_string(radius) + "; allowed are places up to " +
                    std::to_string(max_coordinate) + " and a radius from 0 on"};
    }
    check_form(shape, Point{}, 0, points, least_points, turned);
}

Position exact_place(Position center, double distance, double part, Angle turned) {
    const auto direction = detail::direction_of(Angle::degrees(part * 360 - 90) + turned);
    return {.x = center.x + direction.x * distance, .y = center.y + direction.y * distance};
}

}  // namespace

Polygon regular_polygon(const RegularPolygon& form) {
    constexpr auto shape = "regular polygon";
    check_form(shape, form.center, form.radius, form.points, 3, form.turned);
    std::vector<Point> ring;
    ring.reserve(static_cast<std::size_t>(form.points));
    for (int i = 0; i < form.points; ++i) {
        detail::spend_work(8);
        ring.push_back(place_at(shape, form.center, form.radius, double{1} * i / form.points, form.turned));
    }
    return Polygon{std::move(ring)};
}

Polygon star(const Star& form) {
    check_form("star", form.center, form.radius, form.points, 2, form.turned);
    if (form.inner_radius && (*form.inner_radius < 0 || *form.inner_radius > form.radius)) {
        detail::refuse("star", "inner_radius", *form.inner_radius, 0, form.radius);
    }
    const auto inner = form.inner_radius ? *form.inner_radius : usual_inner_radius(form.radius, form.points);
    std::vector<Point> ring;
    ring.reserve(2 * static_cast<std::size_t>(form.points));
    for (int i = 0; i < 2 * form.points; ++i) {
        detail::spend_work(8);
        const auto part = double{0.5} * i / form.points;
        ring.push_back(place_at("star", form.center, i % 2 == 0 ? form.radius : inner, part, form.turned));
    }
    return Polygon{std::move(ring)};
}

subpixel::Polygon subpixel::regular_polygon(const RegularPolygon& form) {
    check_form("regular polygon", form.center, form.radius, form.points, 3, form.turned);
    std::vector<Position> ring;
    ring.reserve(static_cast<std::size_t>(form.points));
    for (int i = 0; i < form.points; ++i) {
        detail::spend_work(8);
        ring.push_back(exact_place(form.center, form.radius, double{1} * i / form.points, form.turned));
    }
    return Polygon{std::move(ring)};
}

subpixel::Polygon subpixel::star(const Star& form) {
    check_form("star", form.center, form.radius, form.points, 2, form.turned);
    const auto inner = form.inner_radius.value_or(usual_inner_radius(form.radius, form.points));
    if (!(inner >= 0 && inner <= form.radius)) {
        throw Error{"star: inner_radius is " + std::to_string(inner) + "; allowed is 0 to " +
                    std::to_string(form.radius)};
    }
    std::vector<Position> ring;
    ring.reserve(2 * static_cast<std::size_t>(form.points));
    for (int i = 0; i < 2 * form.points; ++i) {
        detail::spend_work(8);
        ring.push_back(
            exact_place(form.center, i % 2 == 0 ? form.radius : inner, double{0.5} * i / form.points, form.turned));
    }
    return Polygon{std::move(ring)};
}

}  // namespace coldbrick::inline v0
