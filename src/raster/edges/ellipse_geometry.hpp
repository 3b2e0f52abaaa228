// An ellipse as a curve, turned or not: the places on it, and the parallel curves beside it.
#pragma once

#include "raster/edges/contours.hpp"
#include "raster/edges/half_plane.hpp"
#include "raster/edges/subpath.hpp"
#include "raster/rows/ellipse_rows.hpp"

#include <algorithm>
#include <cmath>

namespace coldbrick::inline v0::detail {

// From places on the unit circle to those on an ellipse.
struct RoundPlaces {
    Vec center;
    Vec half_axes;
    Vec direction = {1, 0};  // of the first axis

    [[nodiscard]] Vec operator()(Vec on_circle) const noexcept {
        return center + turned({on_circle.x * half_axes.x, on_circle.y * half_axes.y}, direction);
    }
    // The direction of the ellipse there, clockwise.
    [[nodiscard]] Vec along(Vec on_circle) const noexcept {
        const auto ahead = -left_of(on_circle);
        return unit(turned({ahead.x * half_axes.x, ahead.y * half_axes.y}, direction));
    }
    [[nodiscard]] double length_of(Vec from, Vec to) const {
        return curve_length(from, to, *this, [](Vec a, Vec b) { return unit(a + b); });
    }
};

// How many chords an arc from one place on the unit circle to another needs, as the ellipse takes it, if it is evenly
// bent, so that they may be even, and they are some dozens at most; else 0.
inline int even_chords(Vec from, Vec to, const RoundPlaces& place, double flatness) noexcept {
    constexpr auto most = 64;
    // How far the middle is from the chord.
    const auto height = [&](Vec begin, Vec end) {
        const auto chord = place(end) - place(begin);
        return std::fabs(cross(place(unit(begin + end)) - place(begin), chord)) / length(chord);
    };
    const auto middle = unit(from + to);
    const auto whole = height(from, to);
    const auto first = height(from, middle);
    const auto second = height(middle, to);
    // It grows with the square of the chord: of a quarter of a circle, the halves' is 0.26 of it.
    if (!(std::min(first, second) >= whole * 0.235 && std::max(first, second) <= whole * 0.265)) return 0;
    const auto wanted = 2 * std::sqrt(1.06 * std::max(first, second) / flatness);
    return wanted <= most ? static_cast<int>(std::ceil(wanted)) : 0;
}

// Adds the chords of an arc from one place on the unit circle to another, clockwise by at most a quarter turn, as the
// ellipse takes it; all but its end.
inline void add_chords(Vec from, Vec to, const RoundPlaces& place, const Tolerance& tolerance, Subpath& subpath,
                       int depth = 0) {
    const auto begin = place(from);
    const auto end = place(to);
    const auto chord = end - begin;
    const auto middle = unit(from + to);
    constexpr auto deepest = 40;
    const auto flatness =
        resolved_flatness(tolerance.flatness, length(place.center) + place.half_axes.x + place.half_axes.y);
    const auto is_flat = !(std::fabs(cross(place(middle) - begin, chord)) > flatness * length(chord));
    // Where the tangents meet.
    const auto tip = place((from + to) * (1 / (1 + dot(from, to))));
    const auto is_hidden = !is_flat && !tolerance.seen.may_have({begin, end, tip});
    if (is_flat || is_hidden || depth == deepest) {
        if (tolerance.is_measured) subpath.measure(place.length_of(from, to) - length(chord));
        if (is_hidden) subpath.hide();
        return;
    }
    if (const auto count = tolerance.is_measured ? 0 : even_chords(from, to, place, flatness)) {
        const auto whole = angle_of({dot(from, to), cross(from, to)});
        const auto step = direction_of(Angle::degrees(whole.in_degrees() / count));
        auto at = from;
        for (auto i = 1; i < count; ++i) {
            at = turned(at, step);
            subpath.add_joint(place(at), place.along(at));
        }
        return;
    }
    add_chords(from, middle, place, tolerance, subpath, depth + 1);
    subpath.add_joint(place(middle), place.along(middle));
    add_chords(middle, to, place, tolerance, subpath, depth + 1);
}

// Circles and ellipses up to this radius are followed as a whole, whatever of them is seen.
inline constexpr int largest_followed = 16384;

// The true edge of an ellipse's fill, relative to the first pixel of its box, which it is as wide and high as.
class EllipseGeometry {
  public:
    explicit EllipseGeometry(const WholeEllipse& ellipse) noexcept;

    // One around a centre relative to an origin.
    EllipseGeometry(Point origin, Vec center, Vec half_axes, Angle turned) noexcept;

    [[nodiscard]] Point origin() const noexcept { return origin_; }
    [[nodiscard]] Vec center() const noexcept { return center_; }

    // The half-lengths of its axes, and the direction of the first one.
    [[nodiscard]] double a() const noexcept { return a_; }
    [[nodiscard]] double b() const noexcept { return b_; }
    [[nodiscard]] Vec direction() const noexcept { return direction_; }

    // By how much it is turned.
    [[nodiscard]] Angle turn() const noexcept { return turn_; }

    // The place on the edge in a direction from the centre, and the direction square to the edge there.
    [[nodiscard]] Vec rim(Vec direction) const noexcept;
    [[nodiscard]] Vec normal(Vec direction) const noexcept;

    // Adds the chords of the edge within a turn to a subpath, flat enough, from its beginning to its end.
    void add_rim(const Turn& turn, const Tolerance& tolerance, Subpath& subpath) const;

    // Draws the curve that lies outside at a distance, or inside at a negative one: the edge of what is at most so far
    // away. Says whether there is any. Parts outside the window are drawn with fewer corners.
    bool draw_parallel(double distance, Contours& contours) const;

    // Whether that curve does not meet itself anywhere.
    [[nodiscard]] bool is_plain_at(double distance) const noexcept {
        const auto shorter = std::min(a_, b_);
        return distance > -shorter * shorter / std::max(a_, b_);
    }

    // Draws what lies between that curve, which must not meet itself, and the centre in the directions of a turn.
    void draw_parallel_sector(double distance, const Turn& turn, Contours& contours) const;

    // How far it reaches from its centre to either side, and up and down.
    [[nodiscard]] double half_width() const noexcept;
    [[nodiscard]] double half_height() const noexcept;

  private:
    Point origin_;
    Vec center_;
    double a_;
    double b_;
    Angle turn_;
    Vec direction_;
};

// The same detail relative to where a geometry begins.
[[nodiscard]] inline Tolerance of_form(const EllipseGeometry& geometry, const Tolerance& tolerance) noexcept {
    return tolerance.relative_to({double{1} * geometry.origin().x, double{1} * geometry.origin().y});
}

}  // namespace coldbrick::inline v0::detail
