#include "raster/forms/search_bounds.hpp"

#include "geometry/trigonometry.hpp"
#include "raster/spans/window.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <optional>
#include <queue>

namespace coldbrick::inline v0::detail {

namespace {

using Segments = CountedVector<FineSegment>;

constexpr auto nowhere = std::numeric_limits<double>::infinity();

double pixels(std::int64_t fine) noexcept { return static_cast<double>(fine) / static_cast<double>(fine_unit); }

using OfGroups = std::array<double, most_groups>;

OfGroups in_each_group(double value) noexcept {
    OfGroups values;
    values.fill(value);
    return values;
}

// Of numbers for each group, the least that holds for what is covered: a place in several groups is beyond all of their
// bounds.
double least_covered(const OfGroups& of_groups, GroupTruth truth) noexcept {
    auto least = nowhere;
    for (auto inside = 1U; inside < 1U << most_groups; ++inside) {
        if (((truth >> inside) & 1U) == 0) continue;
        auto all = -nowhere;
        for (auto group = 0U; group < most_groups; ++group) {
            if (((inside >> group) & 1U) != 0) all = std::max(all, of_groups[group]);
        }
        least = std::min(least, all);
    }
    return least;
}

// Turned so that what is looked for is always the least coordinate.
FineSegment mirrored(const FineSegment& segment) noexcept {
    return {.from = {.x = -segment.from.x, .y = segment.from.y},
            .to = {.x = -segment.to.x, .y = segment.to.y},
            .group = segment.group};
}

// The leftmost place of a segment within some rows, in pixels.
double leftmost(const FineSegment& segment, double top, double bottom) noexcept {
    const auto downward = segment.from.y <= segment.to.y;
    const auto& upper = downward ? segment.from : segment.to;
    const auto& lower = downward ? segment.to : segment.from;
    const auto y0 = pixels(upper.y);
    const auto y1 = pixels(lower.y);
    const auto x0 = pixels(upper.x);
    const auto x1 = pixels(lower.x);
    if (y1 < top || y0 > bottom) return nowhere;
    const auto at = [&](double y) {
        return y1 > y0 ? x0 + (x1 - x0) * std::clamp((y - y0) / (y1 - y0), 0.0, 1.0) : x0;
    };
    if (y1 <= y0) return std::min(x0, x1);
    return std::min(at(top), at(bottom));
}

// The first pixel whose centre is there or behind it; of smooth areas, the one that it lies in. Rounding may have moved
// it by a little.
std::int64_t first_pixel(double place, const KnownArea& area) noexcept {
    constexpr auto slack = 1.0 / 32;
    constexpr auto most = 4e9;
    const auto within = std::clamp(place, -most, most);
    if (area.is_smooth) return floor_of(within + 0.5 - (area.is_straight ? 0 : slack));
    return ceil_of(within - slack);
}

constexpr auto leaf_rows = 256;
constexpr auto most_leaves = 512;
constexpr auto most_nodes = 8192;

// The leftmost column of an area: rows are halved, those first whose edges come furthest to the left.
class ColumnSearch {
  public:
    // scan_rows(first, last) returns the leftmost column of what is in these rows, or a number beyond all.
    ColumnSearch(const Segments& segments, const KnownArea& area,
                 std::function<std::int64_t(std::int64_t, std::int64_t)> scan_rows)
        : segments_{segments}, area_{area}, scan_rows_{std::move(scan_rows)} {}

    std::int64_t search(std::int64_t top, std::int64_t bottom) {
        CountedVector<std::uint32_t> all(segments_.size());
        for (std::uint32_t i = 0; i < all.size(); ++i) all[i] = i;
        add(top, bottom, all);
        for (auto nodes = 0; !waiting_.empty(); ++nodes) {
            const auto next = waiting_.top();
            if (next.column >= known_) break;
            if (leaves_ > most_leaves || nodes > most_nodes) return next.column;
            waiting_.pop();
            if (next.bottom - next.top < leaf_rows) {
                ++leaves_;
                known_ = std::min(known_, scan_rows_(next.top, next.bottom));
                continue;
            }
            const auto middle = next.top + (next.bottom - next.top) / 2;
            add(next.top, middle, next.segments);
            add(middle + 1, next.bottom, next.segments);
        }
        return known_;
    }

