// The command-line tool, run as its users run it.
#include "oracle.hpp"
#include "png_builder.hpp"
#include "tool_runner.hpp"

#include <coldbrick/coldbrick.hpp>

#include <filesystem>
#include <sstream>

namespace {

using namespace coldbrick;
namespace fs = std::filesystem;

class Tool : public ToolTest {
  protected:
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

TEST_F(Tool, ShapesDrawsASheet) {
    const auto drawn = run("shapes -o shapes.png");
    EXPECT_EQ(drawn.code, 0);
    EXPECT_EQ(drawn.err, "");
    const auto text = run("shapes --scene");
    EXPECT_EQ(text.code, 0);
    write("shapes.brick", text.out);
    EXPECT_EQ(run("render shapes.brick -o again.png").code, 0);
    EXPECT_EQ(content(path("again.png")), content(path("shapes.png")));
    for (const auto* const word :
         {"arc", "box", "chord", "circle", "ellipse", "line", "path", "polygon", "region", "sector", "star", "text"}) {
        EXPECT_NE(text.out.find(std::string{"stroke "} + word), std::string::npos) << word;
    }
    EXPECT_EQ(run("shapes").code, 2);
}

TEST_F(Tool, FacesDrawsAllLettersOfAFontFile) {
    const std::string font = "/usr/share/fonts/truetype/noto/NotoSansThai-Regular.ttf";
    const auto drawn = run("faces " + font + " -o faces.png");
    EXPECT_EQ(drawn.code, 0);
    const auto text = run("faces " + font + " --scene");
    EXPECT_EQ(text.out.substr(0, 14), "sheet size 128");
    EXPECT_NE(text.out.find("face face_1 = \"" + font + "\" number 0\n"), std::string::npos);
    EXPECT_NE(text.out.find("Noto Sans Thai, "), std::string::npos);
    EXPECT_NE(text.out.find("features: "), std::string::npos);
    for (const auto c : load_face(font).characters()) {
        if (c >= 0xe01 && c <= 0xe5b) {
            EXPECT_NE(text.out.find("\"" + utf8(c) + "\" at"), std::string::npos) << utf8(c);
        }
    }
    write("sheet.brick", text.out);
    EXPECT_EQ(run("render sheet.brick -o again.png --files-from /usr/share/fonts").code, 0);
    EXPECT_EQ(content(path("again.png")), content(path("faces.png")));
    EXPECT_EQ(run("faces sheet.brick -o faces.png").err,
              "sheet.brick: it is no font file, or a damaged one (no format that is known)\n");
    EXPECT_NE(run("faces --scene").out.find("face pixel height 14"), std::string::npos);
    // Those that are always there have braces, quotes and backslashes among their characters; a file's name may too.
    const auto built_in = run("faces -o faces.png");
    EXPECT_EQ(built_in.code, 0) << built_in.err;
    EXPECT_EQ(built_in.err, "");
    fs::copy_file(font, path("a{b}\"c\\d.ttf"));
    EXPECT_EQ(run("faces 'a{b}\"c\\d.ttf' -o faces.png").code, 0);
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
              "quay.brick:3:1: nothing of this mark shows: it lies at 6,0, 1 pixel right of the sheet, 0,0 to 5,3\n"
              "quay.brick:4:1: nothing of this fill circle shows: it lies at 1,-11 to 5,-7, 7 pixels above the sheet, "
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
              "    did you mean 'circle'?\n"
              "'coldbrick words circle' tells what it takes, with pictures\n");
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
        complaint("render quay.brick -o quay.jpx"),
        "coldbrick: quay.jpx: the suffix is .jpx; allowed are .png, .jpg, .jpeg, .pbm, .pgm, .ppm, .pnm, .pam, .bmp, "
        ".qoi, .gif and .webp\n");
    EXPECT_EQ(complaint("render quay.brick -o q --kind jpx"),
              "coldbrick: --kind is jpx; allowed are png, jpg, pbm, pgm, ppm, pnm, pam, bmp, qoi, gif and webp\n");
    EXPECT_EQ(complaint("render quay.brick -o q.png --scale 0"), "coldbrick: --scale is 0; allowed is 1 to 1024\n");
    EXPECT_EQ(complaint("render quay.brick -o - --scale 1,2"),
              "coldbrick: --scale gives several pictures, but standard output takes one; name a file\n");
    EXPECT_EQ(complaint("render"), "coldbrick render: SCENE is missing\n    'coldbrick render --help' has more\n");
    EXPECT_NE(complaint("render quay.brick --small").find("without -o PICTURE nothing is written"), std::string::npos);
    EXPECT_NE(complaint("render quay.brick -o q.png --scale big").find("--scale"), std::string::npos);
    EXPECT_NE(complaint("paint quay.brick").find("there is no command 'paint'"), std::string::npos);
    EXPECT_NE(complaint("rendr quay.brick").find("did you mean 'render'?"), std::string::npos);
    EXPECT_NE(complaint("").find("which command?"), std::string::npos);
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
        const auto name = file.path().filename();
        // Parts of others; and what draws pictures that the demo makes first.
        const auto is_whole = name != "quay-parts.brick" && file.path().parent_path().filename() != "sheets";
        if (file.path().extension() != ".brick" || !is_whole) continue;
        const auto rows = name == "berth-badge.brick" ? " --rows '" COLDBRICK_SCENES "/boats.csv' -o 'demo-{name}.png'"
                                                      : std::string{" -o demo.png"};
        const auto outcome = run("render '" + file.path().string() + "'" + rows);
        EXPECT_EQ(outcome.code, 0) << outcome.err;
        EXPECT_EQ(outcome.err, "") << file.path();
        ++scenes;
    }
    EXPECT_GE(scenes, 7);
}

