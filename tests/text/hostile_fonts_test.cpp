// Fonts that are made to cost: components of components, names that move a terminal's cursor.
#include "folder_test.hpp"
#include "font_builder.hpp"

#include <coldbrick/coldbrick.hpp>

#include <fstream>

namespace {

using namespace coldbrick;

// Each glyph is made of so many of the one before.
font_builder::Bytes doubling(int levels, int times) {
    std::vector<font_builder::Bytes> glyphs{font_builder::square()};
    for (int i = 0; i < levels; ++i) {
        glyphs.push_back(font_builder::composed(std::vector<int>(static_cast<std::size_t>(times), i)));
    }
    return font_builder::font(glyphs);
}

std::string fault_of(const font_builder::Bytes& font) {
    try {
        const auto face = load_face(std::span{font});
        Bitmap<Rgb8> sheet{{60, 40}};
        fill(sheet, Text{.words = "A", .at = {9, 30}, .face = face, .height = 20}, colors::white);
        return sheet.bytes() == Bitmap<Rgb8>{{60, 40}}.bytes() ? "nothing drawn" : "";
    } catch (const Error& error) {
        return error.what();
    }
}

TEST(HostileFonts, ComponentsAreCountedBeforeTheyAreLoaded) {
    EXPECT_EQ(fault_of(doubling(0, 0)), "");
    EXPECT_EQ(fault_of(doubling(1, 2)), "");
    EXPECT_EQ(fault_of(doubling(7, 2)), "");  // 255 with those in between
    EXPECT_NE(fault_of(doubling(30, 2)).find("has more than 1024 components; that many are allowed"),
              std::string::npos);
    EXPECT_NE(fault_of(doubling(3, 60)).find("glyph 2 of the font has more than 1024 components"), std::string::npos);
    const auto circular =
        font_builder::font({font_builder::square(), font_builder::composed({2}), font_builder::composed({1})});
    EXPECT_NE(fault_of(circular).find("is a component of itself"), std::string::npos);
    EXPECT_NE(fault_of(font_builder::font({font_builder::square(), font_builder::composed({1})})), "");
    EXPECT_NE(fault_of(font_builder::font({font_builder::square(), font_builder::composed({999})})), "");
}

TEST(HostileFonts, NamesAreShownAsTheyCanBe) {
    const auto font = font_builder::font({font_builder::square()},
                                         "Qu\x1b[2J\x9b"
                                         "ay");
    const auto name = load_face(std::span{font}).name();
    EXPECT_EQ(name, "Qu\\x1b[2J\\xc2\\x9bay");
}

class HostileFontFiles : public FolderTest {};

// Of a font that is named in a hundred ways, one is kept, and paid for.
TEST_F(HostileFontFiles, AFileIsKeptByWhatItIs) {
    auto bytes = doubling(1, 2);
    bytes.resize(1 << 20);
    std::ofstream{path("quay.ttf"), std::ios::binary}.write(reinterpret_cast<const char*>(bytes.data()),
                                                            static_cast<std::streamsize>(bytes.size()));
    save(Bitmap<Rgb8>{{512, 512}, colors::gold}, path("wall.png"));
    std::ofstream{path("berths.csv")} << "name,length\n" << std::string(300'000, 'x') << ",3\n";
    std::string text = "sheet size 90,60\n";
    std::string dots = "./";
    for (int i = 0; i < 100; ++i) {
        const auto number = std::to_string(i);
        text += "face f" + number + " = \"" + dots + "quay.ttf\"\n";
        text += "paste \"" + dots + "wall.png\" at 0,0\nrepeat row of \"" + dots + "berths.csv\" as b\nend\n";
        text += "fill text words \"A\" face f" + number + " at 9,30 height 20 ink white\n";
        dots += "./";
    }
    const auto scene = parse_scene(text, "names.brick", folder().string(), {.scene_memory = 12 << 20});
    auto sheet = scene.sheet<Rgb8>();
    EXPECT_EQ(render(scene, sheet).size(), 200U);
    EXPECT_LT(scene.spent.memory, 12U << 20U);
}

}  // namespace
