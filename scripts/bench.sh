#!/usr/bin/env bash
# Builds the release and runs the benchmarks; their table goes to standard output, with --json as a list of objects. Other
# arguments go to the benchmark program, such as --benchmark_filter=star. Installs what is missing (apt-get).
set -euo pipefail
cd "$(dirname "$0")/.."
. scripts/packages.sh
install_missing "${build_packages[@]}" libbenchmark-dev >&2

build=build/bench
[ -f "$build/build.ninja" ] || cmake --preset release -B "$build" -DCOLDBRICK_BENCH=ON \
    -DCOLDBRICK_TESTS=OFF -DCOLDBRICK_EXAMPLES=OFF -DCOLDBRICK_TOOL=OFF >/dev/null
cmake --build "$build" >&2
[ "${1:-}" != --costs ] || exec "$build/bench/coldbrick_costs" "$2"  # scripts/costs.sh
exec "$build/bench/coldbrick_bench" --benchmark_min_time=0.4 "$@"
