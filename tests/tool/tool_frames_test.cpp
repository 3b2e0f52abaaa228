// The tool on scenes that compute: frames, rows of a table, values from outside.
#include "this_build.hpp"
#include "tool_runner.hpp"

#include <coldbrick/coldbrick.hpp>

namespace {

using namespace coldbrick;

class ToolFrames : public ToolTest {
  protected:
    void SetUp() override {
        ToolTest::SetUp();
        write("tide.brick",
              "sheet size 24,9 ink navy\nframes 5 rate 10 loops 2\ndial from_left = 1 from 0 to 9\n"
              "fill box at from_left+frame*3,2 size 4,4 ink gold\n");
        write(
            "badge.brick",
            "sheet size 20,10 ink white\ndial edge = 1 from 1 to 4\nstroke box at 0,0 size 20,10 width edge ink tint\n"
            "fill box at 4,4 size length,2 ink black\n");
        write("boats.csv", "name,length,tint\nOTTER,9,red\nEEL,4,#00ff00\nPIKE,long,blue\nTERN,3,gold\n");
    }

    static void expect_part(const std::string& text, const std::string& part) {
        EXPECT_NE(text.find(part), std::string::npos) << text;
    }
};

TEST_F(ToolFrames, WritesWhatTheSuffixAndTheSceneSay) {
    const auto program = parse_program(content(path("tide.brick")));
    for (const auto* const kind : {"png", "gif", "webp"}) {
        const auto name = std::string{"tide."} + kind;
        const auto outcome = run("render tide.brick -o " + name);
        EXPECT_EQ(outcome.code, 0) << outcome.err;
        expect_part(outcome.out, name + ": 24 x 9 pixels, 5 frames, 10 a second, ");
        const auto film = load_frames(path(name));
        ASSERT_EQ(film.frames.size(), 5U);
        EXPECT_EQ(film.loops, 2);
        for (std::size_t i = 0; i < 5; ++i) {
            const auto scene = program.evaluate({.frame = static_cast<int>(i)});
            auto sheet = scene.sheet<Rgba8>();
            render(scene, sheet);
            EXPECT_EQ(film.frames[i].picture.bytes(), sheet.bytes()) << name << " " << i;
            EXPECT_NEAR(film.frames[i].seconds, 0.1, 1e-9);
        }
        expect_part(run("info " + name).out, "frames    5, 0.5 s, played 2 times");
        expect_part(run("info --json " + name).out, "\"frames\": 5");
    }
}

TEST_F(ToolFrames, TheSameBytesOnAnyNumberOfThreads) {
    EXPECT_EQ(run("render tide.brick -o one.png --threads 1").code, 0);
    EXPECT_EQ(run("render tide.brick -o four.png --threads 4").code, 0);
    EXPECT_EQ(content(path("one.png")), content(path("four.png")));
}

TEST_F(ToolFrames, SomeOneOrAStreamOfThem) {
    EXPECT_EQ(run("render tide.brick -o one.ppm --frame 3").out,
              "one.ppm: 24 x 9 pixels, 1 of 1 drawings show, 660 bytes\n");
    ASSERT_EQ(run("render tide.brick -o all.png").code, 0);
    const auto whole = load_frames(path("all.png"));
    EXPECT_EQ(load<Rgba8>(path("one.ppm")).bytes(), whole.frames[3].picture.bytes());
    EXPECT_EQ(run("render tide.brick -o 'f-{frame:02}.bmp' --frames 1..2 --scale 2").code, 0);
    EXPECT_EQ(load<Rgba8>(path("f-02.bmp")).bytes(), enlarge(whole.frames[2].picture, 2).bytes());
    EXPECT_FALSE(std::filesystem::exists(path("f-03.bmp")) || std::filesystem::exists(path("f-00.bmp")));
    const auto stream = run("render tide.brick -o - --kind ppm");
    std::string expected;
    for (const auto& frame : whole.frames) {
        const auto bytes = encode(convert<Rgb8>(frame.picture), FileFormat::ppm);
        expected.append(bytes.begin(), bytes.end());
    }
    EXPECT_EQ(stream.out, expected);
    const auto set = run("render tide.brick -o set.ppm --frame 0 --set from_left=7 --quiet");
    EXPECT_EQ(set.out + set.err, "");
    EXPECT_EQ(load<Rgb8>(path("set.ppm")).color_at({7, 2}), colors::gold);
    EXPECT_EQ(load<Rgb8>(path("set.ppm")).color_at({6, 2}), colors::navy);
}

TEST_F(ToolFrames, WrongCallsAreTold) {
    const auto expect = [&](const std::string& arguments, int code, const std::string& what) {
        const auto outcome = run("render " + arguments);
        EXPECT_EQ(outcome.code, code) << arguments;
        expect_part(outcome.err, what);
    };
    expect("tide.brick -o a.png --frame 5", 1, "there is no frame 5; the scene has frames 0 to 4");
    expect("tide.brick -o a.png --frames 3..9", 1, "there is no frame 9; the scene has frames 0 to 4");
    expect("tide.brick -o a.png --frames 3", 2, "--frames is 3; it is as in 10..19");
    expect("tide.brick -o a.png --frames 3..1", 2, "the first comes first");
    expect("tide.brick -o a.png --frames 1..2 --frame 1", 2, "not both");
    expect("tide.brick -o a.jpg", 1, "a jpeg file holds one picture");
    expect("tide.brick -o a.png --scale 1,2", 2, "of moving pictures one is written");
    expect("tide.brick -o a.png --set", 2, "--set needs a value after it");
    expect("tide.brick -o a.png --set from_left", 2, "--set is from_left; it is a name, '=' and a value");
    expect("tide.brick -o a.png --set from_lef=3", 1, "did you mean 'from_left'?");
    expect("tide.brick -o a.png --set from_left=99", 1, "the dial 'from_left' is set to 99; allowed is 0 to 9");
    expect("tide.brick -o a.gif --colors 1", 2, "--colors is 1; allowed is 2 to 256");
    expect("tide.brick -o a.gif --dithering wild", 2, "--dithering is wild; allowed are none, ordered and diffused");
    expect("tide.brick -o a.png --limit film_seconds=1e-9", 1,
           "longer than the 1e-09 seconds that they may (limit film_seconds)");
    expect("tide.brick --limit frames=3", 1, "the scene has 5 frames; allowed are 3");
    EXPECT_FALSE(std::filesystem::exists(path("a.png")) || std::filesystem::exists(path("a.gif")));
}

TEST_F(ToolFrames, APictureForEachRow) {
    const auto outcome = run("render badge.brick --rows boats.csv -o 'b-{name}-{row:03}.png' --set edge=2");
    EXPECT_EQ(outcome.code, 1);
    expect_part(outcome.out, "3 of 4 rows drawn, ");
    expect_part(outcome.err, "boats.csv:4: badge.brick:4:22: 'length' is 'long' here; a number is needed");
    EXPECT_FALSE(std::filesystem::exists(path("b-PIKE-003.png")));
    const auto eel = load<Rgb8>(path("b-EEL-002.png"));
    EXPECT_EQ(eel.color_at({0, 5}), colors::lime);
    EXPECT_EQ(eel.color_at({7, 4}), colors::black);
    EXPECT_EQ(eel.color_at({8, 4}), colors::white);
    // The same files on one thread, and a moving picture for each row.
    EXPECT_EQ(run("render badge.brick --rows boats.csv -o 'c-{name}-{row:03}.png' --set edge=2 --threads 1").code, 1);
    EXPECT_EQ(content(path("b-OTTER-001.png")), content(path("c-OTTER-001.png")));
    write("moving.brick", "sheet size 9,9\nframes 3 rate 5\nmark at frame,length ink tint\n");
    write("two.csv", "name,length,tint\nA,1,red\nB,2,blue\n");
    EXPECT_EQ(run("render moving.brick --rows two.csv -o '{name}.gif'").code, 0);
    EXPECT_EQ(load_frames(path("B.gif")).frames.size(), 3U);
    EXPECT_EQ(load_frames(path("B.gif")).frames[2].picture.color_at({2, 2}), colors::blue);
}

TEST_F(ToolFrames, RowsThatCannotBeAreToldBeforeAnythingIsWritten) {
    const auto expect = [&](const std::string& arguments, int code, const std::string& what) {
        const auto outcome = run("render badge.brick " + arguments);
        EXPECT_EQ(outcome.code, code) << arguments;
        expect_part(outcome.err, what);
        auto pictures = 0;
        for (const auto& file : std::filesystem::directory_iterator{folder()})
            pictures += file.path().extension() == ".png" ? 1 : 0;
        EXPECT_EQ(pictures, 0) << arguments;
    };
    expect("--rows boats.csv -o badge.png", 1, "boats.csv:3: this row's file would be badge.png, as that of line 2");
    expect("--rows boats.csv -o '{nam}.png'", 2, "no such column; it has name, length, tint");
    expect("--rows boats.csv -o '{name.png'", 2, "a brace is not closed");
    expect("--rows boats.csv", 2, "--rows needs -o PICTURE");
    expect("--rows boats.csv -o -", 2, "standard output takes one");
    expect("--rows none.csv -o '{name}.png'", 1, "none.csv: cannot be read");
    write("paths.csv", "name,length,tint\n../up,1,red\n");
    expect("--rows paths.csv -o '{name}.png'", 1, "paths.csv:2: '../up' (column name) cannot be part of a file's name");
    // What a cell says of frames, and frames that could be another row's.
    write("braces.csv", "name,length,tint\nA{frame},1,red\n");
    expect("--rows braces.csv -o '{name}.png'", 1,
           "braces.csv:2: 'A{frame}' (column name) cannot be part of a file's name");
    write("numbers.csv", "name,length,tint\nA,1,red\nA1,1,red\n");
    expect("--rows numbers.csv -o '{name}{frame}.png'", 1,
           "numbers.csv:3: files of this row's frames, A1{frame}.png, could have the names of those of line 2, "
           "A{frame}.png");
    write("dark.csv", "name,length,tint,len\x1b[2Jgth,t\xe2\x80\xaeint\nA,1,red,2,3\n");
    expect("--rows dark.csv -o '{nam}.png'", 2, "it has name, length, tint, len\\x1b[2Jgth, t\\xe2\\x80\\xaeint");
    write("empty.csv", "name,length,tint\n");
    expect("--rows empty.csv -o '{name}.png'", 1, "there is no row below the names of the columns");
    write("ragged.csv", "name,length,tint\nA,1\n");
    expect("--rows ragged.csv -o '{name}.png'", 1, "ragged.csv:2:1: this row has 2 cells");
    expect("-o a.png", 1, "'tint' is no colour");
}

// On a terminal, what takes longer than a second says how far it is; elsewhere, and where it is to be quiet, not.
TEST_F(ToolFrames, ProgressIsToldOnATerminal) {
    // Longer than a second also on a fast machine, as nothing is told before.
    const auto rounds = is_sanitized ? 4'000 : 120'000;
    write("slow.brick", "sheet size 40,30\nframes 50 rate 20\nrepeat " + std::to_string(rounds) +
                            "\nwhen random() > 2\nend\nend\nmark at 1,1 ink red\n");
    const auto command = tool() + " render slow.brick -o slow.png --threads 1";
    const auto told = [&](const std::string& more) {
        const auto line =
            "cd '" + folder().string() + "' && script -qec \"" + command + more + "\" .terminal >/dev/null 2>&1";
        EXPECT_EQ(std::system(line.c_str()), 0);
        return content(path(".terminal"));
    };
    expect_part(told(""), " of 50 frames, ");
    EXPECT_EQ(told(" --quiet").find("frames"), std::string::npos);
    EXPECT_EQ(run("render slow.brick -o slow.png").err, "");
}

TEST_F(ToolFrames, AnInterruptedRunLeavesNothingHalfWritten) {
    write("slow.brick",
          "sheet size 90,60\nframes 5000 rate 20\nrepeat 2000\nwhen random() > 2\nend\nend\nmark at 1,1 ink red\n");
    write("old.png", "the old one");
    for (const auto* const name : {"new.png", "old.png", "new.gif", "new-{frame}.ppm"}) {
        const auto line = "cd '" + folder().string() + "' && timeout -s INT 0.4 " + tool() + " render slow.brick -o '" +
                          name + "' >.out 2>.err";
        EXPECT_NE(std::system(line.c_str()), 0) << name;
    }
    EXPECT_EQ(content(path("old.png")), "the old one");
    EXPECT_FALSE(std::filesystem::exists(path("new.png")) || std::filesystem::exists(path("new.gif")));
    for (const auto& file : std::filesystem::directory_iterator{folder()}) {
        // Those that are numbered are whole, each of them.
        EXPECT_EQ(file.path().string().find("unfinished"), std::string::npos);
        if (file.path().extension() != ".ppm") continue;
        EXPECT_EQ(load<Rgb8>(file.path()).size(), (Size{90, 60}));
    }
}

TEST_F(ToolFrames, WhatNeverShowsIsToldOnceForItsStatement) {
    write("far.brick",
          "sheet size 9,9\nframes 4 rate 5\nrepeat 3 as i\nmark at 20+i,1 ink red\nmark at frame*9+i,2 ink red\nend\n");
    const auto outcome = run("render far.brick -o far.png");
    EXPECT_EQ(outcome.code, 0);
    EXPECT_EQ(
        outcome.err,
        "far.brick:4:1: nothing of this mark shows: it lies at 20,1, 12 pixels right of the sheet, 0,0 to 8,8 (the "
        "first of 12 times)\n");
}

}  // namespace
