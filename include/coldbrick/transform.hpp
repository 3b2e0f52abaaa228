// coldbrick/transform.hpp - from coordinates of one's own to pixels.
//
//     // From -1..1 both ways, y up, to the pixels of a box: its edges are the edges of the pixels.
//     const auto to_pixels = Transform::fitting({.left = -1, .right = 1, .bottom = -1, .top = 1}, box);
//
//     const auto placed = Transform{}.turn(30_deg).scale({2, 2}).move({100, 50});      // done in this order
//
// A transform is affine: straight lines stay straight, parallel ones parallel.
#pragma once

#include "coldbrick/angle.hpp"
#include "coldbrick/geometry.hpp"

namespace coldbrick {

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
    static constexpr Transform fitting(const Extent& extent, const Box& box) noexcept {
        const auto x = box.size.width / (extent.right - extent.left);
        const auto y = box.size.height / (extent.bottom - extent.top);
        return Transform{{.xx = x,
                          .xy = 0,
                          .dx = box.at.x - 0.5 - x * extent.left,
                          .yx = 0,
                          .yy = y,
                          .dy = box.at.y - 0.5 - y * extent.top}};
    }

    // The same, and after it another step.
    [[nodiscard]] constexpr Transform then(const Transform& next) const noexcept {
        const auto& [xx, xy, dx, yx, yy, dy] = rows_;
        const auto& n = next.rows_;
        return Transform{{.xx = n.xx * xx + n.xy * yx,
                          .xy = n.xx * xy + n.xy * yy,
                          .dx = n.xx * dx + n.xy * dy + n.dx,
                          .yx = n.yx * xx + n.yy * yx,
                          .yy = n.yx * xy + n.yy * yy,
                          .dy = n.yx * dx + n.yy * dy + n.dy}};
    }

    // And after it: moved; each coordinate times a factor; turned clockwise (where y grows downward) around (0, 0).
    [[nodiscard]] constexpr Transform move(Position by) const noexcept {
        return then(Transform{{.xx = 1, .xy = 0, .dx = by.x, .yx = 0, .yy = 1, .dy = by.y}});
    }
    [[nodiscard]] constexpr Transform scale(Position by) const noexcept {
        return then(Transform{{.xx = by.x, .xy = 0, .dx = 0, .yx = 0, .yy = by.y, .dy = 0}});
    }
    [[nodiscard]] Transform turn(Angle angle) const noexcept;
    // Sheared: x grows by by.x * y, and y by by.y * x.
    [[nodiscard]] constexpr Transform shear(Position by) const noexcept {
        return then(Transform{{.xx = 1, .xy = by.x, .dx = 0, .yx = by.y, .yy = 1, .dy = 0}});
    }

    // By the same factor both ways; around a place.
    [[nodiscard]] constexpr Transform scale(double by) const noexcept { return scale({by, by}); }
    [[nodiscard]] Transform turn_about(Position place, Angle angle) const noexcept {
        return move({-place.x, -place.y}).turn(angle).move(place);
    }
    [[nodiscard]] constexpr Transform scale_about(Position place, Position by) const noexcept {
        return move({-place.x, -place.y}).scale(by).move(place);
    }

    // What takes places back. Of a transform that flattens everything, its numbers are none.
    [[nodiscard]] constexpr Transform inverse() const noexcept {
        const auto& [xx, xy, dx, yx, yy, dy] = rows_;
        const auto area = xx * yy - xy * yx;
        return Transform{{.xx = yy / area,
                          .xy = -xy / area,
                          .dx = (xy * dy - yy * dx) / area,
                          .yx = -yx / area,
                          .yy = xx / area,
                          .dy = (yx * dx - xx * dy) / area}};
    }

    // Where a place comes to.
    [[nodiscard]] constexpr Position operator()(Position at) const noexcept {
        return {.x = rows_.xx * at.x + rows_.xy * at.y + rows_.dx, .y = rows_.yx * at.x + rows_.yy * at.y + rows_.dy};
    }

    [[nodiscard]] constexpr const Rows& rows() const noexcept { return rows_; }

    // Whether it leaves everything where it is.
    [[nodiscard]] constexpr bool is_identity() const noexcept {
        const auto& [xx, xy, dx, yx, yy, dy] = rows_;
        return xx == 1 && xy == 0 && dx == 0 && yx == 0 && yy == 1 && dy == 0;
    }

    friend bool operator==(const Transform&, const Transform&) = default;

  private:
    Rows rows_{.xx = 1, .xy = 0, .dx = 0, .yx = 0, .yy = 1, .dy = 0};
};

}  // namespace coldbrick
