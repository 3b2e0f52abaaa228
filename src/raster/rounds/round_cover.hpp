// Upright circles, ellipses, rounded boxes and their strokes with smooth edges, by a quarter of each.
#pragma once

#include "raster/edges/box_geometry.hpp"
#include "raster/edges/ellipse_geometry.hpp"
#include "raster/rounds/quarter_areas.hpp"
#include "raster/strokes/stroker.hpp"

#include "coldbrick/detail/span_sink.hpp"

#include <optional>

namespace coldbrick::inline v0::detail {

// What lies between two edges that run beside an upright ellipse or a box with round corners, or within the outer one
// if it is alone.
struct RoundBand {
    // A box of pixels that contains it and has the same centre.
    Box box;
    QuarterEdge outer;
    std::optional<QuarterEdge> inner;
};

// The edge at a distance of an upright ellipse, or of a box with round corners of a radius there, within a box of
// pixels with the same centre. Beside a circle it is another one.
QuarterEdge offset_edge(const Box& around, const Vec& half_axes, double distance) noexcept;
QuarterEdge edge_around(const Box& around, const Vec& half_size, double radius, double distance) noexcept;

// The fill of an ellipse, and a stroke of it, as such a band. Nothing if the ellipse is turned, very large, not centred
// on a pixel or halfway between two; of strokes, if it is very thin, or if the inner curve meets itself.
[[nodiscard]] std::optional<RoundBand> round_fill(const EllipseGeometry& geometry);
[[nodiscard]] std::optional<RoundBand> round_stroke(const EllipseGeometry& geometry, const Band& band);

// The same of a box with round corners or sharp ones, which a round join makes round outside.
[[nodiscard]] std::optional<RoundBand> round_fill(const BoxGeometry& geometry);
[[nodiscard]] std::optional<RoundBand> round_stroke(const BoxGeometry& geometry, const Band& band, Join join);

// An upright ellipse, or a box whose corners are quarters of one, of whole pixels: what its corners are cut to.
struct RoundPart {
    Box box;
    Vec corner;
};

// The same of one that is small; nothing of larger ones, and of what the above have nothing of.
[[nodiscard]] std::optional<RoundBand> small_round_fill(const RoundPart& part) noexcept;
[[nodiscard]] std::optional<RoundBand> small_round_stroke(const RoundPart& part, const Band& band) noexcept;

// The coverage of it in the clip.
Box scan_round_cover(const RoundBand& band, const Box& clip, const SpanSink& sink);

}  // namespace coldbrick::inline v0::detail
