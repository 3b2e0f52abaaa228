#include "formats/color_rows.hpp"

#include "geometry/vectors.hpp"

#include <cstring>
#include <type_traits>

namespace coldbrick::inline v0::detail {

static_assert(sizeof(Color) == 4 && std::is_trivially_copyable_v<Color>);

namespace {

using Bytes16 = std::uint8_t __attribute__((vector_size(16)));

// Four pixels of three bytes from sixteen, and back.
template <ChannelOrder order>
COLDBRICK_INLINE void to_colors(Bytes16& bytes) noexcept {
    constexpr Bytes16 opaque = {0, 0, 0, 255, 0, 0, 0, 255, 0, 0, 0, 255, 0, 0, 0, 255};
    if constexpr (order == ChannelOrder::rgb) {
        bytes = __builtin_shufflevector(bytes, Bytes16{}, 0, 1, 2, 16, 3, 4, 5, 16, 6, 7, 8, 16, 9, 10, 11, 16);
    } else {
        bytes = __builtin_shufflevector(bytes, Bytes16{}, 2, 1, 0, 16, 5, 4, 3, 16, 8, 7, 6, 16, 11, 10, 9, 16);
    }
    bytes |= opaque;
}
template <ChannelOrder order>
COLDBRICK_INLINE void from_colors(Bytes16& bytes) noexcept {
    if constexpr (order == ChannelOrder::rgb) {
        bytes = __builtin_shufflevector(bytes, Bytes16{}, 0, 1, 2, 4, 5, 6, 8, 9, 10, 12, 13, 14, 16, 16, 16, 16);
    } else {
        bytes = __builtin_shufflevector(bytes, Bytes16{}, 2, 1, 0, 6, 5, 4, 10, 9, 8, 14, 13, 12, 16, 16, 16, 16);
    }
}

constexpr auto at(ChannelOrder order, std::size_t channel) noexcept {
    return order == ChannelOrder::rgb ? channel : 2 - channel;
}

template <ChannelOrder order>
COLDBRICK_INLINE void read_rgb(const std::uint8_t* pixels, std::size_t count, Color* colors) noexcept {
    std::size_t i = 0;
    // Sixteen bytes are read for twelve.
    for (; i + 6 <= count; i += 4) {
        Bytes16 bytes;
        read(pixels + 3 * i, bytes);
        to_colors<order>(bytes);
        write(bytes, static_cast<void*>(colors + i));
    }
    for (; i < count; ++i) {
        const auto* const pixel = pixels + 3 * i;
        colors[i] = {.red = pixel[at(order, 0)], .green = pixel[1], .blue = pixel[at(order, 2)]};
    }
}

template <ChannelOrder order>
COLDBRICK_INLINE void write_rgb(const Color* colors, std::size_t count, std::uint8_t* pixels) noexcept {
    std::size_t i = 0;
    // The four bytes behind twelve are written again by the next ones.
    for (; i + 6 <= count; i += 4) {
        Bytes16 bytes;
        read(colors + i, bytes);
        from_colors<order>(bytes);
        write(bytes, pixels + 3 * i);
    }
    for (; i < count; ++i) {
        auto* const pixel = pixels + 3 * i;
        pixel[at(order, 0)] = colors[i].red;
        pixel[1] = colors[i].green;
        pixel[at(order, 2)] = colors[i].blue;
    }
}

// Red and blue change places; the same in both directions.
COLDBRICK_INLINE void swap_row(const void* from, std::size_t count, void* to) noexcept {
    constexpr auto size = sizeof(Color);
    const auto* source = static_cast<const std::uint8_t*>(from);
    auto* target = static_cast<std::uint8_t*>(to);
    constexpr auto red = is_little_endian ? 0U : 24U;
    constexpr auto blue = is_little_endian ? 16U : 8U;
    constexpr auto others = ~(255U << red | 255U << blue);
    for (std::size_t i = 0; i < count; ++i, source += size, target += size) {
        std::uint32_t word = 0;
        std::memcpy(&word, source, size);
        word = (word & others) | (word >> red & 255U) << blue | (word >> blue & 255U) << red;
        std::memcpy(target, &word, size);
    }
}

// The weights of Rec. 709 in 2^-24ths. A weighted sum is a multiple of 1/5000; raised by half of that, an exact half is
// rounded up, and what the weights lose, less than 3 * 255 / 2^25, decides nothing.
// NOLINTNEXTLINE(bugprone-incorrect-roundings): halves go up, and no call stands in a loop of vectors.
constexpr auto weight_of(double part) noexcept { return static_cast<std::uint32_t>(part * 16777216 + 0.5); }
constexpr auto red_weight = weight_of(0.2126);
constexpr auto green_weight = weight_of(0.7152);
constexpr auto blue_weight = weight_of(0.0722);
constexpr auto raised = weight_of(0.5 + 0.0001);

// The lumas of eight colours.
COLDBRICK_INLINE void find_lumas(const Words8& words, Words8& grays) noexcept {
    const Words8 red = words >> (is_little_endian ? 0 : 24) & 255U;
    const Words8 green = words >> (is_little_endian ? 8 : 16) & 255U;
    const Words8 blue = words >> (is_little_endian ? 16 : 8) & 255U;
    grays = (red * red_weight + green * green_weight + blue * blue_weight + raised) >> 24;
}

COLDBRICK_INLINE void write_gray(const Color* colors, std::size_t count, std::uint8_t* pixels) noexcept {
    constexpr std::size_t at_once = 32;
    std::size_t i = 0;
    for (; i + at_once <= count; i += at_once) {
        std::uint32_t grays[at_once];
        for (std::size_t k = 0; k < at_once; k += 8) {
            Words8 words;
            Words8 some;
            read(colors + i + k, words);
            find_lumas(words, some);
            write(some, grays + k);
        }
        for (std::size_t k = 0; k < at_once; ++k) pixels[i + k] = static_cast<std::uint8_t>(grays[k]);
    }
    for (; i < count; ++i) pixels[i] = luma(colors[i]);
}

COLDBRICK_INLINE void make_gray(Color* colors, std::size_t count) noexcept {
    constexpr auto alpha = is_little_endian ? 0xff000000U : 0xffU;
    std::size_t i = 0;
    for (; i + 8 <= count; i += 8) {
        Words8 words;
        read(colors + i, words);
        Words8 grays;
        find_lumas(words, grays);
        words = (words & alpha) | (grays | grays << 8 | grays << 16) << (is_little_endian ? 0 : 8);
        write(words, static_cast<void*>(colors + i));
    }
    for (; i < count; ++i) colors[i] = with_alpha(gray(luma(colors[i])), colors[i].alpha);
}

}  // namespace

void read_rgb_row(const std::uint8_t* pixels, ChannelOrder order, std::size_t count, Color* colors) noexcept {
    run_in_vectors([&]() COLDBRICK_KERNEL {
        order == ChannelOrder::rgb ? read_rgb<ChannelOrder::rgb>(pixels, count, colors)
                                   : read_rgb<ChannelOrder::bgr>(pixels, count, colors);
    });
}

void write_rgb_row(const Color* colors, ChannelOrder order, std::size_t count, std::uint8_t* pixels) noexcept {
    run_in_vectors([&]() COLDBRICK_KERNEL {
        order == ChannelOrder::rgb ? write_rgb<ChannelOrder::rgb>(colors, count, pixels)
                                   : write_rgb<ChannelOrder::bgr>(colors, count, pixels);
    });
}

void read_rgba_row(const std::uint8_t* pixels, ChannelOrder order, std::size_t count, Color* colors) noexcept {
    auto* const to = static_cast<void*>(colors);
    if (order == ChannelOrder::rgb) {
        std::memcpy(to, pixels, count * sizeof(Color));
    } else {
        run_in_vectors([&]() COLDBRICK_KERNEL { swap_row(pixels, count, to); });
    }
}

void write_rgba_row(const Color* colors, ChannelOrder order, std::size_t count, std::uint8_t* pixels) noexcept {
    if (order == ChannelOrder::rgb) {
        std::memcpy(pixels, colors, count * sizeof(Color));
    } else {
        run_in_vectors([&]() COLDBRICK_KERNEL { swap_row(colors, count, pixels); });
    }
}

namespace {

// Sixteen grays become sixteen colours: each byte four times, of which the last is alpha.
COLDBRICK_INLINE void spread_grays(const std::uint8_t* pixels, std::uint8_t* colors) noexcept {
    using Pairs8 = std::uint16_t __attribute__((vector_size(16)));
    using Lanes4 = std::uint32_t __attribute__((vector_size(16)));
    constexpr auto alpha = is_little_endian ? 0xff000000U : 0xffU;
    Bytes16 grays;
    read(pixels, grays);
    const auto put = [&](const Pairs8& twice, std::size_t at) COLDBRICK_KERNEL {
        const auto first = reinterpret_cast<Lanes4>(__builtin_shufflevector(twice, twice, 0, 8, 1, 9, 2, 10, 3, 11));
        const auto second = reinterpret_cast<Lanes4>(__builtin_shufflevector(twice, twice, 4, 12, 5, 13, 6, 14, 7, 15));
        write(first | alpha, colors + at);
        write(second | alpha, colors + at + 16);
    };
    put(reinterpret_cast<Pairs8>(
            __builtin_shufflevector(grays, grays, 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23)),
        0);
    put(reinterpret_cast<Pairs8>(
            __builtin_shufflevector(grays, grays, 8, 24, 9, 25, 10, 26, 11, 27, 12, 28, 13, 29, 14, 30, 15, 31)),
        32);
}

// Five pixels of three bytes, of which red and blue change places; sixteen bytes are read and written.
COLDBRICK_INLINE void swap_five(const std::uint8_t* from, std::uint8_t* to) noexcept {
    Bytes16 bytes;
    read(from, bytes);
    bytes = __builtin_shufflevector(bytes, bytes, 2, 1, 0, 5, 4, 3, 8, 7, 6, 11, 10, 9, 14, 13, 12, 15);
    write(bytes, to);
}

}  // namespace

void read_gray_row(const std::uint8_t* pixels, std::size_t count, Color* colors) noexcept {
    auto* const bytes = reinterpret_cast<std::uint8_t*>(colors);
    run_in_vectors([&]() COLDBRICK_KERNEL {
        std::size_t i = 0;
        for (; i + 16 <= count; i += 16) spread_grays(pixels + i, bytes + 4 * i);
        for (; i < count; ++i) colors[i] = gray(pixels[i]);
    });
}

void swap_rgb_row(const std::uint8_t* from, std::size_t count, std::uint8_t* to) noexcept {
    run_in_vectors([&]() COLDBRICK_KERNEL {
        std::size_t i = 0;
        // The byte behind fifteen is written again by the next ones.
        for (; i + 6 <= count; i += 5) swap_five(from + 3 * i, to + 3 * i);
        for (; i < count; ++i) {
            for (std::size_t k = 0; k < 3; ++k) to[3 * i + k] = from[3 * i + 2 - k];
        }
    });
}

void make_gray_row(Color* colors, std::size_t count) noexcept {
    run_in_vectors([&]() COLDBRICK_KERNEL { make_gray(colors, count); });
}

void write_gray_row(const Color* colors, std::size_t count, std::uint8_t* pixels) noexcept {
    run_in_vectors([&]() COLDBRICK_KERNEL { write_gray(colors, count, pixels); });
}

}  // namespace coldbrick::inline v0::detail
