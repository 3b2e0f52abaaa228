// Exact integer helpers.
#pragma once

#include <cstdint>

namespace coldbrick::inline v0::detail {

// The quotient rounded towards minus infinity, for denominator > 0.
constexpr std::int64_t floor_div(std::int64_t numerator, std::int64_t denominator) noexcept {
    const auto quotient = numerator / denominator;
    return numerator % denominator < 0 ? quotient - 1 : quotient;
}

// The quotient rounded towards plus infinity, for denominator > 0.
constexpr std::int64_t ceil_div(std::int64_t numerator, std::int64_t denominator) noexcept {
    const auto quotient = numerator / denominator;
    return numerator % denominator > 0 ? quotient + 1 : quotient;
}

// offset + floor((start + n * step) / denominator) for n = 0, 1, 2, ... by additions only, for denominator <= 2^32
// and n < 2^31.
//
// The fraction is kept in units of 2^-64, cut off; the bias of 2^-33 makes up for what the steps can lose, and is
// less than the 2^-32 that separates a fraction below 1 from 1. So the floor is always exact.
class ExactSteps {
  public:
    constexpr ExactSteps() noexcept = default;
    constexpr ExactSteps(std::int64_t offset, std::int64_t start, std::int64_t step, std::int64_t denominator) noexcept
        : value_{floor_div(start, denominator)},
          step_{floor_div(step, denominator)},
          fraction_{fraction(start - value_ * denominator, denominator) + bias},
          fraction_step_{fraction(step - step_ * denominator, denominator)} {
        value_ += offset;
    }

    [[nodiscard]] constexpr std::int64_t value() const noexcept { return value_; }

    constexpr void advance() noexcept {
        fraction_ += fraction_step_;
        value_ += step_ + (fraction_ < fraction_step_ ? 1 : 0);
    }

  private:
    static constexpr std::uint64_t bias = std::uint64_t{1} << 31U;

    // remainder * 2^64 / denominator, in two digits of 32 bits.
    static constexpr std::uint64_t fraction(std::int64_t remainder, std::int64_t denominator) noexcept {
        const auto divisor = static_cast<std::uint64_t>(denominator);
        const auto upper = static_cast<std::uint64_t>(remainder) << 32U;
        const auto lower = (upper % divisor) << 32U;
        return ((upper / divisor) << 32U) + lower / divisor;
    }

    std::int64_t value_ = 0;
    std::int64_t step_ = 0;
    std::uint64_t fraction_ = 0;
    std::uint64_t fraction_step_ = 0;
};

// The largest extent of an edge for which ShortSteps are exact.
inline constexpr std::int64_t short_extent = (1 << 15) - 1;

// The same for n < 2^15, denominator <= 2^16, |offset| < 2^30, |start| and |step| < 2^31, in one number with 32
// binary digits after the point. The bias of 2^-17 makes up for what the steps lose, and is less than the 2^-16 that
// separates a fraction below 1 from 1.
class ShortSteps {
  public:
    constexpr ShortSteps() noexcept = default;
    constexpr ShortSteps(std::int64_t offset, std::int64_t start, std::int64_t step, std::int64_t denominator) noexcept
        : place_{offset * unit + scaled_ratio(start, denominator) + bias}, step_{scaled_ratio(step, denominator)} {}

    [[nodiscard]] constexpr int value() const noexcept { return static_cast<int>(place_ >> 32U); }
    constexpr void advance() noexcept { place_ += step_; }

    // value() of the n-th step is the whole part of (place() + n * step()) / 2^32.
    [[nodiscard]] constexpr std::int64_t place() const noexcept { return place_; }
    [[nodiscard]] constexpr std::int64_t step() const noexcept { return step_; }

  private:
    static constexpr std::int64_t unit = std::int64_t{1} << 32U;
    static constexpr std::int64_t bias = 1 << 15;

    // floor(numerator * 2^32 / denominator). Division of whole numbers takes several times as long as the
    // floating-point one, which is the first guess, off by one at most.
    static constexpr std::int64_t scaled_ratio(std::int64_t numerator, std::int64_t denominator) noexcept {
        const auto scaled = numerator * unit;
        auto quotient = static_cast<std::int64_t>(static_cast<double>(scaled) / static_cast<double>(denominator));
        while (quotient * denominator > scaled) --quotient;
        while ((quotient + 1) * denominator <= scaled) ++quotient;
        return quotient;
    }

    std::int64_t place_ = 0;
    std::int64_t step_ = 0;
};

// The whole number nearest to one that is not negative; halves up.
template <class Whole>
constexpr Whole nearest_whole(double value) noexcept {
    const auto raised = value + 0.5;
    return static_cast<Whole>(raised);
}

}  // namespace coldbrick::inline v0::detail
