// The kernels of formats with 16 bits a channel, and of palettes; colours of either depth.
#include "formats/kernels.hpp"
#include "geometry/vectors.hpp"

#include "coldbrick/formats.hpp"

#include <algorithm>
#include <array>
#include <cstring>

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

void load_rgba(const Target& target, Point first, int count, Color16* colors) noexcept {
    const auto* const pixels = pixel_address<sizeof(Color16)>(target, first);
    static_assert(sizeof(Color16) == 8);
    std::memcpy(colors, pixels, static_cast<std::size_t>(count) * sizeof(Color16));
}

void store_rgba(const Target& target, const Color16* colors, int count, Point first) noexcept {
    auto* const pixels = pixel_address<sizeof(Color16)>(target, first);
    std::memcpy(pixels, colors, static_cast<std::size_t>(count) * sizeof(Color16));
}

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

constexpr FormatKernel number_channel{.pixel_bits = 64,
                                      .is_gray = true,
                                      .is_sparse = true,
                                      .load_deep = load_deep_gray<8>,
                                      .store_deep = store_deep_gray<8>};

}  // namespace

constexpr FormatKernel gray16_kernel{
    .pixel_bits = 16, .is_gray = true, .load_deep = load_deep_gray<2>, .store_deep = store_deep_gray<2>};
constexpr FormatKernel rgba16_kernel{
    .pixel_bits = 64, .has_alpha = true, .load_deep = load_rgba, .store_deep = store_rgba};
constexpr FormatKernel index8_kernel{.pixel_bits = 8, .has_alpha = true, .load = load_index, .store = store_index};

const FormatKernel& number_channel_kernel() noexcept { return number_channel; }

const FormatKernel& packed_kernel(const FormatKernel& kernel) noexcept {
    if (!kernel.is_sparse) return kernel;
    return kernel.load_deep != nullptr ? gray16_kernel : gray8_kernel;
}

namespace {

// Colours of the other depth pass through a buffer of so many.
constexpr auto at_once = 128;

// Calls use(done, place, count) for stretches of so many pixels of a row, from one on.
template <class Use>
void for_each_stretch(Point first, int count, const Use& use) {
    for (int done = 0; done < count; done += at_once) {
        use(done, Point{.x = first.x + done, .y = first.y}, std::min(at_once, count - done));
    }
}

}  // namespace

void read_colors(const Target& target, Point first, int count, Color* colors) {
    const auto& kernel = *target.kernel;
    if (kernel.load != nullptr) return kernel.load(target, first, count, colors);
    for_each_stretch(first, count, [&](int done, Point place, int length) {
        std::array<Color16, at_once> deep;
        kernel.load_deep(target, place, length, deep.data());
        std::transform(deep.data(), deep.data() + length, colors + done,
                       [](const Color16& of) { return narrowed(of); });
    });
}

void read_colors(const Target& target, Point first, int count, Color16* colors) {
    const auto& kernel = *target.kernel;
    if (kernel.load_deep != nullptr) return kernel.load_deep(target, first, count, colors);
    for_each_stretch(first, count, [&](int done, Point place, int length) {
        std::array<Color, at_once> shallow;
        kernel.load(target, place, length, shallow.data());
        std::transform(shallow.data(), shallow.data() + length, colors + done, [](Color of) { return widened(of); });
    });
}

void write_colors(const Target& target, const Color* colors, int count, Point first) {
    const auto& kernel = *target.kernel;
    if (kernel.store != nullptr) return kernel.store(target, colors, count, first);
    for_each_stretch(first, count, [&](int done, Point place, int length) {
        std::array<Color16, at_once> deep;
        std::transform(colors + done, colors + done + length, deep.data(), [](Color of) { return widened(of); });
        kernel.store_deep(target, deep.data(), length, place);
    });
}

void write_colors(const Target& target, const Color16* colors, int count, Point first) {
    const auto& kernel = *target.kernel;
    if (kernel.store_deep != nullptr) return kernel.store_deep(target, colors, count, first);
    for_each_stretch(first, count, [&](int done, Point place, int length) {
        std::array<Color, at_once> shallow;
        std::transform(colors + done, colors + done + length, shallow.data(),
                       [](const Color16& of) { return narrowed(of); });
        kernel.store(target, shallow.data(), length, place);
    });
}

namespace {

template <class Texel>
Pixel encoded(const Target& target, const Texel& color) {
    Pixel pixel{};
    if constexpr (std::is_same_v<Texel, Color>) {
        if (target.kernel->is_color) {
            std::memcpy(pixel.data(), &color, sizeof color);
            return pixel;
        }
    }
    const auto only = Target{.top_left = pixel.data(),
                             .stride = 0,
                             .size = {},
                             .window = {},
                             .kernel = target.kernel,
                             .palette = target.palette};
    write_colors(only, &color, 1, {});
    if (target.kernel->pixel_bits == 1 && pixel[0] != 0) pixel[0] = 255;
    return pixel;
}

}  // namespace

Pixel encode(const Target& target, Color color) { return encoded(target, color); }
Pixel encode(const Target& target, Color16 color) { return encoded(target, color); }

Color decode(const Target& target, Point pixel) {
    Color color;
    read_colors(target, pixel, 1, &color);
    return color;
}

Color16 decode_deep(const Target& target, Point pixel) {
    Color16 color;
    read_colors(target, pixel, 1, &color);
    return color;
}

Target moved_to(const Target& target, Point pixel) noexcept {
    auto moved = target;
    const auto bits = std::ptrdiff_t{pixel.x} * target.kernel->pixel_bits + target.first_bit;
    moved.top_left += pixel.y * target.stride + bits / 8;
    moved.first_bit = static_cast<int>(bits % 8);
    return moved;
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
