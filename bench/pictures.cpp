// Pictures pasted, resized and written.
#include "spans.hpp"

#include <coldbrick/compare.hpp>
#include <coldbrick/compose.hpp>
#include <coldbrick/files.hpp>
#include <coldbrick/flood.hpp>
#include <coldbrick/scene.hpp>

#include <algorithm>
#include <fstream>
#include <iterator>
#include <memory>
#include <string>

#include <png.h>

namespace bench {

namespace {

constexpr auto picture_size = Size{.width = 1000, .height = 1000};

template <PixelFormat Format>
void add_paste(const std::string& name, std::uint8_t alpha, double allowed) {
    const auto target = shared_bitmap<Format>();
    const auto other = shared_bitmap<Format>();  // a copy would leave translucent pixels
    const auto picture = std::make_shared<Bitmap<Format>>(picture_size, with_alpha(ink, alpha));
    add({.name = name,
         .reference = "memcpy of its rows",
         .allowed = allowed,
         .items = 1,
         .ours =
             [=] {
                 benchmark::DoNotOptimize(paste(*target, *picture, {.at = {100, 40}}));
             },
         .other =
             [=] {
                 constexpr auto pixel_bytes = std::size_t{bytes_per_pixel<Format>};
                 auto* const bytes = const_cast<std::uint8_t*>(other->bytes().data());
                 for (std::size_t y = 0; y < 1000; ++y) {
                     std::memcpy(bytes + ((40 + y) * sheet.width + 100) * pixel_bytes,
                                 picture->bytes().data() + y * 1000 * pixel_bytes, 1000 * pixel_bytes);
                 }
                 written(bytes);
             }});
}

void add_resize(const std::string& name, Size size, Scaling how, double allowed) {
    const auto picture = shared_bitmap<Rgb8>();
    add({.name = name,
         .reference = "reading and writing the bytes",
         .allowed = allowed,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(resized(*picture, size, how)); },
         .other =
             [=] {
                 std::uint64_t sum = 0;
                 for (const auto byte : picture->bytes()) sum += byte;
                 benchmark::DoNotOptimize(sum);
                 std::vector<std::uint8_t> bytes(static_cast<std::size_t>(size.width) *
                                                 static_cast<std::size_t>(size.height) * 3);
                 written(bytes.data());
             }});
}

// On each of these the whole sheet; the reference copies the larger side's bytes.
template <PixelFormat From, PixelFormat To>
void add_convert(const std::string& name) {
    constexpr auto asked = 1.5;
    const auto from = shared_bitmap<From>();
    constexpr auto bytes =
        std::size_t{sheet.width} * sheet.height * std::max(bytes_per_pixel<From>, bytes_per_pixel<To>);
    const auto larger = std::make_shared<std::vector<std::uint8_t>>(bytes);
    add({.name = name,
         .reference = "a copy of the larger side",
         .allowed = asked,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(convert<To>(*from)); },
         .other =
             [=] {
                 auto copy = *larger;
                 written(copy.data());
             }});
}

template <class Change>
void add_change(const std::string& name, const Change& change) {
    constexpr auto asked = 1.5;
    const auto picture = shared_bitmap<Rgba8>();
    const auto other = shared_bitmap<Rgba8>();
    add({.name = name,
         .reference = "memcpy of its bytes",
         .allowed = asked,
         .items = 1,
         .ours =
             [=] {
                 change(*picture);
                 written(const_cast<std::uint8_t*>(picture->bytes().data()));
             },
         .other =
             [=] {
                 auto* const to = const_cast<std::uint8_t*>(other->bytes().data());
                 std::memcpy(to, picture->bytes().data(), other->bytes().size());
                 written(to);
             }});
}

// Reads all bytes.
template <class Picture>
void read_bytes(const Picture& picture) {
    std::uint64_t sum = 0;
    for (const auto byte : picture.bytes()) sum += byte;
    benchmark::DoNotOptimize(sum);
}

