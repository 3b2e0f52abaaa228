// Views and bitmaps: memory of the caller's, strides, clips, conversion, enlarging.
#include "folder_test.hpp"
#include "oracle.hpp"

#include <coldbrick/convert.hpp>

#include <cmath>
#include <limits>
#include <set>

namespace {

using namespace coldbrick;
using namespace oracle;

// What a user of every drawing call might draw; with translucent inks, too.
template <class T>
void draw_many(T&& target, unsigned seed, int count, bool opaque) {
    Dice dice{seed};
    constexpr auto place = Box{.at = {-15, -15}, .size = {70, 60}};
    for (int i = 0; i < count; ++i) {
        const auto color = opaque ? with_alpha(dice.color(), 255) : dice.color();
        const auto size = Size{dice.number(1, 30), dice.number(1, 30)};
        fill(target, Box{.at = dice.point(place), .size = size}, color);
        fill(target, Circle{.center = dice.point(place), .radius = dice.number(0, 20)}, color);
        fill(target, Ellipse::within({.at = dice.point(place), .size = size}), dice.color());
        fill(target, Polygon{dice.ring(1, 6, place)}, {.rule = FillRule::nonzero, .edges = Edges::shared}, color);
        stroke(target, Polygon{dice.ring(1, 6, place)}, color);
        stroke(target, Line{.from = dice.point(place), .to = dice.point(place)}, color);
        stroke(target, Circle{.center = dice.point(place), .radius = dice.number(0, 20)}, color);
        mark(target, dice.point(place), color);
    }
}

constexpr auto canvas = Size{.width = 37, .height = 29};

template <class Format>
class EveryFormat : public testing::Test {};
using Formats = testing::Types<Gray8, Rgb8, Bgr8, Rgba8, Bgra8>;
TYPED_TEST_SUITE(EveryFormat, Formats);

TYPED_TEST(EveryFormat, OpaqueDrawingsAreTheSamePictureAfterConversion) {
    Bitmap<TypeParam> bitmap{canvas, gray(40)};
    Bitmap<Rgb8> reference{canvas, gray(40)};
    Dice dice{31};
    for (int i = 0; i < 40; ++i) {
        const auto ink = with_alpha(dice.color(), 255);
        const auto polygon = Polygon{dice.ring(3, 6, {.at = {-9, -9}, .size = {60, 50}})};
        const auto length = dice.number(1, 60);
        const auto bar = Box{.at = {dice.number(-30, 30), dice.number(0, 28)}, .size = {length, 1}};
        for (const auto& area : {polygon}) EXPECT_EQ(fill(bitmap, area, ink), fill(reference, area, ink));
        EXPECT_EQ(fill(bitmap, bar, ink), fill(reference, bar, ink));
    }
    EXPECT_EQ(bitmap.bytes(), convert<TypeParam>(reference).bytes());
}

// No byte outside the pixels of the clip is written, whatever the stride; and the picture is that of a plain bitmap.
TYPED_TEST(EveryFormat, ViewsWithAnyStrideWriteOnlyTheirPixels) {
    constexpr int bytes = bytes_per_pixel<TypeParam>;
    constexpr std::ptrdiff_t row = std::ptrdiff_t{canvas.width} * bytes;
    constexpr std::uint8_t guard = 0xa5;
    for (const auto stride : {row, row + 1, row + 13, -row, -row - 7}) {
        const auto pitch = static_cast<std::size_t>(std::abs(stride));
        std::vector<std::uint8_t> memory(pitch * (canvas.height + 4), guard);
        const auto first = stride > 0 ? 2 * pitch : memory.size() - 3 * pitch;
        Pixels<TypeParam> view{{.top_left = memory.data() + first, .size = canvas, .stride = stride}};
        clear(view, gray(90));
        draw_many(view, 5, 12, false);
        Bitmap<TypeParam> plain{canvas, gray(90)};
        draw_many(plain, 5, 12, false);
        std::set<std::size_t> inside;
        for (int y = 0; y < canvas.height; ++y) {
            for (int x = 0; x < canvas.width; ++x) EXPECT_EQ(view.color_at({x, y}), plain.color_at({x, y}));
            for (std::ptrdiff_t i = 0; i < row; ++i) {
                inside.insert(static_cast<std::size_t>(static_cast<std::ptrdiff_t>(first) + y * stride + i));
            }
        }
        for (std::size_t i = 0; i < memory.size(); ++i) {
            if (inside.contains(i)) continue;
            ASSERT_EQ(memory[i], guard) << "byte " << i << ", stride " << stride;
        }
    }
}

TYPED_TEST(EveryFormat, ClippedViewKeepsCoordinatesAndTheRestOfThePicture) {
    constexpr auto clip = Box{.at = {5, 7}, .size = {20, 11}};
    Bitmap<TypeParam> whole{canvas, gray(10)};
    Bitmap<TypeParam> part{canvas, gray(10)};
    draw_many(whole, 6, 20, false);
    draw_many(part.within(clip), 6, 20, false);
    for (int y = 0; y < canvas.height; ++y) {
        for (int x = 0; x < canvas.width; ++x) {
            const auto before = Bitmap<TypeParam>{{1, 1}, gray(10)}.color_at({0, 0});
            EXPECT_EQ(part.color_at({x, y}), contains(clip, {x, y}) ? whole.color_at({x, y}) : before);
        }
    }
    EXPECT_EQ(part.within(clip).within({.at = {0, 0}, .size = {6, 9}}).clip(), (Box{.at = {5, 7}, .size = {1, 2}}));
    EXPECT_TRUE(
        fill(part.within({.at = {90, 90}, .size = {5, 5}}), Circle{.center = {9, 9}, .radius = 4}, gray(1)).empty());
}

TYPED_TEST(EveryFormat, ClearReplacesTheClipWhateverTheAlpha) {
    Bitmap<TypeParam> bitmap{canvas, gray(200)};
    constexpr auto clip = Box{.at = {3, 2}, .size = {30, 20}};
    EXPECT_EQ(clear(bitmap.within(clip), 0x10203040_rgba), clip);
    const auto alone = Bitmap<TypeParam>{{1, 1}, 0x10203040_rgba}.color_at({0, 0});
    EXPECT_EQ(bitmap.color_at({3, 2}), alone);
    EXPECT_EQ(bitmap.color_at({32, 21}), alone);
    EXPECT_EQ(bitmap.color_at({33, 21}), gray(200));
    EXPECT_EQ(bitmap.color_at({2, 2}), gray(200));
}

TYPED_TEST(EveryFormat, EnlargedPixelsAreSquares) {
    Bitmap<TypeParam> bitmap{canvas, gray(30)};
    draw_many(bitmap, 7, 6, false);
    const auto large = enlarge(bitmap.within({.at = {4, 3}, .size = {9, 8}}), 5);
    EXPECT_EQ(large.size(), (Size{45, 40}));
    for (int y = 0; y < 40; ++y) {
        for (int x = 0; x < 45; ++x) EXPECT_EQ(large.color_at({x, y}), bitmap.color_at({4 + x / 5, 3 + y / 5}));
    }
}

TEST(Pixels, ClipsOfAnySize) {
    constexpr auto largest = std::numeric_limits<int>::max();
    Bitmap<Gray8> bitmap{canvas};
    const auto right = bitmap.within({.at = {9, -largest}, .size = {largest, largest}});
    EXPECT_TRUE(right.clip().empty());
    EXPECT_EQ(bitmap.within({.at = {9, 5}, .size = {largest, largest}}).clip(), (Box{.at = {9, 5}, .size = {28, 24}}));
    EXPECT_TRUE(bitmap.within({.at = {9, 5}, .size = {-4, 3}}).clip().empty());
    const auto all = Box{.at = {-largest, -largest}, .size = {largest, largest}};
    EXPECT_EQ(for_each_span(Circle{.center = {0, 0}, .radius = 3}, all, [](const Span&) {}),
              (Box{.at = {-3, -3}, .size = {3, 3}}));
}

TEST(Pixels, ChannelsLieInTheirOrder) {
    const auto bytes = [](auto bitmap) {
        mark(bitmap, {0, 0}, 0x0a141e_rgb);
        return bitmap.bytes();
    };
    using Bytes = std::vector<std::uint8_t>;
    EXPECT_EQ(bytes(Bitmap<Rgb8>{{1, 1}}), (Bytes{10, 20, 30}));
    EXPECT_EQ(bytes(Bitmap<Bgr8>{{1, 1}}), (Bytes{30, 20, 10}));
    EXPECT_EQ(bytes(Bitmap<Rgba8>{{1, 1}}), (Bytes{10, 20, 30, 255}));
    EXPECT_EQ(bytes(Bitmap<Bgra8>{{1, 1}}), (Bytes{30, 20, 10, 255}));
    EXPECT_EQ(bytes(Bitmap<Gray8>{{1, 1}}), (Bytes{luma(0x0a141e_rgb)}));
}

TEST(Pixels, ReadOnlyViewsReadWhatIsDrawn) {
    Bitmap<Rgb8> bitmap{canvas, gray(1)};
    const Pixels<const Rgb8> view = bitmap.pixels();
    mark(bitmap, {7, 8}, colors::teal);
    EXPECT_EQ(view.color_at({7, 8}), colors::teal);
    EXPECT_EQ(std::as_const(bitmap).color_at({7, 8}), colors::teal);
    static_assert(!Target<Pixels<const Rgb8>> && !Target<const Bitmap<Rgb8>&> && Target<const Pixels<Rgb8>&>);
    static_assert(Picture<Pixels<const Rgb8>> && Picture<const Bitmap<Rgb8>&>);
}

TEST(Pixels, WhatCannotBeABuffer) {
    std::uint8_t memory[64];
    const auto view = [&](void* at, Size size, std::optional<std::ptrdiff_t> stride) {
        return error_of([&] { Pixels<Rgb8>{{.top_left = at, .size = size, .stride = stride}}; });
    };
    EXPECT_EQ(view(memory, {4, 4}, 12), "no error");
    EXPECT_EQ(view(nullptr, {4, 4}, 12), "pixels: top_left is null; it must point to the first pixel");
    EXPECT_EQ(view(memory, {0, 4}, {}), "pixels: size.width is 0; allowed is 1 to 1073741823");
    EXPECT_EQ(view(memory, {4, -1}, {}), "pixels: size.height is -1; allowed is 1 to 1073741823");
    EXPECT_EQ(view(memory, {4, 4}, -11),
              "pixels: stride is -11; allowed is 12 or more (a row of 4 pixels), or minus that");
    EXPECT_EQ(error_of([] { Bitmap<Rgb8>{{3, 0}}; }), "bitmap: size.height is 0; allowed is 1 to 1073741823");
    EXPECT_EQ(error_of([] {
                  Bitmap<Rgba8>{{40000, 40000}};
              }),
              "bitmap: size is 40000 x 40000, which takes 6400000000 bytes; allowed are 4294967296");
    const auto bitmap = Bitmap<Rgb8>{{4, 3}};
    EXPECT_EQ(error_of([&] {
                  (void)bitmap.color_at({4, 0});
              }),
              "color_at: pixel 4,0 is outside; allowed is 0,0 to 3,2");
    EXPECT_EQ(error_of([&] {
                  (void)bitmap.within({}).color_at({4, 0});
              }),
              "color_at: pixel 4,0 is outside; allowed is no pixel, as the view's clip is empty");
    EXPECT_EQ(error_of([&] { (void)enlarge(bitmap, 0); }), "enlarge: factor is 0; allowed is 1 to 1073741823");
    EXPECT_EQ(error_of([&] { (void)enlarge(bitmap, 1 << 29); }),
              "enlarge: the new width is 2147483648; allowed is 1 to 1073741823");
    EXPECT_EQ(error_of([&] { (void)convert<Gray8>(bitmap.within({})); }),
              "picture: the view's clip is empty; it must have at least one pixel");
}

}  // namespace