TEST_F(Tool, TellsWhatPicturesAre) {
    write("quay.brick", scene);
    ASSERT_EQ(run("render quay.brick -o quay.png").code, 0);
    fs::copy_file(path("quay.png"), path("quay.bmp"));
    const auto told = run("info quay.bmp none.png");
    EXPECT_EQ(told.code, 1);
    EXPECT_EQ(told.out,
              "quay.bmp: png, 6 x 4 pixels\n"
              "    channels  red, green, blue, 8 bits\n"
              "    colours   2\n"
              "    odd       its name says bmp\n");
    EXPECT_EQ(told.err, "none.png: cannot be read: No such file or directory\n");
    const auto json = run("info --json quay.png");
    EXPECT_EQ(json.code, 0);
    for (const auto* const part : {"\"format\": \"png\"", "\"width\": 6", "\"colors\": 2", "\"oddities\": []"}) {
        EXPECT_NE(json.out.find(part), std::string::npos) << part;
    }
}

TEST_F(Tool, WritesPicturesAnew) {
    write("quay.brick", "sheet size 60,40 ink teal\nfill circle center 30,20 radius 12 smooth ink gold\n");
    ASSERT_EQ(run("render quay.brick -o quay.png").code, 0);
    ASSERT_EQ(run("render quay.brick -o tiny.png --small").code, 0);
    EXPECT_LT(fs::file_size(path("tiny.png")), fs::file_size(path("quay.png")));
    EXPECT_EQ(run("differ quay.png tiny.png").code, 0);
    ASSERT_EQ(run("render quay.brick -o a.jpg --quality 30").code + run("render quay.brick -o b.jpg").code, 0);
    EXPECT_LT(fs::file_size(path("a.jpg")), fs::file_size(path("b.jpg")));
    EXPECT_EQ(run("render quay.brick -o c.jpg --quality 101").code, 2);
    EXPECT_EQ(run("resave quay.png quay.bmp").out, "quay.bmp: bmp, 60 x 40 pixels, 7254 bytes\n");
    EXPECT_EQ(run("differ quay.png quay.bmp").code, 0);
    EXPECT_EQ(run("resave quay.png small.png --small --size 30,0").code, 0);
    EXPECT_NE(run("info small.png").out.find("small.png: png, 30 x 20 pixels\n    channels  numbers in a palette"),
              std::string::npos);
    EXPECT_EQ(run("resave quay.png gray.pgm --channels gray --bits 16").code, 0);
    EXPECT_NE(run("info gray.pgm").out.find("channels  gray, 16 bits"), std::string::npos);
    EXPECT_EQ(run("resave quay.png plain.ppm --plain").code, 0);
    EXPECT_EQ(content(path("plain.ppm")).substr(0, 3), "P3\n");
    EXPECT_EQ(run("resave quay.png quay.qoi").code, 0);
    EXPECT_EQ(run("differ quay.png quay.qoi").code, 0);
    // Translucent pixels need a ground in a file without alpha.
    write("glass.brick", "sheet size 6,4 ink #ff000080\n");
    ASSERT_EQ(run("render glass.brick -o glass.png").code, 0);
    const auto refused = run("resave glass.png glass.jpg");
    EXPECT_EQ(refused.code, 1);
    EXPECT_NE(refused.err.find("--on change the picture first"), std::string::npos);
    EXPECT_NE(run("resave glass.png out.ppm --on nocolor").err.find("--on: color: 'nocolor' is"), std::string::npos);
    EXPECT_EQ(run("resave glass.png glass.ppm --on '#fff'").code, 0);
    EXPECT_EQ(run("resave glass.png glass.ppm --on white").code, 0);
    EXPECT_EQ(run("pick glass.ppm 3,2").out, "3,2  #ff7f7f  red 255 green 127 blue 127  near salmon\n");
    for (const auto* const wrong : {"--bits 7", "--channels cmyk", "--scaling best", "--size 3", "--size 0,0",
                                    "--size -3,4", "--size 3,x", "--quality 0", "--on nocolor", "--kind jpx"}) {
        EXPECT_EQ(run(std::string{"resave quay.png out.png "} + wrong).code, 2) << wrong;
    }
    EXPECT_FALSE(fs::exists(path("out.png")));
}

