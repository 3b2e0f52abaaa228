// The same rules far out: coordinates and radii up to max_coordinate, seen through a small window.
#include "plane_oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/region.hpp>
#include <coldbrick/vertices.hpp>

#include <algorithm>
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
        auto ring = Polygon::Vertices{dice.point(everywhere), corner(), dice.point(everywhere), dice.point(everywhere)};
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

// Wide and long: what is in a small window far out is what the rule says.
TEST(Extremes, WideStrokesFarOut) {
    Dice dice{15};
    for (int i = 0; i < 60; ++i) {
        const auto width = i % 3 == 0 ? 1'000'001 + dice.number(0, 1000) : dice.number(2, 40);
        const auto a = Point{dice.number(-most, most), dice.number(-most, most)};
        const auto b = Point{dice.number(-most, most), dice.number(-most, most)};
        const auto along = dice.number(100, 900) / 1000.0L;
        // On the edge of the stroke, halfway.
        const auto direction = unit_of(place(b) - place(a));
        const auto shift = width % 2 == 0 ? Place{-0.5L, -0.5L} : Place{};
        const auto edge = place(a) + (place(b) - place(a)) * along + Place{direction.y, -direction.x} * (width / 2.0L);
        const auto window = window_at(static_cast<double>(edge.x), static_cast<double>(edge.y));
        expect_answers(
            stroked(Line{.from = a, .to = b}, {.width = width}),
            [&](Point p) {
                const auto away = std::abs(across(direction, place(p) - place(a) - shift));
                return between(away, -1, width / 2.0L);
            },
            window, "wide line far out", 0.3);
    }
}

TEST(Extremes, WideRingsAndEllipsesFarOut) {
    Dice dice{16};
    for (int i = 0; i < 60; ++i) {
        const auto width = i % 2 == 0 ? dice.number(2, 30) : dice.number(1'000'000, 2'000'000);
        const auto radius = dice.number(1 << 22, most / 2);
        const auto circle = Circle{.center = {dice.number(-most, most), dice.number(-most, most)}, .radius = radius};
        const auto turn = at_angle(dice.number(0, 3600) / 10.0L);
        const auto rim = place(circle.center) + turn * (radius + std::floor(width / 2.0L) + 0.5L);
        const auto window = window_at(static_cast<double>(rim.x), static_cast<double>(rim.y));
        const auto outer = in_circle({.center = circle.center, .radius = radius + width / 2});
        const auto inner = in_circle({.center = circle.center, .radius = radius + width / 2 - width});
        expect_pixels(
            stroked(circle, {.width = width}), [&](Point p) { return outer(p) && !inner(p); }, window, "ring");
        // Of an ellipse: with its normal there, the distance is that from the tangent.
        const auto a = static_cast<Real>(dice.number(1 << 20, most / 2)) + 0.5L;
        const auto b = static_cast<Real>(dice.number(1 << 20, most / 2)) + 0.5L;
        const auto on_rim = Place{a * turn.x, b * turn.y};
        const auto normal = unit_of({turn.x / a, turn.y / b});
        const auto far = on_rim + normal * std::floor(width / 2.0L);
        const auto ellipse = Ellipse::around({.center = {0, 0}, .radii = {static_cast<int>(a), static_cast<int>(b)}});
        const auto there = window_at(static_cast<double>(far.x), static_cast<double>(far.y));
        if (std::abs(normal.x) < 0.01L || std::abs(normal.y) < 0.01L) continue;
        expect_answers(
            stroked(ellipse, {.width = width}),
            [&](Point p) {
                const auto beyond = along(place(p) - far, normal);
                if (std::abs(beyond) < open_question * 2) return Answer::open;
                return beyond < 0 && beyond > -2 ? Answer::in : (beyond > 0 ? Answer::out : Answer::open);
            },
            there, "ellipse far out", 1);
    }
}

TEST(Extremes, DashesOfOnePixelAlongAPathOfAHundredMillion) {
    constexpr auto length = 100'000'000;
    const auto line = Line{.from = {-length, 7}, .to = {length, 7}};
    const auto window = Box{.at = {12'345'678, 0}, .size = sees};
    const auto on = [](Point p) { return (std::int64_t{p.x} + length) % 2 == 0; };
    expect_pixels(
        stroked(line, {.dash = {1}}), [&](Point p) { return p.y == 7 && on(p); }, window, "hairline");
    expect_pixels(
        stroked(line, {.width = 3, .dash = {1}}), [&](Point p) { return p.y >= 6 && p.y <= 8 && on(p); }, window,
        "wide");
    // And around a circle: nothing but what is near the window is made.
    const auto circle = stroked(Circle{.center = {-20'000'000, 0}, .radius = 20'000'000}, {.width = 5, .dash = {1}});
    const auto found = drawn(circle, {.at = {-12, -9}, .size = sees});
    EXPECT_GT(found.size(), 30U);
    EXPECT_LT(found.size(), 60U);
}

TEST(Extremes, PolygonsOfAHundredThousandVertices) {
    Polygon::Vertices ring;
    const auto count = is_sanitized ? 8'000 : 100'000;
    for (int i = 0; i < count; ++i) {
        const auto direction = at_angle(360.0L * i / count);
        const auto radius = 400 + 30 * (i % 2);
        ring.push_back(
            {static_cast<int>(std::lround(radius * direction.x)), static_cast<int>(std::lround(radius * direction.y))});
    }
    const Region fill{Polygon{ring}};
    EXPECT_TRUE(fill.contains({0, 399}));
    const Region stroke{stroked(Polygon{ring}, {.width = 5, .join = Join::round})};
    EXPECT_EQ(stroke.bounds(), (Box{.at = {-432, -432}, .size = {865, 865}}));
    EXPECT_FALSE(stroke.contains({0, 390}));
    EXPECT_TRUE(stroke.contains({0, 415}));
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
