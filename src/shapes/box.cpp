// Boxes, with corners or without.
#include "raster/lowering/geometries.hpp"
#include "raster/rounds/round_tables.hpp"
#include "raster/rows/ellipse_rows.hpp"
#include "shapes/checks.hpp"
#include "shapes/closed_strokes.hpp"
#include "shapes/shape_scans.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <optional>

namespace coldbrick::inline v0::detail {

namespace {

void check_corner_radius(const Size& size, int radius) {
    const auto most = std::min(size.width, size.height) / 2;
    if (radius < 0 || radius > most) refuse("rounded box", "corner_radius", radius, 0, most);
}

double checked_corner_radius(const BasicBox<int>& box, int radius) {
    check_corner_radius(box.size, radius);
    return radius;
}

double checked_corner_radius(const BasicBox<double>& box, double radius) {
    const auto rounded = checked_number("rounded box", "corner_radius", radius, 0);
    const auto most = std::min(box.size.width, box.size.height) / 2;
    if (rounded > most) {
        throw Error{"rounded box: corner_radius is " + in_digits(rounded) + "; allowed is 0 to " + in_digits(most)};
    }
    return rounded;
}

BoxGeometry geometry_of(const BasicBox<double>& sides, double corner_radius) {
    const auto origin = origin_at(sides.at);
    const auto [left, top] = from_origin(sides.at, origin) - Vec{0.5, 0.5};
    return {.origin = origin,
            .left = left,
            .top = top,
            .right = left + sides.size.width,
            .bottom = top + sides.size.height,
            .corner_radius = corner_radius};
}

// Its rows at a distance from its edge.
struct BoxTable {
    CornerBox box;

    void operator()(int distance, Join join, const Window& rows, RunTable& table) const {
        tabulate(box, distance, join, rows, table);
    }
};

CornerBox checked(const RoundedBox& shape) {
    check_box("rounded box", shape.box);
    check_corner_radius(shape.box.size, shape.corner_radius);
    return {.box = shape.box, .corner_radius = shape.corner_radius};
}

}  // namespace

template <class Number>
Geometry geometry_of(const BasicBox<Number>& shape, const Tolerance&) {
    return geometry_of(checked_sides("box", shape), 0);
}
template Geometry geometry_of(const BasicBox<int>&, const Tolerance&);
template Geometry geometry_of(const BasicBox<double>&, const Tolerance&);

template <class Number>
Geometry geometry_of(const BasicRoundedBox<Number>& shape, const Tolerance&) {
    const auto sides = checked_sides(std::is_same_v<Number, int> ? "rounded box" : "box", shape.box);
    if constexpr (std::is_same_v<Number, int>)
        return geometry_of(sides, checked_corner_radius(shape.box, shape.corner_radius));
    if constexpr (std::is_same_v<Number, double>)
        return geometry_of(sides, checked_corner_radius(sides, shape.corner_radius));
}
template Geometry geometry_of(const BasicRoundedBox<int>&, const Tolerance&);
template Geometry geometry_of(const BasicRoundedBox<double>&, const Tolerance&);

Box scan_fill(const Box& shape, const Box& clip, const SpanSink& sink) {
    check_box("box", shape);
    if (sink.take_box == nullptr) return scan_inside(BoxRows{shape}, clip, sink);
    const auto seen = intersection(shape, clip);
    if (!seen.empty()) sink.take_box(sink.context, seen);
    return seen;
}

Box scan_fill(const RoundedBox& shape, const Box& clip, const SpanSink& sink) {
    const auto box = checked(shape);
    TableMemory memory;
    RunTable fill{&memory};
    tabulate(box, 0, Join::miter, window_of(clip), fill);
    return scan_inside(fill, clip, sink);
}

Box scan_stroke(const Box& shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    check_box("box", shape);
    check_stroke(how);
    if (is_hairline(how)) return scan_outline(BoxRows{shape}, clip, sink);
    return scan_closed(BoxTable{{.box = shape}}, shape, how, clip, sink);
}

Box scan_stroke(const RoundedBox& shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    const auto box = checked(shape);
    check_stroke(how);
    const auto most = max_coordinate - shape.corner_radius;
    if (Band{how}.out > most) {
        refuse("stroke", "width outside of a rounded box", static_cast<std::int64_t>(Band{how}.out), 0, most);
    }
    return scan_closed(BoxTable{box}, shape, how, clip, sink);
}

std::optional<RoundPart> round_part(const RoundedBox& shape) {
    const auto [box, radius] = checked(shape);
    return RoundPart{.box = box, .corner = {double{1} * radius, double{1} * radius}};
}

std::optional<Box> fill_bounds(const Box& shape) { return shape; }
std::optional<Box> fill_bounds(const RoundedBox& shape) { return shape.box; }

std::optional<Box> stroke_bounds(const Box& shape, const Stroke& how) { return band_box(shape, how); }
std::optional<Box> stroke_bounds(const RoundedBox& shape, const Stroke& how) { return band_box(shape.box, how); }

}  // namespace coldbrick::inline v0::detail
