// Smooth edges against exact areas.
#include "coverage_oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <array>
#include <cmath>

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr auto window = Box{.at = {-20, -18}, .size = {41, 37}};
// Where the areas are slow to find.
constexpr auto few = Box{.at = {-9, -8}, .size = {19, 17}};
constexpr auto smooth = Fill{.edge = Edge::smooth};

// What is promised: 1/255.
constexpr double exact = 1.0;
// Where the set is found by cutting squares, which is itself that rough.
constexpr double nearly = 2.0;

Stroke pen(Stroke how) {
    how.edge = Edge::smooth;
    return how;
}

Outline clockwise(Outline corners) {
    if (across(corners[1] - corners[0], corners[2] - corners[0]) < 0) std::swap(corners[1], corners[2]);
    return corners;
}

TEST(Smooth, DiscsCoverTheirArea) {
    for (int radius = 0; radius < 18; ++radius) {
        const auto share = [&](Point p) { return disc_share({1, -1}, radius + 0.5L, p); };
        EXPECT_LE(worst_coverage(filled(Circle{.center = {1, -1}, .radius = radius}, smooth), share, window), exact)
            << radius;
    }
    Dice dice{61};
    for (int i = 0; i < 60; ++i) {
        const auto center = Position{dice.number(-2000, 2000) / 256.0, dice.number(-2000, 2000) / 256.0};
        const auto radius = dice.number(0, 4000) / 256.0;
        const auto share = [&](Point p) { return disc_share({center.x, center.y}, radius + 0.5L, p); };
        EXPECT_LE(worst_coverage(filled(subpixel::Circle{center, radius}, smooth), share, window), exact) << radius;
    }
}

TEST(Smooth, RingsCoverTheirArea) {
    for (int width = 1; width < 12; ++width) {
        for (const auto align : {Align::center, Align::inside, Align::outside}) {
            const auto out = align == Align::inside ? 0 : (align == Align::outside ? width : width / 2);
            const auto outer = 9.5L + out;
            const auto share = [&](Point p) {
                const auto inner = outer - width;
                return disc_share({}, outer, p) - (inner > 0 ? disc_share({}, inner, p) : 0);
            };
            const auto ring = stroked(Circle{.center = {}, .radius = 9}, pen({.width = width, .align = align}));
            EXPECT_LE(worst_coverage(ring, share, window), exact) << width;
        }
    }
}

TEST(Smooth, TrianglesCoverTheirArea) {
    Dice dice{62};
    for (int i = 0; i < 200; ++i) {
        auto ring = Polygon::Vertices{dice.point(window), dice.point(window), dice.point(window)};
        const auto corners = clockwise({place(ring[0]), place(ring[1]), place(ring[2])});
        const auto share = [&](Point p) { return convex_share(corners, p); };
        const auto area = filled(Polygon{ring}, {.edges = Edges::shared, .edge = Edge::smooth});
        EXPECT_LE(worst_coverage(area, share, window), exact);
    }
}

TEST(Smooth, LinesCoverTheirBand) {
    Dice dice{63};
    for (int i = 0; i < 200; ++i) {
        const auto width = dice.number(1, 9);
        const auto a = dice.point(window);
        auto b = dice.point(window);
        if (a == b) ++b.x;
        const auto u = unit_of(place(b) - place(a));
        const auto n = oracle::Place{-u.y, u.x} * (width / 2.0L);
        const auto shift = Pen{.width = width}.shift();
        // The ends are square to the line, half a pixel beyond where it was before it was moved.
        const auto along_shift = along(shift, u);
        const auto from = place(a) + shift - u * (0.5L + along_shift);
        const auto to = place(b) + shift + u * (0.5L - along_shift);
        const auto share = [&](Point p) { return convex_share({from - n, to - n, to + n, from + n}, p); };
        EXPECT_LE(worst_coverage(stroked(Line{.from = a, .to = b}, pen({.width = width})), share, window), exact)
            << width;
    }
}

