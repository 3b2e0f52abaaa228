// Pictures as the colours of an ink.
#pragma once

#include "formats/kernels.hpp"

#include "coldbrick/ink.hpp"
#include "coldbrick/pixels.hpp"

namespace coldbrick::inline v0::detail {

// Whether none of its pixels can be translucent.
[[nodiscard]] bool has_opaque_pixels(const Surface& picture) noexcept;

// The colours of a surface, which lies somewhere on the target.
class SurfaceSource final : public InkSource {
  public:
    SurfaceSource(const Surface& from, Point at) : from_{from}, at_{at} {}

    void fetch(Point from, int count, const Box&, Color* colors) const override {
        read_colors(from_, place_of(from), count, colors);
    }
    void fetch(Point from, int count, const Box&, Color16* colors) const override {
        read_colors(from_, place_of(from), count, colors);
    }
    [[nodiscard]] bool is_opaque() const noexcept override { return has_opaque_pixels(from_); }
    [[nodiscard]] bool is_placed_in_shape() const noexcept override { return false; }

  private:
    [[nodiscard]] Point place_of(Point on_target) const noexcept { return from_.window.at + (on_target - at_); }

    Surface from_;
    Point at_;
};

}  // namespace coldbrick::inline v0::detail
