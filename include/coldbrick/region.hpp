// coldbrick/region.hpp - sets of pixels: made from any area, combined, filled, stroked, and used as clips.
//
//     const Region lake{Circle{.center = {80, 60}, .radius = 40}};
//     const Region isle{star({.center = {80, 60}, .radius = 15})};
//     const Region water = difference(lake, isle);
//     fill  (chart, water, colors::teal);
//     stroke(chart, water, {.width = 3}, colors::navy);                // around its outline
//     stroke(chart.within(water), wave, colors::white);                // draws only there
//
// A region is kept as spans: memory and the time of everything here grow with their number, not with the area.
#pragma once

#include "coldbrick/budget.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/error.hpp"
#include "coldbrick/spans.hpp"

#include <cstdint>
#include <span>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// A region is an area. Its stroke follows the outline of its pixels, as that of other closed shapes; outer corners are
// always round, so that it is as thick along slanted outlines as along straight ones, and Stroke::join is not asked.
class Region {
  public:
    // Without pixels.
    Region() noexcept = default;

    // The pixels of an area (spans.hpp), all or those in a box. Throws Error as drawing the area would.
    template <detail::AnyArea Area>
    explicit Region(const Area& area) : Region{area, coldbrick::bounds(area)} {}
    template <detail::AnyArea Area>
    Region(const Area& area, const Box& within) {
        for_each_span(area, within, [&](const Span& run) { spans_.push_back(run); });
        measure();
    }

    // Of spans that come sorted by row, then column, and neither overlap nor touch. Throws Error for others.
    static Region of_spans(const std::vector<Span>& spans);

    [[nodiscard]] bool empty() const noexcept { return spans_.empty(); }

    // How many pixels it has.
    [[nodiscard]] std::int64_t area() const noexcept { return area_; }

    // The smallest box around it; empty where it is.
    [[nodiscard]] Box bounds() const noexcept { return bounds_; }

    [[nodiscard]] bool contains(Point pixel) const noexcept;

    // Its pixels, sorted by row, then column; the spans neither overlap nor touch.
    [[nodiscard]] std::span<const Span> spans() const& noexcept { return spans_; }
    template <class Spans = Span>
    [[nodiscard]] std::span<const Span> spans() const&& {
        static_assert(detail::never<Spans>, "this region is gone at the end of the line: give it a name first");
        return {};
    }

    // The spans of a row.
    [[nodiscard]] std::span<const Span> row(int y) const& noexcept;
    template <class Spans = Span>
    [[nodiscard]] std::span<const Span> row(int) const&& {
        static_assert(detail::never<Spans>, "this region is gone at the end of the line: give it a name first");
        return {};
    }

    // The same pixels further right and down. Throws Error if one would lie beyond the numbers (2^31 - 1).
    [[nodiscard]] Region shifted(Point by) const;

    // Whether both have the same pixels.
    friend bool operator==(const Region& a, const Region& b) noexcept { return a.spans_ == b.spans_; }

  private:
    friend Region unite(const Region& a, const Region& b);
    friend Region intersection(const Region& a, const Region& b);
    friend Region difference(const Region& a, const Region& b);
    friend Region symmetric_difference(const Region& a, const Region& b);

    explicit Region(detail::CountedVector<Span>&& spans) noexcept : spans_{std::move(spans)} { measure(); }
    void measure() noexcept;

    detail::CountedVector<Span> spans_;
    Box bounds_;
    std::int64_t area_ = 0;
};

// The pixels that are in either region; in both; in the first but not in the second; in one of them only.
[[nodiscard]] Region unite(const Region& a, const Region& b);
[[nodiscard]] Region intersection(const Region& a, const Region& b);
[[nodiscard]] Region difference(const Region& a, const Region& b);
[[nodiscard]] Region symmetric_difference(const Region& a, const Region& b);

}  // namespace v0
}  // namespace coldbrick
