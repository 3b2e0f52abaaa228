#!/usr/bin/env bash
# Counts the instructions of some calls, by valgrind's callgrind, and prints for each "count  name", a call each. With
# --keep, the counts are kept in bench/counts.txt; with --check PROGRAM, they are compared with those kept, and it fails
# when one is greater by over a tenth. They depend on the compiler: those kept are of GCC 12, -O3, on x86-64. Installs
# what is missing (apt-get).
set -euo pipefail
cd "$(dirname "$0")/.."

if [ "${1:-}" = --check ]; then
    program=$2
else
    . scripts/packages.sh
    install_missing "${build_packages[@]}" libbenchmark-dev valgrind >&2
    build=build/counts
    [ -f "$build/build.ninja" ] || cmake --preset release -B "$build" -DCOLDBRICK_BENCH=ON \
        -DCOLDBRICK_TESTS=OFF -DCOLDBRICK_EXAMPLES=OFF -DCOLDBRICK_TOOL=OFF >/dev/null
    cmake --build "$build" --target coldbrick_counts >&2
    program=$build/bench/coldbrick_counts
fi

folder=$(mktemp -d)
trap 'rm -rf "$folder"' EXIT
# The vectors that every processor has, so that the counts are the same on all.
COLDBRICK_VECTORS=portable valgrind --tool=callgrind --callgrind-out-file="$folder/counts" "$program" >"$folder/log" 2>&1 || {
    cat "$folder/log" >&2
    exit 1
}
python3 - "$folder" "${1:-}" <<'END'
import pathlib
import sys

folder, mode = pathlib.Path(sys.argv[1]), sys.argv[2]
kept_file = pathlib.Path("bench/counts.txt")
TIMES = 1000
counts = {}
for path in sorted(folder.glob("counts.*"), key=lambda path: int(path.suffix[1:])):
    lines = path.read_text().splitlines()
    name = next((line.split("Client Request: ")[1] for line in lines if "Client Request: " in line), None)
    total = next((line for line in lines if line.startswith(("totals:", "summary:"))), None)
    if name and total:
        counts[name] = int(total.split()[1]) // TIMES
assert len(counts) > 10, "callgrind told nothing"
if mode == "--keep":
    kept_file.write_text("".join(f"{count:7}  {name}\n" for name, count in counts.items()))
kept = {}
for line in kept_file.read_text().splitlines() if kept_file.exists() else []:
    count, name = line.split(None, 1)
    kept[name] = int(count)
failed = False
for name, count in counts.items():
    told = f"{count:7}  {name}"
    if mode == "--check":
        allowed = kept.get(name)
        if allowed is None:
            told += ": not kept in bench/counts.txt"
            failed = True
        elif count > allowed * 1.1 + 2:
            told += f": over a tenth more than the {allowed} that are kept"
            failed = True
    print(told)
if failed:
    sys.exit("scripts/count.sh --keep keeps new counts, where more instructions are worth it")
END
