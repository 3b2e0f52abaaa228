// Index8: rule 5 of docs/pixel-rules.md.
#include "formats/kernels.hpp"

namespace coldbrick::inline v0::detail {

namespace {

void load_index(const Target& target, Point first, int count, Color* colors) {
    const auto* const pixels = pixel_address<1>(target, first);
    const auto known = palette_of(target).colors();
    for (int i = 0; i < count; ++i) colors[i] = pixels[i] < known.size() ? known[pixels[i]] : Color{.alpha = 0};
}

void store_index(const Target& target, const Color* colors, int count, Point first) {
    auto* const pixels = pixel_address<1>(target, first);
    const auto& palette = palette_of(target);
    for (int i = 0; i < count; ++i) {
        // Neighbours are often alike.
        const auto is_same = i > 0 && colors[i] == colors[i - 1];
        pixels[i] = is_same ? pixels[i - 1] : static_cast<std::uint8_t>(palette.nearest(colors[i]));
    }
}

}  // namespace

constexpr FormatKernel index8_kernel{
    .pixel_bits = 8, .has_alpha = true, .is_indexed = true, .load = load_index, .store = store_index};

const Palette& palette_of(const Target& target) noexcept { return target.palette ? *target.palette : palettes::quay(); }

}  // namespace coldbrick::inline v0::detail
