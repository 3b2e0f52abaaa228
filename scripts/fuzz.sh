#!/usr/bin/env bash
# Builds the fuzz targets and runs each for a while: scripts/fuzz.sh [SECONDS [TARGET...]], usually ten minutes each of png,
# jpeg, pnm, pam, bmp, qoi, gif, webp, frames, table, font, scene, path, calls, threads, budget, roundtrip, request and rows. They begin
# with fuzz/corpus, or with pictures that the tool draws; what is found interesting is kept in build/fuzz/found and goes on from there
# next time. Inputs have up to a megabyte; one that takes longer than two seconds, or more than 512 MB, is a finding. Where
# scripts/fuzz_libraries.sh has been run, the libraries that read files are instrumented too.
# Installs what is missing (apt-get).
set -euo pipefail
cd "$(dirname "$0")/.."
. scripts/packages.sh
install_missing "${build_packages[@]}" libgtest-dev zlib1g-dev clang libclang-rt-14-dev libharfbuzz-bin fonts-dejavu-core fonts-noto-core \
    fonts-cantarell fonts-inter-variable

seconds=${1:-600}
shift || true
[ $# -gt 0 ] || set -- png jpeg pnm pam bmp qoi gif webp frames table font scene path calls threads budget roundtrip request rows
build=build/fuzz
if [ -d build/fuzz-libraries/lib ]; then
    build=build/fuzz-instrumented
    export PKG_CONFIG_PATH="$PWD/build/fuzz-libraries/lib/pkgconfig" CMAKE_PREFIX_PATH="$PWD/build/fuzz-libraries"
fi
[ -f "$build/build.ninja" ] || cmake --preset sanitize -B "$build" -DCOLDBRICK_BENCH=OFF -DCOLDBRICK_EXAMPLES=OFF -DCOLDBRICK_UNOPTIMIZED=-O1 >/dev/null
cmake --build "$build" --target coldbrick_tool $(printf 'fuzz_%s ' "$@")
cmake -DTOOL="$build/tool/coldbrick" -DSEEDS="$PWD/$build/fuzz/seeds" -P fuzz/seeds.cmake
for target in "$@"; do
    seeds="$build/fuzz/seeds/$target"
    [ -d "fuzz/corpus/$target" ] && seeds="fuzz/corpus/$target"
    mkdir -p "$build/found/$target"
    echo "fuzzing $target for $seconds s"
    "$build/fuzz/fuzz_$target" -max_total_time="$seconds" -max_len=1048576 -timeout=2 -rss_limit_mb=2048 -malloc_limit_mb=512 -print_final_stats=1 -verbosity=0 \
        -print_funcs=0 -artifact_prefix="$build/found/" "$build/found/$target" "$seeds"
done
