#include "raster/strokes/quarter_areas.hpp"

#include <algorithm>
#include <cmath>

namespace coldbrick::inline v0::detail {

namespace {

int half_up(int count) noexcept { return (count + 1) / 2; }

}  // namespace

QuarterAreas::QuarterAreas(const QuarterEdge& edge, const Size& box, int first, int end,
                           std::pmr::memory_resource* memory)
    : center_{edge.center},
      axes_{edge.half_axes},
      scale_{axes_.x > 0 ? 1 / axes_.x : 0, axes_.y > 0 ? 1 / axes_.y : 0},
      middle_{box.width / 2.0, box.height / 2.0},
      left_{center_.x - axes_.x},
      top_{center_.y - axes_.y},
      first_{first},
      heights_(static_cast<std::size_t>(half_up(box.width)) + 1, memory),
      across_(static_cast<std::size_t>(end - first) + 1, memory) {
    auto x = 0;
    for (auto& height : heights_) height = height_at(std::clamp(double{1} * x++, left_, middle_.x));
    auto y = first;
    for (auto& across : across_) across = across_at(std::min(double{1} * y++, middle_.y));
}

double QuarterAreas::height_at(double x) const noexcept {
    const auto along = std::clamp((center_.x - x) * scale_.x, 0.0, 1.0);
    return center_.y - axes_.y * std::sqrt((1 - along) * (1 + along));
}

double QuarterAreas::across_at(double y) const noexcept {
    const auto along = std::clamp((center_.y - y) * scale_.y, 0.0, 1.0);
    return center_.x - axes_.x * std::sqrt((1 - along) * (1 + along));
}

QuarterAreas::Band QuarterAreas::band_of(int row) const noexcept {
    const auto* const across = &across_[static_cast<std::size_t>(row - first_)];
    return {.top = double{1} * row,
            .bottom = std::min(double{1} * row + 1, middle_.y),
            .across_top = across[0],
            .across_bottom = across[1]};
}

QuarterAreas::Columns QuarterAreas::of_row(int row) const noexcept {
    const auto band = band_of(row);
    const auto columns = static_cast<int>(heights_.size()) - 1;
    if (band.bottom <= top_) return {.begin = columns, .end = columns};
    const auto begin = std::min(static_cast<int>(band.across_bottom), columns);
    // Where the shape begins within the row, no column is covered whole.
    if (band.top < top_) return {.begin = begin, .end = columns};
    return {.begin = begin, .end = std::clamp(static_cast<int>(std::ceil(band.across_top)), begin, columns)};
}

void QuarterAreas::set_areas(int row, const Columns& columns, double* areas) const noexcept {
    const auto band = band_of(row);
    const auto rows_share = band.bottom - band.top;
    for (auto column = columns.begin; column < columns.end; ++column) {
        const auto begin = double{1} * column;
        const auto end = std::min(begin + 1, middle_.x);
        const auto* const heights = &heights_[static_cast<std::size_t>(column)];
        const auto from = Place{std::max(begin, left_), heights[0]};
        const auto to = Place{end, heights[1]};
        // The curve may turn straight within the column.
        const auto turns = center_.x > from.x && center_.x < end;
        const auto area = turns ? area_below(from, {center_.x, top_}, band) + area_below({center_.x, top_}, to, band)
                                : area_below(from, to, band);
        *areas++ = area / ((end - begin) * rows_share);
    }
}

// What of a band lies between two places, below the curve from one to the other.
double QuarterAreas::area_below(const Place& left, const Place& right, const Band& band) const noexcept {
    if (right.y >= band.bottom) return 0;
    if (left.y <= band.top) return (right.x - left.x) * (band.bottom - band.top);
    const auto from = left.y > band.bottom ? Place{band.across_bottom, band.bottom} : left;
    const auto to = right.y < band.top ? Place{band.across_top, band.top} : right;
    const auto across = to.x - from.x;
    return (right.x - to.x) * (band.bottom - band.top) + across * (band.bottom - (from.y + to.y) / 2) +
           area_beyond_chord(across, from.y - to.y);
}

// Between a chord and its arc. On the unit circle, a chord of length 2s cuts off asin(s) - s sqrt(1 - s^2), which is a
// series in s for short ones.
double QuarterAreas::area_beyond_chord(double across, double down) const noexcept {
    const auto u = across * scale_.x;
    const auto v = down * scale_.y;
    const auto square = (u * u + v * v) / 4;
    const auto s = std::sqrt(square);
    constexpr auto is_short = 0.15;
    if (square > is_short) return axes_.x * axes_.y * (std::asin(std::min(s, 1.0)) - s * std::sqrt(1 - square));
    constexpr auto first = 2.0 / 3;
    constexpr auto second = 1.0 / 5;
    constexpr auto third = 3.0 / 28;
    constexpr auto fourth = 5.0 / 72;
    return axes_.x * axes_.y * square * s * (first + square * (second + square * (third + square * fourth)));
}

}  // namespace coldbrick::inline v0::detail
