// Ellipses as rows and as curves.
#pragma once

#include "raster/edges/ellipse_geometry.hpp"
#include "raster/rows/ellipse_rows.hpp"

#include "coldbrick/shapes.hpp"

namespace coldbrick::inline v0::detail {

[[nodiscard]] inline WholeEllipse whole_of(const Ellipse& shape) noexcept {
    return {.box = shape.box(), .turn = shape.turn()};
}

[[nodiscard]] EllipseGeometry ellipse_form(const Ellipse& shape) noexcept;
[[nodiscard]] EllipseGeometry ellipse_form(const subpixel::Ellipse& shape) noexcept;

}  // namespace coldbrick::inline v0::detail