  private:
    struct Rows {
        std::int64_t column;  // none of what is covered lies further to the left
        std::int64_t top;
        std::int64_t bottom;
        CountedVector<std::uint32_t> segments;  // that have a part in them
        bool operator<(const Rows& other) const noexcept { return column > other.column; }
    };

    void add(std::int64_t top, std::int64_t bottom, const CountedVector<std::uint32_t>& among) {
        auto of_groups = in_each_group(nowhere);
        Rows rows{.column = 0, .top = top, .bottom = bottom, .segments = {}};
        spend_work(among.size());
        for (const auto number : among) {
            const auto& segment = segments_[number];
            const auto place = leftmost(segment, static_cast<double>(top) - 0.5, static_cast<double>(bottom) + 0.5);
            if (place == nowhere) continue;
            auto& least = of_groups[static_cast<std::size_t>(segment.group)];
            least = std::min(least, place);
            rows.segments.push_back(number);
        }
        const auto place = least_covered(of_groups, area_.truth);
        if (place == nowhere) return;
        rows.column = first_pixel(place, area_);
        waiting_.push(std::move(rows));
    }

    const Segments& segments_;
    const KnownArea& area_;
    std::function<std::int64_t(std::int64_t, std::int64_t)> scan_rows_;
    std::priority_queue<Rows> waiting_;
    std::int64_t known_ = std::numeric_limits<std::int64_t>::max();
    int leaves_ = 0;
};

// The first row that has something: rows are halved, and those are left out in which the groups that a place must be in
// are not beside each other.
class RowSearch {
  public:
    static constexpr auto none = std::numeric_limits<std::int64_t>::max();

    // look(first, last) returns the first row in which there is something, or none. `is_upward` says that rows are
    // counted from below.
    RowSearch(const KnownArea& area, bool is_upward, std::function<std::int64_t(std::int64_t, std::int64_t)> look)
        : area_{area}, is_upward_{is_upward}, look_{std::move(look)} {}

    // The first row from one to another; none if there is none. If that would take too long, the first one in which
    // there may be something.
    std::int64_t search(std::int64_t first, std::int64_t last) {
        CountedVector<std::uint32_t> all(area_.segments.size());
        for (std::uint32_t i = 0; i < all.size(); ++i) all[i] = i;
        return search(first, last, all);
    }

  private:
    std::int64_t search(std::int64_t first, std::int64_t last, const CountedVector<std::uint32_t>& among) {
        constexpr auto most_rows = std::int64_t{1} << 17U;
        if (first > last) return none;
        CountedVector<std::uint32_t> here;
        if (!may_have(first, last, among, here)) return none;
        if (looked_at_ > most_rows) return first;
        if (last - first < 64) {
            looked_at_ += last - first + 1;
            return look_(first, last);
        }
        const auto middle = first + (last - first) / 2;
        const auto before = search(first, middle, here);
        return before != none ? before : search(middle + 1, last, here);
    }

    [[nodiscard]] bool may_have(std::int64_t first, std::int64_t last, const CountedVector<std::uint32_t>& among,
                                CountedVector<std::uint32_t>& here) const {
        const auto top = static_cast<double>(is_upward_ ? -last : first) - 0.5;
        const auto bottom = static_cast<double>(is_upward_ ? -first : last) + 0.5;
        auto least = in_each_group(nowhere);
        auto most = in_each_group(-nowhere);
        spend_work(2 * among.size());
        for (const auto number : among) {
            const auto& segment = area_.segments[number];
            const auto left = leftmost(segment, top, bottom);
            if (left == nowhere) continue;
            const auto group = static_cast<std::size_t>(segment.group);
            least[group] = std::min(least[group], left);
            most[group] = std::max(most[group], -leftmost(mirrored(segment), top, bottom));
            here.push_back(number);
        }
        for (auto inside = 1U; inside < 1U << most_groups; ++inside) {
            if (((area_.truth >> inside) & 1U) == 0) continue;
            auto from = -nowhere;
            auto to = nowhere;
            for (auto group = 0U; group < most_groups; ++group) {
                if (((inside >> group) & 1U) == 0) continue;
                from = std::max(from, least[group]);
                to = std::min(to, most[group]);
            }
            constexpr auto slack = 1.0;
            if (from <= to + slack) return true;
        }
        return false;
    }

