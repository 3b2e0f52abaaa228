#include "raster/coverage/cover_bounds.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <optional>

namespace coldbrick::inline v0::detail {

namespace {

constexpr auto nowhere = std::numeric_limits<double>::infinity();

using OfGroups = std::array<double, most_groups>;

// Of how far each group reaches to one side, how far what is covered may reach: a place in several groups is in reach
// of all of them.
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

class CoverBounds {
  public:
    CoverBounds(const Chains& chains, const CoverRule& rule, const std::function<Box(const Window&)>& scan) noexcept
        : chains_{chains}, of_{chains.window()}, truth_{rule.truth}, scan_{scan} {}

    Box run() {
        if (!find_outer()) return {};
        if (!find_row(top_side)) return {};
        find_row(bottom_side);
        find_column(left_side);
        find_column(right_side);
        return box_of(box_);
    }

  private:
    // Places in pixels, from the window's upper left corner on.
    struct Extent {
        double left = nowhere;
        double top = nowhere;
        double right = -nowhere;
        double bottom = -nowhere;
    };

    // Places are rounded, and crisp curves lie up to 1/96 pixel beyond their chords.
    [[nodiscard]] Window pixels_of(const Extent& extent) const noexcept {
        constexpr auto slack = 1.0 / 32;
        const auto pixel = [](double at, int origin, int least, int most) {
            return static_cast<int>(std::clamp(at + origin, double{1} * least, double{1} * most));
        };
        return {.left = pixel(std::floor(extent.left - slack), of_.left, of_.left, of_.right),
                .top = pixel(std::floor(extent.top - slack), of_.top, of_.top, of_.bottom),
                .right = pixel(std::ceil(extent.right + slack), of_.left, of_.left, of_.right),
                .bottom = pixel(std::ceil(extent.bottom + slack), of_.top, of_.top, of_.bottom)};
    }

    // By how far the contours of each group reach. Returns whether anything may be covered.
    bool find_outer() {
        OfGroups left;
        left.fill(nowhere);
        auto top = left;
        auto right = left;
        auto bottom = left;
        const auto reach = [](double& least, double to) { least = std::min(least, to); };
        for (const auto& chain : chains_.all()) {
            reach(left[chain.group], chain.least_x);
            reach(top[chain.group], chains_.top_of(chain));
            reach(right[chain.group], -chain.most_x);
            reach(bottom[chain.group], -chains_.bottom_of(chain));
        }
        for (std::size_t group = 0; group < most_groups; ++group) {
            if (chains_.reaches_right(group)) right[group] = -nowhere;
        }
        const auto extent = Extent{.left = least_covered(left, truth_),
                                   .top = least_covered(top, truth_),
                                   .right = -least_covered(right, truth_),
                                   .bottom = -least_covered(bottom, truth_)};
        if (!(extent.left <= extent.right && extent.top <= extent.bottom)) return false;
        is_open_ = extent.right == nowhere;
        box_ = pixels_of(extent);
        return true;
    }

    // The rows of all contours between two places, or more.
    [[nodiscard]] Extent rows_between(double left, double right) const {
        Extent extent{.left = left, .right = right};
        if (right == nowhere && is_open_) {
            extent.top = 0;
            extent.bottom = double{1} * of_.bottom - of_.top;
            return extent;
        }
        spend_work(chains_.all().size());
        for (const auto& chain : chains_.all()) {
            if (chain.most_x < left || chain.least_x > right) continue;
            for (auto i = chain.first; i < chain.end; ++i) {
                const auto& edge = chains_.edges()[i];
                const auto [x0, x1] = std::minmax({edge.x_at(edge.top), edge.x_at(edge.bottom)});
                if (x1 < left || x0 > right) continue;
                const auto height_at = [&](double x) {
                    return std::clamp(edge.first_y + (x - edge.first_x) / edge.slope, edge.top, edge.bottom);
                };
                const auto is_within = x0 >= left && x1 <= right;
                const auto enters = is_within ? edge.top : height_at(edge.slope > 0 ? left : right);
                const auto leaves = is_within ? edge.bottom : height_at(edge.slope > 0 ? right : left);
                extent.top = std::min(extent.top, enters);
                extent.bottom = std::max(extent.bottom, leaves);
            }
        }
        return extent;
    }

