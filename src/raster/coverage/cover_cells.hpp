// What a row is covered by where edges begin, end or cross: pixel by pixel.
//
// A pixel's coverage follows from the edges in it and from what lies to its left: the winding numbers along its left
// side, which change only at heights where a contour crosses that side. So it is the same in every window. Edges begin
// and end in corners where others go on; those left of a pixel cancel each other out but for such heights.
#pragma once

#include "raster/coverage/cover.hpp"
#include "raster/coverage/cover_batch.hpp"
#include "raster/coverage/cover_row.hpp"
#include "raster/rows/row_sweep.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <limits>
#include <span>
#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

// The winding numbers of a place in each group, and the groups in which it is inside.
struct Windings {
    int of[most_groups] = {};
    unsigned inside = 0;
};

// Whether a place is covered, by its winding number in each group.
class CoverTruth {
  public:
    explicit CoverTruth(const CoverRule& rule) noexcept
        : rule_{rule}, has_one_group_{rule.truth == CoverRule{}.truth} {}

    [[nodiscard]] bool operator()(const int (&windings)[most_groups]) const noexcept {
        if (has_one_group_) return (windings[0] & rule_.masks[0]) != 0;
        auto inside = 0U;
        for (auto group = 0U; group < most_groups; ++group) {
            inside |= (windings[group] & rule_.masks[group]) != 0 ? 1U << group : 0U;
        }
        return ((rule_.truth >> inside) & 1U) != 0;
    }

    [[nodiscard]] bool operator()(const Windings& at) const noexcept { return ((rule_.truth >> at.inside) & 1U) != 0; }

    void add(Windings& to, int group, int by) const noexcept {
        auto& winding = to.of[group];
        winding += by;
        const auto bit = 1U << static_cast<unsigned>(group);
        to.inside = (winding & rule_.masks[group]) != 0 ? to.inside | bit : to.inside & ~bit;
    }

  private:
    const CoverRule& rule_;
    bool has_one_group_;
};

class CoverCells {
  public:
    CoverCells(const Window& window, const CoverTruth& covers, CoverBatch& batch) noexcept
        : window_{window}, covers_{covers}, batch_{batch} {}

    // A row of the window, with the edges that have a part in it. Hands its coverage over.
    void take_row(std::span<const CoverEdge> active, int row) {
        row_ = row;
        splits_ = 0;
        base_ = {};
        left_.clear();
        find_parts(active);
        here_.clear();
        std::size_t next = 0;
        for (std::int64_t column = 0; column < width();) {
            if (here_.empty()) {
                const auto end = next < parts_.size() ? std::min(parts_[next].first, width()) : width();
                if (column < end) emit_alike(column, end, byte_of_coverage(coverage_of(column)));
                column = end;
            }
            for (; next < parts_.size() && parts_[next].first == column; ++next) here_.push_back(parts_[next]);
            if (here_.empty()) continue;
            const auto end = end_of_run(column, next);
            spend_work(here_.size());
            take_columns(column, end);
            column = end;
            leave_behind(column);
        }
        flush();
    }

  private:
    // The part of an edge in the row, whose upper side is at 0; and the columns in which it is, of those of the window
    // and some beside it.
    struct Part {
        double top;
        double bottom;
        double x_top;
        double x_bottom;
        std::int64_t first;
        std::int64_t last;
        int direction;
        int group;
    };

    // Where the winding number along a pixel's left side, or that of a group, changes.
    struct Change {
        double height;
        int group;
        int by;
    };

    // A straight line by places in a pixel, in which x goes from 0 to 1.
    struct Piece {
        double top;
        double bottom;
        double x_top;
        double slope;
        int direction;
        int group;

        [[nodiscard]] double x_at(double y) const noexcept { return x_top + (y - top) * slope; }
    };

    // A line that goes through a band from its upper side to its lower one.
    struct Line {
        double above;
        double below;
        int direction;
        int group;
    };

