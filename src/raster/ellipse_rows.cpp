#include "raster/ellipse_rows.hpp"

#include "geometry/limits.hpp"
#include "raster/shape_scans.hpp"

namespace coldbrick {

namespace {

// 2 * radius + 1 pixels around a centre; within int, as both are at most max_coordinate.
constexpr Box box_around(Point center, Radii radii) noexcept {
    return {.at = {.x = center.x - radii.x, .y = center.y - radii.y},
            .size = {.width = 2 * radii.x + 1, .height = 2 * radii.y + 1}};
}

}  // namespace

Ellipse Ellipse::around(const Around& place) {
    detail::check_point("ellipse", "center", place.center);
    detail::check_radius("ellipse", "radii.x", place.radii.x);
    detail::check_radius("ellipse", "radii.y", place.radii.y);
    return Ellipse{box_around(place.center, place.radii)}.turned(place.turned);
}

Ellipse Ellipse::within(const Box& box) {
    detail::check_box("ellipse", box);
    return Ellipse{box};
}

Ellipse::Ellipse(const Circle& circle) : box_{detail::checked_box(circle)} {}

Ellipse Ellipse::turned(Angle angle) const {
    detail::check_angle("ellipse", "turned", angle);
    auto result = *this;
    result.turn_ = angle;
    return result;
}

namespace detail {

Box checked_box(const Circle& circle) {
    check_point("circle", "center", circle.center);
    check_radius("circle", "radius", circle.radius);
    return box_around(circle.center, {.x = circle.radius, .y = circle.radius});
}

Box scan_ellipse(const Box& box, const Box& clip, const SpanReceiver& receiver) {
    return with_ellipse_rows(box, [&](const auto& rows) { return scan_inside(rows, clip, receiver); });
}

Box scan_fill(const Circle& shape, const Box& clip, const SpanReceiver& receiver) {
    return scan_ellipse(checked_box(shape), clip, receiver);
}

}  // namespace detail

}  // namespace coldbrick
