#include "coldbrick/transform.hpp"

#include "geometry/trigonometry.hpp"

#include <cmath>

namespace coldbrick {

Transform Transform::turn(Angle angle) const noexcept {
    const auto [c, s] = detail::direction_of(angle);
    return then(Transform{{.xx = c, .xy = -s, .dx = 0, .yx = s, .yy = c, .dy = 0}});
}

double Angle::sine() const noexcept { return detail::direction_of(*this).y; }
double Angle::cosine() const noexcept { return detail::direction_of(*this).x; }

namespace {

// The angle, with as many turns added as make it 0 or more.
Angle ahead(Angle angle) noexcept {
    const auto degrees = angle.in_degrees();
    if (degrees >= 0) return angle;
    const auto rest = std::fmod(degrees, 360);
    return Angle::degrees(rest < 0 ? rest + 360 : 0);
}

}  // namespace

Sweep Sweep::clockwise(const Ends& ends) noexcept { return {.from = ends.from, .by = ahead(ends.to - ends.from)}; }
Sweep Sweep::counter_clockwise(const Ends& ends) noexcept {
    return {.from = ends.from, .by = -ahead(ends.from - ends.to)};
}

Position place_at(Position from, Angle direction, double distance) noexcept {
    const auto [x, y] = detail::direction_of(direction);
    return {.x = from.x + x * distance, .y = from.y + y * distance};
}

}  // namespace coldbrick
