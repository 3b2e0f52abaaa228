#!/usr/bin/env bash
# Measures what a pixel costs by the size of the shape, prints it, and draws the plot of docs/performance.md
# (docs/screenshots/cost-by-size.png). Installs what is missing (apt-get).
set -euo pipefail
cd "$(dirname "$0")/.."
. scripts/packages.sh
install_missing "${build_packages[@]}" libbenchmark-dev >&2

build=build/bench
[ -f "$build/build.ninja" ] || cmake -S . -B "$build" -G Ninja -DCMAKE_BUILD_TYPE=Release -DCOLDBRICK_BENCH=ON \
    -DCOLDBRICK_TESTS=OFF -DCOLDBRICK_EXAMPLES=OFF -DCOLDBRICK_TOOL=OFF >/dev/null
cmake --build "$build" --target coldbrick_costs >&2
exec "$build/bench/coldbrick_costs" docs/screenshots/cost-by-size.png
