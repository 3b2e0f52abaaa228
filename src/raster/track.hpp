// What a pen follows: straight pieces from point to point, curves as the chords of their flattening.
#pragma once

#include "geometry/trigonometry.hpp"

#include "coldbrick/stroke.hpp"

#include <span>
#include <vector>

namespace coldbrick::detail {

// Points relative to an origin.
struct Track {
    struct Node {
        Vec at;
        bool smooth = false;  // a joint within a curve, not a corner
    };
    std::vector<Node> nodes;
    bool closed = false;

    // Adds a point, but not the last one again.
    void add(Vec at, bool smooth = false) {
        if (nodes.empty() || !is_same(nodes.back().at, at)) nodes.push_back({.at = at, .smooth = smooth});
    }

    // Declares it closed: the last point is followed by the first, which is not repeated.
    void close() {
        while (nodes.size() > 1 && is_same(nodes.back().at, nodes.front().at)) nodes.pop_back();
        closed = true;
    }

  private:
    // So near to each other that their direction would mean nothing.
    static constexpr bool is_same(Vec a, Vec b) noexcept {
        constexpr auto near = 1.0 / 4096;
        return dot(a - b, a - b) < near * near;
    }
};

// A track with the length along it.
class MeasuredTrack {
  public:
    explicit MeasuredTrack(const Track& track);

    [[nodiscard]] double length() const noexcept { return distances_.back(); }

    // The number of straight pieces, the distance at which each begins and ends, and its ends.
    [[nodiscard]] std::size_t pieces() const noexcept { return distances_.size() - 1; }
    [[nodiscard]] double begin_of(std::size_t piece) const noexcept { return distances_[piece]; }
    [[nodiscard]] double end_of(std::size_t piece) const noexcept { return distances_[piece + 1]; }
    [[nodiscard]] Vec from(std::size_t piece) const noexcept { return track_.nodes[piece].at; }
    [[nodiscard]] Vec to(std::size_t piece) const noexcept {
        return track_.nodes[(piece + 1) % track_.nodes.size()].at;
    }

    // The part from one distance to another; of a closed track, also over its seam. If both are the same, a piece of
    // no length in two points, whose direction is that of the track there, is told by its ends and direction.
    [[nodiscard]] Track part(double from, double to) const;

    // The place and direction at a distance.
    struct Spot {
        Vec at;
        Vec direction;
    };
    [[nodiscard]] Spot spot(double distance) const noexcept;

  private:
    [[nodiscard]] std::size_t piece_at(double distance) const noexcept;

    const Track& track_;
    std::vector<double> distances_;  // of each node, and of the end
};

}  // namespace coldbrick::detail
