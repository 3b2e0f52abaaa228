// Scenes: what each statement draws is what the C++ call of the same words draws.
#include "oracle.hpp"

#include <coldbrick/flood.hpp>
#include <coldbrick/path.hpp>
#include <coldbrick/region.hpp>
#include <coldbrick/save_drawing.hpp>
#include <coldbrick/scene.hpp>
#include <coldbrick/vertices.hpp>

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
    const auto rings =
        Polygon{std::vector<Polygon::Vertices>{{{2, 2}, {50, 2}, {50, 35}, {2, 35}}, {{10, 8}, {40, 8}, {30, 30}}}};
    const std::string through = "through 2,2 50,2 50,35 2,35 through 10,8 40,8 30,30";
    expect_same("fill polygon " + through + " ink teal", [&](auto& to) { fill(to, rings, colors::teal); });
    expect_same("fill polygon rule nonzero " + through + " ink teal",
                [&](auto& to) { fill(to, rings, {.rule = FillRule::nonzero}, colors::teal); });
    expect_same("fill polygon ink teal " + through + " edges shared rule even_odd",
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

TEST(Scene, StrokesOfEveryKind) {
    const auto ink = colors::gold;
    const auto line = Line{.from = {10, 30}, .to = {50, 12}};
    expect_same("stroke line from 10,30 to 50,12 width 7 cap round ink gold",
                [&](auto& to) { stroke(to, line, {.width = 7, .cap = Cap::round}, ink); });
    expect_same("stroke line from 10,30 to 50,12 width 4 dash 5,2.5 dash_offset -1 cap square ink gold", [&](auto& to) {
        stroke(to, line, {.width = 4, .cap = Cap::square, .dash = {5, 2.5}, .dash_offset = -1}, ink);
    });
    expect_same("stroke polygon through 8,8 50,9 20,35 width 5 join bevel align inside ink gold", [&](auto& to) {
        stroke(to, Polygon{{8, 8}, {50, 9}, {20, 35}}, {.width = 5, .align = Align::inside, .join = Join::bevel}, ink);
    });
    expect_same("stroke line through 8,30 30,8 52,30 width 9 miter_limit 1.5 join miter ink gold", [&](auto& to) {
        stroke(to, Polyline{.through = {{8, 30}, {30, 8}, {52, 30}}}, {.width = 9, .miter_limit = 1.5}, ink);
    });
    expect_same("stroke circle center 30,20 radius 12 width 6 align outside ink gold", [&](auto& to) {
        stroke(to, Circle{.center = {30, 20}, .radius = 12}, {.width = 6, .align = Align::outside}, ink);
    });
    expect_same("stroke box at 9,8 size 30,20 corner_radius 6 width 4 join round ink gold", [&](auto& to) {
        stroke(to, RoundedBox{.box = {{9, 8}, {30, 20}}, .corner_radius = 6}, {.width = 4, .join = Join::round}, ink);
    });
}

TEST(Scene, RoundShapesAndSweeps) {
    const auto circle = Circle{.center = {30, 20}, .radius = 14};
    const auto turned = Ellipse::around({.center = {30, 20}, .radii = {22, 9}, .turned = 0.125_turn});
    const auto ink = colors::coral;
    expect_same("stroke arc center 30,20 radius 14 sweep 197,243 width 3 ink coral", [&](auto& to) {
        stroke(to, Arc{.of = circle, .sweep = {.from = 197_deg, .by = 46_deg}}, {.width = 3}, ink);
    });
    expect_same("stroke arc center 30,20 radius 14 sweep 197,243 counterclockwise ink coral",
                [&](auto& to) { stroke(to, Arc{.of = circle, .sweep = {.from = 197_deg, .by = -314_deg}}, ink); });
    expect_same("fill sector center 30,20 radii 22,9 turned 0.125turn sweep 0.25turn by -100 ink coral",
                [&](auto& to) { fill(to, Sector{.of = turned, .sweep = {.from = 90_deg, .by = -100_deg}}, ink); });
    expect_same("fill chord at 5,6 size 31,18 sweep 350,(10+90) ink coral", [&](auto& to) {
        fill(to, Chord{.of = Ellipse::within({{5, 6}, {31, 18}}), .sweep = {.from = 350_deg, .by = 110_deg}}, ink);
    });
    expect_same("fill ellipse center 30,20 radii 22,9 turned 45deg ink coral",
                [&](auto& to) { fill(to, turned, ink); });
    expect_same("stroke chord center 30,20 radius 14 sweep 1.5rad by 3rad width 2 ink coral", [&](auto& to) {
        stroke(to, Chord{.of = circle, .sweep = {.from = 1.5_rad, .by = 3_rad}}, {.width = 2}, ink);
    });
}

TEST(Scene, AnchorsStarsAndPaths) {
    const auto ink = colors::teal;
    expect_same("fill box anchor bottom_right at 40,30 size 12,9 ink teal", [&](auto& to) {
        fill(to, Box{.at = {29, 22}, .size = {12, 9}}, ink);
    });
    expect_same("fill box anchor center at 30,20 size 12,9 ink teal", [&](auto& to) {
        fill(to, Box{.at = {24, 16}, .size = {12, 9}}, ink);
    });
    expect_same("fill circle anchor bottom at 30,30 radius 8 ink teal", [&](auto& to) {
        fill(to, Circle{.center = {30, 22}, .radius = 8}, ink);
    });
    expect_same("fill ellipse anchor top at 30,5 size 21,9 ink teal", [&](auto& to) {
        fill(to, Ellipse::within({.at = {20, 5}, .size = {21, 9}}), ink);
    });
    expect_same("fill star center 30,20 radius 15 points 7 inner_radius 6 turned 10 ink teal", [&](auto& to) {
        fill(to, star({.center = {30, 20}, .radius = 15, .points = 7, .inner_radius = 6, .turned = 10_deg}), ink);
    });
    expect_same("stroke polygon center 30,20 radius 15 points 6 width 3 ink teal", [&](auto& to) {
        stroke(to, regular_polygon({.center = {30, 20}, .radius = 15, .points = 6}), {.width = 3}, ink);
    });
    const auto* const data = "M5,35 C 10,0 40,0 50,35 // no comment";
    expect_same("fill path rule nonzero data \"M5,35 C 10,0 40,0 50,35Z\" ink teal // a comment",
                [&](auto& to) { fill(to, parse_path("M5,35 C 10,0 40,0 50,35Z"), {.rule = FillRule::nonzero}, ink); });
    EXPECT_THROW((void)parse_path(data), PathError);
    expect_same("stroke path data \"M5,35 Q 30,-20 55,35\" width 3 ink teal",
                [&](auto& to) { stroke(to, parse_path("M5,35 Q 30,-20 55,35"), {.width = 3}, ink); });
}

TEST(Scene, RegionsClipsAndFloods) {
    const auto left = Region{Circle{.center = {24, 20}, .radius = 12}};
    const auto right = Region{Circle{.center = {36, 20}, .radius = 12}};
    const auto ink = colors::gold;
    const std::string a = "circle center 24,20 radius 12";
    const std::string b = "circle center 36,20 radius 12";
    expect_same("fill region " + a + " plus " + b + " ink gold", [&](auto& to) { fill(to, unite(left, right), ink); });
    expect_same("fill region " + a + " minus " + b + " ink gold",
                [&](auto& to) { fill(to, difference(left, right), ink); });
    expect_same("fill region ink gold " + a + " within " + b,
                [&](auto& to) { fill(to, intersection(left, right), ink); });
    expect_same("stroke region " + a + " exclusive_or " + b + " width 3 align inside ink gold", [&](auto& to) {
        stroke(to, symmetric_difference(left, right), {.width = 3, .align = Align::inside}, ink);
    });
    expect_same("clip " + a + "\n fill box at 0,0 size 60,20 ink gold\n clip stroke " + b +
                    " width 5\n  fill box at 0,0 size 60,40 ink red\n end\nend\nmark at 1,1 ink gold",
                [&](auto& to) {
                    fill(to.within(left), Box{{0, 0}, {60, 20}}, ink);
                    const Region ring{stroked(Circle{.center = {36, 20}, .radius = 12}, {.width = 5})};
                    fill(to.within(left).within(ring), Box{{0, 0}, {60, 40}}, colors::red);
                    mark(to, {1, 1}, ink);
                });
    expect_same(
        "stroke " + a + " ink white\nflood from 24,20 ink gold\nflood from 0,0 tolerance 3 neighbors eight ink red",
        [&](auto& to) {
            stroke(to, Circle{.center = {24, 20}, .radius = 12}, colors::white);
            fill(to, flood(to, {.from = {24, 20}}), ink);
            fill(to, flood(to, {.from = {0, 0}, .tolerance = 3, .neighbors = Neighbors::eight}), colors::red);
        });
}

TEST(Scene, ClipsThatHideAreTold) {
    const auto scene = parse_scene(
        "sheet size 60,40\nclip box at 0,0 size 9,9\nfill box at 20,20 size 5,5 ink red\nend\n"
        "clip box at 90,0 size 9,9\nmark at 3,3 ink red\nend\nflood from 70,0 ink red");
    auto sheet = scene.sheet<Rgb8>();
    for (const auto& touched : render(scene, sheet)) EXPECT_TRUE(touched.empty());
    EXPECT_TRUE(
        explain_unseen(scene, 0).ends_with("the clip that it is in within 0,0 to 8,8; they have no pixel in common"));
    EXPECT_TRUE(explain_unseen(scene, 1).ends_with("the clip that it is in has no pixel on the sheet"));
    EXPECT_TRUE(explain_unseen(scene, 2).ends_with("it lies at 70,0, 11 pixels right of the sheet, 0,0 to 59,39"));
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
    ASSERT_EQ(scene.drawing.size(), 3U);
    EXPECT_EQ(scene.place_of(0), (Place{3, 3}));
    EXPECT_EQ(scene.kind_of(0), "fill circle");
    auto bitmap = scene.sheet<Rgb8>();
    const auto touched = render(scene, bitmap);
    EXPECT_EQ(touched[0], (Box{.at = {27, 17}, .size = {7, 7}}));
    EXPECT_TRUE(touched[1].empty());
    EXPECT_EQ(scene.drawing[1].bounds(), (Box{.at = {70, 0}, .size = {1, 40}}));
    EXPECT_EQ(
        explain_unseen(scene, 1),
        "quay.brick:4:1: nothing of this stroke line shows: it lies at 70,0 to 70,39, 11 pixels right of the sheet, "
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
        return explain_unseen(scene, 0);
    };
    EXPECT_NE(why("mark at -1,-1 ink red").find("1 pixel above and 1 pixel left of the sheet"), std::string::npos);
    EXPECT_NE(why("mark at 9,40 ink red").find("it lies at 9,40, 1 pixel below the sheet"), std::string::npos);
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

// What the tables have, help has.
TEST(Scene, UsageNamesAllStatementsAndShapes) {
    const auto usage = scene_usage();
    for (const auto* const word :
         {"sheet",   "clip",  "color",   "edges",   "end",   "fill",   "flood", "gradient", "hatch", "mark",  "move",
          "palette", "paste", "pattern", "scale",   "shear", "stroke", "turn",  "arc",      "box",   "chord", "circle",
          "ellipse", "line",  "path",    "polygon", "ring",  "sector", "star",  "text",     "region"}) {
        EXPECT_NE(usage.find("    " + std::string{word} + " "), std::string::npos) << word;
    }
    for (std::size_t begin = 0; begin < usage.size();) {
        const auto end = usage.find('\n', begin);
        EXPECT_LE(end - begin, 160U) << usage.substr(begin, end - begin);
        begin = end + 1;
    }
}

TEST(Scene, WordsOfTheVersionBeforeAreTakenWithARemark) {
    const std::string now =
        "fill box at 2,2 size 20,10 corner_radius 3 ink gold\n"
        "fill polygon rule even_odd through 1,1 50,1 15,30 ink red\n"
        "fill region circle center 20,20 radius 9 exclusive_or box at 9,9 size 20,9 blend exclusive_or ink teal\n"
        "stroke line from 40,9 to 50,30 cap round width 5 ink teal\n";
    auto before = now;
    const auto replace = [&](const std::string& word, const std::string& old) {
        for (auto at = before.find(word); at != std::string::npos; at = before.find(word)) {
            before.replace(at, word.size(), old);
        }
    };
    replace("corner_radius", "round");
    replace("even_odd", "evenodd");
    replace("exclusive_or", "xor");
    EXPECT_EQ(picture_of(before).bytes(), picture_of(now).bytes());
    const auto head = std::string{"sheet size 60,40 ink navy\n"};
    EXPECT_TRUE(parse_scene(head + now).remarks.empty());
    const auto remarks = parse_scene(head + before).remarks;
    ASSERT_EQ(remarks.size(), 4U);
    // No name may be one of them either.
    EXPECT_THROW((void)parse_scene(head + "let xor = 3\nmark at xor,1 ink red\n"), Error);
    EXPECT_EQ(remarks[0].what, "'round' is an old spelling: write 'corner_radius'");
    EXPECT_EQ(remarks[0].place.line, 2);
    EXPECT_EQ(remarks[0].place.column, 28);
}

int boxes_drawn = 0;
void count_box(std::size_t, const Box& box) { boxes_drawn += box.empty() ? 0 : 1; }

TEST(Scene, APlainFunctionGetsTheBoxOfEachCall) {
    const auto scene = parse_scene("sheet size 60,40 ink navy\nmark at 3,4 ink red\nmark at 99,4 ink red\n");
    auto bitmap = scene.sheet<Rgb8>();
    render(scene, bitmap, count_box);
    EXPECT_EQ(boxes_drawn, 1);
    auto explained = scene.sheet<Rgb8>();
    int calls = 0;
    const auto all = render_explained(scene, explained, [&] { ++calls; });
    EXPECT_EQ(calls, 4);
    EXPECT_EQ(all.calls[1].showing, Showing::outside);
    EXPECT_EQ(explained.bytes(), bitmap.bytes());
}

TEST(Scene, SaysWhichFilesAreWrittenByRows) {
    for (const auto format : {FileFormat::png, FileFormat::pgm, FileFormat::qoi, FileFormat::bmp}) {
        EXPECT_TRUE(saves_by_rows(format));
    }
    for (const auto format : {FileFormat::gif, FileFormat::jpeg, FileFormat::webp}) EXPECT_FALSE(saves_by_rows(format));
}

}  // namespace
