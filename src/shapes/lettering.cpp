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
Detail detail_for(const Lettering& shape, const Detail& asked) noexcept {
    constexpr auto most = 0x1p26;
    const auto extent = std::max(extent_of(shape.lines), extent_of(shape.outlines));
    if (extent > most * asked.flatness) return asked;
    return {.flatness = asked.flatness, .seen = {}, .is_measured = asked.is_measured};
}

// The same tracks from another origin.
FlatPath moved_to(FlatPath flat, Point origin) {
    const auto by = Vec{double{1} * flat.origin.x - origin.x, double{1} * flat.origin.y - origin.y};
    for (auto& track : flat.tracks) {
        for (auto& node : track.nodes) node.at = node.at + by;
    }
    flat.origin = origin;
    return flat;
}

}  // namespace

Form form_of(const Lettering& shape, const Detail& asked) {
    LettersForm form;
    const auto detail = detail_for(shape, asked);
    if (!shape.lines.empty()) {
        constexpr auto least = 1.0 / 256;
        if (!(shape.weight >= least && shape.weight <= max_coordinate)) {
            throw Error{"lettering: weight is " + in_digits(shape.weight) + "; allowed is 1/256 to " +
                        std::to_string(max_coordinate)};
        }
        form.weight = shape.weight;
        auto reached = detail;
        reached.seen = detail.seen.grown(shape.weight / 2);
        form.lines = flatten(shape.lines, reached);
    }
    if (!shape.outlines.empty()) form.outlines = flatten(shape.outlines, detail);
    if (shape.lines.empty()) form.lines.origin = form.outlines.origin;
    form.outlines = moved_to(std::move(form.outlines), form.lines.origin);
    form.is_straight = shape.lines.empty() && !has_curves(shape.outlines);
    form.margin = form.is_straight ? 0 : detail.flatness;
    return form;
}

}  // namespace coldbrick::inline v0::detail
