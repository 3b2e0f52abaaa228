// What a pixel is covered by: the area between straight lines in it, by the winding numbers of the places between them.
#pragma once

#include "raster/coverage/cover.hpp"
#include "raster/rows/row_sweep.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <utility>

namespace coldbrick::inline v0::detail {

// The winding numbers of a place in each group, and the groups in which it is inside.
struct Windings {
    int of[most_groups] = {};
    unsigned inside = 0;
};

// Whether a place is covered, by its winding number in each group.
class CoverTruth {
  public:
    explicit CoverTruth(const CoverRule& rule) noexcept : rule_{rule} {}

    [[nodiscard]] bool operator()(const Windings& at) const noexcept { return ((rule_.truth >> at.inside) & 1U) != 0; }

    void add(Windings& to, int group, int by) const noexcept {
        auto& winding = to.of[group];
        winding += by;
        const auto bit = 1U << static_cast<unsigned>(group);
        to.inside = (winding & rule_.masks[group]) != 0 ? to.inside | bit : to.inside & ~bit;
    }

  private:
    const CoverRule& rule_;
};

// The part of an edge in a row, whose upper side is at 0: from one height and place to another.
struct RowPart {
    double top;
    double bottom;
    double x_top;
    double x_bottom;
    int direction;
    int group;
};

// The winding numbers along a pixel's left side, by what lies left of it: at the top, and where they change.
class LeftSide {
  public:
    struct Change {
        double height;
        int group;
        int by;
    };

    void clear() noexcept {
        at_top = {};
        changes.clear();
    }

    // From one height to another, a part is to the left.
    void add(double from, double to, const RowPart& part, const CoverTruth& covers) {
        if (from == 0) {
            covers.add(at_top, part.group, part.direction);
        } else {
            change({.height = from, .group = part.group, .by = part.direction});
        }
        // Nothing changes any more at the lower side.
        if (to < 1) change({.height = to, .group = part.group, .by = -part.direction});
    }

    Windings at_top;
    CountedVector<Change> changes;  // in order of heights; what cancels is left out

  private:
    void change(const Change& to) {
        const auto is_before = [](const Change& a, const Change& b) {
            return a.height != b.height ? a.height < b.height : a.group < b.group;
        };
        const auto at = std::lower_bound(changes.begin(), changes.end(), to, is_before);
        if (at == changes.end() || is_before(to, *at)) {
            changes.insert(at, to);
        } else if ((at->by += to.by) == 0) {
            changes.erase(at);
        }
    }
};

class PixelCover {
  public:
    explicit PixelCover(const CoverTruth& covers) noexcept : covers_{covers} {}

    // Begins with a pixel, by what lies left of it.
    void begin(const LeftSide& left) {
        left_.at_top = left.at_top;
        left_.changes.assign(left.changes.begin(), left.changes.end());
        pieces_.clear();
    }

    // Adds a part that is in the pixel of a column. Steep parts are lines that go on left and right of it. Of others,
    // what lies left of it counts along its left side; what lies right of it has no bearing.
    void add(const RowPart& part, double column) {
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
            if (from < to) left_.add(from, to, part, covers_);
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

    // Returns how much of it is covered.
    double coverage() {
        if (pieces_.size() < 2 && left_.changes.empty()) return beside_one_piece();
        cuts_.clear();
        cuts_.push_back(0);
        cuts_.push_back(1);
        for (const auto& change : left_.changes) cuts_.push_back(change.height);
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

  private:
    // A straight line by places in the pixel, in which x goes from 0 to 1.
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
        const auto is_left_inside = covers_(left_.at_top);
        const auto left = is_left_inside ? 1.0 : 0.0;
        if (pieces_.empty()) return left;
        const auto& piece = pieces_.front();
        auto right = left_.at_top;
        covers_.add(right, piece.group, piece.direction);
        const auto is_right_inside = covers_(right);
        if (is_left_inside == is_right_inside) return left;
        const auto right_of_piece = (piece.bottom - piece.top) * right_of(piece.x_top, piece.x_at(piece.bottom));
        return is_right_inside ? right_of_piece : 1 - right_of_piece;
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
        std::sort(pieces_.begin(), pieces_.end(), [](const Piece& a, const Piece& b) { return a.top < b.top; });
        auto sum = 0.0;
        auto windings = left_.at_top;
        auto change = left_.changes.begin();
        in_band_.clear();
        std::uint32_t next = 0;
        for (std::size_t band = 0; band + 1 < cuts_.size(); ++band) {
            const auto begin = cuts_[band];
            const auto end = cuts_[band + 1];
            for (; change != left_.changes.end() && change->height <= begin; ++change) {
                covers_.add(windings, change->group, change->by);
            }
            std::erase_if(in_band_, [&](std::uint32_t i) { return pieces_[i].bottom <= begin; });
            for (; next < pieces_.size() && pieces_[next].top <= begin; ++next) in_band_.push_back(next);
            lines_.clear();
            for (const auto i : in_band_) {
                const auto& piece = pieces_[i];
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
            auto windings = left_.at_top;
            for (const auto& change : left_.changes) {
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

    // Pieces by the bands that each goes through, or crossings.
    static constexpr std::size_t most_work = 4096;

    const CoverTruth& covers_;
    LeftSide left_;
    CountedVector<Piece> pieces_;
    CountedVector<double> cuts_;
    CountedVector<std::uint32_t> in_band_;
    CountedVector<Line> lines_;
    CountedVector<Crossing> crossings_;
    CountedVector<Strand> strands_;
    CountedVector<std::uint32_t> at_bottom_;
    std::size_t work_ = 0;
};

}  // namespace coldbrick::inline v0::detail
