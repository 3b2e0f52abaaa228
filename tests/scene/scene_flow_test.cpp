// Scenes that compute: loops, conditions, shapes of one's own, frames, other files; and what they may take.
#include "folder_test.hpp"

#include <coldbrick/coldbrick.hpp>

#include <chrono>
#include <functional>
#include <random>
#include <string>
#include <thread>

namespace {

using namespace coldbrick;

constexpr Size sheet_size{120, 80};

Bitmap<Rgb8> drawn_by(const std::string& statements) {
    const auto scene = parse_scene("sheet size 120,80 ink navy\n" + statements);
    auto sheet = scene.sheet<Rgb8>();
    render(scene, sheet);
    return sheet;
}

// A scene and the C++ program that does the same give the same bytes.
void expect_same(const std::string& statements, const std::function<void(Bitmap<Rgb8>&)>& draw) {
    Bitmap<Rgb8> expected{sheet_size, colors::navy};
    draw(expected);
    EXPECT_EQ(drawn_by(statements).bytes(), expected.bytes()) << statements;
    EXPECT_NE(expected.bytes(), (Bitmap<Rgb8>{sheet_size, colors::navy}).bytes()) << statements << " shows nothing";
}

std::string fault_of(const std::string& text, const SceneLimits& limits = {}, const std::string& folder = {}) {
    return error_of([&] {
        const auto scene = parse_scene("sheet size 120,80 ink navy\n" + text + "\n", "quay.brick", folder, limits);
        auto sheet = scene.sheet<Rgb8>();
        render(scene, sheet);
    });
}

void expect_part(const std::string& text, const std::string& part) {
    EXPECT_NE(text.find(part), std::string::npos) << part << "\n" << text;
}

TEST(SceneFlow, LoopsCountAndStep) {
    expect_same("repeat 7 as i\nmark at i*3,5 ink red\nend", [](auto& to) {
        for (int i = 0; i < 7; ++i) mark(to, {i * 3, 5}, colors::red);
    });
    expect_same("repeat from 10 to 100 step 15 as x number n\nfill box at x,n*8 size 5,5 ink rgb(x,0,n*40)\nend",
                [](auto& to) {
                    for (int n = 0; n < 7; ++n) {
                        fill(to, Box{.at = {10 + n * 15, n * 8}, .size = {5, 5}},
                             Color{static_cast<std::uint8_t>(10 + n * 15), 0, static_cast<std::uint8_t>(n * 40)});
                    }
                });
    expect_same("repeat from 3 to 1 step -1 as x\nrepeat 2 as y\nmark at x,y ink red\nend\nend", [](auto& to) {
        fill(to, Box{.at = {1, 0}, .size = {3, 2}}, colors::red);
    });
    // Tenths do not add up, and both ends belong to it all the same.
    expect_same("repeat from 0 to 1 step 0.1 as x\nmark at round(x*10),0 ink red\nend", [](auto& to) {
        fill(to, Box{.at = {0, 0}, .size = {11, 1}}, colors::red);
    });
    expect_same(
        "repeat 0\nmark at 1,1 ink red\nend\nrepeat from 1 to 0 as i\nmark at i,1 ink red\nend\nmark at 0,0 ink red",
        [](auto& to) {
            mark(to, {0, 0}, colors::red);
        });
}

TEST(SceneFlow, ConditionsTakeOneBranch) {
    const auto branch = [](int tide) {
        return "let tide = " + std::to_string(tide) +
               "\nwhen tide > 3\nmark at 1,1 ink red\notherwise when tide > 1\nmark at 2,1 ink red\n"
               "otherwise when tide == 1\nmark at 3,1 ink red\notherwise\nmark at 4,1 ink red\nend\nmark at 0,0 ink "
               "red\n";
    };
    for (const auto& [tide, x] : {std::pair{4, 1}, std::pair{3, 2}, std::pair{1, 3}, std::pair{0, 4}}) {
        const auto at = x;
        expect_same(branch(tide), [=](auto& to) {
            mark(to, {at, 1}, colors::red);
            mark(to, {0, 0}, colors::red);
        });
    }
    expect_same("when 0\nwhen 1\nmark at 1,1 ink red\nend\nend\nwhen 1\nwhen 0\nend\nmark at 2,2 ink red\nend",
                [](auto& to) {
                    mark(to, {2, 2}, colors::red);
                });
}

TEST(SceneFlow, ShapesOfOnesOwnAreDrawnFromTheirOwnOrigin) {
    const auto buoy = [](auto& to, Point at, int size, Color tint) {
        fill(to, Circle{.center = at, .radius = size}, tint);
        stroke(to, Line{.from = at, .to = {at.x, at.y - 2 * size}}, {.width = 3}, colors::white);
    };
    expect_same(
        "shape buoy at, size = 6, tint = red\n"
        "fill circle center 0,0 radius size ink tint\n"
        "stroke line from 0,0 to 0,-2*size width 3 ink white\nend\n"
        "use buoy at 20,30\nuse buoy tint gold at 50,30 size 9\n"
        "let spot = 90,40\nuse buoy at spot+(1,2) size 4+4",
        [&](auto& to) {
            buoy(to, {20, 30}, 6, colors::red);
            buoy(to, {50, 30}, 9, colors::gold);
            buoy(to, {91, 42}, 8, colors::red);
        });
    // They nest, see what stands around them, and have values of their own; defaults may be of those before.
    expect_same(
        "let wide = 4\nshape pair at, gap = 10, half = gap/2\n"
        "shape dot at\nfill box at 0,0 size wide,half ink red\nend\n"
        "use dot at 0,0\nuse dot at gap,0\nend\n"
        "use pair at 5,5\nuse pair at 5,30 gap 20",
        [](auto& to) {
            for (const auto x : {5, 15}) fill(to, Box{.at = {x, 5}, .size = {4, 5}}, colors::red);
            for (const auto x : {5, 25}) fill(to, Box{.at = {x, 30}, .size = {4, 10}}, colors::red);
        });
    // Groups around them hold, and their edges are their own.
    expect_same(
        "shape disc at\nedges smooth\nfill circle center 0,0 radius 8 ink red\nend\n"
        "scale by 2\nuse disc at 15,15\nend\nfill circle center 90,30 radius 8 ink red",
        [](auto& to) {
            fill(to,
                 transformed(filled(Circle{.center = {0, 0}, .radius = 8}, {.edge = Edge::smooth}),
                             Transform{}.move({15, 15}).scale(2)),
                 colors::red);
            fill(to, Circle{.center = {90, 30}, .radius = 8}, colors::red);
        });
}

// A tree of boxes, by a shape that uses itself.
void branch(Bitmap<Rgb8>& to, Point at, int size) {
    fill(to, Box{.at = at, .size = {size, size}}, colors::red);
    if (size < 2) return;
    branch(to, {at.x - size, at.y + size}, size / 2);
    branch(to, {at.x + size, at.y + size}, size / 2);
}

TEST(SceneFlow, ShapesMayUseThemselves) {
    expect_same(
        "shape branch at, size\nfill box at 0,0 size size,size ink red\n"
        "when size >= 2\nuse branch at -size,size size floor(size/2)\nuse branch at size,size size "
        "floor(size/2)\nend\nend\n"
        "use branch at 60,4 size 16",
        [](auto& to) {
            branch(to, {60, 4}, 16);
        });
    const auto fault = fault_of("shape hole at\nuse hole at 1,1\nend\nuse hole at 0,0", {.depth = 50});
    expect_part(fault, "stand more than 50 deep in each other");
    expect_part(fault, "a greater limit 'depth' allows more");
    expect_part(fault, "in use hole at line 3, use hole at line 3");
    expect_part(fault, ", and 42 more around it");
}

TEST(SceneFlow, EveryStatementWorksInLoopsAndShapes) {
    expect_same(
        "shape all at, n\ncolor tint = rgb(n*40,0,0)\ngradient g = linear from 0,0 to 20,0 stops 0,tint n/4,gold "
        "1,white\n"
        "hatch h = spacing 3+n ink tint\npattern p = size 4+n,4\nfill box at 0,0 size n+1,2 ink tint\nend\n"
        "clip box at 0,0 size 18,18 minus circle center 9,9 radius 3+n\n"
        "fill box at 0,0 size 20,20 ink g\nfill box at 0,10 size 9,9 ink h\nfill box at 9,10 size 9,9 ink p\nend\n"
        "move by n,n\nstroke star center 5,5 radius 5 points 4+n ink white\nend\n"
        "fill region box at 0,0 size 3,3 plus circle center 10,2 radius n ink lime\n"
        "flood from 0,0 ink red\nend\n"
        "repeat 4 as i\nuse all at i*25+2,30 n i+1\nend",
        [](auto& to) {
            for (int n = 1; n <= 4; ++n) {
                const auto statements =
                    "color tint = rgb(" + std::to_string(n * 40) +
                    ",0,0)\ngradient g = linear from 0,0 to 20,0 stops 0,tint " + std::to_string(n / 4.0) +
                    ",gold 1,white\nhatch h = spacing " + std::to_string(3 + n) + " ink tint\npattern p = size " +
                    std::to_string(4 + n) + ",4\nfill box at 0,0 size " + std::to_string(n + 1) +
                    ",2 ink tint\nend\nmove by " + std::to_string(25 * n - 23) +
                    ",30\nclip box at 0,0 size 18,18 minus circle center 9,9 radius " + std::to_string(3 + n) +
                    "\nfill box at 0,0 size 20,20 ink g\nfill box at 0,10 size 9,9 ink h\nfill box at 9,10 size 9,9 "
                    "ink p\nend\n"
                    "move by " +
                    std::to_string(n) + "," + std::to_string(n) + "\nstroke star center 5,5 radius 5 points " +
                    std::to_string(4 + n) +
                    " ink white\nend\nfill region box at 0,0 size 3,3 plus circle center 10,2 radius " +
                    std::to_string(n) + " ink lime\nflood from 0,0 ink red\nend\n";
                const auto scene = parse_scene("sheet size 120,80\n" + statements);
                render(scene, to);
            }
        });
}

TEST(SceneFlow, WhatIsDrawnCanBeMeasured) {
    const auto scene = parse_scene(
        "sheet size 120,80\nfill text \"OTTER\" at 20,40 height 14 ink black as word\n"
        "dial left = word.left from -999 to 999\ndial top = word.top from -999 to 999\n"
        "dial right = word.right from -999 to 999\ndial bottom = word.bottom from -999 to 999\n"
        "dial width2 = word.width from -999 to 999\ndial height2 = last.height from -999 to 999\n");
    const auto box = bounds(scene.drawing[0].figure().value());
    const auto value = [&](std::size_t number) { return scene.dials[number].value; };
    EXPECT_EQ(value(0), box.at.x);
    EXPECT_EQ(value(1), box.at.y);
    EXPECT_EQ(value(2), box.last().x);
    EXPECT_EQ(value(3), box.last().y);
    EXPECT_EQ(value(4), box.size.width);
    EXPECT_EQ(value(5), box.size.height);
    // Measured before it is drawn, so that what is around it can lie below it; in groups, in their coordinates.
    expect_same(
        "move by 20,10\nmeasure circle center 20,20 radius 7 as c\nfill box at c.at-(2,2) size c.size+(4,4) ink gold\n"
        "fill circle center 20,20 radius 7 ink red\nend\n"
        "stroke box at last.left,last.top size last.width,last.height ink white",
        [](auto& to) {
            fill(to, Box{.at = {31, 21}, .size = {19, 19}}, colors::gold);
            fill(to, Circle{.center = {40, 30}, .radius = 7}, colors::red);
            stroke(to, Box{.at = {33, 23}, .size = {15, 15}}, colors::white);
        });
    // Of a shape that is used, all of it.
    expect_same(
        "shape two at\nmark at 0,0 ink red\nmark at 9,5 ink red\nend\nuse two at 10,10\n"
        "stroke box at last.at-(1,1) size last.size+(2,2) ink white",
        [](auto& to) {
            mark(to, {10, 10}, colors::red);
            mark(to, {19, 15}, colors::red);
            stroke(to, Box{.at = {9, 9}, .size = {12, 8}}, colors::white);
        });
}

TEST(SceneFlow, FramesAreDrawnEachForItself) {
    const auto program = parse_program(
        "sheet size 40,9 ink black\nseed 3\nframes 8 rate 20 loops 2 time 0.05+(frame==7)*2\n"
        "mark at frame*5,0 ink red\nmark at floor(progress*40),1 ink lime\nmark at floor(random(0,40)),2 ink white\n");
    std::vector<Bitmap<Rgb8>> alone(8);
    for (int i = 0; i < 8; ++i) {
        const auto scene = program.evaluate({.frame = i});
        auto sheet = scene.sheet<Rgb8>();
        render(scene, sheet);
        EXPECT_EQ(sheet.color_at({i * 5, 0}), colors::red);
        EXPECT_EQ(sheet.color_at({i * 5, 1}), colors::lime);
        EXPECT_EQ(std::vector<double>({double{1} * scene.frames.count, scene.frames.rate,
                                       double{1} * scene.frames.loops, scene.frames.time}),
                  (std::vector<double>{8, 20, 2, i == 7 ? 2.05 : 0.05}));
        alone[static_cast<std::size_t>(i)] = sheet;
    }
    // From several threads, the same.
    std::vector<Bitmap<Rgb8>> together(8);
    {
        std::vector<std::jthread> threads;
        for (std::size_t i = 0; i < 8; ++i) {
            threads.emplace_back([&, i] {
                const auto scene = program.evaluate({.frame = static_cast<int>(i)});
                auto sheet = scene.sheet<Rgb8>();
                render(scene, sheet);
                together[i] = sheet;
            });
        }
    }
    for (std::size_t i = 0; i < 8; ++i) EXPECT_EQ(together[i].bytes(), alone[i].bytes());
    expect_part(error_of([&] { (void)program.evaluate({.frame = 8}); }),
                "there is no frame 8; the scene has frames 0 to 7");
    expect_part(fault_of("frames 3 rate 0"), "this is 0; allowed is 0.01666666667 to 1000");
    expect_part(fault_of("frames 0 rate 5"), "this is 0; allowed is 1 to");
    expect_part(fault_of("frames 3 rate 5\nframes 3 rate 5"), "the frames are given twice");
    expect_part(fault_of("frames 300 rate 5", {.frames = 100}), "the scene has 300 frames; allowed are 100");
    expect_part(fault_of("when 1\nframes 3 rate 5\nend"), "'frames' stands outside of all blocks");
}

TEST(SceneFlow, FaultsSayOnWhichWayTheyWereMet) {
    const auto fault = fault_of(
        "shape buoy at, size\nfill circle center 0,0 radius size ink red\nend\n"
        "repeat 5 as i\nuse buoy at i,1 size 2-i\nend\nmark at 1,1 ink red");
    expect_part(fault, "quay.brick:3:31: this is -1; allowed is 0 to 1073741823");
    expect_part(fault, "in use buoy at line 6, the 4th of repeat at line 5");
    EXPECT_EQ(fault.find("this is -2"), std::string::npos) << "the run ends";
    expect_part(fault_of("frames 3 rate 5\nfill circle center 0,0 radius -1 ink red"), "in frame 0");
    // Outside of loops all are told at once, as far as they can be.
    const auto both = fault_of("fill circle center 0,0 radius -1 ink red\nfill circle center 0,0 radius -2 ink red");
    expect_part(both, "this is -1");
    expect_part(both, "this is -2");
}

TEST(SceneFlow, BlocksHaveBeginningsAndEnds) {
    expect_part(fault_of("repeat 3"), "this repeat has no end");
    expect_part(fault_of("when 1\notherwise\notherwise\nend"), "this comes after an 'otherwise' without condition");
    expect_part(fault_of("otherwise"), "this 'otherwise' is in no 'when'");
    expect_part(fault_of("when 1\nrepeat 2\notherwise\nend\nend"),
                "the block that is not ended yet is the repeat of line 3");
    expect_part(fault_of("repeat"), "'repeat' does not say how often");
    expect_part(fault_of("repeat 1.5\nend"), "this is 1.5; a whole number is needed");
    expect_part(fault_of("repeat -1\nend"), "this is -1; allowed is 0 to");
    expect_part(fault_of("repeat from 1 to 5 step 0 as i\nend"), "with a step of 0 the loop would never end");
    expect_part(fault_of("repeat from 1 as i\nend"), "'repeat from' needs 'to'");
    expect_part(fault_of("repeat 3 az i\nend"), "did you mean 'as'?");
    expect_part(fault_of("shape s at, at\nend"), "'at' is given twice");
    expect_part(fault_of("shape s at, 3\nend"), "'3' is no name");
    expect_part(fault_of("shape s at\nend\nuse s"), "'use s' needs 'at'");
    expect_part(fault_of("shape s at\nend\nuse s at 1,1 size 3"), "'s' takes no 'size'");
    expect_part(fault_of("shape boat at\nend\nuse baot at 1,1"), "did you mean 'boat'?");
    expect_part(fault_of("use boat at 1,1\nshape boat at\nend"),
                "there is no shape 'boat' of your own before this line");
    expect_part(fault_of("when 1\nsheet size 3,3\nend"), "'sheet' stands outside of all blocks");
    std::string deep;
    for (int i = 0; i < 1500; ++i) deep += "when 1\n";
    expect_part(fault_of(deep), "blocks stand in each other more than 1000 deep");
}

// What begins, branches or ends wrongly is told, and what stands around it is looked at as far as it makes sense.
TEST(SceneFlow, FaultyBlocksDoNoHarm) {
    for (const auto& [text, what] : std::initializer_list<std::pair<std::string, std::string>>{
             {"shape\nend", "'shape' has no name after it"},
             {"shape s at\nend\nshape s at, n = 1\nrepeat 2 as i\nmark at i,n ink red\nend\nend\nuse s at 1,1",
              "'s' is the name of something else already"},
             {"shape s at, n = x\nmark at n,1 ink red\nend\nuse s at 1,1", "'x' is no number and no known name"},
             {"shape s at, n\nuse s at 0,0 n n-1 m 3\nend\nuse s at 1,1 n 3", "'s' takes no 'm'"},
             {"repeat 3 as i\nmark at i,1 ink red\nend here\nmark at 1,1 ink red", "'end' takes nothing"},
             {"repeat 3 as i\nlet i = 4\nend", "'i' is the name of something else already"},
             {"repeat 3 as 4\nmark at 1,1 ink red\nend", "'4' is no name"},
             {"when 1\nmark at 1,1 ink red\notherwise never\nmark at 2,1 ink red\nend",
              "behind 'otherwise' there is nothing, or a condition"},
             {"when 0\notherwise when x\nmark at 1,1 ink red\nend", "'x' is no number and no known name"},
             {"when x\nmark at -1,y ink red\nend", "'x' is no number and no known name"},
             {"pattern p = size 3\nmark at 1,1 ink red\nend\nfill box at 0,0 size 9,9 ink p", "'3' is no pair"},
             {"clip circle center 1,1\nwhen 1\nend\nend", "'circle' needs radius"},
             {"turn by x\nfill circle center 1,1 radius -1 ink red\nend", "this is -1"},
             {"use nothing\nuse", "there is no shape 'nothing' of your own before this line"}}) {
        expect_part(fault_of(text), what);
    }
}

TEST(SceneFlow, AScenesLimitsHold) {
    const auto begin = std::chrono::steady_clock::now();
    expect_part(fault_of("repeat 1e15\nend", {.statements = 100'000}),
                "runs more than the 100000 statements that it may");
    expect_part(fault_of("repeat 1e6\nrepeat 1e6\nmark at 1,1 ink red\nend\nend", {.calls = 1000}),
                "makes more than the 1000 drawing calls that it may");
    expect_part(fault_of("repeat 1e6\nmark at 1,1 ink red\nend", {.scene_memory = 1 << 20}), "limit 'scene_memory'");
    expect_part(fault_of("repeat 1e9\nlet a = random()\nwhen a > 2\nend\nend", {.seconds = 0.2}), "limit 'seconds'");
    expect_part(fault_of("repeat 1e9\nlet s = \"{random()}\"\nwhen s == \"\"\nend\nend", {.seconds = 0.2}),
                "limit 'seconds'");
    // Names in loops take no more with each round.
    const auto scene = parse_scene(
        "sheet size 9,9\nrepeat 30000 as i\nlet s = \"number {i} of very many and more\"\nlet p = i,i\n"
        "when s == \"\"\nmark at p ink red\nend\nend\n",
        "quay.brick", "", {.scene_memory = 1 << 16});
    EXPECT_EQ(scene.drawing.size(), 0U);
    EXPECT_LT(std::chrono::steady_clock::now() - begin, std::chrono::seconds{60});
}

class SceneFiles : public FolderTest {
  protected:
    [[nodiscard]] Bitmap<Rgb8> drawn(const std::string& statements) const {
        const auto scene = parse_scene("sheet size 120,80 ink navy\n" + statements, "quay.brick", folder().string());
        auto sheet = scene.sheet<Rgb8>();
        render(scene, sheet);
        return sheet;
    }
    [[nodiscard]] std::string fault(const std::string& statements) const {
        return fault_of(statements, {}, folder().string());
    }
};

TEST_F(SceneFiles, RowsOfATableAreRepeated) {
    write("berths.csv", "name,length,tint\r\n\"OTTER, OLD\",12,red\r\n\r\nEEL,8,#00ff00\r\n");
    Bitmap<Rgb8> expected{sheet_size, colors::navy};
    fill(expected, Box{.at = {0, 0}, .size = {12, 5}}, colors::red);
    fill(expected, Box{.at = {0, 10}, .size = {8, 5}}, colors::lime);
    mark(expected, {50, 0}, colors::white);
    EXPECT_EQ(drawn("repeat row of \"berths.csv\" as b number i\nfill box at 0,i*10 size b.length,5 ink b.tint\n"
                    "when b.name == \"OTTER, OLD\"\nmark at 50,0 ink white\nend\nend")
                  .bytes(),
              expected.bytes());
    expect_part(fault("repeat row of \"berths.csv\" as b\nmark at b.lenght,1 ink red\nend"),
                "the table has no column 'lenght'");
    expect_part(fault("repeat row of \"berths.csv\" as b\nmark at b.name,1 ink red\nend"), "'OTTER, OLD'");
    expect_part(fault("repeat row of \"berths.csv\" as b\nmark at b.name,1 ink red\nend"),
                "in the 1st of repeat at line 2");
    expect_part(fault("repeat row of \"none.csv\" as b\nend"), "the table 'none.csv' cannot be read");
    expect_part(fault("repeat row of \"../none.csv\" as b\nend"), "the table '../none.csv'");
    write("bad.csv", "a,b\n1,2,3\n");
    expect_part(fault("repeat row of \"bad.csv\" as b\nend"),
                "bad.csv:2:1: this row has 3 cells, and the table 2 columns");
}

TEST_F(SceneFiles, OtherFilesAreIncluded) {
    write("parts.brick", "// parts\nlet tint = gold\nshape dot at\nfill box at 0,0 size 4,4 ink tint\nend\n");
    write("dots.brick", "repeat 3 as i\nuse dot at i*10,5\nend\n");
    Bitmap<Rgb8> expected{sheet_size, colors::navy};
    for (int i = 0; i < 3; ++i) fill(expected, Box{.at = {i * 10, 5}, .size = {4, 4}}, colors::gold);
    EXPECT_EQ(drawn("include \"parts.brick\"\ninclude \"dots.brick\"").bytes(), expected.bytes());
    write("wrong.brick", "mark at 1,1 ink red\nfill circle center 1,1 radius -4 ink red\n");
    const auto wrong = fault("include \"wrong.brick\"");
    expect_part(wrong, "wrong.brick:2:31: this is -4");
    expect_part(wrong, "fill circle center 1,1 radius -4 ink red");
    write("own.brick", "include \"own.brick\"\n");
    expect_part(fault("include \"own.brick\""), "the file 'own.brick' includes itself");
    write("open.brick", "repeat 3\n");
    expect_part(fault("include \"open.brick\"\nend"), "this repeat has no end in its file");
    write("sheet.brick", "sheet size 3,3\n");
    expect_part(fault("include \"sheet.brick\""), "an included file has no sheet");
    expect_part(fault("include \"none.brick\""), "the file 'none.brick' cannot be read");
    expect_part(fault("include \"/etc/passwd\""), "lies outside of the scene's folder");
    expect_part(fault("include none"), "'include' takes the name of a file between quotes");
    const auto unseen = parse_scene("sheet size 9,9\ninclude \"far.brick\"\n", "quay.brick", [&] {
        write("far.brick", "\nmark at 99,1 ink red\n");
        return folder().string();
    }());
    expect_part(explain_unseen(unseen, 0), "far.brick:2:1: nothing of this mark shows");
}

}  // namespace
