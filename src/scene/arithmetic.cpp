#include "scene/arithmetic.hpp"

#include <cmath>
#include <cstdint>
#include <limits>
#include <numbers>

namespace coldbrick::inline v0::detail {

namespace {

// The series for the arc tangent, for angles up to pi / 16.
double small_arc_tangent(double x) noexcept {
    constexpr auto terms = 13;
    const auto square = x * x;
    auto sum = 0.0;
    for (auto i = terms; i >= 0; --i) sum = 1.0 / (2 * i + 1) - square * sum;
    return x * sum;
}

// From 0 to 1: the angle is halved twice.
double arc_tangent(double x) noexcept {
    for (int i = 0; i < 2; ++i) x = x / (1 + std::sqrt(1 + x * x));
    return 4 * small_arc_tangent(x);
}

// The natural logarithm of a number above 0: of its mantissa by the series of the area tangent.
double logarithm(double x) noexcept {
    auto exponent = 0;
    auto mantissa = std::frexp(x, &exponent);
    if (mantissa < std::numbers::sqrt2 / 2) {
        mantissa *= 2;
        --exponent;
    }
    const auto part = (mantissa - 1) / (mantissa + 1);
    const auto square = part * part;
    constexpr auto terms = 12;
    auto sum = 0.0;
    for (auto i = terms; i >= 0; --i) sum = 1.0 / (2 * i + 1) + square * sum;
    return exponent * std::numbers::ln2 + 2 * part * sum;
}

double exponential(double x) noexcept {
    constexpr auto most = 800.0;
    if (x > most) return std::numeric_limits<double>::infinity();
    if (x < -most) return 0;
    const auto whole = std::floor(x / std::numbers::ln2 + 0.5);
    const auto rest = x - whole * std::numbers::ln2;
    constexpr auto terms = 16;
    auto sum = 1.0;
    for (auto i = terms; i > 0; --i) sum = 1 + rest / i * sum;
    return std::ldexp(sum, static_cast<int>(whole));
}

double whole_power(double base, double exponent) noexcept {
    auto result = 1.0;
    auto rest = std::fabs(exponent);
    while (rest > 0) {
        if (std::fmod(rest, 2) == 1) result *= base;
        rest = std::floor(rest / 2);
        base *= base;
    }
    return exponent < 0 ? 1 / result : result;
}

}  // namespace

double direction_of(double x, double y) noexcept {
    if (std::isnan(x) || std::isnan(y)) return std::numeric_limits<double>::quiet_NaN();
    constexpr auto degrees = 180 / std::numbers::pi;
    constexpr auto quarter = 90.0;
    const auto across = std::fabs(x);
    const auto down = std::fabs(y);
    if (across == 0 && down == 0) return 0;
    auto angle = across == down  ? quarter / 2
                 : down < across ? arc_tangent(down / across) * degrees
                                 : quarter - arc_tangent(across / down) * degrees;
    if (x < 0) angle = 2 * quarter - angle;
    return y < 0 ? -angle : angle;
}

double power(double base, double exponent) noexcept {
    constexpr auto most_whole = 1e15;
    if (exponent == std::floor(exponent) && std::fabs(exponent) <= most_whole) return whole_power(base, exponent);
    if (!(base >= 0) || std::isnan(exponent)) return std::numeric_limits<double>::quiet_NaN();
    if (2 * exponent == std::floor(2 * exponent) && std::fabs(exponent) <= most_whole) {
        return whole_power(std::sqrt(base), 2 * exponent);
    }
    if (base == 0) return exponent > 0 ? 0 : std::numeric_limits<double>::infinity();
    if (std::isinf(base)) return exponent > 0 ? base : 0;
    return exponential(exponent * logarithm(base));
}

double modulo(double value, double divisor) noexcept {
    // Whole numbers, the usual ones: quickly, and exactly.
    constexpr auto most_exact = 0x1p52;
    if (value >= 0 && value < most_exact && divisor >= 1 && divisor < most_exact) {
        const auto whole = static_cast<std::int64_t>(value);
        const auto by = static_cast<std::int64_t>(divisor);
        if (static_cast<double>(whole) == value && static_cast<double>(by) == divisor)
            return static_cast<double>(whole % by);
    }
    const auto rest = std::fmod(value, divisor);
    return rest != 0 && (rest < 0) != (divisor < 0) ? rest + divisor : rest;
}

}  // namespace coldbrick::inline v0::detail
