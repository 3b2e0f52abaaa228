// Formats whose pixels become colours and back where they are drawn on: with padding, alpha first, premultiplied alpha,
// and channels of fewer bits.
#include "formats/kernels.hpp"
#include "geometry/vectors.hpp"

#include <algorithm>
#include <bit>

namespace coldbrick::inline v0::detail {

namespace {

// The channels of a colour in a word, from the lowest bits on: red, green, blue, alpha.
COLDBRICK_INLINE std::uint32_t in_order(std::uint32_t word) noexcept {
    if constexpr (is_little_endian) return word;
    return word >> 24U | (word >> 8U & 0xff00U) | (word << 8U & 0xff0000U) | word << 24U;
}
COLDBRICK_INLINE std::uint32_t channels_of(const Color& color) noexcept {
    return in_order(std::bit_cast<std::uint32_t>(color));
}
void set_channels(Color& color, std::uint32_t channels) noexcept { color = std::bit_cast<Color>(in_order(channels)); }
COLDBRICK_INLINE std::uint32_t red_and_blue_swapped(std::uint32_t channels) noexcept {
    return (channels & 0xff00ff00U) | (channels >> 16U & 0xffU) | (channels & 0xffU) << 16U;
}

// A pixel of four bytes as a number, the first byte lowest.
COLDBRICK_INLINE std::uint32_t read_word(const std::uint8_t* pixel) noexcept {
    std::uint32_t word = 0;
    std::memcpy(&word, pixel, sizeof word);
    return in_order(word);
}
COLDBRICK_INLINE void write_word(std::uint32_t number, std::uint8_t* pixel) noexcept {
    const auto word = in_order(number);
    std::memcpy(pixel, &word, sizeof word);
}

// Of two bytes, the lower one first or the higher one.
template <bool is_high_first>
COLDBRICK_INLINE std::uint32_t read_half(const std::uint8_t* pixel) noexcept {
    std::uint16_t half = 0;
    std::memcpy(&half, pixel, sizeof half);
    const auto is_swapped = is_high_first == is_little_endian;
    return is_swapped ? static_cast<std::uint16_t>(half >> 8U | half << 8U) : half;
}
template <bool is_high_first>
COLDBRICK_INLINE void write_half(std::uint32_t number, std::uint8_t* pixel) noexcept {
    const auto half = static_cast<std::uint16_t>(number);
    const auto is_swapped = is_high_first == is_little_endian;
    const auto stored = is_swapped ? static_cast<std::uint16_t>(half >> 8U | half << 8U) : half;
    std::memcpy(pixel, &stored, sizeof stored);
}

// Numbers of 16 bits, in which nothing below gets larger than they are.
using Half = std::uint16_t;
template <class Number>
COLDBRICK_INLINE Half half(Number value) noexcept {
    return static_cast<Half>(value);
}

// Values of n bits as 255ths and back, each the nearest: v * 255 / m and v * m / 255. The factors were found by trying
// all values.
template <unsigned bits>
COLDBRICK_INLINE Half widened(Half value) noexcept {
    return bits == 6 ? half(half(value * 259U + 33U) >> 6U) : half(half(value * 527U + 23U) >> 6U);
}
template <unsigned bits>
COLDBRICK_INLINE Half narrowed(Half value) noexcept {
    return bits == 6 ? half(half(value * 253U + 505U) >> 10U) : half(half(value * 249U + 1014U) >> 11U);
}
COLDBRICK_INLINE std::uint32_t narrowed_to_4(std::uint32_t value) noexcept { return (value * 15U + 135U) >> 8U; }

constexpr std::uint32_t opaque_bits = 0xff000000U;

// The formats: channels from a pixel, and back.
template <bool is_blue_first>
struct Padding {
    static constexpr int pixel_bytes = 4;
    static constexpr bool has_alpha = false;
    COLDBRICK_INLINE static std::uint32_t read(const std::uint8_t* pixel) noexcept {
        const auto word = read_word(pixel) | opaque_bits;
        return is_blue_first ? red_and_blue_swapped(word) : word;
    }
    COLDBRICK_INLINE static void write(std::uint32_t channels, std::uint8_t* pixel) noexcept {
        const auto word = channels | opaque_bits;
        write_word(is_blue_first ? red_and_blue_swapped(word) : word, pixel);
    }
};

template <bool is_blue_first>
struct AlphaFirst {
    static constexpr int pixel_bytes = 4;
    static constexpr bool has_alpha = true;
    COLDBRICK_INLINE static std::uint32_t read(const std::uint8_t* pixel) noexcept {
        const auto word = read_word(pixel);
        const auto moved = word >> 8U | word << 24U;
        return is_blue_first ? red_and_blue_swapped(moved) : moved;
    }
    COLDBRICK_INLINE static void write(std::uint32_t channels, std::uint8_t* pixel) noexcept {
        const auto ordered = is_blue_first ? red_and_blue_swapped(channels) : channels;
        write_word(ordered << 8U | ordered >> 24U, pixel);
    }
};

template <bool is_blue_first>
struct Premultiplied {
    static constexpr int pixel_bytes = 4;
    static constexpr bool has_alpha = true;
    static std::uint32_t read(const std::uint8_t* pixel) noexcept {
        const auto word = read_word(pixel);
        const auto alpha = word >> 24U;
        auto channels = word;
        if (alpha != 255) {
            channels = alpha << 24U;
            for (auto shift = 0U; alpha > 0 && shift < 24U; shift += 8U) {
                const auto value = word >> shift & 0xffU;
                channels |= std::min((510U * value + alpha) / (2U * alpha), 255U) << shift;
            }
        }
        return is_blue_first ? red_and_blue_swapped(channels) : channels;
    }
    static void write(std::uint32_t channels, std::uint8_t* pixel) noexcept {
        const auto alpha = channels >> 24U;
        auto word = alpha << 24U;
        for (auto shift = 0U; shift < 24U; shift += 8U) {
            word |= std::uint32_t{product_255(channels >> shift & 0xffU, alpha)} << shift;
        }
        write_word(is_blue_first ? red_and_blue_swapped(word) : word, pixel);
    }
};

// Opaque, of two bytes: red, green and blue from the highest bits on, red and blue of five bits.
template <unsigned green_bits, bool is_high_first>
struct HalfBits {
    static constexpr int pixel_bytes = 2;
    static constexpr bool has_alpha = false;
    static constexpr auto red_shift = 5U + green_bits;

