#include "raster/cover.hpp"

#include "raster/cover_batch.hpp"
#include "raster/cover_row.hpp"
#include "raster/row_sweep.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>
#include <tuple>

namespace coldbrick::detail {

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
    if (std::min(from.x, to.x) >= offset_x + width) return;
    constexpr auto unit = static_cast<double>(fine_unit);
    const auto top = static_cast<double>(upper.y - offset_y) / unit;
    const auto bottom = static_cast<double>(lower.y - offset_y) / unit;
    const auto slope = static_cast<double>(lower.x - upper.x) / static_cast<double>(lower.y - upper.y);
    const auto x = static_cast<double>(upper.x - offset_x) / unit;
    const auto cut = std::max(0.0, -top);
    edges_.push_back({.top = std::max(top, 0.0),
                      .bottom = std::min(bottom, static_cast<double>(height) / unit),
                      .x = x + cut * slope,
                      .slope = slope,
                      .direction = is_down ? 1 : -1,
                      .group = group});
}

namespace {

// A line between what is covered and what is not, in rows that it goes through from top to bottom. What it leaves of
// pixels is told for as many columns in each row: one more than it goes over wherever it lies, on the covered side.
struct RowLine {
    double start;  // its left end in the first of the rows
    double slope;
    double width;      // from its left to its right end in a row
    double steepness;  // half of 1 / width
    int columns;
    bool is_left_side;
    // In the row at hand:
    double left = 0;
    int begin = 0;

    [[nodiscard]] int end() const noexcept { return begin + columns; }
};

constexpr auto most_columns = 512;

RowLine row_line(double x, double slope, bool is_left_side) noexcept {
    const auto width = std::fabs(slope);
    return {.start = x + std::min(slope, 0.0),
            .slope = slope,
            .width = width,
            .steepness = width > 0 ? 0.5 / width : 0,
            .columns = static_cast<int>(std::min(width, double{most_columns})) + 2,
            .is_left_side = is_left_side};
}

// How much of the columns lies on the covered side of a line.
void set_bytes_along(const RowLine& line, std::uint8_t* bytes) noexcept {
    const auto [width, steepness, columns] = std::tuple{line.width, line.steepness, line.columns};
    const auto scale = line.is_left_side ? 255.0 : -255.0;
    const auto base = (line.is_left_side ? 0.0 : 255.0) + half_of_byte;
    auto reach = line.begin - line.left;
    // What lies right of the line up to the end of a column.
    auto before = 0.0;
    for (int i = 0; i < columns; ++i) {
        reach += 1;
        const auto beyond_left = std::max(reach, 0.0);
        const auto over_line = std::min(beyond_left, width);
        const auto right_of_line = over_line * over_line * steepness + (beyond_left - over_line);
        bytes[i] = static_cast<std::uint8_t>(static_cast<int>(base + scale * (right_of_line - before)));
        before = right_of_line;
    }
}

// Goes down the rows with the edges that cross each. Rows in which edges only go through, in the same order, are told
// line by line. A row in which edges begin, end or cross is cut into bands in which none do; there, what is inside lies
// between lines one beside the other.
class CoverSweep {
  public:
    CoverSweep(CoverEdges& edges, const CoverRule& rule, const SpanReceiver& receiver)
        : window_{edges.window()},
          edges_{edges.edges()},
          rule_{rule},
          has_one_group_{rule.truth == 0b10},
          row_{window_.right - window_.left},
          batch_{window_, receiver} {}

    Box run() {
        std::sort(edges_.begin(), edges_.end(), [](const CoverEdge& a, const CoverEdge& b) { return a.top < b.top; });
        const auto rows = window_.bottom - window_.top;
        for (auto y = 0; y < rows;) {
            if (active_.empty()) {
                if (started_ == edges_.size()) break;
                y = std::max(y, static_cast<int>(edges_[started_].top));
            }
            const auto alike = rows_alike(y);
            alike > 0 ? take_rows_alike(y, alike) : take_row(y);
            y += std::max(alike, 1);
            go_on(y);
        }
        return batch_.finish();
    }

  private:
    // An edge in a band: where it crosses its upper and its lower side.
    struct Crossing {
        double above;
        double below;
        int direction;
        int group;
    };

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
        int windings[3] = {0, 0, 0};
        auto was_inside = false;
        for (const auto& edge : active_) {
            windings[edge.group] += edge.direction;
            const auto is_inside = covers(windings);
            if (is_inside != was_inside) lines_.push_back(row_line(edge.x, edge.slope, is_inside));
            was_inside = is_inside;
        }
        // Lines beyond the right side of the window are left out; it stands for the last one.
        if (lines_.size() % 2 == 1) {
            lines_.push_back(row_line(width(), 0, false));
            lines_.back().columns = 0;
        }
        for (auto row = 0; row < count; ++row) {
            for (auto& line : lines_) place_in_row(line, row);
            tell_row(y + row);
        }
    }

    [[nodiscard]] int width() const noexcept { return window_.right - window_.left; }

