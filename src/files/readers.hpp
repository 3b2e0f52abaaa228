// One reader for each kind of picture file: each takes the whole file, gives its pixels to a sink, and says what the
// file is. Throws Error for what is wrong in it.
#pragma once

#include "files/sinks.hpp"
#include "geometry/limits.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/load.hpp"

#include <string>

namespace coldbrick::inline v0::detail {

using FileBytes = std::span<const std::uint8_t>;

PictureInfo read_png(FileBytes file, const LoadLimits& limits, PixelSink& sink);
PictureInfo read_jpeg(FileBytes file, const LoadLimits& limits, PixelSink& sink);
PictureInfo read_pnm(FileBytes file, const LoadLimits& limits, PixelSink& sink);
PictureInfo read_pam(FileBytes file, const LoadLimits& limits, PixelSink& sink);
PictureInfo read_bmp(FileBytes file, const LoadLimits& limits, PixelSink& sink);
PictureInfo read_qoi(FileBytes file, const LoadLimits& limits, PixelSink& sink);
PictureInfo read_gif(FileBytes file, const LoadLimits& limits, PixelSink& sink);
PictureInfo read_webp(FileBytes file, const LoadLimits& limits, PixelSink& sink);

// As load_into(), but of an ordinary file only: no device, pipe or socket is read from or waited for.
PictureInfo load_regular_file(const FilePath& path, const LoadLimits& limits, const LoadTarget& target);

// What a picture file has in it; Error does not name it.
std::vector<std::uint8_t> read_picture_file(const FilePath& path, const LoadLimits& limits);

// What an ordinary file of at most so many bytes has in it.
std::string read_text_file(const std::string& path, std::uint64_t most);

// Throws Error if a file's size is empty or over the limits.
void check_size(std::string_view kind, std::int64_t width, std::int64_t height, const LoadLimits& limits);

// Throws Error if a file has too few bytes for its pixels (LoadLimits::pixels_per_byte).
void check_shrinkage(std::string_view kind, Size size, std::size_t file_bytes, const LoadLimits& limits);

// Throws Error if reading would take more memory than the limits allow.
void check_memory(std::string_view kind, std::uint64_t bytes, const LoadLimits& limits);

// Reads a file from the front, and throws Error "<kind>: it ends ..." where it ends too early.
class ByteReader {
  public:
    ByteReader(std::string_view kind, FileBytes file) noexcept : kind_{kind}, file_{file} {}

    [[nodiscard]] std::string_view kind() const noexcept { return kind_; }
    [[nodiscard]] std::size_t place() const noexcept { return place_; }
    [[nodiscard]] std::size_t rest() const noexcept { return file_.size() - place_; }

    // The next bytes.
    FileBytes take(std::size_t count) {
        if (count > rest()) fail_short();
        const auto bytes = file_.subspan(place_, count);
        place_ += count;
        return bytes;
    }
    std::uint8_t byte() {
        if (place_ == file_.size()) fail_short();
        return file_[place_++];
    }
    std::uint32_t little(int bytes) {
        std::uint32_t value = 0;
        for (auto i = 0U; i < static_cast<unsigned>(bytes); ++i) value |= std::uint32_t{byte()} << (8 * i);
        return value;
    }
    std::uint32_t big(int bytes) {
        std::uint32_t value = 0;
        for (int i = 0; i < bytes; ++i) value = value << 8U | byte();
        return value;
    }
    void go_to(std::size_t place) {
        if (place > file_.size()) fail_short();
        place_ = place;
    }

  private:
    [[noreturn]] void fail_short() const {
        throw Error{std::string{kind_} + ": the file ends too early, after " + std::to_string(file_.size()) + " bytes"};
    }

    std::string_view kind_;
    FileBytes file_;
    std::size_t place_ = 0;
};

}  // namespace coldbrick::inline v0::detail
