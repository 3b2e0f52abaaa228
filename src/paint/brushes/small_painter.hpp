// Small shapes in one colour.
#pragma once

#include "formats/kernels.hpp"

#include "coldbrick/detail/area_ref.hpp"
#include "coldbrick/pixels.hpp"

namespace coldbrick::inline v0::detail {

// Lays a colour source-over on areas whose rows are known at once. Setting up a painter and a scan takes twice as long
// as the pixels of such a shape.
class SmallPainter {
  public:
    SmallPainter(const Surface& surface, Color color) noexcept;

    // The box that was touched: empty for other areas, on formats without whole bytes, and where there are clips or an
    // observer.
    [[nodiscard]] Box paint(const AreaRef& area) const;

  private:
    const Surface& surface_;
    Color color_;
    bool is_served_;
    Pixel pixel_{};  // of an opaque one
};

}  // namespace coldbrick::inline v0::detail
