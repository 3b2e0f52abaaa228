// Scenes that are made to crash, to hang or to fill the machine.
#include "folder_test.hpp"
#include "oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <filesystem>

#include <sys/stat.h>

namespace {

using namespace coldbrick;

// Far more than any of these takes, and far less than what they took when work grew with the size of shapes.
constexpr auto long_time = std::chrono::seconds{30};

class Timed {
  public:
    ~Timed() { EXPECT_LT(std::chrono::steady_clock::now() - begin_, long_time); }

  private:
    std::chrono::steady_clock::time_point begin_ = std::chrono::steady_clock::now();
};

// Draws a scene and explains what does not show; a fault is as good, a crash or a long time is not.
void draw(const std::string& statements, const std::string& sheet = "sheet size 64,64 ink black\n") {
    SCOPED_TRACE(statements.substr(0, 200));
    const Timed timed;
    try {
        const auto scene = parse_scene(sheet + statements);
        auto picture = scene.sheet<Rgb8>();
        const auto touched = render(scene, picture);
        for (std::size_t i = 0; i < std::min<std::size_t>(touched.size(), 20); ++i) {
            if (!touched[i].empty()) continue;
            EXPECT_FALSE(explain_unseen(scene, i).empty());
        }
    } catch (const Error& error) {
        EXPECT_FALSE(std::string{error.what()}.empty());
    }
}

TEST(HostileScenes, GiantShapesTakeTheTimeOfWhatIsSeen) {
    for (const auto* const shape :
         {"fill chord center 0,0 radius 100000000 sweep 0,90",
          "stroke star center 0,0 radius 600000000 points 5 width 5 align inside",
          "stroke circle center 0,0 radius 1000000000 dash 1,1",
          "stroke circle center 1000000000,0 radius 1000000000 width 3 dash 5,3 smooth",
          "stroke ellipse center 0,0 radii 1000000000,30000000 turned 30",
          "stroke arc center 0,0 radius 1000000000 sweep 0,90 width 9 dash 1,1",
          "stroke sector center 0,0 radius 1000000000 sweep 10,90 width 7 smooth",
          "stroke box at -1000000000,5 size 1000000100,90000000 corner_radius 900000 width 3 dash 9,9",
          "stroke polygon through -1000000000,-1000000000 1000000000,-900000000 0,1000000000 width 9 align outside",
          "stroke line from -1000000000,3 to 1000000000,50 dash 1,1 dash_offset 1000000000 width 3 cap round",
          "stroke path data \"M -1e9 0 C 1e9 1e9 -1e9 1e9 1e9 0\" width 5 dash 1,1 smooth",
          "fill path data \"M 0 0 A 1e9 1e9 33 1 1 5 5\" smooth"}) {
        draw(std::string{shape} + " ink white\n");
        draw("turn by 12\n" + std::string{shape} + " ink white\nend\n");
    }
    draw("turn by 30\nfill region circle center 0,0 radius 1000000000 minus circle center 0,0 radius 9 ink red\nend\n");
}

TEST(HostileScenes, NumbersAtTheEndOfWhatNumbersAre) {
    for (const auto* const statement :
         {"gradient g = linear from 0,0 to 1e-200,0 stops 0,red 1,blue\nfill box at 0,0 size 60,60 ink g",
          "gradient g = radial center 0,0 radius 1e-320 stops 0,red 1,blue spread repeat\nfill box at 0,0 size 9,9 ink "
          "g",
          "gradient g = radial center 1e9,0 radius 1e-9 stops 0,red 1,blue spread reflect\nfill box at 0,0 size 9,9 "
          "ink g",
          "gradient g = linear from 0,0 to 1,0 stops 0,red 1,blue placing shape\n"
          "stroke arc center 32,32 radius 821 sweep 10,70 width 4 ink g",
          "stroke path data \"M 0 0 A 1e-200 1e-200 0 0 1 5 5\" ink red",
          "stroke path data \"M 0 0 A 1e-200 1 0 0 1 5 5\" width 3 smooth ink red",
          "stroke path data \"M 0 0 A 1e9 1 0 0 1 5 5\" width 3 smooth ink red",
          "stroke path data \"M 0 0 A 1e9 1e-9 33 1 0 500000 5\" ink red",
          "stroke sector center 20,20 radius 12 sweep 30 by 0 smooth ink red",
          "stroke chord center 20,20 radius 12 sweep 30 by 0 width 3 ink red",
          "stroke arc center 20,20 radius 12 sweep 30 by 1e-300 width 5 smooth cap round ink red",
          "stroke circle center 20,20 radius 5 dash 0.01,0.01 smooth ink red",
          "stroke circle center 20,20 radius 5 width 3 dash 1e9,1e9 dash_offset 1e9 smooth ink red",
          "scale by 1e9\nstroke circle center 0,0 radius 1 smooth ink red\nend",
          "scale by 1e-12\nstroke circle center 0,0 radius 1 width 9 ink red\nend",
          "shear by 1e300,0\nfill circle center 0,0 radius 9 ink red\nend",
          "hatch h = spacing 1e9 width 1e9 angle 1e12 ink red\nfill box at 0,0 size 60,60 ink h"}) {
        draw(std::string{statement} + "\n");
    }
}

std::string random_points(int count, double width, double height, double top = 0) {
    oracle::Dice dice{77};
    std::string points;
    for (int i = 0; i < count; ++i) {
        points += std::to_string(dice.number(0, 1000000) * width / 1e6) + "," +
                  std::to_string(top + dice.number(0, 1000000) * height / 1e6) + " ";
    }
    return points;
}

TEST(HostileScenes, ManyOfEverything) {
    const auto many = is_sanitized ? 5000 : 20000;
    draw("fill polygon through " + random_points(is_sanitized ? 1000 : 3000, 60, 0.9, 5) + "smooth ink red\n");
    draw("fill polygon through " + random_points(many, 60, 0.9, 5) + "ink red\n");
    draw("stroke line through " + random_points(is_sanitized ? 500 : 2000, 60, 60) +
         "width 5 join round smooth ink red\n");
    std::string ring;
    for (int i = 0; i < many; ++i) {
        const auto angle = i * 2 * std::numbers::pi / many;
        const auto radius = i % 2 == 0 ? 20.0 : 30.0;
        ring +=
            std::to_string(32 + radius * std::cos(angle)) + "," + std::to_string(32 + radius * std::sin(angle)) + " ";
    }
    draw("fill polygon through " + ring + "smooth ink red\n");
    std::string curves;
    std::string parts;
    std::string stops;
    std::string inks;
    std::string words;
    std::string unknown;
    for (int i = 0; i < many; ++i) {
        if (i < 300)
            curves += "M" + std::to_string(-1000000 * i) + " 0 C 1e9 1e9 -1e9 1e9 1e9 " + std::to_string(i) + " ";
        parts += std::string{i > 0 ? " plus " : ""} + "box at " + std::to_string(i % 997) + "," +
                 std::to_string(i * 7 % 991) + " size 2,2";
        stops += " " + std::to_string(double{1} * i / many) + ",#123456";
        inks += " ink red";
        words += " word" + std::to_string(i);
        unknown += "mark at 1,1 ink rod" + std::to_string(i) + "\n";
    }
    draw("stroke path data \"" + curves + "\" width 3 smooth ink red\n");
    draw("fill region " + parts + " ink red\n");
    draw("clip " + parts + "\nend\n", "sheet size 1000,1000\n");
    draw("gradient g = linear from 0,0 to 60,0 stops" + stops + "\nfill box at 0,0 size 60,60 ink g\n");
    draw("fill box" + inks + "\n");
    draw("fill box" + words + "\n");
    draw("palette" + inks + "\n");
    draw(unknown);
    draw("mark at " + std::string(1000, '(') + "1" + std::string(1000, ')') + ",1 ink red\n");
    std::string clips;
    for (int i = 0; i < 2000; ++i) clips += "clip box at 0,0 size 50,50 smooth\n";
    draw(clips);
}

// The first line of what is wrong, and the advice.
std::string fault_of(const std::string& text, const SceneLimits& limits = {}, const std::string& folder = {}) {
    try {
        const auto scene = parse_scene(text, "quay.brick", folder, limits);
        auto sheet = scene.sheet<Rgb8>();
        render(scene, sheet);
    } catch (const Error& error) {
        return error.what();
    }
    return "no error";
}

void expect_part(const std::string& text, const std::string& part) {
    EXPECT_NE(text.find(part), std::string::npos) << text;
}

TEST(HostileScenes, LimitsAreToldWithTheirNames) {
    expect_part(fault_of("sheet size 1073741823,1\n"), "a greater limit 'sheet_pixels' allows more");
    std::string patterns = "sheet size 9,9\n";
    for (int i = 0; i < 20; ++i) patterns += "pattern p" + std::to_string(i) + " = size 4096,4096\nend\n";
    expect_part(fault_of(patterns), "a greater limit 'scene_memory' allows more");
    expect_part(fault_of("sheet size 9,9\n", {.scene_bytes = 10}), "the scene has 15 bytes; allowed are 10");
    expect_part(fault_of("sheet size 9,9\nmark at 1,1 ink red\nmark at 1,1 ink red\n", {.statements = 2}),
                "quay.brick:3:1: the scene runs more than the 2 statements");
    expect_part(fault_of("sheet size 9,9\nmark at 1,1 ink red\n", {.seconds = 0}), "limit 'seconds'");
    const auto line = "mark at 1,1 ink " + std::string(100000, 'x') + "\n";
    EXPECT_LT(fault_of("sheet size 9,9\n" + line).size(), 1000U);
    auto many = std::string{"sheet size 9,9\n"};
    for (int i = 0; i < 100; ++i) many += "mark at 1,1 ink nothing\n";
    expect_part(fault_of(many), "... and 80 more");
}

// Little text that asks for much: each ends soon after the time that it may take, in the memory that it may take, and
// the fault names the statement and the limit.
TEST(HostileScenes, TimeAndMemoryAreAskedWhereTheyAreSpent) {
    const auto letters = [](int count) { return std::string(static_cast<std::size_t>(count), 'g'); };
    std::string path = "M0,0";
    for (int i = 0; i < 400'000; ++i) path += "L" + std::to_string(i * 37 % 999) + "," + std::to_string(i * 91 % 999);
    for (const auto& statement :
         {"stroke text words \"" + letters(20'000) + "\" at 5,50 height 20 letter_spacing 9 width 49 smooth ink red",
          "stroke text words \"" + letters(200'000) + "\" at 5,50 height 120 width 49 smooth ink red",
          "fill text words \"" + letters(200'000) + "\" along \"M0,0L1000000000,1000\" height 20 smooth ink red",
          "stroke path data \"" + path + "\" width 3 smooth ink red", "fill path data \"" + path + "\" smooth ink red",
          std::string{"fill star center 200,150 radius 1000000000 inner_radius 3 points 1000000 ink red"},
          std::string{"stroke star center 200,150 radius 140 points 200000 inner_radius 9 width 5 smooth ink red"},
          std::string{
              "stroke sector center 200,150 radius 1000000 sweep 0,70 width 1000000000 join round smooth ink red"},
          std::string{"stroke circle center 200,150 radius 100000 width 100000 dash 4,2 cap round smooth ink red"},
          std::string{"repeat 4000\nclip circle center 9,9 radius 299 smooth\nend\nend"},
          std::string{"repeat 4000 as i\nflood from 3,3 ink hsl(i*9,90%,40%)\nend"}}) {
        SCOPED_TRACE(statement.substr(0, 100));
        constexpr auto seconds = 0.4;
        const auto begin = std::chrono::steady_clock::now();
        const auto fault =
            fault_of("sheet size 400,300\n" + statement + "\n", {.scene_memory = 32 << 20, .seconds = seconds});
        const std::chrono::duration<double> taken = std::chrono::steady_clock::now() - begin;
        EXPECT_LT(taken.count(), seconds + (is_sanitized ? 20 : 1));
        EXPECT_TRUE(fault.starts_with("quay.brick:")) << fault.substr(0, 200);
        EXPECT_TRUE(fault.find("(limit seconds)") != std::string::npos ||
                    fault.find("(limit scene_memory)") != std::string::npos)
            << fault.substr(0, 200);
    }
    expect_part(fault_of("sheet size 90,60\nfill star center 40,30 radius 29 points 9000 ink red\n", {.work = 20'000}),
                "quay.brick:2:");
    expect_part(fault_of("sheet size 90,60\nfill star center 40,30 radius 29 points 9000 ink red\n", {.work = 20'000}),
                "(limit work)");
}

class HostileSceneFiles : public FolderTest {};

TEST_F(HostileSceneFiles, OnlyOrdinaryFilesBelowTheFolderAreRead) {
    namespace fs = std::filesystem;
    fs::create_directories(path("scenes/own"));
    fs::create_directories(path("other"));
    save(Bitmap<Rgb8>{{3, 2}, colors::gold}, path("scenes/own/a.png"));
    save(Bitmap<Rgb8>{{3, 2}, colors::gold}, path("other/b.png"));
    fs::create_symlink(path("other/b.png"), path("scenes/out.png"));
    fs::create_symlink("own/a.png", path("scenes/in.png"));
    ASSERT_EQ(::mkfifo(path("scenes/pipe.png").c_str(), 0600), 0);
    const auto folder = path("scenes").string();
    const auto paste = [&](const std::string& name, const SceneLimits& limits = {}) {
        const Timed timed;
        return fault_of("sheet size 9,9\npaste \"" + name + "\" at 0,0\n", limits, folder);
    };
    EXPECT_EQ(paste("own/a.png"), "no error");
    EXPECT_EQ(paste("in.png"), "no error");
    EXPECT_EQ(paste("own/../own/a.png"), "no error");
    expect_part(paste("out.png"), "lies outside of the scene's folder");
    expect_part(paste("../other/b.png"), "quay.brick:2:7: the picture '../other/b.png' lies outside");
    expect_part(paste(path("other/b.png").string()), "lies outside of the scene's folder");
    EXPECT_EQ(paste("../other/b.png", {.files_from = {path("other").string()}}), "no error");
    expect_part(paste("pipe.png"), "pipe.png: cannot be read: it is a device, a pipe or a socket");
    expect_part(paste("/dev/zero", {.files_from = {"/dev"}}), "it is a device, a pipe or a socket");
    expect_part(paste(std::string{"own/a.png\0b", 11}), "has a NUL byte in its name");
    expect_part(paste("no\x1b[2Jthing.png"), "'no\\x1b[2Jthing.png' cannot be read");
}

// One picture, however often it is pasted.
TEST_F(HostileSceneFiles, PicturesAreKeptOnce) {
    save(Bitmap<Rgba8>{{100, 80}, colors::gold}, path("a.png"));
    std::string text = "sheet size 9,9\n";
    for (int i = 0; i < 500; ++i) text += "paste \"a.png\" at " + std::to_string(i % 9) + ",0\n";
    for (int i = 0; i < 500; ++i) text += "paste \"a.png\" at 0,0 size 50,40 turned 90\n";
    const auto scene = parse_scene(text, "quay.brick", folder().string(), {.scene_memory = 4'000'000});
    ASSERT_NE(scene.drawing[0].picture(), nullptr);
    EXPECT_EQ(scene.drawing[0].picture(), scene.drawing[499].picture());
    EXPECT_EQ(scene.drawing[500].picture(), scene.drawing[999].picture());
}

TEST(HostileScenes, SlipsGetTheirCause) {
    struct Slip {
        const char* statement;
        const char* what;
        const char* advice;
    };
    for (const auto& [statement, what, advice] : std::initializer_list<Slip>{
             {"mark at 5 5 ink red", "there is no comma between '5' and '5'", "without spaces: 5,5"},
             {"stroke line through 1 1 5 5 ink red", "there is no comma between '1' and '1'", "1,1"},
             {"# a comment", "a comment begins with //", "write // instead of #"},
             {"mark at 1,1 ink red # a comment", "a comment begins with //", "write //"},
             {"FILL box at 1,1 size 3,3 ink red", "unknown statement 'FILL'", "write 'fill'"},
             {"fill Box at 1,1 size 3,3 ink red", "unknown shape 'Box'", "write 'box'"},
             {"fill box AT 1,1 size 3,3 ink red", "unknown keyword 'AT'", "write 'at'"},
             {"fill circle center 3,3 radius 3px ink red", "'3px' has a unit", "write 3"},
             {"fill circle center 3,3 radius 2 + 1 ink red", "no spaces but in parentheses", "write 2+1"},
             {"mark at 1,1 ink ff0000", "'ff0000' is no colour", "did you mean '#ff0000'?"},
             {"mark at 1,1 color red", "the colour of a drawing is its ink", "ink red"},
             {"mark at 1,1 ink red mark at 2,2 ink red", "'mark' begins another statement", "a line of its own"},
             {"color red = blue", "'red' is the name of a colour", "my_red"},
             {"color width = blue", "'width' is a word of the language", "my_width"},
             {"color a = red\ncolor a = blue", "'a' is the name of something else already", ""},
             {"pattern p = size 4,4\nfill box at 0,0 size 2,2 ink p\nend", "'p' is the pattern that is drawn here",
              ""}}) {
        const auto fault = fault_of("sheet size 9,9\n" + std::string{statement} + "\n");
        expect_part(fault, what);
        expect_part(fault, advice);
        EXPECT_EQ(fault.find("quay.brick", 5), std::string::npos) << fault;  // one fault, and none that follows from it
    }
    const auto follows = fault_of(
        "sheet size 9,9\ngradient g = linear from 0,0 stops 0,red\nmark at 1,1 ink g\n"
        "palette nowhere\nmark at 1,1 ink entry(3)\n");
    EXPECT_EQ(std::count(follows.begin(), follows.end(), '^'), 6 + 7) << follows;
}

}  // namespace
