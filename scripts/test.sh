#!/usr/bin/env bash
# Builds and runs all the tests: the release with GCC; then, with the same compiled tests, the library and the tool with
# Clang and its sanitizers, and the fuzz targets. Checks the formatting, and runs clang-tidy on sources of the last
# commit; scripts/lint.sh checks all. Installs what is missing (apt-get).
set -euo pipefail
cd "$(dirname "$0")/.."
. scripts/packages.sh
install_missing "${build_packages[@]}" libgtest-dev libbenchmark-dev zlib1g-dev libjpeg-turbo-progs pngcheck python3 libeigen3-dev libharfbuzz-bin fonts-dejavu-core fonts-noto-core fonts-cantarell fonts-inter-variable ffmpeg chromium chromium-driver tmux pandoc xvfb libxcb1-dev libxcb-shm0-dev clang libclang-rt-14-dev clang-format clang-tidy valgrind

find include src tool examples tests bench fuzz -name '*.[hc]pp' -print0 | xargs -0 clang-format --dry-run --Werror
echo "Formatting: as .clang-format says"

build_and_test() {
    local preset=$1
    shift
    [ -f "build/$preset/build.ninja" ] || cmake --preset "$preset" "$@" >/dev/null
    cmake --build "build/$preset"
    ctest --preset "$preset" -j "$(($(nproc) + 1))"  # some tests wait for a browser or a clock
}
build_and_test release -DCMAKE_CXX_COMPILER=g++
build_and_test sanitize -DCMAKE_CXX_FLAGS_DEBUG=-O1 -DCOLDBRICK_EXAMPLES=OFF "-DCOLDBRICK_TESTS_OF=$PWD/build/release"

# The largest number of sources for which this takes a minute.
most=12
mapfile -t changed < <(git diff --name-only --diff-filter=d HEAD~1 -- 'src/*.cpp' 'tool/*.cpp' 2>/dev/null | head -n "$most")
if [ "${#changed[@]}" -gt 0 ]; then
    [ -f build/tidy/build.ninja ] || cmake --preset tidy >/dev/null
    printf '%s\0' "${changed[@]}" | xargs -0 -n 1 -P "$(nproc)" clang-tidy -p build/tidy --quiet
    echo "clang-tidy: nothing to say about ${changed[*]}"
fi
