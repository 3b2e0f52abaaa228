// Every shape against the rules, in random places of a small window.
#include "oracle.hpp"

#include "coldbrick/vertices.hpp"

#include <set>

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr auto window = Box{.at = {-20, -16}, .size = {60, 48}};
constexpr auto around = Box{.at = {-90, -80}, .size = {200, 180}};  // shapes may hang over the window

Box random_box(Dice& dice, const Box& place, int largest) {
    return {.at = dice.point(place), .size = {dice.number(1, largest), dice.number(1, largest)}};
}

TEST(Shapes, BoxesFilledAndStroked) {
    Dice dice{1};
    for (int i = 0; i < 200; ++i) {
        const auto box = random_box(dice, window, 30);
        expect_pixels(box, in_box(box), window, "box");
        expect_pixels(stroked(box), outline(in_box(box)), window, "box outline");
        EXPECT_EQ(bounds(box), box);
        EXPECT_EQ(bounds(stroked(box)), box);
    }
}

TEST(Shapes, BoxBetweenCornersHasBothInAnyOrder) {
    const auto box = Box{.at = {3, 4}, .size = {6, 2}};
    EXPECT_EQ(Box::between({.from = {3, 4}, .to = {8, 5}}), box);
    EXPECT_EQ(Box::between({.from = {8, 4}, .to = {3, 5}}), box);
    EXPECT_EQ(Box::between({.from = {8, 5}, .to = {3, 4}}), box);
    EXPECT_EQ(box.last(), (Point{8, 5}));
}

TEST(Shapes, CirclesOfAllSmallRadii) {
    constexpr auto whole = Box{.at = {-80, -80}, .size = {161, 161}};
    for (int radius = 0; radius <= 70; ++radius) {
        const auto circle = Circle{.center = {2, -3}, .radius = radius};
        expect_whole(circle, in_circle(circle), whole, "circle " + std::to_string(radius));
        expect_whole(stroked(circle), outline(in_circle(circle)), whole, "circle outline " + std::to_string(radius));
    }
}

TEST(Shapes, EllipsesOfAllSmallBoxes) {
    constexpr auto whole = Box{.at = {-2, -2}, .size = {48, 48}};
    for (int w = 1; w <= 40; ++w) {
        for (int h = 1; h <= 40; h += w % 3 + 1) {
            const auto ellipse = Ellipse::within({.at = {1, 2}, .size = {w, h}});
            const auto name = std::to_string(w) + " x " + std::to_string(h);
            expect_whole(ellipse, in_ellipse(1, 2, w, h), whole, "ellipse " + name);
            expect_whole(stroked(ellipse), outline(in_ellipse(1, 2, w, h)), whole, "ellipse outline " + name);
        }
    }
}

TEST(Shapes, EllipsesInRandomPlaces) {
    Dice dice{2};
    for (int i = 0; i < 300; ++i) {
        const auto [at, size] = random_box(dice, around, i % 3 == 0 ? 3 : 150);
        const auto rule = in_ellipse(at.x, at.y, size.width, size.height);
        const auto ellipse = Ellipse::within({.at = at, .size = size});
        expect_pixels(ellipse, rule, window, "ellipse");
        expect_pixels(stroked(ellipse), outline(rule), window, "ellipse outline");
    }
}

TEST(Shapes, EllipseByRadiiIsTheOneInItsBox) {
    const auto ellipse = Ellipse::around({.center = {10, 5}, .radii = {7, 0}});
    EXPECT_EQ(ellipse.box(), (Box{.at = {3, 5}, .size = {15, 1}}));
}

TEST(Shapes, LinesFromBothEnds) {
    Dice dice{3};
    for (int i = 0; i < 1500; ++i) {
        const auto& place = i % 2 == 0 ? window : around;
        const auto a = dice.point(place);
        const auto b = i % 7 == 0 ? Point{a.x + dice.number(-4, 4), a.y + dice.number(-4, 4)} : dice.point(place);
        const auto rule = [=](Point p) { return on_line(a, b, p); };
        expect_pixels(stroked(Line{.from = a, .to = b}), rule, window, "line");
        EXPECT_EQ(drawn(stroked(Line{.from = a, .to = b}), window), drawn(stroked(Line{.from = b, .to = a}), window));
        EXPECT_EQ(bounds(stroked(Line{.from = a, .to = b})), Box::between({.from = a, .to = b}));
    }
}

TEST(Shapes, PolylinesOpenAndClosed) {
    Dice dice{4};
    for (int i = 0; i < 300; ++i) {
        const auto path = dice.ring(1, 6, i % 2 == 0 ? window : around);
        for (const auto closed : {false, true}) {
            const auto shape = stroked(Polyline{.through = path, .closed = closed});
            expect_pixels(shape, on_path(path, closed), window, "polyline");
            if (i % 2 == 0) expect_whole(shape, on_path(path, closed), window, "polyline");
        }
    }
}

