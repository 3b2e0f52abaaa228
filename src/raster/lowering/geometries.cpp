#include "raster/lowering/geometries.hpp"

#include "raster/strokes/outline_subpaths.hpp"

#include <algorithm>
#include <limits>
#include <optional>
#include <variant>

namespace coldbrick::inline v0::detail {

namespace {

// Grows around places.
struct Around {
    Surroundings box{.least = {std::numeric_limits<double>::infinity(), std::numeric_limits<double>::infinity()},
                     .most = {-std::numeric_limits<double>::infinity(), -std::numeric_limits<double>::infinity()}};

    void add(Vec at) noexcept {
        box.least = {std::min(box.least.x, at.x), std::min(box.least.y, at.y)};
        box.most = {std::max(box.most.x, at.x), std::max(box.most.y, at.y)};
    }
};

Surroundings around_ellipse(const EllipseGeometry& geometry) noexcept {
    const auto reach = Vec{geometry.half_width(), geometry.half_height()};
    return {geometry.center() - reach, geometry.center() + reach};
}

// Whether a direction lies in a turn, ends included, and some more.
bool is_in(const Turn& turn, Vec direction) noexcept {
    constexpr auto hardly = 1e-6;
    const auto begin = turn.begin();
    const auto end = turn.end();
    const auto behind_begin = cross(begin, direction) >= -hardly;
    const auto before_end = cross(direction, end) >= -hardly;
    if (turn.is_whole) return true;
    return turn.degrees <= 180 ? behind_begin && before_end : behind_begin || before_end;
}

// The rim within the turn, the centre, and the ends.
Surroundings around_sweep(const EllipseGeometry& geometry, const Sweep& sweep) noexcept {
    const Turn turn{sweep};
    Around around;
    around.add(geometry.center());
    around.add(geometry.rim(turn.begin()));
    around.add(geometry.rim(turn.end()));
    // Where the rim reaches furthest to the right, and so on.
    const auto [c, s] = geometry.direction();
    const auto [w, h] = Vec{geometry.half_width(), geometry.half_height()};
    const auto a2 = geometry.a() * geometry.a();
    const auto b2 = geometry.b() * geometry.b();
    const auto rightmost = Vec{w, (a2 - b2) * c * s / w};
    const auto lowest = Vec{(a2 - b2) * c * s / h, h};
    for (const auto at : {rightmost, -rightmost, lowest, -lowest}) {
        if (is_in(turn, unit(at))) around.add(geometry.center() + at);
    }
    return around.box;
}

void add_nodes(const FlatPath& flat, Around& all) noexcept {
    for (const auto& subpath : flat.subpaths) {
        for (const auto& node : subpath.nodes) all.add(node.at);
    }
}

Surroundings around_nodes(const LinesGeometry& lines) noexcept {
    Around all;
    add_nodes(lines.flat, all);
    return lines.margin == 0 ? all.box : all.box.grown(lines.margin);
}

Surroundings around_letters(const LettersGeometry& letters) noexcept {
    Around all;
    add_nodes(letters.lines, all);
    if (!letters.lines.subpaths.empty()) all.box = all.box.grown(letters.weight / 2);
    add_nodes(letters.outlines, all);
    return all.box.grown(letters.margin);
}

// The ellipse that lies so far inside a circle; nothing if it has no area.
std::optional<EllipseGeometry> hole_of(const RingGeometry& ring) noexcept {
    const auto radius = ring.of.a() - ring.thickness;
    if (!(radius > 0)) return std::nullopt;
    return EllipseGeometry{ring.of.origin(), ring.of.center(), {radius, radius}, Angle{}};
}

Subpath rim_of(const EllipseGeometry& geometry, const Sweep& sweep, const Tolerance& tolerance) {
    Subpath subpath;
    geometry.add_rim(Turn{sweep},
                     tolerance.relative_to({double{1} * geometry.origin().x, double{1} * geometry.origin().y}),
                     subpath);
    return subpath;
}

}  // namespace

Point origin_of(const Geometry& geometry) noexcept {
    return std::visit(
        [](const auto& of) -> Point {
            if constexpr (requires { of.of; }) return of.of.origin();
            if constexpr (requires { of.flat; }) return of.flat.origin;
            if constexpr (requires { of.outlines; }) return of.lines.origin;
            if constexpr (requires { of.bounds; }) return of.bounds.at;
            if constexpr (requires { of.corner_radius; }) return of.origin;
            if constexpr (requires { of.half_width(); }) return of.origin();
        },
        geometry);
}

bool is_straight(const Geometry& geometry) noexcept {
    if (const auto* const lines = as<LinesGeometry>(geometry)) return lines->is_straight;
    if (const auto* const box = as<BoxGeometry>(geometry)) return box->corner_radius == 0;
    if (const auto* const letters = as<LettersGeometry>(geometry)) return letters->is_straight;
    return as<PixelsGeometry>(geometry) != nullptr;
}

Surroundings surroundings_of(const Geometry& geometry) {
    if (const auto* const ellipse = as<EllipseGeometry>(geometry)) return around_ellipse(*ellipse);
    if (const auto* const box = as<BoxGeometry>(geometry)) return {{box->left, box->top}, {box->right, box->bottom}};
    if (const auto* const lines = as<LinesGeometry>(geometry)) return around_nodes(*lines);
    if (const auto* const letters = as<LettersGeometry>(geometry)) return around_letters(*letters);
    if (const auto* const pixels = as<PixelsGeometry>(geometry)) {
        const auto& size = pixels->bounds.size;
        return {{-1, -1}, {double{1} * size.width, double{1} * size.height}};
    }
    if (const auto* const ring = as<RingGeometry>(geometry)) {
        return ring->sweep ? around_sweep(ring->of, *ring->sweep) : around_ellipse(ring->of);
    }
    return std::visit(
        [](const auto& of) {
            if constexpr (requires { around_sweep(of.of, of.sweep); }) return around_sweep(of.of, of.sweep);
            return Surroundings{};
        },
        geometry);
}

RingsAndLines rings_and_lines(const LinesGeometry& geometry) {
    if (geometry.is_area_only) return split_rings(geometry.flat);
    auto none = FlatPath{.origin = geometry.flat.origin, .subpaths = {}};
    if (geometry.has_inside) return {.rings = geometry.flat, .lines = std::move(none)};
    return {.rings = std::move(none), .lines = geometry.flat};
}

CountedVector<Subpath> edges_of(const EllipseGeometry& geometry, const Tolerance& tolerance) {
    // It begins where its first axis ends.
    auto subpath = rim_of(geometry, {.from = geometry.turn(), .by = Angle::degrees(360)}, tolerance);
    subpath.close();
    return {std::move(subpath)};
}

CountedVector<Subpath> edges_of(const SectorGeometry& geometry, const Tolerance& tolerance) {
    if (Turn{geometry.sweep}.is_whole) return edges_of(geometry.of, tolerance);
    Subpath subpath;
    subpath.add(geometry.of.center());
    geometry.of.add_rim(Turn{geometry.sweep}, of_form(geometry.of, tolerance), subpath);
    subpath.close();
    return {std::move(subpath)};
}

CountedVector<Subpath> edges_of(const ChordGeometry& geometry, const Tolerance& tolerance) {
    if (Turn{geometry.sweep}.is_whole) return edges_of(geometry.of, tolerance);
    auto subpath = rim_of(geometry.of, geometry.sweep, tolerance);
    if (!subpath.nodes.empty()) subpath.nodes.front().smooth = subpath.nodes.back().smooth = false;
    subpath.close();
    return {std::move(subpath)};
}

CountedVector<Subpath> edges_of(const RingGeometry& geometry, const Tolerance& tolerance) {
    const auto hole = hole_of(geometry);
    if (!geometry.sweep || Turn{*geometry.sweep}.is_whole) {
        auto edges = edges_of(geometry.of, tolerance);
        if (hole) {
            edges.push_back(edges_of(*hole, tolerance).front());
            edges.back().reverse();
        }
        return edges;
    }
    if (!hole) return edges_of(SectorGeometry{.of = geometry.of, .sweep = *geometry.sweep}, tolerance);
    auto subpath = rim_of(geometry.of, *geometry.sweep, tolerance);
    auto back = rim_of(*hole, *geometry.sweep, tolerance);
    back.reverse();
    for (auto* const of : {&subpath, &back}) {
        if (!of->nodes.empty()) of->nodes.front().smooth = of->nodes.back().smooth = false;
    }
    subpath.end_curve();
    for (auto& node : back.nodes) subpath.add(node);
    subpath.close();
    return {std::move(subpath)};
}

CountedVector<Subpath> edges_of(const PixelsGeometry& geometry, const Tolerance&) {
    return outline_subpaths(geometry.spans, geometry.bounds.at);
}

Subpath subpath_of(const ArcGeometry& geometry, const Tolerance& tolerance) {
    auto subpath = rim_of(geometry.of, geometry.sweep, tolerance);
    if (Turn{geometry.sweep}.is_whole) subpath.close();
    return subpath;
}

CountedVector<Subpath> edges_of(const BoxGeometry& box, const Tolerance& tolerance) {
    const auto from_box = tolerance.relative_to({double{1} * box.origin.x, double{1} * box.origin.y});
    Subpath subpath;
    const auto k = box.corner_radius;
    const auto corner = [&](Vec tip, Vec from, Vec to) {
        if (k == 0) return subpath.add(tip);
        const auto place = RoundPlaces{.center = tip - (from + to) * k, .half_axes = {k, k}};
        subpath.add_joint(place(from), place.along(from));
        add_chords(from, to, place, from_box, subpath);
        subpath.add_joint(place(to), place.along(to));
    };
    corner({box.right, box.top}, {0, -1}, {1, 0});
    corner({box.right, box.bottom}, {1, 0}, {0, 1});
    corner({box.left, box.bottom}, {0, 1}, {-1, 0});
    corner({box.left, box.top}, {-1, 0}, {0, -1});
    // A path begins where its first straight side does.
    subpath.rotate_to_last();
    subpath.close();
    return {std::move(subpath)};
}

}  // namespace coldbrick::inline v0::detail
