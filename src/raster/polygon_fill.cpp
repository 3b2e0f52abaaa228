// Polygons to spans.
//
// In each row the edges give runs of pixels that are covered in any case, sorted from left to right, and the fill
// rule says after each whether the pixels up to the next one are inside. With inclusive edges these are the runs of
// the hairlines: a run reaches up to the pixel at which its edge crosses the row, so no gap opens between run and
// interior. With shared edges they are empty runs, each before the first pixel right of the crossing or on it.
#include "raster/edge_rows.hpp"
#include "raster/polygon_checks.hpp"
#include "raster/span_batch.hpp"

#include <array>
#include <limits>
#include <memory_resource>
#include <vector>

namespace coldbrick::detail {

namespace {

// An edge that has a part in the window, with the direction in which the outline goes along it: 1 down, -1 up.
struct DirectedEdge {
    Edge edge;
    int first_row;  // the first in the window
    int direction;
};

template <class Rows>
struct ActiveEdge {
    Rows rows;
    int last_row;
    int direction;
};

// What differs between inclusive and shared edges.
template <class Steps>
struct InclusiveEdges {
    using Rows = HairlineRows<Steps>;
    static constexpr bool crosses_last_row = false;
    static bool counts(const Edge&) noexcept { return true; }
    static int last_row(const Edge& edge) noexcept { return edge.lower.y; }
};

template <class Steps>
struct SharedEdges {
    using Rows = CrossingRows<Steps>;
    static constexpr bool crosses_last_row = true;
    static bool counts(const Edge& edge) noexcept { return edge.height() > 0; }
    static int last_row(const Edge& edge) noexcept { return edge.lower.y - 1; }
};

std::size_t vertex_count(const Polygon& polygon) noexcept {
    std::size_t count = 0;
    for (const auto& ring : polygon.rings()) count += ring.size();
    return count;
}

template <class Kind>
void find_edges(const Polygon& polygon, const Window& window, std::pmr::vector<DirectedEdge>& edges) {
    edges.reserve(vertex_count(polygon));
    for (const auto& ring : polygon.rings()) {
        auto from = ring.back();
        for (const auto to : ring) {
            const auto edge = Edge::between(from, to);
            const auto visible =
                edge.upper.y < window.bottom && Kind::last_row(edge) >= window.top && edge.left() < window.right;
            if (visible && Kind::counts(edge)) {
                edges.push_back({.edge = edge,
                                 .first_row = std::max(edge.upper.y, window.top),
                                 .direction = from.y < to.y ? 1 : -1});
            }
            from = to;
        }
    }
    std::sort(edges.begin(), edges.end(),
              [](const DirectedEdge& a, const DirectedEdge& b) { return a.first_row < b.first_row; });
}

// Goes down the rows of the window with the edges that are in each.
template <class Kind>
class RowSweep {
  public:
    RowSweep(const Polygon& polygon, const Window& window, FillRule rule)
        : winding_mask_{rule == FillRule::even_odd ? 1 : -1} {
        find_edges<Kind>(polygon, window, waiting_);
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
            sort_active();
            const auto next_first = next_ < waiting_.size() ? waiting_[next_].first_row : bottom;
            const auto end = std::min({next_end_, next_first, bottom});
            y = y < end ? add_rows(batch, y, end) : add_last_row(batch, y);
        }
    }

  private:
    using Active = ActiveEdge<typename Kind::Rows>;

    void activate(int y) {
        for (; next_ < waiting_.size() && waiting_[next_].first_row == y; ++next_) {
            const auto& [edge, first_row, direction] = waiting_[next_];
            active_.push_back({.rows = typename Kind::Rows{edge, first_row},
                               .last_row = Kind::last_row(edge),
                               .direction = direction});
            next_end_ = std::min(next_end_, active_.back().last_row);
            sorted_ = false;
        }
    }

    // By where their runs begin. From one row to the next little changes.
    void sort_active() {
        if (sorted_) return;
        std::sort(active_.begin(), active_.end(),
                  [](const Active& a, const Active& b) { return a.rows.run().left < b.rows.run().left; });
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
        auto begin = edges.front().rows.run().left;
        auto end = begin;
        auto winding = 0;
        auto next_left = std::numeric_limits<int>::min();
        auto places_changed = 0U;
        for (auto& edge : edges) {
            const auto [left, right] = edge.rows.run();
            const auto inside = (winding & winding_mask) != 0;
            if (!inside && left > end) {
                emit(begin, end);
                begin = left;
            }
            end = std::max(end, right);
            winding += edge.direction;
            edge.rows.advance();
            const auto next = edge.rows.run().left;
            places_changed |= static_cast<unsigned>(next < next_left);
            next_left = next;
        }
        // Edges right of the window are not among the active ones.
        if ((winding & winding_mask) != 0) end = std::max(end, window_end);
        emit(begin, end);
        return places_changed == 0;
    }

    // Polygons of a few dozen vertices need no memory but this.
    std::array<std::byte, 4096> nearby_;
    std::pmr::monotonic_buffer_resource memory_{nearby_.data(), nearby_.size()};
    std::pmr::vector<DirectedEdge> waiting_{&memory_};
    std::size_t next_ = 0;
    std::pmr::vector<Active> active_{&memory_};
    bool sorted_ = true;
    int next_end_ = std::numeric_limits<int>::max();  // the row in which the next active edge ends
    int winding_mask_;
};

// Whether all edges are short enough for ShortSteps.
bool is_short(const Polygon& polygon) noexcept {
    const auto [least, most] = [&] {
        auto low = polygon.rings().front().front();
        auto high = low;
        for (const auto& ring : polygon.rings()) {
            for (const auto [x, y] : ring) {
                low = {.x = std::min(low.x, x), .y = std::min(low.y, y)};
                high = {.x = std::max(high.x, x), .y = std::max(high.y, y)};
            }
        }
        return std::pair{low, high};
    }();
    return std::int64_t{most.x} - least.x <= short_extent && std::int64_t{most.y} - least.y <= short_extent;
}

template <class Steps>
void sweep(const Polygon& polygon, const Fill& how, SpanBatch& batch) {
    if (how.edges == Edges::shared) {
        RowSweep<SharedEdges<Steps>>{polygon, batch.window(), how.rule}.run(batch);
    } else {
        RowSweep<InclusiveEdges<Steps>>{polygon, batch.window(), how.rule}.run(batch);
    }
}

}  // namespace

Box scan_fill(const Polygon& shape, const Fill& how, const Box& clip, const SpanReceiver& receiver) {
    check_polygon(shape);
    SpanBatch batch{window_of(clip), receiver};
    if (batch.window().empty()) return {};
    if (is_short(shape)) {
        sweep<ShortSteps>(shape, how, batch);
    } else {
        sweep<ExactSteps>(shape, how, batch);
    }
    return batch.finish();
}

}  // namespace coldbrick::detail
