// The same rules far out: coordinates and radii up to max_coordinate, seen through a small window.
#include "oracle.hpp"

#include <cmath>
#include <limits>
#include <numbers>

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr auto most = max_coordinate;
constexpr auto sees = Size{.width = 24, .height = 18};

int inward(double coordinate) {
    return static_cast<int>(std::lround(std::clamp(coordinate, -static_cast<double>(most), static_cast<double>(most))));
}

double quarter_turns(int count) { return count * std::numbers::pi / 2; }

// A window around a place, inside the valid coordinates.
Box window_at(double x, double y) {
    return {.at = {std::clamp(inward(x) - 12, -most, most - sees.width + 1),
                   std::clamp(inward(y) - 9, -most, most - sees.height + 1)},
            .size = sees};
}

TEST(Extremes, HugeCirclesAlongTheirRim) {
    Dice dice{11};
    for (int i = 0; i < 200; ++i) {
        const auto radius = i < 20 ? most : dice.number(1000, most);
        const auto circle = Circle{.center = {dice.number(-most, most), dice.number(-most, most)}, .radius = radius};
        const auto turn = i % 10 == 0 ? quarter_turns(i / 10) : dice.number(0, 6283) / 1000.0;
        const auto window =
            window_at(circle.center.x + radius * std::cos(turn), circle.center.y + radius * std::sin(turn));
        expect_pixels(circle, in_circle(circle), window, "huge circle");
        expect_pixels(stroked(circle), outline(in_circle(circle)), window, "huge circle outline");
    }
}

TEST(Extremes, HugeAndVeryThinEllipses) {
    Dice dice{12};
    for (int i = 0; i < 200; ++i) {
        const auto extent = [&] { return i % 4 == 0 ? dice.number(1, 3) : dice.number(1 << 16, most); };
        const auto radii = Radii{.x = extent(), .y = i % 8 == 0 ? dice.number(1 << 20, most) : extent()};
        const auto center = Point{dice.number(-most, most), dice.number(-most, most)};
        const auto turn = i % 3 == 0 ? quarter_turns(i / 3) : dice.number(0, 6283) / 1000.0;
        const auto window = window_at(center.x + radii.x * std::cos(turn), center.y + radii.y * std::sin(turn));
        const auto ellipse = Ellipse::around({.center = center, .radii = radii});
        const auto rule = in_ellipse(std::int64_t{center.x} - radii.x, std::int64_t{center.y} - radii.y,
                                     std::int64_t{2} * radii.x + 1, std::int64_t{2} * radii.y + 1);
        expect_pixels(ellipse, rule, window, "huge ellipse");
        expect_pixels(stroked(ellipse), outline(rule), window, "huge ellipse outline");
    }
}

TEST(Extremes, LongLines) {
    Dice dice{13};
    for (int i = 0; i < 400; ++i) {
        const auto far = [&] {
            return i % 5 == 0 ? (dice.number(0, 1) == 0 ? -most : most) : dice.number(-most, most);
        };
        const auto a = Point{far(), far()};
        const auto b =
            i % 4 == 0 ? Point{far(), std::clamp(a.y + dice.number(-9, 9), -most, most)} : Point{far(), far()};
        const auto along = dice.number(0, 1000) / 1000.0;
        const auto window = window_at(a.x + along * (double{1} * b.x - a.x), a.y + along * (double{1} * b.y - a.y));
        const auto rule = [=](Point p) { return on_line(a, b, p); };
        const auto line = stroked(Line{.from = a, .to = b});
        EXPECT_FALSE(drawn(line, window).empty());
        expect_pixels(line, rule, window, "long line");
    }
}

TEST(Extremes, LongPolygons) {
    Dice dice{14};
    const auto everywhere = Box::between({.from = {-most, -most}, .to = {most, most}});
    for (int i = 0; i < 200; ++i) {
        const auto corner = [&] { return Point{dice.number(0, 1) == 0 ? -most : most, dice.number(-most, most)}; };
        auto ring = Ring{dice.point(everywhere), corner(), dice.point(everywhere), dice.point(everywhere)};
        const auto polygon = Polygon{ring};
        const auto along = dice.number(0, 1000) / 1000.0;
        const auto [a, b] = std::pair{ring[0], ring[1]};
        const auto window = window_at(a.x + along * (double{1} * b.x - a.x), a.y + along * (double{1} * b.y - a.y));
        for (const auto edges : {Edges::inclusive, Edges::shared}) {
            const auto how = Fill{.rule = FillRule::nonzero, .edges = edges};
            expect_pixels(filled(polygon, how), in_polygon(polygon, how), window, "long polygon");
        }
        expect_pixels(stroked(polygon), on_outline(polygon), window, "long polygon outline");
    }
}

TEST(Extremes, BoundsOfHugeShapes) {
    const auto widest = Circle{.center = {most, -most}, .radius = most};
    EXPECT_EQ(bounds(widest), (Box{.at = {0, -2 * most}, .size = {2 * most + 1, 2 * most + 1}}));
    const auto across = Box::between({.from = {-most, -most}, .to = {most, most}});
    EXPECT_EQ(bounds(across), across);
    // The bottom corner and the slanted edge's own pixels belong to the neighbours.
    const auto half = Polygon{{0, 0}, {most, 0}, {0, most}};
    EXPECT_EQ(bounds(half), (Box{.at = {0, 0}, .size = {most + 1, most + 1}}));
    EXPECT_EQ(bounds(filled(half, {.edges = Edges::shared})), (Box{.at = {0, 0}, .size = {most, most}}));
}

TEST(Extremes, BoxesAtTheEdgeOfTheNumbers) {
    const auto far = Box{.at = {most, most}, .size = {most, most}};
    EXPECT_EQ(drawn(far, window_at(most, most)).size(), 1U);
    EXPECT_TRUE(contains(far, Point{2 * most - 1, 2 * most - 1}));
    EXPECT_FALSE(contains(far, Point{2 * most, most}));
    EXPECT_FALSE(contains(far, Point{std::numeric_limits<int>::max(), std::numeric_limits<int>::max()}));
    EXPECT_FALSE(contains(Circle{.center = {0, 0}, .radius = 3}, Point{std::numeric_limits<int>::max(), 0}));
}

}  // namespace
