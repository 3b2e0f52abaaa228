// An ellipse as a curve, turned or not: the places on it, and the parallel curves beside it.
#pragma once

#include "raster/fine.hpp"
#include "raster/half_plane.hpp"
#include "raster/track.hpp"

#include "coldbrick/shapes.hpp"

namespace coldbrick::detail {

// Adds the chords of an arc from one place on the unit circle to another, at most a quarter turn away, as the ellipse
// takes it; all but its end.
template <class Place>
void add_chords(Vec from, Vec to, const Place& place, double flatness, Track& track) {
    const auto begin = place(from);
    const auto chord = place(to) - begin;
    const auto middle = unit(from + to);
    if (std::fabs(cross(place(middle) - begin, chord)) <= flatness * length(chord)) return;
    add_chords(from, middle, place, flatness, track);
    track.add(place(middle), true);
    add_chords(middle, to, place, flatness, track);
}

// The true edge of an ellipse's fill, relative to the first pixel of its box, which it is as wide and high as.
class EllipseForm {
  public:
    explicit EllipseForm(const Ellipse& ellipse) noexcept;

    // One around a centre relative to an origin.
    EllipseForm(Point origin, Vec center, Vec half_axes, Angle turned) noexcept;

    [[nodiscard]] Point origin() const noexcept { return origin_; }
    [[nodiscard]] Vec center() const noexcept { return center_; }

    // The half-lengths of its axes, and the direction of the first one.
    [[nodiscard]] double a() const noexcept { return a_; }
    [[nodiscard]] double b() const noexcept { return b_; }
    [[nodiscard]] Vec direction() const noexcept { return direction_; }

    // The place on the edge in a direction from the centre, and the direction square to the edge there.
    [[nodiscard]] Vec rim(Vec direction) const noexcept;
    [[nodiscard]] Vec normal(Vec direction) const noexcept;

    // Adds the chords of the edge within a turn to a track, flat enough, from its beginning to its end.
    void add_rim(const Turn& turn, double flatness, Track& track) const;

    // Draws the curve that lies outside at a distance, or inside at a negative one: the edge of what is at most so far
    // away. Says whether there is any. Parts outside the window are drawn with fewer corners.
    bool draw_parallel(double distance, Contours& contours) const;

    // How far up and down it reaches from its centre.
    [[nodiscard]] double half_height() const noexcept;

  private:
    Point origin_;
    Vec center_;
    double a_;
    double b_;
    Vec direction_;
};

}  // namespace coldbrick::detail