    // A channel each, in 255ths.
    struct Channels {
        Half red;
        Half green;
        Half blue;
    };
    COLDBRICK_INLINE static Channels channels(const std::uint8_t* pixel) noexcept {
        const auto bits = half(read_half<is_high_first>(pixel));
        constexpr auto most = (1U << green_bits) - 1;
        return {.red = widened<5>(half(half(bits >> red_shift) & 31U)),
                .green = widened<green_bits>(half(half(bits >> 5U) & most)),
                .blue = widened<5>(half(bits & 31U))};
    }
    COLDBRICK_INLINE static void set(const Channels& of, std::uint8_t* pixel) noexcept {
        const auto red = half(narrowed<5>(of.red) << red_shift);
        const auto green = half(narrowed<green_bits>(of.green) << 5U);
        write_half<is_high_first>(half(red | green | narrowed<5>(of.blue)), pixel);
    }

    COLDBRICK_INLINE static std::uint32_t read(const std::uint8_t* pixel) noexcept {
        const auto [red, green, blue] = channels(pixel);
        return std::uint32_t{red} | std::uint32_t{green} << 8U | std::uint32_t{blue} << 16U | opaque_bits;
    }
    COLDBRICK_INLINE static void write(std::uint32_t word, std::uint8_t* pixel) noexcept {
        set({.red = half(word & 0xffU), .green = half(word >> 8U & 0xffU), .blue = half(word >> 16U & 0xffU)}, pixel);
    }

