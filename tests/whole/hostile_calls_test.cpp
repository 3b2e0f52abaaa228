// Calls with numbers and choices that nobody means, and shapes of every size.
#include "oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <functional>
#include <limits>
#include <vector>

#include <gtest/gtest.h>

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr auto nan = std::numeric_limits<double>::quiet_NaN();
constexpr auto infinity = std::numeric_limits<double>::infinity();

template <class Call>
std::string fault(const Call& call) {
    try {
        call();
    } catch (const Error& error) {
        return error.what();
    }
    return "no error";
}

void expect_part(const std::string& text, const std::string& part) {
    EXPECT_NE(text.find(part), std::string::npos) << text;
}

// What is drawn in a window that is laid at one side of the bounds, or in the middle, lies in the bounds; and in that
// at the side something is drawn in the outermost row or column.
template <class Area>
void expect_bounds(const std::string& what, const Area& area) {
    const auto box = bounds(area);
    if (box.empty()) return;
    constexpr auto reach = 40;
    const auto middle = Point{box.at.x + (box.size.width - 1) / 2, box.at.y + (box.size.height - 1) / 2};
    for (const auto& at : {box.at, box.last(), middle, Point{box.at.x, middle.y}, Point{middle.x, box.at.y},
                           Point{box.last().x, middle.y}, Point{middle.x, box.last().y}}) {
        const auto window = Box{.at = {at.x - reach, at.y - reach}, .size = {2 * reach, 2 * reach}};
        const auto seen = for_each_span(area, window, [](const Span&) {});
        EXPECT_TRUE(seen.empty() || intersection(seen, box) == seen) << what << " bounds " << box << " seen " << seen;
    }
    // Of the largest shapes the box may be larger than it must.
    if (box.size.height > 100000) return;
    // Whole rows beside the bounds are empty, and the first and the last row are not.
    const auto row = [&](int y) {
        const auto wide = Box{.at = {box.at.x - 9, y}, .size = {box.size.width + 18, 1}};
        return for_each_span(area, wide, [](const Span&) {});
    };
    EXPECT_FALSE(row(box.at.y).empty()) << what << " bounds " << box;
    EXPECT_FALSE(row(box.last().y).empty()) << what << " bounds " << box;
    EXPECT_TRUE(row(box.at.y - 1).empty()) << what << " bounds " << box;
    EXPECT_TRUE(row(box.last().y + 1).empty()) << what << " bounds " << box;
}

// Columns are looked at where the shape is not too high.
template <class Area>
void expect_columns(const std::string& what, const Area& area) {
    const auto box = bounds(area);
    if (box.empty() || box.size.height > 100000) return;
    const auto column = [&](int x) {
        const auto high = Box{.at = {x, box.at.y - 9}, .size = {1, box.size.height + 18}};
        return for_each_span(area, high, [](const Span&) {});
    };
    EXPECT_FALSE(column(box.at.x).empty()) << what << " bounds " << box;
    EXPECT_FALSE(column(box.last().x).empty()) << what << " bounds " << box;
    EXPECT_TRUE(column(box.at.x - 1).empty()) << what << " bounds " << box;
    EXPECT_TRUE(column(box.last().x + 1).empty()) << what << " bounds " << box;
}

template <class Shape>
void expect_bounds_of_all(Dice& dice, const std::string& name, const Shape& shape, int size) {
    const auto edge = dice.number(0, 1) == 0 ? Edge::crisp : Edge::smooth;
    const auto width = dice.number(1, std::max(1, std::min(size / 3, 50)));
    const Stroke how{.width = width,
                     .align = static_cast<Align>(dice.number(0, 2)),
                     .cap = static_cast<Cap>(dice.number(0, 2)),
                     .join = static_cast<Join>(dice.number(0, 2)),
                     .edge = edge};
    const auto what = name + " of size " + std::to_string(size) + ", width " + std::to_string(width) +
                      (edge == Edge::smooth ? ", smooth" : ", crisp");
    const auto turned = Transform{}.turn(Angle::degrees(dice.number(0, 359))).move({dice.number(-99, 99) / 7.0, 3});
    const auto check = [&](const std::string& kind, const auto& area) {
        expect_bounds(what + kind, area);
        expect_columns(what + kind, area);
    };
    if constexpr (detail::Fillable<Shape>) {
        check(" filled", filled(shape, {.edge = edge}));
        check(" filled, turned", transformed(filled(shape, {.edge = edge}), turned));
    }
    check(" stroked", stroked(shape, how));
    check(" stroked, turned", transformed(stroked(shape, how), turned));
}

