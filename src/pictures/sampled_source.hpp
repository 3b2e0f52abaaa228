// A picture under a transform as the colours of an ink.
#pragma once

#include "pictures/picture_sources.hpp"

#include "coldbrick/transform.hpp"

#include <optional>

namespace coldbrick::inline v0::detail {

// The colours of a surface, which lies somewhere on the target and is transformed with it: each pixel from where its
// centre comes from, by the transform that takes it back, mixed of the four nearest ones by distance and alpha.
class SampledSource final : public InkSource {
  public:
    SampledSource(const Surface& from, Point at, const std::optional<Color>& without, const Transform& back)
        : from_{from}, at_{at}, without_{without}, back_{back} {}

    void fetch(Point from, int count, const Box& shape, Color* colors) const override;
    void fetch(Point from, int count, const Box& shape, Color16* colors) const override;
    [[nodiscard]] bool is_opaque() const noexcept override { return !without_ && has_opaque_pixels(from_); }
    [[nodiscard]] bool is_placed_in_shape() const noexcept override { return false; }

  private:
    template <class Words>
    void sample(Point from, int count, const Words& words, Color* colors) const;
    template <class Words>
    void sample_with(Point from, int count, const Words& words, Color* colors) const;
    // Says whether the picture's format is one whose pixels fit in words.
    bool sample_words(Point from, int count, Color* colors) const;
    // Of a pixel of the picture, counted from its first one; and so far to the right of its centre and below.
    [[nodiscard]] Color16 color_at(Point at) const;
    [[nodiscard]] Color16 mixed(const Point& upper_left, double right, double lower) const;

    Surface from_;
    Point at_;
    std::optional<Color> without_;
    Transform back_;
};

}  // namespace coldbrick::inline v0::detail
