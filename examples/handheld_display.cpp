// The pilots' handheld has a screen of 16 bits a pixel: five of red, six of green, five of blue. The library draws on
// its memory as on any other: smooth edges, translucent inks, gradients.
//
//     handheld_display handheld.png
#include <coldbrick/coldbrick.hpp>

#include <cstdint>
#include <iostream>
#include <vector>

using namespace coldbrick;

int main(int argc, char** argv) {
    // The screen's memory, as its controller reads it: rows of 176 pixels, 384 bytes apart.
    constexpr auto size = Size{176, 132};
    std::vector<std::uint8_t> memory(std::size_t{384} * size.height);
    const Pixels<Rgb565> screen{{.top_left = memory.data(), .size = size, .stride = 384}};
    constexpr auto smooth = Fill{.edge = Edge::smooth};

    fill(screen, Box{.at = {0, 0}, .size = size},
         LinearGradient{.from = {0, 0}, .to = {0, 131}, .stops = {{0, 0x10202c_rgb}, {1, 0x103ca8_rgb}}});
    // The compass: a dial, ticks every 30 degrees, the needle turned to the heading.
    fill(screen, Circle{.center = {66, 66}, .radius = 56}, smooth, 0xf6f1e3_rgb);
    stroke(screen, Circle{.center = {66, 66}, .radius = 56}, {.width = 4, .edge = Edge::smooth}, 0xe28c1e_rgb);
    const auto tick = stroked(Line{.from = {0, -50}, .to = {0, -43}}, {.width = 3, .edge = Edge::smooth});
    for (int hour = 0; hour < 12; ++hour) {
        fill(screen, transformed(tick, Transform{}.turn(30_deg * hour).move({66, 66})), 0x10202c_rgb);
    }
    const auto heading = Transform{}.turn(34_deg).move({66, 66});
    fill(screen, transformed(filled(Polygon{{0, -42}, {8, 0}, {-8, 0}}, smooth), heading), 0xe05549_rgb);
    fill(screen, transformed(filled(Polygon{{0, 42}, {8, 0}, {-8, 0}}, smooth), heading), 0x356cb7_rgb);
    fill(screen, Circle{.center = {66, 66}, .radius = 4}, smooth, 0x10202c_rgb);
    // A gauge of the depth, and a sheen over everything.
    fill(screen, RoundedBox{.box = {.at = {140, 12}, .size = {22, 108}}, .corner_radius = 11}, smooth, 0x10202c_rgb);
    fill(screen, RoundedBox{.box = {.at = {143, 58}, .size = {16, 59}}, .corner_radius = 8}, smooth, 0x2ca896_rgb);
    fill(screen, Polygon{{0, 0}, {110, 0}, {20, 131}, {0, 131}}, smooth, 0xffffff18_rgba);

    const auto* const path = argc > 1 ? argv[1] : "handheld.png";
    save(enlarge(convert<Rgb8>(screen), 5), path);
    std::cout << path << '\n';
}
