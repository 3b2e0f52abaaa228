// Memory while files and scenes are read and written: how much is taken, and what happens when it runs out.
#include "failing_memory.hpp"
#include "folder_test.hpp"
#include "picture_files.hpp"

#include <coldbrick/color_names.hpp>
#include <coldbrick/error.hpp>
#include <coldbrick/save_drawing.hpp>
#include <coldbrick/scene.hpp>

#include <filesystem>

#include <sys/wait.h>
#include <unistd.h>

namespace {

using namespace coldbrick;
using namespace oracle;
using failing_memory::fail_in_turn;
using failing_memory::peak_in;

struct Kind {
    std::string name;
    Bytes file;
};

Bytes png_of_noise(Size size, int bits, bool interlaced) {
    return png_file(
        {.width = size.width,
         .height = size.height,
         .bits = bits,
         .kind = 6,
         .interlaced = interlaced,
         .filter = [](int row) { return row % 5; },
         .sample = [](int x, int y, int channel) { return static_cast<unsigned>(x * 7 + y * 13 + channel); }});
}

// A picture of every kind.
std::vector<Kind> files(Size size) {
    Dice dice{11};
    const auto picture = noise<Rgba8>(dice, size);
    const auto opaque = convert<Rgb8>(picture);
    std::vector<Kind> kinds{{"png", encode(picture, FileFormat::png)},
                            {"png of 16 bits", png_of_noise(size, 16, false)},
                            {"interlaced png", png_of_noise(size, 16, true)},
                            {"jpeg", encode(opaque, FileFormat::jpeg)},
                            {"plain ppm", encode(opaque, FileFormat::ppm, {.notation = Notation::plain})}};
    for (const auto format : {FileFormat::pam, FileFormat::qoi, FileFormat::bmp}) {
        kinds.push_back({std::string{name_of(format)}, encode(picture, format)});
    }
    kinds.push_back({"pgm", encode(convert<Gray8>(opaque), FileFormat::pgm)});
    kinds.push_back({"png of a palette", encode(convert<Index8>(opaque), FileFormat::png)});
    kinds.push_back({"bmp of a palette", encode(convert<Index8>(opaque), FileFormat::bmp)});
    return kinds;
}

template <PixelFormat Format>
void expect_little_memory(const Kind& kind, Size size) {
    constexpr auto besides = 100'000;
    const auto pixels = long{size.width} * size.height * bytes_per_pixel<Format>;
    EXPECT_LE(peak_in([&] { (void)load<Format>(kind.file); }), 2 * pixels + besides) << kind.name;
}

TEST(FileMemory, ReadingTakesTwiceThePixelsAtMost) {
    constexpr auto size = Size{.width = 700, .height = 500};
    const std::vector<Point> places{{0, 0}, {699, 499}, {350, 20}};
    for (const auto& kind : files(size)) {
        expect_little_memory<Gray8>(kind, size);
        expect_little_memory<Rgb8>(kind, size);
        expect_little_memory<Rgba16>(kind, size);
        EXPECT_LE(peak_in([&] { (void)load_colors(kind.file, places); }), 100'000) << kind.name;
    }
}

TEST(FileMemory, SomePixelsAreThoseOfTheWholePicture) {
    constexpr auto size = Size{.width = 61, .height = 40};
    Dice dice{5};
    std::vector<Point> places{{0, 0}, {60, 39}};
    for (int i = 0; i < 50; ++i) places.push_back({dice.number(0, 60), dice.number(0, 39)});
    for (const auto& kind : files(size)) {
        const auto whole = load_any(kind.file);
        const auto found = load_colors(kind.file, places);
        EXPECT_EQ(found.info.size, size);
        for (std::size_t i = 0; i < places.size(); ++i) {
            const auto color = std::visit([&](const auto& of) { return of.color16_at(places[i]); }, whole.bitmap);
            EXPECT_EQ(found.colors[i], color) << kind.name << places[i].x << "," << places[i].y;
        }
        for (const auto& outside : {Point{61, 0}, Point{0, 40}, Point{-1, 3}, Point{3, -2147483647}}) {
            EXPECT_THROW((void)load_colors(kind.file, std::vector{outside}), Error);
        }
        EXPECT_TRUE(load_colors(kind.file, {}).colors.empty());
    }
}

TEST(FileMemory, AFileIsReadWholeOrNotAtAll) {
    for (const auto& kind : files({.width = 23, .height = 17})) {
        const auto whole = deep_pixels_of(load<Rgb8>(kind.file));
        std::vector<Color16> found;
        fail_in_turn(
            [&] {
                found.clear();
                found = deep_pixels_of(load<Rgb8>(kind.file));
            },
            [&](bool has_thrown) { EXPECT_TRUE(has_thrown || found == whole) << kind.name; });
    }
}

using FileMemoryFolder = FolderTest;

// Rows of a drawing are forgotten once they are written: four times as many take no more.
TEST_F(FileMemoryFolder, DrawingsLargerThanMemoryAreWritten) {
    Drawing plan;
    fill(plan, Circle{.center = {700, 900}, .radius = 600}, Edge::smooth, colors::gold);
    const auto peak = [&](int height, const std::string& name) {
        return peak_in([&] { save(plan, {.size = {1500, height}}, path(name)); });
    };
    for (const auto* const name : {"plan.png", "plan.ppm", "plan.bmp", "plan.qoi"}) {
        const auto low = peak(3000, name);
        EXPECT_LE(peak(12'000, name), low + low / 8) << name;
        EXPECT_LE(low, 20'000'000) << name;
    }
}

// A picture that is larger than what may be kept of it.
TEST_F(FileMemoryFolder, ExcerptsTakeAsMuchMemoryAsIsKept) {
    constexpr auto size = Size{3000, 2500};
    Drawing plan;
    Dice dice{804};
    for (int i = 0; i < 300; ++i) {
        fill(plan, Circle{.center = dice.point({.at = {}, .size = size}), .radius = 60}, dice.color());
    }
    constexpr long allowed = 1'200'000;
    for (const auto* const name : {"wall.png", "wall.ppm", "wall.pam"}) {
        save(plan, {.size = size}, path(name));
        const auto part = Excerpt{.part = Box{{2800, 2300}, {100, 90}}};
        const auto small = Excerpt{.size = {.width = 150}};
        EXPECT_LE(peak_in([&] { (void)load_any(path(name), part); }), allowed) << name;
        EXPECT_LE(peak_in([&] { (void)load_any(path(name), small); }), allowed) << name;
        const std::vector<Point> places{{2999, 2499}, {0, 0}};
        EXPECT_LE(peak_in([&] { (void)load_colors(path(name), places); }), allowed) << name;
        EXPECT_EQ(load_colors(path(name), places).colors.size(), 2U);
    }
}

// Where memory runs out on one of the threads, that is told on this one, and the old file stays.
TEST_F(FileMemoryFolder, ThreadsTellThatMemoryRunsOut) {
    write("plan.png", "old");
    for (const long left : {0, 1, 2, 5}) {
        Drawing plan;
        mark(plan, {3, 2500}, Ink{[=](Point) {
                 failing_memory::allocations_left = left;
                 return colors::gold;
             }});
        for (int i = 0; i < 200; ++i)
            fill(plan, Polygon{{0, 2400}, {900, 2500}, {i, 2600}}, Edge::smooth, colors::teal);
        EXPECT_THROW(save(plan, {.size = {1500, 3000}}, path("plan.png"), {.threads = 3}), std::bad_alloc) << left;
        Bitmap<Rgb8> sheet{{1500, 3000}};
        failing_memory::allocations_left = -1;
        EXPECT_THROW(render(plan, sheet, {.threads = 3}), std::bad_alloc) << left;
        failing_memory::allocations_left = -1;
        EXPECT_EQ(content(path("plan.png")), "old");
        EXPECT_EQ(file_count(), 1U);
    }
}

TEST_F(FileMemoryFolder, AnOldFileStaysOrTheNewOneIsWhole) {
    Dice dice{3};
    const auto old_picture = noise<Rgb8>(dice, {30, 20});
    const auto new_picture = noise<Rgb8>(dice, {40, 25});
    for (const auto* const name : {"a.png", "a.jpg", "a.bmp", "a.qoi", "a.ppm", "a.pam"}) {
        save(old_picture, path(name));
        const auto before = deep_pixels_of(load_any(path(name)));
        save(new_picture, path("other-" + std::string{name}));
        const auto after = deep_pixels_of(load_any(path("other-" + std::string{name})));
        fail_in_turn([&] { save(new_picture, path(name)); },
                     [&](bool has_thrown) {
                         EXPECT_TRUE(deep_pixels_of(load_any(path(name))) == (has_thrown ? before : after)) << name;
                         save(old_picture, path(name));
                     });
    }
    const auto count = std::distance(std::filesystem::directory_iterator{folder()}, {});
    EXPECT_EQ(count, 12);
}

TEST_F(FileMemoryFolder, ASceneIsReadAndDrawnOrNot) {
    Dice dice{3};
    save(noise<Rgba8>(dice, {30, 20}), path("stamp.png"));
    const auto text = std::string{
        "sheet size 90,60 ink navy\n"
        "color quay = #8090a0\n"
        "gradient sky = linear from 0,0 to 0,60 stops 0,navy 1,gold\n"
        "fill box at 0,0 size 90,20 ink sky\n"
        "clip circle center 30,30 radius 20 smooth\n"
        "  fill star center 40,30 radius 25 points 7 ink quay\n"
        "end\n"
        "paste \"stamp.png\" at 40,10 size 45,30 opacity 0.6\n"
        "stroke path data \"M5 50C20 10 60 80 85 30\" width 5 dash 9,4 cap round smooth ink #ffffff90\n"};
    const auto draw = [&] {
        const auto scene = parse_scene(text, "scene", folder().string());
        Bitmap<Rgba8> sheet{{90, 60}};
        render(scene, sheet);
        return Bytes{sheet.bytes().begin(), sheet.bytes().end()};
    };
    const auto whole = draw();
    Bytes found;
    fail_in_turn(
        [&] {
            found.clear();
            found = draw();
        },
        [&](bool has_thrown) { EXPECT_TRUE(has_thrown || found == whole); });
}

// What is made once, for all calls of a program, is made by the first one: in a program of its own each time.
TEST(FileMemory, TheFirstCallsOfAProgramMayFailToo) {
    const auto use_all = [] {
        const auto scene = parse_scene(
            "sheet size 60,40\npalette quay\nfill text words \"B 4\" at 5,30 height 12 ink white\n"
            "stroke text words \"7\" face pixel at 30,30 height 14 ink white\nfill circle center 9,9 radius 5 smooth "
            "ink gold\n");
        auto sheet = scene.sheet<Index8>();
        render(scene, sheet);
        const auto deep = convert<Rgb8>(sheet);
        for (const auto format : {FileFormat::gif, FileFormat::png, FileFormat::jpeg, FileFormat::qoi}) {
            (void)load<Rgba8>(encode(deep, format));
        }
    };
    const auto code_of = [&](long allocations) {
        const auto child = ::fork();
        if (child == 0) {
            failing_memory::allocations_left = allocations;
            try {
                use_all();
            } catch (const std::bad_alloc&) {
                ::_exit(1);
            }
            failing_memory::allocations_left = -1;
            ::_exit(0);
        }
        auto status = 0;
        ::waitpid(child, &status, 0);
        return WIFEXITED(status) ? WEXITSTATUS(status) : 100;
    };
    constexpr auto all = 1'000'000;
    ASSERT_EQ(code_of(all), 0);
    auto code = 1;
    for (long i = 0; code == 1; i += is_sanitized ? 1 + i / 2 : 1 + i / 40) {
        code = code_of(i);
        EXPECT_LE(code, 1) << "allocation " << i;
    }
}

}  // namespace
