// Pictures as the colours of an ink.
#pragma once

#include "formats/kernels.hpp"

#include "coldbrick/ink.hpp"
#include "coldbrick/pixels.hpp"
#include "coldbrick/transform.hpp"

#include <optional>

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

// The same under a transform: each pixel from where its centre comes from, by the one that takes it back.
class SampledSource final : public InkSource {
  public:
    SampledSource(const Surface& from, Point at, const std::optional<Color>& without, const Transform& back)
        : from_{from}, at_{at}, without_{without}, back_{back} {}

    void fetch(Point from, int count, const Box& shape, Color* colors) const override;
    void fetch(Point from, int count, const Box& shape, Color16* colors) const override;
    [[nodiscard]] bool is_opaque() const noexcept override { return !without_ && has_opaque_pixels(from_); }
    [[nodiscard]] bool is_placed_in_shape() const noexcept override { return false; }

  private:
    template <class Texel, class Read>
    void sample(Point from, int count, Texel* colors, const Read& read_pixel) const;
    // Of a pixel of the picture, counted from its first one.
    [[nodiscard]] Color16 color_at(Point at) const;

    Surface from_;
    Point at_;
    std::optional<Color> without_;
    Transform back_;
};

}  // namespace coldbrick::inline v0::detail
