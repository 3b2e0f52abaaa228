// Rings.
#include "shapes/swept_rows.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <optional>

namespace coldbrick::inline v0::detail {

namespace {

void check_inner(const Ring& shape) {
    if (shape.inner_radius < 0 || shape.inner_radius > shape.radius) {
        refuse("ring", "inner_radius", shape.inner_radius, 0, shape.radius);
    }
}

void check_inner(const subpixel::Ring& shape) {
    const auto inner = shape.inner_radius;
    if (inner >= 0 && inner <= shape.radius) return;
    throw Error{"ring: inner_radius is " + in_digits(inner) + "; allowed is 0 to the radius, " +
                in_digits(shape.radius)};
}

template <class Number>
RingGeometry ring_form(const BasicRing<Number>& shape) {
    const auto center = checked_place("ring", "center", shape.center);
    const auto radius = checked_length("ring", "radius", shape.radius);
    check_inner(shape);
    if (shape.sweep) check_sweep("ring", *shape.sweep);
    const auto inner = checked_length("ring", "inner_radius", shape.inner_radius);
    const auto origin = origin_at(center);
    const auto reach = radius + 0.5;
    // Half a pixel of the inner outline, too.
    return {.of = {origin, from_origin(center, origin), {reach, reach}, Angle{}},
            .thickness = inner > 0 ? radius - inner + 1 : reach,
            .sweep = shape.sweep};
}

// The rows of a ring: of the disc, what does not lie in the hole, cut by the wedge.
class RingRows {
  public:
    RingRows(const Ring& shape, const Box& clip)
        : disc_{{.box = around(shape.center, shape.radius)}, 0, clip},
          hole_{{.box = around(shape.center, std::max(shape.inner_radius - 1, 0))}, 0, clip},
          has_hole_{shape.inner_radius > 0},
          form_{ring_form(shape)} {
        if (shape.sweep) wedge_.emplace(form_.of.origin(), form_.of.center(), Turn{*shape.sweep});
        if (shape.inner_radius == 0) center_ = shape.center;
    }

    [[nodiscard]] int top() const noexcept { return disc_.rows().top(); }
    [[nodiscard]] int bottom() const noexcept { return disc_.rows().bottom(); }
    [[nodiscard]] Runs runs(int y) const noexcept {
        auto whole = Runs{disc_.rows().run(y)};
        if (has_hole_) whole = whole - Runs{hole_.rows().run(y)};
        if (!wedge_) return whole;
        Runs cut;
        for (const auto& run : whole) {
            wedge_->row(y).cut(run, [&](int left, int right) { cut.add({.left = left, .right = right}); });
        }
        // Without a hole it is a sector, to which its centre belongs.
        return center_ && y == center_->y ? cut | Runs{{.left = center_->x, .right = center_->x + 1}} : cut;
    }

  private:
    static Box around(Point center, int radius) noexcept {
        return {.at = {.x = center.x - radius, .y = center.y - radius}, .size = {2 * radius + 1, 2 * radius + 1}};
    }

    EllipseTable disc_;
    EllipseTable hole_;
    bool has_hole_;
    RingGeometry form_;
    std::optional<Wedge> wedge_;
    std::optional<Point> center_;
};

}  // namespace

template <class Number>
Geometry geometry_of(const BasicRing<Number>& shape, const Tolerance&) {
    return ring_form(shape);
}
template Geometry geometry_of(const BasicRing<int>&, const Tolerance&);
template Geometry geometry_of(const BasicRing<double>&, const Tolerance&);

Box scan_fill(const Ring& shape, const Box& clip, const SpanSink& sink) {
    (void)ring_form(shape);
    return scan_runs(RingRows{shape, clip}, clip, sink);
}

Box scan_stroke(const Ring& shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    (void)ring_form(shape);
    check_stroke(how);
    return scan_stroke_by_rows<RingRows>(shape, how, clip, sink);
}

}  // namespace coldbrick::inline v0::detail
