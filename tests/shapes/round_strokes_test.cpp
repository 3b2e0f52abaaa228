// Smooth strokes of ellipses and arcs, which have short ways of their own, by other ways and by brute force.
#include "coverage_oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/draw.hpp>
#include <coldbrick/error.hpp>

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
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

// How far what is at most a distance away from an upright ellipse reaches to the right, in a row so far from its
// centre; negative: not at all. By halving the angle on the circle that the ellipse is made from.
double reach_beside(double a, double b, double distance, double row) {
    const auto at = [&](double angle) {
        const auto c = std::cos(angle);
        const auto s = std::sin(angle);
        const auto part = distance / std::sqrt(b * b * c * c + a * a * s * s);
        return oracle::Place{c * (a + part * b), s * (b + part * a)};
    };
    if (distance <= -std::min(a, b)) return -1;
    // It ends where it meets its mirror image, if it does.
    const auto cut = [&](double longer, double shorter) {
        const auto n = -distance * longer / shorter;
        const auto square = (longer * longer - n * n) / (longer * longer - shorter * shorter);
        return longer > shorter && distance < -shorter * shorter / longer ? std::sqrt(std::max(square, 0.0)) : 1.0;
    };
    auto low = std::acos(cut(a, b));
    auto high = std::asin(cut(b, a));
    if (std::abs(row) > at(high).y) return -1;
    for (int i = 0; i < 50; ++i) (at((low + high) / 2).y > std::abs(row) ? high : low) = (low + high) / 2;
    return static_cast<double>(at(low).x);
}