    // Lays a colour on it: (s*a + d*(255 - a)) / 255 each, rounded to the nearest.
    COLDBRICK_INLINE static void lay_on(const Channels& source, Half alpha, std::uint8_t* pixel) noexcept {
        const auto mixed = [=](Half above, Half below) COLDBRICK_KERNEL {
            const auto sum = half(half(above * alpha) + half(below * half(255U - alpha)) + 128U);
            return half(half(sum + half(sum >> 8U)) >> 8U);
        };
        const auto below = channels(pixel);
        set({.red = mixed(source.red, below.red),
             .green = mixed(source.green, below.green),
             .blue = mixed(source.blue, below.blue)},
            pixel);
    }
};

struct Bits4444 {
    static constexpr int pixel_bytes = 2;
    static constexpr bool has_alpha = true;
    COLDBRICK_INLINE static std::uint32_t read(const std::uint8_t* pixel) noexcept {
        const auto bits = read_half<false>(pixel);
        const auto fours = bits >> 12U | (bits >> 8U & 15U) << 8U | (bits >> 4U & 15U) << 16U | (bits & 15U) << 24U;
        return fours * 17U;
    }
    COLDBRICK_INLINE static void write(std::uint32_t channels, std::uint8_t* pixel) noexcept {
        write_half<false>(narrowed_to_4(channels & 0xffU) << 12U | narrowed_to_4(channels >> 8U & 0xffU) << 8U |
                              narrowed_to_4(channels >> 16U & 0xffU) << 4U | narrowed_to_4(channels >> 24U),
                          pixel);
    }
};

template <class Format>
void load(const Target& target, Point first, int count, Color* colors) noexcept {
    const auto* const pixels = pixel_address<Format::pixel_bytes>(target, first);
    auto* const words = reinterpret_cast<std::uint8_t*>(colors);
    run_in_vectors([=]() COLDBRICK_KERNEL {
        for (std::ptrdiff_t i = 0; i < count; ++i) {
            write_word(Format::read(pixels + i * Format::pixel_bytes), words + 4 * i);
        }
    });
}

template <class Format>
void store(const Target& target, const Color* colors, int count, Point first) noexcept {
    auto* const pixels = pixel_address<Format::pixel_bytes>(target, first);
    const auto* const words = reinterpret_cast<const std::uint8_t*>(colors);
    run_in_vectors([=]() COLDBRICK_KERNEL {
        for (std::ptrdiff_t i = 0; i < count; ++i) {
            Format::write(read_word(words + 4 * i), pixels + i * Format::pixel_bytes);
        }
    });
}

// Pixels of two bytes, without colours in between.
template <class Format>
void blend_halves(const Target& target, std::span<const Span> spans, Color color) {
    const typename Format::Channels source{color.red, color.green, color.blue};
    for (const auto& span : spans) {
        auto* const pixels = pixel_address<2>(target, {.x = span.x, .y = span.y});
        run_in_vectors([=, alpha = half(color.alpha), count = std::ptrdiff_t{span.length}]() COLDBRICK_KERNEL {
            for (std::ptrdiff_t i = 0; i < count; ++i) Format::lay_on(source, alpha, pixels + 2 * i);
        });
    }
}

template <class Format>
void cover_halves(const Target& target, std::span<const CoverSpan> spans, Color color) {
    const typename Format::Channels source{color.red, color.green, color.blue};
    for (const auto& span : spans) {
        if (span.each == nullptr) continue;
        auto* const pixels = pixel_address<2>(target, {.x = span.x, .y = span.y});
        run_in_vectors([=, alpha = color.alpha, each = span.each, count = std::ptrdiff_t{span.length}]()
                           COLDBRICK_KERNEL {
                               for (std::ptrdiff_t i = 0; i < count; ++i) {
                                   Format::lay_on(source, product_255(alpha, each[i]), pixels + 2 * i);
                               }
                           });
    }
}

template <class Format>
void put(std::uint8_t* pixel, Color color) noexcept {
    Format::write(channels_of(color), pixel);
}

template <class Format>
void lay(std::uint8_t* pixel, Color color) noexcept {
    Color below;
    set_channels(below, Format::read(pixel));
    rgba8_kernel.lay(reinterpret_cast<std::uint8_t*>(&below), color);
    Format::write(channels_of(below), pixel);
}

template <class Format>
constexpr FormatKernel kernel_by_colors() noexcept {
    return {.pixel_bits = 8 * Format::pixel_bytes,
            .has_alpha = Format::has_alpha,
            .load = load<Format>,
            .store = store<Format>,
            .blend = blend_by_colors,
            .cover = cover_by_colors,
            .put = put<Format>,
            .lay = lay<Format>};
}

template <class Format>
constexpr FormatKernel kernel_of_halves() noexcept {
    auto kernel = kernel_by_colors<Format>();
    kernel.blend = blend_halves<Format>;
    kernel.cover = cover_halves<Format>;
    return kernel;
}

// Some pixels of a row as colours.
class Colors {
  public:
    static constexpr int most = 256;

