// coldbrick/files.hpp - writes pictures to files and streams.
//
//     save(chart, "chart.png");                                  // the suffix names the format
//     save(chart, "chart.picture", FileFormat::png);             // or the call does
//     save(chart, std::cout, FileFormat::ppm);
//     std::vector<std::uint8_t> bytes = encode(chart, FileFormat::png);
//
// A picture is a bitmap or a view; of a view, the pixels of its clip are written. A file holds exactly the colours of
// the picture: where the format cannot (colour in .pgm, translucent pixels in .ppm), Error says so. A file appears
// complete or not at all: it is written beside its place and then moved there, so that after an error the old file,
// if there was one, is as it was. Link coldbrick::files.
#pragma once

#include "coldbrick/pixels.hpp"

#include <cstdint>
#include <filesystem>
#include <iosfwd>
#include <vector>

namespace coldbrick {

enum class FileFormat {
    png,  // PNG, 8 bits or 16 as the picture has: gray, RGB or RGBA as it is
    pgm,  // binary PNM of kind P5: gray, 8 bits or 16
    ppm,  // binary PNM of kind P6: RGB
    pnm,  // pgm for a gray picture, else ppm
    pam,  // PAM, kind P7: gray, RGB or RGBA as the picture is
};

// The format that a file's suffix names (.png, .pgm, .ppm, .pnm, .pam, in either case). Throws Error for any other.
[[nodiscard]] FileFormat file_format_of(const std::filesystem::path& path);

namespace detail {
std::vector<std::uint8_t> encode(const Surface& picture, FileFormat format);
}

// Writes bytes that encode() gave to a file. Throws Error if it cannot be written; then the old file is as it was.
// What stands at the path and is no ordinary file (a device, a pipe) is written to directly.
void write_file(const std::filesystem::path& path, const std::vector<std::uint8_t>& bytes);

// Writes bytes to a stream, and flushes it. Throws Error if the stream fails.
void write_stream(std::ostream& stream, const std::vector<std::uint8_t>& bytes);

// The bytes of the file. Throws Error if the clip is empty or the format cannot hold the picture.
template <Picture P>
[[nodiscard]] std::vector<std::uint8_t> encode(const P& picture, FileFormat format) {
    return detail::encode(detail::SurfaceAccess::of(picture), format);
}

// Throws Error as encode does, and if the file cannot be written. What stands at the path and is no ordinary file (a
// device, a pipe) is written to directly.
template <Picture P>
void save(const P& picture, const std::filesystem::path& path, FileFormat format) {
    write_file(path, encode(picture, format));
}

// The same, in the format that the suffix names. Throws Error if it names none.
template <Picture P>
void save(const P& picture, const std::filesystem::path& path) {
    save(picture, path, file_format_of(path));
}

// Throws Error as encode() does (then nothing is written) and write_stream().
template <Picture P>
void save(const P& picture, std::ostream& stream, FileFormat format) {
    write_stream(stream, encode(picture, format));
}

}  // namespace coldbrick
