#include "paint/one_pixel.hpp"

#include "formats/kernels.hpp"
#include "paint/blending.hpp"

namespace coldbrick::inline v0::detail {

bool lay_on_pixel(const Surface& surface, const Ink& ink, Point at) {
    const auto& kernel = *surface.kernel;
    if (surface.clips || surface.witness != nullptr || kernel.load == nullptr || kernel.store == nullptr) return false;
    Color color;
    if (const auto* const source = std::get_if<Ink::Source>(&ink.of())) {
        color = (*source)->color_of_pixel(at, Box{.at = at, .size = {.width = 1, .height = 1}});
    } else if (const auto* const single = ink.color()) {
        color = *single;
    } else {
        return false;
    }
    if (ink.how() == Laying{} && kernel.put != nullptr && kernel.lay != nullptr) {
        auto* const pixel = pixel_address(surface, at.x, at.y);
        color.alpha == 255 ? kernel.put(pixel, color) : kernel.lay(pixel, color);
        return true;
    }
    Color below;
    kernel.load(surface, at, 1, &below);
    Blender{.how = ink.how(), .has_alpha = kernel.has_alpha, .is_gray = kernel.is_gray}.lay(
        &color, {.each = nullptr, .all = 255}, 1, &below);
    kernel.store(surface, &below, 1, at);
    return true;
}

}  // namespace coldbrick::inline v0::detail
