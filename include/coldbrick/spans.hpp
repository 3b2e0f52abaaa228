// coldbrick/spans.hpp - the pixels of a shape, without any buffer: spans, bounds, membership.
//
//     for_each_span(Circle{.center = {64, 48}, .radius = 20}, clip, [&](const Span& run) { sum += run.length; });
//     for_each_span(stroked(Line{.from = {0, 0}, .to = {9, 4}}), clip, [&](const Span& run) { sum += run.length; });
//     Box  around = bounds(stroked(Circle{.center = {64, 48}, .radius = 20}, {.width = 6}));
//     bool hit    = contains(filled(star, {.rule = FillRule::nonzero}), Point{70, 41});
//
// An area is what these functions, and fill() of draw.hpp, accept: a Box, RoundedBox, Circle, Ellipse, Sector, Chord,
// Polygon or Path (its interior and edges), the same of subpixel.hpp, a filled() or stroked() shape, any of them
// transformed(), or a Figure (figure.hpp). Drawing an area touches exactly the pixels that are told here; of one with
// smooth edges those that it covers by 1/510 or more of their area.
#pragma once

#include "coldbrick/geometry.hpp"
#include "coldbrick/path.hpp"
#include "coldbrick/shapes.hpp"
#include "coldbrick/stroke.hpp"
#include "coldbrick/subpixel.hpp"
#include "coldbrick/transform.hpp"

#include <cstdint>
#include <span>
#include <type_traits>
#include <utility>
#include <variant>