Polygon random_polygon(Dice& dice, const Box& place) {
    std::vector<Polygon::Vertices> rings;
    for (int count = dice.number(1, 3); count > 0; --count) rings.push_back(dice.ring(1, 7, place));
    return Polygon{rings};
}

TEST(Shapes, PolygonsByEveryRuleAndEdge) {
    Dice dice{5};
    for (int i = 0; i < 140; ++i) {
        const auto polygon = random_polygon(dice, i % 2 == 0 ? window : around);
        for (const auto rule : {FillRule::even_odd, FillRule::nonzero}) {
            for (const auto edges : {Edges::inclusive, Edges::shared}) {
                const auto how = Fill{.rule = rule, .edges = edges};
                if (i % 2 == 0) {
                    expect_whole(filled(polygon, how), in_polygon(polygon, how), window, "polygon");
                } else {
                    expect_pixels(filled(polygon, how), in_polygon(polygon, how), window, "polygon over the window");
                }
            }
        }
        expect_pixels(stroked(polygon), on_outline(polygon), window, "polygon outline");
    }
}

TEST(Shapes, PolygonIsInclusiveAndEvenOddByDefault) {
    const auto bow = Polygon{{0, 0}, {12, 0}, {12, 9}, {4, 9}, {4, 3}, {20, 3}, {20, 12}, {0, 12}};
    expect_whole(bow, in_polygon(bow, {.rule = FillRule::even_odd, .edges = Edges::inclusive}), window, "bow");
}

TEST(Shapes, OutlineLiesInsideTheFillOfTheSameShape) {
    Dice dice{6};
    for (int i = 0; i < 100; ++i) {
        const auto polygon = random_polygon(dice, window);
        const auto inside = drawn(polygon, window);
        for (const auto p : drawn(stroked(polygon), window)) EXPECT_TRUE(has(inside, p));
    }
}

// A fan of triangles around a point inside a polygon's rim, and a grid of quadrangles with moved corners.
TEST(Shapes, MeshesWithSharedEdgesCoverEachPixelOnce) {
    Dice dice{7};
    constexpr auto shared = Fill{.rule = FillRule::even_odd, .edges = Edges::shared};
    for (int round = 0; round < 60; ++round) {
        constexpr int cells = 5;
        Point corners[cells + 1][cells + 1];
        for (int r = 0; r <= cells; ++r) {
            for (int c = 0; c <= cells; ++c) {
                const auto on_rim = r == 0 || c == 0 || r == cells || c == cells;
                // Moved too little to fold a triangle over.
                const auto moved = [&] { return on_rim ? 0 : dice.number(-2, 2); };
                corners[r][c] = {window.at.x + 9 * c + moved(), window.at.y + 8 * r + moved()};
            }
        }
        std::multiset<std::pair<int, int>> covered;
        const auto add = [&](const Polygon& polygon) {
            for (const auto p : drawn(filled(polygon, shared), window)) covered.insert({p.x, p.y});
        };
        for (int r = 0; r < cells; ++r) {
            for (int c = 0; c < cells; ++c) {
                const auto [a, b] = std::pair{corners[r][c], corners[r][c + 1]};
                const auto [d, e] = std::pair{corners[r + 1][c], corners[r + 1][c + 1]};
                add(Polygon{a, b, e});
                add(Polygon{a, e, d});
            }
        }
        const auto rim = Polygon{corners[0][0], corners[0][cells], corners[cells][cells], corners[cells][0]};
        std::multiset<std::pair<int, int>> once;
        for (const auto p : pixels_of(in_polygon(rim, shared), window)) once.insert({p.x, p.y});
        EXPECT_EQ(covered, once);
    }
}

TEST(Shapes, ClippedIsThePartOfUnclipped) {
    Dice dice{8};
    for (int i = 0; i < 200; ++i) {
        const auto polygon = random_polygon(dice, window);
        const auto line = stroked(Line{.from = dice.point(around), .to = dice.point(around)});
        const auto clip = intersection(random_box(dice, window, 25), window);
        const auto part_of = [&](const PixelSet& whole) {
            return pixels_of([&](Point p) { return has(whole, p); }, clip);
        };
        EXPECT_EQ(drawn(polygon, clip), part_of(drawn(polygon, window)));
        EXPECT_EQ(drawn(stroked(polygon), clip), part_of(drawn(stroked(polygon), window)));
        EXPECT_EQ(drawn(line, clip), part_of(drawn(line, window)));
    }
}

}  // namespace
