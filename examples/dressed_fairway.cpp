// The fairway of Tarn Quay on regatta day. Water in the colour of its depth, by a formula; the flat that falls dry, a
// shape told by its pixels; burgees, a shape told by its outline; all of it recorded as a drawing that can be asked.
//
//     dressed_fairway fairway.png
#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <cmath>
#include <exception>
#include <iostream>
#include <vector>

namespace harbour {

using namespace coldbrick;

// Metres of water at a place: a channel that bends to the right, and a hump beside it.
double depth_at(double x, double y) {
    const auto from_channel = y - 210 + (x - 240) * (x - 240) / 900;
    const auto from_hump = ((x - 470) * (x - 470) + (y - 150) * (y - 150)) / 5200;
    return 12 / (1 + from_channel * from_channel / 9000) - 4.5 / (1 + from_hump * from_hump);
}

// An ink: from some pixels of a row to their colours. Deep water is dark, and each metre is one shade.
void water(Point first, std::span<Color> row) {
    auto x = first.x;
    for (auto& color : row) {
        const auto metres = std::clamp(std::floor(depth_at(x++, first.y)), 0.0, 12.0);
        color = mixed(0xbfe3ea_rgb, 0x123a5c_rgb, metres / 12);
    }
}

// A shape that knows its pixels: where there is less water than that.
struct DryFlat {
    Box within;
    double metres;
};

std::vector<Span> spans(const DryFlat& flat, const Box& clip) {
    std::vector<Span> found;
    const auto seen = intersection(flat.within, clip);
    for (int y = seen.at.y; y < seen.at.y + seen.size.height; ++y) {
        auto begins = seen.at.x;
        const auto end = seen.at.x + seen.size.width;
        for (int x = begins; x <= end; ++x) {
            if (x < end && depth_at(x, y) < flat.metres) continue;
            if (x > begins) found.push_back({.y = y, .x = begins, .length = x - begins});
            begins = x + 1;
        }
    }
    return found;
}

// A shape that knows its outline: a swallow-tailed flag that flies to the right of its hoist.
struct Burgee {
    Position hoist;
    double length;
    double drop;
};

Path outline(const Burgee& flag) {
    const auto& [x, y] = flag.hoist;
    const auto cut = flag.length * 0.3;
    Path edge;
    edge.move({x, y})
        .quadratic({.control = {x + flag.length / 2, y + flag.drop * 0.3}, .to = {x + flag.length, y}})
        .line({x + flag.length - cut, y + flag.drop / 2})
        .line({x + flag.length, y + flag.drop})
        .quadratic({.control = {x + flag.length / 2, y + flag.drop * 0.8}, .to = {x, y + flag.drop}})
        .close();
    return edge;
}

Drawing fairway(Size size) {
    Drawing chart;
    const Box sheet{.at = {0, 0}, .size = size};
    const DryFlat flat{.within = sheet.inset(-10), .metres = 1.5};
    fill(chart, sheet, water);
    fill(chart, flat, 0xd9c58b_rgb);
    stroke(chart, flat, {.width = 2, .dash = {5, 3}}, 0x8a7a45_rgb);
    // A line of bunting from mast to mast, and the start: a ring with a gap, and the committee's burgee in it.
    const Path rope = Path{}.move({20, 40}).quadratic({.control = {300, 120}, .to = {620, 30}});
    stroke(chart, rope, {.width = 1.5, .edge = Edge::smooth}, 0x2c2c2c_rgb);
    const std::vector<Color> colors{0xd23b3b_rgb, 0xf2f2f2_rgb, 0x2e6fb7_rgb, 0xf2c230_rgb};
    for (int i = 0; i < 14; ++i) {
        const auto t = (i + 1) / 15.0;
        const Position at{20 * (1 - t) * (1 - t) + 600 * t * (1 - t) + 620 * t * t,
                          40 * (1 - t) * (1 - t) + 240 * t * (1 - t) + 30 * t * t};
        const Burgee flag{.hoist = at, .length = 26, .drop = 17};
        const auto view = chart.tagged(static_cast<std::uint64_t>(i + 1));
        const auto hung = transformed(filled(flag, {.edge = Edge::smooth}), Transform{}.turn_about(at, 80_deg));
        fill(view, hung, colors[static_cast<std::size_t>(i) % colors.size()]);
    }
    const Ring start{
        .center = {90, 300}, .radius = 46, .inner_radius = 34, .sweep = Sweep{.from = 20_deg, .by = 320_deg}};
    fill(chart, start, Edge::smooth, 0xe8862e_rgb);
    stroke(chart, start, {.width = 2, .edge = Edge::smooth}, 0x7c3d0a_rgb);
    fill(chart, Burgee{.hoist = {74, 284}, .length = 40, .drop = 30}, Edge::smooth, 0xd23b3b_rgb);
    return chart;
}

}  // namespace harbour

int main(int argc, char** argv) {
    using namespace coldbrick;
    try {
        constexpr auto size = Size{640, 400};
        const auto chart = harbour::fairway(size);
        Bitmap<Rgb8> picture{size};
        render(chart, picture);
        const Point pixel{92, 298};
        if (const auto number = topmost(chart, pixel)) {
            std::cout << "at " << pixel.x << ',' << pixel.y << ": call " << *number << " of " << chart.size()
                      << ", made in line " << chart[*number].place().line << '\n';
        }
        save(picture, argc > 1 ? argv[1] : "fairway.png");
    } catch (const std::exception& error) {
        std::cerr << error.what() << '\n';
        return 1;
    }
}
