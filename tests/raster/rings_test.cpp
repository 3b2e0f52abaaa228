// Rings, and widths that are not whole, by brute force.
#include "plane_oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <cmath>

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr Box window{{-50, -50}, {101, 101}};

std::string words(const Ring& ring) {
    return "ring " + std::to_string(ring.center.x) + "," + std::to_string(ring.center.y) + " of " +
           std::to_string(ring.radius) + " and " + std::to_string(ring.inner_radius);
}

// Of the disc, what is not in the hole: both outlines belong to it.
Membership in_ring(const Ring& ring) {
    return [=](Point p) {
        const auto square =
            Wide{p.x - ring.center.x} * (p.x - ring.center.x) + Wide{p.y - ring.center.y} * (p.y - ring.center.y);
        const Wide most = ring.radius;
        const Wide least = ring.inner_radius;
        return square <= most * most + most && (least == 0 || square > least * least - least);
    };
}

TEST(Rings, HaveThePixelsBetweenTheirCircles) {
    Dice dice{7};
    for (int i = 0; i < 120; ++i) {
        const auto radius = dice.number(0, 30);
        const Ring ring{
            .center = dice.point({{-9, -9}, {19, 19}}), .radius = radius, .inner_radius = dice.number(0, radius)};
        expect_whole(ring, in_ring(ring), window, words(ring));
        expect_whole(stroked(ring), outline(in_ring(ring)), window, "outline of " + words(ring));
        // A sweep cuts it as it cuts a sector of the same circle.
        const auto sweep =
            Sweep{.from = Angle::degrees(dice.number(0, 359)), .by = Angle::degrees(dice.number(-300, 300))};
        auto part = ring;
        part.sweep = sweep;
        const auto slice = drawn(Sector{.of = Circle{.center = ring.center, .radius = radius}, .sweep = sweep}, window);
        expect_whole(
            part, [&](Point p) { return in_ring(ring)(p) && has(slice, p); }, window, "part of " + words(ring));
    }
}

TEST(Rings, AreStrokedAlongBothEdges) {
    Dice dice{8};
    for (int i = 0; i < 60; ++i) {
        const auto radius = dice.number(12, 30);
        const Ring ring{.center = {3, -2}, .radius = radius, .inner_radius = dice.number(6, radius - 4)};
        const auto width = dice.number(2, 4);
        for (const auto align : {Align::inside, Align::outside, Align::center}) {
            const auto out = align == Align::inside    ? 0.0L
                             : align == Align::outside ? Real{1} * width
                                                       : std::floor(width / 2.0L);
            expect_answers(
                stroked(ring, {.width = width, .align = align}),
                [&](Point p) {
                    const auto away = size_of(place(p) - place(ring.center));
                    // How far outside of the ring.
                    const auto beyond = std::max(away - ring.radius - 0.5L, ring.inner_radius - 0.5L - away);
                    return between(beyond, out - width, out);
                },
                window, words(ring), 0.03);
        }
    }
}

TEST(Rings, SmoothOnesCoverTheirArea) {
    const auto area_of = [](const auto& ring) {
        auto sum = 0.0;
        for_each_coverage(filled(ring, {.edge = Edge::smooth}), window,
                          [&](int, int, int length, int coverage) { sum += double{1} * length * coverage / 255; });
        return sum;
    };
    const auto square = [](double value) { return value * value; };
    for (const auto& [radius, inner] : {std::pair{20.0, 11.0}, {17.25, 3.5}, {30.0, 29.5}, {9.0, 0.0}}) {
        const subpixel::Ring ring{.center = {1.5, -2.25}, .radius = radius, .inner_radius = inner};
        const auto hole = inner > 0.5 ? square(inner - 0.5) : 0;
        EXPECT_NEAR(area_of(ring), std::numbers::pi * (square(radius + 0.5) - hole), 0.6) << radius;
        auto quarter = ring;
        quarter.sweep = Sweep{.from = Angle::degrees(37), .by = Angle::degrees(90)};
        EXPECT_NEAR(area_of(quarter), area_of(ring) / 4, 0.5) << radius;
    }
    // Between whole pixels and moved by whole ones, the same.
    const Ring whole{.center = {0, 0}, .radius = 14, .inner_radius = 9};
    const auto moved =
        transformed(subpixel::Ring{.center = {-3, 0}, .radius = 14, .inner_radius = 9}, Transform{}.move({3, 0}));
    EXPECT_EQ((SmoothRegion{filled(whole, {.edge = Edge::smooth}), window}),
              (SmoothRegion{transformed(filled(moved.area, {.edge = Edge::smooth}), moved.by), window}));
}

TEST(Rings, RefuseWhatIsNone) {
    EXPECT_THROW((void)bounds(Ring{.center = {}, .radius = 4, .inner_radius = 5}), Error);
    EXPECT_THROW((void)bounds(Ring{.center = {}, .radius = -1, .inner_radius = 0}), Error);
    EXPECT_THROW((void)bounds(subpixel::Ring{.center = {}, .radius = 4, .inner_radius = std::nan("")}), Error);
}

