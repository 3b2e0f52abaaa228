// Files to pictures and back: every format, files put together byte by byte, what others read of ours.
#include "folder_test.hpp"
#include "picture_files.hpp"

#include <coldbrick/error.hpp>
#include <coldbrick/files.hpp>
#include <coldbrick/load.hpp>

#include <cstdio>
#include <cstdlib>
#include <sstream>

#include <jpeglib.h>

namespace {

using namespace coldbrick;
using namespace oracle;

using Load = FolderTest;

template <PixelFormat Format>
void expect_round_trip(FileFormat format, const SaveOptions& options = {}) {
    Dice dice{211};
    for (const auto& size : {Size{1, 1}, Size{7, 3}, Size{33, 20}, Size{200, 3}}) {
        const auto picture = noise<Format>(dice, size);
        const auto file = encode(picture, format, options);
        const auto loaded = load_any(file);
        EXPECT_EQ(loaded.info.format, format);
        EXPECT_EQ(loaded.info.size, size);
        EXPECT_TRUE(loaded.info.oddities.empty()) << loaded.info.oddities.front();
        EXPECT_TRUE(deep_pixels_of(loaded) == deep_pixels_of(picture)) << name_of(format);
        EXPECT_EQ(load<Format>(file).bytes(), picture.bytes()) << name_of(format);
    }
}

TEST(RoundTrips, KeepEveryBitWhereTheFormatIsLossless) {
    for (const auto storage : {Storage::as_it_is, Storage::fewest_bits}) {
        const auto options = SaveOptions{.effort = Effort::most, .storage = storage};
        expect_round_trip<Gray8>(FileFormat::png, options);
        expect_round_trip<Rgb8>(FileFormat::png, options);
        expect_round_trip<Rgba8>(FileFormat::png, options);
        expect_round_trip<Gray16>(FileFormat::png, options);
        expect_round_trip<Rgba16>(FileFormat::png, options);
    }
    for (const auto notation : {Notation::binary, Notation::plain}) {
        expect_round_trip<Gray8>(FileFormat::pgm, {.notation = notation});
        expect_round_trip<Gray16>(FileFormat::pgm, {.notation = notation});
        expect_round_trip<Rgb8>(FileFormat::ppm, {.notation = notation});
    }
    expect_round_trip<Gray8>(FileFormat::pam);
    expect_round_trip<Rgb8>(FileFormat::pam);
    expect_round_trip<Rgba8>(FileFormat::pam);
    expect_round_trip<Rgba16>(FileFormat::pam);
    expect_round_trip<Rgb8>(FileFormat::bmp);
    expect_round_trip<Bgr8>(FileFormat::bmp);
    expect_round_trip<Rgba8>(FileFormat::bmp);
    expect_round_trip<Rgb8>(FileFormat::qoi);
    expect_round_trip<Bgra8>(FileFormat::qoi);
}

TEST(RoundTrips, PalettesAndFewBits) {
    Dice dice{212};
    for (const auto* const palette :
         {&palettes::two_tone(), &palettes::quay(), &palettes::gray_steps(), &palettes::cube()}) {
        Bitmap<Index8> display{{37, 11}, *palette};
        for (int i = 0; i < 300; ++i) {
            mark(display, dice.point({.at = {}, .size = display.size()}),
                 PaletteEntry{dice.number(0, static_cast<int>(palette->size()) - 1)});
        }
        for (const auto format : {FileFormat::png, FileFormat::bmp}) {
            const auto loaded = load_any(encode(display, format));
            const auto* const same = std::get_if<Bitmap<Index8>>(&loaded.bitmap);
            ASSERT_NE(same, nullptr);
            EXPECT_EQ(same->bytes(), display.bytes());
            EXPECT_EQ(same->palette(), *palette);
        }
        const auto fewest = load_any(encode(display, FileFormat::png, {.storage = Storage::fewest_bits}));
        EXPECT_TRUE(deep_pixels_of(fewest) == deep_pixels_of(display));
        // 16 grays are gray of 4 bits; 12 colours, a palette of 4; black and white, gray of 1.
        const auto bits = palette->size() == 2 ? 1 : palette->size() > 16 ? 8 : 4;
        EXPECT_EQ(fewest.info.bits, bits);
        EXPECT_EQ(fewest.info.has_palette, palette->size() != 2 && palette != &palettes::gray_steps());
    }
    Bitmap<Gray8> signal{{13, 5}};
    fill(signal, Circle{.center = {6, 2}, .radius = 2}, gray(255));
    for (const auto notation : {Notation::binary, Notation::plain}) {
        EXPECT_EQ(load<Gray8>(encode(signal, FileFormat::pbm, {.notation = notation})).bytes(), signal.bytes());
    }
    // Translucent colours stand first in a palette.
    Bitmap<Rgba8> glass{{9, 2}, colors::gold};
    fill(glass, Box{.at = {3, 0}, .size = {3, 1}}, Ink{0x10203040_rgba, {.blend = Blend::replace}});
    const auto loaded = load_any(encode(glass, FileFormat::png, {.storage = Storage::fewest_bits}));
    EXPECT_TRUE(loaded.info.has_palette && loaded.info.has_alpha && loaded.info.bits == 1);
    EXPECT_TRUE(deep_pixels_of(loaded) == deep_pixels_of(glass));
}

TEST(PngFiles, OfEveryKindDepthFilterAndInterlacing) {
    Dice dice{213};
    const std::vector<std::pair<int, std::vector<int>>> kinds{
        {0, {1, 2, 4, 8, 16}}, {2, {8, 16}}, {3, {1, 2, 4, 8}}, {4, {8, 16}}, {6, {8, 16}}};
    int made = 0;
    for (const auto& [kind, depths] : kinds) {
        for (const auto bits : depths) {
            for (int filter = 0; filter < 6; ++filter) {
                for (const auto interlaced : {false, true}) {
                    const auto size = Size{dice.number(1, 19), dice.number(1, 19)};
                    const auto channels = channels_of(kind);
                    std::vector<unsigned> samples;
                    for (int i = size.width * size.height * channels; i > 0; --i) {
                        samples.push_back(static_cast<unsigned>(dice.number(0, (1 << bits) - 1)));
                    }
                    const auto sample = [&](int x, int y, int channel) {
                        const auto pixel = index_in({.at = {}, .size = size}, {x, y});
                        return samples[pixel * static_cast<std::size_t>(channels) + static_cast<std::size_t>(channel)];
                    };
                    auto plan = PngPlan{size.width, size.height, bits,
                                        kind,       interlaced,  [&](int row) { return filter < 5 ? filter : row % 5; },
                                        sample};
                    std::vector<Color> palette;
                    if (kind == 3) {
                        Bytes colors;
                        for (int i = 0; i < 1 << bits; ++i) {
                            palette.push_back(with_alpha(dice.color(), 255));
                            for (const auto c : {palette.back().red, palette.back().green, palette.back().blue})
                                colors.push_back(c);
                        }
                        palette[0].alpha = 77;
                        plan.chunks = {{"PLTE", colors}, {"tRNS", {77}}};
                    }
                    const auto loaded = load_any(png_file(plan));
                    EXPECT_EQ(load<Bit1>(png_file(plan)).bytes(), loaded.as<Bit1>().bytes());
                    const auto found = deep_pixels_of(loaded);
                    for (int y = 0; y < size.height; ++y) {
                        for (int x = 0; x < size.width; ++x) {
                            const auto at = [&](int channel) {
                                return static_cast<std::uint16_t>(sample(x, y, channel) * 65535 / ((1U << bits) - 1));
                            };
                            auto wanted = Color16{at(0), at(0), at(0)};
                            if (kind == 2 || kind == 6) wanted = {at(0), at(1), at(2)};
                            if (kind == 4 || kind == 6) wanted.alpha = at(channels - 1);
                            if (kind == 3) wanted = widened(palette[sample(x, y, 0)]);
                            ASSERT_EQ(found[index_in({.at = {}, .size = size}, {x, y})], wanted)
                                << "kind " << kind << " bits " << bits << " filter " << filter;
                        }
                    }
                    EXPECT_EQ(loaded.info.bits, bits);
                    EXPECT_EQ(loaded.info.channels, channels);
                    EXPECT_EQ(loaded.info.is_interlaced, interlaced);
                    ++made;
                }
            }
        }
    }
    EXPECT_EQ(made, 15 * 6 * 2);
}

TEST(PngFiles, KeepDensityAndTexts) {
    Bitmap<Rgb8> picture{{4, 3}, colors::teal};
    const auto options = SaveOptions{.density = Density{.across = 300, .down = 150, .unit = Density::Unit::inch},
                                     .texts = {{"Title", "Quay wall"}, {"Comment", "Pegel h\xc3\xb6her"}}};
    const auto info = load_any(encode(picture, FileFormat::png, options)).info;
    EXPECT_EQ(info.density, (Density{.across = 11811, .down = 5906, .unit = Density::Unit::meter}));
    EXPECT_EQ(info.texts, options.texts);
    const auto jpeg = load_any(encode(picture, FileFormat::jpeg, options)).info;
    EXPECT_EQ(jpeg.density, options.density);
    EXPECT_EQ(load_any(encode(picture, FileFormat::bmp, options)).info.density->across, 11811);
    EXPECT_THROW((void)encode(picture, FileFormat::png, {.texts = {{"", "nothing"}}}), Error);
    EXPECT_THROW((void)encode(picture, FileFormat::png, {.density = Density{.across = -1, .down = 1}}), Error);
    EXPECT_EQ(error_of([&] { (void)encode(picture, FileFormat::jpeg, {.quality = 0}); }),
              "quality is 0; allowed is 1 to 100");
    // A transparent colour, and latin letters.
    const auto plain = png_file({2,
                                 1,
                                 8,
                                 2,
                                 false,
                                 [](int) { return 0; },
                                 [](int x, int, int) { return 9U + static_cast<unsigned>(x); },
                                 {{"tRNS", {0, 9, 0, 9, 0, 9}}, {"tEXt", {'A', 0, 0xf6}}}});
    const auto loaded = load_any(plain);
    EXPECT_EQ(loaded.as<Rgba8>().color_at({0, 0}), with_alpha(gray(9), 0));
    EXPECT_EQ(loaded.as<Rgba8>().color_at({1, 0}), gray(10));
    EXPECT_EQ(loaded.info.texts, (std::vector<TextEntry>{{"A", "\xc3\xb6"}}));
}

Bytes file_of(const std::string& header, const Bytes& pixels = {}) {
    Bytes file{header.begin(), header.end()};
    file.insert(file.end(), pixels.begin(), pixels.end());
    return file;
}

TEST(PnmFiles, OfAllKinds) {
    const auto values = [](const Bytes& file) { return load<Gray8>(file).bytes(); };
    EXPECT_EQ(values(file_of("P1\n# a buoy\n3 2\n1 0 1\n010")), (Bytes{0, 255, 0, 255, 0, 255}));
    EXPECT_EQ(values(file_of("P4\n3 2\n", {0xa0, 0x40})), (Bytes{0, 255, 0, 255, 0, 255}));
    EXPECT_EQ(values(file_of("P2 2 2 3  0 1 # one\n 2 3")), (Bytes{0, 85, 170, 255}));
    EXPECT_EQ(values(file_of("P5 2 1 100 ", {50, 100})), (Bytes{128, 255}));
    EXPECT_EQ(load<Gray16>(file_of("P5 2 1 1000 ", {1, 0, 3, 232})).color16_at({0, 0}).red,
              (2 * 256 * 65535 + 1000) / 2000);
    EXPECT_EQ(load<Rgb8>(file_of("P3\n1 1\n255\n1 2 3\n")).bytes(), (Bytes{1, 2, 3}));
    EXPECT_EQ(load<Rgb8>(file_of("P6\n1 1\n255\n", {1, 2, 3})).bytes(), (Bytes{1, 2, 3}));
    EXPECT_EQ(
        load<Rgba8>(file_of("P7\nWIDTH 1\nHEIGHT 1\nDEPTH 2\nMAXVAL 255\nTUPLTYPE GRAYSCALE_ALPHA\nENDHDR\n", {7, 9}))
            .bytes(),
        (Bytes{7, 7, 7, 9}));
    const auto fault = [](const Bytes& file) { return error_of([&] { (void)load_any(file); }); };
    EXPECT_EQ(fault(file_of("P2 2 1 9 3 10")), "pnm: a sample, at byte 13: it is 10, over the greatest value, 9");
    EXPECT_EQ(fault(file_of("P5 0 1 255 ")), "pnm: its size is 0 x 1; it must have at least one pixel");
    EXPECT_EQ(fault(file_of("P5 two")), "pnm: the width, at byte 3: there is no number");
    EXPECT_EQ(fault(file_of("P5 2 2 70000 ")),
              "pnm: the greatest value, at byte 12: it is 70000; allowed is 1 to 65535");
    EXPECT_EQ(fault(file_of("P5 2 2 255 ", {1, 2, 3})), "pnm: the file ends too early, after 14 bytes");
    EXPECT_EQ(fault(file_of("P7\nWIDTH 1\nENDHDR\n")), "pam: the header, at byte 18: HEIGHT is missing");
    EXPECT_EQ(load_any(file_of("P5 1 1 255 ", {1, 2, 3})).info.oddities,
              std::vector<std::string>{"2 bytes follow the picture"});
}

TEST(BmpFiles, OfAllDepths) {
    const Bytes two{1, 2, 3, 0, 200, 100, 50, 0};
    const auto dark = Color{3, 2, 1};
    const auto light = Color{50, 100, 200};
    const auto at = [](const Bytes& file, int x, int y) { return load<Rgba8>(file).color_at({x, y}); };
    const auto one_bit = bmp_file(3, 2, 1, 0, two, {0x40, 0, 0, 0, 0x80, 0, 0, 0});
    EXPECT_EQ(at(one_bit, 0, 0), light);
    EXPECT_EQ(at(one_bit, 1, 0), dark);
    EXPECT_EQ(at(one_bit, 1, 1), light);
    EXPECT_EQ(at(bmp_file(3, -2, 1, 0, two, {0x40, 0, 0, 0, 0x80, 0, 0, 0}), 1, 0), light);
    EXPECT_EQ(at(bmp_file(3, 1, 4, 0, two, {0x01, 0x10, 0, 0}, 2), 2, 0), light);
    EXPECT_EQ(at(bmp_file(2, 1, 8, 0, two, {0, 1, 0, 0}, 2), 1, 0), light);
    EXPECT_EQ(at(bmp_file(1, 1, 24, 0, {}, {1, 2, 3, 0}), 0, 0), dark);
    EXPECT_EQ(at(bmp_file(1, 1, 32, 0, {}, {1, 2, 3, 0}), 0, 0), dark);
    EXPECT_EQ(at(bmp_file(1, 1, 16, 0, {}, {0x1f, 0x7c, 0, 0}), 0, 0), (Color{255, 0, 255}));
    // Masks: 5, 6 and 5 bits.
    Bytes masks;
    for (const auto mask : {0xf800U, 0x07e0U, 0x001fU}) put_little(masks, mask, 4);
    EXPECT_EQ(at(bmp_file(1, 1, 16, 3, masks, {0x00, 0x04, 0, 0}), 0, 0), (Color{0, 130, 0}));
    // Runs: two of colour 1, one by one, the end of a row, a step, the end.
    const auto runs = bmp_file(4, 2, 8, 1, two, {2, 1, 0, 0, 1, 0, 0, 2, 1, 0, 2, 1, 0, 1}, 2);
    EXPECT_EQ(at(runs, 1, 1), light);
    EXPECT_EQ(at(runs, 2, 1), dark);
    EXPECT_EQ(at(runs, 3, 0), light);
    const auto half_runs = bmp_file(4, 1, 4, 2, two, {3, 0x10, 1, 0x10, 0, 1}, 2);
    EXPECT_EQ(at(half_runs, 0, 0), light);
    EXPECT_EQ(at(half_runs, 1, 0), dark);
    EXPECT_EQ(at(half_runs, 2, 0), light);
    const auto fault = [](const Bytes& file) { return error_of([&] { (void)load_any(file); }); };
    EXPECT_EQ(fault(bmp_file(2, 1, 8, 0, two, {0, 2, 0, 0}, 2)),
              "bmp: a pixel has colour 2, and the palette 2 colours");
    EXPECT_EQ(fault(bmp_file(2, 1, 8, 1, two, {3, 1}, 2)), "bmp: its runs go beyond the picture");
    EXPECT_EQ(fault(bmp_file(2, 1, 7, 0, two, {})), "bmp: it has 7 bits a pixel; allowed are 1, 4, 8, 16, 24 and 32");
}

TEST_F(Load, LimitsAndSources) {
    Bitmap<Rgb8> picture{{40, 30}, colors::teal};
    save(picture, path("quay.txt"), FileFormat::png);  // whatever its name
    EXPECT_EQ(load<Rgb8>(path("quay.txt")).bytes(), picture.bytes());
    std::istringstream stream{content(path("quay.txt"))};
    EXPECT_EQ(load<Rgb8>(stream).bytes(), picture.bytes());
    EXPECT_EQ(load<Bgra8>(path("quay.txt")).bytes(), convert<Bgra8>(picture).bytes());
    for (const auto format :
         {FileFormat::png, FileFormat::jpeg, FileFormat::ppm, FileFormat::pam, FileFormat::bmp, FileFormat::qoi}) {
        const auto file = encode(picture, format);
        EXPECT_NO_THROW((void)load_any(file, {.pixels = 1200, .side = 40}));
        EXPECT_NE(error_of([&] {
                      (void)load_any(file, {.pixels = 1199});
                  }).find("its size is 40 x 30; allowed are 1199 pixels"),
                  std::string::npos);
        EXPECT_THROW((void)load_any(file, {.side = 39}), Error);
        EXPECT_THROW((void)load_any(file, {.file_bytes = 20}), Error);
    }
    write("none.png", "no picture");
    EXPECT_EQ(error_of([&] { (void)load_any(path("none.png")); }),
              path("none.png").string() +
                  ": the file is none of png, jpeg, pbm, pgm, ppm, pam, bmp, qoi, gif and webp, by its first bytes");
    EXPECT_EQ(error_of([&] { (void)load_any(path("missing.png")); }),
              path("missing.png").string() + ": cannot be read: No such file or directory");
    EXPECT_EQ(error_of([&] { (void)load_any(folder()); }), folder().string() + ": cannot be read: Is a directory");
    EXPECT_EQ(error_of([] { (void)load_any(Bytes{}); }), "the file is empty");
}

// What is written, by a checker and by a reader in another language.
TEST_F(Load, OthersReadWhatIsWritten) {
    Dice dice{217};
    const auto expect_read = [&](const auto& picture, const SaveOptions& options) {
        save(picture, path("a.png"), options);
        EXPECT_EQ(run_quietly("pngcheck -q " + path("a.png").string()), 0);
        save(convert<Rgba8>(picture), path("a.pam"));
        EXPECT_EQ(std::system(("python3 " COLDBRICK_TESTS "/files/same_png.py " + path("a.png").string() + " " +
                               path("a.pam").string())
                                  .c_str()),
                  0);
    };
    for (const auto storage : {Storage::as_it_is, Storage::fewest_bits}) {
        expect_read(noise<Rgb8>(dice, {50, 40}), {.storage = storage});
        expect_read(noise<Rgba8>(dice, {50, 40}), {.effort = Effort::most, .storage = storage});
        expect_read(noise<Gray8>(dice, {50, 40}), {.storage = storage});
        Bitmap<Index8> display{{21, 8}, palettes::quay(), colors::gold};
        fill(display, Circle{.center = {9, 3}, .radius = 3}, PaletteEntry{3});
        expect_read(display, {.storage = storage, .texts = {{"Title", "Tide"}}});
    }
}

// A file in a format that is asked for is the file's own, converted.
template <class To>
void expect_loads_as(const std::vector<Bytes>& files) {
    for (const auto& file : files) {
        const auto any = load_any(file);
        const auto wanted = std::visit([](const auto& picture) { return convert<To>(picture); }, any.bitmap);
        EXPECT_EQ(load<To>(file).bytes(), wanted.bytes()) << name_of(any.info.format);
        EXPECT_EQ(any.as<To>().bytes(), wanted.bytes());
    }
}

TEST_F(Load, InTheFormatThatIsAskedFor) {
    Dice dice{218};
    Bitmap<Index8> display{{21, 8}, palettes::quay(), colors::gold};
    fill(display, Circle{.center = {9, 3}, .radius = 3}, PaletteEntry{3});
    const std::vector<Bytes> files{
        encode(noise<Gray8>(dice, {17, 5}), FileFormat::png),  encode(noise<Rgb8>(dice, {17, 5}), FileFormat::qoi),
        encode(noise<Rgba8>(dice, {17, 5}), FileFormat::bmp),  encode(noise<Gray16>(dice, {17, 5}), FileFormat::pgm),
        encode(noise<Rgba16>(dice, {17, 5}), FileFormat::pam), encode(display, FileFormat::png)};
    expect_loads_as<Gray8>(files);
    expect_loads_as<Rgb8>(files);
    expect_loads_as<Bgr8>(files);
    expect_loads_as<Rgba8>(files);
    expect_loads_as<Bgra8>(files);
    expect_loads_as<Index8>(files);
    expect_loads_as<Gray16>(files);
    expect_loads_as<Rgba16>(files);
    expect_loads_as<Bit1>(files);
    // 16 bits to 8: v / 257, rounded to the nearest.
    Bitmap<Gray16> steps{{600, 1}};
    for (int x = 0; x < 600; ++x) {
        const auto value = static_cast<std::uint16_t>(x * 109);
        mark(steps, {x, 0}, Color16{value, value, value});
    }
    const auto narrow = load<Gray8>(encode(steps, FileFormat::png));
    for (int x = 0; x < 600; ++x) EXPECT_EQ(narrow.color_at({x, 0}).red, (x * 109 + 128) / 257) << x;
}

// What a format has no room for is refused, and nothing is written.
TEST_F(Load, WhatAFormatCannotHold) {
    const Bitmap<Rgba8> glass{{4, 4}, 0x10203040_rgba};
    const Bitmap<Rgba16> deep{{4, 4}, colors::gold};
    const Bitmap<Gray8> middle{{4, 4}, gray(100)};
    const auto fault = [&](const auto& picture, FileFormat format) {
        return error_of([&] { save(picture, path("a.file"), format); });
    };
    EXPECT_NE(fault(glass, FileFormat::jpeg).find("jpeg: the file holds opaque colours only"), std::string::npos);
    EXPECT_NE(fault(deep, FileFormat::qoi).find("8 bits a channel, and the picture has 16"), std::string::npos);
    EXPECT_NE(fault(deep, FileFormat::bmp).find("8 bits a channel"), std::string::npos);
    EXPECT_EQ(fault(middle, FileFormat::pbm),
              "pbm: the file holds black and white only, and the picture has other colours");
    EXPECT_EQ(file_count(), 0U);
    EXPECT_EQ(error_of([] {
                  const auto dense = Density{.across = 70000, .down = 1, .unit = Density::Unit::inch};
                  (void)encode(Bitmap<Gray8>{{1, 1}}, FileFormat::jpeg, {.density = dense});
              }),
              "jpeg: a density is 70000 to the inch or centimetre; allowed is up to 65535");
    // JPEG takes 16 bits, as 8.
    EXPECT_EQ(fault(deep, FileFormat::jpeg), "no error");
    EXPECT_EQ(load_any(path("a.file")).info.bits, 8);
}

}  // namespace
