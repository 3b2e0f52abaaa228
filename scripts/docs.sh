#!/usr/bin/env bash
# Writes the reference as static pages into out/docs: builds the release, draws the pictures from the examples of
# docs/reference, and makes the pages with pandoc. Installs what is missing (apt-get).
set -euo pipefail
cd "$(dirname "$0")/.."
. scripts/packages.sh
install_missing "${build_packages[@]}" python3 pandoc

build=build/demo
[ -f "$build/build.ninja" ] || cmake --preset release -B "$build" -DCOLDBRICK_TESTS=OFF >/dev/null
cmake --build "$build" --target coldbrick_tool >/dev/null
python3 scripts/docs.py "$build/tool/coldbrick" docs/reference out/docs