TEST(Smooth, PathsCoverTheUnionOfTheirParts) {
    Dice dice{64};
    for (int i = 0; i < 9; ++i) {
        const auto points = dice.ring(4, 4, window);
        const auto width = dice.number(2, 9);
        const auto cap = std::array{Cap::flush, Cap::square, Cap::round}[static_cast<std::size_t>(i % 3)];
        const auto join = std::array{Join::miter, Join::bevel, Join::round}[static_cast<std::size_t>(i / 3 % 3)];
        const auto is_closed = i % 2 == 1;
        const auto set = wide_path(points, is_closed, {.width = width, .cap = cap, .join = join});
        const auto share = [&](Point p) { return plane_share(set, p); };
        const auto how = pen({.width = width, .cap = cap, .join = join});
        const auto path = stroked(Polyline{.through = points, .closed = is_closed}, how);
        EXPECT_LE(worst_coverage(path, share, few), nearly) << i;
    }
}

TEST(Smooth, EllipsesTurnedOrNotCoverTheirArea) {
    Dice dice{65};
    for (int i = 0; i < (is_sanitized ? 3 : 8); ++i) {
        const auto radii = Radii{dice.number(0, 9), dice.number(0, 9)};
        const auto turned = Angle::degrees(dice.number(0, 7) * 22.5);
        const auto ellipse = Ellipse::around({.center = {2, 1}, .radii = radii, .turned = turned});
        const auto edge = RoundEdge::of(ellipse);
        const auto fill_share = [&](Point p) { return plane_share([&](oracle::Place q) { return edge.has(q); }, p); };
        EXPECT_LE(worst_coverage(filled(ellipse, smooth), fill_share, few), nearly) << i;
    }
    const auto ellipse = Ellipse::around({.center = {}, .radii = {12, 5}, .turned = Angle::degrees(30)});
    const auto edge = RoundEdge::of(ellipse);
    const auto band = [&](oracle::Place q) {
        const auto d = edge.distance(q);
        return d > -2 && d <= 1;
    };
    const auto corner = Box{.at = {6, -2}, .size = {9, 12}};
    const auto share = [&](Point p) { return plane_share(band, p); };
    EXPECT_LE(worst_coverage(stroked(ellipse, pen({.width = 3})), share, corner), nearly);
}

TEST(Smooth, WhatLiesOnTheGridIsSharp) {
    const auto box = Box{.at = {-7, -5}, .size = {13, 9}};
    const auto is_crisp = [](const auto& area, const auto& same) {
        const auto found = coverage_of(area, window);
        const auto wanted = coverage_of(same, window);
        EXPECT_EQ(found, wanted);
    };
    is_crisp(filled(box, smooth), filled(box, {}));
    for (int width = 1; width < 9; ++width) {
        is_crisp(stroked(box, pen({.width = width})), stroked(box, {.width = width}));
        for (const auto& line : {Line{.from = {-9, 3}, .to = {11, 3}}, Line{.from = {4, 9}, .to = {4, -8}}}) {
            is_crisp(stroked(line, pen({.width = width})), stroked(line, {.width = width}));
        }
    }
    const auto ring = Polygon::Vertices{{-7, -5}, {5, -5}, {5, 3}, {-7, 3}};
    is_crisp(filled(Polygon{ring}, smooth), filled(Polygon{ring}, {}));
    is_crisp(filled(subpixel::Box{.at = {-7, -5}, .size = {13, 9}}, smooth), filled(box, {}));
}

// A pixel that a crisp shape has all around is full, and one far from it is empty: of shapes that are nowhere thin.
template <class Shape>
void expect_agreement(const Shape& shape, const std::string& what) {
    const auto crisp = coverage_of(shape, window);
    const auto found = coverage_of(filled(shape, smooth), window);
    int wrong = 0;
    for (int y = window.at.y + 2; y + 2 <= window.last().y; ++y) {
        for (int x = window.at.x + 2; x + 2 <= window.last().x; ++x) {
            int inside = 0;
            for (int dy = -2; dy <= 2; ++dy) {
                for (int dx = -2; dx <= 2; ++dx) inside += crisp[index_in(window, {x + dx, y + dy})] != 0 ? 1 : 0;
            }
            const auto coverage = found[index_in(window, {x, y})];
            if (inside == 25) wrong += coverage != 255 ? 1 : 0;
            if (inside == 0) wrong += coverage != 0 ? 1 : 0;
        }
    }
    EXPECT_EQ(wrong, 0) << what;
}

