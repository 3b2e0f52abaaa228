#include "coldbrick/transform.hpp"

#include "geometry/trigonometry.hpp"

#include <cmath>

namespace coldbrick::inline v0 {

Transform Transform::fitting(const Extent& extent, const Box& box) noexcept {
    const auto x = box.size.width / (extent.right - extent.left);
    const auto y = box.size.height / (extent.bottom - extent.top);
    return Transform{{.xx = x,
                      .xy = 0,
                      .dx = box.at.x - 0.5 - x * extent.left,
                      .yx = 0,
                      .yy = y,
                      .dy = box.at.y - 0.5 - y * extent.top}};
}

Transform Transform::then(const Transform& next) const noexcept {
    const auto& [xx, xy, dx, yx, yy, dy] = rows_;
    const auto& n = next.rows_;
    return Transform{{.xx = n.xx * xx + n.xy * yx,
                      .xy = n.xx * xy + n.xy * yy,
                      .dx = n.xx * dx + n.xy * dy + n.dx,
                      .yx = n.yx * xx + n.yy * yx,
                      .yy = n.yx * xy + n.yy * yy,
                      .dy = n.yx * dx + n.yy * dy + n.dy}};
}

Transform Transform::move(Position by) const noexcept {
    return then(Transform{{.xx = 1, .xy = 0, .dx = by.x, .yx = 0, .yy = 1, .dy = by.y}});
}

Transform Transform::scale(Position by) const noexcept {
    return then(Transform{{.xx = by.x, .xy = 0, .dx = 0, .yx = 0, .yy = by.y, .dy = 0}});
}

Transform Transform::turn(Angle angle) const noexcept {
    const auto [c, s] = detail::direction_of(angle);
    return then(Transform{{.xx = c, .xy = -s, .dx = 0, .yx = s, .yy = c, .dy = 0}});
}

Transform Transform::shear(Position by) const noexcept {
    return then(Transform{{.xx = 1, .xy = by.x, .dx = 0, .yx = by.y, .yy = 1, .dy = 0}});
}

Transform Transform::scale(double by) const noexcept { return scale({by, by}); }

Transform Transform::turn_about(Position place, Angle angle) const noexcept {
    return move(-place).turn(angle).move(place);
}

Transform Transform::scale_about(Position place, Position by) const noexcept {
    return move(-place).scale(by).move(place);
}

Transform Transform::inverse() const noexcept {
    const auto& [xx, xy, dx, yx, yy, dy] = rows_;
    const auto area = xx * yy - xy * yx;
    return Transform{{.xx = yy / area,
                      .xy = -xy / area,
                      .dx = (xy * dy - yy * dx) / area,
                      .yx = -yx / area,
                      .yy = xx / area,
                      .dy = (yx * dx - xx * dy) / area}};
}

Position Transform::operator()(Position at) const noexcept {
    return {.x = rows_.xx * at.x + rows_.xy * at.y + rows_.dx, .y = rows_.yx * at.x + rows_.yy * at.y + rows_.dy};
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

}  // namespace coldbrick::inline v0
