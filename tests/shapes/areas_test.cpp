// What holds for every area: the same pixels through every clip, in every format and ink, wherever it is asked for.
#include "plane_oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/path.hpp>
#include <coldbrick/region.hpp>
#include <coldbrick/vertices.hpp>

#include <algorithm>
#include <array>

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr auto sheet = Box{.at = {0, 0}, .size = {90, 70}};

Stroke random_stroke(Dice& dice) {
    Stroke how{
        .width = dice.number(1, 14),
        .align = std::array{Align::center, Align::inside, Align::outside}[static_cast<std::size_t>(dice.number(0, 2))],
        .cap = std::array{Cap::flush, Cap::square, Cap::round}[static_cast<std::size_t>(dice.number(0, 2))],
        .join = std::array{Join::miter, Join::bevel, Join::round}[static_cast<std::size_t>(dice.number(0, 2))],
        .miter_limit = dice.number(10, 60) / 10.0};
    if (dice.number(0, 2) == 0) how.dash = {dice.number(0, 30) / 3.0, dice.number(2, 30) / 3.0};
    return how;
}

Path random_path(Dice& dice) {
    Path path;
    path.move(dice.point(sheet));
    for (int steps = dice.number(1, 4); steps > 0; --steps) {
        switch (dice.number(0, 3)) {
            case 0:
                path.line(dice.point(sheet));
                break;
            case 1:
                path.quadratic({.control = dice.point(sheet), .to = dice.point(sheet)});
                break;
            case 2:
                path.cubic({.control_1 = dice.point(sheet), .control_2 = dice.point(sheet), .to = dice.point(sheet)});
                break;
            default:
                path.arc({.radii = {double{1} * dice.number(1, 40), double{1} * dice.number(1, 40)},
                          .turned = Angle::degrees(dice.number(0, 180)),
                          .large = dice.number(0, 1) == 1,
                          .clockwise = dice.number(0, 1) == 1,
                          .to = dice.point(sheet)});
        }
    }
    return dice.number(0, 1) == 1 ? path.close() : path;
}

// Calls use(area) with random areas of every kind.
template <class Use>
void for_every_area(unsigned seed, int times, const Use& use) {
    Dice dice{seed};
    for (int i = 0; i < times; ++i) {
        const auto box = Box{.at = dice.point(sheet), .size = {dice.number(1, 60), dice.number(1, 60)}};
        const auto ellipse = Ellipse::within(box).turned(Angle::degrees(i % 3 == 0 ? 0 : dice.number(0, 180)));
        const auto sweep =
            Sweep{.from = Angle::degrees(dice.number(-400, 400)), .by = Angle::degrees(dice.number(-400, 400))};
        const auto rounded =
            RoundedBox{.box = box, .corner_radius = dice.number(0, std::min(box.size.width, box.size.height) / 2)};
        const auto points = dice.ring(3, 7, sheet);
        const auto path = random_path(dice);
        const auto how = random_stroke(dice);
        const auto both = [&](const auto& shape) {
            use(shape);
            use(stroked(shape, how));
        };
        both(box);
        both(rounded);
        both(Circle{.center = box.at, .radius = dice.number(0, 30)});
        both(ellipse);
        both(Sector{.of = ellipse, .sweep = sweep});
        both(Chord{.of = ellipse, .sweep = sweep});
        both(Polygon{points});
        both(path);
        both(Region{ellipse, sheet});
        both(VertexList{.as = Elements::triangle_strip, .at = points});
        use(stroked(Arc{.of = ellipse, .sweep = sweep}, how));
        use(stroked(Line{.from = points[0], .to = points[1]}, how));
        use(stroked(Polyline{.through = points, .closed = i % 2 == 0}, how));
        use(stroked(VertexList{.as = Elements::line_strip, .at = points}, how));
        use(filled(path, {.rule = FillRule::nonzero, .edges = Edges::shared}));
    }
}

