// Roots, the same to the last bit everywhere: by basic operations, which IEEE 754 defines exactly.
#pragma once

namespace coldbrick::inline v0::detail {

// The root of a number from 1/16 to 1, for degrees from 2 to 5, but for some of its last bits: by Newton's method from
// a line below the curve.
template <int degree>
constexpr double root_of(double value) noexcept {
    static_assert(degree >= 2 && degree <= 5);
    constexpr auto at_least = 0.575;  // near the fifth root of 1/16, the flattest
    auto root = at_least + (1 - at_least) * value;
    // The error is squared each time, from 0.1 on.
    for (int i = 0; i < 7; ++i) {
        auto power = root;
        for (int k = 2; k < degree; ++k) power *= root;
        root = ((degree - 1) * root + value / power) / degree;
    }
    return root;
}

}  // namespace coldbrick::inline v0::detail
