// Circles, ellipses, arcs, sectors, chords and rounded boxes against the rules: fills, hairlines and wide strokes.
#include "plane_oracle.hpp"
#include "this_build.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr auto window = Box{.at = {-34, -30}, .size = {69, 61}};
constexpr auto aligns = std::array{Align::center, Align::inside, Align::outside};

int outside_part(int width, Align align) {
    return align == Align::center ? width / 2 : (align == Align::inside ? 0 : width);
}

Ellipse random_ellipse(Dice& dice, int largest) {
    return Ellipse::within({.at = dice.point({.at = {-30, -30}, .size = {40, 40}}),
                            .size = {dice.number(1, largest), dice.number(1, largest)}});
}

TEST(RoundShapes, CircleStrokesAreTheDifferenceOfTwoDiscs) {
    Dice dice{41};
    for (int width = 2; width <= 40; ++width) {
        for (const auto align : aligns) {
            const auto circle = Circle{.center = dice.point(window), .radius = dice.number(0, 40)};
            const auto out = outside_part(width, align);
            const auto disc = [=](int r) {
                return r < 0 ? Membership{[](Point) { return false; }}
                             : in_circle({.center = circle.center, .radius = r});
            };
            const auto outer = disc(circle.radius + out);
            const auto inner = disc(circle.radius + out - width);
            expect_pixels(
                stroked(circle, {.width = width, .align = align}), [=](Point p) { return outer(p) && !inner(p); },
                window, "ring");
            // Of even diameter too.
            const auto d = dice.number(1, 30);
            const auto box = Box{.at = dice.point(window), .size = {2 * d, 2 * d}};
            const auto even = [=](int by) {
                return 2 * d + 2 * by <= 0 ? Membership{[](Point) { return false; }}
                                           : in_ellipse(box.at.x - by, box.at.y - by, 2 * d + 2 * by, 2 * d + 2 * by);
            };
            const auto even_outer = even(out);
            const auto even_inner = even(out - width);
            expect_pixels(
                stroked(Ellipse::within(box), {.width = width, .align = align}),
                [=](Point p) { return even_outer(p) && !even_inner(p); }, window, "even ring");
        }
    }
}

TEST(RoundShapes, ConcentricRingsTile) {
    constexpr auto center = Point{3, -2};
    std::vector<int> times(static_cast<std::size_t>(window.size.width * window.size.height));
    const auto count = [&](const auto& area) {
        for (const auto p : drawn(area, window)) {
            ++times[static_cast<std::size_t>((p.y - window.at.y) * window.size.width + p.x - window.at.x)];
        }
    };
    count(Circle{.center = center, .radius = 4});
    auto radius = 4;
    for (const auto width : {2, 3, 7, 4, 2, 11, 30}) {
        count(stroked(Circle{.center = center, .radius = radius}, {.width = width, .align = Align::outside}));
        radius += width;
    }
    for (const auto n : times) EXPECT_EQ(n, 1);
}

TEST(RoundShapes, EllipseStrokesAreEvenlyThick) {
    Dice dice{42};
    for (int width = 2; width <= 40; width += is_sanitized ? 5 : 1) {
        const auto align = aligns[static_cast<std::size_t>(width % 3)];
        auto ellipse = random_ellipse(dice, width % 4 < 2 ? 6 : 60);
        if (width % 2 == 0) ellipse = ellipse.turned(Angle::degrees(dice.number(-400, 400)));
        const auto edge = RoundEdge::of(ellipse);
        const auto out = outside_part(width, align);
        expect_answers(
            stroked(ellipse, {.width = width, .align = align}),
            [&](Point p) {
                // Where the stroke ends at the fill, the fill's pixels decide.
                const auto d = edge.distance(place(p));
                return between(d, Real(out - width), Real(out));
            },
            window, "ellipse of width " + std::to_string(width), 0.05);
    }
}

