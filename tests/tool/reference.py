"""The pages of docs/reference, checked: every example is drawn, every default and range is true, every message is what is said, and
the C++ beside an example draws the same pixels.

reference.py TOOL PAGES WORK_FOLDER PROGRAM       checks
reference.py PAGES SOURCE                         writes the source of the program, which draws the C++ of all pages
"""
import json
import os
import re
import shutil
import subprocess
import sys



def parse(text):
    page = {"rows": [], "faults": [], "cpp": "", "scenes": []}
    for kind, code in re.findall(r"```(.*?)\n(.*?)```", text, re.S):
        if kind == "brick":
            page["scenes"].append(code)
        elif kind == "cpp":
            page["cpp"] = code
        elif kind == "brick fault":
            page["faults"].append([code, ""])
        elif kind == "text":
            page["faults"][-1][1] = code
    for line in text.splitlines():
        if line.startswith("| ") and not line.startswith("| word |"):
            page["rows"].append([cell.strip() for cell in line.strip().strip("|").split("|")])
    return page


def read(pages, name):
    with open(f"{pages}/{name}.md", encoding="utf-8") as file:
        return file.read()


def names_in(pages):
    return sorted(name[:-3] for name in os.listdir(pages) if name.endswith(".md"))


def faults_of(call):
    """C++ that is refused, and what is said."""
    return re.findall(r"```cpp fault\n(.*?)```\n```text\n(.*?)```", call, re.S)


def write_program(pages, source):
    text = "#include <coldbrick/coldbrick.hpp>\n#include <iostream>\nusing namespace coldbrick;\nusing namespace coldbrick::literals;\n"
    codes = {name: parse(read(pages, name))["cpp"] for name in names_in(pages)}
    for name, code in codes.items():
        if code:
            text += f"static Bitmap<Rgb8> draw_{name}() {{\n{code}return sheet;\n}}\n"
    text += "template <class Call> void tell(const char* name, const Call& call) {\n"
    text += "    try { call(); std::cout << name << \"\\tnothing\\n\"; } catch (const Error& error) { std::cout << name << '\\t' << error.what() << '\\n'; }\n}\n"
    text += "int main() {\n" + "".join(f'    save(draw_{name}(), "reference-{name}.ppm");\n' for name, code in codes.items() if code)
    for name in names_in(f"{pages}/calls"):
        text += f'    save([] {{\n{re.search(r"```cpp(.*?)```", read(pages + "/calls", name), re.S).group(1)}return sheet;\n}}(), "call-{name}.ppm");\n'
        for code, _ in faults_of(read(f"{pages}/calls", name)):
            text += f'    tell("{name}", [] {{\n{code}}});\n'
    text += "}\n"
    with open(source, "w", encoding="utf-8") as file:
        file.write(text)


if len(sys.argv) == 3:
    write_program(*sys.argv[1:])
    sys.exit(0)
tool, pages, folder, program = sys.argv[1:]
shutil.copytree(f"{pages}/files", folder, dirs_exist_ok=True)  # what examples read
HEAD = "sheet size 96,64 ink #0b2239\n"
wrong = []
counts = {"pages": 0, "defaults": 0, "ranges": 0, "choices": 0, "values": 0, "faults": 0, "programs": 0}


def draw(text):
    """The picture as PPM, or None; and what is said."""
    done = subprocess.run([tool, "render", "-", "-o", "-", "--kind", "ppm", "--quiet", "--frame", "0"], cwd=folder, input=text.encode(), capture_output=True)
    return (done.stdout if done.returncode == 0 else None), done.stderr.decode()


words = json.loads(subprocess.run([tool, "words", "--json"], capture_output=True, check=True).stdout)
takes = {}
for statement in words["statements"]:
    takes[statement["words"]] = {word for form in statement["forms"] for word in form["needed"] + form["optional"]}


def split(line):
    return re.findall(r'"[^"]*"|[^\s"]+', line)


def keywords_of(line):
    parts = split(line)
    for name in [" ".join(parts[:2]), f"{parts[0]} {parts[3]}" if len(parts) > 3 else "", parts[0] if parts else ""]:
        if name in takes:
            return takes[name]
    return set()


