// How the box around a geometry's pixels is found where no formula gives it.
#pragma once

#include "raster/lowering/geometries.hpp"
#include "raster/spans/window.hpp"

#include "coldbrick/fill.hpp"
#include "coldbrick/stroke.hpp"

#include <algorithm>
#include <functional>

namespace coldbrick::inline v0::detail {

// Takes no spans.
inline constexpr SpanSink null_sink{
    .context = nullptr, .take = [](void*, std::span<const Span>) {}, .repeats = Repeats::harmless};

// The smallest box around the pixels that scan(clip) finds within a box: some thousand rows at a time, so that memory
// stays small. Time grows with the rows.
template <class Scan>
Box bounds_by_rows(const Box& outer, const Scan& scan) {
    constexpr auto at_once = std::int64_t{1} << 14U;
    const auto rows = window_of(outer);
    auto box = Box{};
    for (auto top = std::int64_t{rows.top}; top < rows.bottom; top += at_once) {
        auto part = rows;
        part.top = static_cast<int>(top);
        part.bottom = static_cast<int>(std::min<std::int64_t>(top + at_once, rows.bottom));
        box = enclosing(box, scan(box_of(part)));
    }
    return box;
}

// What is asked: lower(detail) gives the geometry with curves in so much detail, scan(clip) looks at what lies in a
// clip.
struct BoundsSearch {
    std::function<Geometry(const Tolerance&)> lower;
    std::function<Box(const Box&)> scan;
};

// Returns the smallest box around what is found of a geometry, filled or stroked and placed. The time grows with its
// rows up to some thousands, and hardly beyond. Of curves over 2^22 pixels wide or high, of dashed hairlines over 2^16
// pixels high, of dashes too many to be drawn and of needles along 2^17 rows without a pixel it is a box that contains
// them.
[[nodiscard]] Box find_bounds(const BoundsSearch& search, const Fill& how, const Transform& by);
[[nodiscard]] Box find_bounds(const BoundsSearch& search, const Stroke& how, const Transform& by);

// How far the chords of curves may lie beside them where a box around them is enough: surroundings allow for it.
inline constexpr auto rough_flatness = 16.0;

// A box that contains it, however large, which is found without looking for its pixels.
[[nodiscard]] Box rough_bounds(const Geometry& geometry, const Fill& how, const Transform& by);
[[nodiscard]] Box rough_bounds(const Geometry& geometry, const Stroke& how, const Transform& by);

}  // namespace coldbrick::inline v0::detail