TEST(Areas, AreTheSameThroughEveryClip) {
    Dice dice{111};
    const auto large = Box{.at = {-150, -150}, .size = {400, 400}};
    for_every_area(112, 40, [&](const auto& area) {
        const auto whole = drawn(area, large);
        for (int i = 0; i < 3; ++i) {
            const auto clip = Box{.at = dice.point(sheet), .size = {dice.number(1, 40), dice.number(1, 40)}};
            PixelSet expected;
            std::copy_if(whole.begin(), whole.end(), std::back_inserter(expected),
                         [&](Point p) { return contains(clip, p); });
            EXPECT_EQ(drawn(area, clip) == expected, true) << typeid(area).name() << " through " << clip;
            const auto p = dice.point(sheet);
            EXPECT_EQ(contains(area, p), has(whole, p)) << typeid(area).name();
        }
    });
}

TEST(Areas, ArePaintedAsTheirSpansByEveryInk) {
    Dice dice{113};
    for_every_area(114, is_sanitized ? 4 : 12, [&](const auto& area) {
        const auto pixels = drawn(area, sheet);
        for (const auto ink : {colors::gold, with_alpha(colors::gold, 77)}) {
            Bitmap<Rgb8> once{{1, 1}, colors::navy};
            mark(once, {0, 0}, ink);
            Bitmap<Rgb8> bitmap{sheet.size, colors::navy};
            const auto touched = fill(bitmap, area, ink);
            EXPECT_EQ(touched, box_of(pixels)) << typeid(area).name();
            int wrong = 0;
            for (int y = 0; y < sheet.size.height; ++y) {
                for (int x = 0; x < sheet.size.width; ++x) {
                    const auto expected = has(pixels, {x, y}) ? once.color_at({0, 0}) : colors::navy;
                    wrong += bitmap.color_at({x, y}) == expected ? 0 : 1;
                }
            }
            EXPECT_EQ(wrong, 0) << typeid(area).name();
        }
    });
}

TEST(Areas, AsRegionsHaveTheSamePixelsAndBounds) {
    for_every_area(115, 25, [&](const auto& area) {
        const Region region{area};
        EXPECT_EQ(region.bounds(), bounds(area)) << typeid(area).name();
        EXPECT_EQ(drawn(region, sheet) == drawn(area, sheet), true) << typeid(area).name();
    });
}

// Moved by whole pixels, far out too, an area has the moved pixels.
TEST(Areas, MovedByWholePixels) {
    Dice dice{116};
    for (int i = 0; i < 60; ++i) {
        const auto by = Point{dice.number(-1 << 28, 1 << 28), dice.number(-1 << 28, 1 << 28)};
        const auto moved = [&](Point p) { return Point{p.x + by.x, p.y + by.y}; };
        const auto how = random_stroke(dice);
        const auto box = Box{.at = dice.point(sheet), .size = {dice.number(1, 60), dice.number(1, 60)}};
        const auto there = Box{.at = moved(box.at), .size = box.size};
        const auto turn = Angle::degrees(dice.number(0, 180));
        const auto sweep =
            Sweep{.from = Angle::degrees(dice.number(0, 360)), .by = Angle::degrees(dice.number(0, 360))};
        const auto check = [&](const auto& here_area, const auto& there_area) {
            auto expected = drawn(here_area, sheet);
            for (auto& p : expected) p = moved(p);
            EXPECT_EQ(drawn(there_area, {.at = moved(sheet.at), .size = sheet.size}) == expected, true)
                << typeid(here_area).name() << " by " << by;
        };
        const auto here_ellipse = Ellipse::within(box).turned(turn);
        const auto there_ellipse = Ellipse::within(there).turned(turn);
        check(here_ellipse, there_ellipse);
        check(stroked(here_ellipse, how), stroked(there_ellipse, how));
        check(stroked(Arc{.of = here_ellipse, .sweep = sweep}, how),
              stroked(Arc{.of = there_ellipse, .sweep = sweep}, how));
        check(stroked(Sector{.of = here_ellipse, .sweep = sweep}, how),
              stroked(Sector{.of = there_ellipse, .sweep = sweep}, how));
        check(stroked(Region{here_ellipse}, how), stroked(Region{here_ellipse}.shifted(by), how));
    }
}

}  // namespace
