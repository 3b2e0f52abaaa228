// What shapes are lowered to: a few forms, each with its place, checked.
#pragma once

#include "raster/edges/box_form.hpp"
#include "raster/edges/ellipse_form.hpp"
#include "raster/edges/flat_path.hpp"

#include "coldbrick/budget.hpp"
#include "coldbrick/detail/span_receiver.hpp"

#include <optional>
#include <span>
#include <variant>

namespace coldbrick::inline v0::detail {

// The part of an ellipse in a sweep: as a slice of a cake, as what a chord cuts off, as a line.
struct SectorForm {
    EllipseForm of;
    Sweep sweep;
};
struct ChordForm {
    EllipseForm of;
    Sweep sweep;
};
struct ArcForm {
    EllipseForm of;
    Sweep sweep;
};

// What of a disc is at most so far from its edge, or the part of it in a sweep.
struct RingForm {
    EllipseForm of;
    double thickness;
    std::optional<Sweep> sweep;
};

// Lines and chords of curves.
struct LinesForm {
    FlatPath flat;
    bool has_inside = false;    // whether it is an area, of which all tracks count as closed
    bool is_area_only = false;  // whether closed tracks only are stroked as those of areas
    bool is_straight = true;    // whether there are no curves
    double margin = 0;          // how far curves may lie beside their chords
};

// A set of pixels: sorted spans that neither overlap nor touch, and the box around them.
struct PixelsForm {
    std::span<const Span> spans;
    Box bounds;
};

// What lies inside of outlines by the nonzero rule, and what a round pen of some breadth covers along lines; both from
// one origin.
struct LettersForm {
    FlatPath outlines;
    FlatPath lines;
    double weight = 0;
    bool is_straight = true;  // whether nothing is round
    double margin = 0;
};

using Form =
    std::variant<EllipseForm, BoxForm, SectorForm, ChordForm, ArcForm, RingForm, LinesForm, PixelsForm, LettersForm>;

template <class Kind>
const Kind* as(const Form& form) noexcept {
    return std::get_if<Kind>(&form);
}

// The lines of a form that has an inside.
inline const LinesForm* as_polygonal(const Form& form) noexcept {
    const auto* const lines = as<LinesForm>(form);
    return lines != nullptr && lines->has_inside ? lines : nullptr;
}

// Where it begins.
[[nodiscard]] Point origin_of(const Form& form) noexcept;

// Whether it is made of straight lines alone.
[[nodiscard]] bool is_straight(const Form& form) noexcept;

// A box around all places of its edge, relative to its origin.
[[nodiscard]] Surroundings surroundings_of(const Form& form);

// The lines of a polygonal form: all those of a polygon are rings, and of a path those that are closed.
[[nodiscard]] RingsAndLines rings_and_lines(const LinesForm& form);

// Its edges, clockwise around it, with curves in so much detail.
[[nodiscard]] CountedVector<Track> edges_of(const EllipseForm& form, const Detail& detail);
[[nodiscard]] CountedVector<Track> edges_of(const BoxForm& form, const Detail& detail);
[[nodiscard]] CountedVector<Track> edges_of(const SectorForm& form, const Detail& detail);
[[nodiscard]] CountedVector<Track> edges_of(const ChordForm& form, const Detail& detail);
[[nodiscard]] CountedVector<Track> edges_of(const RingForm& form, const Detail& detail);
[[nodiscard]] CountedVector<Track> edges_of(const PixelsForm& form, const Detail& detail);

// An arc's line.
[[nodiscard]] Track track_of(const ArcForm& form, const Detail& detail);

}  // namespace coldbrick::inline v0::detail
