// Points, lines and triangles from arrays.
#include "geometry/limits.hpp"
#include "raster/strokes/flat_path_scans.hpp"
#include "raster/strokes/stroker.hpp"
#include "shapes/shape_scans.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/vertices.hpp"

#include <array>
#include <cmath>
#include <cstring>
#include <string>

namespace coldbrick::inline v0 {

namespace {

// How many vertices there are, through the indices.
std::size_t used_vertices(const VertexList& list) noexcept {
    return list.indices.empty() ? list.at.size() : list.indices.size();
}

struct ElementKind {
    const char* name;
    std::size_t vertices;  // of an element
    bool shares;           // whether each vertex after the first ones makes another element
};

ElementKind kind_of(Elements as) noexcept {
    switch (as) {
        case Elements::points:
            return {.name = "points", .vertices = 1, .shares = false};
        case Elements::line_pairs:
            return {.name = "line pairs", .vertices = 2, .shares = false};
        case Elements::line_strip:
            return {.name = "a line strip", .vertices = 2, .shares = true};
        case Elements::triangles:
            return {.name = "triangles", .vertices = 3, .shares = false};
        case Elements::triangle_strip:
            return {.name = "a triangle strip", .vertices = 3, .shares = true};
        default:
            return {.name = "a triangle fan", .vertices = 3, .shares = true};
    }
}

// The vertices of an element, in pixels.
std::array<Position, 3> places_of(const VertexList& list, std::size_t element) noexcept {
    const auto [name, vertices, shares] = kind_of(list.as);
    std::array<Position, 3> places;
    for (std::size_t i = 0; i < vertices; ++i) {
        auto number = shares ? element + i : element * vertices + i;
        if (list.as == Elements::triangle_fan && i == 0) number = 0;
        const auto index = list.indices.empty() ? number : list.indices[number];
        places[i] = list.transform(list.at[index]);
    }
    return places;
}

using detail::FlatPath;
using detail::Vec;

// Elements as subpaths: lines open, triangles closed; a strip of lines is one subpath.
class ElementTracks {
  public:
    explicit ElementTracks(const VertexList& list) : list_{list} {
        const auto first = places_of(list, 0)[0];
        flat_.origin = {.x = static_cast<int>(std::floor(first.x)), .y = static_cast<int>(std::floor(first.y))};
    }

    void add(std::size_t element) {
        const auto places = places_of(list_, element);
        const auto vertices = kind_of(list_.as).vertices;
        const auto goes_on = list_.as == Elements::line_strip && !flat_.subpaths.empty();
        auto& subpath = goes_on ? flat_.subpaths.back() : flat_.subpaths.emplace_back();
        for (std::size_t i = goes_on ? 1 : 0; i < vertices; ++i) {
            subpath.add(Vec{places[i].x - flat_.origin.x, places[i].y - flat_.origin.y});
        }
        if (vertices != 3) return;
        // Clockwise, so that triangles add up.
        auto& nodes = subpath.nodes;
        if (nodes.size() == 3 && cross(nodes[1].at - nodes[0].at, nodes[2].at - nodes[0].at) < 0) {
            std::swap(nodes[1], nodes[2]);
        }
        subpath.close();
    }

    void add_all() {
        const auto count = list_.elements();
        for (std::size_t i = 0; i < count; ++i) add(i);
    }

    [[nodiscard]] const FlatPath& flat() const noexcept { return flat_; }
    [[nodiscard]] FlatPath take() noexcept { return std::move(flat_); }

