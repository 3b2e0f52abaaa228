// What reads moving pictures: one reader for each kind of file.
#pragma once

#include "files/packed.hpp"
#include "files/readers.hpp"

#include "coldbrick/compose.hpp"
#include "coldbrick/frames.hpp"

namespace coldbrick::inline v0::detail {

// Puts one frame after the other together.
class FilmMaker {
  public:
    // Throws Error if the size, or so many frames of it, are over the limits.
    FilmMaker(std::string_view kind, Size size, std::uint64_t frames, const LoadLimits& limits);

    // Room for one more frame: as it is now, to be drawn on.
    [[nodiscard]] Bitmap<Rgba8>& canvas() noexcept { return canvas_; }

    // The canvas is a frame.
    void add(double seconds);

    [[nodiscard]] Film& film() noexcept { return film_; }

  private:
    std::string kind_;
    const LoadLimits& limits_;
    Bitmap<Rgba8> canvas_;
    Film film_;
};

Film read_png_film(FileBytes file, const LoadLimits& limits);
Film read_gif_film(FileBytes file, const LoadLimits& limits);
Film read_webp_film(FileBytes file, const LoadLimits& limits);

// What an animated PNG file says of its frames; PictureInfo::frames stays 1 of others.
void read_png_control(const ByteSource& file, PictureInfo& info);

}  // namespace coldbrick::inline v0::detail
