// coldbrick/palette.hpp - up to 256 colours by number: for Index8 buffers, and to choose from.
//
//     Bitmap<Index8> display{{128, 96}, palettes::quay()};
//     fill(display, Circle{.center = {64, 48}, .radius = 20}, PaletteEntry{3});    // by number
//     fill(display, Circle{.center = {64, 48}, .radius = 9}, colors::gold);        // the nearest of its colours
//     Color third = palettes::quay()[3];
#pragma once

#include "coldbrick/color.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/detail/shared.hpp"

#include <optional>
#include <span>
#include <string_view>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

class Palette {
  public:
    // Throws Error if there are no colours, or more than 256.
    explicit Palette(std::vector<Color> colors);

    [[nodiscard]] std::size_t size() const noexcept { return colors_.size(); }
    [[nodiscard]] std::span<const Color> colors() const& noexcept { return colors_; }
    template <class Colors = Color>
    [[nodiscard]] std::span<const Color> colors() const&& {
        static_assert(detail::never<Colors>, "this palette is gone at the end of the line: give it a name first");
        return {};
    }

    // Throws Error for a number outside.
    [[nodiscard]] Color operator[](std::size_t number) const;

    // The number of the nearest colour: of which the sum of the squares of the channels' differences, alpha among
    // them, is least; the first of those that are equally near.
    [[nodiscard]] std::size_t nearest(Color color) const noexcept;

    friend bool operator==(const Palette&, const Palette&) = default;

  private:
    std::vector<Color> colors_;
};

// A colour by its number in the palette of the buffer that is drawn on; an ink for Index8 buffers.
struct PaletteEntry {
    int number = 0;
    friend constexpr bool operator==(const PaletteEntry&, const PaletteEntry&) = default;
};

namespace palettes {

// Twelve colours of the library's own: a dark and a light ground, and ten that differ by their lightness and by
// how yellow or blue they are, which eyes see that do not distinguish red from green.
[[nodiscard]] const Palette& quay();

// Black and white.
[[nodiscard]] const Palette& two_tone();

// Sixteen grays from black to white.
[[nodiscard]] const Palette& gray_steps();

// Six steps each of red, green and blue, all mixtures: 216 colours.
[[nodiscard]] const Palette& cube();

// The palette of that name ("quay", "two_tone", "gray_steps", "cube"); nothing for others.
[[nodiscard]] const Palette* find(std::string_view name);

// All names.
[[nodiscard]] std::span<const std::string_view> names() noexcept;

}  // namespace palettes

namespace detail {

// A palette that bitmaps and their views keep.
struct KeptPalette : Counted {
    explicit KeptPalette(Palette of) : palette{std::move(of)} {}
    Palette palette;
};

}  // namespace detail

}  // namespace v0
}  // namespace coldbrick
