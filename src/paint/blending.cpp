#include "paint/blending.hpp"

#include "formats/linear_light.hpp"
#include "geometry/integers.hpp"
#include "geometry/wide.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace coldbrick::inline v0::detail {

namespace {

// A fraction in numbers of some kind: whole ones, in which the result is exact, or floating-point ones.
template <class Number>
struct Fraction {
    Number numerator;
    Number denominator;
};

// The blend function of the standard's section 10.1 for hard_light, in terms of m: B = numerator / (m * m).
template <class Number>
Number hard_light(Number below, Number ink, Number m) noexcept {
    if (2 * ink <= m) return 2 * below * ink;
    const auto screened = 2 * ink - m;
    return below * m + screened * m - below * screened;
}

// The same for soft_light, from 0 to 1.
double soft_light(double below, double ink) noexcept {
    if (ink <= 0.5) return below - (1 - 2 * ink) * below * (1 - below);
    const auto lifted = below <= 0.25 ? ((16 * below - 12) * below + 4) * below : std::sqrt(below);
    return below + (2 * ink - 1) * (lifted - below);
}

// B(below, ink), of channels from 0 to m, as a fraction of the whole channel.
template <class Number>
Fraction<Number> mixed_channel(Blend mode, Number below, Number ink, Number m) noexcept {
    const auto square = m * m;
    switch (mode) {
        case Blend::multiply:
            return {below * ink, square};
        case Blend::screen:
            return {below * m + ink * m - below * ink, square};
        case Blend::overlay:
            return {hard_light(ink, below, m), square};
        case Blend::darken:
            return {std::min(below, ink), m};
        case Blend::lighten:
            return {std::max(below, ink), m};
        case Blend::color_dodge:
            if (below == 0) return {0, 1};
            return below >= m - ink ? Fraction<Number>{1, 1} : Fraction<Number>{below, m - ink};
        case Blend::color_burn:
            if (below == m) return {1, 1};
            return m - below >= ink ? Fraction<Number>{0, 1} : Fraction<Number>{ink - (m - below), ink};
        case Blend::hard_light:
            return {hard_light(below, ink, m), square};
        case Blend::soft_light: {
            constexpr auto fine = 4294967296.0;
            const auto mixed = soft_light(static_cast<double>(below) / static_cast<double>(m),
                                          static_cast<double>(ink) / static_cast<double>(m));
            return {nearest_whole<Number>(mixed * fine), static_cast<Number>(fine)};
        }
        case Blend::difference:
            return {below > ink ? below - ink : ink - below, m};
        case Blend::exclusion:
            return {below * m + ink * m - 2 * below * ink, square};
        default:
            return {ink, m};
    }
}

// A channel and its alpha below, those of the ink (coverage and opacity multiplied in), and the whole of each.
template <class Number>
struct Layers {
    Number below_alpha;
    Number ink_alpha;
    Number m;

    // The new alpha, times m.
    [[nodiscard]] Number alpha(Blend mode) const noexcept {
        if (mode == Blend::add) return std::min(m, below_alpha + ink_alpha) * m;
        return m * ink_alpha + m * below_alpha - ink_alpha * below_alpha;
    }

    // The new channel.
    [[nodiscard]] Fraction<Number> channel(Blend mode, Number below, Number ink) const noexcept {
        if (mode == Blend::add) {
            const auto alpha_sum = std::min(m, below_alpha + ink_alpha);
            return {std::min(ink * ink_alpha + below * below_alpha, alpha_sum * m), alpha_sum};
        }
        if (mode == Blend::over) {
            return {ink * ink_alpha * m + below * below_alpha * (m - ink_alpha), alpha(mode)};
        }
        const auto [part, of] = mixed_channel(mode, below, ink, m);
        const auto apart = ink * ink_alpha * (m - below_alpha) + below * below_alpha * (m - ink_alpha);
        return {apart * of + ink_alpha * below_alpha * m * part, alpha(mode) * of};
    }
};

template <class Number>
Number rounded(const Fraction<Number>& fraction) noexcept {
    return (2 * fraction.numerator + fraction.denominator) / (2 * fraction.denominator);
}

// The channels of a texel, and what their whole is.
template <class Texel>
struct TexelTraits;
template <>
struct TexelTraits<Color> {
    using Channel = std::uint8_t;
    using Number = std::uint64_t;
    static constexpr Number m = 255;
};
template <>
struct TexelTraits<Color16> {
    using Channel = std::uint16_t;
    using Number = Uint128;
    static constexpr Number m = 65535;
};

template <class Texel>
constexpr auto color_channels = std::array{&Texel::red, &Texel::green, &Texel::blue};

// Opacity in 65535ths, so that products are exact.
std::uint64_t whole_opacity(const Laying& how) noexcept { return nearest_whole<std::uint64_t>(how.opacity * 65535); }

// alpha * coverage * opacity, rounded to the nearest once.
std::uint64_t weakened(std::uint64_t alpha, std::uint64_t coverage, std::uint64_t opacity) noexcept {
    constexpr auto whole = std::uint64_t{255} * 65535;
    return (2 * alpha * coverage * opacity + whole) / (2 * whole);
}

template <class Texel>
class PixelBlender {
    using Channel = typename TexelTraits<Texel>::Channel;
    using Number = typename TexelTraits<Texel>::Number;
    static constexpr auto m = TexelTraits<Texel>::m;

