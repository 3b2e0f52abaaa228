// What a row is covered by, cut into bands in which lines lie one beside the other.
#pragma once

#include "geometry/integers.hpp"
#include "raster/coverage/cover.hpp"
#include "raster/coverage/cover_parts.hpp"
#include "raster/coverage/cover_row.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numeric>
#include <span>
#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

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

  private:
    const CoverRule& rule_;
    bool has_one_group_;
};

template <class Steps>
class CoverBands {
  public:
    using Edges = std::span<const CoverEdge>;

    CoverBands(int width, const CoverTruth& covers, CoverRow<Steps>& row) noexcept
        : width_{width}, covers_{covers}, row_{row} {}

    // The edges of a row, of which it may be that all go through it, in the order of their x. Where columns without
    // edges part them, and nothing is covered there, each part is taken by itself: what is drawn far away has no
    // bearing on it, and work grows with the parts.
    void take_row(Edges active, double top, bool is_whole) {
        constexpr std::size_t few = 24;
        if (active.size() < few || !parts_.find(active, top, width_)) return take_part(active, top, is_whole);
        for (std::size_t i = 0; i < parts_.count(); ++i) take_part(parts_[i], top, is_whole);
    }

  private:
    // So many edges that they are not told apart any more.
    static constexpr std::size_t most_exact = 4096;

    void take_part(Edges active, double top, bool is_whole) {
        if (active.size() > most_exact) return take_sampled_row(active, top);
        is_whole ? take_whole_row(active) : take_cut_row(active, top);
    }

    // Edges that go all through the row, in the order of their x.
    void take_whole_row(Edges active) {
        crossings_.clear();
        auto is_sorted = true;
        auto before = -std::numeric_limits<double>::infinity();
        for (const auto& edge : active) {
            const auto below = edge.x_at(edge.top + 1);
            is_sorted = is_sorted && below >= before;
            before = below;
            crossings_.push_back({.above = edge.x,
                                  .below = below,
                                  .direction = edge.direction,
                                  .group = edge.group,
                                  .number = edge.number});
        }
        work_ = 0;
        is_sorted ? add_lines(crossings_, 1) : cut_at_crossings(1);
    }

    // Edges of which some begin or end in the row: a band between each two heights at which one does.
    void take_cut_row(Edges active, double top) {
        cuts_.clear();
        cuts_.push_back(top);
        cuts_.push_back(top + 1);
        for (const auto& edge : active) {
            if (edge.top > top) cuts_.push_back(edge.top);
            if (edge.bottom < top + 1) cuts_.push_back(edge.bottom);
        }
        std::sort(cuts_.begin(), cuts_.end());
        cuts_.erase(std::unique(cuts_.begin(), cuts_.end()), cuts_.end());
        if (!find_stays(active, top)) return take_sampled_row(active, top);
        work_ = 0;
        in_band_.clear();
        std::size_t next = 0;
        for (std::uint32_t band = 0; band + 1 < cuts_.size(); ++band) {
            std::erase_if(in_band_, [=](const Stay& of) { return of.end <= band; });
            for (; next < stays_.size() && stays_[next].begin == band; ++next) in_band_.push_back(stays_[next]);
            take_band(active, cuts_[band], cuts_[band + 1]);
        }
    }

    // In bands of one height, as many as there is time for.
    void take_sampled_row(Edges active, double top) {
        const auto bands = bands_for(active.size());
        // Heights are rounded, too, so that they are the same in each row of each window.
        const auto side = [=](int number) { return in_grid(double{1} * number / bands); };
        for (auto i = 0; i < bands; ++i) take_sampled_band(active, top + side(i), side(i + 1) - side(i));
    }

    // An edge in a band: where it crosses its upper and its lower side.
    struct Crossing {
        double above;
        double below;
        int direction;
        int group;
        std::uint32_t number;
    };

    // An edge, and the bands that it goes through.
    struct Stay {
        std::uint32_t begin;
        std::uint32_t end;
        std::uint32_t edge;
    };