  private:
    const VertexList& list_;
    FlatPath flat_;
};

Box scan_subpaths(const FlatPath& flat, const Stroke& how, const Box& clip, const detail::SpanSink& sink) {
    return how.width == Width{1} ? detail::scan_thin_subpaths(flat, how, clip, sink)
                                 : detail::scan_wide_subpaths(flat, detail::pen_along(how), how, clip, sink);
}

// Draws a triangle as a contour that goes clockwise, so that triangles add up.
void draw_triangle(const VertexList& list, std::size_t element, Point origin, detail::Contours& contours) {
    const auto places = places_of(list, element);
    const auto corner = [&](const Position& at) { return Vec{at.x - origin.x, at.y - origin.y}; };
    const auto [a, b, c] = std::array{corner(places[0]), corner(places[1]), corner(places[2])};
    const auto is_clockwise = cross(b - a, c - a) >= 0;
    contours.to(a);
    contours.to(is_clockwise ? b : c);
    contours.to(is_clockwise ? c : b);
    contours.close();
}

}  // namespace

Position Vertices::operator[](std::size_t number) const noexcept {
    const auto* const at = first_ + static_cast<std::ptrdiff_t>(number) * stride_;
    const auto read = [at](auto example) {
        decltype(example) pair[2];
        std::memcpy(pair, at, sizeof(pair));
        return Position{.x = static_cast<double>(pair[0]), .y = static_cast<double>(pair[1])};
    };
    switch (kind_) {
        case Kind::whole:
            return read(int{});
        case Kind::floats:
            return read(float{});
        default:
            return read(double{});
    }
}

std::size_t VertexList::elements() const noexcept {
    const auto [name, vertices, shares] = kind_of(as);
    const auto used = used_vertices(*this);
    if (!shares) return used / vertices;
    return used < vertices ? 0 : used - vertices + 1;
}

namespace detail {

void check_vertices(const VertexList& list) {
    check_choice("vertex list", "as", list.as,
                 {"points", "line_pairs", "line_strip", "triangles", "triangle_strip", "triangle_fan"});
    const auto [name, vertices, shares] = kind_of(list.as);
    const auto used = used_vertices(list);
    if (used < vertices || (!shares && used % vertices != 0)) {
        throw Error{"vertex list: " + std::to_string(used) + (list.indices.empty() ? " vertices" : " indices") +
                    " are given as " + name + "; allowed are " +
                    (shares ? std::to_string(vertices) + " or more" : "multiples of " + std::to_string(vertices))};
    }
    for (std::size_t i = 0; i < list.indices.size(); ++i) {
        if (list.indices[i] < list.at.size()) continue;
        throw Error{
            "vertex list: indices[" + std::to_string(i) + "] is " + std::to_string(list.indices[i]) + "; allowed is " +
            (list.at.size() == 0 ? "none, as there are no vertices" : "0 to " + std::to_string(list.at.size() - 1))};
    }
    for (std::size_t i = 0; i < list.at.size(); ++i) {
        const auto [x, y] = list.transform(list.at[i]);
        const auto is_within = [](double value) { return value >= -max_coordinate && value <= max_coordinate; };
        if (is_within(x) && is_within(y)) continue;
        throw Error{"vertex list: vertex " + std::to_string(i) + " comes to pixel " + in_digits(x) + "," +
                    in_digits(y) + "; allowed is " + std::to_string(-max_coordinate) + " to " +
                    std::to_string(max_coordinate)};
    }
}

void check_fillable(const VertexList& list) {
    check_vertices(list);
    const auto [name, vertices, shares] = kind_of(list.as);
    if (vertices == 3) return;
    throw Error{std::string{"vertex list: "} + name + (shares ? " has" : " have") +
                " no inside to fill; allowed are triangles, and what is stroked"};
}

void check_inks(const VertexList& list, std::size_t inks) {
    const auto elements = list.elements();
    if (inks == elements) return;
    throw Error{"vertex list: " + std::to_string(inks) + " inks are given for " + std::to_string(elements) + " of " +
                kind_of(list.as).name + "; each needs one"};
}

Geometry geometry_of(const VertexList& shape, const Tolerance&) {
    check_vertices(shape);
    ElementTracks subpaths{shape};
    subpaths.add_all();
    return LinesGeometry{.flat = subpaths.take()};
}

std::pair<Elements, std::vector<Position>> element_vertices(const VertexElement& element) {
    const auto places = places_of(element.list, element.number);
    const auto count = kind_of(element.list.as).vertices;
    const auto as = count == 1 ? Elements::points : (count == 2 ? Elements::line_pairs : Elements::triangles);
    return {as, {places.begin(), places.begin() + static_cast<std::ptrdiff_t>(count)}};
}

Geometry geometry_of(const VertexElement& shape, const Tolerance&) {
    ElementTracks subpaths{shape.list};
    subpaths.add(shape.number);
    return LinesGeometry{.flat = subpaths.take()};
}

Box scan_fill(const VertexList& shape, const Box& clip, const SpanSink& sink) {
    check_fillable(shape);
    const auto count = shape.elements();
    if (sink.repeats == Repeats::harmless) {
        auto touched = Box{};
        for (std::size_t i = 0; i < count; ++i) {
            touched = enclosing(touched, scan_fill(VertexElement{.list = shape, .number = i}, clip, sink));
        }
        return touched;
    }
    const auto origin = ElementTracks{shape}.flat().origin;
    return scan_contours(origin, FillRule::nonzero, clip, sink, [&](Contours& contours) {
        for (std::size_t i = 0; i < count; ++i) draw_triangle(shape, i, origin, contours);
    });
}

Box scan_fill(const VertexElement& shape, const Box& clip, const SpanSink& sink) {
    // All elements from the same origin, so that corners in common are the same.
    const auto origin = ElementTracks{shape.list}.flat().origin;
    return scan_contours(origin, FillRule::nonzero, clip, sink,
                         [&](Contours& contours) { draw_triangle(shape.list, shape.number, origin, contours); });
}

Box scan_stroke(const VertexList& shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    check_vertices(shape);
    check_stroke(how);
    ElementTracks subpaths{shape};
    subpaths.add_all();
    return scan_subpaths(subpaths.flat(), how, clip, sink);
}

Box scan_stroke(const VertexElement& shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    check_stroke(how);
    ElementTracks subpaths{shape.list};
    subpaths.add(shape.number);
    return scan_subpaths(subpaths.flat(), how, clip, sink);
}

}  // namespace detail

}  // namespace coldbrick::inline v0
