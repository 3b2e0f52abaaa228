// The shapes there are, and areas of any kind in one form.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/detail/span_sink.hpp"
#include "coldbrick/fill.hpp"
#include "coldbrick/shapes.hpp"
#include "coldbrick/stroke.hpp"
#include "coldbrick/transform.hpp"

#include <concepts>
#include <cstdint>
#include <type_traits>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

class Path;
class Region;
struct Lettering;
struct VertexList;

namespace detail {

struct VertexElement;

template <class... Types>
struct TypeList {};

// Shapes with two kinds of coordinate, and others.
template <template <class> class... Kinds>
struct ShapeKinds {
    template <class... Others>
    using And = TypeList<Kinds<int>..., Kinds<double>..., Others...>;
};

// The one list of all shapes; those of a VertexList refer to memory of others.
using LastingKinds = ShapeKinds<BasicBox, BasicRoundedBox, BasicCircle, BasicEllipse, BasicRing, BasicSector,
                                BasicChord, BasicArc, BasicLine, BasicPolyline, BasicPolygon>;
using LastingShapes = LastingKinds::And<Path, Region, Lettering>;
using AllShapes = LastingKinds::And<Path, Region, Lettering, VertexList, VertexElement>;

template <class Type, class List>
inline constexpr bool is_one_of = false;
template <class Type, class... Types>
inline constexpr bool is_one_of<Type, TypeList<Types...>> = (std::is_same_v<Type, Types> || ...);

// The number of a type in a list; for types that are none of it, the list's length.
template <class Type, class List>
inline constexpr std::uint8_t number_in = 0;
template <class Type, class... Types>
inline constexpr std::uint8_t number_in<Type, TypeList<Types...>> = [] {
    auto number = std::uint8_t{0};
    (void)((std::is_same_v<Type, Types> || (++number, false)) || ...);
    return number;
}();

// Types of one's own that are shapes: a function beside the type, found by argument-dependent lookup, says which
// pixels.
template <class Shape>
concept HasOutline = requires(const Shape& shape) {
    { outline(shape) } -> std::convertible_to<Path>;
};
template <class Shape>
concept HasSpans = requires(const Shape& shape, const Box& clip) {
    { spans(shape, clip) } -> std::convertible_to<std::vector<Span>>;
};
template <class Shape>
concept HasLettering = requires(const Shape& shape) {
    { lettering(shape) } -> std::convertible_to<Lettering>;
};
// One that has its pixels ready, filled and moved: whether it does, and the box around them.
template <class Shape>
concept HasReadySpans = requires(const Shape& shape, const Fill& how, Position moved, const Box& clip,
                                 const SpanSink& to, Box& touched) {
    { scan_ready(shape, how, moved, clip, to, touched) } -> std::same_as<bool>;
};
template <class Shape>
concept OwnShape = HasOutline<Shape> || HasLettering<Shape> || HasSpans<Shape>;

// How a shape of one's own is asked; of the first three, two are null.
struct OwnShapeCalls {
    void (*find_outline)(const void* shape, Path& outline);
    void (*find_lettering)(const void* shape, Lettering& lettering);
    std::vector<Span> (*find_spans)(const void* shape, const Box& clip);
    // Null: it is always asked by one of the three.
    bool (*scan_ready)(const void* shape, const Fill& how, Position moved, const Box& clip, const SpanSink& sink,
                       Box& touched);
    bool (*are_equal)(const void* a, const void* b);
};

template <OwnShape Shape>
constexpr OwnShapeCalls calls_of() noexcept {
    OwnShapeCalls calls{};
    calls.are_equal = [](const void* a, const void* b) -> bool {
        if constexpr (std::equality_comparable<Shape>) {
            return *static_cast<const Shape*>(a) == *static_cast<const Shape*>(b);
        } else {
            return a == b;
        }
    };
    if constexpr (HasReadySpans<Shape>) {
        calls.scan_ready = [](const void* shape, const Fill& how, Position moved, const Box& clip, const SpanSink& sink,
                              Box& touched) {
            return scan_ready(*static_cast<const Shape*>(shape), how, moved, clip, sink, touched);
        };
    }
    if constexpr (HasOutline<Shape>) {
        calls.find_outline = [](const void* shape, Path& found) { found = outline(*static_cast<const Shape*>(shape)); };
    } else if constexpr (HasLettering<Shape>) {
        calls.find_lettering = [](const void* shape, Lettering& found) {
            found = lettering(*static_cast<const Shape*>(shape));
        };
    } else {
        calls.find_spans = [](const void* shape, const Box& clip) -> std::vector<Span> {
            return spans(*static_cast<const Shape*>(shape), clip);
        };
    }
    return calls;
}
template <OwnShape Shape>
inline constexpr OwnShapeCalls own_shape_calls = calls_of<Shape>();

template <class Shape>
concept BuiltInShape = is_one_of<Shape, AllShapes>;

template <class Shape>
concept AnyShape = BuiltInShape<Shape> || OwnShape<Shape>;

// Shapes without an inside.
template <class Shape>
inline constexpr bool is_open_shape = is_one_of<Shape, ShapeKinds<BasicArc, BasicLine, BasicPolyline>::And<>>;

template <class Shape>
concept Fillable = AnyShape<Shape> && !is_open_shape<Shape>;

// Any shape, for as long as it lives: its number among AllShapes, or, of one's own, how it is asked.
struct ShapeRef {
    const void* shape = nullptr;
    std::uint8_t kind = 0;
    const OwnShapeCalls* own_calls = nullptr;
};

template <AnyShape Shape>
constexpr ShapeRef shape_ref(const Shape& shape) noexcept {
    ShapeRef ref{.shape = &shape, .kind = number_in<Shape, AllShapes>};
    if constexpr (!BuiltInShape<Shape>) ref.own_calls = &own_shape_calls<Shape>;
    return ref;
}

inline constexpr Fill usual_fill{};

// An area of any kind, for as long as it lives: a shape, how it is filled or stroked, and where.
struct AreaRef {
    ShapeRef shape;
    const Fill* fill = &usual_fill;  // null for strokes
    const Stroke* stroke = nullptr;  // null for fills
    const Transform* by = nullptr;   // null: as it is
};

}  // namespace detail

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

