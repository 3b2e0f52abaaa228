// Contours for the textbook's loop: the chords of curves, and corners beside lines.
#pragma once

#include "textbook_areas.hpp"

#include <coldbrick/path.hpp>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstddef>
#include <vector>

namespace bench {

using coldbrick::Path;
using coldbrick::Point;
using coldbrick::Position;

using Corners = std::vector<Place>;

inline Place placed(double x, double y) { return {.x = static_cast<float>(x), .y = static_cast<float>(y)}; }

// Four corners along a line.
inline void add_quad(TextbookAreas& areas, Place from, Place to, float width) {
    const auto length = std::hypot(to.x - from.x, to.y - from.y);
    if (length == 0) return;
    const auto across = Place{.x = -(to.y - from.y) / length * width / 2, .y = (to.x - from.x) / length * width / 2};
    const auto corners =
        std::array{Place{from.x + across.x, from.y + across.y}, Place{to.x + across.x, to.y + across.y},
                   Place{to.x - across.x, to.y - across.y}, Place{from.x - across.x, from.y - across.y}};
    areas.contour(corners);
}

// The contour around a line of corners, each moved aside by half a width.
inline Corners contour_of(const Corners& line, float width) {
    Corners contour(line.size() * 2);
    for (std::size_t i = 0; i < line.size(); ++i) {
        const auto& before = line[i == 0 ? 0 : i - 1];
        const auto& behind = line[std::min(i + 1, line.size() - 1)];
        const auto length = std::max(std::hypot(behind.x - before.x, behind.y - before.y), 1e-6F);
        const auto across =
            Place{-(behind.y - before.y) / length * width / 2, (behind.x - before.x) / length * width / 2};
        contour[i] = {line[i].x + across.x, line[i].y + across.y};
        contour[contour.size() - 1 - i] = {line[i].x - across.x, line[i].y - across.y};
    }
    return contour;
}

// The chords of a curve that are no further than 1/1024 pixel from it, at even steps.
inline void add_cubic(Corners& to, Place a, Place b, Place c, Place d) {
    const auto bend = std::max(std::hypot(a.x - 2 * b.x + c.x, a.y - 2 * b.y + c.y),
                               std::hypot(b.x - 2 * c.x + d.x, b.y - 2 * c.y + d.y));
    const auto count = static_cast<int>(std::ceil(std::sqrt(0.75F * bend * 1024)));
    for (auto i = 0; i < count; ++i) {
        const auto t = static_cast<float>(i) / static_cast<float>(count);
        const auto s = 1 - t;
        const auto [p, q, r, v] = std::array{s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t};
        to.push_back({p * a.x + q * b.x + r * c.x + v * d.x, p * a.y + q * b.y + r * c.y + v * d.y});
    }
}

inline void add_arc(Corners& to, Place center, double radius, double from, double by) {
    const auto count = static_cast<int>(std::ceil(std::fabs(by) / (2 * std::acos(1 - 1.0 / 1024 / radius))));
    for (auto i = 0; i <= count; ++i) {
        const auto angle = from + by * i / count;
        to.push_back(placed(center.x + radius * std::cos(angle), center.y + radius * std::sin(angle)));
    }
}

// Two curves, one out and one back.
struct Leaf {
    double size;

    [[nodiscard]] std::array<Place, 7> places() const {
        const auto at = [&](double x, double y) { return placed(4 + x * size, 4 + y * size); };
        return {at(0, 0.3), at(0.3, -0.2), at(0.7, 0.2), at(1, 0.4), at(1.1, 0.9), at(0.2, 1.1), at(0, 0.3)};
    }
    [[nodiscard]] Path path(Point at) const {
        const auto p = places();
        const auto place = [&](std::size_t i) { return Position{at.x + double{p[i].x}, at.y + double{p[i].y}}; };
        Path path;
        path.move(place(0)).cubic({.control_1 = place(1), .control_2 = place(2), .to = place(3)});
        path.cubic({.control_1 = place(4), .control_2 = place(5), .to = place(6)}).close();
        return path;
    }
    [[nodiscard]] Corners corners() const {
        const auto p = places();
        Corners corners;
        add_cubic(corners, p[0], p[1], p[2], p[3]);
        add_cubic(corners, p[3], p[4], p[5], p[6]);
        return corners;
    }
};

}  // namespace bench
