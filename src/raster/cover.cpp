#include "raster/cover.hpp"

#include "raster/cover_row.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

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

// Goes down the rows with the edges that cross each. A row in which edges begin, end or cross is cut into bands in
// which none do; there, what is inside lies between lines one beside the other.
class CoverSweep {
  public:
    CoverSweep(CoverEdges& edges, const CoverRule& rule, const SpanReceiver& receiver)
        : window_{edges.window()},
          edges_{edges.edges()},
          rule_{rule},
          has_one_group_{rule.truth == 0b10},
          receiver_{receiver},
          row_{window_.right - window_.left} {}

    Box run() {
        std::sort(edges_.begin(), edges_.end(), [](const CoverEdge& a, const CoverEdge& b) { return a.top < b.top; });
        const auto rows = window_.bottom - window_.top;
        std::size_t started = 0;
        for (auto y = 0; y < rows; ++y) {
            if (active_.empty()) {
                if (started == edges_.size()) break;
                y = std::max(y, static_cast<int>(edges_[started].top));
            }
            auto is_whole = !has_ends_;
            for (; started < edges_.size() && edges_[started].top < y + 1; ++started) {
                active_.push_back(edges_[started]);
                is_whole = false;
            }
            is_whole ? take_whole_row() : take_cut_row(y);
            hand_over(window_.top + y);
            go_on(y + 1);
        }
        return touched_;
    }

  private:
    // An edge in a band: where it crosses its upper and its lower side.
    struct Crossing {
        double above;
        double below;
        int direction;
        int group;
    };

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
            auto place = kept++;
            const auto is_in_place = &active_[place] == &edge && (place == 0 || active_[place - 1].x <= edge.x);
            if (is_in_place) continue;
            const auto moved = edge;
            for (; place > 0 && moved.x < active_[place - 1].x; --place) active_[place] = active_[place - 1];
            active_[place] = moved;
        }
        active_.resize(kept);
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
        is_sorted ? add_lines(1) : take_crossings(1);
    }

    void take_cut_row(double top) {
        cuts_.clear();
        for (const auto& edge : active_) {
            if (edge.top > top) cuts_.push_back(edge.top);
            if (edge.bottom < top + 1) cuts_.push_back(edge.bottom);
        }
        std::sort(cuts_.begin(), cuts_.end());
        auto begin = top;
        for (const auto cut : cuts_) {
            if (cut > begin) take_band(begin, cut);
            begin = std::max(begin, cut);
        }
        if (begin < top + 1) take_band(begin, top + 1);
    }

    void take_band(double begin, double end) {
        crossings_.clear();
        for (const auto& edge : active_) {
            if (edge.top > begin || edge.bottom < end) continue;
            crossings_.push_back({.above = edge.x + (begin - edge.top) * edge.slope,
                                  .below = edge.x + (end - edge.top) * edge.slope,
                                  .direction = edge.direction,
                                  .group = edge.group});
        }
        take_crossings(end - begin);
    }

    // Sorts them, and where two change places cuts the band there.
    void take_crossings(double height) {
        auto& crossings = crossings_;
        for (std::size_t i = 1; i < crossings.size(); ++i) {
            const auto moved = crossings[i];
            auto place = i;
            for (; place > 0 && middle(moved) < middle(crossings[place - 1]); --place) {
                crossings[place] = crossings[place - 1];
            }
            crossings[place] = moved;
        }
        constexpr auto hardly = 1e-7;
        constexpr auto least_height = 1e-6;
        for (std::size_t i = 1; i < crossings.size() && height > least_height; ++i) {
            const auto over = crossings[i - 1].above - crossings[i].above;
            const auto under = crossings[i - 1].below - crossings[i].below;
            if (over <= hardly && under <= hardly) continue;
            const auto part = over / (over - under);
            if (!(part > hardly && part < 1 - hardly)) continue;
            return take_halves(height, part);
        }
        add_lines(height);
    }

    void take_halves(double height, double part) {
        auto lower = crossings_;
        for (std::size_t i = 0; i < lower.size(); ++i) {
            const auto between = crossings_[i].above + (crossings_[i].below - crossings_[i].above) * part;
            crossings_[i].below = lower[i].above = between;
        }
        take_crossings(height * part);
        crossings_ = std::move(lower);
        take_crossings(height * (1 - part));
    }

    static double middle(const Crossing& crossing) noexcept { return crossing.above + crossing.below; }

    void add_lines(double height) {
        int windings[3] = {0, 0, 0};
        auto was_inside = false;
        for (const auto& [above, below, direction, group] : crossings_) {
            windings[group] += direction;
            const auto is_inside = has_one_group_ ? (windings[0] & rule_.masks[0]) != 0 : covers(windings);
            if (is_inside != was_inside) row_.add(above, below, is_inside ? height : -height);
            was_inside = is_inside;
        }
    }

    [[nodiscard]] bool covers(const int (&windings)[3]) const noexcept {
        auto inside = 0U;
        for (auto group = 0U; group < 3; ++group) {
            inside |= (windings[group] & rule_.masks[group]) != 0 ? 1U << group : 0U;
        }
        return ((rule_.truth >> inside) & 1U) != 0;
    }

    void hand_over(int y) {
        row_.flush([&](int begin, int end, const std::uint8_t* each, std::uint8_t all) {
            const auto span =
                CoverSpan{.y = y, .x = window_.left + begin, .length = end - begin, .each = each, .all = all};
            left_ = std::min(left_, span.x);
            right_ = std::max(right_, span.x + span.length);
            if (touched_.empty()) touched_ = {.at = {.x = span.x, .y = y}, .size = {1, 1}};
            touched_ = {.at = {.x = left_, .y = touched_.at.y}, .size = {right_ - left_, y + 1 - touched_.at.y}};
            take_cover(receiver_, span);
        });
    }

    const Window window_;
    std::vector<CoverEdge>& edges_;
    const CoverRule& rule_;
    bool has_one_group_;
    SpanReceiver receiver_;
    CoverRow row_;
    std::vector<CoverEdge> active_;
    bool has_ends_ = false;
    std::vector<double> cuts_;
    std::vector<Crossing> crossings_;
    int left_ = std::numeric_limits<int>::max();
    int right_ = std::numeric_limits<int>::min();
    Box touched_;
};

}  // namespace

void take_cover(const SpanReceiver& receiver, const CoverSpan& span) {
    if (receiver.take_cover != nullptr) return receiver.take_cover(receiver.context, span);
    // Who asks only for pixels is told of those that have any coverage.
    const auto tell = [&](int x, int length) {
        const auto run = Span{.y = span.y, .x = x, .length = length};
        receiver.take(receiver.context, {&run, 1});
    };
    if (span.each == nullptr) return tell(span.x, span.length);
    auto begin = 0;
    for (auto i = 0; i <= span.length; ++i) {
        if (i < span.length && span.each[i] != 0) continue;
        if (i > begin) tell(span.x + begin, i - begin);
        begin = i + 1;
    }
}

Box sweep_coverage(CoverEdges& edges, const CoverRule& rule, const SpanReceiver& receiver) {
    if (edges.edges().empty()) return {};
    return CoverSweep{edges, rule, receiver}.run();
}

}  // namespace coldbrick::detail
