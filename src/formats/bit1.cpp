// One bit a pixel, as displays of paper and of dots have them, and files in black and white.
#include "formats/kernels.hpp"

#include <bit>

namespace coldbrick::inline v0::detail {

namespace {

// The byte in which a pixel lies, and its place there, from the highest bit.
struct BitPlace {
    std::uint8_t* byte;
    unsigned bit;
};

BitPlace bit_place_of(const Target& target, Point pixel) noexcept {
    const auto bits = std::ptrdiff_t{pixel.x} + target.first_bit;
    return {.byte = target.top_left + pixel.y * target.stride + bits / 8, .bit = static_cast<unsigned>(bits % 8)};
}

// The bits of a byte from a place on, and those before it.
constexpr unsigned bits_from(unsigned bit) noexcept { return 255U >> bit; }
constexpr unsigned bits_before(unsigned bit) noexcept { return 255U & ~(255U >> bit); }

void set_bits(std::uint8_t& byte, unsigned mask, unsigned bits) noexcept {
    byte = static_cast<std::uint8_t>((byte & ~mask) | (bits & mask));
}

constexpr std::uint8_t least_white = 128;

void store_bits(const Target& target, const Color* colors, int count, Point first) noexcept {
    auto [byte, bit] = bit_place_of(target, first);
    for (int i = 0; i < count; ++byte, bit = 0) {
        const auto in_byte = std::min(8U - bit, static_cast<unsigned>(count - i));
        unsigned bits = 0;
        for (unsigned k = 0; k < in_byte; ++k, ++i) bits = bits << 1U | (luma(colors[i]) >= least_white ? 1U : 0U);
        set_bits(*byte, bits_from(bit) & bits_before(bit + in_byte), bits << (8U - bit - in_byte));
    }
}

void load_bits(const Target& target, Point first, int count, Color* colors) noexcept {
    auto [byte, bit] = bit_place_of(target, first);
    for (int i = 0; i < count; ++byte, bit = 0) {
        const auto in_byte = std::min(8U - bit, static_cast<unsigned>(count - i));
        for (unsigned k = 0; k < in_byte; ++k, ++i) {
            colors[i] = gray((*byte >> (7U - bit - k) & 1U) != 0 ? 255 : 0);
        }
    }
}

}  // namespace

void write_bits(const Target& target, const Span& run, bool is_white) noexcept {
    auto [byte, bit] = bit_place_of(target, {.x = run.x, .y = run.y});
    const auto bits = is_white ? 255U : 0U;
    const auto end = static_cast<std::size_t>(bit) + static_cast<std::size_t>(run.length);
    const auto last = static_cast<unsigned>(end % 8);
    if (end < 8) return set_bits(*byte, bits_from(bit) & bits_before(last), bits);
    auto* const behind = byte + end / 8;
    if (bit != 0) set_bits(*byte++, bits_from(bit), bits);
    std::memset(byte, static_cast<int>(bits), static_cast<std::size_t>(behind - byte));
    if (last != 0) set_bits(*behind, bits_before(last), bits);
}

const FormatKernel bit1_kernel{
    .pixel_bits = 1, .is_gray = true, .is_sparse = true, .load = load_bits, .store = store_bits};

}  // namespace coldbrick::inline v0::detail
