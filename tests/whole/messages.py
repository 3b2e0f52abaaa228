"""Compiles what must not compile, and reads what the compiler says.

messages.py COMPILER INCLUDE_DIR. Of each mistake, the compiler's first error is its sentence, and little else is said.
"""
import os
import re
import subprocess
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor

compiler, include = sys.argv[1:3]

FUNCTION = """
using namespace coldbrick;
using namespace coldbrick::literals;
void mistake(Bitmap<Rgb8>& chart, const Bitmap<Rgb8>& kept, Pixels<const Rgb8> view, Drawing& plan) {
    const auto gold = 0xe8b23a_rgb;
    const Circle moon{.center = {20, 20}, .radius = 9};
    const Line mast{.from = {1, 1}, .to = {9, 90}};
    const std::vector<Point> points{{1, 1}, {9, 2}, {5, 9}};
    (void)gold, (void)moon, (void)mast, (void)points, (void)chart, (void)kept, (void)view, (void)plan;
"""
NO_INSIDE = "a line, polyline or arc has no inside: stroke it, or take a stroked() one as an area"
READ_ONLY = "a const Bitmap, and a view of const pixels, can only be read: drawing needs one that can be written to"
NO_POLYGON = "a vector of points is no shape: Polygon{points} is one, or a VertexList"
NO_POLYLINE = "a vector of points is no shape: Polyline{.through = points} is one, or Polygon{points}"
NO_STROKE = "a stroke cannot be stroked: fill() paints a stroked() shape"
SAID_TWICE = "a filled() or stroked() area says itself how: fill it without saying it again"
NO_AREA = "an area is a shape that has an inside, a filled() or stroked() shape, one transformed(), or a Figure"
NO_SHAPE = "stroke() takes a shape, or a transformed() one"
NO_TARGET = "the target comes first"
ADDRESS = "the target is given by its address"
TEXT_INK = "a text is no ink: write colors::red, 0xff0000_rgb or parse_color("
NUMBER_INK = "a number is no ink: write 0xff0000_rgb"
FUNCTION_INK = "a function as ink takes the pixel as one Point"
NAMED_INK = "an ink is a colour, not its name or number"
NO_INK = "an ink is a colour such as colors::red or 0xff0000_rgb"
INK_LAST = "the ink comes last"
INK_MISSING = "an ink is missing"
NUMBER_PEN = "a number is no pen: write {.width = 3}"
TOO_MANY = "these are too many arguments"
GONE_BITMAP = "this bitmap is gone at the end of the line"
GONE_REGION = "this region is gone at the end of the line: give it a name first"
MISTAKES = [
    ("fill(chart, mast, gold);", NO_INSIDE),
    ("fill(chart, mast, Edge::smooth, gold);", NO_INSIDE),
    ("fill(plan, Arc{.of = moon, .sweep = {0_deg, 90_deg}}, {.edge = Edge::smooth}, gold);", NO_INSIDE),
    ("(void)bounds(mast);", NO_INSIDE),
    ("(void)contains(mast, Point{1, 1});", NO_INSIDE),
    ("fill(kept, moon, gold);", READ_ONLY),
    ("fill(view, moon, Edge::smooth, gold);", READ_ONLY),
    ("stroke(kept, mast, {.width = 3}, gold);", READ_ONLY),
    ("clear(view, gold);", READ_ONLY),
    ("mark(kept, Point{1, 1}, gold);", READ_ONLY),
    ("fill(chart, points, gold);", NO_POLYGON),
    ("fill(plan, points, {.rule = FillRule::nonzero}, gold);", NO_POLYGON),
    ("stroke(chart, points, {.width = 3}, gold);", NO_POLYLINE),
    ("stroke(chart, stroked(moon, {.width = 3}), gold);", NO_STROKE),
    ("stroke(plan, stroked(moon, {.width = 3}), {.width = 2}, gold);", NO_STROKE),
    ("fill(chart, stroked(moon, {.width = 3}), Edge::smooth, gold);", SAID_TWICE),
    ("fill(chart, 7, gold);", NO_AREA),
    ("stroke(chart, 7, gold);", NO_SHAPE),
    ("fill(moon, chart, gold);", NO_TARGET),
    ("stroke(moon, chart, {.width = 3}, gold);", NO_TARGET),
    ("fill(&chart, moon, gold);", ADDRESS),
    ("stroke(&chart, mast, {.width = 3}, gold);", ADDRESS),
    ("fill(chart, gold, moon);", INK_LAST),
    ("fill(chart, moon, gold, {.edge = Edge::smooth});", INK_LAST),
    ("stroke(chart, mast, gold, Stroke{.width = 3});", INK_LAST),
    ("fill(chart, moon);", INK_MISSING),
    ("stroke(chart, mast);", INK_MISSING),
    ("stroke(chart, mast, {.width = 3});", INK_MISSING),
    ("fill(chart, gold);", "clear(chart, colour) sets all pixels"),
    ("fill(chart, moon, \"red\");", TEXT_INK),
    ("stroke(chart, mast, {.width = 3}, \"red\");", TEXT_INK),
    ("mark(chart, {3, 4}, \"red\");", TEXT_INK),
    ("fill(chart, moon, 0xff0000);", NUMBER_INK),
    ("stroke(chart, mast, Stroke{.width = 3}, 0xff0000);", NUMBER_INK),
    ("clear(chart, 0x102030);", NUMBER_INK),
    ("fill(chart, moon, {255, 0, 0});", "numbers in braces are no ink: write Color{255, 0, 0}"),
    ("fill(chart, moon, [](int x, int y) { return gray(static_cast<std::uint8_t>(x + y)); });", FUNCTION_INK),
    ("fill(chart, moon, nullptr);", NO_INK),
    ("fill(chart, moon, Ink{\"red\"});", NAMED_INK),
    ("stroke(chart, mast, 3, gold);", NUMBER_PEN),
    ("stroke(chart, mast, 3.5, gold);", NUMBER_PEN),
    ("fill(chart, 10, 20, 30, 40, gold);", TOO_MANY),
    ("stroke(chart, 10, 20, 30, 40, gold);", TOO_MANY),
    ("mark(chart, 3, 4, gold);", "a pixel is one argument: mark(chart, Point{3, 4}, ink)"),
    ("clear(chart);", "a colour is missing: clear(chart, colors::white)"),
    ("(void)with_alpha(gold, 0.5);", "alpha is a whole number from 0 to 255"),
    ("save(\"chart.png\", chart);", "the picture comes first: save(chart, "),
    ("auto loaded = load(\"chart.png\");", "a format is missing: load<Rgb8>("),
    # Views of what is gone.
    ("auto dangling = Bitmap<Rgb8>{3, 4}.pixels();", GONE_BITMAP),
    ("Pixels<Rgb8> dangling = Bitmap<Rgb8>{3, 4};", GONE_BITMAP),
    ("Pixels<const Rgb8> dangling = load<Rgb8>(\"chart.png\");", GONE_BITMAP),
    ("auto dangling = Bitmap<Rgb8>{3, 4}.within(Box{{0, 0}, {1, 1}});", GONE_BITMAP),
    ("auto dangling = channel(Bitmap<Rgb8>{3, 4}, Channels::red);", GONE_BITMAP),
    ("for (const auto& span : Region{moon}.spans()) (void)span;", GONE_REGION),
    ("for (const auto& span : Region{moon}.row(3)) (void)span;", GONE_REGION),
    ("for (const auto& part : SmoothRegion{moon}.parts()) (void)part;", GONE_REGION),
    ("for (const auto& step : Path{}.steps()) (void)step;", "this path is gone at the end of the line"),
    ("for (const auto& color : Palette{{gold}}.colors()) (void)color;", "this palette is gone at the end of the line"),
]
# In GNU C++ alone: others say of each call why it is not meant.
if "clang" not in compiler:
    MISTAKES.append(("stroke(chart, mast, {.widht = 3}, gold);", "the fields of a pen are width, align, cap"))
