#include "paint/blending/blending_rows.hpp"

#include "formats/source_over.hpp"
#include "geometry/vectors.hpp"
#include "paint/blending/blend_arithmetic.hpp"

#include <algorithm>
#include <array>
#include <bit>
#include <cstring>

namespace coldbrick::inline v0::detail {

namespace {

constexpr int row_length = 128;

// The words of so many pixels: one each, or of 16 bits a channel two.
template <class Texel>
constexpr std::size_t words_of = sizeof(Texel) / 4;
template <class Texel>
using Words = std::array<std::uint32_t, words_of<Texel> * row_length>;

// Where a channel lies in the words of a pixel: channels count from the first byte on.
struct Place {
    std::size_t word;
    unsigned shift;
};
template <class Texel>
constexpr Place bits_of(unsigned channel) noexcept {
    constexpr auto bits = words_of<Texel> == 1 ? 8U : 16U;
    constexpr auto in_word = 32U / bits;
    const auto within = channel % in_word * bits;
    return {.word = channel / in_word,
            .shift = std::endian::native == std::endian::little ? within : 32U - bits - within};
}
constexpr auto alpha_channel = 3U;

template <class Texel>
constexpr auto whole_of = words_of<Texel> == 1 ? 255 : 65535;

template <class Texel>
COLDBRICK_INLINE double channel_of_pixel(const std::uint32_t* pixel, unsigned channel) noexcept {
    const auto [word, shift] = bits_of<Texel>(channel);
    return static_cast<double>(static_cast<std::int32_t>(pixel[word] >> shift & std::uint32_t{whole_of<Texel>}));
}

// Pixels, and what is laid on them.
template <class Texel>
struct Row {
    Words<Texel> ink;
    Words<Texel> below;
    std::array<double, row_length> alpha;  // of the ink, weakened by coverage and opacity
    int count;
};

// alpha * coverage * opacity, rounded to the nearest once.
template <class Texel>
void weaken(const Cover& cover, double opacity, Row<Texel>& row) noexcept {
    std::array<std::int32_t, row_length> coverage;
    for (int i = 0; i < row.count; ++i) coverage[static_cast<std::size_t>(i)] = cover.of(i);
    const auto* const ink = row.ink.data();
    const auto* const covered = coverage.data();
    auto* const weak = row.alpha.data();
    const auto count = static_cast<std::size_t>(row.count);
    run_in_vectors([=]() COLDBRICK_KERNEL {
        for (std::size_t i = 0; i < count; ++i) {
            const auto alpha = channel_of_pixel<Texel>(ink + words_of<Texel> * i, alpha_channel);
            const auto product = alpha * static_cast<double>(covered[i]) * opacity;
            // A fraction of an odd number is no half, so multiplying does as well as dividing.
            // NOLINTNEXTLINE(bugprone-incorrect-roundings): halves go up, and no call stands in a loop of vectors.
            weak[i] = static_cast<double>(static_cast<std::int32_t>(product * (1 / (255.0 * 65535.0)) + 0.5));
        }
    });
}

// The nearest whole number, halves up. Denominators are at most 255^4, or 65535^2 of 16 bits, so that a fraction below
// a half is farther from it than what is added to make up for the rounding of its parts.
template <class Texel>
COLDBRICK_INLINE void put(double value, unsigned channel, std::uint32_t* pixel) noexcept {
    constexpr auto half = 0.5 + 2e-11;
    const auto [word, shift] = bits_of<Texel>(channel);
    pixel[word] |= static_cast<std::uint32_t>(static_cast<std::int32_t>(value + half)) << shift;
}

template <class Texel, Blend mode, bool on_opaque>
COLDBRICK_INLINE void lay_pixel(const std::uint32_t* ink, double alpha, std::uint32_t* below) noexcept {
    constexpr auto m = double{whole_of<Texel>};
    const auto below_alpha = on_opaque ? m : channel_of_pixel<Texel>(below, alpha_channel);
    const auto layers = Layers<double>{.below_alpha = below_alpha, .ink_alpha = alpha, .m = m};
    std::uint32_t result[words_of<Texel>] = {};
    const auto lay = [&](unsigned channel) COLDBRICK_KERNEL {
        const auto from = channel_of_pixel<Texel>(below, channel);
        const auto by = channel_of_pixel<Texel>(ink, channel);
        const auto mixed = on_opaque ? layers.on_opaque(mode, from, by) : layers.channel(mode, from, by);
        if constexpr (on_opaque && (is_of_square(mode) || is_of_whole(mode) || mode == Blend::add)) {
            put<Texel>(mixed.numerator * (is_of_square(mode) ? 1 / (m * m) : 1 / m), channel, result);
        } else {
            put<Texel>(mixed.numerator / std::max(mixed.denominator, 1.0), channel, result);
        }
    };
    lay(0);
    lay(1);
    lay(2);
    put<Texel>(on_opaque ? m : layers.alpha(mode) * (1 / m), alpha_channel, result);
    // What is not covered stays, and is of no part of 0.
    for (std::size_t i = 0; i < words_of<Texel>; ++i) below[i] = alpha > 0 ? result[i] : below[i];
}

template <class Texel, Blend mode>
void lay_mode(bool is_opaque, Row<Texel>& row) {
    constexpr auto words = words_of<Texel>;
    const auto count = static_cast<std::size_t>(row.count);
    const auto* const ink = row.ink.data();
    const auto* const alpha = row.alpha.data();
    auto* const below = row.below.data();
    if (is_opaque || words > 1) {
        run_in_vectors([=]() COLDBRICK_KERNEL {
            for (std::size_t i = 0; i < count; ++i) {
                lay_pixel<Texel, mode, true>(ink + words * i, alpha[i], below + words * i);
            }
        });
    } else if constexpr (words == 1) {
        run_in_vectors([=]() COLDBRICK_KERNEL {
            for (std::size_t i = 0; i < count; ++i) {
                lay_pixel<Texel, mode, false>(ink + i, alpha[i], below + i);
            }
        });
    }
}

// By the mode that has that number, of those that go by rows.
template <class Texel, std::size_t... modes>
void lay_by(Blend mode, bool is_opaque, Row<Texel>& row, std::index_sequence<modes...>) {
    const auto lay_if = [&]<std::size_t number>(std::integral_constant<std::size_t, number>) {
        constexpr auto of = static_cast<Blend>(number);
        if constexpr (goes_by_rows(of)) {
            if (mode == of) lay_mode<Texel, of>(is_opaque, row);
        }
    };
    (lay_if(std::integral_constant<std::size_t, modes>{}), ...);
}

// All bits of the channels that are drawn into. Of a gray, any channel is the gray.
template <class Texel>
std::array<std::uint32_t, words_of<Texel>> mask_of(const Blender& blender) noexcept {
    std::array<std::uint32_t, words_of<Texel>> mask{};
    const auto take = [&](unsigned channel, bool is_taken) {
        const auto [word, shift] = bits_of<Texel>(channel);
        if (is_taken) mask[word] |= std::uint32_t{whole_of<Texel>} << shift;
    };
    constexpr auto channels = std::array{Channels::red, Channels::green, Channels::blue};
    for (auto i = 0U; i < alpha_channel; ++i) {
        take(i, has(blender.how.channels, blender.is_gray ? Channels::color : channels[i]));
    }
    take(alpha_channel, blender.has_alpha && has(blender.how.channels, Channels::alpha));
    return mask;
}

template <class Texel>
void set_ink(const Blender& blender, const Texel* ink, Row<Texel>& row) noexcept {
    const auto count = static_cast<std::size_t>(row.count);
    if (!blender.is_gray) {
        std::memcpy(row.ink.data(), ink, count * sizeof(Texel));
        return;
    }
    std::array<Texel, row_length> grays;
    for (std::size_t i = 0; i < count; ++i) {
        const auto value = luma(ink[i]);
        grays[i] = {.red = value, .green = value, .blue = value, .alpha = ink[i].alpha};
    }
    std::memcpy(row.ink.data(), grays.data(), count * sizeof(Texel));
}

template <class Texel>
bool are_opaque(const Texel* below, int count) noexcept {
    auto common = std::uint32_t{whole_of<Texel>};
    for (int i = 0; i < count; ++i) common &= below[i].alpha;
    return common == std::uint32_t{whole_of<Texel>};
}

template <class Texel>
void lay_rows(const Blender& blender, const Texel* ink, const Cover& cover, int count, Texel* below) {
    constexpr auto words = words_of<Texel>;
    const auto opacity = whole_opacity(blender.how);
    const auto mask = mask_of<Texel>(blender);
    Row<Texel> row;
    for (int done = 0; done < count; done += row_length) {
        row.count = std::min(row_length, count - done);
        const auto bytes = static_cast<std::size_t>(row.count) * sizeof(Texel);
        set_ink(blender, ink + done, row);
        std::memcpy(row.below.data(), below + done, bytes);
        const auto* const each = cover.each != nullptr ? cover.each + done : nullptr;
        weaken(Cover{.each = each, .all = cover.all}, opacity, row);
        const auto old = row.below;
        const auto is_opaque = !blender.has_alpha || are_opaque(below + done, row.count);
        lay_by(blender.how.blend, is_opaque, row, std::make_index_sequence<blend_names.size()>{});
        for (std::size_t i = 0; i < words * static_cast<std::size_t>(row.count); ++i) {
            row.below[i] = (row.below[i] & mask[i % words]) | (old[i] & ~mask[i % words]);
        }
        std::memcpy(static_cast<void*>(below + done), row.below.data(), bytes);
    }
}

}  // namespace

double whole_opacity(const Compositing& how) noexcept {
    return static_cast<double>(nearest_whole<std::int32_t>(how.opacity * 65535));
}

Color weakened(Color color, const Compositing& how) noexcept {
    weaken({.each = nullptr, .all = 255}, whole_opacity(how), 1, &color);
    return color;
}

void weaken(const Cover& cover, double opacity, int count, Color* colors) noexcept {
    if (cover.each == nullptr && cover.all == 255 && opacity == 65535) return;
    const auto place = bits_of<Color>(alpha_channel);
    const auto others = ~(std::uint32_t{255} << place.shift);
    Row<Color> row;
    for (int done = 0; done < count; done += row_length) {
        row.count = std::min(row_length, count - done);
        const auto bytes = static_cast<std::size_t>(row.count) * sizeof(Color);
        std::memcpy(row.ink.data(), colors + done, bytes);
        const auto* const each = cover.each != nullptr ? cover.each + done : nullptr;
        weaken(Cover{.each = each, .all = cover.all}, opacity, row);
        for (std::size_t i = 0; i < static_cast<std::size_t>(row.count); ++i) {
            row.ink[i] = (row.ink[i] & others) | static_cast<std::uint32_t>(row.alpha[i]) << place.shift;
        }
        std::memcpy(static_cast<void*>(colors + done), row.ink.data(), bytes);
    }
}

bool knows_rows(const Blender& blender) noexcept {
    return blender.how.light == Light::encoded && goes_by_rows(blender.how.blend);
}

void lay_row(const Blender& blender, const Color* ink, const Cover& cover, int count, Color* below) {
    lay_rows(blender, ink, cover, count, below);
}

void lay_row(const Blender& blender, const Color16* ink, const Cover& cover, int count, Color16* below) {
    lay_rows(blender, ink, cover, count, below);
}

}  // namespace coldbrick::inline v0::detail