namespace coldbrick {

// The pixels of row y in columns x to x + length - 1.
struct Span {
    int y;
    int x;
    int length;
    friend constexpr bool operator==(const Span&, const Span&) = default;
};

// A shape and how it is filled, as an area. Made by filled().
template <class Shape>
struct Filled {
    Shape shape;
    Fill how;
};

// The stroke of a shape as an area. Made by stroked().
template <class Shape>
struct Stroked {
    Shape shape;
    Stroke how;
};

template <class Shape>
[[nodiscard]] Filled<Shape> filled(Shape shape, const Fill& how) {
    return {.shape = std::move(shape), .how = how};
}

template <class Shape>
[[nodiscard]] Stroked<Shape> stroked(Shape shape, const Stroke& how = {}) {
    return {.shape = std::move(shape), .how = how};
}

// An area under a transform, and with it the width of its strokes. Made by transformed().
template <class Area>
struct Transformed {
    Area area;
    Transform by;
};

// A shape, filled() or stroked() shape somewhere else: moved, scaled, turned, sheared. A stroke of width 1 with crisp
// edges stays a hairline. Drawing throws Error if the transform flattens everything, has numbers that are none, or
// takes the area beyond max_coordinate.
template <class Area>
[[nodiscard]] Transformed<Area> transformed(Area area, const Transform& by) {
    return {.area = std::move(area), .by = by};
}

// One transform after the other.
template <class Area>
[[nodiscard]] Transformed<Area> transformed(Transformed<Area> area, const Transform& by) {
    return {.area = std::move(area.area), .by = area.by.then(by)};
}

class Region;
struct VertexList;

namespace detail {

struct VertexElement;

// Whether a receiver of spans may be told of a pixel twice.
enum class Repeats { harmless, never };

// One pixel in each of consecutive rows (or columns) from the first on. The k-th of count lies in the column (or row)
// that is the whole part of (place + k * step) / 2^32.
struct Trace {
    int first;
    int count;
    std::int64_t place;
    std::int64_t step;
};

// The pixels of row y in columns x to x + length - 1, and how much of each is covered, in 255ths: each as told in turn,
// or all alike.
struct CoverSpan {
    int y;
    int x;
    int length;
    const std::uint8_t* each;  // null: all alike
    std::uint8_t all;
};

// Who takes the spans: called with up to some hundreds of them at a time.
struct SpanReceiver {
    void* context;
    void (*take)(void* context, std::span<const Span> spans);
    Repeats repeats;
    // Take what of a hairline lies inside the clip without making spans of it. Null: as spans. Only where repeats are
    // harmless.
    void (*take_down)(void* context, const Trace& by_row) = nullptr;
    void (*take_across)(void* context, const Trace& by_column) = nullptr;
    // Takes pixels that are covered in part, row by row from left to right, up to some hundreds of spans at a time.
    // Null: as spans, of what is covered at all.
    void (*take_cover)(void* context, std::span<const CoverSpan> spans) = nullptr;
};

// What of a clip may have pixels in it: no shape has any within some pixels of the least and the greatest number, so
// that rows and columns next to the clip's are numbers too.
constexpr Box within_numbers(const Box& clip) noexcept {
    constexpr auto least = std::int64_t{std::numeric_limits<int>::min()} + 16;
    constexpr auto most = std::int64_t{std::numeric_limits<int>::max()} - 2;
    const auto first = [=](int at) { return static_cast<int>(std::max(std::int64_t{at}, least)); };
    const auto extent = [&](int at, int size) {
        const auto last = std::min<std::int64_t>(std::int64_t{at} + size - 1, most);
        const auto pixels = std::clamp<std::int64_t>(last - first(at) + 1, 0, std::numeric_limits<int>::max());
        return static_cast<int>(pixels);
    };
    return {.at = {.x = first(clip.at.x), .y = first(clip.at.y)},
            .size = {.width = extent(clip.at.x, clip.size.width), .height = extent(clip.at.y, clip.size.height)}};
}

// Any shape, for as long as it lives.
using ShapeRef =
    std::variant<const Box*, const RoundedBox*, const Circle*, const Ellipse*, const Sector*, const Chord*, const Arc*,
                 const Line*, const Polyline*, const Polygon*, const Path*, const Region*, const VertexList*,
                 const VertexElement*, const subpixel::Box*, const subpixel::RoundedBox*, const subpixel::Circle*,
                 const subpixel::Ellipse*, const subpixel::Sector*, const subpixel::Chord*, const subpixel::Arc*,
                 const subpixel::Line*, const subpixel::Polyline*, const subpixel::Polygon*>;

template <class Shape, class... Others>
concept OneOf = (std::is_same_v<Shape, Others> || ...);

template <class Shape>
concept AnyShape = std::is_constructible_v<ShapeRef, const Shape*>;

// What can be filled; other shapes have no inside.
template <class Shape>
concept Fillable =
    AnyShape<Shape> && !OneOf<Shape, Arc, Line, Polyline, subpixel::Arc, subpixel::Line, subpixel::Polyline>;

// An area of any kind, for as long as it lives: a shape, how it is filled or stroked, and where.
struct AreaRef {
    ShapeRef shape;
    std::variant<const Fill*, const Stroke*> how;
    const Transform* by = nullptr;  // null: as it is
};

inline constexpr Fill usual_fill{};

template <Fillable Shape>
AreaRef area_ref(const Shape& shape, const Fill& how = usual_fill) noexcept {
    return {.shape = &shape, .how = &how};
}
template <AnyShape Shape>
AreaRef area_ref(const Shape& shape, const Stroke& how) noexcept {
    return {.shape = &shape, .how = &how};
}
template <Fillable Shape>
AreaRef area_ref(const Filled<Shape>& area) noexcept {
    return area_ref(area.shape, area.how);
}
template <AnyShape Shape>
AreaRef area_ref(const Stroked<Shape>& area) noexcept {
    return area_ref(area.shape, area.how);
}
template <class Area>
AreaRef area_ref(const Transformed<Area>& area) noexcept requires requires {
    area_ref(area.area);
}
{
    auto placed = area_ref(area.area);
    placed.by = &area.by;
    return placed;
}
inline AreaRef area_ref(const AreaRef& area) noexcept { return area; }

template <class Area>
concept AnyArea = requires(const Area& area) {
    area_ref(area);
};

// Of one that says itself what it is, too: by a function beside its type.
template <AnyArea Area>
AreaRef as_area(const Area& area) noexcept {
    return area_ref(area);
}

// Hands the spans of an area inside the clip to the receiver, and returns the smallest box around them. Throws Error
// for what a shape, a fill or a stroke may not be.
Box scan(const AreaRef& area, const Box& clip, const SpanReceiver& receiver);

// The smallest box around all of them.
Box bounds_of(const AreaRef& area);

}  // namespace detail

// Calls visit(const Span&) for each span of the area inside the clip, and returns the smallest box around them (empty
// where there are none). Spans come sorted by y, then x; they neither overlap nor touch, so each pixel comes once.
// The time grows with what is inside the clip, not with the size of the shape. Throws Error as drawing the area
// would, before the first visit; an exception out of visit goes through.
template <detail::AnyArea Area, class Visit>
Box for_each_span(const Area& area, const Box& clip, Visit&& visit) {
    using Called = std::remove_reference_t<Visit>;
    const auto take = [](void* context, std::span<const Span> spans) {
        auto& call = *static_cast<Called*>(context);
        for (const auto& run : spans) call(run);
    };
    auto* context = const_cast<void*>(static_cast<const void*>(&visit));
    return detail::scan(detail::as_area(area), detail::within_numbers(clip),
                        {.context = context, .take = take, .repeats = detail::Repeats::never});
}

// The smallest box around all pixels of the area, wherever they lie; empty where it has none. Throws Error as drawing
// the area would. Boxes, rounded boxes, circles, ellipses that are not turned, and their strokes take no time;
// polygons, and strokes of lines and polygons, time in proportion to the number of vertices. All others (shared edges,
// turned ellipses, sectors, chords, arcs, dashes, polygons aligned inside or outside) may look at all rows of a shape.
template <detail::AnyArea Area>
[[nodiscard]] Box bounds(const Area& area) {
    return detail::bounds_of(detail::as_area(area));
}

// Whether the pixel belongs to the area: whether drawing it would touch the pixel, on a large enough buffer. Throws
// Error as drawing the area would.
template <detail::AnyArea Area>
[[nodiscard]] bool contains(const Area& area, Point pixel) {
    return !for_each_span(area, Box{.at = pixel, .size = {.width = 1, .height = 1}}, [](const Span&) {}).empty();
}

}  // namespace coldbrick
