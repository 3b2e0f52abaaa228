// Paths: their steps, path data, flattening, fills and strokes.
#include "plane_oracle.hpp"

#include <coldbrick/error.hpp>
#include <coldbrick/path.hpp>
#include <coldbrick/vertices.hpp>

#include <algorithm>
#include <cmath>

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr auto window = Box{.at = {-30, -25}, .size = {91, 81}};

Path of_lines(const std::vector<Polygon::Vertices>& rings, bool closed) {
    Path path;
    for (const auto& ring : rings) {
        path.move(ring.front());
        for (std::size_t i = 1; i < ring.size(); ++i) path.line(ring[i]);
        if (closed) path.close();
    }
    return path;
}

TEST(Paths, OfStraightLinesAreThePolygon) {
    Dice dice{61};
    for (int i = 0; i < 100; ++i) {
        const auto rings = std::vector<Polygon::Vertices>{dice.ring(2, 6, window), dice.ring(2, 5, window)};
        const auto path = of_lines(rings, i % 2 == 0);
        for (const auto rule : {FillRule::even_odd, FillRule::nonzero}) {
            const auto how = Fill{.rule = rule, .edges = i % 3 == 0 ? Edges::shared : Edges::inclusive};
            EXPECT_EQ(drawn(filled(path, how), window), drawn(filled(Polygon{rings}, how), window));
        }
        const auto closed = of_lines(rings, true);
        EXPECT_EQ(drawn(stroked(closed), window), drawn(stroked(Polygon{rings}), window));
        const auto open = of_lines({rings[1]}, false);
        for (const auto& how :
             {Stroke{}, Stroke{.width = 7}, Stroke{.dash = {4, 3}}, Stroke{.width = 4, .dash = {5, 2}}}) {
            EXPECT_EQ(drawn(stroked(open, how), window), drawn(stroked(Polyline{.through = rings[1]}, how), window));
        }
        EXPECT_EQ(bounds(path), bounds(Polygon{rings}));
    }
}

// A place on a Bézier curve by its definition.
Place bezier(std::vector<Place> points, Real t) {
    for (; points.size() > 1; points.pop_back()) {
        for (std::size_t i = 0; i + 1 < points.size(); ++i) points[i] = points[i] * (1 - t) + points[i + 1] * t;
    }
    return points[0];
}

Real distance_to(Place p, const std::vector<Position>& chain) {
    auto least = Real{1e9};
    for (std::size_t i = 0; i + 1 < chain.size(); ++i) {
        const auto a = Place{chain[i].x, chain[i].y};
        const auto b = Place{chain[i + 1].x, chain[i + 1].y};
        const auto size = along(b - a, b - a);
        const auto t = size > 0 ? std::clamp(along(p - a, b - a) / size, Real{0}, Real{1}) : Real{0};
        least = std::min(least, size_of(p - a - (b - a) * t));
    }
    return least;
}

// Each place of the curve is near the chords, and each chord near the curve; and there are hardly more chords than the
// most that the curve can be away from longer ones would need.
TEST(Paths, CurvesAreFlattenedToASixtyFourthWithFewChords) {
    Dice dice{62};
    for (int i = 0; i < 30; ++i) {
        const auto reach = i % 2 == 0 ? 60 : 2000;
        const auto around = Box{.at = {-reach, -reach}, .size = {2 * reach, 2 * reach}};
        std::vector<Point> p{dice.point(around), dice.point(around), dice.point(around), dice.point(around)};
        if (i % 5 == 0) p[3] = p[0];
        Path path;
        path.move(p[0]).cubic({.control_1 = p[1], .control_2 = p[2], .to = p[3]});
        const auto chain = flattened(path).at(0);
        const auto points = std::vector<Place>{place(p[0]), place(p[1]), place(p[2]), place(p[3])};
        const auto fine = static_cast<int>(chain.size()) * 10;
        for (int k = 0; k <= fine; ++k) {
            ASSERT_LE(distance_to(bezier(points, Real(k) / fine), chain), open_question) << i;
        }
        // The best chords turn so much that the curve is a 64th away: the integral of the root of the curvature counts
        // them.
        auto needed = Real{0};
        for (int k = 0; k < 4000; ++k) {
            const auto t = (k + 0.5L) / 4000;
            const auto h = 1e-4L;
            const auto slope = (bezier(points, t + h) - bezier(points, t - h)) * (1 / (2 * h));
            const auto bend = (bezier(points, t + h) - bezier(points, t) * 2 + bezier(points, t - h)) * (1 / (h * h));
            needed += std::sqrt(std::abs(across(slope, bend)) / size_of(slope)) / 4000;
        }
        needed /= std::sqrt(8 * open_question);
        EXPECT_LE(static_cast<Real>(chain.size()), needed * 1.45L + 8) << i;
    }
}

