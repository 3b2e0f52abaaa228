// Wide strokes of lines, polylines, polygons and boxes against the rules.
#include "plane_oracle.hpp"
#include "this_build.hpp"

#include "coldbrick/path.hpp"
#include "coldbrick/vertices.hpp"

#include <algorithm>
#include <array>

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr auto window = Box{.at = {-30, -25}, .size = {61, 51}};
constexpr auto caps = std::array{Cap::flush, Cap::square, Cap::round};
constexpr auto joins = std::array{Join::miter, Join::bevel, Join::round};
constexpr auto aligns = std::array{Align::center, Align::inside, Align::outside};

TEST(Strokes, LinesOfEveryWidthAndCap) {
    Dice dice{31};
    for (int width = 2; width <= 40; ++width) {
        for (const auto cap : caps) {
            const auto a = dice.point(window);
            auto b = dice.point(window);
            if (b == a) b.x += 3;
            expect_answers(stroked(Line{.from = a, .to = b}, {.width = width, .cap = cap}),
                           question(wide_path({a, b}, false, {.width = width, .cap = cap})), window,
                           "line of width " + std::to_string(width));
        }
    }
}

TEST(Strokes, StraightLinesHaveExactlyTheirRowsAndColumns) {
    for (int width = 1; width <= 40; ++width) {
        const auto first = 4 - width / 2;
        EXPECT_EQ(drawn(stroked(Line{.from = {-7, 4}, .to = {9, 4}}, {.width = width}), window),
                  pixels_of(in_box({.at = {-7, first}, .size = {17, width}}), window));
        EXPECT_EQ(drawn(stroked(Line{.from = {4, 9}, .to = {4, -7}}, {.width = width}), window),
                  pixels_of(in_box({.at = {first, -7}, .size = {width, 17}}), window));
        // Square caps go on by half the width instead of half a pixel.
        const auto longer = stroked(Line{.from = {-7, 0}, .to = {9, 0}}, {.width = width, .cap = Cap::square});
        EXPECT_EQ(bounds(longer).size.width, 16 + width + (width % 2 == 0 ? 1 : 0));
    }
}

// Rational directions: centres lie exactly on the edge, and belong to the stroke.
TEST(Strokes, PixelsOnTheEdgeBelongToIt) {
    for (const auto& direction : {std::array{3, 4, 5}, {-4, 3, 5}, {5, 12, 13}, {-8, -15, 17}}) {
        const auto dx = direction[0];
        const auto dy = direction[1];
        const auto size = direction[2];
        const auto line = Line{.from = {0, 0}, .to = {2 * dx, 2 * dy}};
        for (int width = 3; width < 30; width += 2) {
            const auto rule = [&](Point p) {
                const auto side = Wide{p.y} * dx - Wide{p.x} * dy;
                const auto forth = Wide{p.x} * dx + Wide{p.y} * dy;
                const auto reach = Wide{width} * size;
                return 2 * side <= reach && 2 * side >= -reach && 2 * forth >= -size &&
                       2 * forth <= 4 * size * size + size;
            };
            EXPECT_EQ(drawn(stroked(line, {.width = width}), window), pixels_of(rule, window)) << width;
        }
    }
}

TEST(Strokes, RoundCapsAreTheDiscsOfTheWidth) {
    for (int width = 2; width <= 40; ++width) {
        const auto dot = stroked(Line{.from = {3, -2}, .to = {3, -2}}, {.width = width, .cap = Cap::round});
        const auto box = Box{.at = {3 - width / 2, -2 - width / 2}, .size = {width, width}};
        expect_whole(dot, in_ellipse(box.at.x, box.at.y, width, width), window, "dot");
        const auto square = stroked(Polyline{.through = {{3, -2}, {3, -2}}}, {.width = width});
        expect_whole(square, in_box(box), window, "square dot");
    }
}

Polygon::Vertices lively_path(Dice& dice, int count, int reach) {
    Polygon::Vertices path{dice.point(window)};
    while (static_cast<int>(path.size()) < count) {
        const auto next = Point{path.back().x + dice.number(-reach, reach), path.back().y + dice.number(-reach, reach)};
        if (next != path.back() && (path.size() < 2 || next != path.front())) path.push_back(next);
    }
    return path;
}

