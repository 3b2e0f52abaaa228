// What a pen follows: straight pieces from point to point, curves as the chords of their flattening.
#pragma once

#include "geometry/trigonometry.hpp"

#include "coldbrick/budget.hpp"
#include "coldbrick/stroke.hpp"
#include "coldbrick/transform.hpp"

#include <algorithm>
#include <cmath>
#include <initializer_list>
#include <limits>
#include <vector>

namespace coldbrick::inline v0::detail {

// A box of places.
struct Surroundings {
    Vec least = {-std::numeric_limits<double>::infinity(), -std::numeric_limits<double>::infinity()};
    Vec most = {std::numeric_limits<double>::infinity(), std::numeric_limits<double>::infinity()};

    // Whether what lies between some places may have a part in it.
    [[nodiscard]] bool may_have(std::initializer_list<Vec> places) const noexcept {
        auto low = Vec{std::numeric_limits<double>::infinity(), std::numeric_limits<double>::infinity()};
        auto high = -low;
        for (const auto& at : places) {
            low = {std::min(low.x, at.x), std::min(low.y, at.y)};
            high = {std::max(high.x, at.x), std::max(high.y, at.y)};
        }
        return low.x <= most.x && high.x >= least.x && low.y <= most.y && high.y >= least.y;
    }
    // The box around where its corners are taken to.
    [[nodiscard]] Surroundings mapped(const Transform& by) const noexcept {
        constexpr auto everything = std::numeric_limits<double>::infinity();
        Surroundings box{.least = {everything, everything}, .most = {-everything, -everything}};
        for (const auto corner : {least, most, Vec{least.x, most.y}, Vec{most.x, least.y}}) {
            const auto [x, y] = by({corner.x, corner.y});
            box.least = {std::min(box.least.x, x), std::min(box.least.y, y)};
            box.most = {std::max(box.most.x, x), std::max(box.most.y, y)};
        }
        return box;
    }
    [[nodiscard]] Surroundings relative_to(Vec origin) const noexcept { return {least - origin, most - origin}; }
    [[nodiscard]] Surroundings grown(double by) const noexcept { return {least - Vec{by, by}, most + Vec{by, by}}; }
};

// The flatness, or the resolution of numbers of that size, if that is more: a transform that makes everything much
// larger would ask for chords without end.
constexpr double resolved_flatness(double flatness, double size) noexcept { return std::max(flatness, size * 0x1p-46); }

// How closely curves are followed by chords, and where: what has no part in what is seen may have fewer of them,
// of which none comes into it either.
struct Tolerance {
    double flatness;  // how far a chord may be from its curve, in pixels
    Surroundings seen = {};
    bool is_measured = false;  // whether lengths along curves matter, as for dashes

    [[nodiscard]] Tolerance relative_to(Vec origin) const noexcept {
        return {flatness, seen.relative_to(origin), is_measured};
    }
};

// Points relative to an origin.
struct Subpath {
    struct Node {
        Vec at;
        bool smooth = false;  // a joint within a curve, not a corner
        // Where a curve comes in and goes on: its directions there. 0,0: those of the straight pieces.
        Vec in = {};
        Vec out = {};
        double longer = 0;  // by how much the curve to here is longer than its straight piece, where it is measured
        bool is_hidden = false;  // the straight piece to here stands for a curve that is out of sight
    };
    CountedVector<Node> nodes;
    bool closed = false;

    // Makes room for as many more points.
    void expect(std::size_t count) {
        const auto wanted = nodes.size() + count;
        if (wanted > nodes.capacity()) nodes.reserve(std::max(wanted, 2 * nodes.capacity()));
    }

    // Adds a point, but not the last one again.
    void add(Vec at) { add(Node{.at = at}); }
    void add(Node node) {
        node.longer += longer_;
        node.is_hidden = node.is_hidden || is_hidden_;
        if (nodes.empty() || !is_same(nodes.back().at, node.at)) {
            nodes.push_back(node);
            longer_ = 0;
            is_hidden_ = false;
            return;
        }
        longer_ = node.longer;
        is_hidden_ = node.is_hidden;
        nodes.back().out = node.out;
    }
    // A joint within a curve of that direction.
    void add_joint(Vec at, Vec direction) { add({.at = at, .smooth = true, .in = direction, .out = direction}); }

    // Its last point is where a curve ends, and no joint within it.
    void end_curve() noexcept {
        if (nodes.empty()) return;
        nodes.back().smooth = false;
        nodes.back().out = {};
    }

    // The same way back; a closed one from the same point on.
    void reverse() {
        if (nodes.empty()) return;
        std::reverse(nodes.begin() + (closed ? 1 : 0), nodes.end());
        for (auto& node : nodes) {
            std::swap(node.in, node.out);
            node.in = -node.in;
            node.out = -node.out;
        }
        // What is said of a piece is said at its end.
        const auto closing = closed ? nodes.back() : Node{};
        for (std::size_t i = nodes.size(); i-- > 1;) {
            nodes[i].longer = nodes[i - 1].longer;
            nodes[i].is_hidden = nodes[i - 1].is_hidden;
        }
        nodes.front().longer = closing.longer;
        nodes.front().is_hidden = closing.is_hidden;
    }

