// Memory that runs out: whatever allocation of a call fails, either the call draws all, or it throws and has drawn
// nothing.
#include "failing_memory.hpp"
#include "oracle.hpp"

#include <coldbrick/coldbrick.hpp>

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr auto sheet_size = Size{96, 72};

// Fails the first, the second ... allocation of draw(sheet), of very many only some, and compares what has been drawn
// then.
template <class Draw>
void expect_all_or_nothing(const char* what, const Draw& draw) {
    const Bitmap<Rgba8> ground{sheet_size, 0x204060ff_rgba};
    auto whole = ground;
    draw(whole);
    EXPECT_NE(whole.bytes(), ground.bytes()) << what;
    auto sheet = ground;
    failing_memory::fail_in_turn([&] { draw(sheet); },
                                 [&](bool has_thrown) {
                                     EXPECT_TRUE(sheet.bytes() == (has_thrown ? ground : whole).bytes()) << what;
                                     sheet = ground;
                                 });
}

Path wave() {
    Path path;
    path.move({5, 60}).cubic({.control_1 = {30, -40}, .control_2 = {60, 110}, .to = {90, 10}}).line({70, 66});
    return path;
}

Polygon many_corners() {
    Polygon::Vertices ring;
    for (int i = 0; i < 40; ++i) ring.push_back({(i * 37) % 90 + 3, (i * 53) % 66 + 3});
    return Polygon{ring};
}

template <class Use>
void with_shapes(const Use& use) {
    use("box", Box{.at = {10, 10}, .size = {50, 40}});
    use("rounded box", RoundedBox{.box = {.at = {10, 10}, .size = {50, 40}}, .corner_radius = 12});
    use("circle", Circle{.center = {40, 36}, .radius = 30});
    use("turned ellipse", Ellipse::around({.center = {45, 36}, .radii = {40, 12}, .turned = 30_deg}));
    use("sector", Sector{.of = Circle{.center = {40, 36}, .radius = 30}, .sweep = {30_deg, 250_deg}});
    use("chord", Chord{.of = Circle{.center = {40, 36}, .radius = 30}, .sweep = {30_deg, 200_deg}});
    use("star", star({.center = {45, 36}, .radius = 33, .points = 9}));
    use("polygon", many_corners());
    use("path", wave());
    use("region", difference(Region{Circle{.center = {40, 36}, .radius = 30}}, Region{Box{{30, 30}, {9, 9}}}));
    use("fractional circle", subpixel::Circle{.center = {40.5, 36.25}, .radius = 20.5});
}

std::vector<Ink> inks() {
    return {colors::gold, with_alpha(colors::gold, 128), Ink{colors::teal, {.opacity = 0.5, .blend = Blend::multiply}}};
}

template <class Area>
void expect_area(const std::string& name, const Area& area) {
    for (const auto& ink : inks()) {
        expect_all_or_nothing(name.c_str(), [&](auto& sheet) { fill(sheet, area, ink); });
    }
    const Region clip{star({.center = {48, 36}, .radius = 35, .points = 7})};
    const SmoothRegion cover{Circle{.center = {48, 36}, .radius = 30}};
    expect_all_or_nothing((name + " in a clip").c_str(),
                          [&](auto& sheet) { fill(sheet.within(clip), area, colors::gold); });
    expect_all_or_nothing((name + " in a smooth clip").c_str(),
                          [&](auto& sheet) { fill(sheet.within(cover), area, colors::gold); });
}

TEST(Memory, FillsDrawAllOrNothing) {
    with_shapes([](const std::string& name, const auto& shape) {
        for (const auto edge : {Edge::crisp, Edge::smooth}) expect_area(name, filled(shape, {.edge = edge}));
        expect_area(name + " turned", transformed(filled(shape, {.edge = Edge::smooth}), Transform{}.turn(5_deg)));
    });
}

