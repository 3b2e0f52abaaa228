// coldbrick/draw_each.hpp - many shapes of one kind, or the elements of a vertex list, in one call.
//
//     const std::vector<Circle> buoys{{.center = {30, 40}, .radius = 3}, {.center = {52, 44}, .radius = 3}};
//     fill_each  (chart, buoys, colors::gold);                                             // all in one ink
//     fill_each  (chart, buoys, {.edge = Edge::smooth}, std::vector<Color>{gold, teal});   // each in its own
//     stroke_each(chart, std::vector<Line>{{.from = {0, 9}, .to = {80, 9}}}, {.width = 3}, colors::white);
//     mark_each  (chart, std::vector<Point>{{9, 31}, {14, 33}}, std::vector<Color>{navy, teal});
//
//     std::vector<Point> corners = {{5, 5}, {80, 9}, {30, 60}, {90, 66}};
//     fill_each(chart, VertexList{.as = Elements::triangle_strip, .at = corners}, std::vector<Color>{navy, teal});
//
// The shapes are drawn one after the other, as by a call for each: later ones on top. All of them are looked at first:
// Error is thrown for one that cannot be, with its number, or for an ink, or if there are more or fewer inks than
// shapes; then nothing has been drawn. What has to be found out about the target and the ink is found out once. Where
// memory runs out or a budget is spent while shapes are drawn that need some (polygons, paths), those before have been
// drawn.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/draw.hpp"
#include "coldbrick/prepared_ink.hpp"
#include "coldbrick/vertices.hpp"

#include <concepts>
#include <cstddef>
#include <cstdint>
#include <span>
#include <string_view>
#include <type_traits>
#include <utility>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

namespace detail {

// Each element's colour, in a box: where several share a pixel, the mean of their colours by how much of it each
// covers, with smooth edges.
Ink mesh_ink(const VertexList& list, const std::vector<Color>& colors, const Box& box);

// Throws Error for an ink that the surface cannot take.
void check_ink(const Target& target, const Ink& ink);

// Calls draw(number, ink) for each of some inks, once all have been looked at.
template <class T, class Inks, class Draw>
void for_each_ink(const T& target, const Inks& inks, const Draw& draw) {
    if constexpr (Recorder<T> || std::is_same_v<std::remove_cvref_t<decltype(inks[0])>, Color>) {
        for (std::size_t i = 0; i < inks.size(); ++i) draw(i, Ink{inks[i]});
    } else {
        std::vector<Ink> checked;
        checked.reserve(inks.size());
        for (std::size_t i = 0; i < inks.size(); ++i) {
            checked.push_back(Ink{inks[i]});
            check_ink(SurfaceAccess::of(target), checked.back());
        }
        for (std::size_t i = 0; i < checked.size(); ++i) draw(i, checked[i]);
    }
}

// Shapes of one type that lie in memory one behind the other, and how all are drawn; both for as long as they live.
struct ShapesRef {
    ShapeRef first;
    std::size_t bytes;  // of each
    std::size_t count;
    const Fill* fill = &usual_fill;  // null for strokes
    const Stroke* stroke = nullptr;  // null for fills

