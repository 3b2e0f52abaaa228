// Outlines and pen lines.
#include "coldbrick/lettering.hpp"

#include "geometry/limits.hpp"
#include "shapes/flatten.hpp"
#include "shapes/shape_scans.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <cmath>

namespace coldbrick::inline v0::detail {

namespace {

bool has_curves(const Path& path) noexcept {
    const auto steps = path.steps();
    return std::any_of(steps.begin(), steps.end(), [](const Path::Step& step) {
        return step.kind == Path::Step::Kind::cubic || step.kind == Path::Step::Kind::arc;
    });
}

double extent_of(const Path& path) noexcept {
    auto most = 0.0;
    if (path.empty()) return most;
    const auto first = path.steps().front().to;
    const auto take = [&](Position at) { most = std::max({most, std::abs(at.x - first.x), std::abs(at.y - first.y)}); };
    for (const auto& step : path.steps()) {
        take(step.to);
        if (step.kind == Path::Step::Kind::cubic) {
            take(step.control_1);
            take(step.control_2);
        }
    }
    return most;
}

// Letters that are not huge are followed as a whole, so that what is seen of them does not depend on what is not.
Tolerance detail_for(const Lettering& shape, const Tolerance& asked) noexcept {
    constexpr auto most = 0x1p26;
    const auto extent = std::max(extent_of(shape.lines), extent_of(shape.outlines));
    if (extent > most * asked.flatness) return asked;
    return {.flatness = asked.flatness, .seen = {}, .is_measured = asked.is_measured};
}

// The same subpaths from another origin.
FlatPath moved_to(FlatPath flat, Point origin) {
    const auto by = Vec{double{1} * flat.origin.x - origin.x, double{1} * flat.origin.y - origin.y};
    for (auto& subpath : flat.subpaths) {
        for (auto& node : subpath.nodes) node.at = node.at + by;
    }
    flat.origin = origin;
    return flat;
}

}  // namespace

Geometry geometry_of(const Lettering& shape, const Tolerance& asked) {
    LettersGeometry geometry;
    const auto tolerance = detail_for(shape, asked);
    if (!shape.lines.empty()) {
        constexpr auto least = 1.0 / 256;
        if (!(shape.weight >= least && shape.weight <= max_coordinate)) {
            throw Error{"lettering: weight is " + in_digits(shape.weight) + "; allowed is 1/256 to " +
                        std::to_string(max_coordinate)};
        }
        geometry.weight = shape.weight;
        auto reached = tolerance;
        reached.seen = tolerance.seen.grown(shape.weight / 2);
        geometry.lines = flatten(shape.lines, reached);
    }
    if (!shape.outlines.empty()) geometry.outlines = flatten(shape.outlines, tolerance);
    if (shape.lines.empty()) geometry.lines.origin = geometry.outlines.origin;
    geometry.outlines = moved_to(std::move(geometry.outlines), geometry.lines.origin);
    geometry.is_straight = shape.lines.empty() && !has_curves(shape.outlines);
    geometry.margin = geometry.is_straight ? 0 : tolerance.flatness;
    return geometry;
}

}  // namespace coldbrick::inline v0::detail
