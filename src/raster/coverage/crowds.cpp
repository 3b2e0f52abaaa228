#include "raster/coverage/crowds.hpp"

#include "geometry/budget_memory.hpp"
#include "raster/rows/row_sweep.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <cmath>

namespace coldbrick::inline v0::detail {

namespace {

// From so many chains through one pixel on, lines take less time than finding where they cross: if they do so, on
// average, more than twice each in it. (Of very many, it is not asked whether they do.)
constexpr auto many = 64;
constexpr auto very_many = 512;
constexpr std::size_t few_for_each = 2;

// A chain in some rows, with its edge at their top.
struct Crossing {
    const Chain* chain;
    const ChainEdge* edge;
};

// The columns that a chain is in, in some rows: up to one before the second.
struct InColumns {
    int begin;
    int behind;
};

// Which columns many chains are in.
class Columns {
  public:
    Columns(const Chains& chains, int columns, std::pmr::memory_resource* memory)
        : chains_{chains}, counts_(static_cast<std::size_t>(columns) + 1, memory) {}

    // Counts the chains that are in each column, somewhere in the rows from one to another. Rows come from top to
    // bottom. Returns whether there are many in one.
    bool count(int top, int bottom, std::pmr::vector<Crossing>& crossings) {
        spend_work(crossings.size());
        std::fill(counts_.begin(), counts_.end(), 0);
        for (auto& of : crossings) {
            const auto [begin, behind] = columns_of(top, bottom, of);
            if (begin >= behind) continue;
            ++counts_[static_cast<std::size_t>(begin)];
            --counts_[static_cast<std::size_t>(behind)];
        }
        auto has_many = false;
        auto sum = 0;
        for (auto& count : counts_) {
            count = sum += count;
            has_many = has_many || sum >= many;
        }
        return has_many;
    }
    [[nodiscard]] int count_of(int column) const noexcept { return counts_[static_cast<std::size_t>(column)]; }
    [[nodiscard]] int columns() const noexcept { return static_cast<int>(counts_.size()) - 1; }

    // What lies on the line between two columns is in none of them.
    [[nodiscard]] InColumns columns_of(int top, int bottom, Crossing& of) const {
        const auto* const end = chains_.edges() + of.chain->end;
        while (of.edge != end && of.edge->bottom <= top) ++of.edge;
        if (of.edge == end || of.edge->top >= bottom) return {0, 0};
        auto least = of.edge->x_at(std::max(of.edge->top, double{1} * top));
        auto most = least;
        for (const auto* edge = of.edge; edge != end && edge->top < bottom; ++edge) {
            const auto x = edge->x_at(std::min(edge->bottom, double{1} * bottom));
            least = x < least ? x : least;
            most = x > most ? x : most;
        }
        const auto width = double{1} * columns();
        return {static_cast<int>(std::clamp(least, 0.0, width)),
                static_cast<int>(std::ceil(std::clamp(most, 0.0, width)))};
    }

  private:
    const Chains& chains_;
    std::pmr::vector<int> counts_;
};

// How often chains cross each other in some rows of a column, by where they come into these and leave them along their
// sides: clockwise from the upper left corner on, a side being 1 long.
class Crossings {
  public:
    void begin(int top, int bottom, int column) {
        top_ = top;
        bottom_ = bottom;
        left_ = column;
        ends_.clear();
    }

    // From an edge of the chain on, of which some is in the rows.
    void add(const Chains& chains, const Crossing& of) {
        const auto* const end = chains.edges() + of.chain->end;
        auto first = -1.0;
        auto last = -1.0;
        for (const auto* edge = of.edge; edge != end && edge->top < bottom_; ++edge) {
            const auto top = std::max(edge->top, top_);
            const auto bottom = std::min(edge->bottom, bottom_);
            const auto from = edge->x_at(top) - left_;
            const auto to = edge->x_at(bottom) - left_;
            if (std::max(from, to) <= 0 || std::min(from, to) >= 1) continue;
            // What begins or ends at a side of the column comes in or leaves there: a window may have cut it off.
            constexpr auto nearly = 1e-9;
            const auto is_cut_above = edge->top > top_;
            const auto is_cut_below = edge->bottom < bottom_;
            const auto side_at = [&](double x, double y) {
                const auto down = (y - top_) / (bottom_ - top_);
                return x < 0.5 ? 4 - down : 1 + down;
            };
            const auto y_at = [&](double x) { return top + (bottom - top) * ((x - from) / (to - from)); };
            if (first < 0) {
                first = from;
                if (from < 0) first = side_at(0, y_at(0));
                if (from > 1) first = side_at(1, y_at(1));
                if (is_cut_above && std::fabs(from) < nearly) first = side_at(0, top);
                if (is_cut_above && std::fabs(from - 1) < nearly) first = side_at(1, top);
            }
            last = 3 - to;
            if (to < 0) last = side_at(0, y_at(0));
            if (to > 1) last = side_at(1, y_at(1));
            if (is_cut_below && std::fabs(to) < nearly) last = side_at(0, bottom);
            if (is_cut_below && std::fabs(to - 1) < nearly) last = side_at(1, bottom);
        }
        if (first < 0 || first == last) return;
        ends_.push_back({std::min(first, last), std::max(first, last), true});
        ends_.push_back({std::max(first, last), std::min(first, last), false});
    }

