// Source-over of one colour on pixels of 8 bits a channel.
//
// A layer is one colour: Layer(color) for each format has pixel_bytes, (pixel, alpha), which lays it on one pixel, and
// ready(alpha), which returns what lays it on long runs. With word() and run() it is laid on a few pixels at a time.
#pragma once

#include "formats/kernels.hpp"
#include "formats/source_over.hpp"

#include <bit>

namespace coldbrick::inline v0::detail {

// Four bytes as four numbers, and back.
inline constexpr auto every_other = std::uint64_t{0x00ff00ff00ff00ff};
inline std::uint64_t spread(std::uint32_t bytes) noexcept {
    return (bytes | std::uint64_t{bytes} << 24U) & every_other;
}
inline std::uint32_t joined(std::uint64_t numbers) noexcept {
    return static_cast<std::uint32_t>(numbers | numbers >> 24U);
}

// (s*a + d*(255 - a)) / 255, rounded to the nearest, for four bytes, of which the source's are spread.
inline std::uint32_t mixed_bytes(std::uint64_t source, std::uint32_t below, unsigned alpha) noexcept {
    constexpr auto half = std::uint64_t{0x0080008000800080};
    const auto sum = source * alpha + spread(below) * (255U - alpha) + half;
    return joined(((sum + ((sum >> 8U) & every_other)) >> 8U) & every_other);
}

template <std::size_t count>
std::uint32_t read_bytes(const std::uint8_t* bytes) noexcept {
    std::uint32_t word = 0;
    if constexpr (count == 4 && std::endian::native == std::endian::little) {
        std::memcpy(&word, bytes, count);
        return word;
    }
    for (std::size_t i = 0; i < count; ++i) word |= std::uint32_t{bytes[i]} << (8 * i);
    return word;
}

template <std::size_t count>
void write_bytes(std::uint32_t word, std::uint8_t* bytes) noexcept {
    if constexpr (count == 4 && std::endian::native == std::endian::little) {
        std::memcpy(bytes, &word, count);
        return;
    }
    for (std::size_t i = 0; i < count; ++i) bytes[i] = static_cast<std::uint8_t>(word >> (8 * i));
}

template <class Layer>
void lay_one(std::uint8_t* pixel, Color color) noexcept {
    Layer{color}(pixel, color.alpha);
}

// A layer that knows how to lay itself on a few pixels at a time.
template <class Layer>
constexpr bool knows_few = requires(const Layer& layer) {
    layer.word();
};

// What lays a layer by one alpha on a few pixels.
template <class Layer>
auto few_by(const Layer& layer, unsigned alpha) noexcept {
    if constexpr (knows_few<Layer>) {
        return [&layer, by = SameAlpha{layer.word(), alpha}](std::uint8_t* pixels, int count) {
            layer.run(pixels, count, by);
        };
    } else {
        return [&layer, alpha](std::uint8_t* pixels, int count) {
            for (int i = 0; i < count; ++i, pixels += Layer::pixel_bytes) layer(pixels, alpha);
        };
    }
}

// To make ready for long runs takes longer than short ones do, and longer still where a few go together.
template <class Layer>
constexpr int long_run = knows_few<Layer> ? thresholds::long_run_of_some : thresholds::long_run_of_one;

// On spans of which the first is long.
template <class Layer>
[[gnu::noinline]] void blend_long(const Target& target, std::span<const Span> spans, unsigned alpha,
                                  const Layer& layer) {
    constexpr auto pixel_bytes = Layer::pixel_bytes;
    const auto few = few_by(layer, alpha);
    const auto ready = layer.ready(static_cast<std::uint8_t>(alpha));
    for (const auto& run : spans) {
        auto* const pixel = pixel_address<pixel_bytes>(target, {.x = run.x, .y = run.y});
        if (run.length < long_run<Layer>) {
            few(pixel, run.length);
            continue;
        }
        // What is left over of a long run's steps is a short one.
        const auto left_over = knows_few<Layer> ? run.length % static_cast<int>(OpaqueBlend::period / pixel_bytes) : 0;
        const auto most = run.length - left_over;
        ready(pixel, static_cast<std::size_t>(most));
        few(pixel + std::ptrdiff_t{most} * pixel_bytes, left_over);
    }
}

template <class Layer>
void blend_layer(const Target& target, std::span<const Span> spans, Color color) {
    const Layer layer{color};
    const auto few = few_by(layer, color.alpha);
    for (std::size_t i = 0; i < spans.size(); ++i) {
        const auto& run = spans[i];
        if (run.length >= long_run<Layer>) return blend_long(target, spans.subspan(i), color.alpha, layer);
        few(pixel_address<Layer::pixel_bytes>(target, {.x = run.x, .y = run.y}), run.length);
    }
}

// On pixels that are covered in part, each by its own alpha.
template <class Layer>
void cover_layer(const Target& target, std::span<const CoverSpan> spans, Color color) {
    constexpr auto pixel_bytes = Layer::pixel_bytes;
    const Layer layer{color};
    for (const auto& [y, x, length, each, all] : spans) {
        if (each == nullptr) continue;
        auto* pixel = pixel_address<pixel_bytes>(target, {.x = x, .y = y});
        if constexpr (knows_few<Layer>) {
            if (color.alpha == 255) {
                layer.run(pixel, length, EachAlpha{layer.word(), each});
                continue;
            }
        }
        for (int i = 0; i < length; ++i, pixel += pixel_bytes) {
            layer(pixel, color.alpha == 255 ? each[i] : product_255(color.alpha, each[i]));
        }
    }
}

// On the pixels of a hairline.
template <class Layer>
void trace_layer(const Target& target, const Trace& trace, TraceSteps steps, Color color) {
    const Layer layer{color};
    const auto alpha = color.alpha;
    for_each_traced(target.top_left, trace, steps, [&](std::uint8_t* pixel) { layer(pixel, alpha); });
}

}  // namespace coldbrick::inline v0::detail
