// Pixels of its own, row after row without gaps.
#pragma once

#include "coldbrick/pixels.hpp"

namespace coldbrick::inline v0::detail {

struct PackedCopy {
    // In a format, to be set; with the palette of another surface, if it has one.
    PackedCopy(const Surface& like, Size size, const FormatKernel& kernel);
    // The pixels of a surface's clip, in its format, or of one channel as gray.
    explicit PackedCopy(const Surface& of);

    std::vector<std::uint8_t> bytes;
    Surface surface;  // of these bytes, also after a move
};

}  // namespace coldbrick::inline v0::detail
