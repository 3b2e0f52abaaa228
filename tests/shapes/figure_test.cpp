// Figures: every shape filled and stroked in every way, as one value, against the calls themselves.
#include "oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>

namespace {

using namespace coldbrick;
using namespace oracle;

constexpr Box window{.at = {0, 0}, .size = {96, 72}};

Path wave() {
    Path path;
    path.move({5, 60}).cubic({.control_1 = {30, -40}, .control_2 = {60, 110}, .to = {90, 10}}).line({70, 66}).close();
    return path;
}

// Calls use(name, shape) with each shape that has an inside, and with the others.
template <class Use>
void with_filled_shapes(const Use& use) {
    const Circle circle{.center = {40, 36}, .radius = 25};
    const auto ellipse = Ellipse::around({.center = {45, 36}, .radii = {40, 12}, .turned = 30_deg});
    const subpixel::Circle fine{.center = {40.5, 36.25}, .radius = 20.5};
    const auto fine_ellipse =
        subpixel::Ellipse::around({.center = {40.5, 30.25}, .radii = {30.5, 9}, .turned = 70_deg});
    use("box", Box{.at = {10, 10}, .size = {50, 40}});
    use("rounded box", RoundedBox{.box = {.at = {10, 10}, .size = {50, 40}}, .corner_radius = 12});
    use("circle", circle);
    use("ellipse", ellipse);
    use("sector", Sector{.of = circle, .sweep = {30_deg, 250_deg}});
    use("chord", Chord{.of = ellipse, .sweep = {30_deg, 200_deg}});
    use("polygon", star({.center = {45, 36}, .radius = 33, .points = 9}));
    use("path", wave());
    use("region", difference(Region{circle}, Region{Box{{30, 30}, {9, 9}}}));
    use("fine box", subpixel::Box{.at = {10.25, 9.5}, .size = {50.5, 40}});
    use("fine rounded box",
        subpixel::RoundedBox{.box = {.at = {10.25, 9.5}, .size = {50.5, 40}}, .corner_radius = 7.5});
    use("fine circle", fine);
    use("fine ellipse", fine_ellipse);
    use("fine sector", subpixel::Sector{.of = fine, .sweep = {30_deg, 250_deg}});
    use("fine chord", subpixel::Chord{.of = fine_ellipse, .sweep = {30_deg, 250_deg}});
    use("fine polygon", subpixel::star({.center = {45.5, 36.5}, .radius = 30}));
}

template <class Use>
void with_lines(const Use& use) {
    const Circle circle{.center = {40, 36}, .radius = 25};
    use("line", Line{.from = {5, 5}, .to = {80, 60}});
    use("polyline", Polyline{.through = {{5, 5}, {80, 60}, {70, 9}}});
    use("arc", Arc{.of = circle, .sweep = {30_deg, 250_deg}});
    use("fine line", subpixel::Line{.from = {5.5, 5}, .to = {80, 60.25}});
    use("fine polyline", subpixel::Polyline{.through = {{5.5, 5}, {80, 60.25}, {70, 9}}, .closed = true});
    use("fine arc",
        subpixel::Arc{.of = subpixel::Circle{.center = {40.5, 36}, .radius = 25}, .sweep = {30_deg, 250_deg}});
}

std::vector<Stroke> pens() {
    return {{},
            {.width = 6, .join = Join::round, .edge = Edge::smooth},
            {.width = 5, .align = Align::inside},
            {.width = 4, .align = Align::outside},
            {.width = 5, .cap = Cap::round, .dash = {9, 7}, .dash_offset = 2}};
}

// A figure is what the area is: its pixels, its box, its colours.
template <class Area>
void expect_same(const std::string& what, const Area& area) {
    const Figure figure{area};
    EXPECT_EQ(drawn(figure, window), drawn(area, window)) << what;
    EXPECT_EQ(bounds(figure), bounds(area)) << what;
    Bitmap<Rgba8> one{{96, 72}, 0x204060c0_rgba};
    auto other = one;
    const auto ink = with_alpha(colors::gold, 150);
    EXPECT_EQ(fill(one, figure, ink), fill(other, area, ink)) << what;
    EXPECT_TRUE(one.bytes() == other.bytes()) << what;
    EXPECT_EQ(figure, Figure{area}) << what;
    EXPECT_EQ(contains(figure, Point{40, 30}), contains(area, Point{40, 30})) << what;
}

template <class Area>
void expect_same_placed(const std::string& what, const Area& area) {
    expect_same(what, area);
    const auto by = Transform{}.turn(20_deg).scale({1.1, 0.8}).move({12, -3});
    const auto placed = transformed(area, by);
    expect_same(what + ", placed", placed);
    EXPECT_EQ(Figure{area}.then(by), Figure{placed}) << what;
    EXPECT_EQ(transformed(Figure{area}, by), Figure{placed}) << what;
    EXPECT_NE(Figure{area}, Figure{placed}) << what;
}

TEST(Figures, AreWhatTheirShapesAre) {
    with_filled_shapes([](const std::string& name, const auto& shape) {
        expect_same_placed(name, shape);
        for (const auto edge : {Edge::crisp, Edge::smooth}) expect_same_placed(name, filled(shape, {.edge = edge}));
        EXPECT_FALSE(Figure{shape}.is_stroke());
    });
    const auto with_pens = [](const std::string& name, const auto& shape) {
        for (const auto& how : pens()) {
            if (is_sanitized && how.edge == Edge::smooth) continue;
            expect_same_placed(name + " of width " + std::to_string(how.width.pixels()), stroked(shape, how));
        }
        EXPECT_TRUE(Figure{stroked(shape)}.is_stroke());
    };
    with_filled_shapes(with_pens);
    with_lines(with_pens);
}

TEST(Figures, AreEqualByTheirNumbers) {
    const Circle circle{.center = {40, 36}, .radius = 25};
    EXPECT_EQ(Figure{circle}, Figure{filled(circle, {})});
    EXPECT_NE(Figure{circle}, Figure{filled(circle, {.edge = Edge::smooth})});
    EXPECT_NE(Figure{circle}, Figure{stroked(circle)});
    EXPECT_NE(Figure{circle}, (Figure{Circle{.center = {40, 36}, .radius = 24}}));
    EXPECT_NE(Figure{circle}, Figure{Ellipse{circle}});
    EXPECT_EQ(Figure{stroked(circle)}, Figure{stroked(circle, {.width = 1})});
    EXPECT_NE(Figure{stroked(circle)}, (Figure{stroked(circle, {.width = 1, .dash = {3}})}));
    auto copy = Figure{wave()};
    const auto original = copy;
    EXPECT_EQ(copy, original);
    copy = circle;
    EXPECT_EQ(copy, Figure{circle});
    EXPECT_NE(copy, original);
}

TEST(Figures, OfALotTheTopmostIsFound) {
    const std::vector<Figure> lot{Box{{0, 0}, {50, 50}}, Circle{.center = {30, 30}, .radius = 12},
                                  stroked(Line{.from = {0, 0}, .to = {90, 70}}, {.width = 3}),
                                  Region{Box{{70, 0}, {9, 9}}}};
    const auto topmost = [&](Point pixel) {
        const auto hit = std::find_if(lot.rbegin(), lot.rend(), [&](const Figure& of) { return contains(of, pixel); });
        return static_cast<int>(lot.rend() - hit) - 1;
    };
    EXPECT_EQ(topmost({3, 40}), 0);
    EXPECT_EQ(topmost({30, 36}), 1);
    EXPECT_EQ(topmost({9, 7}), 2);
    EXPECT_EQ(topmost({75, 4}), 3);
    EXPECT_EQ(topmost({90, 4}), -1);
}

// One transform after the other is one.
TEST(Figures, TransformsOfTransforms) {
    const auto box = filled(Box{.at = {10, 10}, .size = {30, 20}}, {.edge = Edge::smooth});
    const auto first = Transform{}.turn(10_deg);
    const auto second = Transform{}.move({7, 3});
    EXPECT_EQ(drawn(transformed(transformed(box, first), second), window),
              drawn(transformed(box, first.then(second)), window));
    const auto there = first.then(second).scale(2).shear({0.1, 0});
    const auto back = there.then(there.inverse());
    const auto at = back({12, 34});
    EXPECT_NEAR(at.x, 12, 1e-12);
    EXPECT_NEAR(at.y, 34, 1e-12);
    EXPECT_EQ(Transform{}.turn_about({5, 6}, 90_deg)({5, 6}), (Position{5, 6}));
    EXPECT_EQ(Transform{}.scale_about({5, 6}, {3, 2})({7, 7}), (Position{11, 8}));
    EXPECT_TRUE(Transform{}.inverse().is_identity());
}

}  // namespace
