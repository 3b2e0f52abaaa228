// What of a crowd is covered, along lines.
#include "raster/coverage/cover_sums.hpp"
#include "raster/coverage/crowds.hpp"
#include "raster/rows/row_sweep.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace coldbrick::inline v0::detail {

namespace {

// Edges that lie along the row are wrong by half of a line's share at most, others by what chains that cross between
// two lines enclose there, which is far less.
constexpr int lines_per_row = 256;

// Measures a crowd along lines across its row.
class CrowdLines {
  public:
    CrowdLines(const Crowd& crowd, const Chains& chains, const CoverRule& rule, std::pmr::memory_resource* memory)
        : crowd_{crowd},
          width_{double{1} * crowd.right - crowd.left},
          covers_{rule},
          on_line_{memory},
          to_left_(std::size_t{lines_per_row} + 1, memory),
          rows_{crowd.right - crowd.left, 1, memory} {
        for (auto group = 0; group < static_cast<int>(most_groups); ++group) {
            to_left_[0].of[group] = chains.left_of_all().of[group] * rule.signs[group];
        }
        for (const auto& chain : chains.all()) {
            if (chains.top_of(chain) >= crowd.row + 1 || chains.bottom_of(chain) <= crowd.row) continue;
            if (chain.least_x >= crowd.right) continue;
            const auto* const end = chains.edges() + chain.end;
            const auto* const edge = std::partition_point(
                chains.edges() + chain.first, end, [&](const ChainEdge& each) { return each.bottom <= crowd.row; });
            const auto direction = static_cast<std::int16_t>(chain.direction * rule.signs[chain.group]);
            add({.x = 0, .at = *edge, .edge = edge, .last = end - 1, .direction = direction, .group = chain.group});
        }
    }

    std::pmr::vector<std::uint8_t> run(std::pmr::memory_resource* memory) {
        Windings windings;
        for (auto line = 0; line < lines_per_row; ++line) {
            spend_work(on_line_.size());
            for (auto group = 0; group < static_cast<int>(most_groups); ++group) {
                const auto change = to_left_[static_cast<std::size_t>(line)].of[group];
                if (change != 0) covers_.add(windings, group, change);
            }
            for (auto& chain : on_line_) chain.x = x_on(y_of(line), chain);
            sort_nearly_sorted(on_line_, [](const OnLine& a, const OnLine& b) { return a.x < b.x; });
            take_line(windings);
        }
        std::pmr::vector<std::uint8_t> bytes(static_cast<std::size_t>(crowd_.right - crowd_.left), memory);
        rows_.take(
            0, [&](int begin, int end, const auto& set) { set(begin, end, bytes.data() + begin); },
            [&](int begin, int end, std::uint8_t all) { std::fill(bytes.begin() + begin, bytes.begin() + end, all); });
        return bytes;
    }

  private:
    static constexpr auto height = 1.0 / lines_per_row;
    static constexpr auto weight = whole_coverage / lines_per_row;
    static constexpr auto is_not_there = std::numeric_limits<double>::infinity();

    // A chain, where it crosses a line, and its edge there: itself, as what lies together is read faster.
    struct OnLine {
        double x;
        ChainEdge at;
        const ChainEdge* edge;
        const ChainEdge* last;
        std::int16_t direction;
        std::uint16_t group;
    };

    [[nodiscard]] double y_of(int line) const noexcept { return crowd_.row + (line + 0.5) * height; }
    // The first line from a height on.
    [[nodiscard]] std::size_t line_from(double y) const noexcept {
        const auto line = std::ceil((y - crowd_.row) * lines_per_row - 0.5);
        return static_cast<std::size_t>(std::clamp(line, 0.0, double{lines_per_row}));
    }

    // What lies right of the crowd does not matter; what lies left of it only adds to the winding number there.
    void add(const OnLine& chain) {
        const auto top = std::max(chain.edge->top, double{1} * crowd_.row);
        const auto bottom = std::min(chain.last->bottom, double{1} * crowd_.row + 1);
        auto least = is_not_there;
        auto most = -is_not_there;
        for (const auto* edge = chain.edge;; ++edge) {
            for (const auto x : {edge->x_at(std::max(edge->top, top)), edge->x_at(std::min(edge->bottom, bottom))}) {
                least = std::min(least, x - crowd_.left);
                most = std::max(most, x - crowd_.left);
            }
            if (edge == chain.last || edge->bottom >= bottom) break;
        }
        if (most > 0 && least < width_) on_line_.push_back(chain);
        if (most > 0) return;
        to_left_[line_from(top)].of[chain.group] += chain.direction;
        to_left_[line_from(bottom)].of[chain.group] -= chain.direction;
    }

    [[nodiscard]] double x_on(double y, OnLine& chain) const noexcept {
        while (chain.at.bottom <= y && chain.edge != chain.last) chain.at = *++chain.edge;
        if (chain.at.top > y || chain.at.bottom <= y) return is_not_there;
        return chain.at.x_at(y) - crowd_.left;
    }

    // Adds what is covered along a line.
    void take_line(Windings windings) {
        auto is_covered = covers_(windings);
        if (is_covered) rows_.add(0, 0, 0, weight);
        for (const auto& chain : on_line_) {
            if (chain.x >= width_) return;
            covers_.add(windings, chain.group, chain.direction);
            if (covers_(windings) == is_covered) continue;
            is_covered = !is_covered;
            const auto x = std::max(chain.x, 0.0);
            rows_.add(0, x, x, is_covered ? weight : -weight);
        }
    }

    Crowd crowd_;
    double width_;
    CoverTruth covers_;
    std::pmr::vector<OnLine> on_line_;
    std::pmr::vector<Windings> to_left_;  // how the winding numbers there change from one line to the next
    DenseRows rows_;
};

}  // namespace

std::pmr::vector<std::uint8_t> cover_of(const Crowd& crowd, const Chains& chains, const CoverRule& rule,
                                        std::pmr::memory_resource* memory) {
    return CrowdLines{crowd, chains, rule, memory}.run(memory);
}

}  // namespace coldbrick::inline v0::detail
