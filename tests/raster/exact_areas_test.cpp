// Round shapes with smooth edges: each pixel's byte is the area that is covered of it, worked out by integration here.
// And hairlines, pixel by pixel by the rule.
#include "oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <cmath>

#include <gtest/gtest.h>

namespace {

using namespace coldbrick;
using oracle::Dice;

// The right upper part of what an edge goes round: up from `low`, along a quarter of an ellipse, and to the left.
struct Quarter {
    double center_x;
    double center_y;
    double a;
    double b;

    // What lies right of the vertical axis through x = 0, above y = 0, left of x and below y, for places in the quarter
    // plane: the integral over columns of min(height of the edge there, y).
    [[nodiscard]] double area(double x, double y) const {
        const auto right = std::min(x, center_x + a);
        // Up to where the edge comes down to y, the height is y.
        const auto reach =
            y <= center_y ? a : a * std::sqrt(std::max(0.0, 1 - (y - center_y) * (y - center_y) / (b * b)));
        const auto even = std::min(right, y >= center_y + b ? center_x : center_x + reach);
        const auto height = std::min(y, center_y + b);
        auto area = std::min(even, right) * height;
        if (right > even)
            area += center_y * (right - even) +
                    b * a * (below_arc((right - center_x) / a) - below_arc((even - center_x) / a));
        return area;
    }

