#!/usr/bin/env bash
# Builds the fuzz targets and runs each for a while: scripts/fuzz.sh [SECONDS [READER...]], usually a minute each of png,
# jpeg, pnm, pam, bmp and qoi. What was found interesting is kept in build/fuzz/found and goes on from there next time.
# Installs what is missing (apt-get).
set -euo pipefail
cd "$(dirname "$0")/.."
. scripts/packages.sh
install_missing "${build_packages[@]}" libgtest-dev zlib1g-dev clang libclang-rt-14-dev

seconds=${1:-60}
shift || true
[ $# -gt 0 ] || set -- png jpeg pnm pam bmp qoi
build=build/fuzz
[ -f "$build/build.ninja" ] || cmake -S . -B "$build" -G Ninja -DCMAKE_BUILD_TYPE=Debug -DCMAKE_CXX_COMPILER=clang++ \
    -DCOLDBRICK_SANITIZE=ON -DCOLDBRICK_FUZZ=ON -DCOLDBRICK_EXAMPLES=OFF "-DCMAKE_CXX_FLAGS_DEBUG=-O1 -g1" >/dev/null
cmake --build "$build" --target coldbrick_tool $(printf 'fuzz_%s ' "$@")
cmake -DTOOL="$build/tool/coldbrick" -DSEEDS="$PWD/$build/fuzz/seeds" -P fuzz/seeds.cmake
for reader in "$@"; do
    mkdir -p "$build/found/$reader"
    echo "fuzzing the reader of $reader for $seconds s"
    "$build/fuzz/fuzz_$reader" -max_total_time="$seconds" -max_len=65536 -print_final_stats=1 -verbosity=0 -print_funcs=0 \
        -artifact_prefix="$build/found/" "$build/found/$reader" "$build/fuzz/seeds/$reader"
done
