// Single pixels.
#pragma once

#include "formats/kernels.hpp"

#include "coldbrick/ink.hpp"
#include "coldbrick/pixels.hpp"

namespace coldbrick::inline v0::detail {

inline constexpr auto one_pixel = Size{.width = 1, .height = 1};

// Sets a pixel of the window to a colour, or lays a translucent one on it, of a format that knows how.
inline void put_color(const Target& target, Color color, Point at) noexcept {
    auto* const pixel = pixel_address(target, at.x, at.y);
    color.alpha == 255 ? target.kernel->put(pixel, color) : target.kernel->lay(pixel, color);
}

// Lays the ink on a pixel as the painters do, and returns whether it could: not outside the window, not where there are
// clips or an observer, and not an ink or a format that has no colours of 8 bits.
bool lay_on_pixel(const Surface& surface, const Ink& ink, Point at);

}  // namespace coldbrick::inline v0::detail
