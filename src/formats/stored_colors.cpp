// Colours of 8 and 16 bits a channel to and from the pixels of any format.
#include "formats/kernels.hpp"

namespace coldbrick::inline v0::detail {

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

void cover_with(const Target& target, std::span<const CoverSpan> spans, Color color) {
    for (const auto& span : spans) {
        if (span.each != nullptr) continue;
        const auto run = Span{.y = span.y, .x = span.x, .length = span.length};
        target.kernel->blend(target, {&run, 1}, with_alpha(color, product_255(color.alpha, span.all)));
    }
    target.kernel->cover(target, spans, color);
}

}  // namespace coldbrick::inline v0::detail