    [[nodiscard]] std::int64_t width() const noexcept { return std::int64_t{window_.right} - window_.left; }

    void find_parts(std::span<const CoverEdge> active) {
        parts_.clear();
        parts_.reserve(active.size());
        const auto top = double{1} * row_;
        for (const auto& edge : active) {
            const auto begin = std::max(edge.top, top);
            const auto end = std::min(edge.bottom, top + 1);
            if (!(begin < end)) continue;
            Part part{.top = begin - top,
                      .bottom = end - top,
                      .x_top = edge.x_at(begin),
                      .x_bottom = edge.x_at(end),
                      .first = 0,
                      .last = 0,
                      .direction = edge.direction,
                      .group = edge.group};
            const auto [least, most] = std::minmax(part.x_top, part.x_bottom);
            if (least >= static_cast<double>(width())) continue;
            if (most < 0) {
                add_whole(part);
                continue;
            }
            part.first = least < 0 ? 0 : static_cast<std::int64_t>(least);
            part.last = most < static_cast<double>(width()) ? static_cast<std::int64_t>(most) : width();
            parts_.push_back(part);
        }
        sort_nearly_sorted(parts_, [](const Part& a, const Part& b) { return a.first < b.first; });
    }

    // Up to which column there are the same parts, all of which go over the columns from side to side; the next column
    // if some begin or end in this one.
    [[nodiscard]] std::int64_t end_of_run(std::int64_t column, std::size_t next) const noexcept {
        auto end = next < parts_.size() ? std::min(parts_[next].first, width()) : width();
        for (const auto& part : here_) {
            if (part.first == column) return column + 1;
            end = std::min(end, part.last);
        }
        return std::max(end, column + 1);
    }

    void leave_behind(std::int64_t column) {
        std::size_t kept = 0;
        for (const auto& part : here_) {
            if (part.last < column) {
                add_whole(part);
            } else {
                here_[kept++] = part;
            }
        }
        here_.resize(kept);
    }

    void add_whole(const Part& part) { add_along_left(part.top, part.bottom, part, base_, left_); }

    // Along the left side, from one height to another, a part is to the left.
    void add_along_left(double from, double to, const Part& part, Windings& base, CountedVector<Change>& changes) {
        if (from == 0) {
            covers_.add(base, part.group, part.direction);
        } else {
            add_change(changes, {.height = from, .group = part.group, .by = part.direction});
        }
        // Nothing changes any more at the lower side.
        if (to < 1) add_change(changes, {.height = to, .group = part.group, .by = -part.direction});
    }

    // In order of heights; what cancels is left out.
    static void add_change(CountedVector<Change>& changes, const Change& change) {
        const auto is_before = [](const Change& a, const Change& b) {
            return a.height != b.height ? a.height < b.height : a.group < b.group;
        };
        const auto at = std::lower_bound(changes.begin(), changes.end(), change, is_before);
        if (at == changes.end() || is_before(change, *at)) {
            changes.insert(at, change);
        } else if ((at->by += change.by) == 0) {
            changes.erase(at);
        }
    }

    // Columns with the same parts: one, or several that all of these go over from side to side.
    void take_columns(std::int64_t begin, std::int64_t end) {
        constexpr std::int64_t few = 4;
        if (end - begin <= few) {
            for (auto column = begin; column < end; ++column) emit(column, coverage_of(column));
            return;
        }
        // Where none of the parts cross each other, coverage goes evenly from column to column.
        const auto crossed = ++splits_ < most_splits ? crossed_column(begin, end) : begin - 1;
        if (crossed < begin) return emit_evenly(begin, end);
        if (crossed > begin) take_columns(begin, crossed);
        emit(crossed, coverage_of(crossed));
        if (crossed + 1 < end) take_columns(crossed + 1, end);
    }

