#include "raster/coverage/cover.hpp"

#include "raster/coverage/cover_batch.hpp"
#include "raster/coverage/cover_cells.hpp"
#include "raster/coverage/cover_line.hpp"
#include "raster/coverage/cover_row.hpp"
#include "raster/rows/row_sweep.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>
#include <tuple>

namespace coldbrick::inline v0::detail {

void CoverEdges::add(FinePoint from, FinePoint to, int group) {
    if (from.y == to.y) return;
    const auto is_down = from.y < to.y;
    const auto& [upper, lower] = is_down ? std::pair{from, to} : std::pair{to, from};
    // A pixel begins half a pixel before its centre.
    const auto offset_x = std::int64_t{window_.left} * fine_unit - fine_unit / 2;
    const auto offset_y = std::int64_t{window_.top} * fine_unit - fine_unit / 2;
    const auto height = (std::int64_t{window_.bottom} - window_.top) * fine_unit;
    const auto width = (std::int64_t{window_.right} - window_.left) * fine_unit;
    if (lower.y <= offset_y || upper.y >= offset_y + height) return;
    if (std::min(from.x, to.x) >= offset_x + width) {
        has_more_right_ = true;
        return;
    }
    constexpr auto unit = static_cast<double>(fine_unit);
    const auto top = static_cast<double>(upper.y - offset_y) / unit;
    const auto bottom = static_cast<double>(lower.y - offset_y) / unit;
    const auto slope = static_cast<double>(lower.x - upper.x) / static_cast<double>(lower.y - upper.y);
    const auto x = static_cast<double>(upper.x - offset_x) / unit;
    CoverEdge edge{.top = std::max(top, 0.0),
                   .bottom = std::min(bottom, static_cast<double>(height) / unit),
                   .x = x,
                   .slope = slope,
                   .first_x = x,
                   .first_y = top,
                   .direction = static_cast<std::int16_t>(is_down ? 1 : -1),
                   .group = static_cast<std::uint16_t>(group)};
    edge.x = edge.x_at(edge.top);
    edges_.push_back(edge);
}

namespace {

constexpr auto most_columns = RowLine::most_columns;

// By the row in which each begins.
void sort_by_rows(CountedVector<CoverEdge>& edges, int rows) {
    const auto row_of = [](const CoverEdge& edge) { return static_cast<std::size_t>(edge.top); };
    const auto is_before = [&](const CoverEdge& a, const CoverEdge& b) { return row_of(a) < row_of(b); };
    if (std::is_sorted(edges.begin(), edges.end(), is_before)) return;
    constexpr std::size_t few = 64;
    if (edges.size() < few || static_cast<std::size_t>(rows) > edges.size()) {
        sort_in_budget(edges.begin(), edges.end(), is_before);
        return;
    }
    CountedVector<std::size_t> ends(static_cast<std::size_t>(rows));
    for (const auto& edge : edges) ++ends[row_of(edge)];
    std::partial_sum(ends.begin(), ends.end(), ends.begin());
    CountedVector<CoverEdge> sorted(edges.size());
    for (auto i = edges.size(); i-- > 0;) sorted[--ends[row_of(edges[i])]] = edges[i];
    edges.swap(sorted);
}

// Goes down the rows with the edges that cross each. Rows in which edges only go through, in the same order, are told
// line by line. Rows in which edges begin, end or cross are measured pixel by pixel.
template <class Steps>
class CoverSweep {
  public:
    CoverSweep(CoverEdges& edges, const CoverRule& rule, const SpanReceiver& receiver)
        : window_{edges.window()},
          edges_{edges.edges()},
          clockwise_{rule.clockwise},
          is_alone_{rule.is_alone},
          covers_{rule},
          row_{width()},
          batch_{window_, receiver},
          cells_{window_, covers_, batch_} {}

    Box run() {
        sort_by_rows(edges_, window_.bottom - window_.top);
        const auto rows = window_.bottom - window_.top;
        for (auto y = 0; y < rows;) {
            if (active_.empty()) {
                if (started_ == edges_.size()) break;
                y = std::max(y, static_cast<int>(edges_[started_].top));
            }
            spend_work(active_.size() + 1);
            if (clockwise_ != 0 && !is_alone_) {
                take_sum(y++);
                continue;
            }
            const auto alike = rows_alike(y);
            if (alike > 0) {
                take_rows_alike(y, alike);
            } else {
                clockwise_ != 0 ? sum_row(y) : take_row(y);
            }
            y += std::max(alike, 1);
            go_on(y);
        }
        return batch_.finish();
    }

