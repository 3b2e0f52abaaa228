// The kernels of formats with 16 bits a channel, and of palettes.
#include "formats/kernels.hpp"

#include "coldbrick/formats.hpp"

#include <algorithm>
#include <array>
#include <cstring>

namespace coldbrick::inline v0::detail {

namespace {

// Grays lie `step` bytes apart: 2, or more where they are a channel of something.
template <int step>
void load_deep_gray(const Target&, const std::uint8_t* pixels, int count, Color16* colors) noexcept {
    for (int i = 0; i < count; ++i, pixels += step) {
        std::uint16_t value = 0;
        std::memcpy(&value, pixels, sizeof value);
        colors[i] = {.red = value, .green = value, .blue = value};
    }
}

template <int step>
void store_deep_gray(const Target&, const Color16* colors, int count, std::uint8_t* pixels) noexcept {
    for (int i = 0; i < count; ++i, pixels += step) {
        const auto value = luma(colors[i]);
        std::memcpy(pixels, &value, sizeof value);
    }
}

void load_rgba(const Target&, const std::uint8_t* pixels, int count, Color16* colors) noexcept {
    static_assert(sizeof(Color16) == 8);
    std::memcpy(colors, pixels, static_cast<std::size_t>(count) * sizeof(Color16));
}

void store_rgba(const Target&, const Color16* colors, int count, std::uint8_t* pixels) noexcept {
    std::memcpy(pixels, colors, static_cast<std::size_t>(count) * sizeof(Color16));
}

void load_index(const Target& target, const std::uint8_t* pixels, int count, Color* colors) {
    const auto known = palette_of(target).colors();
    for (int i = 0; i < count; ++i) colors[i] = pixels[i] < known.size() ? known[pixels[i]] : Color{.alpha = 0};
}

void store_index(const Target& target, const Color* colors, int count, std::uint8_t* pixels) {
    const auto& palette = palette_of(target);
    for (int i = 0; i < count; ++i) {
        // Neighbours are often alike.
        const auto is_same = i > 0 && colors[i] == colors[i - 1];
        pixels[i] = is_same ? pixels[i - 1] : static_cast<std::uint8_t>(palette.nearest(colors[i]));
    }
}

constexpr FormatKernel number_channel{.pixel_bytes = 8,
                                      .is_gray = true,
                                      .is_sparse = true,
                                      .load_deep = load_deep_gray<8>,
                                      .store_deep = store_deep_gray<8>};

}  // namespace

constexpr FormatKernel gray16_kernel{
    .pixel_bytes = 2, .is_gray = true, .load_deep = load_deep_gray<2>, .store_deep = store_deep_gray<2>};
constexpr FormatKernel rgba16_kernel{
    .pixel_bytes = 8, .has_alpha = true, .load_deep = load_rgba, .store_deep = store_rgba};
constexpr FormatKernel index8_kernel{.pixel_bytes = 1, .has_alpha = true, .load = load_index, .store = store_index};

const FormatKernel& number_channel_kernel() noexcept { return number_channel; }

const FormatKernel& packed_kernel(const FormatKernel& kernel) noexcept {
    if (!kernel.is_sparse) return kernel;
    return kernel.load_deep != nullptr ? gray16_kernel : gray8_kernel;
}

namespace {

// Colours of the other depth go by the way, so many at once.
constexpr auto at_once = 128;

// Calls use(first, count) for stretches of so many.
template <class Use>
void for_each_stretch(int count, const Use& use) {
    for (int first = 0; first < count; first += at_once) use(first, std::min(at_once, count - first));
}

}  // namespace

void read_colors(const Target& target, const std::uint8_t* pixels, int count, Color* colors) {
    const auto& kernel = *target.kernel;
    if (kernel.load != nullptr) return kernel.load(target, pixels, count, colors);
    for_each_stretch(count, [&](int first, int length) {
        std::array<Color16, at_once> deep;
        kernel.load_deep(target, pixels + std::ptrdiff_t{first} * kernel.pixel_bytes, length, deep.data());
        for (int i = 0; i < length; ++i) colors[first + i] = narrowed(deep[static_cast<std::size_t>(i)]);
    });
}

void read_colors(const Target& target, const std::uint8_t* pixels, int count, Color16* colors) {
    const auto& kernel = *target.kernel;
    if (kernel.load_deep != nullptr) return kernel.load_deep(target, pixels, count, colors);
    for_each_stretch(count, [&](int first, int length) {
        std::array<Color, at_once> shallow;
        kernel.load(target, pixels + std::ptrdiff_t{first} * kernel.pixel_bytes, length, shallow.data());
        for (int i = 0; i < length; ++i) colors[first + i] = widened(shallow[static_cast<std::size_t>(i)]);
    });
}

void write_colors(const Target& target, const Color* colors, int count, std::uint8_t* pixels) {
    const auto& kernel = *target.kernel;
    if (kernel.store != nullptr) return kernel.store(target, colors, count, pixels);
    for_each_stretch(count, [&](int first, int length) {
        std::array<Color16, at_once> deep;
        for (int i = 0; i < length; ++i) deep[static_cast<std::size_t>(i)] = widened(colors[first + i]);
        kernel.store_deep(target, deep.data(), length, pixels + std::ptrdiff_t{first} * kernel.pixel_bytes);
    });
}

void write_colors(const Target& target, const Color16* colors, int count, std::uint8_t* pixels) {
    const auto& kernel = *target.kernel;
    if (kernel.store_deep != nullptr) return kernel.store_deep(target, colors, count, pixels);
    for_each_stretch(count, [&](int first, int length) {
        std::array<Color, at_once> shallow;
        for (int i = 0; i < length; ++i) shallow[static_cast<std::size_t>(i)] = narrowed(colors[first + i]);
        kernel.store(target, shallow.data(), length, pixels + std::ptrdiff_t{first} * kernel.pixel_bytes);
    });
}

Pixel encode(const Target& target, Color color) {
    Pixel pixel{};
    write_colors(target, &color, 1, pixel.data());
    return pixel;
}

Pixel encode(const Target& target, Color16 color) {
    Pixel pixel{};
    write_colors(target, &color, 1, pixel.data());
    return pixel;
}

Color decode(const Target& target, const std::uint8_t* pixel) {
    Color color;
    read_colors(target, pixel, 1, &color);
    return color;
}

Color16 decode_deep(const Target& target, const std::uint8_t* pixel) {
    Color16 color;
    read_colors(target, pixel, 1, &color);
    return color;
}

const Palette& palette_of(const Target& target) noexcept { return target.palette ? *target.palette : palettes::quay(); }

void cover_with(const Target& target, std::span<const CoverSpan> spans, Color color) {
    for (const auto& span : spans) {
        if (span.each != nullptr) continue;
        const auto run = Span{.y = span.y, .x = span.x, .length = span.length};
        target.kernel->blend(target, {&run, 1}, with_alpha(color, product_255(color.alpha, span.all)));
    }
    target.kernel->cover(target, spans, color);
}

}  // namespace coldbrick::inline v0::detail
