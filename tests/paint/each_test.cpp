// Many shapes in one call, inks made ready for many calls, and small shapes with smooth edges in parts.
#include "oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <functional>
#include <limits>
#include <thread>

#include <gtest/gtest.h>

namespace {

using namespace coldbrick;
using oracle::Dice;

constexpr auto size = Size{90, 70};

Point somewhere(Dice& dice) { return {dice.number(-20, size.width + 20), dice.number(-20, size.height + 20)}; }

Color some_color(Dice& dice) {
    return {static_cast<std::uint8_t>(dice.number(0, 255)), static_cast<std::uint8_t>(dice.number(0, 255)),
            static_cast<std::uint8_t>(dice.number(0, 255)),
            static_cast<std::uint8_t>(dice.number(0, 2) == 0 ? dice.number(0, 255) : 255)};
}

Ink some_ink(Dice& dice) {
    const auto color = some_color(dice);
    switch (dice.number(0, 6)) {
        case 0:
            return Ink{color, {.blend = static_cast<Blend>(dice.number(0, static_cast<int>(Blend::exclusive_or)))}};
        case 1:
            return Ink{color, {.opacity = 0.3, .light = Light::linear}};
        case 2:
            return RadialGradient{.center = {0.5, 0.5},
                                  .radius = 0.6,
                                  .stops = {{0, color}, {1, colors::navy}},
                                  .placing = Placing::shape};
        case 3:
            return Hatch{.spacing = 5, .color = color};
        case 4:
            return Ink{color, {.channels = Channels::green}};
        default:
            return color;
    }
}

std::vector<Circle> some_circles(Dice& dice, int count) {
    std::vector<Circle> circles;
    for (int i = 0; i < count; ++i) circles.push_back({.center = somewhere(dice), .radius = dice.number(0, 12)});
    return circles;
}

template <class Format>
class DrawsEach : public testing::Test {
  protected:
    // Both are on the same ground, which is not even and not opaque everywhere.
    static Bitmap<Format> ground() {
        Bitmap<Format> sheet{size};
        fill(sheet, Box{{0, 0}, {60, 70}}, colors::seagreen);
        fill(sheet, Box{{20, 10}, {50, 30}}, with_alpha(colors::coral, 120));
        return sheet;
    }

