// Goes down the rows of a window with the edges that cross each, and says what is inside.
//
// In each row the edges give runs of pixels that are covered in any case, sorted from left to right, and the fill rule
// says after each whether the pixels up to the next one are inside.
//
// Kind says what the edges are:
//   Waiting        an edge of which nothing has been seen, with first_row, its first row in the window
//   Active         an edge in a row: run(), advance() to the next row, last_row, direction (1 down, -1 up)
//   activate(w)    makes an Active of a Waiting
//   crosses_last_row   whether an edge counts for the winding number in its last row
#pragma once

#include "geometry/budget_memory.hpp"
#include "geometry/thresholds.hpp"
#include "raster/spans/convex_rows.hpp"
#include "raster/spans/span_batch.hpp"

#include "coldbrick/fill.hpp"

#include <algorithm>
#include <limits>
#include <memory_resource>
#include <numeric>
#include <vector>

namespace coldbrick::inline v0::detail {

// Sorts edges by their first row: many of them by counting those of each row.
template <class Waiting>
void sort_by_first_row(std::pmr::vector<Waiting>& edges, const Window& window) {
    const auto earlier = [](const Waiting& a, const Waiting& b) { return a.first_row < b.first_row; };
    const auto rows = static_cast<std::size_t>(std::int64_t{window.bottom} - window.top);
    if (edges.size() <= thresholds::few_edges || rows / 4 > edges.size()) {
        sort_in_budget(edges.begin(), edges.end(), earlier);
        return;
    }
    if (std::is_sorted(edges.begin(), edges.end(), earlier)) return;
    std::pmr::vector<std::size_t> ends(rows, edges.get_allocator());
    const auto row_of = [&](const Waiting& edge) { return static_cast<std::size_t>(edge.first_row - window.top); };
    for (const auto& edge : edges) ++ends[row_of(edge)];
    std::partial_sum(ends.begin(), ends.end(), ends.begin());
    std::pmr::vector<Waiting> sorted{edges, edges.get_allocator()};
    for (const auto& edge : edges) sorted[--ends[row_of(edge)]] = edge;
    edges.swap(sorted);
}

// Sorts what is nearly sorted in few steps; else as usual.
template <class Edges, class Before>
void sort_nearly_sorted(Edges& edges, const Before& before) {
    auto moves = 8 * edges.size() + 64;
    for (std::size_t i = 1; i < edges.size(); ++i) {
        if (!before(edges[i], edges[i - 1])) continue;
        const auto edge = edges[i];
        auto place = i;
        for (; place > 0 && before(edge, edges[place - 1]) && moves > 0; --place, --moves) {
            edges[place] = edges[place - 1];
        }
        edges[place] = edge;
        if (moves == 0) return sort_in_budget(edges.begin(), edges.end(), before);
    }
}

template <class Kind>
class RowSweep {
  public:
    using Waiting = typename Kind::Waiting;
    using Active = typename Kind::Active;

    // The edges have a part in the window; those that lie right of it are left out.
    RowSweep(std::pmr::vector<Waiting>& edges, const Window& window, FillRule rule)
        : waiting_{edges}, active_{edges.get_allocator()}, winding_mask_{rule == FillRule::even_odd ? 1 : -1} {
        sort_by_first_row(waiting_, window);
        active_.reserve(waiting_.size());
    }

    void run(SpanBatch& batch) {
        const auto bottom = batch.window().bottom;
        auto y = bottom;
        while (true) {
            if (active_.empty()) {
                if (next_ == waiting_.size()) return;
                y = waiting_[next_].first_row;
            }
            if (y >= bottom) return;
            activate(y);
            spend_work(active_.size());
            sort_active();
            const auto next_first = next_ < waiting_.size() ? waiting_[next_].first_row : bottom;
            const auto end = std::min({next_end_, next_first, bottom});
            y = y < end ? add_rows(batch, y, end) : add_last_row(batch, y);
        }
    }

  private:
    void activate(int y) {
        for (; next_ < waiting_.size() && waiting_[next_].first_row == y; ++next_) {
            active_.push_back(Kind::activate(waiting_[next_]));
            next_end_ = std::min(next_end_, active_.back().last_row);
            sorted_ = false;
        }
    }

    // By where their runs begin. From one row to the next little changes.
    void sort_active() {
        if (sorted_) return;
        sort_nearly_sorted(active_, [](const Active& a, const Active& b) { return a.run().left < b.run().left; });
        sorted_ = true;
    }

    // Rows up to the end, or until the edges change places. Gives the next row.
    int add_rows(SpanBatch& batch, int y, int end) {
        const auto edges = std::span<Active>{active_};
        const auto mask = winding_mask_;
        const auto window_end = batch.window().right;
        if (edges.size() < SpanBatch::most_in_row) {
            return batch.add_rows(y, end, [&](int, const auto& emit) {
                sorted_ = add_row(edges, mask, window_end, emit);
                return sorted_;
            });
        }
        for (sorted_ = true; sorted_ && y < end; ++y) {
            spend_work(edges.size());
            sorted_ = add_row(edges, mask, window_end, [&](int left, int right) { batch.add(y, left, right); });
        }
        return y;
    }

    // A row in which an edge ends. Gives the next row.
    int add_last_row(SpanBatch& batch, int y) {
        if constexpr (!Kind::crosses_last_row) {
            for (auto& edge : active_) edge.direction = edge.last_row == y ? 0 : edge.direction;
        }
        add_rows(batch, y, y + 1);
        std::erase_if(active_, [y](const Active& edge) { return edge.last_row == y; });
        next_end_ = std::numeric_limits<int>::max();
        for (const auto& edge : active_) next_end_ = std::min(next_end_, edge.last_row);
        return y + 1;
    }

    // The runs, and what lies between them where the winding number, cut to the bits of the mask, is not 0. Each edge
    // goes on to the next row. Says whether they are still sorted there.
    template <class Emit>
    static bool add_row(std::span<Active> edges, int winding_mask, int window_end, const Emit& emit) {
        auto begin = edges.front().run().left;
        auto end = begin;
        auto winding = 0;
        auto next_left = std::numeric_limits<int>::min();
        auto places_changed = 0U;
        for (auto& edge : edges) {
            const auto [left, right] = edge.run();
            const auto inside = (winding & winding_mask) != 0;
            if (!inside && left > end) {
                emit(begin, end);
                begin = left;
            }
            end = std::max(end, right);
            winding += edge.direction;
            edge.advance();
            const auto next = edge.run().left;
            places_changed |= static_cast<unsigned>(next < next_left);
            next_left = next;
        }
        // Edges right of the window are not among the active ones.
        if ((winding & winding_mask) != 0) end = std::max(end, window_end);
        emit(begin, end);
        return places_changed == 0;
    }

    std::pmr::vector<Waiting>& waiting_;
    std::size_t next_ = 0;
    std::pmr::vector<Active> active_;
    bool sorted_ = true;
    int next_end_ = std::numeric_limits<int>::max();  // the row in which the next active edge ends
    int winding_mask_;
};

}  // namespace coldbrick::inline v0::detail