TEST(RoundShapes, InsideAndOutsideStrokesFitTheFill) {
    Dice dice{43};
    for (int i = 0; i < 60; ++i) {
        auto ellipse = random_ellipse(dice, 50);
        if (i % 2 == 0) ellipse = ellipse.turned(Angle::degrees(dice.number(0, 360)));
        const auto sweep =
            Sweep{.from = Angle::degrees(dice.number(0, 360)), .by = Angle::degrees(dice.number(20, 340))};
        const auto check = [&](const auto& shape) {
            const auto fill = drawn(shape, window);
            const auto hairline = drawn(stroked(shape), window);
            const auto inside = drawn(stroked(shape, {.width = 4, .align = Align::inside}), window);
            for (const auto p : hairline) EXPECT_TRUE(has(inside, p)) << p;
            for (const auto p : inside) EXPECT_TRUE(has(fill, p)) << p;
            for (const auto p : drawn(stroked(shape, {.width = 4, .align = Align::outside}), window)) {
                EXPECT_FALSE(has(fill, p)) << p;
            }
        };
        check(ellipse);
        check(Sector{.of = ellipse, .sweep = sweep});
        check(Chord{.of = ellipse, .sweep = sweep});
    }
}

TEST(RoundShapes, TurnedEllipsesFilledAndOutlined) {
    Dice dice{44};
    for (int i = 0; i < 80; ++i) {
        const auto degrees = i % 5 == 0 ? 45 * dice.number(-9, 9) : dice.number(-3600, 3600);
        const auto ellipse = random_ellipse(dice, 60).turned(Angle::degrees(degrees));
        const auto edge = RoundEdge::of(ellipse);
        expect_answers(ellipse, question([&](Place p) { return edge.has(p); }), window, "turned ellipse", 0.05);
        const auto fill = drawn(ellipse, window);
        const auto inner =
            Box{.at = {window.at.x + 1, window.at.y + 1}, .size = {window.size.width - 2, window.size.height - 2}};
        EXPECT_EQ(drawn(stroked(ellipse), inner), pixels_of(outline([&](Point p) { return has(fill, p); }), inner));
    }
    const auto plain = Ellipse::within({.at = {-20, -9}, .size = {41, 19}});
    EXPECT_EQ(drawn(plain.turned(180_deg), window), drawn(plain, window));
    EXPECT_EQ(drawn(plain.turned(90_deg), window), drawn(Ellipse::within({.at = {-9, -20}, .size = {19, 41}}), window));
    EXPECT_EQ(drawn(Ellipse{Circle{{3, 4}, 17}}.turned(33_deg), window), drawn(Circle{{3, 4}, 17}, window));
}

TEST(RoundShapes, RoundedBoxes) {
    Dice dice{45};
    for (int i = 0; i < 200; ++i) {
        const auto box = Box{.at = dice.point({.at = {-30, -30}, .size = {40, 40}}),
                             .size = {dice.number(1, 40), dice.number(1, 40)}};
        const auto k = dice.number(0, std::min(box.size.width, box.size.height) / 2);
        // The corner is a quarter of a disc around a place between pixels; all in half pixels.
        const auto beyond = [=](Point p, int by) {
            const auto past = [&](int at, int size, int v) {
                return std::max({2 * (at + k - v) - 1, 2 * (v - at - size + k) + 1, 0});
            };
            const auto x = past(box.at.x, box.size.width, p.x);
            const auto y = past(box.at.y, box.size.height, p.y);
            return x * x + y * y <= 4 * (k + by) * (k + by) && k + by >= 0;
        };
        const auto grown = [=](Point p, int by) {
            const auto wide = in_box(
                {.at = {box.at.x - by, box.at.y - by}, .size = {box.size.width + 2 * by, box.size.height + 2 * by}});
            return wide(p) && (k + by <= 0 || beyond(p, by));
        };
        const auto shape = RoundedBox{.box = box, .corner_radius = k};
        const auto fill = [=](Point p) { return grown(p, 0); };
        expect_pixels(shape, fill, window, "rounded box");
        expect_pixels(stroked(shape), outline(fill), window, "rounded box outline");
        EXPECT_EQ(bounds(shape), box);
        const auto width = dice.number(2, 20);
        const auto align = aligns[static_cast<std::size_t>(i % 3)];
        const auto out = outside_part(width, align);
        expect_pixels(
            stroked(shape, {.width = width, .align = align, .join = Join::round}),
            [=](Point p) { return grown(p, out) && !grown(p, out - width); }, window, "rounded box stroke");
    }
}

