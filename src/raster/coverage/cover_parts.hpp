// The edges of a row in parts that columns without edges set apart.
#pragma once

#include "raster/coverage/cover.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <limits>
#include <numeric>
#include <span>
#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

class RowParts {
  public:
    using Edges = std::span<const CoverEdge>;

    // Puts the edges into parts, in each of which they keep their order; says whether there are several.
    bool find(Edges active, double top, int width) {
        const auto columns_of = [&](const CoverEdge& edge) {
            const auto end = edge.x_at(std::min(edge.bottom, top + 1));
            return Columns{.first = static_cast<std::int64_t>(std::floor(std::min(edge.x, end))),
                           .last = static_cast<std::int64_t>(std::floor(std::max(edge.x, end)))};
        };
        auto least = std::numeric_limits<std::int64_t>::max();
        auto most = std::numeric_limits<std::int64_t>::min();
        for (const auto& edge : active) {
            const auto [first, last] = columns_of(edge);
            least = std::min(least, first);
            most = std::max(most, last);
        }
        const auto extent = most - least + 1;
        if (extent < 3) return false;
        // Edges may lie far beside the window.
        constexpr std::int64_t usual = 8;
        if (extent > usual * (std::min(width, widest_dense_window) + static_cast<std::int64_t>(active.size())))
            return find_sorted(active, top, columns_of);
        // How many edges begin to be in a column, and which part that is.
        edges_in_.assign(static_cast<std::size_t>(extent) + 1, 0);
        for (const auto& edge : active) {
            const auto [first, last] = columns_of(edge);
            ++edges_in_[static_cast<std::size_t>(first - least)];
            --edges_in_[static_cast<std::size_t>(last - least) + 1];
        }
        auto here = 0;
        auto number = 0;
        auto was_free = false;
        for (auto& of : edges_in_) {
            here += of;
            if (here > 0 && was_free) ++number;
            was_free = here == 0;
            of = number;
        }
        return number > 0 && deal_parts(active, top, static_cast<std::size_t>(number) + 1, [&](const CoverEdge& edge) {
                   const auto first = columns_of(edge).first;
                   return static_cast<std::size_t>(edges_in_[static_cast<std::size_t>(first - least)]);
               });
    }

    [[nodiscard]] std::size_t count() const noexcept { return part_begins_.size() - 1; }
    [[nodiscard]] Edges operator[](std::size_t part) const noexcept {
        return Edges{parted_}.subspan(part_begins_[part], part_begins_[part + 1] - part_begins_[part]);
    }

  private:
    struct Columns {
        std::int64_t first;
        std::int64_t last;
    };

    // The same, by sorting the columns in which edges begin.
    template <class ColumnsOf>
    bool find_sorted(Edges active, double top, const ColumnsOf& columns_of) {
        columns_.clear();
        for (const auto& edge : active) columns_.push_back(columns_of(edge));
        std::sort(columns_.begin(), columns_.end(),
                  [](const Columns& a, const Columns& b) { return a.first < b.first; });
        // The first column of each part.
        begins_.clear();
        auto reached = std::int64_t{0};
        for (const auto& [first, last] : columns_) {
            if (begins_.empty() || first > reached + 1) begins_.push_back(first);
            reached = begins_.size() == 1 && begins_.front() == first ? last : std::max(reached, last);
        }
        if (begins_.size() < 2) return false;
        return deal_parts(active, top, begins_.size(), [&](const CoverEdge& edge) {
            const auto after = std::upper_bound(begins_.begin(), begins_.end(), columns_of(edge).first);
            return static_cast<std::size_t>(after - begins_.begin()) - 1;
        });
    }

    // By part_of(edge), of so many parts.
    template <class PartOf>
    bool deal_parts(Edges active, double top, std::size_t count, const PartOf& part_of) {
        deal_by(active, count, part_of);
        // Parts are one between which something is covered at some height: there, the windings of what begins and ends
        // left of it do not come to nothing. The net of both for each height and group:
        heights_.clear();
        const auto begin_of = [=](const CoverEdge& edge) { return std::max(edge.top, top); };
        const auto end_of = [=](const CoverEdge& edge) { return std::min(edge.bottom, top + 1); };
        for (const auto& edge : active) {
            heights_.push_back(begin_of(edge));
            heights_.push_back(end_of(edge));
        }
        std::sort(heights_.begin(), heights_.end());
        heights_.erase(std::unique(heights_.begin(), heights_.end()), heights_.end());
        nets_.assign(heights_.size() * most_groups, 0);
        auto open = 0;
        const auto add = [&](double height, int group, int by) {
            const auto at = std::lower_bound(heights_.begin(), heights_.end(), height) - heights_.begin();
            auto& net = nets_[static_cast<std::size_t>(at) * most_groups + static_cast<std::size_t>(group)];
            open += net == 0 ? 1 : 0;
            net += by;
            open -= net == 0 ? 1 : 0;
        };
        auto kept = std::size_t{1};
        for (std::size_t part = 0; part < count; ++part) {
            for (auto i = part_begins_[part]; i < part_begins_[part + 1]; ++i) {
                const auto& edge = parted_[i];
                add(begin_of(edge), edge.group, edge.direction);
                add(end_of(edge), edge.group, -edge.direction);
            }
            if (open == 0) part_begins_[kept++] = part_begins_[part + 1];
        }
        if (part_begins_[kept - 1] != active.size()) part_begins_[kept++] = active.size();
        part_begins_.resize(kept);
        return kept > 2;
    }

    // Puts the edges into parts, in their order.
    template <class PartOf>
    void deal_by(Edges active, std::size_t count, const PartOf& part_of) {
        part_begins_.assign(count + 1, 0);
        for (const auto& edge : active) ++part_begins_[part_of(edge) + 1];
        std::partial_sum(part_begins_.begin(), part_begins_.end(), part_begins_.begin());
        next_in_part_ = part_begins_;
        parted_.resize(active.size());
        for (const auto& edge : active) parted_[next_in_part_[part_of(edge)]++] = edge;
    }

    CountedVector<Columns> columns_;
    CountedVector<std::int64_t> begins_;
    // Edges in each column, then its part; heights at which edges begin or end, and the net of them;
    // where each part begins.
    CountedVector<int> edges_in_;
    CountedVector<double> heights_;
    CountedVector<int> nets_;
    CountedVector<std::size_t> part_begins_;
    CountedVector<std::size_t> next_in_part_;
    CountedVector<CoverEdge> parted_;
};

}  // namespace coldbrick::inline v0::detail