    // A side of the box, the one across from it, and the step from one to the other.
    struct Side {
        int Window::*at;
        int Window::*other;
        int step;
    };
    static constexpr auto top_side = Side{&Window::top, &Window::bottom, 1};
    static constexpr auto bottom_side = Side{&Window::bottom, &Window::top, -1};
    static constexpr auto left_side = Side{&Window::left, &Window::right, 1};
    static constexpr auto right_side = Side{&Window::right, &Window::left, -1};

    // The outermost rows or columns of the box on a side, up to so many.
    [[nodiscard]] Window outermost_of(const Side& side, std::int64_t most) const noexcept {
        auto part = box_;
        const auto extent = (std::int64_t{box_.*side.other} - box_.*side.at) * side.step;
        part.*side.other = static_cast<int>(box_.*side.at + side.step * std::min(most, extent));
        return part;
    }

    // Cuts off rows in which nothing is found, from the top or from the bottom on. Returns whether there is any.
    bool find_row(const Side& side) {
        for (auto rows = std::int64_t{few}; !box_.empty(); rows *= 2) {
            const auto part = outermost_of(side, rows);
            if (is_too_much(std::int64_t{part.bottom} - part.top)) return true;
            const auto found = scan_(part);
            if (!found.empty()) {
                box_.*side.at = window_of(found).*side.at;
                return true;
            }
            box_.*side.at = part.*side.other;
        }
        return false;
    }

    // The same with columns, from the left or from the right on. There is something in one.
    void find_column(const Side& side) {
        for (auto columns = std::int64_t{few}; !box_.empty(); columns *= 2) {
            auto part = outermost_of(side, columns);
            const auto end = double{1} * (part.*side.other) - of_.left;
            const auto extent = side.step > 0 ? rows_between(-nowhere, end) : rows_between(end, nowhere);
            if (extent.top <= extent.bottom) {
                const auto rows = pixels_of(extent);
                part.top = std::max(part.top, rows.top);
                part.bottom = std::min(part.bottom, rows.bottom);
                const auto found = outermost_in(part, side);
                if (!found) return;
                if (*found != part.*side.other) {
                    box_.*side.at = *found;
                    return;
                }
            }
            box_.*side.at = part.*side.other;
        }
    }

    // How far what is in some columns reaches to a side; their other side if there is nothing, and nothing if there are
    // too many rows to find out.
    std::optional<int> outermost_in(const Window& columns, const Side& side) {
        constexpr auto together = std::int64_t{1} << 12U;
        auto reached = columns.*side.other;
        for (auto first = std::int64_t{columns.top}; first < columns.bottom; first += together) {
            auto part = columns;
            part.top = static_cast<int>(first);
            part.bottom = static_cast<int>(std::min<std::int64_t>(first + together, columns.bottom));
            if (is_too_much(part.bottom - first)) return std::nullopt;
            const auto found = scan_(part);
            if (found.empty()) continue;
            const auto at = window_of(found).*side.at;
            reached = side.step > 0 ? std::min(reached, at) : std::max(reached, at);
            if (reached == columns.*side.at) break;
        }
        return reached;
    }

    bool is_too_much(std::int64_t rows) noexcept {
        constexpr auto most = std::int64_t{1} << 17U;
        looked_at_ += rows;
        return looked_at_ > most;
    }

    static constexpr auto few = 4;

    const Chains& chains_;
    Window of_;
    GroupTruth truth_;
    const std::function<Box(const Window&)>& scan_;
    Window box_{};
    bool is_open_ = false;  // whether chains that are not known bound what is covered to the right
    std::int64_t looked_at_ = 0;
};

}  // namespace

Box bounds_of_cover(const Chains& chains, const CoverRule& rule, const std::function<Box(const Window&)>& scan) {
    return CoverBounds{chains, rule, scan}.run();
}

}  // namespace coldbrick::inline v0::detail