    Colors(const Target& target, Point first, int count) : target_{target}, first_{first}, count_{count} {
        target.kernel->load(target, first, count, colors_);
    }
    void store() const { target_.kernel->store(target_, colors_, count_, first_); }
    [[nodiscard]] Target as_target() noexcept {
        return {.top_left = reinterpret_cast<std::uint8_t*>(colors_),
                .stride = 0,
                .size = {},
                .window = {},
                .kernel = &rgba8_kernel,
                .palette = nullptr};
    }

  private:
    const Target& target_;
    Point first_;
    int count_;
    Color colors_[most];
};

}  // namespace

namespace {

// Calls lay(colors, done, count) with some pixels of a span at a time.
template <class Run, class Lay>
void lay_by_colors(const Target& target, const Run& span, const Lay& lay) {
    for (int done = 0; done < span.length; done += Colors::most) {
        const auto count = std::min(Colors::most, span.length - done);
        Colors colors{target, {.x = span.x + done, .y = span.y}, count};
        lay(colors.as_target(), done, count);
        colors.store();
    }
}

}  // namespace

void blend_by_colors(const Target& target, std::span<const Span> spans, Color color) {
    for (const auto& span : spans) {
        lay_by_colors(target, span, [&](const Target& colors, int, int count) {
            const auto all = Span{.y = 0, .x = 0, .length = count};
            rgba8_kernel.blend(colors, {&all, 1}, color);
        });
    }
}

void cover_by_colors(const Target& target, std::span<const CoverSpan> spans, Color color) {
    for (const auto& span : spans) {
        if (span.each == nullptr) continue;
        lay_by_colors(target, span, [&](const Target& colors, int done, int count) {
            const auto all = CoverSpan{.y = 0, .x = 0, .length = count, .each = span.each + done, .all = 255};
            rgba8_kernel.cover(colors, {&all, 1}, color);
        });
    }
}

const FormatKernel rgbx8_kernel = kernel_by_colors<Padding<false>>();
const FormatKernel bgrx8_kernel = kernel_by_colors<Padding<true>>();
const FormatKernel argb8_kernel = kernel_by_colors<AlphaFirst<false>>();
const FormatKernel abgr8_kernel = kernel_by_colors<AlphaFirst<true>>();
const FormatKernel premultiplied_rgba8_kernel = kernel_by_colors<Premultiplied<false>>();
const FormatKernel premultiplied_bgra8_kernel = kernel_by_colors<Premultiplied<true>>();
const FormatKernel rgb565_kernel = kernel_of_halves<HalfBits<6, false>>();
const FormatKernel rgb565_swapped_kernel = kernel_of_halves<HalfBits<6, true>>();
const FormatKernel rgb555_kernel = kernel_of_halves<HalfBits<5, false>>();
const FormatKernel rgba4444_kernel = kernel_by_colors<Bits4444>();

}  // namespace coldbrick::inline v0::detail
