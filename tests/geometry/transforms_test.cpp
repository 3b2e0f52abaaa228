// Shapes under transforms and between the pixels.
#include "coverage_oracle.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <cmath>

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr auto window = Box{.at = {-24, -22}, .size = {49, 45}};
constexpr auto smooth = Fill{.edge = Edge::smooth};

// No pixel differs by more, in 255ths.
template <class Area, class Other>
void expect_alike(const Area& area, const Other& other, int most, const std::string& what) {
    const auto a = coverage_of(area, window);
    const auto b = coverage_of(other, window);
    int worst = 0;
    for (std::size_t i = 0; i < a.size(); ++i) worst = std::max(worst, std::abs(a[i] - b[i]));
    EXPECT_LE(worst, most) << what;
}

// A shape with whole numbers and its twin with fractional ones: filled and stroked, crisp and smooth.
template <class Whole, class Fraction>
void expect_twins(const Whole& whole, const Fraction& fraction, const std::string& what) {
    for (const auto edge : {Edge::smooth, Edge::crisp}) {
        const auto most = edge == Edge::smooth ? 1 : 0;
        if constexpr (detail::Fillable<Whole>)
            expect_alike(filled(whole, {.edge = edge}), filled(fraction, {.edge = edge}), most, what);
        for (const int width : {1, 2, 5}) {
            expect_alike(stroked(whole, {.width = width, .edge = edge}),
                         stroked(fraction, {.width = width, .edge = edge}), most, what + " stroked");
        }
    }
}

TEST(Subpixel, WholeNumbersAreTheWholeShapes) {
    expect_twins(Box{.at = {-9, -7}, .size = {17, 12}}, subpixel::Box{.at = {-9, -7}, .size = {17, 12}}, "box");
    expect_twins(Circle{.center = {3, -2}, .radius = 11}, subpixel::Circle{.center = {3, -2}, .radius = 11}, "circle");
    expect_twins(Line{.from = {-9, -7}, .to = {11, 5}}, subpixel::Line{.from = {-9, -7}, .to = {11, 5}}, "line");
    expect_twins(Polygon{{-9, -7}, {11, 5}, {-3, 12}}, subpixel::Polygon{{-9, -7}, {11, 5}, {-3, 12}}, "polygon");
    expect_twins(RoundedBox{.box = {.at = {-9, -7}, .size = {17, 12}}, .corner_radius = 4},
                 subpixel::RoundedBox{.box = {.at = {-9, -7}, .size = {17, 12}}, .corner_radius = 4}, "rounded box");
    const auto sweep = Sweep{.from = Angle::degrees(20), .by = Angle::degrees(200)};
    const auto whole = Circle{.center = {1, 1}, .radius = 12};
    const auto fraction = subpixel::Circle{.center = {1, 1}, .radius = 12};
    expect_alike(filled(Sector{whole, sweep}, smooth), filled(subpixel::Sector{fraction, sweep}, smooth), 1, "sector");
    expect_alike(filled(Chord{whole, sweep}, smooth), filled(subpixel::Chord{fraction, sweep}, smooth), 1, "chord");
    for (const auto edge : {Edge::smooth, Edge::crisp}) {
        for (const int width : {1, 4}) {
            const auto how = Stroke{.width = width, .cap = Cap::round, .edge = edge};
            expect_alike(stroked(Arc{whole, sweep}, how), stroked(subpixel::Arc{fraction, sweep}, how),
                         edge == Edge::smooth ? 1 : 0, "arc");
        }
    }
}