// Sweeps all around, of circles and ellipses.
template <class Use>
void for_many_sweeps(unsigned seed, const Use& use) {
    Dice dice{seed};
    for (int i = 0; i < 80; ++i) {
        auto ellipse = i % 2 == 0 ? Ellipse{Circle{.center = dice.point({.at = {-9, -9}, .size = {19, 19}}),
                                                   .radius = dice.number(1, 30)}}
                                  : random_ellipse(dice, 60);
        if (i % 3 == 0) ellipse = ellipse.turned(Angle::degrees(dice.number(0, 180)));
        const auto from = i % 4 == 0 ? 45 * dice.number(-16, 16) : dice.number(-720, 720);
        const auto by = i % 4 == 1 ? 45 * dice.number(-9, 9) : dice.number(-400, 400);
        use(ellipse, RoundEdge::of(ellipse), from, by, i);
    }
}

// In, if even with the rays drawn in a little; out, if even with them widened a little.
Answer sweep_answer(const RoundEdge& edge, Point p, int from, int by) {
    const auto q = place(p) - edge.center;
    if (in_sweep(q, from, by, -open_question * 2)) return Answer::in;
    return in_sweep(q, from, by, open_question * 2) ? Answer::open : Answer::out;
}

TEST(RoundShapes, SectorsAndThinArcsAreCutByTheirRays) {
    for_many_sweeps(46, [](const Ellipse& ellipse, const RoundEdge& edge, int from, int by, int) {
        const auto sweep = Sweep{.from = Angle::degrees(from), .by = Angle::degrees(by)};
        const auto fill = drawn(ellipse, window);
        const auto hairline = drawn(stroked(ellipse), window);
        const auto cut = [&](const PixelSet& whole) {
            return [&, whole](Point p) { return has(whole, p) ? sweep_answer(edge, p, from, by) : Answer::out; };
        };
        const auto what = "from " + std::to_string(from) + " by " + std::to_string(by);
        const auto in_sector = cut(fill);
        expect_answers(
            Sector{.of = ellipse, .sweep = sweep},
            [&](Point p) {
                const auto q = place(p) - edge.center;
                return size_of(q) < 1 ? Answer::open : in_sector(p);
            },
            window, "sector " + what, 0.1);
        if (std::abs(by) > 30) {
            expect_answers(stroked(Arc{.of = ellipse, .sweep = sweep}), cut(hairline), window, "arc " + what, 0.05);
        }
    });
}

TEST(RoundShapes, WideArcsAreCutByTheirRaysAndHaveCaps) {
    for_many_sweeps(47, [](const Ellipse& ellipse, const RoundEdge& edge, int from, int by, int i) {
        const auto width = 2 + i % 39;
        const auto area = [&](Cap cap) {
            return stroked(Arc{.of = ellipse, .sweep = {.from = Angle::degrees(from), .by = Angle::degrees(by)}},
                           {.width = width, .cap = cap});
        };
        const auto ring = drawn(stroked(ellipse, {.width = width}), window);
        const auto cut = [&](Point p) { return has(ring, p) ? sweep_answer(edge, p, from, by) : Answer::out; };
        expect_answers(area(Cap::flush), cut, window, "wide arc", 0.1);
        if (std::abs(by) >= 360) return;
        // Discs of the width around the middle of each end.
        const auto end = [&](int degrees) {
            const auto u = at_angle(degrees - edge.turn);
            const auto k = 1 / size_of({u.x / edge.a, u.y / edge.b});
            const auto normal = unit_of({u.x / (edge.a * edge.a), u.y / (edge.b * edge.b)});
            const auto own = u * k + normal * (std::floor(width / 2.0L) - width / 2.0L);
            const auto turn = at_angle(edge.turn);
            return edge.center + Place{own.x * turn.x - own.y * turn.y, own.x * turn.y + own.y * turn.x};
        };
        const auto discs = question([first = end(from), last = end(from + by), width](Place p) {
            return in_disc(p, first, width / 2.0L) || in_disc(p, last, width / 2.0L);
        });
        expect_answers(
            area(Cap::round), [&](Point p) { return std::max(cut(p), discs(p)); }, window, "round arc", 0.1);
    });
}

TEST(RoundShapes, ChordsLieOnTheArcsSide) {
    for_many_sweeps(48, [](const Ellipse& ellipse, const RoundEdge& edge, int from, int by, int) {
        if (by == 0) return;
        const auto fill = drawn(ellipse, window);
        const auto end = [&](int degrees) {
            const auto u = at_angle(degrees - edge.turn);
            return at_angle(degrees) * (1 / size_of({u.x / edge.a, u.y / edge.b}));
        };
        const auto first = edge.center + end(from);
        const auto side = end(from + by) - end(from);
        const auto rule = question([=](Place p) { return std::abs(by) >= 360 || across(p - first, side) * by >= 0; });
        expect_answers(
            Chord{.of = ellipse, .sweep = {.from = Angle::degrees(from), .by = Angle::degrees(by)}},
            [&](Point p) { return has(fill, p) ? rule(p) : Answer::out; }, window, "chord", 0.05);
    });
}

