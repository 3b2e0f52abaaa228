#include "pictures/sampled_source.hpp"

#include "geometry/integers.hpp"
#include "geometry/vectors.hpp"

#include <algorithm>
#include <array>
#include <bit>
#include <cstring>
#include <type_traits>

namespace coldbrick::inline v0::detail {

namespace {

// Where the centres of some pixels come from: the upper left one of the four nearest pixels, and how far they are
// beyond its centre.
struct Origins {
    static constexpr int most = 128;
    std::array<std::int32_t, most> left;
    std::array<std::int32_t, most> upper;
    std::array<float, most> right_part;
    std::array<float, most> lower_part;
};

// The place along an axis of the picture from which a pixel comes, by its column on the target.
struct Axis {
    double step;
    double start;
    double last;  // the centre of the picture's last pixel

    [[nodiscard]] COLDBRICK_INLINE double at(int column) const noexcept {
        return std::min(std::max(0.0, step * column + start), last);
    }
    void find(int from, int count, std::int32_t* whole, float* part) const noexcept {
        run_in_vectors([=, axis = *this]() COLDBRICK_KERNEL {
            for (int i = 0; i < count; ++i) {
                const auto place = axis.at(from + i);
                whole[i] = static_cast<std::int32_t>(place);
                part[i] = static_cast<float>(place - whole[i]);
            }
        });
    }
};

// Of the pixels from one on to the right. Each follows from its own column, wherever the others begin.
void find_origins(const Transform::Rows& by, Point from, Point at, Size size, int count, Origins& origins) noexcept {
    const auto row = double{1} * from.y;
    const auto across = Axis{.step = by.xx, .start = by.xy * row + by.dx - at.x, .last = size.width - 1.0};
    const auto down = Axis{.step = by.yx, .start = by.yy * row + by.dy - at.y, .last = size.height - 1.0};
    across.find(from.x, count, origins.left.data(), origins.right_part.data());
    down.find(from.x, count, origins.upper.data(), origins.lower_part.data());
}

// A colour's channels as numbers.
using Floats4 = float __attribute__((vector_size(16)));
using Whole4 = std::int32_t __attribute__((vector_size(16)));
using Bytes16 = std::uint8_t __attribute__((vector_size(16)));

COLDBRICK_INLINE Floats4 channels_of(std::uint32_t word) noexcept {
    using Lanes4 = std::uint32_t __attribute__((vector_size(16)));
    const auto bytes = reinterpret_cast<Bytes16>(Lanes4{word, 0, 0, 0});
    const auto apart =
        is_little_endian
            ? __builtin_shufflevector(bytes, Bytes16{}, 0, 16, 16, 16, 1, 16, 16, 16, 2, 16, 16, 16, 3, 16, 16, 16)
            : __builtin_shufflevector(bytes, Bytes16{}, 16, 16, 16, 0, 16, 16, 16, 1, 16, 16, 16, 2, 16, 16, 16, 3);
    return __builtin_convertvector(reinterpret_cast<Whole4>(apart), Floats4);
}

// Rounded to the nearest whole numbers from 0 to 255.
COLDBRICK_INLINE void put(const Floats4& channels, Color* to) noexcept {
    const auto bytes = reinterpret_cast<Bytes16>(__builtin_convertvector(channels + 0.5F, Whole4));
    const auto together =
        is_little_endian
            ? __builtin_shufflevector(bytes, bytes, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12, 0, 4, 8, 12)
            : __builtin_shufflevector(bytes, bytes, 3, 7, 11, 15, 3, 7, 11, 15, 3, 7, 11, 15, 3, 7, 11, 15);
    std::memcpy(static_cast<void*>(to), &together, sizeof(Color));
}

// Four pixels around a place, as words with the bytes of a Color.
struct Around {
    std::uint32_t upper_left;
    std::uint32_t upper_right;
    std::uint32_t lower_left;
    std::uint32_t lower_right;

