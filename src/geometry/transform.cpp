#include "coldbrick/transform.hpp"

#include "geometry/trigonometry.hpp"

namespace coldbrick {

Transform Transform::turn(Angle angle) const noexcept {
    const auto [c, s] = detail::direction_of(angle);
    return then(Transform{{.xx = c, .xy = -s, .dx = 0, .yx = s, .yy = c, .dy = 0}});
}

double Angle::sine() const noexcept { return detail::direction_of(*this).y; }
double Angle::cosine() const noexcept { return detail::direction_of(*this).x; }

Position place_at(Position from, Angle direction, double distance) noexcept {
    const auto [x, y] = detail::direction_of(direction);
    return {.x = from.x + x * distance, .y = from.y + y * distance};
}

}  // namespace coldbrick
