// How much of a pixel a set of the plane covers, apart from the library: by clipping polygons, by the closed form for
// discs, and for any other set by cutting the pixel into ever smaller squares.
#pragma once

#include "plane_oracle.hpp"

#include <coldbrick/smooth_region.hpp>

#include <algorithm>
#include <cmath>

namespace oracle {

using Outline = std::vector<oracle::Place>;

// The convex polygon that is left of another on the right-hand side of a line.
inline Outline clipped(const Outline& corners, Place from, Place to) {
    Outline left;
    const auto side = [&](Place p) { return across(to - from, p - from); };
    for (std::size_t i = 0; i < corners.size(); ++i) {
        const auto a = corners[i];
        const auto b = corners[(i + 1) % corners.size()];
        if (side(a) >= 0) left.push_back(a);
        if ((side(a) > 0 && side(b) < 0) || (side(a) < 0 && side(b) > 0)) {
            left.push_back(a + (b - a) * (side(a) / (side(a) - side(b))));
        }
    }
    return left;
}

inline Real area_of(const Outline& corners) {
    Real twice = 0;
    for (std::size_t i = 0; i < corners.size(); ++i) {
        const auto origin = corners.front();
        twice += across(corners[i] - origin, corners[(i + 1) % corners.size()] - origin);
    }
    return std::abs(twice) / 2;
}

// The part of a pixel inside a convex polygon that goes clockwise.
inline Real convex_share(const Outline& polygon, Point pixel) {
    const auto p = place(pixel);
    auto rest = Outline{p + Place{-0.5L, -0.5L}, p + Place{0.5L, -0.5L}, p + Place{0.5L, 0.5L}, p + Place{-0.5L, 0.5L}};
    for (std::size_t i = 0; i < polygon.size(); ++i)
        rest = clipped(rest, polygon[i], polygon[(i + 1) % polygon.size()]);
    return rest.size() < 3 ? 0 : area_of(rest);
}

// The area of the part of a disc around (0, 0) that lies left of x and above y: by the integral of its edge.
inline Real disc_quadrant(Real x, Real y, Real r) {
    const auto root = [&](Real t) { return std::sqrt(std::max(Real{0}, r * r - t * t)); };
    const auto primitive = [&](Real t) {
        return (t * root(t) + r * r * std::asin(std::clamp(t / r, Real{-1}, Real{1}))) / 2;
    };
    const auto right = std::clamp(x, -r, r);
    // Between -root and min(y, root), where that is above.
    const auto turn = root(std::clamp(y, -r, r));
    Real area = 0;
    const auto add = [&](Real from, Real to, bool is_cut) {
        from = std::max(from, -r);
        to = std::min(to, right);
        if (from >= to) return;
        area += (primitive(to) - primitive(from)) * (is_cut ? 1 : 2) + (is_cut ? y * (to - from) : 0);
    };
    if (y >= r) {
        add(-r, r, false);
    } else if (y > -r) {
        if (y >= 0) add(-r, -turn, false);
        add(-turn, turn, true);
        if (y >= 0) add(turn, r, false);
    }
    return area;
}

inline Real disc_share(Place center, Real radius, Point pixel) {
    const auto q = place(pixel) - center;
    const auto part = [&](Real dx, Real dy) { return disc_quadrant(q.x + dx, q.y + dy, radius); };
    return part(0.5L, 0.5L) - part(-0.5L, 0.5L) - part(0.5L, -0.5L) + part(-0.5L, -0.5L);
}

// The part of a square in a set: squares whose corners and middle agree are not cut further, from some size on.
inline Real share_in(const Plane& set, Place corner, Real side, int depth) {
    const auto in = [&](Real x, Real y) { return set(corner + Place{x * side, y * side}) ? 1 : 0; };
    const auto count =
        in(0.5L, 0.5L) + in(0.001L, 0.001L) + in(0.999L, 0.001L) + in(0.001L, 0.999L) + in(0.999L, 0.999L);
    constexpr int least_depth = 3;
    constexpr int most_depth = 6;
    if (depth >= least_depth && (count == 0 || count == 5)) return count == 0 ? 0 : side * side;
    if (depth == most_depth) return side * side * count / 5;
    const auto half = side / 2;
    return share_in(set, corner, half, depth + 1) + share_in(set, corner + Place{half, 0}, half, depth + 1) +
           share_in(set, corner + Place{0, half}, half, depth + 1) +
           share_in(set, corner + Place{half, half}, half, depth + 1);
}
inline Real plane_share(const Plane& set, Point pixel) { return share_in(set, place(pixel) - Place{0.5L, 0.5L}, 1, 0); }

// Where a pixel stands in a list of those of a window, row by row.
inline std::size_t index_in(const Box& window, Point p) {
    return static_cast<std::size_t>(p.y - window.at.y) * static_cast<std::size_t>(window.size.width) +
           static_cast<std::size_t>(p.x - window.at.x);
}

// What the library tells of an area, pixel by pixel. None may come twice.
template <class Area>
std::vector<int> coverage_of(const Area& area, const Box& window) {
    std::vector<int> found(static_cast<std::size_t>(window.size.width) * static_cast<std::size_t>(window.size.height));
    int twice = 0;
    for_each_coverage(area, window, [&](int y, int x, int length, int coverage) {
        for (int i = 0; i < length; ++i) {
            auto& of = found[index_in(window, {x + i, y})];
            twice += of != 0 ? 1 : 0;
            of = coverage;
        }
    });
    EXPECT_EQ(twice, 0) << "pixels that were told twice";
    return found;
}

// The greatest difference from the shares, in 255ths.
template <class Area, class Share>
double worst_coverage(const Area& area, const Share& share, const Box& window) {
    const auto found = coverage_of(area, window);
    double worst = 0;
    std::size_t i = 0;
    for (int y = window.at.y; y <= window.last().y; ++y) {
        for (int x = window.at.x; x <= window.last().x; ++x, ++i) {
            worst = std::max(worst, static_cast<double>(std::abs(found[i] - 255 * share(Point{x, y}))));
        }
    }
    return worst;
}

}  // namespace oracle
