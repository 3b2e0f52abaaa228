// Smooth strokes, dashes, round parts, regions and lists of vertices against exact areas and as sets of the plane.
#include "coverage_oracle.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <array>
#include <cmath>

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr auto window = Box{.at = {-20, -18}, .size = {41, 37}};
constexpr auto few = Box{.at = {-11, -10}, .size = {15, 21}};
constexpr double exact = 1.0;
constexpr double nearly = 2.0;

Stroke pen(Stroke how) {
    how.edge = Edge::smooth;
    return how;
}
constexpr auto smooth = Fill{.edge = Edge::smooth};

template <class Area>
void expect_set(const Area& area, const Plane& set, const std::string& what) {
    EXPECT_LE(worst_coverage(
                  area, [&](Point p) { return plane_share(set, p); }, few),
              nearly)
        << what;
}

// On the right of each side of a convex polygon that goes clockwise.
Plane in_convex(const std::vector<oracle::Place>& corners) {
    return [=](oracle::Place p) {
        for (std::size_t i = 0; i < corners.size(); ++i) {
            const auto a = corners[i];
            if (across(corners[(i + 1) % corners.size()] - a, p - a) < 0) return false;
        }
        return true;
    };
}

TEST(SmoothStrokes, PolygonsInsideAndOutside) {
    const std::vector<Point> ring{{-8, -6}, {7, -3}, {-1, 8}};
    const Polygon polygon{Polygon::Vertices{ring}};
    const auto interior = in_convex({place(ring[0]), place(ring[1]), place(ring[2])});
    const auto rim = wide_path(ring, true, {.width = 1});
    for (const int width : {1, 2, 3, 4}) {
        const auto in_fill = [&](oracle::Place p) { return interior(p) || rim(p); };
        const auto inner = wide_path(ring, true, {.width = 2 * width - 1});
        const auto outer = wide_path(ring, true, {.width = 2 * width + 1});
        expect_set(
            stroked(polygon, pen({.width = width, .align = Align::inside})),
            [&](oracle::Place p) { return inner(p) && in_fill(p); }, "inside " + std::to_string(width));
        expect_set(
            stroked(polygon, pen({.width = width, .align = Align::outside})),
            [&](oracle::Place p) { return outer(p) && !in_fill(p); }, "outside " + std::to_string(width));
        if (width % 2 == 1) continue;
        const auto thinner = wide_path(ring, true, {.width = width - 1});
        const auto wider = wide_path(ring, true, {.width = width + 1});
        expect_set(
            stroked(polygon, pen({.width = width})),
            [&](oracle::Place p) { return thinner(p) || (wider(p) && !in_fill(p)); },
            "center " + std::to_string(width));
    }
    expect_set(
        filled(polygon, smooth), [&](oracle::Place p) { return interior(p) || rim(p); }, "inclusive");
    // A polygon that crosses itself, by both rules.
    const std::vector<Point> crossed{{-9, -7}, {9, 6}, {-8, 6}, {8, -8}, {0, 9}};
    const auto winding = [&](oracle::Place p) {
        int sum = 0;
        for (std::size_t i = 0; i < crossed.size(); ++i) {
            const auto a = place(crossed[i]);
            const auto b = place(crossed[(i + 1) % crossed.size()]);
            if ((a.y <= p.y) == (b.y <= p.y)) continue;
            if (a.x + (p.y - a.y) / (b.y - a.y) * (b.x - a.x) > p.x) sum += a.y < b.y ? 1 : -1;
        }
        return sum;
    };
    for (const auto rule : {FillRule::even_odd, FillRule::nonzero}) {
        expect_set(
            filled(Polygon{Polygon::Vertices{crossed}}, {.rule = rule, .edges = Edges::shared, .edge = Edge::smooth}),
            [&](oracle::Place p) { return rule == FillRule::nonzero ? winding(p) != 0 : winding(p) % 2 != 0; },
            "crossed");
    }
}

TEST(SmoothStrokes, DashesAreRectangles) {
    const auto line = Line{.from = {-15, -6}, .to = {15, 6}};
    const auto how = pen({.width = 3, .dash = {5, 3}, .dash_offset = 1});
    const auto u = unit_of(place(line.to) - place(line.from));
    const auto side = oracle::Place{-u.y, u.x} * 1.5L;
    const auto length = size_of(place(line.to) - place(line.from));
    const auto share = [&](Point p) {
        Real sum = 0;
        for (int i = 0; i < 6; ++i) {
            // The path begins half a pixel before its first point.
            const auto begin = std::max<Real>(8 * i - 1, 0) - 0.5L;
            const auto end = std::min<Real>(8 * i + 4, length + 1) - 0.5L;
            if (end <= begin) continue;
            const auto a = place(line.from) + u * begin;
            const auto b = place(line.from) + u * end;
            sum += convex_share({a - side, b - side, b + side, a + side}, p);
        }
        return sum;
    };
    EXPECT_LE(worst_coverage(stroked(line, how), share, window), exact);
    // Dots of no length and round caps.
    const auto dots =
        stroked(Line{.from = {-12, 2}, .to = {12, 2}}, pen({.width = 5, .cap = Cap::round, .dash = {0, 8}}));
    const auto dot_share = [](Point p) {
        Real sum = 0;
        for (int i = 0; i < 4; ++i) sum += disc_share({-12.5L + 8 * i, 2}, 2.5L, p);
        return std::min<Real>(sum, 1);
    };
    EXPECT_LE(worst_coverage(dots, dot_share, window), exact);
}

