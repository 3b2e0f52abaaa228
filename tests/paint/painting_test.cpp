// Every kind of ink on every kind of memory: only the pixels of the clip are touched, and the same colours come out.
#include "coverage_oracle.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <array>

// Formats of one's own of all widths: colours as they are, the bytes after them filled with a mark.
template <int bytes, bool alpha>
struct Padded {};
template <int bytes, bool alpha>
struct coldbrick::FormatTraits<Padded<bytes, alpha>> {
    static constexpr int pixel_bytes = bytes;
    static constexpr bool has_alpha = alpha;
    static void store(Color color, std::uint8_t* pixel) {
        const auto values = std::array{color.green, color.red, color.blue, color.alpha};
        for (int i = 0; i < bytes; ++i)
            pixel[i] = i < (alpha ? 4 : 3) ? values[static_cast<std::size_t>(i)] : std::uint8_t{0x5a};
    }
    static Color load(const std::uint8_t* pixel) {
        return {.red = pixel[1], .green = pixel[0], .blue = pixel[2], .alpha = alpha ? pixel[3] : std::uint8_t{255}};
    }
};

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr auto smooth = Fill{.edge = Edge::smooth};

// Inks that go different ways through the painter.
std::vector<Ink> many_inks() {
    const auto stops = std::vector<Stop>{{0, colors::navy}, {0.4, with_alpha(colors::coral, 120)}, {1, colors::gold}};
    Bitmap<Rgba8> tile{{5, 3}, 0x20406080_rgba};
    mark(tile, {2, 1}, colors::white);
    return {colors::gold,
            with_alpha(colors::gold, 90),
            Color16{60000, 20000, 1000, 50000},
            Ink{colors::teal, {.blend = Blend::replace}},
            Ink{colors::teal, {.blend = Blend::multiply}},
            Ink{colors::teal, {.opacity = 0.3, .blend = Blend::screen, .light = Light::linear}},
            Ink{colors::white, {.channels = Channels::red | Channels::alpha}},
            LinearGradient{.from = {0, 0}, .to = {30, 20}, .stops = stops},
            LinearGradient{
                .from = {0, 0}, .to = {0, 1}, .stops = stops, .placing = Placing::shape, .dither = Dither::ordered},
            LinearGradient{.from = {70, 3}, .to = {12, 40}, .stops = {{0, colors::navy}, {1, colors::gold}}},
            LinearGradient{.from = {0, 14}, .to = {0, 2}, .stops = {{0.2, colors::coral}, {0.8, colors::teal}}},
            RadialGradient{.center = {12, 9}, .radius = 11, .stops = stops, .spread = Spread::reflect},
            ConicGradient{.center = {12, 9}, .stops = stops},
            Pattern::of(tile),
            PictureInk::of(tile, {.at = {8, 8}}),
            Hatch{.spacing = 4, .angle = Angle::degrees(30), .color = colors::black}};
}

template <class T>
void draw_all(T&& to, const Ink& ink) {
    fill(to, Circle{.center = {9, 8}, .radius = 6}, ink);
    fill(to, Circle{.center = {16, 10}, .radius = 5}, smooth, ink);
    stroke(to, Line{.from = {1, 14}, .to = {23, 2}}, ink);
    stroke(to, Box{.at = {3, 3}, .size = {17, 11}}, {.width = 2, .edge = Edge::smooth}, ink);
}

template <class Format>
class PaintsOn : public testing::Test {};
using Formats = testing::Types<Gray8, Rgb8, Bgr8, Rgba8, Bgra8, Index8, Gray16, Rgba16, Rgb565, Bit1, Rgbx8, Bgrx8,
                               Argb8, Abgr8, PremultipliedRgba8, PremultipliedBgra8, Rgb565Swapped, Rgb555, Rgba4444,
                               Padded<3, false>, Padded<4, true>, Padded<6, true>, Padded<8, false>>;
TYPED_TEST_SUITE(PaintsOn, Formats);

