#include "paint/one_pixel.hpp"

#include "formats/kernels.hpp"
#include "paint/blending.hpp"

namespace coldbrick::inline v0::detail {

namespace {

constexpr Box one_pixel_at(Point at) noexcept { return {.at = at, .size = {.width = 1, .height = 1}}; }

// Blended with what is below; of a source or one colour of 8 bits.
bool blend_on_pixel(const Surface& surface, const Ink& ink, Point at) {
    const auto& kernel = *surface.kernel;
    Color color;
    if (const auto* const source = std::get_if<Ink::Source>(&ink.of())) {
        color = (*source)->color_of_pixel(at, one_pixel_at(at));
    } else if (const auto* const single = ink.color()) {
        color = *single;
    } else {
        return false;
    }
    Color below;
    kernel.load(surface, at, 1, &below);
    Blender{.how = ink.how(), .has_alpha = kernel.has_alpha, .is_gray = kernel.is_gray}.lay(color, below);
    kernel.store(surface, &below, 1, at);
    return true;
}

}  // namespace

bool lay_on_pixel(const Surface& surface, const Ink& ink, Point at) {
    const auto& kernel = *surface.kernel;
    if (surface.clips || surface.observer != nullptr || kernel.load == nullptr || kernel.store == nullptr) return false;
    const auto* const source = std::get_if<Ink::Source>(&ink.of());
    if (source == nullptr || !ink.is_usual() || kernel.put == nullptr || kernel.lay == nullptr) {
        return blend_on_pixel(surface, ink, at);
    }
    const auto color = (*source)->color_of_pixel(at, one_pixel_at(at));
    auto* const pixel = pixel_address(surface, at.x, at.y);
    color.alpha == 255 ? kernel.put(pixel, color) : kernel.lay(pixel, color);
    return true;
}

}  // namespace coldbrick::inline v0::detail
