#include "raster/coverage/cover_bounds.hpp"

#include "raster/coverage/chain_order.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>
#include <vector>

namespace coldbrick::inline v0::detail {

namespace {

class CoverBounds {
  public:
    CoverBounds(const Chains& chains, const CoverRule& rule, const std::function<Box(const Window&)>& scan,
                std::pmr::memory_resource* memory)
        : edges_{chains.edges()}, of_{chains.window()}, parts_{sided_parts(chains, rule, memory)}, scan_{scan} {}

    Box run() {
        constexpr auto everywhere = std::numeric_limits<double>::infinity();
        const auto extent = extent_between(-everywhere, everywhere);
        if (!extent) return {};
        box_ = *extent;
        if (!find_row(&Window::top, 1)) return {};
        find_row(&Window::bottom, -1);
        find_column(&Window::left, 1);
        find_column(&Window::right, -1);
        return box_of(box_);
    }

  private:
    // The pixels around all places, between two, at which what is covered begins or ends.
    [[nodiscard]] std::optional<Window> extent_between(double left, double right) const {
        auto [least_x, top] = std::array{right, double{1} * of_.bottom - of_.top};
        auto [most_x, bottom] = std::array{left, 0.0};
        spend_work(parts_.size());
        for (const auto& part : parts_) {
            const auto* edge = edges_ + part.first;
            for (auto y = part.top; y < part.bottom; y = edge++->bottom) {
                const auto end = std::min(edge->bottom, part.bottom);
                const auto [x0, x1] = std::minmax({edge->x_at(y), edge->x_at(end)});
                if (x1 < left || x0 > right) continue;
                const auto height_at = [&](double x) {
                    return std::clamp(edge->first_y + (x - edge->first_x) / edge->slope, y, end);
                };
                const auto is_within = x0 >= left && x1 <= right;
                const auto enters = is_within ? y : height_at(edge->slope > 0 ? left : right);
                const auto leaves = is_within ? end : height_at(edge->slope > 0 ? right : left);
                least_x = std::min(least_x, x0);
                most_x = std::max(most_x, x1);
                top = std::min(top, enters);
                bottom = std::max(bottom, leaves);
            }
        }
        if (!(top <= bottom)) return std::nullopt;
        // Places are rounded, and crisp curves lie up to 1/96 pixel beyond their chords.
        constexpr auto slack = 1.0 / 32;
        const auto pixel = [](double at, int origin, int least, int most) {
            return static_cast<int>(std::clamp(at + origin, double{1} * least, double{1} * most));
        };
        return Window{.left = pixel(std::floor(least_x - slack), of_.left, of_.left, of_.right),
                      .top = pixel(std::floor(top - slack), of_.top, of_.top, of_.bottom),
                      .right = pixel(std::ceil(most_x + slack), of_.left, of_.left, of_.right),
                      .bottom = pixel(std::ceil(bottom + slack), of_.top, of_.top, of_.bottom)};
    }

    // Cuts off rows in which nothing is found, from the top or from the bottom on. Returns whether there is any.
    bool find_row(int Window::*side, int step) {
        for (auto rows = std::int64_t{few}; !box_.empty(); rows *= 2) {
            auto part = box_;
            const auto other_side = step > 0 ? &Window::bottom : &Window::top;
            const auto height = std::int64_t{box_.bottom} - box_.top;
            part.*other_side = static_cast<int>(box_.*side + step * std::min(rows, height));
            if (is_too_much(std::min(rows, height))) return true;
            const auto found = scan_(part);
            if (!found.empty()) {
                box_.*side = window_of(found).*side;
                return true;
            }
            box_.*side = part.*other_side;
        }
        return false;
    }

    // The same with columns, from the left or from the right on. There is something in one.
    void find_column(int Window::*side, int step) {
        constexpr auto everywhere = std::numeric_limits<double>::infinity();
        for (auto columns = std::int64_t{few}; !box_.empty(); columns *= 2) {
            auto part = box_;
            const auto other_side = step > 0 ? &Window::right : &Window::left;
            const auto width = std::int64_t{box_.right} - box_.left;
            part.*other_side = static_cast<int>(box_.*side + step * std::min(columns, width));
            const auto end = double{1} * (part.*other_side) - of_.left;
            const auto extent = step > 0 ? extent_between(-everywhere, end) : extent_between(end, everywhere);
            if (extent) {
                part.top = std::max(part.top, extent->top);
                part.bottom = std::min(part.bottom, extent->bottom);
                const auto found = outermost(part, side, step);
                if (!found) return;
                if (*found != part.*other_side) {
                    box_.*side = *found;
                    return;
                }
            }
            box_.*side = part.*other_side;
        }
    }

    // How far what is in some columns reaches to a side; their other side if there is nothing, and nothing if there are
    // too many rows to find out.
    std::optional<int> outermost(const Window& columns, int Window::*side, int step) {
        constexpr auto together = std::int64_t{1} << 12U;
        auto reached = step > 0 ? columns.right : columns.left;
        for (auto top = std::int64_t{columns.top}; top < columns.bottom; top += together) {
            auto part = columns;
            part.top = static_cast<int>(top);
            part.bottom = static_cast<int>(std::min<std::int64_t>(top + together, columns.bottom));
            if (is_too_much(part.bottom - top)) return std::nullopt;
            const auto found = scan_(part);
            if (found.empty()) continue;
            const auto at = window_of(found).*side;
            reached = step > 0 ? std::min(reached, at) : std::max(reached, at);
            if (reached == columns.*side) break;
        }
        return reached;
    }

    bool is_too_much(std::int64_t rows) noexcept {
        constexpr auto most = std::int64_t{1} << 17U;
        looked_at_ += rows;
        return looked_at_ > most;
    }

    static constexpr auto few = 4;

    const ChainEdge* edges_;
    Window of_;
    std::pmr::vector<ChainPart> parts_;
    const std::function<Box(const Window&)>& scan_;
    Window box_{};
    std::int64_t looked_at_ = 0;
};

}  // namespace

Box bounds_of_cover(const Chains& chains, const CoverRule& rule, const std::function<Box(const Window&)>& scan,
                    std::pmr::memory_resource* memory) {
    return CoverBounds{chains, rule, scan, memory}.run();
}

}  // namespace coldbrick::inline v0::detail
