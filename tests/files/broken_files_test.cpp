// Files that are cut short or damaged.
#include "picture_files.hpp"

#include "coldbrick/error.hpp"

namespace {

using namespace coldbrick;
using namespace oracle;

// One small file of each kind.
std::vector<Bytes> small_files() {
    Dice dice{215};
    const auto colors = noise<Rgb8>(dice, {9, 7});
    const auto glass = noise<Rgba8>(dice, {9, 7});
    Bitmap<Index8> display{{9, 7}, palettes::quay(), colors::gold};
    fill(display, Circle{.center = {4, 3}, .radius = 2}, PaletteEntry{3});
    return {encode(colors, FileFormat::png),
            encode(noise<Rgba16>(dice, {5, 4}), FileFormat::png),
            encode(display, FileFormat::png),
            encode(colors, FileFormat::jpeg),
            encode(colors, FileFormat::ppm),
            encode(colors, FileFormat::ppm, {.notation = Notation::plain}),
            encode(glass, FileFormat::pam),
            encode(glass, FileFormat::bmp),
            encode(display, FileFormat::bmp),
            encode(glass, FileFormat::qoi),
            bmp_file(4, 2, 8, 1, {1, 2, 3, 0, 200, 100, 50, 0}, {2, 1, 0, 0, 1, 0, 0, 2, 1, 0, 2, 1, 0, 1}, 2)};
}

TEST(BrokenFiles, CutShortAreRefused) {
    for (const auto& file : small_files()) {
        const auto is_plain = file[1] == '3';
        // A plain file may end in white space, and cut numbers are numbers.
        const auto whole = is_plain ? file.size() - 3 : file.size();
        for (std::size_t length = 0; length < whole; ++length) {
            EXPECT_THROW((void)load_any(std::span{file}.first(length)), Error)
                << name_of(*file_format_of(file)) << " " << length;
        }
        EXPECT_NO_THROW((void)load_any(file));
    }
}

TEST(BrokenFiles, AreReadOrRefusedButDoNoHarm) {
    Dice dice{216};
    int refused = 0;
    for (const auto& file : small_files()) {
        for (int i = 0; i < 400; ++i) {
            auto broken = file;
            for (int k = dice.number(1, 4); k > 0; --k) {
                broken[static_cast<std::size_t>(dice.number(2, static_cast<int>(file.size()) - 1))] =
                    static_cast<std::uint8_t>(dice.number(0, 255));
            }
            try {
                const auto loaded = load_any(broken, {.pixels = 1 << 16});
                EXPECT_FALSE(deep_pixels_of(loaded).empty());
            } catch (const Error&) {
                ++refused;
            }
        }
    }
    EXPECT_GT(refused, 1000);
}

// What a file claims is checked before memory is asked for.
TEST(BrokenFiles, ClaimsAreNotBelieved) {
    const auto fault = [](const Bytes& file) {
        try {
            (void)load_any(file);
        } catch (const Error& error) {
            return std::string{error.what()};
        }
        return std::string{"no error"};
    };
    const auto claims = [](const std::string& text) { return Bytes{text.begin(), text.end()}; };
    EXPECT_NE(fault(claims("P6 16000 16000 255 ")).find("the file ends too early"), std::string::npos);
    EXPECT_NE(fault(claims("P3 16000 16000 255 1 2 3")).find("too short"), std::string::npos);
    EXPECT_NE(fault(claims("P1 16000 16000 101")).find("too short"), std::string::npos);
    EXPECT_NE(fault(claims("P5 100000 100000 255 ")).find("allowed are 268435456 pixels"), std::string::npos);
    EXPECT_NE(fault(claims("P7\nWIDTH 9\nHEIGHT 9\nDEPTH 5\nMAXVAL 255\nENDHDR\n")).find("the depth"),
              std::string::npos);
    EXPECT_NE(fault(claims("P7\nCOLOR 9\nENDHDR\n")).find("the word is COLOR"), std::string::npos);
    EXPECT_NE(fault(claims("P7\nWIDTH nine\nENDHDR\n")).find("is no number"), std::string::npos);
    Bytes wide{'q', 'o', 'i', 'f', 0, 0, 64, 0, 0, 0, 64, 0, 4, 0};
    EXPECT_NE(fault(wide).find("too short"), std::string::npos);
    wide[12] = 5;
    EXPECT_NE(fault(wide).find("it has 5 channels; allowed are 3 and 4"), std::string::npos);
    EXPECT_NE(fault(bmp_file(16000, 16000, 24, 0, {}, {})).find("the file ends too early"), std::string::npos);
    EXPECT_NE(fault(bmp_file(16000, 16000, 8, 0, Bytes(8), {}, 2)).find("too short"), std::string::npos);
    EXPECT_NE(fault(bmp_file(2, 2, 8, 0, {}, {}, 300)).find("palette has 300 colours; allowed are 256"),
              std::string::npos);
    EXPECT_NE(fault(bmp_file(2, 2, 8, 7, {}, {})).find("its compression is 7"), std::string::npos);
    EXPECT_NE(fault(bmp_file(2, -2, 8, 1, Bytes(8), {0, 1}, 2)).find("runs, and rows from top to bottom"),
              std::string::npos);
    EXPECT_NE(fault(bmp_file(0, 2, 24, 0, {}, {})).find("it must have at least one pixel"), std::string::npos);
}

}  // namespace
