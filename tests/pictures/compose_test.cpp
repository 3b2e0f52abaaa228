// Pictures on pictures, in other sizes, turned and changed: against plain loops and exact means.
#include "oracle.hpp"
#include "own_format.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <optional>
#include <tuple>

namespace {

using namespace coldbrick;
using namespace oracle;

template <PixelFormat Format>
Bitmap<Format> noise(Dice& dice, Size size, bool is_opaque = false) {
    Bitmap<Format> bitmap{size};
    for (int y = 0; y < size.height; ++y) {
        for (int x = 0; x < size.width; ++x) {
            auto color = dice.color();
            if (is_opaque || dice.number(0, 3) == 0) color.alpha = 255;
            mark(bitmap, {x, y}, Ink{color, {.blend = Blend::replace}});
        }
    }
    return bitmap;
}

template <class Format>
class Pastes : public testing::Test {};
using Formats = testing::Types<Gray8, Rgb8, Rgba8, Bgra8, Gray16, Rgba16, Bit1>;
TYPED_TEST_SUITE(Pastes, Formats);

// Each pixel as a mark of its colour.
template <class T, class From>
void paste_pixel_by_pixel(T& to, const From& from, const Paste& how) {
    const auto part = how.part.value_or(Box{.at = {}, .size = from.size()});
    for (int y = 0; y < part.size.height; ++y) {
        for (int x = 0; x < part.size.width; ++x) {
            const auto color = from.color16_at({part.at.x + x, part.at.y + y});
            if (how.without && narrowed(color) == *how.without) continue;
            mark(to, {how.at.x + x, how.at.y + y}, Ink{color, how.compositing});
        }
    }
}

TYPED_TEST(Pastes, AreMarksOfEveryPixel) {
    Dice dice{301};
    const auto ground = noise<TypeParam>(dice, {50, 30});
    const auto try_from = [&](const auto& picture) {
        for (const auto& compositing :
             {Compositing{}, Compositing{.blend = Blend::replace}, Compositing{.opacity = 0.4},
              Compositing{.blend = Blend::multiply}, Compositing{.channels = Channels::red | Channels::alpha}}) {
            for (const auto& at : {Point{3, 2}, Point{-7, -4}, Point{30, 20}, Point{60, 0}}) {
                auto how = Paste{.at = at, .compositing = compositing};
                if (at.x == 3) how.part = Box{.at = {2, 1}, .size = {30, 9}};
                if (at.x == 30) how.without = picture.color_at({4, 4});
                auto found = ground;
                auto wanted = ground;
                const auto touched = paste(found, picture, how);
                paste_pixel_by_pixel(wanted, picture, how);
                ASSERT_EQ(found.bytes(), wanted.bytes()) << at;
                const auto size = how.part ? how.part->size : picture.size();
                if (!how.without) {
                    EXPECT_EQ(touched, intersection(Box{.at = at, .size = size}, Box{.at = {}, .size = {50, 30}}));
                }
                // Within a clip only its pixels change.
                const Region disc{Circle{.center = {20, 14}, .radius = 12}};
                auto clipped = ground;
                paste(clipped.within(disc), picture, how);
                for (int x = 0; x < 50; ++x) {
                    const auto p = Point{x, 13};
                    ASSERT_EQ(clipped.color16_at(p), (disc.contains(p) ? found : ground).color16_at(p));
                }
            }
        }
    };
    try_from(noise<TypeParam>(dice, {37, 22}));
    try_from(noise<TypeParam>(dice, {37, 22}, true));
    try_from(noise<Rgba8>(dice, {37, 22}));
    try_from(noise<Rgb8>(dice, {37, 22}));
}

TYPED_TEST(Pastes, FromTheSameBitmapOverlapping) {
    Dice dice{302};
    const auto before = noise<TypeParam>(dice, {40, 26}, true);
    for (const auto& at : {Point{6, 5}, Point{0, 3}, Point{4, 4}, Point{5, 9}, Point{-3, -2}}) {
        auto found = before;
        paste(found, found.within({.at = {4, 4}, .size = {30, 18}}), {.at = at});
        auto wanted = before;
        paste_pixel_by_pixel(wanted, before, {.at = at, .part = Box{.at = {4, 4}, .size = {30, 18}}});
        EXPECT_EQ(found.bytes(), wanted.bytes()) << at;
    }
}

TEST(Compose, QuartersAndMirrors) {
    Dice dice{303};
    const auto picture = noise<Rgba8>(dice, {9, 5});
    const auto one = turned(picture, Quarters::one);
    EXPECT_EQ(one.size(), (Size{5, 9}));
    EXPECT_EQ(one.color_at({4, 0}), picture.color_at({0, 0}));  // the upper left corner is the upper right one
    EXPECT_EQ(one.color_at({0, 2}), picture.color_at({2, 4}));
    EXPECT_EQ(turned(turned(one, Quarters::two), Quarters::one).bytes(), picture.bytes());
    EXPECT_EQ(turned(one, Quarters::three).bytes(), picture.bytes());
    const auto flipped = mirrored(picture, Mirror::left_right);
    EXPECT_EQ(flipped.color_at({8, 3}), picture.color_at({0, 3}));
    EXPECT_EQ(mirrored(mirrored(flipped, Mirror::top_bottom), Mirror::left_right).bytes(),
              mirrored(picture, Mirror::top_bottom).bytes());
    EXPECT_EQ(mirrored(mirrored(picture, Mirror::left_right), Mirror::top_bottom).bytes(),
              turned(picture, Quarters::two).bytes());
    Bitmap<Rgba8> sheet{{20, 20}, colors::teal};
    EXPECT_EQ(paste(sheet, picture,
                    {.at = {2, 3},
                     .mirrored = Mirror::left_right,
                     .turned = Quarters::one,
                     .compositing = {.blend = Blend::replace}}),
              (Box{.at = {2, 3}, .size = {5, 9}}));
    EXPECT_EQ(sheet.color_at({6, 3}), picture.color_at({8, 0}));
    // By any angle: a quarter turn about a pixel's corner is exact.
    Bitmap<Rgb8> by_angle{{20, 20}};
    const auto opaque = convert<Rgb8>(noise<Rgb8>(dice, {9, 5}));
    paste(by_angle, opaque, Transform{}.turn(Angle::degrees(90)).move({10, 4}));
    for (int y = 0; y < 5; ++y) {
        for (int x = 0; x < 9; ++x) EXPECT_EQ(by_angle.color_at({10 - y, 4 + x}), opaque.color_at({x, y}));
    }
    EXPECT_THROW(paste(by_angle, opaque, Transform{}.scale({0, 1})), Error);
}

TEST(Resized, BoxIsTheExactMean) {
    Dice dice{304};
    for (const auto& [from, to, opaque_rows] :
         {std::tuple{Size{12, 8}, Size{6, 4}, 0}, std::tuple{Size{13, 7}, Size{5, 3}, 0},
          std::tuple{Size{10, 10}, Size{1, 1}, 0}, std::tuple{Size{4, 3}, Size{9, 8}, 0},
          std::tuple{Size{22, 8}, Size{11, 4}, 8}, std::tuple{Size{22, 8}, Size{11, 4}, 5},
          std::tuple{Size{21, 10}, Size{7, 2}, 10}, std::tuple{Size{21, 10}, Size{7, 2}, 5},
          std::tuple{Size{16, 32}, Size{1, 2}, 16}, std::tuple{Size{17, 19}, Size{5, 6}, 9}}) {
        auto picture = noise<Rgba8>(dice, from);
        const auto opaque = noise<Rgba8>(dice, from, true);
        if (opaque_rows > 0) paste(picture, opaque, {.part = Box{.at = {}, .size = {from.width, opaque_rows}}});
        const auto found = resized(picture, to, Scaling::box);
        for (int y = 0; y < to.height; ++y) {
            for (int x = 0; x < to.width; ++x) {
                // Areas in units of 1 / (from * to).
                std::array<std::int64_t, 4> sums{};
                for (int v = 0; v < from.height; ++v) {
                    for (int u = 0; u < from.width; ++u) {
                        const auto overlap = [](int i, int of, int k, int in) {
                            return std::max(0, std::min((i + 1) * of, (k + 1) * in) - std::max(i * of, k * in));
                        };
                        const auto area =
                            std::int64_t{overlap(x, from.width, u, to.width)} * overlap(y, from.height, v, to.height);
                        const auto c = picture.color_at({u, v});
                        const auto weight = area * c.alpha;
                        sums[0] += weight * c.red;
                        sums[1] += weight * c.green;
                        sums[2] += weight * c.blue;
                        sums[3] += weight;
                    }
                }
                const auto mean = [](std::int64_t sum, std::int64_t of) {
                    return static_cast<std::uint8_t>((2 * sum + of) / (2 * of));
                };
                const auto whole = std::int64_t{from.width} * from.height;
                const auto wanted =
                    Color{mean(sums[0], sums[3]), mean(sums[1], sums[3]), mean(sums[2], sums[3]), mean(sums[3], whole)};
                ASSERT_EQ(found.color_at({x, y}), wanted) << x << "," << y;
            }
        }
    }
}

TEST(Resized, NearestTakesThePixelUnderTheCentre) {
    Dice dice{305};
    const auto picture = noise<Gray8>(dice, {7, 5});
    for (const auto& size : {Size{14, 10}, Size{3, 2}, Size{20, 1}, Size{7, 5}}) {
        const auto found = resized(picture, size, Scaling::nearest);
        for (int y = 0; y < size.height; ++y) {
            for (int x = 0; x < size.width; ++x) {
                const auto at = [](int i, int of, int in) {
                    return static_cast<int>(std::floor((i + 0.5L) * of / in));
                };
                ASSERT_EQ(found.color_at({x, y}), picture.color_at({at(x, 7, size.width), at(y, 5, size.height)}));
            }
        }
    }
    Bitmap<Index8> display{{4, 4}, palettes::quay(), colors::gold};
    EXPECT_EQ(resized(display, {.width = 8}, Scaling::nearest).size(), (Size{8, 8}));
    EXPECT_THROW((void)resized(display, {.width = 8}, Scaling::box), Error);
}

// Enlarged, in whole numbers: of a place, pixel k has 1 less its distance, in units of half a pixel of the result.
TEST(Resized, BilinearIsTheExactMeanWhereItEnlarges) {
    Dice dice{17};
    for (int n = 0; n < 60; ++n) {
        const auto from = Size{dice.number(1, 12), dice.number(1, 12)};
        const auto to = Size{dice.number(from.width, 30), dice.number(from.height, 30)};
        const auto picture = noise<Gray8>(dice, from);
        const auto large = resized(picture, to, Scaling::bilinear, {.threads = 1 + n % 3});
        const auto weight = [](int k, int i, int of, int in) {
            return std::max(0, 2 * in - std::abs(2 * in * k - ((2 * i + 1) * of - in)));
        };
        for (int y = 0; y < to.height; ++y) {
            for (int x = 0; x < to.width; ++x) {
                auto sum = 0;
                for (int row = -1; row <= from.height; ++row) {
                    for (int column = -1; column <= from.width; ++column) {
                        const auto at =
                            Point{std::clamp(column, 0, from.width - 1), std::clamp(row, 0, from.height - 1)};
                        sum += weight(column, x, from.width, to.width) * weight(row, y, from.height, to.height) *
                               picture.color_at(at).red;
                    }
                }
                const auto whole = 4 * to.width * to.height;
                ASSERT_EQ(large.color_at({x, y}).red, (2 * sum + whole) / (2 * whole))
                    << from.width << "x" << from.height << " to " << to.width << "x" << to.height;
            }
        }
    }
}

// Of rows that are opaque and others: colours count by their alpha.
TEST(Resized, RowsWithAlphaAndWithoutAreMixed) {
    Dice dice{18};
    for (int n = 0; n < 40; ++n) {
        const auto from = Size{dice.number(2, 9), dice.number(2, 9)};
        const auto to = Size{2 * from.width, 2 * from.height};
        auto picture = noise<Rgba8>(dice, from);
        const auto opaque = noise<Rgba8>(dice, {from.width, 1}, true);
        for (int y = 0; y < from.height; ++y) {
            if (dice.number(0, 1) == 0) paste(picture, opaque, {.at = {0, y}});
        }
        const auto large = resized(picture, to, Scaling::bilinear, {.threads = 1 + n % 3});
        for (int y = 0; y < to.height; ++y) {
            for (int x = 0; x < to.width; ++x) {
                // 3 parts of the nearer pixel and one of the other, on each axis.
                std::array<int, 4> sums{};
                for (const auto& [column, across] :
                     {std::pair{x / 2, 3}, std::pair{x / 2 + (x % 2 == 0 ? -1 : 1), 1}}) {
                    for (const auto& [row, down] : {std::pair{y / 2, 3}, std::pair{y / 2 + (y % 2 == 0 ? -1 : 1), 1}}) {
                        const auto c = picture.color_at(
                            {std::clamp(column, 0, from.width - 1), std::clamp(row, 0, from.height - 1)});
                        const auto weight = across * down * c.alpha;
                        sums[0] += weight * c.red;
                        sums[1] += weight * c.green;
                        sums[2] += weight * c.blue;
                        sums[3] += weight;
                    }
                }
                const auto mean = [](int sum, int of) { return of == 0 ? 0 : (2 * sum + of) / (2 * of); };
                const auto found = large.color_at({x, y});
                ASSERT_EQ(found.alpha, mean(sums[3], 16));
                if (sums[3] == 0) continue;
                ASSERT_EQ(found.red, mean(sums[0], sums[3])) << x << "," << y;
                ASSERT_EQ(found.blue, mean(sums[2], sums[3])) << x << "," << y;
            }
        }
    }
}

TEST(Resized, BilinearAndLanczosKeepEvenColorsAndRamps) {
    const auto even = Bitmap<Rgb8>{{17, 9}, colors::coral};
    for (const auto how : {Scaling::bilinear, Scaling::lanczos, Scaling::box}) {
        for (const auto& size : {Size{40, 25}, Size{11, 6}, Size{3, 9}}) {
            EXPECT_EQ(resized(even, size, how).bytes(), (Bitmap<Rgb8>{size, colors::coral}.bytes()));
        }
    }
    // A ramp, enlarged to one and a half: what lies between two pixels, in proportion.
    Bitmap<Gray16> ramp{{20, 1}};
    for (int x = 0; x < 20; ++x) {
        const auto value = static_cast<std::uint16_t>(3000 * x);
        mark(ramp, {x, 0}, Color16{value, value, value});
    }
    const auto larger = resized(ramp, {.width = 30, .height = 1}, Scaling::bilinear);
    for (int x = 1; x < 29; ++x) EXPECT_NEAR(larger.color16_at({x, 0}).red, 3000 * ((x + 0.5) / 1.5 - 0.5), 1) << x;
    // Reduced by 2 the kernel is twice as wide: weights 1, 3, 3, 1.
    const auto half = resized(ramp, {.width = 10, .height = 1}, Scaling::bilinear);
    EXPECT_EQ(half.color16_at({4, 0}).red, 3000 * (7 + 3 * 8 + 3 * 9 + 10) / 8);
    const auto sharp = resized(ramp, {.width = 10, .height = 1}, Scaling::lanczos);
    for (int x = 2; x < 8; ++x) EXPECT_NEAR(sharp.color16_at({x, 0}).red, 3000 * (2 * x + 0.5), 40);
    // In proportion.
    EXPECT_EQ(resized(even, {.height = 3}, Scaling::box).size(), (Size{6, 3}));
    EXPECT_THROW((void)resized(even, {}, Scaling::box), Error);
    EXPECT_THROW((void)resized(even, {.width = -1}, Scaling::box), Error);
}

TEST(Compose, PastesInAnotherSize) {
    Dice dice{306};
    const auto picture = noise<Rgb8>(dice, {12, 8});
    Bitmap<Rgb8> sheet{{40, 40}};
    EXPECT_EQ(paste(sheet, picture, {.at = {1, 2}, .size = {.width = 6}}), (Box{.at = {1, 2}, .size = {6, 4}}));
    EXPECT_EQ(convert<Rgb8>(sheet.within({.at = {1, 2}, .size = {6, 4}})).bytes(),
              resized(picture, {6, 4}, Scaling::box).bytes());
    paste(sheet, picture, {.at = {0, 10}, .size = {24, 16}});
    EXPECT_EQ(convert<Rgb8>(sheet.within({.at = {0, 10}, .size = {24, 16}})).bytes(),
              resized(picture, {24, 16}, Scaling::bilinear).bytes());
    paste(sheet, picture, {.at = {0, 10}, .size = {24, 16}, .scaling = Scaling::nearest});
    EXPECT_EQ(convert<Rgb8>(sheet.within({.at = {0, 10}, .size = {24, 16}})).bytes(), enlarge(picture, 2).bytes());
    Bitmap<Index8> stamp{{4, 4}, palettes::quay(), colors::gold};
    paste(sheet, stamp, {.size = {2, 2}});
    EXPECT_EQ(sheet.color_at({1, 1}), stamp.color_at({0, 0}));
    for (const auto& how : {Paste{.part = Box{.at = {8, 0}, .size = {5, 5}}}, Paste{.part = Box{}},
                            Paste{.size = {-1, 3}}, Paste{.compositing = {.opacity = 1.5}}}) {
        EXPECT_THROW(paste(sheet, picture, how), Error);
    }
}

TEST(Compose, CropsBordersGraysAndInverts) {
    Dice dice{307};
    auto picture = noise<Rgba8>(dice, {12, 8});
    const auto before = picture;
    const auto view = crop(picture, {.at = {3, 2}, .size = {5, 4}});
    EXPECT_EQ(view.size(), (Size{5, 4}));
    EXPECT_EQ(view.color_at({0, 0}), before.color_at({3, 2}));
    invert(view);
    EXPECT_EQ(picture.color_at({2, 2}), before.color_at({2, 2}));
    const auto c = before.color_at({4, 3});
    EXPECT_EQ(picture.color_at({4, 3}),
              (Color{static_cast<std::uint8_t>(255 - c.red), static_cast<std::uint8_t>(255 - c.green),
                     static_cast<std::uint8_t>(255 - c.blue), c.alpha}));
    invert(view);
    EXPECT_EQ(picture.bytes(), before.bytes());
    gray_out(view);
    EXPECT_EQ(picture.color_at({4, 3}), with_alpha(gray(luma(c)), c.alpha));
    const auto framed = bordered(before, {.left = 1, .top = 2, .right = 3}, colors::gold);
    EXPECT_EQ(framed.size(), (Size{16, 10}));
    EXPECT_EQ(framed.color_at({0, 5}), colors::gold);
    EXPECT_EQ(framed.color_at({1, 2}), before.color_at({0, 0}));
    EXPECT_THROW((void)crop(before, {.at = {3, 2}, .size = {10, 4}}), Error);
    EXPECT_THROW((void)bordered(before, {.left = -1}, colors::gold), Error);
}

// Under a transform each pixel gets what lies under its centre, from the four nearest pixels, by hand: colours by their
// alpha. In parts it is the same.
template <class Picture>
void expect_sampled(const Picture& picture, const std::optional<Color>& without = {}) {
    const auto by = Transform{}.turn(Angle::degrees(37)).scale({4.7, 3.4}).move({58, 6});
    const auto back = Transform{}.move({-58, -6}).scale({1 / 4.7, 1 / 3.4}).turn(Angle::degrees(-37));
    const auto how = Paste{.without = without, .compositing = {.blend = Blend::replace}};
    constexpr auto size = Size{160, 90};
    Bitmap<Rgba8> sheet{size, colors::navy};
    const auto touched = paste(sheet, picture, by, how);
    EXPECT_FALSE(touched.empty());
    Bitmap<Rgba8> parts{size, colors::navy};
    for (const auto x : {0, 37, 64, 101}) paste(parts.within({.at = {x, 0}, .size = {41, 90}}), picture, by, how);
    EXPECT_EQ(parts.within({.at = {3, 0}, .size = {139, 90}}).color_at({70, 40}), sheet.color_at({70, 40}));
    int inside = 0;
    for (int y = 0; y < size.height; ++y) {
        for (int x = 0; x < size.width; ++x) {
            const auto source = back(Point{x, y});
            const auto u = source.x;
            const auto v = source.y;
            // Away from the rim, where the pixel is covered whole.
            if (u < 0.5 || v < 0.5 || u > 12.5 || v > 7.5) continue;
            ++inside;
            const auto found = sheet.color_at({x, y});
            if (x < 142) {
                ASSERT_EQ(parts.color_at({x, y}), found) << x << "," << y;
            }
            const auto color_at = [&](int i, int k) {
                const auto color = picture.color_at({static_cast<int>(u) + i, static_cast<int>(v) + k});
                return color == without ? Color{.alpha = 0} : color;
            };
            const auto mixed = [&](auto value) {
                const auto at = [&](int i, int k) { return double{1} * value(color_at(i, k)); };
                const auto right = u - std::floor(u);
                const auto below = v - std::floor(v);
                return (at(0, 0) * (1 - right) + at(1, 0) * right) * (1 - below) +
                       (at(0, 1) * (1 - right) + at(1, 1) * right) * below;
            };
            const auto alpha = mixed([](Color c) { return c.alpha; });
            ASSERT_NEAR(found.alpha, alpha, 0.51);
            if (alpha < 1) continue;
            ASSERT_NEAR(found.red, mixed([](Color c) { return c.red * c.alpha; }) / alpha, 0.51);
            ASSERT_NEAR(found.blue, mixed([](Color c) { return c.blue * c.alpha; }) / alpha, 0.51);
        }
    }
    EXPECT_GT(inside, 1000);
}

TEST(Compose, TransformedPicturesAreSampled) {
    Dice dice{308};
    const auto opaque = noise<Rgba8>(dice, {14, 9}, true);
    const auto translucent = noise<Rgba8>(dice, {14, 9});
    for (const auto* const picture : {&opaque, &translucent}) {
        expect_sampled(*picture);
        expect_sampled(convert<Bgra8>(*picture));
        expect_sampled(convert<Rgba16>(*picture));
        expect_sampled(convert<Index8>(*picture));
    }
    expect_sampled(convert<Rgb8>(opaque));
    expect_sampled(convert<Bgr8>(opaque));
    expect_sampled(convert<Gray8>(opaque));
    expect_sampled(convert<OwnRgb565>(opaque));
    // Of a colour that is left out nothing is pasted.
    const auto gold = with_alpha(colors::gold, 200);
    auto holed = translucent;
    fill(holed, Box{.at = {3, 2}, .size = {6, 4}}, Ink{gold, {.blend = Blend::replace}});
    expect_sampled(holed, gold);
    expect_sampled(convert<Bgra8>(holed), gold);
    const auto by = Transform{}.turn(Angle::degrees(37)).move({18, 6});
    Bitmap<Rgb8> plain{{50, 50}, colors::navy};
    paste(plain, Bitmap<Rgb8>{{9, 9}, colors::white}, by, {.without = colors::white});
    EXPECT_EQ(plain.bytes(), (Bitmap<Rgb8>{{50, 50}, colors::navy}.bytes()));
}

// Formats that meet in a paste, each with each.
template <class To>
void expect_pastes_from_all() {
    Dice dice{309};
    const auto source = noise<Rgba8>(dice, {11, 7});
    const auto from_format = [&](const auto& picture) {
        Bitmap<To> found{{16, 12}, colors::slategray};
        Bitmap<To> wanted{{16, 12}, colors::slategray};
        paste(found, picture, {.at = {3, 4}});
        for (int y = 0; y < 7; ++y) {
            for (int x = 0; x < 11; ++x) mark(wanted, {3 + x, 4 + y}, picture.color16_at({x, y}));
        }
        EXPECT_EQ(found.bytes(), wanted.bytes());
    };
    from_format(source);
    from_format(convert<Gray8>(source));
    from_format(convert<Bgr8>(source));
    from_format(convert<Bgra8>(source));
    from_format(convert<Gray16>(source));
    from_format(convert<Rgba16>(source));
    from_format(convert<Index8>(source));
}

TEST(Compose, EveryFormatOnEveryOther) {
    expect_pastes_from_all<Gray8>();
    expect_pastes_from_all<Rgb8>();
    expect_pastes_from_all<Bgra8>();
    expect_pastes_from_all<Gray16>();
    expect_pastes_from_all<Rgba16>();
    expect_pastes_from_all<Index8>();
}

// One channel of a picture is a picture: what lies beside it in memory is neither read nor touched.
template <class Format>
void expect_channels_are_pictures() {
    Dice dice{310};
    auto picture = noise<Format>(dice, {9, 6});
    const auto before = picture;
    const auto blue = channel(picture, Channels::blue);
    const auto alone = convert<Gray16>(blue);
    const auto same = [](const auto& a, const auto& b) { EXPECT_EQ(compare(a, b).pixels, 0); };
    same(turned(blue, Quarters::one), turned(alone, Quarters::one));
    same(turned(blue, Quarters::none), alone);
    same(enlarge(blue, 3), enlarge(alone, 3));
    same(resized(blue, {4, 9}, Scaling::nearest), resized(alone, {4, 9}, Scaling::nearest));
    same(bordered(blue, {.left = 1, .bottom = 2}, colors::white),
         bordered(alone, {.left = 1, .bottom = 2}, colors::white));
    // From one channel to another, and to where it comes from.
    paste(channel(picture, Channels::red), blue, {.mirrored = Mirror::left_right});
    paste(picture, crop(blue, {.at = {1, 1}, .size = {4, 4}}), {.at = {2, 2}});
    for (int x = 0; x < 9; ++x) {
        EXPECT_EQ(picture.color16_at({x, 0}).red, alone.color16_at({8 - x, 0}).red);
        EXPECT_EQ(picture.color16_at({x, 0}).green, before.color16_at({x, 0}).green);
    }
    EXPECT_EQ(picture.color16_at({3, 3}).green, alone.color16_at({2, 2}).green);
    // Gray is gray already; turned over it is not.
    picture = before;
    gray_out(channel(picture, Channels::blue));
    EXPECT_EQ(picture.bytes(), before.bytes());
    invert(channel(picture, Channels::green));
    EXPECT_EQ(picture.color_at({4, 4}).green, 255 - before.color_at({4, 4}).green);
    EXPECT_EQ(picture.color_at({4, 4}).blue, before.color_at({4, 4}).blue);
}

TEST(Compose, ChannelsArePictures) {
    expect_channels_are_pictures<Rgb8>();
    expect_channels_are_pictures<Bgra8>();
    expect_channels_are_pictures<Rgba16>();
}

}  // namespace