TEST(SmoothStrokes, RoundPartsLieInTheirSweep) {
    const auto circle = Circle{.center = {0, 0}, .radius = 9};
    for (const auto& ends : {std::pair{20, 100}, {250, 200}, {90, -60}, {-30, 300}}) {
        const auto from = ends.first;
        const auto by = ends.second;
        const auto sweep = Sweep{.from = Angle::degrees(from), .by = Angle::degrees(by)};
        const auto in_wedge = [&](oracle::Place p) { return in_sweep(p, from, by, 0); };
        expect_set(
            filled(Sector{circle, sweep}, smooth), [&](oracle::Place p) { return size_of(p) <= 9.5L && in_wedge(p); },
            "sector");
        for (const int width : {1, 4}) {
            const auto out = 9.5L + std::floor(width / 2.0L);
            expect_set(
                stroked(Arc{circle, sweep}, pen({.width = width})),
                [&](oracle::Place p) { return size_of(p) <= out && size_of(p) > out - width && in_wedge(p); }, "arc");
        }
        const auto middle = 9.5L + 2 - 2;
        expect_set(
            stroked(Arc{circle, sweep}, pen({.width = 4, .cap = Cap::round})),
            [&](oracle::Place p) {
                const auto in_cap = [&](int at) { return size_of(p - at_angle(at) * middle) <= 2; };
                return (size_of(p) <= 11.5L && size_of(p) > 7.5L && in_wedge(p)) || in_cap(from) || in_cap(from + by);
            },
            "arc with caps");
        const auto a = at_angle(by > 0 ? from : from + by) * 9.5L;
        const auto b = at_angle(by > 0 ? from + by : from) * 9.5L;
        expect_set(
            filled(Chord{circle, sweep}, smooth),
            [&](oracle::Place p) { return size_of(p) <= 9.5L && across(b - a, p - a) <= 0; }, "chord");
    }
}

// How far a place is from a box with round corners, negative inside.
Real away_from(oracle::Place p, oracle::Place least, oracle::Place most, Real radius) {
    const auto dx = std::max(least.x + radius - p.x, p.x - most.x + radius);
    const auto dy = std::max(least.y + radius - p.y, p.y - most.y + radius);
    if (dx > 0 && dy > 0) return std::hypot(dx, dy) - radius;
    return std::max(dx, dy) - radius;
}

TEST(SmoothStrokes, RoundedBoxesAndTheirBands) {
    const auto shape = RoundedBox{.box = {.at = {-8, -6}, .size = {17, 13}}, .corner_radius = 4};
    const auto away = [](oracle::Place p) { return away_from(p, {-8.5L, -6.5L}, {8.5L, 6.5L}, 4); };
    expect_set(
        filled(shape, smooth), [&](oracle::Place p) { return away(p) <= 0; }, "fill");
    for (const auto align : {Align::center, Align::inside, Align::outside}) {
        for (const int width : {1, 3}) {
            const auto out = align == Align::inside ? 0 : (align == Align::outside ? width : width / 2);
            expect_set(
                stroked(shape, pen({.width = width, .align = align})),
                [&](oracle::Place p) { return away(p) <= out && away(p) > out - width; }, "band");
        }
    }
    const auto box = Box{.at = {-8, -6}, .size = {17, 13}};
    expect_set(
        stroked(box, pen({.width = 4, .align = Align::outside, .join = Join::round})),
        [](oracle::Place p) {
            return away_from(p, {-8.5L, -6.5L}, {8.5L, 6.5L}, 0) > 0 &&
                   away_from(p, {-12.5L, -10.5L}, {12.5L, 10.5L}, 4) <= 0;
        },
        "round join");
}

