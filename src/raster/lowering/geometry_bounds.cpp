// The boxes around geometries.
#include "raster/lowering/geometry_bounds.hpp"

#include "raster/coverage/cover_bounds.hpp"
#include "raster/lowering/outer_box.hpp"
#include "raster/lowering/outline.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <vector>

namespace coldbrick::inline v0::detail {

namespace {

bool is_drawn_as_hairline(const Fill&) noexcept { return false; }
bool is_drawn_as_hairline(const Stroke& how) noexcept { return how.edge == Edge::crisp && is_hairline(how); }

// An outline that what is drawn lies in. A crisp outline of width 1 has the pixels of the fill that are at its
// edge.
template <class How>
Outline bounding_outline(const Geometry& geometry, const How& how, const Tolerance& tolerance) {
    if constexpr (std::is_same_v<How, Stroke>) {
        const auto is_rim = is_drawn_as_hairline(how) && as<LinesGeometry>(geometry) == nullptr;
        if (is_rim && as<ArcGeometry>(geometry) != nullptr) return outline_of(geometry, Stroke{.width = 3}, tolerance);
        if (is_rim) return outline_of(geometry, Fill{}, tolerance);
    }
    return outline_of(geometry, how, tolerance);
}

bool is_dashed(const Fill&) noexcept { return false; }
bool is_dashed(const Stroke& how) noexcept { return !how.dash.empty(); }

// Whether a crisp shape has, of its rim, the pixels that are nearest to the lines between its points.
bool is_of_hairlines(const Geometry& geometry, const Fill& how) {
    return how.edge == Edge::crisp && how.edges == Edges::inclusive && as_polygonal(geometry) != nullptr;
}
bool is_of_hairlines(const Geometry& geometry, const Stroke& how) {
    const auto is_aligned = as_polygonal(geometry) != nullptr && how.align != Align::center;
    return is_drawn_as_hairline(how) && !is_aligned && as<LinesGeometry>(geometry) != nullptr;
}

// Those of the points are the outermost ones.
Box box_around_nodes(const FlatPath& flat) {
    constexpr auto most = 2147483000.0;
    auto least = Vec{most, most};
    auto greatest = Vec{-most, -most};
    for (const auto& subpath : flat.subpaths) {
        for (const auto& node : subpath.nodes) {
            const auto pixel = Vec{std::ceil(node.at.x - 0.5), std::ceil(node.at.y - 0.5)};
            least = {std::min(least.x, pixel.x), std::min(least.y, pixel.y)};
            greatest = {std::max(greatest.x, pixel.x), std::max(greatest.y, pixel.y)};
        }
    }
    const auto point = [&](Vec at) {
        const auto whole = [=](double value) { return static_cast<int>(std::clamp(value, -most, most)); };
        return Point{.x = whole(at.x + flat.origin.x), .y = whole(at.y + flat.origin.y)};
    };
    return Box::between({.from = point(least), .to = point(greatest)});
}

double reach_outside(const Fill&) noexcept { return 0; }
double reach_outside(const Stroke& how) noexcept { return Band{how}.out; }

// Of a whole ellipse, by how far it reaches to each side.
template <class How>
Box box_of_ellipse(const EllipseGeometry& geometry, const How& how) {
    const auto out = reach_outside(how);
    const auto most = std::min(double{1} * std::numeric_limits<int>::max(), 4e9);
    const auto pixel = [&](double center, double reach, int origin) {
        const auto edge = center + reach;
        const auto first = how.edge == Edge::smooth ? floor_of(edge + 0.5) : ceil_of(edge);
        return static_cast<int>(std::clamp(static_cast<double>(first) + origin, -most, most));
    };
    // The last pixel is the first one in a mirror.
    const auto last = [&](double center, double reach, int origin) { return -pixel(-center, -reach, -origin); };
    const auto [x, y] = geometry.center();
    const auto [w, h] = Vec{geometry.half_width() + out, geometry.half_height() + out};
    return Box::between({.from = {pixel(x, -w, geometry.origin().x), pixel(y, -h, geometry.origin().y)},
                         .to = {last(x, w, geometry.origin().x), last(y, h, geometry.origin().y)}});
}

// Whether coverage is summed up from outlines, and not known by formula.
bool is_measured(const Geometry& geometry) noexcept {
    return as<EllipseGeometry>(geometry) == nullptr && as<BoxGeometry>(geometry) == nullptr &&
           as<RingGeometry>(geometry) == nullptr;
}

template <class How>
Box find_by_outline(const BoundsSearch& search, const How& how, const Placement& placement, const Box& outer) {
    const auto is_smooth = how.edge == Edge::smooth;
    const auto flatness = is_smooth ? smooth_flatness : crisp_flatness;
    const auto tolerance = placement.detail_in(outer, flatness, how);
    const auto geometry = search.lower(tolerance);
    if (is_of_hairlines(geometry, how)) return box_around_nodes(placement(as<LinesGeometry>(geometry)->flat));
    ContourMemory memory;
    Chains chains{window_of(outer), &memory};
    const auto rule = draw_outline(bounding_outline(geometry, how, tolerance), placement, chains);
    chains.finish();
    const auto scan = [&](const Window& part) {
        return is_smooth && is_measured(geometry) ? scan_part(chains, part, rule, null_sink)
                                                  : search.scan(box_of(part));
    };
    return bounds_of_cover(chains, rule, scan);
}

template <class How>
Box find(const BoundsSearch& search, const How& how, const Transform& by) {
    search.scan(Box{});  // which checks them
    const Placement placement{by};
    const auto geometry = search.lower({rough_flatness});
    const auto outer = outer_box(geometry, reach_of(how), placement);
    const auto few_rows = how.edge == Edge::smooth ? 1 << 7 : 1 << 12;
    constexpr auto many_rows = 1 << 16;
    constexpr auto large = 1 << 22;
    const auto is_dashed_hairline = is_dashed(how) && is_drawn_as_hairline(how);
    const auto rows = outer.size.height;
    const auto is_large = !is_straight(geometry) && std::max(outer.size.width, rows) > large;
    if (as<PixelsGeometry>(geometry) != nullptr) return bounds_by_rows(outer, search.scan);
    try {
        if (rows <= (is_dashed_hairline ? many_rows : few_rows)) return bounds_by_rows(outer, search.scan);
        if (is_large && !is_dashed(how) && placement.is_identity()) {
            if (const auto* const ellipse = as<EllipseGeometry>(geometry)) return box_of_ellipse(*ellipse, how);
        }
        if (is_large || is_dashed_hairline) return outer;
        return find_by_outline(search, how, placement, outer);
    } catch (const TooManyEdges&) {
        return outer;
    }
}

}  // namespace

Box find_bounds(const BoundsSearch& search, const Fill& how, const Transform& by) { return find(search, how, by); }

Box find_bounds(const BoundsSearch& search, const Stroke& how, const Transform& by) { return find(search, how, by); }

Box rough_bounds(const Geometry& geometry, const Fill& how, const Transform& by) {
    return outer_box(geometry, reach_of(how), Placement{by});
}

Box rough_bounds(const Geometry& geometry, const Stroke& how, const Transform& by) {
    return outer_box(geometry, reach_of(how), Placement{by});
}

}  // namespace coldbrick::inline v0::detail
