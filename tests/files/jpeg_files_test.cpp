// JPEG files by other programs and for them; turned ones; those of print colours.
#include "folder_test.hpp"
#include "jpeg_builder.hpp"
#include "picture_files.hpp"

#include <algorithm>
#include <cmath>

namespace {

using namespace coldbrick;
using namespace oracle;

using JpegPrograms = FolderTest;

TEST_F(JpegPrograms, FilesOfOthersAreReadAsOthersReadThem) {
    Dice dice{214};
    Bitmap<Rgb8> picture{{61, 43}, colors::skyblue};
    fill(picture, Circle{.center = {30, 20}, .radius = 17}, {.edge = Edge::smooth}, colors::firebrick);
    save(picture, path("a.ppm"));
    save(convert<Gray8>(picture), path("gray.pgm"));
    const std::vector<std::pair<std::string, std::string>> made{{"-quality 80", "a.ppm"},
                                                                {"-quality 95 -progressive", "a.ppm"},
                                                                {"-arithmetic", "a.ppm"},
                                                                {"-quality 70", "gray.pgm"}};
    for (const auto& [how, from] : made) {
        ASSERT_EQ(run_quietly("cjpeg " + how + " -outfile " + path("b.jpg").string() + " " + path(from).string()), 0);
        ASSERT_EQ(run_quietly("djpeg -pnm -outfile " + path("c.pnm").string() + " " + path("b.jpg").string()), 0);
        EXPECT_EQ(load<Rgb8>(path("b.jpg")).bytes(), load<Rgb8>(path("c.pnm")).bytes()) << how;
    }
    // And the other way round.
    save(picture, path("ours.jpg"), {.quality = 93});
    ASSERT_EQ(run_quietly("djpeg -pnm -outfile " + path("d.ppm").string() + " " + path("ours.jpg").string()), 0);
    const auto ours = load<Rgb8>(path("ours.jpg"));
    EXPECT_EQ(ours.bytes(), load<Rgb8>(path("d.ppm")).bytes());
    int worst = 0;
    for (std::size_t i = 0; i < ours.bytes().size(); ++i)
        worst = std::max(worst, std::abs(ours.bytes()[i] - picture.bytes()[i]));
    EXPECT_LT(worst, 60);
    EXPECT_LT(encode(picture, FileFormat::jpeg, {.quality = 40}).size(), encode(picture, FileFormat::jpeg).size());
}

// An Exif segment that tells an orientation, put behind the file's first marker.
Bytes with_orientation(const Bytes& jpeg, int orientation, bool is_big) {
    Bytes tiff =
        is_big
            ? Bytes{'M', 'M',  0, 42, 0, 0, 0, 8, 0, 1,
                    1,   0x12, 0, 3,  0, 0, 0, 1, 0, static_cast<std::uint8_t>(orientation),
                    0,   0}
            : Bytes{
                  'I', 'I', 42, 0, 8, 0, 0, 0, 1, 0, 0x12, 1, 3, 0, 1, 0, 0, 0, static_cast<std::uint8_t>(orientation),
                  0,   0,   0};
    Bytes segment{0xff, 0xe1, 0, static_cast<std::uint8_t>(tiff.size() + 8), 'E', 'x', 'i', 'f', 0, 0};
    segment.insert(segment.end(), tiff.begin(), tiff.end());
    auto file = jpeg;
    file.insert(file.begin() + 2, segment.begin(), segment.end());
    return file;
}

TEST(JpegFiles, AreTurnedUpright) {
    Bitmap<Rgb8> picture{{48, 32}};
    fill(picture, Box{.at = {0, 0}, .size = {16, 16}}, colors::white);
    fill(picture, Box{.at = {32, 0}, .size = {16, 16}}, colors::gray);
    const auto file = encode(picture, FileFormat::jpeg, {.quality = 100});
    // Where the white and the gray corner come to lie.
    const std::vector<std::pair<Point, Point>> corners{{{8, 8}, {40, 8}},   {{40, 8}, {8, 8}}, {{40, 24}, {8, 24}},
                                                       {{8, 24}, {40, 24}}, {{8, 8}, {8, 40}}, {{24, 8}, {24, 40}},
                                                       {{24, 40}, {24, 8}}, {{8, 40}, {8, 8}}};
    for (int orientation = 1; orientation <= 8; ++orientation) {
        const auto loaded = load_any(with_orientation(file, orientation, orientation % 2 == 0));
        const auto& [white, middle] = corners[static_cast<std::size_t>(orientation - 1)];
        EXPECT_EQ(loaded.info.size, (orientation < 5 ? Size{48, 32} : Size{32, 48}));
        const auto upright = loaded.as<Rgb8>();
        EXPECT_NEAR(upright.color_at(white).red, 255, 3) << orientation;
        EXPECT_NEAR(upright.color_at(middle).red, 128, 3) << orientation;
        EXPECT_EQ(loaded.info.oddities.empty(), orientation == 1);
    }
}

// As print programs write them: what is left of white, with Adobe's marker; or as much as there is of each ink.
Bytes cmyk_file(bool has_adobe_marker) {
    Bytes row;
    for (int x = 0; x < 16; ++x) row.insert(row.end(), {200, 100, 40, 204});
    return jpeg_file(row, 16, JCS_CMYK, 4, [=](jpeg_compress_struct& jpeg) {
        jpeg.write_Adobe_marker = has_adobe_marker ? TRUE : FALSE;
        jpeg_set_quality(&jpeg, 100, TRUE);
    });
}

TEST(JpegFiles, OfPrintColors) {
    const auto left_of_white = load<Rgb8>(cmyk_file(true)).color_at({8, 8});
    EXPECT_NEAR(left_of_white.red, 200 * 204 / 255.0, 2);
    EXPECT_NEAR(left_of_white.blue, 40 * 204 / 255.0, 2);
    const auto of_inks = load<Rgb8>(cmyk_file(false)).color_at({8, 8});
    EXPECT_NEAR(of_inks.green, 155 * 51 / 255.0, 2);
}

TEST(JpegFiles, OfBrokenExifAreReadAsTheyAre) {
    const Bitmap<Rgb8> picture{{16, 8}, colors::teal};
    const auto file = encode(picture, FileFormat::jpeg);
    for (const auto orientation : {0, 9, 255}) {
        EXPECT_EQ(load_any(with_orientation(file, orientation, true)).info.size, (Size{16, 8})) << orientation;
    }
    // A directory that lies outside, or has entries that do.
    auto outside = with_orientation(file, 6, false);
    outside[2 + 4 + 6 + 4] = 200;
    EXPECT_EQ(load_any(outside).info.size, (Size{16, 8}));
    auto many = with_orientation(file, 6, false);
    many[2 + 4 + 6 + 10] = 0;  // of another tag
    many[2 + 4 + 6 + 8] = 250;
    EXPECT_EQ(load_any(many).info.size, (Size{16, 8}));
}

}  // namespace