    // Of all edges, in the order of the bands in which they begin; says whether there is time to look at each.
    bool find_stays(Edges active, double top) {
        const auto band_at = [&](double height) {
            return static_cast<std::uint32_t>(std::lower_bound(cuts_.begin(), cuts_.end(), height) - cuts_.begin());
        };
        stays_.clear();
        std::size_t work = 0;
        for (std::uint32_t i = 0; i < active.size(); ++i) {
            const auto& edge = active[i];
            const auto begin = edge.top > top ? band_at(edge.top) : 0;
            const auto end =
                edge.bottom < top + 1 ? band_at(edge.bottom) : static_cast<std::uint32_t>(cuts_.size() - 1);
            if (begin >= end) continue;
            work += end - begin;
            stays_.push_back({.begin = begin, .end = end, .edge = i});
        }
        if (work > exact_work) return false;
        std::stable_sort(stays_.begin(), stays_.end(), [](const Stay& a, const Stay& b) { return a.begin < b.begin; });
        return true;
    }

    // What goes through a band.
    void take_band(Edges active, double begin, double end) {
        spend_work(in_band_.size() + 1);
        crossings_.clear();
        for (const auto& stay : in_band_) {
            const auto& edge = active[stay.edge];
            crossings_.push_back({.above = edge.x_at(begin),
                                  .below = edge.x_at(end),
                                  .direction = edge.direction,
                                  .group = edge.group,
                                  .number = edge.number});
        }
        cut_at_crossings(end - begin);
    }

    // An edge in the middle of a band: where it is, and which of those of the row it is, with its group and direction
    // in the lowest bits.
    struct Passing {
        double place;
        std::uint32_t edge;
        std::uint32_t number;
    };

    // Of many, first by the part of all places that they are in.
    void sort_by_place() {
        constexpr std::size_t many = 512;
        if (passing_.size() > many) {
            const auto [least, most] = std::minmax_element(
                passing_.begin(), passing_.end(), [](const Passing& a, const Passing& b) { return a.place < b.place; });
            const auto last = static_cast<double>(passing_.size()) - 1;
            const auto extent = most->place - least->place;
            const auto scale = extent > 0 ? last / extent : 0;
            deal(passing_, dealt_passing_, [=, from = least->place](const Passing& of) {
                return static_cast<std::size_t>(std::clamp((of.place - from) * scale, 0.0, last));
            });
        }
        sort_nearly_sorted(passing_, [](const Passing& a, const Passing& b) {
            return a.place != b.place ? a.place < b.place : a.number < b.number;
        });
    }

    // Takes what crosses the middle of a band as going all through it.
    void take_sampled_band(Edges active, double begin, double height) {
        spend_work(2 * active.size());
        const auto middle = begin + height / 2;
        passing_.clear();
        std::uint32_t number = 0;
        for (const auto& edge : active) {
            const auto which =
                number++ << 4U | static_cast<std::uint32_t>(edge.group) << 1U | (edge.direction > 0 ? 1U : 0U);
            if (edge.top > middle || edge.bottom <= middle) continue;
            passing_.push_back({.place = edge.x_at(middle), .edge = which, .number = edge.number});
        }
        sort_by_place();
        int windings[most_groups] = {};
        auto was_inside = false;
        for (const auto& [place, which, order] : passing_) {
            windings[(which >> 1U) & 7U] += (which & 1U) != 0 ? 1 : -1;
            const auto is_inside = covers_(windings);
            if (is_inside == was_inside) continue;
            was_inside = is_inside;
            const auto& edge = active[which >> 4U];
            // No further than it goes.
            const auto x_at = [&](double y) { return edge.x_at(std::clamp(y, edge.top, edge.bottom)); };
            row_.add(x_at(begin), x_at(begin + height), is_inside ? height : -height);
        }
    }

