#include "raster/forms/simple_edge.hpp"

#include "raster/strokes/stroker.hpp"

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

// Whether a ring goes round its middle once, and always on the same way as seen from there: then it does not meet
// itself.
bool goes_round_its_middle(const std::vector<Track::Node>& nodes) noexcept {
    auto middle = Vec{};
    for (const auto& node : nodes) middle = middle + node.at * (1 / static_cast<double>(nodes.size()));
    auto is_left = false;
    auto is_right = false;
    auto rounds = 0;
    auto from = nodes.back().at - middle;
    for (const auto& node : nodes) {
        const auto to = node.at - middle;
        // Far more than what is lost in the products.
        constexpr auto hardly = 1e-9;
        const auto turn = cross(from, to);
        if (std::fabs(turn) <= hardly * (dot(from, from) + dot(to, to))) return false;
        is_left = is_left || turn < 0;
        is_right = is_right || turn > 0;
        rounds += from.y <= 0 && to.y > 0 ? 1 : 0;
        from = to;
    }
    return is_left != is_right && rounds == 1;
}

// Whether a ring meets itself, as far as can be told soon.
bool may_meet_itself(const std::vector<Track::Node>& nodes) noexcept {
    const auto count = nodes.size();
    constexpr std::size_t few = 64;
    if (count > few) return !goes_round_its_middle(nodes);
    const auto at = [&](std::size_t i) { return nodes[i % count].at; };
    for (std::size_t i = 0; i < count; ++i) {
        for (std::size_t k = i + 2; k < count; ++k) {
            const auto is_neighbour = k + 1 == count && i == 0;
            if (!is_neighbour && do_meet(at(i), at(i + 1), at(k), at(k + 1))) return true;
        }
    }
    return false;
}

}  // namespace

std::optional<Track> simple_edge(const FlatPath& lines) {
    if (lines.tracks.size() != 1) return std::nullopt;
    auto track = lines.tracks.front();
    auto& nodes = track.nodes;
    const auto count = nodes.size();
    if (count < 3) return std::nullopt;
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
    track.closed = true;
    return track;
}

}  // namespace coldbrick::inline v0::detail
