// Moving pictures out of files.
#include "files/codecs.hpp"
#include "files/read_frames.hpp"

#include "coldbrick/error.hpp"

#include <string>

namespace coldbrick::inline v0 {

namespace detail {

FilmMaker::FilmMaker(std::string_view kind, Size size, std::uint64_t frames, const LoadLimits& limits)
    : kind_{kind}, limits_{limits} {
    check_size(kind, size.width, size.height, limits);
    check_memory(kind, (frames + 1) * pixel_count(size) * 4, limits);
    take_memory(pixel_count(size) * 4);
    canvas_ = Bitmap<Rgba8>{size, Color{.alpha = 0}};
    film_.size = size;
}

void FilmMaker::add(double seconds) {
    check_memory(kind_, (film_.frames.size() + 2) * pixel_count(film_.size) * 4, limits_);
    const auto pixels = pixel_count(film_.size);
    take_memory(pixels * 4);
    spend_work(pixels / 16 + 64);
    film_.frames.push_back({.picture = canvas_, .seconds = seconds});
    film_.info.seconds += seconds;
    film_.info.frames = static_cast<int>(film_.frames.size());
}

}  // namespace detail

namespace {

Film film_in(std::span<const std::uint8_t> file, const LoadLimits& limits) {
    const detail::LoadBudget budget{limits};
    if (file.size() > limits.file_bytes) {
        throw Error{"the file has " + std::to_string(file.size()) + " bytes; allowed are " +
                    std::to_string(limits.file_bytes)};
    }
    const auto format = file_format_of(file);
    if (format == FileFormat::gif) return detail::read_gif_film(file, limits);
    if (format == FileFormat::webp) return detail::read_webp_film(file, limits);
    if (format == FileFormat::png) return detail::read_png_film(file, limits);
    auto any = load_any(file, limits);
    Film film{.size = any.info.size, .loops = 0, .frames = {}, .info = any.info};
    film.frames.push_back({.picture = std::move(any).as<Rgba8>()});
    return film;
}

}  // namespace

Film load_frames(std::span<const std::uint8_t> file, const LoadLimits& limits) { return film_in(file, limits); }

Film load_frames(const FilePath& path, const LoadLimits& limits) {
    try {
        return film_in(detail::read_picture_file(path, limits), limits);
    } catch (const LimitError& error) {
        throw LimitError{error.limit(), printable(path.name()) + ": " + error.what()};
    } catch (const Error& error) {
        throw Error{printable(path.name()) + ": " + error.what()};
    }
}

}  // namespace coldbrick::inline v0
