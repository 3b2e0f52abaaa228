// Regions against sets of pixels; clips; flood.
#include "plane_oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/error.hpp>
#include <coldbrick/flood.hpp>
#include <coldbrick/region.hpp>

#include <algorithm>
#include <cmath>
#include <deque>
#include <set>

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr auto window = Box{.at = {-20, -16}, .size = {60, 48}};

Region random_region(Dice& dice) {
    switch (dice.number(0, 3)) {
        case 0:
            return Region{Polygon{dice.ring(3, 8, window)}};
        case 1:
            return Region{stroked(Polyline{.through = dice.ring(2, 5, window)}, {.width = dice.number(1, 6)})};
        case 2:
            return Region{Circle{.center = dice.point(window), .radius = dice.number(0, 20)}};
        default: {
            Region dots;
            for (int i = 0; i < 30; ++i) dots = unite(dots, Region{Box{.at = dice.point(window), .size = {1, 1}}});
            return dots;
        }
    }
}

constexpr auto everywhere = Box{.at = {-60, -60}, .size = {140, 140}};

Membership in_set(const PixelSet& pixels) {
    return [&](Point p) { return has(pixels, p); };
}

TEST(Regions, AlgebraIsThatOfSets) {
    Dice dice{71};
    for (int i = 0; i < (is_sanitized ? 11 : 30); ++i) {
        const auto a = random_region(dice);
        const auto b = i % 10 == 0 ? a : random_region(dice);
        const auto in_a = drawn(a, everywhere);
        const auto in_b = drawn(b, everywhere);
        const auto check = [&](const Region& region, const std::function<bool(bool, bool)>& keep) {
            const auto rule = [&](Point p) { return keep(has(in_a, p), has(in_b, p)); };
            const auto expected = pixels_of(rule, everywhere);
            EXPECT_EQ(drawn(region, everywhere), expected);
            EXPECT_EQ(region.area(), static_cast<std::int64_t>(expected.size()));
            EXPECT_EQ(region.bounds(), box_of(expected));
            EXPECT_EQ(region.empty(), expected.empty());
            EXPECT_EQ(region, Region::of_spans({region.spans().begin(), region.spans().end()}));
            for (int k = 0; k < 20; ++k) {
                const auto p = dice.point(everywhere);
                EXPECT_EQ(region.contains(p), rule(p));
            }
        };
        check(unite(a, b), [](bool x, bool y) { return x || y; });
        check(intersection(a, b), [](bool x, bool y) { return x && y; });
        check(difference(a, b), [](bool x, bool y) { return x && !y; });
        check(symmetric_difference(a, b), [](bool x, bool y) { return x != y; });
        EXPECT_EQ(difference(a, a), Region{});
        EXPECT_EQ(a == b, in_a == in_b);
        const auto by = dice.point(window);
        const auto moved = a.shifted(by);
        EXPECT_EQ(moved.shifted({-by.x, -by.y}), a);
        EXPECT_EQ(moved.contains({in_a[0].x + by.x, in_a[0].y + by.y}), true);
    }
}

TEST(Regions, StrokesFollowTheOutline) {
    Dice dice{72};
    for (int i = 0; i < (is_sanitized ? 4 : 12); ++i) {
        const auto region = random_region(dice);
        const auto fill = drawn(region, everywhere);
        expect_pixels(stroked(region), outline(in_set(fill)), window, "region outline");
        // The distance from the nearest pixel's square, outside; inside, from that of the nearest one that is missing.
        const auto width = dice.number(2, 9);
        const auto align = std::array{Align::center, Align::inside, Align::outside}[static_cast<std::size_t>(i % 3)];
        const auto out = align == Align::center ? width / 2 : (align == Align::inside ? 0 : width);
        const auto reach = width + 1;
        const auto rule = [&](Point p) {
            const auto inside = has(fill, p);
            auto nearest = 1000;  // of the squares, twice the distance, squared
            for (int dy = -reach; dy <= reach; ++dy) {
                for (int dx = -reach; dx <= reach; ++dx) {
                    if (has(fill, {p.x + dx, p.y + dy}) == inside) continue;
                    const auto x = std::max(2 * std::abs(dx) - 1, 0);
                    const auto y = std::max(2 * std::abs(dy) - 1, 0);
                    nearest = std::min(nearest, x * x + y * y);
                }
            }
            const auto distance = std::sqrt(static_cast<Real>(nearest)) / 2;
            const auto limit = inside ? width - out : out;
            if (limit == 0) return Answer::out;
            if (std::abs(distance - limit) < open_question) return Answer::open;
            return distance < limit ? Answer::in : Answer::out;
        };
        expect_answers(stroked(region, {.width = width, .align = align}), rule, window, "region stroke", 0.2);
    }
}

TEST(Regions, OfABoxHasTheBoxesStrokeWithRoundCorners) {
    const auto box = Box{.at = {0, 0}, .size = {21, 13}};
    for (int width = 2; width < 9; ++width) {
        const auto how = Stroke{.width = width, .join = Join::round};
        EXPECT_EQ(Region{stroked(Region{box}, how)}, Region{stroked(box, how)}) << width;
        EXPECT_EQ(bounds(stroked(Region{box}, how)), bounds(stroked(box, how)));
    }
}

