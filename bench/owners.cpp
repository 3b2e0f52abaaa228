// Finding the call on top of each pixel while drawing, against drawing alone.
#include "pairs.hpp"

#include <coldbrick/coldbrick.hpp>

#include <filesystem>
#include <fstream>
#include <iterator>
#include <memory>
#include <string>

namespace bench {

namespace {

using namespace coldbrick;

void add_owned(const std::string& name, const std::shared_ptr<Drawing>& drawing, Size size, double items) {
    const auto sheet = std::make_shared<Bitmap<Rgba8>>(size, colors::navy);
    const auto owned = std::make_shared<Bitmap<Rgba8>>(size, colors::navy);
    const auto owners = std::make_shared<Owners>();
    add({.name = name + ", with the call on top of each pixel",
         .reference = "drawing it alone",
         .allowed = 1.5,
         .items = items,
         .ours =
             [=] {
                 render(*drawing, *owned, *owners);
                 benchmark::DoNotOptimize(owners->at({0, 0}));
                 written(owned.get());
             },
         .other =
             [=] {
                 render(*drawing, *sheet);
                 written(sheet.get());
             }});
}

void add_scene(const std::string& name) {
    const auto path = std::filesystem::path{COLDBRICK_SCENES} / name;
    std::ifstream file{path};
    const std::string text{std::istreambuf_iterator<char>{file}, {}};
    const auto scene = parse_scene(text, name, COLDBRICK_SCENES);
    add_owned("the demo's " + name, std::make_shared<Drawing>(scene.drawing), scene.size,
              static_cast<double>(scene.drawing.size()));
}

template <class Draw>
void add_many(const std::string& name, int count, const Draw& draw) {
    const auto drawing = std::make_shared<Drawing>();
    for (int i = 0; i < count; ++i) draw(*drawing, i);
    add_owned(name, drawing, {1920, 1080}, count);
}

}  // namespace

void add_owners() {
    add_scene("fairway-chart.brick");
    add_scene("dusk.brick");
    add_scene("berth-board.brick");
    add_many("20,000 circles of radius 4 on 1920x1080", 20'000, [](Drawing& to, int i) {
        fill(to, Circle{.center = {i * 7 % 1920, i * 13 % 1080}, .radius = 4}, colors::gold);
    });
    add_many("20,000 hairlines of 200 pixels", 20'000, [](Drawing& to, int i) {
        const auto at = Point{i * 7 % 1800, i * 13 % 1000};
        stroke(to, Line{.from = at, .to = {at.x + 200 * (i % 2), at.y + 200 * ((i + 1) % 2) + i % 31}}, colors::gold);
    });
    add_many("20,000 marks", 20'000, [](Drawing& to, int i) {
        mark(to, Point{i * 7 % 1920, i * 13 % 1080}, colors::gold);
    });
    add_many("200 boxes 900x500", 200, [](Drawing& to, int i) {
        fill(to, Box{.at = {i * 5 % 1000, i * 3 % 500}, .size = {900, 500}}, colors::teal);
    });
    add_many("2,000 smooth circles of radius 30", 2'000, [](Drawing& to, int i) {
        fill(to, Circle{.center = {i * 7 % 1920, i * 13 % 1080}, .radius = 30}, Edge::smooth, colors::gold);
    });
}

}  // namespace bench
