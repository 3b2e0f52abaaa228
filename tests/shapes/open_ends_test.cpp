// Shapes and inks of one's own; small things about points, boxes and angles.
#include "oracle.hpp"

#include <coldbrick/coldbrick.hpp>

#include <cmath>

#include <gtest/gtest.h>

namespace harbour {

using namespace coldbrick;

// By its outline.
struct Burgee {
    Position hoist;
    double length;
    friend bool operator==(const Burgee&, const Burgee&) = default;
};
Path outline(const Burgee& flag) {
    return Path{}
        .move(flag.hoist)
        .line({flag.hoist.x + flag.length, flag.hoist.y + 9.5})
        .line({flag.hoist.x, flag.hoist.y + 19})
        .close();
}

// By its spans: every other pixel of every third row, in a box.
struct Pilings {
    Box within;
};
std::vector<Span> spans(const Pilings& pilings, const Box& clip) {
    std::vector<Span> found;
    const auto seen = intersection(pilings.within, clip);
    for (int y = seen.at.y; y < seen.at.y + seen.size.height; ++y) {
        for (int x = seen.at.x; y % 3 == 0 && x < seen.at.x + seen.size.width; ++x) {
            if (x % 2 == 0) found.push_back({.y = y, .x = x, .length = 1});
        }
    }
    return found;
}

struct Unsorted {};
std::vector<Span> spans(const Unsorted&, const Box&) {
    return {{.y = 5, .x = 5, .length = 1}, {.y = 4, .x = 5, .length = 1}};
}

}  // namespace harbour

