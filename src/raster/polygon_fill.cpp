// Polygons to spans.
//
// In each row the edges give runs of pixels that are covered in any case, sorted from left to right, and the
// fill rule says after each whether the pixels up to the next one are inside. With inclusive edges these are
// the runs of the hairlines: a run reaches up to the pixel at which its edge crosses the row, so no gap opens
// between run and interior. With shared edges they are empty runs, each before the first pixel right of the
// crossing or on it.
#include "geometry/limits.hpp"
#include "raster/edge_rows.hpp"
#include "raster/polygon_checks.hpp"
#include "raster/span_batch.hpp"

#include "coldbrick/error.hpp"

#include <limits>
#include <string>
#include <vector>

namespace coldbrick::detail {

void check_polyline(const Polyline& polyline) {
    if (polyline.through.empty()) throw Error{"polyline: through has no points; it needs at least one"};
    for (std::size_t i = 0; i < polyline.through.size(); ++i) {
        const auto point = polyline.through[i];
        if (is_coordinate(point.x) && is_coordinate(point.y)) continue;
        refuse_point("polyline", "through[" + std::to_string(i) + "]", point);
    }
}

void check_polygon(const Polygon& polygon) {
    const auto& rings = polygon.rings();
    if (rings.empty()) throw Error{"polygon: it has no rings of vertices; it needs at least one"};
    for (std::size_t r = 0; r < rings.size(); ++r) {
        const auto name = [&] { return rings.size() == 1 ? "" : " (ring " + std::to_string(r) + ")"; };
        if (rings[r].empty()) throw Error{"polygon" + name() + ": it has no vertices; it needs at least one"};
        for (std::size_t i = 0; i < rings[r].size(); ++i) {
            const auto point = rings[r][i];
            if (is_coordinate(point.x) && is_coordinate(point.y)) continue;
            refuse_point("polygon" + name(), "vertex[" + std::to_string(i) + "]", point);
        }
    }
}

namespace {

// An edge that has a part in the window, with the direction in which the outline goes along it: 1 down, -1
// up.
struct DirectedEdge {
    Edge edge;
    int first_row;  // the first in the window
    int direction;
};

template <class Rows>
struct ActiveEdge {
    Rows rows;
    Run run;  // in the row at hand
    int last_row;
    int crossed_rows_end;  // the winding number changes in the rows before this one
    int direction;
};

// What differs between inclusive and shared edges.
struct InclusiveEdges {
    using Rows = HairlineRows;
    static bool counts(const Edge&) noexcept { return true; }
    static int last_row(const Edge& edge) noexcept { return edge.lower.y; }
};

struct SharedEdges {
    using Rows = CrossingRows;
    static bool counts(const Edge& edge) noexcept { return edge.height() > 0; }
    static int last_row(const Edge& edge) noexcept { return edge.lower.y - 1; }
};

template <class Kind>
std::vector<DirectedEdge> edges_in(const Polygon& polygon, const Window& window) {
    std::vector<DirectedEdge> edges;
    for (const auto& ring : polygon.rings()) {
        edges.reserve(edges.size() + ring.size());
        auto from = ring.back();
        for (const auto to : ring) {
            const auto edge = Edge::between(from, to);
            const auto visible = edge.upper.y < window.bottom && Kind::last_row(edge) >= window.top &&
                                 edge.left() < window.right;
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
    return edges;
}

// Goes down the rows of the window with the edges that are in each.
template <class Kind>
class RowSweep {
  public:
    RowSweep(const Polygon& polygon, const Window& window, FillRule rule)
        : waiting_{edges_in<Kind>(polygon, window)}, winding_mask_{rule == FillRule::even_odd ? 1 : -1} {}

    void run(SpanBatch& batch) {
        const auto bottom = batch.window().bottom;
        for (auto y = waiting_.empty() ? bottom : waiting_.front().first_row; y < bottom; ++y) {
            if (active_.empty() && next_ == waiting_.size()) return;
            if (active_.empty()) y = waiting_[next_].first_row;
            activate(y);
            sort_active();
            add_row(batch, y);
            if (y == next_end_) retire(y);
        }
    }

  private:
    using Active = ActiveEdge<typename Kind::Rows>;

    void activate(int y) {
        for (; next_ < waiting_.size() && waiting_[next_].first_row == y; ++next_) {
            const auto& [edge, first_row, direction] = waiting_[next_];
            const auto rows = typename Kind::Rows{edge, first_row};
            active_.push_back({.rows = rows,
                               .run = rows.run(),
                               .last_row = Kind::last_row(edge),
                               .crossed_rows_end = edge.lower.y,
                               .direction = direction});
            next_end_ = std::min(next_end_, active_.back().last_row);
            sorted_ = false;
        }
    }

    void retire(int y) {
        std::erase_if(active_, [y](const Active& edge) { return edge.last_row == y; });
        next_end_ = std::numeric_limits<int>::max();
        for (const auto& edge : active_) next_end_ = std::min(next_end_, edge.last_row);
    }

    // By where their runs begin. From one row to the next little changes.
    void sort_active() {
        if (sorted_) return;
        std::sort(active_.begin(), active_.end(),
                  [](const Active& a, const Active& b) { return a.run.left < b.run.left; });
    }

    // The runs, and what lies between them where the winding number, cut to the bits of the mask, is not 0.
    // Each edge goes on to the next row.
    void add_row(SpanBatch& batch, int y) {
        auto begin = active_.front().run.left;
        auto end = begin;
        auto winding = 0;
        auto next_left = std::numeric_limits<int>::min();
        sorted_ = true;
        for (auto& edge : active_) {
            const auto [left, right] = edge.run;
            const auto inside = (winding & winding_mask_) != 0;
            if (!inside && left > end) {
                batch.add(y, begin, end);
                begin = left;
                end = begin;
            }
            end = std::max({end, left, right});
            winding += y < edge.crossed_rows_end ? edge.direction : 0;
            edge.rows.advance();
            edge.run = edge.rows.run();
            sorted_ = sorted_ && next_left <= edge.run.left;
            next_left = edge.run.left;
        }
        batch.add(y, begin, end);
    }

    std::vector<DirectedEdge> waiting_;
    std::size_t next_ = 0;
    std::vector<Active> active_;
    bool sorted_ = true;
    int next_end_ = std::numeric_limits<int>::max();  // the row in which the next active edge ends
    int winding_mask_;
};

}  // namespace

Box scan_fill(const Polygon& shape, const Fill& how, const Box& clip, const SpanReceiver& receiver) {
    check_polygon(shape);
    SpanBatch batch{window_of(clip), receiver};
    if (batch.window().empty()) return {};
    if (how.edges == Edges::shared) {
        RowSweep<SharedEdges>{shape, batch.window(), how.rule}.run(batch);
    } else {
        RowSweep<InclusiveEdges>{shape, batch.window(), how.rule}.run(batch);
    }
    return batch.finish();
}

}  // namespace coldbrick::detail
