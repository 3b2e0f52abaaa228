// Parts of picture files, and pictures in another size, read by rows: what they are of the whole picture.
#include "folder_test.hpp"
#include "picture_files.hpp"
#include "this_build.hpp"

#include <coldbrick/compose.hpp>
#include <coldbrick/files.hpp>
#include <coldbrick/load.hpp>
#include <coldbrick/resize.hpp>

#include <fstream>
#include <functional>
#include <sstream>

namespace {

using namespace coldbrick;
using namespace oracle;

using Excerpts = FolderTest;

std::vector<std::uint8_t> interlaced_png(Size size, int kind, int bits) {
    return png_file(
        {.width = size.width,
         .height = size.height,
         .bits = bits,
         .kind = kind,
         .interlaced = true,
         .filter = [](int row) { return row % 5; },
         .sample = [](int x, int y, int channel) { return static_cast<unsigned>(x * 7 + y * 13 + channel * 50); }});
}

struct Kind {
    std::string name;
    std::vector<std::uint8_t> file;
};

std::vector<Kind> some_files(Dice& dice, Size size) {
    std::vector<Kind> files;
    const auto add = [&](const std::string& name, const auto& picture, FileFormat format,
                         const SaveOptions& options = {}) {
        files.push_back({name, encode(picture, format, options)});
    };
    const auto gray = noise<Gray8>(dice, size);
    const auto colors = noise<Rgb8>(dice, size);
    const auto alpha = noise<Rgba8>(dice, size);
    const auto deep = noise<Rgba16>(dice, size);
    add("gray png", gray, FileFormat::png);
    add("png", colors, FileFormat::png);
    add("png with alpha", alpha, FileFormat::png);
    add("deep png", deep, FileFormat::png);
    add("png with a palette", convert(alpha, palettes::quay()), FileFormat::png);
    add("pgm", gray, FileFormat::pgm);
    add("plain ppm", colors, FileFormat::ppm, {.notation = Notation::plain});
    add("ppm", colors, FileFormat::ppm);
    add("pam", deep, FileFormat::pam);
    add("pbm", convert<Bit1>(gray), FileFormat::pbm);
    add("bmp", colors, FileFormat::bmp);
    add("qoi", alpha, FileFormat::qoi);
    add("jpeg", colors, FileFormat::jpeg);
    add("gif", convert(alpha, palettes::quay()), FileFormat::gif);
    return files;
}

template <PixelFormat Format>
Bitmap<Format> copy_of(const Bitmap<Format>& whole, const Box& part) {
    return turned(crop(whole, part), Quarters::none);
}

LoadedPicture part_of(const LoadedPicture& whole, const Box& part) {
    auto result = whole;
    std::visit([&](auto& bitmap) { bitmap = copy_of(bitmap, part); }, result.bitmap);
    return result;
}

LoadedPicture resized_of(LoadedPicture picture, Size size, std::optional<Scaling> scaling, Scaling usual) {
    if (std::holds_alternative<Bitmap<Index8>>(picture.bitmap) && scaling.value_or(usual) != Scaling::nearest) {
        picture.bitmap = picture.as<Rgba8>();
    }
    std::visit([&](auto& bitmap) { bitmap = resized(bitmap, size, scaling); }, picture.bitmap);
    return picture;
}

TEST_F(Excerpts, AreWhatTheyAreOfTheWhole) {
    Dice dice{801};
    for (int i = 0; i < (is_sanitized ? 2 : 8); ++i) {
        const auto size = Size{dice.number(1, 70), dice.number(1, 60)};
        auto files = some_files(dice, size);
        files.push_back({"interlaced png", interlaced_png(size, 2, 8)});
        files.push_back({"deep interlaced png", interlaced_png(size, 6, 16)});
        for (const auto& [name, file] : files) {
            const auto whole = load_any(file);
            const auto at = dice.point({.at = {}, .size = size});
            const auto part = Box{at, {dice.number(1, size.width - at.x), dice.number(1, size.height - at.y)}};
            const auto of_part = load_any(file, Excerpt{.part = part});
            EXPECT_TRUE(deep_pixels_of(of_part) == deep_pixels_of(part_of(whole, part))) << name;
            EXPECT_EQ(of_part.info.size, size) << name;
            EXPECT_EQ(of_part.bitmap.index(), whole.bitmap.index()) << name;
            for (const auto scaling : {std::optional<Scaling>{}, std::optional{Scaling::nearest},
                                       std::optional{Scaling::box}, std::optional{Scaling::lanczos}}) {
                const auto wanted = Size{dice.number(1, 50), dice.number(0, 40)};
                const auto usual = usual_scaling(part.size, detail::proportional(part.size, wanted));
                const auto found = load_any(file, Excerpt{.part = part, .size = wanted, .scaling = scaling});
                const auto expected = resized_of(part_of(whole, part), wanted, scaling, usual);
                EXPECT_TRUE(deep_pixels_of(found) == deep_pixels_of(expected)) << name << ", " << wanted.width;
                EXPECT_EQ(found.bitmap.index(), expected.bitmap.index()) << name;
            }
            EXPECT_EQ(load<Rgb8>(file, Excerpt{.part = part}).bytes(), copy_of(load<Rgb8>(file), part).bytes()) << name;
        }
    }
}

TEST_F(Excerpts, ComeFromFilesAndStreams) {
    Dice dice{802};
    for (const auto& [name, file] : some_files(dice, {300, 200})) {
        std::ofstream{path("wall"), std::ios::binary}.write(reinterpret_cast<const char*>(file.data()),
                                                            static_cast<std::streamsize>(file.size()));
        std::istringstream stream{std::string{file.begin(), file.end()}};
        const auto excerpt = Excerpt{.part = Box{{31, 150}, {200, 40}}, .size = {.width = 50}};
        const auto expected = deep_pixels_of(load_any(file, excerpt));
        EXPECT_TRUE(deep_pixels_of(load_any(path("wall"), excerpt)) == expected) << name;
        EXPECT_TRUE(deep_pixels_of(load_any(stream, excerpt)) == expected) << name;
        EXPECT_TRUE(deep_pixels_of(load_any(path("wall"))) == deep_pixels_of(load_any(file))) << name;
    }
}

std::string fault(const std::function<void()>& call) {
    try {
        call();
    } catch (const Error& error) {
        return error.what();
    }
    return "none";
}

// Read piece by piece, what is wrong is told as of the bytes in memory.
TEST_F(Excerpts, OfBrokenFilesAreRefusedInTheSameWords) {
    Dice dice{805};
    for (const auto& [name, file] : some_files(dice, {300, 260})) {
        for (int i = 0; i < (is_sanitized ? 6 : 30); ++i) {
            auto broken = file;
            if (i % 3 != 0) broken.resize(static_cast<std::size_t>(dice.number(0, static_cast<int>(file.size()) - 1)));
            for (int k = i % 3; k > 0 && !broken.empty(); --k) {
                const auto most = std::min<int>(static_cast<int>(broken.size()) - 1, i % 2 == 0 ? 60 : 1 << 28);
                broken[static_cast<std::size_t>(dice.number(0, most))] ^=
                    static_cast<std::uint8_t>(dice.number(1, 255));
            }
            std::ofstream{path("wall"), std::ios::binary}.write(reinterpret_cast<const char*>(broken.data()),
                                                                static_cast<std::streamsize>(broken.size()));
            auto of_file = fault([&] { (void)load_any(path("wall")); });
            const auto before = path("wall").string() + ": ";
            if (of_file.starts_with(before)) of_file.erase(0, before.size());
            EXPECT_EQ(of_file, fault([&] { (void)load_any(broken); })) << name;
        }
    }
}

TEST_F(Excerpts, RefuseWhatIsNotThere) {
    Dice dice{803};
    for (const auto& of : some_files(dice, {40, 30})) {
        const auto& name = of.name;
        const auto& file = of.file;
        for (const auto& part : {Box{{0, 0}, {41, 1}}, Box{{39, 29}, {2, 1}}, Box{{-1, 0}, {2, 2}}, Box{{3, 3}, {0, 4}},
                                 Box{{1 << 30, 0}, {1 << 30, 5}}}) {
            const auto what = fault([&] { (void)load_any(file, Excerpt{.part = part}); });
            EXPECT_NE(what.find("is not in the picture, which has 40 x 30 pixels"), std::string::npos) << name << what;
        }
        for (const auto& size : {Size{-1, 4}, Size{1 << 30, 1 << 30}}) {
            EXPECT_NE(fault([&] { (void)load_any(file, Excerpt{.size = size}); }), "none") << name;
        }
        EXPECT_NE(fault([&] {
                      (void)load_any(file, Excerpt{.size = {4, 4}, .scaling = static_cast<Scaling>(9)});
                  }),
                  "none")
            << name;
        // Cut short, it is refused for any part, as long as rows that are wanted, or that others follow from, are gone.
        const std::vector<std::uint8_t> cut{file.begin(), file.begin() + static_cast<std::ptrdiff_t>(file.size() / 2)};
        const auto last = Excerpt{.part = Box{{0, 29}, {40, 1}}};
        if (name == "jpeg" || name == "gif") continue;
        EXPECT_NE(fault([&] { (void)load_any(cut, last); }), "none") << name;
    }
}

// What a file's pixels make use of is what those of the picture do.
TEST_F(Excerpts, SurveysAreOfAllPixels) {
    Dice dice{806};
    for (int i = 0; i < (is_sanitized ? 2 : 6); ++i) {
        const auto size = Size{dice.number(1, 60), dice.number(1, 50)};
        auto files = some_files(dice, size);
        files.push_back({"interlaced png", interlaced_png(size, 6, 16)});
        files.push_back({"one colour", encode(Bitmap<Rgba8>{size, gray(90)}, FileFormat::png)});
        for (const auto& [name, file] : files) {
            const auto whole = load_any(file);
            const auto found = survey(file, 100'000);
            const auto needs = std::visit([](const auto& of) { return needs_of(of); }, whole.bitmap);
            EXPECT_EQ(found.needs, needs) << name;
            EXPECT_EQ(found.colors, std::visit([](const auto& of) { return count_colors(of); }, whole.bitmap)) << name;
            EXPECT_EQ(found.info.size, size) << name;
            const auto* const display = std::get_if<Bitmap<Index8>>(&whole.bitmap);
            EXPECT_EQ(found.palette_size, display != nullptr ? display->palette().size() : 0U) << name;
            const auto few = survey(file, 3);
            EXPECT_EQ(few.colors, std::min<std::size_t>(found.colors, 4)) << name;
            EXPECT_EQ(few.needs, needs) << name;
            std::istringstream stream{std::string{file.begin(), file.end()}};
            EXPECT_EQ(survey(stream, 100'000).colors, found.colors) << name;
        }
    }
    EXPECT_NE(fault([&] { (void)survey(path("none.png"), 10); }).find("none.png: cannot be read"), std::string::npos);
}

}  // namespace