// Asked for pixels, a smooth shape tells those that drawing it would touch.
TEST(Smooth, PixelsAreThoseThatAreCovered) {
    for (int radius = 0; radius < 18; ++radius) {
        const auto disc = filled(Circle{.center = {1, -1}, .radius = radius}, smooth);
        const auto covered = coverage_of(disc, window);
        std::size_t i = 0;
        int wrong = 0;
        for (int y = window.at.y; y <= window.last().y; ++y) {
            for (int x = window.at.x; x <= window.last().x; ++x, ++i) {
                wrong += contains(disc, Point{x, y}) == (covered[i] != 0) ? 0 : 1;
            }
        }
        EXPECT_EQ(wrong, 0) << radius;
    }
}

TEST(Smooth, CrispAndSmoothAgree) {
    Dice dice{66};
    for (int i = 0; i < 40; ++i) {
        const auto sweep =
            Sweep{.from = Angle::degrees(dice.number(-360, 360)), .by = Angle::degrees(dice.number(90, 350))};
        const auto circle =
            Circle{.center = dice.point({.at = {-5, -5}, .size = {11, 11}}), .radius = dice.number(3, 12)};
        expect_agreement(circle, "circle");
        expect_agreement(Sector{.of = circle, .sweep = sweep}, "sector");
        expect_agreement(Chord{.of = circle, .sweep = sweep}, "chord");
        expect_agreement(RoundedBox{.box = {.at = {-9, -8}, .size = {20, 15}}, .corner_radius = i % 8}, "rounded box");
        expect_agreement(star({.center = circle.center, .radius = circle.radius, .points = 3 + i % 6}), "star");
    }
}

TEST(Smooth, MeshesAreWholeAlongEverySeam) {
    Dice dice{67};
    std::vector<Position> places;
    std::vector<std::uint32_t> order;
    // A grid of squares cut in two, its inner corners moved at random.
    constexpr std::uint32_t across_count = 6;
    for (std::uint32_t y = 0; y <= across_count; ++y) {
        for (std::uint32_t x = 0; x <= across_count; ++x) {
            const auto is_rim = x == 0 || y == 0 || x == across_count || y == across_count;
            const auto off = [&] { return is_rim ? 0.0 : dice.number(-60, 60) / 64.0; };
            places.push_back({-15.5 + 5 * x + off(), -15.5 + 5 * y + off()});
            if (x == across_count || y == across_count) continue;
            const auto a = y * (across_count + 1) + x;
            for (const auto corner :
                 {a, a + 1, a + across_count + 1, a + 1, a + across_count + 1, a + across_count + 2}) {
                order.push_back(corner);
            }
        }
    }
    const auto mesh = VertexList{.as = Elements::triangles, .at = places, .indices = order};
    const auto whole = Box{.at = {-15, -15}, .size = {30, 30}};
    EXPECT_EQ(coverage_of(filled(mesh, smooth), window), coverage_of(whole, window));
    // Each triangle in a colour of its own, all the same: as one ink.
    Bitmap<Rgba8> together{{30, 30}};
    Bitmap<Rgba8> apart{{30, 30}};
    auto moved = mesh;
    moved.transform = Transform{}.move({15, 15});
    fill(together, moved, smooth, colors::gold);
    fill_each(apart, moved, smooth, std::vector<Color>(moved.elements(), colors::gold));
    EXPECT_EQ(together.bytes(), apart.bytes());
    EXPECT_EQ(together.color_at({14, 14}), colors::gold);
}

TEST(Smooth, ClipsFadeOut) {
    const SmoothRegion disc{filled(Circle{.center = {10, 10}, .radius = 8}, smooth)};
    EXPECT_EQ(disc.bounds(), (Box{.at = {2, 2}, .size = {17, 17}}));
    Bitmap<Gray8> through{{21, 21}};
    fill(through.within(disc), Box{.at = {0, 0}, .size = {21, 21}}, gray(255));
    for (int y = 0; y < 21; ++y) {
        for (int x = 0; x < 21; ++x) EXPECT_EQ(through.color_at({x, y}).red, disc.coverage_at({x, y}));
    }
    const SmoothRegion half{Box{.at = {10, 0}, .size = {11, 21}}};
    const auto both = intersection(disc, half);
    EXPECT_EQ(both.coverage_at({9, 10}), 0);
    EXPECT_EQ(both.coverage_at({12, 3}), disc.coverage_at({12, 3}));
    // Nested clips multiply, and regions and boxes cut as well.
    Bitmap<Gray8> twice{{21, 21}};
    fill(twice.within(disc).within(disc).within(Region{Box{.at = {0, 0}, .size = {21, 10}}}),
         Box{.at = {0, 0}, .size = {21, 21}}, gray(255));
    const auto at_rim = disc.coverage_at({4, 4});
    ASSERT_GT(at_rim, 0);
    EXPECT_EQ(twice.color_at({4, 4}).red, (at_rim * at_rim + 127) / 255);
    EXPECT_EQ(twice.color_at({10, 12}).red, 0);
}

