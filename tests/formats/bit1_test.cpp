// One bit a pixel: where each pixel lies, what becomes of colours, files, views from the middle of a byte on.
#include "folder_test.hpp"
#include "oracle.hpp"

#include <coldbrick/coldbrick.hpp>

#include <sstream>

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr auto canvas = Size{.width = 45, .height = 23};

// Eight pixels to a byte, the leftmost in the highest bit; each row from a new byte on.
bool bit_at(const Bitmap<Bit1>& bitmap, Point pixel) {
    const auto row = static_cast<std::size_t>((bitmap.size().width + 7) / 8);
    const auto byte = bitmap.bytes()[static_cast<std::size_t>(pixel.y) * row + static_cast<std::size_t>(pixel.x / 8)];
    return (byte >> (7 - pixel.x % 8) & 1) != 0;
}

template <class Use>
void for_each_pixel(Size size, const Use& use) {
    for (int y = 0; y < size.height; ++y) {
        for (int x = 0; x < size.width; ++x) use(Point{x, y});
    }
}

Bitmap<Bit1> random_bits(Dice& dice, Size size) {
    Bitmap<Bit1> bitmap{size};
    for_each_pixel(size, [&](Point pixel) {
        if (dice.number(0, 1) == 1) mark(bitmap, pixel, colors::white);
    });
    return bitmap;
}

template <class T>
void draw_many(T&& target, unsigned seed) {
    Dice dice{seed};
    constexpr auto place = Box{.at = {-15, -15}, .size = {75, 55}};
    for (int i = 0; i < 25; ++i) {
        const auto ink = dice.number(0, 1) == 1 ? colors::white : colors::black;
        fill(target, Box{.at = dice.point(place), .size = {dice.number(1, 30), dice.number(1, 9)}}, ink);
        fill(target, Circle{.center = dice.point(place), .radius = dice.number(0, 12)}, ink);
        stroke(target, Line{.from = dice.point(place), .to = dice.point(place)}, ink);
        stroke(target, Polygon{dice.ring(3, 6, place)}, {.width = dice.number(1, 4)}, ink);
        fill(target, Ring{.center = dice.point(place), .radius = 9, .inner_radius = 5},
             Ink{colors::white, {.blend = Blend::exclusive_or}});
    }
}

TEST(Bit1, EachPixelIsItsBit) {
    Dice dice{71};
    for (const auto& size : {Size{1, 1}, Size{7, 3}, Size{8, 2}, Size{9, 4}, Size{64, 2}, canvas}) {
        Bitmap<Bit1> bitmap{size};
        EXPECT_EQ(bitmap.bytes().size(), static_cast<std::size_t>((size.width + 7) / 8 * size.height));
        EXPECT_EQ(row_bytes<Bit1>(size.width), (size.width + 7) / 8);
        std::vector<bool> wanted(static_cast<std::size_t>(size.width * size.height));
        for (int i = 0; i < 200; ++i) {
            const auto pixel = dice.point({.at = {}, .size = size});
            const auto is_white = dice.number(0, 1) == 1;
            mark(bitmap, pixel, is_white ? colors::white : colors::black);
            wanted[static_cast<std::size_t>(pixel.y * size.width + pixel.x)] = is_white;
        }
        for_each_pixel(size, [&](Point pixel) {
            const auto is_white = wanted[static_cast<std::size_t>(pixel.y * size.width + pixel.x)];
            ASSERT_EQ(bit_at(bitmap, pixel), is_white) << pixel;
            ASSERT_EQ(bitmap.color_at(pixel), is_white ? colors::white : colors::black) << pixel;
        });
    }
}

TEST(Bit1, IsWhiteFromALumaOf128On) {
    Bitmap<Bit1> bitmap{{1, 1}};
    for (int value = 0; value < 256; ++value) {
        const auto color = Color{static_cast<std::uint8_t>(value), static_cast<std::uint8_t>(255 - value),
                                 static_cast<std::uint8_t>(value / 2)};
        clear(bitmap, color);
        EXPECT_EQ(bit_at(bitmap, {0, 0}), luma(color) >= 128) << value;
        // A translucent ink on black, and the same as coverage.
        clear(bitmap, colors::black);
        mark(bitmap, {0, 0}, with_alpha(colors::white, static_cast<std::uint8_t>(value)));
        EXPECT_EQ(bit_at(bitmap, {0, 0}), value >= 128) << value;
    }
}

// What opaque black and white draw on gray, they draw on bits; of smooth shapes, what is nearer to white.
TEST(Bit1, DrawsAsOnGray) {
    for (unsigned seed = 1; seed < 30; ++seed) {
        Bitmap<Bit1> bits{canvas};
        Bitmap<Gray8> grays{canvas};
        draw_many(bits, seed);
        draw_many(grays, seed);
        ASSERT_EQ(bits.bytes(), convert<Bit1>(grays).bytes()) << seed;
        ASSERT_EQ(convert<Gray8>(bits).bytes(), grays.bytes()) << seed;
    }
    Bitmap<Bit1> disc{canvas};
    Bitmap<Gray8> gray_disc{canvas};
    const auto circle = filled(Circle{.center = {22, 11}, .radius = 9}, {.edge = Edge::smooth});
    EXPECT_EQ(fill(disc, circle, colors::white), fill(gray_disc, circle, colors::white));
    EXPECT_EQ(disc.bytes(), convert<Bit1>(gray_disc).bytes());
}

