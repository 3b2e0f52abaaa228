#include "formats/linear_light.hpp"

#include "geometry/integers.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace coldbrick::detail {

namespace {

double decoded(double value) noexcept {
    return value <= 0.04045 ? value / 12.92 : std::pow((value + 0.055) / 1.055, 2.4);
}

double encoded(double light) noexcept {
    return light <= 0.0031308 ? light * 12.92 : 1.055 * std::pow(light, 1 / 2.4) - 0.055;
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

}  // namespace coldbrick::detail
