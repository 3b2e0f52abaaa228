// Words: where letters lie, and that they are a shape like any other.
#include "folder_test.hpp"
#include "letters_oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <map>
#include <set>

namespace {

using namespace letters;

TEST(Letterings, AreStrokedAroundWhatThePenCovers) {
    const auto path = parse_path("M 16,44 C 20,4 44,4 50,30 L 30,36 M 64,20 L 64,20");
    for (const auto weight : {3.0, 9.0, 14.5}) {
        const Lettering letters{.lines = path, .weight = weight};
        for (const auto align : {Align::center, Align::inside, Align::outside}) {
            for (const auto width : {2.0, 4.0, 2.5}) {
                // As of boxes: centred, widths that are not even lie half a pixel further inside.
                const auto centered = width == 2.5 ? 0.75 : width / 2;
                const auto out = align == Align::center ? centered : align == Align::inside ? 0 : width;
                const auto plane = plane_of(letters, Real{out}, Real{width} - Real{out});
                const auto area = stroked(letters, {.width = width, .align = align, .edge = Edge::smooth});
                const auto found = coverage_of(area, around);
                for (int i = 0; i < around.size.width * around.size.height; i += 101) {
                    const Point pixel{i % around.size.width, i / around.size.width};
                    ASSERT_NEAR(static_cast<double>(plane_share(plane, pixel)) * 255, found[index_in(around, pixel)], 4)
                        << pixel << " weight " << weight << " width " << width;
                }
            }
        }
    }
    EXPECT_EQ(error_of([&] {
                  (void)bounds(stroked(Lettering{.lines = path, .weight = 9}, {.width = 2, .dash = {3, 3}}));
              }),
              "stroke: dash is given for letters that a pen draws; allowed are dashes along their lines, as a Path");
    EXPECT_EQ(error_of([&] { (void)bounds(Lettering{.lines = path, .weight = 0}); }),
              "lettering: weight is 0; allowed is 1/256 to 1073741823");
    EXPECT_TRUE(bounds(Lettering{}).empty());
    // Both kinds together, and a hairline's pixels.
    const Lettering both{
        .outlines = parse_path("M 10,10 H 30 V 30 H 10 Z"), .lines = parse_path("M 20,20 H 60"), .weight = 1};
    auto wanted = pixels_of(stroked(Line{.from = {20, 20}, .to = {60, 20}}));
    wanted.merge(pixels_of(filled(parse_path("M 10,10 H 30 V 30 H 10 Z"), {.edges = Edges::shared})));
    EXPECT_EQ(pixels_of(both), wanted);
}

// Everything that tells pixels tells the same ones, for every character of every face.
TEST(Texts, BoundsMembershipAndSpansAgree) {
    for (const auto& [face, heights] : {std::pair{faces::line(), std::vector<double>{7, 10, 18, 23.5}},
                                        {faces::pixel(), {7, 21}},
                                        {faces::tiny(), {5, 10}}}) {
        for (const auto height : heights) {
            for (const auto c : face.characters()) {
                const auto text = one_letter(c, face, height);
                const auto pixels = pixels_of(text);
                auto box = Box{};
                for (const auto& [y, x] : pixels) box = enclosing(box, Box{.at = {x, y}, .size = {1, 1}});
                ASSERT_EQ(bounds(text), box) << utf8(c) << height;
                ASSERT_EQ(measure(text).pixels, box);
                for (const auto pixel :
                     {box.at, box.last(), Point{box.at.x, box.last().y}, Point{box.at.x - 1, box.at.y}}) {
                    ASSERT_EQ(contains(text, pixel), pixels.contains({pixel.y, pixel.x})) << utf8(c);
                }
                if (c % 7 != 0) continue;
                const auto smooth = filled(text, {.edge = Edge::smooth});
                Bitmap<Gray8> sheet{around.size};
                const auto touched = fill(sheet, smooth, colors::white);
                EXPECT_EQ(bounds(smooth), touched) << utf8(c);
                EXPECT_EQ(Region{text}, Region(text, around));
            }
        }
    }
}

// Smooth letters begin at quarters of a pixel, both ways: each of the places around one is drawn as that is, which lies
// between the whole ones, and no others.
TEST(Texts, MovedByFractionsBeginAtQuarters) {
    const Text text{.words = "Pegel", .at = {6, 5}, .height = 9};
    constexpr auto window = Box{{0, 0}, {60, 24}};
    const auto moved = [&](double dx, double dy) {
        return transformed(filled(text, {.edge = Edge::smooth}), Transform{}.move({dx, dy}));
    };
    const auto at = [&](double dx, double dy) { return SmoothRegion{moved(dx, dy), window}; };
    for (int i = 0; i < 16; ++i) {
        const auto x = i % 4 / 4.0;
        const auto y = i / 4 / 4.0;
        const auto quarter = at(x, y);
        EXPECT_EQ(quarter, at(x + 0.1, y - 0.1)) << x << "," << y;
        EXPECT_EQ(quarter, at(x - 0.12, y + 0.12)) << x << "," << y;
        EXPECT_FALSE(quarter == at(x + 0.25, y)) << x << "," << y;
        EXPECT_FALSE(quarter == at(x, y + 0.25)) << x << "," << y;
        // As much ink wherever it lies.
        auto sum = 0.0;
        auto whole = 0.0;
        const auto add_to = [](double& to) {
            return [&to](int, int, int length, int part) { to += double{1} * length * part; };
        };
        for_each_coverage(moved(x, y), window, add_to(sum));
        for_each_coverage(moved(0, 0), window, add_to(whole));
        EXPECT_NEAR(sum, whole, whole / 100) << x << "," << y;
    }
}

TEST(Texts, MovedByWholePixelsAreTheSamePixelsMoved) {
    for (const auto& face : {faces::line(), faces::pixel()}) {
        for (const auto height : {7.0, 14.0, 35.0}) {
            const Text text{
                .words = "Berth 4, Ågé", .at = {3, 60}, .anchor = TextAnchor::baseline, .face = face, .height = height};
            for (const auto& by : {Point{7, -5}, Point{-13, 22}}) {
                auto moved = text;
                moved.at = text.at + by;
                for (const auto edge : {Edge::crisp, Edge::smooth}) {
                    Bitmap<Gray8> here{{400, 100}};
                    Bitmap<Gray8> there{{400, 100}};
                    fill(here, text, edge, colors::white);
                    fill(there, moved, edge, colors::white);
                    for (int y = 25; y < 75; ++y) {
                        for (int x = 15; x < 380; ++x) {
                            ASSERT_EQ(here.color_at({x, y}), there.color_at(Point{x, y} + by)) << x << "," << y;
                        }
                    }
                }
            }
        }
    }
}

// Each of the nine points of the layout box, and of the three on the baseline, is where it is said to be.
TEST(Texts, AnchorsAreTheirPoints) {
    Text text{.words = "HOE\nHE", .at = {100, 100}, .height = 11};
    const auto first = lay_out(text);
    EXPECT_EQ(first.box.at, (Position{100, 100}));
    EXPECT_EQ(first.lines.size(), 2U);
    EXPECT_EQ(bounds(Text{.words = "H", .at = {100, 100}, .height = 11}).at, (Point{100, 100}));
    const auto whole = [](double value) { return static_cast<int>(value); };
    const Box box{.at = {100, 100}, .size = {whole(first.box.size.width), whole(first.box.size.height)}};
    for (int number = 0; number < 9; ++number) {
        text.anchor = static_cast<TextAnchor>(number);
        const auto found = lay_out(text);
        const auto placed = Box{.at = {whole(found.box.at.x), whole(found.box.at.y)}, .size = box.size};
        EXPECT_EQ(placed.point(static_cast<Anchor>(number)), (Point{100, 100})) << number;
    }
    for (const auto& [anchor, part] : {std::pair{TextAnchor::baseline, Anchor::bottom_left},
                                       {TextAnchor::baseline_center, Anchor::bottom},
                                       {TextAnchor::baseline_right, Anchor::bottom_right}}) {
        text.anchor = anchor;
        const auto found = lay_out(text);
        const auto& line = found.lines.front();
        EXPECT_EQ(line.baseline, 100);
        const Box top_line{.at = {whole(found.box.at.x), whole(line.box.at.y)}, .size = {box.size.width, 11}};
        EXPECT_EQ(top_line.point(part), (Point{100, 100}));
    }
    // What stands on the line has its lowest pixels in its row.
    EXPECT_EQ(bounds(Text{.words = "HEim", .at = {5, 50}, .anchor = TextAnchor::baseline, .height = 13}).last().y, 50);
}

TEST(Texts, FiguresHaveOneBreadthAndPairsComeNearer) {
    const auto width = [](const std::string& words, double height) {
        return lay_out({.words = words, .height = height}).box.size.width;
    };
    for (const auto height : {7.0, 12.0, 40.0}) {
        for (char figure = '0'; figure <= '9'; ++figure) {
            EXPECT_EQ(width(std::string(5, figure), height), width("00000", height)) << figure << height;
        }
    }
    const auto gap = [&](const std::string& a, const std::string& b) {
        return width(a + b, 60) - width(a, 60) - width(b, 60);
    };
    EXPECT_LT(gap("A", "V"), gap("H", "H") - 7);
    EXPECT_LT(gap("T", "o"), gap("H", "H") - 4);
    EXPECT_LT(gap("O", "O"), gap("H", "H"));
    for (const auto* const pair : {"HH", "VA", "LT", "rm", "fi", "W.", "jj", "ll"}) {
        for (const auto height : {7.0, 9.0, 14.0}) {
            const std::string words{pair};
            const auto both = width(words, height);
            EXPECT_GE(both, width(words.substr(0, 1), height) + width(words.substr(1), height) - 4) << words;
        }
    }
}

const std::string notice = "Spring tide on the quay wall: move the boats - and their ropes - before noon.";

TEST(Texts, LinesAreBrokenWhereTheyMayBe) {
    for (const auto wrap : {60.0, 90.0, 144.0, 300.0}) {
        const Text text{.words = notice, .height = 8, .wrap = wrap};
        const auto layout = lay_out(text);
        std::string together;
        for (const auto& line : layout.lines) {
            EXPECT_LE(line.box.size.width, wrap);
            const auto part = notice.substr(line.begin, line.end - line.begin);
            together += part;
            EXPECT_FALSE(part.starts_with(' '));
            EXPECT_TRUE(line.end == notice.size() || part.ends_with(' ') || part.ends_with('-')) << part;
            // What would have had room is in the line.
            const auto next = notice.find_first_of(" -", line.end + 1);
            if (line.end < notice.size() && next != std::string::npos) {
                const auto more = notice.substr(line.begin, next - line.begin);
                EXPECT_GT(lay_out({.words = more, .height = 8}).box.size.width, wrap) << more;
            }
        }
        EXPECT_EQ(together, notice);
        auto justified = text;
        justified.lines = TextLines::justified;
        const auto spread = lay_out(justified);
        for (std::size_t i = 0; i + 1 < spread.lines.size(); ++i) {
            const auto& line = spread.lines[i];
            const auto has_space = notice.find(' ', line.begin) + 1 < line.end;
            EXPECT_EQ(line.box.size.width, has_space ? wrap : layout.lines[i].box.size.width);
            EXPECT_EQ(line.carets.back().x, line.box.size.width);
        }
        for (const auto& [lines, part] : {std::pair{TextLines::right, 1.0}, {TextLines::center, 0.5}}) {
            auto other = text;
            other.lines = lines;
            for (const auto& line : lay_out(other).lines) {
                EXPECT_NEAR(line.box.at.x, (lay_out(other).box.size.width - line.box.size.width) * part, 0.5);
            }
        }
    }
    // A word that is longer than a line is broken anywhere; a line feed always breaks.
    EXPECT_EQ(lay_out({.words = "HHHHHHHH", .height = 8, .wrap = 20}).lines.size(), 4U);
    EXPECT_EQ(lay_out({.words = "A\r\nB\n\nC", .height = 8}).lines.size(), 4U);
    EXPECT_EQ(lay_out({.words = "", .height = 8}).lines.size(), 1U);
    EXPECT_TRUE(bounds(Text{.words = " ", .height = 8}).empty());
}

TEST(Texts, CaretsStandBetweenLetters) {
    const Text text{.words = "Tårn!", .at = {10, 30}, .anchor = TextAnchor::baseline, .height = 20};
    const auto layout = lay_out(text);
    const auto& carets = layout.lines.front().carets;
    ASSERT_EQ(carets.size(), 6U);
    EXPECT_EQ(carets.front(), (Position{10, 30}));
    EXPECT_EQ(carets.back().x, 10 + layout.box.size.width);
    for (std::size_t i = 1; i < carets.size(); ++i) EXPECT_GT(carets[i].x, carets[i - 1].x);
    // A letter by itself, put at its caret, is the letter in the word.
    const auto all = pixels_of(text);
    auto put_together = std::set<std::pair<int, int>>{};
    const std::vector<std::string> letters{"T", "å", "r", "n", "!"};
    for (std::size_t i = 0; i < letters.size(); ++i) {
        auto one = text;
        one.words = letters[i];
        one.at = carets[i];
        put_together.merge(pixels_of(one));
    }
    EXPECT_EQ(put_together, all);
}

TEST(Texts, FitTheirBoxes) {
    for (const auto& box : {Size{100, 30}, Size{40, 12}, Size{300, 9}}) {
        const Text text{.words = "Otter", .height = 60, .fit = TextFit{.box = box}};
        const auto layout = lay_out(text);
        EXPECT_FALSE(layout.is_over);
        EXPECT_LE(layout.box.size.width, box.width);
        EXPECT_LE(layout.box.size.height, box.height);
        // One pixel more has no room.
        const auto higher = lay_out({.words = "Otter", .height = layout.height + 1}).box.size;
        EXPECT_TRUE(higher.width > box.width || higher.height > box.height);
        const auto cut =
            lay_out({.words = notice, .height = 8, .wrap = 90, .fit = TextFit{.box = {90, 30}, .by = Overflow::cut}});
        EXPECT_GT(cut.left_out, 0U);
        EXPECT_LE(cut.box.size.width, 90);
        EXPECT_LE(cut.box.size.height, 30);
    }
    EXPECT_TRUE(lay_out({.words = "Otter", .height = 60, .fit = TextFit{.box = {8, 8}}}).is_over);
    const auto dots =
        lay_out({.words = "Otter", .face = faces::pixel(), .height = 70, .fit = TextFit{.box = {90, 30}}});
    EXPECT_EQ(dots.height, 28);
    // Cut, it is a part of the words and an ellipsis.
    const Text cut{.words = "Otterburn", .height = 10, .fit = TextFit{.box = {40, 20}, .by = Overflow::cut}};
    const auto left_out = lay_out(cut).left_out;
    EXPECT_EQ(pixels_of(cut),
              pixels_of(Text{.words = std::string("Otterburn").substr(0, 9 - left_out) + "…", .height = 10}));
}

TEST(Texts, FollowPaths) {
    const auto circle = subpixel::Circle{.center = {60, 60}, .radius = 40};
    Text text{.words = "TARN QUAY", .height = 9, .along = TextPath::along(circle)};
    const auto layout = lay_out(text);
    EXPECT_EQ(layout.left_out, 0U);
    for (const auto& caret : layout.lines.front().carets) {
        EXPECT_NEAR(std::hypot(caret.x - 60, caret.y - 60), 40, 1);
    }
    // Outside of the circle, from its leftmost place on clockwise; inside on its other side.
    const auto box = bounds(text);
    EXPECT_LT(box.at.x, 20);
    EXPECT_LT(box.last().y, 62);
    for_each_span(text, {.at = {0, 0}, .size = {120, 120}}, [](const Span& run) {
        EXPECT_GT(std::hypot(run.x - 60, run.y - 60), 39);
        EXPECT_LT(std::hypot(run.x - 60, run.y - 60), 51);
    });
    text.along->side = TextPath::Side::right;
    for_each_span(text, {.at = {0, 0}, .size = {120, 120}},
                  [](const Span& run) { EXPECT_LT(std::hypot(run.x - 60, run.y - 60), 41.5); });
    // A level line is the text without a path.
    const auto line = subpixel::Line{.from = {9.5, 30.5}, .to = {109.5, 30.5}};
    text.along = TextPath::along(line);
    const auto straight = Text{.words = "TARN QUAY", .at = {10, 30}, .anchor = TextAnchor::baseline, .height = 9};
    EXPECT_EQ(pixels_of(text, {.at = {0, 0}, .size = {200, 60}}),
              pixels_of(straight, {.at = {0, 0}, .size = {200, 60}}));
    text.along->place = TextPath::Place::end;
    EXPECT_EQ(bounds(text).last().x, 109);
    // What does not fit is left out, and told.
    text.along = TextPath::along(subpixel::Line{.from = {0, 30}, .to = {30, 30}});
    EXPECT_GT(lay_out(text).left_out, 3U);
    const auto arc = subpixel::Arc{.of = subpixel::Ellipse::around({.center = {60, 60}, .radii = {50, 30}}),
                                   .sweep = {180_deg, 180_deg}};
    text.along = TextPath::along(arc);
    text.along->place = TextPath::Place::center;
    const auto arched = bounds(text);
    EXPECT_NEAR(arched.at.x + arched.last().x, 120, 4);
}

TEST(Texts, AreAShapeLikeAnyOther) {
    const Text text{.words = "Quay", .at = {6, 6}, .height = 30, .weight = 6};
    Bitmap<Rgb8> direct{{140, 60}};
    Bitmap<Rgb8> by_figure{{140, 60}};
    Bitmap<Rgb8> by_drawing{{140, 60}};
    const auto turn = Transform{}.turn(10_deg);
    Drawing plan;
    fill(plan, text, Edge::smooth, colors::gold);
    stroke(plan, text, {.width = 2}, colors::white);
    fill(plan.within(Region{text}), Circle{.center = {50, 20}, .radius = 25}, colors::teal);
    fill(plan, transformed(filled(text, {.edge = Edge::smooth}), turn), with_alpha(colors::coral, 90));
    render(plan, by_drawing);
    fill(direct, text, Edge::smooth, colors::gold);
    stroke(direct, text, {.width = 2}, colors::white);
    fill(direct.within(Region{text}), Circle{.center = {50, 20}, .radius = 25}, colors::teal);
    fill(direct, transformed(filled(text, {.edge = Edge::smooth}), turn), with_alpha(colors::coral, 90));
    fill(by_figure, Figure{filled(text, {.edge = Edge::smooth})}, colors::gold);
    fill(by_figure, Figure{stroked(lettering(text), {.width = 2})}, colors::white);
    fill(by_figure.within(Region{lettering(text)}), Circle{.center = {50, 20}, .radius = 25}, colors::teal);
    fill(by_figure, Figure{transformed(filled(text, {.edge = Edge::smooth}), turn)}, with_alpha(colors::coral, 90));
    EXPECT_EQ(by_drawing.bytes(), direct.bytes());
    EXPECT_EQ(by_figure.bytes(), direct.bytes());
    EXPECT_EQ(Figure{text}, Figure{text});
    EXPECT_NE(Figure{text}, Figure{(Text{.words = "Quai", .at = {6, 6}, .height = 30, .weight = 6})});
    EXPECT_EQ(topmost(plan, {200, 200}), std::nullopt);
}

TEST(Texts, SayWhatTheyMayNotBe) {
    const auto refused = [](const Text& text) { return error_of([&] { (void)lay_out(text); }); };
    EXPECT_EQ(refused({.words = "ab\xc3"}), "text: byte 2 of the words is 0xc3, which is no UTF-8 there");
    EXPECT_EQ(refused({.words = "\xed\xa0\x80"}), "text: byte 0 of the words is 0xed, which is no UTF-8 there");
    EXPECT_EQ(refused({.words = "a\xe2\x28\xa1"}), "text: byte 2 of the words is 0x28, which is no UTF-8 there");
    EXPECT_EQ(refused({.words = "\xf5"}), "text: byte 0 of the words is 0xf5, which is no UTF-8 there");
    EXPECT_EQ(refused({.words = "\xe0\x80\x80"}), "text: byte 0 of the words is 0xe0, which is no UTF-8 there");
    EXPECT_EQ(refused({.words = "a", .height = 0}), "text: height is 0; allowed is 1 to 16384");
    EXPECT_EQ(refused({.words = "a", .height = 3}), "text: height is 3; allowed in face line is 5 or more");
    EXPECT_EQ(refused({.words = "a", .face = faces::pixel(), .height = 9}),
              "text: height is 9; allowed in face pixel are multiples of 7, such as 7 and 14");
    EXPECT_EQ(refused({.words = "a", .face = faces::tiny(), .height = 4}),
              "text: height is 4; allowed in face tiny are multiples of 5, such as 5");
    EXPECT_EQ(refused({.words = "a", .face = faces::tiny(), .height = 5, .weight = 1}),
              "text: weight is given for face tiny; allowed for faces that have a pen: line");
    EXPECT_EQ(refused({.words = "a", .height = 12, .weight = 9}),
              "text: weight is 9; allowed for height 12 is 1/256 to 4");
    EXPECT_EQ(refused({.words = "a", .slant = 70_deg}), "text: slant is 70; allowed is -60 to 60");
    EXPECT_EQ(refused({.words = "WW", .height = 12, .wrap = 3}),
              "text: wrap is 3; allowed for these words is 13 or more, in which the widest letter has room");
    EXPECT_EQ(refused({.words = "a", .fit = TextFit{.box = {0, 4}}}),
              "text: fit.box.width is 0; allowed is 1 to 1073741823");
    EXPECT_EQ(refused({.words = "a", .along = TextPath{.path = parse_path("M 5,5")}}),
              "text: the path that the words follow has no length");
    EXPECT_EQ(refused({.words = std::string(262145, 'a')}),
              "text: the words have 262145 characters; allowed are 262144");
    const auto none = std::numeric_limits<double>::quiet_NaN();
    for (const auto bad : {none, std::numeric_limits<double>::infinity(), -1e300, 1e300}) {
        EXPECT_NE(refused({.words = "a", .at = {bad, 0}}), "no error");
        EXPECT_NE(refused({.words = "a", .height = bad}), "no error");
        EXPECT_NE(refused({.words = "a", .em = bad}), "no error");
        EXPECT_NE(refused({.words = "a", .weight = bad}), "no error");
        EXPECT_NE(refused({.words = "a", .letter_spacing = bad}), "no error");
        EXPECT_NE(refused({.words = "a", .line_spacing = bad}), "no error");
        EXPECT_NE(refused({.words = "a", .wrap = bad}), "no error");
        auto along = TextPath::along(subpixel::Line{.from = {0, 0}, .to = {90, 0}});
        along.offset = bad;
        EXPECT_NE(refused({.words = "a", .along = along}), "no error");
    }
    EXPECT_NE(refused({.words = "a", .anchor = static_cast<TextAnchor>(40)}), "no error");
    EXPECT_NE(refused({.words = "a", .lines = static_cast<TextLines>(9)}), "no error");
    // Nothing is drawn by what throws; what is far away is no error.
    Bitmap<Rgb8> sheet{{20, 20}};
    EXPECT_THROW(fill(sheet, Text{.words = "a\xff"}, colors::red), Error);
    EXPECT_EQ(sheet.bytes(), (Bitmap<Rgb8>{{20, 20}}.bytes()));
    EXPECT_TRUE(fill(sheet, Text{.words = "a", .at = {1e9, -1e9}}, colors::red).empty());
    // Letters with marks behind them are the composed ones.
    EXPECT_EQ(pixels_of(Text{.words = "A\u030angstro\u0308m", .height = 12}),
              pixels_of(Text{.words = "Ångström", .height = 12}));
}

// As many as there may be, in all that goes along them more than once.
TEST(Texts, ManyLettersTakeTheirTimeOnce) {
    std::string many;
    for (int i = 0; i < 30'000; ++i) many += i % 7 == 6 ? ' ' : static_cast<char>('a' + i % 26);
    const Text row{.words = many, .height = 10};
    auto cut = row;
    cut.fit = TextFit{.box = {300, 20}, .by = Overflow::cut};
    EXPECT_GT(lay_out(cut).left_out, 29'000U);
    EXPECT_LE(lay_out(cut).box.size.width, 300);
    auto justified = row;
    justified.wrap = 100'000;
    justified.lines = TextLines::justified;
    EXPECT_EQ(lay_out(justified).lines.front().box.size.width, 100'000);
    auto small = row;
    small.height = 16'000;
    small.fit = TextFit{.box = {210'000, 9}};
    EXPECT_EQ(lay_out(small).height, 9);
    Bitmap<Gray8> sheet{{200, 40}};
    auto at_one_place = row;
    at_one_place.words = many.substr(0, 1000);
    at_one_place.letter_spacing = -30;
    EXPECT_FALSE(fill(sheet, at_one_place, Edge::smooth, colors::white).empty());
    // So many that overlap, one after the other, that they reach over millions of columns.
    const std::size_t count = is_sanitized ? 15'000 : 75'000;
    const Text chain{.words = std::string(count, 'x'), .at = {0, 0}, .height = 90, .letter_spacing = -20};
    EXPECT_GT(bounds(chain).size.width, static_cast<int>(count) * 29);
}

}  // namespace