TEST(SmoothStrokes, RegionsFollowTheirPixels) {
    const Region region{
        unite(Region{Box{.at = {-6, -5}, .size = {8, 5}}}, Region{Box{.at = {-1, -2}, .size = {6, 8}}})};
    const auto away = [&](oracle::Place p) {
        Real least = 1000;
        for (const auto& [y, x, length] : region.spans()) {
            least = std::min(least, away_from(p, {x - 0.5L, y - 0.5L}, {x + length - 0.5L, y + 0.5L}, 0) <= 0
                                        ? Real{0}
                                        : std::hypot(std::max({x - 0.5L - p.x, p.x - (x + length - 0.5L), Real{0}}),
                                                     std::max({y - 0.5L - p.y, p.y - (y + 0.5L), Real{0}})));
        }
        return least;
    };
    expect_set(
        stroked(region, pen({.width = 3, .align = Align::outside})),
        [&](oracle::Place p) { return away(p) > 0 && away(p) <= 3; }, "outside");
    EXPECT_EQ(coverage_of(filled(region, smooth), window), coverage_of(region, window));
}

TEST(SmoothStrokes, PathsAndLinesOfVertices) {
    const auto path = parse_path("M -9,0 A 9,9 0 1 1 9,0 A 9,9 0 1 1 -9,0 Z");
    const auto disc = [](Point p) { return disc_share({}, 9, p); };
    EXPECT_LE(worst_coverage(filled(path, {.edges = Edges::shared, .edge = Edge::smooth}), disc, window), exact);
    const auto ring = [](Point p) { return disc_share({}, 10.5L, p) - disc_share({}, 7.5L, p); };
    EXPECT_LE(worst_coverage(stroked(path, pen({.width = 3})), ring, window), exact + 0.5);
    // A cubic curve and the same in a hundred pieces.
    const auto curve = parse_path("M -15,10 C -5,-25 5,30 15,-10");
    Path pieces;
    for (int i = 0; i <= 400; ++i) {
        const auto t = i / 400.0;
        const auto u = 1 - t;
        const auto at = Position{-15 * u * u * u - 15 * u * u * t + 15 * u * t * t + 15 * t * t * t,
                                 10 * u * u * u - 75 * u * u * t + 90 * u * t * t - 10 * t * t * t};
        i == 0 ? pieces.move(at) : pieces.line(at);
    }
    const auto a = coverage_of(stroked(curve, pen({.width = 2, .join = Join::round})), window);
    const auto b = coverage_of(stroked(pieces, pen({.width = 2, .join = Join::round})), window);
    for (std::size_t i = 0; i < a.size(); ++i) EXPECT_NEAR(a[i], b[i], 2);
    // Lines and dots from arrays are those that are drawn one by one.
    const std::vector<Position> ends{{-9.5, 3}, {8, -4.25}};
    const auto pair = VertexList{.as = Elements::line_pairs, .at = ends};
    EXPECT_EQ(coverage_of(stroked(pair, pen({.width = 3})), window),
              coverage_of(stroked(subpixel::Line{ends[0], ends[1]}, pen({.width = 3})), window));
    const auto dot = VertexList{.as = Elements::points, .at = std::span{ends}.first(1)};
    const auto dot_share = [](Point p) { return disc_share({-9.5L, 3}, 2.5L, p); };
    EXPECT_LE(worst_coverage(stroked(dot, pen({.width = 5, .cap = Cap::round})), dot_share, window), exact);
}

TEST(SmoothStrokes, ConcentricRingsTile) {
    std::vector<int> sum(static_cast<std::size_t>(window.size.width) * static_cast<std::size_t>(window.size.height));
    auto out = 0;
    for (const int width : {3, 1, 4, 2, 5}) {
        const auto ring =
            stroked(Circle{.center = {0, 0}, .radius = out}, pen({.width = width, .align = Align::outside}));
        const auto found = coverage_of(ring, window);
        for (std::size_t i = 0; i < sum.size(); ++i) sum[i] += found[i];
        out += width;
    }
    const auto middle = coverage_of(filled(Circle{.center = {0, 0}, .radius = 0}, smooth), window);
    const auto whole = coverage_of(filled(Circle{.center = {0, 0}, .radius = out}, smooth), window);
    for (std::size_t i = 0; i < sum.size(); ++i) EXPECT_NEAR(sum[i] + middle[i], whole[i], 2);
}

