// coldbrick/load.hpp - reads pictures from files, streams and memory.
//
//     Bitmap<Rgb8> quay = load<Rgb8>("quay.jpg");                // in the format that you want
//     LoadedPicture any = load_any("quay.png");                  // as it is in the file
//     Bitmap<Rgba8> stamp = load<Rgba8>(bytes);                  // std::vector or std::span of bytes; or a stream
//     load<Gray8>("quay.pgm", {.pixels = 4'000'000});            // refuses larger ones
//     load<Rgb8>("wall.png", Excerpt{.part = Box{{900, 400}, {640, 480}}});        // a part of it
//     load<Rgb8>("wall.png", Excerpt{.size = {.width = 800}});   // smaller, the height in proportion
//     const std::vector<Point> spots{{9, 31}, {40, 200}};
//     const auto found = load_colors("quay.png", spots).colors;  // of some pixels only, without keeping the others
//
// The format of a file follows from its content and not from its name. A file that is malformed, cut short or over the
// limits throws Error, which says what is wrong and, from a path, where; no part of a picture is ever given. Link
// coldbrick::files.
//
// Channels of fewer than 8 bits are widened to 8, and samples of which the file says that their greatest value is m
// become v * 255 / m (or v * 65535 / m, where m is over 255), rounded to the nearest. Pictures are turned upright as
// JPEG files with Exif orientation ask for. CMYK becomes RGB by C * K / 255 and so on.
#pragma once

#include "coldbrick/budget.hpp"
#include "coldbrick/compare.hpp"
#include "coldbrick/convert.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/file_format.hpp"
#include "coldbrick/pixels.hpp"
#include "coldbrick/resize.hpp"

#include <concepts>
#include <cstddef>
#include <cstdint>
#include <iosfwd>
#include <limits>
#include <optional>
#include <span>
#include <string>
#include <utility>
#include <variant>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// What reading may take, in size, memory and work: no honest file comes near the values that are set here. A file that
// asks for more is refused, as soon as it says so and before memory is asked for.
struct LoadLimits {
    std::uint64_t pixels = std::uint64_t{1} << 28U;      // width times height
    int side = 1 << 20;                                  // width, and height
    std::uint64_t file_bytes = std::uint64_t{1} << 31U;  // of the file
    // Of the pixels in the format that is asked for, and of what decoders keep besides (the coefficients of a
    // progressive JPEG, the frames and rows that are being put together).
    std::uint64_t memory = std::uint64_t{1} << 32U;
    // The pixels to each byte of the file, where there are more than a million. The smallest PNG of one colour, of one
    // bit a pixel, has 8,256. Of a JPEG with arithmetic coding, each scan's pixels count.
    std::uint64_t pixels_per_byte = 10'000;
    std::uint64_t text_bytes = std::uint64_t{1} << 24U;  // of all texts together, unpacked
    int texts = 1000;
    int scans = 64;                                            // of a progressive JPEG; encoders write up to some 20
    double seconds = std::numeric_limits<double>::infinity();  // asked for every few rows
    // Null, or what reading is to stay within besides (budget.hpp). It can be cancelled from another thread.
    Budget* budget = nullptr;
};

// What of a picture is kept. Of PNG without interlacing, PNM and PAM files no more than that, some rows and some of the
// file are in memory at a time, however large the picture is; of others the part is kept as it is in the file until it
// is resized.
struct Excerpt {
    std::optional<Box> part{};         // of the picture, upright; all of it if nothing is said
    Size size{};                       // 0 and 0: as it is; with one side 0, in proportion
    std::optional<Scaling> scaling{};  // usual_scaling() if nothing is said
};

