// The command-line tool, run as its users run it.
#include "folder_test.hpp"
#include "oracle.hpp"

#include <coldbrick/convert.hpp>
#include <coldbrick/files.hpp>
#include <coldbrick/scene.hpp>

#include <cstdlib>
#include <sstream>

#include <sys/wait.h>

namespace {

using namespace coldbrick;
namespace fs = std::filesystem;

struct Outcome {
    int code;
    std::string out;
    std::string err;
};

class Tool : public FolderTest {
  protected:
    // Runs the tool in the folder, with arguments as a shell takes them.
    [[nodiscard]] Outcome run(const std::string& arguments) const {
        const auto command = "cd '" + folder().string() + "' && '" COLDBRICK_TOOL "' " + arguments + " >.out 2>.err";
        const auto status = std::system(command.c_str());
        return {WEXITSTATUS(status), content(path(".out")), content(path(".err"))};
    }

    const std::string scene = "sheet size 6,4 ink navy\nfill box at 1,1 size 3,2 ink gold\n";
};

std::string bytes_of(const std::vector<std::uint8_t>& bytes) { return {bytes.begin(), bytes.end()}; }

TEST_F(Tool, RendersAsTheLibraryDoesAndSaysSoInOneLine) {
    write("quay.brick", scene);
    const auto outcome = run("render quay.brick -o quay.ppm");
    EXPECT_EQ(outcome.code, 0);
    EXPECT_EQ(outcome.out, "quay.ppm: 6 x 4 pixels, 1 of 1 drawings show, 83 bytes\n");
    EXPECT_EQ(outcome.err, "");
    auto expected = parse_scene(scene).sheet<Rgb8>();
    render(parse_scene(scene), expected);
    EXPECT_EQ(content(path("quay.ppm")), bytes_of(encode(expected, FileFormat::ppm)));
}

TEST_F(Tool, ShapesDrawsASheetOfWhichEverythingShows) {
    const auto drawn = run("shapes -o shapes.png");
    EXPECT_EQ(drawn.code, 0);
    EXPECT_EQ(drawn.err, "");
    const auto text = run("shapes --scene");
    EXPECT_EQ(text.code, 0);
    write("shapes.brick", text.out);
    EXPECT_EQ(run("render shapes.brick -o again.png").code, 0);
    EXPECT_EQ(content(path("again.png")), content(path("shapes.png")));
    for (const auto* const word :
         {"arc", "box", "chord", "circle", "ellipse", "line", "path", "polygon", "region", "sector", "star"}) {
        EXPECT_NE(text.out.find(std::string{"stroke "} + word), std::string::npos) << word;
    }
    EXPECT_EQ(run("shapes").code, 2);
}

TEST_F(Tool, SeveralSizesAndKinds) {
    write("quay.brick", scene);
    EXPECT_EQ(run("render quay.brick -o quay.png --scale 1,3 --scale 5").code, 0);
    auto picture = parse_scene(scene).sheet<Rgb8>();
    render(parse_scene(scene), picture);
    EXPECT_EQ(content(path("quay.png")), bytes_of(encode(picture, FileFormat::png)));
    EXPECT_EQ(content(path("quay-x3.png")), bytes_of(encode(enlarge(picture, 3), FileFormat::png)));
    EXPECT_EQ(content(path("quay-x5.png")), bytes_of(encode(enlarge(picture, 5), FileFormat::png)));
    EXPECT_EQ(run("render quay.brick --scale 2 -o large.pam").code, 0);
    EXPECT_EQ(content(path("large.pam")), bytes_of(encode(enlarge(picture, 2), FileFormat::pam)));
    EXPECT_EQ(run("render quay.brick -o quay.out --kind pgm").code, 0);
    EXPECT_EQ(content(path("quay.out")), bytes_of(encode(convert<Gray8>(picture), FileFormat::pgm)));
}

TEST_F(Tool, FromStandardInputToStandardOutput) {
    write("quay.brick", scene);
    const auto outcome = run("render - -o - --kind ppm <quay.brick");
    EXPECT_EQ(outcome.code, 0);
    EXPECT_EQ(outcome.out.substr(0, 11), "P6\n6 4\n255\n");
    EXPECT_EQ(outcome.err, "standard output: 6 x 4 pixels, 1 of 1 drawings show, 83 bytes\n");
    EXPECT_EQ(run("render - -o - <quay.brick").out.substr(1, 3), "PNG");
}

TEST_F(Tool, TranslucentGroundGivesAlpha) {
    write("glass.brick", "sheet size 2,1 ink #0000\nmark at 0,0 ink red\n");
    EXPECT_EQ(run("render glass.brick -o glass.pam").code, 0);
    EXPECT_NE(content(path("glass.pam")).find("RGB_ALPHA"), std::string::npos);
    const auto refused = run("render glass.brick -o glass.ppm");
    EXPECT_EQ(refused.code, 1);
    EXPECT_NE(refused.err.find("opaque colours only"), std::string::npos);
    EXPECT_FALSE(fs::exists(path("glass.ppm")));
}

TEST_F(Tool, WarnsOfWhatShowsNothing) {
    write("quay.brick", scene + "mark at 6,0 ink red\nfill circle center 3,-9 radius 2 ink red\n");
    const auto outcome = run("render quay.brick -o quay.png");
    EXPECT_EQ(outcome.code, 0);
    EXPECT_EQ(outcome.err,
              "quay.brick:3:1: nothing of this mark shows: it lies at 6,0, right of the sheet, 0,0 to 5,3\n"
              "quay.brick:4:1: nothing of this fill circle shows: it lies at 1,-11 to 5,-7, above the sheet, "
              "0,0 to 5,3\n");
    EXPECT_NE(outcome.out.find("1 of 3 drawings show"), std::string::npos);
}

TEST_F(Tool, FaultsInASceneWriteNothing) {
    write("quay.brick", "sheet size 6,4\nfill circel center 3,2 radius 1 ink red\n");
    write("quay.png", "old");
    const auto outcome = run("render quay.brick -o quay.png");
    EXPECT_EQ(outcome.code, 1);
    EXPECT_EQ(outcome.out, "");
    EXPECT_EQ(outcome.err,
              "quay.brick:2:6: unknown shape 'circel'\n"
              "    fill circel center 3,2 radius 1 ink red\n"
              "         ^^^^^^\n"
              "    did you mean 'circle'?\n");
    EXPECT_EQ(content(path("quay.png")), "old");
    EXPECT_NE(run("render - -o quay.png <quay.brick").err.find("standard input:2:6:"), std::string::npos);
}

TEST_F(Tool, FilesThatCannotBeReadOrWritten) {
    write("quay.brick", scene);
    const auto missing = run("render none.brick -o quay.png");
    EXPECT_EQ(missing.code, 1);
    EXPECT_EQ(missing.err, "none.brick: cannot be read: No such file or directory\n");
    const auto folder_as_scene = run("render . -o quay.png");
    EXPECT_EQ(folder_as_scene.code, 1);
    EXPECT_EQ(folder_as_scene.err, ".: cannot be read: Is a directory\n");
    const auto unwritable = run("render quay.brick -o none/quay.png");
    EXPECT_EQ(unwritable.code, 1);
    EXPECT_EQ(unwritable.err, "none/quay.png: cannot be written: No such file or directory\n");
    EXPECT_FALSE(fs::exists(path("quay.png")));
}

TEST_F(Tool, WrongCalls) {
    write("quay.brick", scene);
    const auto complaint = [&](const std::string& arguments) {
        const auto outcome = run(arguments);
        EXPECT_EQ(outcome.code, 2) << arguments;
        EXPECT_EQ(outcome.out, "") << arguments;
        return outcome.err;
    };
    EXPECT_EQ(
        complaint("render quay.brick -o quay.gif"),
        "coldbrick: quay.gif: the suffix is .gif; allowed are .png, .jpg, .jpeg, .pbm, .pgm, .ppm, .pnm, .pam, .bmp "
        "and .qoi\n");
    EXPECT_EQ(complaint("render quay.brick -o q --kind gif"),
              "coldbrick: --kind is gif; allowed are png, jpg, pbm, pgm, ppm, pnm, pam, bmp and qoi\n");
    EXPECT_EQ(complaint("render quay.brick -o q.png --scale 0"), "coldbrick: --scale is 0; allowed is 1 to 1024\n");
    EXPECT_EQ(complaint("render quay.brick -o - --scale 1,2"),
              "coldbrick: --scale gives several pictures, but standard output takes one; name a file\n");
    EXPECT_NE(complaint("render quay.brick").find("--output"), std::string::npos);
    EXPECT_NE(complaint("render quay.brick -o q.png --scale big").find("--scale"), std::string::npos);
    EXPECT_NE(complaint("paint quay.brick"), "");
    EXPECT_NE(complaint(""), "");
    EXPECT_FALSE(fs::exists(path("q.png")));
}

TEST_F(Tool, HelpTeachesWithAnExampleThatWorks) {
    const auto help = run("--help");
    EXPECT_EQ(help.code, 0);
    std::string example;
    std::istringstream lines{help.out};
    for (std::string line; std::getline(lines, line);) {
        if (line.starts_with("    ") && line.find("coldbrick render") == std::string::npos) example += line + "\n";
    }
    write("harbour.brick", example);
    const auto drawn = run("render harbour.brick -o harbour.png --scale 8");
    EXPECT_EQ(drawn.code, 0) << drawn.err;
    EXPECT_EQ(drawn.err, "");
    EXPECT_NE(drawn.out.find("576 x 360 pixels, 4 of 4 drawings show"), std::string::npos) << drawn.out;
    EXPECT_NE(run("render --help").out.find("    polygon  through"), std::string::npos);
    EXPECT_EQ(run("--version").out, "coldbrick 0.1.0\n");
}

TEST_F(Tool, DemoScenesShowAllOfTheirDrawings) {
    auto scenes = 0;
    for (const auto& file : fs::recursive_directory_iterator{COLDBRICK_SCENES}) {
        if (!file.is_regular_file()) continue;
        const auto outcome = run("render '" + file.path().string() + "' -o demo.png");
        EXPECT_EQ(outcome.code, 0) << outcome.err;
        EXPECT_EQ(outcome.err, "") << file.path();
        ++scenes;
    }
    EXPECT_GE(scenes, 7);
}

}  // namespace
