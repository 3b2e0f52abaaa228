// coldbrick/frames.hpp - moving pictures: frames of one size, each with its time, to files and back.
//
//     FrameWriter tide{"tide.png"};                              // animated PNG; .gif and .webp are others
//     for (int i = 0; i < 40; ++i) tide.add(chart, 0.05);        // for a twentieth of a second each
//     tide.finish();                                             // only now there is a file
//
//     FrameWriter numbered{"out/tide-{frame:03}.png"};           // out/tide-000.png, out/tide-001.png, ...
//     FrameWriter stream{std::cout, FileFormat::pam};            // one picture after the other, for other programs
//
//     const Film film = load_frames("tide.gif");
//     for (const auto& [picture, seconds] : film.frames) use(picture, seconds);
//
// Of each frame only the box around what has changed is written. A file appears complete or not at all, as with save();
// numbered files and streams picture by picture. Link coldbrick::files.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/file_format.hpp"
#include "coldbrick/files.hpp"
#include "coldbrick/load.hpp"
#include "coldbrick/pixels.hpp"
#include "coldbrick/quantize.hpp"

#include <iosfwd>
#include <memory>
#include <optional>
#include <span>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// What a format has no use for is left out.
struct FrameOptions {
    int loops = 0;  // how often it is played, up to 65535; 0: again and again

    // GIF has up to 256 colours. each: chosen for each frame, so that frames of no more colours are exact; all: the
    // same for all frames, which are kept in memory until the end.
    enum class Palettes { each, all };
    Palettes palettes = Palettes::each;
    int colors = 256;  // how many of GIF, from 2 on; one of them stands for transparent pixels where it is needed
    Dithering dithering = Dithering::diffused;  // of GIF, where there are more

    std::optional<int> quality = std::nullopt;  // of WebP, 0 to 100, not exact; without it, lossless
    int first_number = 0;                       // of the first frame, in the names of numbered files
    SaveOptions stills = {};                    // of PNG: effort; and of numbered files
};

namespace detail {

class FrameEncoder;

}  // namespace detail

// Writes frames. What throws Error has written nothing, but for numbered files and streams, where the pictures before
// are there. Without finish() there is no file.
class FrameWriter {
  public:
    // The format that the suffix names: .png, .gif, .webp; or, where the name has {frame} or {frame:03} in it, a
    // picture file of any format for each. Throws Error for another, and for options that are none.
    explicit FrameWriter(const FilePath& path, const FrameOptions& options = {});
    FrameWriter(const FilePath& path, FileFormat format, const FrameOptions& options = {});

    // Also ppm and pam: one picture after the other, each at once. The stream must outlive the writer.
    FrameWriter(std::ostream& stream, FileFormat format, const FrameOptions& options = {});

    FrameWriter(const FrameWriter&) = delete;
    FrameWriter(FrameWriter&& other) noexcept;
    FrameWriter& operator=(const FrameWriter&) = delete;
    FrameWriter& operator=(FrameWriter&& other) noexcept;
    ~FrameWriter();

    // The next frame, to be shown for so many seconds: from 0 to 65. Times are kept in thousandths of a second, in GIF
    // in hundredths, so that their sum is right to that. Throws Error if its size, or in PNG its pixel format or
    // palette, is another than the first one's.
    template <Picture P>
    void add(const P& picture, double seconds) {
        add_surface(detail::SurfaceAccess::of(picture), seconds);
    }

    // Writes the file; nothing can be added then. Throws Error if there is no frame, or it cannot be written. Gives the
    // bytes that have been written.
    std::uint64_t finish();

    [[nodiscard]] int count() const noexcept { return count_; }

  private:
    void add_surface(const detail::Surface& picture, double seconds);

    std::unique_ptr<detail::FrameEncoder> encoder_;
    Size size_;
    int count_ = 0;
};

struct FilmFrame {
    Bitmap<Rgba8> picture;  // all of it, as it is shown
    double seconds = 0;
};

struct Film {
    Size size;
    int loops = 0;  // 0: again and again
    std::vector<FilmFrame> frames;
    PictureInfo info;
};

// Reads the frames of an animated PNG, GIF or WebP file, or the one picture of any other. Throws Error as load() does;
// limits.memory counts all frames.
[[nodiscard]] Film load_frames(const FilePath& path, const LoadLimits& limits = {});
[[nodiscard]] Film load_frames(std::span<const std::uint8_t> file, const LoadLimits& limits = {});

// A picture file's name out of one with {frame} in it: {frame:03} has three digits at least. Throws Error for braces
// with something else in them. Names without are given back.
[[nodiscard]] std::string frame_name(std::string_view name, int frame);
[[nodiscard]] bool has_frame_number(std::string_view name) noexcept;

}  // namespace v0
}  // namespace coldbrick