void add_looks() {
    const auto picture = shared_bitmap<Rgba8>();
    fill(*picture, Circle{.center = {900, 500}, .radius = 300}, ink);
    const auto same = std::make_shared<Bitmap<Rgba8>>(*picture);
    add({.name = "flood of 1920x1080",
         .reference = "reading its bytes",
         .allowed = 3,
         .items = 1,
         .ours =
             [=] {
                 benchmark::DoNotOptimize(flood(*picture, {.from = {3, 3}}));
             },
         .other = [=] { read_bytes(*picture); }});
    add({.name = "compare two pictures",
         .reference = "memcmp of their bytes",
         .allowed = 1.5,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(compare(*picture, *same)); },
         .other =
             [=] {
                 benchmark::DoNotOptimize(
                     std::memcmp(picture->bytes().data(), same->bytes().data(), same->bytes().size()));
             }});
}

void add_turned() {
    const auto target = shared_bitmap<Rgba8>();
    const auto picture = std::make_shared<Bitmap<Rgba8>>(Size{.width = 700, .height = 700}, ink);
    const auto to = std::make_shared<std::vector<std::uint8_t>>(picture->bytes().size());
    add({.name = "paste a picture of 700x700 turned by 20 degrees",
         .reference = "memcpy of its pixels",
         .allowed = 8,
         .items = 1,
         .ours =
             [=] {
                 benchmark::DoNotOptimize(paste(*target, *picture, Transform{}.turn(20_deg).move({600, 100})));
             },
         .other =
             [=] {
                 std::memcpy(to->data(), picture->bytes().data(), to->size());
                 written(to->data());
             }});
}

// By libpng with its default settings.
std::size_t png_bytes_by_default(const Bitmap<Rgb8>& picture) {
    std::vector<std::uint8_t> file;
    auto* png = png_create_write_struct(PNG_LIBPNG_VER_STRING, nullptr, nullptr, nullptr);
    auto* info = png_create_info_struct(png);
    png_set_write_fn(
        png, &file,
        [](png_structp of, png_bytep bytes, std::size_t count) {
            auto& to = *static_cast<std::vector<std::uint8_t>*>(png_get_io_ptr(of));
            to.insert(to.end(), bytes, bytes + count);
        },
        [](png_structp) {});
    const auto [width, height] = picture.size();
    png_set_IHDR(png, info, static_cast<png_uint_32>(width), static_cast<png_uint_32>(height), 8, PNG_COLOR_TYPE_RGB,
                 PNG_INTERLACE_NONE, PNG_COMPRESSION_TYPE_DEFAULT, PNG_FILTER_TYPE_DEFAULT);
    png_write_info(png, info);
    for (int y = 0; y < height; ++y) {
        png_write_row(png, picture.bytes().data() + static_cast<std::size_t>(y) * static_cast<std::size_t>(width) * 3);
    }
    png_write_end(png, info);
    png_destroy_write_struct(&png, &info);
    return file.size();
}

// By libpng, row by row to the memory of a picture.
void read_by_libpng(const std::vector<std::uint8_t>& file, std::vector<std::uint8_t>& pixels) {
    struct Rest {
        const std::uint8_t* at;
    };
    Rest rest{file.data()};
    auto* png = png_create_read_struct(PNG_LIBPNG_VER_STRING, nullptr, nullptr, nullptr);
    auto* info = png_create_info_struct(png);
    png_set_read_fn(png, &rest, [](png_structp of, png_bytep bytes, std::size_t count) {
        auto& from = *static_cast<Rest*>(png_get_io_ptr(of));
        std::memcpy(bytes, from.at, count);
        from.at += count;
    });
    png_read_info(png, info);
    const auto row_bytes = png_get_rowbytes(png, info);
    pixels.resize(row_bytes * png_get_image_height(png, info));
    for (std::size_t at = 0; at < pixels.size(); at += row_bytes) png_read_row(png, pixels.data() + at, nullptr);
    png_read_end(png, nullptr);
    png_destroy_read_struct(&png, &info, nullptr);
}