// What a file says, and what is odd about it.
struct PictureInfo {
    FileFormat format = FileFormat::png;
    Size size;         // upright
    int channels = 0;  // in the file: 1 gray or palette, 2 gray and alpha, 3 colour, 4 colour and alpha, or CMYK
    int bits = 0;      // of a channel, or of a palette's numbers, in the file
    bool has_palette = false;
    bool has_alpha = false;  // alpha channel, or translucent colours
    bool is_interlaced = false;
    int frames = 1;      // of a moving picture; load() reads the first
    int loops = 0;       // how often they are played; 0: again and again
    double seconds = 0;  // that they take together
    std::optional<Density> density{};
    std::vector<TextEntry> texts{};
    std::vector<std::string> oddities{};  // each a phrase in words
};

// A picture in the format that holds the file's pixels without loss (but for JPEG's own): gray without alpha is Gray8
// or Gray16, other pictures are Index8, Rgb8, Rgba8 or Rgba16.
struct LoadedPicture {
    std::variant<Bitmap<Gray8>, Bitmap<Rgb8>, Bitmap<Rgba8>, Bitmap<Index8>, Bitmap<Gray16>, Bitmap<Rgba16>> bitmap;
    PictureInfo info;

    // In another format, as convert() does.
    template <PixelFormat Format>
    [[nodiscard]] Bitmap<Format> as() const& {
        return std::visit([](const auto& picture) { return convert<Format>(picture); }, bitmap);
    }
    template <PixelFormat Format>
    [[nodiscard]] Bitmap<Format> as() && {
        if (auto* const same = std::get_if<Bitmap<Format>>(&bitmap)) return std::move(*same);
        return static_cast<const LoadedPicture&>(*this).as<Format>();
    }
};

namespace detail {

// How a file has its pixels.
struct StoredPixels {
    const FormatKernel* kernel = nullptr;
    Size size;                              // upright
    Shared<KeptPalette> palette = nullptr;  // of Index8
    bool comes_in_rows = false;             // whole ones, from the uppermost on
};

// What becomes of them: the format in which they are kept, null for that of the file; and what makes the memory, of the
// size of the picture.
struct LoadTarget {
    const FormatKernel* kernel;
    const void* context;
    Surface (*make)(const void* context, const StoredPixels& stored);
};

// One that calls make(stored), which must outlive it.
template <class Make>
LoadTarget load_target(const FormatKernel* kernel, const Make& make) {
    return {.kernel = kernel, .context = &make, .make = [](const void* context, const StoredPixels& stored) -> Surface {
                return (*static_cast<const Make*>(context))(stored);
            }};
}

template <class T>
concept PictureSource = std::convertible_to<T, std::span<const std::uint8_t>> || std::convertible_to<T, FilePath> ||
    std::derived_from<std::remove_cvref_t<T>, std::istream>;

PictureInfo load_into(const FilePath& path, const LoadLimits& limits, const LoadTarget& target);
PictureInfo load_into(std::span<const std::uint8_t> file, const LoadLimits& limits, const LoadTarget& target);
PictureInfo load_into(std::istream& stream, const LoadLimits& limits, const LoadTarget& target);
PictureInfo load_into(const FilePath& path, const Excerpt& excerpt, const LoadLimits& limits, const LoadTarget& target);
PictureInfo load_into(std::span<const std::uint8_t> file, const Excerpt& excerpt, const LoadLimits& limits,
                      const LoadTarget& target);
PictureInfo load_into(std::istream& stream, const Excerpt& excerpt, const LoadLimits& limits, const LoadTarget& target);

// A bitmap that read(target) fills.
template <PixelFormat Format, class Read>
Bitmap<Format> bitmap_from(const Read& read) {
    Bitmap<Format> result;
    const auto make = [&](const StoredPixels& stored) {
        if constexpr (std::same_as<Format, Index8>) {
            if (stored.palette) result = Bitmap<Index8>{stored.size, stored.palette->palette};
        }
        if (result.empty()) result = Bitmap<Format>{stored.size};
        return SurfaceAccess::of(result);
    };
    (void)read(load_target(&kernel_of<Format>(), make));
    return result;
}

}  // namespace detail

