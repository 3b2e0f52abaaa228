// The faces that are always there: their characters and drawings.
#include "folder_test.hpp"
#include "letters_oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <map>
#include <set>

namespace {

using namespace letters;

// Unassigned in Unicode: between the Greek letters.
bool is_assigned(char32_t c) { return c != 0x38b && c != 0x38d && c != 0x3a2; }

std::set<char32_t> promised(bool is_tiny) {
    std::set<char32_t> all;
    const auto add = [&](char32_t first, char32_t last) {
        for (auto c = first; c <= last; ++c) {
            if (is_assigned(c)) all.insert(c);
        }
    };
    add(0x20, 0x7e);
    add(0xa0, 0xff);
    if (is_tiny) return all;
    add(0x100, 0x17f);
    add(0x384, 0x3ce);
    add(0x400, 0x45f);
    add(0x490, 0x491);
    add(0x2010, 0x2015);
    add(0x2018, 0x201a);
    add(0x201c, 0x201e);
    add(0x2190, 0x2199);
    for (const auto c : {0x2020, 0x2021, 0x2022, 0x2026, 0x2030, 0x2032, 0x2033, 0x2039, 0x203a, 0x20ac, 0x2122, 0x2206,
                         0x2211, 0x2212, 0x221a, 0x221e, 0x2248, 0x2260, 0x2264, 0x2265, 0x25a0, 0x25a1, 0x25b2, 0x25b3,
                         0x25cb, 0x25cf, 0x20a6, 0x20a9, 0x20aa, 0x20ab, 0x20b1, 0x20b4, 0x20b9, 0x20ba, 0x20bd}) {
        all.insert(static_cast<char32_t>(c));
    }
    return all;
}

TEST(Faces, HaveAllPromisedCharacters) {
    for (const auto& face : {faces::line(), faces::pixel(), faces::tiny()}) {
        const auto is_tiny = face == faces::tiny();
        const auto height = is_tiny ? 5 : 7;
        const auto box = pixels_of(one_letter(0xfffd, face, height));
        EXPECT_FALSE(face.has(0xfffd));
        EXPECT_FALSE(box.empty());
        for (const auto c : promised(is_tiny)) {
            EXPECT_TRUE(face.has(c)) << face.name() << " " << std::hex << static_cast<unsigned>(c);
            const auto pixels = pixels_of(one_letter(c, face, height));
            EXPECT_NE(pixels, box) << face.name() << " " << utf8(c);
            EXPECT_EQ(pixels.empty(), c == ' ' || c == 0xa0) << face.name() << " " << utf8(c);
        }
        const auto all = face.characters();
        EXPECT_TRUE(std::is_sorted(all.begin(), all.end()));
        for (const auto c : promised(is_tiny)) EXPECT_TRUE(std::binary_search(all.begin(), all.end(), c));
        EXPECT_TRUE(missing(one_letter('A', face, height)).empty());
        EXPECT_EQ(missing({.words = "Aж字A字", .face = faces::tiny(), .height = 5}),
                  (std::vector<char32_t>{U'ж', U'字'}));
    }
}

// Letters of different scripts that are drawn alike, and signs that have the same dots on so few of them.
const std::vector<std::u32string>& look_alikes(bool is_tiny) {
    static const std::vector<std::u32string> normal{U"AΑА",     U"BΒВ",     U"CС",  U"EΕЕ",
                                                    U"HΗН",     U"IΙІӀ",    U"JЈ",  U"KΚК",
                                                    U"MΜМ",     U"NΝ",      U"OΟО", U"PΡР",
                                                    U"SЅ",      U"TΤТ",     U"XΧХ", U"YΥ",
                                                    U"ZΖ",      U"aа",      U"cс",  U"eе",
                                                    U"hһ",      U"iі",      U"ıӏ",  U"jј",
                                                    U"oοо",     U"pр",      U"sѕ",  U"xх",
                                                    U"yу",      U"ГΓ",      U"ПΠ",  U"ФΦ",
                                                    U"đђ",      U"ħћ",      U"ĸκк", U"\u00b5\u03bc",
                                                    U"ÐĐ",      U"Δ∆",      U"Σ∑",  U"\u03a9\u2126",
                                                    U"´ˊ΄",     U"`ˋ",      U"¯ˉ",  U"\u00b7\u0387\u2219\u22c5",
                                                    U",‚",      U"-‐‑­",    U"–‒",  U"—―",
                                                    U"’ʼ",      U";\u037e", U"|∣",  U"£₤",
                                                    U" \u00a0", U"ÈЀ",      U"ËЁ",  U"ÏΪЇ",
                                                    U"ŸΫ",      U"èѐ",      U"ëё",  U"ïї",
                                                    U"óό",      U"ĆЌ",      U"ḰЌ",  U"ќḱ",
                                                    U"′’ʼ",     U"″”",      U"/⁄",  U"ΌÓ",
                                                    U"3З",      U"ǴЃ"};
    static const std::vector<std::u32string> tiny{U" \u00a0", U"-\u00ad", U"\u00ef\u0457"};
    return is_tiny ? tiny : normal;
}

TEST(Faces, PixelLettersDiffer) {
    for (const auto& face : {faces::pixel(), faces::tiny()}) {
        const auto is_tiny = face == faces::tiny();
        std::map<std::set<std::pair<int, int>>, std::u32string> drawn;
        for (const auto c : face.characters()) drawn[pixels_of(one_letter(c, face, is_tiny ? 5 : 7))] += c;
        for (const auto& [pixels, alike_characters] : drawn) {
            const auto characters = alike_characters;
            for (const auto c : characters.substr(1)) {
                const auto& known = look_alikes(is_tiny);
                const auto is_known = std::any_of(known.begin(), known.end(), [&](const std::u32string& alike) {
                    return alike.find(c) != std::u32string::npos &&
                           alike.find(characters.front()) != std::u32string::npos;
                });
                EXPECT_TRUE(is_known) << face.name() << ": " << utf8(characters.front()) << " and " << utf8(c);
            }
        }
    }
}

// As high as is asked for, on the row that is asked for; at a whole multiple, each dot is a square.
TEST(Faces, CapitalsAreAsHighAsIsAskedFor) {
    for (int height = 5; height <= 60; ++height) {
        const auto box =
            bounds(Text{.words = "H", .at = {8, 70}, .anchor = TextAnchor::baseline, .height = 1.0 * height});
        EXPECT_EQ(box.size.height, height);
        EXPECT_EQ(box.last().y, 70);
        EXPECT_EQ(box.at.x, 8);
    }
    for (int dot = 1; dot < 5; ++dot) {
        for (const auto c : {U'R', U'g', U'Å', U'%'}) {
            auto text = one_letter(c, faces::pixel(), 7);
            text.at = {0, 0};
            const auto small = pixels_of(text, {.at = {0, -20}, .size = {20, 40}});
            text.height = 7 * dot;
            std::set<std::pair<int, int>> wanted;
            for (const auto& [y, x] : small) {
                for (int i = 0; i < dot * dot; ++i) wanted.emplace((y - 1) * dot + 1 + i / dot, x * dot + i % dot);
            }
            EXPECT_EQ(pixels_of(text, {.at = {0, -80}, .size = {80, 160}}), wanted) << dot;
        }
    }
}

// Every letter covers what its pen does.
TEST(Faces, LettersCoverWhatThePenDoes) {
    for (const auto c : faces::line().characters()) {
        auto text = one_letter(c, faces::line(), 19.5);
        text.weight = 2.25;
        if (is_sanitized && c % 4 != 0) continue;
        EXPECT_LE(worst_coverage(text, static_cast<int>(c)), 4) << utf8(c);
    }
}

}  // namespace
