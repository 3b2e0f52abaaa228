// coldbrick/transform.hpp - from coordinates of one's own to pixels.
//
//     // From -1..1 in both directions, y up, to the pixels of a box: its edges are the edges of the pixels.
//     const auto to_pixels = Transform::fitting({.left = -1, .right = 1, .bottom = -1, .top = 1}, box);
//
//     const auto placed = Transform{}.turn(30_deg).scale({2, 2}).move({100, 50});      // done in this order
//
// A transform is affine: straight lines stay straight, parallel ones parallel.
#pragma once

#include "coldbrick/angle.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/geometry.hpp"

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// The part of a plane that is to be fitted somewhere; left may be greater than right, and bottom than top.
struct Extent {
    double left;
    double right;
    double bottom;
    double top;
};

class Transform {
  public:
    // x' = xx * x + xy * y + dx, y' = yx * x + yy * y + dy: the two rows of a matrix.
    struct Rows {
        double xx, xy, dx;
        double yx, yy, dy;

        friend bool operator==(const Rows&, const Rows&) = default;
    };

    // Leaves everything where it is.
    constexpr Transform() noexcept = default;
    explicit constexpr Transform(const Rows& rows) noexcept : rows_{rows} {}

    // Takes the edges of the extent to the outer edges of a box of pixels. A box or extent without area gives a
    // transform that takes places to no numbers.
    static Transform fitting(const Extent& extent, const Box& box) noexcept;

    // The same, and after it another step.
    [[nodiscard]] Transform then(const Transform& next) const noexcept;

    // And after it: moved; each coordinate times a factor; turned clockwise (where y grows downward) around (0, 0).
    [[nodiscard]] Transform move(Position by) const noexcept;
    [[nodiscard]] Transform scale(Position by) const noexcept;
    [[nodiscard]] Transform turn(Angle angle) const noexcept;
    // Sheared: x grows by by.x * y, and y by by.y * x.
    [[nodiscard]] Transform shear(Position by) const noexcept;

    // By the same factor in both directions; around a place.
    [[nodiscard]] Transform scale(double by) const noexcept;
    [[nodiscard]] Transform turn_about(Position place, Angle angle) const noexcept;
    [[nodiscard]] Transform scale_about(Position place, Position by) const noexcept;

    // What takes places back. Of a transform that flattens everything, its numbers are none.
    [[nodiscard]] Transform inverse() const noexcept;

    // Where a place comes to.
    [[nodiscard]] Position operator()(Position at) const noexcept;

    [[nodiscard]] constexpr const Rows& rows() const& noexcept { return rows_; }
    [[nodiscard]] constexpr Rows rows() && noexcept { return rows_; }

    // Whether it leaves everything where it is.
    [[nodiscard]] constexpr bool is_identity() const noexcept {
        const auto& [xx, xy, dx, yx, yy, dy] = rows_;
        return xx == 1 && xy == 0 && dx == 0 && yx == 0 && yy == 1 && dy == 0;
    }

    friend bool operator==(const Transform&, const Transform&) = default;

  private:
    Rows rows_{.xx = 1, .xy = 0, .dx = 0, .yx = 0, .yy = 1, .dy = 0};
};

}  // namespace v0
}  // namespace coldbrick