    // Whether there are more than that. What touches does not cross.
    [[nodiscard]] bool are_more_than(std::size_t most) {
        std::sort(ends_.begin(), ends_.end(), [](const End& a, const End& b) {
            if (a.at != b.at) return a.at < b.at;
            return a.opens != b.opens ? b.opens : a.other > b.other;
        });
        open_.clear();
        std::size_t crossings = 0;
        for (const auto& end : ends_) {
            if (end.opens) {
                open_.push_back(end.other);
                continue;
            }
            // Chains that have come in since and have not left cross it.
            auto place = open_.size();
            while (place > 1 && open_[place - 1] != end.at) {
                ++crossings;
                --place;
            }
            open_.erase(open_.begin() + static_cast<std::ptrdiff_t>(place) - 1);
            if (crossings > most) return true;
        }
        return false;
    }

  private:
    struct End {
        double at;
        double other;
        bool opens;
    };

    double top_ = 0;
    double bottom_ = 0;
    double left_ = 0;
    CountedVector<End> ends_;
    CountedVector<double> open_;  // where those that have come in leave
};

// Some rows at a time, and one by one where there are many chains in a column of them.
class CrowdSearch {
  public:
    CrowdSearch(const Chains& chains, int columns, std::pmr::memory_resource* memory)
        : chains_{chains},
          columns_{chains, columns, memory},
          is_asked_(static_cast<std::size_t>(columns), memory),
          is_crowd_(static_cast<std::size_t>(columns), memory),
          ranges_{memory},
          open_{memory},
          by_top_{memory},
          in_rows_{memory},
          crowds_{memory} {
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
            if (in_rows_.size() < std::size_t{many} || !columns_.count(top, top + together, in_rows_)) continue;
            // If there are few crossings of straight chains in all the rows, there is a crowd in none.
            std::fill(is_asked_.begin(), is_asked_.end(), 1);
            if (!look_at(top, top + together)) continue;
            is_asked_.swap(is_crowd_);
            for (auto row = top; row < top + together; ++row) {
                if (columns_.count(row, row + 1, in_rows_) && look_at(row, row + 1)) add_row(row);
            }
        }
        return std::move(crowds_);
    }

  private:
    // Finds out which of the columns in question have more crossings in some rows than it takes for a crowd in one.
    bool look_at(int top, int bottom) {
        std::fill(is_crowd_.begin(), is_crowd_.end(), 0);
        sort_by_column(top, bottom);
        auto next = ranges_.begin();
        auto has_crowd = false;
        open_.clear();
        for (auto x = 0; x < columns_.columns(); ++x) {
            for (; next != ranges_.end() && next->in.begin == x; ++next) open_.push_back(*next);
            const auto column = static_cast<std::size_t>(x);
            const auto count = columns_.count_of(x);
            if (is_asked_[column] != 0 && count >= many) {
                is_crowd_[column] = count >= very_many || has_crossings(top, bottom, x) ? 1 : 0;
                has_crowd = has_crowd || is_crowd_[column] != 0;
            }
            std::erase_if(open_, [&](const Range& of) { return of.in.behind <= x + 1; });
        }
        return has_crowd;
    }

    bool has_crossings(int top, int bottom, int x) {
        spend_work(open_.size());
        const auto is_straight = [&](const Range& of) {
            return of.crossing->edge->top <= top && of.crossing->edge->bottom >= bottom;
        };
        const auto is_row = bottom - top == 1;
        if (!is_row && !std::all_of(open_.begin(), open_.end(), is_straight)) return true;
        crossings_.begin(top, bottom, x);
        for (const auto& of : open_) crossings_.add(chains_, *of.crossing);
        const auto each = is_row ? open_.size() : std::size_t{many};
        return crossings_.are_more_than(few_for_each * each);
    }

    void sort_by_column(int top, int bottom) {
        ranges_.clear();
        for (auto& of : in_rows_) {
            const auto in = columns_.columns_of(top, bottom, of);
            if (in.begin < in.behind) ranges_.push_back({in, &of});
        }
        sort_nearly_sorted(ranges_, [](const Range& a, const Range& b) { return a.in.begin < b.in.begin; });
    }

    void add_row(int row) {
        for (auto x = 0; x < columns_.columns(); ++x) {
            if (is_crowd_[static_cast<std::size_t>(x)] == 0) continue;
            const auto goes_on = !crowds_.empty() && crowds_.back().row == row && crowds_.back().right == x;
            if (!goes_on) crowds_.push_back({.row = row, .left = x, .right = x});
            ++crowds_.back().right;
        }
    }

    struct Range {
        InColumns in;
        Crossing* crossing;
    };

    const Chains& chains_;
    Columns columns_;
    Crossings crossings_;
    std::pmr::vector<std::uint8_t> is_asked_;  // of each column
    std::pmr::vector<std::uint8_t> is_crowd_;
    std::pmr::vector<Range> ranges_;  // by where they begin
    std::pmr::vector<Range> open_;    // those in the column at hand
    std::pmr::vector<const Chain*> by_top_;
    std::pmr::vector<Crossing> in_rows_;
    std::pmr::vector<Crowd> crowds_;
};

}  // namespace

std::pmr::vector<Crowd> crowds_of(const Chains& chains, std::pmr::memory_resource* memory) {
    const auto columns = std::int64_t{chains.window().right} - chains.window().left;
    const auto rows = std::int64_t{chains.window().bottom} - chains.window().top;
    // (Larger windows are those of searches for bounds.)
    constexpr std::int64_t widest = 1 << 17;
    constexpr std::int64_t highest = 1 << 30;
    if (chains.all().size() < std::size_t{many} || columns > widest || rows > highest)
        return std::pmr::vector<Crowd>{memory};
    return CrowdSearch{chains, static_cast<int>(columns), memory}.run();
}

}  // namespace coldbrick::inline v0::detail