TYPED_TEST(PaintsOn, OnlyTheClipInMemoryOfAnyStride) {
    using Format = TypeParam;
    constexpr auto size = Size{25, 17};
    constexpr auto row = row_bytes<Format>(size.width);
    constexpr auto clip = Box{.at = {2, 3}, .size = {19, 10}};
    for (const auto& ink : many_inks()) {
        Bitmap<Format> expected{size, colors::slategray};
        draw_all(expected.within(clip), ink);
        // Rows with padding, from the top and from the bottom.
        for (const std::ptrdiff_t stride : {row + 24, -(row + 24)}) {
            std::vector<std::uint8_t> memory(static_cast<std::size_t>(row + 24) * size.height, 0xcd);
            auto* const first = memory.data() + (stride < 0 ? (size.height - 1) * -stride : 0);
            for (int y = 0; y < size.height; ++y) std::fill_n(first + y * stride, row, std::uint8_t{0});
            const Pixels<Format> view{Memory{.top_left = first, .size = size, .stride = stride}};
            clear(view, colors::slategray);
            draw_all(view.within(clip), ink);
            for (int y = 0; y < size.height; ++y) {
                const auto* const bytes = first + y * stride;
                const auto* const wanted = expected.bytes().data() + std::ptrdiff_t{y} * row;
                ASSERT_TRUE(std::equal(bytes, bytes + row, wanted)) << "row " << y;
                ASSERT_TRUE(std::all_of(bytes + row, bytes + row + 24, [](auto byte) { return byte == 0xcd; }))
                    << "padding " << y;
            }
        }
        Bitmap<Format> ground{size, colors::slategray};
        for (int y = 0; y < size.height; ++y) {
            for (int x = 0; x < size.width; ++x) {
                if (contains(clip, Point{x, y})) continue;
                ASSERT_EQ(expected.color16_at({x, y}), ground.color16_at({x, y}));
            }
        }
    }
}

// However many pixels are written at once, they are as they would be one by one.
TYPED_TEST(PaintsOn, LongRunsAreTheirPixels) {
    using Format = TypeParam;
    constexpr auto size = Size{133, 2};
    constexpr auto box = Box{.at = {1, 0}, .size = {131, 2}};
    Dice dice{91};
    Bitmap<Format> ground{size, colors::slategray};
    for (int x = 30; x < size.width; ++x) {
        // A stretch of its own between opaque ones.
        const auto color = dice.color();
        fill(ground, Box{.at = {x, 0}, .size = {1, 1}},
             Ink{x < 60 ? color : with_alpha(color, 255), {.blend = Blend::replace}});
    }
    for (const auto& ink : many_inks()) {
        auto at_once = ground;
        fill(at_once, box, ink);
        auto one_by_one = ground;
        for (int y = 0; y < size.height; ++y) {
            for (int x = 0; x < size.width; ++x) fill(one_by_one.within({.at = {x, y}, .size = {1, 1}}), box, ink);
        }
        ASSERT_EQ(at_once.bytes(), one_by_one.bytes());
    }
}

// Within a region, each pixel is as without it or as before.
TYPED_TEST(PaintsOn, RegionsCutEveryInk) {
    using Format = TypeParam;
    const Region region{star({.center = {12, 8}, .radius = 9})};
    for (const auto& ink : many_inks()) {
        Bitmap<Format> free{{25, 17}, colors::slategray};
        const auto before = free;
        auto cut = free;
        const auto disc = filled(Circle{.center = {11, 8}, .radius = 7}, smooth);
        fill(free, disc, ink);
        const auto touched = fill(cut.within(region), disc, ink);
        EXPECT_EQ(intersection(touched, region.bounds()), touched);
        for (int y = 0; y < 17; ++y) {
            for (int x = 0; x < 25; ++x) {
                const auto& wanted = region.contains({x, y}) ? free : before;
                ASSERT_EQ(cut.color16_at({x, y}), wanted.color16_at({x, y})) << Point{x, y};
            }
        }
    }
}

TEST(Painting, FormatsOfTheSameColorsAgree) {
    for (const auto& ink : many_inks()) {
        Bitmap<Rgba8> expected{{25, 17}, 0x30507090_rgba};
        Bitmap<Bgra8> other{{25, 17}, 0x30507090_rgba};
        Bitmap<Padded<4, true>> own{{25, 17}, 0x30507090_rgba};
        draw_all(expected, ink);
        draw_all(other, ink);
        draw_all(own, ink);
        EXPECT_EQ(convert<Rgba8>(other).bytes(), expected.bytes());
        EXPECT_EQ(convert<Rgba8>(own).bytes(), expected.bytes());
    }
}

