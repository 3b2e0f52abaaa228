// Gray16, and single numbers of pixels of several, as gray: rule 5 of docs/pixel-rules.md.
#include "formats/kernels.hpp"
#include "geometry/vectors.hpp"

namespace coldbrick::inline v0::detail {

namespace {

// Grays lie `step` bytes apart: 2, or more where they are a channel of something.
template <int step>
void load_deep_gray(const Target& target, Point first, int count, Color16* colors) noexcept {
    const auto* pixels = pixel_address<step>(target, first);
    for (int i = 0; i < count; ++i, pixels += step) {
        std::uint16_t value = 0;
        std::memcpy(&value, pixels, sizeof value);
        colors[i] = {.red = value, .green = value, .blue = value};
    }
}

template <int step>
void store_deep_gray(const Target& target, const Color16* colors, int count, Point first) noexcept {
    auto* const pixels = pixel_address<step>(target, first);
    run_in_vectors([=]() COLDBRICK_KERNEL {
        for (int i = 0; i < count; ++i) {
            // luma(), without a division: a sum of whole numbers is more than half of one away from the next multiple.
            const auto& color = colors[i];
            const auto sum = 2126 * color.red + 7152 * color.green + 722 * color.blue;
            const auto value = static_cast<std::uint16_t>(static_cast<std::int32_t>((sum + 5000.5) * 1e-4));
            std::memcpy(pixels + std::ptrdiff_t{i} * step, &value, sizeof value);
        }
    });
}

constexpr FormatKernel number_channel{.pixel_bits = 64,
                                      .is_gray = true,
                                      .is_sparse = true,
                                      .load_deep = load_deep_gray<8>,
                                      .store_deep = store_deep_gray<8>};

}  // namespace

constexpr FormatKernel gray16_kernel{
    .pixel_bits = 16, .is_gray = true, .load_deep = load_deep_gray<2>, .store_deep = store_deep_gray<2>};

const FormatKernel& number_channel_kernel() noexcept { return number_channel; }

}  // namespace coldbrick::inline v0::detail