  public:
    explicit PixelBlender(const Blender& blender) noexcept
        : how_{blender.how}, has_alpha_{blender.has_alpha}, opacity_{whole_opacity(blender.how)} {}

    void operator()(Texel ink, std::uint8_t coverage, Texel& below) const noexcept {
        if (how_.blend == Blend::replace) return replace(ink, coverage, below);
        if (how_.blend == Blend::exclusive_or) return turn_over(ink, coverage, below);
        const auto alpha = weakened(ink.alpha, coverage, opacity_);
        if (alpha == 0) return;
        if (how_.light == Light::linear) return lay_light(ink, static_cast<double>(alpha), below);
        const auto layers =
            Layers<Number>{.below_alpha = has_alpha_ ? Number{below.alpha} : m, .ink_alpha = alpha, .m = m};
        for (const auto channel : color_channels<Texel>) {
            below.*channel =
                static_cast<Channel>(rounded(layers.channel(how_.blend, Number{below.*channel}, Number{ink.*channel})));
        }
        below.alpha = static_cast<Channel>(rounded(Fraction<Number>{layers.alpha(how_.blend), m}));
    }

  private:
    // What is covered in part is between both, weighted by their alphas.
    void replace(const Texel& ink, std::uint8_t coverage, Texel& below) const noexcept {
        const auto alpha = has_alpha_ ? Number{weakened(ink.alpha, 255, opacity_)} : m;
        const auto new_part = alpha * coverage;
        const auto old_part = (has_alpha_ ? Number{below.alpha} : m) * (255U - coverage);
        const auto sum = new_part + old_part;
        if (sum == 0) {
            below = ink;
            below.alpha = 0;
            return;
        }
        for (const auto channel : color_channels<Texel>) {
            below.*channel = static_cast<Channel>(
                rounded(Fraction<Number>{Number{ink.*channel} * new_part + Number{below.*channel} * old_part, sum}));
        }
        below.alpha = static_cast<Channel>(rounded(Fraction<Number>{sum, 255}));
    }

    static void turn_over(const Texel& ink, std::uint8_t coverage, Texel& below) noexcept {
        if (coverage < 128) return;
        for (const auto channel : color_channels<Texel>) {
            below.*channel = static_cast<Channel>(below.*channel ^ ink.*channel);
        }
    }

    void lay_light(const Texel& ink, double alpha, Texel& below) const noexcept {
        constexpr auto whole = static_cast<double>(m);
        const auto below_alpha = has_alpha_ ? static_cast<double>(below.alpha) / whole : 1.0;
        const auto layers = Layers<double>{.below_alpha = below_alpha, .ink_alpha = alpha / whole, .m = 1};
        for (const auto channel : color_channels<Texel>) {
            const auto [part, of] = layers.channel(how_.blend, light_of(below.*channel), light_of(ink.*channel));
            from_light(part / of, below.*channel);
        }
        below.alpha = nearest_whole<Channel>(layers.alpha(how_.blend) * whole);
    }

    const Laying& how_;
    bool has_alpha_;
    std::uint64_t opacity_;
};

template <class Texel>
void lay_all(const Blender& blender, const Texel* ink, const Cover& cover, int count, Texel* below) {
    const PixelBlender<Texel> lay{blender};
    const auto channels = blender.how.channels;
    for (int i = 0; i < count; ++i) {
        const auto coverage = cover.of(i);
        if (coverage == 0) continue;
        auto source = ink[i];
        if (blender.is_gray) source.red = source.green = source.blue = luma(source);
        auto result = below[i];
        lay(source, coverage, result);
        // Of a gray, any channel is the gray.
        const auto takes = [&](Channels channel) { return has(channels, blender.is_gray ? Channels::color : channel); };
        if (takes(Channels::red)) below[i].red = result.red;
        if (takes(Channels::green)) below[i].green = result.green;
        if (takes(Channels::blue)) below[i].blue = result.blue;
        if (blender.has_alpha && has(channels, Channels::alpha)) below[i].alpha = result.alpha;
    }
}

// Source-over in 8 bits on pixels that are all opaque: the most frequent case.
void lay_over_opaque(const Color* ink, const Cover& cover, std::uint64_t opacity, int count, Color* below) noexcept {
    for (int i = 0; i < count; ++i) {
        const auto alpha = static_cast<unsigned>(weakened(ink[i].alpha, cover.of(i), opacity));
        const auto mixed = [alpha](unsigned s, unsigned d) {
            const auto sum = s * alpha + d * (255U - alpha) + 128U;
            return static_cast<std::uint8_t>((sum + (sum >> 8U)) >> 8U);
        };
        below[i].red = mixed(ink[i].red, below[i].red);
        below[i].green = mixed(ink[i].green, below[i].green);
        below[i].blue = mixed(ink[i].blue, below[i].blue);
    }
}

}  // namespace

void Blender::lay(const Color* ink, const Cover& cover, int count, Color* below) const {
    const auto is_simple =
        how.blend == Blend::over && how.light == Light::encoded && how.channels == Channels::all && !is_gray;
    const auto is_opaque = [&] { return std::all_of(below, below + count, [](Color c) { return c.alpha == 255; }); };
    if (is_simple && is_opaque()) return lay_over_opaque(ink, cover, whole_opacity(how), count, below);
    lay_all(*this, ink, cover, count, below);
}

void Blender::lay(const Color16* ink, const Cover& cover, int count, Color16* below) const {
    lay_all(*this, ink, cover, count, below);
}

}  // namespace coldbrick::inline v0::detail
