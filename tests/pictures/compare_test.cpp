// Where pictures differ, how many colours they have, and what colours are called.
#include "oracle.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <cmath>
#include <set>

namespace {

using namespace coldbrick;
using namespace oracle;

TEST(Compare, FindsEveryPixelThatDiffers) {
    Dice dice{501};
    for (int i = 0; i < 30; ++i) {
        const auto size = Size{dice.number(1, 20), dice.number(1, 14)};
        Bitmap<Rgba8> a{size, dice.color()};
        auto b = a;
        std::int64_t count = 0;
        Box box;
        int worst = 0;
        const auto tolerance = dice.number(0, 3) * 20;
        for (int k = dice.number(0, 6); k > 0; --k) {
            const auto at = dice.point({.at = {}, .size = size});
            mark(b, at, Ink{dice.color(), {.blend = Blend::replace}});
        }
        for (int y = 0; y < size.height; ++y) {
            for (int x = 0; x < size.width; ++x) {
                const auto p = a.color_at({x, y});
                const auto q = b.color_at({x, y});
                const auto most = std::max({std::abs(p.red - q.red), std::abs(p.green - q.green),
                                            std::abs(p.blue - q.blue), std::abs(p.alpha - q.alpha)});
                worst = std::max(worst, most);
                if (most <= tolerance) continue;
                ++count;
                box = enclosing(box, Box{.at = {x, y}, .size = {1, 1}});
            }
        }
        const auto found = compare(a, b, tolerance);
        EXPECT_EQ(found.pixels, count);
        EXPECT_EQ(found.box, box);
        EXPECT_DOUBLE_EQ(std::max({found.red, found.green, found.blue, found.alpha}), worst);
        const auto shown = differences_shown(a, b, tolerance);
        std::int64_t red = 0;
        for (int y = 0; y < size.height; ++y) {
            for (int x = 0; x < size.width; ++x) {
                const auto color = shown.color_at({x, y});
                red += color.red != color.green ? 1 : 0;
            }
        }
        EXPECT_EQ(red, count);
    }
    // Formats do not matter, views are pictures, and halves of a step count.
    const Bitmap<Rgb8> rgb{{4, 4}, colors::teal};
    EXPECT_EQ(compare(rgb, convert<Bgra8>(rgb)).pixels, 0);
    EXPECT_EQ(compare(rgb.within({.at = {1, 1}, .size = {2, 2}}), Bitmap<Rgb8>{{2, 2}, colors::teal}).pixels, 0);
    Bitmap<Gray16> fine{{1, 1}, gray(7)};
    const auto before = fine;
    mark(fine, {0, 0}, Color16{7 * 257 + 100, 7 * 257 + 100, 7 * 257 + 100});
    EXPECT_NEAR(compare(before, fine).red, 100 / 257.0, 1e-9);
    EXPECT_THROW((void)compare(rgb, Bitmap<Rgb8>{Size{4, 5}}), Error);
}

TEST(Compare, CountsColors) {
    Dice dice{502};
    Bitmap<Rgba8> picture{{30, 20}};
    std::set<std::tuple<int, int, int, int>> colors;
    for (int y = 0; y < 20; ++y) {
        for (int x = 0; x < 30; ++x) {
            const auto step = [&] { return static_cast<std::uint8_t>(dice.number(0, 3) * 85); };
            const auto color = Color{step(), step(), step(), step()};
            mark(picture, {x, y}, Ink{color, {.blend = Blend::replace}});
            colors.emplace(color.red, color.green, color.blue, color.alpha);
        }
    }
    EXPECT_EQ(count_colors(picture), colors.size());
    EXPECT_EQ(count_colors(Bitmap<Gray8>{{5, 5}, gray(3)}), 1U);
}

TEST(Compare, NearestNamesAreTheNearest) {
    for (const auto& named : named_colors) {
        if (named.color.alpha != 255) continue;
        // The first of those that have the same colour.
        const auto first = std::find_if(named_colors.begin(), named_colors.end(),
                                        [&](const NamedColor& other) { return other.color == named.color; });
        EXPECT_EQ(nearest_name(named.color), first->name);
    }
    Dice dice{503};
    for (int i = 0; i < 200; ++i) {
        const auto color = dice.color();
        const auto away = [&](Color n) {
            return (n.red - color.red) * (n.red - color.red) + (n.green - color.green) * (n.green - color.green) +
                   (n.blue - color.blue) * (n.blue - color.blue);
        };
        auto least = 1 << 30;
        auto of_found = 0;
        for (const auto& [name, named] : named_colors) {
            if (named.alpha != 255) continue;
            least = std::min(least, away(named));
            if (name == nearest_name(color)) of_found = away(named);
        }
        EXPECT_EQ(of_found, least);
    }
}

TEST(Colors, AreCountedWithoutKeepingThePixels) {
    Dice dice{901};
    Bitmap<Rgba16> picture{{150, 90}};
    for (int i = 0; i < 300; ++i) {
        const auto number = [&] { return static_cast<std::uint16_t>(dice.number(0, 65535)); };
        fill(picture, Circle{.center = {dice.number(0, 149), dice.number(0, 89)}, .radius = dice.number(0, 9)},
             Ink{Color16{number(), number(), number(), number()}, {.blend = Blend::replace}});
    }
    std::vector<Color16> expected;
    for (int y = 0; y < 90; ++y) {
        for (int x = 0; x < 150; ++x) expected.push_back(picture.color16_at({x, y}));
    }
    const auto number = [](const Color16& c) { return std::tuple{c.red, c.green, c.blue, c.alpha}; };
    std::sort(expected.begin(), expected.end(), [&](auto& a, auto& b) { return number(a) < number(b); });
    expected.erase(std::unique(expected.begin(), expected.end()), expected.end());
    EXPECT_EQ(coldbrick::colors_of(picture), expected);
    EXPECT_EQ(count_colors(picture, expected.size()), expected.size());
    EXPECT_EQ(count_colors(picture, 100), 101U);
    // All black, one pixel of another colour in the last row.
    Bitmap<Gray8> dark{{40, 30}};
    EXPECT_EQ(count_colors(dark), 1U);
    EXPECT_EQ(needs_of(dark), Needs{});
    mark(dark, {39, 29}, gray(9));
    EXPECT_EQ(count_colors(dark), 2U);
    Bitmap<Rgba16> deep{{40, 30}, Color{9, 9, 9}};
    mark(deep, {5, 7}, Ink{Color16{2313, 2313, 2314, 65535}, {}});
    EXPECT_EQ(needs_of(deep), (Needs{.color = true, .alpha = false, .deep = true}));
    mark(deep, {5, 7}, Ink{Color{9, 9, 9, 254}, {.blend = Blend::replace}});
    EXPECT_EQ(needs_of(deep), (Needs{.color = false, .alpha = true, .deep = false}));
}

}  // namespace
