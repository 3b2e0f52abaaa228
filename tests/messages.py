"""Compiles what must not compile, and reads what the compiler says.

messages.py COMPILER INCLUDE_DIR. Of each mistake, the compiler's errors have its sentence, and no more than that one comes
from our headers.
"""
import re
import subprocess
import sys
from concurrent.futures import ThreadPoolExecutor

compiler, include = sys.argv[1:3]

PRELUDE = """
#include <coldbrick/draw.hpp>
#include <coldbrick/drawing.hpp>
#include <vector>
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
SAID_TWICE = "a filled(), stroked() or transformed() area says itself how: fill it without saying it again"
NO_AREA = "an area is a shape that has an inside, a filled() or stroked() shape, one transformed(), or a Figure"
NO_SHAPE = "stroke() takes a shape as it is; one transformed() is filled as a stroked() one"
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
    ("stroke(chart, transformed(moon, Transform{}), gold);", NO_SHAPE),
]


def errors_of(code):
    text = PRELUDE + code + "\n}\n"
    run = subprocess.run([compiler, "-std=c++20", "-fsyntax-only", "-I", include, "-x", "c++", "-"], input=text,
                         capture_output=True, text=True, check=False)
    return re.findall(r"error: (.*)", run.stderr)


failed = 0
if errors_of("fill(chart, moon, gold);"):
    print("what is right does not compile")
    failed += 1
with ThreadPoolExecutor(max_workers=2) as compilers:
    all_errors = list(compilers.map(errors_of, [code for code, sentence in MISTAKES]))
for (code, sentence), errors in zip(MISTAKES, all_errors):
    said = [error for error in errors if sentence in error.replace('" "', "")]
    if len(said) != 1 or len(errors) > 1:
        print(f"{code}\n    wanted: {sentence}\n    said: {errors}")
        failed += 1
print(f"{len(MISTAKES)} mistakes, {failed} of them told otherwise than they should be")
sys.exit(failed > 0)