TEST(SmoothStrokes, MovedAndMirroredOnesAreTheSame) {
    Dice dice{68};
    for (int i = 0; i < 20; ++i) {
        const auto a = dice.point(few);
        const auto b = dice.point(few);
        const auto how = pen({.width = dice.number(1, 6), .cap = Cap::round});
        const auto found = coverage_of(stroked(Line{.from = a, .to = b}, how), few);
        const auto back = coverage_of(stroked(Line{.from = b, .to = a}, how), few);
        const auto moved = coverage_of(stroked(Line{.from = {a.x + 700, a.y - 900}, .to = {b.x + 700, b.y - 900}}, how),
                                       {.at = {few.at.x + 700, few.at.y - 900}, .size = few.size});
        EXPECT_EQ(found, moved);
        for (std::size_t k = 0; k < found.size(); ++k) EXPECT_NEAR(found[k], back[k], 1);
    }
    const auto ellipse = Ellipse::around({.center = {0, 0}, .radii = {10, 6}});
    const auto found = coverage_of(filled(ellipse, smooth), window);
    for (int y = 0; y < window.size.height; ++y) {
        for (int x = 0; x < window.size.width; ++x) {
            const auto at = [&](int column, int row) {
                return found[index_in({.at = {}, .size = window.size}, {column, row})];
            };
            EXPECT_NEAR(at(x, y), at(window.size.width - 1 - x, y), 1);
            EXPECT_NEAR(at(x, y), at(x, window.size.height - 1 - y), 1);
        }
    }
}

TEST(SmoothStrokes, Extremes) {
    Bitmap<Gray8> sheet{{64, 48}};
    constexpr int far = max_coordinate;
    // A line from corner to corner of everything, a pen of a million pixels, a hundred thousand vertices.
    stroke(sheet, Line{.from = {-far, -far}, .to = {far, far}}, pen({.width = 5}), gray(255));
    EXPECT_EQ(sheet.color_at({20, 20}).red, 255);
    EXPECT_EQ(sheet.color_at({20, 30}).red, 0);
    EXPECT_EQ(sheet.color_at({17, 20}).red, sheet.color_at({27, 30}).red);
    clear(sheet, gray(0));
    stroke(sheet, Circle{.center = {32, 24}, .radius = 5'000'000}, pen({.width = 4'999'990, .align = Align::inside}),
           gray(255));
    EXPECT_EQ(sheet.color_at({32, 24}).red, 0);
    EXPECT_EQ(sheet.color_at({32, 2}).red, 255);
    clear(sheet, gray(0));
    Polygon::Vertices ring;
    for (int i = 0; i < 100'000; ++i) {
        const auto angle = 2 * std::numbers::pi * i / 100'000;
        ring.push_back({static_cast<int>(std::lround(32 + 20'000 * std::cos(angle))),
                        static_cast<int>(std::lround(24 + 20'000 * std::sin(angle)))});
    }
    fill(sheet, Polygon{ring}, smooth, gray(255));
    EXPECT_EQ(sheet.color_at({0, 0}).red, 255);
    stroke(sheet, Line{.from = {-100'000'000, 24}, .to = {100'000'000, 24}}, pen({.width = 1, .dash = {1, 1}}),
           gray(0));
    EXPECT_EQ(sheet.color_at({10, 24}).red, 255 - sheet.color_at({11, 24}).red);
}

// Crisp shapes under a transform: a centre taken back lies in the shape, but for those too near to its edge.
TEST(SmoothStrokes, CrispOnesUnderTransformsAreWhatTheyWere) {
    Dice dice{69};
    const auto near_edge = [](Real distance) { return std::abs(distance) < 0.03L; };
    for (int i = 0; i < 12; ++i) {
        const auto degrees = dice.number(0, 359);
        const auto scale = dice.number(5, 20) / 10.0;
        const auto by = Transform{}.turn(Angle::degrees(degrees)).scale({scale, scale}).move({1.5, -0.75});
        const auto box = RoundedBox{.box = {.at = {-5, -4}, .size = {11, 8}}, .corner_radius = i % 5};
        const auto found = coverage_of(transformed(filled(box, {}), by), window);
        const auto wide = coverage_of(transformed(stroked(box, {.width = 3}), by), window);
        int wrong = 0;
        for (int y = 0; y < window.size.height; ++y) {
            for (int x = 0; x < window.size.width; ++x) {
                const auto q = oracle::Place{(x + window.at.x - 1.5L) / scale, (y + window.at.y + 0.75L) / scale};
                const auto u = at_angle(degrees);
                const auto back = oracle::Place{along(q, u), across(u, q)};
                const auto away = away_from(back, {-5.5L, -4.5L}, {5.5L, 3.5L}, i % 5) * scale;
                const auto index = index_in({.at = {}, .size = window.size}, {x, y});
                if (!near_edge(away)) wrong += (away <= 0) == (found[index] != 0) ? 0 : 1;
                const auto sharp = i % 5 == 0 && away > 0;  // a miter's tip is further away
                if (sharp || near_edge(away - scale) || near_edge(away + 2 * scale)) continue;
                wrong += (away <= scale && away > -2 * scale) == (wide[index] != 0) ? 0 : 1;
            }
        }
        EXPECT_EQ(wrong, 0) << degrees << " " << scale;
    }
}

}  // namespace
