// Scenes: inks, smooth edges, groups, palettes.
#include "oracle.hpp"

#include <coldbrick/coldbrick.hpp>

namespace {

using namespace coldbrick;

Bitmap<Rgba8> picture_of(const std::string& statements) {
    const auto scene = parse_scene("sheet size 60,40 ink navy\n" + statements);
    auto bitmap = scene.sheet<Rgba8>();
    render(scene, bitmap);
    return bitmap;
}

template <class Draw>
void expect_same(const std::string& statements, const Draw& draw) {
    Bitmap<Rgba8> expected{{60, 40}, colors::navy};
    draw(expected);
    EXPECT_EQ(picture_of(statements).bytes(), expected.bytes()) << statements;
    EXPECT_NE(expected.bytes(), (Bitmap<Rgba8>{{60, 40}, colors::navy}).bytes()) << statements << " shows nothing";
}

std::vector<Fault> faults_of(const std::string& statements) {
    try {
        (void)parse_scene("sheet size 60,40\n" + statements);
    } catch (const SceneError& error) {
        return error.faults();
    }
    return {};
}

constexpr auto smooth = Fill{.edge = Edge::smooth};

TEST(SceneInks, SmoothEdgesAndFractions) {
    const auto disc = Circle{.center = {30, 20}, .radius = 12};
    expect_same("fill circle center 30,20 radius 12 smooth ink gold",
                [&](auto& to) { fill(to, disc, smooth, colors::gold); });
    expect_same(
        "edges smooth\nfill circle center 30,20 radius 12 ink gold\nfill circle center 9,9 radius 5 crisp ink red",
        [&](auto& to) {
            fill(to, disc, smooth, colors::gold);
            fill(to, Circle{.center = {9, 9}, .radius = 5}, colors::red);
        });
    expect_same("stroke line from 3.5,2 to 50,30.25 width 3 smooth ink white", [](auto& to) {
        stroke(to, subpixel::Line{.from = {3.5, 2}, .to = {50, 30.25}}, {.width = 3, .edge = Edge::smooth},
               colors::white);
    });
    expect_same("fill box at 3.5,2 size 20,10.5 corner_radius 2.5 ink white", [](auto& to) {
        fill(to, subpixel::RoundedBox{.box = {.at = {3.5, 2}, .size = {20, 10.5}}, .corner_radius = 2.5},
             colors::white);
    });
    expect_same("fill sector center 30.5,20.5 radius 15 sweep 20,90 smooth ink white", [](auto& to) {
        const auto sweep = Sweep{.from = Angle::degrees(20), .by = Angle::degrees(70)};
        fill(to, subpixel::Sector{.of = subpixel::Circle{{30.5, 20.5}, 15}, .sweep = sweep}, smooth, colors::white);
    });
    expect_same("fill polygon through 3,3 50.5,9 20,35 edges shared ink white", [](auto& to) {
        fill(to, subpixel::Polygon{{3, 3}, {50.5, 9}, {20, 35}}, {.edges = Edges::shared}, colors::white);
    });
}

TEST(SceneInks, OpacityBlendChannelsAndLight) {
    const auto box = Box{.at = {5, 6}, .size = {20, 11}};
    const auto expect_laid = [&](const std::string& words, const Compositing& how) {
        expect_same("fill box at 5,6 size 20,11 ink coral " + words, [&](auto& to) {
            fill(to, box, Ink{colors::coral, how});
        });
    };
    expect_laid("opacity 40%", {.opacity = 0.4});
    expect_laid("opacity 0.4 blend multiply", {.opacity = 0.4, .blend = Blend::multiply});
    expect_laid("blend exclusive_or", {.blend = Blend::exclusive_or});
    expect_laid("channels red,blue blend replace",
                {.blend = Blend::replace, .channels = Channels::red | Channels::blue});
    expect_laid("opacity 50% light linear", {.opacity = 0.5, .light = Light::linear});
}

TEST(SceneInks, NamesOfColorsGradientsHatchesPatterns) {
    const auto box = Box{.at = {5, 6}, .size = {40, 30}};
    expect_same("color dusk = #39466b\ncolor it = dusk\nfill box at 5,6 size 40,30 ink it",
                [&](auto& to) { fill(to, box, 0x39466b_rgb); });
    expect_same("color c = hsl(120,100%,25%)\nfill box at 5,6 size 40,30 ink c",
                [&](auto& to) { fill(to, box, colors::green); });
    expect_same(
        "gradient g = linear from 5,0 to 44,9 stops 0,red 0.5,gold 100%,teal spread reflect dither ordered\n"
        "fill box at 5,6 size 40,30 ink g",
        [&](auto& to) {
            fill(to, box,
                 LinearGradient{{5, 0},
                                {44, 9},
                                {{0, colors::red}, {0.5, colors::gold}, {1, colors::teal}},
                                Spread::reflect,
                                Placing::target,
                                Dither::ordered});
        });
    expect_same(
        "gradient g = radial center 0.5,0.5 radius 0.4 stops 0,white 1,black placing shape\nfill box at 5,6 size 40,30 "
        "ink g",
        [&](auto& to) {
            fill(
                to, box,
                RadialGradient{{0.5, 0.5}, 0.4, {{0, colors::white}, {1, colors::black}}, Spread::pad, Placing::shape});
        });
    expect_same(
        "gradient g = conic center 20,20 from 90 stops 0,white 1,black\nfill box at 5,6 size 40,30 ink g",
        [&](auto& to) {
            fill(to, box, ConicGradient{{20, 20}, Angle::degrees(90), {{0, colors::white}, {1, colors::black}}});
        });
    expect_same(
        "hatch h = spacing 5 angle 30 width 1.5 ink white ground teal offset 1,2\nfill box at 5,6 size 40,30 ink h",
        [&](auto& to) {
            fill(to, box, Hatch{5, Angle::degrees(30), 1.5, colors::white, colors::teal, {1, 2}});
        });
    expect_same(
        "pattern p = size 4,3 ink teal offset 1,1\nmark at 2,1 ink white\nend\nfill box at 5,6 size 40,30 ink p",
        [&](auto& to) {
            Bitmap<Rgba8> tile{{4, 3}, colors::teal};
            mark(tile, {2, 1}, colors::white);
            fill(to, box, Pattern::of(tile, {.offset = {1, 1}}));
        });
}

TEST(SceneInks, GroupsAndSmoothClips) {
    const auto disc = Circle{.center = {0, 0}, .radius = 8};
    expect_same("move by 30,20\nfill circle center 0,0 radius 8 smooth ink gold\nend", [&](auto& to) {
        fill(to, transformed(filled(disc, smooth), Transform{}.move({30, 20})), colors::gold);
    });
    // The inner group comes first.
    expect_same("move by 30,20\nturn by 30\nscale by 1.5,1\nfill box at -8,-5 size 17,11 ink gold\nend\nend\nend",
                [](auto& to) {
                    const auto by = Transform{}.scale({1.5, 1}).turn(Angle::degrees(30)).move({30, 20});
                    fill(to, transformed(Box{.at = {-8, -5}, .size = {17, 11}}, by), colors::gold);
                });
    expect_same(
        "turn by 90 about 30,20\nmark at 30,10 ink gold\nend\nshear by 0.5,0 about 0,20\nstroke line from 5,5 to 5,30 "
        "width 3 ink red\nend",
        [](auto& to) {
            mark(to, {40, 20}, colors::gold);
            const auto by = Transform{}.move({0, -20}).shear({0.5, 0}).move({0, 20});
            fill(to, transformed(stroked(Line{.from = {5, 5}, .to = {5, 30}}, {.width = 3}), by), colors::red);
        });
    expect_same("clip circle center 30,20 radius 12 smooth\nfill box at 0,0 size 60,40 ink gold\nend", [](auto& to) {
        const SmoothRegion clip{filled(Circle{.center = {30, 20}, .radius = 12}, smooth)};
        fill(to.within(clip), Box{.at = {0, 0}, .size = {60, 40}}, colors::gold);
    });
    expect_same("move by 10,0\nclip circle center 20,20 radius 12\nfill box at -10,0 size 60,40 ink gold\nend\nend",
                [](auto& to) {
                    fill(to, Circle{.center = {30, 20}, .radius = 12}, colors::gold);
                });
}

TEST(SceneInks, Palettes) {
    const auto scene = parse_scene("sheet size 8,8 ink #10202c\npalette quay\nfill box at 1,1 size 3,3 ink entry(5)\n");
    ASSERT_TRUE(scene.palette);
    auto display = scene.sheet<Index8>();
    render(scene, display);
    EXPECT_EQ(display.bytes()[0], 0);
    EXPECT_EQ(display.bytes()[9], 5);
    EXPECT_EQ(parse_scene("sheet size 8,8\npalette #000 #fff red\n").palette,
              (Palette{{gray(0), gray(255), colors::red}}));
}

TEST(SceneInks, FaultsAreToldWithTheirPlace) {
    struct Case {
        std::string statement;
        std::string what;
    };
    for (const auto& [statement, what] :
         {Case{"gradient g = linear from 0,0 to 9,9 stops 0.5,red 0.2,blue",
               "linear gradient: stop 1 is at 0.2, before the one at 0.5; stops go upwards"},
          Case{"gradient g = linear from 0,0 to 9,9", "'gradient linear' needs stops"},
          Case{"gradient g = liner from 0,0 to 9,9 stops 0,red", "unknown gradient 'liner'"},
          Case{"gradient g linear", "'gradient' needs a name and '='"},
          Case{"gradient g = linear from 0,0 to 9,9 stops red", "'stops' has no value after it"},
          Case{"color 9x = red", "'9x' is no name"},
          Case{"color x = rde", "'rde' is no colour"},
          Case{"fill box at 1,2 size 3,4 ink red opacity 130%", "this is 130%; allowed is 0% to 100%"},
          Case{"fill box at 1,2 size 3,4 ink red blend multply", "unknown blend 'multply'"},
          Case{"fill box at 1,2 size 3,4 ink red channels cyan", "unknown channel 'cyan'"},
          Case{"fill box at 1,2 size 3,4 smooth crisp ink red", "edges are smooth or crisp, not both"},
          Case{"fill box at 1,2 size 3,4 ink entry(2)", "the sheet has no palette"},
          Case{"palette quey", "unknown palette 'quey'"},
          Case{"edges soft", "unknown edges 'soft'"},
          Case{"scale by 0\nend", "scaled by 0, everything would be flat"},
          Case{"turn by 30", "this turn has no end"},
          Case{"hatch h = spacing 0.5 ink red", "this is 0.5; allowed is 1 to 1073741823"},
          Case{"pattern p = size 5000,2\nend", "a pattern is at most 4096 pixels wide and high"},
          Case{"clip circle center 9,9 radius 4 smooth plus box at 1,1 size 3,3\nend",
               "a smooth clip has one shape, or shapes within each other"},
          Case{"gradient g = linear from 0,0 to 9,9 stops 0,red 1,blue\nsheet size 3,3 ink g",
               "the sheet is given twice"},
          Case{"gradient g = linear from 0,0 to 9,9 stops 0,red 1,blue\nhatch h = spacing 4 ink g",
               "'g' is an ink of more than one colour; a colour is needed here"}}) {
        const auto faults = faults_of(statement);
        ASSERT_FALSE(faults.empty()) << statement;
        EXPECT_EQ(faults[0].what, what) << statement;
        EXPECT_GE(faults[0].place.line, 2) << statement;
    }
    EXPECT_EQ(faults_of("fill box at 1,2 size 3,4 ink goldd")[0].advice, "did you mean 'gold'?");
    EXPECT_EQ(faults_of("color quayside = red\nfill box at 1,2 size 3,4 ink quaysid")[0].advice,
              "did you mean 'quayside'?");
}

}  // namespace
