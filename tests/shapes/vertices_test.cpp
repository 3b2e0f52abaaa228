// Vertex lists: the same pixels as the shapes one by one, from every kind of array.
#include "plane_oracle.hpp"

#include <coldbrick/draw_each.hpp>
#include <coldbrick/error.hpp>
#include <coldbrick/vertices.hpp>

#include <algorithm>
#include <map>

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr auto window = Box{.at = {0, 0}, .size = {70, 60}};
constexpr auto shared = Fill{.rule = FillRule::nonzero, .edges = Edges::shared};

std::vector<Point> random_points(Dice& dice, int count) { return dice.ring(count, count, window); }

TEST(VertexLists, TrianglesAreSharedPolygons) {
    Dice dice{81};
    for (int i = 0; i < 60; ++i) {
        const auto at = random_points(dice, 9);
        const std::vector<std::uint32_t> order{0, 4, 8, 3, 1, 2, 7, 7, 5};
        const auto expect_union = [&](const VertexList& list,
                                      const std::vector<std::array<std::uint32_t, 3>>& triangles) {
            PixelSet expected;
            for (const auto& [a, b, c] : triangles) {
                for (const auto p : drawn(filled(Polygon{at[a], at[b], at[c]}, shared), window)) expected.push_back(p);
            }
            std::sort(expected.begin(), expected.end(), precedes);
            expected.erase(std::unique(expected.begin(), expected.end()), expected.end());
            EXPECT_EQ(drawn(list, window), expected);
            EXPECT_EQ(bounds(list), box_of(expected));
            EXPECT_EQ(list.elements(), triangles.size());
        };
        expect_union({.as = Elements::triangles, .at = at}, {{0, 1, 2}, {3, 4, 5}, {6, 7, 8}});
        expect_union({.as = Elements::triangles, .at = at, .indices = order}, {{0, 4, 8}, {3, 1, 2}, {7, 7, 5}});
        const auto four = std::span{at}.first(5);
        expect_union({.as = Elements::triangle_strip, .at = four}, {{0, 1, 2}, {1, 2, 3}, {2, 3, 4}});
        expect_union({.as = Elements::triangle_fan, .at = four}, {{0, 1, 2}, {0, 2, 3}, {0, 3, 4}});
    }
}

TEST(VertexLists, LinesAndPointsAreTheirHairlinesAndStrokes) {
    Dice dice{82};
    for (int i = 0; i < 40; ++i) {
        const auto at = random_points(dice, 6);
        for (const auto& how : {Stroke{}, Stroke{.width = 5, .cap = Cap::square}}) {
            EXPECT_EQ(drawn(stroked(VertexList{.as = Elements::line_strip, .at = at}, how), window),
                      drawn(stroked(Polyline{.through = at}, how), window));
            PixelSet expected;
            for (std::size_t k = 0; k < 6; k += 2) {
                for (const auto p : drawn(stroked(Line{.from = at[k], .to = at[k + 1]}, how), window))
                    expected.push_back(p);
            }
            std::sort(expected.begin(), expected.end(), precedes);
            expected.erase(std::unique(expected.begin(), expected.end()), expected.end());
            EXPECT_EQ(drawn(stroked(VertexList{.as = Elements::line_pairs, .at = at}, how), window), expected);
        }
        auto points = at;
        std::sort(points.begin(), points.end(), precedes);
        points.erase(std::unique(points.begin(), points.end()), points.end());
        EXPECT_EQ(drawn(stroked(VertexList{.as = Elements::points, .at = at}), window), points);
        const auto dot = std::span{at}.first(1);
        EXPECT_EQ(drawn(stroked(VertexList{.as = Elements::points, .at = dot}, {.width = 5}), window),
                  drawn(Box{.at = {at[0].x - 2, at[0].y - 2}, .size = {5, 5}}, window));
    }
}

// A mesh of triangles in coordinates of its own, y up: each pixel of its outline's interior once, whatever the ink.
TEST(VertexLists, AMeshOfFloatsHasNoSeamsAndNoDoubles) {
    Dice dice{83};
    for (int round = 0; round < 20; ++round) {
        constexpr std::uint32_t cells = 7;
        std::vector<float> floats;
        std::vector<std::uint32_t> order;
        for (std::uint32_t r = 0; r <= cells; ++r) {
            for (std::uint32_t c = 0; c <= cells; ++c) {
                const auto on_rim = r == 0 || c == 0 || r == cells || c == cells;
                const auto moved = [&] { return on_rim ? 0.0F : static_cast<float>(dice.number(-40, 40)) / 1000.0F; };
                floats.push_back(-0.9F + 1.8F * static_cast<float>(c) / cells + moved());
                floats.push_back(-0.8F + 1.6F * static_cast<float>(r) / cells + moved());
                if (r == cells || c == cells) continue;
                const auto first = r * (cells + 1) + c;
                for (const auto step : {0U, 1U, cells + 1, cells + 1, 1U, cells + 2}) order.push_back(first + step);
            }
        }
        const auto list = VertexList{.as = Elements::triangles,
                                     .at = Vertices::of(floats.data(), floats.size() / 2),
                                     .indices = order,
                                     .transform = Transform::fitting({-1, 1, -1, 1}, window)};
        Bitmap<Gray8> all{window.size, gray(0)};
        fill(all, list, with_alpha(gray(200), 100));
        Bitmap<Gray8> each{window.size, gray(0)};
        fill_each(each, list, std::vector<Color>(list.elements(), with_alpha(gray(200), 100)));
        EXPECT_EQ(all.bytes(), each.bytes());
        const auto once = Bitmap<Gray8>{{1, 1}, gray(0)};
        Bitmap<Gray8> pixel{{1, 1}, gray(0)};
        fill(pixel, Box{{0, 0}, {1, 1}}, with_alpha(gray(200), 100));
        // The rim's edges lie between pixels: columns 3.5 - 0.5 and so on.
        auto count = 0;
        for (int y = 0; y < window.size.height; ++y) {
            for (int x = 0; x < window.size.width; ++x) {
                const auto inside = x >= 3 && x < 67 && y >= 6 && y < 54;
                count += inside ? 1 : 0;
                const auto near_rim = x == 3 || x == 66 || y == 5 || y == 6 || y == 53 || y == 54;
                const auto& expected = inside ? pixel : once;
                EXPECT_TRUE(near_rim || all.color_at({x, y}) == expected.color_at({0, 0})) << x << ',' << y;
            }
        }
        EXPECT_GT(count, 2000);
    }
}