  private:
    // The integral of sqrt(1 - t^2).
    static double below_arc(double t) {
        t = std::clamp(t, 0.0, 1.0);
        return (t * std::sqrt(1 - t * t) + std::asin(t)) / 2;
    }
};

// How much of the pixel is covered, from its place right of and above the middle of the shape.
double covered(const Quarter& quarter, double left, double right, double low, double high) {
    return quarter.area(right, high) - quarter.area(left, high) - quarter.area(right, low) + quarter.area(left, low);
}

// Of a box of pixels around the middle, column i and row k: the pixel's part in each of the four quarters.
double covered_of(const Quarter& quarter, Size box, int i, int k) {
    const auto in_half = [](double from, double to, int sign) {
        const auto begin = std::max(0.0, sign > 0 ? from : -to);
        const auto end = std::max(0.0, sign > 0 ? to : -from);
        return std::pair{begin, end};
    };
    auto sum = 0.0;
    for (const auto across : {-1, 1}) {
        for (const auto down : {-1, 1}) {
            const auto [left, right] = in_half(i - box.width / 2.0, i + 1 - box.width / 2.0, across);
            const auto [low, high] = in_half(k - box.height / 2.0, k + 1 - box.height / 2.0, down);
            if (right > left && high > low) sum += covered(quarter, left, right, low, high);
        }
    }
    return sum;
}

// That each byte is the nearest to what is covered inside of one shape, and outside of another.
template <class Draw>
void expect_areas(Size box, const Quarter& outer, const Quarter* inner, const Draw& draw, const std::string& what) {
    Bitmap<Gray8> sheet{{box.width + 2, box.height + 2}};
    draw(sheet, Box{.at = {1, 1}, .size = box});
    for (int k = -1; k <= box.height; ++k) {
        for (int i = -1; i <= box.width; ++i) {
            const auto is_in = i >= 0 && k >= 0 && i < box.width && k < box.height;
            auto expected = is_in ? covered_of(outer, box, i, k) : 0.0;
            if (is_in && inner != nullptr) expected -= covered_of(*inner, box, i, k);
            const auto found = int{sheet.color_at({i + 1, k + 1}).red};
            ASSERT_LE(std::fabs(found - 255 * expected), 0.5 + 1e-5)
                << what << " of " << box.width << " x " << box.height << " at " << i << "," << k;
        }
    }
}

Quarter quarter_of(Size box) { return {0, 0, box.width / 2.0, box.height / 2.0}; }

TEST(ExactAreas, OfCirclesOfEverySize) {
    for (int width = 1; width <= (is_sanitized ? 24 : 140); ++width) {
        const auto box = Size{width, width};
        expect_areas(
            box, quarter_of(box), nullptr,
            [](auto& sheet, const Box& of) { fill(sheet, Ellipse::within(of), Edge::smooth, gray(255)); }, "a circle");
    }
}

TEST(ExactAreas, OfEllipsesWideAndThin) {
    Dice dice{871};
    for (int i = 0; i < (is_sanitized ? 20 : 150); ++i) {
        const auto box = Size{dice.number(1, 150), dice.number(1, 150)};
        expect_areas(
            box, quarter_of(box), nullptr,
            [](auto& sheet, const Box& of) { fill(sheet, Ellipse::within(of), Edge::smooth, gray(255)); },
            "an ellipse");
    }
}

TEST(ExactAreas, OfRoundedBoxesAndTheirStrokes) {
    Dice dice{872};
    for (int i = 0; i < (is_sanitized ? 20 : 120); ++i) {
        const auto box = Size{dice.number(1, 140), dice.number(1, 140)};
        const auto corner = dice.number(0, std::min(box.width, box.height) / 2);
        const auto at_distance = [&](double distance) {
            const auto radius = std::max(corner + distance, 0.0);
            return Quarter{box.width / 2.0 + distance - radius, box.height / 2.0 + distance - radius,
                           std::max(radius, 1e-9), std::max(radius, 1e-9)};
        };
        const auto outer = at_distance(0);
        expect_areas(
            box, outer, nullptr,
            [&](auto& sheet, const Box& of) {
                fill(sheet, RoundedBox{.box = of, .corner_radius = corner}, Edge::smooth, gray(255));
            },
            "a rounded box");
        const auto width = dice.number(1, 12);
        if (2 * width >= std::min(box.width, box.height)) continue;
        const auto inner = at_distance(-width);
        expect_areas(
            box, outer, &inner,
            [&](auto& sheet, const Box& of) {
                stroke(sheet, RoundedBox{.box = of, .corner_radius = corner},
                       {.width = width, .align = Align::inside, .edge = Edge::smooth}, gray(255));
            },
            "a stroke of width " + std::to_string(width) + " and corner " + std::to_string(corner));
    }
}

TEST(ExactAreas, OfStrokesOfCircles) {
    Dice dice{873};
    for (int i = 0; i < (is_sanitized ? 16 : 80); ++i) {
        const auto side = dice.number(3, 170);
        const auto box = Size{side, side};
        const auto width = dice.number(1, side / 2);
        const auto rest = std::max(side / 2.0 - width, 1e-9);
        const auto inner = Quarter{0, 0, rest, rest};
        expect_areas(
            box, quarter_of(box), &inner,
            [&](auto& sheet, const Box& of) {
                stroke(sheet, Ellipse::within(of), {.width = width, .align = Align::inside, .edge = Edge::smooth},
                       gray(255));
            },
            "a stroke of width " + std::to_string(width));
    }
}

// Rule 3: one pixel for each step of the longer direction, the nearest; of two as near, the one with the smaller
// coordinate.
TEST(Hairlines, AreTheNearestPixelsInAnyDirection) {
    constexpr auto side = 150;
    const auto from = Point{74, 75};
    const auto step = is_sanitized ? 14 : 5;
    for (int y = -70; y <= 70; y += step) {
        for (int x = -70; x <= 70; x += step) {
            const auto to = Point{from.x + x, from.y + y};
            Bitmap<Bgra8> sheet{{side, side}, colors::navy};
            EXPECT_EQ(stroke(sheet, Line{.from = from, .to = to}, colors::gold),
                      Box::between({.from = from, .to = to}));
            Bitmap<Bgra8> expected{{side, side}, colors::navy};
            Bitmap<Bgra8> translucent{{side, side}, colors::navy};
            const auto is_steep = std::abs(y) >= std::abs(x);
            const auto steps = std::max(std::abs(x), std::abs(y));
            for (int k = 0; k <= steps; ++k) {
                const auto along = [&](int distance) { return steps == 0 ? 0.0 : double{1} * distance * k / steps; };
                // Halves go to the smaller coordinate.
                const auto nearest = [](double place) { return static_cast<int>(std::ceil(place - 0.5 - 1e-9)); };
                const auto at = is_steep ? Point{from.x + nearest(along(x)), from.y + (y < 0 ? -k : k)}
                                         : Point{from.x + (x < 0 ? -k : k), from.y + nearest(along(y))};
                mark(expected, at, colors::gold);
                mark(translucent, at, with_alpha(colors::gold, 90));
            }
            ASSERT_EQ(sheet.bytes(), expected.bytes()) << x << "," << y;
            // The same the other way round.
            Bitmap<Bgra8> back{{side, side}, colors::navy};
            stroke(back, Line{.from = to, .to = from}, with_alpha(colors::gold, 90));
            ASSERT_EQ(back.bytes(), translucent.bytes()) << x << "," << y;
        }
    }
}

}  // namespace