TEST_F(Tool, PicksAndCompares) {
    write("a.brick", "sheet size 9,7 ink teal\nmark at 2,3 ink gold\n");
    write("b.brick", "sheet size 9,7 ink teal\nmark at 2,3 ink #ffd200\nmark at 5,6 ink black\n");
    ASSERT_EQ(run("render a.brick -o a.png").code + run("render b.brick -o b.png").code, 0);
    EXPECT_EQ(run("pick a.png 2,3 0,0").out,
              "2,3  #ffd700  red 255 green 215 blue 0  gold\n0,0  #008080  red 0 green 128 blue 128  teal\n");
    const auto outside = run("pick a.png 0,0 9,3");
    EXPECT_EQ(outside.code, 1);
    EXPECT_EQ(outside.out, "");
    EXPECT_EQ(outside.err, "a.png: pixel 9,3 is outside the picture, which has 0,0 to 8,6\n");
    EXPECT_EQ(run("pick a.png 2-3").code, 2);
    const auto found = run("differ a.png b.png -o where.png");
    EXPECT_EQ(found.code, 1);
    EXPECT_EQ(found.out,
              "2 of 63 pixels differ, within 2,3 to 5,6\n"
              "greatest difference: red 0, green 128, blue 128, alpha 0 of 255\n");
    EXPECT_NE(run("pick where.png 5,6").out.find("near"), std::string::npos);
    EXPECT_NE(run("differ a.png b.png --tolerance 5").out.find("1 of 63"), std::string::npos);
    EXPECT_EQ(run("differ a.png b.png --tolerance 128").code, 0);
    EXPECT_EQ(run("differ a.png none.png").code, 2);
    EXPECT_EQ(run("differ a.png b.png --tolerance -1").code, 2);
    ASSERT_EQ(run("resave a.png c.png --size 4,4").code, 0);
    const auto other_size = run("differ a.png c.png");
    EXPECT_EQ(other_size.code, 2);
    EXPECT_EQ(other_size.err, "a.png has 9 x 7 pixels, and c.png 4 x 4: they cannot be compared\n");
}

