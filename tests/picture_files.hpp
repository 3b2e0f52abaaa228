// Pictures and files for the tests of files.
#pragma once

#include "coverage_oracle.hpp"
#include "oracle.hpp"
#include "png_builder.hpp"

#include <coldbrick/files.hpp>
#include <coldbrick/load.hpp>

#include <cstdlib>

namespace oracle {

// The picture's pixels in 16 bits, row by row.
template <class P>
std::vector<Color16> deep_pixels_of(const P& picture) {
    std::vector<Color16> colors;
    const auto [at, size] = picture.within({.at = {}, .size = picture.size()}).clip();
    for (int y = 0; y < size.height; ++y) {
        for (int x = 0; x < size.width; ++x) colors.push_back(picture.color16_at({at.x + x, at.y + y}));
    }
    return colors;
}
inline std::vector<Color16> deep_pixels_of(const LoadedPicture& loaded) {
    return std::visit([](const auto& picture) { return deep_pixels_of(picture); }, loaded.bitmap);
}

template <PixelFormat Format>
Bitmap<Format> noise(Dice& dice, Size size) {
    Bitmap<Format> bitmap{size};
    for (int y = 0; y < size.height; ++y) {
        // Stretches, so that runs and repeats come up.
        for (int x = 0; x < size.width;) {
            const auto length = dice.number(1, 9);
            const Color16 color{static_cast<std::uint16_t>(dice.number(0, 65535)),
                                static_cast<std::uint16_t>(dice.number(0, 65535)),
                                static_cast<std::uint16_t>(dice.number(0, 65535)),
                                static_cast<std::uint16_t>(dice.number(0, 3) * 21845)};
            fill(bitmap, Box{.at = {x, y}, .size = {length, dice.number(1, 3)}}, Ink{color, {.blend = Blend::replace}});
            x += length;
        }
    }
    return bitmap;
}

inline void put_little(Bytes& file, std::uint32_t value, int bytes) {
    for (; bytes > 0; --bytes, value >>= 8U) file.push_back(static_cast<std::uint8_t>(value));
}

inline Bytes bmp_file(int width, int height, int bits, int packing, const Bytes& between, const Bytes& pixels,
                      int colors = 0) {
    Bytes file{'B', 'M'};
    put_little(file, 0, 8);
    put_little(file, static_cast<std::uint32_t>(54 + between.size()), 4);
    put_little(file, 40, 4);
    for (const auto value : {width, height}) put_little(file, static_cast<std::uint32_t>(value), 4);
    put_little(file, 1, 2);
    put_little(file, static_cast<std::uint32_t>(bits), 2);
    put_little(file, static_cast<std::uint32_t>(packing), 4);
    put_little(file, 0, 12);
    put_little(file, static_cast<std::uint32_t>(colors), 4);
    put_little(file, 0, 4);
    file.insert(file.end(), between.begin(), between.end());
    file.insert(file.end(), pixels.begin(), pixels.end());
    return file;
}

// A program of the package libjpeg-turbo-progs or pngcheck; 0 if it goes well.
inline int run_quietly(const std::string& command) { return std::system((command + " > /dev/null 2>&1").c_str()); }

}  // namespace oracle