    // A column between begin and end in which two of the parts cross; below begin if there is none.
    [[nodiscard]] std::int64_t crossed_column(std::int64_t begin, std::int64_t end) {
        struct Sides {
            double from;
            double to;
        };
        const auto height_at = [](const Part& part, std::int64_t column) {
            const auto along = (static_cast<double>(column) - part.x_top) / (part.x_bottom - part.x_top);
            return part.top + along * (part.bottom - part.top);
        };
        spend_work(here_.size());
        CountedVector<Sides> sides;
        for (const auto& part : here_) sides.push_back({height_at(part, begin), height_at(part, end)});
        std::sort(sides.begin(), sides.end(),
                  [](const Sides& a, const Sides& b) { return a.from != b.from ? a.from < b.from : a.to < b.to; });
        constexpr auto hardly = 1e-9;
        for (std::size_t i = 1; i < sides.size(); ++i) {
            const auto under = sides[i - 1].to - sides[i].to;
            if (under <= hardly) continue;
            const auto over = sides[i].from - sides[i - 1].from;
            const auto place = static_cast<double>(end - begin) * (over / (over + under));
            return std::clamp(begin + static_cast<std::int64_t>(place), begin, end - 1);
        }
        return begin - 1;
    }

    void emit_evenly(std::int64_t begin, std::int64_t end) {
        const auto first = coverage_of(begin);
        const auto slope = (coverage_of(end - 1) - first) / static_cast<double>(end - 1 - begin);
        constexpr std::int64_t few = 256;
        if (end - begin <= few) {
            for (auto column = begin; column < end; ++column) {
                emit(column, first + slope * static_cast<double>(column - begin));
            }
            return;
        }
        const auto byte_at = [&](std::int64_t column) {
            return byte_of_coverage(first + slope * static_cast<double>(column - begin));
        };
        for (auto at = begin; at < end;) {
            const auto byte = byte_at(at);
            auto same = at;
            for (auto other = end; other - same > 1;) {
                const auto middle = same + (other - same) / 2;
                (byte_at(middle) == byte ? same : other) = middle;
            }
            emit_alike(at, same + 1, byte);
            at = same + 1;
        }
    }

    // How much of a pixel is covered.
    double coverage_of(std::int64_t column) {
        pieces_.clear();
        changes_.assign(left_.begin(), left_.end());
        at_top_ = base_;
        for (const auto& part : here_) add_piece(part, static_cast<double>(column));
        if (pieces_.size() < 2 && changes_.empty()) return beside_one_piece();
        cuts_.clear();
        cuts_.push_back(0);
        cuts_.push_back(1);
        for (const auto& change : changes_) cuts_.push_back(change.height);
        for (const auto& piece : pieces_) {
            if (piece.top > 0) cuts_.push_back(piece.top);
            if (piece.bottom < 1) cuts_.push_back(piece.bottom);
        }
        std::sort(cuts_.begin(), cuts_.end());
        cuts_.erase(std::unique(cuts_.begin(), cuts_.end()), cuts_.end());
        work_ = 0;
        if (pieces_.size() * cuts_.size() > most_work && is_crowded()) return sampled(0, 1);
        return sum_of_bands();
    }

    // How much of the pixel's width, on average, lies right of a line from one x to another.
    [[nodiscard]] static double right_of(double from, double to) noexcept {
        const auto least = std::min(from, to);
        const auto most = std::max(from, to);
        if (least >= 0 && most <= 1) return 1 - (from + to) / 2;
        if (least >= 1) return 0;
        if (most <= 0) return 1;
        const auto begin = std::max(least, 0.0);
        const auto end = std::min(most, 1.0);
        const auto before = begin - least;
        return (before + (end - begin) * (1 - (begin + end) / 2)) / (most - least);
    }

