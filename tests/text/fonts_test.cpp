// Faces out of font files: which glyphs, where, against another program that shapes; their outlines; and files that
// are none.
#include "folder_test.hpp"
#include "letters_oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <array>
#include <cstdio>
#include <memory>
#include <thread>

namespace {

using namespace letters;

const std::string dejavu = "/usr/share/fonts/truetype/dejavu/DejaVu";
const std::string noto = "/usr/share/fonts/truetype/noto/Noto";
const std::string cantarell = "/usr/share/fonts/opentype/cantarell/Cantarell-Regular.otf";  // outlines of PostScript
const std::string inter = "/usr/share/fonts/truetype/inter-vf/Inter-roman.var.ttf";         // with axes

std::vector<std::uint8_t> bytes_of(const std::string& path) {
    std::ifstream file{path, std::ios::binary};
    return {std::istreambuf_iterator<char>{file}, std::istreambuf_iterator<char>{}};
}

struct PlacedNumber {
    unsigned number;
    std::size_t at;
    double x;
    double y;
    friend bool operator==(const PlacedNumber&, const PlacedNumber&) = default;
    friend std::ostream& operator<<(std::ostream& to, const PlacedNumber& of) {
        return to << of.number << "=" << of.at << "@" << of.x << "," << of.y;
    }
};

// A piece of one direction, and from which byte of the words on.
struct Piece {
    std::string words;
    std::size_t at = 0;
    bool is_rtl = false;
};

// What hb-shape says of pieces from left to right, in font units.
std::vector<PlacedNumber> shaped(const std::string& font, const std::vector<Piece>& pieces,
                                 const std::string& more = "") {
    std::vector<PlacedNumber> all;
    auto x = 0.0;
    for (const auto& [words, at, is_rtl] : pieces) {
        std::string command = "hb-shape --no-glyph-names --utf8-clusters ";
        command.append(more).append(is_rtl ? " --direction=rtl '" : " --direction=ltr '");
        command.append(font).append("' --text='").append(words).append("'");
        const std::unique_ptr<FILE, int (*)(FILE*)> pipe{::popen(command.c_str(), "r"), ::pclose};
        std::string line;
        std::array<char, 4096> part{};
        while (std::fgets(part.data(), part.size(), pipe.get()) != nullptr) line += part.data();
        // [12=0+600|13=3@-5,20+0]
        for (std::size_t begin = 1; begin < line.size() && line[0] == '[';) {
            const auto end = line.find_first_of("|]", begin);
            unsigned number = 0;
            unsigned cluster = 0;
            int dx = 0;
            int dy = 0;
            int advance = 0;
            const auto item = line.substr(begin, end - begin);
            if (item.find('@') == std::string::npos) {
                std::sscanf(item.c_str(), "%u=%u+%d", &number, &cluster, &advance);
            } else {
                std::sscanf(item.c_str(), "%u=%u@%d,%d+%d", &number, &cluster, &dx, &dy, &advance);
            }
            all.push_back({.number = number, .at = cluster + at, .x = x + dx, .y = 0.0 - dy});
            x += advance;
            begin = line[end] == ']' ? line.size() : end + 1;
        }
    }
    return all;
}

// The same of a text whose em square has as many pixels as the font has units.
std::vector<PlacedNumber> placed(const std::string& font, const std::string& words, double em, const Text& like = {}) {
    auto text = like;
    text.words = words;
    text.anchor = TextAnchor::baseline;
    if (like.face == Face{}) text.face = load_face(font);
    text.em = em;
    std::vector<PlacedNumber> all;
    for (const auto& [face, number, origin, at] : glyphs(text)) {
        all.push_back({.number = number, .at = at, .x = origin.x + 0.5, .y = origin.y - 0.5});
    }
    return all;
}

TEST(Fonts, GlyphsLieWhereAnotherProgramSays) {
    struct Case {
        std::string font;
        double em;
        std::string words;
        bool is_rtl = false;
    };
    const Case cases[] = {{dejavu + "Sans.ttf", 2048, "Tarn Quay office: fjord, AVATAR, fi ffl 12:30"},
                          {dejavu + "Serif.ttf", 2048, "first offices, To Wave e\u0301 q\u0303"},
                          {cantarell, 1000, "Tide tables, AV Ty fi 3.2 m"},
                          {noto + "NaskhArabic-Regular.ttf", 1000, "مرسى السفن في الرصيف", true},
                          {noto + "SansHebrew-Regular.ttf", 1000, "רָצִיף שָׁלוֹם", true},
                          {noto + "SansDevanagari-Regular.ttf", 1000, "नमस्ते बंदरगाह क्षत्रिय र्क"},
                          {noto + "SansThai-Regular.ttf", 1000, "ท่าเรือ น้ำขึ้นน้ำลง ที่"}};
    for (const auto& [font, em, words, is_rtl] : cases) {
        const auto wanted = shaped(font, {{.words = words, .is_rtl = is_rtl}});
        EXPECT_GT(wanted.size(), 8U) << font;
        EXPECT_EQ(placed(font, words, em), wanted) << font;
    }
    // Letters become one, and come nearer: with that off, others.
    const auto sans = dejavu + "Sans.ttf";
    const auto plain = load_face(sans).with_features({{.tag = "liga", .value = 0}, {.tag = "kern", .value = 0}});
    const auto wanted = shaped(sans, {{.words = "fi AV"}}, "--features=liga=0,kern=0");
    EXPECT_EQ(wanted.size(), 5U);
    EXPECT_EQ(placed(sans, "fi AV", 2048, {.face = plain}), wanted);
    EXPECT_EQ(placed(sans, "fi AV", 2048).size(), 4U);
    // A language that draws a letter in its own way.
    EXPECT_EQ(placed(sans, "бг", 2048, {.face = load_face(sans), .language = "sr"}),
              shaped(sans, {{.words = "бг"}}, "--language=sr"));
    EXPECT_NE(placed(sans, "бг", 2048, {.face = load_face(sans), .language = "sr"}), placed(sans, "бг", 2048));
    // Letters that are set apart are no ligatures.
    EXPECT_EQ(placed(sans, "fi", 2048, {.face = load_face(sans), .letter_spacing = 100}).size(), 2U);
}

TEST(Fonts, LinesOfTwoDirectionsAreInTheirOrder) {
    const auto font = dejavu + "Sans.ttf";
    // Hebrew in Latin, and the other way round; figures go to the right in both.
    EXPECT_EQ(placed(font, "abc אבג 12 def", 2048), shaped(font, {{.words = "abc ", .at = 0},
                                                                  {.words = "12", .at = 11},
                                                                  {.words = "אבג ", .at = 4, .is_rtl = true},
                                                                  {.words = " def", .at = 13}}));
    EXPECT_EQ(placed(font, "אבג (abc) דה", 2048), shaped(font, {{.words = ") דה", .at = 11, .is_rtl = true},
                                                                {.words = "abc", .at = 8},
                                                                {.words = "אבג (", .at = 0, .is_rtl = true}}));
    // The paragraph's direction may be told.
    const auto face = load_face(font);
    EXPECT_EQ(placed(font, "abc אב", 2048, {.face = face, .direction = TextDirection::right_to_left}),
              shaped(font, {{.words = " אב", .at = 3, .is_rtl = true}, {.words = "abc", .at = 0}}));
    EXPECT_EQ(placed(font, "אב abc", 2048, {.face = face, .direction = TextDirection::left_to_right}),
              shaped(font, {{.words = "אב", .at = 0, .is_rtl = true}, {.words = " abc", .at = 4}}));
    // A caret stands before each character: on its right where letters go to the left.
    const auto line = lay_out({.words = "אב", .face = face, .height = 20}).lines.front();
    ASSERT_EQ(line.carets.size(), 3U);
    EXPECT_NEAR(line.carets[0].x, line.box.at.x + line.box.size.width, 1e-9);
    EXPECT_GT(line.carets[0].x, line.carets[1].x);
    EXPECT_EQ(line.carets[2].x, line.box.at.x);
    // Inside of letters that are one, and none inside of a letter with its mark.
    const auto ligature = lay_out({.words = "fi", .face = face, .height = 20}).lines.front();
    EXPECT_NEAR(ligature.carets[1].x, (ligature.carets[0].x + ligature.carets[2].x) / 2, 1e-9);
    const auto marked = lay_out({.words = "q\u0303u", .face = face, .height = 20}).lines.front();
    EXPECT_EQ(marked.carets[1], marked.carets[2]);
}

// All that letters cover, of fonts with outlines of both kinds.
TEST(Fonts, GlyphsCoverTheirOutlines) {
    for (const auto& font : {dejavu + "Sans.ttf", dejavu + "Serif-Bold.ttf", cantarell,
                             noto + "NaskhArabic-Regular.ttf", noto + "SansDevanagari-Regular.ttf"}) {
        const auto face = load_face(font);
        const auto all = face.characters();
        for (std::size_t i = 0; i < all.size(); i += 1 + all.size() / 20) {
            EXPECT_LE(worst_coverage(one_letter(all[i], face, 19.3), static_cast<int>(i)), 4)
                << face.name() << " " << utf8(all[i]);
        }
    }
}

// The outlines are those of the file: as far as another program says that each reaches.
TEST(Fonts, OutlinesReachAsFarAsAnotherProgramSays) {
    struct Case {
        std::string font;
        double em;
    };
    for (const auto& [font, em] : {Case{dejavu + "Sans.ttf", 2048}, Case{cantarell, 1000}}) {
        for (const std::string letter : {"H", "g", "Q", "&", "8"}) {
            std::string command = "hb-shape --no-glyph-names --show-extents '";
            command.append(font).append("' --text='").append(letter).append("'");
            const std::unique_ptr<FILE, int (*)(FILE*)> pipe{::popen(command.c_str(), "r"), ::pclose};
            std::array<char, 256> line{};
            ASSERT_NE(std::fgets(line.data(), line.size(), pipe.get()), nullptr);
            int left = 0;
            int top = 0;
            int width = 0;
            int height = 0;
            const auto* const extents = std::strchr(line.data(), '<');
            ASSERT_NE(extents, nullptr);
            ASSERT_EQ(std::sscanf(extents, "<%d,%d,%d,%d>", &left, &top, &width, &height), 4);
            const auto shape =
                lettering({.words = letter, .anchor = TextAnchor::baseline, .face = load_face(font), .em = em});
            auto least = Position{1e9, 1e9};
            auto most = Position{-1e9, -1e9};
            for (const auto& ring : flattened(shape.outlines)) {
                for (const auto& [x, y] : ring) {
                    least = {std::min(least.x, x), std::min(least.y, y)};
                    most = {std::max(most.x, x), std::max(most.y, y)};
                }
            }
            // The baseline is the lower edge of row 0, and letters begin at the left edge of column 0.
            EXPECT_NEAR(least.x, left - 0.5, 1) << letter;
            EXPECT_NEAR(least.y, 0.5 - top, 1) << letter;
            EXPECT_NEAR(most.x, left + width - 0.5, 1) << letter;
            EXPECT_NEAR(most.y, 0.5 - top - height, 1) << letter;
        }
    }
}

TEST(Fonts, CapitalsAreAsHighAsIsAskedFor) {
    for (const auto& font : {dejavu + "Sans.ttf", dejavu + "SansMono.ttf", cantarell, inter}) {
        const auto face = load_face(font);
        for (const auto height : {7, 18, 33, 140}) {
            const auto box = bounds(Text{.words = "H",
                                         .at = {9, 200},
                                         .anchor = TextAnchor::baseline,
                                         .face = face,
                                         .height = double{1} * height});
            EXPECT_EQ(box.size.height, height) << face.name();
            EXPECT_EQ(box.last().y, 200);
        }
        const auto text = Text{.words = "HxgÁ", .at = {9.25, 40}, .face = face, .height = 17.5};
        EXPECT_EQ(measure(text).pixels, bounds(text));
        EXPECT_EQ(lay_out(text).box.size.height, 17.5);
    }
    // What stands on the line, by the type's size.
    const auto sans = load_face(dejavu + "Sans.ttf");
    EXPECT_NEAR(lay_out({.words = "H", .face = sans, .em = 100}).height, 100 * 1493.0 / 2048, 1e-9);
}

TEST(Fonts, AreTheSameWhereverTheyAre) {
    const auto face = load_face(dejavu + "Serif.ttf").with_fallback({load_face(noto + "SansThai-Regular.ttf")});
    const Text text{.words = "Otter ท่าเรือ AV\nffi", .at = {6.3, 9}, .face = face, .height = 13, .slant = 8_deg};
    for (const auto edge : {Edge::crisp, Edge::smooth}) {
        auto moved = text;
        moved.at = {text.at.x + 31, text.at.y + 17};
        const Box window{.at = {-40, -40}, .size = {280, 120}};
        const auto here = coverage_of(filled(text, {.edge = edge}), window);
        const auto there = coverage_of(filled(moved, {.edge = edge}),
                                       {.at = {window.at.x + 31, window.at.y + 17}, .size = window.size});
        EXPECT_EQ(here, there);
        EXPECT_EQ(coverage_of(transformed(filled(text, {.edge = edge}), Transform{}.move({31, 17})),
                              {.at = {window.at.x + 31, window.at.y + 17}, .size = window.size}),
                  here);
        EXPECT_EQ(bounds(filled(moved, {.edge = edge})), (Box{bounds(filled(text, {.edge = edge})).at + Point{31, 17},
                                                              bounds(filled(text, {.edge = edge})).size}));
        // From several threads, and after many others have been drawn.
        std::array<std::vector<int>, 4> found;
        {
            std::vector<std::thread> threads;
            threads.reserve(found.size());
            for (auto& of : found) {
                threads.emplace_back([&] {
                    for (auto height = 5; height < 30; ++height) {
                        (void)coverage_of(filled(Text{.words = text.words, .face = face, .height = double{1} * height},
                                                 {.edge = edge}),
                                          window);
                    }
                    of = coverage_of(filled(text, {.edge = edge}), window);
                });
            }
            for (auto& thread : threads) thread.join();
        }
        for (const auto& of : found) EXPECT_EQ(of, here);
    }
}

// What has been kept is forgotten when there is much of it, and drawn anew the same.
TEST(Fonts, KeptLettersAreTheSameAsNewOnes) {
    const auto face = load_face(dejavu + "Sans.ttf");
    const Text text{.words = "Otter AVTo ffi 12", .at = {6.3, 30}, .face = face, .height = 13};
    const Text lines{.words = "Otter AVTo", .at = {6.3, 60}, .height = 11.5};
    constexpr Box window{.at = {0, 0}, .size = {240, 100}};
    const auto found = [&] {
        auto all = coverage_of(filled(text, {.edge = Edge::smooth}), window);
        const auto more = coverage_of(filled(lines, {.edge = Edge::smooth}), window);
        all.insert(all.end(), more.begin(), more.end());
        return all;
    };
    const auto once = found();
    EXPECT_EQ(found(), once);
    for (int i = 0; i < 180; ++i) {
        const Text other{.words = "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ",
                         .at = {0, 0},
                         .face = face,
                         .height = 60 + i * 0.2};
        EXPECT_FALSE(bounds(other).empty());
    }
    EXPECT_EQ(found(), once);
    // Letters one by one are what they are together, but for what is rounded of each.
    const auto together = coverage_of(filled(lettering(lines), {.edge = Edge::smooth}), window);
    const auto apart = coverage_of(filled(lines, {.edge = Edge::smooth}), window);
    for (std::size_t i = 0; i < apart.size(); ++i) EXPECT_NEAR(apart[i], together[i], 1);
}

TEST(Fonts, FallBackOnOthersAndSayWhatIsMissing) {
    const auto sans = load_face(dejavu + "Sans.ttf");
    const auto deva = load_face(noto + "SansDevanagari-Regular.ttf");
    const auto both = sans.with_fallback({faces::tiny(), deva});
    EXPECT_TRUE(both.has(U'क'));
    EXPECT_FALSE(sans.has(U'क'));
    EXPECT_EQ(both.fallback().size(), 2U);
    std::string faces_used;
    for (const auto& glyph : glyphs({.words = "aकb", .face = both, .height = 10})) {
        faces_used += glyph.face.name() + "; ";
    }
    EXPECT_EQ(faces_used, "DejaVu Sans Book; Noto Sans Devanagari; DejaVu Sans Book; ");
    EXPECT_TRUE(missing({.words = "aकb", .face = both}).empty());
    // Those to fall back on have others too; the line face draws with its pen.
    const auto nested = deva.with_fallback({faces::line().with_fallback({sans})});
    EXPECT_FALSE(lettering({.words = "कA", .face = nested, .height = 12}).lines.empty());
    EXPECT_TRUE(missing({.words = "कAأ", .face = nested}).empty());
    // Missing is what the glyph 0 stands for; a letter is there if its parts are.
    for (const auto c : {U'\u1e17', U'字', U'\U0001f6a2', U'é', U'\u0915', U'\u200d', U'\ufb01'}) {
        const Text text{.words = utf8(c), .face = sans, .height = 12};
        auto is_box = false;
        for (const auto& glyph : glyphs(text)) is_box = is_box || glyph.number == 0;
        EXPECT_EQ(missing(text).size(), is_box ? 1U : 0U) << utf8(c);
        EXPECT_EQ(is_box, bounds(text) == bounds(Text{.words = utf8(U'字'), .face = sans, .height = 12})) << utf8(c);
    }
    EXPECT_EQ(both, sans.with_fallback({faces::tiny(), deva}));
    EXPECT_NE(both, sans);
    EXPECT_EQ(error_of([&] { (void)sans.with_fallback(std::vector<Face>(255, deva)); }),
              "face: 255 faces to fall back on, with those that they fall back on; allowed are 254");
    // A pixel face in a height that it does not have is no use, but only where a letter is of it.
    EXPECT_EQ(lay_out({.words = "ab", .face = sans.with_fallback({faces::pixel()}), .height = 10}).lines.size(), 1U);
}

TEST(Fonts, HaveFeaturesAndAxes) {
    const auto face = load_face(inter);
    ASSERT_FALSE(face.axes().empty());
    EXPECT_EQ(face.axes().front().tag, "wght");
    EXPECT_EQ(face.axes().front().least, 100);
    EXPECT_EQ(face.axes().front().most, 900);
    const auto ink = [](const Face& of) {
        auto sum = 0;
        for_each_coverage(
            filled(Text{.words = "Hamburg", .at = {5, 5}, .face = of, .height = 20}, {.edge = Edge::smooth}),
            {.at = {0, -20}, .size = {300, 80}}, [&](int, int, int length, int coverage) { sum += length * coverage; });
        return sum;
    };
    const auto light = face.with_axes({{.tag = "wght", .value = 100}});
    const auto black = face.with_axes({{.tag = "wght", .value = 900}});
    EXPECT_LT(2 * ink(light), ink(face));
    EXPECT_GT(ink(black), ink(face) * 3 / 2);
    const auto units = 2816.0;
    EXPECT_EQ(placed(inter, "fi12", units, {.face = black}),
              shaped(inter, {{.words = "fi12"}}, "--variations=wght=900"));
    EXPECT_EQ(black, face.with_axes({{.tag = "wght", .value = 900}}));
    EXPECT_NE(black, light);
    EXPECT_EQ(ink(black.with_axes({})), ink(face));
    EXPECT_EQ(error_of([&] { (void)face.with_axes({{.tag = "wght", .value = 901}}); }),
              "face Inter: axis wght is 901; allowed is 100 to 900");
    EXPECT_NE(error_of([&] { (void)face.with_axes({{.tag = "WGHT", .value = 400}}); }).find("has no axis \"WGHT\""),
              std::string::npos);
    const auto nothing = std::numeric_limits<double>::quiet_NaN();
    EXPECT_NE(error_of([&] { (void)face.with_axes({{.tag = "wght", .value = nothing}}); }), "no error");
    EXPECT_EQ(error_of([&] { (void)faces::line().with_axes({{.tag = "wght", .value = 400}}); }),
              "face line has no axes; allowed are faces out of variable font files");
    // Features by their tags.
    const auto features = face.features();
    EXPECT_NE(std::find(features.begin(), features.end(), "tnum"), features.end());
    const auto width = [&](const Face& of, const std::string& words) {
        return lay_out({.words = words, .face = of, .height = 50}).box.size.width;
    };
    const auto table = face.with_features({{.tag = "tnum"}});
    EXPECT_EQ(width(table, "1111"), width(table, "0000"));
    EXPECT_NE(width(face, "1111"), width(face, "0000"));
    EXPECT_NE(table, face);
    const auto message = error_of([&] { (void)face.with_features({{.tag = "tnmu"}}); });
    EXPECT_NE(message.find("face Inter has no feature \"tnmu\"; allowed are "), std::string::npos);
    EXPECT_NE(message.find(", tnum,"), std::string::npos);
    EXPECT_EQ(error_of([&] { (void)faces::tiny().with_features({{.tag = "liga"}}); }),
              "face tiny has no features; allowed are faces out of font files that have some");
}

// Time grows with the letters, not with the letters times the runs that they are in.
TEST(Fonts, ManyRunsTakeTheirTimeOnce) {
    std::string words;
    const auto count = is_sanitized ? 10'000 : 40'000;
    for (int i = 0; i < count; ++i) words += "a\u05d0\u0915 ";
    const auto face = load_face(dejavu + "Sans.ttf").with_fallback({load_face(noto + "SansDevanagari-Regular.ttf")});
    EXPECT_EQ(glyphs({.words = words, .face = face}).size(), 4U * count);
    EXPECT_GT(lay_out({.words = words, .face = face, .wrap = 300}).lines.size(), 1000U);
}

// A collection of font files, as OpenType 1.9 has it ("TTC Header"): the tables' places count from the file's begin.
std::vector<std::uint8_t> collection_of(const std::vector<std::string>& fonts) {
    const auto put = [](std::vector<std::uint8_t>& to, std::size_t at, std::size_t value) {
        for (auto i = 0U; i < 4; ++i) to[at + i] = static_cast<std::uint8_t>(value >> (24 - 8 * i));
    };
    const auto get = [](const std::vector<std::uint8_t>& from, std::size_t at) {
        std::size_t value = 0;
        for (auto i = 0U; i < 4; ++i) value = value << 8U | from[at + i];
        return value;
    };
    std::vector<std::uint8_t> all{'t', 't', 'c', 'f', 0, 1, 0, 0};
    all.resize(12 + 4 * fonts.size());
    put(all, 8, fonts.size());
    for (std::size_t i = 0; i < fonts.size(); ++i) {
        auto font = bytes_of(fonts[i]);
        const auto base = all.size();
        put(all, 12 + 4 * i, base);
        const auto tables = std::size_t{font[4]} << 8U | font[5];
        for (std::size_t table = 0; table < tables; ++table) {
            const auto at = 12 + 16 * table + 8;
            put(font, at, get(font, at) + base);
        }
        font.resize((font.size() + 3) / 4 * 4);
        all.insert(all.end(), font.begin(), font.end());
    }
    return all;
}

TEST(Fonts, CollectionsHaveSeveralFaces) {
    const auto file = collection_of({dejavu + "Sans-Bold.ttf", dejavu + "SansMono.ttf"});
    EXPECT_EQ(count_faces(file), 2);
    EXPECT_EQ(count_faces(dejavu + "Sans.ttf"), 1);
    EXPECT_EQ(load_face(file).name(), "DejaVu Sans Bold");
    const auto mono = load_face(file, 1);
    const Text text{.words = "Otter 12", .at = {3, 3}, .face = mono, .height = 14};
    auto alone = text;
    alone.face = load_face(dejavu + "SansMono.ttf");
    EXPECT_EQ(pixels_of(text), pixels_of(alone));
    EXPECT_NE(mono, alone.face);
    EXPECT_EQ(error_of([&] { (void)load_face(file, 2); }), "font in memory: face number 2; allowed is 0 to 1");
    EXPECT_EQ(error_of([&] { (void)load_face(dejavu + "Sans.ttf", -1); }),
              dejavu + "Sans.ttf: face number -1; allowed is 0, the only one");
}

TEST(Fonts, LinesAreBrokenByTheRulesOfUnicode) {
    const auto thai = load_face(noto + "SansThai-Regular.ttf").with_fallback({load_face(dejavu + "Sans.ttf")});
    const auto lines_of = [&](const std::string& words, double wrap) {
        std::vector<std::string> lines;
        const Text text{.words = words, .face = thai, .height = 12, .wrap = wrap};
        for (const auto& line : lay_out(text).lines) {
            EXPECT_LE(line.box.size.width, wrap) << words;
            lines.push_back(words.substr(line.begin, line.end - line.begin));
        }
        return lines;
    };
    using Lines = std::vector<std::string>;
    // Words of Thai have no spaces between them.
    EXPECT_EQ(lines_of("ท่าเรือน้ำลึก", 45).front(), "ท่าเรือ");
    // Not before a closing parenthesis, nor between a number and its unit's sign, nor at a space that keeps together.
    EXPECT_EQ(lines_of("depth (3 m)", 60), (Lines{"depth ", "(3 m)"}));
    EXPECT_EQ(lines_of("tide 5\u00a0m low", 60), (Lines{"tide ", "5\u00a0m ", "low"}));
    EXPECT_EQ(lines_of("Tarn-Quay", 60), (Lines{"Tarn-", "Quay"}));
    // A soft hyphen is seen only where a line ends with it.
    const auto of = [](const std::string& words, std::optional<double> wrap) {
        return pixels_of(
            Text{.words = words, .at = {2, 30}, .face = load_face(dejavu + "Sans.ttf"), .height = 12, .wrap = wrap},
            {.at = {0, 0}, .size = {200, 100}});
    };
    EXPECT_EQ(of("har\u00adbour", {}), of("harbour", {}));
    EXPECT_EQ(of("har\u00adbour", 50), of("har-\nbour", {}));
}

TEST_F(FolderTest, FontFilesThatAreNoneSaySo) {
    EXPECT_EQ(error_of([&] { (void)load_face(path("none.ttf").string()); }),
              path("none.ttf").string() + ": cannot be read: No such file or directory");
    EXPECT_EQ(error_of([&] { (void)load_face(folder().string()); }),
              folder().string() + ": cannot be read: it is no regular file");
    EXPECT_EQ(error_of([&] {
                  (void)load_face(std::string_view{"a\0b", 3});
              }),
              "a\\x00b: cannot be read: its name has a NUL byte");
    write("quay.ttf", std::string(5000, 'q'));
    EXPECT_EQ(error_of([&] { (void)load_face(path("quay.ttf").string()); }),
              path("quay.ttf").string() + ": it is no font file, or a damaged one (no format that is known)");
    write("empty.ttf", "");
    EXPECT_NE(error_of([&] { (void)load_face(path("empty.ttf").string()); }), "no error");
    // Pictures of letters only.
    write("dots.bdf",
          "STARTFONT 2.1\nFONT -q-dots-medium-r-normal--8-80-75-75-c-80-iso10646-1\nSIZE 8 75 75\n"
          "FONTBOUNDINGBOX 8 8 0 0\nSTARTPROPERTIES 2\nFONT_ASCENT 8\nFONT_DESCENT 0\nENDPROPERTIES\nCHARS 1\n"
          "STARTCHAR A\nENCODING 65\nSWIDTH 1000 0\nDWIDTH 8 0\nBBX 8 8 0 0\nBITMAP\n18\n24\n42\n42\n7E\n42\n42\n42\n"
          "ENDCHAR\nENDFONT\n");
    EXPECT_EQ(error_of([&] { (void)load_face(path("dots.bdf").string()); }),
              path("dots.bdf").string() +
                  ": the font has pictures of letters only (bitmaps); allowed are such with outlines");
    // Cut anywhere: an error, or what is left of it.
    const auto whole = bytes_of(dejavu + "SansMono.ttf");
    auto refused = 0;
    for (auto size = whole.size(); size > 0; size = size * 4 / 5) {
        try {
            const auto face = load_face(std::span{whole}.first(size));
            (void)bounds(Text{.words = "Otter 4 \u00e9", .face = face, .height = 20});
        } catch (const Error&) {
            ++refused;
        }
    }
    EXPECT_GT(refused, 30);
    // Damaged in some places.
    std::mt19937 random{7};
    for (int i = 0; i < 150; ++i) {
        auto damaged = whole;
        for (int k = 0; k < 12; ++k)
            damaged[random() % (k < 6 ? 2000 : damaged.size())] = static_cast<std::uint8_t>(random());
        try {
            const auto face = load_face(damaged);
            (void)bounds(Text{.words = "Otter 4 \u00e9\u0430", .face = face, .height = 20});
        } catch (const Error&) {
            ++refused;
        }
    }
    EXPECT_EQ(error_of([&] { (void)lay_out({.words = "a", .face = load_face(dejavu + "Sans.ttf"), .weight = 2}); }),
              "text: weight is given for face DejaVu Sans Book; allowed for faces that have a pen: line");
    EXPECT_EQ(error_of([&] { (void)lay_out({.words = "a", .language = "sr Latn"}); }),
              "text: language is no tag of BCP 47; allowed are letters, figures and hyphens, such as sr or sr-Latn");
    std::string marks = "a";
    for (int i = 0; i < 1100; ++i) marks += "\u0301";
    EXPECT_EQ(error_of([&] { (void)lay_out({.words = marks, .face = load_face(dejavu + "Sans.ttf")}); }),
              "text: more than 1024 marks hang on one letter, up to byte 2051 of the words; that many are allowed");
    EXPECT_EQ(error_of([] { (void)utf8(0xd800); }),
              "utf8: the character is 55296; allowed are 0 to 1114111 but for 55296 to 57343");
}

}  // namespace