// Parts of what an area covers are the same as in the whole.
template <class Area>
void expect_same_parts(const Area& area, const Box& whole_window, const std::vector<Box>& parts) {
    const auto whole = coverage_of(area, whole_window);
    for (const auto& part : parts) {
        const auto found = coverage_of(area, part);
        for (int y = part.at.y; y <= part.last().y; ++y) {
            for (int x = part.at.x; x <= part.last().x; ++x) {
                const auto at = Point{x, y};
                ASSERT_EQ(whole[index_in(whole_window, at)], found[index_in(part, at)]) << at;
            }
        }
    }
}

// Rows are found in other ways where edges are far apart, close together, or cut by the window.
TEST(Smooth, LargeShapesAreTheSameRowByRowAndPartByPart) {
    constexpr auto large = Box{.at = {-20, -30}, .size = {240, 200}};
    std::vector<Box> parts{{.at = {40, 30}, .size = {60, 50}}, {.at = {101, -30}, .size = {1, 200}}};
    for (int y = large.at.y; y <= large.last().y; ++y) parts.push_back({.at = {large.at.x, y}, .size = {240, 1}});
    Dice dice{66};
    for (int i = 0; i < 12; ++i) {
        const Polygon polygon{dice.ring(3, 7, {.at = {-30, -40}, .size = {260, 220}})};
        const auto edges = i % 2 == 0 ? Edges::shared : Edges::inclusive;
        expect_same_parts(filled(polygon, {.edges = edges, .edge = Edge::smooth}), large, parts);
    }
    for (const auto radius : {60, 91}) {
        expect_same_parts(filled(Circle{.center = {95, 70}, .radius = radius}, smooth), large, parts);
        expect_same_parts(stroked(Circle{.center = {95, 70}, .radius = radius}, pen({.width = 7})), large, parts);
    }
    for (const auto& size : {Size{151, 38}, Size{150, 38}, Size{9, 160}, Size{1, 90}, Size{2, 3}}) {
        expect_same_parts(filled(Ellipse::within({.at = {11, -9}, .size = size}), smooth), large, parts);
    }
}

// Edges that go over many columns in a row, against exact areas.
TEST(Smooth, WideTrianglesCoverTheirArea) {
    constexpr auto wide = Box{.at = {-10, -3}, .size = {700, 40}};
    Dice dice{67};
    for (int i = 0; i < 25; ++i) {
        auto ring = Polygon::Vertices{dice.point(wide), dice.point(wide), dice.point(wide)};
        const auto corners = clockwise({place(ring[0]), place(ring[1]), place(ring[2])});
        const auto share = [&](Point p) { return convex_share(corners, p); };
        const auto area = filled(Polygon{ring}, {.edges = Edges::shared, .edge = Edge::smooth});
        EXPECT_LE(worst_coverage(area, share, wide), exact);
    }
}

// Longer than what is handed over at once: nearly flat edges, whose rows are covered in part over thousands of columns.
TEST(Smooth, FlatEdgesOverThousandsOfColumns) {
    constexpr auto wide = Box{.at = {0, -1}, .size = {9000, 6}};
    for (const auto& ring :
         {Polygon::Vertices{{10, 0}, {8990, 3}, {10, 3}}, Polygon::Vertices{{8990, 0}, {8990, 3}, {2500, 0}}}) {
        const auto corners = clockwise({place(ring[0]), place(ring[1]), place(ring[2])});
        const auto area = filled(Polygon{ring}, {.edges = Edges::shared, .edge = Edge::smooth});
        const auto share = [&](Point p) { return convex_share(corners, p); };
        EXPECT_LE(worst_coverage(area, share, wide), exact);
        expect_same_parts(area, wide, {{.at = {2040, -1}, .size = {20, 6}}, {.at = {5000, 1}, .size = {3000, 1}}});
    }
    // Painted as told.
    Bitmap<Gray8> sheet{{9000, 5}};
    const Polygon sliver{{10, 0}, {8990, 3}, {10, 3}};
    fill(sheet, sliver, smooth, gray(255));
    const auto told = coverage_of(filled(sliver, smooth), {.at = {}, .size = sheet.size()});
    for (std::size_t i = 0; i < told.size(); ++i) ASSERT_EQ(sheet.bytes()[i], told[i]) << i;
}

