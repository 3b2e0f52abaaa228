// Pictures to files: exact pixels in every format, complete or not at all.
#include "folder_test.hpp"
#include "oracle.hpp"

#include <coldbrick/convert.hpp>
#include <coldbrick/error.hpp>
#include <coldbrick/files.hpp>
#include <coldbrick/load.hpp>
#include <coldbrick/palette.hpp>

#include <algorithm>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <iterator>
#include <sstream>

#include <png.h>
#include <sys/resource.h>
#include <sys/stat.h>

namespace {

using namespace coldbrick;
namespace fs = std::filesystem;
using Bytes = std::vector<std::uint8_t>;

using Files = FolderTest;

std::string bytes_of(const Bytes& bytes) { return {bytes.begin(), bytes.end()}; }

template <PixelFormat Format>
Bitmap<Format> sample() {
    Bitmap<Format> bitmap{{31, 17}, 0x0b2239_rgb};
    fill(bitmap, Circle{.center = {12, 8}, .radius = 7}, 0xe8b23a_rgb);
    stroke(bitmap, Line{.from = {0, 16}, .to = {30, 0}}, 0xffffff80_rgba);
    return bitmap;
}

// Pixels as a reader of PNG files finds them.
Bytes decoded_png(const Bytes& file, png_uint_32 format, Size size) {
    png_image image{};
    image.version = PNG_IMAGE_VERSION;
    EXPECT_NE(png_image_begin_read_from_memory(&image, file.data(), file.size()), 0) << image.message;
    EXPECT_EQ(image.format, format);
    EXPECT_EQ(static_cast<int>(image.width), size.width);
    EXPECT_EQ(static_cast<int>(image.height), size.height);
    Bytes pixels(PNG_IMAGE_SIZE(image));
    EXPECT_NE(png_image_finish_read(&image, nullptr, pixels.data(), 0, nullptr), 0) << image.message;
    return pixels;
}

TEST_F(Files, PngHoldsThePixelsOfEveryFormat) {
    constexpr auto size = Size{31, 17};
    EXPECT_EQ(decoded_png(encode(sample<Gray8>(), FileFormat::png), PNG_FORMAT_GRAY, size), sample<Gray8>().bytes());
    EXPECT_EQ(decoded_png(encode(sample<Rgb8>(), FileFormat::png), PNG_FORMAT_RGB, size), sample<Rgb8>().bytes());
    EXPECT_EQ(decoded_png(encode(sample<Bgr8>(), FileFormat::png), PNG_FORMAT_RGB, size), sample<Rgb8>().bytes());
    Bitmap<Rgba8> translucent{size, 0x10203040_rgba};
    mark(translucent, {3, 3}, colors::gold);
    EXPECT_EQ(decoded_png(encode(translucent, FileFormat::png), PNG_FORMAT_RGBA, size), translucent.bytes());
    EXPECT_EQ(decoded_png(encode(convert<Bgra8>(translucent), FileFormat::png), PNG_FORMAT_RGBA, size),
              translucent.bytes());
}

// The numbers of a picture with 16 bits a channel, the higher byte first, as files have them.
template <PixelFormat Format>
Bytes big_endian(const Bitmap<Format>& picture) {
    Bytes bytes{picture.bytes().begin(), picture.bytes().end()};
    for (std::size_t i = 0; i + 1 < bytes.size(); i += 2) {
        std::uint16_t value = 0;
        std::memcpy(&value, &bytes[i], 2);
        bytes[i] = static_cast<std::uint8_t>(value >> 8U);
        bytes[i + 1] = static_cast<std::uint8_t>(value);
    }
    return bytes;
}

// Rows of a PNG file as they are stored, by the reader of libpng that changes nothing.
Bytes stored_png(const Bytes& file, int bits, int kind) {
    auto* png = png_create_read_struct(PNG_LIBPNG_VER_STRING, nullptr, nullptr, nullptr);
    auto* info = png_create_info_struct(png);
    auto rest = std::span{file};
    png_set_read_fn(png, &rest, [](png_structp of, png_bytep to, std::size_t count) {
        auto& from = *static_cast<std::span<const std::uint8_t>*>(png_get_io_ptr(of));
        std::copy_n(from.begin(), count, to);
        from = from.subspan(count);
    });
    png_read_png(png, info, PNG_TRANSFORM_IDENTITY, nullptr);
    EXPECT_EQ(png_get_bit_depth(png, info), bits);
    EXPECT_EQ(png_get_color_type(png, info), kind);
    Bytes pixels;
    for (png_uint_32 y = 0; y < png_get_image_height(png, info); ++y) {
        const auto* const row = png_get_rows(png, info)[y];
        pixels.insert(pixels.end(), row, row + png_get_rowbytes(png, info));
    }
    png_destroy_read_struct(&png, &info, nullptr);
    return pixels;
}

TEST_F(Files, SixteenBitsAreKept) {
    Bitmap<Gray16> depth{{31, 17}};
    fill(depth, Circle{.center = {12, 8}, .radius = 7}, Color16{1234, 1234, 1234});
    Bitmap<Rgba16> colors{{31, 17}, 0x10203040_rgba};
    fill(colors, Circle{.center = {12, 8}, .radius = 7}, Color16{1, 2, 60000, 65535});
    EXPECT_EQ(stored_png(encode(depth, FileFormat::png), 16, PNG_COLOR_TYPE_GRAY), big_endian(depth));
    EXPECT_EQ(stored_png(encode(colors, FileFormat::png), 16, PNG_COLOR_TYPE_RGB_ALPHA), big_endian(colors));
    const auto file_of = [](const std::string& header, const Bytes& pixels) {
        Bytes file{header.begin(), header.end()};
        file.insert(file.end(), pixels.begin(), pixels.end());
        return file;
    };
    EXPECT_EQ(encode(depth, FileFormat::pgm), file_of("P5\n31 17\n65535\n", big_endian(depth)));
    EXPECT_EQ(
        encode(colors, FileFormat::pam),
        file_of("P7\nWIDTH 31\nHEIGHT 17\nDEPTH 4\nMAXVAL 65535\nTUPLTYPE RGB_ALPHA\nENDHDR\n", big_endian(colors)));
    EXPECT_THROW((void)encode(colors, FileFormat::ppm), Error);
    // Where files have no palette, it is written as its colours.
    Bitmap<Index8> display{{5, 4}, palettes::quay()};
    mark(display, {2, 1}, PaletteEntry{7});
    EXPECT_EQ(encode(display, FileFormat::ppm), encode(convert<Rgb8>(display), FileFormat::ppm));
}

Bytes with_header(const std::string& header, std::span<const std::uint8_t> pixels) {
    Bytes file{header.begin(), header.end()};
    file.insert(file.end(), pixels.begin(), pixels.end());
    return file;
}

TEST_F(Files, PnmAndPamByteByByte) {
    const auto rgb = sample<Rgb8>();
    const auto gray_one = sample<Gray8>();
    Bitmap<Rgba8> rgba{{31, 17}, 0x10203040_rgba};
    EXPECT_EQ(encode(rgb, FileFormat::ppm), with_header("P6\n31 17\n255\n", rgb.bytes()));
    EXPECT_EQ(encode(sample<Bgr8>(), FileFormat::pnm), with_header("P6\n31 17\n255\n", rgb.bytes()));
    EXPECT_EQ(encode(gray_one, FileFormat::pgm), with_header("P5\n31 17\n255\n", gray_one.bytes()));
    EXPECT_EQ(encode(gray_one, FileFormat::pnm), with_header("P5\n31 17\n255\n", gray_one.bytes()));
    EXPECT_EQ(encode(rgba, FileFormat::pam),
              with_header("P7\nWIDTH 31\nHEIGHT 17\nDEPTH 4\nMAXVAL 255\nTUPLTYPE RGB_ALPHA\nENDHDR\n", rgba.bytes()));
    EXPECT_EQ(encode(rgb, FileFormat::pam),
              with_header("P7\nWIDTH 31\nHEIGHT 17\nDEPTH 3\nMAXVAL 255\nTUPLTYPE RGB\nENDHDR\n", rgb.bytes()));
    EXPECT_EQ(
        encode(gray_one, FileFormat::pam),
        with_header("P7\nWIDTH 31\nHEIGHT 17\nDEPTH 1\nMAXVAL 255\nTUPLTYPE GRAYSCALE\nENDHDR\n", gray_one.bytes()));
}

TEST_F(Files, ViewsAreWrittenAsFarAsTheirClip) {
    const auto bitmap = sample<Rgb8>();
    const auto part = bitmap.within({.at = {5, 4}, .size = {9, 6}});
    const auto converted = convert<Rgb8>(part);
    EXPECT_EQ(encode(part, FileFormat::ppm), with_header("P6\n9 6\n255\n", converted.bytes()));
    EXPECT_THROW((void)encode(bitmap.within({}), FileFormat::png), Error);
}

TEST_F(Files, SuffixNamesTheFormat) {
    EXPECT_EQ(file_format_of("a/b.PNG"), FileFormat::png);
    EXPECT_EQ(file_format_of("b.c.pam"), FileFormat::pam);
    save(sample<Rgb8>(), path("quay.ppm"));
    EXPECT_EQ(content(path("quay.ppm")), bytes_of(encode(sample<Rgb8>(), FileFormat::ppm)));
    save(sample<Rgb8>(), path("quay.picture"), FileFormat::png);
    EXPECT_EQ(content(path("quay.picture")), bytes_of(encode(sample<Rgb8>(), FileFormat::png)));
    std::ostringstream stream;
    save(sample<Rgb8>(), stream, FileFormat::png);
    EXPECT_EQ(stream.str(), bytes_of(encode(sample<Rgb8>(), FileFormat::png)));
}

TEST_F(Files, WhatAFileCannotHoldIsRefused) {
    EXPECT_EQ(error_of([&] { save(sample<Rgb8>(), path("quay.jpx")); }),
              (path("quay.jpx")).string() +
                  ": the suffix is .jpx; allowed are .png, .jpg, .jpeg, .pbm, .pgm, .ppm, .pnm, .pam, .bmp, .qoi, .gif "
                  "and .webp");
    EXPECT_EQ(error_of([] { (void)file_format_of("quay"); }),
              "quay: the name has no suffix; allowed are .png, .jpg, .jpeg, .pbm, .pgm, .ppm, .pnm, .pam, .bmp, .qoi, "
              ".gif and .webp");
    EXPECT_NE(error_of([&] { save(sample<Rgb8>(), path("a.pgm")); }).find("opaque grays only"), std::string::npos);
    Bitmap<Rgba8> bitmap{{9, 9}, colors::gold};
    EXPECT_EQ(error_of([&] { save(bitmap, path("b.ppm")); }), "no error");
    clear(bitmap.within({.at = {4, 6}, .size = {1, 1}}), 0xffffff80_rgba);
    EXPECT_NE(error_of([&] { save(bitmap, path("c.ppm")); }).find("as pixel 4,6"), std::string::npos);
    EXPECT_EQ(file_count(), 1U);
}

TEST_F(Files, FailedSaveLeavesTheOldFileAndNothingElse) {
    const auto old = path("quay.png");
    write("quay.png", "old");
    const auto unwritable = path("none") / "quay.png";
    EXPECT_EQ(error_of([&] { save(sample<Rgb8>(), unwritable); }),
              unwritable.string() + ": cannot be written: No such file or directory");
    EXPECT_EQ(error_of([&] { save(sample<Rgb8>(), folder(), FileFormat::png); }),
              folder().string() + ": cannot be written: Is a directory");
    EXPECT_THROW(save(sample<Rgb8>(), old, FileFormat::pgm), Error);
    EXPECT_EQ(content(old), "old");
    std::ofstream closed;
    EXPECT_THROW(save(sample<Rgb8>(), closed, FileFormat::png), Error);
    EXPECT_EQ(error_of([&] { save(sample<Rgb8>(), "/dev/full", FileFormat::png); }),
              "/dev/full: cannot be written: No space left on device");
    EXPECT_EQ(file_count(), 1U);
}

TEST_F(Files, ReplacedFileKeepsItsModeAndLinksGoOnPointing) {
    const auto old = path("quay.png");
    write("quay.png", "old");
    fs::permissions(old, fs::perms{0640});
    fs::create_symlink(old, path("link.png"));
    save(sample<Rgb8>(), path("link.png"));
    EXPECT_TRUE(fs::is_symlink(path("link.png")));
    EXPECT_EQ(content(old), bytes_of(encode(sample<Rgb8>(), FileFormat::png)));
    EXPECT_EQ(fs::status(old).permissions(), fs::perms{0640});
    EXPECT_EQ(file_count(), 2U);
}

TEST_F(Files, OldFilesKeepWhatTheyAreAndGainNothing) {
    const Bitmap<Rgb8> picture{{3, 2}, colors::gold};
    write("old.png", "old");
    ASSERT_EQ(::chmod(path("old.png").c_str(), 04754), 0);
    save(picture, path("old.png"));
    struct stat status {};
    ASSERT_EQ(::stat(path("old.png").c_str(), &status), 0);
    EXPECT_EQ(status.st_mode & 07777U, 0754U);
    EXPECT_EQ(load<Rgb8>(path("old.png")).bytes(), picture.bytes());
    // A link goes on pointing to its file, also to one that is not there yet.
    fs::create_symlink("new.png", path("link.png"));
    save(picture, path("link.png"));
    EXPECT_TRUE(fs::is_symlink(path("link.png")));
    EXPECT_EQ(load<Rgb8>(path("new.png")).bytes(), picture.bytes());
    fs::create_symlink("round.png", path("round.png"));
    EXPECT_THROW(save(picture, path("round.png")), Error);
    // As long as names go.
    const auto longest = std::string(251, 'q') + ".png";
    save(picture, path(longest));
    save(picture, path(longest));
    EXPECT_EQ(file_count(), 5U);
    EXPECT_THROW(save(picture, path(std::string{"a\0b.png", 7})), Error);
}

TEST_F(Files, NothingIsLeftBehindWhenAFileGrowsTooLarge) {
    const Bitmap<Rgb8> picture{{300, 200}, colors::gold};
    write("old.ppm", "old");
    const auto before = file_count();
    rlimit usual{};
    ASSERT_EQ(::getrlimit(RLIMIT_FSIZE, &usual), 0);
    auto small = usual;
    small.rlim_cur = 10000;
    ASSERT_EQ(::setrlimit(RLIMIT_FSIZE, &small), 0);
    const auto error = error_of([&] { save(picture, path("old.ppm")); });
    ASSERT_EQ(::setrlimit(RLIMIT_FSIZE, &usual), 0);
    EXPECT_NE(error.find("old.ppm: cannot be written: File too large"), std::string::npos) << error;
    EXPECT_EQ(content(path("old.ppm")), "old");
    EXPECT_EQ(file_count(), before);
}

TEST_F(Files, SixteenBitsWithoutAlpha) {
    Bitmap<Rgba16> deep{{3, 2}, Color{9, 8, 7}};
    for (const auto format : {FileFormat::png, FileFormat::pam}) {
        const auto file = encode(deep, format, {.storage = Storage::without_alpha});
        EXPECT_EQ(load_any(file).info.channels, 3);
        EXPECT_EQ(load<Rgba16>(file).bytes(), deep.bytes());
    }
    mark(deep, {1, 1}, Ink{Color{9, 8, 7, 200}, {.blend = Blend::replace}});
    EXPECT_THROW((void)encode(deep, FileFormat::png, {.storage = Storage::without_alpha}), Error);
}

// What the list says of each format is what its files are found by.
TEST(FileFormats, AreFoundBySuffixAndFirstBytes) {
    const auto formats = file_formats();
    EXPECT_EQ(formats.size(), 11U);
    const Bitmap<Bit1> picture{{3, 2}, colors::white};
    for (const auto format : formats) {
        ASSERT_FALSE(suffixes_of(format).empty());
        for (const auto& suffix : suffixes_of(format)) EXPECT_EQ(file_format_of("quay" + suffix), format) << suffix;
        const auto written = format == FileFormat::pnm ? FileFormat::pgm : format;  // of a gray picture
        EXPECT_EQ(file_format_of(encode(picture, format)), written) << name_of(format);
    }
    EXPECT_TRUE(suffixes_of(static_cast<FileFormat>(77)).empty());
    EXPECT_EQ(file_format_of(std::vector<std::uint8_t>{'B', 'M'}), std::nullopt);
}

}  // namespace
