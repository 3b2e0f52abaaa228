// The curve that runs beside an upright ellipse at a distance.
#pragma once

#include "geometry/vectors.hpp"

#include <cmath>

namespace coldbrick::inline v0::detail {

// So many numbers are computed together; rows of them have room for as many more as make them up to that.
inline constexpr int together = 4;
constexpr int filled_up(int count) noexcept { return (count + together - 1) / together * together; }

// Beside thinner ellipses, by the longer axis through the shorter one, neither is a place found in a few rounds nor is
// a pixel's part of the curve nearly a parabola.
inline constexpr double thinnest_offset = 8;

// A quarter of it as it is seen along one of its axes, of half-length a: the place (p, q) on the unit circle, p along,
// goes to a*p on the ellipse, and to p * (a + distance * b / n) on the curve, where
// n = sqrt(a^2 + (b^2 - a^2) * p^2) is how long the normal (b*p, a*q) is.
struct CurveAxis {
    double a;
    double b;
    double distance;
    double least;  // p on the curve: it ends before an axis, where it would meet its mirror image
    double most;

    [[nodiscard]] COLDBRICK_INLINE double per_normal(double p) const noexcept {
        return 1 / std::sqrt(a * a + (b * b - a * a) * p * p);
    }
    [[nodiscard]] COLDBRICK_INLINE double steepness(double p) const noexcept {
        return a + distance * b * per_normal(p);
    }
    [[nodiscard]] COLDBRICK_INLINE double place(double p) const noexcept { return p * steepness(p); }
    // How fast the curve goes there for how fast the ellipse does.
    [[nodiscard]] double turn(double p) const noexcept {
        const auto per_n = per_normal(p);
        return 1 + distance * a * b * per_n * per_n * per_n;
    }
    [[nodiscard]] double reach() const noexcept { return place(most); }
};

// It as it is seen along both. The distance is greater than minus the shorter half-axis.
struct CurveAxes {
    CurveAxis across;
    CurveAxis up;
};
CurveAxes axes_of_curve(double half_width, double half_height, double distance) noexcept;

// Places on it: how far from the centre along an axis and across it, and from where on the unit circle.
struct CurvePlaces {
    double* along;
    double* across;
    double* p;
    double* q;
};

// From so many numbers `along`, from 0 to the reach, finds the others.
void find_places(const CurveAxis& axis, int count, const CurvePlaces& places) noexcept;

}  // namespace coldbrick::inline v0::detail