    // Makes the last point the first one.
    void rotate_to_last() { std::rotate(nodes.begin(), nodes.end() - 1, nodes.end()); }

    // The curve to the next point is longer by so much than its straight piece.
    void measure(double longer) noexcept { longer_ += longer; }
    // And it is out of sight.
    void hide() noexcept { is_hidden_ = true; }

    // Where it ends, a curve goes on in a direction.
    void go_on(Vec direction) noexcept {
        if (!nodes.empty()) nodes.back().out = direction;
    }

    // Declares it closed: the last point is followed by the first, which is not repeated.
    void close() {
        while (nodes.size() > 1 && is_same(nodes.back().at, nodes.front().at)) {
            nodes.front().in = nodes.back().in;
            nodes.front().longer += nodes.back().longer;
            nodes.front().is_hidden = nodes.front().is_hidden || nodes.back().is_hidden;
            nodes.pop_back();
        }
        closed = true;
    }

    // So near to each other that their direction would mean nothing.
    static constexpr bool is_same(Vec a, Vec b) noexcept {
        constexpr auto near = 1.0 / 4096;
        return dot(a - b, a - b) < near * near;
    }

  private:
    double longer_ = 0;
    bool is_hidden_ = false;
};

// The length of a curve from one parameter to another, by its chords and those of its halves (Romberg's method), with
// halves of the halves until they agree. at(parameter) is a place, between(a, b) the parameter in the middle.
template <class Parameter, class At, class Between>
double curve_length(const Parameter& from, const Parameter& to, const At& at, const Between& between, int depth = 0) {
    spend_work(4);
    const auto middle = between(from, to);
    const auto first = at(from);
    const auto third = at(middle);
    const auto last = at(to);
    const auto second = at(between(from, middle));
    const auto fourth = at(between(middle, to));
    const auto one = length(last - first);
    const auto two = length(third - first) + length(last - third);
    const auto four = length(second - first) + length(third - second) + length(fourth - third) + length(last - fourth);
    const auto by_two = two + (two - one) / 3;
    const auto by_four = four + (four - two) / 3;
    const auto best = by_four + (by_four - by_two) / 15;
    constexpr auto hardly = 1e-13;
    constexpr auto hardly_a_pixel = 1e-8;
    constexpr auto deepest = 24;
    if (!(std::fabs(best - by_four) > hardly * best + hardly_a_pixel) || depth == deepest) return best;
    return curve_length(from, middle, at, between, depth + 1) + curve_length(middle, to, at, between, depth + 1);
}

// A subpath with the length along it.
class MeasuredSubpath {
  public:
    explicit MeasuredSubpath(const Subpath& subpath);

    [[nodiscard]] double length() const noexcept { return distances_.back(); }

    // The number of straight pieces, the distance at which each begins and ends, and its ends.
    [[nodiscard]] std::size_t pieces() const noexcept { return distances_.size() - 1; }
    [[nodiscard]] double begin_of(std::size_t piece) const noexcept { return distances_[piece]; }
    [[nodiscard]] double end_of(std::size_t piece) const noexcept { return distances_[piece + 1]; }
    [[nodiscard]] Vec from(std::size_t piece) const noexcept { return subpath_.nodes[piece].at; }
    // Whether a piece stands for a curve that is out of sight.
    [[nodiscard]] bool is_hidden(std::size_t piece) const noexcept { return end_node(piece).is_hidden; }
    [[nodiscard]] Vec to(std::size_t piece) const noexcept { return end_node(piece).at; }

    // The part from one distance to another; of a closed subpath, also over its seam. If both are the same, a piece of
    // no length in two points, whose direction is that of the subpath there, is given by its ends and direction.
    // Where a curve is cut off, there are joints on it beside the chords', for a pen that reaches so far.
    struct PenReach {
        double left;
        double right;
    };
    [[nodiscard]] Subpath part(double from, double to, const PenReach& reach) const;

    // The place at a distance, and the direction of the curve there.
    struct Spot {
        Vec at;
        Vec direction;
    };
    [[nodiscard]] Spot spot(double distance) const noexcept;

  private:
    [[nodiscard]] Spot spot_on(std::size_t piece, double distance) const noexcept;
    [[nodiscard]] int joints_in(std::size_t piece, double from, double to, const PenReach& reach) const noexcept;
    struct Stretch {
        double from;
        double to;
    };
    void add_joint(std::size_t piece, double distance, Subpath& part) const;
    void leave(std::size_t piece, Stretch of, const PenReach& reach, Subpath& part) const;
    void approach(std::size_t piece, Stretch of, const PenReach& reach, Subpath& part) const;
    void add_until(double begin, double end, const PenReach& reach, Subpath& part) const;
    [[nodiscard]] const Subpath::Node& end_node(std::size_t piece) const noexcept {
        return subpath_.nodes[(piece + 1) % subpath_.nodes.size()];
    }
    [[nodiscard]] std::size_t piece_at(double distance) const noexcept;

    const Subpath& subpath_;
    CountedVector<double> distances_;  // of each node, and of the end
};

}  // namespace coldbrick::inline v0::detail