TEST(Subpixel, FractionsMoveTheEdge) {
    const auto box = subpixel::Box{.at = {2.25, 3.5}, .size = {4, 2}};
    Bitmap<Gray8> sheet{{10, 10}};
    fill(sheet, box, smooth, gray(255));
    EXPECT_EQ(sheet.color_at({2, 4}).red, 191);
    EXPECT_EQ(sheet.color_at({3, 3}).red, 128);
    EXPECT_EQ(sheet.color_at({3, 4}).red, 255);
    EXPECT_EQ(sheet.color_at({6, 4}).red, 64);
    EXPECT_EQ(bounds(filled(box, smooth)), (Box{.at = {2, 3}, .size = {5, 3}}));
    // Crisp, a box is a closed region: centres on its upper and its lower side belong to it.
    EXPECT_EQ(bounds(box), (Box{.at = {2, 3}, .size = {4, 3}}));
    EXPECT_THROW(fill(sheet, subpixel::Box{.at = {0, 0}, .size = {0, 2}}, gray(1)), Error);
    EXPECT_THROW(fill(sheet, subpixel::Circle{.center = {0, 0}, .radius = -1}, gray(1)), Error);
    EXPECT_THROW(fill(sheet, subpixel::Circle{.center = {std::nan(""), 0}, .radius = 1}, gray(1)), Error);
    EXPECT_THROW(stroke(sheet, subpixel::Polyline{}, gray(1)), Error);
}

TEST(Subpixel, StarsHaveTheirVerticesWhereTheyTrulyAre) {
    const auto five = subpixel::star({.center = {0.5, 0.25}, .radius = 15.5});
    ASSERT_EQ(five.rings().front().size(), 10U);
    for (std::size_t i = 0; i < 10; ++i) {
        const auto [x, y] = five.rings().front()[i];
        const auto away = std::hypot(x - 0.5, y - 0.25);
        EXPECT_NEAR(
            away, i % 2 == 0 ? 15.5 : 15.5 * std::cos(std::numbers::pi * 0.4) / std::cos(std::numbers::pi * 0.2), 1e-9);
    }
    const auto six = subpixel::regular_polygon({.center = {0, 0}, .radius = 10, .points = 6});
    EXPECT_NEAR(six.rings().front()[1].x, 10 * std::sqrt(0.75), 1e-9);
    EXPECT_THROW((void)subpixel::star({.center = {0, 0}, .radius = 5, .points = 1}), Error);
    EXPECT_THROW((void)subpixel::star({.center = {0, 0}, .radius = 5, .inner_radius = 6}), Error);
    EXPECT_THROW((void)subpixel::regular_polygon({.center = {0, 0}, .radius = -5}), Error);
}

// The box around what is smooth, turned or huge is the smallest one.
TEST(Subpixel, BoundsAreTheSmallestBox) {
    const auto expect_smallest = [](const auto& area) {
        const auto box = bounds(area);
        const auto wide = Box{.at = {box.at.x - 3, box.at.y - 3}, .size = {box.size.width + 6, box.size.height + 6}};
        EXPECT_EQ(for_each_coverage(area, wide, [](int, int, int, int) {}), box);
    };
    for (const double degrees : {0.0, 20.0, 45.0, 77.0}) {
        const auto by = Transform{}.turn(Angle::degrees(degrees)).move({3.3, -2.6});
        for (const auto edge : {Edge::smooth, Edge::crisp}) {
            expect_smallest(transformed(filled(Circle{.center = {1, 2}, .radius = 9}, {.edge = edge}), by));
            expect_smallest(
                transformed(stroked(RoundedBox{.box = {.at = {-9, -4}, .size = {20, 9}}, .corner_radius = 4},
                                    {.width = 3, .edge = edge}),
                            by));
            expect_smallest(
                transformed(filled(Ellipse::around({.center = {0, 0}, .radii = {17, 4}}), {.edge = edge}), by));
        }
    }
    constexpr int far = 1'000'000'000;
    const auto huge = filled(Circle{.center = {5, 5}, .radius = far / 2}, smooth);
    EXPECT_EQ(bounds(huge), bounds(Circle{.center = {5, 5}, .radius = far / 2}));
    Bitmap<Gray8> sheet{{20, 20}};
    fill(sheet, filled(Circle{.center = {10 - far, 10}, .radius = far}, smooth), gray(255));
    EXPECT_EQ(sheet.color_at({9, 3}).red, 255);
    EXPECT_EQ(sheet.color_at({11, 3}).red, 0);
}

