#!/usr/bin/env bash
# Builds the release and draws the whole demo into out/. Installs what is missing (apt-get).
set -euo pipefail
cd "$(dirname "$0")/.."
. scripts/packages.sh
install_missing "${build_packages[@]}" libxcb1-dev libxcb-shm0-dev

build=build/demo
[ -f "$build/build.ninja" ] || cmake --preset release -B "$build" -DCOLDBRICK_TESTS=OFF >/dev/null
cmake --build "$build" | tail -n 1

mkdir -p out
render() { "$build/tool/coldbrick" render "$@"; }
render demo/scenes/berth-board.brick -o out/berth-board.png --scale 1,2
render demo/scenes/fairway-chart.brick -o out/fairway-chart.png --scale 1,2
render demo/scenes/tide-display.brick -o out/tide-display.png --scale 1,6
render demo/scenes/tide-clock.brick -o out/tide-clock.png --scale 1,6
render demo/scenes/sector-lights.brick -o out/sector-lights.png --scale 1,6
render demo/scenes/dusk.brick -o out/dusk.png --scale 1,6
render demo/scenes/tide-palette.brick -o out/tide-palette.png --scale 1,6
"$build/tool/coldbrick" shapes -o out/shapes.png
for scene in demo/scenes/rules/*.brick; do
    render "$scene" -o "out/rule-$(basename "$scene" .brick).png" --scale 12
done
"$build/examples/first_picture" out/first-picture.png
"$build/examples/camera_frame" out/camera-frame.png
"$build/examples/one_bit_display" out/one-bit-display.png
"$build/examples/handheld_display" out/handheld-display.png
"$build/examples/survey_mesh" out/survey-mesh.png
"$build/examples/foreign_frames" out/foreign-frames.png
"$build/examples/dressed_fairway" out/dressed-fairway.png
"$build/examples/explained_board" out/explained-board.png
"$build/examples/words" out/words.png
"$build/examples/harbour_notice" out/harbour-notice.png
"$build/examples/quay_wall" out/quay-wall.png
render demo/scenes/sprites.brick -o out/sprites.png --scale 1,8
render demo/scenes/wall-survey.brick -o out/wall-survey.png
# Scenes that compute, and frames that move: as files that other programs play, and taken apart for a sheet of them.
render demo/scenes/star-field.brick -o out/star-field.png
render demo/scenes/spiral.brick -o out/spiral.png
render demo/scenes/quay-tree.brick -o out/quay-tree.png
mkdir -p out/frames out/badges
render demo/scenes/berth-badge.brick --rows demo/scenes/boats.csv -o 'out/badges/{berth:02}.png'
for scene in tide-day pier-light passing-boats; do
    for kind in png gif webp; do render "demo/scenes/$scene.brick" -o "out/$scene.$kind"; done
    render "demo/scenes/$scene.brick" -o "out/frames/$scene-{frame:02}.png"
done
cp demo/scenes/sheets/*.brick out/
render out/frames.brick -o out/frames.png
render out/computed.brick -o out/computed.png
echo "All pictures are in $PWD/out"
