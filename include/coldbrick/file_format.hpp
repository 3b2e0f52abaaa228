// coldbrick/file_format.hpp - the kinds of picture files, and what they say about a picture besides its pixels.
#pragma once

#include "coldbrick/detail/public.hpp"

#include <concepts>
#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// The name of a file, with the folders that lead to it: a text, or a std::filesystem::path.
class FilePath {
  public:
    FilePath(const char* name) : name_{name} {}
    FilePath(std::string name) noexcept : name_{std::move(name)} {}
    FilePath(std::string_view name) : name_{name} {}
    template <class Path>
    requires requires(const Path& path) {
        { path.native() } -> std::convertible_to<const std::string&>;
    }
    FilePath(const Path& path) : name_{path.native()} {}

    [[nodiscard]] const std::string& name() const& noexcept { return name_; }
    [[nodiscard]] std::string name() && noexcept { return std::move(name_); }

  private:
    std::string name_;
};

enum class FileFormat {
    png,   // PNG (ISO/IEC 15948): 1 to 16 bits, gray, colour, palette, alpha
    jpeg,  // JPEG (JFIF): gray or colour of 8 bits, not exact
    pbm,   // PNM of black and white: kinds P1 and P4
    pgm,   // PNM of gray: P2 and P5, 8 bits or 16
    ppm,   // PNM of colour: P3 and P6, 8 bits or 16
    pnm,   // written: pgm for a gray picture, else ppm
    pam,   // PAM (P7): gray or colour, with alpha or without, 8 bits or 16
    bmp,   // BMP: palette or colour
    qoi,   // QOI: colour of 8 bits, with alpha or without
    gif,   // GIF: up to 256 colours, one of which may be transparent
    webp,  // WebP: colour of 8 bits, with alpha or without; written without loss
};

// The format that a file's suffix names (.png, .jpg, .jpeg, .pbm, .pgm, .ppm, .pnm, .pam, .bmp, .qoi, .gif, .webp, in
// either case). Throws Error for any other.
[[nodiscard]] FileFormat file_format_of(const FilePath& path);

// The format by a file's first bytes; nothing if they are those of none. Never pnm.
[[nodiscard]] std::optional<FileFormat> file_format_of(std::span<const std::uint8_t> file) noexcept;

// All of them, in the order of their numbers.
[[nodiscard]] std::vector<FileFormat> file_formats();

// The suffixes of a format's files, the usual one first: ".jpg" and ".jpeg" of jpeg.
[[nodiscard]] std::vector<std::string> suffixes_of(FileFormat format);

// "png", "jpeg", "pbm" and so on.
[[nodiscard]] std::string_view name_of(FileFormat format) noexcept;

// How many pixels there are to a length on paper, from left to right and from top to bottom.
struct Density {
    enum class Unit { meter, inch, none };  // none: only the proportion of the two is known
    double across = 0;
    double down = 0;
    Unit unit = Unit::meter;
    friend bool operator==(const Density&, const Density&) = default;
};

// A text in a PNG file: a keyword ("Title", "Author", "Comment", ...) of 1 to 79 Latin-1 characters, and what it says,
// in UTF-8.
struct TextEntry {
    std::string keyword;
    std::string text;
    friend bool operator==(const TextEntry&, const TextEntry&) = default;
};

}  // namespace v0
}  // namespace coldbrick