TEST_F(Tool, ChecksScenesAndTellsWhatIsWrongWithACall) {
    write("quay.brick", scene);
    const auto checked = run("render quay.brick");
    EXPECT_EQ(checked.code, 0);
    EXPECT_EQ(checked.out,
              "quay.brick: 6 x 4 pixels, 1 of 1 drawings show; nothing is written (-o PICTURE writes it)\n");
    EXPECT_EQ(run("render quay.brick -o quay.png").code, 0);
    const auto picture = run("render quay.png");
    EXPECT_EQ(picture.code, 1);
    EXPECT_EQ(picture.err, "quay.png: this is a picture (png), and no scene; 'coldbrick info' tells about it\n");
    const auto tight = run("render quay.brick --limit sheet_pixels=20");
    EXPECT_EQ(tight.code, 1);
    EXPECT_NE(tight.err.find("the sheet has 24 pixels; allowed are 20"), std::string::npos);
    EXPECT_NE(run("render quay.brick --limit pixel=20").err.find("--limit has no 'pixel'"), std::string::npos);
    std::string unseen = "sheet size 6,4\n";
    for (int i = 0; i < 30; ++i) unseen += "mark at 9,9 ink red\n";
    write("unseen.brick", unseen);
    const auto remarks = run("render unseen.brick").err;
    EXPECT_EQ(std::count(remarks.begin(), remarks.end(), '\n'), 21);
    EXPECT_NE(remarks.find("... and 10 more of which nothing shows"), std::string::npos);
    for (const auto* const call :
         {"--help", "--version", "render --help", "info quay.png", "pick quay.png 0,0", "render quay.brick"}) {
        const auto command = "cd '" + folder().string() + "' && " + tool() + " " + call + " >/dev/full 2>.err";
        EXPECT_EQ(WEXITSTATUS(std::system(command.c_str())), 1) << call;
        EXPECT_EQ(content(path(".err")), "standard output: cannot be written\n") << call;
    }
    fs::create_directories(path("other"));
    ASSERT_EQ(run("resave quay.png other/b.png").code, 0);
    fs::create_directories(path("scenes"));
    write("scenes/far.brick", "sheet from \"../other/b.png\"\n");
    EXPECT_EQ(run("render scenes/far.brick").code, 1);
    EXPECT_EQ(run("render scenes/far.brick --files-from other").code, 0);
}

TEST_F(Tool, ResavesPartsAndPalettes) {
    write("quay.brick",
          "sheet size 40,30 ink navy\nfill circle center 20,15 radius 12 smooth ink gold\nmark at 3,1 ink red\n");
    ASSERT_EQ(run("render quay.brick -o quay.png").code, 0);
    ASSERT_EQ(run("resave quay.png part.png --part 2,1,10,5 --mirrored left_right --turned 90").code, 0);
    const auto part = load<Rgb8>(path("part.png"));
    EXPECT_EQ(part.size(), (Size{5, 10}));
    EXPECT_EQ(part.color_at({4, 8}), colors::red);
    EXPECT_EQ(run("resave quay.png part.png --part 35,1,10,5").code, 1);
    ASSERT_EQ(run("resave quay.png few.png --channels palette --colors 5 --diffused").code, 0);
    EXPECT_LE(count_colors(load<Rgb8>(path("few.png"))), 5U);
    for (const auto* const nothing : {"--colors 5", "--diffused", "--scaling box", "--plain", "--quality 50"}) {
        EXPECT_EQ(run(std::string{"resave quay.png o.png "} + nothing).code, 2) << nothing;
    }
    ASSERT_EQ(run("resave quay.png deep.png --bits 16 --channels rgb").code, 0);
    EXPECT_EQ(load_any(path("deep.png")).info.channels, 3);
    EXPECT_EQ(load_any(path("deep.png")).info.bits, 16);
    ASSERT_EQ(run("resave quay.png glass.png --channels rgba").code, 0);
    const auto unreadable = run("info --json quay.png none.png");
    EXPECT_EQ(unreadable.code, 1);
    EXPECT_NE(unreadable.out.find("\"error\": \"none.png: cannot be read: No such file"), std::string::npos);
    write("clear.brick", "sheet size 2,2 ink transparent\n");
    ASSERT_EQ(run("render clear.brick -o clear.png").code, 0);
    EXPECT_EQ(run("pick clear.png 1,1").out, "1,1  #00000000  transparent\n");
}