  private:
    // In how many rows from y on edges only go through, in the order that they have.
    [[nodiscard]] int rows_alike(int y) const noexcept {
        if (is_dense()) return 0;
        auto end = window_.bottom - window_.top;
        if (started_ < edges_.size()) end = std::min(end, static_cast<int>(edges_[started_].top));
        for (const auto& edge : active_) end = std::min(end, static_cast<int>(edge.bottom));
        for (std::size_t i = 1; i < active_.size() && end > y; ++i) {
            const auto room = active_[i].x - active_[i - 1].x;
            const auto closing = active_[i - 1].slope - active_[i].slope;
            if (closing * (end - y) > room) end = y + static_cast<int>(std::max(room, 0.0) / closing);
        }
        return end - y;
    }

    void take_rows_alike(int y, int count) {
        lines_.clear();
        Windings windings;
        auto was_inside = false;
        for (const auto& edge : active_) {
            covers_.add(windings, edge.group, edge.direction);
            const auto is_inside = covers_(windings);
            if (is_inside != was_inside) lines_.push_back(row_line(edge.x, edge.slope, is_inside));
            was_inside = is_inside;
        }
        // Lines beyond the right side of the window are left out; it stands for the last one.
        if (lines_.size() % 2 == 1) {
            lines_.push_back(row_line(width(), 0, false));
            lines_.back().columns = 0;
        }
        for (auto row = 0; row < count; ++row) {
            spend_work(lines_.size());
            for (auto& line : lines_) line.come_to(row, width());
            tell_row(y + row);
        }
    }

    [[nodiscard]] int width() const noexcept { return window_.right - window_.left; }

    // Left and right sides come in pairs. Pairs that go over the same columns are summed up together.
    void tell_row(int y) {
        for (std::size_t i = 0; i < lines_.size();) {
            const auto& left = lines_[i];
            const auto& right = lines_[i + 1];
            auto is_simple = left.begin >= 0 && left.end() <= right.begin && right.end() <= width() &&
                             std::max(left.columns, right.columns) <= most_columns;
            auto end = i + 2;
            for (; end < lines_.size() && lines_[end].begin < lines_[end - 1].end(); end += 2) is_simple = false;
            if (is_simple) {
                tell_pair(y, left, right);
            } else {
                sum_up(y, {&lines_[i], end - i});
            }
            i = end;
        }
    }

    void tell_pair(int y, const RowLine& left, const RowLine& right) {
        // They lie in the window.
        const auto place = [&](std::int64_t column) { return static_cast<int>(window_.left + column); };
        const auto tell = [&](const RowLine& line) {
            batch_.add_set(window_.top + y, place(line.begin), line.columns,
                           [&](std::uint8_t* bytes) { set_bytes_along(line, bytes); });
        };
        tell(left);
        batch_.add_alike(window_.top + y, place(left.end()), place(right.begin), 255);
        tell(right);
    }

    void sum_up(int y, std::span<const RowLine> lines) {
        for (const auto& line : lines) row_.add(line.left, line.left + line.width, line.is_left_side ? 1 : -1);
        hand_over(y);
    }

    // What lies right of a left side is covered, and right of a right side no more; of the second group it is the other
    // way round.
    void take_sum(int y) {
        for (; started_ < edges_.size() && edges_[started_].top < y + 1; ++started_)
            active_.push_back(edges_[started_]);
        std::size_t kept = 0;
        for (auto& edge : active_) {
            const auto bottom = std::min(edge.bottom, double{1} * y + 1);
            const auto height = bottom - edge.top;
            const auto x = edge.x_at(bottom);
            const auto side = edge.group == 0 ? -clockwise_ : clockwise_;
            row_.add(edge.x, x, side * edge.direction * height);
            if (edge.bottom <= y + 1) continue;
            edge.x = x;
            edge.top = bottom;
            if (&active_[kept] != &edge) active_[kept] = edge;
            ++kept;
        }
        active_.resize(kept);
        hand_over(y);
    }

    // The same of a row between others that are told by lines.
    void sum_row(int y) {
        for (; started_ < edges_.size() && edges_[started_].top < y + 1; ++started_) {
            active_.push_back(edges_[started_]);
        }
        for (const auto& edge : active_) {
            const auto height = std::min(edge.bottom, double{1} * y + 1) - edge.top;
            row_.add(edge.x, edge.x_at(edge.top + height), -clockwise_ * edge.direction * height);
        }
        hand_over(y);
    }

