#!/usr/bin/env bash
# Builds and runs all the tests, twice: with Clang and its sanitizers, benchmarks and fuzz targets along, and the release
# with GCC.
# Checks the formatting; scripts/lint.sh checks more. Installs what is missing (apt-get).
set -euo pipefail
cd "$(dirname "$0")/.."
. scripts/packages.sh
install_missing "${build_packages[@]}" libgtest-dev libbenchmark-dev zlib1g-dev libjpeg-turbo-progs pngcheck python3 libeigen3-dev libharfbuzz-bin fonts-dejavu-core fonts-noto-core fonts-cantarell fonts-inter-variable ffmpeg chromium chromium-driver tmux pandoc xvfb libxcb1-dev libxcb-shm0-dev clang libclang-rt-14-dev clang-format valgrind

find include src tool examples tests bench fuzz -name '*.[hc]pp' -print0 | xargs -0 clang-format --dry-run --Werror
echo "Formatting: as .clang-format says"

test_build() {
    local build=$1
    shift
    [ -f "$build/build.ninja" ] || cmake -S . -B "$build" -G Ninja "$@" >/dev/null
    cmake --build "$build"
    ctest --test-dir "$build" --output-on-failure -j "$(nproc)"
}
test_build build/clang -DCMAKE_BUILD_TYPE=Debug -DCMAKE_CXX_COMPILER=clang++ -DCMAKE_C_COMPILER=clang \
    -DCOLDBRICK_SANITIZE=ON -DCMAKE_CXX_FLAGS_DEBUG=-O1 -DCOLDBRICK_FUZZ=ON -DCOLDBRICK_BENCH=ON -DCOLDBRICK_EXAMPLES=OFF -DCOLDBRICK_UNITY=ON
test_build build/gcc -DCMAKE_BUILD_TYPE=Release -DCMAKE_CXX_COMPILER=g++ -DCOLDBRICK_UNITY=ON
