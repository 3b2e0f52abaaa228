// How the time of large shapes with smooth edges grows: with ten times as many edges, or turns, or capsules.
#include "spans.hpp"

#include <coldbrick/path.hpp>

#include <cmath>
#include <numbers>
#include <string>

namespace bench {

namespace {

using Ring = subpixel::Polygon::Vertices;

constexpr auto filled_smooth = Fill{.rule = FillRule::nonzero, .edges = Edges::shared, .edge = Edge::smooth};
// n log n, of ten times as many.
constexpr auto grown = 13.0;

// draw(bitmap, count) for so many, and for a tenth of them.
template <class Draw>
void add_growth(const std::string& name, int count, const Draw& draw) {
    const auto bitmap = shared_bitmap<Rgba8>();
    add({.name = name,
         .reference = "a tenth of it",
         .allowed = grown,
         .items = 1,
         .ours = [=] { draw(*bitmap, count); },
         .other = [=] { draw(*bitmap, count / 10); }});
}

double at_random(unsigned& seed) {
    seed = seed * 1664525U + 1013904223U;
    return (seed >> 8U) / 16777216.0;
}

// Edges from above to below, of which one row is seen.
void fill_one_row(Bitmap<Rgba8>& to, int count) {
    auto seed = 1U;
    Ring ring;
    for (auto i = 0; i < count; ++i)
        ring.push_back({1200 * at_random(seed), 200 + (i % 2 == 0 ? -1 : 1) * at_random(seed)});
    const auto row = to.within(Box{{0, 200}, {1200, 1}});
    fill(row, subpixel::Polygon{ring}, filled_smooth, ink);
}

void stroke_capsules(Bitmap<Rgba8>& to, int count) {
    Path path;
    for (auto i = 0; i < count; ++i) path.move({100 + i % 40, 80}).line({130 + i % 7, 100});
    stroke(to, path, {.width = 5, .cap = Cap::round, .edge = Edge::smooth}, ink);
}

void fill_comb(Bitmap<Rgba8>& to, int teeth) {
    Ring ring;
    for (auto i = 0; i < teeth; ++i) {
        ring.push_back({10 + 1180.0 * i / teeth, 20});
        ring.push_back({10 + 1180.0 * (i + 0.5) / teeth, 880});
    }
    ring.insert(ring.end(), {{1195, 20}, {1195, 10}, {5, 10}});
    fill(to, subpixel::Polygon{ring}, filled_smooth, ink);
}

void stroke_spiral(Bitmap<Rgba8>& to, int turns) {
    constexpr auto steps = 100;
    subpixel::Polyline spiral;
    for (auto i = 0; i < turns * steps; ++i) {
        const auto angle = 2 * std::numbers::pi * i / steps;
        const auto radius = 440.0 * i / (turns * steps);
        spiral.through.push_back({600 + radius * std::cos(angle), 450 + radius * std::sin(angle)});
    }
    stroke(to, spiral, {.width = 0.25, .edge = Edge::smooth}, ink);
}

// Each side goes through the middle, or nearly.
void fill_star(Bitmap<Rgba8>& to, int corners) {
    const auto odd = corners / 2 * 2 + 1;
    Ring ring;
    for (std::int64_t i = 0; i < odd; ++i) {
        const auto angle = 2 * std::numbers::pi * static_cast<double>(i * (odd / 2) % odd) / odd;
        ring.push_back({600 + 440 * std::cos(angle), 450 + 440 * std::sin(angle)});
    }
    fill(to, subpixel::Polygon{ring}, filled_smooth, ink);
}

}  // namespace

void add_growth() {
    add_growth("100,000 edges in one row, smooth", 100000, fill_one_row);
    add_growth("20,000 capsules in one place, smooth", 20000, stroke_capsules);
    add_growth("comb of 50,000 teeth, smooth", 50000, fill_comb);
    add_growth("spiral of 1,000 turns, smooth", 1000, stroke_spiral);
    add_growth("star of 10,001 corners through its middle, smooth", 10000, fill_star);
}

}  // namespace bench
