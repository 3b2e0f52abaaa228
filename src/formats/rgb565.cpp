// Sixteen bits a pixel, as small displays have them.
#include "formats/kernels.hpp"

namespace coldbrick::inline v0::detail {

namespace {

constexpr unsigned most_of_5 = 31;
constexpr unsigned most_of_6 = 63;

constexpr unsigned narrowed_to(unsigned most, std::uint8_t value) noexcept { return (value * most + 127U) / 255U; }
constexpr std::uint8_t widened_from(unsigned most, unsigned value) noexcept {
    return static_cast<std::uint8_t>((value * 255U + most / 2) / most);
}

void store(const Target& target, const Color* colors, int count, Point first) noexcept {
    auto* pixels = pixel_address<2>(target, first);
    for (int i = 0; i < count; ++i, pixels += 2) {
        const auto& [red, green, blue, alpha] = colors[i];
        const auto bits =
            narrowed_to(most_of_5, red) << 11U | narrowed_to(most_of_6, green) << 5U | narrowed_to(most_of_5, blue);
        pixels[0] = static_cast<std::uint8_t>(bits);
        pixels[1] = static_cast<std::uint8_t>(bits >> 8U);
    }
}

void load(const Target& target, Point first, int count, Color* colors) noexcept {
    const auto* pixels = pixel_address<2>(target, first);
    for (int i = 0; i < count; ++i, pixels += 2) {
        const auto bits = pixels[0] | static_cast<unsigned>(pixels[1]) << 8U;
        colors[i] = {.red = widened_from(most_of_5, bits >> 11U),
                     .green = widened_from(most_of_6, bits >> 5U & most_of_6),
                     .blue = widened_from(most_of_5, bits & most_of_5)};
    }
}

}  // namespace

const FormatKernel rgb565_kernel{.pixel_bits = 16, .load = load, .store = store};

}  // namespace coldbrick::inline v0::detail
