#include "geometry/trigonometry.hpp"

#include <cmath>

namespace coldbrick::inline v0::detail {

namespace {

// The sine's and cosine's series up to 45 degrees; what they leave out is below the last bit.
double sine(double x) noexcept {
    const auto square = x * x;
    auto sum = 1.0;
    for (auto n = 18; n >= 2; n -= 2) sum = 1 - sum * square / (n * (n + 1));
    return x * sum;
}

double cosine(double x) noexcept {
    const auto square = x * x;
    auto sum = 1.0;
    for (auto n = 17; n >= 1; n -= 2) sum = 1 - sum * square / (n * (n + 1));
    return sum;
}

Vec direction_up_to_45(double degrees) noexcept {
    const auto size = std::fabs(degrees);
    if (size == 45) return {std::sqrt(0.5), std::copysign(std::sqrt(0.5), degrees)};
    if (size == 30) return {std::sqrt(0.75), std::copysign(0.5, degrees)};
    const auto radians = degrees * (std::numbers::pi / 180);
    return {cosine(radians), sine(radians)};
}

// The arc tangent's series, for at most tan(pi / 16).
double arc_tangent(double x) noexcept {
    const auto square = x * x;
    auto sum = 0.0;
    for (auto n = 23; n >= 1; n -= 2) sum = 1.0 / n - sum * square;
    return x * sum;
}

// Of a part of a turn up to 45 degrees, given by its tangent: what lies beyond multiples of an eighth of 90 degrees.
double degrees_up_to_45(double tangent) noexcept {
    constexpr auto step = 11.25;
    constexpr Vec multiples[] = {{1, 0},
                                 {0x1.f6297cff75cbp-1, 0x1.8f8b83c69a60ap-3},
                                 {0x1.d906bcf328d46p-1, 0x1.87de2a6aea963p-2},
                                 {0x1.a9b66290ea1a3p-1, 0x1.1c73b39ae68c8p-1},
                                 {0x1.6a09e667f3bcdp-1, 0x1.6a09e667f3bcdp-1}};
    const auto steps = static_cast<int>(tangent * 3.9 + 0.5);  // the nearest multiple, or its neighbour
    const auto [c, s] = multiples[steps];
    const auto rest = (tangent * c - s) / (c + tangent * s);
    return step * steps + arc_tangent(rest) * (180 / std::numbers::pi);
}

}  // namespace

Angle angle_of(Vec vector) noexcept {
    const auto x = std::fabs(vector.x);
    const auto y = std::fabs(vector.y);
    if (!(x + y > 0)) return Angle{};
    auto degrees = x >= y ? degrees_up_to_45(y / x) : 90 - degrees_up_to_45(x / y);
    if (vector.x < 0) degrees = 180 - degrees;
    return Angle::degrees(vector.y < 0 ? -degrees : degrees);
}

Vec direction_of(Angle angle) noexcept {
    // No direction: a shape made of it is refused as not a number where it is drawn.
    if (!std::isfinite(angle.in_degrees())) return {angle.in_degrees(), angle.in_degrees()};
    if (angle == Angle{}) return {1, 0};
    const auto degrees = std::fmod(angle.in_degrees(), 360);
    const auto quarters = std::floor((degrees + 45) / 90);
    const auto [x, y] = direction_up_to_45(degrees - 90 * quarters);
    switch (static_cast<int>(quarters) & 3) {
        case 0:
            return {x, y};
        case 1:
            return {-y, x};
        case 2:
            return {-x, -y};
        default:
            return {y, -x};
    }
}

}  // namespace coldbrick::inline v0::detail
