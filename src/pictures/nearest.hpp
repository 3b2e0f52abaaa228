// Pictures in another size, without mixing.
#pragma once

#include "coldbrick/pixels.hpp"

#include <cstdint>

namespace coldbrick::inline v0::detail {

// The pixel under the centre of one of `in` pixels, of `of`.
[[nodiscard]] constexpr int place_under(int i, int of, int in) noexcept {
    return static_cast<int>((2 * std::int64_t{i} + 1) * of / (2 * std::int64_t{in}));
}

// Each pixel becomes the one under its centre; of two as near, the one to the right or below.
void resize_nearest(const Surface& from, const Surface& to);

}  // namespace coldbrick::inline v0::detail
