// Drawings in bands: on several threads, and into files that are written some rows at a time. The pixels and the bytes
// are those of the whole picture.
#include "folder_test.hpp"
#include "oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <fstream>
#include <iterator>
#include <sstream>

namespace {

using namespace coldbrick;
using oracle::Dice;

constexpr auto size = Size{161, 233};

Point somewhere(Dice& dice) { return {dice.number(-30, size.width + 30), dice.number(-30, size.height + 30)}; }

Ink random_ink(Dice& dice) {
    const auto color =
        Color{static_cast<std::uint8_t>(dice.number(0, 255)), static_cast<std::uint8_t>(dice.number(0, 255)), 90,
              static_cast<std::uint8_t>(dice.number(60, 300) % 256)};
    const std::vector<Stop> stops{{0, color}, {1, colors::gold}};
    switch (dice.number(0, 7)) {
        case 0:
            return LinearGradient{.from = {0, 0}, .to = {90, 70}, .stops = stops, .dither = Dither::ordered};
        case 1:
            return RadialGradient{.center = {0.5, 0.5}, .radius = 0.5, .stops = stops, .placing = Placing::shape};
        case 2:
            return Hatch{.spacing = 7, .angle = 30_deg, .color = color};
        case 3:
            return Ink{color, {.opacity = 0.6, .blend = Blend::multiply}};
        default:
            return color;
    }
}

// One call of any kind. Every shape may reach over the sheet.
void draw_one(Drawing& drawing, const DrawingView& view, Dice& dice) {
    const auto at = somewhere(dice);
    const auto edge = dice.number(0, 1) == 0 ? Edge::crisp : Edge::smooth;
    const auto ink = random_ink(dice);
    switch (dice.number(0, 9)) {
        case 0:
            fill(view, Circle{.center = at, .radius = dice.number(0, 60)}, edge, ink);
            break;
        case 1:
            stroke(view, Line{.from = at, .to = somewhere(dice)}, {.width = dice.number(1, 9), .edge = edge}, ink);
            break;
        case 2:
            fill(view, Polygon{at, somewhere(dice), somewhere(dice)}, {.edge = edge}, ink);
            break;
        case 3:
            fill(view, Box{.at = at, .size = {dice.number(1, 80), dice.number(1, 80)}}, ink);
            break;
        case 4:
            stroke(view, Ellipse::around({.center = at, .radii = {40, 15}, .turned = 20_deg}),
                   {.width = 3, .dash = {9, 4}, .edge = edge}, ink);
            break;
        case 5:
            fill(view, Text{.words = "QUAY", .at = at, .height = 18}, edge, ink);
            break;
        case 6:
            mark(view, at, ink);
            break;
        case 7:
            paste(view, Bitmap<Rgba8>{{20, 30}, with_alpha(colors::coral, 150)}, Transform{}.turn(20_deg).move(at));
            break;
        default:
            fill(drawing.under(Transform{}.turn(15_deg)), star({.center = at, .radius = 30}), edge, ink);
    }
}

Drawing random_drawing(Dice& dice, bool has_flood) {
    Drawing drawing;
    const Region clip{Circle{.center = {80, 100}, .radius = 90}};
    const SmoothRegion pale{Circle{.center = {70, 90}, .radius = 70}};
    for (int i = 0; i < 60; ++i) {
        const auto kind = dice.number(0, 5);
        const auto all = drawing.within({.at = {-500, -500}, .size = {2000, 2000}});
        draw_one(drawing, kind == 0 ? drawing.within(clip) : kind == 1 ? drawing.within(pale) : all, dice);
        if (has_flood && i % 20 == 10) {
            fill(drawing, FloodFrom{.from = {dice.number(0, size.width - 1), dice.number(0, size.height - 1)}},
                 colors::teal);
        }
    }
    return drawing;
}

template <class Format>
class RendersOn : public testing::Test {};
using SomeFormats = testing::Types<Gray8, Rgb8, Rgba8, Index8, Rgba16, Bit1>;
TYPED_TEST_SUITE(RendersOn, SomeFormats);

TYPED_TEST(RendersOn, TheSamePixelsOnAnyNumberOfThreads) {
    using Format = TypeParam;
    Dice dice{91};
    for (int i = 0; i < (is_sanitized ? 2 : 8); ++i) {
        const auto drawing = random_drawing(dice, i % 2 == 0);
        Bitmap<Format> alone{size};
        const auto touched = render(drawing, alone);
        for (const int threads : {1, 2, 3, 7, 0}) {
            Bitmap<Format> together{size};
            EXPECT_EQ(render(drawing, together, {.threads = threads}), touched) << i << " on " << threads;
            EXPECT_EQ(together.bytes(), alone.bytes()) << i << " on " << threads;
        }
        // Of a view, a part.
        const auto part = Box{.at = {20, 31}, .size = {90, 150}};
        Bitmap<Format> one{size};
        Bitmap<Format> other{size};
        render(drawing, one.within(part));
        render(drawing, other.within(part), {.threads = 3});
        EXPECT_EQ(other.bytes(), one.bytes()) << i;
    }
}

TEST(Bands, ManySmallShapesAreInOrder) {
    Dice dice{92};
    Drawing drawing;
    for (int i = 0; i < (is_sanitized ? 9'000 : 30'000); ++i) {
        fill(drawing, Circle{.center = somewhere(dice), .radius = dice.number(0, 6)}, random_ink(dice));
    }
    Bitmap<Rgb8> alone{size};
    Bitmap<Rgb8> together{size};
    render(drawing, alone);
    render(drawing, together, {.threads = 4});
    EXPECT_EQ(together.bytes(), alone.bytes());
}

TEST(Bands, ConvertOnSeveralThreadsAlike) {
    Dice dice{93};
    for (const auto& part : {Box{{0, 0}, size}, Box{{5, 7}, {150, 3}}, Box{{160, 0}, {1, 233}}}) {
        Bitmap<Rgba8> sheet{size};
        render(random_drawing(dice, false), sheet);
        const auto view = sheet.within(part);
        for (const int threads : {0, 2, 5}) {
            EXPECT_EQ(convert<Rgb565>(view, {.threads = threads}).bytes(), convert<Rgb565>(view).bytes());
            EXPECT_EQ(convert<Bit1>(view, {.threads = threads}).bytes(), convert<Bit1>(view).bytes());
            EXPECT_EQ(convert<Rgba8>(view, {.threads = threads}).bytes(), convert<Rgba8>(view).bytes());
            EXPECT_EQ(convert(view, palettes::cube(), {.threads = threads}).bytes(),
                      convert(view, palettes::cube()).bytes());
        }
    }
    EXPECT_THROW((void)convert<Rgb8>(Bitmap<Gray8>{size}, {.threads = -1}), Error);
}

TEST(Bands, RefuseWhatCannotBe) {
    Drawing drawing;
    fill(drawing, Circle{.center = {9, 9}, .radius = 5}, colors::gold);
    Bitmap<Rgb8> sheet{size};
    for (const int threads : {-1, 1025, 1 << 30}) {
        try {
            render(drawing, sheet, {.threads = threads});
            FAIL() << threads;
        } catch (const Error& error) {
            EXPECT_NE(std::string{error.what()}.find("allowed is 0 to 1024"), std::string::npos) << error.what();
        }
    }
    // The first call that cannot be drawn is told, whichever thread finds it.
    fill(drawing, Box{.at = {}, .size = size}, Ink{PaletteEntry{3}});
    EXPECT_THROW(render(drawing, sheet, {.threads = 3}), Error);
    Drawing thrower;
    for (int y = size.height - 1; y >= 0; --y) {
        mark(thrower, {5, y}, Ink{[y](Point) -> Color { throw Error{"row " + std::to_string(y)}; }});
    }
    try {
        render(thrower, sheet, {.threads = 4});
        FAIL();
    } catch (const Error& error) {
        EXPECT_EQ(std::string{error.what()}, "row " + std::to_string(size.height - 1));
    }
}

class Streamed : public FolderTest {};

template <PixelFormat Format>
std::vector<std::uint8_t> whole_file(const Drawing& drawing, Bitmap<Format> sheet, FileFormat format,
                                     const SaveOptions& options) {
    render(drawing, sheet);
    return encode(sheet, format, options);
}

std::vector<std::uint8_t> whole_file(const Drawing& drawing, const Sheet& sheet, FileFormat format,
                                     const SaveOptions& options) {
    if (format == FileFormat::pgm) return whole_file(drawing, Bitmap<Gray8>{sheet.size, sheet.ground}, format, options);
    if (sheet.palette) {
        return whole_file(drawing, Bitmap<Index8>{sheet.size, *sheet.palette, sheet.ground}, format, options);
    }
    if (sheet.ground.alpha < 255) return whole_file(drawing, Bitmap<Rgba8>{sheet.size, sheet.ground}, format, options);
    return whole_file(drawing, Bitmap<Rgb8>{sheet.size, sheet.ground}, format, options);
}

// Large enough for several bands, each of some 4 MiB, and for several pieces of a PNG.
TEST_F(Streamed, HaveTheBytesOfTheWholePicture) {
    Dice dice{93};
    auto drawing = random_drawing(dice, false);
    const auto large = is_sanitized ? Size{500, 700} : Size{1500, 1100};
    fill(drawing, Box{.at = {}, .size = large},
         Ink{LinearGradient{
             .from = {0, 0}, .to = {900, 1000}, .stops = {{0, colors::navy}, {1, with_alpha(colors::gold, 90)}}}});
    stroke(drawing, Line{.from = {0, 0}, .to = {1500, 1100}}, {.width = 30, .edge = Edge::smooth}, colors::coral);
    const Sheet sheets[] = {{.size = large, .ground = colors::teal},
                            {.size = large, .ground = with_alpha(colors::teal, 99)},
                            {.size = large, .palette = palettes::cube()},
                            {.size = {1, 1}},
                            {.size = {9, 3000}}};
    for (const auto format :
         {FileFormat::png, FileFormat::ppm, FileFormat::pam, FileFormat::bmp, FileFormat::qoi, FileFormat::pgm}) {
        for (const auto& sheet : sheets) {
            if (format == FileFormat::ppm && sheet.ground.alpha < 255) continue;
            if (format != FileFormat::png && sheet.size.height == 3000) continue;
            const auto is_first = &sheet == &sheets[0] || sheet.size.width < 1000;
            if (is_sanitized && !is_first && format != FileFormat::png) continue;
            // As ppm, and as others.
            if (is_sanitized && (format == FileFormat::pam || format == FileFormat::qoi)) continue;
            const auto expected = whole_file(drawing, sheet, format, {});
            for (const int threads : {1, 3}) {
                if (is_sanitized && threads == 1) continue;
                std::ostringstream stream;
                save(drawing, sheet, stream, format, {.threads = threads});
                const auto bytes = stream.str();
                EXPECT_TRUE(std::equal(bytes.begin(), bytes.end(), expected.begin(), expected.end(),
                                       [](char a, std::uint8_t b) { return static_cast<std::uint8_t>(a) == b; }))
                    << static_cast<int>(format) << " on " << threads << ": " << bytes.size() << " of "
                    << expected.size();
            }
        }
    }
}

TEST_F(Streamed, ReplaceAFileOrLeaveIt) {
    Drawing drawing;
    fill(drawing, Circle{.center = {30, 30}, .radius = 20}, colors::gold);
    save(drawing, {.size = {60, 60}}, path("quay.png"));
    EXPECT_EQ(load<Rgb8>(path("quay.png")).color_at({30, 30}), colors::gold);
    const auto before = content(path("quay.png"));
    const auto refused = [&](const Drawing& what, const Sheet& sheet, const std::string& name,
                             const SaveOptions& options = {}) {
        return error_of([&] { save(what, sheet, path(name), options); });
    };
    EXPECT_NE(refused(drawing, {.size = {0, 9}}, "quay.png").find("size.width is 0"), std::string::npos);
    EXPECT_NE(refused(drawing, {.size = {9, 9}}, "quay.png", {.storage = Storage::fewest_bits}).find("fewest_bits"),
              std::string::npos);
    EXPECT_NE(refused(drawing, {.size = {9, 9}}, "quay.png", {.threads = -2}).find("threads is -2"), std::string::npos);
    EXPECT_NE(refused(drawing, {.size = {9, 9}}, "quay.jpg").find("png, pbm"), std::string::npos);
    EXPECT_NE(refused(drawing, {.size = {60, 60}}, "quay.pbm").find("black and white"), std::string::npos);
    EXPECT_NE(refused(drawing, {.size = {1 << 29, 1}}, "quay.png").find("size.width"), std::string::npos);
    EXPECT_NE(refused(drawing, {.size = {40'000, 40'000}}, "quay.bmp").find("4 GiB"), std::string::npos);
    Drawing flooded = drawing;
    fill(flooded, FloodFrom{.from = {1, 1}}, colors::teal);
    EXPECT_NE(refused(flooded, {.size = {9, 9}}, "quay.png").find("flood"), std::string::npos);
    // What comes up in the middle of the picture, when much is written already.
    Drawing thrower = drawing;
    mark(thrower, {5, 2900}, Ink{[](Point) -> Color { throw Error{"no colour"}; }});
    EXPECT_EQ(refused(thrower, {.size = {2000, 3000}}, "quay.png", {.threads = 2}), "no colour");
    EXPECT_EQ(content(path("quay.png")), before);
    EXPECT_EQ(file_count(), 1U);
}

}  // namespace
