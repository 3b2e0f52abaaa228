// Colours to numbers of a palette, many at a time.
#pragma once

#include "coldbrick/palette.hpp"

#include <array>
#include <cstdint>

namespace coldbrick::inline v0::detail {

// The numbers of the nearest colours in a palette, as Palette::nearest() returns them. Those of colours that were asked
// for before are remembered, as far as there is room: looking for one takes as long as the palette is large.
class PaletteNumbers {
  public:
    // Of a palette that outlives this.
    explicit PaletteNumbers(const Palette& palette) noexcept;

    void find(const Color* colors, int count, std::uint8_t* numbers) noexcept;

  private:
    static constexpr unsigned place_bits = 12;
    static constexpr unsigned places = 1U << place_bits;

    static std::uint32_t place_of(std::uint32_t word) noexcept;
    static std::uint32_t word_of(const Color& color) noexcept;

    const Palette& palette_;
    std::array<std::uint32_t, places> words_;  // the bytes of the colour that was found last at each place
    std::array<std::uint8_t, places> numbers_;
};

}  // namespace coldbrick::inline v0::detail
