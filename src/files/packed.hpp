// Pictures as files have them: rows packed, channels in the order of files.
#pragma once

#include "coldbrick/palette.hpp"
#include "coldbrick/pixels.hpp"

#include <optional>
#include <string_view>

namespace coldbrick::inline v0::detail {

using Bytes = std::vector<std::uint8_t>;

// Rows follow each other, each from a new byte on. Channels of 16 bits have the higher byte first.
struct Packed {
    Size size;
    int channels;  // 1: gray, or numbers in the palette; 2: gray and alpha, 3: RGB, 4: RGBA
    int bits;      // 1, 2, 4, 8 or 16 for each channel
    Bytes bytes;
    std::optional<Palette> palette = std::nullopt;
    // If it is not null, the rows are not in `bytes` but lie so many bytes apart from there on, in the picture's
    // memory.
    const std::uint8_t* lent = nullptr;
    std::ptrdiff_t stride = 0;

    [[nodiscard]] const std::uint8_t* row(int y) const noexcept {
        return lent != nullptr ? lent + y * stride : bytes.data() + static_cast<std::size_t>(y) * row_bytes();
    }

    [[nodiscard]] std::size_t row_bytes() const noexcept {
        return (static_cast<std::size_t>(size.width) * static_cast<std::size_t>(channels * bits) + 7) / 8;
    }
};

// As the picture has them: gray, RGB or RGBA, of 8 bits or 16.
Packed pack_as_is(const Surface& picture);

// Black and white, a bit each.
Packed pack_rows_of_bits(const Surface& picture);

// The same, but numbers in a palette where it has one.
Packed pack_with_palette(const Surface& picture);

// One value each, or RGB. Throw Error "<format>: ..." if the picture has pixels that are not opaque grays, or that are
// translucent.
Packed pack_gray(const Surface& picture, std::string_view format);
Packed pack_rgb(const Surface& picture, std::string_view format);

// Refuses 16 bits where a format has only 8: throws Error "<format>: ...".
Packed of_8_bits(Packed packed, std::string_view format);

// In the smallest kind that holds every pixel exactly.
Packed pack_fewest_bits(const Surface& picture);

[[nodiscard]] bool is_gray(const Surface& picture) noexcept;

// All bytes of a bitmap's pixels, row behind row, to be changed.
template <PixelFormat Format>
[[nodiscard]] std::span<std::uint8_t> bytes_of(Bitmap<Format>& bitmap) noexcept {
    return {SurfaceAccess::of(bitmap).top_left, bitmap.bytes().size()};
}

}  // namespace coldbrick::inline v0::detail
