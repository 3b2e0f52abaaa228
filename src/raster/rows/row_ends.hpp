// Small shapes that have one run in each row, by the hairlines around them.
#pragma once

#include "raster/rows/edge_rows.hpp"

#include <algorithm>
#include <array>
#include <cstddef>
#include <limits>

namespace coldbrick::inline v0::detail {

// The first and the last pixel of each row.
class RowEnds {
  public:
    static constexpr int most = 64;
    std::array<int, most> first;
    std::array<int, most> last;

    // So many rows without pixels.
    void clear(int rows) noexcept {
        std::fill_n(first.begin(), rows, std::numeric_limits<int>::max());
        std::fill_n(last.begin(), rows, std::numeric_limits<int>::min());
    }
    void add(std::ptrdiff_t row, int x) noexcept {
        const auto at = static_cast<std::size_t>(row);
        first[at] = std::min(first[at], x);
        last[at] = std::max(last[at], x);
    }

    // The pixels of an edge's hairline (rule 3 of docs/pixel-rules.md): one for each step along it, the nearest, and of
    // two as near the lesser. Rows count from the top.
    void add_hairline(const PointEdge& edge, int top) noexcept {
        edge.steep() ? add_steep(edge, top) : add_flat(edge, top);
    }

  private:
    // From above: one pixel in each row.
    void add_steep(const PointEdge& edge, int top) noexcept {
        const auto along = static_cast<int>(edge.height());
        const auto across = static_cast<int>(edge.width());
        const auto is_leftward = edge.lower.x < edge.upper.x;
        const auto limit = is_leftward ? along - 1 : along;
        const auto step = is_leftward ? -1 : 1;
        auto x = edge.upper.x;
        auto place = 0;
        for (int row = edge.upper.y - top; row <= edge.lower.y - top; ++row) {
            add(row, x);
            place += 2 * across;
            const auto is_beyond = place > limit;
            x += is_beyond ? step : 0;
            place -= is_beyond ? 2 * along : 0;
        }
    }

    // From the left: of each row, the first and the last one count.
    void add_flat(const PointEdge& edge, int top) noexcept {
        const auto along = static_cast<int>(edge.width());
        const auto across = static_cast<int>(edge.height());
        const auto is_leftward = edge.lower.x < edge.upper.x;
        const auto limit = is_leftward ? along - 1 : along;
        const auto step = is_leftward ? -1 : 1;
        auto row = (is_leftward ? edge.lower.y : edge.upper.y) - top;
        auto place = 0;
        add(row, edge.left());
        for (int x = edge.left(); x < edge.right(); ++x) {
            place += 2 * across;
            if (place <= limit) continue;
            place -= 2 * along;
            add(row, x);
            row += step;
            add(row, x + 1);
        }
        add(row, edge.right());
    }
};

}  // namespace coldbrick::inline v0::detail
