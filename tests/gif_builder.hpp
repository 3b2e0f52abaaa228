// GIF files put together byte by byte, for readers to be tested with: GIF89a, with pixels that are not compressed.
#pragma once

#include <coldbrick/coldbrick.hpp>

#include <cstdint>
#include <string>
#include <vector>

namespace gif {

using coldbrick::Box;
using coldbrick::Color;
using coldbrick::Size;

inline void number(std::string& to, int value) {
    to += static_cast<char>(value & 255);
    to += static_cast<char>(value >> 8 & 255);
}

// A file's beginning: its size and a palette of four colours for all pictures.
inline std::string begin(Size size, const std::vector<Color>& palette) {
    std::string file = "GIF89a";
    number(file, size.width);
    number(file, size.height);
    file += '\xf1';  // a palette, of 2 << 1 colours
    file += std::string(2, '\0');
    for (std::size_t i = 0; i < 4; ++i) {
        const auto color = i < palette.size() ? palette[i] : Color{};
        file += static_cast<char>(color.red);
        file += static_cast<char>(color.green);
        file += static_cast<char>(color.blue);
    }
    return file;
}

struct Picture {
    Box box;
    std::vector<int> numbers;  // of the palette, row by row as they come in the file
    int ticks = 0;
    int disposal = 0;
    int transparent = -1;
    bool is_interlaced = false;
};

// The pixels as codes of three bits and, before the codes would grow, one that begins anew (appendix F of the
// standard).
inline std::string packed(const std::vector<int>& numbers) {
    std::vector<std::uint8_t> bytes;
    unsigned bits = 0;
    unsigned held = 0;
    const auto put = [&](int code) {
        held |= static_cast<unsigned>(code) << bits;
        bits += 3;
        while (bits >= 8) {
            bytes.push_back(static_cast<std::uint8_t>(held & 255U));
            held >>= 8U;
            bits -= 8;
        }
    };
    constexpr auto clear = 4;
    constexpr auto end = 5;
    for (std::size_t i = 0; i < numbers.size(); ++i) {
        if (i % 2 == 0) put(clear);
        put(numbers[i]);
    }
    put(end);
    if (bits > 0) bytes.push_back(static_cast<std::uint8_t>(held & 255U));
    std::string file(1, '\2');  // numbers of two bits
    for (std::size_t at = 0; at < bytes.size(); at += 255) {
        const auto count = std::min<std::size_t>(255, bytes.size() - at);
        file += static_cast<char>(count);
        file.append(bytes.begin() + static_cast<std::ptrdiff_t>(at),
                    bytes.begin() + static_cast<std::ptrdiff_t>(at + count));
    }
    return file + '\0';
}

inline void add(std::string& file, const Picture& picture) {
    file += "\x21\xf9\x04";
    file += static_cast<char>(picture.disposal << 2 | (picture.transparent >= 0 ? 1 : 0));
    number(file, picture.ticks);
    file += static_cast<char>(std::max(picture.transparent, 0));
    file += '\0';
    file += ',';
    number(file, picture.box.at.x);
    number(file, picture.box.at.y);
    number(file, picture.box.size.width);
    number(file, picture.box.size.height);
    file += static_cast<char>(picture.is_interlaced ? 0x40 : 0);
    file += packed(picture.numbers);
}

// "Netscape" and how many times more; as everybody writes it.
inline void add_loops(std::string& file, int more) {
    file += "\x21\xff\x0bNETSCAPE2.0\x03\x01";
    number(file, more);
    file += '\0';
}

inline std::vector<std::uint8_t> ended(std::string file) {
    file += ';';
    return {file.begin(), file.end()};
}

}  // namespace gif
