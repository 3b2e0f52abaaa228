// Whole numbers of 128 bits, where products of two of 64 bits have to be exact.
#pragma once

#include <compare>
#include <concepts>
#include <cstdint>

namespace coldbrick::inline v0::detail {

#ifdef __SIZEOF_INT128__

__extension__ using Uint128 = unsigned __int128;

#else

// For compilers that have none of their own.
class Uint128 {
  public:
    constexpr Uint128() noexcept = default;
    // Of a number that is not negative.
    template <std::integral Number>
    constexpr Uint128(Number value) noexcept : low_{static_cast<std::uint64_t>(value)} {}
    explicit constexpr Uint128(double value) noexcept : low_{static_cast<std::uint64_t>(value)} {}

    template <std::integral Number>
    explicit constexpr operator Number() const noexcept {
        return static_cast<Number>(low_);
    }
    explicit constexpr operator double() const noexcept {
        return static_cast<double>(high_) * 0x1p64 + static_cast<double>(low_);
    }

    friend constexpr Uint128 operator+(Uint128 a, Uint128 b) noexcept {
        const auto low = a.low_ + b.low_;
        return {a.high_ + b.high_ + (low < a.low_ ? 1U : 0U), low};
    }
    friend constexpr Uint128 operator-(Uint128 a, Uint128 b) noexcept {
        return {a.high_ - b.high_ - (a.low_ < b.low_ ? 1U : 0U), a.low_ - b.low_};
    }
    friend constexpr Uint128 operator*(Uint128 a, Uint128 b) noexcept {
        auto product = product_of(a.low_, b.low_);
        product.high_ += a.high_ * b.low_ + a.low_ * b.high_;
        return product;
    }
    friend constexpr Uint128 operator/(Uint128 a, Uint128 b) noexcept;
    friend constexpr Uint128 operator%(Uint128 a, Uint128 b) noexcept;
    friend constexpr bool operator==(const Uint128&, const Uint128&) noexcept = default;
    friend constexpr std::strong_ordering operator<=>(const Uint128&, const Uint128&) noexcept = default;

  private:
    struct Division;

    constexpr Uint128(std::uint64_t high, std::uint64_t low) noexcept : high_{high}, low_{low} {}

    // In digits of 32 bits.
    static constexpr Uint128 product_of(std::uint64_t a, std::uint64_t b) noexcept {
        constexpr auto digit = std::uint64_t{0xffffffff};
        const auto low = (a & digit) * (b & digit);
        const auto mixed = (a >> 32U) * (b & digit) + (low >> 32U);
        const auto other = (a & digit) * (b >> 32U) + (mixed & digit);
        return {(a >> 32U) * (b >> 32U) + (mixed >> 32U) + (other >> 32U), (other << 32U) | (low & digit)};
    }

    // Digit by binary digit.
    static constexpr Division divided(Uint128 a, Uint128 b) noexcept;

    std::uint64_t high_ = 0;
    std::uint64_t low_ = 0;
};

struct Uint128::Division {
    Uint128 quotient;
    Uint128 rest;
};

constexpr Uint128::Division Uint128::divided(Uint128 a, Uint128 b) noexcept {
    if (a.high_ == 0 && b.high_ == 0) return {a.low_ / b.low_, a.low_ % b.low_};
    Division result{};
    for (auto bit = 128U; bit-- > 0;) {
        const auto digit = (bit >= 64 ? a.high_ >> (bit - 64) : a.low_ >> bit) & 1U;
        result.rest = result.rest + result.rest + Uint128{digit};
        if (result.rest < b) continue;
        result.rest = result.rest - b;
        (bit >= 64 ? result.quotient.high_ : result.quotient.low_) |= std::uint64_t{1} << (bit % 64);
    }
    return result;
}

constexpr Uint128 operator/(Uint128 a, Uint128 b) noexcept { return Uint128::divided(a, b).quotient; }
constexpr Uint128 operator%(Uint128 a, Uint128 b) noexcept { return Uint128::divided(a, b).rest; }

#endif

}  // namespace coldbrick::inline v0::detail
