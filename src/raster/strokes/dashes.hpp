// The pattern of dashes along a path.
#pragma once

#include "coldbrick/budget.hpp"
#include "coldbrick/stroke.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <vector>

namespace coldbrick::inline v0::detail {

// In one call: a path of a million pixels with dashes and gaps of two pixels each.
constexpr auto most_dashes = 1 << 18;

class DashPattern {
  public:
    explicit DashPattern(const Stroke& how) : offset_{how.dash_offset} {
        const auto times = how.dash.size() % 2 == 0 ? 1 : 2;
        for (auto i = 0; i < times; ++i) {
            for (const auto length : how.dash) {
                starts_.push_back(period_);
                period_ += length;
            }
        }
        starts_.push_back(period_);
        // Any number of whole periods is none.
        offset_ = std::fmod(offset_, period_);
    }

    // How many dashes begin in a length of the path, on average.
    [[nodiscard]] double dashes_in(double length) const noexcept {
        return length / period_ * (static_cast<double>(starts_.size()) - 1) / 2;
    }

    // A dash from one distance to another, and its number, counted from the path's beginning.
    struct Dash {
        double begin;
        double end;
        std::int64_t number;
    };

    // Calls use(dash) for each dash that has a part from one distance to another, ends included, in turn.
    template <class Use>
    void for_each(double from, double to, const Use& use) const {
        const auto first = std::floor((from + offset_) / period_) - 1;
        const auto last = std::floor((to + offset_) / period_) + 1;
        for (auto period = first; period <= last; ++period) {
            spend_work(1);
            const auto base = period * period_ - offset_;
            // The first one that does not end before: each second start is of a gap, where a dash ends.
            const auto near = std::lower_bound(starts_.begin(), starts_.end(), from - base);
            const auto number = static_cast<std::size_t>(near - starts_.begin());
            for (auto i = number < 2 ? 0 : (number - 2) / 2 * 2; i + 1 < starts_.size(); i += 2) {
                if (base + starts_[i] > to) return;
                spend_work(1);
                const auto number_before =
                    static_cast<std::int64_t>(period) * static_cast<std::int64_t>(starts_.size() / 2);
                const auto dash = Dash{.begin = base + starts_[i],
                                       .end = base + starts_[i + 1],
                                       .number = number_before + static_cast<std::int64_t>(i / 2)};
                if (dash.end >= from && dash.begin <= to) use(dash);
            }
        }
    }

  private:
    double offset_;
    double period_ = 0;
    std::vector<double> starts_;  // of dashes and gaps in turn, and the period
};

}  // namespace coldbrick::inline v0::detail