    [[nodiscard]] AreaRef operator[](std::size_t number) const noexcept {
        AreaRef area{.shape = first, .fill = fill, .stroke = stroke};
        area.shape.shape = static_cast<const std::byte*>(first.shape) + number * bytes;
        return area;
    }
    // Whether they are shapes of the library's of that number, filled without smooth edges.
    [[nodiscard]] bool is_crisp(std::uint8_t kind) const noexcept {
        return first.kind == kind && first.own_calls == nullptr && fill != nullptr && fill->edge == Edge::crisp;
    }
};

// Throws Error for a shape that cannot be, in the name of the call, with its number.
void check_each(std::string_view call, const ShapesRef& shapes);
void check_each(std::string_view call, const Point* points, std::size_t count);
// Throws Error unless there are as many inks as shapes.
void check_ink_count(std::string_view call, std::size_t shapes, std::size_t inks);

// Lay one ink on all, or on each the one that has its number. All have been checked.
Box paint_each(const Surface& surface, const ShapesRef& shapes, const Shared<ReadyInk>& ink);
Box paint_each(const Surface& surface, const ShapesRef& shapes, std::span<const Color> colors);
Box paint_each(const Surface& surface, const ShapesRef& shapes, std::span<const Ink> inks);
Box mark_each(const Surface& surface, std::span<const Point> points, const Shared<ReadyInk>& ink);
Box mark_each(const Surface& surface, std::span<const Point> points, std::span<const Color> colors);
Box mark_each(const Surface& surface, std::span<const Point> points, std::span<const Ink> inks);

template <class List>
using ElementOf = std::remove_cvref_t<decltype(*std::declval<const List&>().data())>;

template <class List>
concept InMemory = requires(const List& list) {
    { list.size() } -> std::convertible_to<std::size_t>;
    list.data();
};
template <class List>
concept ShapeList = InMemory<List> && AnyShape<ElementOf<List>>;
template <class List>
concept PointList = InMemory<List> && std::same_as<ElementOf<List>, Point>;

// One ink for all, or a list of them.
template <class T>
concept OneInk = Prepared<T> || std::convertible_to<const T&, Ink>;
template <class T>
concept InkList = !OneInk<T> && requires(const T& inks) {
    { inks.size() } -> std::convertible_to<std::size_t>;
    { inks[0] } -> std::convertible_to<Ink>;
};
template <class T>
concept InkOrInks = OneInk<T> || InkList<T>;

template <class Shapes, class How>
ShapesRef shapes_ref(const Shapes& shapes, const How& how) noexcept {
    using Shape = ElementOf<Shapes>;
    ShapesRef ref{.first = {.kind = number_in<Shape, AllShapes>}, .bytes = sizeof(Shape), .count = shapes.size()};
    ref.first.shape = shapes.data();
    if constexpr (!BuiltInShape<Shape>) ref.first.own_calls = &own_shape_calls<Shape>;
    if constexpr (std::is_same_v<How, Fill>) {
        ref.fill = &how;
    } else {
        ref.fill = nullptr;
        ref.stroke = &how;
    }
    return ref;
}

// Calls use(ink) with one that is ready for the target, or with a span of colours or inks.
template <class T, InkOrInks Inks, class Use>
Box with_inks(std::string_view call, const T& target, std::size_t count, const Inks& inks, const Use& use) {
    const auto& surface = SurfaceAccess::of(target);
    if constexpr (Prepared<Inks>) {
        check_ready(surface, inks.ready());
        return use(surface, inks.ready());
    } else if constexpr (OneInk<Inks>) {
        return use(surface, ready_ink(surface, inks));
    } else {
        check_ink_count(call, count, inks.size());
        if constexpr (InMemory<Inks>) {
            if constexpr (std::same_as<ElementOf<Inks>, Color>) return use(surface, std::span<const Color>{inks});
            if constexpr (std::same_as<ElementOf<Inks>, Ink>) return use(surface, std::span<const Ink>{inks});
        }
        std::vector<Ink> listed;
        listed.reserve(inks.size());
        for (std::size_t i = 0; i < inks.size(); ++i) listed.push_back(Ink{inks[i]});
        return use(surface, std::span<const Ink>{listed});
    }
}

// Calls draw(number, ink) for each, on what remembers calls.
template <InkOrInks Inks, class Draw>
Box record_each(std::string_view call, std::size_t count, const Inks& inks, const Draw& draw) {
    auto touched = Box{};
    if constexpr (InkList<Inks>) check_ink_count(call, count, inks.size());
    for (std::size_t i = 0; i < count; ++i) {
        if constexpr (InkList<Inks>) {
            touched = enclosing(touched, draw(i, Ink{inks[i]}));
        } else if constexpr (Prepared<Inks>) {
            touched = enclosing(touched, draw(i, inks.ink()));
        } else {
            touched = enclosing(touched, draw(i, Ink{inks}));
        }
    }
    return touched;
}

}  // namespace detail

namespace detail {

// Draws all of them, on what remembers calls by draw(shape, ink) for each.
template <class T, class Shapes, class How, class Inks, class Draw>
Box draw_shapes(std::string_view call, T& target, const Shapes& shapes, const How& how, const Inks& inks,
                const Draw& draw) {
    const auto all = shapes_ref(shapes, how);
    check_each(call, all);
    if constexpr (Recorder<T&>) {
        return record_each(call, all.count, inks,
                           [&](std::size_t i, const Ink& ink) { return draw(shapes.data()[i], ink); });
    } else {
        return with_inks(call, target, all.count, inks,
                         [&](const auto& surface, const auto& ready) { return paint_each(surface, all, ready); });
    }
}

}  // namespace detail

