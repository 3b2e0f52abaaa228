// What each shape of the library can do, in one table: a missing entry is a null pointer, and never a choice of the
// compiler's.
#pragma once

#include "shapes/shape_scans.hpp"

#include <array>
#include <optional>

namespace coldbrick::inline v0::detail {

// All take the shape by its address. What is null is found by the shape's geometry.
struct ShapeEntry {
    Geometry (*geometry)(const void* shape, const Tolerance& tolerance);
    // The crisp pixels, where they are exact in whole numbers.
    Box (*fill)(const void* shape, const Fill& how, const Box& clip, const SpanSink& sink) = nullptr;
    Box (*stroke)(const void* shape, const Stroke& how, const Box& clip, const SpanSink& sink) = nullptr;
    // The smallest box around them.
    std::optional<Box> (*fill_bounds)(const void* shape, const Fill& how) = nullptr;
    std::optional<Box> (*stroke_bounds)(const void* shape, const Stroke& how) = nullptr;
    // What it is of whole pixels, if it is round and upright; checked.
    std::optional<RoundPart> (*round)(const void* shape) = nullptr;
    bool is_of_pixels = false;                        // its fill is the same with smooth edges
    bool has_whole_widths = true;                     // crisp strokes of it, where it has them, have whole widths
    void (*check_fill)(const void* shape) = nullptr;  // throws Error for what cannot be filled
};

namespace shape_calls {

template <class Shape>
const Shape& as(const void* shape) noexcept {
    return *static_cast<const Shape*>(shape);
}
template <class Shape>
Geometry geometry(const void* shape, const Tolerance& tolerance) {
    return geometry_of(as<Shape>(shape), tolerance);
}
template <class Shape>
Box fill(const void* shape, const Fill&, const Box& clip, const SpanSink& sink) {
    return scan_fill(as<Shape>(shape), clip, sink);
}
template <class Shape>
Box fill_by_rule(const void* shape, const Fill& how, const Box& clip, const SpanSink& sink) {
    return scan_fill(as<Shape>(shape), how, clip, sink);
}
template <class Shape>
Box stroke(const void* shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    return scan_stroke(as<Shape>(shape), how, clip, sink);
}
template <class Shape>
std::optional<Box> fill_box(const void* shape, const Fill&) {
    return fill_bounds(as<Shape>(shape));
}
template <class Shape>
std::optional<Box> fill_box_by_rule(const void* shape, const Fill& how) {
    return fill_bounds(as<Shape>(shape), how);
}
template <class Shape>
std::optional<Box> stroke_box(const void* shape, const Stroke& how) {
    return stroke_bounds(as<Shape>(shape), how);
}
template <class Shape>
std::optional<RoundPart> round(const void* shape) {
    return round_part(as<Shape>(shape));
}
inline void check_list_fill(const void* shape) { check_fillable(as<VertexList>(shape)); }

template <class Shape>
inline constexpr bool is_fractional = false;
template <template <class> class Kind>
inline constexpr bool is_fractional<Kind<double>> = true;

// Found by its geometry alone.
template <class Shape>
constexpr ShapeEntry by_geometry() noexcept {
    return {.geometry = geometry<Shape>};
}
// With crisp pixels of its own, and then with the boxes around them.
template <class Shape>
constexpr ShapeEntry with_pixels() noexcept {
    return {.geometry = geometry<Shape>, .fill = fill<Shape>, .stroke = stroke<Shape>};
}
template <class Shape>
constexpr ShapeEntry with_boxes() noexcept {
    auto entry = with_pixels<Shape>();
    entry.fill_bounds = fill_box<Shape>;
    entry.stroke_bounds = stroke_box<Shape>;
    return entry;
}
template <class Shape>
constexpr ShapeEntry with_round() noexcept {
    auto entry = with_boxes<Shape>();
    entry.round = round<Shape>;
    return entry;
}
template <class Shape>
constexpr ShapeEntry of_pixels() noexcept {
    auto entry = with_boxes<Shape>();
    entry.is_of_pixels = true;
    return entry;
}

// Shapes with fractional coordinates are their geometries. Of all others each has its line: one without it does not
// compile.
template <class Shape>
inline constexpr ShapeEntry entry = [] {
    static_assert(is_fractional<Shape>, "this shape has no entry in the table");
    return by_geometry<Shape>();
}();
template <>
inline constexpr ShapeEntry entry<Box> = of_pixels<Box>();
template <>
inline constexpr ShapeEntry entry<RoundedBox> = with_round<RoundedBox>();
template <>
inline constexpr ShapeEntry entry<Circle> = with_round<Circle>();
template <>
inline constexpr ShapeEntry entry<Ellipse> = with_round<Ellipse>();
template <>
inline constexpr ShapeEntry entry<Ring> = with_pixels<Ring>();
template <>
inline constexpr ShapeEntry entry<Sector> = with_pixels<Sector>();
template <>
inline constexpr ShapeEntry entry<Chord> = with_pixels<Chord>();
template <>
inline constexpr ShapeEntry entry<Arc>{.geometry = geometry<Arc>, .stroke = stroke<Arc>};
template <>
inline constexpr ShapeEntry entry<Line>{
    .geometry = geometry<Line>, .stroke = stroke<Line>, .stroke_bounds = stroke_box<Line>};
template <>
inline constexpr ShapeEntry entry<Polyline>{
    .geometry = geometry<Polyline>, .stroke = stroke<Polyline>, .stroke_bounds = stroke_box<Polyline>};
template <>
inline constexpr ShapeEntry entry<Polygon>{.geometry = geometry<Polygon>,
                                           .fill = fill_by_rule<Polygon>,
                                           .stroke = stroke<Polygon>,
                                           .fill_bounds = fill_box_by_rule<Polygon>,
                                           .stroke_bounds = stroke_box<Polygon>};
template <>
inline constexpr ShapeEntry entry<Path>{
    .geometry = geometry<Path>, .fill = fill_by_rule<Path>, .stroke = stroke<Path>, .has_whole_widths = false};
template <>
inline constexpr ShapeEntry entry<Region> = of_pixels<Region>();
template <>
inline constexpr ShapeEntry entry<Lettering> = by_geometry<Lettering>();
template <>
inline constexpr ShapeEntry entry<VertexList>{.geometry = geometry<VertexList>,
                                              .fill = fill<VertexList>,
                                              .stroke = stroke<VertexList>,
                                              .has_whole_widths = false,
                                              .check_fill = check_list_fill};
template <>
inline constexpr ShapeEntry entry<VertexElement>{.geometry = geometry<VertexElement>,
                                                 .fill = fill<VertexElement>,
                                                 .stroke = stroke<VertexElement>,
                                                 .has_whole_widths = false};

template <class... Shapes>
constexpr auto all_of(TypeList<Shapes...>) noexcept {
    return std::array{&entry<Shapes>...};
}

}  // namespace shape_calls

// By the number of a shape's kind.
inline const ShapeEntry& entry_of(std::uint8_t kind) noexcept {
    static constexpr auto all = shape_calls::all_of(AllShapes{});
    return *all[kind];
}

}  // namespace coldbrick::inline v0::detail