TEST(Memory, StrokesDrawAllOrNothing) {
    auto number = 0;
    with_shapes([&](const std::string& name, const auto& shape) {
        for (const auto edge : {Edge::crisp, Edge::smooth}) {
            for (const auto& how :
                 {Stroke{.width = 1, .edge = edge}, Stroke{.width = 6, .join = Join::round, .edge = edge},
                  Stroke{.width = 5, .align = Align::inside, .edge = edge},
                  Stroke{.width = 5, .cap = Cap::round, .dash = {9, 7}, .edge = edge}}) {
                if (is_sanitized && ++number % 3 != 0) continue;
                expect_all_or_nothing(name.c_str(),
                                      [&](auto& sheet) { fill(sheet, stroked(shape, how), colors::gold); });
            }
        }
    });
    for (const auto edge : {Edge::crisp, Edge::smooth}) {
        for (const auto cap : {Cap::flush, Cap::square, Cap::round}) {
            const Stroke how{.width = 7, .cap = cap, .edge = edge};
            expect_area("line", stroked(Line{.from = {5, 5}, .to = {80, 60}}, how));
            expect_area("polyline", stroked(Polyline{.through = {{5, 5}, {80, 60}, {70, 9}}}, how));
            expect_area("arc",
                        stroked(Arc{.of = Circle{.center = {40, 36}, .radius = 25}, .sweep = {30_deg, 250_deg}}, how));
        }
    }
}

TEST(Memory, PicturesMeshesAndFloodsDrawAllOrNothing) {
    Bitmap<Rgba8> stamp{{30, 20}, 0xd0a02080_rgba};
    fill(stamp, Circle{.center = {9, 9}, .radius = 7}, colors::navy);
    expect_all_or_nothing("paste", [&](auto& sheet) { paste(sheet, stamp, {.at = {20, 10}, .size = {50, 40}}); });
    expect_all_or_nothing("turned", [&](auto& sheet) { paste(sheet, stamp, Transform{}.turn(20_deg).move({30, 5})); });
    expect_all_or_nothing("mirrored", [&](auto& sheet) {
        paste(sheet, stamp, {.at = {20, 10}, .mirrored = Mirror::left_right, .turned = Quarters::one});
    });
    expect_all_or_nothing("over itself", [&](auto& sheet) {
        if (sheet.color_at({5, 5}) == colors::white) return;
        paste(sheet, crop(sheet, Box{{0, 0}, {40, 40}}), {.at = {9, 9}, .compositing = {.blend = Blend::screen}});
        paste(sheet, stamp);
    });
    const std::vector<Point> corners{{5, 5}, {80, 9}, {30, 60}, {90, 66}};
    const VertexList list{.as = Elements::triangle_strip, .at = corners};
    const std::vector<Color> pair{colors::gold, colors::teal};
    expect_all_or_nothing("mesh", [&](auto& sheet) { fill_each(sheet, list, pair); });
    expect_all_or_nothing("smooth mesh", [&](auto& sheet) { fill_each(sheet, list, {.edge = Edge::smooth}, pair); });
    expect_all_or_nothing("flood", [&](auto& sheet) { fill(sheet, flood(sheet, {.from = {3, 3}}), colors::gold); });
}

// The second of three inks is none that the sheet takes.
TEST(Memory, BadInksAreFoundBeforeAnythingIsDrawn) {
    const std::vector<Point> corners{{5, 5}, {80, 9}, {30, 60}, {90, 66}, {7, 70}};
    const VertexList list{.as = Elements::triangle_strip, .at = corners};
    const std::vector<Ink> mixed{colors::gold, PaletteEntry{3}, colors::teal};
    Bitmap<Rgb8> sheet{sheet_size, colors::navy};
    const auto before = sheet.bytes();
    EXPECT_THROW(fill_each(sheet, list, mixed), Error);
    EXPECT_THROW(stroke_each(sheet, list, Stroke{.width = 3}, mixed), Error);
    EXPECT_EQ(sheet.bytes(), before);
}

}  // namespace
