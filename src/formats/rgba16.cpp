// Rgba16: rule 5 of docs/pixel-rules.md.
#include "formats/kernels.hpp"

namespace coldbrick::inline v0::detail {

namespace {

void load_rgba(const Target& target, Point first, int count, Color16* colors) noexcept {
    const auto* const pixels = pixel_address<sizeof(Color16)>(target, first);
    static_assert(sizeof(Color16) == 8);
    std::memcpy(colors, pixels, static_cast<std::size_t>(count) * sizeof(Color16));
}

void store_rgba(const Target& target, const Color16* colors, int count, Point first) noexcept {
    auto* const pixels = pixel_address<sizeof(Color16)>(target, first);
    std::memcpy(pixels, colors, static_cast<std::size_t>(count) * sizeof(Color16));
}

}  // namespace

constexpr FormatKernel rgba16_kernel{
    .pixel_bits = 64, .has_alpha = true, .load_deep = load_rgba, .store_deep = store_rgba};

}  // namespace coldbrick::inline v0::detail
