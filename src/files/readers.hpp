// One reader for each kind of picture file: each takes the file, whole or as it is read, gives its pixels to a sink,
// and says what the file is. Throws Error for what is wrong in it.
#pragma once

#include "files/byte_source.hpp"
#include "files/sinks.hpp"
#include "geometry/limits.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/load.hpp"

#include <algorithm>
#include <string>
#include <vector>

namespace coldbrick::inline v0::detail {

PictureInfo read_png(const ByteSource& file, const LoadLimits& limits, PixelSink& sink);
PictureInfo read_jpeg(FileBytes file, const LoadLimits& limits, PixelSink& sink);
PictureInfo read_pnm(const ByteSource& file, const LoadLimits& limits, PixelSink& sink);
PictureInfo read_pam(const ByteSource& file, const LoadLimits& limits, PixelSink& sink);
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

// The time and memory that reading a file may take, for the calls on this thread until the end of the block.
class LoadBudget {
  public:
    explicit LoadBudget(const LoadLimits& limits)
        : around_{limits.budget != nullptr ? limits.budget : budget_of_thread.budget},
          budget_{{.seconds = limits.seconds, .memory = limits.memory}},
          within_{&budget_} {
        budget_.check();
    }
    LoadBudget(const LoadBudget&) = delete;
    LoadBudget(LoadBudget&&) = delete;
    LoadBudget& operator=(const LoadBudget&) = delete;
    LoadBudget& operator=(LoadBudget&&) = delete;
    ~LoadBudget() { budget_.give_back(budget_.spent().memory); }

  private:
    BudgetScope around_;
    Budget budget_;
    BudgetScope within_;
};

// Throws Error if a file has too few bytes for its pixels (LoadLimits::pixels_per_byte).
[[nodiscard]] bool fits_bytes(std::uint64_t pixels, std::uint64_t file_bytes, const LoadLimits& limits) noexcept;
void check_shrinkage(std::string_view kind, Size size, std::uint64_t file_bytes, const LoadLimits& limits);

// Throws Error if reading would take more memory than the limits allow.
void check_memory(std::string_view kind, std::uint64_t bytes, const LoadLimits& limits);

// Reads a file from the front, and throws Error "<kind>: it ends ..." where it ends too early.
class ByteReader {
  public:
    ByteReader(std::string_view kind, FileBytes file) noexcept : kind_{kind}, size_{file.size()}, window_{file} {}
    ByteReader(std::string_view kind, const ByteSource& file) noexcept : kind_{kind}, size_{file.size()} {
        if (const auto all = file.in_memory()) {
            window_ = *all;
        } else {
            source_ = &file;
        }
    }
    ByteReader(const ByteReader&) = delete;
    ByteReader(ByteReader&&) = delete;
    ByteReader& operator=(const ByteReader&) = delete;
    ByteReader& operator=(ByteReader&&) = delete;
    ~ByteReader() = default;

    [[nodiscard]] std::string_view kind() const noexcept { return kind_; }
    [[nodiscard]] std::uint64_t place() const noexcept { return window_begin_ + at_; }
    [[nodiscard]] std::uint64_t rest() const noexcept { return size_ - place(); }

    // The next bytes; of a file that is read, valid until more are asked for.
    FileBytes take(std::size_t count) {
        expect(count);
        if (count > window_.size() - at_) look_at(count);
        const auto bytes = window_.subspan(at_, count);
        at_ += count;
        return bytes;
    }
    std::uint8_t byte() {
        if (at_ == window_.size()) {
            expect(1);
            look_at(1);
        }
        return window_[at_++];
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
    void go_to(std::uint64_t place) {
        if (place > size_) fail_short();
        if (place >= window_begin_ && place <= window_begin_ + window_.size()) {
            at_ = static_cast<std::size_t>(place - window_begin_);
        } else {
            window_begin_ = place;
            window_ = {};
            at_ = 0;
        }
    }
    // Throws Error if there are not so many more.
    void expect(std::uint64_t count) const {
        if (count > rest()) fail_short();
    }

  private:
    [[noreturn]] void fail_short() const {
        throw Error{std::string{kind_} + ": the file ends too early, after " + std::to_string(size_) + " bytes"};
    }

    // Reads so many bytes from here on, which there are, and some more.
    void look_at(std::size_t count) {
        constexpr std::uint64_t usual = 1 << 16;
        const auto begin = place();
        const auto length = static_cast<std::size_t>(std::max<std::uint64_t>(count, std::min(usual, rest())));
        if (buffer_.size() < length) buffer_.resize(length);
        source_->read(begin, buffer_.data(), length);
        window_ = {buffer_.data(), length};
        window_begin_ = begin;
        at_ = 0;
    }

    std::string_view kind_;
    std::uint64_t size_;
    const ByteSource* source_ = nullptr;  // null: all is in the window
    FileBytes window_;
    std::uint64_t window_begin_ = 0;
    std::size_t at_ = 0;  // in the window
    std::vector<std::uint8_t> buffer_;
};

}  // namespace coldbrick::inline v0::detail
