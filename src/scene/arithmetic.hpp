// Functions of numbers, the same to the last bit on every machine: made of sums, products, quotients and square roots
// alone, which IEEE 754 defines.
#pragma once

#include <random>

namespace coldbrick::inline v0::detail {

// The direction of a vector in degrees, from -180 to 180, clockwise on the screen; 0 of none.
[[nodiscard]] double direction_of(double x, double y) noexcept;

// base to the power of exponent; exact where both are whole and the result can be.
[[nodiscard]] double power(double base, double exponent) noexcept;

// What is left of a division, with the sign of the divisor.
[[nodiscard]] double modulo(double value, double divisor) noexcept;

// The next random number from 0 on, less than 1: the upper 53 bits of the generator's next 64, over 2^53.
[[nodiscard]] inline double next_part(std::mt19937_64& random) noexcept {
    return static_cast<double>(random() >> 11U) * 0x1p-53;
}

}  // namespace coldbrick::inline v0::detail
