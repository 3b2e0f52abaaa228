// The kernels of formats with 16 bits a channel, and of palettes.
#include "pixels/kernels.hpp"

#include "coldbrick/formats.hpp"

#include <cstring>

namespace coldbrick::detail {

namespace {

// Grays lie `step` bytes apart: 2, or more where they are a channel of something.
template <int step>
void load_gray(const Surface&, const std::uint8_t* pixels, int count, Color16* colors) noexcept {
    for (int i = 0; i < count; ++i, pixels += step) {
        std::uint16_t value = 0;
        std::memcpy(&value, pixels, sizeof value);
        colors[i] = {.red = value, .green = value, .blue = value};
    }
}

template <int step>
void store_gray(const Surface&, const Color16* colors, int count, std::uint8_t* pixels) noexcept {
    for (int i = 0; i < count; ++i, pixels += step) {
        const auto value = luma(colors[i]);
        std::memcpy(pixels, &value, sizeof value);
    }
}

void load_rgba(const Surface&, const std::uint8_t* pixels, int count, Color16* colors) noexcept {
    static_assert(sizeof(Color16) == 8);
    std::memcpy(colors, pixels, static_cast<std::size_t>(count) * sizeof(Color16));
}

void store_rgba(const Surface&, const Color16* colors, int count, std::uint8_t* pixels) noexcept {
    std::memcpy(pixels, colors, static_cast<std::size_t>(count) * sizeof(Color16));
}

void load_index(const Surface& surface, const std::uint8_t* pixels, int count, Color* colors) {
    const auto known = palette_of(surface).colors();
    for (int i = 0; i < count; ++i) colors[i] = pixels[i] < known.size() ? known[pixels[i]] : Color{.alpha = 0};
}

void store_index(const Surface& surface, const Color* colors, int count, std::uint8_t* pixels) {
    const auto& palette = palette_of(surface);
    for (int i = 0; i < count; ++i) {
        // Neighbours are often alike.
        const auto is_same = i > 0 && colors[i] == colors[i - 1];
        pixels[i] = is_same ? pixels[i - 1] : static_cast<std::uint8_t>(palette.nearest(colors[i]));
    }
}

constexpr FormatKernel number_channel{
    .pixel_bytes = 8, .is_gray = true, .is_sparse = true, .load_deep = load_gray<8>, .store_deep = store_gray<8>};

}  // namespace

constexpr FormatKernel gray16_kernel{
    .pixel_bytes = 2, .is_gray = true, .load_deep = load_gray<2>, .store_deep = store_gray<2>};
constexpr FormatKernel rgba16_kernel{
    .pixel_bytes = 8, .has_alpha = true, .load_deep = load_rgba, .store_deep = store_rgba};
constexpr FormatKernel index8_kernel{.pixel_bytes = 1, .has_alpha = true, .load = load_index, .store = store_index};

const FormatKernel& number_channel_kernel() noexcept { return number_channel; }

Pixel encode(const Surface& surface, Color color) {
    Pixel pixel{};
    const auto& kernel = *surface.kernel;
    if (kernel.store != nullptr) {
        kernel.store(surface, &color, 1, pixel.data());
        return pixel;
    }
    return encode(surface, widened(color));
}

Pixel encode(const Surface& surface, Color16 color) {
    Pixel pixel{};
    const auto& kernel = *surface.kernel;
    if (kernel.store_deep == nullptr) return encode(surface, narrowed(color));
    kernel.store_deep(surface, &color, 1, pixel.data());
    return pixel;
}

Color decode(const Surface& surface, const std::uint8_t* pixel) {
    if (surface.kernel->load == nullptr) return narrowed(decode_deep(surface, pixel));
    Color color;
    surface.kernel->load(surface, pixel, 1, &color);
    return color;
}

Color16 decode_deep(const Surface& surface, const std::uint8_t* pixel) {
    if (surface.kernel->load_deep == nullptr) return widened(decode(surface, pixel));
    Color16 color;
    surface.kernel->load_deep(surface, pixel, 1, &color);
    return color;
}

const Palette& palette_of(const Surface& surface) noexcept {
    return surface.palette ? *surface.palette : palettes::quay();
}

}  // namespace coldbrick::detail
