// Moving pictures: written and read back, taken apart by another program, and cut short.
#include "folder_test.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <array>
#include <cmath>
#include <cstdlib>
#include <random>
#include <sstream>

namespace {

using namespace coldbrick;

struct Shot {
    Bitmap<Rgba8> picture;
    double seconds;
};

// Frames of which each changes something of the one before; of so many colours, and translucent or not.
std::vector<Shot> shots(int count, bool has_alpha, int colors = 100, unsigned seed = 1) {
    std::mt19937 random{seed};
    std::vector<Color> palette;
    for (int i = 0; i < colors; ++i) {
        const auto channel = [&] { return static_cast<std::uint8_t>(random()); };
        palette.push_back({channel(), channel(), channel(), 255});
    }
    if (has_alpha) palette[0] = {.alpha = 0};
    Bitmap<Rgba8> sheet{{31, 23}, palette[1]};
    std::vector<Shot> all;
    for (int i = 0; i < count; ++i) {
        const auto at = Point{static_cast<int>(random() % 31), static_cast<int>(random() % 23)};
        for (int k = 0; k < 40 && i != 3; ++k) {
            const auto pixel = Point{at.x + static_cast<int>(random() % 9), at.y + static_cast<int>(random() % 9)};
            fill(sheet, Box{.at = pixel, .size = {1, 1}},
                 Ink{palette[random() % palette.size()], {.blend = Blend::replace}});
        }
        all.push_back({sheet, (10 + static_cast<double>(random() % 20)) / 100});
    }
    return all;
}

std::vector<std::uint8_t> written(const std::vector<Shot>& all, FileFormat format, const FrameOptions& options = {}) {
    std::ostringstream stream;
    FrameWriter writer{stream, format, options};
    for (const auto& [picture, seconds] : all) writer.add(picture, seconds);
    const auto count = writer.finish();
    const auto text = stream.str();
    EXPECT_EQ(count, text.size());
    return {text.begin(), text.end()};
}

void expect_film(const Film& film, const std::vector<Shot>& all, const std::string& what) {
    ASSERT_EQ(film.frames.size(), all.size()) << what;
    for (std::size_t i = 0; i < all.size(); ++i) {
        EXPECT_EQ(film.frames[i].picture.bytes(), all[i].picture.bytes()) << what << ", frame " << i;
        EXPECT_NEAR(film.frames[i].seconds, all[i].seconds, 1e-9) << what << ", frame " << i;
    }
}

constexpr std::array moving{FileFormat::png, FileFormat::gif, FileFormat::webp};

TEST(Frames, ComeBackPixelForPixelAndTimeForTime) {
    for (const auto format : moving) {
        for (const auto has_alpha : {false, true}) {
            for (const auto count : {1, 2, 12}) {
                for (const auto loops : {0, 1, 5}) {
                    const auto all = shots(count, has_alpha);
                    const auto bytes = written(all, format, {.loops = loops});
                    const auto film = load_frames(bytes);
                    const auto what = std::string{name_of(format)} + " of " + std::to_string(count);
                    EXPECT_EQ(film.size, (Size{31, 23}));
                    if (count == 1) {
                        EXPECT_EQ(film.frames[0].picture.bytes(), all[0].picture.bytes()) << what;
                        continue;
                    }
                    expect_film(film, all, what);
                    EXPECT_EQ(film.loops, loops) << what;
                    // load() reads the first, and says what there is.
                    const auto first = load_any(bytes);
                    EXPECT_EQ(first.as<Rgba8>().bytes(), all[0].picture.bytes()) << what;
                    EXPECT_EQ(first.info.frames, count) << what;
                    EXPECT_EQ(first.info.loops, loops) << what;
                    EXPECT_NEAR(first.info.seconds, film.info.seconds, 1e-9) << what;
                }
            }
        }
    }
}

// Other formats of pixels, which the same file can hold.
template <PixelFormat Format>
void expect_back(const std::string& what) {
    std::vector<Bitmap<Format>> frames;
    std::ostringstream stream;
    FrameWriter writer{stream, FileFormat::png, {}};
    for (int i = 0; i < 5; ++i) {
        frames.emplace_back(Size{20, 9}, colors::navy);
        fill(frames.back(), Box{.at = {i * 3, i}, .size = {5, 3}}, colors::gold);
        writer.add(frames.back(), 0.5);
    }
    writer.finish();
    const auto text = stream.str();
    const auto film = load_frames(std::vector<std::uint8_t>{text.begin(), text.end()});
    ASSERT_EQ(film.frames.size(), 5U) << what;
    for (std::size_t i = 0; i < 5; ++i) {
        EXPECT_EQ(film.frames[i].picture.bytes(), convert<Rgba8>(frames[i]).bytes()) << what << " " << i;
    }
}

TEST(Frames, OfAnyPixelFormatAreAnimatedPng) {
    expect_back<Gray8>("gray");
    expect_back<Rgb8>("rgb");
    expect_back<Bgra8>("bgra");
    expect_back<Index8>("palette");
    expect_back<Gray16>("gray of 16 bits");
    expect_back<Rgba16>("rgba of 16 bits");
}

TEST(Frames, OnlyWhatChangesIsWritten) {
    std::mt19937 random{7};
    Bitmap<Rgb8> noise{{200, 150}};
    for (int y = 0; y < 150; ++y) {
        for (int x = 0; x < 200; ++x) {
            mark(noise, {x, y},
                 Color{static_cast<std::uint8_t>(random()), static_cast<std::uint8_t>(random() % 4 * 60), 0});
        }
    }
    for (const auto format : moving) {
        const auto bytes_of = [&](int count) {
            auto sheet = noise;
            std::ostringstream stream;
            FrameWriter writer{stream, format, {.colors = 64, .dithering = Dithering::ordered}};
            for (int i = 0; i < count; ++i) {
                fill(sheet, Box{.at = {i * 5, 70}, .size = {4, 4}}, colors::white);
                writer.add(sheet, 0.04);
            }
            return writer.finish();
        };
        EXPECT_LT(bytes_of(20), bytes_of(1) + 20 * 500) << name_of(format);
    }
}

// GIF has few colours: each pixel is one of the palette's, and none is far away.
TEST(Frames, OfManyColoursAreNearInGif) {
    std::vector<Shot> all;
    for (int i = 0; i < 4; ++i) {
        const auto step = is_sanitized ? 2 : 1;
        Bitmap<Rgba8> sheet{{64 / step, 48 / step}};
        for (int y = 0; y < 48 / step; ++y) {
            for (int x = 0; x < 64 / step; ++x) {
                const auto byte = [step](int value) { return static_cast<std::uint8_t>(value * step); };
                mark(sheet, {x, y}, Color{byte(x * 4), byte(y * 5), static_cast<std::uint8_t>(i * 40 + 30)});
            }
        }
        all.push_back({sheet, 0.1});
    }
    for (const auto palettes : {FrameOptions::Palettes::each, FrameOptions::Palettes::all}) {
        for (const auto dithering : {Dithering::none, Dithering::ordered, Dithering::diffused}) {
            const auto film =
                load_frames(written(all, FileFormat::gif, {.palettes = palettes, .dithering = dithering}));
            ASSERT_EQ(film.frames.size(), 4U);
            for (std::size_t i = 0; i < 4; ++i) {
                const auto& now = film.frames[i].picture;
                std::set<std::array<std::uint8_t, 3>> seen;
                auto sum = 0.0;
                auto mean_wanted = 0.0;
                auto mean_found = 0.0;
                for (std::size_t k = 0; k < now.bytes().size(); ++k) {
                    sum += std::abs(now.bytes()[k] - all[i].picture.bytes()[k]);
                    mean_wanted += all[i].picture.bytes()[k];
                    mean_found += now.bytes()[k];
                    if (k % 4 == 0) seen.insert({now.bytes()[k], now.bytes()[k + 1], now.bytes()[k + 2]});
                }
                const auto count = static_cast<double>(now.bytes().size());
                EXPECT_LE(seen.size(), 256U * (palettes == FrameOptions::Palettes::each ? 4 : 1));
                EXPECT_LT(sum / count, 6) << static_cast<int>(dithering);
                EXPECT_NEAR(mean_found / count, mean_wanted / count, 2);
            }
        }
    }
    // Lossy WebP is near, too.
    const auto film = load_frames(written(all, FileFormat::webp, {.quality = 50}));
    for (std::size_t i = 0; i < 4; ++i) {
        auto sum = 0.0;
        for (std::size_t k = 0; k < film.frames[i].picture.bytes().size(); ++k) {
            sum += std::abs(film.frames[i].picture.bytes()[k] - all[i].picture.bytes()[k]);
        }
        EXPECT_LT(sum / static_cast<double>(film.frames[i].picture.bytes().size()), 8);
    }
}

TEST(Frames, TimesAddUpToWhatTheyAre) {
    for (const auto format : moving) {
        std::vector<Shot> all;
        for (int i = 0; i < 60; ++i)
            all.push_back({Bitmap<Rgba8>{{4, 4}, Color{static_cast<std::uint8_t>(i), 0, 0}}, 1.0 / 60});
        const auto film = load_frames(written(all, format));
        EXPECT_NEAR(film.info.seconds, 1, 1e-9) << name_of(format);
        EXPECT_NEAR(film.frames[30].seconds, 1.0 / 60, format == FileFormat::gif ? 0.007 : 0.0007);
    }
}

TEST(Frames, WrongCallsAreRefused) {
    std::ostringstream stream;
    const Bitmap<Rgb8> small{{4, 4}};
    const auto fault = [](const auto& call) { return error_of(call); };
    EXPECT_NE(fault([&] {
                  FrameWriter{stream, FileFormat::jpeg};
              }).find("a jpeg file holds one picture"),
              std::string::npos);
    EXPECT_NE(fault([&] { FrameWriter{"a.jpg"}; }).find("{frame} in the name writes one file for each"),
              std::string::npos);
    EXPECT_NE(fault([&] {
                  FrameWriter{stream, FileFormat::png, {.loops = -1}};
              }).find("loops is -1; allowed is 0 to 65535"),
              std::string::npos);
    EXPECT_NE(fault([&] {
                  FrameWriter{stream, FileFormat::gif, {.colors = 1}};
              }).find("colors is 1; allowed is 2 to 256"),
              std::string::npos);
    EXPECT_NE(fault([&] {
                  FrameWriter{stream, FileFormat::webp, {.quality = 101}};
              }).find("quality is 101"),
              std::string::npos);
    EXPECT_NE(fault([&] { FrameWriter{"t-{frame:x}.png"}; }).find("{frame:03} for three digits at least"),
              std::string::npos);
    FrameWriter writer{stream, FileFormat::png};
    EXPECT_NE(fault([&] { writer.finish(); }).find("there is none"), std::string::npos);
    for (const auto seconds : {-0.1, 66.0, std::nan(""), HUGE_VAL}) {
        EXPECT_NE(fault([&] { writer.add(small, seconds); }).find("frame 0: it is to be shown for"), std::string::npos);
    }
    writer.add(small, 0.1);
    EXPECT_NE(fault([&] {
                  writer.add(Bitmap<Rgb8>{{5, 4}}, 0.1);
              }).find("frame 1: its size is 5 x 4"),
              std::string::npos);
    EXPECT_NE(fault([&] {
                  writer.add(Bitmap<Rgba8>{{4, 4}}, 0.1);
              }).find("frame 1: png: it has 4 channels"),
              std::string::npos);
    EXPECT_EQ(writer.count(), 1);
    writer.finish();
    EXPECT_NE(fault([&] { writer.add(small, 0.1); }).find("the file has been finished"), std::string::npos);
    EXPECT_NE(fault([&] {
                  (void)encode(Bitmap<Rgba8>{{4, 4}, Color{9, 9, 9, 99}}, FileFormat::gif);
              }).find("translucent"),
              std::string::npos);
    EXPECT_NE(fault([&] { (void)encode(Bitmap<Rgba16>{{4, 4}}, FileFormat::webp); }).find("16"), std::string::npos);
}

// A file that is cut or damaged anywhere is refused, or read as something; but it harms nothing.
TEST(Frames, DamagedFilesAreRefused) {
    const auto all = shots(4, true, 20);
    for (const auto format : moving) {
        const auto whole = written(all, format);
        auto refused = 0;
        for (std::size_t length = 0; length < whole.size(); length += 1 + length / 40) {
            const std::vector<std::uint8_t> cut{whole.begin(), whole.begin() + static_cast<std::ptrdiff_t>(length)};
            refused += error_of([&] { (void)load_frames(cut); }) != "no error" ? 0 : 1;
        }
        EXPECT_EQ(refused, 0) << name_of(format) << ": files that are cut are read";
        std::mt19937 random{9};
        for (int i = 0; i < 300; ++i) {
            auto damaged = whole;
            for (int k = 0; k < 3; ++k) damaged[random() % damaged.size()] = static_cast<std::uint8_t>(random());
            try {
                const auto film = load_frames(damaged, {.pixels = 1 << 20, .memory = 1 << 24});
                EXPECT_LE(film.frames.size() * static_cast<std::size_t>(film.size.width) *
                              static_cast<std::size_t>(film.size.height) * 4,
                          std::size_t{1} << 24U);
            } catch (const Error&) {
                continue;
            }
        }
        EXPECT_NE(error_of([&] { (void)load_frames(whole, {.memory = 3 * 31 * 23 * 4}); }).find("limit memory"),
                  std::string::npos);
        EXPECT_NE(error_of([&] { (void)load_frames(whole, {.side = 30}); }).find("its size is 31 x 23"),
                  std::string::npos);
    }
}

class FrameFiles : public FolderTest {
  protected:
    // What another program prints that is called in the folder.
    std::string output_of(const std::string& command) {
        EXPECT_EQ(std::system(("cd '" + folder().string() + "' && " + command + " >.out 2>.err").c_str()), 0)
            << content(path(".err"));
        return content(path(".out"));
    }
};

TEST_F(FrameFiles, AppearCompleteOrNotAtAll) {
    const auto all = shots(3, false);
    {
        FrameWriter writer{path("tide.png")};
        writer.add(all[0].picture, 0.1);
        EXPECT_EQ(file_count(), 0U);
    }
    EXPECT_EQ(file_count(), 0U) << "without finish() there is no file";
    FrameWriter numbered{path("tide-{frame:03}.qoi"), {.first_number = 8}};
    for (const auto& [picture, seconds] : all) numbered.add(picture, seconds);
    numbered.finish();
    EXPECT_EQ(file_count(), 3U);
    EXPECT_EQ(load<Rgba8>(path("tide-010.qoi")).bytes(), all[2].picture.bytes());
    EXPECT_EQ(frame_name("a/{frame}-{frame:04}.png", 7), "a/7-0007.png");
    FrameWriter nowhere{path("none/tide.gif")};
    nowhere.add(all[0].picture, 0.1);
    EXPECT_NE(error_of([&] { nowhere.finish(); }).find("cannot be written"), std::string::npos);
}

// Frames taken out by another program: its pixels and its times.
TEST_F(FrameFiles, ArePlayedByAnother) {
    for (const auto has_alpha : {false, true}) {
        for (const auto* const name : {"tide.png", "tide.gif"}) {
            const auto all = shots(9, has_alpha, 60, 5);
            FrameWriter writer{path(name)};
            for (const auto& [picture, seconds] : all) writer.add(picture, seconds);
            writer.finish();
            const auto raw = output_of("ffmpeg -v error -i " + std::string{name} +
                                       " -fps_mode passthrough -f rawvideo -pix_fmt rgba -");
            ASSERT_EQ(raw.size(), 9U * 31 * 23 * 4) << name;
            for (std::size_t i = 0; i < 9; ++i) {
                const auto& wanted = all[i].picture.bytes();
                auto different = 0;
                for (std::size_t k = 0; k < wanted.size(); k += 4) {
                    const auto* const found = reinterpret_cast<const std::uint8_t*>(raw.data()) + i * wanted.size() + k;
                    // What is not seen may have any colour.
                    const auto is_same =
                        found[3] == wanted[k + 3] && (wanted[k + 3] == 0 || std::equal(found, found + 3, &wanted[k]));
                    different += is_same ? 0 : 1;
                }
                EXPECT_EQ(different, 0) << name << ", frame " << i << (has_alpha ? ", with alpha" : "");
            }
            const auto times =
                output_of("ffprobe -v error -show_entries frame=pts_time -of csv=p=0 " + std::string{name});
            std::istringstream lines{times};
            auto at = 0.0;
            for (const auto& shot : all) {
                auto told = 0.0;
                std::string line;
                std::getline(lines, line);
                told = std::stod(line);
                EXPECT_NEAR(told, at, 1e-6) << name;
                at += shot.seconds;
            }
        }
    }
}

// Files that another program has written: what it takes out of them is what is read here.
TEST_F(FrameFiles, OfAnotherAreRead) {
    const std::string source = "ffmpeg -v error -f lavfi -i testsrc2=size=48x36:rate=10:duration=1 ";
    for (const auto* const name : {"other.gif", "other.png"}) {
        const auto kind = std::string{name}.ends_with("png") ? "-f apng -plays 3 " : "-loop 2 ";
        output_of(source + kind + name);
        const auto raw =
            output_of("ffmpeg -v error -i " + std::string{name} + " -fps_mode passthrough -f rawvideo -pix_fmt rgba -");
        const auto film = load_frames(path(name));
        EXPECT_EQ(film.loops, 3) << name;
        ASSERT_EQ(film.frames.size() * 48 * 36 * 4, raw.size()) << name;
        EXPECT_NEAR(film.info.seconds, 1, 1e-9) << name;
        std::string ours;
        for (const auto& frame : film.frames) ours.append(frame.picture.bytes().begin(), frame.picture.bytes().end());
        EXPECT_EQ(ours == raw, true) << name;
    }
}

// WebP that another program has written without loss: its frames are those that it was given.
TEST_F(FrameFiles, WebpOfAnotherIsRead) {
    const std::string source = "ffmpeg -v error -f lavfi -i testsrc=size=48x36:rate=10:duration=1 ";
    const auto raw = output_of(source + "-f rawvideo -pix_fmt rgba -");
    output_of(source + "-c:v libwebp_anim -pix_fmt bgra -lossless 1 -loop 2 other.webp");
    const auto film = load_frames(path("other.webp"));
    EXPECT_EQ(film.loops, 2);
    EXPECT_NEAR(film.info.seconds, 1, 1e-9);
    std::string ours;
    for (const auto& frame : film.frames) ours.append(frame.picture.bytes().begin(), frame.picture.bytes().end());
    EXPECT_EQ(ours == raw, true);
}

}  // namespace