// A path that turns back on itself ends in a cap there, of which the oracle knows nothing.
bool turns_back(const Polygon::Vertices& path, bool closed) {
    for (std::size_t i = 0; i < path.size(); ++i) {
        if (!closed && i + 2 >= path.size()) break;
        const auto u = place(path[(i + 1) % path.size()]) - place(path[i]);
        const auto t = place(path[(i + 2) % path.size()]) - place(path[(i + 1) % path.size()]);
        if (across(u, t) == 0 && along(u, t) < 0) return true;
    }
    return false;
}

TEST(Strokes, PathsOfEveryWidthCapAndJoin) {
    Dice dice{32};
    for (int width = 2; width <= 40; width += is_sanitized ? 6 : 1) {
        for (const auto join : joins) {
            const auto closed = dice.number(0, 1) == 1;
            const auto path = lively_path(dice, dice.number(3, 5), width % 2 == 0 ? 4 : 30);
            if (turns_back(path, closed)) continue;
            const auto cap = caps[static_cast<std::size_t>(dice.number(0, 2))];
            const auto limit = dice.number(1, 6);
            const auto how =
                Stroke{.width = width, .cap = cap, .join = join, .miter_limit = static_cast<double>(limit)};
            const auto rule =
                question(wide_path(path, closed, {.width = width, .cap = cap, .join = join, .limit = how.miter_limit}));
            const auto what = "path of width " + std::to_string(width) + (closed ? ", closed" : "");
            const auto line = stroked(Polyline{.through = path, .closed = closed}, how);
            expect_answers(line, rule, window, what, 0.03);
            if (closed && width % 2 == 1) {
                EXPECT_EQ(drawn(stroked(Polygon{path}, how), window), drawn(line, window));
            }
        }
    }
}

TEST(Strokes, PathsThatTurnBackRepeatPointsOrAreVeryShort) {
    const auto wide = Stroke{.width = 9};
    const auto straight = drawn(stroked(Line{.from = {-10, 3}, .to = {12, 3}}, wide), window);
    EXPECT_EQ(drawn(stroked(Polyline{.through = {{-10, 3}, {12, 3}, {-10, 3}}}, wide), window), straight);
    EXPECT_EQ(drawn(stroked(Polyline{.through = {{-10, 3}, {-10, 3}, {1, 3}, {1, 3}, {12, 3}}}, wide), window),
              straight);
    EXPECT_EQ(drawn(stroked(Polyline{.through = {{-10, 3}, {12, 3}}, .closed = true}, wide), window), straight);
    // A way back within the line adds nothing.
    EXPECT_EQ(drawn(stroked(Polyline{.through = {{-10, 3}, {8, 3}, {-4, 3}, {12, 3}}}, wide), window), straight);
    // A closed path of points near each other covers what lies between them, without holes.
    const auto knot = Polygon::Vertices{{0, 0}, {1, 0}, {1, 1}, {0, 1}};
    const auto found =
        drawn(stroked(Polyline{.through = knot, .closed = true}, {.width = 21, .join = Join::round}), window);
    for (int y = -8; y <= 8; ++y) {
        for (int x = -8; x <= 8; ++x) EXPECT_EQ(has(found, {x, y}) || x * x + y * y > 90, true) << x << ',' << y;
    }
}

