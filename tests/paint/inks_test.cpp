// Gradients, patterns, palettes, formats of one's own, colours by hue.
#include "oracle.hpp"
#include "own_format.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <array>
#include <cmath>

namespace {

using namespace coldbrick;
using namespace oracle;

TEST(Gradients, GoEvenlyFromStopToStop) {
    Bitmap<Rgba16> row{{256, 1}};
    fill(row, Box{.at = {}, .size = {256, 1}},
         LinearGradient{.from = {-0.5, 0}, .to = {255.5, 0}, .stops = {{0, gray(0)}, {1, gray(255)}}});
    for (int x = 0; x < 256; ++x) EXPECT_NEAR(row.color16_at({x, 0}).red, 65535 * (x + 0.5) / 256, 10);
    Bitmap<Rgb8> three{{101, 1}};
    fill(three, Box{.at = {}, .size = {101, 1}},
         LinearGradient{.from = {20, 0},
                        .to = {80, 0},
                        .stops = {{0, colors::red}, {0.5, colors::lime}, {0.5, colors::blue}, {1, colors::white}}});
    EXPECT_EQ(three.color_at({0, 0}), colors::red);
    EXPECT_EQ(three.color_at({49, 0}).blue, 0);
    EXPECT_EQ(three.color_at({51, 0}).green, three.color_at({51, 0}).red);
    EXPECT_EQ(three.color_at({100, 0}), colors::white);
    // A transparent stop lends no colour.
    Bitmap<Rgba8> fading{{100, 1}};
    fill(
        fading, Box{.at = {}, .size = {100, 1}},
        LinearGradient{.from = {0, 0}, .to = {99, 0}, .stops = {{0, colors::gold}, {1, with_alpha(colors::black, 0)}}});
    for (int x = 0; x < 90; ++x) EXPECT_EQ(with_alpha(fading.color_at({x, 0}), 255), colors::gold);
}

TEST(Gradients, SpreadBeyondTheirEnds) {
    const auto at = [](Spread spread, int x) {
        Bitmap<Rgb8> row{{200, 1}};
        fill(row, Box{.at = {}, .size = {200, 1}},
             LinearGradient{
                 .from = {79.5, 0}, .to = {119.5, 0}, .stops = {{0, gray(0)}, {1, gray(240)}}, .spread = spread});
        return int{row.color_at({x, 0}).red};
    };
    for (int x = 0; x < 40; ++x) {
        EXPECT_EQ(at(Spread::pad, x), 0);
        EXPECT_EQ(at(Spread::pad, 120 + x), 240);
        EXPECT_NEAR(at(Spread::repeat, x), at(Spread::pad, 80 + x), 1);
        EXPECT_NEAR(at(Spread::repeat, 120 + x), at(Spread::pad, 80 + x), 1);
        EXPECT_NEAR(at(Spread::reflect, 40 + x), at(Spread::pad, 119 - x), 1);
        EXPECT_NEAR(at(Spread::reflect, 120 + x), at(Spread::pad, 119 - x), 1);
    }
}

TEST(Gradients, GoOutwardsAndAround) {
    Bitmap<Gray16> sheet{{101, 101}};
    const auto all = Box{.at = {}, .size = {101, 101}};
    const auto stops = std::vector<Stop>{{0, gray(0)}, {1, gray(255)}};
    fill(sheet, all, RadialGradient{.center = {50, 50}, .radius = 50, .stops = stops});
    for (const auto& p : {Point{50, 50}, {80, 50}, {50, 20}, {80, 90}, {0, 0}}) {
        const auto away = std::min(1.0, std::hypot(p.x - 50, p.y - 50) / 50);
        EXPECT_NEAR(sheet.color16_at(p).red, 65535 * away, 20) << p;
    }
    fill(sheet, all, ConicGradient{.center = {50, 50}, .from = Angle::degrees(90), .stops = stops});
    for (const auto& p : {Point{20, 80}, {10, 50}, {50, 10}, {90, 50}}) {
        auto part = std::atan2(p.y - 50, p.x - 50) / (2 * std::numbers::pi) - 0.25;
        part -= std::floor(part);
        EXPECT_NEAR(sheet.color16_at(p).red, 65535 * part, 20) << p;
    }
    // In a shape's box, 0.5,0.5 is its middle.
    Bitmap<Gray16> moved{{101, 101}};
    fill(moved, Box{.at = {20, 30}, .size = {41, 41}},
         RadialGradient{.center = {0.5, 0.5}, .radius = 0.5, .stops = stops, .placing = Placing::shape});
    EXPECT_LT(moved.color16_at({40, 50}).red, 30);
    EXPECT_NEAR(moved.color16_at({30, 50}).red, 65535 * 10 / 20.5, 30);
}

TEST(Gradients, DitheredOnesHaveTheRightMean) {
    Bitmap<Gray8> sheet{{512, 64}};
    auto ramp = LinearGradient{.from = {0, 0}, .to = {511, 0}, .stops = {{0, gray(100)}, {1, gray(110)}}};
    ramp.dither = Dither::ordered;
    fill(sheet, Box{.at = {}, .size = {512, 64}}, ramp);
    for (int x = 0; x < 512; x += 8) {
        auto sum = 0.0;
        for (int i = 0; i < 8; ++i) {
            for (int y = 0; y < 8; ++y) sum += sheet.color_at({x + i, y}).red;
        }
        EXPECT_NEAR(sum / 64, 100 + 10 * (x + 3.5) / 511, 0.05) << x;
    }
    // Without, there are eleven bands.
    ramp.dither = Dither::none;
    fill(sheet, Box{.at = {}, .size = {512, 64}}, ramp);
    int changes = 0;
    for (int x = 1; x < 512; ++x) changes += sheet.color_at({x, 0}) == sheet.color_at({x - 1, 0}) ? 0 : 1;
    EXPECT_EQ(changes, 10);
}

TEST(Gradients, RefuseWhatTheyCannotBe) {
    const auto refused = [](auto gradient) {
        try {
            const Ink ink = gradient;
        } catch (const Error& error) {
            return std::string{error.what()};
        }
        return std::string{};
    };
    const auto stops = std::vector<Stop>{{0, gray(0)}, {1, gray(255)}};
    EXPECT_EQ(refused(LinearGradient{.from = {0, 0}, .to = {1, 0}}),
              "linear gradient: it has no stops; it needs one at least");
    EXPECT_NE(refused(LinearGradient{.from = {0, 0}, .to = {1, 0}, .stops = {{0.5, gray(0)}, {0.4, gray(1)}}})
                  .find("before the one at 0.5"),
              std::string::npos);
    EXPECT_NE(refused(RadialGradient{.radius = 3, .stops = {{1.5, gray(0)}}}).find("allowed is 0 to 1"),
              std::string::npos);
    EXPECT_NE(refused(LinearGradient{.from = {2, 3}, .to = {2, 3}, .stops = stops}).find("must be apart"),
              std::string::npos);
    EXPECT_NE(refused(RadialGradient{.radius = 0, .stops = stops}).find("radius is 0"), std::string::npos);
    EXPECT_NE(refused(ConicGradient{.center = {std::nan(""), 0}, .stops = stops}).find("not finite"),
              std::string::npos);
    EXPECT_NE(refused(Hatch{.spacing = 0.5}).find("spacing"), std::string::npos);
    EXPECT_NE(refused(Hatch{.width = 0}).find("width"), std::string::npos);
}

TEST(Patterns, RepeatAPicture) {
    Bitmap<Rgba8> tile{{3, 2}};
    for (int i = 0; i < 6; ++i) mark(tile, {i % 3, i / 3}, gray(static_cast<std::uint8_t>(10 * i + 10)));
    Bitmap<Rgb8> sheet{{20, 20}, colors::navy};
    fill(sheet, Box{.at = {-2, -3}, .size = {19, 20}}, Pattern::of(tile, {.offset = {1, 5}}));
    for (int y = 0; y < 17; ++y) {
        for (int x = 0; x < 17; ++x) EXPECT_EQ(sheet.color_at({x, y}), tile.color_at({(x + 5) % 3, (y + 1) % 2}));
    }
    fill(sheet, Box{.at = {7, 7}, .size = {5, 5}}, Pattern::of(tile, {.placing = Placing::shape}));
    EXPECT_EQ(sheet.color_at({7, 7}), tile.color_at({0, 0}));
    clear(sheet, colors::navy);
    fill(sheet, Box{.at = {0, 0}, .size = {20, 20}},
         PictureInk::of(tile.within({.at = {1, 0}, .size = {2, 2}}), {.at = {4, 5}}));
    EXPECT_EQ(sheet.color_at({4, 5}), tile.color_at({1, 0}));
    EXPECT_EQ(sheet.color_at({6, 5}), colors::navy);
    EXPECT_THROW((void)Pattern::of(tile.within({.at = {9, 9}, .size = {2, 2}})), Error);
}

TEST(Patterns, HatchesAreLinesAtADistance) {
    Bitmap<Rgb8> sheet{{40, 40}, colors::black};
    const auto all = Box{.at = {}, .size = {40, 40}};
    fill(sheet, all, Hatch{.spacing = 5, .width = 1, .color = colors::white, .offset = {0, 2}});
    for (int y = 0; y < 40; ++y) EXPECT_EQ(sheet.color_at({17, y}), y % 5 == 2 ? colors::white : colors::black) << y;
    fill(sheet, all,
         Hatch{.spacing = 8, .angle = Angle::degrees(90), .width = 3, .color = colors::white, .ground = colors::navy});
    for (int x = 0; x < 40; ++x) EXPECT_EQ(sheet.color_at({x, 9}), (x + 1) % 8 < 3 ? colors::white : colors::navy) << x;
    // On the slant, the mean is the lines' share.
    Bitmap<Gray8> large{{400, 400}};
    fill(large, Box{.at = {}, .size = {400, 400}},
         Hatch{.spacing = 7, .angle = Angle::degrees(33), .width = 2, .color = gray(255)});
    auto sum = 0.0;
    for (const auto byte : large.bytes()) sum += byte;
    EXPECT_NEAR(sum / (400.0 * 400 * 255), 2.0 / 7, 0.002);
}

TEST(Palettes, DrawByNumberAndByNearestColor) {
    Bitmap<Index8> display{{16, 8}, palettes::quay()};
    fill(display, Box{.at = {2, 2}, .size = {5, 5}}, PaletteEntry{3});
    EXPECT_EQ(display.bytes()[2 * 16 + 2], 3);
    EXPECT_EQ(display.color_at({2, 2}), palettes::quay()[3]);
    mark(display, {0, 0}, with_alpha(palettes::quay()[8], 255));
    EXPECT_EQ(display.bytes()[0], 8);
    // Translucent ink mixes colours, and the nearest is taken.
    mark(display, {1, 0}, with_alpha(colors::white, 250));
    EXPECT_EQ(display.bytes()[1], 11);
    fill(display, Circle{.center = {11, 4}, .radius = 3}, {.edge = Edge::smooth}, colors::white);
    EXPECT_EQ(display.color_at({11, 4}), palettes::quay()[11]);
    EXPECT_EQ(convert<Rgb8>(display).color_at({2, 2}), palettes::quay()[3]);
    EXPECT_EQ(enlarge(display, 2).color_at({5, 5}), palettes::quay()[3]);
    Bitmap<Rgb8> photo{{2, 1}, colors::white};
    EXPECT_EQ(convert(photo, palettes::two_tone()).bytes(), (std::vector<std::uint8_t>{1, 1}));
    std::vector<std::uint8_t> memory(6);
    const Pixels<Index8> view{{.top_left = memory.data(), .size = {3, 2}}, palettes::gray_steps()};
    fill(view, Box{.at = {1, 0}, .size = {2, 2}}, gray(120));
    EXPECT_EQ(memory, (std::vector<std::uint8_t>{0, 7, 7, 0, 7, 7}));
}

// Many colours at a time, of which those that were found are remembered.
TEST(Palettes, EachOfManyColorsBecomesTheNearest) {
    oracle::Dice dice{41};
    Bitmap<Rgba8> picture{{700, 12}};
    fill(picture, Box{.at = {}, .size = {700, 4}},
         LinearGradient{.from = {0, 0}, .to = {699, 3}, .stops = {{0, colors::teal}, {1, colors::coral}}});
    for (int x = 0; x < 700; ++x) {
        for (int y = 4; y < 12; ++y) mark(picture, {x, y}, Ink{dice.color(), {.blend = Blend::replace}});
    }
    mark(picture, {0, 4}, Ink{Color{0, 0, 0, 0}, {.blend = Blend::replace}});
    for (const auto& palette : {palettes::quay(), palettes::cube(), Palette{{colors::gold}}}) {
        const auto numbers = convert(picture, palette);
        Bitmap<Index8> drawn{picture.size(), palette};
        paste(drawn, picture, {.compositing = {.blend = Blend::replace}});
        EXPECT_EQ(drawn.bytes(), numbers.bytes());
        for (int y = 0; y < 12; ++y) {
            for (int x = 0; x < 700; ++x) {
                ASSERT_EQ(numbers.entry_at({x, y}).number, static_cast<int>(palette.nearest(picture.color_at({x, y}))));
            }
        }
    }
}

TEST(Palettes, RefuseWhatTheyHaveNot) {
    Bitmap<Index8> display{{4, 4}, palettes::two_tone()};
    const auto before = display.bytes();
    EXPECT_THROW(mark(display, {0, 0}, PaletteEntry{2}), Error);
    EXPECT_THROW(mark(display, {0, 0}, PaletteEntry{-1}), Error);
    EXPECT_EQ(display.bytes(), before);
    Bitmap<Rgb8> other{{4, 4}};
    EXPECT_THROW(mark(other, {0, 0}, PaletteEntry{0}), Error);
    EXPECT_THROW(Palette{{}}, Error);
    EXPECT_THROW(Palette{std::vector<Color>(257)}, Error);
    EXPECT_THROW((void)palettes::quay()[12], Error);
    EXPECT_EQ(palettes::find("harbour"), nullptr);
    for (const auto name : palettes::names()) EXPECT_NE(palettes::find(name), nullptr) << name;
    EXPECT_EQ(palettes::cube().size(), 216U);
}

// Lightness and colour of CIE 1976 for light in red, green and blue.
std::array<double, 3> lab_of(std::array<double, 3> light) {
    const auto f = [](double t) { return t > 0.008856 ? std::cbrt(t) : 7.787 * t + 16.0 / 116; };
    const auto x = f((0.4124 * light[0] + 0.3576 * light[1] + 0.1805 * light[2]) / 0.9505);
    const auto y = f(0.2126 * light[0] + 0.7152 * light[1] + 0.0722 * light[2]);
    const auto z = f((0.0193 * light[0] + 0.1192 * light[1] + 0.9505 * light[2]) / 1.089);
    return {116 * y - 16, 500 * (x - y), 200 * (y - z)};
}

TEST(Palettes, TheQuaysColorsAreToldApartByAllEyes) {
    using Matrix = std::array<std::array<double, 3>, 3>;
    constexpr auto eyes = std::array{Matrix{{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}},
                                     Matrix{{{0.11238, 0.88762, 0}, {0.11238, 0.88762, 0}, {0.00401, -0.00401, 1}}},
                                     Matrix{{{0.29275, 0.70725, 0}, {0.29275, 0.70725, 0}, {-0.02234, 0.02234, 1}}}};
    const auto light = [](std::uint8_t v) {
        return v <= 10 ? v / 255.0 / 12.92 : std::pow((v / 255.0 + 0.055) / 1.055, 2.4);
    };
    ASSERT_EQ(palettes::quay().size(), 12U);
    for (const auto& eye : eyes) {
        std::vector<std::array<double, 3>> seen;
        for (const auto& color : palettes::quay().colors()) {
            const auto lights = std::array{light(color.red), light(color.green), light(color.blue)};
            std::array<double, 3> through{};
            for (std::size_t i = 0; i < 3; ++i) {
                for (std::size_t k = 0; k < 3; ++k) through[i] += eye[i][k] * lights[k];
                through[i] = std::clamp(through[i], 0.0, 1.0);
            }
            const auto lab = lab_of(through);
            for (const auto& other : seen)
                EXPECT_GT(std::hypot(lab[0] - other[0], lab[1] - other[1], lab[2] - other[2]), 20);
            seen.push_back(lab);
        }
    }
}

TEST(OwnFormats, TakeAllDrawing) {
    Bitmap<OwnRgb565> screen{{40, 30}, colors::navy};
    Bitmap<Rgb8> same{{40, 30}, colors::navy};
    const auto draw = [](auto& to) {
        fill(to, Circle{.center = {12, 12}, .radius = 9}, {.edge = Edge::smooth}, colors::gold);
        stroke(to, Line{.from = {0, 29}, .to = {39, 3}}, {.width = 3}, with_alpha(colors::white, 120));
        fill(to, Box{.at = {25, 20}, .size = {12, 8}},
             LinearGradient{.from = {25, 0}, .to = {36, 0}, .stops = {{0, colors::teal}, {1, colors::coral}}});
        stroke(to, Line{.from = {0, 0}, .to = {39, 29}}, colors::red);
    };
    draw(screen);
    draw(same);
    for (int y = 0; y < 30; ++y) {
        for (int x = 0; x < 40; ++x) {
            const auto found = screen.color_at({x, y});
            const auto wanted = same.color_at({x, y});
            EXPECT_NEAR(found.red, wanted.red, 12);
            EXPECT_NEAR(found.green, wanted.green, 8);
        }
    }
    EXPECT_EQ(bytes_per_pixel<OwnRgb565>, 2);
    EXPECT_EQ(screen.bytes().size(), 40U * 30 * 2);
    EXPECT_EQ(flood(screen, {.from = {30, 3}}).contains({30, 3}), true);
}

TEST(DeepFormats, KeepSixteenBits) {
    Bitmap<Gray16> depth{{8, 8}};
    fill(depth, Box{.at = {1, 1}, .size = {3, 3}}, Color16{1234, 1234, 1234});
    EXPECT_EQ(depth.color16_at({2, 2}).red, 1234);
    EXPECT_EQ(depth.color_at({2, 2}), gray(5));
    EXPECT_EQ(convert<Rgba16>(depth).color16_at({2, 2}), (Color16{1234, 1234, 1234}));
    EXPECT_EQ(convert<Gray8>(depth).color_at({2, 2}), gray(5));
    for (int v = 0; v < 256; ++v) EXPECT_EQ(narrowed(widened(gray(static_cast<std::uint8_t>(v)))).red, v);
    EXPECT_EQ(flood(depth, {.from = {2, 2}}).area(), 9);
    EXPECT_EQ(flood(depth, {.from = {2, 2}, .tolerance = 5}).area(), 64);
}

TEST(Hues, GoThereAndBack) {
    EXPECT_EQ(color_of(Hsl{.hue = Angle::degrees(0), .saturation = 1, .lightness = 0.5}), colors::red);
    EXPECT_EQ(color_of(Hsl{.hue = Angle::degrees(120), .saturation = 1, .lightness = 0.25}), colors::green);
    EXPECT_EQ(color_of(Hsv{.hue = Angle::degrees(-120), .saturation = 1, .value = 1}), colors::blue);
    EXPECT_EQ(color_of(Hsv{.hue = Angle::degrees(420), .saturation = 1, .value = 1}), colors::yellow);
    Dice dice{81};
    for (int i = 0; i < 2000; ++i) {
        const auto color = dice.color();
        EXPECT_EQ(color_of(hsl_of(color)), color);
        EXPECT_EQ(color_of(hsv_of(color)), color);
    }
    EXPECT_EQ(hsl_of(gray(77)).saturation, 0);
    EXPECT_THROW((void)color_of(Hsl{.saturation = 1.1}), Error);
    EXPECT_THROW((void)color_of(Hsv{.value = -0.1}), Error);
}

TEST(Hues, MixturesAndChance) {
    EXPECT_EQ(mixed(colors::black, colors::white, 0.5), gray(128));
    EXPECT_EQ(mixed(colors::navy, colors::gold, 0), colors::navy);
    EXPECT_EQ(mixed(colors::navy, colors::gold, 1), colors::gold);
    EXPECT_THROW((void)mixed(colors::navy, colors::gold, 2), Error);
    EXPECT_EQ(random_color(7), random_color(7));
    std::array<double, 3> sums{};
    for (std::uint64_t seed = 0; seed < 4000; ++seed) {
        const auto color = random_color(seed);
        sums[0] += color.red;
        sums[1] += color.green;
        sums[2] += color.blue;
    }
    for (const auto sum : sums) EXPECT_NEAR(sum / 4000, 127.5, 5);
}

}  // namespace