// What the painters do with coverage: as if each pixel were laid on by itself, its alpha weakened.
TEST(Smooth, CoverageWeakensTheInkInEveryFormat) {
    const auto check = [](auto sheet, const Ink& ink, Color color) {
        const auto before = sheet;
        const auto disc = filled(Circle{.center = {14, 11}, .radius = 9}, smooth);
        fill(sheet, disc, ink);
        const auto told = coverage_of(disc, {.at = {}, .size = sheet.size()});
        for (int y = 0; y < sheet.size().height; ++y) {
            for (int x = 0; x < sheet.size().width; ++x) {
                const auto coverage = told[index_in({.at = {}, .size = sheet.size()}, {x, y})];
                auto single = before;
                const auto alpha = (2 * coverage * color.alpha + 255) / 510;
                mark(single, {x, y}, with_alpha(color, static_cast<std::uint8_t>(alpha)));
                ASSERT_EQ(sheet.color_at({x, y}), single.color_at({x, y})) << Point{x, y};
            }
        }
    };
    for (const auto color : {colors::coral, with_alpha(colors::coral, 130)}) {
        check(Bitmap<Gray8>{{30, 24}, colors::navy}, color, color);
        check(Bitmap<Rgb8>{{30, 24}, colors::navy}, color, color);
        check(Bitmap<Bgr8>{{30, 24}, colors::navy}, color, color);
        check(Bitmap<Rgba8>{{30, 24}, with_alpha(colors::navy, 90)}, color, color);
        check(Bitmap<Bgra8>{{30, 24}, colors::navy}, color, color);
    }
}

TEST(Smooth, WindowsShowPartsOfTheSamePicture) {
    const auto area = stroked(star({.center = {1, 2}, .radius = 15}), pen({.width = 3, .join = Join::round}));
    expect_same_parts(area, window, {{.at = {-7, -9}, .size = {9, 13}}, {.at = {3, 3}, .size = {18, 16}}});
    EXPECT_EQ(bounds(area).size, (Size{bounds(area).last().x - bounds(area).at.x + 1, bounds(area).size.height}));
    Bitmap<Gray8> sheet{{60, 60}};
    const auto moved = transformed(area, Transform{}.move({25, 25}));
    EXPECT_EQ(fill(sheet, moved, gray(255)), bounds(moved));
}

// How much two ways of drawing the same differ.
template <class A, class B>
int most_apart(const A& a, const B& b, Size size) {
    const auto cover_of = [&](const auto& area) {
        Bitmap<Gray8> sheet{size};
        fill(sheet, area, colors::white);
        return sheet;
    };
    const auto first = cover_of(a);
    const auto second = cover_of(b);
    auto most = 0;
    for (std::size_t i = 0; i < first.bytes().size(); ++i) {
        most = std::max(most, std::abs(first.bytes()[i] - second.bytes()[i]));
    }
    return most;
}

