// Moving pictures put together byte by byte: how frames are laid on and taken away, and files that lie.
#include "folder_test.hpp"
#include "gif_builder.hpp"
#include "picture_files.hpp"
#include "png_builder.hpp"

#include <coldbrick/coldbrick.hpp>

#include <array>
#include <functional>
#include <random>

namespace {

using namespace coldbrick;
using oracle::Bytes;
using oracle::put_little;

constexpr Size film_size{9, 7};

// A frame of an animated PNG, of RGBA.
struct PngFrame {
    Box box;
    std::vector<Color> pixels;
    int disposal;  // 0: stays, 1: is cleared, 2: becomes what was there
    int blend;     // 0: in place, 1: over
    int ticks;     // of 50 to a second
};

Bytes control_of(const PngFrame& frame, std::uint32_t number) {
    Bytes control;
    for (const auto value :
         {static_cast<int>(number), frame.box.size.width, frame.box.size.height, frame.box.at.x, frame.box.at.y}) {
        oracle::put_big(control, static_cast<std::uint32_t>(value));
    }
    oracle::put_big(control, static_cast<std::uint32_t>(frame.ticks), 2);
    oracle::put_big(control, 50, 2);
    control.push_back(static_cast<std::uint8_t>(frame.disposal));
    control.push_back(static_cast<std::uint8_t>(frame.blend));
    return control;
}

Bytes compressed(const PngFrame& frame) {
    Bytes rows;
    for (int y = 0; y < frame.box.size.height; ++y) {
        rows.push_back(0);
        for (int x = 0; x < frame.box.size.width; ++x) {
            const auto color = frame.pixels[static_cast<std::size_t>(y * frame.box.size.width + x)];
            rows.insert(rows.end(), {color.red, color.green, color.blue, color.alpha});
        }
    }
    return oracle::deflated(rows);
}

// How a file is to lie.
struct Lies {
    std::uint32_t frames = 0;                    // more than there are
    std::uint32_t number = 0;                    // added to the second frame's
    bool is_still_first = false;                 // the picture for those that know no frames is none of them
    bool leaves_pixels_out = false;              // of the last frame
    std::function<void(PngFrame&)> change = {};  // the second frame
};

Bytes png_film(std::vector<PngFrame> frames, const Lies& lies = {}) {
    if (lies.change) lies.change(frames[1]);
    Bytes file{0x89, 'P', 'N', 'G', '\r', '\n', 0x1a, '\n'};
    Bytes header;
    oracle::put_big(header, film_size.width);
    oracle::put_big(header, film_size.height);
    header.insert(header.end(), {8, 6, 0, 0, 0});
    oracle::put_chunk(file, "IHDR", header);
    Bytes told;
    oracle::put_big(told, static_cast<std::uint32_t>(frames.size()) + lies.frames);
    oracle::put_big(told, 4);
    oracle::put_chunk(file, "acTL", told);
    std::uint32_t number = 0;
    if (lies.is_still_first) {
        auto still = frames[0];
        still.pixels.assign(still.pixels.size(), colors::hotpink);
        oracle::put_chunk(file, "IDAT", compressed(still));
    }
    for (std::size_t i = 0; i < frames.size(); ++i) {
        oracle::put_chunk(file, "fcTL", control_of(frames[i], number++ + (i == 1 ? lies.number : 0)));
        if (i == 0 && !lies.is_still_first) {
            oracle::put_chunk(file, "IDAT", compressed(frames[i]));
            continue;
        }
        if (lies.leaves_pixels_out && i + 1 == frames.size()) continue;
        // In two chunks.
        const auto pixels = compressed(frames[i]);
        const auto middle = pixels.begin() + static_cast<std::ptrdiff_t>(pixels.size() / 2);
        for (const auto& half : {Bytes{pixels.begin(), middle}, Bytes{middle, pixels.end()}}) {
            Bytes part;
            oracle::put_big(part, number++);
            part.insert(part.end(), half.begin(), half.end());
            oracle::put_chunk(file, "fdAT", part);
        }
    }
    oracle::put_chunk(file, "IEND", {});
    return file;
}

Color random_color(std::mt19937& random, bool may_be_translucent) {
    const auto channel = [&] { return static_cast<std::uint8_t>(random()); };
    const auto alpha = may_be_translucent ? std::array<std::uint8_t, 3>{0, 255, 128}[random() % 3] : std::uint8_t{255};
    return {channel(), channel(), channel(), alpha};
}

std::vector<PngFrame> random_frames(unsigned seed) {
    std::mt19937 random{seed};
    std::vector<PngFrame> frames;
    for (int i = 0; i < 8; ++i) {
        const auto at = i == 0 ? Point{} : Point{static_cast<int>(random() % 5), static_cast<int>(random() % 4)};
        const auto size = i == 0
                              ? film_size
                              : Size{1 + static_cast<int>(random() % static_cast<unsigned>(film_size.width - at.x)),
                                     1 + static_cast<int>(random() % static_cast<unsigned>(film_size.height - at.y))};
        PngFrame frame{.box = {.at = at, .size = size},
                       .pixels = {},
                       .disposal = static_cast<int>(random() % 3),
                       .blend = static_cast<int>(random() % 2),
                       .ticks = static_cast<int>(random() % 60)};
        for (int k = 0; k < size.width * size.height; ++k) frame.pixels.push_back(random_color(random, true));
        frames.push_back(frame);
    }
    return frames;
}

// The standard's rules, pixel by pixel.
std::vector<Bitmap<Rgba8>> shown(const std::vector<PngFrame>& frames) {
    std::vector<Bitmap<Rgba8>> all;
    Bitmap<Rgba8> canvas{film_size, Color{.alpha = 0}};
    for (std::size_t i = 0; i < frames.size(); ++i) {
        const auto& frame = frames[i];
        const auto before = canvas;
        const auto put = [&](Point at, Color color, Blend blend) {
            fill(canvas, Box{.at = at, .size = {1, 1}}, Ink{color, {.blend = blend}});
        };
        for (int y = 0; y < frame.box.size.height; ++y) {
            for (int x = 0; x < frame.box.size.width; ++x) {
                put({frame.box.at.x + x, frame.box.at.y + y},
                    frame.pixels[static_cast<std::size_t>(y * frame.box.size.width + x)],
                    frame.blend == 0 ? Blend::replace : Blend::over);
            }
        }
        all.push_back(canvas);
        // What was there before the first frame is nothing.
        if (frame.disposal == 2 && i > 0) canvas = before;
        if (frame.disposal == 1 || (frame.disposal == 2 && i == 0)) clear(canvas.within(frame.box), Color{.alpha = 0});
    }
    return all;
}

TEST(FilmFiles, FramesOfPngAreLaidOnAsTheStandardSays) {
    for (unsigned seed = 1; seed <= 20; ++seed) {
        const auto frames = random_frames(seed);
        const auto expected = shown(frames);
        const auto film = load_frames(png_film(frames));
        ASSERT_EQ(film.frames.size(), expected.size());
        EXPECT_EQ(film.loops, 4);
        for (std::size_t i = 0; i < expected.size(); ++i) {
            EXPECT_EQ(film.frames[i].picture.bytes(), expected[i].bytes()) << "seed " << seed << ", frame " << i;
            EXPECT_NEAR(film.frames[i].seconds, frames[i].ticks / 50.0, 1e-9);
        }
    }
}

void put_webp_chunk(Bytes& to, const std::string& kind, const Bytes& content) {
    to.insert(to.end(), kind.begin(), kind.end());
    put_little(to, static_cast<std::uint32_t>(content.size()), 4);
    to.insert(to.end(), content.begin(), content.end());
    if (content.size() % 2 != 0) to.push_back(0);
}

// Moving WebP (RFC 9649), frame by frame as it is said.
Bytes webp_film(const std::vector<PngFrame>& frames, Size canvas) {
    Bytes chunks;
    Bytes extended{0x12, 0, 0, 0};  // frames and alpha
    put_little(extended, static_cast<std::uint32_t>(canvas.width - 1), 3);
    put_little(extended, static_cast<std::uint32_t>(canvas.height - 1), 3);
    put_webp_chunk(chunks, "VP8X", extended);
    put_webp_chunk(chunks, "ANIM", {0, 0, 0, 0, 4, 0});
    for (const auto& frame : frames) {
        Bitmap<Rgba8> pixels{frame.box.size};
        for (int k = 0; k < static_cast<int>(frame.pixels.size()); ++k) {
            const auto width = frame.box.size.width;
            fill(pixels, Box{{k % width, k / width}, {1, 1}},
                 Ink{frame.pixels[static_cast<std::size_t>(k)], {.blend = Blend::replace}});
        }
        const auto still = encode(pixels, FileFormat::webp);
        Bytes content;
        for (const auto number : {frame.box.at.x / 2, frame.box.at.y / 2, frame.box.size.width - 1,
                                  frame.box.size.height - 1, frame.ticks * 20}) {
            put_little(content, static_cast<std::uint32_t>(number), 3);
        }
        content.push_back(static_cast<std::uint8_t>((frame.blend == 0 ? 2 : 0) + frame.disposal));
        content.insert(content.end(), still.begin() + 12, still.end());
        put_webp_chunk(chunks, "ANMF", content);
    }
    Bytes file{'R', 'I', 'F', 'F'};
    put_little(file, static_cast<std::uint32_t>(chunks.size()) + 4, 4);
    file.insert(file.end(), {'W', 'E', 'B', 'P'});
    file.insert(file.end(), chunks.begin(), chunks.end());
    return file;
}

TEST(FilmFiles, FramesOfWebpAreLaidOnAsTheStandardSays) {
    for (unsigned seed = 1; seed <= 12; ++seed) {
        auto frames = random_frames(seed);
        for (auto& frame : frames) {
            frame.box.at = {frame.box.at.x / 2 * 2, frame.box.at.y / 2 * 2};
            frame.disposal %= 2;
            // Of pixels that are not seen, encoders choose the colours.
            for (auto& color : frame.pixels) color.alpha = std::max<std::uint8_t>(color.alpha, 1);
        }
        const auto file = webp_film(frames, film_size);
        const auto expected = shown(frames);
        const auto film = load_frames(file);
        ASSERT_EQ(film.frames.size(), expected.size());
        EXPECT_EQ(film.loops, 4);
        for (std::size_t i = 0; i < expected.size(); ++i) {
            EXPECT_EQ(film.frames[i].picture.bytes(), expected[i].bytes()) << "seed " << seed << ", frame " << i;
            EXPECT_NEAR(film.frames[i].seconds, frames.size() > 1 ? frames[i].ticks / 50.0 : 0, 1e-9);
        }
        EXPECT_EQ(load<Rgba8>(file).bytes(), expected[0].bytes());
        EXPECT_EQ(load_any(file).info.frames, static_cast<int>(frames.size()));
        for (std::size_t length = 12; length < file.size(); length += 37) {
            EXPECT_THROW((void)load_frames(Bytes(file.begin(), file.begin() + static_cast<std::ptrdiff_t>(length))),
                         Error);
        }
    }
}

// Time that grows with the square of the frames would be minutes here.
TEST(FilmFiles, ManyFramesOfWebpAreReadOneAfterTheOther) {
    const PngFrame one{.box = {{0, 0}, {1, 1}}, .pixels = {colors::gold}, .disposal = 0, .blend = 0, .ticks = 1};
    const auto file = webp_film(std::vector<PngFrame>(25'000, one), {1, 1});
    EXPECT_EQ(load_frames(file).frames.size(), 25'000U);
    EXPECT_NEAR(load_any(file).info.seconds, 500, 1e-6);
}

// Of palettes that come again and again, the first counts, and the others are not kept for each frame.
TEST(FilmFiles, RepeatedChunksOfPngAreNotCopiedForEachFrame) {
    const PngFrame one{.box = {{0, 0}, {1, 1}}, .pixels = {colors::gold}, .disposal = 0, .blend = 0, .ticks = 1};
    auto whole = one;
    whole.box.size = film_size;
    whole.pixels.resize(static_cast<std::size_t>(film_size.width * film_size.height), colors::gold);
    std::vector<PngFrame> frames(3000, one);
    frames.front() = whole;
    auto file = png_film(frames);
    Bytes more;
    for (int i = 0; i < 3000; ++i) put_chunk(more, "tRNS", Bytes(6));
    const auto header = std::ptrdiff_t{8 + 25};
    file.insert(file.begin() + header, more.begin(), more.end());
    EXPECT_NO_THROW((void)load_frames(file));
}

TEST(FilmFiles, APictureForThoseThatKnowNoFramesIsNoneOfThem) {
    const auto frames = random_frames(3);
    const auto file = png_film(frames, {.is_still_first = true});
    const auto film = load_frames(file);
    ASSERT_EQ(film.frames.size(), frames.size());
    EXPECT_EQ(film.frames[0].picture.bytes(), shown(frames)[0].bytes());
    EXPECT_EQ(load<Rgba8>(file).color_at({0, 0}), colors::hotpink);
}

TEST(FilmFiles, OfPngThatLieAreRefused) {
    const auto frames = random_frames(5);
    const auto fault = [&](const Lies& lies, const LoadLimits& limits = {}) {
        return error_of([&] { (void)load_frames(png_film(frames, lies), limits); });
    };
    const auto expect_part = [](const std::string& text, const std::string& part) {
        EXPECT_NE(text.find(part), std::string::npos) << text;
    };
    expect_part(fault({.frames = 1}), "it says that it has 9 frames, and has 8");
    expect_part(fault({.frames = 1U << 30U}), "limit memory");
    expect_part(fault({.number = 1}), "the chunks of its frames are not in order");
    expect_part(fault({.leaves_pixels_out = true}), "a frame has no pixels");
    expect_part(fault({.change = [](PngFrame& frame) { frame.box.at.x = 9; }}), "beyond the picture's edges");
    expect_part(fault({.change = [](PngFrame& frame) { frame.box.at.x = -1; }}), "beyond the picture's edges");
    expect_part(fault({.change = [](PngFrame& frame) { frame.box.size.height = 0; }}), "beyond the picture's edges");
    expect_part(fault({.change = [](PngFrame& frame) { frame.disposal = 3; }}), "in a way that there is not");
    expect_part(fault({.change = [](PngFrame& frame) { frame.blend = 2; }}), "in a way that there is not");
    expect_part(fault({}, {.memory = 5 * 9 * 7 * 4}), "limit memory");
    auto damaged = png_film(frames);
    damaged[damaged.size() - 20] ^= 1U;
    EXPECT_NE(error_of([&] { (void)load_frames(damaged); }), "no error");
}

// Frames of four colours, as GIF has them.
std::vector<gif::Picture> random_pictures(unsigned seed) {
    std::mt19937 random{seed};
    std::vector<gif::Picture> pictures;
    for (int i = 0; i < 8; ++i) {
        const auto at = Point{static_cast<int>(random() % 5), static_cast<int>(random() % 4)};
        const auto size = Size{1 + static_cast<int>(random() % static_cast<unsigned>(film_size.width - at.x)),
                               1 + static_cast<int>(random() % static_cast<unsigned>(film_size.height - at.y))};
        gif::Picture picture{.box = {.at = at, .size = size},
                             .numbers = {},
                             .ticks = static_cast<int>(random() % 90),
                             .disposal = static_cast<int>(random() % 4),
                             .transparent = static_cast<int>(random() % 5) - 1};
        for (int k = 0; k < size.width * size.height; ++k) picture.numbers.push_back(static_cast<int>(random() % 4));
        pictures.push_back(picture);
    }
    return pictures;
}

TEST(FilmFiles, FramesOfGifAreLaidOnAsTheStandardSays) {
    const std::vector<Color> palette{colors::red, colors::teal, colors::gold, colors::white};
    for (unsigned seed = 1; seed <= 20; ++seed) {
        const auto pictures = random_pictures(seed);
        auto file = gif::begin(film_size, palette);
        gif::add_loops(file, 6);
        for (const auto& picture : pictures) gif::add(file, picture);
        const auto film = load_frames(gif::ended(file));
        ASSERT_EQ(film.frames.size(), pictures.size());
        EXPECT_EQ(film.loops, 7);
        Bitmap<Rgba8> canvas{film_size, Color{.alpha = 0}};
        for (std::size_t i = 0; i < pictures.size(); ++i) {
            const auto& picture = pictures[i];
            const auto before = canvas;
            for (int y = 0; y < picture.box.size.height; ++y) {
                for (int x = 0; x < picture.box.size.width; ++x) {
                    const auto number = picture.numbers[static_cast<std::size_t>(y * picture.box.size.width + x)];
                    if (number == picture.transparent) continue;
                    mark(canvas, {picture.box.at.x + x, picture.box.at.y + y},
                         palette[static_cast<std::size_t>(number)]);
                }
            }
            EXPECT_EQ(film.frames[i].picture.bytes(), canvas.bytes()) << "seed " << seed << ", frame " << i;
            EXPECT_NEAR(film.frames[i].seconds, picture.ticks / 100.0, 1e-9);
            if (picture.disposal == 2) clear(canvas.within(picture.box), Color{.alpha = 0});
            if (picture.disposal == 3) canvas = before;
        }
    }
}

TEST(FilmFiles, InterlacedRowsOfGifComeInFourPasses) {
    const std::vector<Color> palette{colors::red, colors::teal, colors::gold, colors::white};
    gif::Picture picture{.box = {.at = {}, .size = {3, 19}}, .numbers = {}, .is_interlaced = true};
    for (const auto& [first, step] : {std::pair{0, 8}, std::pair{4, 8}, std::pair{2, 4}, std::pair{1, 2}}) {
        for (int y = first; y < 19; y += step) {
            for (int x = 0; x < 3; ++x) picture.numbers.push_back((y + x) % 4);
        }
    }
    auto file = gif::begin({3, 19}, palette);
    gif::add(file, picture);
    const auto loaded = load_any(gif::ended(file));
    EXPECT_TRUE(loaded.info.is_interlaced);
    const auto pixels = loaded.as<Rgb8>();
    for (int y = 0; y < 19; ++y) {
        for (int x = 0; x < 3; ++x) EXPECT_EQ(pixels.color_at({x, y}), palette[static_cast<std::size_t>((y + x) % 4)]);
    }
}

TEST(FilmFiles, OfGifThatLieAreRefused) {
    const std::vector<Color> palette{colors::red, colors::teal, colors::gold, colors::white};
    const auto fault = [&](const gif::Picture& picture, Size size = film_size) {
        auto file = gif::begin(size, palette);
        gif::add(file, picture);
        return error_of([&] { (void)load_frames(gif::ended(file)); });
    };
    const gif::Picture sound{.box = {.at = {}, .size = {2, 2}}, .numbers = {0, 1, 2, 3}};
    EXPECT_EQ(fault(sound), "no error");
    auto wrong = sound;
    wrong.box.at = {8, 0};
    EXPECT_NE(fault(wrong).find("one of its pictures lies beyond its edges"), std::string::npos);
    wrong = sound;
    wrong.box.size = {0, 2};
    EXPECT_NE(fault(wrong).find("gif: "), std::string::npos);
    wrong = sound;
    wrong.numbers = {0, 1};
    EXPECT_NE(fault(wrong).find("gif: "), std::string::npos) << "pixels are missing";
    EXPECT_NE(fault(sound, {0, 7}).find("its size is 0 x 7"), std::string::npos);
    EXPECT_NE(error_of([&] {
                  (void)load_frames(gif::ended(gif::begin(film_size, palette)));
              }).find("there is no picture in it"),
              std::string::npos);
    // Very many pictures of very many pixels take no more than they may.
    auto many = gif::begin({2000, 2000}, palette);
    for (int i = 0; i < 10000; ++i) gif::add(many, sound);
    EXPECT_NE(error_of([&] { (void)load_frames(gif::ended(many), {.memory = 1 << 27}); }).find("limit memory"),
              std::string::npos);
}

TEST(FilmFiles, OrderedColoursStayWhereTheyAre) {
    std::mt19937 random{2};
    Bitmap<Rgb8> photo{{40, 30}};
    for (int y = 0; y < 30; ++y) {
        for (int x = 0; x < 40; ++x) mark(photo, {x, y}, random_color(random, false));
    }
    const auto few = palette_for(photo, 16);
    const auto whole = ordered(photo, few);
    // A part of the picture has the pixels that it has in the whole one.
    const auto part = ordered(photo.within({.at = {11, 5}, .size = {17, 19}}), few);
    for (int y = 0; y < 19; ++y) {
        for (int x = 0; x < 17; ++x) EXPECT_EQ(part.color_at({x, y}), whole.color_at({x + 11, y + 5}));
    }
    // Colours that the palette has stay exactly what they are.
    const auto again = ordered(whole, few);
    EXPECT_EQ(again.bytes(), whole.bytes());
}

}  // namespace
