// PNG files that have been changed, as files that get read.
#pragma once

#include <cstddef>
#include <cstdint>
#include <utility>
#include <vector>

#include <zlib.h>

// With the checksums of a PNG file's chunks as they must be: otherwise hardly anything would get past them.
inline std::vector<std::uint8_t> with_right_checksums(std::vector<std::uint8_t> file) {
    for (std::size_t at = 8; at + 12 <= file.size();) {
        std::size_t length = 0;
        for (std::size_t i = 0; i < 4; ++i) length = length << 8U | file[at + i];
        if (length > file.size() - at - 12) break;
        const auto sum = crc32(0, file.data() + at + 4, static_cast<uInt>(length + 4));
        at += 8 + length;
        for (std::size_t i = 0; i < 4; ++i) file[at + i] = static_cast<std::uint8_t>(sum >> (24 - 8 * i));
        at += 4;
    }
    return file;
}