// Small convex polygons go by a way of their own: as paths do, and in parts; with their outline, as beside another
// ring.
TEST(Smooth, ConvexPolygonsCoverWhatTheirPathsDo) {
    Dice dice{61};
    constexpr auto size = Size{120, 110};
    for (int i = 0; i < (is_sanitized ? 40 : 400); ++i) {
        const auto count = dice.number(3, 16);
        const auto radius = Position{double{1} * dice.number(1, 45), double{1} * dice.number(1, 45)};
        const auto is_whole = i % 2 == 0;
        std::vector<Position> corners;
        auto angle = dice.number(0, 359);
        for (int k = 0; k < count; ++k, angle += 360 / count) {
            const auto direction = at_angle(angle);
            const auto x = 58 + radius.x * static_cast<double>(direction.x);
            const auto y = 55 + radius.y * static_cast<double>(direction.y);
            corners.push_back(is_whole ? Position{std::round(x), std::round(y)} : Position{x, y});
        }
        if (i % 3 == 0) std::reverse(corners.begin(), corners.end());
        const subpixel::Polygon polygon{corners};
        Path path;
        path.move(corners[0]);
        for (int k = 1; k < count; ++k) path.line(corners[static_cast<std::size_t>(k)]);
        path.close();
        const auto alone = Fill{.edges = Edges::shared, .edge = Edge::smooth};
        EXPECT_LE(most_apart(filled(polygon, alone), filled(path, alone), size), 1) << i;
        const std::vector<Position> away{{300, 300}, {309, 300}, {300, 305}};
        const subpixel::Polygon beside{std::vector<std::vector<Position>>{corners, away}};
        EXPECT_LE(most_apart(filled(polygon, smooth), filled(beside, smooth), size), 1) << i;
        Bitmap<Gray8> whole{size};
        fill(whole, polygon, smooth, colors::white);
        Bitmap<Gray8> parts{size};
        for (int x = 0; x < size.width; x += 40)
            fill(parts.within({.at = {x, 0}, .size = {40, 110}}), polygon, smooth, colors::white);
        EXPECT_EQ(parts.bytes(), whole.bytes()) << i;
        if (!is_whole) continue;
        std::vector<Point> points;
        for (const auto& at : corners) points.push_back({static_cast<int>(at.x), static_cast<int>(at.y)});
        EXPECT_EQ(most_apart(filled(Polygon{points}, smooth), filled(polygon, smooth), size), 0);
    }
}

// Of rings that go round their middle areas are added up, whatever begins and ends in a row; others are cut into bands.
TEST(Smooth, RingsRoundTheirMiddleCoverWhatTheyDoBesideAnother) {
    Dice dice{62};
    constexpr auto size = Size{120, 120};
    for (const auto count : {3, 5, 11, 20, 40, 65, 100, 300}) {
        for (int way = 0; way < 4; ++way) {
            std::vector<Position> ring;
            for (int i = 0; i < count; ++i) {
                const auto direction = at_angle(360.0L * i / count);
                const auto radius = dice.number(way < 2 ? 35 : 8, 55);
                ring.push_back(
                    {60 + radius * static_cast<double>(direction.x), 60 + radius * static_cast<double>(direction.y)});
            }
            if (way % 2 == 1) std::reverse(ring.begin(), ring.end());
            const std::vector<Position> away{{300, 300}, {309, 300}, {300, 305}};
            const subpixel::Polygon alone{ring};
            const subpixel::Polygon beside{std::vector<std::vector<Position>>{ring, away}};
            for (const auto edges : {Edges::inclusive, Edges::shared}) {
                const auto how = Fill{.edges = edges, .edge = Edge::smooth};
                EXPECT_LE(most_apart(filled(alone, how), filled(beside, how), size), 1) << count;
                const auto turned = Transform{}.scale({-1, 1}).move({119, 0});
                EXPECT_LE(
                    most_apart(transformed(filled(alone, how), turned), transformed(filled(beside, how), turned), size),
                    1)
                    << count;
                Bitmap<Gray8> whole{size};
                fill(whole, alone, how, colors::white);
                Bitmap<Gray8> parts{size};
                for (int x = 0; x < size.width; x += 40) {
                    fill(parts.within({.at = {x, 0}, .size = {40, 50}}), alone, how, colors::white);
                    fill(parts.within({.at = {x, 50}, .size = {40, 70}}), alone, how, colors::white);
                }
                EXPECT_EQ(parts.bytes(), whole.bytes()) << count;
            }
        }
    }
}

// Corners between curves and lines are mitered by the curves' own directions, whichever way the path goes.
TEST(Smooth, CornersOfCurvesReachAsFarEitherWay) {
    constexpr auto size = Size{120, 120};
    for (const auto scale : {0.1, 0.2, 0.3, 0.5, 0.8, 1.0}) {
        for (const auto mirrored : {false, true}) {
            const auto sail_and = [&](bool has_another) {
                const auto at = [&](double x, double y) {
                    const auto across = (x - 500) * scale;
                    return Position{mirrored ? 80 - across : 40 + across, 9 + (y - 340) * scale};
                };
                Path path;
                path.move(at(516, 346))
                    .quadratic({.control = at(484, 402), .to = at(480, 438)})
                    .line(at(516, 438))
                    .close();
                if (has_another) path.move({300, 300}).line({309, 300}).line({300, 305}).close();
                return path;
            };
            EXPECT_LE(most_apart(filled(sail_and(false), smooth), filled(sail_and(true), smooth), size), 1) << scale;
        }
    }
}

}  // namespace
