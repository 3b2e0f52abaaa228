// A first picture: the buoy off Tarn Quay at dusk. Draws on a bitmap and saves it.
//
//     first_picture buoy.png
#include <coldbrick/coldbrick.hpp>

#include <iostream>

int main(int argc, char** argv) {
    using namespace coldbrick;
    const auto* const path = argc > 1 ? argv[1] : "buoy.png";

    Bitmap<Rgb8> picture{{360, 225}, 0x1d2a4d_rgb};

    // The sun stands on the horizon, half of it below; the sea covers that half.
    fill(picture, Circle{.center = {262, 140}, .radius = 46}, 0xf2a65a_rgb);
    fill(picture, Circle{.center = {262, 140}, .radius = 32}, 0xffd9a0_rgb);
    fill(picture, Box{.at = {0, 140}, .size = {360, 85}}, 0x14405a_rgb);
    for (int y = 146; y < 225; y += 9) {
        const auto half = 60 - (y - 146) / 2;  // the glitter under the sun gets narrower towards us
        stroke(picture, Line{.from = {262 - half, y}, .to = {262 + half, y}}, 0xf2a65a90_rgba);
    }

    // The buoy: a hull, a cage on it, a topmark of two cones. Outline and fill of one shape always fit.
    const auto hull = Ellipse::around({.center = {118, 172}, .radii = {46, 13}});
    const auto cage = Polygon{{92, 170}, {110, 88}, {126, 88}, {144, 170}};
    fill(picture, cage, 0xc8402f_rgb);
    stroke(picture, cage, 0x5d1a14_rgb);
    for (int y = 104; y < 168; y += 16) stroke(picture, Line{.from = {96, y + 12}, .to = {140, y}}, 0x5d1a14_rgb);
    fill(picture, hull, 0xa93226_rgb);
    stroke(picture, hull, 0x5d1a14_rgb);
    fill(picture, Polygon{{118, 52}, {108, 68}, {128, 68}}, colors::black);
    fill(picture, Polygon{{118, 84}, {108, 68}, {128, 68}}, colors::black);

    // Water laps over the hull, translucent, each pixel once.
    fill(picture, Box{.at = {60, 178}, .size = {116, 14}}, 0x14405ab0_rgba);

    save(picture, path);
    std::cout << path << '\n';
}
