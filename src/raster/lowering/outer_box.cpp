#include "raster/lowering/outer_box.hpp"

#include "raster/spans/window.hpp"

#include <algorithm>
#include <cmath>

namespace coldbrick::inline v0::detail {

namespace {

int as_int(double value) noexcept { return static_cast<int>(std::clamp(value, -2147483000.0, 2147483000.0)); }

}  // namespace

Box outer_box(const Geometry& geometry, double reach, const Placement& placement) {
    return outer_box(origin_of(geometry), surroundings_of(geometry), reach, placement);
}

Box outer_box(Point origin, const Surroundings& own, double reach, const Placement& placement) {
    if (!(own.least.x <= own.most.x)) return {};
    const auto [least, most] = own.grown(reach).relative_to({-double{1} * origin.x, -double{1} * origin.y});
    auto box = Surroundings{least, least};
    box.least = box.most = placement(least);
    for (const auto corner : {most, Vec{least.x, most.y}, Vec{most.x, least.y}}) {
        const auto at = placement(corner);
        box.least = {std::min(box.least.x, at.x), std::min(box.least.y, at.y)};
        box.most = {std::max(box.most.x, at.x), std::max(box.most.y, at.y)};
    }
    return box_of({.left = as_int(std::floor(box.least.x)) - 1,
                   .top = as_int(std::floor(box.least.y)) - 1,
                   .right = as_int(std::ceil(box.most.x)) + 2,
                   .bottom = as_int(std::ceil(box.most.y)) + 2});
}

}  // namespace coldbrick::inline v0::detail