// Each throws Error as is said above. Takes the memory of the file, if it does not lie there already, and of the
// pixels; a progressive JPEG's coefficients take two bytes for each of its samples besides, while it is read.
[[nodiscard]] LoadedPicture load_any(const FilePath& path, const LoadLimits& limits = {});
[[nodiscard]] LoadedPicture load_any(std::span<const std::uint8_t> file, const LoadLimits& limits = {});
[[nodiscard]] LoadedPicture load_any(std::istream& stream, const LoadLimits& limits = {});

// In the format that is asked for, converted row by row as convert() does: exactly where it can be, else to the nearest
// value; to gray, the luma; to a format without alpha, the colours as they are. A file with a palette gives that
// palette to Index8; other pictures get the nearest colours of palettes::quay(). Memory: as above.
template <PixelFormat Format, detail::PictureSource Source>
[[nodiscard]] Bitmap<Format> load(Source&& source, const LoadLimits& limits = {}) {
    return detail::bitmap_from<Format>(
        [&](const detail::LoadTarget& target) { return detail::load_into(source, limits, target); });
}

template <detail::PictureSource Source>
LoadedPicture load(Source&&, const LoadLimits& = {}) {
    static_assert(detail::never<Source>, "a format is missing: load<Rgb8>(\"chart.png\"), or load_any(\"chart.png\")");
    return {};
}

// The same of a part, or in another size, as crop() and resized() give them of the whole picture in the file's format;
// a picture with a palette that is mixed is taken as Rgba8. Throws Error also if the part is not in the picture. What
// of a PNM or PAM file lies in other rows is not looked at. The info is that of the whole file.
[[nodiscard]] LoadedPicture load_any(const FilePath& path, const Excerpt& excerpt, const LoadLimits& limits = {});
[[nodiscard]] LoadedPicture load_any(std::span<const std::uint8_t> file, const Excerpt& excerpt,
                                     const LoadLimits& limits = {});
[[nodiscard]] LoadedPicture load_any(std::istream& stream, const Excerpt& excerpt, const LoadLimits& limits = {});

template <PixelFormat Format, detail::PictureSource Source>
[[nodiscard]] Bitmap<Format> load(Source&& source, const Excerpt& excerpt, const LoadLimits& limits = {}) {
    return detail::bitmap_from<Format>(
        [&](const detail::LoadTarget& target) { return detail::load_into(source, excerpt, limits, target); });
}

// What a picture file's pixels make use of, found out without keeping them.
struct PictureSurvey {
    PictureInfo info;
    Needs needs;
    std::size_t colors = 0;        // different ones
    std::size_t palette_size = 0;  // of a file with a palette
};

// Colours are counted to one more than most_colors, each of which takes some 16 bytes. Throws Error as is said above.
[[nodiscard]] PictureSurvey survey(const FilePath& path, std::size_t most_colors, const LoadLimits& limits = {});
[[nodiscard]] PictureSurvey survey(std::span<const std::uint8_t> file, std::size_t most_colors,
                                   const LoadLimits& limits = {});
[[nodiscard]] PictureSurvey survey(std::istream& stream, std::size_t most_colors, const LoadLimits& limits = {});

// Some of a picture's pixels, read without keeping the others.
struct LoadedColors {
    std::vector<Color16> colors;  // of each place, in their order
    PictureInfo info;
};

// Throws Error if a place is outside of the picture, and as is said above.
[[nodiscard]] LoadedColors load_colors(const FilePath& path, std::span<const Point> places,
                                       const LoadLimits& limits = {});
[[nodiscard]] LoadedColors load_colors(std::span<const std::uint8_t> file, std::span<const Point> places,
                                       const LoadLimits& limits = {});
[[nodiscard]] LoadedColors load_colors(std::istream& stream, std::span<const Point> places,
                                       const LoadLimits& limits = {});

}  // namespace v0
}  // namespace coldbrick
