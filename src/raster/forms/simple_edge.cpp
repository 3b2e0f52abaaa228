#include "raster/forms/simple_edge.hpp"

#include "raster/strokes/stroker.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <cmath>
#include <vector>

namespace coldbrick::inline v0::detail {

namespace {

// Whether two lines have a place in common.
bool do_meet(Vec a, Vec b, Vec c, Vec d) noexcept {
    const auto c_side = cross(b - a, c - a);
    const auto d_side = cross(b - a, d - a);
    const auto a_side = cross(d - c, a - c);
    const auto b_side = cross(d - c, b - c);
    return c_side * d_side <= 0 && a_side * b_side <= 0;
}

CountedVector<Vec> places_of(const CountedVector<Track::Node>& nodes) {
    CountedVector<Vec> places(nodes.size());
    std::transform(nodes.begin(), nodes.end(), places.begin(), [](const Track::Node& node) { return node.at; });
    return places;
}

// Whether a ring meets itself, as far as can be told soon.
bool may_meet_itself(const CountedVector<Track::Node>& nodes) {
    const auto count = nodes.size();
    constexpr std::size_t few = 64;
    if (count > few) return way_round_middle(places_of(nodes)) == 0;
    const auto at = [&](std::size_t i) { return nodes[i % count].at; };
    for (std::size_t i = 0; i < count; ++i) {
        for (std::size_t k = i + 2; k < count; ++k) {
            const auto is_neighbour = k + 1 == count && i == 0;
            if (!is_neighbour && do_meet(at(i), at(i + 1), at(k), at(k + 1))) return true;
        }
    }
    return false;
}

double distance_to(Vec at, Vec from, Vec to) noexcept {
    const auto along = to - from;
    const auto part = std::clamp(dot(at - from, along) / std::max(dot(along, along), 1e-300), 0.0, 1.0);
    return length(at - from - along * part);
}

// Whether the miters on the inside of a ring's outline of width 1, at its concave corners, may come out beyond other
// edges. (What is at most half a pixel away from an edge never does, but for what is grown on its outside as well.) The
// ring goes clockwise. Of larger rings, which go round their middle, only the edges in the directions of the corner
// are looked at.
bool may_come_through(const CountedVector<Track::Node>& nodes) {
    const auto count = nodes.size();
    const auto at = [&](std::size_t i) { return nodes[i % count].at; };
    constexpr auto hardly_bent = 0.75;  // the miter's tip is then less than 1/255 of a pixel beyond a round join
    constexpr std::size_t few = 64;
    auto middle = Vec{};
    for (const auto& node : nodes) middle = middle + node.at * (1 / static_cast<double>(count));
    for (std::size_t i = 0; i < count; ++i) {
        const auto corner = at(i);
        const auto before = unit(corner - at(i + count - 1));
        const auto after = unit(at(i + 1) - corner);
        const auto ahead = dot(before, after);
        if (cross(before, after) >= 0 || ahead > hardly_bent) continue;
        const auto miter = 0.5 / std::sqrt((1 + ahead) / 2);
        const auto from_middle = length(corner - middle);
        if (count > few && from_middle <= 2 * miter) return true;
        const auto is_aside = [&](Vec other) {
            return count > few && std::fabs(cross(corner - middle, unit(other - middle))) > 2 * miter;
        };
        const auto is_near = [&](Vec from, Vec to) { return distance_to(corner, from, to) <= miter; };
        const auto most = std::min(count - 2, few);
        for (std::size_t k = 1; k < most && !is_aside(at(i + k)); ++k) {
            if (is_near(at(i + k), at(i + k + 1)) || k + 1 == few) return true;
        }
        for (std::size_t k = 1; count > few && k < most && !is_aside(at(i + count - k)); ++k) {
            if (is_near(at(i + count - k), at(i + count - k - 1)) || k + 1 == few) return true;
        }
    }
    return false;
}

}  // namespace

int way_round_middle(std::span<const Vec> ring) noexcept {
    if (ring.empty()) return 0;
    auto middle = Vec{};
    for (const auto at : ring) middle = middle + at * (1 / static_cast<double>(ring.size()));
    auto is_left = false;
    auto is_right = false;
    auto rounds = 0;
    auto from = ring.back() - middle;
    for (const auto at : ring) {
        const auto to = at - middle;
        // Far more than what is lost in the products.
        constexpr auto hardly = 1e-9;
        const auto turn = cross(from, to);
        if (!(std::fabs(turn) > hardly * (dot(from, from) + dot(to, to)))) return 0;
        is_left = is_left || turn < 0;
        is_right = is_right || turn > 0;
        rounds += from.y <= 0 && to.y > 0 ? 1 : 0;
        from = to;
    }
    if (is_left == is_right || rounds != 1) return 0;
    return is_right ? 1 : -1;
}

std::optional<Track> simple_edge(const FlatPath& lines) {
    if (lines.tracks.size() != 1) return std::nullopt;
    auto track = lines.tracks.front();
    auto& nodes = track.nodes;
    const auto count = nodes.size();
    if (count < 3) return std::nullopt;
    spend_work(4 * count);
    const auto at = [&](std::size_t i) { return nodes[i % count].at; };
    auto twice_area = 0.0;
    for (std::size_t i = 0; i < count; ++i) {
        twice_area += cross(at(i) - at(0), at(i + 1) - at(0));
        const auto before = unit(at(i + 1) - at(i));
        const auto after = unit(at(i + 2) - at(i + 1));
        if (dot(before, after) < -least_miter) return std::nullopt;
    }
    if (may_meet_itself(nodes)) return std::nullopt;
    if (twice_area < 0) track.reverse();
    if (may_come_through(nodes)) return std::nullopt;
    track.closed = true;
    return track;
}

int way_round_middle(const FlatPath& lines) {
    if (lines.tracks.size() != 1 || lines.tracks.front().nodes.size() < 3) return 0;
    return way_round_middle(places_of(lines.tracks.front().nodes));
}

}  // namespace coldbrick::inline v0::detail