TEST(Strokes, BoxesOfEveryWidthAlignAndJoin) {
    Dice dice{33};
    for (int width = 2; width <= 40; ++width) {
        for (const auto align : aligns) {
            const auto box = Box{.at = dice.point({.at = {-15, -12}, .size = {20, 16}}),
                                 .size = {dice.number(1, 20), dice.number(1, 20)}};
            const auto out = align == Align::center ? width / 2 : (align == Align::inside ? 0 : width);
            const auto reach = [=](Point p) {
                // How far outside the box's edge a pixel's centre lies, in half pixels, to the side and up or down.
                const auto beyond = [](int at, int size, int v) {
                    return std::max(2 * (at - v) - 1, 2 * (v - at - size) + 1);
                };
                return std::pair{beyond(box.at.x, box.size.width, p.x), beyond(box.at.y, box.size.height, p.y)};
            };
            for (const auto join : joins) {
                const auto rule = [=](Point p) {
                    const auto [x, y] = reach(p);
                    const auto most = std::max(x, y);
                    if (most <= -2 * (width - out)) return false;
                    if (x <= 0 || y <= 0 || join == Join::miter) return most <= 2 * out;
                    return join == Join::bevel ? x + y <= 2 * out : x * x + y * y <= 4 * out * out;
                };
                const auto area = stroked(box, {.width = width, .align = align, .join = join});
                const auto wide = Box{.at = {-60, -60}, .size = {125, 120}};
                expect_whole(area, rule, wide, "box of width " + std::to_string(width));
            }
        }
    }
}

// Pixels along closed lines of an odd width.
PixelSet along_rings(const std::vector<Polygon::Vertices>& rings, Stroke how, int width) {
    how.width = width;
    how.align = Align::center;
    PixelSet all;
    for (const auto& ring : rings) {
        const auto one = drawn(stroked(Polyline{.through = ring, .closed = true}, how), window);
        all.insert(all.end(), one.begin(), one.end());
    }
    std::sort(all.begin(), all.end(), precedes);
    all.erase(std::unique(all.begin(), all.end()), all.end());
    return all;
}

// Rule 4 for polygons, said with sets of pixels.
PixelSet polygon_rule(const std::vector<Polygon::Vertices>& rings, const Stroke& how) {
    const auto w = static_cast<int>(how.width.pixels());
    const auto fill = drawn(Polygon{rings}, window);
    const auto is_even = how.align == Align::center && w % 2 == 0;
    const auto first = along_rings(rings, how,
                                   how.align == Align::inside    ? 2 * w - 1
                                   : how.align == Align::outside ? 2 * w + 1
                                   : is_even                     ? w - 1
                                                                 : w);
    const auto wider = is_even ? along_rings(rings, how, w + 1) : PixelSet{};
    PixelSet expected;
    for (int y = window.at.y; y <= window.last().y; ++y) {
        for (int x = window.at.x; x <= window.last().x; ++x) {
            const auto p = Point{x, y};
            const auto in_first = has(first, p);
            const auto filled = has(fill, p);
            const auto is_there = how.align == Align::inside    ? in_first && filled
                                  : how.align == Align::outside ? in_first && !filled
                                                                : in_first || (has(wider, p) && !filled);
            if (is_there) expected.push_back(p);
        }
    }
    return expected;
}

TEST(Strokes, PolygonsOfEveryWidthAndAlign) {
    Dice dice{34};
    for (int width = 1; width <= 21; ++width) {
        const std::vector<Polygon::Vertices> rings{lively_path(dice, 5, 30), lively_path(dice, 3, 20)};
        Path path;
        for (const auto& ring : rings) {
            path.move(Position{1.0 * ring.front().x, 1.0 * ring.front().y});
            for (std::size_t i = 1; i < ring.size(); ++i) path.line(Position{1.0 * ring[i].x, 1.0 * ring[i].y});
            path.close();
        }
        for (const auto align : aligns) {
            const Stroke how{.width = width, .align = align, .join = joins[static_cast<std::size_t>(width % 3)]};
            const auto expected = polygon_rule(rings, how);
            const auto what = "width " + std::to_string(width) + ", align " + std::to_string(static_cast<int>(align));
            EXPECT_EQ(drawn(stroked(Polygon{rings}, how), window), expected) << what;
            EXPECT_EQ(drawn(stroked(path, how), window), expected) << what;
            const auto there = transformed(stroked(Polygon{rings}, how), Transform{}.move({7, -5}));
            const auto back = Box{.at = {window.at.x + 7, window.at.y - 5}, .size = window.size};
            auto moved = drawn(there, back);
            for (auto& p : moved) p = {p.x - 7, p.y + 5};
            EXPECT_EQ(moved, expected) << what << ", moved";
        }
    }
}

