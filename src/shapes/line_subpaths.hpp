// Points as subpaths, and what lines and polygons have in common.
#pragma once

#include "raster/lowering/geometries.hpp"
#include "raster/strokes/stroker.hpp"
#include "shapes/checks.hpp"
#include "shapes/polygon_checks.hpp"
#include "shapes/shape_scans.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <array>
#include <span>
#include <string>
#include <vector>

namespace coldbrick::inline v0::detail {

// Subpaths from points of either kind, from the first one of all on.
class LineSubpaths {
  public:
    explicit LineSubpaths(std::string_view shape) noexcept : shape_{shape} {}

    // Checks the points, of which there must be some.
    template <class Places>
    void add_checked(const Places& places, bool closed) {
        if (places.empty()) throw Error{std::string{shape_} + ": it has no points; it needs one at least"};
        add(places, closed);
    }

    template <class Places>
    void add(const Places& places, bool closed) {
        if (flat_.subpaths.empty()) flat_.origin = origin_at(place(places.front()));
        auto& subpath = flat_.subpaths.emplace_back();
        subpath.nodes.reserve(places.size());
        for (const auto& at : places) subpath.add(from_origin(place(at), flat_.origin));
        if (closed && subpath.nodes.size() > 2) subpath.close();
    }

    [[nodiscard]] FlatPath take() noexcept { return std::move(flat_); }

  private:
    [[nodiscard]] static Position place(Point at) noexcept { return at; }
    [[nodiscard]] Position place(Position at) const { return checked_place(shape_, "through", at); }

    std::string_view shape_;
    FlatPath flat_;
};

// The smallest box around some points.
[[nodiscard]] inline Box box_around(std::span<const Point> points) noexcept {
    auto least = points.front();
    auto most = least;
    for (const auto [x, y] : points) {
        least = {.x = std::min(least.x, x), .y = std::min(least.y, y)};
        most = {.x = std::max(most.x, x), .y = std::max(most.y, y)};
    }
    return Box::between({.from = least, .to = most});
}

// A stroke of rings of points, 2 or more wide and centred.
Box scan_rings(const std::vector<std::vector<Point>>& rings, const Stroke& how, const Box& clip, const SpanSink& sink);

}  // namespace coldbrick::inline v0::detail
