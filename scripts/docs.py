"""Writes the reference as static pages: out of docs/reference, with pictures that the tool draws from the examples.

docs.py TOOL PAGES OUT
"""
import html
import os
import re
import subprocess
import sys
import concurrent.futures

tool, pages, out = sys.argv[1:]
os.makedirs(f"{out}/pictures", exist_ok=True)
statements = sorted(name[:-3] for name in os.listdir(pages) if name.endswith(".md"))
calls = sorted(name[:-3] for name in os.listdir(f"{pages}/calls") if name.endswith(".md"))
STYLE = """
:root { --paper: #f4f2ec; --sheet: #fffdf8; --ink: #1d2b36; --faint: #5a6873; --edge: #c9c4b8; --accent: #0f5f8f; color-scheme: light dark; }
@media (prefers-color-scheme: dark) { :root { --paper: #141b21; --sheet: #1a232b; --ink: #dde4ea; --faint: #9aa8b3; --edge: #37444f; --accent: #6cc0ee; } }
body { margin: 0 auto; max-width: 1120px; padding: 12px 20px 40px; background: var(--paper); color: var(--ink); font: 15px/1.5 "Noto Sans", "DejaVu Sans", system-ui, sans-serif; }
a { color: var(--accent); } h1 { font-size: 26px; margin: 12px 0 4px; } h2 { font-size: 19px; margin: 28px 0 8px; }
pre code { white-space: pre; } col { width: auto !important; }
pre { background: var(--sheet); border: 1px solid var(--edge); border-radius: 4px; padding: 8px 12px; overflow-x: auto; font: 13px/1.5 "DejaVu Sans Mono", monospace; }
img { image-rendering: pixelated; max-width: 100%; height: auto; } table { border-collapse: collapse; width: 100%; font-size: 14px; }
th, td { border-bottom: 1px solid var(--edge); padding: 4px 8px; text-align: left; vertical-align: top; } td:nth-child(-n+3) { font-family: "DejaVu Sans Mono", monospace; font-size: 13px; }
.beside { display: grid; grid-template-columns: repeat(auto-fit, minmax(420px, 1fr)); gap: 14px; align-items: start; } .beside h3 { margin: 0; font-size: 14px; color: var(--faint); }
.gallery { display: grid; grid-template-columns: repeat(auto-fill, minmax(200px, 1fr)); gap: 14px; padding: 0; list-style: none; }
.gallery a { display: block; background: var(--sheet); border: 1px solid var(--edge); border-radius: 4px; padding: 8px; text-decoration: none; }
.gallery img { width: 100%; } .gallery b { display: block; } .gallery span { color: var(--ink); font-size: 13px; } .scroll { overflow-x: auto; }
"""


def read(name):
    with open(f"{pages}/{name}.md" if name in statements else f"{pages}/calls/{name}.md", encoding="utf-8") as file:
        return file.read()


def draw(job):
    name, only = job
    subprocess.run([tool, "words", name, "-o", f"{out}/pictures/{name}-{only}.png", "--only", only], check=True, stdout=subprocess.DEVNULL)


def code(kind, text):
    return f"<pre><code>{html.escape(text.rstrip())}</code></pre>"


def block(kind, text):
    """The first block of a kind, and the text without it."""
    found = re.search(rf"```{kind}\n(.*?)```\n", text, re.S)
    return (found.group(1), text[:found.start()] + text[found.end():]) if found else ("", text)


def page_of(name):
    """A page as Markdown with HTML in it, for pandoc."""
    text = read(name)
    scene, text = block("brick", text)
    cpp, text = block("cpp", text)
    title, _, rest = text.partition("\n\n")
    what, _, rest = rest.partition("\n\n")
    beside = f'<p><img src="pictures/{name}-scene.png" alt="What these lines draw" width="384" height="256"></p>'
    beside += '<div class="beside">' + (f'<div><h3>Scene</h3>{code("brick", scene)}</div>' if scene else "")
    beside += f'<div><h3>C++</h3>{code("cpp", cpp)}</div></div>' if cpp else "</div>"
    shown = ""
    for row in re.findall(r"^\| (?!word \|)(.*) \|$", rest, re.M):
        cells = [cell.strip() for cell in row.split("|")]
        if len(cells) == 8 and cells[6]:
            shown += f'\n<div class="scroll"><img src="pictures/{name}-{cells[0]}.png" alt="{cells[0]}: {html.escape(cells[6])}"></div>\n'
    # The values that are tried are seen, and need no column.
    rest = re.sub(r"^\|(.*)\|$", lambda row: "|" + "|".join(cell for i, cell in enumerate(row.group(1).split("|")) if i != 6) + "|", rest, flags=re.M) if scene else rest
    if shown:
        rest = rest.replace("## Goes wrong", f"## What they change\n{shown}\n## Goes wrong")
    rest = re.sub(r"```brick fault\n", "```\n", rest)
    return f"[All words](index.html)\n\n{title}\n\n{what}\n\n{beside}\n\n{rest}"


def write(name, title, markdown):
    with open(f"{out}/style.css", "w", encoding="utf-8") as file:
        file.write(STYLE)
    subprocess.run(["pandoc", "--from", "markdown-yaml_metadata_block-auto_identifiers-smart", "--to", "html5", "--standalone", "--no-highlight", "--css", "style.css",
                    "--metadata", f"pagetitle={title}", "--output", f"{out}/{name}.html"], input=markdown.encode(), check=True)


names = statements + calls
jobs = [(name, "scene") for name in names]
for name in names:
    for row in re.findall(r"^\| (?!word \|)(.*) \|$", read(name), re.M):
        cells = [cell.strip() for cell in row.split("|")]
        if len(cells) == 8 and cells[6]:
            jobs.append((name, cells[0]))
with concurrent.futures.ThreadPoolExecutor() as workers:
    list(workers.map(draw, jobs))
    list(workers.map(lambda name: write(name, f"{name} - Cold Brick", page_of(name)), names))
gallery = ""
for name in names:
    if name == calls[0]:
        gallery += '</ul>\n\n## Calls of the library that are no statements\n\n<ul class="gallery">\n'
    what = read(name).split("\n\n")[1].partition(". ")[0].rstrip(".:")
    gallery += f'<li><a href="{name}.html"><img src="pictures/{name}-scene.png" alt="" width="384" height="256"><b>{name}</b><span>{html.escape(what)}</span></a></li>\n'
write("index", "Cold Brick: the words of scenes", f'# The words of scenes, in pictures\n\nEach picture is drawn from the lines on its page; in C++ the same words are names of types and fields.\n\n<ul class="gallery">\n{gallery}</ul>\n')
os.makedirs(f"{out}/files", exist_ok=True)
for name in os.listdir(f"{pages}/files"):
    with open(f"{pages}/files/{name}", "rb") as source, open(f"{out}/files/{name}", "wb") as copy:
        copy.write(source.read())
missing = [link for page in os.listdir(out) if page.endswith(".html") for link in re.findall(r'(?:src|href)="([^":#]+)"', open(f"{out}/{page}", encoding="utf-8").read())
           if not os.path.exists(f"{out}/{link}")]
if missing:
    sys.exit(f"{out}: there is nothing at {sorted(set(missing))}")
print(f"{out}/index.html: {len(names)} pages, {len(jobs)} pictures")
