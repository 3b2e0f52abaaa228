#include "paint/blending/blending.hpp"

#include "formats/linear_light.hpp"
#include "formats/source_over.hpp"
#include "geometry/integers.hpp"
#include "geometry/thresholds.hpp"
#include "geometry/wide.hpp"
#include "paint/blending/blend_arithmetic.hpp"
#include "paint/blending/blending_rows.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <type_traits>

namespace coldbrick::inline v0::detail {

namespace {

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
        : how_{blender.how},
          has_alpha_{blender.has_alpha},
          opacity_{static_cast<std::uint64_t>(whole_opacity(blender.how))} {}

    void operator()(Texel ink, std::uint8_t coverage, Texel& below) const noexcept {
        if (how_.blend == Blend::replace) return replace(ink, coverage, below);
        if (how_.blend == Blend::exclusive_or) return turn_over(ink, coverage, below);
        const auto alpha = weakened(ink.alpha, coverage, opacity_);
        if (alpha == 0) return;
        if (how_.light == Light::linear) return lay_light(ink, static_cast<double>(alpha), below);
        const auto layers =
            Layers<Number>{.below_alpha = has_alpha_ ? Number{below.alpha} : m, .ink_alpha = alpha, .m = m};
        if constexpr (std::is_same_v<Texel, Color>) {
            if (layers.below_alpha == m && is_of_square(how_.blend)) return lay_on_opaque(layers, ink, below);
        }
        for (const auto channel : color_channels<Texel>) {
            below.*channel =
                static_cast<Channel>(rounded(layers.channel(how_.blend, Number{below.*channel}, Number{ink.*channel})));
        }
        below.alpha = static_cast<Channel>(rounded(Fraction<Number>{layers.alpha(how_.blend), m}));
    }

  private:
    // On opaque pixels such fractions are of m * m, so that nothing is divided by what is not known before.
    void lay_on_opaque(const Layers<Number>& layers, const Texel& ink, Texel& below) const noexcept {
        constexpr auto square = m * m;
        for (const auto channel : color_channels<Texel>) {
            const auto sum = layers.on_opaque(how_.blend, Number{below.*channel}, Number{ink.*channel}).numerator;
            below.*channel = static_cast<Channel>((2 * sum + square) / (2 * square));
        }
    }

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

    const Compositing& how_;
    bool has_alpha_;
    std::uint64_t opacity_;
};

// On one pixel that is covered so much, at least a little.
template <class Texel>
void lay_one(const Blender& blender, const PixelBlender<Texel>& lay, Texel source, std::uint8_t coverage,
             Texel& below) {
    if (blender.is_gray) source.red = source.green = source.blue = luma(source);
    auto result = below;
    lay(source, coverage, result);
    const auto channels = blender.how.channels;
    if (channels == Channels::all && blender.has_alpha) {
        below = result;
        return;
    }
    // Of a gray, any channel is the gray.
    const auto takes = [&](Channels channel) { return has(channels, blender.is_gray ? Channels::color : channel); };
    if (takes(Channels::red)) below.red = result.red;
    if (takes(Channels::green)) below.green = result.green;
    if (takes(Channels::blue)) below.blue = result.blue;
    if (blender.has_alpha && has(channels, Channels::alpha)) below.alpha = result.alpha;
}

template <class Texel>
void lay_all(const Blender& blender, const Texel* ink, const Cover& cover, int count, Texel* below) {
    const PixelBlender<Texel> lay{blender};
    for (int i = 0; i < count; ++i) {
        const auto coverage = cover.of(i);
        if (coverage > 0) lay_one(blender, lay, ink[i], coverage, below[i]);
    }
}

// Source-over of all channels in 8 bits: the most frequent case.
void lay_over(const Color* ink, const Cover& cover, double opacity, int count, Color* below) noexcept {
    const auto bytes_of = [](auto* colors) { return reinterpret_cast<std::uint8_t*>(colors); };
    std::array<Color, 128> weak;
    for (int done = 0; done < count; done += static_cast<int>(weak.size())) {
        const auto some = std::min(static_cast<int>(weak.size()), count - done);
        std::copy_n(ink + done, some, weak.begin());
        const auto* const each = cover.each != nullptr ? cover.each + done : nullptr;
        weaken({.each = each, .all = cover.all}, opacity, some, weak.data());
        blend_row(bytes_of(weak.data()), bytes_of(below + done), static_cast<std::size_t>(some));
    }
}

}  // namespace

void Blender::lay(const Color* ink, const Cover& cover, int count, Color* below) const {
    // Making rows ready takes as long as some pixels.
    if (count < thresholds::few_blended || !knows_rows(*this)) return lay_all(*this, ink, cover, count, below);
    if (how.blend == Blend::over && takes_all(how.channels, has_alpha) && !is_gray) {
        return lay_over(ink, cover, whole_opacity(how), count, below);
    }
    lay_row(*this, ink, cover, count, below);
}

void Blender::lay(Color ink, Color& below) const { lay_one(*this, PixelBlender<Color>{*this}, ink, 255, below); }

void Blender::lay(const Color16* ink, const Cover& cover, int count, Color16* below) const {
    const auto is_opaque = [&] {
        return std::all_of(below, below + count, [](auto& of) { return of.alpha == 65535; });
    };
    if (knows_rows(*this) && is_opaque()) return lay_row(*this, ink, cover, count, below);
    lay_all(*this, ink, cover, count, below);
}

}  // namespace coldbrick::inline v0::detail
