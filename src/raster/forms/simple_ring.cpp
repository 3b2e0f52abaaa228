#include "raster/forms/simple_ring.hpp"

#include "raster/coverage/chain_order.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

using Nodes = CountedVector<Track::Node>;

// 1 if a ring goes clockwise round what it encloses, -1 if the other way; 0 if it meets itself.
int turn_of_ring(const Nodes& nodes) {
    const auto convex = turn_of_convex(nodes.size(), [&](std::size_t i) { return nodes[i].at; });
    if (convex != 0) return convex;
    auto [least, most] = std::pair{nodes.front().at, nodes.front().at};
    for (const auto& [at, smooth, in, out, longer, is_hidden] : nodes) {
        least = {std::min(least.x, at.x), std::min(least.y, at.y)};
        most = {std::max(most.x, at.x), std::max(most.y, at.y)};
    }
    constexpr auto far = 1e9;
    if (!(least.x > -far && least.y > -far && most.x < far && most.y < far)) return 0;
    const auto whole = [](double at) { return static_cast<int>(std::floor(at)); };
    const auto window =
        Window{.left = whole(least.x), .top = whole(least.y), .right = whole(most.x) + 2, .bottom = whole(most.y) + 2};
    ContourMemory memory;
    Chains chains{window, &memory.resource};
    Contours contours{chains, {}};
    for (const auto& node : nodes) contours.to(node.at);
    contours.close();
    chains.finish();
    return turn_of(chains, &memory.resource);
}

// The directions in which a ring comes to a corner and goes on, along its curves where there are any.
std::pair<Vec, Vec> directions_at(const Nodes& nodes, std::size_t corner) noexcept {
    const auto count = nodes.size();
    const auto& [at, smooth, in, out, longer, is_hidden] = nodes[corner];
    return {in == Vec{} ? unit(at - nodes[(corner + count - 1) % count].at) : in,
            out == Vec{} ? unit(nodes[(corner + 1) % count].at - at) : out};
}

double distance_to(Vec at, Vec from, Vec to) noexcept {
    const auto along = to - from;
    const auto part = std::clamp(dot(at - from, along) / std::max(dot(along, along), 1e-300), 0.0, 1.0);
    return length(at - from - along * part);
}

// The concave corners at which the miter on the inside of the outline, of width 1, may come out beyond other edges.
// (What is at most half a pixel away from an edge never does, but for what is grown on its outside as well.) Of larger
// rings, only edges nearby along the ring are looked at; if there are more near the corner, it is one of them.
CountedVector<std::uint32_t> corners_beyond(const Nodes& nodes) {
    const auto count = nodes.size();
    const auto at = [&](std::size_t i) { return nodes[i % count].at; };
    constexpr auto hardly_bent = 0.75;  // the miter's tip is then less than 1/255 of a pixel beyond a round join
    CountedVector<std::uint32_t> beyond;
    for (std::size_t i = 0; i < count; ++i) {
        if (nodes[i].smooth) continue;
        const auto corner = at(i);
        const auto [before, after] = directions_at(nodes, i);
        const auto ahead = dot(before, after);
        if (cross(before, after) >= 0 || ahead > hardly_bent) continue;
        const auto miter = 0.5 / std::sqrt((1 + ahead) / 2);
        constexpr std::size_t few = 16;
        auto is_beyond = count > few;
        for (std::size_t k = 1; k + 1 < count && !is_beyond; ++k) {
            is_beyond = distance_to(corner, at(i + k), at(i + k + 1)) <= miter;
        }
        if (is_beyond) beyond.push_back(static_cast<std::uint32_t>(i));
    }
    return beyond;
}

}  // namespace

std::optional<SimpleRing> simple_ring(const FlatPath& lines) {
    if (lines.tracks.size() != 1 || lines.tracks.front().nodes.size() < 3) return std::nullopt;
    const auto turn = turn_of_ring(lines.tracks.front().nodes);
    if (turn == 0) return std::nullopt;
    auto ring = SimpleRing{.edge = lines.tracks.front(), .beyond = {}};
    if (turn < 0) ring.edge.reverse();
    ring.edge.closed = true;
    ring.beyond = corners_beyond(ring.edge.nodes);
    return ring;
}

// It goes clockwise, as the ring does.
void draw_inner_miter(const Track& edge, std::uint32_t corner, const Pen& pen, Contours& contours) {
    const auto at = edge.nodes[corner].at;
    const auto [before, after] = directions_at(edge.nodes, corner);
    const auto from = left_of(before) * pen.left;
    const auto to = left_of(after) * pen.left;
    const auto ahead = dot(before, after);
    contours.to(at);
    contours.to(at - to);
    if ((1 + ahead) * pen.miter_limit * pen.miter_limit >= 2) contours.to(at - (from + to) * (1 / (1 + ahead)));
    contours.to(at - from);
    contours.close();
}

}  // namespace coldbrick::inline v0::detail
