"""In which sources one thing of each kind is named: the recipes of docs/architecture.md, and no more.

recipes.py SOURCE_DIR
"""
import pathlib
import re
import sys

root = pathlib.Path(sys.argv[1])
# What names it, and the sources that do.
RECIPES = {
    "a blend mode": (r"\bcolor_dodge\b", {"include/coldbrick/ink.hpp", "src/paint/blending/blend_arithmetic.hpp"}),
    "a packed pixel format": (r"[rR]gb555\b|rgb555_", {"include/coldbrick/formats.hpp", "src/formats/packed_formats.cpp"}),
    "a pixel format": (r"\brgba16_kernel\{|\bstruct Rgba16\b|\bBuiltIn<Rgba16>",
                       {"include/coldbrick/formats.hpp", "src/formats/rgba16.cpp"}),
    "a shape": (r"\bRing\b|\bBasicRing\b|\bread_ring\b",
                {"include/coldbrick/shapes.hpp", "include/coldbrick/fwd.hpp", "include/coldbrick/detail/area_ref.hpp",
                 "src/shapes/ring.cpp", "src/shapes/shape_scans.hpp", "src/shapes/shape_table.hpp",
                 "src/scene/read_shapes.hpp", "src/scene/read_shapes.cpp", "src/scene/figures.cpp"}),
    "a statement": (r"Verb::seed\b|\"seed\"|\brun_seed\b", {"src/scene/statements.hpp", "src/scene/sheet_statements.cpp"}),
    "a file format": (r"\b(?:read|write)_qoi\b|\bqoi_bands\b|\bqoi,",
                      {"include/coldbrick/file_format.hpp", "src/files/codecs.cpp", "src/files/readers.hpp",
                       "src/files/writers.hpp", "src/files/band_encoder.hpp", "src/files/read_qoi.cpp",
                       "src/files/write_qoi.cpp"}),
}

code = {}
for folder in ("include", "src", "tool"):
    for path in (root / folder).rglob("*.[hc]pp"):
        text = re.sub(r"//.*", "", path.read_text(encoding="utf-8"))
        code[str(path.relative_to(root))] = text
failed = False
for kind, (pattern, expected) in RECIPES.items():
    found = {path for path, text in code.items() if re.search(pattern, text)}
    if found != expected:
        failed = True
        print(f"{kind}: named besides in {sorted(found - expected)}, and not in {sorted(expected - found)}")
    else:
        print(f"{kind}: {len(expected)} sources")
sys.exit("the recipes of docs/architecture.md say otherwise" if failed else 0)
