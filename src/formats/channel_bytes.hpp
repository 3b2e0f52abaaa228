// Pixels whose bytes are red, green and blue in some order, and alpha or nothing.
#pragma once

#include "formats/color_rows.hpp"
#include "formats/kernels.hpp"
#include "formats/source_over.hpp"

#include <array>

namespace coldbrick::inline v0::detail {

// Where each channel lies in a pixel.
struct Order {
    std::size_t red;
    std::size_t green;
    std::size_t blue;

    [[nodiscard]] constexpr ChannelOrder channels() const noexcept {
        return red == 0 ? ChannelOrder::rgb : ChannelOrder::bgr;
    }
};
inline constexpr auto rgb = Order{.red = 0, .green = 1, .blue = 2};
inline constexpr auto bgr = Order{.red = 2, .green = 1, .blue = 0};

using Bytes4 = std::array<std::uint8_t, 4>;

// Without alpha the fourth byte does not count.
template <Order order>
Bytes4 encode(Color color) noexcept {
    Bytes4 pixel;
    pixel[order.red] = color.red;
    pixel[order.green] = color.green;
    pixel[order.blue] = color.blue;
    pixel[alpha_place] = color.alpha;
    return pixel;
}

template <Order order, int pixel_bytes>
void store_channels(const Target& target, const Color* colors, int count, Point first) noexcept {
    auto* const pixels = pixel_address<pixel_bytes>(target, first);
    const auto write = pixel_bytes == 4 ? write_rgba_row : write_rgb_row;
    write(colors, order.channels(), static_cast<std::size_t>(count), pixels);
}

template <Order order, int pixel_bytes>
void load_channels(const Target& target, Point first, int count, Color* colors) noexcept {
    const auto* const pixels = pixel_address<pixel_bytes>(target, first);
    const auto read = pixel_bytes == 4 ? read_rgba_row : read_rgb_row;
    read(pixels, order.channels(), static_cast<std::size_t>(count), colors);
}

template <Order order, std::size_t pixel_bytes>
void put_one(std::uint8_t* pixel, Color color) noexcept {
    const auto bytes = encode<order>(color);
    std::memcpy(pixel, bytes.data(), pixel_bytes);
}

}  // namespace coldbrick::inline v0::detail