TEST(HostileCalls, BoundsContainWhatIsDrawnAtEverySize) {
    Dice dice{401};
    for (const auto size : {1, 20, 300, 4000, 50000, 1000000}) {
        for (int i = 0; i < (size > 1000 || is_sanitized ? 1 : 3); ++i) {
            if (is_sanitized && size == 50000) continue;
            const auto number = [&] { return dice.number(0, size); };
            const auto center = Point{dice.number(-50, 50), dice.number(-50, 50)};
            const auto round = Ellipse::around(
                {.center = center, .radii = {number(), number()}, .turned = Angle::degrees(dice.number(0, 179))});
            const auto sweep = Sweep{Angle::degrees(dice.number(0, 359)), Angle::degrees(dice.number(1, 350))};
            expect_bounds_of_all(dice, "ellipse", round, size);
            expect_bounds_of_all(dice, "arc", Arc{.of = round, .sweep = sweep}, size);
            expect_bounds_of_all(dice, "sector", Sector{.of = round, .sweep = sweep}, size);
            expect_bounds_of_all(dice, "chord", Chord{.of = round, .sweep = sweep}, size);
            expect_bounds_of_all(dice, "box", Box{.at = center, .size = {number() + 1, number() + 1}}, size);
            expect_bounds_of_all(dice, "line", Line{.from = center, .to = {number(), number()}}, size);
            expect_bounds_of_all(dice, "polygon", Polygon{center, {number(), number()}, {number(), number()}}, size);
            Path path;
            path.move({1, 2}).cubic({.control_1 = {double{1} * number(), 0},
                                     .control_2 = {0, double{1} * number()},
                                     .to = {double{1} * number(), double{1} * number()}});
            expect_bounds_of_all(dice, "path", path, size);
        }
    }
}

TEST(HostileCalls, ArcsAndSliversHaveBounds) {
    const Arc arc{.of = Circle{.center = {0, 0}, .radius = 821}, .sweep = {10_deg, 60_deg}};
    EXPECT_FALSE(bounds(stroked(arc, {.width = 4})).empty());
    EXPECT_FALSE(Region{stroked(arc, {.width = 4, .edge = Edge::smooth})}.empty());
    const std::vector<Point> corners{{0, 0}, {3000000, 1}, {3000000, 40000}};
    const VertexList sliver{.as = Elements::triangles, .at = corners};
    Bitmap<Rgb8> sheet{{64, 8}};
    const std::vector<Color> gold{colors::gold};
    EXPECT_FALSE(fill_each(sheet, sliver, {.edge = Edge::smooth}, gold).empty());
}

TEST(HostileCalls, AClipOfEverything) {
    constexpr auto least = std::numeric_limits<int>::min();
    constexpr auto most = std::numeric_limits<int>::max();
    for (const auto& everything :
         {Box::between({.from = {least, least}, .to = {most, most}}), Box{.at = {least, least}, .size = {most, most}},
          Box{.at = {-(1 << 30), -(1 << 30)}, .size = {most, most}}}) {
        const auto expect_same = [&](const auto& area) {
            const auto around = Box{.at = {-300, -300}, .size = {600, 600}};
            std::vector<Span> expected;
            for_each_span(area, intersection(around, everything), [&](const Span& run) { expected.push_back(run); });
            std::vector<Span> found;
            for_each_span(area, everything, [&](const Span& run) { found.push_back(run); });
            EXPECT_EQ(found, expected);
        };
        const auto circle = Circle{.center = {5, 7}, .radius = 60};
        for (const auto edge : {Edge::crisp, Edge::smooth}) {
            expect_same(
                filled(RoundedBox{.box = {.at = {-40, 3}, .size = {90, 50}}, .corner_radius = 9}, {.edge = edge}));
            expect_same(filled(Sector{.of = circle, .sweep = {10_deg, 200_deg}}, {.edge = edge}));
            expect_same(stroked(circle, {.width = 9, .edge = edge}));
            expect_same(stroked(Sector{.of = circle, .sweep = {10_deg, 200_deg}}, {.width = 9, .edge = edge}));
            expect_same(transformed(filled(circle, {.edge = edge}), Transform{}.shear({0.5, 0})));
            expect_same(
                stroked(Line{.from = {-9, -9}, .to = {100, 50}}, {.width = 5, .cap = Cap::round, .edge = edge}));
        }
    }
}