// Fills each of some shapes, in one ink or each in its own, and returns the box around all pixels that were touched.
template <Target T, detail::ShapeList Shapes, detail::InkOrInks Inks>
Box fill_each(T&& target, const Shapes& shapes, const Fill& how, const Inks& inks,
              SourcePlace where = SourcePlace::current()) {
    detail::check_is_fillable<detail::ElementOf<Shapes>>();
    return detail::draw_shapes("fill_each", target, shapes, how, inks,
                               [&](const auto& shape, const Ink& ink) { return fill(target, shape, how, ink, where); });
}

template <Target T, detail::ShapeList Shapes, detail::InkOrInks Inks>
Box fill_each(T&& target, const Shapes& shapes, const Inks& inks, SourcePlace where = SourcePlace::current()) {
    return fill_each(target, shapes, Fill{}, inks, where);
}

// The same of their strokes.
template <Target T, detail::ShapeList Shapes, detail::InkOrInks Inks>
Box stroke_each(T&& target, const Shapes& shapes, const Stroke& how, const Inks& inks,
                SourcePlace where = SourcePlace::current()) {
    return detail::draw_shapes("stroke_each", target, shapes, how, inks, [&](const auto& shape, const Ink& ink) {
        return stroke(target, shape, how, ink, where);
    });
}

template <Target T, detail::ShapeList Shapes, detail::InkOrInks Inks>
Box stroke_each(T&& target, const Shapes& shapes, const Inks& inks, SourcePlace where = SourcePlace::current()) {
    return stroke_each(target, shapes, Stroke{}, inks, where);
}

// Lays ink on each of some pixels, one ink or each its own.
template <Target T, detail::PointList Points, detail::InkOrInks Inks>
Box mark_each(T&& target, const Points& points, const Inks& inks, SourcePlace where = SourcePlace::current()) {
    detail::check_each("mark_each", points.data(), points.size());
    if constexpr (detail::Recorder<T>) {
        return detail::record_each("mark_each", points.size(), inks, [&](std::size_t i, const Ink& ink) {
            return mark(target, points.data()[i], ink, where);
        });
    } else {
        return detail::with_inks("mark_each", target, points.size(), inks, [&](const auto& surface, const auto& ready) {
            return detail::mark_each(surface, std::span<const Point>{points.data(), points.size()}, ready);
        });
    }
}

// Fills or strokes each element with an ink of its own, one after the other. Throws Error, and draws nothing, if there
// are more or fewer inks than elements, or one of them is none that the target takes. Inks are anything with size() and
// [], such as a std::vector<Color>.
template <Target T, class Inks>
Box fill_each(T&& target, const VertexList& list, const Inks& inks, SourcePlace where = SourcePlace::current()) {
    detail::check_fillable(list);
    detail::check_inks(list, inks.size());
    auto touched = Box{};
    detail::for_each_ink(target, inks, [&](std::size_t i, const Ink& ink) {
        touched = enclosing(touched, fill(target, detail::VertexElement{.list = list, .number = i}, ink, where));
    });
    return touched;
}

// The same with smooth edges, for inks that are colours. Each pixel is touched once: along seams the colours of both
// sides are mixed, and nothing of what is below shows.
template <Target T, class Inks>
Box fill_each(T&& target, const VertexList& list, const Fill& how, const Inks& inks,
              SourcePlace where = SourcePlace::current()) {
    if (how.edge == Edge::crisp) return fill_each(target, list, inks, where);
    detail::check_fillable(list);
    detail::check_inks(list, inks.size());
    std::vector<Color> colors;
    for (std::size_t i = 0; i < inks.size(); ++i) colors.push_back(inks[i]);
    const auto smooth = filled(list, how);
    if constexpr (detail::Recorder<T>) {
        return fill(target, smooth, detail::mesh_ink(list, colors, bounds(smooth)), where);
    } else {
        const auto seen = target.within(bounds(smooth));
        return seen.clip().empty() ? Box{} : fill(seen, smooth, detail::mesh_ink(list, colors, seen.clip()));
    }
}

template <Target T, class Inks>
Box stroke_each(T&& target, const VertexList& list, const Stroke& how, const Inks& inks,
                SourcePlace where = SourcePlace::current()) {
    detail::check_vertices(list);
    detail::check_inks(list, inks.size());
    auto touched = Box{};
    detail::for_each_ink(target, inks, [&](std::size_t i, const Ink& ink) {
        touched = enclosing(touched, stroke(target, detail::VertexElement{.list = list, .number = i}, how, ink, where));
    });
    return touched;
}

}  // namespace v0
}  // namespace coldbrick
