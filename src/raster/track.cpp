#include "raster/track.hpp"

#include <algorithm>

namespace coldbrick::detail {

MeasuredTrack::MeasuredTrack(const Track& track) : track_{track} {
    const auto& nodes = track.nodes;
    distances_.reserve(nodes.size() + 1);
    distances_.push_back(0);
    const auto count = track.closed && nodes.size() > 1 ? nodes.size() : nodes.size() - 1;
    for (std::size_t i = 0; i < count; ++i) {
        distances_.push_back(distances_.back() + detail::length(nodes[(i + 1) % nodes.size()].at - nodes[i].at));
    }
}

std::size_t MeasuredTrack::piece_at(double distance) const noexcept {
    const auto after = std::upper_bound(distances_.begin(), distances_.end(), distance);
    const auto number = static_cast<std::size_t>(after - distances_.begin());
    return std::clamp<std::size_t>(number, 1, pieces()) - 1;
}

MeasuredTrack::Spot MeasuredTrack::spot(double distance) const noexcept {
    const auto piece = piece_at(distance);
    const auto direction = unit(to(piece) - from(piece));
    return {.at = from(piece) + direction * (distance - begin_of(piece)), .direction = direction};
}

Track MeasuredTrack::part(double from, double to) const {
    Track part;
    const auto add_until = [&](double begin, double end) {
        part.add(spot(begin).at);
        for (auto piece = piece_at(begin); piece < pieces() && end_of(piece) < end; ++piece) {
            if (end_of(piece) <= begin) continue;
            const auto next = (piece + 1) % track_.nodes.size();
            part.add(track_.nodes[next].at, track_.nodes[next].smooth);
        }
        part.add(spot(end).at);
    };
    if (track_.closed && to > length()) {
        add_until(from, length());
        if (!part.nodes.empty()) part.nodes.back().smooth = track_.nodes.front().smooth;
        add_until(0, to - length());
    } else {
        add_until(from, to);
    }
    return part;
}

}  // namespace coldbrick::detail
