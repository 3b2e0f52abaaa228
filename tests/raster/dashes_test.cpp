// Dashes against the rule: lengths along the path, on and off in turn, each a line of its own with caps.
#include "plane_oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/path.hpp>
#include <coldbrick/region.hpp>

#include <algorithm>
#include <cmath>

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr auto window = Box{.at = {-30, -25}, .size = {61, 51}};

// The dashes up to a distance, by going along the list.
std::vector<std::pair<Real, Real>> dashes_of(const Stroke& how, Real length) {
    std::vector<double> list = how.dash;
    if (list.size() % 2 == 1) list.insert(list.end(), how.dash.begin(), how.dash.end());
    Real period = 0;
    for (const auto part : list) period += part;
    std::vector<std::pair<Real, Real>> dashes;
    for (auto at = -std::fmod(static_cast<Real>(how.dash_offset), period) - 2 * period; at < length;) {
        for (std::size_t i = 0; i < list.size(); i += 2) {
            const auto end = at + list[i];
            if (end >= 0 && at <= length) dashes.emplace_back(std::max(at, Real{0}), std::min(end, length));
            at = end + list[i + 1];
        }
    }
    return dashes;
}

Stroke random_pattern(Dice& dice, int width) {
    Stroke how{.width = width};
    for (int parts = dice.number(1, 4); parts > 0; --parts) how.dash.push_back(dice.number(2, 24) / 2.0);
    how.dash_offset = dice.number(-60, 60) / 4.0;
    return how;
}

TEST(Dashes, AlongLevelLinesAreWholePixels) {
    Dice dice{91};
    for (int width = 1; width <= 12; ++width) {
        for (int i = 0; i < 8; ++i) {
            auto how = random_pattern(dice, width);
            for (auto& part : how.dash) part = std::floor(part);
            how.dash_offset = std::floor(how.dash_offset);
            const auto a = Point{dice.number(-25, 0), dice.number(-9, 9)};
            const auto b = Point{a.x + dice.number(1, 40), a.y};
            const auto dashes = dashes_of(how, b.x - a.x + 1);
            const auto rule = [&](Point p) {
                const auto in_rows = p.y >= a.y - width / 2 && p.y < a.y - width / 2 + width;
                return in_rows && std::any_of(dashes.begin(), dashes.end(), [&](const auto& dash) {
                           return p.x - a.x >= dash.first && p.x - a.x < dash.second;
                       });
            };
            expect_pixels(stroked(Line{.from = a, .to = b}, how), rule, window, "dashes");
        }
    }
}

TEST(Dashes, OfSlantedLinesAreRectangles) {
    Dice dice{92};
    for (int i = 0; i < (is_sanitized ? 20 : 60); ++i) {
        auto how = random_pattern(dice, dice.number(2, 14));
        how.cap = std::array{Cap::flush, Cap::square, Cap::round}[static_cast<std::size_t>(i % 3)];
        const auto a = dice.point(window);
        const auto b = Point{a.x + dice.number(5, 40), a.y + dice.number(5, 40)};
        const auto size = size_of(place(b) - place(a));
        const auto direction = unit_of(place(b) - place(a));
        const auto shift = static_cast<int>(how.width.pixels()) % 2 == 0 ? Place{-0.5L, -0.5L} : Place{};
        const auto half = how.width.pixels() / 2.0L;
        // The path begins half a pixel before its first point.
        const auto dashes = dashes_of(how, size + 1);
        const auto rule = question([&](Place p) {
            const auto q = p - place(a);
            const auto t = along(q, direction) + 0.5L;
            const auto side = std::abs(across(direction, q - shift));
            const auto on = along(q - shift, direction) + 0.5L;
            return std::any_of(dashes.begin(), dashes.end(), [&](const auto& dash) {
                const auto& [begin, end] = dash;
                const auto more = how.cap == Cap::square ? half - 0.5L : 0;
                if (side <= half && t >= begin - more && t <= end + more) return true;
                if (how.cap != Cap::round) return false;
                const auto inset = std::min(0.5L, (end - begin) / 2);
                return std::hypot(on - begin - inset, side) <= half || std::hypot(on - end + inset, side) <= half;
            });
        });
        expect_answers(stroked(Line{.from = a, .to = b}, how), rule, window, "slanted dashes", 0.05);
    }
}

