// How the box around a shape's pixels is found where no formula gives it.
#pragma once

#include "raster/window.hpp"

#include "coldbrick/spans.hpp"

#include <functional>

namespace coldbrick::detail {

// Takes no spans.
inline constexpr SpanReceiver nobody{
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

// The smallest box around what scan(clip) finds of a shape, filled or stroked and placed. The time grows with its rows
// up to some thousands, and hardly beyond. Of curves over 2^22 pixels wide or high, of dashed
// hairlines over 2^16 pixels high and of more than 2^22 edges it is a box that contains them and is not much larger.
[[nodiscard]] Box find_bounds(const ShapeRef& shape, const Fill& how, const Transform& by,
                              const std::function<Box(const Box&)>& scan);
[[nodiscard]] Box find_bounds(const ShapeRef& shape, const Stroke& how, const Transform& by,
                              const std::function<Box(const Box&)>& scan);

// The box grown on all sides, as far as the numbers go.
Box grown(const Box& box, int by) noexcept;

}  // namespace coldbrick::detail
