// Files that are made to do harm: to memory, by size or by work.
#include "folder_test.hpp"
#include "jpeg_builder.hpp"
#include "picture_files.hpp"

#include <chrono>
#include <filesystem>

namespace {

using namespace coldbrick;
using namespace oracle;

// The message of the Error, and that it came quickly: without the work that the file asks for.
template <class Call>
std::string quick_error_of(const Call& call) {
    const auto begin = std::chrono::steady_clock::now();
    const auto error = error_of(call);
    EXPECT_LT(std::chrono::steady_clock::now() - begin, std::chrono::seconds{5}) << error;
    return error;
}

std::string refusal(const Bytes& file, const LoadLimits& limits = {}) {
    return quick_error_of([&] { (void)load_any(file, limits); });
}

void expect_part(const std::string& text, const std::string& part) {
    EXPECT_NE(text.find(part), std::string::npos) << text;
}

Bytes text_bytes(const std::string& text) { return {text.begin(), text.end()}; }

// Steps over pixels, as many as it takes to bring the row number round, and then a run where it would come to lie.
TEST(HostileFiles, RunsOfBmpStayInThePicture) {
    const Bytes palette(4 * 256);
    for (const auto& [right, rows] : {std::pair{0, 255}, {255, 0}, {255, 255}, {64, 1}}) {
        Bytes pixels;
        for (int i = 0; i < 20000; ++i) {
            pixels.insert(pixels.end(), {0, 2, static_cast<std::uint8_t>(right), static_cast<std::uint8_t>(rows)});
        }
        pixels.insert(pixels.end(), {0x40, 0x41, 0, 1});
        expect_part(refusal(bmp_file(64, 64, 8, 1, palette, pixels)), "its runs go beyond the picture");
    }
    Bytes ends;
    for (int i = 0; i < 65; ++i) ends.insert(ends.end(), {0, 0});
    ends.insert(ends.end(), {0, 1});
    expect_part(refusal(bmp_file(64, 64, 8, 1, palette, ends)), "its runs go beyond the picture");
    // As far as the edges is allowed.
    const Bytes edge{0, 2, 63, 63, 1, 9, 0, 0, 0, 1};
    EXPECT_EQ(load<Index8>(bmp_file(64, 64, 8, 1, palette, edge)).bytes()[63], 9);
}

// By numbers of 64 bits: round half up of v * full / most.
TEST(HostileFiles, EveryGreatestValueIsScaledExactly) {
    for (std::uint64_t most = 1; most <= 65535; ++most) {
        const std::uint64_t full = most > 255 ? 65535 : 255;
        const std::vector<std::uint64_t> samples{0, 1, most / 2, most - most / 3, most - 1, most};
        auto file = text_bytes("P5 " + std::to_string(samples.size()) + " 1 " + std::to_string(most) + "\n");
        for (const auto sample : samples) put_big(file, static_cast<std::uint32_t>(sample), most > 255 ? 2 : 1);
        const auto loaded = load_any(file);
        for (std::size_t i = 0; i < samples.size(); ++i) {
            const auto expected = (2 * samples[i] * full + most) / (2 * most);
            const auto at = Point{static_cast<int>(i), 0};
            const std::uint64_t found = most > 255 ? std::get<Bitmap<Gray16>>(loaded.bitmap).color16_at(at).red
                                                   : std::get<Bitmap<Gray8>>(loaded.bitmap).color_at(at).red;
            ASSERT_EQ(found, expected) << samples[i] << " of " << most;
        }
    }
    const auto deep = text_bytes("P7\nWIDTH 1\nHEIGHT 1\nDEPTH 4\nMAXVAL 40000\nENDHDR\n");
    auto file = deep;
    put_big(file, 40000, 2);
    put_big(file, 10000, 2);
    put_big(file, 20000, 2);
    put_big(file, 39999, 2);
    EXPECT_EQ(load<Rgba16>(file).color16_at({0, 0}), (Color16{65535, 16384, 32768, 65533}));
}

Bytes png_with(const std::vector<std::pair<std::string, Bytes>>& chunks) {
    return png_file({.width = 1,
                     .height = 1,
                     .bits = 8,
                     .kind = 0,
                     .interlaced = false,
                     .filter = [](int) { return 0; },
                     .sample = [](int, int, int) { return 77U; },
                     .chunks = chunks});
}

Bytes packed_text(std::size_t length) {
    auto chunk = text_bytes("Comment");
    chunk.insert(chunk.end(), {0, 0});
    const auto packed = deflated(Bytes(length, 'a'));
    chunk.insert(chunk.end(), packed.begin(), packed.end());
    return chunk;
}

TEST(HostileFiles, TextsOfPngAreLimited) {
    const std::vector<std::pair<std::string, Bytes>> bombs(30, {"zTXt", packed_text(60'000'000)});
    expect_part(refusal(png_with(bombs)), "its texts have more than the 16777216 bytes that are allowed");
    const std::vector<std::pair<std::string, Bytes>> many(1001, {"tEXt", text_bytes(std::string{"Title\0a", 7})});
    expect_part(refusal(png_with(many)), "it has more texts than the 1000 that are allowed");
    // Streams that turn out to be damaged after much work.
    auto damaged = packed_text(10'000'000);
    damaged.back() ^= 1U;
    expect_part(refusal(png_with(std::vector<std::pair<std::string, Bytes>>(500, {"zTXt", damaged}))),
                "limit text_bytes");
    const auto once = load_any(png_with({{"zTXt", damaged}}));
    EXPECT_TRUE(once.info.texts.empty());
    EXPECT_EQ(once.info.oddities, (std::vector<std::string>{"the text Comment is damaged, and left out"}));
    // Other chunks are passed over, however large they say that they become.
    auto profile = text_bytes("quay");
    profile.insert(profile.end(), {0, 0});
    const auto packed = deflated(Bytes(60'000'000));
    profile.insert(profile.end(), packed.begin(), packed.end());
    EXPECT_EQ(load<Gray8>(png_with({{"iCCP", profile}, {"sPLT", Bytes(1000)}, {"qqQq", Bytes(1000)}})).bytes()[0], 77);
    EXPECT_EQ(load_any(png_with({{"zTXt", packed_text(5000)}})).info.texts,
              (std::vector<TextEntry>{{"Comment", std::string(5000, 'a')}}));
    expect_part(refusal(png_with({{"zTXt", packed_text(5000)}}), {.text_bytes = 4999}), "the 4999 bytes");
}

// A progressive file of 16 x 16 pixels in which each coefficient comes in two scans of its own.
Bytes jpeg_of_many_scans() {
    std::vector<jpeg_scan_info> scans{{1, {0}, 0, 0, 0, 0}};
    for (int k = 1; k < 64; ++k) {
        scans.push_back({1, {0}, k, k, 0, 1});
        scans.push_back({1, {0}, k, k, 1, 0});
    }
    return jpeg_file(Bytes(16, 99), 16, JCS_GRAYSCALE, 1, [&](jpeg_compress_struct& jpeg) {
        jpeg.scan_info = scans.data();
        jpeg.num_scans = static_cast<int>(scans.size());
    });
}

TEST(HostileFiles, ScansOfJpegAreLimited) {
    const auto file = jpeg_of_many_scans();
    expect_part(refusal(file), "it has more scans than the 64 that are allowed (limit scans)");
    expect_part(refusal(file, {.scans = 126}), "it has more scans than the 126 that are allowed");
    EXPECT_EQ(load<Gray8>(file, {.scans = 127}).bytes()[0], 99);
    expect_part(refusal(file, {.memory = 600}), "reading it takes 768 bytes of memory; allowed are 600 (limit memory)");
}

// By arithmetic coding, each scan of a flat picture takes some bytes, however large it is.
TEST(HostileFiles, PixelsOfAllScansOfArithmeticJpegCount) {
    const auto flat = [](int side, bool is_progressive) {
        return jpeg_file(Bytes(static_cast<std::size_t>(side), 99), side, JCS_GRAYSCALE, 1,
                         [&](jpeg_compress_struct& jpeg) {
                             jpeg.arith_code = TRUE;
                             if (is_progressive) jpeg_simple_progression(&jpeg);
                         });
    };
    EXPECT_EQ(load<Gray8>(flat(500, true)).bytes()[0], 99);
    EXPECT_EQ(load<Gray8>(flat(3000, false), {.pixels_per_byte = 100'000}).bytes()[0], 99);
    // Enough for twice the picture, in six scans.
    const auto file = flat(3000, true);
    expect_part(refusal(file, {.pixels_per_byte = 18'000'000 / file.size()}), "(limit pixels_per_byte)");
    expect_part(refusal(flat(2000, true), {.seconds = 1e-9}), "limit seconds");
}

TEST(HostileFiles, EveryLimitMayBeNothing) {
    const auto file = encode(Bitmap<Rgb8>{{1400, 1000}, colors::gold}, FileFormat::png);
    for (const auto& limits : {LoadLimits{.pixels = 0}, LoadLimits{.side = 0}, LoadLimits{.file_bytes = 0},
                               LoadLimits{.memory = 0}, LoadLimits{.pixels_per_byte = 0}, LoadLimits{.seconds = 0}}) {
        EXPECT_THROW((void)load<Rgb8>(file, limits), Error);
    }
    constexpr auto most = std::numeric_limits<std::uint64_t>::max();
    EXPECT_NO_THROW((void)load<Rgb8>(file, {.pixels = most,
                                            .side = std::numeric_limits<int>::max(),
                                            .file_bytes = most,
                                            .memory = most,
                                            .pixels_per_byte = most,
                                            .text_bytes = most,
                                            .texts = std::numeric_limits<int>::max(),
                                            .scans = std::numeric_limits<int>::max()}));
}

TEST(HostileFiles, SmallFilesOfManyPixelsAreRefusedBeforeMemoryIsAskedFor) {
    // A run of 255 pixels takes two bytes, but a picture may end at once.
    const auto blank = bmp_file(16384, 16384, 8, 1, Bytes(4 * 256), {0, 1});
    expect_part(refusal(blank), "it has 1080 bytes for 268435456 pixels; allowed are 10000 pixels to a byte");
    EXPECT_EQ(load_any(bmp_file(1000, 1000, 8, 1, Bytes(4 * 256), {0, 1})).info.size, (Size{1000, 1000}));
    auto qoi = text_bytes("qoif");
    for (const auto value : {16000U, 16000U}) put_big(qoi, value);
    qoi.insert(qoi.end(), {4, 0});
    qoi.insert(qoi.end(), 4'000'000, 0xfd);
    expect_part(refusal(qoi), "qoi: the file is too short for its 16000 x 16000 pixels");
    auto jpeg = encode(Bitmap<Gray8>{{8, 8}}, FileFormat::jpeg);
    for (std::size_t i = 0; i + 8 < jpeg.size(); ++i) {
        if (jpeg[i] != 0xff || jpeg[i + 1] != 0xc0) continue;
        for (const auto k : {5U, 7U}) jpeg[i + k] = 0x3f;  // 16,128 pixels high and wide
    }
    expect_part(refusal(jpeg), "jpeg: the file is too short for its pixels");
}

TEST(HostileFiles, LimitsAreTold) {
    const Bitmap<Rgba8> glass{{30, 20}, 0x10203040_rgba};
    for (const auto format : {FileFormat::png, FileFormat::bmp, FileFormat::pam, FileFormat::qoi}) {
        const auto file = encode(glass, format);
        expect_part(refusal(file, {.memory = 2399}), "reading it takes 2400 bytes of memory; allowed are 2399");
        expect_part(refusal(file, {.pixels = 599}), "30 x 20; allowed are 599 pixels");
        expect_part(refusal(file, {.side = 29}), "sides up to 29");
        EXPECT_NO_THROW((void)load_any(file, {.pixels = 600, .side = 30, .memory = 2400}));
    }
    const auto file = encode(glass, FileFormat::pam);
    expect_part(refusal(file, {.file_bytes = 100}), "allowed are 100");
}

TEST(HostileFiles, HeadersOfPamAreReadAsTheyMayBeWritten) {
    const auto file = text_bytes(
        "P7\r\n#one\r\n\r\nWIDTH\t 0002 \r\n  HEIGHT 0000000000001\r\n# WIDTH 9\nDEPTH  3\t\r\n"
        "MAXVAL 255\r\nTUPLTYPE  RGB \r\nENDHDR\r\nabcdef");
    const auto loaded = load_any(file);
    EXPECT_EQ(loaded.as<Rgb8>().bytes(), text_bytes("abcdef"));
    EXPECT_TRUE(loaded.info.oddities.empty()) << loaded.info.oddities[0];
    expect_part(refusal(text_bytes("P7\nWIDTH 2\nWIDTH 3\nENDHDR\n")), "WIDTH stands there twice");
    expect_part(refusal(text_bytes("P7\nWIDTH 2\x1b[2J\nENDHDR\n")), "WIDTH is 2\\x1b[2J, which is no number");
    EXPECT_EQ(load<Gray8>(text_bytes("P2 0001 00000000000001 255 000000000000077")).bytes(), Bytes{77});
}

TEST(HostileFiles, AlphaOfBmpIsReadWhereItIsMeant) {
    const auto with_alphas = [](std::uint8_t first, std::uint8_t second) {
        return load_any(bmp_file(2, 1, 32, 0, {}, {1, 2, 3, first, 4, 5, 6, second}));
    };
    const auto meant = with_alphas(0, 128);
    EXPECT_EQ(std::get<Bitmap<Rgba8>>(meant.bitmap).bytes(), (Bytes{3, 2, 1, 0, 6, 5, 4, 128}));
    EXPECT_EQ(meant.info.oddities.size(), 1U);
    EXPECT_EQ(std::get<Bitmap<Rgb8>>(with_alphas(0, 0).bitmap).bytes(), (Bytes{3, 2, 1, 6, 5, 4}));
    EXPECT_EQ(std::get<Bitmap<Rgb8>>(with_alphas(255, 255).bitmap).bytes(), (Bytes{3, 2, 1, 6, 5, 4}));
}

class HostileNames : public FolderTest {};

TEST_F(HostileNames, NothingIsReadOfWhatIsNoPicture) {
    expect_part(quick_error_of([] { (void)load_any(std::filesystem::path{"/dev/zero"}); }), "none of png, jpeg");
    const auto name = path("a.png").string() + std::string{"\0b", 2};
    save(Bitmap<Gray8>{{2, 2}}, path("a.png"));
    expect_part(error_of([&] { (void)load_any(std::filesystem::path{name}); }),
                "a.png\\x00b: cannot be read: the name");
    expect_part(error_of([&] { (void)load_any(path("no\x1b[31mred.png")); }), "no\\x1b[31mred.png: cannot be read");
}

}  // namespace
