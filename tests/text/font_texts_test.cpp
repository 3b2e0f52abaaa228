// Texts in faces out of font files: lines, carets, paths, and that all ways to draw them give the same pixels.
#include "letters_oracle.hpp"

#include <coldbrick/coldbrick.hpp>

#include <numeric>

namespace {

using namespace letters;

const std::string fonts = "/usr/share/fonts/truetype/";

Face face_of_all() {
    return load_face(fonts + "dejavu/DejaVuSans.ttf")
        .with_fallback({load_face(fonts + "noto/NotoSansDevanagari-Regular.ttf"),
                        load_face(fonts + "noto/NotoSansThai-Regular.ttf"), faces::line()});
}

const std::vector<std::string>& words_of_many_scripts() {
    static const std::vector<std::string> all{"Otter ffi AV", "רציף 4 (Otter)", "बंदरगाह क्षत्रिय", "น้ำขึ้น 3.2",
                                              "q\u0303 a\nb  c"};
    return all;
}

std::size_t characters_in(const std::string& words) {
    return static_cast<std::size_t>(std::count_if(
        words.begin(), words.end(), [](char c) { return (static_cast<unsigned char>(c) & 0xc0U) != 0x80; }));
}

TEST(FontTexts, HaveACaretForEachCharacterInTheirLine) {
    for (const auto& words : words_of_many_scripts()) {
        const auto layout = lay_out({.words = words, .at = {20, 20}, .face = face_of_all(), .height = 14});
        std::size_t carets = 0;
        for (const auto& line : layout.lines) {
            carets += line.carets.size();
            for (const auto& [x, y] : line.carets) {
                EXPECT_EQ(y, line.baseline);
                EXPECT_GE(x, line.box.at.x - 1e-9) << words;
                EXPECT_LE(x, line.box.at.x + line.box.size.width + 1e-9) << words;
            }
        }
        // One more in each line, and none for the line feed.
        EXPECT_EQ(carets, characters_in(words) + 1) << words;
    }
}

TEST(FontTexts, AnchorsAreTheirPoints) {
    for (const auto& words : words_of_many_scripts()) {
        Text text{.words = words, .at = {80, 60}, .face = face_of_all(), .height = 14};
        for (int number = 0; number < 12; ++number) {
            text.anchor = static_cast<TextAnchor>(number);
            const auto layout = lay_out(text);
            const auto column = number < 9 ? number % 3 : number - 9;
            const auto x = layout.box.at.x - 0.5 + column * (layout.box.size.width - 1) / 2 + 0.5;
            EXPECT_NEAR(x, text.at.x, 1e-9) << words << " " << number;
            const auto row = number / 3;
            const auto y =
                number < 9 ? layout.box.at.y + row * (layout.box.size.height - 1) / 2 : layout.lines[0].baseline;
            EXPECT_NEAR(y, text.at.y, 1e-9) << words << " " << number;
        }
    }
}

TEST(FontTexts, JustifiedLinesReachBothEdges) {
    const Text text{.words = "The Otter lies at berth 4 שלום and the tide turns at noon, as the office says.",
                    .at = {10, 10},
                    .face = face_of_all(),
                    .height = 11,
                    .lines = TextLines::justified,
                    .wrap = 150};
    const auto layout = lay_out(text);
    ASSERT_GT(layout.lines.size(), 3U);
    for (std::size_t i = 0; i + 1 < layout.lines.size(); ++i) EXPECT_NEAR(layout.lines[i].box.size.width, 150, 1e-9);
    EXPECT_LT(layout.lines.back().box.size.width, 150);
}

// What is drawn as one letter stays so, and goes with its marks; what has no room is left out as a whole.
TEST(FontTexts, FollowPathsByWhatIsDrawnAsOne) {
    const auto face = face_of_all();
    const auto along = [&](const std::string& words, double length) {
        return Text{.words = words,
                    .face = face,
                    .height = 14,
                    .along = TextPath::along(subpixel::Line{.from = {20, 40}, .to = {20 + length, 40}})};
    };
    EXPECT_EQ(glyphs(along("ffi", 200)).size(), 1U);
    const auto marked = glyphs(along("q\u0303u", 200));
    ASSERT_EQ(marked.size(), 3U);
    EXPECT_EQ(marked[0].at, marked[1].at);
    EXPECT_EQ(lay_out(along("Otter ffi", 200)).left_out, 0U);
    const auto width = lay_out({.words = "Otter ", .face = face, .height = 14}).box.size.width;
    EXPECT_EQ(lay_out(along("Otter ffi", width + 4)).left_out, 3U);
    // On a straight line from left to right, the same letters at the same distances as without a path.
    const auto straight = glyphs({.words = "Otter AV", .face = face, .height = 140});
    auto bent = along("Otter AV", 2000);
    bent.height = 140;
    const auto followed = glyphs(bent);
    ASSERT_EQ(straight.size(), followed.size());
    for (std::size_t i = 0; i < straight.size(); ++i) {
        EXPECT_EQ(straight[i].number, followed[i].number);
        EXPECT_NEAR(straight[i].origin.x - straight[0].origin.x, followed[i].origin.x - followed[0].origin.x, 1e-6);
    }
}

TEST(FontTexts, AreTheSameDrawnRecordedInPartsAndAsRegions) {
    for (const auto& words : words_of_many_scripts()) {
        for (const auto edge : {Edge::crisp, Edge::smooth}) {
            const Text text{.words = words, .at = {6, 12}, .face = face_of_all(), .height = 13, .slant = 6_deg};
            Bitmap<Rgba8> direct{{150, 50}, colors::white};
            const auto touched = fill(direct, text, edge, colors::navy);
            EXPECT_EQ(touched, intersection(bounds(filled(text, {.edge = edge})), direct.box())) << words;
            Drawing drawing;
            fill(drawing, text, edge, colors::navy);
            Bitmap<Rgba8> recorded{{150, 50}, colors::white};
            render(drawing, recorded);
            EXPECT_EQ(recorded.bytes(), direct.bytes()) << words;
            // Clipped, piece by piece.
            Bitmap<Rgba8> pieces{{150, 50}, colors::white};
            for (int x = 0; x < 150; x += 37) {
                fill(pieces.within(Box{.at = {x, 0}, .size = {37, 50}}), text, edge, colors::navy);
            }
            EXPECT_EQ(pieces.bytes(), direct.bytes()) << words;
            if (edge == Edge::smooth) continue;
            const Region region{text};
            Bitmap<Rgba8> by_region{{150, 50}, colors::white};
            fill(by_region, region, colors::navy);
            EXPECT_EQ(by_region.bytes(), direct.bytes()) << words;
            for (const auto& span : region.spans()) EXPECT_TRUE(contains(text, Point{span.x, span.y}));
        }
    }
}

}  // namespace
