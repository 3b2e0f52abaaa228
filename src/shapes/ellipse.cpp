// Circles and ellipses.
#include "raster/lowering/geometries.hpp"
#include "raster/rounds/round_cover.hpp"
#include "raster/rows/ellipse_rows.hpp"
#include "shapes/checks.hpp"
#include "shapes/closed_strokes.hpp"
#include "shapes/round_shapes.hpp"
#include "shapes/shape_scans.hpp"

#include <optional>

namespace coldbrick::inline v0 {

namespace {

using detail::checked_length;
using detail::checked_place;

// 2 * radius + 1 pixels around a centre; within int, as both are at most max_coordinate.
Box box_around(Point center, Radii radii) noexcept {
    return {.at = {.x = center.x - radii.x, .y = center.y - radii.y},
            .size = {.width = 2 * radii.x + 1, .height = 2 * radii.y + 1}};
}
subpixel::Box box_around(Position center, Position radii) noexcept {
    return {.at = center - radii, .size = {.width = 2 * radii.x + 1, .height = 2 * radii.y + 1}};
}

// The box around a circle, which is checked.
Box box_of(const Circle& circle) {
    (void)checked_place("circle", "center", circle.center);
    (void)checked_length("circle", "radius", circle.radius);
    return box_around(circle.center, Radii{circle.radius, circle.radius});
}
subpixel::Box box_of(const subpixel::Circle& circle) {
    const auto radius = checked_length("circle", "radius", circle.radius);
    return box_around(checked_place("circle", "center", circle.center), Position{radius, radius});
}

}  // namespace

template <class Number>
BasicEllipse<Number> BasicEllipse<Number>::around(const Around& place) {
    const auto center = checked_place("ellipse", "center", place.center);
    const auto x = checked_length("ellipse", "radii.x", place.radii.x);
    const auto y = checked_length("ellipse", "radii.y", place.radii.y);
    if constexpr (std::is_same_v<Number, int>) {
        return BasicEllipse{box_around(place.center, place.radii)}.turned(place.turned);
    } else {
        return BasicEllipse{box_around(center, Position{x, y})}.turned(place.turned);
    }
}

template <class Number>
BasicEllipse<Number> BasicEllipse<Number>::within(const BasicBox<Number>& box) {
    const auto sides = detail::checked_sides("ellipse", box);
    if constexpr (std::is_same_v<Number, int>) return BasicEllipse{box};
    if constexpr (std::is_same_v<Number, double>) return BasicEllipse{sides};
}

template <class Number>
BasicEllipse<Number>::BasicEllipse(const BasicCircle<Number>& circle) : box_{coldbrick::box_of(circle)} {}

template <class Number>
BasicEllipse<Number> BasicEllipse<Number>::turned(Angle angle) const {
    detail::check_angle("ellipse", "turned", angle);
    auto result = *this;
    result.turn_ = angle;
    return result;
}

template class BasicEllipse<int>;
template class BasicEllipse<double>;

namespace detail {

EllipseGeometry ellipse_form(const Ellipse& shape) noexcept { return EllipseGeometry{whole_of(shape)}; }

EllipseGeometry ellipse_form(const subpixel::Ellipse& shape) noexcept {
    const auto& [at, size] = shape.box();
    const auto half = Position{(size.width - 1) / 2, (size.height - 1) / 2};
    const auto center = at + half;
    const auto origin = origin_at(center);
    return {origin, from_origin(center, origin), {half.x + 0.5, half.y + 0.5}, shape.turn()};
}

template <class Number>
Geometry geometry_of(const BasicEllipse<Number>& shape, const Tolerance&) {
    return ellipse_form(shape);
}
template Geometry geometry_of(const BasicEllipse<int>&, const Tolerance&);
template Geometry geometry_of(const BasicEllipse<double>&, const Tolerance&);

template <class Number>
Geometry geometry_of(const BasicCircle<Number>& shape, const Tolerance&) {
    return ellipse_form(BasicEllipse<Number>{shape});
}
template Geometry geometry_of(const BasicCircle<int>&, const Tolerance&);
template Geometry geometry_of(const BasicCircle<double>&, const Tolerance&);

namespace {

struct EllipseRowTable {
    WholeEllipse ellipse;

    void operator()(int distance, Join, const Window& rows, RunTable& table) const {
        tabulate(ellipse, distance, rows, table);
    }
};

bool is_turned(const Ellipse& shape) noexcept {
    return shape.box().size.width != shape.box().size.height && shape.turn() != Angle{};
}

Box scan_round_hairline(const Box& box, const Box& clip, const SpanSink& sink) {
    return with_ellipse_rows(box, [&](const auto& rows) { return scan_outline(rows, clip, sink); });
}

}  // namespace

Box scan_fill(const Circle& shape, const Box& clip, const SpanSink& sink) {
    const auto box = coldbrick::box_of(shape);
    return clip.empty() ? Box{} : scan_ellipse(box, clip, sink);
}

Box scan_fill(const Ellipse& shape, const Box& clip, const SpanSink& sink) {
    if (shape.turn() == Angle{}) return scan_ellipse(shape.box(), clip, sink);
    TableMemory memory;
    RunTable fill{&memory};
    tabulate(whole_of(shape), 0, window_of(clip), fill);
    return scan_inside(fill, clip, sink);
}

Box scan_stroke(const Circle& shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    const auto box = coldbrick::box_of(shape);
    check_stroke(how);
    if (is_hairline(how)) return scan_round_hairline(box, clip, sink);
    return scan_closed(EllipseRowTable{{.box = box}}, Ellipse{shape}, how, clip, sink);
}

Box scan_stroke(const Ellipse& shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    check_stroke(how);
    if (is_hairline(how) && shape.turn() == Angle{}) return scan_round_hairline(shape.box(), clip, sink);
    return scan_closed(EllipseRowTable{whole_of(shape)}, shape, how, clip, sink);
}

std::optional<RoundPart> round_part(const Circle& shape) {
    const auto half = shape.radius + 0.5;
    return RoundPart{.box = coldbrick::box_of(shape), .corner = {half, half}};
}
std::optional<RoundPart> round_part(const Ellipse& shape) {
    const auto& box = shape.box();
    if (is_turned(shape)) return std::nullopt;
    return RoundPart{.box = box, .corner = {box.size.width / 2.0, box.size.height / 2.0}};
}

std::optional<Box> fill_bounds(const Circle& shape) { return coldbrick::box_of(shape); }
std::optional<Box> fill_bounds(const Ellipse& shape) {
    return is_turned(shape) ? std::nullopt : std::optional{shape.box()};
}

std::optional<Box> stroke_bounds(const Circle& shape, const Stroke& how) {
    return band_box(coldbrick::box_of(shape), how);
}
std::optional<Box> stroke_bounds(const Ellipse& shape, const Stroke& how) {
    return is_turned(shape) ? std::nullopt : band_box(shape.box(), how);
}

}  // namespace detail

}  // namespace coldbrick::inline v0
