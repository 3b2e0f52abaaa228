// Single pixels, which are not worth a painter: the ink's colour is fetched and laid at once.
#include "paint/brushes/mark.hpp"

#include "formats/kernels.hpp"
#include "geometry/limits.hpp"
#include "paint/blending/blending.hpp"
#include "paint/blending/transfer_curves.hpp"
#include "paint/brushes/painter.hpp"
#include "paint/surfaces/observer.hpp"

#include "coldbrick/draw.hpp"

namespace coldbrick::inline v0::detail {

namespace {

constexpr Box pixel_box(Point at) noexcept { return {.at = at, .size = one_pixel}; }

// Blended with what is below; of a source or one colour of 8 bits.
bool blend_on_pixel(const Surface& surface, const Ink& ink, Point at) {
    const auto& kernel = *surface.kernel;
    Color color;
    if (const auto* const source = std::get_if<Ink::Source>(&ink.of())) {
        color = (*source)->color_of_pixel(at, pixel_box(at));
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

// A brush of one pixel, or of one colour whose curves are known, on a pixel of the window. Returns whether it is one,
// and could be laid.
bool lay_on_pixel(const Surface& surface, const Brush& brush, Point at) noexcept {
    auto* const bytes = pixel_address(surface, at.x, at.y);
    const auto pixel_bytes = static_cast<std::size_t>(surface.kernel->pixel_bytes());
    if (brush.runs == Brush::Runs::pixel) {
        if (pixel_bytes == 0) {
            write_bits(surface, {.y = at.y, .x = at.x, .length = 1}, brush.pixel[0] != 0);
        } else {
            for (std::size_t i = 0; i < pixel_bytes; ++i) bytes[i] = brush.pixel[i];
        }
        return true;
    }
    if (brush.curves == nullptr || (pixel_bytes == 4 && bytes[alpha_place] != 255)) return false;
    (*brush.curves)(bytes, pixel_bytes);
    return true;
}

}  // namespace

bool lay_on_pixel(const Surface& surface, const Ink& ink, Point at) {
    const auto& kernel = *surface.kernel;
    if (surface.clips || surface.observer != nullptr || !contains(surface.window, at)) return false;
    if (const auto* const color = ink.plain_color(); color != nullptr && kernel.put != nullptr) {
        put_color(surface, *color, at);
        return true;
    }
    if (kernel.load == nullptr || kernel.store == nullptr) return false;
    const auto* const source = std::get_if<Ink::Source>(&ink.of());
    if (source == nullptr || !ink.is_usual() || kernel.put == nullptr || kernel.lay == nullptr) {
        return blend_on_pixel(surface, ink, at);
    }
    put_color(surface, (*source)->color_of_pixel(at, pixel_box(at)), at);
    return true;
}

Box mark(const Surface& surface, Point at, const Brush& brush) {
    check_point("mark", "at", at);
    const auto box = pixel_box(at);
    if (!surface.clips && surface.observer == nullptr) {
        if (!contains(surface.window, at)) return {};
        if (lay_on_pixel(surface, brush, at)) return box;
    }
    return paint(surface, brush, area_ref(box));
}

Box mark(const Surface& surface, Point at, const Ink& ink) {
    if (lay_on_pixel(surface, ink, at)) return pixel_box(at);
    return mark(surface, at, brush_for(surface, ink));
}

}  // namespace coldbrick::inline v0::detail
