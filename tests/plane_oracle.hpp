// The rules for wide strokes and round shapes, by brute force: sets of the real plane in long double, without rows,
// edges or contours. Written from docs/pixel-rules.md, apart from the library.
#pragma once

#include "oracle.hpp"

#include <cmath>
#include <numbers>
#include <optional>

namespace oracle {

using Real = long double;

struct Place {
    Real x = 0;
    Real y = 0;
    friend Place operator+(Place a, Place b) { return {a.x + b.x, a.y + b.y}; }
    friend Place operator-(Place a, Place b) { return {a.x - b.x, a.y - b.y}; }
    friend Place operator*(Place a, Real f) { return {a.x * f, a.y * f}; }
};
inline Place place(Point p) { return {static_cast<Real>(p.x), static_cast<Real>(p.y)}; }
inline Real along(Place a, Place b) { return a.x * b.x + a.y * b.y; }
inline Real across(Place a, Place b) { return a.x * b.y - a.y * b.x; }
inline Real size_of(Place a) { return std::hypot(a.x, a.y); }
inline Place unit_of(Place a) { return a * (1 / size_of(a)); }
inline Place at_angle(Real degrees) {
    const auto radians = degrees * std::numbers::pi_v<Real> / 180;
    return {std::cos(radians), std::sin(radians)};
}

// How far from the edge nothing is promised (rule 3), and a little for long double itself.
inline constexpr Real open_question = 1.0L / 64;

enum class Answer { out, open, in };
using Question = std::function<Answer(Point)>;

// A set of the plane: whether a place belongs to it.
using Plane = std::function<bool(Place)>;

// A pixel whose centre is surrounded by the set, or by what is outside it.
inline Question question(const Plane& set) {
    return [=](Point p) {
        constexpr int around = 8;
        auto in = set(place(p)) ? 1 : 0;
        for (int i = 0; i < around; ++i) {
            in += set(place(p) + at_angle(360.0L * i / around) * (open_question * 1.05L)) ? 1 : 0;
        }
        return in == 0 ? Answer::out : (in == around + 1 ? Answer::in : Answer::open);
    };
}

// A pixel by its distance from an edge: in where least < distance <= most.
inline Answer between(Real distance, Real least, Real most) {
    if (std::abs(distance - least) <= open_question || std::abs(distance - most) <= open_question) return Answer::open;
    return distance > least && distance < most ? Answer::in : Answer::out;
}

// Compares what is drawn with the answers; few may be open.
template <class Area>
void expect_answers(const Area& area, const Question& rule, const Box& window, const std::string& what,
                    double most_open = 0.02) {
    const auto found = drawn(area, window);
    int wrong = 0;
    int open = 0;
    auto first = Point{};
    for (int y = window.at.y; y <= window.last().y; ++y) {
        for (int x = window.at.x; x <= window.last().x; ++x) {
            const auto answer = rule({x, y});
            if (answer == Answer::open) {
                ++open;
            } else if ((answer == Answer::in) != has(found, {x, y})) {
                if (wrong++ == 0) first = {x, y};
            }
        }
    }
    EXPECT_EQ(wrong, 0) << what << ": first at " << first << (has(found, first) ? " (drawn)" : " (not drawn)");
    EXPECT_LE(open, most_open * window.size.width * window.size.height) << what;
}

// The straight lines of a path with w wide pens: rule 3.
struct Pen {
    int width;
    Cap cap = Cap::flush;
    Join join = Join::miter;
    double limit = 4;