TEST(HostileCalls, ChoicesThatAreNoneAreRefusedByName) {
    Bitmap<Rgba8> sheet{{20, 20}, colors::navy};
    const auto before = sheet.bytes();
    const Box box{.at = {2, 2}, .size = {9, 9}};
    const auto draw = [&](const auto& area, const Ink& ink = colors::gold) {
        return fault([&] { fill(sheet, area, ink); });
    };
    expect_part(draw(stroked(box, {.width = 3, .align = static_cast<Align>(7)})), "stroke: align has the number 7");
    expect_part(draw(stroked(box, {.cap = static_cast<Cap>(7)})), "allowed are flush, square and round");
    expect_part(draw(stroked(box, {.join = static_cast<Join>(-1)})), "stroke: join has the number -1");
    expect_part(draw(stroked(box, {.edge = static_cast<Edge>(2)})), "stroke: edge");
    expect_part(draw(filled(box, {.rule = static_cast<FillRule>(2)})), "fill: rule");
    expect_part(draw(filled(box, {.edges = static_cast<Edges>(2)})), "fill: edges");
    expect_part(draw(filled(Circle{}, {.edge = static_cast<Edge>(9)})), "fill: edge");
    const auto lay = [&](const Compositing& how) { return fault([&] { fill(sheet, box, Ink{colors::gold, how}); }); };
    expect_part(lay({.blend = static_cast<Blend>(99)}), "ink: blend has the number 99");
    expect_part(lay({.light = static_cast<Light>(2)}), "ink: light");
    expect_part(lay({.channels = static_cast<Channels>(16)}), "ink: channels has the number 16");
    const auto gradient = [&](Spread spread, Placing placing, Dither dither) {
        return fault([&] {
            fill(sheet, box, LinearGradient{{0, 0}, {9, 9}, {{0, colors::red}}, spread, placing, dither});
        });
    };
    expect_part(gradient(static_cast<Spread>(5), Placing::target, Dither::none), "linear gradient: spread");
    expect_part(gradient(Spread::pad, static_cast<Placing>(5), Dither::none), "linear gradient: placing");
    expect_part(gradient(Spread::pad, Placing::target, static_cast<Dither>(5)), "linear gradient: dither");
    expect_part(fault([] {
                    (void)Box::placed({.anchor = static_cast<Anchor>(9), .at = {}, .size = {1, 1}});
                }),
                "anchor");
    const Bitmap<Rgba8> stamp{{3, 3}};
    expect_part(fault([&] { paste(sheet, stamp, {.mirrored = static_cast<Mirror>(4)}); }), "paste: mirrored");
    expect_part(fault([&] { paste(sheet, stamp, {.turned = static_cast<Quarters>(4)}); }), "paste: turned");
    expect_part(fault([&] { paste(sheet, stamp, {.scaling = static_cast<Scaling>(4)}); }), "paste: scaling");
    expect_part(fault([&] {
                    (void)flood(sheet, {.from = {1, 1}, .neighbors = static_cast<Neighbors>(4)});
                }),
                "flood: neighbors");
    expect_part(fault([&] { (void)encode(sheet, static_cast<FileFormat>(77)); }), "file format: it is none of png");
    expect_part(fault([&] { (void)encode(sheet, FileFormat::png, {.effort = static_cast<Effort>(4)}); }),
                "save: effort");
    const std::vector<Point> corners(6);
    expect_part(fault([&] { fill(sheet, VertexList{.as = static_cast<Elements>(9), .at = corners}, colors::red); }),
                "vertex list: as has the number 9");
    EXPECT_EQ(sheet.bytes(), before);
}

