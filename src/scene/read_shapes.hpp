// From the arguments of a statement to a shape. All report their faults, and return nothing then.
#pragma once

#include "scene/arguments.hpp"

#include "coldbrick/shapes.hpp"

#include <optional>
#include <variant>
#include <vector>

namespace coldbrick::inline v0::detail {

// A shape in whole pixels, or with coordinates that are not whole.
template <class Whole, class Fraction>
using Either = std::optional<std::variant<Whole, Fraction>>;

[[nodiscard]] Either<RoundedBox, subpixel::RoundedBox> read_box(Arguments& given);
[[nodiscard]] Either<Circle, subpixel::Circle> read_circle(Arguments& given);
[[nodiscard]] Either<Ellipse, subpixel::Ellipse> read_ellipse(Arguments& given);
[[nodiscard]] Either<Arc, subpixel::Arc> read_arc(Arguments& given);
[[nodiscard]] Either<Sector, subpixel::Sector> read_sector(Arguments& given);
[[nodiscard]] Either<Chord, subpixel::Chord> read_chord(Arguments& given);
[[nodiscard]] Either<Polygon, subpixel::Polygon> read_polygon(Arguments& given);
[[nodiscard]] Either<Polygon, subpixel::Polygon> read_star(Arguments& given);
[[nodiscard]] Either<Ring, subpixel::Ring> read_ring(Arguments& given);

// Whether all lie on whole coordinates, and the same places then.
[[nodiscard]] bool are_whole(const std::vector<Position>& places);
[[nodiscard]] std::vector<Point> whole(const std::vector<Position>& places);

}  // namespace coldbrick::inline v0::detail
