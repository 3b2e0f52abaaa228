// The simplest calls: a box or a small circle in one colour, all of it inside the surface. They take a fast path of
// their own, as on the usual one a small shape's call takes longer than its pixels.
#pragma once

#include "formats/kernels.hpp"

#include "coldbrick/detail/area_ref.hpp"
#include "coldbrick/pixels.hpp"

#include <optional>

namespace coldbrick::inline v0::detail {

// Sets a pixel of the window, or lays a translucent colour on it, of a format that knows how.
inline void put_fast(const Target& target, Color color, Point at) noexcept {
    auto* const pixel = pixel_address(target, at.x, at.y);
    color.alpha == 255 ? target.kernel->put(pixel, color) : target.kernel->lay(pixel, color);
}

// Lays a colour source-over on the area, and gives the box that was touched: the same pixels as the general path.
// Nothing where that has to be taken.
std::optional<Box> paint_fast(const Surface& surface, Color color, const AreaRef& area);

// Whether that is so of a shape of this kind, filled as the area is, that is small and lies in the surface.
bool can_paint_fast(const Surface& surface, Color color, const AreaRef& area) noexcept;

// Does so with one shape of a kind after the other, filled with crisp edges.
class FastList {
  public:
    FastList(const Surface& surface, Color color) noexcept;

    [[nodiscard]] std::optional<Box> paint(const Box& box) const;
    [[nodiscard]] std::optional<Box> paint(const Circle& circle) const;

  private:
    const Surface& surface_;
    Color color_;
    std::uint32_t word_;
};

}  // namespace coldbrick::inline v0::detail
