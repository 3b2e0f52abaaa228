#include "formats/linear_light.hpp"

#include "geometry/integers.hpp"
#include "geometry/powers.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace coldbrick::inline v0::detail {

namespace {

// IEC 61966-2-1. The power of 2.4.
double decoded(double value) noexcept {
    if (value <= 0.04045) return value / 12.92;
    const auto base = (value + 0.055) / 1.055;
    const auto fifth = root_of<5>(base);
    return base * base * fifth * fifth;
}

// The power of 1 / 2.4.
double encoded(double light) noexcept {
    if (light <= 0.0031308) return light * 12.92;
    const auto twelfth = root_of<3>(std::sqrt(std::sqrt(light)));
    const auto square = twelfth * twelfth;
    return 1.055 * (square * square * twelfth) - 0.055;
}

template <class Channel>
Channel nearest(double light, double most) noexcept {
    return nearest_whole<Channel>(encoded(std::clamp(light, 0.0, 1.0)) * most);
}

}  // namespace

double light_of(std::uint8_t channel) noexcept {
    static const auto table = [] {
        std::array<double, 256> lights{};
        for (std::size_t i = 0; i < lights.size(); ++i) lights[i] = decoded(static_cast<double>(i) / 255);
        return lights;
    }();
    return table[channel];
}

double light_of(std::uint16_t channel) noexcept { return decoded(channel / 65535.0); }

void from_light(double light, std::uint8_t& channel) noexcept { channel = nearest<std::uint8_t>(light, 255); }
void from_light(double light, std::uint16_t& channel) noexcept { channel = nearest<std::uint16_t>(light, 65535); }

}  // namespace coldbrick::inline v0::detail
