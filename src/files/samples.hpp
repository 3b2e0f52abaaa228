// Samples in the order of a file to pixels.
#pragma once

#include "files/readers.hpp"

#include <cstring>
#include <string>

namespace coldbrick::inline v0::detail {

// A kind of file, its limits and where its pixels go.
struct Receiving {
    std::string_view kind;
    Size size;
    const LoadLimits& limits;
    PixelSink& sink;
};

// Calls set(x, y, pixel) for each pixel in turn, row by row; set sets its bytes. Of rows that are not wanted, skip(y)
// may say that it has left one out.
template <PixelFormat Format, class Set, class Skip>
void receive_pixels(const Receiving& to, const Set& set, const Skip& skip) {
    to.sink.begin(to.kind, {.kernel = &kernel_of<Format>(), .size = to.size, .comes_in_rows = true}, to.limits);
    std::vector<std::uint8_t> row(static_cast<std::size_t>(to.size.width) * bytes_per_pixel<Format>);
    for (int y = 0; y < to.size.height; ++y) {
        if (!to.sink.wants_row(y) && skip(y)) continue;
        auto* pixel = row.data();
        for (int x = 0; x < to.size.width; ++x, pixel += bytes_per_pixel<Format>) set(x, y, pixel);
        to.sink.take_row(row.data(), y);
    }
}

inline void set_number(std::uint8_t* at, std::uint32_t value) noexcept {
    const auto number = static_cast<std::uint16_t>(value);
    std::memcpy(at, &number, sizeof number);
}

// Of 1 to 4 channels (gray; gray and alpha; colour; colour and alpha), from the values 0 to most that next() gives in
// turn, in 8 bits or, if most is over 255, in 16.
template <class Next, class Skip>
void receive_samples(const Receiving& to, int channels, std::uint32_t most, const Next& next, const Skip& skip) {
    const auto scaled = [=](std::uint32_t value, std::uint32_t full) {
        if (most == full) return value;
        return static_cast<std::uint32_t>((2 * std::uint64_t{value} * full + most) / (2 * std::uint64_t{most}));
    };
    const auto is_gray = channels < 3;
    const auto has_alpha = channels % 2 == 0;
    const auto byte = [&] { return static_cast<std::uint8_t>(scaled(next(), 255)); };
    if (most > 255) {
        const auto number = [&] { return scaled(next(), 65535); };
        if (channels == 1) {
            return receive_pixels<Gray16>(
                to, [&](int, int, std::uint8_t* pixel) { set_number(pixel, number()); }, skip);
        }
        return receive_pixels<Rgba16>(
            to,
            [&](int, int, std::uint8_t* pixel) {
                const auto first = number();
                set_number(pixel, first);
                set_number(pixel + 2, is_gray ? first : number());
                set_number(pixel + 4, is_gray ? first : number());
                set_number(pixel + 6, has_alpha ? number() : 65535);
            },
            skip);
    }
    if (channels == 1) {
        return receive_pixels<Gray8>(
            to, [&](int, int, std::uint8_t* pixel) { *pixel = byte(); }, skip);
    }
    const auto set_color = [&](std::uint8_t* pixel) {
        pixel[0] = byte();
        pixel[1] = is_gray ? pixel[0] : byte();
        pixel[2] = is_gray ? pixel[0] : byte();
    };
    if (!has_alpha)
        return receive_pixels<Rgb8>(
            to, [&](int, int, std::uint8_t* pixel) { set_color(pixel); }, skip);
    receive_pixels<Rgba8>(
        to,
        [&](int, int, std::uint8_t* pixel) {
            set_color(pixel);
            pixel[3] = byte();
        },
        skip);
}

// For what cannot be left out.
inline constexpr auto skip_none = [](int) { return false; };

// Says that a file goes on after its picture.
inline void note_rest(PictureInfo& info, std::uint64_t bytes) {
    if (bytes > 0) info.oddities.push_back(std::to_string(bytes) + " bytes follow the picture");
}

}  // namespace coldbrick::inline v0::detail