// A scene of the demo, drawn as large as the sheet.
void add_png(const std::string& name) {
    std::ifstream file{COLDBRICK_SCENES "/" + name + ".brick"};
    const auto scene = parse_scene(std::string{std::istreambuf_iterator<char>{file}, {}}, name);
    const auto scale =
        std::min(double{1} * sheet.width / scene.size.width, double{1} * sheet.height / scene.size.height);
    const auto picture = std::make_shared<Bitmap<Rgb8>>(sheet, scene.ground);
    for (std::size_t i = 0; i < scene.drawing.size(); ++i) {
        const auto figure = scene.drawing[i].figure();
        if (figure) fill(*picture, figure->then(Transform{}.scale(scale)), scene.drawing[i].ink());
    }
    const auto ours = encode(*picture, FileFormat::png).size();
    const auto other = png_bytes_by_default(*picture);
    add({.name = "PNG of " + name + ", " + std::to_string(ours) + " bytes",
         .reference = "libpng's default, " + std::to_string(other) + " bytes",
         .allowed = 0.5,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(encode(*picture, FileFormat::png)); },
         .other = [=] { benchmark::DoNotOptimize(png_bytes_by_default(*picture)); }});
    add({.name = "PNG of " + name + ", on 2 threads",
         .reference = "on one",
         .allowed = 1 / 1.8,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(encode(*picture, FileFormat::png, {.threads = 2})); },
         .other = [=] { benchmark::DoNotOptimize(encode(*picture, FileFormat::png)); }});
    const auto encoded = std::make_shared<std::vector<std::uint8_t>>(encode(*picture, FileFormat::png));
    const auto pixels = std::make_shared<std::vector<std::uint8_t>>();
    add({.name = "PNG of " + name + ", read",
         .reference = "libpng",
         .allowed = 0.6,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(load<Rgb8>(*encoded)); },
         .other =
             [=] {
                 read_by_libpng(*encoded, *pixels);
                 written(pixels->data());
             }});
}

}  // namespace

void add_pictures() {
    add_paste<Rgb8>("paste an opaque picture of 1000x1000, 3 bytes", 255, 1.2);
    add_paste<Rgba8>("paste an opaque picture of 1000x1000, 4 bytes", 255, 1.2);
    add_paste<Rgba8>("paste a translucent picture of 1000x1000, 4 bytes", 100, 3);
    add_turned();
    add_looks();
    add_convert<Rgb8, Rgba8>("convert Rgb8 to Rgba8");
    add_convert<Rgba8, Rgb8>("convert Rgba8 to Rgb8");
    add_convert<Rgba8, Bgra8>("convert Rgba8 to Bgra8");
    add_convert<Bgr8, Rgb8>("convert Bgr8 to Rgb8");
    add_convert<Rgba8, Gray8>("convert Rgba8 to Gray8");
    add_convert<Gray8, Rgba8>("convert Gray8 to Rgba8");
    add_change("gray out", [](auto& picture) { gray_out(picture); });
    add_change("invert", [](auto& picture) { invert(picture); });
    add_resize("1920x1080 reduced to 0.4, lanczos", {.width = 768, .height = 432}, Scaling::lanczos, 6);
    add_resize("1920x1080 enlarged to 1.5, nearest", {.width = 2880, .height = 1620}, Scaling::nearest, 1.2);
    add_resize("1920x1080 reduced by 2, box", {.width = 960, .height = 540}, Scaling::box, 1.5);
    add_resize("1920x1080 enlarged to 1.5, bilinear", {.width = 2880, .height = 1620}, Scaling::bilinear, 4);
    for (const auto* const name :
         {"berth-board", "fairway-chart", "dusk", "sector-lights", "tide-clock", "tide-display"}) {
        add_png(name);
    }
}

}  // namespace bench
