// What the fast paths of small shapes have in common.
#pragma once

#include "formats/kernels.hpp"
#include "geometry/vectors.hpp"

#include "coldbrick/detail/area_ref.hpp"
#include "coldbrick/pixels.hpp"

#include <array>
#include <cstring>

namespace coldbrick::inline v0::detail {

// So many pixels of four bytes.
COLDBRICK_INLINE void write_pixels(std::uint32_t pixel, std::uint8_t* bytes, int count) noexcept {
    const std::array four = {pixel, pixel, pixel, pixel};
    constexpr std::size_t at_once = sizeof four;
    if (count < 4) {
        for (; count > 0; --count, bytes += 4) std::memcpy(bytes, &pixel, 4);
        return;
    }
    // The last ones overlap those before.
    auto* const last = bytes + 4 * std::ptrdiff_t{count} - at_once;
    for (; bytes < last; bytes += at_once) std::memcpy(bytes, four.data(), at_once);
    std::memcpy(last, four.data(), at_once);
}

// The bytes of a pixel of up to four.
inline std::uint32_t word_of(const Surface& surface, Color color) noexcept {
    Pixel pixel{};
    surface.kernel->put(pixel.data(), color);
    std::uint32_t word = 0;
    std::memcpy(&word, pixel.data(), 4);
    return word;
}

// What writes runs of pixels of another size.
inline PixelPattern pattern_of(const Surface& surface, std::uint32_t word) noexcept {
    Pixel pixel{};
    std::memcpy(pixel.data(), &word, sizeof word);
    return {pixel, surface.kernel->pixel_bytes()};
}

COLDBRICK_INLINE bool is_inside(const Box& box, const Box& window) noexcept {
    return box.at.x >= window.at.x && box.at.y >= window.at.y &&
           std::int64_t{box.at.x} + box.size.width <= std::int64_t{window.at.x} + window.size.width &&
           std::int64_t{box.at.y} + box.size.height <= std::int64_t{window.at.y} + window.size.height;
}

template <class Shape>
const Shape* as(const AreaRef& area) noexcept {
    return area.shape.kind == number_in<Shape, AllShapes> ? static_cast<const Shape*>(area.shape.shape) : nullptr;
}

}  // namespace coldbrick::inline v0::detail
