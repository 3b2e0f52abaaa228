// Strokes, arcs, sectors, large polygons and regions.
#include "pairs.hpp"
#include "spans.hpp"

#include <coldbrick/region.hpp>
#include <coldbrick/vertices.hpp>

#include <memory>
#include <string>

namespace bench {

namespace {

using namespace coldbrick;

// Draws one shape and another one as its reference, each a thousand times, all over the sheet.
template <class Draw, class DrawOther>
void add_round(const std::string& name, const std::string& reference, double allowed, const Draw& draw,
               const DrawOther& other) {
    const auto bitmap = shared_bitmap<Rgba8>();
    constexpr auto times = 200;
    const auto repeat = [bitmap](const auto& call) {
        return [=] {
            for (int i = 0; i < times; ++i) {
                const auto center = Point{.x = 60 + i * 37 % 1800, .y = 60 + i * 53 % 960};
                benchmark::DoNotOptimize(call(*bitmap, Circle{.center = center, .radius = 40}));
            }
        };
    };
    add({.name = name,
         .reference = reference,
         .allowed = allowed,
         .items = times,
         .ours = repeat(draw),
         .other = repeat(other)});
}

void add_round_parts() {
    constexpr auto sweep = Sweep{.from = Angle::degrees(200), .by = Angle::degrees(250)};
    const auto wide = Stroke{.width = 6};
    add_round(
        "arc of radius 40, width 1", "the full circle", 1.5,
        [=](auto& to, const Circle& c) { return stroke(to, Arc{.of = c, .sweep = sweep}, ink); },
        [=](auto& to, const Circle& c) { return stroke(to, c, ink); });
    add_round(
        "arc of radius 40, width 6", "the full circle", 1.5,
        [=](auto& to, const Circle& c) { return stroke(to, Arc{.of = c, .sweep = sweep}, wide, ink); },
        [=](auto& to, const Circle& c) { return stroke(to, c, wide, ink); });
    add_round(
        "filled sector of radius 40", "the full circle", 1.5,
        [=](auto& to, const Circle& c) { return fill(to, Sector{.of = c, .sweep = sweep}, ink); },
        [=](auto& to, const Circle& c) { return fill(to, c, ink); });
}

void add_regions() {
    const auto left = std::make_shared<Region>(Circle{.center = {.x = 1000, .y = 1000}, .radius = 1000});
    const auto right = std::make_shared<Region>(Circle{.center = {.x = 1700, .y = 1300}, .radius = 1000});
    const auto both = std::make_shared<Region>(unite(*left, *right));
    const auto gray_sheet = std::make_shared<Bitmap<Gray8>>(Size{.width = 2800, .height = 2400});
    add({.name = "union of two discs of radius 1000",
         .reference = "writing its spans, 1 byte a pixel",
         .allowed = 3,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(unite(*left, *right)); },
         .other = [=] { benchmark::DoNotOptimize(fill(*gray_sheet, *both, ink)); }});
    // Each has a quarter of the discs of the one behind it: n log n would be 4.8.
    const auto discs = [](int count) {
        std::vector<Region> all;
        for (int i = 0; i < count; ++i) {
            all.emplace_back(Circle{.center = {.x = 100 + i * 37 % 2500, .y = 100 + i * 53 % 2100}, .radius = 40});
        }
        return all;
    };
    const auto unite_all = [](std::vector<Region> all) {
        // In pairs, so that each is looked at some ten times.
        for (; all.size() > 1; all.resize((all.size() + 1) / 2)) {
            for (std::size_t i = 0; 2 * i < all.size(); ++i) {
                all[i] = 2 * i + 1 < all.size() ? unite(all[2 * i], all[2 * i + 1]) : all[2 * i];
            }
        }
        return all.front();
    };
    const auto more = std::make_shared<std::vector<Region>>(discs(1000));
    const auto fewer = std::make_shared<std::vector<Region>>(discs(250));
    add({.name = "union of 1,000 discs of radius 40",
         .reference = "of 250",
         .allowed = 4.8,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(unite_all(*more)); },
         .other = [=] { benchmark::DoNotOptimize(unite_all(*fewer)); }});
    add({.name = "the same union",
         .reference = "a list of its spans, one by one",
         .allowed = 0,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(unite(*left, *right)); },
         .other =
             [=] {
                 std::vector<Span> spans;
                 for_each_span(*both, both->bounds(), [&](const Span& run) { spans.push_back(run); });
                 benchmark::DoNotOptimize(spans.data());
             }});
}

}  // namespace

void add_strokes() {
    const auto wide = Stroke{.width = 8};
    add_fill<Rgba8>("stroke of width 8, circle of radius 400",
                    stroked(Circle{.center = {.x = 960, .y = 540}, .radius = 400}, wide), 2);
    add_fill<Rgba8>("stroke of width 8, ellipse 800x300",
                    stroked(Ellipse::within({.at = {.x = 560, .y = 390}, .size = {.width = 800, .height = 300}}), wide),
                    2);
    add_fill<Rgba8>("stroke of width 8, polygon of 1,000 edges", stroked(wavy_polygon(1000), wide), 5);
    const auto sheet_of = shared_bitmap<Rgba8>();
    const auto large = wavy_polygon(100'000);
    const auto small = wavy_polygon(10'000);
    add({.name = "fill of a polygon of 100,000 edges",
         .reference = "the same, 10,000 edges",
         .allowed = 12.5,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(fill(*sheet_of, large, ink)); },
         .other = [=] { benchmark::DoNotOptimize(fill(*sheet_of, small, ink)); }});
    add_round_parts();
    add_regions();
}

}  // namespace bench
