#include "raster/coverage/small_sum.hpp"

#include "geometry/budget_memory.hpp"
#include "raster/coverage/cover_row.hpp"

#include <algorithm>
#include <array>
#include <cstdint>
#include <limits>
#include <span>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

constexpr auto largest = 64;

// Where edges lie in a window, in whole pixels.
struct Extent {
    int left;
    int top;
    int right;
    int bottom;
};

std::optional<Extent> extent_of(std::span<const CoverEdge> edges, int width) noexcept {
    auto [left, top] = std::pair{edges[0].x, edges[0].top};
    auto [right, bottom] = std::pair{left, top};
    for (const auto& edge : edges) {
        const auto end = edge.x + edge.slope * (edge.bottom - edge.top);
        left = std::min({left, edge.x, end});
        right = std::max({right, edge.x, end});
        top = std::min(top, edge.top);
        bottom = std::max(bottom, edge.bottom);
    }
    if (!(left >= 0 && right <= width)) return std::nullopt;
    const auto extent = Extent{.left = static_cast<int>(left),
                               .top = static_cast<int>(top),
                               .right = std::min(static_cast<int>(right) + 1, width),
                               .bottom = static_cast<int>(bottom) + 1};
    const auto is_small = extent.right - extent.left <= largest && extent.bottom - extent.top <= largest;
    return is_small ? std::optional{extent} : std::nullopt;
}

class SmallSum {
  public:
    SmallSum(const Window& window, const Extent& extent, const SpanReceiver& receiver)
        : receiver_{receiver}, window_{window}, extent_{extent}, row_{extent.right - extent.left, &memory_} {}

    // What lies right of a left side is covered, and right of a right side no more; of the second group it is the other
    // way round.
    void add_row(std::span<const CoverEdge> edges, int y, int clockwise) {
        for (const auto& edge : edges) {
            const auto top = std::max(edge.top, double{1} * y);
            const auto bottom = std::min(edge.bottom, double{1} * y + 1);
            if (top >= bottom) continue;
            // The end of an edge may be rounded to just outside.
            const auto place = [&](double at) {
                const auto x = edge.x + edge.slope * (at - edge.top) - extent_.left;
                return std::clamp(x, 0.0, double{1} * (extent_.right - extent_.left));
            };
            const auto side = edge.group == 0 ? -clockwise : clockwise;
            row_.add(place(top), place(bottom), side * edge.direction * (bottom - top));
        }
        row_.flush([&](int begin, int end, const std::uint8_t* each, std::uint8_t all) {
            if (each == nullptr) return add(window_.top + y, begin, end, nullptr, all);
            while (begin < end && *each == 0) {
                ++begin;
                ++each;
            }
            while (begin < end && each[end - begin - 1] == 0) --end;
            auto* const kept = &bytes_[used_];
            std::copy_n(each, end - begin, kept);
            used_ += static_cast<std::size_t>(end - begin);
            add(window_.top + y, begin, end, kept, 255);
        });
    }

    Box finish() {
        deliver();
        return box_of({.left = left_, .top = top_, .right = right_, .bottom = bottom_});
    }

  private:
    void add(int y, int begin, int end, const std::uint8_t* each, std::uint8_t all) {
        if (begin == end) return;
        if (count_ == spans_.size()) deliver();
        const auto left = window_.left + extent_.left + begin;
        const auto right = window_.left + extent_.left + end;
        left_ = std::min(left_, left);
        right_ = std::max(right_, right);
        top_ = std::min(top_, y);
        bottom_ = y + 1;
        spans_[count_++] = {.y = y, .x = left, .length = right - left, .each = each, .all = all};
    }

    void deliver() {
        if (count_ > 0) take_cover(receiver_, {spans_.data(), count_});
        count_ = 0;
    }

    const SpanReceiver& receiver_;
    std::array<std::byte, 8192> nearby_;  // more than rows of so few edges and columns need
    std::pmr::monotonic_buffer_resource memory_{nearby_.data(), nearby_.size(), counted_memory()};
    Window window_;
    Extent extent_;
    CoverRow<DenseSteps> row_;
    int left_ = std::numeric_limits<int>::max();
    int right_ = std::numeric_limits<int>::min();
    int top_ = std::numeric_limits<int>::max();
    int bottom_ = std::numeric_limits<int>::min();
    std::size_t used_ = 0;
    std::size_t count_ = 0;
    std::array<CoverSpan, std::size_t{4} * largest> spans_;               // the first count_ are set
    std::array<std::uint8_t, std::size_t{1} * largest * largest> bytes_;  // that they are covered by
};

}  // namespace

std::optional<Box> sum_small_coverage(const CoverEdges& edges, const CoverRule& rule, const SpanReceiver& receiver) {
    // Of more edges, those of a row are found sooner by a sweep.
    constexpr std::size_t few = 32;
    const std::span<const CoverEdge> all = edges.edges();
    if (rule.clockwise == 0 || all.empty() || all.size() > few || edges.has_more_right()) return std::nullopt;
    const auto extent = extent_of(all, edges.window().right - edges.window().left);
    if (!extent) return std::nullopt;
    SmallSum sum{edges.window(), *extent, receiver};
    for (auto y = extent->top; y < extent->bottom; ++y) sum.add_row(all, y, rule.clockwise);
    return sum.finish();
}

}  // namespace coldbrick::inline v0::detail