// Lines of a path that are not closed are stroked as lines are, beside its rings.
TEST(Strokes, OpenPartsOfPathsAreLines) {
    const Polygon::Vertices ring{{-9, -8}, {10, -5}, {2, 9}};
    Path path;
    path.move({-9, -8}).line({10, -5}).line({2, 9}).close().move({-12, 12}).line({14, 12});
    for (const auto width : {1, 2, 4, 5}) {
        for (const auto align : aligns) {
            const Stroke how{.width = width, .align = align};
            auto expected = polygon_rule({ring}, how);
            const auto line = drawn(stroked(Line{.from = {-12, 12}, .to = {14, 12}}, {.width = width}), window);
            expected.insert(expected.end(), line.begin(), line.end());
            std::sort(expected.begin(), expected.end(), precedes);
            expected.erase(std::unique(expected.begin(), expected.end()), expected.end());
            EXPECT_EQ(drawn(stroked(path, how), window), expected) << width;
        }
    }
}

TEST(Strokes, APolygonThroughTheCornersOfABoxIsStrokedAsTheBox) {
    Dice dice{37};
    for (int width = 1; width <= 24; ++width) {
        for (const auto align : aligns) {
            for (const auto edge : {Edge::crisp, Edge::smooth}) {
                const Box box{.at = dice.point({.at = {-15, -12}, .size = {20, 16}}),
                              .size = {dice.number(2, 20), dice.number(2, 20)}};
                const auto [right, bottom] = box.last();
                const Polygon polygon{box.at, {right, box.at.y}, {right, bottom}, {box.at.x, bottom}};
                const Stroke how{.width = width, .align = align, .edge = edge};
                EXPECT_EQ(drawn(stroked(polygon, how), window), drawn(stroked(box, how), window)) << width;
            }
        }
    }
}

// Moved by whole pixels a stroke is the moved stroke; mirrored it is the mirrored one where nothing is moved by halves.
TEST(Strokes, MovedAndMirrored) {
    Dice dice{35};
    for (int i = 0; i < 60; ++i) {
        const auto path = lively_path(dice, dice.number(2, 5), 25);
        const auto how = Stroke{.width = 2 * dice.number(1, 9) + 1,
                                .cap = caps[static_cast<std::size_t>(i % 3)],
                                .join = joins[static_cast<std::size_t>(i / 3 % 3)],
                                .dash = i % 2 == 0 ? std::vector<double>{} : std::vector<double>{7, 4.5}};
        const auto by = Point{dice.number(-900000, 900000), dice.number(-900000, 900000)};
        auto moved = path;
        auto mirrored = path;
        for (auto& p : moved) p = {p.x + by.x, p.y + by.y};
        for (auto& p : mirrored) p = {-p.x, p.y};
        const auto original = drawn(stroked(Polyline{.through = path}, how), window);
        auto expected = original;
        for (auto& p : expected) p = {p.x + by.x, p.y + by.y};
        const auto there = Box{.at = {window.at.x + by.x, window.at.y + by.y}, .size = window.size};
        EXPECT_EQ(drawn(stroked(Polyline{.through = moved}, how), there), expected);
        expected = original;
        for (auto& p : expected) p = {-p.x, p.y};
        std::sort(expected.begin(), expected.end(), precedes);
        EXPECT_EQ(drawn(stroked(Polyline{.through = mirrored}, how), window), expected);
    }
}

TEST(Strokes, BoundsAreTheSmallestBox) {
    Dice dice{36};
    const auto large = Box{.at = {-220, -220}, .size = {441, 441}};
    for (int i = 0; i < 120; ++i) {
        const auto path = lively_path(dice, dice.number(2, 5), 25);
        const auto how = Stroke{.width = dice.number(1, 24),
                                .cap = caps[static_cast<std::size_t>(i % 3)],
                                .join = joins[static_cast<std::size_t>(i / 3 % 3)],
                                .dash = i % 4 == 0 ? std::vector<double>{5, 3} : std::vector<double>{}};
        const auto open = stroked(Polyline{.through = path}, how);
        EXPECT_EQ(bounds(open), box_of(drawn(open, large)));
        const auto closed = stroked(Polygon{path}, how);
        EXPECT_EQ(bounds(closed), box_of(drawn(closed, large)));
    }
}

}  // namespace
