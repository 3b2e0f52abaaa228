// Scenes that compute: what expressions are, and what is told of wrong ones.
#include <coldbrick/coldbrick.hpp>

#include <cmath>
#include <random>
#include <string>

#include <gtest/gtest.h>

namespace {

using namespace coldbrick;

// What an expression is: a dial says its value with all of its bits.
double value_of(const std::string& expression, const std::string& before = {}) {
    const auto scene =
        parse_scene("sheet size 60,40\n" + before + "dial v = (" + expression + ") from -1e15 to 1e15\n");
    return scene.dials.back().value;
}

// The colour of a pixel that is drawn in an ink.
Color color_of_ink(const std::string& ink, const std::string& before = {}) {
    const auto scene = parse_scene("sheet size 1,1 ink #0000\n" + before + "mark at 0,0 ink " + ink + "\n");
    auto sheet = scene.sheet<Rgba8>();
    render(scene, sheet);
    return sheet.color_at({0, 0});
}

std::string fault_of(const std::string& text) {
    try {
        const auto scene = parse_scene("sheet size 60,40\n" + text + "\n", "quay.brick");
        auto sheet = scene.sheet<Rgb8>();
        render(scene, sheet);
    } catch (const Error& error) {
        return error.what();
    }
    return "no error";
}

void expect_fault(const std::string& text, const std::string& what, const std::string& advice = {}) {
    const auto fault = fault_of(text);
    EXPECT_NE(fault.find(what), std::string::npos) << text << "\n" << fault;
    EXPECT_NE(fault.find(advice), std::string::npos) << text << "\n" << fault;
    // One fault, and none that follows from it.
    EXPECT_EQ(fault.find("quay.brick", 5), std::string::npos) << fault;
}

TEST(SceneValues, OperatorsHaveTheirUsualRanks) {
    EXPECT_EQ(value_of("2+3*4-6/3"), 12);
    EXPECT_EQ(value_of("2 * (3 + 4)"), 14);
    EXPECT_EQ(value_of("2^3^2"), 512);
    EXPECT_EQ(value_of("-2^2"), -4);
    EXPECT_EQ(value_of("2^-1"), 0.5);
    EXPECT_EQ(value_of("10-4-3"), 3);
    EXPECT_EQ(value_of("7 > 3 and 2 <= 2"), 1);
    EXPECT_EQ(value_of("not 7 > 3 or 0"), 0);
    EXPECT_EQ(value_of("1 == 1 and 1 != 2 and 3 >= 4"), 0);
    EXPECT_EQ(value_of("--3"), 3);
    EXPECT_EQ(value_of("1.5e2 + .5"), 150.5);
    EXPECT_EQ(value_of("not 0"), 1);
}

TEST(SceneValues, FunctionsGiveWhatTheyAreNamedFor) {
    EXPECT_EQ(value_of("sin(30)"), 0.5);
    EXPECT_EQ(value_of("cos(180)"), -1);
    EXPECT_NEAR(value_of("tan(45)"), 1, 1e-15);
    EXPECT_EQ(value_of("sqrt(2)"), std::sqrt(2.0));
    EXPECT_EQ(value_of("power(2,10) + power(9,0.5) + power(4,-1)"), 1024 + 3 + 0.25);
    EXPECT_EQ(value_of("floor(-1.5) + ceil(-1.5) + round(2.5)"), -2 - 1 + 3);
    EXPECT_EQ(value_of("abs(-4)"), 4);
    EXPECT_EQ(value_of("min(3,1,2)"), 1);
    EXPECT_EQ(value_of("max(3,1,7,2)"), 7);
    EXPECT_EQ(value_of("clamp(9,0,6) + clamp(-9,0,6) + clamp(3,0,6)"), 9);
    EXPECT_EQ(value_of("mix(10,20,0.25)"), 12.5);
    EXPECT_EQ(value_of("mix(10,20,25%)"), 12.5);
    EXPECT_EQ(value_of("mod(17,5)"), 2);
    EXPECT_EQ(value_of("mod(-1,7)"), 6);
    EXPECT_EQ(value_of("mod(1,-7)"), -6);
    EXPECT_EQ(value_of("mod(5.5,2)"), 1.5);
    EXPECT_EQ(value_of("width + height"), 100);
}

// The arc tangent and powers are our own, so that they are the same everywhere.
TEST(SceneValues, FunctionsOfOurOwnAgreeWithTheMachines) {
    std::mt19937 random{3};
    std::uniform_real_distribution<double> far{-50, 50};
    std::uniform_real_distribution<double> positive{0.01, 50};
    for (int i = 0; i < 200; ++i) {
        const auto x = far(random);
        const auto y = far(random);
        const auto text = [](double value) { return "(" + std::to_string(value) + ")"; };
        const auto of = [](double value) { return std::stod(std::to_string(value)); };
        EXPECT_NEAR(value_of("atan(" + text(y) + "," + text(x) + ")"), std::atan2(of(y), of(x)) * 180 / M_PI, 1e-12);
        EXPECT_NEAR(value_of("atan(" + text(y) + ")"), std::atan(of(y)) * 180 / M_PI, 1e-12);
        const auto base = positive(random);
        const auto exponent = far(random) / 10;
        const auto expected = std::pow(of(base), of(exponent));
        EXPECT_NEAR(value_of("power(" + text(base) + "," + text(exponent) + ")") / expected, 1, 1e-13);
        EXPECT_EQ(value_of("mod(" + text(x) + "," + text(base) + ")"),
                  std::fmod(of(x), of(base)) < 0 ? std::fmod(of(x), of(base)) + of(base) : std::fmod(of(x), of(base)));
    }
    EXPECT_EQ(value_of("atan(1)"), 45);
    EXPECT_EQ(value_of("atan(0,-1)"), 180);
    EXPECT_EQ(value_of("atan(-1,0)"), -90);
}

TEST(SceneValues, NamesStandForNumbersPairsColoursAndTexts) {
    EXPECT_EQ(value_of("r * 2", "let r = 3 + 4\n"), 14);
    EXPECT_EQ(value_of("mast.x * 1000 + mast.y", "let mast = 120,40\n"), 120040);
    EXPECT_EQ(value_of("far.x * 1000 + far.y", "let mast = 120,40\nlet far = (mast + (10,20)) * 2 - (1,1)\n"), 259119);
    EXPECT_EQ(value_of("mid.x * 1000 + mid.y", "let mid = mix((0,10),(100,20),0.5)\n"), 50015);
    EXPECT_EQ(value_of("neg.x + neg.y / 4", "let neg = -(8,4)\nlet half = neg / 2\nmark at half+(4,2) ink red\n"), -9);
    EXPECT_EQ(color_of_ink("tint", "let tint = #102030\n"), (Color{16, 32, 48}));
    EXPECT_EQ(value_of("name == \"Otter\" and name != \"Eel\"", "let name = \"Otter\"\n"), 1);
    EXPECT_EQ(value_of("tint == red", "let tint = #f00\n"), 1);
    EXPECT_EQ(value_of("(3,4) == a", "let a = 3,4\n"), 1);
}

TEST(SceneValues, ColoursAreMixedInProportionToWhatTheyCover) {
    EXPECT_EQ(color_of_ink("mix(black,white,0.5)"), (Color{128, 128, 128}));
    EXPECT_EQ(color_of_ink("mix(rgb(0,100,200),rgb(100,0,200),25%)"), (Color{25, 75, 200}));
    EXPECT_EQ(color_of_ink("mix(rgb(200,40,0),transparent,0.5)"), (Color{200, 40, 0, 128}));
    EXPECT_EQ(color_of_ink("lighten(rgb(0,100,200),0.5)"), (Color{128, 178, 228}));
    EXPECT_EQ(color_of_ink("lighten(rgb(0,100,200),-50%)"), (Color{0, 50, 100}));
    EXPECT_EQ(color_of_ink("rgb(n,n+1,round(n/2))", "let n = 9\n"), (Color{9, 10, 5}));
    EXPECT_EQ(color_of_ink("hsl(2*60,100%,25%+0.25)"), (Color{0, 255, 0}));
}

TEST(SceneValues, ValuesInBracesStandInTexts) {
    const auto words_of = [](const std::string& text, const std::string& before) {
        const auto scene = parse_scene("sheet size 60,40\n" + before + "let t = " + text +
                                       "\nfill text t at 0,20 height 9 ink black\n");
        auto sheet = scene.sheet<Gray8>();
        render(scene, sheet);
        return sheet.bytes();
    };
    const auto expect_text = [&](const std::string& text, const std::string& plain, const std::string& before = {}) {
        EXPECT_EQ(words_of(text, before), words_of("\"" + plain + "\"", "")) << text;
    };
    expect_text("\"B {n}\"", "B 4", "let n = 4\n");
    expect_text("\"{n/8}\"", "0.5", "let n = 4\n");
    expect_text("\"{n:.2}|{n:03}|{n:4}\"", "4.00|004|   4", "let n = 4\n");
    expect_text("\"{-n:05.1}\"", "-04.0", "let n = 4\n");
    expect_text("\"{-0.001:.1}\"", "0.0");
    expect_text("\"{{n}}\"", "{{n}}");
    expect_text("\"{name} {spot}\"", "Eel 3,4", "let name = \"Eel\"\nlet spot = 3,4\n");
    expect_text("\"{min(3,(2 + 2))}\"", "3");
}

TEST(SceneValues, RandomNumbersAreThoseOfThePublishedGenerator) {
    // ISO/IEC 14882, [rand.predef]: the 10000th number of a mt19937_64 as it is made, with the seed 5489.
    std::string text = "sheet size 9,9\nseed 5489\nrepeat 9999\nwhen random() < 0\nend\nend\n";
    text += "dial v = random() from 0 to 1\n";
    EXPECT_EQ(parse_scene(text).dials.back().value, static_cast<double>(9981545732273789042U >> 11U) * 0x1p-53);
    // A scene without a seed uses 1.
    std::mt19937_64 one{1};
    const auto next = [&] { return static_cast<double>(one() >> 11U) * 0x1p-53; };
    const auto first = next();
    const auto second = next();
    EXPECT_EQ(value_of("random()"), first);
    EXPECT_EQ(value_of("random() * 0 + random(10,20)"), 10 + 10 * second);
    EXPECT_EQ(value_of("a", "let a = random()\nseed 1\n"), first);
    EXPECT_EQ(value_of("random()", "let a = random()\nseed 1\nmark at floor(a),0 ink red\n"), first)
        << "from the seed on";
    EXPECT_NE(value_of("random()", "seed 2\n"), first);
    // In the order in which they are written.
    EXPECT_EQ(value_of("p.x - p.y", "let p = random(),random()\n"), first - second);
}

TEST(SceneValues, CellsAndLiteralsAreWhatIsNeeded) {
    const auto program = parse_program(
        "sheet size 9,9 ink black\nmark at n,0 ink tint\nwhen name == \"EEL\"\nmark at 1,1 ink red\nend\n"
        "dial twice = n*2 from 0 to 99\n",
        "badge.brick", "", {}, {"n", "tint", "name", "unused"});
    EXPECT_TRUE(program.uses("n"));
    EXPECT_TRUE(program.uses("twice"));
    EXPECT_FALSE(program.uses("unused"));
    const auto scene = program.evaluate({.set = {{"n", "4"}, {"tint", "#00ff00"}, {"name", "EEL"}, {"unused", ""}}});
    auto sheet = scene.sheet<Rgb8>();
    render(scene, sheet);
    EXPECT_EQ(sheet.color_at({4, 0}), colors::lime);
    EXPECT_EQ(sheet.color_at({1, 1}), colors::red);
    EXPECT_EQ(scene.dials[0].value, 8);
    EXPECT_THROW((void)program.evaluate({.set = {{"n", "4"}}}), Error);
    try {
        (void)program.evaluate({.set = {{"n", "four"}, {"tint", "red"}, {"name", ""}, {"unused", ""}}});
        ADD_FAILURE();
    } catch (const SceneError& error) {
        EXPECT_EQ(error.faults()[0].what, "'n' is 'four' here; a number is needed");
        EXPECT_EQ(error.faults()[0].place, (Place{2, 9}));
    }
}

TEST(SceneValues, DialsAreSetFromOutsideWithinTheirRange) {
    const auto program = parse_program("sheet size 9,9\ndial tide = 3.2 from 0 to 6.5 step 0.1\n");
    EXPECT_EQ(program.dials(), std::vector<std::string>{"tide"});
    const auto usual = program.evaluate().dials[0];
    EXPECT_EQ(usual.name, "tide");
    EXPECT_EQ(std::vector<double>({usual.value, usual.from, usual.to, usual.step}),
              (std::vector<double>{3.2, 0, 6.5, 0.1}));
    EXPECT_EQ(program.evaluate({.set = {{"tide", "4"}}}).dials[0].value, 4);
    const auto fault = [&](const std::string& name, const std::string& value) {
        try {
            (void)program.evaluate({.set = {{name, value}}});
        } catch (const Error& error) {
            return std::string{error.what()};
        }
        return std::string{"no error"};
    };
    EXPECT_NE(fault("tide", "7").find("the dial 'tide' is set to 7; allowed is 0 to 6.5"), std::string::npos);
    EXPECT_NE(fault("tide", "high").find("is set to 'high', which is no number"), std::string::npos);
    EXPECT_NE(fault("tid", "1").find("the scene has no dial 'tid'; did you mean 'tide'?"), std::string::npos);
    expect_fault("dial d = 9 from 0 to 5", "the dial 'd' is 9; allowed is 0 to 5");
    expect_fault("dial d = 9 from 10 to 5", "this is less than where the dial begins, 10");
    expect_fault("repeat 2\ndial d = 1 from 0 to 5\nend", "'dial' stands outside of all blocks");
}

TEST(SceneValues, WrongExpressionsAreToldWithTheirCause) {
    expect_fault("let a = 3 +", "the expression ends too early");
    expect_fault("let a = 3 4", "an operator is missing before '4'");
    expect_fault("let a = nothing + 1", "'nothing' is no number and no known name");
    expect_fault("let radius2 = 3\nlet a = radius3", "'radius3' is no number and no known name",
                 "did you mean 'radius2'?");
    expect_fault("let a = sine(3)", "'sine' is no function", "did you mean 'sin'?");
    expect_fault("let a = clamp(1,2)", "clamp takes 3 values; given are 2", "clamp(tide,0,6)");
    expect_fault("let a = clamp(1,5,2)", "clamp from 5 to 2 has nothing between");
    expect_fault("let a = random(3)", "random takes nothing, or from where to where");
    expect_fault("let a = 1/0", "this has no value (a division by 0, or a number too large)");
    expect_fault("let a = sqrt(-1)", "this has no value");
    expect_fault("let a = red + 1", "a colour stands where a number is needed");
    expect_fault("let a = \"x\" * 2", "'x' is no number, and one is needed here");
    expect_fault("let a = (1,2) * (3,4)", "this cannot be done with pairs");
    expect_fault("let a = (1,2).z", "a pair has no 'z'");
    expect_fault("let a = mix(red,3,0.5)", "a number stands where a colour is needed");
    expect_fault("let a = mix(red,blue,2)", "this is 2; allowed is 0 to 1");
    expect_fault("let a = 40%\nfill circle center 9,9 radius a ink red",
                 "'a' is a part of a whole; a number is needed");
    expect_fault("let p = 3,4\nfill circle center p radius p ink red", "'p' is a pair; a number is needed here");
    expect_fault("let p = red\nfill circle center p radius 3 ink red", "'p' is no pair");
    expect_fault("fill circle center 9,9 radius 3 ink 3", "'3' is no colour");
    expect_fault("let a = \"{n}\"", "'n' is no number and no known name");
    expect_fault("let a = \"{3\"", "this brace is not closed", "{{");
    expect_fault("let a = \"{}\"", "there is no value in these braces");
    expect_fault("let a = \"{3:x}\"", "':x' is no form of a number", "{n:.2}");
    expect_fault("let a = " + std::string(200, '(') + "1" + std::string(200, ')'), "nested deeper than 100 times");
    expect_fault("let a = width(3)", "'width' is no function");
    expect_fault("seed 1.5", "this is 1.5; a whole number is needed");
    expect_fault("seed -1", "this is -1; allowed is 0 to");
    expect_fault("mark at frame,0 ink red", "'frame' has no value before the scene says how many frames it has");
    expect_fault("mark at last.left,0 ink red", "nothing has been drawn yet");
}

TEST(SceneValues, NamesAreKnownToTheEndOfTheirBlock) {
    expect_fault("when 1\nlet a = 3\nend\nmark at a,0 ink red", "'a' is no number and no known name");
    expect_fault("let a = 3\nlet a = 4", "'a' is the name of something else already");
    expect_fault("let red = 3", "'red' is the name of a colour");
    expect_fault("let repeat = 3", "'repeat' is a word of the language");
    EXPECT_EQ(value_of("a", "let a = 3\nwhen a\nlet a = a+4\nmark at a,0 ink red\nend\n"), 3);
    const auto remarks = [](const std::string& text) {
        std::string all;
        for (const auto& remark : parse_scene("sheet size 9,9\n" + text).remarks) all += remark.what + ";";
        return all;
    };
    EXPECT_EQ(remarks("let a = 3\n"), "the name 'a' is never used;");
    EXPECT_EQ(remarks("let a = 3\nmark at a,a ink red\n"), "");
    EXPECT_EQ(remarks("let a = 3\nwhen a\nlet a = 4\nmark at a,a ink red\nend\n"),
              "'a' hides the one of line 2 from here to the end of its block;");
    EXPECT_EQ(remarks("shape s at, n = 1\nend\n"), "the name 'n' is never used;the name 's' is never used;");
}

}  // namespace