TEST(Regions, AsClipsOfEveryKindOfDrawing) {
    Dice dice{73};
    constexpr auto sheet = Size{60, 48};
    for (int i = 0; i < 60; ++i) {
        const auto region = random_region(dice).shifted({20, 16});
        const auto second = random_region(dice).shifted({20, 16});
        const auto box = Box{.at = {dice.number(-5, 20), dice.number(-5, 20)}, .size = {40, 30}};
        Bitmap<Rgba8> all{sheet, colors::navy};
        Bitmap<Rgba8> cut{sheet, colors::navy};
        const auto ink = i % 2 == 0 ? colors::gold : with_alpha(colors::gold, 90);
        const auto path = dice.ring(2, 5, {.at = {0, 0}, .size = sheet});
        const auto draw = [&](auto&& to) {
            return i % 3 == 0   ? stroke(to, Polyline{.through = path}, ink)
                   : i % 3 == 1 ? fill(to, Circle{.center = path[0], .radius = 15}, ink)
                                : clear(to, ink);
        };
        draw(all);
        const auto touched = draw(cut.within(region).within(box).within(second));
        auto expected = Box{};
        for (int y = 0; y < sheet.height; ++y) {
            for (int x = 0; x < sheet.width; ++x) {
                const auto p = Point{x, y};
                const auto inside = region.contains(p) && second.contains(p) && contains(box, p);
                const auto changed = all.color_at(p) != colors::navy;
                EXPECT_EQ(cut.color_at(p), inside ? all.color_at(p) : colors::navy) << p;
                if (inside && changed) expected = enclosing(expected, {.at = p, .size = {1, 1}});
            }
        }
        EXPECT_TRUE(i % 3 == 2 || touched == expected) << touched << " for " << expected;
    }
}

TEST(Regions, FloodFindsWhatIsConnected) {
    Dice dice{74};
    for (int i = 0; i < 60; ++i) {
        Bitmap<Rgb8> picture{{40, 30}, gray(100)};
        for (int k = 0; k < 25; ++k) {
            const auto shade = gray(static_cast<std::uint8_t>(100 + dice.number(0, 3) * 10));
            stroke(picture, Line{.from = dice.point({{0, 0}, {40, 30}}), .to = dice.point({{0, 0}, {40, 30}})}, shade);
        }
        const auto from = Point{dice.number(0, 39), dice.number(0, 29)};
        const auto tolerance = 10 * dice.number(0, 2);
        const auto neighbors = i % 2 == 0 ? Neighbors::four : Neighbors::eight;
        const auto first = picture.color_at(from).red;
        std::set<std::pair<int, int>> reached{{from.y, from.x}};
        std::deque<Point> waiting{from};
        while (!waiting.empty()) {
            const auto p = waiting.front();
            waiting.pop_front();
            for (int dy = -1; dy <= 1; ++dy) {
                for (int dx = -1; dx <= 1; ++dx) {
                    const auto q = Point{p.x + dx, p.y + dy};
                    if (neighbors == Neighbors::four && dx != 0 && dy != 0) continue;
                    if (!contains(Box{{0, 0}, {40, 30}}, q) || std::abs(picture.color_at(q).red - first) > tolerance)
                        continue;
                    if (reached.insert({q.y, q.x}).second) waiting.push_back(q);
                }
            }
        }
        const auto region = flood(picture, {.from = from, .tolerance = tolerance, .neighbors = neighbors});
        EXPECT_EQ(region.area(), static_cast<std::int64_t>(reached.size()));
        for (const auto& [y, x] : reached) EXPECT_TRUE(region.contains({x, y}));
    }
    Bitmap<Gray8> picture{{9, 9}};
    EXPECT_EQ(flood(picture.within(Box{{2, 3}, {4, 2}}), {.from = {3, 3}}), (Region{Box{{2, 3}, {4, 2}}}));
    const Region disc{Circle{{4, 4}, 3}};
    EXPECT_EQ(flood(picture.within(disc), {.from = {4, 4}}), disc);
    EXPECT_THROW((void)flood(picture, {.from = {9, 0}}), Error);
    EXPECT_THROW((void)flood(picture, {.from = {1, 0}, .tolerance = 256}), Error);
}

TEST(Regions, FaultsAreRefused) {
    EXPECT_THROW((void)Region::of_spans({{.y = 1, .x = 5, .length = 0}}), Error);
    EXPECT_THROW((void)Region::of_spans({{.y = 1, .x = 5, .length = 3}, {.y = 1, .x = 8, .length = 3}}), Error);
    EXPECT_THROW((void)Region::of_spans({{.y = 2, .x = 5, .length = 3}, {.y = 1, .x = 8, .length = 3}}), Error);
    EXPECT_THROW((void)(Region{Circle{{0, 0}, 3}}.shifted({2147483647, 0})), Error);
    EXPECT_EQ(bounds(stroked(Region{}, {.width = 5})), Box{});
}

}  // namespace
