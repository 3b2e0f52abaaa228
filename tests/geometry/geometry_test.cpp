// Angles, sweeps, anchors, regular polygons and stars.
#include "plane_oracle.hpp"

#include "coldbrick/error.hpp"

#include <cmath>

namespace {

using namespace coldbrick;
using namespace oracle;

TEST(Geometry, AnglesOfEveryUnit) {
    EXPECT_EQ(90_deg, 0.25_turn);
    EXPECT_EQ(Angle::radians(std::numbers::pi), 180_deg);
    EXPECT_EQ(-90_deg + 0.5_turn, 90_deg);
    EXPECT_EQ((3_turn).in_degrees(), 1080);
    EXPECT_EQ(2 * 45_deg, 45.0_deg * 2);
    EXPECT_LT(1_rad, 58_deg);
    EXPECT_LT(57_deg, 1.0_rad);
}

TEST(Geometry, SweepsFromAndTo) {
    const auto by = [](const Sweep& sweep) { return sweep.by.in_degrees(); };
    EXPECT_EQ(by(Sweep::clockwise({.from = 0_deg, .to = 90_deg})), 90);
    EXPECT_EQ(by(Sweep::clockwise({.from = 90_deg, .to = 0_deg})), 270);
    EXPECT_EQ(by(Sweep::clockwise({.from = 350_deg, .to = 10_deg})), 20);
    EXPECT_EQ(by(Sweep::clockwise({.from = 10_deg, .to = 350_deg})), 340);
    EXPECT_EQ(by(Sweep::clockwise({.from = 90_deg, .to = 90_deg})), 0);
    EXPECT_EQ(by(Sweep::clockwise({.from = 0_deg, .to = 360_deg})), 360);
    EXPECT_EQ(by(Sweep::clockwise({.from = -10_deg, .to = -20_deg})), 350);
    EXPECT_EQ(by(Sweep::clockwise({.from = 0_deg, .to = -3600_deg})), 0);
    EXPECT_EQ(by(Sweep::counter_clockwise({.from = 0_deg, .to = 90_deg})), -270);
    EXPECT_EQ(by(Sweep::counter_clockwise({.from = 90_deg, .to = 0_deg})), -90);
    EXPECT_EQ(by(Sweep::counter_clockwise({.from = 243_deg, .to = 197_deg})), -46);
    EXPECT_EQ(by(Sweep::counter_clockwise({.from = 0_deg, .to = -720_deg})), -720);
    EXPECT_EQ(Sweep::counter_clockwise({.from = 243_deg, .to = 197_deg}).from, 243_deg);
}

// Both ways of saying the same arc give the same pixels.
TEST(Geometry, SweepsBothWaysRoundAreTheSameArc) {
    Dice dice{101};
    const auto circle = Circle{.center = {0, 0}, .radius = 20};
    const auto window = Box{.at = {-25, -25}, .size = {51, 51}};
    for (int i = 0; i < 100; ++i) {
        const auto from = Angle::degrees(dice.number(-720, 720));
        const auto to = Angle::degrees(dice.number(-720, 720));
        const auto forth = drawn(Sector{.of = circle, .sweep = Sweep::clockwise({.from = from, .to = to})}, window);
        const auto back =
            drawn(Sector{.of = circle, .sweep = Sweep::counter_clockwise({.from = to, .to = from})}, window);
        EXPECT_EQ(forth, back);
    }
}

TEST(Geometry, AnchorsAreTheNinePointsOfTheBox) {
    for (int width = 1; width < 8; ++width) {
        for (int height = 1; height < 8; ++height) {
            const auto size = Size{width, height};
            const auto placed = [&](Anchor anchor) {
                return Box::placed({.anchor = anchor, .at = {40, 30}, .size = size});
            };
            EXPECT_EQ(placed(Anchor::top_left).at, (Point{40, 30}));
            EXPECT_EQ(placed(Anchor::bottom_right).last(), (Point{40, 30}));
            EXPECT_EQ(placed(Anchor::top_right), (Box{.at = {41 - width, 30}, .size = size}));
            EXPECT_EQ(placed(Anchor::bottom_left), (Box{.at = {40, 31 - height}, .size = size}));
            // The middle is where a line of that width would be centred.
            const auto across = bounds(stroked(Line{.from = {40, 30}, .to = {40, 30 + 50}}, {.width = width}));
            EXPECT_EQ(placed(Anchor::top).at, (Point{across.at.x, 30}));
            EXPECT_EQ(placed(Anchor::bottom).at, (Point{across.at.x, 31 - height}));
            EXPECT_EQ(placed(Anchor::center).at, (Point{40 - width / 2, 30 - height / 2}));
            EXPECT_EQ(placed(Anchor::left).at, (Point{40, 30 - height / 2}));
            EXPECT_EQ(placed(Anchor::right).at, (Point{41 - width, 30 - height / 2}));
        }
    }
    const auto standing = Circle::placed({.anchor = Anchor::bottom, .at = {40, 30}, .radius = 7});
    EXPECT_EQ(bounds(standing).last().y, 30);
    EXPECT_EQ(standing.center, (Point{40, 23}));
    EXPECT_EQ(Circle::placed({.at = {4, 5}, .radius = 3}).center, (Point{4, 5}));
}

TEST(Geometry, RegularPolygonsHaveTheirVerticesOnTheCircle) {
    Dice dice{102};
    for (int points = 3; points < 40; ++points) {
        const auto radius = dice.number(5, 4000);
        const auto turned = dice.number(-400, 400);
        const auto polygon =
            regular_polygon({.center = {9, -4}, .radius = radius, .points = points, .turned = Angle::degrees(turned)});
        ASSERT_EQ(polygon.rings()[0].size(), static_cast<std::size_t>(points));
        for (int i = 0; i < points; ++i) {
            const auto wanted = Place{9, -4} + at_angle(turned - 90 + 360.0L * i / points) * radius;
            EXPECT_LE(size_of(place(polygon.rings()[0][static_cast<std::size_t>(i)]) - wanted), 0.7072L);
        }
    }
}

TEST(Geometry, StarsAreSymmetricAndStandUpright) {
    for (int points = 2; points < 30; ++points) {
        const auto ring = star({.center = {0, 0}, .radius = 61, .points = points}).rings()[0];
        ASSERT_EQ(ring.size(), 2U * static_cast<std::size_t>(points));
        EXPECT_EQ(ring[0], (Point{0, -61}));
        for (std::size_t i = 1; i < ring.size(); ++i) {
            EXPECT_EQ(ring[i], (Point{-ring[ring.size() - i].x, ring[ring.size() - i].y})) << points;
        }
    }
    // The edges of a five-pointed star are straight from point to point.
    const auto ring = star({.center = {0, 0}, .radius = 1000, .points = 5}).rings()[0];
    EXPECT_NEAR(ring[1].y, ring[2].y, 1);
    EXPECT_NEAR(ring[1].y, ring[8].y, 1);
    const auto inner = star({.center = {0, 0}, .radius = 50, .points = 4, .inner_radius = 10}).rings()[0];
    EXPECT_NEAR(std::hypot(inner[1].x, inner[1].y), 10, 0.8);
}

std::string fault_of(const std::function<void()>& call) {
    try {
        call();
    } catch (const Error& error) {
        return error.what();
    }
    return "none";
}

TEST(Geometry, FaultsOfShapesAreTold) {
    const auto circle = Circle{.center = {0, 0}, .radius = 5};
    const auto nan = Angle::degrees(std::nan(""));
    EXPECT_EQ(fault_of([] {
                  (void)star({.center = {0, 0}, .radius = 9, .points = 1});
              }),
              "star: points is 1; allowed is 2 to 1000000");
    EXPECT_EQ(fault_of([] {
                  (void)star({.center = {0, 0}, .radius = -1});
              }),
              "star: radius is -1; allowed is 0 to 1073741823");
    EXPECT_EQ(fault_of([] {
                  (void)star({.center = {0, 0}, .radius = 9, .inner_radius = 10});
              }),
              "star: inner_radius is 10; allowed is 0 to 9");
    EXPECT_EQ(fault_of([] {
                  (void)regular_polygon({.center = {0, 0}, .radius = 9, .points = 2});
              }),
              "regular polygon: points is 2; allowed is 3 to 1000000");
    EXPECT_EQ(fault_of([] {
                  (void)regular_polygon({.center = {max_coordinate, 0}, .radius = 9, .points = 4});
              }),
              "regular polygon: a vertex is 1073741832; allowed is -1073741823 to 1073741823");
    EXPECT_EQ(fault_of([&] { (void)Ellipse{circle}.turned(nan); }), "ellipse: turned is no finite number");
    EXPECT_EQ(fault_of([&] { (void)bounds(Sector{.of = circle, .sweep = {.from = nan, .by = 9_deg}}); }),
              "sector: sweep.from is no finite number");
    EXPECT_EQ(fault_of([&] { (void)bounds(stroked(Arc{.of = circle, .sweep = {.from = 9_deg, .by = nan}})); }),
              "arc: sweep.by is no finite number");
    EXPECT_EQ(fault_of([] {
                  (void)bounds(RoundedBox{.box = {{0, 0}, {9, 7}}, .corner_radius = 4});
              }),
              "rounded box: corner_radius is 4; allowed is 0 to 3");
    EXPECT_EQ(fault_of([] {
                  (void)Ellipse{Circle{.center = {0, 0}, .radius = -2}};
              }),
              "circle: radius is -2; allowed is 0 to 1073741823");
}

TEST(Geometry, FaultsOfStrokesAreToldAndNothingIsDrawn) {
    Bitmap<Gray8> bitmap{{20, 20}};
    const auto line = Line{.from = {1, 1}, .to = {15, 9}};
    const auto fault = [&](const Stroke& how) { return fault_of([&] { stroke(bitmap, line, how, gray(200)); }); };
    EXPECT_EQ(fault({.width = 0}), "stroke: width is 0; allowed is 1/256 to 1073741823");
    EXPECT_EQ(fault({.width = -4}), "stroke: width is -4; allowed is 1/256 to 1073741823");
    EXPECT_EQ(fault({.miter_limit = 0.5}), "stroke: miter_limit is 0.5; allowed is 1 or more");
    EXPECT_EQ(fault({.dash = {4, -1}}), "stroke: dash[1] is -1; allowed is 0 to 1073741823");
    EXPECT_EQ(fault({.dash = {0, 0}}),
              "stroke: the sum of dash is 0; allowed is 1/64 or more: dashes of no length need gaps");
    EXPECT_EQ(fault({.dash = {4}, .dash_offset = std::nan("")}),
              "stroke: dash_offset is nan; allowed are finite numbers");
    EXPECT_EQ(fault({.width = 3}), "none");
    Bitmap<Gray8> untouched{{20, 20}};
    EXPECT_NE(bitmap.bytes(), untouched.bytes());
}

}  // namespace
