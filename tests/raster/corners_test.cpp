// Pixels at sharp corners, at the ends of curves, and where inks are laid in part: known from geometry.
#include "plane_oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <cmath>

#include <gtest/gtest.h>

namespace {

using namespace coldbrick;
using namespace oracle;

// How much of each pixel an area covers, in 255ths; 0 where it is not told.
template <class Area>
int coverage_of(const Area& area, Point pixel) {
    auto found = 0;
    for_each_coverage(area, Box{.at = pixel, .size = {1, 1}}, [&](int, int, int, int coverage) { found = coverage; });
    return found;
}

// The same of all pixels of a sheet.
class Coverage {
  public:
    template <class Area>
    explicit Coverage(const Area& area) : found_(100 * 80) {
        for_each_coverage(area, Box{.at = {}, .size = {100, 80}}, [&](int y, int x, int length, int coverage) {
            for (int i = 0; i < length; ++i) found_[static_cast<std::size_t>(100 * y + x + i)] = coverage;
        });
    }
    [[nodiscard]] int at(int x, int y) const { return found_[static_cast<std::size_t>(100 * y + x)]; }

  private:
    std::vector<int> found_;
};

// The share of a pixel, in 255ths, for which covers(x, y).
template <class Covers>
double sampled(Point pixel, const Covers& covers) {
    constexpr auto steps = 400;
    auto count = 0;
    for (int i = 0; i < steps; ++i) {
        for (int k = 0; k < steps; ++k) {
            count += covers(pixel.x - 0.5 + (i + 0.5) / steps, pixel.y - 0.5 + (k + 0.5) / steps) ? 1 : 0;
        }
    }
    return 255.0 * count / (steps * steps);
}

struct Corner {
    double from;  // of the sweep, in degrees
    double by;
    int width;
};

// By the definition: -(w - out) < d <= out, with d the distance from the edge, positive outside, and round corners.
TEST(Corners, StrokesOfSectorsAndChordsStayWithinTheirDistance) {
    const Circle circle{.center = {20, 17}, .radius = 12};
    for (const auto& corner : {Corner{30, 45, 1}, {0, 30, 5}, {30, 45, 5}, {100, 20, 8}, {200, 300, 4}}) {
        if (is_sanitized && corner.width == 5) continue;
        const auto from = corner.from;
        const auto by = corner.by;
        const auto width = corner.width;
        const auto sweep = Sweep{Angle::degrees(from), Angle::degrees(by)};
        const auto out = width / 2;
        const auto expect_near = [&](const auto& shape, const auto& distance) {
            const Coverage smooth{stroked(shape, {.width = width, .join = Join::round, .edge = Edge::smooth})};
            const Region crisp{stroked(shape, {.width = width, .join = Join::round})};
            for (int y = 0; y < 36; ++y) {
                for (int x = 0; x < 40; ++x) {
                    const auto away = distance(double{1} * x, double{1} * y);
                    const auto how_far = std::max(away - out, -(width - out) - away);
                    if (std::fabs(how_far) > 0.75) {
                        EXPECT_EQ(smooth.at(x, y), how_far > 0 ? 0 : 255) << x << "," << y << " " << from;
                    }
                    if (std::fabs(how_far) > 1.0 / 32 && width > 1) {
                        EXPECT_EQ(crisp.contains({x, y}), how_far < 0) << x << "," << y << " " << from;
                    }
                }
            }
        };
        // The distance from the edge, by many points of it; inside is negative.
        const auto radians = [](double degrees) { return degrees * std::numbers::pi / 180; };
        std::vector<Position> edge;
        std::vector<Position> chord;
        for (int i = 0; i <= 4000; ++i) {
            const auto angle = radians(from + by * i / 4000);
            edge.push_back({20 + 12.5 * std::cos(angle), 17 + 12.5 * std::sin(angle)});
        }
        chord = edge;
        const auto add_line = [](std::vector<Position>& points, Position a, Position b) {
            for (int i = 0; i <= 2000; ++i)
                points.push_back({a.x + (b.x - a.x) * i / 2000, a.y + (b.y - a.y) * i / 2000});
        };
        const auto first = edge.front();
        const auto last = edge.back();
        add_line(edge, first, {20, 17});
        add_line(edge, {20, 17}, last);
        add_line(chord, first, last);
        const auto distance_to = [](const std::vector<Position>& points, double x, double y) {
            auto least = 1e9;
            for (const auto& at : points) least = std::min(least, std::hypot(at.x - x, at.y - y));
            return least;
        };
        const auto in_disc = [](double x, double y) { return std::hypot(x - 20, y - 17) < 12.5; };
        expect_near(Sector{.of = circle, .sweep = sweep}, [&](double x, double y) {
            auto angle = std::atan2(y - 17, x - 20) * 180 / std::numbers::pi - from;
            angle -= 360 * std::floor(angle / 360);
            return in_disc(x, y) && angle < by ? -distance_to(edge, x, y) : distance_to(edge, x, y);
        });
        expect_near(Chord{.of = circle, .sweep = sweep}, [&](double x, double y) {
            const auto side = (last.x - first.x) * (y - first.y) - (last.y - first.y) * (x - first.x);
            return in_disc(x, y) && side < 0 ? -distance_to(chord, x, y) : distance_to(chord, x, y);
        });
    }
}

TEST(Corners, CurvesEndSquareToTheirTangents) {
    // A quarter of a circle of radius 14 around 38,30, from west to north: its end is upright at x = 38.
    const auto quarter = stroked(parse_path("M24 30A14 14 0 0 1 38 16"), {.width = 19, .edge = Edge::smooth});
    const auto in_band = [](double x, double y) {
        const auto away = std::hypot(x - 38, y - 30);
        const auto is_before_end = x <= 38.5 && y <= 30.5;
        return is_before_end && std::fabs(away - 14) <= 9.5;
    };
    for (const auto pixel : {Point{38, 7}, {38, 25}, {39, 12}, {37, 6}, {20, 30}, {20, 31}, {15, 29}, {33, 30}}) {
        EXPECT_NEAR(coverage_of(quarter, pixel), sampled(pixel, in_band), 8) << pixel.x << "," << pixel.y;
    }
    EXPECT_EQ(coverage_of(quarter, {39, 12}), 0);
    EXPECT_EQ(coverage_of(quarter, {20, 31}), 0);
    // Dashes on a circle end on rays from its centre, up to the half pixel's tolerance of a thin wedge.
    const Circle circle{.center = {50, 50}, .radius = 40};
    const auto length = 2 * std::numbers::pi * 40.5 / 16;
    const auto dashes = stroked(circle, {.width = 12, .dash = {length, length}, .edge = Edge::smooth});
    for (int i = 0; i < 16; ++i) {
        const auto angle = (i + 0.5) * std::numbers::pi / 8;
        for (const auto radius : {36.0, 40.0, 45.0}) {
            for (const auto aside : {-0.9, 0.9}) {
                const auto end = i * std::numbers::pi / 8 + aside * 1.6 / radius;
                const auto pixel = Point{static_cast<int>(std::lround(50 + radius * std::cos(end))),
                                         static_cast<int>(std::lround(50 + radius * std::sin(end)))};
                const auto turned = std::atan2(pixel.y - 50, pixel.x - 50) - i * std::numbers::pi / 8;
                const auto beside =
                    std::remainder(turned, 2 * std::numbers::pi) * std::hypot(pixel.x - 50, pixel.y - 50);
                if (std::fabs(beside) < 0.8) continue;
                const auto is_on = (beside > 0) == (i % 2 == 0);
                EXPECT_EQ(coverage_of(dashes, pixel), is_on ? 255 : 0) << pixel.x << "," << pixel.y << " dash " << i;
            }
        }
        const auto middle = Point{static_cast<int>(std::lround(50 + 40 * std::cos(angle))),
                                  static_cast<int>(std::lround(50 + 40 * std::sin(angle)))};
        EXPECT_EQ(coverage_of(dashes, middle), i % 2 == 0 ? 255 : 0);
    }
}

// Crisp and smooth, the same is drawn.
TEST(Corners, DashesAreTheSameCrispAndSmooth) {
    const auto expect_same = [](const std::string& name, const auto& shape) {
        for (const auto width : {3, 5, 9}) {
            for (const auto cap : {Cap::flush, Cap::square, Cap::round}) {
                const auto how = Stroke{.width = width, .cap = cap, .dash = {12, 15}};
                auto smooth_how = how;
                smooth_how.edge = Edge::smooth;
                const Region crisp{stroked(shape, how)};
                const Coverage smooth{stroked(shape, smooth_how)};
                for (int y = 0; y < 80; ++y) {
                    for (int x = 0; x < 100; ++x) {
                        const auto coverage = smooth.at(x, y);
                        if (coverage != 0 && coverage != 255) continue;
                        ASSERT_EQ(crisp.contains({x, y}), coverage == 255) << name << " " << x << "," << y;
                    }
                }
            }
        }
    };
    const auto ellipse = Ellipse::around({.center = {50, 40}, .radii = {40, 25}, .turned = 20_deg});
    expect_same("arc", Arc{.of = ellipse, .sweep = {150_deg, 230_deg}});
    expect_same("ellipse", ellipse);
    expect_same("sector", Sector{.of = ellipse, .sweep = {150_deg, 230_deg}});
    expect_same("rounded box", RoundedBox{.box = {.at = {12, 9}, .size = {70, 55}}, .corner_radius = 15});
}

TEST(Corners, SquareCapsOfArcsBeginAtTheRay) {
    const auto arc = stroked(Arc{.of = Circle{.center = {17, 17}, .radius = 1}, .sweep = {0_deg, 90_deg}},
                             {.width = 1, .cap = Cap::square, .edge = Edge::smooth});
    const auto covers = [](double x, double y) {
        const auto away = std::hypot(x - 17, y - 17);
        const auto in_body = x >= 17 && y >= 17 && away >= 0.5 && away <= 1.5;
        const auto before = y < 17 && y >= 16.5 && x >= 17.5 && x <= 18.5;
        const auto behind = x < 17 && x >= 16.5 && y >= 17.5 && y <= 18.5;
        return in_body || before || behind;
    };
    for (int y = 15; y <= 20; ++y) {
        for (int x = 15; x <= 20; ++x) {
            EXPECT_NEAR(coverage_of(arc, {x, y}), sampled({x, y}, covers), 2) << x << "," << y;
        }
    }
}

TEST(Corners, InksInPart) {
    const auto white = colors::white;
    const auto half = filled(subpixel::Box{.at = {0.25, 0}, .size = {0.5, 1}}, {.edge = Edge::smooth});
    Bitmap<Rgb8> sheet{{1, 1}};
    fill(sheet, half, Ink{white, {.light = Light::linear}});
    EXPECT_EQ(sheet.color_at({0, 0}).red, 188);
    Bitmap<Rgb8> in_clip{{1, 1}};
    fill(in_clip.within(SmoothRegion{half}), Box{.at = {0, 0}, .size = {1, 1}}, Ink{white, {.light = Light::linear}});
    EXPECT_EQ(in_clip.color_at({0, 0}).red, 188);
    // 127 * 0.6 * 159 / 255 is 47.5, rounded once.
    Bitmap<Rgb8> weak{{1, 1}};
    fill(weak, filled(subpixel::Box{.at = {0.125, 0}, .size = {0.625, 1}}, {.edge = Edge::smooth}),
         Ink{0xffffff7f_rgba, {.opacity = 0.6}});
    EXPECT_EQ(weak.color_at({0, 0}).red, 48);
}

TEST(Corners, HatchesCoverByArea) {
    for (const auto degrees : {0.0, 17.0, 45.0, 90.0, 118.0}) {
        for (const auto& [spacing, width] : {std::pair{6.0, 1.5}, {3.0, 0.25}, {2.0, 1.75}, {9.0, 4.0}}) {
            Bitmap<Gray8> sheet{{12, 9}};
            fill(sheet, Box{.at = {}, .size = sheet.size()},
                 Hatch{.spacing = spacing,
                       .angle = Angle::degrees(degrees),
                       .width = width,
                       .color = colors::white,
                       .ground = colors::black,
                       .offset = {0.3, 0.2}});
            const auto radians = degrees * std::numbers::pi / 180;
            const auto covers = [&, spacing = spacing, width = width](double x, double y) {
                const auto across = -(x - 0.3) * std::sin(radians) + (y - 0.2) * std::cos(radians);
                return std::fabs(std::remainder(across, spacing)) <= width / 2;
            };
            for (const auto pixel : {Point{0, 0}, {5, 4}, {7, 2}, {11, 8}}) {
                EXPECT_NEAR(sheet.color_at(pixel).red, sampled(pixel, covers), 2) << degrees << " " << spacing;
            }
        }
    }
}

// A line's body goes on half a pixel beyond its ends, and its caps are discs around them; of even width, all of it but
// for the body's ends lies half a pixel to the upper left (rule 3).
TEST(Corners, RoundCapsAreDiscsAroundTheEnds) {
    Dice dice{11};
    for (int i = 0; i < (is_sanitized ? 2 : 6); ++i) {
        const auto width = dice.number(1, 9);
        const auto line = Line{.from = {30, 30}, .to = {30 + dice.number(-20, 20), 30 + dice.number(-20, 20)}};
        if (line.from == line.to) continue;
        const Coverage coverage{stroked(line, Stroke{.width = width, .cap = Cap::round, .edge = Edge::smooth})};
        const auto moved = width % 2 == 0 ? oracle::Place{-0.5L, -0.5L} : oracle::Place{};
        const auto begin = place(line.from);
        const auto end = place(line.to);
        const auto direction = unit_of(end - begin);
        const auto half = static_cast<Real>(width) / 2;
        const auto covers = [&](double x, double y) {
            const auto at = oracle::Place{x, y};
            const auto forward = along(at - begin, direction);
            const auto is_beside = std::abs(across(direction, at - begin - moved)) <= half;
            const auto is_between = forward >= -0.5L && along(at - end, direction) <= 0.5L;
            return (is_beside && is_between) || size_of(at - begin - moved) <= half ||
                   size_of(at - end - moved) <= half;
        };
        for (int k = 0; k < 6; ++k) {
            const auto near = dice.number(0, 1) == 0 ? line.from : line.to;
            const auto pixel = near + Point{dice.number(-5, 5), dice.number(-5, 5)};
            EXPECT_NEAR(coverage.at(pixel.x, pixel.y), sampled(pixel, covers), 1.5)
                << "width " << width << " to " << line.to.x << "," << line.to.y << " at " << pixel.x << "," << pixel.y;
        }
    }
}

// The box around what is found by the outline is that around what is drawn, needles too, whose tips have no pixel.
TEST(Corners, BoundsOfLargeSmoothShapesAreThoseOfTheirPixels) {
    const auto expect_bounds = [](const auto& area) {
        constexpr auto everything = Box{.at = {-3000, -3000}, .size = {9000, 9000}};
        const auto drawn = for_each_coverage(area, everything, [](int, int, int, int) {});
        EXPECT_EQ(bounds(area), drawn);
    };
    Dice dice{12};
    constexpr auto smooth = Fill{.edge = Edge::smooth};
    for (int i = 0; i < (is_sanitized ? 2 : 20); ++i) {
        const auto size = dice.number(200, 1500);
        const auto ring = dice.ring(3, 12, {{0, 0}, {size, size}});
        const auto by = Transform{}.turn(Angle::degrees(dice.number(0, 359))).move({dice.number(0, 100) / 64.0, 0.25});
        const auto pen = Stroke{.width = dice.number(1, 20), .align = Align::inside, .edge = Edge::smooth};
        expect_bounds(filled(Polygon{ring}, smooth));
        expect_bounds(stroked(Polygon{ring}, pen));
        expect_bounds(transformed(stroked(Polygon{ring}, pen), by));
        const auto circle = Circle{.center = {300, 200}, .radius = size / 2};
        const auto sweep = Sweep{.from = Angle::degrees(dice.number(0, 359)), .by = 100_deg};
        expect_bounds(transformed(filled(Sector{.of = circle, .sweep = sweep}, smooth), by));
        expect_bounds(
            stroked(Arc{.of = circle, .sweep = sweep}, {.width = 3, .cap = Cap::round, .edge = Edge::smooth}));
    }
    for (const auto tip : {Position{2000, 1500}, Position{300, 2500}, Position{-900, -1200}}) {
        const auto needle = subpixel::Polygon{{100, 100}, {100.5, 100}, tip};
        expect_bounds(filled(needle, {.edges = Edges::shared, .edge = Edge::smooth}));
        expect_bounds(filled(needle, smooth));
    }
}

// Corners along a straight side, back and forth, are none: they cover nothing more.
TEST(Corners, SidesThatGoBackAndForthCoverNothingMore) {
    for (const auto edges : {Edges::inclusive, Edges::shared}) {
        for (const auto by :
             {Transform{}, Transform{}.turn(30_deg).move({20, 0}), Transform{}.scale({-1, 1}).move({80, 0})}) {
            const auto covered = [&](const Polygon::Vertices& ring) {
                return Coverage{transformed(filled(Polygon{ring}, {.edges = edges, .edge = Edge::smooth}), by)};
            };
            const auto plain = covered({{20, 20}, {50, 20}, {52, 45}, {18, 40}});
            const auto back = covered({{20, 20}, {40, 20}, {30, 20}, {50, 20}, {52, 45}, {18, 40}});
            const auto twice =
                covered({{20, 20}, {40, 20}, {30, 20}, {45, 20}, {25, 20}, {50, 20}, {52, 45}, {18, 40}});
            for (int y = 0; y < 80; ++y) {
                for (int x = 0; x < 100; ++x) {
                    ASSERT_NEAR(back.at(x, y), plain.at(x, y), 1) << x << "," << y;
                    ASSERT_NEAR(twice.at(x, y), plain.at(x, y), 1) << x << "," << y;
                }
            }
        }
    }
}

// A curve so short and flat that it becomes one chord has directions of its own at its ends: bent inwards, the pixels
// there stay covered once.
TEST(Corners, CurvesOfOneChordThatBendInwardsLeaveNoHole) {
    for (const auto bend : {0.0012, -0.0012}) {
        Path path;
        path.move({20, 20}).line({35, 20});
        path.cubic({.control_1 = {35.04, 20 + bend}, .control_2 = {35.08, 20 + bend}, .to = {35.12, 20}});
        path.line({50, 20}).line({50, 40}).line({20, 40}).close();
        const Coverage coverage{filled(path, {.edge = Edge::smooth})};
        for (int x = 20; x <= 50; ++x) EXPECT_NEAR(coverage.at(x, 20), 255, 1) << x << ", bend " << bend;
    }
}

TEST(Corners, PalettesAreChosenForAPicture) {
    Bitmap<Rgb8> picture{{64, 48}};
    for (int y = 0; y < 48; ++y) {
        for (int x = 0; x < 64; ++x) {
            const auto byte = [](int value) { return static_cast<std::uint8_t>(value); };
            mark(picture, {x, y}, Color{byte(x * 4), byte(100 + y), byte(250 - x - y)});
        }
    }
    const auto error = [&](const auto& other) {
        auto sum = 0.0;
        for (int y = 0; y < 48; ++y) {
            for (int x = 0; x < 64; ++x) {
                const auto a = picture.color_at({x, y});
                const auto b = other.color_at({x, y});
                sum += std::pow(a.red - b.red, 2) + std::pow(a.green - b.green, 2) + std::pow(a.blue - b.blue, 2);
            }
        }
        return sum / (64 * 48);
    };
    auto before = error(convert(picture, palettes::cube()));
    for (const auto most : {16, 64, 256}) {
        const auto palette = palette_for(picture, most);
        EXPECT_LE(palette.size(), static_cast<std::size_t>(most));
        const auto now = error(convert(picture, palette));
        EXPECT_LT(now, most > 16 ? before / 2 : before) << most;
        before = now;
    }
    EXPECT_LT(before, 30);
    // Passed on, the errors of a plain colour cancel out.
    const Bitmap<Gray8> plain{{40, 30}, gray(100)};
    const auto dots = diffused(plain, palettes::two_tone());
    auto sum = 0.0;
    for (int y = 0; y < 30; ++y) {
        for (int x = 0; x < 40; ++x) sum += dots.color_at({x, y}).red;
    }
    EXPECT_NEAR(sum / 1200, 100, 3);
    const Bitmap<Rgb8> two{{4, 4}, colors::gold};
    EXPECT_EQ(palette_for(two, 9), Palette{{colors::gold}});
    EXPECT_THROW((void)palette_for(two, 257), Error);
}

}  // namespace
