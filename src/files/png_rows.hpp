// The rows of a PNG file that are unpacked all at once.
#pragma once

#include "files/byte_source.hpp"

#include "coldbrick/detail/pixel_bytes.hpp"

#include <cstddef>
#include <cstdint>
#include <optional>

namespace coldbrick::inline v0::detail {

// Rows of so many bytes, each behind the byte that said how it was filtered.
struct PngRows {
    PixelBytes bytes;
    std::size_t row_bytes;
    std::uint64_t rest;  // bytes of the file behind its end

    [[nodiscard]] const std::uint8_t* row(int y) const noexcept {
        return bytes.data() + static_cast<std::size_t>(y) * (row_bytes + 1) + 1;
    }
};

// Unpacks the rows of a file that is not interlaced, whose pixels have so many bytes, of 8 bits a channel. What stands
// before them has been read already. Nothing for a file that is not just as the standard has it (ISO/IEC 15948,
// sections 5 and 9), or has more behind its rows: libpng knows what is to be said of it.
std::optional<PngRows> unpack_png_rows(FileBytes file, std::size_t row_bytes, int height, std::size_t pixel_bytes);

}  // namespace coldbrick::inline v0::detail
