// coldbrick/files.hpp - writes pictures to files and streams.
//
//     save(chart, "chart.png");                                  // the suffix names the format
//     save(chart, "chart.picture", FileFormat::png);             // or the call does
//     save(chart, std::cout, FileFormat::ppm);
//     save(photo, "quay.jpg", {.quality = 75});
//     save(chart, "small.png", {.effort = Effort::most, .storage = Storage::fewest_bits});
//     std::vector<std::uint8_t> bytes = encode(chart, FileFormat::png);
//
// A picture is a bitmap or a view; of a view, the pixels of its clip are written. But for JPEG a file holds exactly the
// colours of the picture: where the format cannot (colour in .pgm, translucent pixels in .ppm), Error says so. A file
// appears complete or not at all: it is written beside its place and then moved there, so that after an error the old
// file, if there was one, is as it was. Link coldbrick::files.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/file_format.hpp"
#include "coldbrick/pixels.hpp"

#include <cstdint>
#include <iosfwd>
#include <optional>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// How much time a PNG file is given to become small: little, or as much as it takes.
enum class Effort { usual, most };

// How pixels are stored in PNG files, and without_alpha also in PAM files. as_it_is: as the bitmap has them; gray, a
// palette, RGB or RGBA, of 8 bits or 16. fewest_bits: in the smallest kind that holds every pixel exactly: gray or
// palette of 1, 2, 4 or 8 bits, without alpha where all is opaque, 8 bits where 16 are not needed. without_alpha: as
// the bitmap has them, but for the alpha channel; every pixel must be opaque.
enum class Storage { as_it_is, fewest_bits, without_alpha };

// How the samples of PNM files are written: as bytes, or as numbers in text (kinds P1, P2 and P3).
enum class Notation { binary, plain };

// What a format has no use for is left out.
struct SaveOptions {
    Effort effort = Effort::usual;
    Storage storage = Storage::as_it_is;
    Notation notation = Notation::binary;
    int quality = 90;                  // of JPEG, 1 to 100; from 90 on colour is kept at full resolution
    std::optional<Density> density{};  // in PNG, JPEG and BMP
    std::vector<TextEntry> texts{};    // in PNG
    // Rows are packed, and in PNG compressed, on so many, at most max_threads; 0: one for each processor. The bytes are
    // the same for any number.
    int threads = 1;
};

namespace detail {
std::vector<std::uint8_t> encode(const Surface& picture, FileFormat format, const SaveOptions& options);
}

// Writes bytes that encode() gave to a file. Throws Error if it cannot be written; then the old file is as it was.
// What stands at the path and is no ordinary file (a device, a pipe) is written to directly.
void write_file(const FilePath& path, const std::vector<std::uint8_t>& bytes);

// Writes bytes to a stream, and flushes it. Throws Error if the stream fails.
void write_stream(std::ostream& stream, const std::vector<std::uint8_t>& bytes);

// The bytes of the file. Throws Error if the clip is empty, the format cannot hold the picture, or an option is none
// that is allowed.
template <Picture P>
[[nodiscard]] std::vector<std::uint8_t> encode(const P& picture, FileFormat format, const SaveOptions& options = {}) {
    return detail::encode(detail::SurfaceAccess::of(picture), format, options);
}

// Throws Error as encode does, and if the file cannot be written. What stands at the path and is no ordinary file (a
// device, a pipe) is written to directly.
template <Picture P>
void save(const P& picture, const FilePath& path, FileFormat format, const SaveOptions& options = {}) {
    write_file(path, encode(picture, format, options));
}

// The same, in the format that the suffix names. Throws Error if it names none.
template <Picture P>
void save(const P& picture, const FilePath& path, const SaveOptions& options = {}) {
    save(picture, path, file_format_of(path), options);
}

template <class Path, Picture P, class... More>
requires std::convertible_to<Path, FilePath>
void save(const Path&, const P&, const More&...) {
    static_assert(detail::never<P>, "the picture comes first: save(chart, \"chart.png\")");
}

// Throws Error as encode() does (then nothing is written) and write_stream().
template <Picture P>
void save(const P& picture, std::ostream& stream, FileFormat format, const SaveOptions& options = {}) {
    write_stream(stream, encode(picture, format, options));
}

}  // namespace v0
}  // namespace coldbrick
