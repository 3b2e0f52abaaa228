// From the arguments of a statement to what it draws.
#pragma once

#include "scene/arguments.hpp"

#include "coldbrick/scene.hpp"

namespace coldbrick::detail {

// The figure of "fill circle", "stroke line", "mark" and so on; not of regions.
[[nodiscard]] std::optional<Figure> read_figure(std::string_view words, Arguments& given);

// The pen: width, caps, joins, dashes.
[[nodiscard]] std::optional<Stroke> read_stroke(Arguments& given);

// What the parts of a region make together, in a box.
[[nodiscard]] std::optional<Region> read_region(const std::vector<RegionPart>& parts, const Box& within,
                                                ValueReader& values, Faults& faults);

}  // namespace coldbrick::detail