TEST(RoundShapes, WholeHalfAndQuarterTurnsAreExact) {
    const auto circle = Circle{.center = {0, 0}, .radius = 20};
    const auto fill = drawn(circle, window);
    const auto expect_part = [&](const Sweep& sweep, const std::function<bool(Point)>& part) {
        PixelSet expected;
        std::copy_if(fill.begin(), fill.end(), std::back_inserter(expected), part);
        EXPECT_EQ(drawn(Sector{.of = circle, .sweep = sweep}, window), expected);
    };
    expect_part({.from = 0_deg, .by = 90_deg}, [](Point p) { return p.x >= 0 && p.y >= 0; });
    expect_part({.from = 0.25_turn, .by = 90_deg}, [](Point p) { return p.x <= 0 && p.y >= 0; });
    expect_part({.from = 90_deg, .by = -180_deg}, [](Point p) { return p.x >= 0; });
    expect_part({.from = -45_deg, .by = 90_deg}, [](Point p) { return p.x >= std::abs(p.y); });
    expect_part({.from = 45_deg, .by = 270_deg}, [](Point p) { return p.x <= std::abs(p.y); });
    expect_part({.from = 30_deg, .by = 360_deg}, [](Point) { return true; });
    expect_part({.from = 30_deg, .by = -1e9_deg}, [](Point) { return true; });
    expect_part({.from = 180_deg, .by = 0_deg}, [](Point p) { return p.y == 0 && p.x <= 0; });
    expect_part(Sweep::clockwise({.from = 270_deg, .to = 0_deg}), [](Point p) { return p.x >= 0 && p.y <= 0; });
    expect_part(Sweep::counter_clockwise({.from = 0_deg, .to = 270_deg}), [](Point p) { return p.x >= 0 && p.y <= 0; });
    expect_part(Sweep::clockwise({.from = 0_deg, .to = 360_deg}), [](Point) { return true; });
    expect_part(Sweep::clockwise({.from = 1e9_deg, .to = 1000000090_deg}), [](Point p) {
        return drawn(Sector{.of = Circle{{0, 0}, 20}, .sweep = {.from = 280_deg, .by = 90_deg}}, {p, {1, 1}}).size() ==
               1;
    });
}

TEST(RoundShapes, ArcsAlwaysShowAPixel) {
    for (int degrees = 0; degrees < 360; ++degrees) {
        const auto arc = Arc{.of = Circle{.center = {1, 2}, .radius = 25},
                             .sweep = {.from = Angle::degrees(degrees + 0.37), .by = 0_deg}};
        const auto found = drawn(stroked(arc), window);
        ASSERT_EQ(found.size(), 1U) << degrees;
        EXPECT_TRUE(contains(stroked(Circle{.center = {1, 2}, .radius = 25}), found[0]));
        EXPECT_LT(size_of(place(found[0]) - Place{1, 2} - at_angle(degrees + 0.37L) * 25), 1.2);
        EXPECT_EQ(bounds(stroked(arc)).at, found[0]);
    }
}

TEST(RoundShapes, BoundsAreTheSmallestBox) {
    const auto large = Box{.at = {-200, -200}, .size = {401, 401}};
    for_many_sweeps(49, [&](const Ellipse& ellipse, const RoundEdge&, int from, int by, int i) {
        const auto sweep = Sweep{.from = Angle::degrees(from), .by = Angle::degrees(by)};
        const auto how = Stroke{.width = 1 + i % 20, .align = aligns[static_cast<std::size_t>(i % 3)]};
        const auto check = [&](const auto& area) { EXPECT_EQ(bounds(area), box_of(drawn(area, large))); };
        check(ellipse);
        check(stroked(ellipse, how));
        check(Sector{.of = ellipse, .sweep = sweep});
        check(stroked(Sector{.of = ellipse, .sweep = sweep}, how));
        check(stroked(Chord{.of = ellipse, .sweep = sweep}, how));
        check(stroked(Arc{.of = ellipse, .sweep = sweep}, {.width = 1 + i % 20, .cap = Cap::round}));
    });
}

}  // namespace