TEST(Paths, FilledCurvesHaveTheirPixels) {
    Path path;
    path.move({-20, 40}).cubic({.control_1 = {-10, -40}, .control_2 = {30, -30}, .to = {50, 40}}).close();
    const auto points = std::vector<Place>{{-20, 40}, {-10, -40}, {30, -30}, {50, 40}};
    // The curve goes up and down once, and to the right all the way: it is a graph over x.
    const auto height_at = [&](Real x) {
        auto low = Real{0};
        auto high = Real{1};
        for (int i = 0; i < 60; ++i) (bezier(points, (low + high) / 2).x < x ? low : high) = (low + high) / 2;
        return bezier(points, low).y;
    };
    expect_answers(filled(path, {.edges = Edges::shared}),
                   question([&](Place p) { return p.x >= -20 && p.x <= 50 && p.y <= 40 && p.y >= height_at(p.x); }),
                   window, "arch", 0.03);
    // The outline belongs to the usual fill, without gaps: each of its pixels has a neighbour on both sides.
    const auto inside = drawn(path, window);
    const auto hairline = drawn(stroked(path), window);
    for (const auto p : hairline) {
        EXPECT_TRUE(has(inside, p));
        auto neighbours = 0;
        for (int dy = -1; dy <= 1; ++dy) {
            for (int dx = -1; dx <= 1; ++dx) neighbours += has(hairline, {p.x + dx, p.y + dy}) ? 1 : 0;
        }
        EXPECT_GE(neighbours, 3) << p;
    }
}

TEST(Paths, WideCurvesAreEvenlyThick) {
    const auto points = std::vector<Place>{{-20, 40}, {-10, -40}, {30, -30}, {50, 40}};
    Path path;
    path.move({-20, 40}).cubic({.control_1 = {-10, -40}, .control_2 = {30, -30}, .to = {50, 40}});
    std::vector<Place> curve;
    for (int k = 0; k <= 1000; ++k) curve.push_back(bezier(points, Real(k) / 1000));
    for (const auto width : {3, 9, 21, 39}) {
        const auto rule = [&](Point p) {
            auto least = Real{1e9};
            std::size_t nearest = 0;
            for (std::size_t k = 0; k < curve.size(); ++k) {
                const auto away = size_of(place(p) - curve[k]);
                if (away < least) least = away, nearest = k;
            }
            const auto at_end = nearest == 0 || nearest + 1 == curve.size();
            return at_end ? Answer::open : between(least, -1, width / 2.0L);
        };
        expect_answers(stroked(path, {.width = width}), rule, window, "curve of width " + std::to_string(width), 0.3);
    }
}

TEST(Paths, PathDataOfEveryCommand) {
    const auto same = [](const std::string& text, const Path& path) {
        EXPECT_EQ(flattened(parse_path(text)), flattened(path)) << text;
    };
    same("M1 2L3,4-5.5.5", Path{}.move({1, 2}).line({3, 4}).line({-5.5, 0.5}));
    same(" m 1,2 3 4 h5 v-6e0 z l 1 1",
         Path{}.move({1, 2}).line({4, 6}).line({9, 6}).line({9, 0}).close().line({2, 3}));
    same("M1 2 3 4H7V+8Z", Path{}.move({1, 2}).line({3, 4}).line({7, 4}).line({7, 8}).close());
    same("M0 0C1 2 3 4 5 6s1 1 9 0", Path{}
                                         .move({0, 0})
                                         .cubic({.control_1 = {1, 2}, .control_2 = {3, 4}, .to = {5, 6}})
                                         .cubic({.control_1 = {7, 8}, .control_2 = {6, 7}, .to = {14, 6}}));
    same("M0 0Q10 20 30 0T60 0t9 9", Path{}
                                         .move({0, 0})
                                         .quadratic({.control = {10, 20}, .to = {30, 0}})
                                         .quadratic({.control = {50, -20}, .to = {60, 0}})
                                         .quadratic({.control = {70, 20}, .to = {69, 9}}));
    same("M0 0A30 20 15 0130 0",
         Path{}.move({0, 0}).arc(
             {.radii = {30, 20}, .turned = 15_deg, .large = false, .clockwise = true, .to = {30, 0}}));
    same("M0 0a30,20,0,1,0,9,9",
         Path{}.move({0, 0}).arc({.radii = {30, 20}, .large = true, .clockwise = false, .to = {9, 9}}));
    same("M0 0A0 20 0 0 0 9 9", Path{}.move({0, 0}).line({9, 9}));
}

