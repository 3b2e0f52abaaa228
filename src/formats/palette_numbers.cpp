#include "formats/palette_numbers.hpp"

#include <cstring>

namespace coldbrick::inline v0::detail {

// By multiplying with the odd number next to 2^32 / phi, of which the upper bits depend on all bits below (D. E. Knuth,
// The Art of Computer Programming 3, section 6.4).
std::uint32_t PaletteNumbers::place_of(std::uint32_t word) noexcept {
    constexpr auto factor = 2654435769U;
    return (word * factor) >> (32U - place_bits);
}

std::uint32_t PaletteNumbers::word_of(const Color& color) noexcept {
    std::uint32_t word = 0;
    std::memcpy(&word, &color, sizeof word);
    return word;
}

PaletteNumbers::PaletteNumbers(const Palette& palette) noexcept : palette_{palette} {
    // What belongs at another place is found at none.
    words_.fill(0);
    words_[place_of(0)] = 1;
    static_assert((1U * 2654435769U) >> (32U - place_bits) != 0);
}

void PaletteNumbers::find(const Color* colors, int count, std::uint8_t* numbers) noexcept {
    for (int i = 0; i < count; ++i) {
        const auto word = word_of(colors[i]);
        const auto place = place_of(word);
        if (words_[place] != word) {
            words_[place] = word;
            numbers_[place] = static_cast<std::uint8_t>(palette_.nearest(colors[i]));
        }
        numbers[i] = numbers_[place];
    }
}

}  // namespace coldbrick::inline v0::detail
