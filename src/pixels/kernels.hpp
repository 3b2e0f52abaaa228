// How each pixel format is written and read, and where a pixel lies.
#pragma once

#include <cstddef>
#include <cstdint>
#include <cstring>
#include <span>

#include "coldbrick/pixels.hpp"
#include "coldbrick/spans.hpp"

namespace coldbrick::detail {

struct FormatKernel {
    int pixel_bytes;
    bool has_alpha;
    void (*encode)(Color color, std::uint8_t* pixel);
    Color (*decode)(const std::uint8_t* pixel);
    // Source-over of one translucent colour on spans that lie in the surface.
    void (*blend)(const Surface& surface, std::span<const Span> spans, Color color);
};

// The first byte of a pixel of the buffer.
inline std::uint8_t* pixel_address(const Surface& surface, int x, int y) noexcept {
    return surface.top_left + y * surface.stride + std::ptrdiff_t{x} * surface.kernel->pixel_bytes;
}

// One pixel, repeated so that 16 bytes can be read from any phase of it: every pixel size divides 48.
inline constexpr std::size_t pattern_period = 48;
inline constexpr std::size_t pattern_bytes = pattern_period + 16;

template <std::size_t pixel_bytes>
void repeat_pixel(std::uint8_t* pattern) noexcept {
    for (auto i = pixel_bytes; i + pixel_bytes <= pattern_bytes; i += pixel_bytes) {
        std::memcpy(pattern + i, pattern, pixel_bytes);
    }
    constexpr auto rest = pattern_bytes % pixel_bytes;
    std::memcpy(pattern + pattern_bytes - rest, pattern, rest);
}

// Fills pattern_bytes bytes.
inline void make_pattern(const FormatKernel& kernel, Color color, std::uint8_t* pattern) noexcept {
    kernel.encode(color, pattern);
    switch (kernel.pixel_bytes) {
        case 1: return repeat_pixel<1>(pattern);
        case 3: return repeat_pixel<3>(pattern);
        default: return repeat_pixel<4>(pattern);
    }
}

// Writes the pattern to a run of bytes, from its start. Ends are written by stores that overlap, not by loops.
inline void fill_bytes(std::uint8_t* bytes, std::size_t count, const std::uint8_t* pattern) noexcept {
    const auto store_both_ends = [=](auto width) {
        std::memcpy(bytes, pattern, width);
        std::memcpy(bytes + count - width, pattern + count - width, width);
    };
    if (count < 16) {
        if (count >= 8) {
            store_both_ends(std::integral_constant<std::size_t, 8>{});
        } else if (count >= 4) {
            store_both_ends(std::integral_constant<std::size_t, 4>{});
        } else {
            for (std::size_t i = 0; i < count; ++i) bytes[i] = pattern[i];
        }
        return;
    }
    auto* const end = bytes + count;
    while (end - bytes >= 48) {
        std::memcpy(bytes, pattern, 16);
        std::memcpy(bytes + 16, pattern + 16, 16);
        std::memcpy(bytes + 32, pattern + 32, 16);
        bytes += 48;
    }
    const auto rest = static_cast<std::size_t>(end - bytes);
    if (rest == 0) return;
    if (rest > 16) std::memcpy(bytes, pattern, 16);
    if (rest > 32) std::memcpy(bytes + 16, pattern + 16, 16);
    std::memcpy(end - 16, pattern + (rest >= 16 ? rest - 16 : rest + pattern_period - 16), 16);
}

}  // namespace coldbrick::detail
