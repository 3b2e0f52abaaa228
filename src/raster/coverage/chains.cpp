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
    // A pixel begins half a pixel before its centre.
    const auto offset_x = std::int64_t{window_.left} * fine_unit - fine_unit / 2;
    const auto offset_y = std::int64_t{window_.top} * fine_unit - fine_unit / 2;
    const auto height = (std::int64_t{window_.bottom} - window_.top) * fine_unit;
    const auto is_seen = lower.y > offset_y && upper.y < offset_y + height;
    if (!goes_on || direction != direction_ || !is_seen) end_chain();
    at_ = to;
    if (!is_seen) return;
    direction_ = direction;
    group_ = group;
    constexpr auto unit = static_cast<double>(fine_unit);
    const auto top = static_cast<double>(upper.y - offset_y) / unit;
    const auto bottom = static_cast<double>(lower.y - offset_y) / unit;
    push_parts({.top = std::max(top, 0.0),
                .bottom = std::min(bottom, static_cast<double>(height) / unit),
                .first_x = static_cast<double>(upper.x - offset_x) / unit,
                .first_y = top,
                .slope = static_cast<double>(lower.x - upper.x) / static_cast<double>(lower.y - upper.y)});
}

// What of an edge lies left of the window, in it, and right of it.
void Chains::push_parts(const ChainEdge& edge) {
    const auto begin = edge.x_at(edge.top);
    const auto end = edge.x_at(edge.bottom);
    if (std::min(begin, end) >= 0 && std::max(begin, end) <= width()) return push(edge);
    const auto height_at = [&](double x) {
        return std::clamp(edge.first_y + (x - edge.first_x) / edge.slope, edge.top, edge.bottom);
    };
    const auto beside = [&](double from, double to, double x) {
        return ChainEdge{.top = from, .bottom = to, .first_x = x, .first_y = from, .slope = 0};
    };
    const auto is_rightward = edge.slope > 0;
    const auto before = is_rightward ? 0.0 : width();
    const auto behind = is_rightward ? width() : 0.0;
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
    auto least = std::numeric_limits<double>::infinity();
    auto most = -least;
    for (auto i = first_; i < end; ++i) {
        for (const auto x : {edges_[i].x_at(edges_[i].top), edges_[i].x_at(edges_[i].bottom)}) {
            least = std::min(least, x);
            most = std::max(most, x);
        }
    }
    // What lies right of the window has no bearing on what is in it.
    if (least >= width()) {
        reaches_right_ = true;
        edges_.resize(first_);
        return;
    }
    all_.push_back({.first = first_,
                    .end = end,
                    .least_x = least,
                    .most_x = most,
                    .direction = static_cast<std::int16_t>(direction_),
                    .group = static_cast<std::uint16_t>(group_)});
    first_ = end;
}

}  // namespace coldbrick::inline v0::detail
