// Large fills against memset of the same spans, and a huge circle against a small one.
#include "pairs.hpp"
#include "spans.hpp"

#include <coldbrick/draw.hpp>

#include <memory>
#include <string>

namespace bench {

namespace {

using namespace coldbrick;

template <PixelFormat Format>
void add_clear(const std::string& name, double allowed) {
    const auto bitmap = shared_bitmap<Format>();
    add({.name = name,
         .reference = "memset of its rows",
         .allowed = allowed,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(clear(*bitmap, ink)); },
         .other = memset_of(spans_of(Box{.at = {}, .size = sheet}), bitmap)});
}

// One bit a pixel: memset of as many bytes as a span has eight of, at least one.
template <class Area>
void add_bits(const std::string& name, const Area& area, double allowed) {
    const auto bitmap = shared_bitmap<Bit1>();
    const auto spans = std::make_shared<std::vector<Span>>(spans_of(area));
    add({.name = name,
         .reference = "memset of its spans, an eighth of them",
         .allowed = allowed,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(fill(*bitmap, area, ink)); },
         .other =
             [=] {
                 auto* const bytes = const_cast<std::uint8_t*>(bitmap->bytes().data());
                 constexpr auto row = static_cast<std::size_t>(row_bytes<Bit1>(sheet.width));
                 for (const auto& run : *spans) {
                     const auto first = static_cast<std::size_t>(run.y) * row + static_cast<std::size_t>(run.x / 8);
                     std::memset(bytes + first, 255, static_cast<std::size_t>(run.length + 7) / 8);
                 }
                 written(bytes);
             }});
}

template <class Draw>
void add_huge(const std::string& name, const Draw& draw) {
    const auto view = std::make_shared<Bitmap<Rgba8>>(Size{.width = 640, .height = 480}, gray(20));
    // Both edges go through the middle of the buffer, from top to bottom.
    const auto circle = [](int radius) { return Circle{.center = {.x = 320 - radius, .y = 240}, .radius = radius}; };
    add({.name = name,
         .reference = "the same, radius 1000",
         .allowed = 2,
         .items = 1,
         .ours = [=] { draw(*view, circle(1'000'000'000)); },
         .other = [=] { draw(*view, circle(1000)); }});
}

}  // namespace

void add_fills() {
    const auto box = Box{.at = {.x = 60, .y = 40}, .size = {.width = 1800, .height = 1000}};
    const auto circle = Circle{.center = {.x = 960, .y = 540}, .radius = 400};
    add_clear<Rgba8>("clear 1920x1080, 4 bytes", 1.15);
    add_clear<Rgb8>("clear 1920x1080, 3 bytes", 1.25);
    add_fill<Rgba8>("box 1800x1000, 4 bytes", box, 1.15);
    add_fill<Rgb8>("box 1800x1000, 3 bytes", box, 1.25);
    add_fill<Rgba8>("circle of radius 400, 4 bytes", circle, 1.5);
    add_fill<Rgb8>("circle of radius 400, 3 bytes", circle, 1.5);
    add_fill<Rgba8>("ten-pointed star, 4 bytes", ten_pointed_star(), 1.5);
    add_fill<Rgb8>("ten-pointed star, 3 bytes", ten_pointed_star(), 1.5);
    add_fill<Rgba8>("ten-pointed star, shared edges, 4 bytes", filled(ten_pointed_star(), {.edges = Edges::shared}), 0);
    add_bits("box 1800x1000, 1 bit", box, 1.5);
    add_bits("circle of radius 400, 1 bit", circle, 0);
    add_bits("ten-pointed star, 1 bit", ten_pointed_star(), 0);
    add_huge("filled circle of radius 10^9 in 640x480",
             [](auto& view, const Circle& c) { benchmark::DoNotOptimize(fill(view, c, ink)); });
    add_huge("circle outline of radius 10^9 in 640x480",
             [](auto& view, const Circle& c) { benchmark::DoNotOptimize(stroke(view, c, ink)); });
}

}  // namespace bench
