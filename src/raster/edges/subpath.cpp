#include "raster/edges/subpath.hpp"

#include <algorithm>
#include <cmath>

namespace coldbrick::inline v0::detail {

MeasuredSubpath::MeasuredSubpath(const Subpath& subpath) : subpath_{subpath} {
    const auto& nodes = subpath.nodes;
    spend_work(nodes.size());
    distances_.reserve(nodes.size() + 1);
    distances_.push_back(0);
    const auto count = subpath.closed && nodes.size() > 1 ? nodes.size() : nodes.size() - 1;
    for (std::size_t i = 0; i < count; ++i) {
        const auto& next = nodes[(i + 1) % nodes.size()];
        distances_.push_back(distances_.back() + detail::length(next.at - nodes[i].at) + next.longer);
    }
}

std::size_t MeasuredSubpath::piece_at(double distance) const noexcept {
    const auto after = std::upper_bound(distances_.begin(), distances_.end(), distance);
    const auto number = static_cast<std::size_t>(after - distances_.begin());
    return std::clamp<std::size_t>(number, 1, pieces()) - 1;
}

// Of a curve, on the cubic through both ends of its chord in the directions that it has there (Hermite's geometry), and
// in a direction between these.
MeasuredSubpath::Spot MeasuredSubpath::spot_on(std::size_t piece, double distance) const noexcept {
    const auto chord = to(piece) - from(piece);
    const auto along = unit(chord);
    const auto extent = end_of(piece) - begin_of(piece);
    const auto part = (distance - begin_of(piece)) / extent;
    const auto& out = subpath_.nodes[piece].out;
    const auto& in = end_node(piece).in;
    if (out == Vec{} && in == Vec{}) return {.at = from(piece) + chord * part, .direction = along};
    const auto begin = out == Vec{} ? along : out;
    const auto end = in == Vec{} ? along : in;
    // Beyond the ends of a path it is straight.
    if (part < 0) return {.at = from(piece) + begin * (part * extent), .direction = begin};
    if (part > 1) return {.at = to(piece) + end * ((part - 1) * extent), .direction = end};
    const auto rest = 1 - part;
    const auto at =
        from(piece) + chord * (part * part * (3 - 2 * part)) + (begin * rest - end * part) * (extent * part * rest);
    const auto between = begin * rest + end * part;
    return {.at = at, .direction = dot(between, along) > 0 ? unit(between) : along};
}

MeasuredSubpath::Spot MeasuredSubpath::spot(double distance) const noexcept {
    return spot_on(piece_at(distance), distance);
}

// How many joints a pen needs on a curve's piece, ever nearer to where it is cut off, so that what the last chords
// cover on their inner side ends there too: as many as make the area beyond less than 1/512 of a pixel.
int MeasuredSubpath::joints_in(std::size_t piece, double from, double to, const PenReach& reach) const noexcept {
    const auto bend = cross(spot_on(piece, from).direction, spot_on(piece, to).direction);
    const auto inner = bend > 0 ? reach.right : reach.left;
    constexpr auto most = 10;
    auto joints = 0;
    for (auto area = inner * inner * std::fabs(bend) / 4; area > 1.0 / 512 && joints < most; area /= 2) ++joints;
    return joints;
}

// Where a curve is cut off there are joints beside its chords', ever nearer to the end.
void MeasuredSubpath::add_joint(std::size_t piece, double distance, Subpath& part) const {
    const auto joint = spot_on(piece, distance);
    part.add_joint(joint.at, joint.direction);
}

void MeasuredSubpath::leave(std::size_t piece, Stretch of, const PenReach& reach, Subpath& part) const {
    for (auto i = joints_in(piece, of.from, of.to, reach); i > 0; --i) {
        add_joint(piece, of.from + std::ldexp(of.to - of.from, -i), part);
    }
}

void MeasuredSubpath::approach(std::size_t piece, Stretch of, const PenReach& reach, Subpath& part) const {
    const auto joints = joints_in(piece, of.from, of.to, reach);
    for (auto i = 1; i <= joints; ++i) add_joint(piece, of.to - std::ldexp(of.to - of.from, -i), part);
}

void MeasuredSubpath::add_until(double begin, double end, const PenReach& reach, Subpath& part) const {
    const auto first_piece = piece_at(begin);
    auto piece = first_piece;
    const auto first = spot_on(piece, begin);
    part.add({.at = first.at, .out = first.direction});
    const auto is_before = begin < begin_of(piece) && end > begin_of(piece);
    if (is_before && subpath_.nodes[piece].out != Vec{}) add_joint(piece, begin_of(piece), part);
    const auto within = [&](double distance) { return std::clamp(distance, begin_of(piece), end_of(piece)); };
    // In one piece, the first half is left and the second one approached.
    const auto middle = end <= end_of(piece) ? within((begin + end) / 2) : end_of(piece);
    leave(piece, {within(begin), middle}, reach, part);
    for (; piece + 1 < pieces() && end_of(piece) < end; ++piece) {
        if (end_of(piece) <= begin) continue;
        auto node = end_node(piece);
        node.longer = 0;
        part.add(node);
    }
    approach(piece, {piece == first_piece ? middle : begin_of(piece), within(end)}, reach, part);
    const auto is_behind = end > end_of(piece) && begin < end_of(piece);
    if (is_behind && end_node(piece).in != Vec{}) add_joint(piece, end_of(piece), part);
    // Where it ends at a corner, it does so in the direction in which it gets there.
    const auto last = spot_on(piece, end);
    part.add({.at = last.at, .in = last.direction});
}

Subpath MeasuredSubpath::part(double from, double to, const PenReach& reach) const {
    Subpath part;
    if (!subpath_.closed || to <= length()) {
        add_until(from, to, reach, part);
        return part;
    }
    add_until(from, length(), reach, part);
    part.nodes.back().smooth = subpath_.nodes.front().smooth;
    part.nodes.back().in = subpath_.nodes.front().in;
    add_until(0, to - length(), reach, part);
    return part;
}

}  // namespace coldbrick::inline v0::detail
