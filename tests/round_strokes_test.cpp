// Smooth strokes of ellipses and arcs, which have short ways of their own, by other ways and by brute force.
#include "coverage_oracle.hpp"

#include <coldbrick/draw.hpp>

#include <algorithm>
#include <cmath>
#include <random>

namespace {

using namespace coldbrick;
using namespace oracle;

// A quarter tells all of an upright ellipse; under a mirroring transform, all of its outline is followed.
TEST(RoundStrokes, RoundOnesAreTheSameByAnotherWay) {
    std::mt19937 random{5};
    const auto number = [&](int least, int most) { return std::uniform_int_distribution{least, most}(random); };
    constexpr Box around{{-70, -70}, {141, 141}};
    for (int i = 0; i < 60; ++i) {
        const Size size{number(1, 60), i % 3 == 0 ? number(1, 60) : 31};
        const auto ellipse = Ellipse::within({{-number(0, 30), -number(0, 30)}, size});
        const auto width = i % 2 == 0 ? Width{number(1, 30)} : Width{number(1, 5000) / 256.0};
        const auto area = stroked(ellipse, {.width = width, .align = static_cast<Align>(i % 3), .edge = Edge::smooth});
        const auto direct = coverage_of(area, around);
        const auto mirrored = coverage_of(transformed(area, Transform{}.scale({-1, 1})), around);
        auto worst = 0;
        for (int y = -70; y <= 70; ++y) {
            for (int x = -70; x <= 70; ++x) {
                const auto difference = direct[index_in(around, {x, y})] - mirrored[index_in(around, {-x, y})];
                worst = std::max(worst, std::abs(difference));
            }
        }
        EXPECT_LE(worst, 1) << size.width << " x " << size.height << ", width " << width.pixels();
    }
}

// An arc's band in its sweep, and half a disc or square beyond each end.
Plane arc_with_caps(double radius, double from, double by, Cap cap, double width) {
    const auto out = std::floor(width) == width ? std::floor(width / 2) : (width - 1) / 2;
    return [=](oracle::Place p) {
        const auto away = size_of(p) - (radius + 0.5L);
        if (away <= out && away >= out - width && in_sweep(p, from, by, 0)) return true;
        for (const auto is_end : {false, true}) {
            const auto ray = at_angle(is_end ? from + by : from);
            const auto beyond = is_end == (by >= 0) ? oracle::Place{-ray.y, ray.x} : oracle::Place{ray.y, -ray.x};
            const auto q = p - ray * (radius + 0.5L + out - width / 2);
            if (cap == Cap::round && size_of(q) <= width / 2) return true;
            const auto ahead = along(q, beyond);
            if (cap == Cap::square && ahead >= 0 && ahead <= width / 2 && std::abs(along(q, ray)) <= width / 2)
                return true;
        }
        return false;
    };
}

TEST(RoundStrokes, ArcsAndTheirCapsCoverTheirPlace) {
    constexpr Box around{{-30, -30}, {61, 61}};
    for (const auto& [from, by] : {std::pair{20.0, 200.0}, {-90.0, 90.0}, {310.5, -77.0}, {45.0, 341.0}, {7.0, 3.0}}) {
        for (const auto cap : {Cap::flush, Cap::square, Cap::round}) {
            for (const auto width : {1.0, 4.0, 7.25, 17.0}) {
                const Arc arc{.of = Circle{.center = {0, 0}, .radius = 15},
                              .sweep = {.from = Angle::degrees(from), .by = Angle::degrees(by)}};
                const auto found =
                    coverage_of(stroked(arc, {.width = width, .cap = cap, .edge = Edge::smooth}), around);
                const auto set = arc_with_caps(15, from, by, cap, width);
                auto worst = 0.0;
                for (auto i = 0; i < 61 * 61; i += 31) {
                    const Point pixel{-30 + i % 61, -30 + i / 61};
                    const auto share = static_cast<double>(plane_share(set, pixel)) * 255;
                    worst = std::max(worst, std::abs(share - found[index_in(around, pixel)]));
                }
                EXPECT_LE(worst, 3) << from << " by " << by << " cap " << static_cast<int>(cap) << " width " << width;
            }
        }
    }
}

}  // namespace