TEST(Dashes, OnAndOffTogetherAreTheWholeStroke) {
    Dice dice{93};
    for (int i = 0; i < 80; ++i) {
        const auto width = dice.number(1, 9);
        const auto on = Stroke{.width = width, .dash = {6, 4}, .dash_offset = dice.number(0, 20) / 2.0};
        auto off = on;
        off.dash_offset += 4;
        off.dash = {4, 6};
        const auto check = [&](const auto& shape, bool is_exact) {
            const Region whole{stroked(shape, {.width = width}), window};
            const Region first{stroked(shape, on), window};
            const Region second{stroked(shape, off), window};
            // At corners the gaps' ends lie over the dashes'; nothing is left out.
            EXPECT_LE(difference(whole, unite(first, second)).area(), is_exact ? 0 : 6) << i;
            EXPECT_TRUE(intersection(first, second).area() <= (is_exact ? 0 : whole.area() / 2)) << i;
        };
        const auto a = dice.point(window);
        check(Line{.from = a, .to = {a.x + dice.number(1, 30), a.y + dice.number(-30, 30)}}, true);
        check(Circle{.center = dice.point(window), .radius = dice.number(10, 25)}, false);
    }
}

TEST(Dashes, GoRoundCornersAndOverTheSeam) {
    const auto box = Box{.at = {-10, -8}, .size = {20, 16}};
    // The way around is 72 pixels: 6 dashes, and with this offset one lies on the upper left corner.
    const auto how = Stroke{.width = 4, .dash = {8, 4}, .dash_offset = 4};
    const Region dashes{stroked(box, how)};
    EXPECT_TRUE(dashes.contains({-10, -8}));
    EXPECT_TRUE(dashes.contains({-12, -10}));  // the miter around the corner
    EXPECT_TRUE(dashes.contains({-7, -8}));
    EXPECT_TRUE(dashes.contains({-10, -5}));
    EXPECT_FALSE(dashes.contains({-5, -8}));
    EXPECT_FALSE(dashes.contains({-10, -3}));
    // A dash as long as the way around is the whole stroke, a gap as long is nothing.
    const auto whole = Region{stroked(box, {.width = 4})};
    EXPECT_EQ((Region{stroked(box, {.width = 4, .dash = {72, 72}})}), whole);
    EXPECT_TRUE((Region{stroked(box, {.width = 4, .dash = {72, 72}, .dash_offset = 72})}.empty()));
    // So it is with the paths of the same shape.
    const auto path = parse_path("M-10,-8 H9 V7 H-10 Z");
    EXPECT_EQ((Region{stroked(path, {.width = 3, .dash = {500}})}), (Region{stroked(path, {.width = 3})}));
}

TEST(Dashes, OfNoLengthAreDotsIfTheyAreRound) {
    const auto line = Line{.from = {-20, 0}, .to = {20, 0}};
    auto how = Stroke{.width = 7, .cap = Cap::round, .dash = {0, 10}, .dash_offset = -0.5};
    Region expected;
    for (int x = -20; x <= 20; x += 10) expected = unite(expected, Region{Circle{.center = {x, 0}, .radius = 3}});
    const Region dots{stroked(line, how)};
    // A disc of 7 pixels around each tenth pixel: but for what is within 1/64 of its edge.
    EXPECT_LE(symmetric_difference(dots, expected).area(), 0);
    how.cap = Cap::flush;
    EXPECT_TRUE(Region{stroked(line, how)}.empty());
}

TEST(Dashes, OfOutlinesArePartsOfTheOutline) {
    Dice dice{94};
    for (int i = 0; i < 40; ++i) {
        const auto how = random_pattern(dice, 1);
        const auto check = [&](const auto& shape) {
            const Region outline{stroked(shape), window};
            const Region dashes{stroked(shape, how), window};
            EXPECT_EQ(difference(dashes, outline).area(), 0);
        };
        const auto ellipse =
            Ellipse::within({.at = dice.point(window), .size = {dice.number(9, 40), dice.number(9, 40)}});
        check(ellipse);
        check(ellipse.turned(Angle::degrees(dice.number(0, 180))));
        check(Sector{.of = ellipse, .sweep = {.from = 20_deg, .by = 200_deg}});
        check(RoundedBox{.box = ellipse.box(), .corner_radius = 4});
        check(Region{ellipse});
        check(Polyline{.through = dice.ring(2, 5, window), .closed = i % 2 == 0});
    }
}

}  // namespace
