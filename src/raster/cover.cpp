#include "raster/cover.hpp"

#include <algorithm>
#include <cmath>

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

// What one row of pixels is covered by. Coverage is summed up from the differences between neighbours.
class CoverRow {
  public:
    explicit CoverRow(int width) : width_{width}, steps_(static_cast<std::size_t>(width) + 2, 0.0) {}

    // What lies right of a line from one x to another over a part of the row's height is covered so much more.
    void add(double from, double to, double height) {
        auto [left, right] = std::minmax(from, to);
        if (left >= width_) return;
        if (right <= 0) return add_at(0, height, 0);
        if (left < 0 || right > width_) return add_cut(left, right, height);
        const auto column = static_cast<int>(left);
        if (right <= column + 1) return add_at(column, height, (left + right) / 2 - column);
        add_across(left, right, column, height);
    }

    // Hands the row over and forgets it.
    template <class Emit>
    void flush(const Emit& emit) {
        if (parts_.empty()) return;
        std::sort(parts_.begin(), parts_.end(), [](const Part& a, const Part& b) { return a.begin < b.begin; });
        auto sum = 0.0;
        auto at = 0;
        for (std::size_t i = 0; i < parts_.size();) {
            const auto begin = parts_[i].begin;
            auto end = parts_[i].end;
            for (; i < parts_.size() && parts_[i].begin <= end; ++i) end = std::max(end, parts_[i].end);
            if (begin > at) emit_even(at, begin, sum, emit);
            end = std::min(end, width_);
            emit_varied(begin, end, sum, emit);
            at = end;
        }
        if (at < width_) emit_even(at, width_, sum, emit);
        steps_[static_cast<std::size_t>(width_)] = 0;
        steps_[static_cast<std::size_t>(width_) + 1] = 0;
        parts_.clear();
    }

  private:
    struct Part {
        int begin;
        int end;
    };

    static std::uint8_t byte_of(double coverage) noexcept {
        return static_cast<std::uint8_t>(std::clamp(coverage, 0.0, 1.0) * 255 + 0.5);
    }

    // In one column, at a mean distance from its left side.
    void add_at(int column, double height, double distance) {
        auto* const step = &steps_[static_cast<std::size_t>(column)];
        step[0] += height * (1 - distance);
        step[1] += height * distance;
        note(column, column + 2);
    }

    void note(int begin, int end) {
        if (!parts_.empty() && begin >= parts_.back().begin && begin <= parts_.back().end) {
            parts_.back().end = std::max(parts_.back().end, end);
        } else {
            parts_.push_back({.begin = begin, .end = end});
        }
    }

    void add_across(double left, double right, int first, double height) {
        const auto per_column = height / (right - left);
        auto* step = &steps_[static_cast<std::size_t>(first)];
        // Of the first column and the last one only parts are crossed.
        const auto in_first = first + 1 - left;
        const auto first_height = in_first * per_column;
        step[0] += first_height * (in_first / 2);
        step[1] += first_height * (1 - in_first / 2);
        auto column = first + 1;
        for (; column + 1 <= right; ++column) {
            ++step;
            step[0] += per_column / 2;
            step[1] += per_column / 2;
        }
        const auto in_last = right - column;
        const auto last_height = in_last * per_column;
        step[1] += last_height * (1 - in_last / 2);
        step[2] += last_height * (in_last / 2);
        note(first, column + 2);
    }

    // A line that goes over the left or the right side.
    void add_cut(double left, double right, double height) {
        const auto per_column = height / (right - left);
        if (left < 0) add_at(0, -left * per_column, 0);
        const auto inside_left = std::max(left, 0.0);
        const auto inside_right = std::min(right, static_cast<double>(width_));
        add(inside_left, inside_right, (inside_right - inside_left) * per_column);
    }

    template <class Emit>
    void emit_even(int begin, int end, double sum, const Emit& emit) {
        const auto coverage = byte_of(sum);
        if (coverage != 0) emit(begin, end, nullptr, coverage);
    }

    template <class Emit>
    void emit_varied(int begin, int end, double& sum, const Emit& emit) {
        bytes_.resize(static_cast<std::size_t>(end - begin));
        for (auto column = begin; column < end; ++column) {
            auto& step = steps_[static_cast<std::size_t>(column)];
            sum += step;
            step = 0;
            bytes_[static_cast<std::size_t>(column - begin)] = byte_of(sum);
        }
        while (begin < end && bytes_[static_cast<std::size_t>(end - begin) - 1] == 0) --end;
        const auto* first = bytes_.data();
        for (; begin < end && *first == 0; ++begin) ++first;
        if (begin < end) emit(begin, end, first, 255);
    }

    int width_;
    std::vector<double> steps_;
    std::vector<Part> parts_;  // where there are steps
    std::vector<std::uint8_t> bytes_;
};

// Goes down the rows with the edges that cross each. A row in which edges begin, end or cross is cut into bands in
// which none do; there, what is inside lies between lines one beside the other.
class CoverSweep {
  public:
    CoverSweep(CoverEdges& edges, const CoverRule& rule, const SpanReceiver& receiver)
        : window_{edges.window()},
          edges_{edges.edges()},
          rule_{rule},
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
            for (; started < edges_.size() && edges_[started].top < y + 1; ++started) {
                active_.push_back(&edges_[started]);
            }
            take_row(y);
            std::erase_if(active_, [=](const CoverEdge* edge) { return edge->bottom <= y + 1; });
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

    void take_row(int y) {
        const auto top = static_cast<double>(y);
        cuts_.clear();
        for (const auto* edge : active_) {
            if (edge->top > top) cuts_.push_back(edge->top);
            if (edge->bottom < top + 1) cuts_.push_back(edge->bottom);
        }
        std::sort(cuts_.begin(), cuts_.end());
        auto begin = top;
        for (const auto cut : cuts_) {
            if (cut > begin) take_band(begin, cut);
            begin = std::max(begin, cut);
        }
        if (begin < top + 1) take_band(begin, top + 1);
        hand_over(window_.top + y);
    }

    void take_band(double begin, double end) {
        crossings_.clear();
        for (const auto* edge : active_) {
            if (edge->top > begin || edge->bottom < end) continue;
            crossings_.push_back({.above = edge->x + (begin - edge->top) * edge->slope,
                                  .below = edge->x + (end - edge->top) * edge->slope,
                                  .direction = edge->direction,
                                  .group = edge->group});
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
            const auto is_inside = covers(windings);
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
            touched_ = enclosing(touched_, Box{.at = {.x = span.x, .y = y}, .size = {span.length, 1}});
            take_cover(receiver_, span);
        });
    }

    const Window window_;
    std::vector<CoverEdge>& edges_;
    const CoverRule& rule_;
    SpanReceiver receiver_;
    CoverRow row_;
    std::vector<const CoverEdge*> active_;
    std::vector<double> cuts_;
    std::vector<Crossing> crossings_;
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
