// Runs of a few pixels and hairlines by translucent colours and in part, which are mixed several at a time: pixel by
// pixel.
#include "oracle.hpp"
#include "own_format.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <array>
#include <optional>
#include <utility>
#include <vector>

namespace {

using namespace coldbrick;
using namespace oracle;

template <class Format>
class FewPixels : public testing::Test {};
using Formats = testing::Types<Gray8, Rgb8, Bgr8, Rgba8, Bgra8, Index8, Gray16, Rgba16, Rgb565, Bgrx8, Abgr8,
                               PremultipliedBgra8, Rgb555, Rgba4444, OwnRgb565>;
TYPED_TEST_SUITE(FewPixels, Formats);

// Of any colours; in some rows all of them are opaque.
template <class Format>
Bitmap<Format> speckled_sheet(Size size, Dice& dice) {
    Bitmap<Format> sheet{size};
    for (int y = 0; y < size.height; ++y) {
        const auto row_is_opaque = dice.number(0, 1) == 0;
        for (int x = 0; x < size.width; ++x) {
            auto color = dice.color();
            if (row_is_opaque || dice.number(0, 7) > 0) color.alpha = 255;
            mark(sheet, {x, y}, Ink{color, {.blend = Blend::replace}});
        }
    }
    return sheet;
}

TYPED_TEST(FewPixels, RunsAreMarksOfTheirPixels) {
    Dice dice{31};
    constexpr auto size = Size{80, 75};
    auto sheet = speckled_sheet<TypeParam>(size, dice);
    auto marked = sheet;
    for (int y = 0; y < size.height; ++y) {
        const auto ink = Ink{with_alpha(dice.color(), static_cast<std::uint8_t>(dice.number(0, 254)))};
        const auto run = Box{.at = {dice.number(0, 4), y}, .size = {y + 1, 1}};
        fill(sheet, run, ink);
        for (int x = run.at.x; x < run.at.x + run.size.width; ++x) mark(marked, {x, y}, ink);
    }
    EXPECT_TRUE(std::ranges::equal(sheet.bytes(), marked.bytes()));
}

// What is covered in part takes a colour of that alpha, whatever its neighbours are.
TYPED_TEST(FewPixels, SmoothEdgesAreMarksOfTheirPixels) {
    Dice dice{32};
    constexpr auto size = Size{48, 40};
    for (int i = 0; i < 40; ++i) {
        const auto disc = Circle{.center = dice.point({{}, size}), .radius = dice.number(0, 20)};
        Bitmap<Gray8> cover{size, colors::black};
        fill(cover, disc, Edge::smooth, colors::white);
        auto sheet = speckled_sheet<TypeParam>(size, dice);
        auto marked = sheet;
        const auto color = with_alpha(dice.color(), 255);
        fill(sheet, disc, Edge::smooth, color);
        for (int y = 0; y < size.height; ++y) {
            for (int x = 0; x < size.width; ++x) {
                const auto alpha = cover.color_at({x, y}).red;
                if (alpha > 0) mark(marked, {x, y}, with_alpha(color, alpha));
            }
        }
        EXPECT_TRUE(std::ranges::equal(sheet.bytes(), marked.bytes())) << disc.radius;
    }
}

// The same memory from its first row down, or from its last one up.
template <class Format>
Pixels<Format> view_of(std::vector<std::uint8_t>& bytes, Size size, bool is_upward) {
    const auto row = static_cast<std::ptrdiff_t>(bytes.size()) / size.height;
    auto* const top = bytes.data() + (is_upward ? row * (size.height - 1) : 0);
    return Pixels<Format>{{.top_left = top, .size = size, .stride = is_upward ? -row : row}};
}

TYPED_TEST(FewPixels, HairlinesAreMarksOfTheirPixels) {
    Dice dice{33};
    constexpr auto size = Size{160, 140};
    constexpr auto around = Box{.at = {-40, -40}, .size = {240, 220}};
    const auto sheet = speckled_sheet<TypeParam>(size, dice);
    const std::vector<std::uint8_t> bytes(sheet.bytes().begin(), sheet.bytes().end());
    for (int i = 0; i < 60; ++i) {
        auto memory = bytes;
        auto other = bytes;
        const auto drawn = view_of<TypeParam>(memory, size, i % 2 == 1);
        const auto marked = view_of<TypeParam>(other, size, i % 2 == 1);
        const auto line = Line{.from = dice.point(around), .to = dice.point(around)};
        const auto ink = Ink{with_alpha(dice.color(), static_cast<std::uint8_t>(dice.number(1, 254)))};
        stroke(drawn, line, ink);
        for_each_span(stroked(line), {{}, size}, [&](const Span& run) {
            for (int x = run.x; x < run.x + run.length; ++x) mark(marked, {x, run.y}, ink);
        });
        EXPECT_EQ(memory, other) << i;
    }
}

// Whole ones have a short way; cut in two, each half goes the usual one.
TYPED_TEST(FewPixels, TrianglesAreTheSameInHalves) {
    Dice dice{34};
    constexpr auto size = Size{70, 66};
    const auto ground = speckled_sheet<TypeParam>(size, dice);
    for (int i = 0; i < 300; ++i) {
        // In every fourth all three lie in a line, or are one.
        const auto reach = std::array{69, 12, 3, 1}[static_cast<std::size_t>(i % 4)];
        const auto a = Point{dice.number(0, 69 - reach), dice.number(0, 65 - std::min(reach, 65))};
        const auto corner = [&] { return a + Point{dice.number(0, reach), dice.number(0, std::min(reach, 65))}; };
        auto b = corner();
        auto c = corner();
        if (i % 4 == 0) c = i % 8 == 0 ? a : Point{(a.x + b.x) / 2, (a.y + b.y) / 2};
        const auto ink = i % 3 == 0 ? Ink{with_alpha(dice.color(), 90)} : Ink{with_alpha(dice.color(), 255)};
        auto whole = ground;
        auto halves = ground;
        const Polygon triangle{a, b, c};
        const auto touched = fill(whole, triangle, ink);
        const auto cut = dice.number(1, 69);
        const auto left = fill(halves.within({{}, {cut, size.height}}), triangle, ink);
        const auto right = fill(halves.within({{cut, 0}, {size.width - cut, size.height}}), triangle, ink);
        ASSERT_TRUE(std::ranges::equal(whole.bytes(), halves.bytes())) << a << b << c;
        EXPECT_EQ(touched, enclosing(left, right));
    }
}

constexpr auto round_sheet = Size{90, 86};

template <class Format, class Area>
void expect_halves_alike(const Bitmap<Format>& ground, const Area& area, const Ink& ink, int cut, const char* what) {
    auto whole = ground;
    auto halves = ground;
    const auto touched = fill(whole, area, ink);
    const auto left_half = Box{{0, 0}, {cut, round_sheet.height}};
    const auto right_half = Box{{cut, 0}, {round_sheet.width - cut, round_sheet.height}};
    const auto left = fill(halves.within(left_half), area, ink);
    const auto right = fill(halves.within(right_half), area, ink);
    EXPECT_TRUE(std::ranges::equal(whole.bytes(), halves.bytes())) << what;
    EXPECT_EQ(touched, enclosing(left, right)) << what;
}

// Small round ones and their strokes, too, in any format.
TYPED_TEST(FewPixels, RoundShapesAreTheSameInHalves) {
    Dice dice{35};
    const auto ground = speckled_sheet<TypeParam>(round_sheet, dice);
    for (int i = 0; i < 120; ++i) {
        const auto ink = i % 3 == 0 ? Ink{with_alpha(dice.color(), 90)} : Ink{with_alpha(dice.color(), 255)};
        const auto cut = dice.number(1, round_sheet.width - 1);
        const auto check = [&](const auto& area, const char* what) {
            expect_halves_alike(ground, area, ink, cut, what);
        };
        const auto box = Box{{dice.number(0, 30), dice.number(0, 30)}, {dice.number(1, 50), dice.number(1, 50)}};
        const auto corner = dice.number(0, std::min(box.size.width, box.size.height) / 2);
        const auto circle = Circle{.center = {45, 43}, .radius = dice.number(0, 34)};
        const auto smooth = Fill{.edge = Edge::smooth};
        const auto how = Stroke{.width = dice.number(1, 9), .align = static_cast<Align>(i % 3), .edge = Edge::smooth};
        check(filled(Ellipse::within(box), smooth), "ellipse");
        check(filled(RoundedBox{.box = box, .corner_radius = corner}, smooth), "rounded box");
        check(filled(circle, smooth), "circle");
        check(stroked(Ellipse::within(box), how), "ellipse's stroke");
        check(stroked(RoundedBox{.box = box, .corner_radius = corner}, how), "rounded box's stroke");
        check(stroked(circle, how), "circle's stroke");
    }
}

// Those who are told of pixels hear of the same ones, whichever way a call took.
TYPED_TEST(FewPixels, AreToldToTheirOwners) {
    Dice dice{36};
    constexpr auto size = Size{60, 50};
    Drawing drawing;
    std::vector<std::vector<Point>> touched;
    for (int i = 0; i < 80; ++i) {
        const auto ink = i % 4 == 0 ? Ink{with_alpha(dice.color(), 90)} : Ink{with_alpha(dice.color(), 255)};
        const auto at = Point{dice.number(0, 45), dice.number(0, 35)};
        std::vector<Point> pixels;
        const auto add = [&](const auto& area) {
            fill(drawing, area, ink);
            for_each_span(area, {{}, size}, [&](const Span& run) {
                for (int x = run.x; x < run.x + run.length; ++x) pixels.push_back({x, run.y});
            });
        };
        if (i % 3 == 0) add(filled(Circle{.center = at + Point{5, 5}, .radius = dice.number(0, 5)}, {}));
        if (i % 3 == 1) add(filled(Box{at, {dice.number(1, 12), dice.number(1, 12)}}, {}));
        if (i % 3 == 2)
            add(filled(Polygon{at, at + Point{12, dice.number(0, 12)}, at + Point{dice.number(0, 9), 11}}, {}));
        touched.push_back(std::move(pixels));
    }
    Bitmap<TypeParam> sheet{size};
    Owners told;
    render(drawing, sheet, told);
    for (int y = 0; y < size.height; ++y) {
        for (int x = 0; x < size.width; ++x) {
            std::optional<std::size_t> last;
            for (std::size_t i = 0; i < touched.size(); ++i) {
                if (std::find(touched[i].begin(), touched[i].end(), Point{x, y}) != touched[i].end()) last = i;
            }
            EXPECT_EQ(told.at({x, y}), last) << x << ", " << y;
        }
    }
}

}  // namespace