    // Draws by both, and expects the same pixels and the same box.
    template <class Ours, class Others>
    static void expect_alike(const Ours& ours, const Others& others, const std::string& what) {
        auto one = ground();
        auto other = ground();
        const auto one_box = ours(one);
        EXPECT_EQ(one_box, others(other)) << what;
        EXPECT_EQ(one.bytes(), other.bytes()) << what;
        const auto part = Box{{11, 13}, {50, 40}};
        ours(one.within(part).within(Region{Circle{.center = {40, 30}, .radius = 25}}));
        others(other.within(part).within(Region{Circle{.center = {40, 30}, .radius = 25}}));
        EXPECT_EQ(one.bytes(), other.bytes()) << what << ", in a part";
    }
};
using SomeFormats = testing::Types<Gray8, Rgb8, Rgba8, Bgra8, Index8, Gray16, Rgba16, Rgb565, Bit1>;
TYPED_TEST_SUITE(DrawsEach, SomeFormats);

// Draws each of the shapes by a call of its own.
template <class Shapes, class Draw>
auto one_by_one(const Shapes& shapes, const Draw& draw) {
    return [&shapes, draw](auto&& sheet) {
        auto touched = Box{};
        for (std::size_t i = 0; i < shapes.size(); ++i) {
            const Box box = draw(sheet, shapes[i], i);
            if (!box.empty()) touched = enclosing(touched, box);
        }
        return touched;
    };
}

TYPED_TEST(DrawsEach, AsACallForEachDoes) {
    Dice dice{61};
    for (int i = 0; i < (is_sanitized ? 3 : 12); ++i) {
        const auto circles = some_circles(dice, 20);
        const auto ink = some_ink(dice);
        const auto how = Fill{.edge = dice.number(0, 1) == 0 ? Edge::crisp : Edge::smooth};
        this->expect_alike(
            [&](auto&& sheet) { return fill_each(sheet, circles, how, ink); },
            one_by_one(circles, [&](auto& sheet, const Circle& of, std::size_t) { return fill(sheet, of, how, ink); }),
            "circles in one ink");
        std::vector<Color> colors;
        std::vector<Ink> inks;
        for (std::size_t k = 0; k < circles.size(); ++k) {
            colors.push_back(some_color(dice));
            inks.push_back(some_ink(dice));
        }
        this->expect_alike([&](auto&& sheet) { return fill_each(sheet, circles, how, colors); },
                           one_by_one(circles, [&](auto& sheet, const Circle& of,
                                                   std::size_t k) { return fill(sheet, of, how, colors[k]); }),
                           "circles in colours");
        this->expect_alike(
            [&](auto&& sheet) { return fill_each(sheet, circles, inks); },
            one_by_one(circles, [&](auto& sheet, const Circle& of, std::size_t k) { return fill(sheet, of, inks[k]); }),
            "circles in inks");
        std::vector<Box> boxes;
        std::vector<Line> lines;
        std::vector<Point> points;
        std::vector<Path> paths;
        for (std::size_t k = 0; k < circles.size(); ++k) {
            boxes.push_back({somewhere(dice), {dice.number(1, 30), dice.number(1, 9)}});
            lines.push_back({.from = somewhere(dice), .to = somewhere(dice)});
            points.push_back(somewhere(dice));
            paths.push_back(Path{}.move(somewhere(dice)).line(somewhere(dice)).line(somewhere(dice)).close());
        }
        this->expect_alike(
            [&](auto&& sheet) { return fill_each(sheet, boxes, ink); },
            one_by_one(boxes, [&](auto& sheet, const Box& of, std::size_t) { return fill(sheet, of, ink); }), "boxes");
        this->expect_alike([&](auto&& sheet) { return fill_each(sheet, paths, how, colors); },
                           one_by_one(paths, [&](auto& sheet, const Path& of,
                                                 std::size_t k) { return fill(sheet, of, how, colors[k]); }),
                           "paths");
        const auto pen = Stroke{.width = dice.number(1, 4), .edge = how.edge};
        this->expect_alike([&](auto&& sheet) { return stroke_each(sheet, lines, pen, inks); },
                           one_by_one(lines, [&](auto& sheet, const Line& of,
                                                 std::size_t k) { return stroke(sheet, of, pen, inks[k]); }),
                           "lines");
        this->expect_alike(
            [&](auto&& sheet) { return stroke_each(sheet, lines, ink); },
            one_by_one(lines, [&](auto& sheet, const Line& of, std::size_t) { return stroke(sheet, of, ink); }),
            "hairlines");
        this->expect_alike([&](auto&& sheet) { return mark_each(sheet, points, ink); },
                           one_by_one(points, [&](auto& sheet, Point of, std::size_t) { return mark(sheet, of, ink); }),
                           "marks");
        this->expect_alike(
            [&](auto&& sheet) { return mark_each(sheet, points, colors); },
            one_by_one(points, [&](auto& sheet, Point of, std::size_t k) { return mark(sheet, of, colors[k]); }),
            "marks in colours");
    }
}

TYPED_TEST(DrawsEach, InAnInkMadeReadyAsInTheInk) {
    Dice dice{62};
    const auto sheet = this->ground();
    for (int i = 0; i < (is_sanitized ? 8 : 60); ++i) {
        const auto ink = some_ink(dice);
        auto made_for = this->ground();
        const PreparedInk ready{made_for, ink};
        const auto circles = some_circles(dice, 4);
        const auto pen = Stroke{.width = 3};
        const auto draw = [&](auto& target, const auto& with) {
            auto touched = mark(target, circles[0].center, with);
            touched = enclosing(touched, fill(target, circles[1], with));
            touched = enclosing(touched, fill(target, circles[2], Edge::smooth, with));
            touched = enclosing(touched, fill(target, Box{circles[3].center, {30, 20}}, Fill{}, with));
            touched = enclosing(touched, stroke(target, circles[3], with));
            touched = enclosing(touched, stroke(target, circles[2], pen, with));
            touched = enclosing(touched, stroke(target, circles[0], Edge::smooth, with));
            return enclosing(touched, fill_each(target, circles, with));
        };
        this->expect_alike([&](auto&& target) { return draw(target, ready); },
                           [&](auto&& target) { return draw(target, ink); }, "ink " + std::to_string(i));
        Drawing one;
        Drawing other;
        EXPECT_EQ(draw(one, ready), draw(other, ink));
        ASSERT_EQ(one.size(), other.size());
        auto by_one = this->ground();
        auto by_other = this->ground();
        render(one, by_one);
        render(other, by_other);
        EXPECT_EQ(by_one.bytes(), by_other.bytes()) << i;
    }
}

std::string fault(const std::function<void()>& draw) {
    try {
        draw();
    } catch (const Error& error) {
        return error.what();
    }
    return "none";
}

TEST(Each, NothingIsDrawnWhereOneCannotBe) {
    Bitmap<Rgba8> sheet{size};
    const auto before = sheet.bytes();
    Drawing drawing;
    std::vector<Circle> circles(5, Circle{.center = {20, 20}, .radius = 4});
    circles[3].radius = -2;
    const auto of_circle = fault([&] { fill_each(sheet, circles, colors::gold); });
    EXPECT_EQ(of_circle.find("fill_each: number 3 of 0 to 4: circle: radius is -2; allowed is 0 to"), 0U) << of_circle;
    EXPECT_EQ(fault([&] { fill_each(drawing, circles, colors::gold); }), of_circle);
    std::vector<Line> lines(3);
    lines[2].to.x = std::numeric_limits<int>::min();
    EXPECT_EQ(fault([&] { stroke_each(sheet, lines, colors::gold); }).find("stroke_each: number 2 of 0 to 2: line: "),
              0U);
    const std::vector<Point> points{{3, 3}, {1 << 30, 0}};
    EXPECT_EQ(fault([&] { mark_each(sheet, points, colors::gold); }).find("mark_each: number 1 of 0 to 1: mark: at"),
              0U);
    circles[3].radius = 2;
    EXPECT_EQ(fault([&] { fill_each(sheet, circles, std::vector<Color>(4)); }),
              "fill_each: there are 4 inks for 5 shapes; allowed is one ink for all, or as many as there are shapes");
    std::vector<Ink> inks(5, Ink{colors::gold});
    inks[4] = Ink{PaletteEntry{3}};
    EXPECT_NE(fault([&] { fill_each(sheet, circles, inks); }).find("palette entry 3"), std::string::npos);
    EXPECT_NE(fault([&] { fill_each(sheet, circles, {.edge = static_cast<Edge>(7)}, colors::gold); }), "none");
    EXPECT_EQ(sheet.bytes(), before);
    EXPECT_TRUE(drawing.empty());
    EXPECT_TRUE(fill_each(sheet, std::vector<Circle>{}, colors::gold).empty());
}

// Numbers that are none, or too large: told, and nothing is drawn; those that can be take little time, seen or not.
TEST(Each, WhateverTheNumbersAre) {
    constexpr auto none = std::numeric_limits<double>::quiet_NaN();
    constexpr auto endless = std::numeric_limits<double>::infinity();
    Bitmap<Rgba8> sheet{size, colors::navy};
    const auto before = sheet.bytes();
    const auto circle_of = [](double x, double y, double radius) {
        return std::vector<subpixel::Circle>{{.center = {30, 30}, .radius = 20}, {.center = {x, y}, .radius = radius}};
    };
    for (const auto& circles : {circle_of(none, 3, 2), circle_of(3, endless, 2), circle_of(3, 3, none),
                                circle_of(1e300, 3, 2), circle_of(3, 3, -1), circle_of(3, 3, endless)}) {
        for (const auto edge : {Edge::crisp, Edge::smooth}) {
            const auto what = fault([&] { fill_each(sheet, circles, Fill{.edge = edge}, colors::gold); });
            EXPECT_EQ(what.find("fill_each: number 1 of 0 to 1: circle: "), 0U) << what;
        }
    }
    constexpr auto least = std::numeric_limits<int>::min();
    constexpr auto large = 1 << 30;
    for (const auto& box : {Box{{least, 0}, {1, 1}}, Box{{0, 0}, {least, 1}}, Box{{0, 0}, {0, 5}},
                            Box{{large, large}, {large, large}}, Box{{3, 3}, {5, -5}}}) {
        const auto what = fault([&] { fill_each(sheet, std::vector<Box>{{{1, 1}, {9, 9}}, box}, colors::gold); });
        EXPECT_EQ(what.find("fill_each: number 1 of 0 to 1: box: "), 0U) << what;
    }
    EXPECT_NE(fault([&] { stroke_each(sheet, std::vector<Line>(2), {.width = -3}, colors::gold); }), "none");
    // Too many dashes come up only where they are seen.
    const std::vector<Circle> rims{{.center = {30, 30}, .radius = 20}, {.center = {0, 0}, .radius = 1'000'000'000}};
    const auto how = Stroke{.width = 1'000'000'000, .dash = {1, 1}};
    const auto in_colors = [&] { stroke_each(sheet, rims, how, std::vector<Color>{colors::gold, colors::teal}); };
    const auto in_one = [&] { stroke_each(sheet, rims, how, colors::gold); };
    EXPECT_EQ(fault(in_one).find("stroke_each: number 1 of 0 to 1: "), 0U);
    if (!is_sanitized) {
        EXPECT_EQ(fault(in_colors).find("stroke_each: number 1 of 0 to 1: "), 0U);
    }
    EXPECT_EQ(sheet.bytes(), before);
    fill_each(sheet, circle_of(1e-320, 1e-320, 1e-320), {.edge = Edge::smooth}, colors::gold);
    EXPECT_TRUE(fill_each(sheet, std::vector<Circle>(100'000, Circle{.center = {-large / 2, 5}, .radius = 30}),
                          {.edge = Edge::smooth}, colors::gold)
                    .empty());
    std::vector<Circle> row;
    for (int i = 0; i < 10'000; ++i) row.push_back({.center = {i, 35}, .radius = 20});
    EXPECT_EQ(fill_each(sheet, row, {.edge = Edge::smooth}, colors::gold), (Box{{0, 15}, {size.width, 41}}));
    EXPECT_FALSE(fill_each(sheet, std::vector<Circle>(20, Circle{.center = {5, 5}, .radius = 1'000'000'000}),
                           {.edge = Edge::smooth}, colors::teal)
                     .empty());
    EXPECT_EQ(sheet.color_at({40, 40}), colors::teal);
}

// One ink made ready, on several threads at a time.
TEST(Each, AnInkMadeReadyIsSharedByThreads) {
    Bitmap<Rgba8> first{size, colors::seagreen};
    const PreparedInk shade{first, Ink{colors::coral, {.blend = Blend::overlay}}};
    const auto draw = [&shade](Bitmap<Rgba8>& sheet) {
        for (int i = 0; i < 60; ++i) fill(sheet, Circle{.center = {i, 30}, .radius = 9}, shade);
        mark(sheet, {80, 60}, shade);
    };
    std::vector<Bitmap<Rgba8>> sheets(4, first);
    {
        std::vector<std::jthread> threads;
        for (auto& sheet : sheets) threads.emplace_back([&draw, &sheet] { draw(sheet); });
    }
    draw(first);
    for (const auto& sheet : sheets) EXPECT_EQ(sheet.bytes(), first.bytes());
}

TEST(Each, AnInkMadeReadyIsForItsFormatAndPalette) {
    Bitmap<Rgba8> sheet{size};
    Bitmap<Rgb8> other{size};
    const PreparedInk gold{sheet, colors::gold};
    EXPECT_NE(fault([&] { fill(other, Box{{0, 0}, {3, 3}}, gold); }).find("another format"), std::string::npos);
    EXPECT_NE(fault([&] {
                  mark_each(other, std::vector<Point>{{1, 1}}, gold);
              }).find("another format"),
              std::string::npos);
    Bitmap<Index8> display{size, palettes::quay()};
    Bitmap<Index8> alike{size, palettes::quay()};
    Bitmap<Index8> steps{size, palettes::gray_steps()};
    const PreparedInk third{display, Ink{PaletteEntry{3}}};
    fill(alike, Box{{0, 0}, {3, 3}}, third);
    EXPECT_EQ(alike.bytes()[0], 3);
    EXPECT_NE(fault([&] { fill(steps, Box{{0, 0}, {3, 3}}, third); }).find("another palette"), std::string::npos);
    EXPECT_THROW((PreparedInk{sheet, Ink{PaletteEntry{3}}}), Error);
    EXPECT_EQ(other.bytes(), Bitmap<Rgb8>{size}.bytes());
}

// What is seen of a small shape is the same whether all of it is or a few pixels: it is found in different ways.
TEST(Each, SmallSmoothShapesAreTheSameInParts) {
    Dice dice{63};
    for (int i = 0; i < (is_sanitized ? 60 : 1200); ++i) {
        const auto at = Point{dice.number(-10, 80), dice.number(-10, 60)};
        const auto most = dice.number(0, 3) == 0 ? 131 : 66;
        const auto width = dice.number(1, most);
        const auto height = dice.number(0, 2) == 0 ? width : dice.number(1, most);
        const auto box = Box{at, {width, height}};
        const auto near_point = [&] { return Point{at.x + dice.number(0, width), at.y + dice.number(0, height)}; };
        const auto sweep = Sweep{Angle::degrees(dice.number(0, 359)), Angle::degrees(dice.number(0, 359))};
        const auto width_of_pen = dice.number(1, 5);
        const auto corner = dice.number(0, std::min(width, height) / 2);
        const auto triangle = Polygon{near_point(), near_point(), near_point()};
        const auto kind = dice.number(0, 5);
        const auto draw = [&](auto&& sheet) {
            const auto pen = Stroke{.width = width_of_pen, .edge = Edge::smooth};
            switch (kind) {
                case 0:
                    return fill(sheet, Ellipse::within(box), Edge::smooth, colors::gold);
                case 1:
                    return fill(sheet, RoundedBox{.box = box, .corner_radius = corner}, Edge::smooth, colors::gold);
                case 2:
                    return fill(sheet, triangle, Edge::smooth, colors::gold);
                case 3:
                    return fill(sheet, Sector{.of = Ellipse::within(box), .sweep = sweep}, Edge::smooth, colors::gold);
                case 4:
                    return stroke(sheet, RoundedBox{.box = box, .corner_radius = corner}, pen, colors::gold);
                default:
                    return stroke(sheet, Ellipse::within(box), pen, colors::gold);
            }
        };
        Bitmap<Rgba8> whole{{160, 150}, colors::navy};
        const auto touched = draw(whole);
        Bitmap<Rgba8> parts{{160, 150}, colors::navy};
        auto touched_parts = Box{};
        const auto step = Size{dice.number(3, 40), dice.number(3, 40)};
        for (int y = 0; y < 150; y += step.height) {
            for (int x = 0; x < 160; x += step.width) {
                const auto box_of_part = draw(parts.within(Box{{x, y}, step}));
                if (!box_of_part.empty()) touched_parts = enclosing(touched_parts, box_of_part);
            }
        }
        ASSERT_EQ(parts.bytes(), whole.bytes()) << i << ", kind " << kind;
        EXPECT_EQ(touched_parts, touched) << i << ", kind " << kind;
    }
}

}  // namespace
