// Sectors.
#include "shapes/swept_rows.hpp"

namespace coldbrick::inline v0::detail {

namespace {

// The rows of a sector: of the ellipse, what lies in the wedge, and the centre pixel.
class SectorRows {
  public:
    SectorRows(const Sector& shape, const Box& clip)
        : fill_{whole_of(shape.of), 0, clip},
          form_{ellipse_form(shape.of)},
          wedge_{form_.origin(), form_.center(), Turn{shape.sweep}} {
        const auto& [at, size] = shape.of.box();
        center_ = {.x = at.x + (size.width - 1) / 2, .y = at.y + (size.height - 1) / 2};
    }

    [[nodiscard]] int top() const noexcept { return fill_.rows().top(); }
    [[nodiscard]] int bottom() const noexcept { return fill_.rows().bottom(); }
    [[nodiscard]] Runs runs(int y) const noexcept {
        Runs cut;
        wedge_.row(y).cut(fill_.rows().run(y), [&](int left, int right) { cut.add({.left = left, .right = right}); });
        return y == center_.y ? cut | Runs{{.left = center_.x, .right = center_.x + 1}} : cut;
    }

  private:
    EllipseTable fill_;
    EllipseGeometry form_;
    Wedge wedge_;
    Point center_;
};

}  // namespace

template <class Number>
Geometry geometry_of(const BasicSector<Number>& shape, const Tolerance&) {
    check_sweep("sector", shape.sweep);
    return SectorGeometry{.of = ellipse_form(shape.of), .sweep = shape.sweep};
}
template Geometry geometry_of(const BasicSector<int>&, const Tolerance&);
template Geometry geometry_of(const BasicSector<double>&, const Tolerance&);

Box scan_fill(const Sector& shape, const Box& clip, const SpanSink& sink) {
    check_sweep("sector", shape.sweep);
    return scan_runs(SectorRows{shape, clip}, clip, sink);
}

Box scan_stroke(const Sector& shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    check_sweep("sector", shape.sweep);
    check_stroke(how);
    if (Turn{shape.sweep}.is_whole) return scan_stroke(shape.of, how, clip, sink);
    return scan_stroke_by_rows<SectorRows>(shape, how, clip, sink);
}

}  // namespace coldbrick::inline v0::detail
