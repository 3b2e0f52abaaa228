// Polygons to spans.
//
// In each row the edges give runs of pixels that are covered in any case, sorted from left to right, and the fill rule
// says after each whether the pixels up to the next one are inside. With inclusive edges these are the runs of the
// hairlines: a run reaches up to the pixel at which its edge crosses the row, so no gap opens between run and interior.
// With shared edges they are empty runs, each before the first pixel right of the crossing or on it.
#include <string>
#include <vector>

#include "coldbrick/error.hpp"
#include "geometry/limits.hpp"
#include "raster/edge_rows.hpp"
#include "raster/polygon_checks.hpp"
#include "raster/span_batch.hpp"

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

// An edge that has a part in the window, with the direction in which the outline goes along it: 1 down, -1 up.
struct DirectedEdge {
    Edge edge;
    int first_row;  // the first in the window
    int direction;
};

// The covered pixels that an edge gives in a row, and how it changes the winding number to the right of them.
struct EdgeRun {
    int left;
    int right;
    int winding;
};

template <class Rows>
struct ActiveEdge {
    Rows rows;
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

void sort_runs(std::vector<EdgeRun>& runs) {
    const auto by_left = [](const EdgeRun& a, const EdgeRun& b) { return a.left < b.left; };
    if (!std::is_sorted(runs.begin(), runs.end(), by_left)) std::sort(runs.begin(), runs.end(), by_left);
}

// The runs, and what lies between them where the winding number, cut to the bits of the mask, is not 0.
void add_row(SpanBatch& batch, int y, const std::vector<EdgeRun>& runs, int winding_mask) {
    auto begin = runs.front().left;
    auto end = begin;
    auto winding = 0;
    for (const auto& run : runs) {
        const auto inside = (winding & winding_mask) != 0;
        if (!inside && run.left > end) {
            batch.add(y, begin, end);
            begin = run.left;
            end = begin;
        }
        end = std::max({end, run.left, run.right});
        winding += run.winding;
    }
    batch.add(y, begin, end);
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
            gather_runs(y);
            sort_runs(runs_);
            add_row(batch, y, runs_, winding_mask_);
        }
    }

  private:
    void activate(int y) {
        for (; next_ < waiting_.size() && waiting_[next_].first_row == y; ++next_) {
            const auto& [edge, first_row, direction] = waiting_[next_];
            active_.push_back({.rows = typename Kind::Rows{edge, first_row},
                               .last_row = Kind::last_row(edge),
                               .crossed_rows_end = edge.lower.y,
                               .direction = direction});
        }
    }

    // The runs of row y; then each edge goes on to the next row, or out if this was its last.
    void gather_runs(int y) {
        runs_.clear();
        auto ended = false;
        for (auto& edge : active_) {
            const auto [left, right] = edge.rows.run();
            runs_.push_back(
                {.left = left, .right = right, .winding = y < edge.crossed_rows_end ? edge.direction : 0});
            ended |= y == edge.last_row;
            edge.rows.advance();
        }
        if (ended) std::erase_if(active_, [y](const auto& edge) { return edge.last_row == y; });
    }

    std::vector<DirectedEdge> waiting_;
    std::size_t next_ = 0;
    std::vector<ActiveEdge<typename Kind::Rows>> active_;
    std::vector<EdgeRun> runs_;
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