def with_value(scene, word, value, may_add=True):
    """The scene with a word's value replaced, or added to the first statement that takes the word and can be drawn with it."""
    if value == "without":
        return scene
    value = "" if value == "with" else value
    lines = scene.splitlines()
    for i, line in enumerate(lines):
        parts = split(line)
        if word not in parts[1:] or word not in keywords_of(line):
            continue
        begin = parts.index(word, 1)
        end = begin + {"nothing": 1, "one": 2, "several": 1}[words["keywords"][word]]
        while words["keywords"][word] == "several" and end < len(parts) and parts[end] not in words["keywords"]:
            end += 1
        changed = parts[:begin] + [word] + ([value] if value else []) + parts[end:]
        return "\n".join(lines[:i] + [line[:len(line) - len(line.lstrip())] + " ".join(changed)] + lines[i + 1:]) + "\n"
    if not may_add:
        return None
    for i, line in enumerate(lines):
        if i > 0 and word in keywords_of(line):
            text = "\n".join(lines[:i] + [f"{line} {word} {value}".rstrip()] + lines[i + 1:]) + "\n"
            if draw(text)[0] is not None:
                return text
    return None


def check(page, name, what, is_true):
    if not is_true:
        wrong.append(f"{page}: {name}: {what}")


def number(words_):
    a, _, b = words_.partition("/")
    return float(a) / float(b) if b else float(a)


def told_range(said):
    found = re.search(r"allowed is (\S+) to ([^\s;]+)", said)
    return found.groups() if found else None


def out_of(limit, by):
    return f"{number(limit) + by:.15g}"


def check_range(page, row, scenes):
    word, value, limits = row[0], row[1], re.fullmatch(r"(\S+) to (\S+)", row[4])
    if limits:
        pair = "," if value in ("X,Y", "RX,RY", "W,H") else ""
        counts["ranges"] += 1
        for limit, by in [(limits[1], -1), (limits[2], 1)]:
            far = out_of(limit, by)
            picture, said = refused(scenes, word, f"{far},{far}" if pair else far)
            check(page, word, f"{far} is allowed, or refused otherwise: {said}", picture is None and told_range(said) is not None)
            told = told_range(said)
            if told:
                check(page, word, f"the range is {told}, not {row[4]}", all(abs(number(a) - number(b)) <= 1e-9 * abs(number(b)) for a, b in zip(told, limits.groups())))
    elif row[4] != "any":
        for choice in row[4].split(", "):
            counts["choices"] += 1
            text = first(with_value(scene, word, choice) for scene in scenes)
            check(page, word, f"'{choice}' is not allowed", text is not None and draw(text)[0] is not None)
        picture, said = refused(scenes, word, "nonsense")
        check(page, word, f"nonsense is allowed: {said}", picture is None and "nonsense" in said)
        for choice in row[4].split(", "):
            check(page, word, f"'{choice}' is not told: {said}", choice in said)


def first(texts):
    return next((text for text in texts if text is not None), None)


def refused(scenes, word, value):
    """What is said of a value that is refused: in a statement that has the word, or in one that takes it, the best that can be had."""
    said = "nothing takes it"
    for scene in scenes:
        lines = scene.splitlines()
        texts = [with_value(scene, word, value, False)]
        texts += ["\n".join(lines[:i] + [f"{line} {word} {value}"] + lines[i + 1:]) + "\n" for i, line in enumerate(lines)
                  if i > 0 and word in keywords_of(line) and word not in split(line)]
        for text in filter(None, texts):
            picture, told = draw(text)
            if picture is not None:
                return picture, told
            said = told
            if told_range(told) or ("nonsense" in told and "does not belong" not in told):
                return None, told
    return None, said


def without_hint(said):
    """What is said of a scene's faults, without the names of pages behind."""
    return "\n".join(line for line in said.replace("standard input:", "scene.brick:").splitlines() if not line.startswith("'coldbrick words ")).rstrip()