    [[nodiscard]] Real half() const { return width / 2.0L; }
    [[nodiscard]] Place shift() const { return width % 2 == 0 ? Place{-0.5L, -0.5L} : Place{}; }
};

// Between two ends square to the line. They are told for the line as it is, its sides for the line as it is moved.
inline bool on_body(Place p, Place a, Place b, const Pen& pen, Real before, Real after) {
    const auto direction = unit_of(b - a);
    const auto t = along(p - a, direction);
    return t >= -before && t <= size_of(b - a) + after &&
           std::abs(across(direction, p - a - pen.shift())) <= pen.half();
}

inline bool in_disc(Place p, Place center, Real radius) { return size_of(p - center) <= radius; }

// The outer side of a corner at v, where a path comes in direction u and goes on in direction t.
inline bool on_join(Place p, Place v, Place u, Place t, const Pen& pen) {
    const auto turn = across(u, t);
    const auto h = pen.half();
    const auto q = p - v;
    // Beyond the end of the one line and before the beginning of the other, on the outer side.
    const auto side = turn > 0 ? 1 : -1;
    const auto from = Place{u.y, -u.x} * (h * side);
    const auto to = Place{t.y, -t.x} * (h * side);
    const auto in_cone = along(q, u) >= 0 && along(q, t) <= 0 && (along(q, from) >= 0 || along(q, to) >= 0);
    if (!in_cone) return false;
    if (pen.join == Join::round) return size_of(q) <= h;
    const auto half_cosine = std::sqrt((1 + along(u, t)) / 2);
    const auto is_mitered = pen.join == Join::miter && half_cosine * pen.limit >= 1;
    if (is_mitered) return along(q, from) <= h * h && along(q, to) <= h * h;
    // On the near side of the straight line between both corners.
    const auto middle = (from + to) * 0.5L;
    return along(q - middle, middle) <= 0;
}

// All the lines of an open or closed path.
inline Plane wide_path(const std::vector<Point>& points, bool closed, const Pen& pen) {
    return [=](Place p) {
        const auto count = points.size();
        const auto lines = closed ? count : count - 1;
        const auto ends = pen.cap == Cap::square ? pen.half() : 0.5L;
        for (std::size_t i = 0; i < lines; ++i) {
            const auto a = place(points[i]);
            const auto b = place(points[(i + 1) % count]);
            const auto is_first = !closed && i == 0;
            const auto is_last = !closed && i + 1 == lines;
            // At corners, lines end at the corner as it is moved.
            const auto u = unit_of(b - a);
            const auto moved = along(pen.shift(), u);
            if (on_body(p, a, b, pen, is_first ? ends : -moved, is_last ? ends : moved)) return true;
            if (is_last) continue;
            const auto c = place(points[(i + 2) % count]);
            if (on_join(p, b + pen.shift(), u, unit_of(c - b), pen)) return true;
        }
        if (closed || pen.cap != Cap::round) return false;
        return in_disc(p, place(points.front()) + pen.shift(), pen.half()) ||
               in_disc(p, place(points.back()) + pen.shift(), pen.half());
    };
}

// An ellipse by its centre, half-axes and turn: the true edge of a fill.
struct RoundEdge {
    Place center;
    Real a;
    Real b;
    Real turn = 0;  // degrees

    static RoundEdge of(const Ellipse& ellipse) {
        const auto [at, size] = ellipse.box();
        return {.center = {at.x + (size.width - 1) / 2.0L, at.y + (size.height - 1) / 2.0L},
                .a = size.width / 2.0L,
                .b = size.height / 2.0L,
                .turn = ellipse.turn().in_degrees()};
    }

    // In the ellipse's own directions, from its centre.
    [[nodiscard]] Place own(Place p) const {
        const auto u = at_angle(turn);
        const auto q = p - center;
        return {along(q, u), across(u, q)};
    }

    // The distance from the edge, negative inside: the least over all its places, found by trying and halving.
    [[nodiscard]] Real distance(Place p) const {
        const auto q = own(p);
        const auto mirrored = Place{std::abs(q.x), std::abs(q.y)};
        const auto away = [&](Real t) { return size_of(Place{a * std::cos(t), b * std::sin(t)} - mirrored); };
        constexpr int tries = 30;
        const auto quarter = std::numbers::pi_v<Real> / 2;
        auto best = Real{0};
        for (int i = 1; i <= tries; ++i) {
            const auto t = quarter * i / tries;
            if (away(t) < away(best)) best = t;
        }
        for (auto step = quarter / tries; step > 1e-9L; step /= 2) {
            while (away(best + step) < away(best)) best += step;
            while (away(best - step) < away(best)) best -= step;
        }
        return has(p) ? -away(best) : away(best);
    }

    [[nodiscard]] bool has(Place p) const {
        const auto q = own(p);
        return q.x * q.x * b * b + q.y * q.y * a * a <= a * a * b * b;
    }
};

// Whether the direction from a centre lies in a sweep, in degrees; the ray's own places are told by `slack` on both
// sides, in pixels.
inline bool in_sweep(Place q, Real from, Real by, Real slack) {
    if (std::abs(by) >= 360) return true;
    if (by < 0) return in_sweep(q, from + by, -by, slack);
    const auto direction = std::atan2(q.y, q.x) * 180 / std::numbers::pi_v<Real>;
    auto past = std::fmod(direction - from, 360.0L);
    if (past < 0) past += 360;
    if (past <= by) return slack >= 0 || (past * size_of(q) / 57 > -slack && (by - past) * size_of(q) / 57 > -slack);
    return slack > 0 && ((past - by) * size_of(q) / 57 < slack || (360 - past) * size_of(q) / 57 < slack);
}

}  // namespace oracle
