// The kernels of the formats: rule 5 of docs/pixel-rules.md.
#include "coldbrick/formats.hpp"

#include "formats/color_rows.hpp"
#include "formats/kernels.hpp"
#include "formats/source_over.hpp"

#include <algorithm>
#include <array>
#include <bit>

namespace coldbrick::inline v0 {

namespace {

using detail::alpha_place;
using detail::AlphaBlend;
using detail::are_opaque;
using detail::CoverSpan;
using detail::EachAlpha;
using detail::FormatKernel;
using detail::FourPixels;
using detail::FourWords;
using detail::OpaqueBlend;
using detail::over;
using detail::pixel_address;
using detail::product_255;
using detail::SameAlpha;

// Where each channel lies in a pixel.
struct Order {
    std::size_t red;
    std::size_t green;
    std::size_t blue;
};
inline constexpr auto rgb = Order{.red = 0, .green = 1, .blue = 2};
inline constexpr auto bgr = Order{.red = 2, .green = 1, .blue = 0};

using Bytes4 = std::array<std::uint8_t, 4>;

// Without alpha the fourth byte does not count.
template <Order order>
Bytes4 encode(Color color) noexcept {
    Bytes4 pixel;
    pixel[order.red] = color.red;
    pixel[order.green] = color.green;
    pixel[order.blue] = color.blue;
    pixel[alpha_place] = color.alpha;
    return pixel;
}

constexpr auto channel_order(const Order& order) noexcept {
    return order.red == 0 ? detail::ChannelOrder::rgb : detail::ChannelOrder::bgr;
}

template <Order order, int pixel_bytes>
void store(const detail::Target& target, const Color* colors, int count, Point first) noexcept {
    auto* const pixels = pixel_address<pixel_bytes>(target, first);
    const auto write = pixel_bytes == 4 ? detail::write_rgba_row : detail::write_rgb_row;
    write(colors, channel_order(order), static_cast<std::size_t>(count), pixels);
}

template <Order order, int pixel_bytes>
void load(const detail::Target& target, Point first, int count, Color* colors) noexcept {
    const auto* const pixels = pixel_address<pixel_bytes>(target, first);
    const auto read = pixel_bytes == 4 ? detail::read_rgba_row : detail::read_rgb_row;
    read(pixels, channel_order(order), static_cast<std::size_t>(count), colors);
}

// Grays lie `step` bytes apart: 1, or more where they are a channel of something.
template <int step>
void store_gray(const detail::Target& target, const Color* colors, int count, Point first) noexcept {
    auto* pixels = pixel_address<step>(target, first);
    if (step == 1) return detail::write_gray_row(colors, static_cast<std::size_t>(count), pixels);
    for (int i = 0; i < count; ++i, pixels += step) *pixels = luma(colors[i]);
}

template <int step>
void load_gray(const detail::Target& target, Point first, int count, Color* colors) noexcept {
    const auto* pixels = pixel_address<step>(target, first);
    if (step == 1) return detail::read_gray_row(pixels, static_cast<std::size_t>(count), colors);
    for (int i = 0; i < count; ++i, pixels += step) colors[i] = gray(*pixels);
}

// Four bytes as four numbers, and back.
constexpr auto every_other = std::uint64_t{0x00ff00ff00ff00ff};
std::uint64_t spread(std::uint32_t bytes) noexcept { return (bytes | std::uint64_t{bytes} << 24U) & every_other; }
std::uint32_t joined(std::uint64_t numbers) noexcept { return static_cast<std::uint32_t>(numbers | numbers >> 24U); }

// (s*a + d*(255 - a)) / 255, rounded to the nearest, for four bytes, of which the source's are spread.
std::uint32_t mixed_bytes(std::uint64_t source, std::uint32_t below, unsigned alpha) noexcept {
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

// Source-over of one colour: on one pixel by some alpha, and what is made ready for long runs, on so many pixels.
struct GrayLayer {
    static constexpr int pixel_bytes = 1;
    explicit GrayLayer(Color color) noexcept : source{luma(color)} {}
    void operator()(std::uint8_t* pixel, unsigned alpha) const noexcept {
        *pixel = static_cast<std::uint8_t>(mixed_bytes(source, *pixel, alpha));
    }
    [[nodiscard]] auto ready(std::uint8_t alpha) const noexcept { return OpaqueBlend{&source, 1, alpha}; }

    std::uint8_t source;
};

template <Order order>
struct OpaqueLayer {
    static constexpr int pixel_bytes = 3;
    explicit OpaqueLayer(Color color) noexcept
        : source{encode<order>(color)}, spread_source{spread(read_bytes<3>(source.data()))} {}
    void operator()(std::uint8_t* pixel, unsigned alpha) const noexcept {
        write_bytes<3>(mixed_bytes(spread_source, read_bytes<3>(pixel), alpha), pixel);
    }
    [[nodiscard]] auto ready(std::uint8_t alpha) const noexcept {
        return [blend = OpaqueBlend{source.data(), 3, alpha}](std::uint8_t* pixels, std::size_t count) {
            blend(pixels, 3 * count);
        };
    }

    Bytes4 source;
    std::uint64_t spread_source;
};

template <Order order>
class AlphaLayer {
  public:
    static constexpr int pixel_bytes = 4;
    explicit AlphaLayer(Color color) noexcept
        : full{encode<order>(with_alpha(color, 255))},
          bytes{read_bytes<4>(full.data())},
          spread_source{spread(bytes)} {}
    void operator()(std::uint8_t* pixel, unsigned alpha) const noexcept {
        if (pixel[alpha_place] == 255) {
            write_bytes<4>(mixed_bytes(spread_source, read_bytes<4>(pixel), alpha), pixel);
        } else {
            over(pixel, with_alpha_of(alpha).data());
        }
    }
    [[nodiscard]] auto ready(std::uint8_t alpha) const noexcept { return AlphaBlend{with_alpha_of(alpha)}; }
    // On a few pixels: four at a time where they are opaque. What is left over of more than four is mixed with those
    // before it, which are as they were: they are looked at first.
    template <class Alphas>
    void run(std::uint8_t* pixels, int count, const Alphas& alphas) const noexcept {
        if (count < 4) return run_few(pixels, count, alphas);
        const auto rest = count % 4;
        const auto most = count - rest;
        const auto last = read_four(pixels + 4 * std::ptrdiff_t{count - 4}, 8);
        for (int i = 0; i < most; i += 4) {
            auto* const at = pixels + 4 * std::ptrdiff_t{i};
            const auto four = read_four(at, 8);
            if (!are_opaque(four)) {
                lay_each(pixels, i, i + 4, alphas);
                continue;
            }
            auto words = as_words(four);
            alphas.mix(i, words);
            std::memcpy(at, &words, sizeof words);
        }
        if (rest == 0) return;
        if (!are_opaque(last)) return lay_each(pixels, most, count, alphas);
        auto words = as_words(last);
        alphas.mix(count - 4, words);
        std::memcpy(pixels + 4 * std::ptrdiff_t{count - 4}, &words, sizeof words);
    }

    [[nodiscard]] std::uint32_t word() const noexcept { return bytes; }

    [[nodiscard]] Bytes4 with_alpha_of(unsigned alpha) const noexcept {
        auto source = full;
        source[alpha_place] = static_cast<std::uint8_t>(alpha);
        return source;
    }

  private:
    // Two pixels, and the two that begin so many bytes behind the first.
    static FourPixels read_four(const std::uint8_t* pixels, std::ptrdiff_t second) noexcept {
        FourPixels four;
        std::memcpy(&four[0], pixels, 8);
        std::memcpy(&four[1], pixels + second, 8);
        return four;
    }
    static FourWords as_words(const FourPixels& four) noexcept {
        FourWords words;
        std::memcpy(&words, &four, sizeof words);
        return words;
    }

    // Where some are translucent, which is rare: it stays out of the loops above.
    template <class Alphas>
    [[gnu::noinline]] void lay_each(std::uint8_t* pixels, int begin, int end, const Alphas& alphas) const noexcept {
        for (auto i = begin; i < end; ++i) (*this)(pixels + 4 * std::ptrdiff_t{i}, alphas.at(i));
    }

    // Fewer than four: two or three are the first two and the last two.
    template <class Alphas>
    void run_few(std::uint8_t* pixels, int count, const Alphas& alphas) const noexcept {
        if (count < 2) return count == 1 ? (*this)(pixels, alphas.at(0)) : void();
        const auto second = 4 * std::ptrdiff_t{count - 2};
        const auto four = read_four(pixels, second);
        if (!are_opaque(four)) return lay_each(pixels, 0, count, alphas);
        auto words = as_words(four);
        alphas.mix_few(count, words);
        FourPixels mixed;
        std::memcpy(&mixed, &words, sizeof mixed);
        std::memcpy(pixels, &mixed[0], 8);
        std::memcpy(pixels + second, &mixed[1], 8);
    }

    Bytes4 full;
    std::uint32_t bytes;
    std::uint64_t spread_source;
};

template <class Layer>
void lay_one(std::uint8_t* pixel, Color color) noexcept {
    Layer{color}(pixel, color.alpha);
}

template <Order order, std::size_t pixel_bytes>
void put_one(std::uint8_t* pixel, Color color) noexcept {
    const auto bytes = encode<order>(color);
    std::memcpy(pixel, bytes.data(), pixel_bytes);
}

void put_gray(std::uint8_t* pixel, Color color) noexcept { *pixel = luma(color); }

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
constexpr int long_run = knows_few<Layer> ? 64 : 8;

// On spans of which the first is long.
template <class Layer>
[[gnu::noinline]] void blend_long(const detail::Target& target, std::span<const Span> spans, unsigned alpha,
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
void blend(const detail::Target& target, std::span<const Span> spans, Color color) {
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
void cover(const detail::Target& target, std::span<const CoverSpan> spans, Color color) {
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
void blend_trace(const detail::Target& target, const detail::Trace& trace, detail::TraceSteps steps, Color color) {
    const Layer layer{color};
    const auto alpha = color.alpha;
    detail::for_each_traced(target.top_left, trace, steps, [&](std::uint8_t* pixel) { layer(pixel, alpha); });
}

constexpr bool is_color(const Order& order) noexcept {
    return order.red == 0 && order.green == 1 && order.blue == 2 && alpha_place == 3;
}

template <Order order>
constexpr FormatKernel opaque_kernel() noexcept {
    return {.pixel_bits = 24,
            .is_by_byte = true,
            .load = load<order, 3>,
            .store = store<order, 3>,
            .blend = blend<OpaqueLayer<order>>,
            .cover = cover<OpaqueLayer<order>>,
            .trace = blend_trace<OpaqueLayer<order>>,
            .put = put_one<order, 3>,
            .lay = lay_one<OpaqueLayer<order>>};
}

template <Order order>
constexpr FormatKernel alpha_kernel() noexcept {
    return {.pixel_bits = 32,
            .has_alpha = true,
            .is_color = is_color(order),
            .is_by_byte = true,
            .load = load<order, 4>,
            .store = store<order, 4>,
            .blend = blend<AlphaLayer<order>>,
            .cover = cover<AlphaLayer<order>>,
            .trace = blend_trace<AlphaLayer<order>>,
            .put = put_one<order, 4>,
            .lay = lay_one<AlphaLayer<order>>};
}

// One byte of a pixel of several, as gray.
template <int step>
constexpr FormatKernel byte_channel{
    .pixel_bits = 8 * step, .is_gray = true, .is_sparse = true, .load = load_gray<step>, .store = store_gray<step>};

}  // namespace

namespace detail {

constexpr FormatKernel gray8_kernel{.pixel_bits = 8,
                                    .is_gray = true,
                                    .is_by_byte = true,
                                    .load = load_gray<1>,
                                    .store = store_gray<1>,
                                    .blend = blend<GrayLayer>,
                                    .cover = cover<GrayLayer>,
                                    .trace = blend_trace<GrayLayer>,
                                    .put = put_gray,
                                    .lay = lay_one<GrayLayer>};
constexpr FormatKernel rgb8_kernel = opaque_kernel<rgb>();
constexpr FormatKernel bgr8_kernel = opaque_kernel<bgr>();
constexpr FormatKernel rgba8_kernel = alpha_kernel<rgb>();
constexpr FormatKernel bgra8_kernel = alpha_kernel<bgr>();

const FormatKernel& byte_channel_of(int pixel_bytes) noexcept {
    return pixel_bytes == 3 ? byte_channel<3> : byte_channel<4>;
}

}  // namespace detail

}  // namespace coldbrick::inline v0
