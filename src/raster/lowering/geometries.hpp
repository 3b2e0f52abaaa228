// What shapes are lowered to: a few geometries, each with its place, checked.
#pragma once

#include "raster/edges/box_geometry.hpp"
#include "raster/edges/ellipse_geometry.hpp"
#include "raster/edges/flat_path.hpp"

#include "coldbrick/budget.hpp"
#include "coldbrick/detail/span_sink.hpp"

#include <optional>
#include <span>
#include <variant>

namespace coldbrick::inline v0::detail {

// The part of an ellipse in a sweep: as a slice of a cake, as what a chord cuts off, as a line.
struct SectorGeometry {
    EllipseGeometry of;
    Sweep sweep;
};
struct ChordGeometry {
    EllipseGeometry of;
    Sweep sweep;
};
struct ArcGeometry {
    EllipseGeometry of;
    Sweep sweep;
};

// What of a disc is at most so far from its edge, or the part of it in a sweep.
struct RingGeometry {
    EllipseGeometry of;
    double thickness;
    std::optional<Sweep> sweep;
};

// Lines and chords of curves.
struct LinesGeometry {
    FlatPath flat;
    bool has_inside = false;    // whether it is an area, of which all subpaths count as closed
    bool is_area_only = false;  // whether closed subpaths only are stroked as those of areas
    bool is_straight = true;    // whether there are no curves
    double margin = 0;          // how far curves may lie beside their chords
};

// A set of pixels: sorted spans that neither overlap nor touch, and the box around them.
struct PixelsGeometry {
    std::span<const Span> spans;
    Box bounds;
};

// What lies inside of outlines by the nonzero rule, and what a round pen of some breadth covers along lines; both from
// one origin.
struct LettersGeometry {
    FlatPath outlines;
    FlatPath lines;
    double weight = 0;
    bool is_straight = true;  // whether nothing is round
    double margin = 0;
};

using Geometry = std::variant<EllipseGeometry, BoxGeometry, SectorGeometry, ChordGeometry, ArcGeometry, RingGeometry,
                              LinesGeometry, PixelsGeometry, LettersGeometry>;

template <class Kind>
const Kind* as(const Geometry& geometry) noexcept {
    return std::get_if<Kind>(&geometry);
}

// The lines of a geometry that has an inside.
inline const LinesGeometry* as_polygonal(const Geometry& geometry) noexcept {
    const auto* const lines = as<LinesGeometry>(geometry);
    return lines != nullptr && lines->has_inside ? lines : nullptr;
}

// Where it begins.
[[nodiscard]] Point origin_of(const Geometry& geometry) noexcept;

// Whether it is made of straight lines alone.
[[nodiscard]] bool is_straight(const Geometry& geometry) noexcept;

// A box around all places of its edge, relative to its origin.
[[nodiscard]] Surroundings surroundings_of(const Geometry& geometry);

// The lines of a polygonal geometry: all those of a polygon are rings, and of a path those that are closed.
[[nodiscard]] RingsAndLines rings_and_lines(const LinesGeometry& geometry);

// Its edges, clockwise around it, with curves in so much detail.
[[nodiscard]] CountedVector<Subpath> edges_of(const EllipseGeometry& geometry, const Tolerance& tolerance);
[[nodiscard]] CountedVector<Subpath> edges_of(const BoxGeometry& geometry, const Tolerance& tolerance);
[[nodiscard]] CountedVector<Subpath> edges_of(const SectorGeometry& geometry, const Tolerance& tolerance);
[[nodiscard]] CountedVector<Subpath> edges_of(const ChordGeometry& geometry, const Tolerance& tolerance);
[[nodiscard]] CountedVector<Subpath> edges_of(const RingGeometry& geometry, const Tolerance& tolerance);
[[nodiscard]] CountedVector<Subpath> edges_of(const PixelsGeometry& geometry, const Tolerance& tolerance);

// An arc's line.
[[nodiscard]] Subpath subpath_of(const ArcGeometry& geometry, const Tolerance& tolerance);

}  // namespace coldbrick::inline v0::detail
