// Scenes: what each statement draws is what the C++ call of the same words draws.
#include "oracle.hpp"

#include <coldbrick/scene.hpp>

namespace {

using namespace coldbrick;

Bitmap<Rgb8> picture_of(const std::string& statements) {
    const auto scene = parse_scene("sheet size 60,40 ink navy\n" + statements);
    auto bitmap = scene.sheet<Rgb8>();
    render(scene, bitmap);
    return bitmap;
}

template <class Draw>
void expect_same(const std::string& statements, const Draw& draw) {
    Bitmap<Rgb8> expected{{60, 40}, colors::navy};
    draw(expected);
    EXPECT_EQ(picture_of(statements).bytes(), expected.bytes()) << statements;
    EXPECT_NE(expected.bytes(), (Bitmap<Rgb8>{{60, 40}, colors::navy}).bytes()) << statements << " shows nothing";
}

TEST(Scene, FilledShapes) {
    const auto ink = 0xe8b23a_rgb;
    expect_same("fill box at 3,4 size 20,11 ink #e8b23a", [&](auto& to) {
        fill(to, Box{.at = {3, 4}, .size = {20, 11}}, ink);
    });
    expect_same("fill box from 22,14 to 3,4 ink #e8b23a", [&](auto& to) {
        fill(to, Box{.at = {3, 4}, .size = {20, 11}}, ink);
    });
    expect_same("fill circle center 30,20 radius 12 ink #e8b23a", [&](auto& to) {
        fill(to, Circle{.center = {30, 20}, .radius = 12}, ink);
    });
    expect_same("fill ellipse center 30,20 radii 20,7 ink #e8b23a", [&](auto& to) {
        fill(to, Ellipse::around({.center = {30, 20}, .radii = {20, 7}}), ink);
    });
    expect_same("fill ellipse at 5,6 size 30,9 ink #e8b23a", [&](auto& to) {
        fill(to, Ellipse::within({.at = {5, 6}, .size = {30, 9}}), ink);
    });
    expect_same("fill polygon through 5,5 50,9 20,35 ink #e8b23a", [&](auto& to) {
        fill(to, Polygon{{5, 5}, {50, 9}, {20, 35}}, ink);
    });
}

TEST(Scene, PolygonsWithRulesEdgesAndRings) {
    const auto rings = Polygon{std::vector<Ring>{{{2, 2}, {50, 2}, {50, 35}, {2, 35}}, {{10, 8}, {40, 8}, {30, 30}}}};
    const std::string through = "through 2,2 50,2 50,35 2,35 through 10,8 40,8 30,30";
    expect_same("fill polygon " + through + " ink teal", [&](auto& to) { fill(to, rings, colors::teal); });
    expect_same("fill polygon rule nonzero " + through + " ink teal",
                [&](auto& to) { fill(to, rings, {.rule = FillRule::nonzero}, colors::teal); });
    expect_same("fill polygon ink teal " + through + " edges shared rule evenodd",
                [&](auto& to) { fill(to, rings, {.edges = Edges::shared}, colors::teal); });
    expect_same("stroke polygon " + through + " ink teal", [&](auto& to) { stroke(to, rings, colors::teal); });
}

TEST(Scene, StrokedShapesAndMarks) {
    const auto ink = colors::white;
    expect_same("stroke box at 3,4 size 20,11 ink white", [&](auto& to) {
        stroke(to, Box{.at = {3, 4}, .size = {20, 11}}, ink);
    });
    expect_same("stroke circle center 30,20 radius 12 ink white", [&](auto& to) {
        stroke(to, Circle{.center = {30, 20}, .radius = 12}, ink);
    });
    expect_same("stroke ellipse at 5,6 size 30,9 ink white", [&](auto& to) {
        stroke(to, Ellipse::within({.at = {5, 6}, .size = {30, 9}}), ink);
    });
    expect_same("stroke line from 3,30 to 55,2 ink white", [&](auto& to) {
        stroke(to, Line{.from = {3, 30}, .to = {55, 2}}, ink);
    });
    expect_same("stroke line through 3,30 55,2 20,38 ink white", [&](auto& to) {
        stroke(to, Polyline{.through = {{3, 30}, {55, 2}, {20, 38}}}, ink);
    });
    expect_same("stroke line closed through 3,30 55,2 20,38 ink white", [&](auto& to) {
        stroke(to, Polyline{.through = {{3, 30}, {55, 2}, {20, 38}}, .closed = true}, ink);
    });
    expect_same("mark at 9,31 ink red", [&](auto& to) { mark(to, {9, 31}, colors::red); });
}

TEST(Scene, LaterStatementsLieOnTopAndTranslucentInksBlend) {
    expect_same("fill box at 0,0 size 30,30 ink red\nfill box at 9,9 size 30,20 ink #00ff0080", [&](auto& to) {
        fill(to, Box{.at = {0, 0}, .size = {30, 30}}, colors::red);
        fill(to, Box{.at = {9, 9}, .size = {30, 20}}, 0x00ff0080_rgba);
    });
}

TEST(Scene, ExpressionsCommentsContinuationAndSpacing) {
    expect_same(
        "  fill\tbox at 3*2-3,(2 + 2) size (4 * (2+3)),22/2 \\ // more\n  ink rgb(232, (170 + 8),58)   // "
        "gold\n\n",
        [&](auto& to) {
            fill(to, Box{.at = {3, 4}, .size = {20, 11}}, 0xe8b23a_rgb);
        });
    expect_same("mark at max(4,9),round(30.6) ink rgba(255,0,0,255)\r\n", [&](auto& to) {
        mark(to, {9, 31}, colors::red);
    });
    expect_same("mark at -1+10,min(31,99) ink gray(196)", [&](auto& to) { mark(to, {9, 31}, gray(196)); });
}

TEST(Scene, SheetGivesSizeAndGround) {
    const auto plain = parse_scene("\xef\xbb\xbf// a comment first\nsheet size 7,5\n");
    EXPECT_EQ(plain.size, (Size{7, 5}));
    EXPECT_EQ(plain.ground, gray(255));
    const auto clear_one = parse_scene("sheet ink #0000 size 3,2");
    EXPECT_EQ(clear_one.sheet<Rgba8>().color_at({2, 1}), 0x00000000_rgba);
}

TEST(Scene, CallsKnowTheirPlaceAndWhatTheyTouch) {
    const auto scene = parse_scene(
        "sheet size 60,40\n\n  fill circle center 30,20 radius 3 ink red\n"
        "stroke line from 70,0 to 70,39 ink red\nmark at 1,1 ink red\n",
        "quay.brick");
    ASSERT_EQ(scene.calls.size(), 3U);
    EXPECT_EQ(scene.calls[0].place, (Place{3, 3}));
    EXPECT_EQ(scene.calls[0].words, "fill circle");
    auto bitmap = scene.sheet<Rgb8>();
    const auto touched = render(scene, bitmap);
    EXPECT_EQ(touched[0], (Box{.at = {27, 17}, .size = {7, 7}}));
    EXPECT_TRUE(touched[1].empty());
    EXPECT_EQ(bounds(scene.calls[1].figure), (Box{.at = {70, 0}, .size = {1, 40}}));
    EXPECT_EQ(explain_unseen(scene, scene.calls[1]),
              "quay.brick:4:1: nothing of this stroke line shows: it lies at 70,0 to 70,39, right of the sheet, "
              "0,0 to 59,39");
}

TEST(Scene, OnlyABoxOfAScene) {
    const auto scene = parse_scene("sheet size 60,40 ink navy\nfill circle center 30,20 radius 15 ink gold\n");
    auto part = scene.sheet<Rgb8>();
    constexpr auto box = Box{.at = {20, 10}, .size = {12, 9}};
    EXPECT_EQ(render(scene, part.within(box))[0], box);
    EXPECT_EQ(part.color_at({20, 10}), colors::gold);
    EXPECT_EQ(part.color_at({32, 10}), colors::navy);
}

TEST(Scene, WhyNothingShows) {
    const auto why = [](const std::string& statement) {
        const auto scene = parse_scene("sheet size 60,40\n" + statement);
        return explain_unseen(scene, scene.calls[0]);
    };
    EXPECT_NE(why("mark at -1,-1 ink red").find("above and left of the sheet"), std::string::npos);
    EXPECT_NE(why("mark at 9,40 ink red").find("it lies at 9,40, below the sheet"), std::string::npos);
    EXPECT_NE(why("stroke circle center 30,20 radius 90 ink red").find("but none of its pixels is on the sheet"),
              std::string::npos);
    EXPECT_NE(why("fill polygon through 1,1 9,9 edges shared ink red").find("it covers no pixel at all"),
              std::string::npos);
}

TEST(Scene, NearWordsAreFound) {
    EXPECT_EQ(nearest_word("cirlce", {"circle", "ellipse"}), "circle");
    EXPECT_EQ(nearest_word("ellipes", {"circle", "ellipse"}), "ellipse");
    EXPECT_EQ(nearest_word("zzz", {"circle", "ellipse"}), "");
    EXPECT_EQ(nearest_word("", {"circle"}), "");
}

}  // namespace