    const KnownArea& area_;
    bool is_upward_;
    std::function<std::int64_t(std::int64_t, std::int64_t)> look_;
    std::int64_t looked_at_ = 0;
};

constexpr int as_int(std::int64_t value) noexcept {
    constexpr auto most = std::int64_t{std::numeric_limits<int>::max()};
    return static_cast<int>(std::clamp(value, -most, most));
}

// The rows in which something of an area may be, first and last.
struct Rows {
    std::int64_t first;
    std::int64_t last;
};

std::optional<Rows> rows_of(const KnownArea& area) {
    auto tops = in_each_group(nowhere);
    auto bottoms = in_each_group(nowhere);
    for (const auto& [from, to, group] : area.segments) {
        const auto of = static_cast<std::size_t>(group);
        tops[of] = std::min({tops[of], pixels(from.y), pixels(to.y)});
        bottoms[of] = std::min({bottoms[of], -pixels(from.y), -pixels(to.y)});
    }
    const auto least = least_covered(tops, area.truth);
    const auto most = least_covered(bottoms, area.truth);
    if (least == nowhere || most == nowhere) return std::nullopt;
    return Rows{.first = first_pixel(least, area), .last = -first_pixel(most, area)};
}

// Looks at rows of an area, as wide as a window is.
class RowScan {
  public:
    RowScan(const Window& window, const std::function<Box(const Box&)>& scan) noexcept : window_{window}, scan_{scan} {}

    Box operator()(std::int64_t first, std::int64_t last) const {
        return scan_(
            box_of({.left = window_.left, .top = as_int(first), .right = window_.right, .bottom = as_int(last + 1)}));
    }

  private:
    Window window_;
    const std::function<Box(const Box&)>& scan_;
};

// The first and the last row in which something is.
std::optional<Rows> search_rows(const KnownArea& area, const Rows& among, const RowScan& scan_rows) {
    constexpr auto none = RowSearch::none;
    const auto look_down = [&](std::int64_t from, std::int64_t to) {
        const auto found = scan_rows(from, to);
        return found.empty() ? none : std::int64_t{found.at.y};
    };
    const auto first = RowSearch{area, false, look_down}.search(among.first, among.last);
    if (first == none) return std::nullopt;
    const auto look_up = [&](std::int64_t from, std::int64_t to) {
        const auto found = scan_rows(-to, -from);
        return found.empty() ? none : -std::int64_t{found.last().y};
    };
    return Rows{.first = first, .last = -RowSearch{area, true, look_up}.search(-among.last, -first)};
}

}  // namespace

Box search_bounds(const KnownArea& area, const Box& outer, const std::function<Box(const Box&)>& scan) {
    const auto seen = window_of(outer);
    auto rows = rows_of(area);
    if (!rows) return {};
    const RowScan scan_rows{seen, scan};
    rows = search_rows(area,
                       {.first = std::max(rows->first, std::int64_t{seen.top}),
                        .last = std::min(rows->last, std::int64_t{seen.bottom} - 1)},
                       scan_rows);
    if (!rows) return {};
    constexpr auto none = RowSearch::none;
    const auto look_right = [&](std::int64_t from, std::int64_t to) {
        const auto found = scan_rows(from, to);
        return found.empty() ? none : std::int64_t{found.at.x};
    };
    const auto left = ColumnSearch{area.segments, area, look_right}.search(rows->first, rows->last);
    Segments turned;
    turned.reserve(area.segments.size());
    std::transform(area.segments.begin(), area.segments.end(), std::back_inserter(turned), mirrored);
    const auto look_left = [&](std::int64_t from, std::int64_t to) {
        const auto found = scan_rows(from, to);
        return found.empty() ? none : -std::int64_t{found.last().x};
    };
    const auto right = -ColumnSearch{turned, area, look_left}.search(rows->first, rows->last);
    if (left == none || right == -none || left > right) return {};
    return intersection(outer, box_of({.left = as_int(left),
                                       .top = as_int(rows->first),
                                       .right = as_int(right + 1),
                                       .bottom = as_int(rows->last + 1)}));
}

}  // namespace coldbrick::inline v0::detail
