// Inks on pixels: blending by the rule, each pixel once for each call, and what a call returns.
#include "oracle.hpp"
#include "this_build.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/vertices.hpp"

#include <map>

namespace {

using namespace coldbrick;
using namespace oracle;

// Rule 5 in exact fractions: the nearest to numerator / denominator, halves up.
int nearest(std::int64_t numerator, std::int64_t denominator) {
    return static_cast<int>((2 * numerator + denominator) / (2 * denominator));
}

int opaque_over(int source, int alpha, int below) { return nearest(source * alpha + below * (255 - alpha), 255); }

Color straight_over(Color s, Color d) {
    const auto above = s.alpha * 255;
    const auto below = d.alpha * (255 - s.alpha);
    if (above + below == 0) return d;
    const auto channel = [&](int a, int b) {
        return static_cast<std::uint8_t>(nearest(std::int64_t{a} * above + std::int64_t{b} * below, above + below));
    };
    return {channel(s.red, d.red), channel(s.green, d.green), channel(s.blue, d.blue),
            static_cast<std::uint8_t>(nearest(above + below, 255))};
}

TEST(Blending, EveryAlphaOverEveryValueOnOpaquePixels) {
    constexpr std::uint8_t sources[] = {0, 1, 100, 128, 254, 255};
    for (const auto source : sources) {
        for (int alpha = 0; alpha < 256; ++alpha) {
            Bitmap<Gray8> ramp{{256, 1}};
            for (int below = 0; below < 256; ++below) mark(ramp, {below, 0}, gray(static_cast<std::uint8_t>(below)));
            fill(ramp, Box{.at = {0, 0}, .size = {256, 1}}, with_alpha(gray(source), static_cast<std::uint8_t>(alpha)));
            for (int below = 0; below < 256; ++below) {
                ASSERT_EQ(ramp.bytes()[static_cast<std::size_t>(below)], opaque_over(source, alpha, below))
                    << int{source} << " alpha " << alpha << " over " << below;
            }
        }
    }
}

TEST(Blending, OpaqueColorBuffersInBothOrders) {
    Dice dice{41};
    for (int i = 0; i < 300; ++i) {
        const auto below = with_alpha(dice.color(), 255);
        const auto ink = dice.color();
        const auto bar = Box{.at = {0, 0}, .size = {dice.number(1, 70), 1}};
        const auto blended = [&](auto bitmap) {
            fill(bitmap, bar, ink);
            EXPECT_EQ(bitmap.color_at({bar.last().x, 0}), bitmap.color_at({0, 0}));
            return bitmap.color_at({0, 0});
        };
        const auto expected = Color{static_cast<std::uint8_t>(opaque_over(ink.red, ink.alpha, below.red)),
                                    static_cast<std::uint8_t>(opaque_over(ink.green, ink.alpha, below.green)),
                                    static_cast<std::uint8_t>(opaque_over(ink.blue, ink.alpha, below.blue))};
        EXPECT_EQ(blended(Bitmap<Rgb8>{{70, 1}, below}), expected);
        EXPECT_EQ(blended(Bitmap<Bgr8>{{70, 1}, below}), expected);
        EXPECT_EQ(blended(Bitmap<Rgba8>{{70, 1}, below}), expected);
        EXPECT_EQ(blended(Bitmap<Bgra8>{{70, 1}, below}), expected);
    }
}

TEST(Blending, StraightAlphaOnTranslucentPixels) {
    Dice dice{42};
    for (int i = 0; i < 3000; ++i) {
        auto below = dice.color();
        if (i % 5 == 0) below.alpha = static_cast<std::uint8_t>(i % 10 == 0 ? 0 : 255);
        const auto ink = i % 7 == 0 ? with_alpha(dice.color(), 0) : dice.color();
        Bitmap<Rgba8> rgba{{3, 1}, below};
        Bitmap<Bgra8> bgra{{3, 1}, below};
        fill(rgba, Box{.at = {0, 0}, .size = {2, 1}}, ink);
        fill(bgra, Box{.at = {0, 0}, .size = {2, 1}}, ink);
        EXPECT_EQ(rgba.color_at({1, 0}), straight_over(ink, below)) << ink << " over " << below;
        EXPECT_EQ(bgra.color_at({0, 0}), straight_over(ink, below)) << ink << " over " << below;
        EXPECT_EQ(rgba.color_at({2, 0}), below);
    }
}

TEST(Blending, StretchesOfOpaqueAndTranslucentPixelsMixed) {
    Dice dice{43};
    for (int round = 0; round < 50; ++round) {
        Bitmap<Rgba8> bitmap{{100, 1}};
        std::vector<Color> before;
        for (int x = 0; x < 100; ++x) {
            auto below = dice.color();
            if (dice.number(0, 20) != 0) below.alpha = 255;
            Pixels<Rgba8> pixel = bitmap.within({.at = {x, 0}, .size = {1, 1}});
            clear(pixel, below);
            before.push_back(below);
        }
        const auto ink = dice.color();
        fill(bitmap, Box{.at = {3, 0}, .size = {94, 1}}, ink);
        for (int x = 3; x < 97; ++x) {
            EXPECT_EQ(bitmap.color_at({x, 0}), straight_over(ink, before[static_cast<std::size_t>(x)]));
        }
        EXPECT_EQ(bitmap.color_at({2, 0}), before[2]);
        EXPECT_EQ(bitmap.color_at({97, 0}), before[97]);
    }
}

// The pixels that a translucent ink changed, each to one layer of it.
template <class Draw>
void expect_one_layer(const Draw& draw, const PixelSet& expected) {
    constexpr auto sheet = Size{60, 48};
    Bitmap<Rgb8> bitmap{sheet, colors::black};
    const auto touched = draw(bitmap, Color{.red = 200, .green = 100, .blue = 50, .alpha = 128});
    const auto layer = Color{.red = 100, .green = 50, .blue = 25};
    for (int y = 0; y < sheet.height; ++y) {
        for (int x = 0; x < sheet.width; ++x) {
            ASSERT_EQ(bitmap.color_at({x, y}), has(expected, {x, y}) ? layer : colors::black) << x << ',' << y;
        }
    }
    EXPECT_EQ(touched, box_of(expected));
}

TEST(Blending, EachPixelOnceWhereAPathCrossesItself) {
    constexpr auto sheet = Box{.at = {0, 0}, .size = {60, 48}};
    Dice dice{44};
    for (int i = 0; i < 60; ++i) {
        const auto path = dice.ring(2, 9, {.at = {-5, -5}, .size = {70, 58}});
        const auto line = Polyline{.through = path, .closed = i % 2 == 0};
        expect_one_layer([&](auto& to, Color ink) { return stroke(to, line, ink); },
                         pixels_of(on_path(path, line.closed), sheet));
        const auto polygon = Polygon{std::vector<Polygon::Vertices>{path, dice.ring(1, 5, sheet)}};
        expect_one_layer([&](auto& to, Color ink) { return stroke(to, polygon, ink); },
                         pixels_of(on_outline(polygon), sheet));
        const auto how = Fill{.rule = FillRule::nonzero, .edges = Edges::inclusive};
        expect_one_layer([&](auto& to, Color ink) { return fill(to, polygon, how, ink); },
                         pixels_of(in_polygon(polygon, how), sheet));
        expect_one_layer([&](auto& to, Color ink) { return fill(to, stroked(polygon), ink); },
                         pixels_of(on_outline(polygon), sheet));
    }
}

// Opaque hairlines take ways of their own through the library: they must give the pixels of the translucent ones.
template <PixelFormat Format>
void expect_opaque_as_told() {
    constexpr auto sheet = Box{.at = {0, 0}, .size = {90, 70}};
    Dice dice{45};
    for (int i = 0; i < 600; ++i) {
        const auto place = i % 3 == 0 ? Box{.at = {-40, -40}, .size = {200, 160}} : sheet;
        const auto from = dice.point(place);
        const auto to = i % 5 == 0 ? Point{from.x + dice.number(-3, 3), dice.point(place).y} : dice.point(place);
        const auto line = Line{.from = from, .to = to};
        Bitmap<Format> bitmap{sheet.size, colors::black};
        const auto touched = stroke(bitmap, line, colors::white);
        const auto expected = pixels_of([&](Point p) { return on_line(from, to, p); }, sheet);
        EXPECT_EQ(pixels_of([&](Point p) { return bitmap.color_at(p) == colors::white; }, sheet) == expected, true)
            << from << " to " << to;
        EXPECT_EQ(touched, box_of(expected));
    }
}

TEST(Drawing, OpaqueHairlinesInEveryPixelSize) {
    if (!is_sanitized) expect_opaque_as_told<Gray8>();
    expect_opaque_as_told<Bgr8>();
    if (is_sanitized) return;
    expect_opaque_as_told<Rgba8>();
}

TEST(Drawing, LongHairlinesInALargeBuffer) {
    Dice dice{46};
    constexpr auto sheet = Size{70000, 40};
    for (int i = 0; i < (is_sanitized ? 5 : 20); ++i) {
        const auto a = Point{dice.number(0, 99), dice.number(0, 39)};
        const auto b = Point{sheet.width - 1 - dice.number(0, 99), dice.number(0, 39)};
        Bitmap<Gray8> bitmap{sheet};
        stroke(bitmap, Line{.from = b, .to = a}, gray(255));
        for (int x = 0; x < sheet.width; x += 13) {
            for (int y = 0; y < sheet.height; ++y) {
                ASSERT_EQ(bitmap.bytes()[static_cast<std::size_t>(y) * sheet.width + static_cast<std::size_t>(x)] != 0,
                          on_line(a, b, {x, y}));
            }
        }
    }
}

// Runs of every length up to some thousands of bytes, in every pixel size, begin and end where they should.
template <PixelFormat Format>
void expect_exact_runs() {
    Bitmap<Format> bitmap{{4000, 1}};
    const auto ink = 0x0a141e_rgb;
    const auto stored = Bitmap<Format>{{1, 1}, ink}.color_at({0, 0});
    const auto ground = Bitmap<Format>{{1, 1}, gray(7)}.color_at({0, 0});
    for (int length = 1; length < 3900; length += length < 200 ? 1 : 61) {
        clear(bitmap, gray(7));
        const auto run = Box{.at = {length % 19 + 1, 0}, .size = {length, 1}};
        fill(bitmap, run, ink);
        EXPECT_EQ(bitmap.color_at({run.at.x - 1, 0}), ground);
        EXPECT_EQ(bitmap.color_at({run.last().x + 1, 0}), ground);
        for (int x = run.at.x; x <= run.last().x; ++x)
            ASSERT_EQ(bitmap.color_at({x, 0}), stored) << x << " of " << length;
    }
}

TEST(Drawing, RunsOfEveryLength) {
    expect_exact_runs<Gray8>();
    expect_exact_runs<Rgb8>();
    expect_exact_runs<Bgra8>();
}

TEST(Drawing, MarkTouchesOnePixelOrNone) {
    Bitmap<Rgb8> bitmap{{5, 4}};
    EXPECT_EQ(mark(bitmap, {4, 3}, colors::red), (Box{.at = {4, 3}, .size = {1, 1}}));
    EXPECT_EQ(bitmap.color_at({4, 3}), colors::red);
    EXPECT_TRUE(mark(bitmap, {5, 3}, colors::red).empty());
    EXPECT_TRUE(mark(bitmap, {4, -1}, colors::red).empty());
}

TEST(Drawing, LaterShapesLieOnTop) {
    Bitmap<Rgb8> bitmap{{9, 9}, colors::white};
    fill(bitmap, Circle{.center = {4, 4}, .radius = 4}, colors::red);
    fill(bitmap, Circle{.center = {4, 4}, .radius = 2}, colors::blue);
    EXPECT_EQ(bitmap.color_at({4, 4}), colors::blue);
    EXPECT_EQ(bitmap.color_at({4, 1}), colors::red);
    EXPECT_EQ(bitmap.color_at({0, 0}), colors::white);
}

TEST(Drawing, OneVertexIsAPixelAndTwoAreALine) {
    Bitmap<Gray8> bitmap{{9, 9}};
    EXPECT_EQ(fill(bitmap, Polygon{{2, 3}}, gray(9)), (Box{.at = {2, 3}, .size = {1, 1}}));
    EXPECT_EQ(fill(bitmap, Polygon{{1, 1}, {7, 5}}, gray(9)), (Box{.at = {1, 1}, .size = {7, 5}}));
    EXPECT_TRUE(fill(bitmap, Polygon{{1, 1}, {7, 5}}, {.edges = Edges::shared}, gray(9)).empty());
    EXPECT_TRUE(bounds(filled(Polygon{{1, 1}, {7, 5}}, {.edges = Edges::shared})).empty());
}

// What cannot be meant is refused with what was given and what is allowed, and nothing is drawn.
TEST(Drawing, RefusedShapesDrawNothing) {
    constexpr auto over = max_coordinate + 1;
    Bitmap<Rgb8> bitmap{{40, 30}, gray(3)};
    const auto before = bitmap.bytes();
    const auto refused = [&](const auto& draw) -> std::string {
        try {
            draw();
        } catch (const Error& error) {
            EXPECT_EQ(bitmap.bytes(), before);
            return error.what();
        }
        return "not refused";
    };
    const auto ink = colors::red;
    const std::map<std::string, std::function<void()>> calls = {
        {"circle: radius is -3; allowed is 0 to 1073741823",
         [&] {
             fill(bitmap, Circle{.center = {9, 9}, .radius = -3}, ink);
         }},
        {"circle: radius is 1073741824; allowed is 0 to 1073741823",
         [&] {
             stroke(bitmap, Circle{.center = {9, 9}, .radius = over}, ink);
         }},
        {"circle: center.y is -1073741824; allowed is -1073741823 to 1073741823",
         [&] {
             fill(bitmap, Circle{.center = {9, -over}, .radius = 3}, ink);
         }},
        {"box: size.width is 0; allowed is 1 to 1073741823",
         [&] {
             fill(bitmap, Box{.at = {1, 1}, .size = {0, 5}}, ink);
         }},
        {"box: size.height is -2; allowed is 1 to 1073741823",
         [&] {
             stroke(bitmap, Box{.at = {1, 1}, .size = {5, -2}}, ink);
         }},
        {"box: size.height is 1073741824; allowed is 1 to 1073741823",
         [&] {
             fill(bitmap, Box{.at = {1, 1}, .size = {5, over}}, ink);
         }},
        {"ellipse: radii.y is -1; allowed is 0 to 1073741823",
         [&] {
             fill(bitmap, Ellipse::around({.center = {9, 9}, .radii = {4, -1}}), ink);
         }},
        {"ellipse: size.width is 0; allowed is 1 to 1073741823",
         [&] {
             fill(bitmap, Ellipse::within({.at = {9, 9}, .size = {0, 4}}), ink);
         }},
        {"line: to.x is 1073741824; allowed is -1073741823 to 1073741823",
         [&] {
             stroke(bitmap, Line{.from = {1, 1}, .to = {over, 1}}, ink);
         }},
        {"polyline: through has no points; it needs at least one", [&] { stroke(bitmap, Polyline{}, ink); }},
        {"polyline: through[1].x is 1073741824; allowed is -1073741823 to 1073741823",
         [&] {
             stroke(bitmap, Polyline{.through = {{1, 1}, {over, 0}}}, ink);
         }},
        {"polygon: it has no rings of vertices; it needs at least one",
         [&] { fill(bitmap, Polygon{std::vector<Polygon::Vertices>{}}, ink); }},
        {"polygon (ring 1): it has no vertices; it needs at least one",
         [&] {
             fill(bitmap, Polygon{std::vector<Polygon::Vertices>{{{1, 1}, {9, 9}, {1, 9}}, {}}}, ink);
         }},
        {"polygon: vertex[2].y is 1073741824; allowed is -1073741823 to 1073741823",
         [&] {
             stroke(bitmap, Polygon{{1, 1}, {9, 9}, {1, over}}, ink);
         }},
        {"mark: at.x is 1073741824; allowed is -1073741823 to 1073741823",
         [&] {
             mark(bitmap, {over, 1}, ink);
         }},
    };
    for (const auto& [message, call] : calls) EXPECT_EQ(refused(call), message);
    EXPECT_THROW((void)bounds(Circle{.center = {0, 0}, .radius = -1}), Error);
    EXPECT_THROW((void)contains(stroked(Polyline{}), Point{0, 0}), Error);
}

}  // namespace
