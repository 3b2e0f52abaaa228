// Drawings: lists of calls, drawn later, asked, bounded.
#include "oracle.hpp"

#include <coldbrick/coldbrick.hpp>

#include <gtest/gtest.h>

namespace {

using namespace coldbrick;
using namespace coldbrick::literals;
using oracle::Dice;

constexpr Size sheet{90, 70};

// Everything that can be drawn on, in one go.
template <class T>
void draw_all(T&& target, unsigned seed) {
    Dice dice{seed};
    const Box window{{-10, -10}, {110, 90}};
    const auto color = [&] {
        return Color{static_cast<std::uint8_t>(dice.number(0, 255)), static_cast<std::uint8_t>(dice.number(0, 255)), 90,
                     static_cast<std::uint8_t>(dice.number(0, 1) * 155 + 100)};
    };
    const auto circle = Circle{.center = dice.point(window), .radius = dice.number(0, 30)};
    const Polygon polygon{dice.ring(3, 7, window)};
    clear(target, 0x203040_rgb);
    fill(target, circle, color());
    fill(target, polygon, {.rule = FillRule::nonzero, .edge = Edge::smooth}, color());
    stroke(target, polygon, {.width = dice.number(1, 6), .align = Align::inside}, color());
    stroke(target, Line{.from = dice.point(window), .to = dice.point(window)}, color());
    stroke(target, subpixel::Circle{.center = {30.25, 20.5}, .radius = 12.25}, {.width = 1.5, .edge = Edge::smooth},
           Ink{color(), {.opacity = 0.5, .blend = Blend::multiply}});
    mark(target, dice.point(window), color());
    fill(target, transformed(stroked(circle, {.width = 4, .dash = {5, 3}}), Transform{}.turn(20_deg)), color());
    fill(target.within(Box{{20, 10}, {40, 30}}), Ring{.center = {40, 30}, .radius = 28, .inner_radius = 12},
         LinearGradient{{0, 0}, {80, 0}, {{0, colors::navy}, {1, colors::gold}}});
    const Region region{Circle{.center = {60, 40}, .radius = 25}};
    const SmoothRegion smooth{filled(Circle{.center = {30, 40}, .radius = 25}, {.edge = Edge::smooth})};
    fill(target.within(region).within(smooth), Box{{0, 0}, {90, 70}}, Hatch{.spacing = 4, .color = color()});
    fill(target, region, color());
    const std::vector<Point> corners{{5, 5}, {40, 9}, {20, 60}, {80, 66}};
    const auto mesh = VertexList{.as = Elements::triangle_strip, .at = corners};
    fill(target, mesh, color());
    fill_each(target, mesh, std::vector<Color>{color(), color()});
    fill_each(target, mesh, {.edge = Edge::smooth}, std::vector<Color>{color(), color()});
    stroke_each(target, mesh, {.width = 2}, std::vector<Color>{color(), color()});
    Bitmap<Rgba8> stamp{{9, 7}, colors::teal};
    mark(stamp, Point{3, 3}, colors::crimson);
    paste(target, stamp, {.at = {50, 6}, .turned = Quarters::one, .size = {.width = 20}});
    paste(target, stamp, Transform{}.turn(30_deg).move({40, 30}), {.compositing = {.opacity = 0.7}});
    fill(target, FloodFrom{.from = {2, 2}, .tolerance = 30}, color());
}

template <class Format>
void expect_same_bytes() {
    for (unsigned seed = 0; seed < 40; ++seed) {
        Bitmap<Format> direct{sheet};
        draw_all(direct, seed);
        Drawing drawing;
        draw_all(drawing, seed);
        Bitmap<Format> later{sheet};
        render(drawing, later);
        ASSERT_EQ(direct.bytes(), later.bytes()) << seed;
    }
}

TEST(Drawings, GiveTheBytesOfTheCalls) {
    expect_same_bytes<Rgb8>();
    expect_same_bytes<Rgba8>();
    expect_same_bytes<Gray16>();
}

// A part of it, drawn on its own, has the pixels that it has in the whole; floods aside, which go by what they see.
TEST(Drawings, PartsAreThoseOfTheWhole) {
    Drawing drawing;
    const auto sky = Polygon{{3, 4}, {80, 9}, {30, 66}};
    fill(drawing, sky, Edge::smooth, colors::gold);
    stroke(drawing.under(Transform{}.turn(7_deg)), sky, {.width = 5, .dash = {9, 4}}, colors::navy);
    Bitmap<Rgb8> whole{sheet};
    render(drawing, whole);
    Bitmap<Rgb8> parts{sheet};
    for (int y = 0; y < sheet.height; y += 16) {
        for (int x = 0; x < sheet.width; x += 25) render(drawing, parts.within({{x, y}, {25, 16}}));
    }
    EXPECT_EQ(whole.bytes(), parts.bytes());
}

TEST(Drawings, KnowWhereACallWasMade) {
    Drawing drawing;
    const auto line = __LINE__;
    fill(drawing, Circle{.center = {9, 9}, .radius = 4}, colors::gold);
    stroke(drawing.tagged(77), Line{.from = {0, 0}, .to = {9, 9}}, colors::navy);
    mark(drawing, Point{3, 4}, colors::teal, {.file = "buoys.txt", .line = 4, .column = 9});
    ASSERT_EQ(drawing.size(), 3U);
    EXPECT_EQ(drawing[0].place().line, line + 1);
    EXPECT_TRUE(std::string_view{drawing[0].place().file}.ends_with("recording_test.cpp"));
    EXPECT_EQ(drawing[1].place().line, line + 2);
    EXPECT_EQ(drawing[1].tag(), 77U);
    EXPECT_EQ(drawing[2].place(), (SourcePlace{.file = "buoys.txt", .line = 4, .column = 9}));
    EXPECT_EQ(drawing[0].figure(), Figure{(Circle{.center = {9, 9}, .radius = 4})});
    EXPECT_EQ(drawing[1].ink(), Ink{colors::navy});
}

// The topmost call is the last one that changes the pixel when drawn alone.
TEST(Drawings, TopmostAndBoundsAgreeWithPixels) {
    for (unsigned seed = 0; seed < 30; ++seed) {
        Dice dice{seed};
        const Box window{{5, 5}, {80, 60}};
        Drawing drawing;
        const Region clip{Circle{.center = {45, 35}, .radius = 30}};
        for (int i = 0; i < 12; ++i) {
            const Polygon shape{dice.ring(3, 5, window)};
            const auto by = Transform{}.turn_about({45, 35}, Angle::degrees(dice.number(0, 3) * 10));
            const auto view = i % 3 == 0 ? drawing.within(clip).under(by) : drawing.within(window).under(by);
            const auto edge = i % 2 == 0 ? Edge::crisp : Edge::smooth;
            if (i % 4 == 0) {
                stroke(view, shape, {.width = 3, .edge = edge}, colors::white);
            } else {
                fill(view, shape, edge, colors::white);
            }
        }
        std::vector<Bitmap<Gray8>> alone;
        auto all = Box{};
        for (std::size_t i = 0; i < drawing.size(); ++i) {
            detail::CallRenderer one{drawing, detail::SurfaceAccess::of(alone.emplace_back(Size{100, 80}))};
            all = enclosing(all, one.draw(i));
        }
        EXPECT_EQ(bounds(drawing), all) << seed;
        for (int k = 0; k < 60; ++k) {
            const auto pixel = dice.point(window);
            auto expected = std::optional<std::size_t>{};
            for (std::size_t i = 0; i < alone.size(); ++i) {
                if (alone[i].color_at(pixel) != colors::black) expected = i;
            }
            EXPECT_EQ(topmost(drawing, pixel), expected) << seed;
        }
    }
}

TEST(Drawings, TurnedPicturesAreHitWhereTheyLie) {
    Drawing drawing;
    paste(drawing.within(Box{{0, 0}, {90, 60}}), Bitmap<Gray8>{{40, 8}, colors::white},
          Transform{}.turn(40_deg).move({30, 12}));
    Bitmap<Gray8> chart{sheet};
    render(drawing, chart);
    for (int y = 0; y < sheet.height; ++y) {
        for (int x = 0; x < sheet.width; ++x) {
            const auto shows = chart.color_at({x, y}) != colors::black;
            EXPECT_EQ(topmost(drawing, {x, y}).has_value(), shows) << x << ',' << y;
        }
    }
}

TEST(Drawings, RefuseWhatABitmapRefuses) {
    Drawing drawing;
    EXPECT_THROW(fill(drawing, Circle{.center = {9, 9}, .radius = -4}, colors::gold), Error);
    EXPECT_THROW(stroke(drawing, Box{{0, 0}, {9, 9}}, {.width = 1.5}, colors::gold), Error);
    EXPECT_THROW(fill(drawing.under(Transform{}.scale(0)), Box{{0, 0}, {9, 9}}, colors::gold), Error);
    EXPECT_THROW(fill(drawing, FloodFrom{.from = {2, 2}, .tolerance = -1}, colors::gold), Error);
    EXPECT_THROW(paste(drawing, Bitmap<Rgb8>{{4, 4}}, {.part = Box{{2, 2}, {9, 9}}}), Error);
    EXPECT_TRUE(drawing.empty());
    fill(drawing, Box{{0, 0}, {9, 9}}, colors::gold);
    fill(drawing, Box{{0, 0}, {9, 9}}, PaletteEntry{3});
    Bitmap<Rgb8> chart{sheet};
    EXPECT_THROW(render(drawing, chart), Error);
    EXPECT_EQ(chart.bytes(), Bitmap<Rgb8>{sheet}.bytes());
}

TEST(Drawings, ASimpleCallTakesAtMost160Bytes) {
    Drawing drawing;
    for (int i = 0; i < 10'000; ++i) {
        fill(drawing, Circle{.center = {i % 90, i % 70}, .radius = i % 5},
             Color{static_cast<std::uint8_t>(i), 90, static_cast<std::uint8_t>(i / 256)});
    }
    EXPECT_LE(drawing.bytes(), 10'000U * 160);
    EXPECT_LE(detail::bytes_of_call, 152U);
}

}  // namespace