    [[nodiscard]] COLDBRICK_INLINE bool are_opaque() const noexcept {
        constexpr auto alpha = std::endian::native == std::endian::little ? 0xff000000U : 0xffU;
        return (upper_left & upper_right & lower_left & lower_right & alpha) == alpha;
    }
};

COLDBRICK_INLINE Floats4 between(const Floats4& a, const Floats4& b, float part) noexcept { return a + (b - a) * part; }

// Colours count by their alpha.
COLDBRICK_INLINE void mix(const Around& around, float right, float lower, Color* to) noexcept {
    auto upper_left = channels_of(around.upper_left);
    auto upper_right = channels_of(around.upper_right);
    auto lower_left = channels_of(around.lower_left);
    auto lower_right = channels_of(around.lower_right);
    if (around.are_opaque()) {
        const auto upper_mix = between(upper_left, upper_right, right);
        return put(between(upper_mix, between(lower_left, lower_right, right), lower), to);
    }
    auto sums = Floats4{};
    const auto add = [&](Floats4& channels, float weight) COLDBRICK_KERNEL {
        const auto alpha = weight * channels[3];
        channels[3] = 1;
        sums += channels * alpha;
    };
    add(upper_left, (1 - right) * (1 - lower));
    add(upper_right, right * (1 - lower));
    add(lower_left, (1 - right) * lower);
    add(lower_right, right * lower);
    const auto alpha = sums[3];
    if (!(alpha > 0)) return put(Floats4{}, to);
    sums = sums / Floats4{alpha, alpha, alpha, 1};
    constexpr auto most = Floats4{255, 255, 255, 255};
    put(sums < most ? sums : most, to);
}

// Those of some places: the left one and the right one of the upper ones in turn, and of the lower ones.
struct Arounds {
    static constexpr auto most = std::size_t{2} * Origins::most;
    std::array<std::uint32_t, most> upper;
    std::array<std::uint32_t, most> lower;

    void set(std::size_t i, const Around& of) noexcept {
        upper[2 * i] = of.upper_left;
        upper[2 * i + 1] = of.upper_right;
        lower[2 * i] = of.lower_left;
        lower[2 * i + 1] = of.lower_right;
    }
    // Of pixels that are words as they lie in memory.
    COLDBRICK_INLINE void set(std::size_t i, const std::uint8_t* above, const std::uint8_t* below) noexcept {
        std::memcpy(&upper[2 * i], above, 8);
        std::memcpy(&lower[2 * i], below, 8);
    }
    [[nodiscard]] COLDBRICK_INLINE Around at(std::size_t i) const noexcept {
        return {upper[2 * i], upper[2 * i + 1], lower[2 * i], lower[2 * i + 1]};
    }
};

constexpr std::size_t mixed_at_once = 8;
using Floats8 = float __attribute__((vector_size(32)));

// Eight places from one on, of those above or below.
struct EightPairs {
    Words8 left;
    Words8 right;

