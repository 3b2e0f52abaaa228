// Where pixels are.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/geometry.hpp"

#include <cstddef>
#include <cstdint>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

class Palette;

namespace detail {

struct FormatKernel;

// Pixels in memory, in some format, of which those in the window may be touched and seen.
struct Target {
    std::uint8_t* top_left;
    std::ptrdiff_t stride;
    Size size;
    Box window;
    const FormatKernel* kernel;
    const Palette* palette = nullptr;  // of Index8; null: palettes::quay()
    int first_bit = 0;                 // of Bit1: the bit of the first byte, from the highest, where pixel (0, 0) is
};

}  // namespace detail

}  // namespace v0
}  // namespace coldbrick
