#include "raster/coverage/chains.hpp"

#include <algorithm>
#include <array>
#include <utility>

namespace coldbrick::inline v0::detail {

void Chains::add(FinePoint from, FinePoint to, int group) {
    const auto goes_on = from == at_ && group == group_;
    if (from.y == to.y) {
        if (goes_on) at_ = to;
        return;
    }
    const auto direction = from.y < to.y ? 1 : -1;
    const auto& [upper, lower] = direction > 0 ? std::pair{from, to} : std::pair{to, from};
    const auto is_seen = lower.y > offset_.y && upper.y < fine_bottom_;
    if (!goes_on || direction != direction_ || !is_seen) end_chain();
    at_ = to;
    if (!is_seen) return;
    direction_ = direction;
    group_ = group;
    constexpr auto pixels = 1 / static_cast<double>(fine_unit);
    const auto first_x = static_cast<double>(upper.x - offset_.x) * pixels;
    const auto first_y = static_cast<double>(upper.y - offset_.y) * pixels;
    const auto last_x = static_cast<double>(lower.x - offset_.x) * pixels;
    const auto last_y = static_cast<double>(lower.y - offset_.y) * pixels;
    const auto edge =
        ChainEdge{.top = std::max(first_y, 0.0),
                  .bottom = std::min(last_y, height_),
                  .first_x = first_x,
                  .first_y = first_y,
                  .slope = static_cast<double>(lower.x - upper.x) / static_cast<double>(lower.y - upper.y)};
    const auto least = std::min(first_x, last_x);
    const auto most = std::max(first_x, last_x);
    if (!(least >= 0 && most <= width_)) return push_beside(edge);
    reach(least, most);
    edges_.push_back(edge);
}

void Chains::reach(double least, double most) noexcept {
    const auto is_first = edges_.size() == first_;
    least_x_ = is_first ? least : std::min(least_x_, least);
    most_x_ = is_first ? most : std::max(most_x_, most);
}

// What of an edge lies left of the window, in it, and right of it.
void Chains::push_beside(const ChainEdge& edge) {
    const auto begin = edge.x_at(edge.top);
    const auto end = edge.x_at(edge.bottom);
    const auto height_at = [&](double x) {
        return std::clamp(edge.first_y + (x - edge.first_x) / edge.slope, edge.top, edge.bottom);
    };
    const auto beside = [&](double from, double to, double x) {
        return ChainEdge{.top = from, .bottom = to, .first_x = x, .first_y = from, .slope = 0};
    };
    const auto is_rightward = edge.slope > 0;
    const auto before = is_rightward ? 0.0 : width_;
    const auto behind = is_rightward ? width_ : 0.0;
    const auto is_outside = [&](double x) { return is_rightward ? x < before : x > before; };
    const auto is_beyond = [&](double x) { return is_rightward ? x > behind : x < behind; };
    // From where to where it lies in the window.
    const auto enters = is_outside(begin) ? (is_outside(end) ? edge.bottom : height_at(before)) : edge.top;
    const auto leaves = is_beyond(end) ? (is_beyond(begin) ? edge.top : height_at(behind)) : edge.bottom;
    auto inside = edge;
    inside.top = enters;
    inside.bottom = leaves;
    auto parts = std::array{beside(edge.top, enters, before), inside, beside(leaves, edge.bottom, behind)};
    if (direction_ < 0) std::swap(parts.front(), parts.back());
    for (const auto& part : parts) {
        if (part.top < part.bottom) push(part);
    }
}

// Edges beside the window that go on are one.
void Chains::push(const ChainEdge& edge) {
    const auto begin = std::clamp(edge.x_at(edge.top), 0.0, width_);
    const auto end = std::clamp(edge.x_at(edge.bottom), 0.0, width_);
    reach(std::min(begin, end), std::max(begin, end));
    if (edges_.size() > first_ && edge.slope == 0) {
        auto& last = edges_.back();
        const auto& [upper, lower] = direction_ > 0 ? std::pair{last, edge} : std::pair{edge, last};
        if (last.slope == 0 && last.first_x == edge.first_x && upper.bottom == lower.top) {
            last = {upper.top, lower.bottom, edge.first_x, upper.top, 0};
            return;
        }
    }
    edges_.push_back(edge);
}

void Chains::end_chain() {
    const auto end = static_cast<std::uint32_t>(edges_.size());
    if (end == first_) return;
    if (direction_ < 0) std::reverse(edges_.begin() + first_, edges_.end());
    // What lies right of the window has no bearing on what is in it.
    if (least_x_ >= width_) {
        reaches_right_ = true;
        edges_.resize(first_);
        return;
    }
    all_.push_back({.first = first_,
                    .end = end,
                    .least_x = least_x_,
                    .most_x = most_x_,
                    .direction = static_cast<std::int16_t>(direction_),
                    .group = static_cast<std::uint16_t>(group_)});
    first_ = end;
}

}  // namespace coldbrick::inline v0::detail
