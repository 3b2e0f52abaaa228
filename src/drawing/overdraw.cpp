// How often pixels were touched, as a picture.
#include "coldbrick/explain.hpp"
#include "coldbrick/gradient.hpp"

#include <algorithm>
#include <cstring>
#include <vector>

namespace coldbrick::inline v0 {

Bitmap<Rgb8> overdraw_shown(const Explanation& of) {
    const auto size = of.layers.size();
    std::vector<std::uint16_t> layers(of.layers.bytes().size() / 2);
    std::memcpy(layers.data(), of.layers.bytes().data(), of.layers.bytes().size());
    const auto most = layers.empty() ? 0 : *std::max_element(layers.begin(), layers.end());
    Bitmap<Rgb8> shown{size};
    Bitmap<Rgb8> ramp{{.width = 256, .height = 1}};
    fill(ramp, ramp.box(),
         LinearGradient{.from = {.x = 0, .y = 0},
                        .to = {.x = 255, .y = 0},
                        .stops = {{0, 0x1f4e9c_rgb}, {0.34, 0x2f9e6e_rgb}, {0.67, 0xf2d13c_rgb}, {1, 0xd7263d_rgb}}});
    auto* to = shown.pixels().row(0);
    for (const auto count : layers) {
        const auto place = most > 1 ? std::int64_t{count - 1} * 255 / (most - 1) : 0;
        if (count != 0) std::memcpy(to, ramp.bytes().data() + 3 * place, 3);
        to += 3;
    }
    return shown;
}

}  // namespace coldbrick::inline v0