TEST(Transforms, WholeMovesMoveTheShape) {
    const auto by = Transform{}.move({5, -3});
    for (const auto edge : {Edge::smooth, Edge::crisp}) {
        const auto how = Fill{.edge = edge};
        const auto pen = Stroke{.width = 4, .edge = edge};
        const auto most = edge == Edge::smooth ? 1 : 0;
        expect_alike(transformed(filled(Circle{.center = {-2, 3}, .radius = 9}, how), by),
                     filled(Circle{.center = {3, 0}, .radius = 9}, how), most, "circle");
        expect_alike(transformed(stroked(Line{.from = {-9, 0}, .to = {4, 7}}, pen), by),
                     stroked(Line{.from = {-4, -3}, .to = {9, 4}}, pen), most, "line");
        const auto star_at = [](Point center) { return star({.center = center, .radius = 10}); };
        expect_alike(transformed(filled(star_at({0, 0}), how), by), filled(star_at({5, -3}), how), most, "star");
        expect_alike(transformed(stroked(star_at({0, 0}), pen), by), stroked(star_at({5, -3}), pen), most,
                     "star's stroke");
        expect_alike(transformed(stroked(star_at({0, 0}), {.edge = edge}), by),
                     stroked(star_at({5, -3}), {.edge = edge}), most, "star's outline");
        const Region region{Circle{.center = {0, 0}, .radius = 7}};
        expect_alike(transformed(filled(region, how), by), region.shifted({5, -3}), 0, "region");
    }
}

TEST(Transforms, TurnScaleAndShear) {
    const auto box = filled(Box{.at = {-5, -3}, .size = {11, 7}}, smooth);
    expect_alike(transformed(box, Transform{}.turn(Angle::degrees(90))), Box{.at = {-3, -5}, .size = {7, 11}}, 0,
                 "a quarter turn");
    expect_alike(transformed(box, Transform{}.scale({-1, 1})), Box{.at = {-5, -3}, .size = {11, 7}}, 0, "mirrored");
    // An area grows with the determinant.
    const auto area_under = [&](const Transform& by) {
        auto sum = 0.0;
        for (const auto of : coverage_of(transformed(box, by), window)) sum += of;
        return sum / 255;
    };
    EXPECT_NEAR(area_under(Transform{}.turn(Angle::degrees(33))), 77, 0.4);
    EXPECT_NEAR(area_under(Transform{}.scale({1.5, 2})), 231, 0.5);
    EXPECT_NEAR(area_under(Transform{}.shear({0.4, 0})), 77, 0.4);
    // Turned circles are circles, scaled ones ellipses.
    const auto disc = filled(Circle{.center = {0, 0}, .radius = 8}, smooth);
    expect_alike(transformed(disc, Transform{}.turn(Angle::degrees(57))), disc, 1, "turned");
    const auto share = [](Point p) { return disc_share({}, 17, p); };
    EXPECT_LE(worst_coverage(transformed(disc, Transform{}.scale({2, 2})), share, window), 1);
    // A stroke of width 1 that is crisp stays a hairline, a wide one grows.
    const auto line = Line{.from = {-8, 2}, .to = {7, 2}};
    EXPECT_EQ(bounds(transformed(stroked(line), Transform{}.scale({3, 3}))).size.height, 1);
    EXPECT_EQ(bounds(transformed(stroked(line, {.width = 3}), Transform{}.scale({3, 3}))).size.height, 9);
}

TEST(Transforms, RefuseWhatFlattensOrGoesTooFar) {
    Bitmap<Gray8> sheet{{9, 9}};
    const auto circle = Circle{.center = {4, 4}, .radius = 2};
    for (const auto& by :
         {Transform{}.scale({0, 1}), Transform{{.xx = 1, .xy = 2, .dx = 0, .yx = 2, .yy = 4, .dy = 0}},
          Transform{}.scale({std::nan(""), 1}), Transform{}.move({1e12, 0}), Transform{}.scale({1e15, 1e15})}) {
        EXPECT_THROW(fill(sheet, transformed(circle, by), gray(255)), Error);
        EXPECT_THROW(fill(sheet, transformed(stroked(Line{.from = {0, 0}, .to = {9, 9}}), by), gray(255)), Error);
        EXPECT_THROW(fill(sheet, transformed(filled(circle, smooth), by), gray(255)), Error);
    }
    EXPECT_EQ(sheet.bytes(), std::vector<std::uint8_t>(81));
}

}  // namespace