    COLDBRICK_INLINE explicit EightPairs(const std::uint32_t* pairs) noexcept {
        Words8 first;
        Words8 second;
        read(pairs, first);
        read(pairs + 8, second);
        left = __builtin_shufflevector(first, second, 0, 2, 4, 6, 8, 10, 12, 14);
        right = __builtin_shufflevector(first, second, 1, 3, 5, 7, 9, 11, 13, 15);
    }
};

// Between the left and the right ones, of a channel.
COLDBRICK_INLINE void mix_channel(const EightPairs& pairs, unsigned shift, const Floats8& part,
                                  Floats8& mixed) noexcept {
    const auto left = __builtin_convertvector(reinterpret_cast<Ints8>(pairs.left >> shift & 255U), Floats8);
    const auto right = __builtin_convertvector(reinterpret_cast<Ints8>(pairs.right >> shift & 255U), Floats8);
    mixed = left + (right - left) * part;
}

// Eight pixels from one on, as mix() does it where all are opaque. Says whether they are.
COLDBRICK_INLINE bool mix_opaque(const Arounds& around, const Origins& origins, std::size_t i, Color* to) noexcept {
    constexpr auto alpha = is_little_endian ? 0xff000000U : 0xffU;
    const EightPairs above{around.upper.data() + 2 * i};
    const EightPairs below{around.lower.data() + 2 * i};
    std::array<std::uint64_t, 4> common;
    write(above.left & above.right & below.left & below.right, common.data());
    constexpr auto alphas = std::uint64_t{alpha} * 0x100000001U;
    if ((common[0] & common[1] & common[2] & common[3] & alphas) != alphas) return false;
    Floats8 across;
    Floats8 down;
    read(origins.right_part.data() + i, across);
    read(origins.lower_part.data() + i, down);
    Words8 mixed = Words8{} + alpha;
    for (const auto shift : {is_little_endian ? 0U : 8U, is_little_endian ? 8U : 16U, is_little_endian ? 16U : 24U}) {
        Floats8 upper;
        Floats8 lower;
        mix_channel(above, shift, across, upper);
        mix_channel(below, shift, across, lower);
        const auto nearest = __builtin_convertvector(upper + (lower - upper) * down + 0.5F, Ints8);
        mixed |= reinterpret_cast<Words8>(nearest) << shift;
    }
    write(mixed, static_cast<void*>(to + i));
    return true;
}

void mix_all(const Arounds& arounds, const Origins& origins, std::size_t count, Color* to) noexcept {
    run_in_vectors([&]() COLDBRICK_KERNEL {
        std::size_t i = 0;
        for (; i + mixed_at_once <= count; i += mixed_at_once) {
            if (mix_opaque(arounds, origins, i, to)) continue;
            for (auto k = i; k < i + mixed_at_once; ++k) {
                mix(arounds.at(k), origins.right_part[k], origins.lower_part[k], to + k);
            }
        }
        for (; i < count; ++i) mix(arounds.at(i), origins.right_part[i], origins.lower_part[i], to + i);
    });
}

// How a pixel becomes a word with the bytes of a Color: one that is one;
struct ColorWords {
    static constexpr std::ptrdiff_t pixel_bytes = 4;
    [[nodiscard]] COLDBRICK_INLINE std::uint32_t operator()(const std::uint8_t* pixel) const noexcept {
        std::uint32_t word = 0;
        std::memcpy(&word, pixel, sizeof word);
        return word;
    }
};

// one of so many bytes, of which red is at a place and blue opposite;
template <std::ptrdiff_t bytes, std::size_t red>
struct ChannelWords {
    static constexpr std::ptrdiff_t pixel_bytes = bytes;
    [[nodiscard]] COLDBRICK_INLINE std::uint32_t operator()(const std::uint8_t* pixel) const noexcept {
        const auto alpha = bytes == 4 ? pixel[bytes - 1] : std::uint8_t{255};
        return std::bit_cast<std::uint32_t>(std::array{pixel[red], pixel[1], pixel[2 - red], alpha});
    }
};

// a byte that is looked up.
struct ByteWords {
    static constexpr std::ptrdiff_t pixel_bytes = 1;
    [[nodiscard]] COLDBRICK_INLINE std::uint32_t operator()(const std::uint8_t* pixel) const noexcept {
        return words[*pixel];
    }
    const std::uint32_t* words;
};

// The same, where one colour counts as nothing.
template <class Words>
struct WordsWithout {
    static constexpr auto pixel_bytes = Words::pixel_bytes;
    [[nodiscard]] COLDBRICK_INLINE std::uint32_t operator()(const std::uint8_t* pixel) const noexcept {
        const auto word = words(pixel);
        return word == without ? 0 : word;
    }
    Words words;
    std::uint32_t without;
};

constexpr std::uint32_t word_of(const Color& color) noexcept {
    return std::bit_cast<std::uint32_t>(std::array{color.red, color.green, color.blue, color.alpha});
}

std::array<std::uint32_t, 256> gray_words() noexcept {
    std::array<std::uint32_t, 256> words;
    for (std::size_t i = 0; i < words.size(); ++i) words[i] = word_of(gray(static_cast<std::uint8_t>(i)));
    return words;
}

std::array<std::uint32_t, 256> palette_words(const Palette& palette) noexcept {
    std::array<std::uint32_t, 256> words{};
    const auto colors = palette.colors();
    std::transform(colors.begin(), colors.end(), words.begin(), word_of);
    return words;
}

}  // namespace

template <class Words>
void SampledSource::sample_with(Point from, int count, const Words& words, Color* colors) const {
    Origins origins;
    Arounds arounds;
    const auto* const first = pixel_address(from_, from_.window.at.x, from_.window.at.y);
    const auto stride = from_.stride;
    const auto size = from_.window.size;
    for (int done = 0; done < count; done += Origins::most) {
        const auto some = static_cast<std::size_t>(std::min(Origins::most, count - done));
        find_origins(back_.rows(), {.x = from.x + done, .y = from.y}, at_, size, static_cast<int>(some), origins);
        if constexpr (std::is_same_v<Words, ColorWords>) {
            // Places go evenly from the first to the last: between them all have neighbours, if those have.
            const auto rightmost = std::max(origins.left[0], origins.left[some - 1]);
            const auto lowest = std::max(origins.upper[0], origins.upper[some - 1]);
            if (rightmost + 1 < size.width && lowest + 1 < size.height) {
                for (std::size_t i = 0; i < some; ++i) {
                    const auto* const pixel = first + origins.upper[i] * stride + origins.left[i] * std::ptrdiff_t{4};
                    arounds.set(i, pixel, pixel + stride);
                }
                mix_all(arounds, origins, some, colors + done);
                continue;
            }
        }
        for (std::size_t i = 0; i < some; ++i) {
            const auto left = origins.left[i];
            const auto upper = origins.upper[i];
            const auto* const pixel = first + upper * stride + left * Words::pixel_bytes;
            const auto right = left + 1 < size.width ? Words::pixel_bytes : 0;
            const auto* const under = pixel + (upper + 1 < size.height ? stride : 0);
            arounds.set(i, {words(pixel), words(pixel + right), words(under), words(under + right)});
        }
        mix_all(arounds, origins, some, colors + done);
    }
}

template <class Words>
void SampledSource::sample(Point from, int count, const Words& words, Color* colors) const {
    if (!without_) return sample_with(from, count, words, colors);
    sample_with(from, count, WordsWithout<Words>{words, word_of(*without_)}, colors);
}

bool SampledSource::sample_words(Point from, int count, Color* colors) const {
    const auto& kernel = *from_.kernel;
    const auto is_bgr = kernel.order == ChannelOrder::bgr;
    if (kernel.is_color) {
        sample(from, count, ColorWords{}, colors);
    } else if (is_bgr && kernel.has_alpha) {
        sample(from, count, ChannelWords<4, 2>{}, colors);
    } else if (kernel.order == ChannelOrder::rgb) {
        sample(from, count, ChannelWords<3, 0>{}, colors);
    } else if (is_bgr) {
        sample(from, count, ChannelWords<3, 2>{}, colors);
    } else if (kernel.is_gray && kernel.is_by_byte) {
        static const auto words = gray_words();
        sample(from, count, ByteWords{words.data()}, colors);
    } else if (kernel.is_indexed) {
        const auto words = palette_words(palette_of(from_));
        sample(from, count, ByteWords{words.data()}, colors);
    } else {
        return false;
    }
    return true;
}

Color16 SampledSource::color_at(Point at) const {
    auto color = decode_deep(from_, from_.window.at + at);
    if (without_ && narrowed(color) == *without_) color.alpha = 0;
    return color;
}

namespace {

// Of 16 bits a channel.
using Doubles4 = double __attribute__((vector_size(32)));

Color16 color_of(const Doubles4& channels) noexcept {
    const auto rounded = [](double value) { return nearest_whole<std::uint16_t>(std::min(value, 65535.0)); };
    return {.red = rounded(channels[0]),
            .green = rounded(channels[1]),
            .blue = rounded(channels[2]),
            .alpha = rounded(channels[3])};
}

}  // namespace

Color16 SampledSource::mixed(const Point& upper_left, double right, double lower) const {
    const auto [left, upper] = upper_left;
    const auto next_right = std::min(left + 1, from_.window.size.width - 1);
    const auto next_lower = std::min(upper + 1, from_.window.size.height - 1);
    // Colours times alpha, and alpha.
    Doubles4 sums{};
    const auto add = [&](int column, int row, double weight) {
        const auto color = color_at({.x = column, .y = row});
        const auto alpha = weight * color.alpha;
        sums += Doubles4{double{1} * color.red, double{1} * color.green, double{1} * color.blue, 1} * alpha;
    };
    add(left, upper, (1 - right) * (1 - lower));
    add(next_right, upper, right * (1 - lower));
    add(left, next_lower, (1 - right) * lower);
    add(next_right, next_lower, right * lower);
    const auto alpha = sums[3];
    return alpha > 0 ? color_of(sums / Doubles4{alpha, alpha, alpha, 1}) : Color16{.alpha = 0};
}

void SampledSource::fetch(Point from, int count, const Box& /*shape*/, Color16* colors) const {
    Origins origins;
    for (int done = 0; done < count; done += Origins::most) {
        const auto some = std::min(Origins::most, count - done);
        find_origins(back_.rows(), {.x = from.x + done, .y = from.y}, at_, from_.window.size, some, origins);
        for (std::size_t i = 0; i < static_cast<std::size_t>(some); ++i) {
            *colors++ = mixed({.x = origins.left[i], .y = origins.upper[i]}, double{1} * origins.right_part[i],
                              double{1} * origins.lower_part[i]);
        }
    }
}

void SampledSource::fetch(Point from, int count, const Box& shape, Color* colors) const {
    if (sample_words(from, count, colors)) return;
    std::array<Color16, 128> deep;
    for (int done = 0; done < count; done += static_cast<int>(deep.size())) {
        const auto some = std::min(static_cast<int>(deep.size()), count - done);
        fetch({.x = from.x + done, .y = from.y}, some, shape, deep.data());
        std::transform(deep.begin(), deep.begin() + some, colors + done,
                       [](const Color16& color) { return narrowed(color); });
    }
}

}  // namespace coldbrick::inline v0::detail