// A fault that comes up when it is drawn, as it depends on what is seen.
TEST_F(Tool, FaultsWhileDrawingHaveTheirPlace) {
    write("dashes.brick",
          "sheet size 64,64\nscale by 0.0000001\nturn by 12\n"
          "stroke arc center 0,0 radius 1000000000 sweep 0,90 width 5 cap round dash 9,4 smooth ink red\nend\nend\n");
    const auto outcome = run("render dashes.brick -o dashes.png");
    EXPECT_EQ(outcome.code, 1);
    EXPECT_EQ(outcome.err.rfind("dashes.brick:4:1: stroke", 0), 0U) << outcome.err;
    EXPECT_NE(outcome.err.find("dashes reach into the picture"), std::string::npos) << outcome.err;
    EXPECT_FALSE(fs::exists(path("dashes.png")));
}

// Whenever a signal comes, the old picture is there or the new one, and nothing else.
TEST_F(Tool, AnEndBySignalLeavesTheOldPictureOrTheNewOne) {
    write("quay.brick", "sheet size 2000,1500 ink navy\nfill circle center 900,700 radius 600 ink gold smooth\n");
    write("small.brick", scene);
    ASSERT_EQ(run("render quay.brick -o new.ppm").code, 0);
    ASSERT_EQ(run("render small.brick -o old.ppm").code, 0);
    const auto old_picture = content(path("old.ppm"));
    const auto new_picture = content(path("new.ppm"));
    for (const auto* const signal : {"INT", "TERM", "HUP"}) {
        for (const auto* const seconds : {"0.004", "0.008", "0.012", "0.016", "0.024", "0.04"}) {
            fs::copy_file(path("old.ppm"), path("out.ppm"), fs::copy_options::overwrite_existing);
            const auto command = "cd '" + folder().string() + "' && timeout -s " + signal + " " + seconds + " " +
                                 tool() + " render quay.brick -o out.ppm >.out 2>.err";
            (void)!std::system(command.c_str());
            const auto left = content(path("out.ppm"));
            EXPECT_TRUE(left == old_picture || left == new_picture) << signal << " after " << seconds;
            EXPECT_EQ(std::distance(fs::directory_iterator{folder()}, {}), 7) << signal << " after " << seconds;
        }
    }
}

TEST_F(Tool, LimitsAreWholeNumbersFromOneOnOrTimes) {
    write("quay.brick", scene);
    for (const auto* const name :
         {"pixels", "side", "file_bytes", "memory", "pixels_per_byte", "text_bytes", "texts", "scans", "scene_bytes",
          "statements", "calls", "depth", "frames", "sheet_pixels", "scene_memory", "work"}) {
        const auto given = [&](const std::string& value) {
            return run("render quay.brick --limit " + (name + ("=" + value)));
        };
        const auto refused = given("0.5");
        EXPECT_EQ(refused.code, 2) << name;
        EXPECT_NE(refused.err.find("allowed are whole numbers from 1 on"), std::string::npos) << name;
        EXPECT_EQ(given("1e300").code, 0) << name;
        EXPECT_LE(given("1").code, 1) << name;
    }
    for (const auto* const value : {"0", "1.5", "-1", "nan", "", "x", "1e400"}) {
        EXPECT_EQ(run(std::string{"render quay.brick --limit pixels="} + value).code, 2) << value;
    }
    EXPECT_EQ(run("render quay.brick --limit seconds=0").code, 2);
    EXPECT_EQ(run("render quay.brick --limit seconds=1e-320").code, 1);
    EXPECT_EQ(run("render quay.brick --limit seconds=inf").code, 0);
    EXPECT_EQ(run("render quay.brick -o quay.png").code, 0);
    EXPECT_EQ(run("info quay.png --limit pixels_per_byte=0.5").code, 2);
    EXPECT_EQ(run("info quay.png --limit seconds=1e-320").code, 1);
}

