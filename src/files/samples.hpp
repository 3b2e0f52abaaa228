// Samples in the order of a file to bitmaps.
#pragma once

#include "files/readers.hpp"

#include <cstring>

namespace coldbrick::detail {

// Calls take(x, y, pixel) for each pixel in turn, row by row; take sets its bytes.
template <PixelFormat Format, class Take>
Bitmap<Format> bitmap_of(Size size, const Take& take) {
    Bitmap<Format> bitmap{size};
    auto* pixel = bytes_of(bitmap);
    for (int y = 0; y < size.height; ++y) {
        for (int x = 0; x < size.width; ++x, pixel += bytes_per_pixel<Format>) take(x, y, pixel);
    }
    return bitmap;
}

inline void set_number(std::uint8_t* at, std::uint32_t value) noexcept {
    const auto number = static_cast<std::uint16_t>(value);
    std::memcpy(at, &number, sizeof number);
}

using AnyBitmap = decltype(LoadedPicture::bitmap);

// Of 1 to 4 channels (gray; gray and alpha; colour; colour and alpha), from the values 0 to most that next() gives in
// turn, in 8 bits or, if most is over 255, in 16.
template <class Next>
AnyBitmap bitmap_of_samples(Size size, int channels, std::uint32_t most, const Next& next) {
    const auto scaled = [=](std::uint32_t value, std::uint32_t full) {
        if (most == full) return value;
        return static_cast<std::uint32_t>((2 * std::uint64_t{value} * full + most) / (2 * std::uint64_t{most}));
    };
    const auto is_gray = channels < 3;
    const auto has_alpha = channels % 2 == 0;
    const auto byte = [&] { return static_cast<std::uint8_t>(scaled(next(), 255)); };
    if (most > 255) {
        const auto number = [&] { return scaled(next(), 65535); };
        if (channels == 1) {
            return bitmap_of<Gray16>(size, [&](int, int, std::uint8_t* pixel) { set_number(pixel, number()); });
        }
        return bitmap_of<Rgba16>(size, [&](int, int, std::uint8_t* pixel) {
            const auto first = number();
            set_number(pixel, first);
            set_number(pixel + 2, is_gray ? first : number());
            set_number(pixel + 4, is_gray ? first : number());
            set_number(pixel + 6, has_alpha ? number() : 65535);
        });
    }
    if (channels == 1) {
        return bitmap_of<Gray8>(size, [&](int, int, std::uint8_t* pixel) { *pixel = byte(); });
    }
    const auto set_color = [&](std::uint8_t* pixel) {
        pixel[0] = byte();
        pixel[1] = is_gray ? pixel[0] : byte();
        pixel[2] = is_gray ? pixel[0] : byte();
    };
    if (!has_alpha) return bitmap_of<Rgb8>(size, [&](int, int, std::uint8_t* pixel) { set_color(pixel); });
    return bitmap_of<Rgba8>(size, [&](int, int, std::uint8_t* pixel) {
        set_color(pixel);
        pixel[3] = byte();
    });
}

// Says that a file goes on after its picture.
inline void note_rest(PictureInfo& info, std::size_t bytes) {
    if (bytes > 0) info.oddities.push_back(std::to_string(bytes) + " bytes follow the picture");
}

}  // namespace coldbrick::detail
