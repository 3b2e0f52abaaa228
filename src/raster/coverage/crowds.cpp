#include "raster/coverage/crowds.hpp"

#include "raster/coverage/cover_sums.hpp"
#include "raster/rows/row_sweep.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace coldbrick::inline v0::detail {

namespace {

// From so many chains through one pixel on, lines take less time than finding where they cross.
constexpr std::size_t many = 64;

// Edges that lie along the row are wrong by half of a line's share at most, others by what chains that cross between
// two lines enclose there, which is far less.
constexpr int lines_per_row = 256;

// A chain in some rows, with its edge at their top.
struct Crossing {
    const Chain* chain;
    const ChainEdge* edge;
};

// Finds the columns that many chains are in, in some rows.
class Columns {
  public:
    Columns(const Chains& chains, int columns, std::pmr::memory_resource* memory)
        : chains_{chains}, steps_(static_cast<std::size_t>(columns) + 1, memory) {}

    // Calls use(left, right) for runs of columns in which there are many of the chains, somewhere in the rows from one
    // to another. Rows come from top to bottom.
    template <class Use>
    void find(int top, int bottom, std::pmr::vector<Crossing>& crossings, const Use& use) {
        spend_work(crossings.size());
        std::fill(steps_.begin(), steps_.end(), 0);
        for (auto& of : crossings) count(top, bottom, of);
        auto sum = 0;
        auto left = -1;
        const auto columns = static_cast<int>(steps_.size()) - 1;
        for (auto x = 0; x <= columns; ++x) {
            sum += steps_[static_cast<std::size_t>(x)];
            const auto is_full = x < columns && sum >= static_cast<int>(many);
            if (is_full && left < 0) left = x;
            if (is_full || left < 0) continue;
            use(left, x);
            left = -1;
        }
    }

  private:
    // What lies on the line between two columns is in none of them.
    void count(int top, int bottom, Crossing& of) {
        const auto* const end = chains_.edges() + of.chain->end;
        while (of.edge != end && of.edge->bottom <= top) ++of.edge;
        if (of.edge == end || of.edge->top >= bottom) return;
        auto least = of.edge->x_at(std::max(of.edge->top, double{1} * top));
        auto most = least;
        for (const auto* edge = of.edge; edge != end && edge->top < bottom; ++edge) {
            const auto x = edge->x_at(std::min(edge->bottom, double{1} * bottom));
            least = x < least ? x : least;
            most = x > most ? x : most;
        }
        const auto columns = static_cast<double>(steps_.size()) - 1;
        const auto begin = static_cast<std::size_t>(std::clamp(least, 0.0, columns));
        const auto behind = static_cast<std::size_t>(std::ceil(std::clamp(most, 0.0, columns)));
        if (begin >= behind) return;
        ++steps_[begin];
        --steps_[behind];
    }

    const Chains& chains_;
    std::pmr::vector<int> steps_;
};

// Some rows at a time, and one by one where there are many chains in a column of them.
class CrowdSearch {
  public:
    CrowdSearch(const Chains& chains, int columns, std::pmr::memory_resource* memory)
        : chains_{chains}, columns_{chains, columns, memory}, by_top_{memory}, in_rows_{memory}, crowds_{memory} {
        by_top_.reserve(chains.all().size());
        for (const auto& chain : chains.all()) by_top_.push_back(&chain);
        sort_in_budget(by_top_.begin(), by_top_.end(),
                       [&](const Chain* a, const Chain* b) { return chains.top_of(*a) < chains.top_of(*b); });
    }

    std::pmr::vector<Crowd> run() {
        constexpr auto together = 32;
        auto next = by_top_.begin();
        for (auto top = 0; next != by_top_.end() || !in_rows_.empty(); top += together) {
            std::erase_if(in_rows_, [&](const Crossing& of) { return chains_.bottom_of(*of.chain) <= top; });
            if (in_rows_.empty() && next != by_top_.end()) {
                top = std::max(top, static_cast<int>(chains_.top_of(**next)) / together * together);
            }
            for (; next != by_top_.end() && chains_.top_of(**next) < top + together; ++next) {
                in_rows_.push_back({*next, chains_.edges() + (*next)->first});
            }
            if (in_rows_.size() < many) continue;
            auto is_full = false;
            columns_.find(top, top + together, in_rows_, [&](int, int) { is_full = true; });
            for (auto row = top; is_full && row < top + together; ++row) {
                columns_.find(row, row + 1, in_rows_, [&](int left, int right) {
                    crowds_.push_back({.row = row, .left = left, .right = right});
                });
            }
        }
        return std::move(crowds_);
    }

  private:
    const Chains& chains_;
    Columns columns_;
    std::pmr::vector<const Chain*> by_top_;
    std::pmr::vector<Crossing> in_rows_;
    std::pmr::vector<Crowd> crowds_;
};

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
        for (const auto& chain : chains.all()) {
            if (chains.top_of(chain) >= crowd.row + 1 || chains.bottom_of(chain) <= crowd.row) continue;
            const auto* const end = chains.edges() + chain.end;
            const auto* const edge = std::partition_point(
                chains.edges() + chain.first, end, [&](const ChainEdge& each) { return each.bottom <= crowd.row; });
            const auto direction = static_cast<std::int16_t>(chain.direction * rule.signs[chain.group]);
            add({.x = 0, .edge = edge, .last = end - 1, .direction = direction, .group = chain.group});
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
    static constexpr auto is_not_there = std::numeric_limits<double>::infinity();

    // A chain, where it crosses a line, and its edge there.
    struct OnLine {
        double x;
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
        while (chain.edge->bottom <= y && chain.edge != chain.last) ++chain.edge;
        if (chain.edge->top > y || chain.edge->bottom <= y) return is_not_there;
        return chain.edge->x_at(y) - crowd_.left;
    }

    // Adds what is covered along a line.
    void take_line(Windings windings) {
        auto is_covered = covers_(windings);
        if (is_covered) rows_.add(0, 0, 0, height);
        for (const auto& chain : on_line_) {
            if (chain.x >= width_) return;
            covers_.add(windings, chain.group, chain.direction);
            if (covers_(windings) == is_covered) continue;
            is_covered = !is_covered;
            rows_.add(0, chain.x, chain.x, is_covered ? height : -height);
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

std::pmr::vector<Crowd> crowds_of(const Chains& chains, std::pmr::memory_resource* memory) {
    const auto columns = std::int64_t{chains.window().right} - chains.window().left;
    // (Larger windows are those of searches for bounds.)
    constexpr std::int64_t widest = 1 << 17;
    if (chains.all().size() < many || columns > widest) return std::pmr::vector<Crowd>{memory};
    return CrowdSearch{chains, static_cast<int>(columns), memory}.run();
}

std::pmr::vector<std::uint8_t> cover_of(const Crowd& crowd, const Chains& chains, const CoverRule& rule,
                                        std::pmr::memory_resource* memory) {
    return CrowdLines{crowd, chains, rule, memory}.run(memory);
}

}  // namespace coldbrick::inline v0::detail
