// GIF, by giflib.
#include "files/gif_calls.hpp"
#include "files/read_frames.hpp"
#include "files/samples.hpp"

#include <algorithm>
#include <optional>

namespace coldbrick::inline v0::detail {

namespace {

constexpr auto ticks_to_a_second = 100.0;

PictureInfo info_of(const GifReader& reader, const GifImage& first) {
    return {.format = FileFormat::gif,
            .size = reader.size(),
            .channels = 1,
            .bits = 8,
            .has_palette = true,
            .has_alpha = std::any_of(first.palette.colors().begin(), first.palette.colors().end(),
                                     [](Color color) { return color.alpha == 0; }) ||
                         first.box.size != reader.size(),
            .is_interlaced = first.is_interlaced};
}

void begin(GifReader& reader, GifImage& image, FileBytes file, const LoadLimits& limits) {
    check_size("gif", reader.size().width, reader.size().height, limits);
    check_shrinkage("gif", reader.size(), file.size(), limits);
    if (!reader.next(image)) throw Error{"gif: there is no picture in it"};
}

// The rows of the first picture, on a transparent ground if it does not fill the file's size.
void send_first(GifReader& reader, const GifImage& image, const LoadLimits& limits, PixelSink& sink) {
    const auto size = reader.size();
    if (image.box.size == size) {
        sink.begin("gif",
                   {.kernel = &index8_kernel, .size = size, .palette = make_shared_value<KeptPalette>(image.palette)},
                   limits);
        reader.rows(image, [&](int y, const std::uint8_t* row) { sink.take_row(row, y); });
        return;
    }
    sink.begin("gif", {.kernel = &rgba8_kernel, .size = size}, limits);
    std::vector<std::uint8_t> whole(static_cast<std::size_t>(size.width) * 4);
    for (int y = 0; y < size.height; ++y) {
        if (y < image.box.at.y || y > image.box.last().y) sink.take_row(whole.data(), y);
    }
    reader.rows(image, [&](int y, const std::uint8_t* row) {
        for (int x = 0; x < image.box.size.width; ++x) {
            const auto color = image.palette[row[x]];
            auto* const pixel = &whole[4 * static_cast<std::size_t>(image.box.at.x + x)];
            std::fill_n(pixel, 4, std::uint8_t{0});
            if (color.alpha != 0)
                std::copy_n(std::array{color.red, color.green, color.blue, color.alpha}.begin(), 4, pixel);
        }
        sink.take_row(whole.data(), image.box.at.y + y);
    });
}

}  // namespace

PictureInfo read_gif(FileBytes file, const LoadLimits& limits, PixelSink& sink) {
    GifReader reader{file};
    GifImage image;
    begin(reader, image, file, limits);
    auto info = info_of(reader, image);
    send_first(reader, image, limits, sink);
    info.seconds = image.ticks / ticks_to_a_second;
    while (reader.next(image)) {
        reader.skip_rows();
        ++info.frames;
        info.seconds += image.ticks / ticks_to_a_second;
    }
    info.loops = info.frames > 1 ? reader.loops() : 0;
    if (info.frames == 1) info.seconds = 0;
    note_rest(info, reader.rest());
    return info;
}

Film read_gif_film(FileBytes file, const LoadLimits& limits) {
    GifReader reader{file};
    GifImage image;
    begin(reader, image, file, limits);
    FilmMaker maker{"gif", reader.size(), 1, limits};
    maker.film().info = info_of(reader, image);
    auto before = std::optional<Bitmap<Rgba8>>{};
    do {
        auto& canvas = maker.canvas();
        if (image.disposal == DISPOSE_PREVIOUS) before = canvas;
        reader.rows(image, [&](int y, const std::uint8_t* row) {
            for (int x = 0; x < image.box.size.width; ++x) {
                const auto color = image.palette[row[x]];
                const auto at = Point{.x = image.box.at.x + x, .y = image.box.at.y + y};
                if (color.alpha == 0) continue;
                const auto i = 4 * (static_cast<std::size_t>(at.y) * static_cast<std::size_t>(reader.size().width) +
                                    static_cast<std::size_t>(at.x));
                std::copy_n(std::array{color.red, color.green, color.blue, color.alpha}.begin(), 4,
                            &bytes_of(canvas)[i]);
            }
        });
        maker.add(image.ticks / ticks_to_a_second);
        if (image.disposal == DISPOSE_BACKGROUND) clear(canvas.within(image.box), Color{.alpha = 0});
        if (image.disposal == DISPOSE_PREVIOUS) canvas = *before;
    } while (reader.next(image));
    auto& film = maker.film();
    film.loops = reader.loops();
    if (film.frames.size() == 1) film.loops = 0;
    film.info.loops = film.loops;
    return std::move(film);
}

}  // namespace coldbrick::inline v0::detail