    // By one piece at most, where the winding numbers are the same all along the left side.
    [[nodiscard]] double beside_one_piece() const noexcept {
        const auto is_left_inside = covers_(at_top_);
        const auto left = is_left_inside ? 1.0 : 0.0;
        if (pieces_.empty()) return left;
        const auto& piece = pieces_.front();
        auto right = at_top_;
        covers_.add(right, piece.group, piece.direction);
        const auto is_right_inside = covers_(right);
        if (is_left_inside == is_right_inside) return left;
        const auto right_of_piece = (piece.bottom - piece.top) * right_of(piece.x_top, piece.x_at(piece.bottom));
        return is_right_inside ? right_of_piece : 1 - right_of_piece;
    }

    // Steep parts are lines that go on left and right of the pixel. Of others, what lies left of it counts along its
    // left side; what lies right of it has no bearing.
    void add_piece(const Part& part, double column) {
        const auto x_top = part.x_top - column;
        const auto x_bottom = part.x_bottom - column;
        const auto slope = (x_bottom - x_top) / (part.bottom - part.top);
        constexpr auto steep = 1.5;
        if (std::fabs(x_bottom - x_top) < steep) {
            pieces_.push_back({.top = part.top,
                               .bottom = part.bottom,
                               .x_top = x_top,
                               .slope = slope,
                               .direction = part.direction,
                               .group = part.group});
            return;
        }
        const auto height_at = [&](double x) {
            return std::clamp(part.top + (x - x_top) / slope, part.top, part.bottom);
        };
        auto top = part.top;
        auto bottom = part.bottom;
        auto x = x_top;
        const auto along_left = [&](double from, double to) {
            if (from < to) add_along_left(from, to, part, at_top_, changes_);
        };
        if (x_top < 0) {
            top = height_at(0);
            x = 0;
            along_left(part.top, top);
        } else if (x_top > 1) {
            top = height_at(1);
            x = 1;
        }
        if (x_bottom < 0) {
            bottom = height_at(0);
            along_left(bottom, part.bottom);
        } else if (x_bottom > 1) {
            bottom = height_at(1);
        }
        if (top < bottom) {
            pieces_.push_back({.top = top,
                               .bottom = bottom,
                               .x_top = x,
                               .slope = slope,
                               .direction = part.direction,
                               .group = part.group});
        }
    }

    // Whether there are so many pieces in so many bands that there is no time to look at each.
    [[nodiscard]] bool is_crowded() const noexcept {
        std::size_t work = 0;
        const auto band_at = [&](double height) {
            return std::lower_bound(cuts_.begin(), cuts_.end(), height) - cuts_.begin();
        };
        for (const auto& piece : pieces_) {
            work += static_cast<std::size_t>(band_at(piece.bottom) - band_at(piece.top));
            if (work > most_work) return true;
        }
        return false;
    }

    // Between two heights at which one begins or ends, pieces are lines.
    double sum_of_bands() {
        constexpr std::size_t few = 24;
        const auto is_ordered = pieces_.size() > few;
        if (is_ordered) std::sort(pieces_.begin(), pieces_.end(), [](auto& a, auto& b) { return a.top < b.top; });
        auto sum = 0.0;
        auto windings = at_top_;
        std::size_t change = 0;
        for (std::size_t band = 0; band + 1 < cuts_.size(); ++band) {
            const auto begin = cuts_[band];
            const auto end = cuts_[band + 1];
            for (; change < changes_.size() && changes_[change].height <= begin; ++change) {
                covers_.add(windings, changes_[change].group, changes_[change].by);
            }
            lines_.clear();
            for (const auto& piece : pieces_) {
                if (is_ordered && piece.top > begin) break;
                if (piece.top > begin || piece.bottom < end) continue;
                lines_.push_back({.above = piece.x_at(begin),
                                  .below = piece.x_at(end),
                                  .direction = piece.direction,
                                  .group = piece.group});
            }
            spend_work(lines_.size() + 1);
            sum += (end - begin) * covered_by_lines(windings, begin, end);
        }
        return sum;
    }

