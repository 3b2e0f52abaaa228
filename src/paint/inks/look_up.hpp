// Colours out of a table.
#pragma once

#include <array>
#include <cstddef>
#include <cstdint>

namespace coldbrick::inline v0::detail {

// The colours at so many places of a ramp.
template <class Texel>
void look_up(const Texel* ramp, const std::int32_t* places, int count, Texel* colors) noexcept {
    int i = 0;
    for (; i + 4 <= count; i += 4) {
        // All four are found before one is written, which might change the places for all that the compiler knows.
        const auto [a, b, c, d] = std::array{places[i], places[i + 1], places[i + 2], places[i + 3]};
        colors[i] = ramp[a];
        colors[i + 1] = ramp[b];
        colors[i + 2] = ramp[c];
        colors[i + 3] = ramp[d];
    }
    for (; i < count; ++i) colors[i] = ramp[places[i]];
}

// The same of places that lie a step apart, in parts of places: index(place) returns where on the ramp.
template <class Texel, class Index>
void look_up_along(const Texel* ramp, std::int64_t place, std::int64_t step, int count, Texel* colors,
                   const Index& index) noexcept {
    int i = 0;
    for (; i + 4 <= count; i += 4, place += 4 * step) {
        const auto a = ramp[index(place)];
        const auto b = ramp[index(place + step)];
        const auto c = ramp[index(place + 2 * step)];
        const auto d = ramp[index(place + 3 * step)];
        colors[i] = a;
        colors[i + 1] = b;
        colors[i + 2] = c;
        colors[i + 3] = d;
    }
    for (; i < count; ++i, place += step) colors[i] = ramp[index(place)];
}

}  // namespace coldbrick::inline v0::detail
