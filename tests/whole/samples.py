"""Compiles the code on the first screens of the public headers and in the documents.

samples.py COMPILER INCLUDE_DIR SOURCE_DIR WORK_DIR. Each sample becomes a function; what it takes for granted (a chart, a
picture, some shapes) is declared around it. Headers are compiled with nothing but themselves and coldbrick.hpp.
"""
import pathlib
import re
import subprocess
import sys

compiler, include, source, work = sys.argv[1:5]

PRELUDE = """
#include <coldbrick/coldbrick.hpp>
#include <algorithm>
#include <iostream>
using namespace coldbrick;
using namespace coldbrick::literals;
using colors::coral, colors::gold, colors::magenta, colors::navy, colors::seagreen, colors::teal, colors::white;
template <class... Values> void use(const Values&...) {}
struct Given {
    Bitmap<Rgb8> chart{{720, 450}}, board{{720, 450}}, page{{720, 450}}, photo{{300, 200}}, before{{9, 9}}, after{{9, 9}};
    Bitmap<Rgba8> stamp{{30, 20}}, sprites{{64, 32}}, dots{{4, 4}};
    Bitmap<Index8> display{{128, 96}};
    void* memory = nullptr;
    void* camera = nullptr;
    std::vector<std::uint8_t> bytes;
    Circle moon{.center = {236, 148}, .radius = 34}, lamp = moon, dial = moon;
    Polygon shoal{{410, 366}, {474, 366}, {442, 212}}, star_shape = shoal;
    Box sky{{0, 0}, {9, 9}}, water = sky, sand = sky, frame_box = sky, mask = sky, clip = sky, box = sky, sheet = sky;
    Line mast{.from = {1, 1}, .to = {9, 90}}, leading_line = mast;
    Color slate = colors::slategray;
    Stroke pen{.width = 3};
    std::vector<float> floats;
    std::size_t count = 0;
    std::vector<Color> inks;
    int sum = 0;
};
"""
NAMES = ("chart board page photo before after stamp sprites dots display memory camera bytes moon lamp dial shoal sky water sand "
         "mask clip box sheet mast leading_line slate pen floats count inks sum").split()
# Shapes with names that samples give to other things too.
EXTRA = {"star": "star_shape", "frame": "frame_box", "wave": "mast", "waves": "sky", "area": "moon"}


def declared(name, body):
    """Whether a sample declares a name itself."""
    return re.search(r"\b(auto|Color|Box|Region|Path|Bitmap<\w+>|Pixels<\w+>|SmoothRegion|vector<[\w:]+>)&?\s+" + name +
                     r"\s*[={(;]", body) is not None


def function(number, body):
    lines = [f"void sample_{number}(Given& given) {{"]
    for name in NAMES:
        if re.search(rf"\b{name}\b", body) and not declared(name, body):
            lines.append(f"    auto& {name} = given.{name};")
    for name, what in EXTRA.items():
        if re.search(rf"(?<!:)\b{name}\b(?!\s*\(|\()", body) and not declared(name, body):
            lines.append(f"    auto& {name} = given.{what};")
    return "\n".join(lines) + "\n{\n" + body + "\n}\n}\n"


def as_statements(body):
    """Samples that are lists of values become uses of them."""
    code = re.sub(r"//[^\n]*", "", body)
    if ";" in code:
        return body
    values = [value for line in code.splitlines() for value in re.split(r"\s{2,}(?![\s{(])", line.strip()) if value]
    return "\n".join(f"use({value});" for value in values)


def header_samples(path):
    sample = []
    for line in path.read_text().splitlines():
        if not line.startswith("//"):
            break
        if line.startswith("//     "):
            sample.append(line[7:])
    return "\n".join(sample)


def document_samples(path):
    return re.findall(r"```cpp\n(.*?)```", path.read_text(), re.S)


samples = [(path.name, header_samples(path)) for path in sorted(pathlib.Path(include, "coldbrick").glob("*.hpp"))]
for document in [pathlib.Path(source, "README.md"), *sorted(pathlib.Path(source, "docs").glob("*.md"))]:
    samples += [(document.name, text) for text in document_samples(document)]
samples = [(name, text) for name, text in samples if text.strip()]
assert len(samples) > 25, samples

# Those with a main() are programs of their own, and all others functions of one.
programs = {}
functions = [PRELUDE]
for number, (name, text) in enumerate(samples):
    if "int main()" in text:
        programs[f"program_{number}.cpp"] = f'#line 1 "{name}"\n{text}\n'
        continue
    types = ""
    if "struct " in text:
        text, types = text.split("struct ", 1)
        types = "struct " + types
    functions.append(f'#line 1 "{name}"\n{types}\n' + function(number, as_statements(text)))
programs["functions.cpp"] = "\n".join(functions)

failed = False
for file, code in programs.items():
    path = pathlib.Path(work, file)
    path.write_text(code)
    result = subprocess.run([compiler, "-std=c++20", "-fsyntax-only", "-I", include, str(path)], capture_output=True, text=True)
    failed = failed or result.returncode != 0
    print(result.stderr)
print(f"{len(samples)} samples" + (", of which some do not compile" if failed else ", all of which compile"))
sys.exit(1 if failed else 0)