    // Places far outside the window are as good as some just outside.
    void place_in_row(RowLine& line, int row) const noexcept {
        constexpr auto outside = 2 * most_columns;
        line.left = line.start + row * line.slope;
        const auto end = line.is_left_side ? line.left : line.left + line.width;
        const auto near_end = std::clamp(end, double{-outside}, double{1} * width() + outside);
        const auto column = static_cast<int>(near_end + outside) - outside;
        line.begin = line.is_left_side ? column : column + 1 - line.columns;
    }

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
        const auto tell = [&](const RowLine& line) {
            batch_.add_set(window_.top + y, window_.left + line.begin, line.columns,
                           [&](std::uint8_t* bytes) { set_bytes_along(line, bytes); });
        };
        tell(left);
        batch_.add_alike(window_.top + y, window_.left + left.end(), window_.left + right.begin, 255);
        tell(right);
    }

    void sum_up(int y, std::span<const RowLine> lines) {
        for (const auto& line : lines) row_.add(line.left, line.left + line.width, line.is_left_side ? 1 : -1);
        hand_over(y);
    }

    void take_row(int y) {
        auto is_whole = !has_ends_;
        for (; started_ < edges_.size() && edges_[started_].top < y + 1; ++started_) {
            active_.push_back(edges_[started_]);
            is_whole = false;
        }
        if (is_dense()) {
            take_sampled_row(y);
        } else {
            is_whole ? take_whole_row() : take_cut_row(y);
        }
        hand_over(y);
    }

    // To the row that begins at y: leaves out what has ended, and keeps the others in order. Edges' tops become that
    // row's, and has_ends_ says whether any ends in it.
    void go_on(double y) {
        has_ends_ = false;
        std::size_t kept = 0;
        for (auto& edge : active_) {
            if (edge.bottom <= y) continue;
            edge.x += edge.slope * (y - edge.top);
            edge.top = y;
            has_ends_ = has_ends_ || edge.bottom < y + 1;
            if (&active_[kept] != &edge) active_[kept] = edge;
            ++kept;
        }
        active_.resize(kept);
        if (is_dense()) return;
        sort_nearly_sorted(active_, [](const CoverEdge& a, const CoverEdge& b) { return a.x < b.x; });
    }

    // So many edges in a row that they are sorted band by band only.
    [[nodiscard]] bool is_dense() const noexcept {
        constexpr std::size_t many = 4096;
        return active_.size() > many;
    }

    void take_whole_row() {
        crossings_.clear();
        auto is_sorted = true;
        auto before = -std::numeric_limits<double>::infinity();
        for (const auto& edge : active_) {
            const auto below = edge.x + edge.slope;
            is_sorted = is_sorted && below >= before;
            before = below;
            crossings_.push_back({.above = edge.x, .below = below, .direction = edge.direction, .group = edge.group});
        }
        is_sorted ? add_lines(crossings_, 1) : take_crossings(1);
    }

    void take_cut_row(double top) {
        cuts_.clear();
        for (const auto& edge : active_) {
            if (edge.top > top) cuts_.push_back(edge.top);
            if (edge.bottom < top + 1) cuts_.push_back(edge.bottom);
        }
        if (cuts_.size() > few_cuts && (cuts_.size() + 1) * active_.size() > exact_work) return take_sampled_row(top);
        std::sort(cuts_.begin(), cuts_.end());
        auto begin = top;
        for (const auto cut : cuts_) {
            if (cut > begin) take_band(begin, cut);
            begin = std::max(begin, cut);
        }
        if (begin < top + 1) take_band(begin, top + 1);
    }

    // Takes what crosses the middle of a band as going all through it, or only what does so.
    template <class Takes>
    void gather(double begin, double end, const Takes& takes) {
        crossings_.clear();
        for (const auto& edge : active_) {
            if (!takes(edge)) continue;
            crossings_.push_back({.above = edge.x + (begin - edge.top) * edge.slope,
                                  .below = edge.x + (end - edge.top) * edge.slope,
                                  .direction = edge.direction,
                                  .group = edge.group});
        }
    }

    void take_band(double begin, double end) {
        gather(begin, end, [=](const CoverEdge& edge) { return edge.top <= begin && edge.bottom >= end; });
        take_crossings(end - begin);
    }

    // In bands of one height, as many as there is time for.
    void take_sampled_row(double top) {
        const auto bands = bands_for(active_.size());
        for (auto i = 0; i < bands; ++i) {
            const auto begin = top + double{1} * i / bands;
            const auto end = top + double{1} * (i + 1) / bands;
            const auto middle = (begin + end) / 2;
            gather(begin, end, [=](const CoverEdge& edge) { return edge.top <= middle && edge.bottom > middle; });
            sort_by_middle(crossings_);
            add_lines(crossings_, end - begin);
        }
    }

    // Rows in which more happens than that, in edges times bands, are measured in bands of one height: where thousands
    // of edges come together in a row, no single one is seen any more.
    static constexpr std::size_t exact_work = 16384;
    static constexpr std::size_t few_cuts = 8;
    static int bands_for(std::size_t edges) noexcept {
        constexpr std::size_t work = 1 << 15;
        return static_cast<int>(std::clamp<std::size_t>(work / std::max<std::size_t>(edges, 1), 1, 256));
    }

    // Many of them first by the part of the window that they are in.
    void sort_by_middle(std::vector<Crossing>& crossings) {
        constexpr std::size_t many = 128;
        if (crossings.size() > many) deal(crossings);
        sort_nearly_sorted(crossings, [](const Crossing& a, const Crossing& b) { return middle(a) < middle(b); });
    }

    void deal(std::vector<Crossing>& crossings) {
        const auto parts = crossings.size();
        const auto scale = static_cast<double>(parts) / (2.0 * width());
        const auto part_of = [=](const Crossing& crossing) {
            const auto part = std::clamp(middle(crossing) * scale, 0.0, static_cast<double>(parts) - 1);
            return static_cast<std::size_t>(part);
        };
        ends_.assign(parts, 0);
        for (const auto& crossing : crossings) ++ends_[part_of(crossing)];
        std::partial_sum(ends_.begin(), ends_.end(), ends_.begin());
        dealt_.resize(parts);
        for (auto i = parts; i-- > 0;) dealt_[--ends_[part_of(crossings[i])]] = crossings[i];
        crossings.swap(dealt_);
    }

    // Sorts them, and where two change places cuts the band there.
    void take_crossings(double height) {
        work_ = 0;
        cut_at_crossings(height);
    }

    void cut_at_crossings(double height) {
        auto& crossings = crossings_;
        sort_by_middle(crossings);
        constexpr auto hardly = 1e-7;
        constexpr auto least_height = 1e-6;
        for (std::size_t i = 1; i < crossings.size() && height > least_height; ++i) {
            const auto over = crossings[i - 1].above - crossings[i].above;
            const auto under = crossings[i - 1].below - crossings[i].below;
            if (over <= hardly && under <= hardly) continue;
            const auto part = over / (over - under);
            if (!(part > hardly && part < 1 - hardly)) continue;
            work_ += crossings.size();
            if (work_ > exact_work) return add_sampled(height);
            return take_halves(height, part);
        }
        add_lines(crossings, height);
    }

    void take_halves(double height, double part) {
        auto lower = crossings_;
        for (std::size_t i = 0; i < lower.size(); ++i) {
            const auto between = crossings_[i].above + (crossings_[i].below - crossings_[i].above) * part;
            crossings_[i].below = lower[i].above = between;
        }
        cut_at_crossings(height * part);
        crossings_ = std::move(lower);
        cut_at_crossings(height * (1 - part));
    }

    void add_sampled(double height) {
        const auto whole = crossings_;
        const auto bands = bands_for(whole.size());
        for (auto k = 0; k < bands; ++k) {
            for (std::size_t i = 0; i < whole.size(); ++i) {
                const auto over = whole[i].below - whole[i].above;
                auto& part = crossings_[i];
                part = whole[i];
                part.above = whole[i].above + over * k / bands;
                part.below = whole[i].above + over * (k + 1) / bands;
            }
            sort_by_middle(crossings_);
            add_lines(crossings_, height / bands);
        }
        crossings_ = whole;
    }

    [[nodiscard]] static double middle(const Crossing& crossing) noexcept { return crossing.above + crossing.below; }

    void add_lines(const std::vector<Crossing>& crossings, double height) {
        int windings[3] = {0, 0, 0};
        auto was_inside = false;
        for (const auto& [above, below, direction, group] : crossings) {
            windings[group] += direction;
            const auto is_inside = covers(windings);
            if (is_inside != was_inside) row_.add(above, below, is_inside ? height : -height);
            was_inside = is_inside;
        }
    }

    [[nodiscard]] bool covers(const int (&windings)[3]) const noexcept {
        if (has_one_group_) return (windings[0] & rule_.masks[0]) != 0;
        auto inside = 0U;
        for (auto group = 0U; group < 3; ++group) {
            inside |= (windings[group] & rule_.masks[group]) != 0 ? 1U << group : 0U;
        }
        return ((rule_.truth >> inside) & 1U) != 0;
    }

    void hand_over(int y) {
        row_.flush([&](int begin, int end, const std::uint8_t* each, std::uint8_t all) {
            if (each != nullptr) return batch_.add_each(window_.top + y, window_.left + begin, each, end - begin);
            batch_.add_alike(window_.top + y, window_.left + begin, window_.left + end, all);
        });
    }

    const Window window_;
    std::vector<CoverEdge>& edges_;
    const CoverRule& rule_;
    bool has_one_group_;
    CoverRow row_;
    CoverBatch batch_;
    std::size_t started_ = 0;  // how many of the edges have begun
    std::vector<CoverEdge> active_;
    bool has_ends_ = false;
    std::vector<double> cuts_;
    std::vector<Crossing> crossings_;
    std::vector<Crossing> dealt_;
    std::vector<std::size_t> ends_;
    std::size_t work_ = 0;  // edges that have been looked at to cut the band at hand
    std::vector<RowLine> lines_;
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
    return CoverSweep{edges, rule, receiver}.run();
}

}  // namespace coldbrick::detail
