// The survey of the harbour basin: depths measured at places of their own coordinates, drawn as a mesh of triangles
// straight from the array that they are in.
#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <cmath>
#include <iostream>

namespace {

using namespace coldbrick;

// What the echo sounder writes: x and y from -1 to 1, y up, and the depth in metres.
struct Sounding {
    float x;
    float y;
    float depth;
};

constexpr std::uint32_t columns = 25;
constexpr std::uint32_t rows = 15;

std::vector<Sounding> soundings() {
    std::vector<Sounding> all;
    for (std::uint32_t r = 0; r < rows; ++r) {
        for (std::uint32_t c = 0; c < columns; ++c) {
            const auto u = static_cast<float>(c) / (columns - 1);
            const auto v = static_cast<float>(r) / (rows - 1);
            // The boat never sails quite straight.
            const auto x = -0.95F + 1.9F * u + 0.02F * std::sin(9 * v + 3 * u);
            const auto y = -0.9F + 1.8F * v + 0.03F * std::sin(11 * u);
            const auto bank = std::exp(-8 * ((u - 0.7F) * (u - 0.7F) + (v - 0.35F) * (v - 0.35F)));
            all.push_back({x, y, 2 + 9 * v + 3 * std::sin(5 * u) * v - 5 * bank});
        }
    }
    return all;
}

Color ink_for(float depth) {
    const auto shade = [depth](float shallow, float deep) {
        const auto part = std::clamp(depth / 12, 0.0F, 1.0F);
        return static_cast<std::uint8_t>(shallow + (deep - shallow) * part);
    };
    return {.red = shade(206, 12), .green = shade(232, 66), .blue = shade(226, 110)};
}

}  // namespace

int main(int count, char** words) {
    const auto survey = soundings();
    const auto at = Vertices::of(&survey[0].x, survey.size(), sizeof(Sounding));

    std::vector<std::uint32_t> corners;  // of two triangles for each cell
    std::vector<Color> inks;
    for (std::uint32_t r = 0; r + 1 < rows; ++r) {
        for (std::uint32_t c = 0; c + 1 < columns; ++c) {
            const auto first = r * columns + c;
            for (const auto corner :
                 {first, first + 1, first + columns, first + columns, first + 1, first + columns + 1}) {
                corners.push_back(corner);
            }
            inks.push_back(ink_for(survey[first].depth));
            inks.push_back(ink_for(survey[first + columns + 1].depth));
        }
    }

    Bitmap<Rgb8> chart{{640, 400}, 0xe9d9a6_rgb};
    const auto to_pixels =
        Transform::fitting({.left = -1, .right = 1, .bottom = -1, .top = 1}, {.at = {0, 0}, .size = chart.size()});
    const auto mesh = VertexList{.as = Elements::triangles, .at = at, .indices = corners, .transform = to_pixels};
    fill_each(chart, mesh, inks);
    stroke(chart, mesh, with_alpha(colors::white, 40));  // each line once, though triangles share it
    stroke(chart, VertexList{.as = Elements::points, .at = at, .transform = to_pixels}, {.width = 4, .cap = Cap::round},
           0x14364f_rgb);

    // The boat's track along the middle row of the survey.
    const auto middle = Vertices::of(&survey[std::size_t{rows / 2} * columns].x, columns, sizeof(Sounding));
    stroke(chart, VertexList{.as = Elements::line_strip, .at = middle, .transform = to_pixels},
           {.width = 3, .join = Join::round, .dash = {10, 6}}, 0xb3122a_rgb);

    const auto* const path = count > 1 ? words[1] : "survey-mesh.png";
    try {
        save(chart, path);
    } catch (const Error& error) {
        std::cerr << error.what() << '\n';
        return 1;
    }
    std::cout << path << ": " << mesh.elements() << " triangles\n";
}