// A cropped view begins at any bit; outside of it, and behind the last pixels of rows, no bit is touched.
TEST(Bit1, ViewsBeginAnywhereAndTouchNothingElse) {
    for (unsigned seed = 1; seed < 40; ++seed) {
        Dice dice{seed};
        const auto at = dice.point({.at = {}, .size = {30, 12}});
        const auto box = Box{.at = at, .size = {dice.number(1, 45 - at.x), dice.number(1, 23 - at.y)}};
        // 19 bits and 2 bytes behind each row.
        std::vector<std::uint8_t> memory(std::size_t{10} * canvas.height, 0xa5);
        const Pixels<Bit1> view{Memory{.top_left = memory.data(), .size = canvas, .stride = 10}};
        const auto before = memory;
        const auto cropped = crop(view, box);
        EXPECT_EQ(cropped.first_bit(), at.x % 8);
        clear(cropped, colors::black);
        draw_many(cropped, seed);
        Bitmap<Bit1> wanted{box.size};
        draw_many(wanted, seed);
        EXPECT_EQ(convert<Bit1>(cropped).bytes(), wanted.bytes());
        for (int y = 0; y < canvas.height; ++y) {
            for (int bit = 0; bit < 80; ++bit) {
                const auto byte = static_cast<std::size_t>(10 * y + bit / 8);
                const auto value = [&](const auto& bytes) { return bytes[byte] >> (7 - bit % 8) & 1; };
                if (contains(box, {bit, y})) {
                    ASSERT_EQ(value(memory), bit_at(wanted, Point{bit, y} - at) ? 1 : 0) << bit << " of row " << y;
                } else {
                    ASSERT_EQ(value(memory), value(before)) << bit << " of row " << y;
                }
            }
        }
    }
}

TEST(Bit1, WholePicturesAreWorkedOn) {
    Dice dice{75};
    const auto picture = random_bits(dice, canvas);
    const auto as_gray = convert<Gray8>(picture);
    const auto expect_same = [](const Bitmap<Bit1>& found, const Bitmap<Gray8>& wanted) {
        EXPECT_EQ(found.size(), wanted.size());
        EXPECT_EQ(convert<Gray8>(found).bytes(), wanted.bytes());
    };
    expect_same(enlarge(picture, 3), enlarge(as_gray, 3));
    expect_same(turned(picture, Quarters::one), turned(as_gray, Quarters::one));
    expect_same(mirrored(picture, Mirror::left_right), mirrored(as_gray, Mirror::left_right));
    expect_same(resized(picture, {31, 40}, Scaling::nearest), resized(as_gray, {31, 40}, Scaling::nearest));
    expect_same(resized(picture, {20, 9}, Scaling::box),
                convert<Gray8>(convert<Bit1>(resized(as_gray, {20, 9}, Scaling::box))));
    EXPECT_EQ(flood(picture, {.from = {20, 11}}), flood(as_gray, {.from = {20, 11}}));
    EXPECT_EQ(compare(picture, as_gray).pixels, 0);
    auto inverted = picture;
    invert(inverted);
    for_each_pixel(canvas, [&](Point pixel) { ASSERT_NE(bit_at(inverted, pixel), bit_at(picture, pixel)); });
    // A part of a picture onto another part of it, by any number of bits.
    for (int by = -9; by < 10; ++by) {
        auto moved = picture;
        auto wanted = as_gray;
        const auto how = Paste{.at = {12 + by, 4}, .part = Box{.at = {12, 3}, .size = {21, 13}}};
        paste(moved, moved, how);
        paste(wanted, wanted, how);
        expect_same(moved, wanted);
    }
}

TEST(Bit1, FilesOfOneBit) {
    Dice dice{76};
    for (const auto& size : {Size{1, 1}, Size{8, 3}, canvas}) {
        const auto picture = random_bits(dice, size);
        for (const auto format : {FileFormat::png, FileFormat::pbm, FileFormat::pgm, FileFormat::ppm, FileFormat::pam,
                                  FileFormat::bmp, FileFormat::qoi}) {
            const auto file = encode(picture, format);
            EXPECT_EQ(load<Bit1>(file).bytes(), picture.bytes()) << name_of(format);
            const auto has_bits = format == FileFormat::png || format == FileFormat::pbm;
            EXPECT_EQ(load_any(file).info.bits, has_bits ? 1 : 8) << name_of(format);
            EXPECT_EQ(file, encode(convert<Gray8>(picture), format,
                                   {.storage = format == FileFormat::png ? Storage::fewest_bits : Storage::as_it_is}))
                << name_of(format);
        }
        EXPECT_EQ(load<Bit1>(encode(picture, FileFormat::pbm, {.notation = Notation::plain})).bytes(), picture.bytes());
    }
    // What the memory has behind a row's pixels does not get into the file.
    std::vector<std::uint8_t> memory{0xff, 0xff};
    const Pixels<const Bit1> view{ConstMemory{.top_left = memory.data(), .size = {3, 2}}};
    EXPECT_EQ(encode(view, FileFormat::png), encode(Bitmap<Bit1>{{3, 2}, colors::white}, FileFormat::png));
}

TEST(Bit1, MemoryIsChecked) {
    std::vector<std::uint8_t> memory(16);
    EXPECT_EQ(error_of([&] {
                  (void)Pixels<Bit1>{Memory{.top_left = memory.data(), .size = {17, 2}, .stride = 2}};
              }),
              "pixels: stride is 2; allowed is 3 or more (a row of 17 pixels), or minus that");
    Bitmap<Rgb8> colored{{1, 1}};
    EXPECT_THROW((void)channel(colored, Channels::alpha), Error);
    Bitmap<Bit1> bits{2, 2};
    EXPECT_THROW(mark(bits, {0, 0}, PaletteEntry{1}), Error);
    EXPECT_THROW((Bitmap<Bit1>{2, 2, 2}), Error);
}

}  // namespace
