// Smooth edges.
#include "spans.hpp"

#include <string>

namespace bench {

namespace {

// A shape with smooth edges against the same with crisp ones.
template <PixelFormat Format, class Shape>
void add_smooth_fill(const std::string& name, const Shape& shape, double allowed) {
    const auto bitmap = shared_bitmap<Format>();
    add({.name = name,
         .reference = "with crisp edges",
         .allowed = allowed,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(fill(*bitmap, shape, {.edge = Edge::smooth}, ink)); },
         .other = [=] { benchmark::DoNotOptimize(fill(*bitmap, shape, ink)); }});
}

// A smooth stroke against the smooth fill of the same shape, or of one that has a fill.
template <class Shape, class Filled>
void add_smooth_stroke(const std::string& name, const Shape& shape, const Filled& of, int width) {
    const auto bitmap = shared_bitmap<Rgba8>();
    constexpr auto allowed = 2;
    add({.name = name,
         .reference = "its smooth fill",
         .allowed = allowed,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(stroke(*bitmap, shape, {.width = width, .edge = Edge::smooth}, ink)); },
         .other = [=] { benchmark::DoNotOptimize(fill(*bitmap, of, {.edge = Edge::smooth}, ink)); }});
}

// Small shapes with smooth edges, 200 of them all over a corner of the sheet.
template <class Shape, class Make>
void add_small_smooth_of(const std::string& name, const Make& make) {
    constexpr auto allowed = 2.5;
    constexpr auto times = 200;
    const auto bitmap = shared_bitmap<Rgba8>();
    const auto draw = [=](Edge edge) {
        return [=] {
            for (int i = 0; i < times; ++i) {
                const auto shape = make(Point{.x = 60 + i * 37 % 400, .y = 60 + i * 53 % 300});
                benchmark::DoNotOptimize(fill(*bitmap, shape, Fill{.edge = edge}, ink));
            }
        };
    };
    add({.name = name,
         .reference = "with crisp edges",
         .allowed = allowed,
         .items = times,
         .ours = draw(Edge::smooth),
         .other = draw(Edge::crisp)});
}

void add_small_smooth() {
    for (const auto size : {5, 12, 25, 50}) {
        const auto of_size = " of " + std::to_string(size) + " pixels";
        const auto corner = [size](Point at) { return Point{.x = at.x - size / 2, .y = at.y - size / 2}; };
        add_small_smooth_of<Ellipse>("smooth circle" + of_size, [=](Point at) {
            return Ellipse::within({.at = corner(at), .size = {.width = size, .height = size}});
        });
        add_small_smooth_of<Ellipse>("smooth ellipse" + of_size, [=](Point at) {
            return Ellipse::within({.at = corner(at), .size = {.width = size, .height = size * 2 / 3}});
        });
        add_small_smooth_of<Polygon>("smooth triangle" + of_size, [=](Point at) {
            const auto [x, y] = corner(at);
            return Polygon{{x, y}, {x + size, y + size / 3}, {x + size / 4, y + size}};
        });
        add_small_smooth_of<Box>("smooth box" + of_size, [=](Point at) {
            return Box{.at = corner(at), .size = {.width = size, .height = size}};
        });
        add_small_smooth_of<RoundedBox>("smooth rounded box" + of_size, [=](Point at) {
            return RoundedBox{.box = {.at = corner(at), .size = {.width = size, .height = size}},
                              .corner_radius = size / 3};
        });
    }
}

void add_smooth_strokes(int radius, int width) {
    constexpr auto center = Point{.x = 960, .y = 540};
    const auto name = [&](const std::string& shape) {
        return "smooth stroke of width " + std::to_string(width) + ", " + shape + " of radius " +
               std::to_string(radius);
    };
    const auto circle = Circle{.center = center, .radius = radius};
    const auto sweep = Sweep{.from = 20_deg, .by = 200_deg};
    const auto ellipse = Ellipse::around({.center = center, .radii = {radius, radius * 2 / 3}});
    const auto box = Box{.at = {center.x - radius, center.y - radius}, .size = {2 * radius, 2 * radius}};
    const auto rounded = RoundedBox{.box = box, .corner_radius = radius / 3};
    add_smooth_stroke(name("circle"), circle, circle, width);
    add_smooth_stroke(name("ellipse"), ellipse, ellipse, width);
    add_smooth_stroke(name("rounded box"), rounded, rounded, width);
    add_smooth_stroke(name("arc"), Arc{.of = circle, .sweep = sweep}, Sector{.of = circle, .sweep = sweep}, width);
    add_smooth_stroke(name("arc of an ellipse"), Arc{.of = ellipse, .sweep = sweep},
                      Sector{.of = ellipse, .sweep = sweep}, width);
}

}  // namespace

void add_smooth() {
    add_small_smooth();
    add_smooth_fill<Rgba8>("smooth polygon of 1,000 edges", wavy_polygon(1000), 1.8);
    const auto circle = Circle{.center = {.x = 960, .y = 540}, .radius = 400};
    add_smooth_fill<Rgba8>("smooth circle of radius 400, 4 bytes", circle, 1.6);
    add_smooth_fill<Rgb8>("smooth circle of radius 400, 3 bytes", circle, 1.6);
    add_smooth_fill<Rgba8>("smooth ten-pointed star, 4 bytes", ten_pointed_star(), 1.8);
    add_smooth_fill<Rgb8>("smooth ten-pointed star, 3 bytes", ten_pointed_star(), 1.8);
    for (const auto radius : {5, 45, 500}) {
        for (const auto width : {1, 4, 8}) add_smooth_strokes(radius, width);
    }
}

}  // namespace bench