    // How much of a pixel's width is covered, on average, in a band whose lines are at hand.
    double covered_by_lines(const Windings& windings, double begin, double end) {
        sort_nearly_sorted(lines_, [](const Line& a, const Line& b) {
            return a.above != b.above ? a.above < b.above : a.below < b.below;
        });
        for (std::size_t i = 1; i < lines_.size(); ++i) {
            if (lines_[i].below < lines_[i - 1].below) return covered_by_crossing_lines(windings, begin, end);
        }
        return covered_across(windings);
    }

    // The same of lines that do not cross.
    [[nodiscard]] double covered_across(Windings windings) const noexcept {
        auto was_inside = covers_(windings);
        auto covered = was_inside ? 1.0 : 0.0;
        for (const auto& [above, below, direction, group] : lines_) {
            covers_.add(windings, group, direction);
            const auto is_inside = covers_(windings);
            if (is_inside == was_inside) continue;
            const auto right_of_line = right_of(above, below);
            covered += is_inside ? right_of_line : -right_of_line;
            was_inside = is_inside;
        }
        return covered;
    }

    // Two lines that cross, by their places in the order at the top, and after which part of the band.
    struct Crossing {
        double part;
        std::uint32_t left;
        std::uint32_t right;
    };

    // A line in a band: the winding numbers to its left, whether inside begins at it (1), ends (-1) or neither (0), and
    // up to which part of the band it is counted.
    struct Strand {
        Windings windings;
        int side;
        double counted;
    };

    // The winding numbers left of a line are those of all lines to its left. Where it crosses another one, they change
    // by that one's; the order in which crossings at the same height come does not matter.
    double covered_by_crossing_lines(const Windings& windings, double begin, double end) {
        if (!find_crossings()) return sampled(begin, end) / (end - begin);
        std::sort(crossings_.begin(), crossings_.end(), [](auto& a, auto& b) { return a.part < b.part; });
        strands_.clear();
        auto covered = covers_(windings) ? 1.0 : 0.0;
        auto left = windings;
        for (const auto& line : lines_) {
            strands_.push_back({.windings = left, .side = side_of(line, left), .counted = 0});
            covers_.add(left, line.group, line.direction);
        }
        const auto count_until = [&](std::size_t i, double part) {
            const auto& line = lines_[i];
            auto& strand = strands_[i];
            if (strand.side != 0) {
                const auto x_at = [&](double at) { return line.above + (line.below - line.above) * at; };
                covered += strand.side * (part - strand.counted) * right_of(x_at(strand.counted), x_at(part));
            }
            strand.counted = part;
        };
        for (const auto& [part, a, b] : crossings_) {
            count_until(a, part);
            count_until(b, part);
            covers_.add(strands_[a].windings, lines_[b].group, lines_[b].direction);
            covers_.add(strands_[b].windings, lines_[a].group, -lines_[a].direction);
            strands_[a].side = side_of(lines_[a], strands_[a].windings);
            strands_[b].side = side_of(lines_[b], strands_[b].windings);
        }
        for (std::size_t i = 0; i < lines_.size(); ++i) count_until(i, 1);
        return covered;
    }

    [[nodiscard]] int side_of(const Line& line, Windings left) const noexcept {
        const auto was_inside = covers_(left);
        covers_.add(left, line.group, line.direction);
        return (covers_(left) ? 1 : 0) - (was_inside ? 1 : 0);
    }

    // All crossings of the lines, which are in the order of the top: sorting them by that of the bottom, each pair that
    // changes places is one. Returns whether there is time to look at each.
    bool find_crossings() {
        crossings_.clear();
        at_bottom_.clear();
        for (std::uint32_t i = 0; i < lines_.size(); ++i) {
            at_bottom_.push_back(i);
            auto place = at_bottom_.size() - 1;
            for (; place > 0 && lines_[i].below < lines_[at_bottom_[place - 1]].below; --place) {
                const auto other = at_bottom_[place - 1];
                const auto over = lines_[i].above - lines_[other].above;
                const auto under = lines_[other].below - lines_[i].below;
                crossings_.push_back({.part = over / (over + under), .left = other, .right = i});
                at_bottom_[place] = other;
            }
            at_bottom_[place] = i;
            if (work_ + crossings_.size() > most_work) return false;
        }
        work_ += crossings_.size();
        spend_work(crossings_.size());
        return true;
    }

