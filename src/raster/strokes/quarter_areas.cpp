#include "raster/strokes/quarter_areas.hpp"

namespace coldbrick::inline v0::detail {

namespace {

// On one axis: how far a curve is from its centre on the other axis.
struct AcrossFrom {
    double center;
    double scale;  // to the unit circle
    double half_axis;

    [[nodiscard]] double operator()(double place) const noexcept {
        const auto along = std::clamp((center - place) * scale, 0.0, 1.0);
        return half_axis * std::sqrt((1 - along) * (1 + along));
    }
};

}  // namespace

QuarterAreas::QuarterAreas(const QuarterEdge& edge, const Size& box, int first, int end, double* room) noexcept
    : center_{edge.center},
      axes_{edge.half_axes},
      scale_{axes_.x > 0 ? 1 / axes_.x : 0, axes_.y > 0 ? 1 / axes_.y : 0},
      middle_{box.width / 2.0, box.height / 2.0},
      left_{center_.x - axes_.x},
      top_{center_.y - axes_.y},
      first_{first},
      columns_{(box.width + 1) / 2},
      heights_{room},
      across_{room + columns_ + 1} {
    const auto up = AcrossFrom{.center = center_.x, .scale = scale_.x, .half_axis = axes_.y};
    for (int i = 0; i <= columns_; ++i) {
        heights_[i] = center_.y - up(std::clamp(double{1} * i, left_, middle_.x));
    }
    const auto aside = AcrossFrom{.center = center_.y, .scale = scale_.y, .half_axis = axes_.x};
    for (int i = 0; i <= end - first; ++i) {
        across_[i] = center_.x - aside(std::min(double{1} * first + i, middle_.y));
    }
}

}  // namespace coldbrick::inline v0::detail