namespace {

using namespace coldbrick;
using namespace coldbrick::literals;
using harbour::Burgee;
using harbour::Pilings;
using oracle::drawn;

constexpr Box window{{-10, -10}, {80, 60}};
const Burgee flag{.hoist = {5.25, 4}, .length = 30.5};
const Pilings pilings{.within = {{3, 3}, {40, 30}}};

// What is drawn of the own shape is what is drawn of one of the library's with the same pixels or outline.
template <class Own, class Twin>
void expect_twins(const Own& own, const Twin& twin) {
    const auto pens = {Stroke{}, Stroke{.width = 3}, Stroke{.width = 5, .align = Align::outside, .join = Join::round},
                       Stroke{.width = 2, .dash = {4, 3}, .edge = Edge::smooth}};
    const auto by = Transform{}.turn(20_deg).move({9, 2});
    EXPECT_EQ(drawn(own, window), drawn(twin, window));
    EXPECT_EQ(bounds(own), bounds(twin));
    EXPECT_EQ((SmoothRegion{filled(own, {.edge = Edge::smooth})}),
              (SmoothRegion{filled(twin, {.edge = Edge::smooth})}));
    EXPECT_EQ(drawn(transformed(own, by), window), drawn(transformed(twin, by), window));
    for (const auto& how : pens) {
        EXPECT_EQ((SmoothRegion{stroked(own, how)}), (SmoothRegion{stroked(twin, how)}));
        EXPECT_EQ(bounds(transformed(stroked(own, how), by)), bounds(transformed(stroked(twin, how), by)));
        Bitmap<Rgb8> one{{80, 60}};
        Bitmap<Rgb8> other{{80, 60}};
        EXPECT_EQ(stroke(one, own, how, colors::gold), stroke(other, twin, how, colors::gold));
        EXPECT_EQ(one.bytes(), other.bytes());
    }
    const Figure figure{transformed(filled(own, {.edge = Edge::smooth}), by)};
    EXPECT_EQ((SmoothRegion{figure}), (SmoothRegion{transformed(filled(twin, {.edge = Edge::smooth}), by)}));
    EXPECT_EQ(Region{Figure{own}}, Region{twin});
    EXPECT_EQ(contains(own, Point{6, 9}), contains(twin, Point{6, 9}));
}

TEST(OwnShapes, AreAsGoodAsTheLibrarys) {
    expect_twins(flag, outline(flag));
    expect_twins(pilings, Region::of_spans(spans(pilings, window)));
}

TEST(OwnShapes, AreComparedAndKeptByFigures) {
    EXPECT_EQ(Figure{flag}, (Figure{Burgee{.hoist = {5.25, 4}, .length = 30.5}}));
    EXPECT_FALSE(Figure{flag} == (Figure{Burgee{.hoist = {5.25, 4}, .length = 30}}));
    const Figure piles{pilings};
    const auto copy = piles;
    EXPECT_EQ(piles, copy);
    EXPECT_FALSE(piles == Figure{flag});
    EXPECT_FALSE(piles == (Figure{Box{{0, 0}, {3, 3}}}));
}

TEST(OwnShapes, SpansInWrongOrderAreRefused) {
    Bitmap<Gray8> chart{{20, 20}};
    EXPECT_THROW(fill(chart, harbour::Unsorted{}, colors::white), Error);
    EXPECT_EQ(chart.bytes(), Bitmap<Gray8>({20, 20}).bytes());
}

Color formula(Point at) {
    return {static_cast<std::uint8_t>(at.x * 3), static_cast<std::uint8_t>(at.y * 5), 77,
            static_cast<std::uint8_t>(255 - at.x)};
}
void row_formula(Point first, std::span<Color> row) {
    for (auto& color : row) color = formula(std::exchange(first, {first.x + 1, first.y}));
}

// Every pixel as if it had been marked in its own colour.
template <class Format>
void expect_formula(const Ink& ink) {
    Bitmap<Format> together{{60, 40}, colors::navy};
    Bitmap<Format> one_by_one{{60, 40}, colors::navy};
    const Polygon shoal{{-5, 3}, {70, 11}, {22, 50}};
    fill(together, shoal, ink);
    for (const auto& run : drawn(shoal, {{0, 0}, {60, 40}})) mark(one_by_one, run, formula(run));
    EXPECT_EQ(together.bytes(), one_by_one.bytes());
}

TEST(OwnInks, AreAskedForEachPixel) {
    for (const auto& ink : {Ink{formula}, Ink{row_formula}, Ink{[](Point at) { return formula(at); }}}) {
        expect_formula<Rgb8>(ink);
        expect_formula<Rgba8>(ink);
        expect_formula<Rgb565>(ink);
        expect_formula<Gray16>(ink);
    }
}

// Half the values of a channel are nearer to the value above.
TEST(Rgb565, HasTheNearestColors) {
    Bitmap<Rgb565> screen{{1, 1}};
    for (int value = 0; value < 256; ++value) {
        const auto v = static_cast<std::uint8_t>(value);
        clear(screen, Color{v, v, v});
        const auto nearest = [value](int most) {
            auto best = 0;
            for (int k = 0; k <= most; ++k) {
                if (std::abs(value * most - k * 255) < std::abs(value * most - best * 255)) best = k;
            }
            return best;
        };
        const auto bits = screen.bytes()[0] | screen.bytes()[1] << 8;
        EXPECT_EQ(bits >> 11, nearest(31)) << value;
        EXPECT_EQ(bits >> 5 & 63, nearest(63)) << value;
        EXPECT_EQ(bits & 31, nearest(31)) << value;
        const auto widened = [](int k, int most) { return (2 * k * 255 + most) / (2 * most); };
        EXPECT_EQ(screen.color_at({0, 0}).red, widened(bits >> 11, 31));
        EXPECT_EQ(screen.color_at({0, 0}).green, widened(bits >> 5 & 63, 63));
    }
}

TEST(Geometry, PointsAndBoxesAddUp) {
    EXPECT_EQ((Point{3, 4} + Point{10, -2}), (Point{13, 2}));
    EXPECT_EQ((Point{3, 4} - Point{10, -2}), (Point{-7, 6}));
    EXPECT_EQ((-Point{3, 4} * 2), (Point{-6, -8}));
    EXPECT_EQ((Position{3, 4} + Point{1, 1}), (Position{4, 5}));
    EXPECT_EQ((Size{9, 7} - Size{2, 3} + Size{1, 1}), (Size{8, 5}));
    constexpr Box box{{10, 20}, {9, 6}};
    for (int i = 0; i < 9; ++i) {
        const auto anchor = static_cast<Anchor>(i);
        EXPECT_EQ(Box::placed({.anchor = anchor, .at = box.point(anchor), .size = box.size}), box) << i;
        const subpixel::Box fraction{{10.5, 20}, {9, 6.25}};
        EXPECT_EQ(subpixel::Box::placed({.anchor = anchor, .at = fraction.point(anchor), .size = fraction.size}),
                  fraction);
    }
    EXPECT_EQ(box.center(), (Point{14, 23}));
    EXPECT_EQ(box.inset(2), (Box{{12, 22}, {5, 2}}));
    EXPECT_EQ(box.inset(3), Box{});
    EXPECT_EQ(box.inset(-3), (Box{{7, 17}, {15, 12}}));
    const Box huge{{-max_coordinate, 0}, {std::numeric_limits<int>::max(), 5}};
    EXPECT_EQ(huge.inset(-5).size.width, std::numeric_limits<int>::max());
    EXPECT_EQ(huge.inset(std::numeric_limits<int>::min()).size.width, std::numeric_limits<int>::max());
    EXPECT_EQ(huge.inset(std::numeric_limits<int>::max()), Box{});
    EXPECT_EQ((subpixel::Box::between({.from = {4.5, 2}, .to = {1, 3}})), (subpixel::Box{{1, 2}, {4.5, 2}}));
}

TEST(Geometry, AnglesHaveSinesAndParts) {
    for (int degrees = -720; degrees <= 720; degrees += 15) {
        const auto angle = Angle::degrees(degrees);
        EXPECT_NEAR(angle.sine(), std::sin(degrees * std::numbers::pi / 180), 1e-14);
        EXPECT_NEAR(angle.cosine(), std::cos(degrees * std::numbers::pi / 180), 1e-14);
    }
    EXPECT_EQ((90_deg).cosine(), 0);
    EXPECT_EQ(place_at({3, 4}, 90_deg, 10), (Position{3, 14}));
    EXPECT_EQ(90_deg / 3, 30_deg);
    EXPECT_EQ(90_deg / 30_deg, 3);
    EXPECT_EQ((180_deg).in_turns(), 0.5);
    EXPECT_NEAR((180_deg).in_radians(), std::numbers::pi, 1e-15);
}

TEST(Colors, AreReadAsInScenes) {
    EXPECT_EQ(parse_color("rgb(11, 34,57)"), (Color{11, 34, 57}));
    EXPECT_EQ(parse_color("rgba(11,34,57,128)"), (Color{11, 34, 57, 128}));
    EXPECT_EQ(parse_color("gray(196)"), gray(196));
    EXPECT_EQ(parse_color("hsl(210,50%,40%)"), color_of(Hsl{.hue = 210_deg, .saturation = 0.5, .lightness = 0.4}));
    EXPECT_EQ(parse_color("hsv(0.25turn,0.5,1)"), color_of(Hsv{.hue = 90_deg, .saturation = 0.5, .value = 1}));
    for (const auto* const text :
         {"rgb(1,2)", "rgb(1,2,3,4)", "rgb(1,2,256)", "rgb(1,2,3.5)", "rgb(1,2,-3)", "gray()", "rgb(,,)", "hsl(1,2,3)",
          "hsl(nan,0,0)", "hsl(1,50%)", "gray(1,2,3,4,5,6)", "paint(3)", "rgb(1,2,3", "rgb(1e0,2,3)", "(", ")"}) {
        EXPECT_THROW((void)parse_color(text), Error) << text;
        EXPECT_EQ(find_color(text), std::nullopt) << text;
    }
}

TEST(Bitmaps, CanBeEmptyAndAreViews) {
    Bitmap<Rgb8> later;
    EXPECT_TRUE(later.empty());
    EXPECT_EQ(fill(later, Box{{0, 0}, {9, 9}}, colors::gold), Box{});
    EXPECT_EQ(clear(later, colors::gold), Box{});
    EXPECT_THROW((void)later.color_at({0, 0}), Error);
    EXPECT_THROW((void)convert<Gray8>(later), Error);
    later = Bitmap<Rgb8>{{6, 4}, colors::navy};
    const auto draw_on = [](Pixels<Rgb8> view) { return fill(view, view.box().inset(1), colors::gold); };
    EXPECT_EQ(draw_on(later), (Box{{1, 1}, {4, 2}}));
    const auto read = [](Pixels<const Rgb8> view) { return view.row(1)[3]; };
    EXPECT_EQ(read(later), colors::gold.red);
    EXPECT_EQ(later.pixels().stride(), 18);
    EXPECT_EQ(later.pixels().data(), later.bytes().data());
    EXPECT_EQ(later.box(), (Box{{0, 0}, {6, 4}}));
}

TEST(Bitmaps, HaveEntriesAndOtherPalettes) {
    Bitmap<Index8> display{{6, 4}};
    EXPECT_EQ(clear(display, PaletteEntry{5}), display.box());
    EXPECT_EQ(display.entry_at({3, 2}), PaletteEntry{5});
    EXPECT_THROW((void)display.entry_at({6, 2}), Error);
    EXPECT_THROW(clear(display, PaletteEntry{12}), Error);
    const auto before = display.pixels();
    display.set_palette(Palette{
        std::vector<Color>{colors::navy, colors::gold, colors::teal, colors::white, colors::red, colors::coral}});
    EXPECT_EQ(display.color_at({3, 2}), colors::coral);
    EXPECT_EQ(before.color_at({3, 2}), palettes::quay()[5]);
}

}  // namespace
