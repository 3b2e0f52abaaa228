// Words in scenes.
#include "folder_test.hpp"
#include "letters_oracle.hpp"

#include <coldbrick/coldbrick.hpp>

#include <map>
#include <set>

namespace {

using namespace letters;

class SceneTexts : public FolderTest {};

// What a scene draws on 200 by 60 pixels.
Bitmap<Rgb8> drawn_by(const std::string& statements, std::vector<Remark>* remarks = nullptr) {
    const auto scene = parse_scene("sheet size 200,60 ink navy\n" + statements, "quay.brick");
    auto sheet = scene.sheet<Rgb8>();
    render(scene, sheet);
    if (remarks != nullptr) *remarks = scene.remarks;
    return sheet;
}

TEST_F(SceneTexts, AreThoseOfTheLibrary) {
    const auto expect_same = [](const std::string& statement, const auto& draw) {
        Bitmap<Rgb8> wanted{{200, 60}, colors::navy};
        draw(wanted);
        EXPECT_EQ(drawn_by(statement).bytes(), wanted.bytes()) << statement;
    };
    expect_same("fill text \"BERTH 4\" at 44,30 height 18 anchor baseline ink white", [](auto& to) {
        fill(to, Text{.words = "BERTH 4", .at = {44, 30}, .anchor = TextAnchor::baseline, .height = 18}, colors::white);
    });
    expect_same("stroke text \"Quay\" at 100,30 height 24 weight 6 slant 12 anchor center width 2 smooth ink gold",
                [](auto& to) {
                    stroke(to,
                           Text{.words = "Quay",
                                .at = {100, 30},
                                .anchor = TextAnchor::center,
                                .height = 24,
                                .weight = 6,
                                .slant = 12_deg},
                           {.width = 2, .edge = Edge::smooth}, colors::gold);
                });
    expect_same(
        "fill text \"3.2 m\\nfalling\" at 5,5 face pixel height 14 lines right letter_spacing 1 line_spacing 1.2 ink "
        "red",
        [](auto& to) {
            fill(to,
                 Text{.words = "3.2 m\nfalling",
                      .at = {5, 5},
                      .face = faces::pixel(),
                      .height = 14,
                      .letter_spacing = 1,
                      .line_spacing = 1.2,
                      .lines = TextLines::right},
                 colors::red);
        });
    expect_same("fill text \"on the way\" along \"M 5,40 Q 90,0 190,40\" place center side left offset 3 em 16 ink red",
                [](auto& to) {
                    fill(to,
                         Text{.words = "on the way",
                              .em = 16,
                              .along = TextPath{.path = parse_path("M 5,40 Q 90,0 190,40"),
                                                .place = TextPath::Place::center,
                                                .offset = 3}},
                         colors::red);
                });
    expect_same(
        "fill text \"a few words that are wrapped\" at 5,5 height 7 wrap 80 ink red\nfill text \"Otter\" at 100,5 "
        "height 40 fit 60,20 ink red",
        [](auto& to) {
            fill(to, Text{.words = "a few words that are wrapped", .at = {5, 5}, .height = 7, .wrap = 80}, colors::red);
            fill(to, Text{.words = "Otter", .at = {100, 5}, .height = 40, .fit = TextFit{.box = {60, 20}}},
                 colors::red);
        });
    expect_same("fill text \"say \\\"now\\\" // C:\\\\n\" at 5,20 ink red // a comment", [](auto& to) {
        fill(to, Text{.words = "say \"now\" // C:\\n", .at = {5, 20}}, colors::red);
    });
    expect_same("clip text \"CLIP\" at 10,10 height 40 weight 10\nfill box at 0,20 size 200,10 ink lime\nend",
                [](auto& to) {
                    fill(to.within(Region{Text{.words = "CLIP", .at = {10, 10}, .height = 40, .weight = 10}}),
                         Box{{0, 20}, {200, 10}}, colors::lime);
                });
    expect_same("fill region text \"CUT\" at 10,10 height 40 weight 10 minus circle center 30,30 radius 9 ink lime",
                [](auto& to) {
                    fill(to,
                         difference(Region{Text{.words = "CUT", .at = {10, 10}, .height = 40, .weight = 10}},
                                    Region{Circle{.center = {30, 30}, .radius = 9}}),
                         colors::lime);
                });
}

TEST_F(SceneTexts, RemarksAndFaultsSayWhere) {
    std::vector<Remark> remarks;
    drawn_by(
        "fill text \"hangs over\" at 160,20 ink white\nfill text \"ж字\" at 9,50 anchor baseline face tiny height 5 "
        "ink white\n"
        "fill text \"cut off here\" at 5,5 fit 40,9 overflow cut ink white\nfill text \"fits\" at 5,30 ink white",
        &remarks);
    ASSERT_EQ(remarks.size(), 3U);
    EXPECT_EQ(remarks[0].place.line, 2);
    EXPECT_EQ(remarks[0].place.column, 6);
    EXPECT_EQ(remarks[0].what.substr(0, 45), "this text hangs over the sheet: on the right ");
    EXPECT_EQ(remarks[1].what, "face tiny has no drawing of U+0436, U+5B57");
    EXPECT_EQ(remarks[1].place.column, 11);
    EXPECT_NE(remarks[2].what.find("have no room and are left out"), std::string::npos);
    const auto fault = [](const std::string& statement) { return error_of([&] { (void)drawn_by(statement); }); };
    EXPECT_NE(fault("fill text at 5,5 ink white").find("'fill text' needs words"), std::string::npos);
    EXPECT_NE(fault("fill text words quay at 5,5 ink white").find("words stand between quotes"), std::string::npos);
    EXPECT_NE(fault("fill text \"quay\" ink white").find("'fill text' needs at"), std::string::npos);
    EXPECT_NE(fault("fill text \"quay\" at 5,5 face pixl ink white").find("did you mean 'pixel'?"), std::string::npos);
    EXPECT_NE(fault("fill text \"quay\" at 5,5 face pixel height 9 ink white").find("multiples of 7"),
              std::string::npos);
    EXPECT_NE(fault("fill text \"q\xff\" at 5,5 ink white").find("no UTF-8"), std::string::npos);
    EXPECT_NE(fault("fill text \"quay\" at 5,5 overflow cut ink white").find("say how large: fit 200,40"),
              std::string::npos);
    EXPECT_NE(fault("fill text \"quay\" along \"M 5,5 R\" ink white").find("in the path data"), std::string::npos);
}

const std::string fonts = "/usr/share/fonts/";

TEST_F(SceneTexts, FacesAreOutOfFontFiles) {
    std::filesystem::copy_file(fonts + "truetype/dejavu/DejaVuSans.ttf", path("sans.ttf"));
    std::filesystem::copy_file(fonts + "truetype/inter-vf/Inter-roman.var.ttf", path("inter.ttf"));
    const auto drawn = [&](const std::string& statements) {
        const auto scene =
            parse_scene("sheet size 200,60 ink navy\n" + statements, "quay.brick", folder().string(), {});
        auto sheet = scene.sheet<Rgb8>();
        render(scene, sheet);
        return sheet;
    };
    const auto sans = load_face(path("sans.ttf").string());
    const auto inter = load_face(path("inter.ttf").string());
    const auto expect_same = [&](const std::string& statements, const Text& text, Edge edge) {
        Bitmap<Rgb8> wanted{{200, 60}, colors::navy};
        fill(wanted, text, edge, colors::white);
        EXPECT_EQ(drawn(statements).bytes(), wanted.bytes()) << statements;
    };
    expect_same(
        "face label = \"sans.ttf\"\nfill text \"fi שלום 4\" at 5,9 face label direction right_to_left smooth "
        "ink white",
        {.words = "fi שלום 4", .at = {5, 9}, .face = sans, .direction = TextDirection::right_to_left}, Edge::smooth);
    expect_same(
        "face plain = \"sans.ttf\" number 0 features liga=0,kern=0\nfill text \"fi AV\" at 5,9 face plain ink "
        "white",
        {.words = "fi AV", .at = {5, 9}, .face = sans.with_features({{"liga", 0}, {"kern", 0}})}, Edge::crisp);
    expect_same(
        "face heavy = \"inter.ttf\" axes wght=100+8*100 features tnum\nfill text \"Quay 11\" at 5,9 height 20 "
        "face heavy smooth ink white",
        {.words = "Quay 11",
         .at = {5, 9},
         .face = inter.with_axes({{"wght", 900}}).with_features({{"tnum", 1}}),
         .height = 20},
        Edge::smooth);
    expect_same(
        "face base = \"inter.ttf\"\nface both = tiny fallback base,line\nfill text \"a→字\" at 5,9 height 15 "
        "face both ink white",
        {.words = "a→字", .at = {5, 9}, .face = faces::tiny().with_fallback({inter, faces::line()}), .height = 15},
        Edge::crisp);
    expect_same("face label = \"sans.ttf\"\nmove by 7,3\nfill text \"бг\" at 5,9 face label language sr ink white\nend",
                {.words = "бг", .at = {12, 12}, .face = sans, .language = "sr"}, Edge::crisp);
    const auto fault = [&](const std::string& statement) { return error_of([&] { (void)drawn(statement); }); };
    const auto expect_fault = [&](const std::string& statement, const std::string& what) {
        EXPECT_NE(fault(statement).find(what), std::string::npos) << fault(statement);
    };
    write("none.ttf", "no font");
    expect_fault("face a = \"gone.ttf\"", "quay.brick:2:10: the font file 'gone.ttf' cannot be read");
    expect_fault("face a = \"none.ttf\"", "quay.brick:2:10: none.ttf: it is no font file");
    expect_fault("face a = \"" + fonts + "truetype/dejavu/DejaVuSans.ttf\"", "lies outside of the scene's folder");
    expect_fault("face a = \"sans.ttf\" number 1", "face number 1; allowed is 0, the only one");
    expect_fault("face a = line number 1", "only a font file has faces by number");
    expect_fault("face a = \"inter.ttf\" axes wght=950", "quay.brick:2:27: face Inter: axis wght is 950");
    expect_fault("face a = \"inter.ttf\" axes wght", "for example: axes wght=700");
    expect_fault("face a = \"sans.ttf\" features smcp", "has no feature \"smcp\"; allowed are");
    expect_fault("face a = line fallback lien", "did you mean 'line'?");
    expect_fault("face a =", "there is no face after '='");
    expect_fault("face line = \"sans.ttf\"", "another name");
    expect_fault("face a = line\nface a = tiny", "is the name of something else already");
    expect_fault("face a = line\nfill box at 1,1 size 2,2 ink a", "'a' is a face; a colour is needed here");
    // A faulty face is told once, not where it is used.
    expect_fault("face a = \"gone.ttf\"\nfill text \"b\" at 5,5 face a ink red", "quay.brick:2:10");
    EXPECT_EQ(fault("face a = \"gone.ttf\"\nfill text \"b\" at 5,5 face a ink red").find("quay.brick:3"),
              std::string::npos);
}

}  // namespace
