// Gray8, and single bytes of pixels of several, as gray: rule 5 of docs/pixel-rules.md.
#include "formats/color_rows.hpp"
#include "formats/layers.hpp"

#include "coldbrick/formats.hpp"

namespace coldbrick::inline v0::detail {

namespace {

// Grays lie `step` bytes apart: 1, or more where they are a channel of something.
template <int step>
void store_gray(const Target& target, const Color* colors, int count, Point first) noexcept {
    auto* pixels = pixel_address<step>(target, first);
    if (step == 1) return write_gray_row(colors, static_cast<std::size_t>(count), pixels);
    for (int i = 0; i < count; ++i, pixels += step) *pixels = luma(colors[i]);
}

template <int step>
void load_gray(const Target& target, Point first, int count, Color* colors) noexcept {
    const auto* pixels = pixel_address<step>(target, first);
    if (step == 1) return read_gray_row(pixels, static_cast<std::size_t>(count), colors);
    for (int i = 0; i < count; ++i, pixels += step) colors[i] = gray(*pixels);
}

struct GrayLayer {
    static constexpr int pixel_bytes = 1;
    explicit GrayLayer(Color color) noexcept : source{luma(color)} {}
    void operator()(std::uint8_t* pixel, unsigned alpha) const noexcept {
        *pixel = static_cast<std::uint8_t>(mixed_bytes(source, *pixel, alpha));
    }
    [[nodiscard]] auto ready(std::uint8_t alpha) const noexcept { return OpaqueBlend{&source, 1, alpha}; }

    std::uint8_t source;
};

void put_gray(std::uint8_t* pixel, Color color) noexcept { *pixel = luma(color); }

// One byte of a pixel of several, as gray.
template <int step>
constexpr FormatKernel byte_channel{
    .pixel_bits = 8 * step, .is_gray = true, .is_sparse = true, .load = load_gray<step>, .store = store_gray<step>};

}  // namespace

constexpr FormatKernel gray8_kernel{.pixel_bits = 8,
                                    .is_gray = true,
                                    .is_by_byte = true,
                                    .load = load_gray<1>,
                                    .store = store_gray<1>,
                                    .blend = blend_layer<GrayLayer>,
                                    .cover = cover_layer<GrayLayer>,
                                    .trace = trace_layer<GrayLayer>,
                                    .put = put_gray,
                                    .lay = lay_one<GrayLayer>};
const FormatKernel& byte_channel_of(int pixel_bytes) noexcept {
    return pixel_bytes == 3 ? byte_channel<3> : byte_channel<4>;
}

}  // namespace coldbrick::inline v0::detail