RIGHT = """
    using namespace std;
    vector<Color> colors_of_others(3);
    fill(colors_of_others.begin(), colors_of_others.end(), gold);
    fill(chart, moon, gold);
    fill(chart, transformed(moon, Transform{}), {.edge = Edge::smooth}, gold);
    stroke(plan, transformed(moon, Transform{}), {.width = 3}, gold);
    const Bitmap<Rgb8> face = crop(load<Rgb8>("chart.png"), Box{{1, 1}, {2, 2}});
    const int x = face.size().width;
    Text text{.words = "Quay", .at = {x, x + 10}};
    fill(chart, text, gold);
    const Bitmap<Rgb8> sheet{640, 480};
"""
MOST_LINES = 40


def run(code, header, standard="c++20"):
    """What the compiler says of a function with the code in it."""
    text = code if standard == "c++17" else FUNCTION + code + "\n}\n"
    return subprocess.run([compiler, f"-std={standard}", "-fsyntax-only", "-I", include, *header, "-x", "c++", "-"],
                          input=text, capture_output=True, text=True, check=False).stderr


def is_said(said, sentence):
    """Whether the first error says it, and hardly anything else is said."""
    errors = re.findall(r"error: (.*)", said)
    found = [error for error in errors if sentence in error.replace('" "', "").replace('\\"', '"')]
    is_first = errors and (errors[0] in found or "GNU-style designated" in errors[0])
    return is_first and len(found) == 1 and len(errors) <= 2 and said.count("\n") <= MOST_LINES


failed = 0
with tempfile.TemporaryDirectory() as folder:
    header = os.path.join(folder, "all.hpp")
    with open(header, "w", encoding="utf-8") as file:
        file.write("#include <coldbrick/coldbrick.hpp>\n")
    suffix = ".pch" if "clang" in compiler else ".gch"
    subprocess.run([compiler, "-std=c++20", "-I", include, "-x", "c++-header", header, "-o", header + suffix], check=True)
    read_once = ["-include", header]
    if run(RIGHT, read_once):
        print("what is right does not compile without a word:", run(RIGHT, read_once))
        failed += 1
    with ThreadPoolExecutor(max_workers=2) as compilers:
        all_said = list(compilers.map(lambda mistake: run(mistake[0], read_once), MISTAKES))
    for (code, sentence), said in zip(MISTAKES, all_said):
        if not is_said(said, sentence):
            print(f"{code}\n    wanted: {sentence}\n    said: {said}")
            failed += 1
    old = run("#include <coldbrick/draw.hpp>\n", [], "c++17")
    if old.count("error:") != 1 or "Cold Brick needs C++20: compile with -std=c++20" not in old:
        print("in C++17:", old[:2000])
        failed += 1
print(f"{len(MISTAKES)} mistakes, {failed} of them answered otherwise than they should be")
sys.exit(failed > 0)
