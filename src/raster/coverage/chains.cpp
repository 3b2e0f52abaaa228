#include "raster/coverage/chains.hpp"

#include <algorithm>
#include <array>
#include <utility>

namespace coldbrick::inline v0::detail {

Chains::Chains(const Chains& of, const Window& part, std::pmr::memory_resource* memory) : Chains{part, memory} {
    const auto right = double{1} * part.left - of.window_.left;
    const auto down = double{1} * part.top - of.window_.top;
    reaching_right_ = of.reaching_right_;
    left_of_all_ = of.left_of_all_;
    direction_ = 1;
    for (const auto& chain : of.all_) {
        const auto top = of.top_of(chain);
        const auto bottom = of.bottom_of(chain);
        if (top >= down + height_ || bottom <= down) continue;
        if (chain.most_x <= right && top <= down && bottom >= down + height_) {
            left_of_all_.of[chain.group] += chain.direction;
            continue;
        }
        if (chain.least_x >= right + width_) {
            reaching_right_ |= 1U << chain.group;
            continue;
        }
        group_ = chain.group;
        const auto* const end = of.edges_ + chain.end;
        const auto* edge = std::partition_point(static_cast<const ChainEdge*>(of.edges_) + chain.first, end,
                                                [&](const ChainEdge& each) { return each.bottom <= down; });
        for (; edge != end && edge->top < down + height_; ++edge) {
            auto moved = *edge;
            moved.first_x -= right;
            moved.first_y -= down;
            moved.top = std::max(edge->top - down, 0.0);
            moved.bottom = std::min(edge->bottom - down, height_);
            push_beside(moved);
        }
        const auto count = all_.size();
        end_chain();
        if (all_.size() > count) all_.back().direction = chain.direction;
    }
    left_side_ = count_;
    append({.top = 0, .bottom = height_, .first_x = 0, .first_y = 0, .slope = 0});
    if (left_of_all_ != Windings{}) reaching_right_ = ~0U;
}

void Chains::grow_to(std::size_t count) {
    auto* const more = static_cast<ChainEdge*>(memory_->allocate(count * sizeof(ChainEdge), alignof(ChainEdge)));
    std::copy(edges_, edges_ + count_, more);
    free_edges();
    edges_ = more;
    room_ = count;
}

void Chains::add(FixedPoint from, FixedPoint to, int group) {
    if (!(from == at_) || group != group_) {
        end_chain();
        group_ = group;
        place_ = place_of(from);
    }
    const auto begin = place_;
    const auto end = place_of(to);
    at_ = to;
    place_ = end;
    if (begin.y == end.y) return;
    const auto direction = begin.y < end.y ? 1 : -1;
    const auto upper_y = direction > 0 ? begin.y : end.y;
    const auto lower_y = direction > 0 ? end.y : begin.y;
    const auto is_seen = lower_y > 0 && upper_y < height_;
    if (direction != direction_ || !is_seen) end_chain();
    direction_ = direction;
    if (!is_seen) return;
    // Differences of places are exact.
    const auto edge = ChainEdge{.top = upper_y > 0 ? upper_y : 0.0,
                                .bottom = lower_y < height_ ? lower_y : height_,
                                .first_x = direction > 0 ? begin.x : end.x,
                                .first_y = upper_y,
                                .slope = (end.x - begin.x) / (end.y - begin.y)};
    const auto least = begin.x < end.x ? begin.x : end.x;
    const auto most = begin.x < end.x ? end.x : begin.x;
    if (!(least >= 0 && most <= width_)) return push_beside(edge);
    reach(least, most);
    append(edge);
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
    if (count_ > first_ && edge.slope == 0) {
        auto& last = edges_[count_ - 1];
        const auto& [upper, lower] = direction_ > 0 ? std::pair{last, edge} : std::pair{edge, last};
        if (last.slope == 0 && last.first_x == edge.first_x && upper.bottom == lower.top) {
            last = {upper.top, lower.bottom, edge.first_x, upper.top, 0};
            return;
        }
    }
    append(edge);
}

void Chains::end_chain() {
    if (count_ == first_) return;
    const auto reached = std::exchange(reached_, Reach{});
    if (direction_ < 0) std::reverse(edges_ + first_, edges_ + count_);
    // What lies right of the window has no bearing on what is in it.
    if (reached.least >= width_) {
        reaching_right_ |= 1U << static_cast<unsigned>(group_);
        count_ = first_;
        return;
    }
    all_.push_back({.first = first_,
                    .end = count_,
                    .least_x = reached.least,
                    .most_x = reached.most,
                    .direction = static_cast<std::int16_t>(direction_),
                    .group = static_cast<std::uint16_t>(group_)});
    first_ = count_;
}

}  // namespace coldbrick::inline v0::detail
