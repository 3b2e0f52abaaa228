// From the arguments of a statement to what it draws.
#pragma once

#include "scene/arguments.hpp"

#include "coldbrick/figure.hpp"
#include "coldbrick/flood.hpp"
#include "coldbrick/region.hpp"
#include "coldbrick/scene.hpp"

#include <optional>
#include <span>
#include <variant>

namespace coldbrick::inline v0::detail {

struct ShapeStatement;

// One pixel, as the statement `mark` draws it.
struct Mark {
    Point at;
};

// What a statement draws.
using Drawn = std::variant<Figure, FloodFrom, Mark>;

// Puts the figure of a shape that is filled, or stroked, somewhere; false if there is a fault.
bool read_figure(const ShapeStatement& shape, bool is_stroked, Arguments& given, std::optional<Drawn>& to);

// What "mark" and "flood" draw.
[[nodiscard]] std::optional<Drawn> read_mark(Arguments& given);
[[nodiscard]] std::optional<Drawn> read_flood(Arguments& given);

// The pen: width, caps, joins, dashes.
[[nodiscard]] std::optional<Stroke> read_stroke(Arguments& given);

// The parts of a region or clip, and the transform that they are under.
struct PartsOf {
    std::span<const RegionPart> parts;
    ArgumentsOf of;  // of the statement
    const Transform& by;
    ValueReader& values;
    Faults& faults;
};

// What they make together, in a box.
[[nodiscard]] std::optional<Region> read_region(const PartsOf& of, const Box& within);

// The same with smooth edges: of one part, or of parts within each other.
[[nodiscard]] std::optional<SmoothRegion> read_smooth_region(const PartsOf& of, const Box& within);

}  // namespace coldbrick::inline v0::detail