    // The area that is covered between two heights where hundreds of pieces come together in one pixel: exact across,
    // and in the middle of each of some bands of one height.
    double sampled(double begin, double end) {
        constexpr auto work = 1 << 16;
        constexpr auto least = 16;
        constexpr auto most = 256;
        const auto in_all = std::clamp(work / static_cast<int>(pieces_.size()), least, most);
        const auto bands = std::max(1, static_cast<int>(std::ceil(in_all * (end - begin))));
        auto sum = 0.0;
        for (auto band = 0; band < bands; ++band) {
            spend_work(pieces_.size());
            const auto height = begin + (end - begin) * (band + 0.5) / bands;
            auto windings = at_top_;
            for (const auto& change : changes_) {
                if (change.height > height) break;
                covers_.add(windings, change.group, change.by);
            }
            lines_.clear();
            for (const auto& piece : pieces_) {
                if (piece.top > height || piece.bottom <= height) continue;
                const auto x = piece.x_at(height);
                lines_.push_back({.above = x, .below = x, .direction = piece.direction, .group = piece.group});
            }
            std::sort(lines_.begin(), lines_.end(), [](const Line& a, const Line& b) { return a.above < b.above; });
            sum += covered_across(windings);
        }
        return sum * (end - begin) / bands;
    }

    void emit(std::int64_t column, double coverage) {
        constexpr std::size_t many = 1024;
        if (!bytes_.empty() &&
            (bytes_from_ + static_cast<std::int64_t>(bytes_.size()) != column || bytes_.size() == many)) {
            flush();
        }
        if (bytes_.empty()) bytes_from_ = column;
        bytes_.push_back(byte_of_coverage(coverage));
    }

    void emit_alike(std::int64_t begin, std::int64_t end, std::uint8_t all) {
        if (all == 0) return;
        flush();
        batch_.add_alike(window_.top + row_, static_cast<int>(window_.left + begin),
                         static_cast<int>(window_.left + end), all);
    }

    void flush() {
        if (bytes_.empty()) return;
        batch_.add_each(window_.top + row_, static_cast<int>(window_.left + bytes_from_), bytes_.data(),
                        static_cast<int>(bytes_.size()));
        bytes_.clear();
    }

    // Pieces by the bands that each goes through, or crossings, in a pixel.
    static constexpr std::size_t most_work = 4096;

    Window window_;
    const CoverTruth& covers_;
    CoverBatch& batch_;
    int row_ = 0;
    CountedVector<Part> parts_;  // of the row, by their first columns
    CountedVector<Part> here_;   // in the columns at hand
    // Along the left side of these, by what lies to their left: at the top, and changes further down. The same of a
    // pixel.
    Windings base_;
    CountedVector<Change> left_;
    Windings at_top_;
    CountedVector<Change> changes_;
    CountedVector<Piece> pieces_;
    CountedVector<Line> lines_;
    CountedVector<Crossing> crossings_;
    CountedVector<Strand> strands_;
    CountedVector<std::uint32_t> at_bottom_;
    CountedVector<double> cuts_;
    std::size_t work_ = 0;
    // How often columns of the row have been parted where parts cross. Beyond that, in rows that are far wider than
    // they are looked at, coverage is taken as going evenly.
    static constexpr int most_splits = 4096;
    int splits_ = 0;
    CountedVector<std::uint8_t> bytes_;
    std::int64_t bytes_from_ = 0;
};

}  // namespace coldbrick::inline v0::detail