TEST(HostileCalls, NumbersThatAreNone) {
    Bitmap<Rgba8> sheet{{20, 20}, colors::navy};
    const auto before = sheet.bytes();
    const Circle circle{.center = {9, 9}, .radius = 5};
    for (const auto bad : {nan, infinity, -infinity}) {
        const auto angle = Angle::degrees(bad);
        EXPECT_THROW(fill(sheet, transformed(filled(circle, {}), Transform{}.turn(angle)), colors::gold), Error);
        EXPECT_THROW(fill(sheet, Sector{.of = circle, .sweep = {angle, 30_deg}}, colors::gold), Error);
        EXPECT_THROW(fill(sheet, Sector{.of = circle, .sweep = {30_deg, angle}}, colors::gold), Error);
        EXPECT_THROW(fill(sheet, Ellipse::around({.center = {9, 9}, .radii = {8, 3}, .turned = angle}), colors::gold),
                     Error);
        EXPECT_THROW(fill(sheet, star({.center = {9, 9}, .radius = 5, .turned = angle}), colors::gold), Error);
        EXPECT_THROW(stroke(sheet, circle, {.miter_limit = -bad, .dash = {3, bad}}, colors::gold), Error);
        EXPECT_THROW(stroke(sheet, circle, {.dash = {3, 3}, .dash_offset = bad}, colors::gold), Error);
        EXPECT_THROW(fill(sheet, circle, ConicGradient{{9, 9}, angle, {{0, colors::red}}}), Error);
        EXPECT_THROW(fill(sheet, circle, Hatch{.spacing = bad}), Error);
    }
    EXPECT_EQ(sheet.bytes(), before);
    const auto dashed = [&](double offset) {
        auto drawn = sheet;
        stroke(drawn, Line{.from = {0, 9}, .to = {19, 9}}, {.width = 3, .dash = {4, 4}, .dash_offset = offset},
               colors::gold);
        return drawn.bytes();
    };
    EXPECT_EQ(dashed(1e18), dashed(0));  // a multiple of the period
    expect_part(fault([] { (void)Region::of_spans({{0, std::numeric_limits<int>::max(), 2}}); }), "beyond the numbers");
    expect_part(fault([&] { (void)flood(sheet, {.from = {20, 3}}); }), "flood: from is 20,3; allowed is 0,0 to 19,19");
    expect_part(fault([&] { fill(sheet, circle, Ink{colors::red, {.opacity = 1.5}}); }), "opacity is 1.5; allowed");
}

// A shape of one's own at the last rows that numbers have.
struct LastRow {
    int y;
};
std::vector<Span> spans(const LastRow& row, const Box&) { return {{.y = row.y, .x = 3, .length = 5}}; }

TEST(HostileCalls, PixelsAtTheLastRowsAreDrawnWhereTheyAreAndNotMoved) {
    Bitmap<Rgb8> sheet{{20, 20}};
    for (const auto y : {std::numeric_limits<int>::max(), std::numeric_limits<int>::min()}) {
        const LastRow row{y};
        EXPECT_NO_THROW(fill(sheet, row, colors::gold));
        const auto expect_refused = [&](const auto& area) {
            expect_part(fault([&] { fill(sheet, area, colors::gold); }),
                        "row is " + std::to_string(y) + "; allowed is");
        };
        expect_refused(transformed(filled(row, {}), Transform{}.turn(10_deg)));
        expect_refused(transformed(filled(row, {}), Transform{}.move({0, -5})));
        expect_refused(stroked(row, {.width = 4}));
        expect_refused(stroked(row, {.width = 4, .edge = Edge::smooth}));
    }
    EXPECT_EQ(sheet.bytes(), (Bitmap<Rgb8>{{20, 20}}).bytes());
}

TEST(HostileCalls, StridesBeyondAllMemoryAreRefused) {
    std::vector<std::uint8_t> memory(100);
    for (const auto stride : {std::ptrdiff_t{1} << 62, -(std::ptrdiff_t{1} << 62),
                              std::numeric_limits<std::ptrdiff_t>::min(), std::numeric_limits<std::ptrdiff_t>::max()}) {
        expect_part(fault([&] {
                        (void)Pixels<Gray8>{{.top_left = memory.data(), .size = {4, 3}, .stride = stride}};
                    }),
                    "pixels: stride is " + std::to_string(stride));
        EXPECT_NO_THROW((void)Pixels<Gray8>({.top_left = memory.data(), .size = {4, 1}, .stride = stride}));
    }
}

