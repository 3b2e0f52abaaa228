#!/usr/bin/env bash
# Builds everything with Clang and clang-tidy, whose warnings are errors, all of them told: longer than the tests take. Installs what is
# missing (apt-get).
set -euo pipefail
cd "$(dirname "$0")/.."
. scripts/packages.sh
install_missing "${build_packages[@]}" libgtest-dev zlib1g-dev clang clang-tidy

build=build/lint
[ -f "$build/build.ninja" ] || cmake --preset tidy -B "$build" -DCMAKE_CXX_CLANG_TIDY=clang-tidy >/dev/null
cmake --build "$build" -- -k 0
