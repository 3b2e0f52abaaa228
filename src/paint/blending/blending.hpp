// How an ink and what is below it become one colour: W3C Compositing and Blending Level 1, sections 5, 9 and 10.
#pragma once

#include "coldbrick/ink.hpp"

#include <cstdint>

namespace coldbrick::inline v0::detail {

// What of a stretch of pixels is to be drawn.
struct Cover {
    const std::uint8_t* each;  // in 255ths; null: all alike
    std::uint8_t all;

    [[nodiscard]] std::uint8_t of(int pixel) const noexcept { return each != nullptr ? each[pixel] : all; }
};

// Whether all channels are drawn into that such pixels have.
constexpr bool takes_all(Channels channels, bool has_alpha) noexcept {
    const auto needed = static_cast<unsigned>(has_alpha ? Channels::all : Channels::color);
    return (static_cast<unsigned>(channels) & needed) == needed;
}

// How, and on what kind of pixels.
struct Blender {
    const Compositing& how;
    bool has_alpha;
    bool is_gray;

    // Lays the ink on the colours below. In 8 bits a channel and in 16.
    void lay(const Color* ink, const Cover& cover, int count, Color* below) const;
    void lay(const Color16* ink, const Cover& cover, int count, Color16* below) const;

    // On one pixel, all of it.
    void lay(Color ink, Color& below) const;
};

}  // namespace coldbrick::inline v0::detail
