// What PNG files are made of, still and animated.
#pragma once

#include "files/writers.hpp"

#include "coldbrick/error.hpp"

#include <libdeflate.h>

namespace coldbrick::inline v0::detail {

// The chunks of a file, one behind the other.
class PngChunks {
  public:
    // Whether a file begins here, or its other bytes are elsewhere.
    enum class Place { at_begin, within };

    // Begins a file, or goes on behind what is there.
    explicit PngChunks(Bytes& file, Place place = Place::at_begin) : file_{file} {
        if (file.empty() && place == Place::at_begin) put_text(file_, "\x89PNG\r\n\x1a\n");
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

}  // namespace coldbrick::inline v0::detail
