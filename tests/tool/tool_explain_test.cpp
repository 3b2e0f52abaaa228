// The tool's explain command.
#include "tool_runner.hpp"

#include <coldbrick/coldbrick.hpp>

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

namespace {

using namespace coldbrick;

class ToolExplain : public ToolTest {
  protected:
    void SetUp() override {
        ToolTest::SetUp();
        write("quay.brick",
              "sheet size 40,30 ink navy\n"
              "fill box at 0,20 size 50,20 ink teal\n"
              "fill circle center 9,9 radius 4 ink gold\n"
              "repeat 3 as i\n"
              "    mark at 9+i,9 ink gold\n"
              "end\n"
              "fill box at 30,2 size 4,4 ink red\n"
              "fill box at 28,0 size 8,8 ink white opacity 50%\n"
              "fill box at 60,2 size 4,4 ink red\n"
              "fill box at 28,0 size 8,8 ink coral\n");
    }
};

TEST_F(ToolExplain, APixelInWords) {
    const auto told = run("explain quay.brick 31,3 9,9");
    EXPECT_EQ(told.code, 0);
    EXPECT_EQ(told.err, "");
    EXPECT_EQ(told.out,
              "31,3 is #ff7f50 coral\n"
              "    the ground                 #000080 navy\n"
              "    quay.brick:7:1   fill box  #ff0000 red  (all of it with #ff0000 red)\n"
              "    quay.brick:8:1   fill box  #ff8080 near salmon  (all of it with #ffffff80 white, alpha 128)\n"
              "    quay.brick:10:1  fill box  #ff7f50 coral  (all of it with #ff7f50 coral)\n"
              "9,9 is #ffd700 gold\n"
              "    the ground                   #000080 navy\n"
              "    quay.brick:3:1  fill circle  #ffd700 gold  (all of it with #ffd700 gold)\n"
              "    quay.brick:5:5  mark         changes nothing  (all of it with #ffd700 gold)\n");
}

TEST_F(ToolExplain, TheWholePictureInWords) {
    const auto told = run("explain quay.brick -o overdraw.png");
    EXPECT_EQ(told.code, 0) << told.err;
    EXPECT_EQ(told.out.find("quay.brick: 40 x 30 pixels, 3 of 9 drawings show\n"), 0U) << told.out;
    EXPECT_NE(told.out.find("2:1    fill box            1        400        400        400  10 right, 10 below\n"),
              std::string::npos)
        << told.out;
    EXPECT_NE(
        told.out.find("quay.brick:5:5: nothing of this mark shows: the pixel that it touches has the colour already "
                      "that it would give (the first of 3 times)\n"),
        std::string::npos);
    EXPECT_NE(told.out.find("quay.brick:7:1: nothing of this fill box shows: the 16 pixels that it changes are covered "
                            "later by fill box, line 10\n"),
              std::string::npos);
    EXPECT_NE(told.out.find("most often 3 times, first at 30,2\n"), std::string::npos);
    const auto overdraw = load<Rgb8>(path("overdraw.png"));
    EXPECT_EQ(overdraw.size(), (Size{40, 30}));
    EXPECT_EQ(overdraw.color_at({20, 10}), colors::black);
    EXPECT_NE(overdraw.color_at({31, 3}), overdraw.color_at({28, 0}));
    // Drawing it tells the same of what does not show.
    const auto drawn = run("render quay.brick -o quay.png");
    EXPECT_EQ(drawn.code, 0);
    for (std::size_t from = 0; from < drawn.err.size();) {
        const auto end = drawn.err.find('\n', from);
        EXPECT_NE(told.out.find(drawn.err.substr(from, end - from)), std::string::npos);
        from = end + 1;
    }
}

TEST_F(ToolExplain, AsJson) {
    const auto pixels = nlohmann::json::parse(run("explain quay.brick 31,3 --json").out);
    ASSERT_EQ(pixels.size(), 1U);
    EXPECT_EQ(pixels[0]["color"], "#ff7f50");
    ASSERT_EQ(pixels[0]["steps"].size(), 3U);
    EXPECT_EQ(pixels[0]["steps"][1]["line"], 8);
    EXPECT_EQ(pixels[0]["steps"][1]["coverage"], 1.0);
    EXPECT_EQ(pixels[0]["steps"][1]["covers"], false);
    const auto whole = nlohmann::json::parse(run("explain quay.brick --json").out);
    ASSERT_EQ(whole["calls"].size(), 9U);
    EXPECT_EQ(whole["calls"][0]["showing"], "seen");
    EXPECT_EQ(whole["calls"][0]["over"]["right"], 10);
    EXPECT_EQ(whole["calls"][2]["showing"], "unchanged");
    EXPECT_EQ(whole["calls"][5]["showing"], "covered");
    EXPECT_EQ(whole["calls"][5]["covered_by"][0]["call"], 8);
    EXPECT_EQ(whole["calls"][7]["showing"], "outside");
    EXPECT_EQ(whole["overdraw"]["most"], 3);
}

TEST_F(ToolExplain, OfAFrameWithDials) {
    write("tide.brick",
          "sheet size 20,20 ink navy\ndial tide = 3 from 0 to 9\nframes 4 rate 5\n"
          "fill box at frame*5,tide size 5,1 ink teal\n");
    EXPECT_NE(run("explain tide.brick 11,7 --frame 2 --set tide=7").out.find("tide.brick:4:1"), std::string::npos);
    EXPECT_EQ(run("explain tide.brick 11,7 --frame 1 --set tide=7").out.find("tide.brick:4:1"), std::string::npos);
}

TEST_F(ToolExplain, WrongCalls) {
    const auto outside = run("explain quay.brick 40,3");
    EXPECT_EQ(outside.code, 1);
    EXPECT_EQ(outside.err, "quay.brick: the pixel 40,3 is not on the sheet; it has 0,0 to 39,29\n");
    EXPECT_EQ(run("explain quay.brick 4").code, 2);
    EXPECT_EQ(run("explain quay.brick 4,4 -o x.png").code, 2);
    EXPECT_EQ(run("explain none.brick").code, 1);
    EXPECT_EQ(run("explain").code, 2);
}

// Without words to read, a scene is drawn once: what is hidden is not looked for, what lies off the sheet is.
TEST_F(ToolExplain, QuietRenderingLooksForWhatIsOffTheSheetAlone) {
    const auto loud = run("render quay.brick -o loud.ppm");
    const auto quiet = run("render quay.brick -o quiet.ppm --quiet");
    EXPECT_EQ(quiet.code, 0);
    EXPECT_EQ(quiet.out, "");
    const auto is_named = [](const auto& of, const char* line) { return of.err.find(line) != std::string::npos; };
    EXPECT_TRUE(is_named(loud, "quay.brick:7:1"));
    EXPECT_FALSE(is_named(quiet, "quay.brick:7:1"));
    EXPECT_TRUE(is_named(loud, "quay.brick:9:1"));
    EXPECT_TRUE(is_named(quiet, "quay.brick:9:1"));
    EXPECT_EQ(content(path("quiet.ppm")), content(path("loud.ppm")));
    write("film.brick",
          "sheet size 20,9 ink navy\nframes 2 rate 5\nfill box at 2,2 size 4,4 ink red\n"
          "fill box at 40,2 size 4,4 ink red\nfill box at 0,0 size 8,8 ink teal\n");
    const auto loud_film = run("render film.brick -o loud.gif");
    const auto quiet_film = run("render film.brick -o quiet.gif --quiet");
    EXPECT_TRUE(is_named(loud_film, "film.brick:3:1"));
    EXPECT_FALSE(is_named(quiet_film, "film.brick:3:1"));
    EXPECT_TRUE(is_named(quiet_film, "film.brick:4:1"));
    EXPECT_EQ(content(path("quiet.gif")), content(path("loud.gif")));
}

}  // namespace
