"""Scenes in documents are drawn: each block of a document that is marked as one, without a fault or a remark.

scene_samples.py TOOL FOLDER_OF_FILES DOCUMENT...
"""
import re
import subprocess
import sys

tool, folder, *documents = sys.argv[1:]
count = 0
for document in documents:
    with open(document, encoding="utf-8") as file:
        text = file.read()
    for match in re.finditer(r"```brick\n(.*?)```", text, re.DOTALL):
        count += 1
        line = text[: match.start()].count("\n") + 2
        done = subprocess.run([tool, "render", "-"], input=match.group(1), text=True, capture_output=True, cwd=folder, check=False)
        if done.returncode != 0 or done.stderr:
            sys.exit(f"{document}:{line}: {done.stderr or done.returncode}")
if count == 0:
    sys.exit("no scene was found")
print(f"{count} scenes drawn")