// Inside, curves come to a point, or nearly, where the pen is as wide as the ellipse bends.
TEST(RoundStrokes, EllipseStrokesCoverTheirBand) {
    std::mt19937 random{7};
    const auto number = [&](int least, int most) { return std::uniform_int_distribution{least, most}(random); };
    constexpr Box around{{-45, -45}, {91, 91}};
    const auto parts = is_sanitized ? 60 : 150;
    for (int i = 0; i < (is_sanitized ? 16 : 60); ++i) {
        const Size size{number(4, 50), number(4, 50)};
        const auto a = size.width / 2.0;
        const auto b = size.height / 2.0;
        // In every other one nearly that.
        const auto bend = std::min(a, b) * std::min(a, b) / std::max(a, b);
        const auto width = i % 2 == 0 ? Width{number(1, 16)} : Width{std::max(1.0, bend + number(-60, 60) / 100.0)};
        const auto align = i % 2 == 0 ? static_cast<Align>(i / 2 % 3) : Align::inside;
        const auto pixels = width.pixels();
        const auto centered = width.is_whole() ? std::floor(pixels / 2) : (pixels - 1) / 2;
        const auto out = align == Align::outside ? pixels : (align == Align::inside ? 0 : centered);
        if (std::max(a, b) + out > 44 || pixels > 40) continue;
        const auto corner = Point{-size.width / 2, -size.height / 2};
        const auto found = coverage_of(
            stroked(Ellipse::within({corner, size}), {.width = width, .align = align, .edge = Edge::smooth}), around);
        const auto center_x = corner.x + (size.width - 1) / 2.0;
        const auto center_y = corner.y + (size.height - 1) / 2.0;
        auto worst = 0.0;
        for (int y = -45; y <= 45; ++y) {
            std::array<double, 91> covered{};
            for (int part = 0; part < parts; ++part) {
                const auto row = y - 0.5 + (part + 0.5) / parts - center_y;
                for (const auto is_hole : {false, true}) {
                    const auto reach = reach_beside(a, b, is_hole ? out - pixels : out, row);
                    if (reach < 0) continue;
                    for (int x = -45; x <= 45; ++x) {
                        const auto share = std::min(x + 0.5, center_x + reach) - std::max(x - 0.5, center_x - reach);
                        covered[static_cast<std::size_t>(x + 45)] += (is_hole ? -1 : 1) * std::max(share, 0.0);
                    }
                }
            }
            for (int x = -45; x <= 45; ++x) {
                const auto share = 255 * covered[static_cast<std::size_t>(x + 45)] / parts;
                worst = std::max(worst, std::abs(share - found[index_in(around, {x, y})]));
            }
        }
        // Half for rounding, and what the parts of rows leave out at a flat top.
        EXPECT_LE(worst, is_sanitized ? 2.5 : 1.5) << size.width << " x " << size.height << ", width " << pixels;
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

constexpr Size sheet_size{90, 80};

// The four parts of a sheet, cut at a pixel.
std::array<Box, 4> parts_at(Point cut) {
    const auto right = sheet_size.width - cut.x;
    const auto lower = sheet_size.height - cut.y;
    return {Box{{0, 0}, {cut.x, cut.y}}, Box{{cut.x, 0}, {right, cut.y}}, Box{{0, cut.y}, {cut.x, lower}},
            Box{cut, {right, lower}}};
}

template <class Shape>
void expect_parts_alike(const Shape& shape, const Stroke& how, const Ink& ink, Point cut, const char* what) {
    Bitmap<Rgba8> whole{sheet_size, colors::white};
    const auto touched = stroke(whole, shape, how, ink);
    Bitmap<Rgba8> parts{sheet_size, colors::white};
    auto touched_parts = Box{};
    for (const auto& part : parts_at(cut)) {
        touched_parts = enclosing(touched_parts, stroke(parts.within(part), shape, how, ink));
    }
    EXPECT_EQ(whole.bytes(), parts.bytes()) << what << ", width " << how.width.pixels();
    EXPECT_EQ(touched, touched_parts) << what << ", width " << how.width.pixels();
}

// Of what is much larger than the window, or lies half beside it, only some columns and rows are looked at: the four
// parts of a window show what the whole of it does, however they lie.
TEST(RoundStrokes, PartsOfAWindowShowTheSame) {
    std::mt19937 random{11};
    const auto number = [&](int least, int most) { return std::uniform_int_distribution{least, most}(random); };
    for (int i = 0; i < (is_sanitized ? 150 : 900); ++i) {
        const auto large = std::array{30, 90, 300, 20'000, 1 << 20, 1 << 29}[static_cast<std::size_t>(i % 6)];
        const auto box = Box{{number(-large, 90), number(-large, 80)}, {number(1, large), number(1, large)}};
        const auto width = std::array{1.0, 2.0, 3.5, 7.0, 16.0, 64.0, 1000.0}[static_cast<std::size_t>(number(0, 6))];
        const auto edge = width == 3.5 || number(0, 3) > 0 ? Edge::smooth : Edge::crisp;
        const auto how = Stroke{.width = width, .align = static_cast<Align>(number(0, 2)), .edge = edge};
        const auto ink = i % 2 == 0 ? Ink{colors::navy} : Ink{with_alpha(colors::navy, 100)};
        const auto cut = Point{number(1, sheet_size.width - 1), number(1, sheet_size.height - 1)};
        expect_parts_alike(Ellipse::within(box), how, ink, cut, "ellipse");
        const auto corner = std::min(box.size.width, box.size.height) / number(2, 5);
        expect_parts_alike(RoundedBox{.box = box, .corner_radius = corner}, how, ink, cut, "rounded box");
        if (large > 20'000) continue;
        expect_parts_alike(Circle{.center = box.at, .radius = box.size.width}, how, ink, cut, "circle");
    }
}

// Corners that no box can have, next to the end of the numbers, too.
TEST(RoundStrokes, ImpossibleCornersAreRefused) {
    constexpr auto last = std::numeric_limits<int>::max();
    const Bitmap<Rgba8> ground{sheet_size, colors::white};
    for (const auto corner : {-1, 11, 1 << 30, last / 2 + 1, last, std::numeric_limits<int>::min()}) {
        const auto shape = RoundedBox{.box = {{5, 5}, {30, 20}}, .corner_radius = corner};
        for (const auto edge : {Edge::crisp, Edge::smooth}) {
            auto sheet = ground;
            EXPECT_THROW(fill(sheet, shape, Fill{.edge = edge}, colors::navy), Error) << corner;
            EXPECT_THROW(stroke(sheet, shape, {.width = 3, .edge = edge}, colors::navy), Error) << corner;
            EXPECT_EQ(sheet.bytes(), ground.bytes()) << corner;
        }
    }
}

}  // namespace