TEST(Painting, GradientsOfAnyLengthAndPlace) {
    const auto stops = std::vector<Stop>{{0, gray(0)}, {1, gray(255)}};
    Bitmap<Gray8> sheet{{40, 4}};
    const auto all = Box{.at = {}, .size = {40, 4}};
    // A very short one is a step, a very long one is flat.
    fill(sheet, all, LinearGradient{.from = {20, 0}, .to = {20.001, 0}, .stops = stops});
    EXPECT_EQ(sheet.color_at({19, 0}).red, 0);
    EXPECT_EQ(sheet.color_at({21, 0}).red, 255);
    fill(sheet, all, LinearGradient{.from = {-1e9, 0}, .to = {1e9, 0}, .stops = stops});
    EXPECT_NEAR(sheet.color_at({0, 0}).red, 128, 1);
    EXPECT_EQ(sheet.color_at({0, 0}), sheet.color_at({39, 3}));
    for (const auto spread : {Spread::repeat, Spread::reflect}) {
        fill(sheet, all, LinearGradient{.from = {1e7, 0}, .to = {1e7 + 1e-4, 0}, .stops = stops, .spread = spread});
        fill(sheet, all, RadialGradient{.center = {1e8, -1e8}, .radius = 1e-3, .stops = stops, .spread = spread});
    }
    // One stop is one colour.
    fill(sheet, all, LinearGradient{.from = {0, 0}, .to = {9, 9}, .stops = {{0.5, gray(77)}}});
    EXPECT_EQ(sheet.bytes(), std::vector<std::uint8_t>(160, 77));
    // Patterns repeat as far as coordinates go.
    Bitmap<Gray8> tile{{3, 1}};
    mark(tile, {1, 0}, gray(200));
    fill(sheet, all, Pattern::of(tile, {.offset = {max_coordinate, -max_coordinate}}));
    int bright = 0;
    for (const auto byte : sheet.bytes()) bright += byte == 200 ? 1 : 0;
    EXPECT_NEAR(bright, 160 / 3.0, 4);
}

TEST(Painting, NearestColorsAreTheNearest) {
    Dice dice{91};
    for (const auto name : palettes::names()) {
        const auto& palette = *palettes::find(name);
        for (int i = 0; i < 200; ++i) {
            const auto color = with_alpha(dice.color(), 255);
            const auto away = [&](Color other) {
                const auto square = [](int d) { return d * d; };
                return square(color.red - other.red) + square(color.green - other.green) +
                       square(color.blue - other.blue);
            };
            const auto nearest = palette.nearest(color);
            for (std::size_t k = 0; k < palette.size(); ++k) {
                EXPECT_GE(away(palette[k]), away(palette[nearest])) << name;
                if (k < nearest) {
                    EXPECT_GT(away(palette[k]), away(palette[nearest])) << name;
                }
            }
        }
    }
}

TEST(Painting, CallsTellTheBoxThatTheyTouched) {
    Bitmap<Rgb8> sheet{{40, 30}};
    const auto area = stroked(subpixel::Line{{5.5, 6.25}, {30, 20}}, {.width = 3, .edge = Edge::smooth});
    EXPECT_EQ(fill(sheet, area, colors::gold), bounds(area));
    EXPECT_EQ(
        fill(sheet, area, LinearGradient{.from = {0, 0}, .to = {9, 0}, .stops = {{0, colors::red}, {1, colors::blue}}}),
        bounds(area));
    const auto left_part = for_each_coverage(area, {.at = {0, 0}, .size = {12, 30}}, [](int, int, int, int) {});
    EXPECT_EQ(fill(sheet.within({.at = {0, 0}, .size = {12, 30}}), area, colors::gold), left_part);
    EXPECT_EQ(left_part.last().x, 11);
    EXPECT_TRUE(fill(sheet, transformed(area, Transform{}.move({500, 0})), colors::gold).empty());
    EXPECT_TRUE(contains(area, Point{17, 13}));
    EXPECT_FALSE(contains(area, Point{30, 6}));
}

}  // namespace