TEST(Paths, ArcsOfAPathAreArcsOfTheEllipse) {
    for (int i = 0; i < 4; ++i) {
        const auto large = i % 2 == 1;
        const auto clockwise = i / 2 == 1;
        Path path;
        path.move({0, 0}).arc(
            {.radii = {40, 25}, .turned = 20_deg, .large = large, .clockwise = clockwise, .to = {30, 10}});
        const auto chain = flattened(path).at(0);
        // All corners lie on one ellipse of these half-axes: undo the turn and the axes, and it is a unit circle.
        const auto own = [](Position p) {
            const auto u = at_angle(20);
            return Place{along({p.x, p.y}, u) / 40, across(u, {p.x, p.y}) / 25};
        };
        const auto a = own(chain.front());
        const auto b = own(chain[chain.size() / 2]);
        const auto c = own(chain.back());
        const auto d = 2 * across(b - a, c - a);
        const auto center = a + Place{((c - a).y * along(b - a, b - a) - (b - a).y * along(c - a, c - a)) / d,
                                      ((b - a).x * along(c - a, c - a) - (c - a).x * along(b - a, b - a)) / d};
        auto turn = Real{0};
        for (std::size_t k = 0; k < chain.size(); ++k) {
            EXPECT_NEAR(static_cast<double>(size_of(own(chain[k]) - center)), 1, 1e-9);
            if (k == 0) continue;
            const auto step = std::asin(across(own(chain[k - 1]) - center, own(chain[k]) - center));
            EXPECT_EQ(step > 0, clockwise);
            turn += std::abs(step);
        }
        EXPECT_EQ(turn > std::numbers::pi, large);
    }
    // Radii too small to reach grow until they do: half a circle of diameter 30.
    Path small;
    small.move({0, 0}).arc({.radii = {1, 1}, .to = {30, 0}});
    const auto half_circle = flattened(small).at(0);
    for (const auto& p : half_circle) EXPECT_NEAR(std::hypot(p.x - 15, p.y), 15, 1e-9);
}

// No chord is further from its arc than 1/64 of a pixel, and there are hardly more than that takes.
TEST(Paths, ArcsHaveFewChords) {
    for (const auto radius : {3.0, 10.0, 100.0, 1000.0}) {
        for (const auto flat : {1.0, 0.5, 0.05}) {
            Path half;
            half.move({0, 0}).arc({.radii = {radius, radius * flat}, .to = {2 * radius, 0}});
            const auto chain = flattened(half).at(0);
            for (std::size_t i = 1; i < chain.size(); ++i) {
                // Of the circle that the ellipse is when it is as high as wide: the chord's middle is as much nearer to
                // the centre as the arc is away from it, times at most the ellipse's larger radius.
                const auto u = ((chain[i].x + chain[i - 1].x) / 2 - radius) / radius;
                const auto v = (chain[i].y + chain[i - 1].y) / 2 / (radius * flat);
                const auto angle = std::atan2(v, u);
                const auto scale = radius * flat / std::hypot(std::sin(angle), flat * std::cos(angle));
                EXPECT_LE((1 - std::hypot(u, v)) * scale, 1.0 / 64) << radius << ", " << flat;
            }
            if (flat < 1) continue;
            const auto needed = std::numbers::pi / (2 * std::acos(1 - 1.0 / 64 / radius));
            EXPECT_LE(static_cast<double>(chain.size() - 1), 1.4 * needed + 4) << radius;
        }
    }
}

TEST(Paths, FaultsInPathDataAreToldWithTheirPlace) {
    const auto fault = [](const std::string& text) {
        try {
            (void)parse_path(text);
        } catch (const PathError& error) {
            EXPECT_TRUE(
                std::string{error.what()}.starts_with("path: at character " + std::to_string(error.position() + 1)));
            return static_cast<int>(error.position());
        }
        return -1;
    };
    EXPECT_EQ(fault(""), 0);
    EXPECT_EQ(fault("  "), 2);
    EXPECT_EQ(fault("L1 2"), 0);
    EXPECT_EQ(fault("M1"), 2);
    EXPECT_EQ(fault("M1 2 L3"), 7);
    EXPECT_EQ(fault("M1 2 X3"), 5);
    EXPECT_EQ(fault("M1 2,"), 4);
    EXPECT_EQ(fault("M1 2 C1 2 3 4 5"), 15);
    EXPECT_EQ(fault("M1 2 A3 3 0 2 0 5 5"), 12);
    EXPECT_EQ(fault("M1 2 L1e99999 3"), 6);
    EXPECT_EQ(fault("M1 2 L4e9 3"), 6);
    EXPECT_EQ(fault("M1 2 L--3 4"), 6);
    EXPECT_THROW((void)Path{}.line({1, 2}), Error);
    EXPECT_THROW((void)Path{}.move({1e300, 2}), Error);
    EXPECT_THROW((void)Path{}.move({1, 2}).arc({.radii = {-1, 2}, .to = {3, 4}}), Error);
    Path path;
    path.move({1, 2});
    EXPECT_THROW(path.line({std::nan(""), 0}), Error);
    EXPECT_EQ(path.steps().size(), 1U);
    EXPECT_THROW((void)flattened(Path{}), Error);
}

}  // namespace