TEST_F(Tool, DevicesTakeEverything) {
    write("quay.brick", scene);
    EXPECT_EQ(run("render quay.brick -o /dev/null").code, 0);
    EXPECT_EQ(run("render quay.brick -o /dev/null --kind bmp").code, 0);
    EXPECT_EQ(run("render quay.brick -o /dev/full").code, 1);
}

// What a picture says is escaped, also in JSON.
TEST_F(Tool, NothingFromAFileReachesTheTerminalAsItIs) {
    write("quay.brick", scene);
    ASSERT_EQ(run("render quay.brick -o quay.png").code, 0);
    auto png = content(path("quay.png"));
    std::vector<std::uint8_t> chunk;
    const auto text = std::string{
        "Title\0\x1b[2J\x9b"
        "1A",
        13};
    oracle::put_chunk(chunk, "tEXt", {text.begin(), text.end()});
    png.insert(8 + 25, std::string{chunk.begin(), chunk.end()});
    write("dark.png", png);
    for (const auto* const call : {"info dark.png", "info dark.png --json"}) {
        const auto outcome = run(call);
        EXPECT_EQ(outcome.code, 0);
        EXPECT_NE(outcome.out.find("Title"), std::string::npos) << outcome.out;
        EXPECT_TRUE(std::all_of(outcome.out.begin(), outcome.out.end(), [](char c) {
            return c == '\n' || (c >= ' ' && c <= '~');
        })) << outcome.out;
    }
}

// Where files without a name cannot be had, what a signal leaves is removed.
TEST_F(Tool, AnEndBySignalLeavesNothingWhereNamelessFilesAreUnknown) {
    if (is_sanitized) GTEST_SKIP() << "the sanitizers must be loaded first";
    write("open.c",
          "#define _GNU_SOURCE\n#include <dlfcn.h>\n#include <errno.h>\n#include <fcntl.h>\n#include <stdarg.h>\n"
          "int open(const char* path, int flags, ...) {\n"
          "    va_list more; va_start(more, flags); int mode = va_arg(more, int); va_end(more);\n"
          "    if ((flags & O_TMPFILE) == O_TMPFILE) { errno = EOPNOTSUPP; return -1; }\n"
          "    return ((int (*)(const char*, int, ...))dlsym(RTLD_NEXT, \"open\"))(path, flags, mode);\n}\n"
          "int open64(const char* path, int flags, ...) {\n"
          "    va_list more; va_start(more, flags); int mode = va_arg(more, int); va_end(more);\n"
          "    return open(path, flags, mode);\n}\n");
    const auto in_folder = "cd '" + folder().string() + "' && ";
    ASSERT_EQ(std::system((in_folder + "cc -shared -fPIC open.c -o open.so -ldl").c_str()), 0);
    write("wall.brick",
          "sheet size 6000,6000 ink navy\nrepeat 400 as i\nfill circle center i*15,3000 radius 900 smooth ink "
          "#ffffff08\nend\n");
    auto ended = 0;
    for (const auto* const seconds : {"0.15", "0.3", "0.45", "0.6", "5"}) {
        const auto command = in_folder + "LD_PRELOAD=./open.so timeout -s INT " + seconds + " " + tool() +
                             " render wall.brick -o wall.png >.out 2>.err";
        ended += std::system(command.c_str()) != 0 ? 1 : 0;
        for (const auto& file : fs::directory_iterator{folder()}) {
            EXPECT_FALSE(file.path().filename().string().starts_with(".unfinished")) << seconds;
        }
    }
    EXPECT_GT(ended, 0);
}