TEST(VertexLists, EveryKindOfArrayIsReadInPlace) {
    const std::vector<Point> whole{{5, 6}, {40, 10}, {20, 50}};
    const std::vector<Position> places{{5, 6}, {40, 10}, {20, 50}};
    struct Buoy {
        char name[4];
        float x, y;
        int light;
    };
    const std::vector<Buoy> buoys{{"a", 5, 6, 0}, {"b", 40, 10, 1}, {"c", 20, 50, 2}};
    const int ints[]{5, 6, 40, 10, 20, 50};
    const auto pixels = [](const Vertices& at) {
        return drawn(VertexList{.as = Elements::triangles, .at = at}, window);
    };
    const auto expected = drawn(filled(Polygon{whole}, shared), window);
    EXPECT_EQ(pixels(whole), expected);
    EXPECT_EQ(pixels(places), expected);
    EXPECT_EQ(pixels(Vertices::of(&buoys[0].x, buoys.size(), sizeof(Buoy))), expected);
    EXPECT_EQ(pixels(Vertices::of(ints, 3)), expected);
    EXPECT_EQ(pixels(Vertices::of(ints + 4, 3, -2 * static_cast<std::ptrdiff_t>(sizeof(int)))), expected);
}

TEST(VertexLists, AnInkForEach) {
    const std::vector<Point> at{{5, 5}, {30, 5}, {5, 30}, {40, 10}, {60, 10}, {40, 40}};
    Bitmap<Rgb8> bitmap{window.size, colors::navy};
    fill_each(bitmap, {.as = Elements::triangles, .at = at}, std::vector<Color>{colors::red, colors::lime});
    EXPECT_EQ(bitmap.color_at({10, 10}), colors::red);
    EXPECT_EQ(bitmap.color_at({45, 15}), colors::lime);
    const auto touched = stroke_each(bitmap, {.as = Elements::line_pairs, .at = at}, {.width = 3},
                                     std::array{colors::white, colors::gold, colors::teal});
    EXPECT_EQ(bitmap.color_at({50, 25}), colors::teal);
    EXPECT_FALSE(touched.empty());
}

TEST(VertexLists, TransformsGoInTheOrderWritten) {
    const auto p = Transform{}.scale({2, 3}).turn(90_deg).move({10, 20})({1, 1});
    EXPECT_EQ(p, (Position{10 - 3, 20 + 2}));
    const auto up =
        Transform::fitting({.left = -1, .right = 1, .bottom = -1, .top = 1}, {.at = {0, 0}, .size = {100, 50}});
    EXPECT_EQ(up({-1, 1}), (Position{-0.5, -0.5}));
    EXPECT_EQ(up({1, -1}), (Position{99.5, 49.5}));
}

TEST(VertexLists, FaultsAreToldAndNothingIsDrawn) {
    Bitmap<Gray8> bitmap{window.size};
    const std::vector<Point> at{{5, 5}, {30, 5}, {5, 30}, {40, 10}};
    const std::vector<std::uint32_t> order{0, 1, 4};
    const auto fault = [](const auto& call) -> std::string {
        try {
            call();
        } catch (const Error& error) {
            return error.what();
        }
        return "none";
    };
    EXPECT_EQ(fault([&] { fill(bitmap, VertexList{.as = Elements::triangles, .at = at}, gray(9)); }),
              "vertex list: 4 vertices are given as triangles; allowed are multiples of 3");
    EXPECT_EQ(fault([&] { fill(bitmap, VertexList{.as = Elements::triangles, .at = at, .indices = order}, gray(9)); }),
              "vertex list: indices[2] is 4; allowed is 0 to 3");
    EXPECT_EQ(fault([&] { fill(bitmap, VertexList{.as = Elements::line_strip, .at = at}, gray(9)); }),
              "vertex list: a line strip has no inside to fill; allowed are triangles, and what is stroked");
    EXPECT_EQ(
        fault([&] { fill_each(bitmap, VertexList{.as = Elements::triangle_fan, .at = at}, std::vector<Color>(3)); }),
        "vertex list: 3 inks are given for 2 of a triangle fan; each needs one");
    EXPECT_EQ(fault([&] {
                  stroke(bitmap, VertexList{.as = Elements::points, .at = at, .transform = Transform{}.scale({1e9, 1})},
                         gray(9));
              }),
              "vertex list: vertex 0 comes to pixel 5000000000,5; allowed is -1073741823 to 1073741823");
    EXPECT_EQ(bitmap.bytes(), Bitmap<Gray8>{window.size}.bytes());
}

}  // namespace