    // Rows in which more happens than that, in edges by the bands that each goes through, are measured in bands of one
    // height: where thousands
    // of edges come together in a row, no single one is seen any more.
    static constexpr std::size_t exact_work = 16384;
    static int bands_for(std::size_t edges) noexcept {
        constexpr std::size_t work = 1 << 15;
        return static_cast<int>(std::clamp<std::size_t>(work / std::max<std::size_t>(edges, 1), 1, 256));
    }

    // Many of them first by the part of the window that they are in.
    void sort_by_middle(CountedVector<Crossing>& crossings) {
        constexpr std::size_t many = 128;
        if (crossings.size() > many) {
            const auto last = static_cast<double>(crossings.size()) - 1;
            deal(crossings, dealt_, [=, scale = (last + 1) / (2.0 * width_)](const Crossing& of) {
                return static_cast<std::size_t>(std::clamp(middle(of) * scale, 0.0, last));
            });
        }
        sort_nearly_sorted(crossings, [](const Crossing& a, const Crossing& b) {
            return middle(a) != middle(b) ? middle(a) < middle(b) : a.number < b.number;
        });
    }

    // By parts from 0 on, of which there are as many as there are of them.
    template <class Of, class PartOf>
    void deal(CountedVector<Of>& all, CountedVector<Of>& dealt, const PartOf& part_of) {
        ends_.assign(all.size(), 0);
        for (const auto& of : all) ++ends_[part_of(of)];
        std::partial_sum(ends_.begin(), ends_.end(), ends_.begin());
        dealt.resize(all.size());
        for (auto i = all.size(); i-- > 0;) dealt[--ends_[part_of(all[i])]] = all[i];
        all.swap(dealt);
    }

    // Sorts them, and where two change places cuts the band there.
    void cut_at_crossings(double height) {
        spend_work(crossings_.size() + 1);
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
            const auto between = crossings_[i].above + in_grid((crossings_[i].below - crossings_[i].above) * part);
            crossings_[i].below = lower[i].above = between;
        }
        cut_at_crossings(height * part);
        crossings_ = std::move(lower);
        cut_at_crossings(height * (1 - part));
    }

    void add_sampled(double height) {
        const auto whole = crossings_;
        const auto bands = static_cast<int>(std::ceil(bands_for(whole.size()) * height));
        for (auto k = 0; k < bands; ++k) {
            spend_work(2 * whole.size());
            for (std::size_t i = 0; i < whole.size(); ++i) {
                const auto over = whole[i].below - whole[i].above;
                auto& part = crossings_[i];
                part = whole[i];
                part.above = whole[i].above + in_grid(over * k / bands);
                part.below = whole[i].above + in_grid(over * (k + 1) / bands);
            }
            sort_by_middle(crossings_);
            add_lines(crossings_, height / bands);
        }
        crossings_ = whole;
    }

    [[nodiscard]] static double middle(const Crossing& crossing) noexcept { return crossing.above + crossing.below; }

    void add_lines(const CountedVector<Crossing>& crossings, double height) {
        int windings[most_groups] = {};
        auto was_inside = false;
        for (const auto& [above, below, direction, group, number] : crossings) {
            windings[group] += direction;
            const auto is_inside = covers_(windings);
            if (is_inside != was_inside) row_.add(above, below, is_inside ? height : -height);
            was_inside = is_inside;
        }
    }

    int width_;
    const CoverTruth& covers_;
    CoverRow<Steps>& row_;
    CountedVector<double> cuts_;
    CountedVector<Stay> stays_;
    CountedVector<Stay> in_band_;
    CountedVector<Crossing> crossings_;
    CountedVector<Crossing> dealt_;
    CountedVector<Passing> passing_;
    CountedVector<Passing> dealt_passing_;
    CountedVector<std::uint32_t> ends_;
    RowParts parts_;
    std::size_t work_ = 0;  // edges that have been looked at to cut the row at hand
};

}  // namespace coldbrick::inline v0::detail