    void take_row(int y) {
        auto is_whole = !has_ends_;
        for (; started_ < edges_.size() && edges_[started_].top < y + 1; ++started_) {
            active_.push_back(edges_[started_]);
            is_whole = false;
        }
        if (!is_whole || !is_sorted_ || !stay_sorted(y + 1)) return cells_.take_row(active_, y);
        add_lines(y + 1);
        hand_over(y);
    }

    // Whether edges that are in order at the top of a row are so at its bottom.
    [[nodiscard]] bool stay_sorted(double bottom) const noexcept {
        auto before = -std::numeric_limits<double>::infinity();
        for (const auto& edge : active_) {
            const auto x = edge.x_at(bottom);
            if (x < before) return false;
            before = x;
        }
        return true;
    }

    // Edges that go all through a row and do not cross: those at which inside begins or ends.
    void add_lines(double bottom) {
        Windings windings;
        auto was_inside = false;
        for (const auto& edge : active_) {
            covers_.add(windings, edge.group, edge.direction);
            const auto is_inside = covers_(windings);
            if (is_inside != was_inside) row_.add(edge.x, edge.x_at(bottom), is_inside ? 1 : -1);
            was_inside = is_inside;
        }
    }

    // To the row that begins at y: leaves out what has ended, and keeps the others in order. Edges' tops become that
    // row's, and has_ends_ says whether any ends in it.
    void go_on(double y) {
        has_ends_ = false;
        std::size_t kept = 0;
        for (auto& edge : active_) {
            if (edge.bottom <= y) continue;
            edge.x = edge.x_at(y);
            edge.top = y;
            has_ends_ = has_ends_ || edge.bottom < y + 1;
            if (&active_[kept] != &edge) active_[kept] = edge;
            ++kept;
        }
        active_.resize(kept);
        is_sorted_ = !is_dense();
        if (!is_sorted_) return;
        sort_nearly_sorted(active_, [](const CoverEdge& a, const CoverEdge& b) { return a.x < b.x; });
    }

    // So many edges in a row that they are not kept in order.
    [[nodiscard]] bool is_dense() const noexcept {
        constexpr std::size_t many = 4096;
        return active_.size() > many;
    }

    void hand_over(int y) {
        row_.flush([&](int begin, int end, const std::uint8_t* each, std::uint8_t all) {
            if (each != nullptr) return batch_.add_each(window_.top + y, window_.left + begin, each, end - begin);
            batch_.add_alike(window_.top + y, window_.left + begin, window_.left + end, all);
        });
    }

    const Window window_;
    CountedVector<CoverEdge>& edges_;
    int clockwise_;
    bool is_alone_;
    CoverTruth covers_;
    CoverRow<Steps> row_;
    CoverBatch batch_;
    CoverCells cells_;
    std::size_t started_ = 0;  // how many of the edges have begun
    CountedVector<CoverEdge> active_;
    bool has_ends_ = false;
    bool is_sorted_ = true;  // whether the active edges are, but for those that have just begun
    CountedVector<RowLine> lines_;
};

}  // namespace

void take_cover(const SpanReceiver& receiver, std::span<const CoverSpan> spans) {
    if (receiver.take_cover != nullptr) return receiver.take_cover(receiver.context, spans);
    // Who asks only for pixels is told of those that have any coverage.
    const auto tell = [&](const Span& run) { receiver.take(receiver.context, {&run, 1}); };
    for (const auto& span : spans) {
        if (span.each == nullptr) {
            tell({.y = span.y, .x = span.x, .length = span.length});
            continue;
        }
        auto begin = 0;
        for (auto i = 0; i <= span.length; ++i) {
            if (i < span.length && span.each[i] != 0) continue;
            if (i > begin) tell({.y = span.y, .x = span.x + begin, .length = i - begin});
            begin = i + 1;
        }
    }
}

Box sweep_coverage(CoverEdges& edges, const CoverRule& rule, const SpanReceiver& receiver) {
    if (edges.edges().empty()) return {};
    const auto width = std::int64_t{edges.window().right} - edges.window().left;
    if (width > widest_dense_window) return CoverSweep<SparseSteps>{edges, rule, receiver}.run();
    return CoverSweep<DenseSteps>{edges, rule, receiver}.run();
}

}  // namespace coldbrick::inline v0::detail
