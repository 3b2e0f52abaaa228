// Words are a shape: filled with any ink, stroked, followed along a path, joined with others, and measured before they
// are drawn.
//
//     words words.png
#include <coldbrick/coldbrick.hpp>

#include <iostream>

using namespace coldbrick;

namespace {

constexpr auto white = 0xfff1c9_rgb;

// The sea, as it might come out of a file.
Bitmap<Rgb8> picture_of_waves(Size size) {
    Bitmap<Rgb8> sea{size, 0x9fd8e8_rgb};
    for (int y = 7; y < size.height; y += 9) {
        Path wave;
        wave.move({0, 1.0 * y});
        for (int x = 0; x < size.width; x += 40) {
            wave.quadratic({.control = {x + 10.0, y - 8.0}, .to = {x + 20.0, 1.0 * y}})
                .quadratic({.control = {x + 30.0, y + 8.0}, .to = {x + 40.0, 1.0 * y}});
        }
        stroke(sea, wave, {.width = 3, .edge = Edge::smooth}, 0x1c6a8c_rgb);
    }
    return sea;
}

void draw_names(Bitmap<Rgb8>& board) {
    // A gradient from the top of the letters to their foot.
    const Text heading{.words = "Harbour Office", .at = {360, 92}, .anchor = TextAnchor::baseline_center, .height = 56};
    const auto dusk = LinearGradient{
        .from = {0, 36}, .to = {0, 92}, .stops = {{0, 0xffd27a_rgb}, {0.5, 0xe8894a_rgb}, {1, 0xd94f5c_rgb}}};
    fill(board, heading, Edge::smooth, dusk);

    // Hollow: a stroke around the letters of a broad pen.
    const Text name{
        .words = "TARN QUAY", .at = {360, 172}, .anchor = TextAnchor::baseline_center, .height = 48, .weight = 10};
    stroke(board, name, {.width = 3, .edge = Edge::smooth}, white);

    // A picture shows through letters: as the ink that they are laid with.
    const Text tide{.words = "HIGH TIDE", .at = {24, 210}, .height = 40, .weight = 12};
    const auto waves = picture_of_waves({.width = 400, .height = 60});
    fill(board, tide, Edge::smooth, PictureInk::of(waves, {.at = {0, 205}}));
}

void draw_along_paths(Bitmap<Rgb8>& board) {
    // Along a fairway, and around a buoy.
    const Path fairway = parse_path("M 24,330 C 130,250 220,420 330,320");
    stroke(board, fairway, {.width = 2, .dash = {6, 5}, .edge = Edge::smooth}, 0x49728c_rgb);
    const Text along{
        .words = "fairway, dredged to 6.5 m", .height = 13, .along = TextPath{.path = fairway, .offset = 8}};
    fill(board, along, Edge::smooth, 0x9fd8e8_rgb);
    const subpixel::Circle buoy{.center = {580, 290}, .radius = 46};
    fill(board, subpixel::Circle{.center = {580, 290}, .radius = 36}, Edge::smooth, 0xd94f5c_rgb);
    fill(board, Text{.words = "STARBOARD BUOY 7", .height = 12, .along = TextPath::along(buoy)}, Edge::smooth, white);
}

void draw_notices(Bitmap<Rgb8>& board) {
    // In lines, in a frame that is made to measure.
    const Text notice{.words = "Spring tide on Friday: move boats and their ropes before noon.",
                      .at = {360, 240},
                      .height = 10,
                      .lines = TextLines::center,
                      .wrap = 128};
    const auto box = measure(notice).pixels.inset(-9);
    fill(board, RoundedBox{.box = box, .corner_radius = 6}, Edge::smooth, white);
    fill(board, notice, 0x0b2239_rgb);

    // For small displays: letters of dots.
    fill(board, Text{.words = "DEPTH 3.2 m\nFALLING", .at = {24, 366}, .face = faces::pixel(), .height = 14},
         0x7ae07a_rgb);
    fill(board, Text{.words = "tiny: berth 4 free 12:30", .at = {200, 372}, .face = faces::tiny(), .height = 10},
         0x7ae07a_rgb);
    fill(board, Text{.words = "engraved", .at = {480, 366}, .height = 30, .slant = 12_deg}, Edge::smooth, 0x35506a_rgb);
    stroke(board, lettering(Text{.words = "engraved", .at = {480, 366}, .height = 30, .slant = 12_deg}).lines,
           {.width = 1, .dash = {3, 2}, .edge = Edge::smooth}, white);
}

}  // namespace

int main(int argc, char** argv) {
    Bitmap<Rgb8> board{{720, 420}, 0x0b2239_rgb};
    draw_names(board);
    draw_along_paths(board);
    draw_notices(board);
    const auto* const path = argc > 1 ? argv[1] : "words.png";
    save(board, path);
    std::cout << path << '\n';
}