def check_default(page, row, scenes):
    word, usual = row[0], row[5]
    if usual in ("needed", "none") or usual.startswith(("instead", "with ")):
        return
    counts["defaults"] += 1
    without = [re.sub(rf" {word} (\"[^\"]*\"|\S+)", "", scene) if with_value(scene, word, usual, False) else scene for scene in scenes]
    found = first((scene, text) if text else None for scene, text in ((scene, with_value(scene, word, usual)) for scene in without))
    check(page, word, f"the default is not {usual}", found is not None and draw(found[1])[0] == draw(found[0])[0])


programs = []
names = names_in(pages)
for name in names:
    text = read(pages, name)
    page = parse(text)
    counts["pages"] += 1
    check(name, "title", "another one", text.startswith(f"# {name}\n"))
    for scene in page["scenes"]:
        picture, said = draw(scene)
        check(name, "example", said, picture is not None and said == "")
    picture = draw(page["scenes"][0])[0]
    for row in page["rows"]:
        check(name, row[0], f"{len(row)} cells in its row", len(row) == 8)
        check_range(name, row, page["scenes"])
        check_default(name, row, page["scenes"])
        seen = set()
        for value in filter(None, row[6].split("; ")):
            counts["values"] += 1
            changed = with_value(page["scenes"][0], row[0], value)
            drawn = draw(changed)[0] if changed else None
            check(name, row[0], f"cannot be drawn with {value}", drawn is not None)
            seen.add(drawn)
        check(name, row[0], "its values make no difference", not row[6] or len(seen) > 1)
    for scene, message in page["faults"]:
        counts["faults"] += 1
        none, said = draw(HEAD + scene)
        check(name, scene, f"says otherwise:\n{said}", none is None and without_hint(said) == message.rstrip())
    if page["cpp"]:
        programs.append((name, page["cpp"], picture))

# Every verb and every shape has a page, and every word that a statement takes a row in it, or in those of 'fill' and 'stroke'.
check("all", "pages", sorted(set(words["verbs"] + words["shapes"]) ^ set(names)), set(words["verbs"] + words["shapes"]) == set(names))
rows = {name: {row[0] for row in parse(read(pages, name))["rows"]} for name in names}
for statement, keywords in takes.items():
    verb, _, shape = statement.partition(" ")
    known = rows[verb] | rows.get(shape, set()) | (rows["fill"] | rows["stroke"] if shape else set())
    check(statement, "words without a row", sorted(keywords - known), keywords <= known)

# The C++ of all pages.
told = subprocess.run([program], cwd=folder, check=True, capture_output=True, text=True).stdout.splitlines()
for name in names_in(f"{pages}/calls"):
    page = read(f"{pages}/calls", name)
    counts["pages"] += 1
    check(name, "title", "another one", page.startswith(f"# {name}\n"))
    for code, message in faults_of(page):
        counts["faults"] += 1
        check(name, code, f"says otherwise: {[line for line in told if line.startswith(name)]}", f"{name}\t{message.rstrip()}" in told)
    # The tool draws it from the same lines.
    subprocess.run([tool, "words", name, "-o", f"words-{name}.ppm", "--only", "scene"], cwd=folder, check=True, capture_output=True)
    with open(f"{folder}/call-{name}.ppm", "rb") as file:
        header, pixels = file.read().split(b"\n255\n", 1)
    with open(f"{folder}/words-{name}.ppm", "rb") as file:
        large, squares = file.read().split(b"\n255\n", 1)
    width = int(header.split()[1])
    row = b"".join(pixels[3 * x:3 * x + 3] * 4 for x in range(width))
    check(name, "picture", "is not that of the lines", squares.startswith(row) and large != header and len(set(pixels)) > 3)
    counts["programs"] += 1
for name, _, picture in programs:
    counts["programs"] += 1
    with open(f"{folder}/reference-{name}.ppm", "rb") as file:
        check(name, "C++", "draws other pixels than the scene", file.read() == picture)

print(counts)
for line in wrong:
    print(line)
sys.exit(1 if wrong else 0)