// A long line that a transform makes short, and a pen as wide as its circle.
TEST(HostileCalls, DashesWithoutEndAreRefused) {
    Bitmap<Rgba8> sheet{{20, 20}, colors::navy};
    const auto before = sheet.bytes();
    const Line line{.from = {-19, 9}, .to = {200000000, 9}};
    const std::string refused = "dashes reach into the picture; allowed are up to 262144 in a call";
    expect_part(fault([&] {
                    stroke(sheet, Circle{.center = {0, 0}, .radius = 1000000000},
                           {.width = 1000000000, .cap = Cap::round, .dash = {1, 1}}, colors::gold);
                }),
                refused);
    for (const auto cap : {Cap::flush, Cap::square, Cap::round}) {
        const Stroke how{.width = 12, .cap = cap, .dash = {10}};
        const auto pressed = transformed(stroked(line, how), Transform{}.scale({1e-7, 1}));
        expect_part(fault([&] { fill(sheet, pressed, colors::gold); }), refused);
        EXPECT_GE(bounds(pressed).size.width, 20);
        // The same is drawn where few of them are.
        EXPECT_FALSE(fill(sheet, stroked(line, how), colors::navy).empty());
    }
    EXPECT_EQ(sheet.bytes(), before);
}

// Rows of over 131,072 columns are kept otherwise than shorter ones.
TEST(HostileCalls, VeryWideRowsAreCoveredAsTheirPartsAre) {
    constexpr auto width = 140000;
    const Polygon sliver{{3, 2}, {139990, 7}, {70001, 26}, {9, 12}, {90000, 1}};
    const auto pressed =
        transformed(stroked(Circle{.center = {7000, 12}, .radius = 9}, {.width = 5, .edge = Edge::smooth}),
                    Transform{}.scale({10, 1}));
    const auto slanted = filled(sliver, {.edge = Edge::smooth});
    const auto check = [&](const auto& area) {
        Bitmap<Gray8> whole{{width, 30}};
        Bitmap<Gray8> parts{{width, 30}};
        const auto box = fill(whole, area, colors::white);
        for (int x = 0; x < width; x += 9973) fill(parts.within(Box{{x, 0}, {9973, 30}}), area, colors::white);
        EXPECT_FALSE(box.empty());
        EXPECT_TRUE(whole.bytes() == parts.bytes());
        EXPECT_EQ(bounds(area), box);
    };
    check(pressed);
    check(slanted);
}

TEST(HostileCalls, SmoothShapesAsWideAsCoordinatesGo) {
    const Stroke how{.width = 4, .edge = Edge::smooth};
    const Box wide{{-500000000, -3}, {1000000000, 9000}};
    EXPECT_EQ(bounds(stroked(wide, how)), (Box{{-500000002, -5}, {1000000004, 9004}}));
    const auto sheared = transformed(stroked(wide, how), Transform{}.shear({0, 1e-6}));
    expect_bounds("sheared", sheared);
    EXPECT_GT(bounds(sheared).size.height, 9900);
    // As wide as numbers go: the box is cut off at the largest coordinates.
    const Box all{{-max_coordinate, 3}, {2 * max_coordinate + 1, 5000}};
    const auto around = bounds(stroked(all, how));
    EXPECT_EQ(around.at.x, -max_coordinate);
    EXPECT_EQ(around.size, (Size{2 * max_coordinate + 1, 5004}));
    const auto turned = transformed(filled(all, {.edge = Edge::smooth}), Transform{}.turn(Angle::degrees(0.001)));
    const auto seen = for_each_span(turned, Box{{-40, -40}, {80, 80}}, [](const Span&) {});
    EXPECT_FALSE(seen.empty());
    EXPECT_EQ(intersection(seen, bounds(turned)), seen);
    const auto rounded = RoundedBox{.box = all, .corner_radius = 2000};
    const auto part = Box{{100, 0}, {50, 20}};
    EXPECT_EQ(drawn(filled(rounded, {.edge = Edge::smooth}), part), drawn(all, part));
}

}  // namespace
