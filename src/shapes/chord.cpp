// Chords.
#include "shapes/swept_rows.hpp"

namespace coldbrick::inline v0::detail {

namespace {

// The rows of a chord: of the ellipse, what lies on the arc's side of the line between its ends.
class ChordRows {
  public:
    ChordRows(const Chord& shape, const Box& clip)
        : fill_{whole_of(shape.of), 0, clip}, form_{ellipse_form(shape.of)}, is_whole_{Turn{shape.sweep}.is_whole} {
        const Turn turn{shape.sweep};
        const auto begin = form_.rim(turn.begin());
        const auto side = left_of(form_.rim(turn.end()) - begin);
        line_ = HalfPlane{form_.origin(), begin - unit(side == Vec{} ? Vec{1, 0} : side) * fixed_slack, side};
        is_nothing_ = side == Vec{} && !is_whole_;
    }

    [[nodiscard]] int top() const noexcept { return fill_.rows().top(); }
    [[nodiscard]] int bottom() const noexcept { return fill_.rows().bottom(); }
    [[nodiscard]] Runs runs(int y) const noexcept {
        const auto fill = Runs{fill_.rows().run(y)};
        if (is_whole_) return fill;
        return is_nothing_ ? Runs{} : fill & Runs{line_.run(y)};
    }

  private:
    EllipseTable fill_;
    EllipseGeometry form_;
    bool is_whole_;
    bool is_nothing_ = false;
    HalfPlane line_{{}, {}, {}};
};

}  // namespace

template <class Number>
Geometry geometry_of(const BasicChord<Number>& shape, const Tolerance&) {
    check_sweep("chord", shape.sweep);
    return ChordGeometry{.of = ellipse_form(shape.of), .sweep = shape.sweep};
}
template Geometry geometry_of(const BasicChord<int>&, const Tolerance&);
template Geometry geometry_of(const BasicChord<double>&, const Tolerance&);

Box scan_fill(const Chord& shape, const Box& clip, const SpanSink& sink) {
    check_sweep("chord", shape.sweep);
    return scan_runs(ChordRows{shape, clip}, clip, sink);
}

Box scan_stroke(const Chord& shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    check_sweep("chord", shape.sweep);
    check_stroke(how);
    if (Turn{shape.sweep}.is_whole) return scan_stroke(shape.of, how, clip, sink);
    return scan_stroke_by_rows<ChordRows>(shape, how, clip, sink);
}

}  // namespace coldbrick::inline v0::detail
