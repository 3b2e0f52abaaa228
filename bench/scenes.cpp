// Scenes that compute, and frames that move.
#include "pairs.hpp"

#include <coldbrick/coldbrick.hpp>

#include <fstream>
#include <memory>
#include <sstream>
#include <string>
#include <thread>
#include <vector>

namespace bench {

namespace {

using namespace coldbrick;

constexpr auto many = 1'000'000;

// A loop of a scene, against the same loop in C++.
template <class Draw>
void add_loop(const std::string& name, const std::string& body, const Draw& draw) {
    const auto program = std::make_shared<SceneProgram>(
        parse_program("sheet size 1920,1080 ink black\nrepeat " + std::to_string(many) + " as i\n" + body + "\nend\n"));
    const auto sheet = std::make_shared<Bitmap<Rgb8>>(Size{1920, 1080}, colors::black);
    add({.name = "each of 1 million " + name + ", out of a scene's loop",
         .reference = "the calls from C++",
         .allowed = 1.5,
         .items = many,
         .ours =
             [=] {
                 const auto scene = program->evaluate();
                 render(scene, *sheet, [](std::size_t, const Box&) {});
                 written(sheet.get());
             },
         .other =
             [=] {
                 for (int i = 0; i < many; ++i) draw(*sheet, i);
                 written(sheet.get());
             }});
}

void add_loops() {
    add_loop("circles of radius 4", "fill circle center mod(i*7,1920),mod(i*13,1080) radius 4 ink gold",
             [](auto& to, int i) {
                 fill(to, Circle{.center = {i * 7 % 1920, i * 13 % 1080}, .radius = 4}, colors::gold);
             });
    add_loop("circles of radius 20", "fill circle center mod(i*7,1920),mod(i*13,1080) radius 20 ink gold",
             [](auto& to, int i) {
                 fill(to, Circle{.center = {i * 7 % 1920, i * 13 % 1080}, .radius = 20}, colors::gold);
             });
    add_loop("boxes 40x30", "fill box at mod(i*7,1920),mod(i*13,1080) size 40,30 ink teal", [](auto& to, int i) {
        fill(to, Box{.at = {i * 7 % 1920, i * 13 % 1080}, .size = {40, 30}}, colors::teal);
    });
    add_loop("smooth stars of radius 12",
             "fill star center mod(i*7,1920),mod(i*13,1080) radius 12 points 5 smooth ink gold", [](auto& to, int i) {
                 fill(to, star({.center = {i * 7 % 1920, i * 13 % 1080}, .radius = 12, .points = 5}),
                      {.edge = Edge::smooth}, colors::gold);
             });
}

// A frame of which a twentieth changes.
void draw_frame(Bitmap<Rgb8>& sheet, int number) {
    const auto at = Point{number * 5 % 496, number * 3 % 280};
    for (int i = 0; i < 8; ++i) {
        fill(sheet, Box{.at = {at.x, at.y + i * 10}, .size = {144, 10}},
             Color{static_cast<std::uint8_t>(number + i * 20), static_cast<std::uint8_t>(60 + i * 9), 90});
    }
    stroke(sheet, Circle{.center = {at.x + 70, at.y + 40}, .radius = 36}, {.width = 4, .edge = Edge::smooth},
           colors::gold);
}

void add_frames(FileFormat format, int count) {
    const auto ground = std::make_shared<Bitmap<Rgb8>>(Size{640, 360}, colors::navy);
    for (int i = 0; i < 300; ++i) {
        fill(*ground, Circle{.center = {i * 37 % 640, i * 53 % 360}, .radius = 5 + i % 20}, colors::steelblue);
    }
    add({.name = std::to_string(count) + " frames of 640x360 with 5 % changed, to " + std::string{name_of(format)},
         .reference = "drawing them alone",
         .allowed = 0,
         .items = double{1} * count,
         .ours =
             [=] {
                 auto sheet = *ground;
                 std::ostringstream stream;
                 FrameWriter writer{stream, format};
                 for (int i = 0; i < count; ++i) {
                     draw_frame(sheet, i);
                     writer.add(sheet, 0.05);
                 }
                 benchmark::DoNotOptimize(writer.finish());
             },
         .other =
             [=] {
                 auto sheet = *ground;
                 for (int i = 0; i < count; ++i) draw_frame(sheet, i);
                 written(&sheet);
             }});
}

// Badges for the rows of a table, as PNG files in memory.
void draw_badges(const SceneProgram& program, const Table& table, unsigned threads) {
    constexpr std::size_t count = 1000;
    const auto draw = [&](std::size_t first) {
        for (auto i = first; i < count; i += threads) {
            const auto& row = table.rows[i % table.rows.size()];
            SceneInput input;
            for (std::size_t k = 0; k < table.columns.size(); ++k)
                input.set.push_back({table.columns[k], row.cells[k]});
            const auto scene = program.evaluate(input);
            auto sheet = scene.sheet<Rgb8>();
            render(scene, sheet);
            benchmark::DoNotOptimize(encode(sheet, FileFormat::png));
        }
    };
    std::vector<std::jthread> workers;
    for (unsigned i = 1; i < threads; ++i) workers.emplace_back(draw, i);
    draw(0);
}

void add_badges() {
    const std::string folder = COLDBRICK_SCENES;
    const auto table = std::make_shared<Table>(read_table(folder + "/boats.csv"));
    std::ifstream file{folder + "/berth-badge.brick"};
    const auto program = std::make_shared<SceneProgram>(parse_program(
        std::string{std::istreambuf_iterator<char>{file}, {}}, "berth-badge", folder, {}, table->columns));
    add({.name = "1,000 badges for the rows of a table, on 2 threads",
         .reference = "on one",
         .allowed = 1 / 1.8,
         .items = 1000,
         .ours = [=] { draw_badges(*program, *table, 2); },
         .other = [=] { draw_badges(*program, *table, 1); }});
}

}  // namespace

void add_scenes() {
    add_loops();
    add_frames(FileFormat::png, 600);
    add_frames(FileFormat::gif, 600);
    add_frames(FileFormat::webp, 60);
    add_badges();
}

}  // namespace bench
