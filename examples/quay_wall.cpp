// A survey of the quay wall: a picture of masonry, and beside it what the surveyor found, on the same in grays. Draws
// to PICTURE, and the wall alone to WALL:  quay_wall PICTURE [WALL]
#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <cmath>
#include <iostream>
#include <random>

using namespace coldbrick;

namespace {

constexpr auto size = Size{.width = 480, .height = 320};

// Numbers by chance, the same in each run.
class Chance {
  public:
    int number(int least, int most) { return std::uniform_int_distribution{least, most}(engine_); }

  private:
    std::mt19937 engine_{1871};
};

Color tint(Chance& chance, Color color, int by) {
    const auto change = chance.number(-by, by);
    const auto changed = [=](std::uint8_t value) {
        return static_cast<std::uint8_t>(std::clamp(value + change, 0, 255));
    };
    return {.red = changed(color.red), .green = changed(color.green), .blue = changed(color.blue)};
}

// Courses of stones, each course begun anew.
void lay_stones(Bitmap<Rgb8>& wall, Chance& chance) {
    constexpr auto mortar = 0x8d877b_rgb;
    constexpr auto stone = 0xa89a84_rgb;
    clear(wall, mortar);
    for (int y = -6, course = 0; y < size.height; ++course) {
        const auto height = chance.number(26, 38);
        for (int x = -chance.number(0, 50); x < size.width;) {
            const auto width = chance.number(38, 82);
            const RoundedBox block{{.at = {x + 2, y + 2}, .size = {width - 3, height - 3}}, 4};
            fill(wall, block, {.edge = Edge::smooth}, tint(chance, stone, 16));
            stroke(wall, block, {.width = 1, .edge = Edge::smooth}, Ink{colors::black, {.opacity = 0.18}});
            x += width;
        }
        y += height;
    }
}

// Grains and pits, and the dark band that the tide leaves.
void weather(Bitmap<Rgb8>& wall, Chance& chance) {
    for (int i = 0; i < 9000; ++i) {
        const auto at = Point{chance.number(0, size.width - 1), chance.number(0, size.height - 1)};
        mark(wall, at, Ink{chance.number(0, 1) == 0 ? colors::black : colors::white, {.opacity = 0.12}});
    }
    const auto wet = LinearGradient{.from = {0, 200},
                                    .to = {0, 319},
                                    .stops = {{0, 0x26362f00_rgba}, {0.5, 0x26362f90_rgba}, {1, 0x1a2a28c8_rgba}}};
    fill(wall, Box{.at = {0, 200}, .size = {size.width, 120}}, wet);
}

// From a place on, downwards.
Polyline crack(Chance& chance, Point at, int length) {
    Polyline path;
    for (int i = 0; i < length; ++i) {
        path.through.push_back(at);
        at = {at.x + chance.number(-6, 8), at.y + chance.number(4, 9)};
    }
    return path;
}

// An arrow to a place, and a number of so many strokes beside it.
void point_out(Bitmap<Rgb8>& page, Point from, Point to, int number) {
    constexpr auto red = 0xd8342b_rgb;
    const auto angle = Angle::radians(std::atan2(to.y - from.y, to.x - from.x));
    stroke(page, Line{.from = from, .to = to}, {.width = 3, .edge = Edge::smooth}, red);
    const Polygon head{{0, 0}, {-14, -6}, {-14, 6}};
    fill(page, transformed(filled(head, {.edge = Edge::smooth}), Transform{}.turn(angle).move(to)), red);
    fill(page, Circle{.center = from, .radius = 13}, {.edge = Edge::smooth}, red);
    for (int i = 0; i < number; ++i) {
        fill(page, Box{.at = {from.x - 3 * number + 2 + 6 * i, from.y - 6}, .size = {3, 13}}, colors::white);
    }
}

}  // namespace

int main(int argc, char** argv) {
    if (argc < 2) {
        std::cerr << "usage: quay_wall PICTURE [WALL]\n";
        return 2;
    }
    Chance chance;
    Bitmap<Rgb8> wall{size};
    lay_stones(wall, chance);
    weather(wall, chance);
    const auto long_crack = crack(chance, {128, 34}, 22);
    const auto short_crack = crack(chance, {338, 120}, 9);
    for (const auto* const path : {&long_crack, &short_crack}) {
        stroke(wall, *path, {.width = 3, .edge = Edge::smooth}, Ink{colors::black, {.opacity = 0.35}});
        stroke(wall, *path, {.edge = Edge::smooth}, 0x1c1814_rgb);
    }
    if (argc > 2) save(wall, argv[2]);

    // What was found, on the same wall in grays.
    auto found = wall;
    gray_out(found);
    fill(found, Box{.at = {}, .size = size}, Ink{colors::white, {.opacity = 0.25}});
    const auto yellow = Ink{0xf2c230_rgb};
    for (const auto* const path : {&long_crack, &short_crack}) {
        const auto around = bounds(stroked(*path, {.width = 15}));
        paste(found, wall, {.at = around.at, .part = intersection(around, Box{.at = {}, .size = size})});
        stroke(found, around, {.width = 2, .align = Align::outside}, yellow);
    }
    point_out(found, {60, 70}, {116, 98}, 1);
    point_out(found, {430, 112}, {373, 146}, 2);

    Bitmap<Rgb8> page{{.width = 2 * size.width + 48, .height = size.height + 32}, 0x17324a_rgb};
    paste(page, bordered(wall, {.left = 2, .top = 2, .right = 2, .bottom = 2}, colors::white), {.at = {14, 14}});
    paste(page, bordered(found, {.left = 2, .top = 2, .right = 2, .bottom = 2}, colors::white),
          {.at = {size.width + 30, 14}});
    save(page, argv[1]);
    std::cout << argv[1] << '\n';
}
