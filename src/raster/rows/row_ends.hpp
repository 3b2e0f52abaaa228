// Small shapes that have one run in each row, by the hairlines around them.
#pragma once

#include "raster/rows/edge_rows.hpp"

#include <algorithm>
#include <array>
#include <cstddef>
#include <limits>

namespace coldbrick::inline v0::detail {

// The first and the last pixel of each row of a box of up to `most` rows and columns.
class RowEnds {
  public:
    static constexpr int most = 64;

    // Without pixels.
    explicit RowEnds(const Box& box) noexcept : box_{box} {
        std::fill_n(ends_.begin(), box.size.height,
                    Ends{.first = std::numeric_limits<int>::max(), .last = std::numeric_limits<int>::min()});
    }

    // The pixels of an edge's hairline in the box (rule 3 of docs/pixel-rules.md): one for each step along it, the
    // nearest, and of two as near the lesser.
    void add_hairline(const PointEdge& edge) noexcept { edge.steep() ? add_steep(edge) : add_flat(edge); }

    // The rows, once each has a pixel.
    [[nodiscard]] int top() const noexcept { return box_.at.y; }
    [[nodiscard]] int bottom() const noexcept { return box_.at.y + box_.size.height; }
    [[nodiscard]] Run columns() const noexcept { return {.left = box_.at.x, .right = box_.at.x + box_.size.width}; }
    [[nodiscard]] Run run(int y) const noexcept {
        const auto [first, last] = ends_[static_cast<std::size_t>(y - box_.at.y)];
        return {.left = first, .right = last + 1};
    }

  private:
    struct Ends {
        int first;
        int last;
    };

    void add(std::ptrdiff_t row, int x) noexcept {
        auto& [first, last] = ends_[static_cast<std::size_t>(row)];
        first = std::min(first, x);
        last = std::max(last, x);
    }

    // From above: one pixel in each row.
    void add_steep(const PointEdge& edge) noexcept {
        const auto top = box_.at.y;
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
    void add_flat(const PointEdge& edge) noexcept {
        const auto top = box_.at.y;
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

    Box box_;
    std::array<Ends, most> ends_;  // of the rows that there are
};

}  // namespace coldbrick::inline v0::detail
