// Everything that can be wrong in a scene: what is said, and where.
#include "oracle.hpp"

#include <coldbrick/scene.hpp>

namespace {

using namespace coldbrick;

std::vector<Fault> faults_of(const std::string& text) {
    try {
        (void)parse_scene(text, "quay.brick");
    } catch (const SceneError& error) {
        return error.faults();
    }
    return {};
}

struct Case {
    std::string statement;  // in line 2, after a good sheet
    int column;
    int length;
    std::string what;
    std::string advice = {};
};

const auto form_of_pair = std::string{"a pair is two values and a comma, without spaces: 236,148"};
const auto form_of_value = std::string{"a value is a number, or an expression such as 18+4*25 or (18 + 100)"};

const std::string all_verbs =
    "allowed are clip, color, dial, edges, end, face, fill, flood, frames, gradient, hatch, include, let, mark, "
    "measure, "
    "move, otherwise, palette, paste, pattern, repeat, scale, seed, shape, shear, sheet, stroke, turn, use and when";
const auto all_shapes = std::string{
    "allowed are arc, box, chord, circle, ellipse, line, path, polygon, region, ring, sector, star and text"};

void expect_told(const std::vector<Case>& cases) {
    for (const auto& expected : cases) {
        SCOPED_TRACE(expected.statement);
        const auto faults = faults_of("sheet size 60,40\n" + expected.statement + "\n");
        ASSERT_EQ(faults.size(), 1U);
        EXPECT_EQ(faults[0].what, expected.what);
        EXPECT_EQ(faults[0].place, (Place{2, expected.column}));
        EXPECT_EQ(faults[0].length, expected.length);
        EXPECT_EQ(faults[0].advice, expected.advice);
    }
}

TEST(Faults, OfUnknownWords) {
    expect_told(
        {Case{"fil box at 1,2 size 3,4 ink red", 1, 3, "unknown statement 'fil'", "did you mean 'fill'?"},
         Case{"paint box", 1, 5, "unknown statement 'paint'", all_verbs},
         Case{"fill", 1, 4, "'fill' has no shape after it", all_shapes},
         Case{"fill cirle center 1,2 radius 3 ink red", 6, 5, "unknown shape 'cirle'", "did you mean 'circle'?"},
         Case{"stroke at 1,2", 8, 2, "unknown shape 'at'", all_shapes},
         Case{"fill line from 1,2 to 3,4 ink red", 6, 4, "a line cannot be filled",
              "a line has no inside; write 'stroke line'"},
         Case{"fill circle centre 1,2 radius 3 ink red", 13, 6, "unknown keyword 'centre'", "did you mean 'center'?"},
         Case{"mark 3,4 ink red", 6, 3, "'3,4' has no keyword before it",
              "allowed are at, ink, as, opacity, blend, channels and light"},
         Case{"fill polygon through 1,2 3,4 rul nonzero ink red", 30, 3, "unknown keyword 'rul'",
              "did you mean 'rule'?"},
         Case{"fill polygon through 1,2 3,4 rule nonzer ink red", 35, 6, "unknown rule 'nonzer'",
              "did you mean 'nonzero'?"},
         Case{"fill polygon through 1,2 3,4 rule odd ink red", 35, 3, "unknown rule 'odd'",
              "allowed are even_odd and nonzero"},
         Case{"fill polygon through 1,2 3,4 edges round ink red", 36, 5, "unknown edges 'round'",
              "allowed are inclusive and shared"},
         Case{"größe 3", 1, 5, "unknown statement 'größe'", all_verbs}});
}

TEST(Faults, OfArguments) {
    expect_told(
        {Case{"fill circle center 1,2 ink red", 6, 6, "'fill circle' needs radius",
              "it takes center, radius and ink, or at, radius and ink"},
         Case{"mark", 1, 4, "'mark' needs at and ink"},
         Case{"fill box at 1,2 ink red", 6, 3, "'fill box' needs size",
              "it takes at, size and ink, or from, to and ink"},
         Case{"mark at 1,2 size 3,4 ink red", 13, 4, "'size' does not belong here", "'mark' takes at and ink"},
         Case{"stroke polygon through 1,2 3,4 rule nonzero ink red", 32, 4, "'rule' does not belong here",
              "'stroke polygon' takes through and ink, or center, radius, points and ink"},
         Case{"mark at 1,2 at 3,4 ink red", 13, 2, "'at' is given twice"},
         Case{"stroke line through 1,2 through 3,4 ink red", 25, 7, "'through' is given twice"},
         Case{"mark at ink red", 6, 2, "'at' has no value after it"},
         Case{"fill polygon through ink red", 14, 7, "'through' has no value after it"},
         Case{"mark at 1,2 3,4 ink red", 13, 3, "'3,4' has no keyword before it",
              "allowed are at, ink, as, opacity, blend, channels and light"},
         Case{"sheet size 9,9", 1, 5, "the sheet is given twice", "a scene has one sheet, its first statement"}});
}

TEST(Faults, OfValues) {
    expect_told(
        {Case{"mark at 1, 2 ink red", 9, 2, "'1,' is no pair", form_of_pair},
         Case{"mark at 1,2,3 ink red", 9, 5, "'1,2,3' is no pair", form_of_pair},
         Case{"mark at 12 ink red", 9, 2, "'12' is no pair", form_of_pair},
         Case{"fill circle center 1,2 radius -3 ink red", 31, 2, "this is -3; allowed is 0 to 1073741823"},
         Case{"fill box at 1,2 size 5,0 ink red", 24, 1, "this is 0; allowed is 1/256 to 1073741823"},
         Case{"mark at 1,1073741824 ink red", 11, 10, "this is 1073741824; allowed is -1073741823 to 1073741823"},
         Case{"mark at 1,9e99 ink red", 11, 4, "this is 9e+99; allowed is -1073741823 to 1073741823"},
         Case{"mark at 1,7/2 ink red", 11, 3, "this is 3.5; a whole number is needed",
              "round(), floor() and ceil() make whole numbers"},
         Case{"mark at 1,1/0 ink red", 11, 3, "this has no value (a division by 0, or a number too large)"},
         Case{"mark at 1,wide+1 ink red", 11, 4, "'wide' is no number and no known name", form_of_value},
         Case{"mark at 1,flor(2) ink red", 11, 4, "'flor' is no function", "did you mean 'floor'?"},
         Case{"mark at 1,2+ ink red", 12, 1, "the expression ends too early", form_of_value},
         Case{"mark at 1,(2+3 ink red", 11, 1, "this parenthesis is not closed", "write the ')' on the same line"},
         Case{"mark at 1,2 ink reed", 17, 4, "'reed' is no colour", "did you mean 'red'?"},
         Case{"mark at 1,2 ink #12", 17, 3, "'#12' is no colour",
              "allowed are #rgb, #rgba, #rrggbb and #rrggbbaa, in digits and letters a to f"},
         Case{"mark at 1,2 ink rgb(1,2)", 17, 8, "rgb takes 3 values; given are 2", "for example: rgb(11,34,57)"},
         Case{"mark at 1,2 ink rgb(1,2,256)", 25, 3, "this is 256; allowed is 0 to 255"},
         Case{"mark at 1,2 ink cmy(1,2,3)", 17, 3, "'cmy' is no kind of colour",
              "allowed are rgb, rgba, gray, hsl and hsv, and mix and lighten of colours"},
         Case{"mark at ä,2 ink red", 9, 1, "'ä' is no number and no known name", form_of_value}});
}

TEST(Faults, OfStrokesAndRoundShapes) {
    expect_told(
        {Case{"stroke line from 1,2 to 3,4 width 0 ink red", 35, 1, "this is 0; allowed is 1/256 to 1073741823"},
         Case{"stroke line from 1,2 to 3,4 width -3 ink red", 35, 2, "this is -3; allowed is 1/256 to 1073741823"},
         Case{"stroke line from 1,2 to 3,4 miter_limit 0.9 ink red", 41, 3, "this is 0.9; allowed is 1 to 1000000"},
         Case{"stroke line from 1,2 to 3,4 dash 4,-1 ink red", 36, 2, "this is -1; allowed is 0 to 1073741823"},
         Case{"stroke line from 1,2 to 3,4 dash 0,0 ink red", 34, 3,
              "stroke: the sum of dash is 0; allowed is 1/64 or more: dashes of no length need gaps"},
         Case{"stroke line from 1,2 to 3,4 cap rund ink red", 33, 4, "unknown cap 'rund'", "did you mean 'round'?"},
         Case{"stroke line from 1,2 to 3,4 algin inside ink red", 29, 5, "unknown keyword 'algin'",
              "allowed are from, to, ink, through, width, cap, join, miter_limit, dash, dash_offset, smooth, crisp, "
              "as, opacity, blend, channels, light and closed"},
         Case{"stroke circle center 1,2 radius -1 ink red", 33, 2, "this is -1; allowed is 0 to 1073741823"},
         Case{"fill star center 9,9 radius 5 points 1 ink red", 38, 1, "this is 1; allowed is 2 to 1000000"},
         Case{"fill star center 9,9 radius 5 points 5 inner_radius 6 ink red", 53, 1, "this is 6; allowed is 0 to 5"},
         Case{"fill box at 1,2 size 9,7 corner_radius 4 ink red", 40, 1, "this is 4; allowed is 0 to 3.5"},
         Case{"fill arc center 1,2 radius 3 sweep 0,9 ink red", 6, 3, "an arc cannot be filled",
              "a line has no inside; write 'stroke arc'"},
         Case{"stroke arc center 1,2 radius 3 sweep 9 ink red", 38, 1, "'9' is no sweep",
              "a sweep is two angles, as in 197,243, or one and how far, as in 197 by -46"},
         Case{"stroke arc center 1,2 radius 3 sweep 9,10turns ink red", 40, 7,
              "'10turns' is no number and no known name", form_of_value}});
}

TEST(Faults, OfPathsRegionsAndClips) {
    expect_told(
        {Case{"fill path data \"M1,2 L3,x\" ink red", 25, 1, "in the path data: a number is missing for 'L'"},
         Case{"fill path data M1,2 ink red", 16, 4, "path data stands between quotes",
              "for example: data \"M 10,80 C 40,10 65,10 95,80\""},
         Case{"fill path data \"M1,2 ink red", 16, 1, "this quote is not closed", "write the '\"' on the same line"},
         Case{"fill region circle center 1,2 radius 3 minsu circle center 4,5 radius 1 ink red", 40, 5,
              "unknown keyword 'minsu'", "did you mean 'minus'?"},
         Case{"fill region circle center 1,2 radius 3 minus ink red", 40, 5, "'minus' has no shape after it",
              all_shapes},
         Case{"fill region circle center 1,2 radius 3", 6, 6, "'fill region' needs ink"},
         Case{"clip circle center 1,2\nend", 6, 6, "'circle' needs radius",
              "it takes center and radius, or at and radius"},
         Case{"clip circle center 1,2 radius 3", 1, 4, "this clip has no end", "write 'end' on a line after it"},
         Case{"clip line from 1,2 to 3,4\nend", 6, 4, "a line cannot be filled",
              "a line has no inside; write 'stroke line'"},
         Case{"end", 1, 3, "there is nothing to end",
              "'end' closes a clip, move, turn, scale, shear, pattern, repeat, when or shape"},
         Case{"flood from 1,2 tolerance 256 ink red", 26, 3, "this is 256; allowed is 0 to 255"}});
}

TEST(Faults, AboutTheSheet) {
    EXPECT_EQ(faults_of("")[0].what, "the scene is empty");
    EXPECT_EQ(faults_of("// nothing\n")[0].place, (Place{1, 1}));
    const auto first = faults_of("mark at 1,2 ink red\nsheet size 9,9\n");
    ASSERT_EQ(first.size(), 1U);
    EXPECT_EQ(first[0].what, "the first statement must be the sheet");
    EXPECT_EQ(faults_of("shet size 9,9")[0].advice, "did you mean 'sheet'?");
    EXPECT_EQ(faults_of("sheet size 0,9")[0].what, "this is 0; allowed is 1 to 1073741823");
    const auto large = faults_of("sheet ink red size 99999,99999");
    ASSERT_EQ(large.size(), 1U);
    EXPECT_EQ(large[0].what, "the sheet has 9999800001 pixels; allowed are 67108864");
    EXPECT_EQ(large[0].place, (Place{1, 20}));
}

TEST(Faults, AllAreToldInOrderUpToTwenty) {
    std::string text = "sheet size 60,40\n";
    for (int i = 0; i < 15; ++i) text += "mark at x,1 ink reed\n";
    const auto faults = faults_of(text);
    ASSERT_EQ(faults.size(), static_cast<std::size_t>(max_faults));
    for (std::size_t i = 0; i < faults.size(); ++i) {
        EXPECT_EQ(faults[i].place, (Place{static_cast<int>(2 + i / 2), i % 2 == 0 ? 9 : 17}));
    }
    try {
        (void)parse_scene(text);
        FAIL();
    } catch (const SceneError& error) {
        EXPECT_TRUE(std::string{error.what()}.ends_with("... and 10 more"));
    }
}

TEST(Faults, ReportShowsTheLineAndAMark) {
    const std::string text = "sheet size 60,40\n\tmark at 1,2 \\\n  ink räd // ö\n";
    const auto faults = faults_of(text);
    ASSERT_EQ(faults.size(), 1U);
    EXPECT_EQ(report(faults[0], text, "quay.brick"),
              "quay.brick:3:7: 'räd' is no colour\n"
              "      ink räd // ö\n"
              "          ^^^\n"
              "    allowed are the CSS colour names, #rrggbb, #rrggbbaa, rgb(11,34,57), rgba(11,34,57,128) "
              "and gray(196)\n");
    const auto tabbed = report({.place = {2, 2}, .length = 4, .what = "so", .advice = ""}, text, "quay.brick");
    EXPECT_EQ(tabbed, "quay.brick:2:2: so\n    \tmark at 1,2 \\\n    \t^^^^\n");
}

TEST(Faults, BytesThatAreNoText) {
    EXPECT_FALSE(faults_of(std::string("sheet size 6,4\n\0\x1b[2J\xff\xfe (((", 25)).empty());
    const auto faults = faults_of("sheet size 6,4\nma\x1brk at 1,1 ink red\n");
    ASSERT_EQ(faults.size(), 1U);
    EXPECT_EQ(faults[0].what, "unknown statement 'ma\\x1brk'");
}

}  // namespace
