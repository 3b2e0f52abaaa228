// coldbrick/text.hpp - words as a shape.
//
//     fill  (board, Text{.words = "BERTH 4", .at = {44, 306}, .height = 18}, colors::white);
//     Text heading{.words = "Tarn Quay", .at = {360, 60}, .anchor = TextAnchor::baseline_center, .height = 40};
//     fill  (board, heading, Edge::smooth, gold);                       // any ink
//     stroke(board, heading, {.width = 3, .edge = Edge::smooth}, navy); // hollow
//     Region letters{heading};                                          // united, cut, clipped by
//     Box    pixels = bounds(filled(heading, {.edge = Edge::smooth}));  // before anything is drawn
//     auto   layout = measure(heading);                                 // lines, baselines, carets
//
// `height` is that of the capitals: a crisp H of height 18 has 18 rows. The layout box of a text reaches from the top
// of the capitals of its first line to the baseline of its last one, and is as wide as its longest line; accents and
// descenders hang out of it. `at` is the pixel at one of its nine points, or at one of three on the first baseline:
// letters that stand on the line have their lowest pixels in the row of `at`.
#pragma once

#include "coldbrick/angle.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/face.hpp"
#include "coldbrick/geometry.hpp"
#include "coldbrick/lettering.hpp"
#include "coldbrick/shapes.hpp"
#include "coldbrick/spans.hpp"

#include <cstddef>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// Which point of a text `at` is: the nine of Anchor, and the left end, the middle and the right end of the first
// baseline.
enum class TextAnchor {
    top_left,
    top,
    top_right,
    left,
    center,
    right,
    bottom_left,
    bottom,
    bottom_right,
    baseline,
    baseline_center,
    baseline_right
};

// How lines of different lengths lie below each other. justified: all but the last of a paragraph as long as the
// longest, or as wide as the wrap; the spaces between words grow.
enum class TextLines { left, center, right, justified };

// The direction of a paragraph. by_words: as its first letter that has a direction (rules P2 and P3 of the Unicode
// Bidirectional Algorithm, UAX 9). Words of the other direction in it keep their own direction.
enum class TextDirection { by_words, left_to_right, right_to_left };

// What is done with a text that is larger than a box. shrink: its height becomes smaller, in whole pixels, down to the
// least height of its face. cut: letters that have no room are left out, and an ellipsis says so.
enum class Overflow { shrink, cut };

struct TextFit {
    Size box;
    Overflow by = Overflow::shrink;
    friend bool operator==(const TextFit&, const TextFit&) = default;
};

// Where words go along a path: the baseline follows it.
struct TextPath {
    // From where on, and towards where, the letters are laid.
    enum class Place { start, center, end };
    // left: the letters stand on the path, as seen in its direction. right: they hang on its other side.
    enum class Side { left, right };

    Path path;
    Place place = Place::start;
    Side side = Side::left;
    double offset = 0;  // by how many pixels further along

    // A line, an arc from where its sweep begins, or a circle, clockwise from its leftmost point.
    static TextPath along(const subpixel::Line& line);
    static TextPath along(const subpixel::Arc& arc);
    static TextPath along(const subpixel::Circle& circle);

    friend bool operator==(const TextPath&, const TextPath&) = default;
};

struct Text {
    std::string words = {};  // UTF-8, up to 262,144 characters; line feeds end lines
    AnyPosition at = {};
    TextAnchor anchor = TextAnchor::top_left;
    Face face = {};
    double height = 12;  // of the capitals, in pixels: 1 to 16384
    // The size of the type in place of the height: of a font file its em square, of the built-in faces 4/3 of the
    // capitals.
    std::optional<double> em = std::nullopt;
    // The breadth of the pen, of faces that have one. Left out: a ninth of the height, in whole pixels.
    std::optional<double> weight = std::nullopt;
    Angle slant = {};           // -60 to 60 degrees; to the right where it is above 0
    double letter_spacing = 0;  // pixels more between letters
    double line_spacing = 1;    // of what the face has from line to line
    TextLines lines = TextLines::left;
    TextDirection direction = TextDirection::by_words;
    // The language of the words as a tag of BCP 47 ("sr", "tr"), for fonts with letters of their own for it. Empty:
    // none.
    std::string language = {};
    std::optional<double> wrap = std::nullopt;  // lines are broken to be at most that wide
    std::optional<TextFit> fit = std::nullopt;
    std::optional<TextPath> along = std::nullopt;  // then `at`, `anchor`, `lines`, `wrap` and `fit` play no part

    friend bool operator==(const Text&, const Text&) = default;
};

// Reports the pixels of a text, filled and moved, where its letters are drawn one by one, and kept: those up to 96
// pixels high. With smooth edges they begin at quarters of a pixel, down and across, wherever the text is moved to.
// Returns whether they are.
bool scan_ready(const Text& text, const Fill& how, Position moved, const Box& clip, const detail::SpanSink& sink,
                Box& touched);

// How a text lies, in pixels.
struct TextLayout {
    struct Line {
        std::size_t begin = 0;  // bytes of the words
        std::size_t end = 0;
        subpixel::Box box;    // from the top of the capitals to the baseline, as wide as the line
        double baseline = 0;  // the row on which letters stand
        // Where a caret stands before each character, and after the last one: places on the baseline. Of letters that
        // are drawn as one, the carets stand in equal distances in it.
        std::vector<Position> carets = {};
    };
    Box pixels;         // around what filling it crisp touches: bounds(text)
    subpixel::Box box;  // the layout box
    std::vector<Line> lines;
    double height = 0;         // that of the capitals, after shrinking
    double weight = 0;         // of the pen; 0: there is none
    std::size_t left_out = 0;  // characters that were cut, or had no room on the path
    bool is_over = false;      // whether it is larger than the box that it was to fit even so
};

// All throw Error for what a text may not be: words that are no UTF-8 (with the position of the first wrong byte), a
// height, breadth, spacing or slant that is not allowed, a height that the face does not have, a wrap in which not a
// single letter has room.
[[nodiscard]] TextLayout measure(const Text& text);

// The same without its pixels, which take the most time.
[[nodiscard]] TextLayout lay_out(const Text& text);

// A drawing of a face, and where it comes to lie: its origin, the left end of its own baseline.
struct PlacedGlyph {
    Face face;
    std::uint32_t number = 0;  // of the font's; of the built-in faces, the character
    Position origin;
    std::size_t at = 0;  // the byte of the words where the first of the characters begins that it stands for
};

// The glyphs of a text in the order in which they are drawn: line by line, from left to right.
[[nodiscard]] std::vector<PlacedGlyph> glyphs(const Text& text);

// The characters that neither its face nor those to fall back on have a drawing of, each once, in the order in which
// they come.
[[nodiscard]] std::vector<char32_t> missing(const Text& text);

// What makes it a shape: outlines and pen lines, as they come to lie. The lines of a face that has a pen can so be
// stroked by others, dashed, or engraved.
[[nodiscard]] Lettering lettering(const Text& text);

}  // namespace v0
}  // namespace coldbrick