TEST_F(Tool, LittleMemoryIsTold) {
    if (is_sanitized) GTEST_SKIP() << "the sanitizers take more memory";
    write("large.brick", "sheet size 7000,7000 ink navy\nfill circle center 900,700 radius 600 ink gold\n");
    write("small.brick", scene);
    ASSERT_EQ(run("render large.brick -o large.png").code, 0);
    ASSERT_EQ(run("render small.brick -o small.png").code, 0);
    const auto few = [&](const std::string& call) {
        const auto command =
            "cd '" + folder().string() + "' && (ulimit -v 100000; " + tool() + " " + call + ") >.out 2>.err";
        const auto status = std::system(command.c_str());
        return Outcome{WEXITSTATUS(status), content(path(".out")), content(path(".err"))};
    };
    EXPECT_EQ(few("render small.brick -o small.png").code, 0);
    // Pictures are read by rows, of which no more is kept than is asked for.
    for (const auto* const call : {"pick large.png 3,4", "info large.png", "info large.png --json",
                                   "resave large.png part.png --part 800,600,90,80",
                                   "resave large.png less.png --size 140,0 --scaling lanczos"}) {
        EXPECT_EQ(few(call).code, 0) << call;
    }
    EXPECT_EQ(load<Rgb8>(path("part.png"), Excerpt{.part = Box{{9, 9}, {1, 1}}}).color_at({0, 0}), colors::gold);
    EXPECT_EQ(load<Rgb8>(path("less.png")).size(), (Size{140, 140}));
    // Rows are written as they are drawn, and the same as in much memory.
    const auto in_much_memory = content(path("large.png"));
    EXPECT_EQ(few("render large.brick -o large.png").code, 0);
    EXPECT_EQ(content(path("large.png")), in_much_memory);
    for (const auto* const call :
         {"render large.brick -o new.webp", "resave large.png new.png", "differ large.png large.png"}) {
        const auto told = few(call);
        EXPECT_EQ(told.code, std::string_view{call}.starts_with("differ") ? 2 : 1) << call;
        EXPECT_NE(told.err.find("memory"), std::string::npos) << call << ": " << told.err;
    }
    EXPECT_FALSE(fs::exists(path("new.png")));
    EXPECT_FALSE(fs::exists(path("new.webp")));
}

TEST_F(Tool, WordsAreAReference) {
    const auto list = run("words");
    EXPECT_EQ(list.code, 0);
    for (const auto& verb : scene_words().verbs) {
        EXPECT_NE(list.out.find("\n    " + verb.name + " "), std::string::npos) << verb.name;
    }
    const auto page = run("words circle");
    EXPECT_EQ(page.code, 0);
    EXPECT_EQ(page.out.find("circle\n\nAll pixels whose centres"), 0U);
    EXPECT_NE(page.out.find("allowed is 0 to 1073741823"), std::string::npos);
    EXPECT_EQ(run("words circle -o circle.png").code, 0);
    EXPECT_EQ(run("words circle -o scene.png --only scene").code, 0);
    // The example, each pixel as a square of 4 by 4.
    const auto drawn = load<Rgb8>(path("scene.png"));
    EXPECT_EQ(drawn.size(), (Size{96 * 4, 64 * 4}));
    EXPECT_EQ(drawn.color_at({32 * 4 + 1, 32 * 4 + 1}), colors::gold);
    EXPECT_EQ(run("words circle -o radius.png --only radius").code, 0);
    EXPECT_EQ(run("words paste -o paste.png").code, 0);
    EXPECT_EQ(run("words circle -o no.png --only colour").code, 1);
    EXPECT_EQ(run("words circel").err, "there is no page 'circel'; did you mean 'circle'?\n");
    EXPECT_EQ(run("words miter_limit").err,
              "'miter_limit' is a word of stroke; 'coldbrick words stroke' tells about it\n");
    EXPECT_EQ(run("words -o no.png").code, 2);
    EXPECT_EQ(run("words circle --only radius").code, 2);
}

}  // namespace
