// One ink on one pixel is one number, whatever the shape, its size, and the call that lays it: a function of the pixel
// as ink, which goes the way of all inks, is the judge.
#include "oracle.hpp"
#include "own_format.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr auto size = Size{84, 12};

template <PixelFormat Format>
Bitmap<Format> ground_of(Dice& dice, bool is_opaque) {
    Bitmap<Format> sheet{size};
    for (int y = 0; y < size.height; ++y) {
        for (int x = 0; x < size.width; ++x) {
            auto color = dice.color();
            if (is_opaque) color.alpha = 255;
            mark(sheet, {x, y}, Ink{color, {.blend = Blend::replace}});
        }
    }
    return sheet;
}

// Shapes of sizes beside those at which others take over: runs of one pixel, of a few, and long ones.
template <class Draw>
void with_shapes(const Draw& draw) {
    for (const auto edge : {Edge::crisp, Edge::smooth}) {
        for (const auto width : {1, 2, 3, 4, 7, 9, 33, 63, 64, 65, 80}) {
            draw(filled(Box{{2, 3}, {width, width == 1 ? 1 : 2}}, {.edge = edge}));
        }
        for (const auto radius : {0, 1, 3, 5}) {
            draw(filled(Circle{{40, 6}, radius}, {.edge = edge}));
            draw(stroked(Circle{{40, 6}, radius}, {.edge = edge}));
            draw(stroked(Circle{{40, 6}, radius}, {.width = 3, .edge = edge}));
        }
        draw(filled(Ellipse::around({.center = {40, 6}, .radii = {38, 5}}), {.edge = edge}));
        draw(filled(Polygon{{3, 1}, {70, 4}, {20, 11}}, {.edge = edge}));
        draw(filled(RoundedBox{{{1, 1}, {81, 10}}, 4}, {.edge = edge}));
        draw(stroked(Line{{2, 2}, {81, 9}}, {.edge = edge}));
        draw(stroked(Line{{2, 2}, {12, 5}}, {.width = 2, .edge = edge}));
        draw(stroked(Box{{3, 2}, {60, 8}}, {.width = 2, .dash = {3, 2}, .edge = edge}));
    }
}

template <PixelFormat Format>
void expect_one_number(Dice& dice, Color color, const Compositing& how) {
    const auto ink = Ink{color, how};
    const auto judge = Ink{Ink{[=](Point) { return color; }}, how};
    for (const auto is_opaque : {true, false}) {
        const auto ground = ground_of<Format>(dice, is_opaque);
        auto number = 0;
        with_shapes([&](const auto& area) {
            auto expected = ground;
            fill(expected, area, judge);
            const auto expect_same = [&](const char* call, const auto& draw) {
                auto sheet = ground;
                draw(sheet);
                EXPECT_EQ(sheet.bytes(), expected.bytes())
                    << call << ", shape " << number << ", alpha " << int{color.alpha} << ", opacity " << how.opacity
                    << ", blend " << static_cast<int>(how.blend) << (is_opaque ? ", opaque" : ", translucent");
            };
            expect_same("call", [&](auto& sheet) { fill(sheet, area, ink); });
            expect_same("prepared", [&](auto& sheet) { fill(sheet, area, PreparedInk{sheet, ink}); });
            expect_same("drawing", [&](auto& sheet) {
                Drawing drawing;
                fill(drawing, area, ink);
                render(drawing, sheet);
            });
            expect_same("figure", [&](auto& sheet) { fill(sheet, Figure{area}, ink); });
            expect_same("clips", [&](auto& sheet) {
                fill(sheet.within(Box{{0, 0}, {41, 12}}), area, ink);
                fill(sheet.within(Box{{41, 0}, {43, 12}}), area, ink);
            });
            ++number;
        });
    }
}

template <class Format>
class OneInk : public testing::Test {};
using Formats = testing::Types<Gray8, Rgb8, Rgba8, Bgra8, Index8, Gray16, Rgba16, Rgb565, Rgbx8, Argb8,
                               PremultipliedRgba8, Rgba4444, OwnRgb565>;
TYPED_TEST_SUITE(OneInk, Formats);

TYPED_TEST(OneInk, OnOnePixelIsOneNumber) {
    Dice dice{291};
    const auto some = is_sanitized ? std::vector{254, 68} : std::vector{255, 254, 128, 68, 1};
    for (const auto alpha : some) {
        const auto color = with_alpha(dice.color(), static_cast<std::uint8_t>(alpha));
        for (const auto opacity : {1.0, 0.75, 0.3}) {
            expect_one_number<TypeParam>(dice, color, {.opacity = opacity});
            if (is_sanitized) continue;
            const auto mode = dice.number(1, static_cast<int>(Blend::exclusive_or));
            expect_one_number<TypeParam>(dice, color, {.opacity = opacity, .blend = static_cast<Blend>(mode)});
        }
    }
}

// The two cases by hand: alpha 68 and 0.5, and 254 and 0.75, are rounded together, and with the opacity in 1/65535.
TEST(OneInk, AlphaAndOpacityAreRoundedOnce) {
    Bitmap<Gray8> sheet{3, 2};
    const auto ink = Ink{with_alpha(gray(255), 254), {.opacity = 0.75}};
    fill(sheet, sheet.box(), ink);
    // 254 * 49151 / 65535 is 190.499.
    for (int x = 0; x < 3; ++x) EXPECT_EQ(sheet.color_at({x, 1}).red, 190);
}

}  // namespace
