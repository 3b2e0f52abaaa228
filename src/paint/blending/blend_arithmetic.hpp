// What one channel becomes, as exact fractions: W3C Compositing and Blending Level 1, sections 5, 9 and 10.
#pragma once

#include "geometry/integers.hpp"
#include "geometry/vectors.hpp"

#include "coldbrick/ink.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace coldbrick::inline v0::detail {

// A fraction in numbers of some kind: whole ones, in which the result is exact, or floating-point ones.
template <class Number>
struct Fraction {
    Number numerator;
    Number denominator;
};

// The blend function of the standard's section 10.1 for hard_light, in terms of m: B = numerator / (m * m).
template <class Number>
COLDBRICK_INLINE constexpr Number hard_light(Number below, Number ink, Number m) noexcept {
    if (2 * ink <= m) return 2 * below * ink;
    const auto screened = 2 * ink - m;
    return below * m + screened * m - below * screened;
}

// The same for soft_light, from 0 to 1.
COLDBRICK_INLINE constexpr double soft_light(double below, double ink) noexcept {
    if (ink <= 0.5) return below - (1 - 2 * ink) * below * (1 - below);
    const auto lifted = below <= 0.25 ? ((16 * below - 12) * below + 4) * below : std::sqrt(below);
    return below + (2 * ink - 1) * (lifted - below);
}

// B(below, ink), of channels from 0 to m, as a fraction of the whole channel.
template <class Number>
COLDBRICK_INLINE constexpr Fraction<Number> mixed_channel(Blend mode, Number below, Number ink, Number m) noexcept {
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

// For each mode, whether such fractions have that denominator where the whole is 255: m * m, or m.
template <std::int64_t denominator>
inline constexpr auto modes_of = [] {
    constexpr auto m = std::int64_t{255};
    std::array<bool, blend_names.size()> are{};
    for (std::size_t i = 0; i < are.size(); ++i) {
        are[i] = mixed_channel<std::int64_t>(static_cast<Blend>(i), 3, 7, m).denominator == denominator;
    }
    return are;
}();
constexpr bool is_of_square(Blend mode) noexcept {
    return modes_of<std::int64_t{255} * 255>[static_cast<unsigned>(mode)];
}
constexpr bool is_of_whole(Blend mode) noexcept { return modes_of<255>[static_cast<unsigned>(mode)]; }

// Whether the results are such fractions of moderate numbers, and go evenly but for one bend.
constexpr bool goes_by_rows(Blend mode) noexcept {
    return mode != Blend::replace && mode != Blend::exclusive_or && mode != Blend::soft_light;
}

// A channel and its alpha below, those of the ink (coverage and opacity multiplied in), and the whole of each.
template <class Number>
struct Layers {
    Number below_alpha;
    Number ink_alpha;
    Number m;

    // The new alpha, times m.
    [[nodiscard]] COLDBRICK_INLINE Number alpha(Blend mode) const noexcept {
        if (mode == Blend::add) return std::min(m, below_alpha + ink_alpha) * m;
        return m * ink_alpha + m * below_alpha - ink_alpha * below_alpha;
    }

    // The new channel.
    [[nodiscard]] COLDBRICK_INLINE Fraction<Number> channel(Blend mode, Number below, Number ink) const noexcept {
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

    // The same where what is below is opaque, of whole numbers below m^4: in doubles it is exact for 8 and 16 bits.
    [[nodiscard]] COLDBRICK_INLINE Fraction<Number> on_opaque(Blend mode, Number below, Number ink) const noexcept {
        const auto rest = below * (m - ink_alpha);
        if (mode == Blend::add) return {std::min(ink * ink_alpha + below * m, m * m), m};
        const auto [part, of] = mixed_channel(mode, below, ink, m);
        if (is_of_square(mode)) return {rest * m + ink_alpha * part, of};
        if (is_of_whole(mode)) return {rest + ink_alpha * part, m};
        return {rest * of + ink_alpha * m * part, m * of};
    }
};

// The last value below, of those from 0 to m, up to which B(below, ink) goes evenly, as it does behind it.
inline int last_before_bend(Blend mode, int ink, double alpha, int m) noexcept {
    switch (mode) {
        case Blend::darken:
        case Blend::lighten:
        case Blend::difference:
            return ink;
        case Blend::overlay:
            return m / 2;
        case Blend::add:
            return m - static_cast<int>(std::ceil(ink * alpha / m));
        case Blend::color_dodge:
            return std::max(0, m - 1 - ink);
        case Blend::color_burn:
            return ink == 0 ? m - 1 : m - ink;
        default:
            return m;
    }
}

// Through what the values from first to last become on opaque pixels: the first one's result, raised so that the whole
// part is the nearest whole number, halves up, and by how much the results rise from each to the next. A fraction that
// is no half is at least 1/2d away from one, and 1/d if its denominator d is even.
struct Rise {
    double raised;
    double step;
};
inline Rise rise_between(Blend mode, double ink, double alpha, int first, int last, double m) noexcept {
    const auto layers = Layers<double>{.below_alpha = m, .ink_alpha = alpha, .m = m};
    const auto from = layers.on_opaque(mode, first, ink);
    const auto to = layers.on_opaque(mode, last, ink);
    const auto value = from.numerator / from.denominator;
    const auto step = last > first ? (to.numerator / to.denominator - value) / (last - first) : 0;
    const auto of = std::max(from.denominator, to.denominator);
    return {.raised = value + 0.5 + (std::fmod(of, 2) == 0 ? 1 / (2 * of) : 0), .step = step};
}

template <class Number>
Number rounded(const Fraction<Number>& fraction) noexcept {
    return (2 * fraction.numerator + fraction.denominator) / (2 * fraction.denominator);
}

}  // namespace coldbrick::inline v0::detail
