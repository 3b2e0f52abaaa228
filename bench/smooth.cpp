// Smooth edges, translucent inks and gradients.
#include "spans.hpp"

#include <coldbrick/gradient.hpp>
#include <coldbrick/pattern.hpp>

#include <string>

namespace bench {

namespace {

constexpr auto whole_sheet = Box{.at = {.x = 0, .y = 0}, .size = sheet};

// An ink on the whole sheet, against memset of its bytes.
template <PixelFormat Format>
void add_ink(const std::string& name, const Ink& laid, double allowed) {
    const auto bitmap = shared_bitmap<Format>();
    add({.name = name,
         .reference = "memset of its rows",
         .allowed = allowed,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(fill(*bitmap, whole_sheet, laid)); },
         .other = memset_of(spans_of(whole_sheet), bitmap)});
}

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

// A smooth stroke of width 4 against the smooth fill of the same shape, or of one that has a fill.
template <class Shape, class Filled>
void add_smooth_stroke(const std::string& name, const Shape& shape, const Filled& of) {
    const auto bitmap = shared_bitmap<Rgba8>();
    constexpr auto allowed = 3;
    add({.name = name,
         .reference = "its smooth fill",
         .allowed = allowed,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(stroke(*bitmap, shape, {.width = 4, .edge = Edge::smooth}, ink)); },
         .other = [=] { benchmark::DoNotOptimize(fill(*bitmap, of, {.edge = Edge::smooth}, ink)); }});
}

void add_smooth_strokes() {
    constexpr auto center = Point{.x = 960, .y = 540};
    for (const auto radius : {5, 45, 500}) {
        const auto of_radius = " of radius " + std::to_string(radius);
        const auto circle = Circle{.center = center, .radius = radius};
        const auto sweep = Sweep{.from = 20_deg, .by = 200_deg};
        const auto ellipse = Ellipse::around({.center = center, .radii = {radius, radius * 2 / 3}});
        const auto box = Box{.at = {center.x - radius, center.y - radius}, .size = {2 * radius, 2 * radius}};
        const auto rounded = RoundedBox{.box = box, .corner_radius = radius / 3};
        add_smooth_stroke("smooth stroke, circle" + of_radius, circle, circle);
        add_smooth_stroke("smooth stroke, ellipse" + of_radius, ellipse, ellipse);
        add_smooth_stroke("smooth stroke, rounded box" + of_radius, rounded, rounded);
        add_smooth_stroke("smooth stroke, arc" + of_radius, Arc{.of = circle, .sweep = sweep},
                          Sector{.of = circle, .sweep = sweep});
        add_smooth_stroke("smooth stroke, arc of an ellipse" + of_radius, Arc{.of = ellipse, .sweep = sweep},
                          Sector{.of = ellipse, .sweep = sweep});
    }
}

LinearGradient across_the_sheet(Position to) {
    return {.from = {0, 0}, .to = to, .stops = {{0, gray(20)}, {0.5, ink}, {1, gray(250)}}};
}

}  // namespace

void add_smooth() {
    const auto translucent = Ink{with_alpha(ink, 100)};
    add_ink<Rgba8>("translucent box 1920x1080, 4 bytes", translucent, 2.5);
    add_ink<Rgb8>("translucent box 1920x1080, 3 bytes", translucent, 2.5);
    add_ink<Rgba8>("linear gradient, slanted", across_the_sheet({1919, 1079}), 4);
    add_ink<Rgba8>("linear gradient, from top to bottom", across_the_sheet({0, 1079}), 4);
    auto dithered = across_the_sheet({1919, 1079});
    dithered.dither = Dither::ordered;
    add_ink<Rgba8>("linear gradient, dithered", dithered, 0);
    add_ink<Rgba8>("radial gradient",
                   RadialGradient{.center = {960, 540}, .radius = 900, .stops = {{0, gray(20)}, {1, ink}}}, 0);
    add_ink<Rgba8>("conic gradient", ConicGradient{.center = {960, 540}, .stops = {{0, gray(20)}, {1, ink}}}, 0);
    add_ink<Rgba8>("multiply", Ink{ink, {.blend = Blend::multiply}}, 0);
    const auto circle = Circle{.center = {.x = 960, .y = 540}, .radius = 400};
    add_smooth_fill<Rgba8>("smooth circle of radius 400, 4 bytes", circle, 1.6);
    add_smooth_fill<Rgb8>("smooth circle of radius 400, 3 bytes", circle, 1.6);
    add_smooth_fill<Rgba8>("smooth ten-pointed star, 4 bytes", ten_pointed_star(), 2);
    add_smooth_fill<Rgb8>("smooth ten-pointed star, 3 bytes", ten_pointed_star(), 2);
    add_smooth_strokes();
}

}  // namespace bench
