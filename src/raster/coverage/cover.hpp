// How much of each pixel lies inside contours: exact areas, to pixels' 255ths.
#pragma once

#include "raster/spans/window.hpp"

#include "coldbrick/budget.hpp"
#include "coldbrick/detail/span_receiver.hpp"

#include <cstdint>
#include <vector>

namespace coldbrick::inline v0::detail {

// A place in units of 2^-14 pixel, up to 2^33 pixels from the origin.
struct FinePoint {
    std::int64_t x;
    std::int64_t y;
};

// A straight edge of a contour of a group (forms/outline.hpp).
struct FineSegment {
    FinePoint from;
    FinePoint to;
    int group;
};

inline constexpr int fine_bits = 14;
inline constexpr std::int64_t fine_unit = std::int64_t{1} << fine_bits;

// Rounded to 2^-32, so that it can be moved by whole pixels without being rounded: what is drawn at a pixel does not
// depend on the window then.
inline double in_grid(double pixels) noexcept {
    constexpr auto large = 0x1p19;
    constexpr auto rounding = 0x1.8p20;
    return pixels > -large && pixels < large ? (pixels + rounding) - rounding : pixels;
}

// A part of an edge in the rows of a window. Pixels from the window's upper left corner on: pixel (i, j) of it is the
// square from there to (i + 1, j + 1).
struct CoverEdge {
    double top;
    double bottom;
    double x;  // at the top
    double slope;
    double first_x;  // where it begins, above the window perhaps
    double first_y;
    std::int16_t direction;  // 1 down, -1 up
    std::uint16_t group;

    [[nodiscard]] double x_at(double y) const noexcept { return first_x + in_grid((y - first_y) * slope); }
};

// Windows that are wider than any picture that is looked at as a whole are those of searches for bounds: their memory
// goes by the edges, and not by the columns.
inline constexpr auto widest_dense_window = 1 << 17;

// Edges of closed contours in up to most_groups groups.
class CoverEdges {
  public:
    explicit CoverEdges(const Window& window) noexcept : window_{window} {}

    // A straight edge of a contour. Those that do not matter in the window are left out.
    void add(FinePoint from, FinePoint to, int group);

    [[nodiscard]] const Window& window() const noexcept { return window_; }
    [[nodiscard]] CountedVector<CoverEdge>& edges() noexcept { return edges_; }
    [[nodiscard]] const CountedVector<CoverEdge>& edges() const noexcept { return edges_; }

    // Whether there are edges beyond the right side of the window.
    [[nodiscard]] bool has_more_right() const noexcept { return has_more_right_; }

  private:
    Window window_;
    bool has_more_right_ = false;
    CountedVector<CoverEdge> edges_;
};

inline constexpr std::size_t most_groups = 5;

// By the groups in which a place is inside: bit k says whether it is covered if those are the ones whose bits are set
// in k. Where it is inside of none, it is not.
using GroupTruth = std::uint32_t;

// The truth that holds(groups) tells for each set of groups.
template <class Holds>
constexpr GroupTruth group_truth(const Holds& holds) noexcept {
    GroupTruth truth = 0;
    for (auto groups = 1U; groups < 1U << most_groups; ++groups) truth |= holds(groups) ? 1U << groups : 0U;
    return truth;
}

// What is covered.
struct CoverRule {
    GroupTruth truth = group_truth([](unsigned groups) { return (groups & 1U) != 0; });  // the first one alone counts
    // Of each group: the bits of the winding number that count. 1 is even-odd, all is nonzero.
    int masks[most_groups] = {-1, -1, -1, -1, -1};
    // If not 0, what is covered is what lies inside of the first group but not of the second, which lies within it; the
    // contours of each do not cross, and go round it clockwise (1) or the other way (-1), and around its holes the
    // opposite way. Then nothing but areas is added up, whatever edges are beside each other.
    int clockwise = 0;
    bool is_alone = false;  // whether the first group is one contour, and there is no other
};

// Hands spans to a receiver: one that takes only pixels is told of those that have any coverage.
void take_cover(const SpanReceiver& receiver, std::span<const CoverSpan> spans);

// Hands the coverage over, row by row, and gives the box around the pixels that have any.
Box sweep_coverage(CoverEdges& edges, const CoverRule& rule, const SpanReceiver& receiver);

}  // namespace coldbrick::inline v0::detail