namespace detail {

template <Fillable Shape>
AreaRef area_ref(const Shape& shape, const Fill& how = usual_fill) noexcept {
    return {.shape = shape_ref(shape), .fill = &how};
}
template <AnyShape Shape>
AreaRef area_ref(const Shape& shape, const Stroke& how) noexcept {
    return {.shape = shape_ref(shape), .fill = nullptr, .stroke = &how};
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

// A shape somewhere else, filled or stroked in a manner given besides: the pen is transformed with it.
template <Fillable Shape>
AreaRef area_ref(const Transformed<Shape>& shape, const Fill& how) noexcept {
    return {.shape = shape_ref(shape.area), .fill = &how, .by = &shape.by};
}
template <AnyShape Shape>
AreaRef area_ref(const Transformed<Shape>& shape, const Stroke& how) noexcept {
    return {.shape = shape_ref(shape.area), .fill = nullptr, .stroke = &how, .by = &shape.by};
}

// The same as areas.
template <AnyShape Shape>
Filled<Shape> area_of(const Shape& shape, const Fill& how) {
    return filled(shape, how);
}
template <AnyShape Shape>
Stroked<Shape> area_of(const Shape& shape, const Stroke& how) {
    return stroked(shape, how);
}
template <class Shape, class How>
auto area_of(const Transformed<Shape>& shape, const How& how) {
    return transformed(area_of(shape.area, how), shape.by);
}

template <class Shape>
inline constexpr bool is_placed_shape = false;
template <AnyShape Shape>
inline constexpr bool is_placed_shape<Transformed<Shape>> = true;
template <class Shape>
concept Strokable = AnyShape<Shape> || is_placed_shape<Shape>;
template <class Shape>
inline constexpr bool is_placed_fillable = false;
template <Fillable Shape>
inline constexpr bool is_placed_fillable<Transformed<Shape>> = true;
template <class Shape>
concept FillableAnywhere = Fillable<Shape> || is_placed_fillable<Shape>;

template <class Area>
concept AnyArea = requires(const Area& area) {
    area_ref(area);
};

// What is given for an area, or a shape, by mistake; each has a sentence of its own.
template <class T>
inline constexpr bool is_point_list = false;
template <class Allocator>
inline constexpr bool is_point_list<std::vector<Point, Allocator>> = true;
template <class Allocator>
inline constexpr bool is_point_list<std::vector<Position, Allocator>> = true;
template <class T>
inline constexpr bool is_stroked = false;
template <class Shape>
inline constexpr bool is_stroked<Stroked<Shape>> = true;
template <class Area>
inline constexpr bool is_stroked<Transformed<Area>> = is_stroked<Area>;
template <class T>
inline constexpr bool is_filled_or_placed = is_stroked<T>;
template <class Shape>
inline constexpr bool is_filled_or_placed<Filled<Shape>> = true;
template <class Area>
inline constexpr bool is_filled_or_placed<Transformed<Area>> = true;

// Does not compile for what has no area, and says why.
template <class Area>
constexpr void check_is_area() noexcept {
    static_assert(!is_open_shape<Area>,
                  "a line, polyline or arc has no inside: stroke it, or take a stroked() one as an area");
    static_assert(!is_point_list<Area>, "a vector of points is no shape: Polygon{points} is one, or a VertexList");
    static_assert(
        AnyArea<Area> || is_open_shape<Area> || is_point_list<Area>,
        "an area is a shape that has an inside, a filled() or stroked() shape, one transformed(), or a Figure");
}

// Does not compile for what cannot be filled, or stroked, in a manner given besides.
template <class Shape>
constexpr void check_is_fillable() noexcept {
    static_assert(!is_filled_or_placed<Shape> || is_placed_fillable<Shape>,
                  "a filled() or stroked() area says itself how: fill it without saying it again");
    if constexpr (!is_filled_or_placed<Shape>) check_is_area<Shape>();
}
template <class Shape>
constexpr void check_is_strokable() noexcept {
    static_assert(!is_stroked<Shape>, "a stroke cannot be stroked: fill() paints a stroked() shape");
    static_assert(!is_point_list<Shape>,
                  "a vector of points is no shape: Polyline{.through = points} is one, or Polygon{points}");
    static_assert(Strokable<Shape> || is_stroked<Shape> || is_point_list<Shape>,
                  "stroke() takes a shape, or a transformed() one");
}

// Of one that says itself what it is, too: by a function beside its type.
template <AnyArea Area>
AreaRef as_area(const Area& area) noexcept {
    return area_ref(area);
}

// Hands the spans of an area inside the clip to the sink, and returns the smallest box around them. Throws Error
// for what a shape, a fill or a stroke may not be.
Box scan(const AreaRef& area, const Box& clip, const SpanSink& sink);

// The box around an area's only pixel, if it is the fill of a Box of one pixel and not moved; null of others. Throws
// Error as scan().
const Box* single_pixel_of(const AreaRef& area);

// The pixel nearest to where a transform takes one. Throws Error if it takes it beyond max_coordinate.
Point place_pixel(Point at, const Transform& by);

// The smallest box around all of them.
Box bounds_of(const AreaRef& area);

// A box that contains all of them, which is found without looking for them. Of an area that has been checked.
Box outer_bounds_of(const AreaRef& area);

}  // namespace detail

}  // namespace v0
}  // namespace coldbrick
