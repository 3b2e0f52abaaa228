#include "raster/edges/track.hpp"

#include <algorithm>

namespace coldbrick::inline v0::detail {

MeasuredTrack::MeasuredTrack(const Track& track) : track_{track} {
    const auto& nodes = track.nodes;
    spend_work(nodes.size());
    distances_.reserve(nodes.size() + 1);
    distances_.push_back(0);
    const auto count = track.closed && nodes.size() > 1 ? nodes.size() : nodes.size() - 1;
    for (std::size_t i = 0; i < count; ++i) {
        const auto& next = nodes[(i + 1) % nodes.size()];
        distances_.push_back(distances_.back() + detail::length(next.at - nodes[i].at) + next.longer);
    }
}

std::size_t MeasuredTrack::piece_at(double distance) const noexcept {
    const auto after = std::upper_bound(distances_.begin(), distances_.end(), distance);
    const auto number = static_cast<std::size_t>(after - distances_.begin());
    return std::clamp<std::size_t>(number, 1, pieces()) - 1;
}

// Between the directions that a curve has at both ends of its chord.
MeasuredTrack::Spot MeasuredTrack::spot(double distance) const noexcept {
    const auto piece = piece_at(distance);
    const auto chord = to(piece) - from(piece);
    const auto along = unit(chord);
    const auto part = (distance - begin_of(piece)) / (end_of(piece) - begin_of(piece));
    const auto begin = track_.nodes[piece].out == Vec{} ? along : track_.nodes[piece].out;
    const auto end = end_node(piece).in == Vec{} ? along : end_node(piece).in;
    const auto near = std::clamp(part, 0.0, 1.0);
    const auto between = begin * (1 - near) + end * near;
    return {.at = from(piece) + chord * part, .direction = dot(between, along) > 0 ? unit(between) : along};
}

Track MeasuredTrack::part(double from, double to) const {
    Track part;
    const auto add_until = [&](double begin, double end) {
        const auto first = spot(begin);
        part.add({.at = first.at, .out = first.direction});
        for (auto piece = piece_at(begin); piece < pieces() && end_of(piece) < end; ++piece) {
            if (end_of(piece) <= begin) continue;
            const auto next = (piece + 1) % track_.nodes.size();
            auto node = track_.nodes[next];
            node.longer = 0;
            part.add(node);
        }
        const auto last = spot(end);
        part.add({.at = last.at, .in = last.direction});
    };
    if (track_.closed && to > length()) {
        add_until(from, length());
        if (!part.nodes.empty()) {
            part.nodes.back().smooth = track_.nodes.front().smooth;
            part.nodes.back().in = track_.nodes.front().in;
        }
        add_until(0, to - length());
    } else {
        add_until(from, to);
    }
    return part;
}

}  // namespace coldbrick::inline v0::detail
