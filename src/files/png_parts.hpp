// What PNG files are made of, still and animated.
#pragma once

#include "files/writers.hpp"

#include "coldbrick/error.hpp"

#include <memory>

#include <libdeflate.h>

namespace coldbrick::inline v0::detail {

// Bytes that are all written before they are read.
class PngBytes {
  public:
    explicit PngBytes(std::size_t count)
        : bytes_{std::make_unique_for_overwrite<std::uint8_t[]>(count)}, count_{count} {}
    [[nodiscard]] std::uint8_t* begin() const noexcept { return bytes_.get(); }
    [[nodiscard]] std::size_t size() const noexcept { return count_; }
    void shorten(std::size_t count) noexcept { count_ = count; }

  private:
    std::unique_ptr<std::uint8_t[]> bytes_;
    std::size_t count_;
};

// The chunks of a file, one behind the other.
class PngChunks {
  public:
    // Begins a file, or goes on behind what is there.
    explicit PngChunks(Bytes& file) : file_{file} {
        if (file.empty()) put_text(file_, "\x89PNG\r\n\x1a\n");
    }

    template <class Put>
    void add(std::string_view kind, const Put& put) {
        const auto begin = file_.size();
        put_big(file_, 0, 4);
        put_text(file_, kind);
        put(file_);
        const auto length = file_.size() - begin - 8;
        constexpr std::size_t most = 0x7fffffff;
        if (length > most) throw Error{"png: the file would have a chunk of over 2 GiB, more than it can say"};
        for (auto i = 0U; i < 4; ++i) file_[begin + i] = static_cast<std::uint8_t>(length >> (24U - 8U * i));
        put_big(file_, libdeflate_crc32(0, file_.data() + begin + 4, length + 4), 4);
    }

  private:
    Bytes& file_;
};

// The number of the header's colour type.
[[nodiscard]] int png_kind(const Packed& picture) noexcept;

void add_header(PngChunks& chunks, const Packed& picture);
void add_palette(PngChunks& chunks, const Palette& palette);

// The rows filtered and compressed.
[[nodiscard]] PngBytes png_pixels(const Packed& picture, Effort effort);

}  // namespace coldbrick::inline v0::detail
