// Dashes of closed shapes are paths of their own; widths that are not whole lie evenly; parts of a stroke are the
// whole.
#include "coverage_oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <numeric>

namespace {

using namespace coldbrick;
using namespace oracle;

// The middle of a box's band of such a width, centred: half a pixel inside of its edge.
Position middle_at(const Box& box, double distance) {
    const auto [width, height] = box.size;
    const auto [right, bottom] = box.last();
    const auto round = 2.0 * (width + height);
    distance = std::fmod(distance, round);
    if (distance <= width) return {box.at.x - 0.5 + distance, double{1} * box.at.y};
    if (distance <= width + height) return {double{1} * right, box.at.y - 0.5 + distance - width};
    if (distance <= 2 * width + height) return {right + 0.5 - (distance - width - height), double{1} * bottom};
    return {double{1} * box.at.x, bottom + 0.5 - (distance - 2 * width - height)};
}

// The same band along one dash, as an open path between pixel centres; false where an end lies so near to a corner that
// the pen, which follows the edge and not the band's middle, reaches over it.
bool add_dash(const Box& box, int begin, int end, Path& path) {
    constexpr auto reach = 3;
    const auto [width, height] = box.size;
    const std::array corners = {0, width, width + height, 2 * width + height, 2 * (width + height)};
    const auto round = corners.back();
    path.move(middle_at(box, begin + 0.5));
    for (const auto turn : {0, round}) {
        for (const auto at : corners) {
            const auto corner = at + turn;
            if (corner <= begin || corner >= end || (at == 0 && turn > 0)) continue;
            if (corner - begin < reach || end - corner < reach) return false;
            const auto [right, bottom] = box.last();
            const auto x = at == width || at == width + height ? right : box.at.x;
            const auto y = at == width + height || at == 2 * width + height ? bottom : box.at.y;
            path.line({x, y});
        }
    }
    path.line(middle_at(box, end - 0.5));
    return true;
}

TEST(DashPaths, OfBoxesAreOpenPathsWithCaps) {
    Dice dice{292};
    auto checked = 0;
    while (checked < (is_sanitized ? 20 : 120)) {
        const auto box = Box{{12, 11}, {dice.number(9, 24), dice.number(9, 20)}};
        const auto on = dice.number(2, 9);
        const auto off = dice.number(1, 7);
        const auto round = 2 * (box.size.width + box.size.height);
        Path path;
        auto is_right = true;
        // Where the path closes, the last dash goes on into the first one if it gets there.
        std::vector<std::pair<int, int>> dashes;
        for (int at = 0; at < round; at += on + off) dashes.emplace_back(at, std::min(at + on, round));
        if (dashes.back().second == round) {
            dashes.back().second += dashes.front().second;
            dashes.erase(dashes.begin());
        }
        for (const auto& [begin, end] : dashes)
            is_right = is_right && end - begin > 1 && add_dash(box, begin, end, path);
        if (!is_right) continue;
        ++checked;
        auto how = Stroke{.width = std::array{1.5, 3.0, 5.0}[static_cast<std::size_t>(dice.number(0, 2))],
                          .cap = static_cast<Cap>(dice.number(0, 2)),
                          .edge = Edge::smooth};
        const auto expected = SmoothRegion{stroked(path, how)};
        how.dash = {double{1} * on, double{1} * off};
        const auto found = SmoothRegion{stroked(box, how)};
        for (int y = 0; y < 44; ++y) {
            for (int x = 0; x < 50; ++x) {
                ASSERT_NEAR(found.coverage_at({x, y}), expected.coverage_at({x, y}), 1)
                    << x << "," << y << " box " << box << " dashes " << on << "," << off << " width "
                    << how.width.pixels();
            }
        }
    }
}

// On a circle: sectors of the band, whatever the width of the pen.
TEST(DashPaths, OfCirclesEndOnRays) {
    for (const auto width : {2.0, 8.0, 17.0}) {
        for (const auto radius : {2, 5, 9}) {
            const auto edge = radius + 0.5;
            const auto length = 2 * std::numbers::pi * edge / 7;
            const auto how =
                Stroke{.width = width, .align = Align::outside, .dash = {length, length * 6}, .edge = Edge::smooth};
            const auto covers = [&](oracle::Place p) {
                const auto away = std::hypot(static_cast<double>(p.x), static_cast<double>(p.y));
                const auto turn = std::atan2(static_cast<double>(p.y), static_cast<double>(p.x));
                return away >= edge && away <= edge + width && turn >= 0 && turn <= 2 * std::numbers::pi / 7;
            };
            EXPECT_LE(
                worst_coverage(
                    stroked(Circle{.center = {0, 0}, .radius = radius}, how),
                    [&](Point pixel) { return plane_share(covers, pixel); }, Box{.at = {-4, -4}, .size = {34, 34}}),
                2.5)
                << width << " around " << radius;
        }
    }
}

TEST(StrokeWidths, ThatAreNotWholeLieEvenly) {
    for (const auto width : {0.5, 1.5, 2.25, 2.5, 3.5, 4.5}) {
        for (const auto align : {Align::center, Align::inside, Align::outside}) {
            const auto how = Stroke{.width = width, .align = align, .edge = Edge::smooth};
            const auto expect_even = [&](const auto& shape) {
                const auto covered = SmoothRegion{stroked(shape, how)};
                for (int y = 0; y <= 40; ++y) {
                    for (int x = 0; x <= 40; ++x) {
                        const auto coverage = covered.coverage_at({x, y});
                        ASSERT_EQ(coverage, covered.coverage_at({40 - x, y})) << x << "," << y << " " << width;
                        ASSERT_EQ(coverage, covered.coverage_at({x, 40 - y})) << x << "," << y << " " << width;
                    }
                }
            };
            expect_even(Polygon{{10, 12}, {30, 12}, {30, 28}, {10, 28}});
            expect_even(Polygon{{20, 8}, {34, 20}, {20, 32}, {6, 20}});
            expect_even(parse_path("M10 12 H30 V28 H10 Z"));
            expect_even(Box{{10, 12}, {21, 17}});
        }
    }
    // 1.5 inside: a column, and a quarter of the next one.
    const auto inside = SmoothRegion{stroked(Polygon{{10, 10}, {30, 10}, {30, 30}, {10, 30}},
                                             {.width = 1.25, .align = Align::inside, .edge = Edge::smooth})};
    for (const auto x : {10, 30}) EXPECT_EQ(inside.coverage_at({x, 20}), 255);
    for (const auto x : {11, 29}) EXPECT_EQ(inside.coverage_at({x, 20}), 64);
    for (const auto x : {9, 12, 28, 31}) EXPECT_EQ(inside.coverage_at({x, 20}), 0);
}

// A sheet's columns, and bands of it, one by one.
template <class Area>
void expect_parts_are_whole(const Area& area, int number) {
    const auto window = Box{.at = {0, 0}, .size = {40, 34}};
    const auto whole = coverage_of(area, window);
    const auto expect_part = [&](const Box& part) {
        const auto found = coverage_of(area, part);
        for (int y = part.at.y; y <= part.last().y; ++y) {
            for (int x = part.at.x; x <= part.last().x; ++x) {
                ASSERT_EQ(found[index_in(part, {x, y})], whole[index_in(window, {x, y})])
                    << x << "," << y << " of figure " << number << " in " << part;
                ASSERT_EQ(contains(area, Point{x, y}) ? 1 : 0, found[index_in(part, {x, y})] > 0 ? 1 : 0);
            }
        }
    };
    for (int x = 0; x < 40; ++x) expect_part({.at = {x, 0}, .size = {1, 34}});
    expect_part({.at = {0, 11}, .size = {40, 5}});
    expect_part({.at = {13, 4}, .size = {9, 17}});
}

TEST(Parts, OfStrokesAreTheWhole) {
    Dice dice{293};
    const std::array widths = {0.5, 1.0, 2.0, 3.0, 8.0, 20.0, 38.0};
    for (int i = 0; i < (is_sanitized ? 1 : 10); ++i) {
        auto how = Stroke{.width = widths[static_cast<std::size_t>(dice.number(0, 6))],
                          .align = static_cast<Align>(dice.number(0, 2)),
                          .cap = static_cast<Cap>(dice.number(0, 2)),
                          .join = static_cast<Join>(dice.number(0, 2)),
                          .edge = Edge::smooth};
        if (i % 3 != 0) how.dash = {dice.number(0, 5) * 0.5, dice.number(1, 9) * 0.5};
        const auto box = Box{{dice.number(4, 14), dice.number(4, 14)}, {dice.number(2, 24), dice.number(2, 20)}};
        const auto radius = dice.number(1, 13);
        expect_parts_are_whole(stroked(box, how), i);
        expect_parts_are_whole(stroked(RoundedBox{box, std::min(box.size.width, box.size.height) / 2}, how), i);
        expect_parts_are_whole(stroked(Ring{{20, 17}, radius, dice.number(1, radius)}, how), i);
        expect_parts_are_whole(stroked(Polygon{dice.ring(3, 6, {{2, 2}, {36, 30}})}, how), i);
    }
}

}  // namespace
