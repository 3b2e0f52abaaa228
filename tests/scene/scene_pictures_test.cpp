// Pictures in scenes: pasted, and as the ground; and what is wrong with them.
#include "folder_test.hpp"
#include "oracle.hpp"

#include <coldbrick/compose.hpp>
#include <coldbrick/files.hpp>
#include <coldbrick/load.hpp>
#include <coldbrick/scene.hpp>

namespace {

using namespace coldbrick;
using namespace oracle;

class ScenePictures : public FolderTest {
  protected:
    void SetUp() override {
        FolderTest::SetUp();
        Dice dice{401};
        for (int y = 0; y < 8; ++y) {
            for (int x = 0; x < 12; ++x) mark(picture, {x, y}, with_alpha(dice.color(), 255));
        }
        fill(picture, Box{.at = {0, 0}, .size = {3, 2}}, colors::lime);
        save(picture, path("quay.png"));
    }

    // What a scene draws on 40 by 30 pixels of teal.
    [[nodiscard]] Bitmap<Rgb8> drawn_by(const std::string& statements) const {
        const auto scene = parse_scene("sheet size 40,30 ink teal\n" + statements, "wall.brick", folder().string());
        auto sheet = scene.sheet<Rgb8>();
        render(scene, sheet);
        return sheet;
    }
    template <class... Arguments>
    [[nodiscard]] Bitmap<Rgb8> pasted(const Arguments&... arguments) const {
        Bitmap<Rgb8> sheet{{40, 30}, colors::teal};
        paste(sheet, picture, arguments...);
        return sheet;
    }

    [[nodiscard]] std::string fault(const std::string& statement) const {
        return error_of([&] { (void)drawn_by(statement + "\n"); });
    }

    Bitmap<Rgba8> picture{{12, 8}};
};

TEST_F(ScenePictures, ArePastedAsTheLibraryPastesThem) {
    EXPECT_EQ(drawn_by("paste \"quay.png\" at 5,7\n").bytes(), pasted(Paste{.at = {5, 7}}).bytes());
    EXPECT_EQ(drawn_by("paste \"quay.png\" at -4,20 size 24,0 scaling nearest\n").bytes(),
              pasted(Paste{.at = {-4, 20}, .size = {24, 0}, .scaling = Scaling::nearest}).bytes());
    EXPECT_EQ(drawn_by("paste \"quay.png\" at 5,7 part 2,1,6,4 turned 90 mirrored left_right\n").bytes(),
              pasted(Paste{.at = {5, 7},
                           .part = Box{.at = {2, 1}, .size = {6, 4}},
                           .mirrored = Mirror::left_right,
                           .turned = Quarters::one})
                  .bytes());
    EXPECT_EQ(drawn_by("paste \"quay.png\" at 5,7 turned -90\n").bytes(),
              pasted(Paste{.at = {5, 7}, .turned = Quarters::three}).bytes());
    EXPECT_EQ(drawn_by("paste \"quay.png\" at 5,7 opacity 40% blend multiply\n").bytes(),
              pasted(Paste{.at = {5, 7}, .compositing = {.opacity = 0.4, .blend = Blend::multiply}}).bytes());
    EXPECT_EQ(drawn_by("paste \"quay.png\" at 5,7 without lime\n").bytes(),
              pasted(Paste{.at = {5, 7}, .without = colors::lime}).bytes());
    // Turned about its middle, and in a group.
    const auto turned = Transform{}.move({-10.5, -10.5}).turn(Angle::degrees(30)).move({10.5, 10.5});
    EXPECT_EQ(drawn_by("paste \"quay.png\" at 5,7 turned 30\n").bytes(), pasted(turned, Paste{.at = {5, 7}}).bytes());
    EXPECT_EQ(drawn_by("move by 3.5,2\npaste \"quay.png\" at 5,7\nend\n").bytes(),
              pasted(Transform{}.move({3.5, 2}), Paste{.at = {5, 7}}).bytes());
    // Clipped, and told where it is.
    const auto clipped = drawn_by("clip box at 6,8 size 2,2\npaste \"quay.png\" at 5,7\nend\n");
    EXPECT_EQ(clipped.color_at({6, 8}), with_alpha(picture.color_at({1, 1}), 255));
    EXPECT_EQ(clipped.color_at({5, 7}), colors::teal);
    const auto unseen = parse_scene("sheet size 9,9\npaste \"quay.png\" at 20,3\n", "wall.brick", folder().string());
    Bitmap<Rgb8> sheet{{9, 9}};
    EXPECT_TRUE(render(unseen, sheet).front().empty());
    EXPECT_EQ(explain_unseen(unseen, 0),
              "wall.brick:2:1: nothing of this paste shows: it lies at 20,3 to 31,10, 12 pixels right of the sheet, "
              "0,0 to 8,8");
}

TEST_F(ScenePictures, AreTheGround) {
    const auto scene = parse_scene("sheet from \"quay.png\"\nmark at 11,7 ink red\n", "wall.brick", folder().string());
    EXPECT_EQ(scene.size, (Size{12, 8}));
    auto sheet = scene.sheet<Rgb8>();
    render(scene, sheet);
    auto wanted = convert<Rgb8>(picture);
    mark(wanted, {11, 7}, colors::red);
    EXPECT_EQ(sheet.bytes(), wanted.bytes());
    clear(picture.within({.at = {4, 4}, .size = {1, 1}}), 0x10203040_rgba);
    save(picture, path("glass.png"));
    const auto glass = parse_scene("sheet from \"glass.png\"\n", "wall.brick", folder().string());
    EXPECT_EQ(glass.ground.alpha, 0);
    EXPECT_EQ(glass.sheet<Rgba8>().bytes(), picture.bytes());
}

TEST_F(ScenePictures, FaultsAreTold) {
    EXPECT_NE(
        fault("paste \"none.png\" at 1,2").find("wall.brick:2:7: the picture 'none.png' cannot be read: No such file"),
        std::string::npos);
    write("text.png", "no picture");
    EXPECT_NE(fault("paste \"text.png\" at 1,2").find("the file is none of png, jpeg"), std::string::npos);
    EXPECT_NE(fault("paste quay.png at 1,2").find("the name of a picture stands between quotes"), std::string::npos);
    EXPECT_NE(fault("paste").find("'paste' has no picture after it"), std::string::npos);
    EXPECT_NE(fault("paste \"quay.png\" size 3,4").find("'paste' needs at"), std::string::npos);
    EXPECT_NE(fault("paste \"quay.png\" at 1,2 size 0,0").find("not both"), std::string::npos);
    EXPECT_NE(fault("paste \"quay.png\" at 1,2 part 10,0,3,3").find("which has 12 x 8 pixels"), std::string::npos);
    EXPECT_NE(fault("paste \"quay.png\" at 1,2 scaling best").find("unknown scaling 'best'"), std::string::npos);
    EXPECT_NE(fault("paste \"quay.png\" at 1,2 radius 3").find("'radius' does not belong here"), std::string::npos);
    EXPECT_NE(error_of([&] {
                  (void)parse_scene("sheet from \"none.png\"\n", "wall.brick", folder().string());
              }).find("wall.brick:1:12:"),
              std::string::npos);
}

}  // namespace
