// The rows and columns that are drawn, with ends that are not included: the geometry of a clip that loops like.
#pragma once

#include "coldbrick/geometry.hpp"

#include <algorithm>
#include <limits>

namespace coldbrick::inline v0::detail {

struct Window {
    int left;
    int top;
    int right;
    int bottom;

    [[nodiscard]] constexpr bool empty() const noexcept { return left >= right || top >= bottom; }
};

// A box that reaches beyond the numbers is cut off there; no shape has pixels that far out.
constexpr Window window_of(const Box& box) noexcept {
    const auto end = [](int at, int extent) {
        return static_cast<int>(
            std::min<std::int64_t>(std::int64_t{at} + std::max(extent, 0), std::numeric_limits<int>::max()));
    };
    return {.left = box.at.x,
            .top = box.at.y,
            .right = end(box.at.x, box.size.width),
            .bottom = end(box.at.y, box.size.height)};
}

// Whether all of one lies within the other.
constexpr bool is_within(const Window& window, const Box& box) noexcept {
    return window.left >= box.at.x && window.top >= box.at.y &&
           window.right <= std::int64_t{box.at.x} + box.size.width &&
           window.bottom <= std::int64_t{box.at.y} + box.size.height;
}
constexpr bool is_within(const Box& inner, const Box& box) noexcept {
    return inner.at.x >= box.at.x && inner.at.y >= box.at.y &&
           std::int64_t{inner.at.x} + inner.size.width <= std::int64_t{box.at.x} + box.size.width &&
           std::int64_t{inner.at.y} + inner.size.height <= std::int64_t{box.at.y} + box.size.height;
}

constexpr Box box_of(const Window& window) noexcept {
    if (window.empty()) return {};
    return Box::between(
        {.from = {.x = window.left, .y = window.top}, .to = {.x = window.right - 1, .y = window.bottom - 1}});
}

}  // namespace coldbrick::inline v0::detail