// A pixel's distance from a place, a line, and rings of lines.
Real from_line(oracle::Place p, oracle::Place a, oracle::Place b) {
    const auto length = along(b - a, b - a);
    const auto t = length > 0 ? std::clamp(along(p - a, b - a) / length, Real{0}, Real{1}) : 0;
    return size_of(p - (a + (b - a) * t));
}

TEST(Widths, NeedNotBeWhole) {
    Dice dice{9};
    for (int i = 0; i < (is_sanitized ? 20 : 80); ++i) {
        const auto width = dice.number(1, 2000) / 256.0;
        const auto half = width / 2;
        const auto fraction = [&] { return dice.number(-30 * 256, 30 * 256) / 256.0; };
        // A circle's stroke is centred on its radius.
        const subpixel::Circle circle{.center = {fraction() / 4, fraction() / 4}, .radius = 8 + std::abs(fraction())};
        const auto center = oracle::Place{circle.center.x, circle.center.y};
        const auto what = "width " + std::to_string(width);
        expect_answers(
            stroked(circle, {.width = width}),
            [&](Point p) {
                const auto away = size_of(place(p) - center) - circle.radius;
                return between(away, -half, half);
            },
            window, what, 0.05);
        // With round joins, a ring of lines has what is at most half the width away.
        const std::vector<Position> corners{
            {fraction(), fraction()}, {fraction(), fraction()}, {fraction(), fraction()}};
        const auto distance = [&](Point p) {
            auto least = Real{1000};
            for (std::size_t k = 0; k < 3; ++k) {
                const auto& [ax, ay] = corners[k];
                const auto& [bx, by] = corners[(k + 1) % 3];
                least = std::min(least, from_line(place(p), {ax, ay}, {bx, by}));
            }
            return least;
        };
        const auto is_whole = width == std::floor(width);
        if (is_whole) continue;  // which are told by the rules for whole widths
        expect_answers(
            stroked(subpixel::Polygon{corners}, {.width = width, .join = Join::round}),
            [&](Point p) { return between(distance(p), -1, half); }, window, what, 0.05);
        // Inside and outside: of the inclusive fill, and beside it, as far as twice the width less or more than one.
        const auto fill = drawn(subpixel::Polygon{corners}, window);
        const auto interior = drawn(filled(subpixel::Polygon{corners}, {.edges = Edges::shared}), window);
        expect_answers(
            stroked(subpixel::Polygon{corners}, {.width = width, .align = Align::outside, .join = Join::round}),
            [&](Point p) { return has(fill, p) ? Answer::out : between(distance(p), -1, width + 0.5L); }, window, what,
            0.05);
        expect_answers(
            stroked(subpixel::Polygon{corners}, {.width = width, .align = Align::inside, .join = Join::round}),
            [&](Point p) {
                if (!has(fill, p)) return Answer::out;
                if (width > 0.5) return between(distance(p), -1, width - 0.5L);
                return has(interior, p) ? Answer::out : between(distance(p), 0.5L - width, 1000);
            },
            window, what, 0.05);
    }
}

TEST(Widths, SmoothBandsAreAsThickAsTheySay) {
    for (const auto width : {1.0 / 256, 0.25, 0.75, 1.5, 2.5, 7.125}) {
        const auto area_of = [&](const auto& area) {
            auto sum = 0.0;
            for_each_coverage(area, window,
                              [&](int, int, int length, int coverage) { sum += double{1} * length * coverage / 255; });
            return sum;
        };
        const Stroke pen{.width = width, .edge = Edge::smooth};
        const auto tolerance = 0.02 * 2 * std::numbers::pi * 20 + 0.3;
        EXPECT_NEAR(area_of(stroked(Circle{.center = {0, 0}, .radius = 20}, pen)), 2 * std::numbers::pi * 20 * width,
                    tolerance);
        EXPECT_NEAR(area_of(stroked(Line{.from = {-20, 7}, .to = {19, 7}}, pen)), 40 * width, 0.4) << width;
        auto dashed = pen;
        dashed.dash = {6, 6};
        const Sector half{.of = Circle{.center = {0, 0}, .radius = 20},
                          .sweep = {.from = Angle::degrees(0), .by = Angle::degrees(180)}};
        EXPECT_NEAR(area_of(stroked(half, dashed)), area_of(stroked(half, pen)) / 2, 0.06 * 102 * width + 1) << width;
    }
    // Steps of 1/256, and of nothing between.
    EXPECT_EQ(Width{1.5}, Width{1.5009});
    EXPECT_NE(Width{1.5}, Width{1.503});
    EXPECT_THROW((void)bounds(stroked(Line{{0, 0}, {9, 3}}, {.width = 0.001, .edge = Edge::smooth})), Error);
    EXPECT_THROW((void)bounds(stroked(Line{{0, 0}, {9, 3}}, {.width = std::nan(""), .edge = Edge::smooth})), Error);
    // Crisp and in whole pixels, only whole ones.
    EXPECT_THROW((void)bounds(stroked(Line{{0, 0}, {9, 3}}, {.width = 2.5})), Error);
    EXPECT_THROW((void)bounds(stroked(Region{Box{{0, 0}, {9, 3}}}, {.width = 2.5})), Error);
}

}  // namespace
