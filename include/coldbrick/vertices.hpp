// coldbrick/vertices.hpp - many points, lines or triangles in one call, from arrays of the caller's, without a copy.
//
//     std::vector<Point> corners = {{5, 5}, {80, 9}, {30, 60}, {90, 66}};
//     std::vector<std::uint32_t> order = {0, 1, 2, 2, 1, 3};
//     fill  (chart, VertexList{.as = Elements::triangles, .at = corners, .indices = order}, seagreen);
//     stroke(chart, VertexList{.as = Elements::line_strip, .at = corners}, {.width = 3}, colors::white);
//
//     // Floats of one's own, x and y in turn, from -1 to 1 with y up; an ink for each triangle (draw_each.hpp).
//     fill_each(chart, VertexList{.as = Elements::triangle_strip, .at = Vertices::of(floats.data(), count),
//                                 .transform = Transform::fitting({-1, 1, -1, 1}, sheet)}, inks);
//
// Triangles are filled with shared edges (docs/pixel-rules.md, "Fills"): those of a mesh cover each pixel once, without
// seams. With one ink for all, a call touches each pixel at most once, also where triangles or lines overlap.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/spans.hpp"
#include "coldbrick/transform.hpp"

#include <cstddef>
#include <cstdint>
#include <span>
#include <utility>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// Places in memory of an owner that outlives them: pairs of numbers, at a fixed distance from each other.
class Vertices {
  public:
    Vertices(std::span<const Point> points) noexcept
        : Vertices{points.data(), points.size(), sizeof(Point), Kind::whole} {}
    Vertices(std::span<const Position> places) noexcept
        : Vertices{places.data(), places.size(), sizeof(Position), Kind::doubles} {}
    Vertices(const std::vector<Point>& points) noexcept : Vertices{std::span{points}} {}
    Vertices(const std::vector<Position>& places) noexcept : Vertices{std::span{places}} {}

    // Pairs x, y one after the other, or `stride` bytes from one to the next.
    static Vertices of(const float* first, std::size_t count, std::ptrdiff_t stride = 2 * sizeof(float)) noexcept {
        return {first, count, stride, Kind::floats};
    }
    static Vertices of(const double* first, std::size_t count, std::ptrdiff_t stride = 2 * sizeof(double)) noexcept {
        return {first, count, stride, Kind::doubles};
    }
    static Vertices of(const int* first, std::size_t count, std::ptrdiff_t stride = 2 * sizeof(int)) noexcept {
        return {first, count, stride, Kind::whole};
    }

    [[nodiscard]] std::size_t size() const noexcept { return count_; }
    [[nodiscard]] Position operator[](std::size_t number) const noexcept;

  private:
    enum class Kind : std::uint8_t { whole, floats, doubles };
    Vertices(const void* first, std::size_t count, std::ptrdiff_t stride, Kind kind) noexcept
        : first_{static_cast<const std::byte*>(first)}, count_{count}, stride_{stride}, kind_{kind} {}

    const std::byte* first_;
    std::size_t count_;
    std::ptrdiff_t stride_;
    Kind kind_;
};

// What is made of the vertices in turn. points: each on its own. line_pairs: a line of two each. line_strip: from each
// to the next. triangles: of three each. triangle_strip: of each with the next two. triangle_fan: of the first with
// each of the others and the next.
enum class Elements { points, line_pairs, line_strip, triangles, triangle_strip, triangle_fan };

// A list of triangles is an area; points and lines have no inside, and filling them throws Error. Stroked, triangles
// are drawn as their outlines, points as dots.
struct VertexList {
    Elements as;
    Vertices at;
    // Which vertices, in which order; empty: all, as they are.
    std::span<const std::uint32_t> indices = {};
    // From the vertices' coordinates to pixels.
    Transform transform = {};

    // How many points, lines or triangles it has.
    [[nodiscard]] std::size_t elements() const noexcept;
};

namespace detail {

// Checks the whole list. Throws Error if there are no vertices or too few for an element, if pairs or triangles are
// incomplete, if an index lies outside of the array, if a place is beyond max_coordinate or no number.
void check_vertices(const VertexList& list);

// One element of a list.
struct VertexElement {
    const VertexList& list;
    std::size_t number;
};

// What check_vertices says, and that the list has insides.
void check_fillable(const VertexList& list);

// The same as a list of its own: of what kind, and its vertices in pixels.
std::pair<Elements, std::vector<Position>> element_vertices(const VertexElement& element);

// Throws Error unless there is an ink for each element.
void check_inks(const VertexList& list, std::size_t inks);

}  // namespace detail

}  // namespace v0
}  // namespace coldbrick
