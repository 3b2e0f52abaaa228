// coldbrick/draw_each.hpp - the elements of a vertex list, each in an ink of its own.
//
//     std::vector<Point> corners = {{5, 5}, {80, 9}, {30, 60}, {90, 66}};
//     fill_each(chart, VertexList{.as = Elements::triangle_strip, .at = corners}, std::vector<Color>{navy, teal});
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/draw.hpp"
#include "coldbrick/vertices.hpp"

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

}  // namespace detail

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
