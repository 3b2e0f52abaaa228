// Labels, against their spans and their coverage taken ready from memory.
#include "pairs.hpp"
#include "spans.hpp"

#include <coldbrick/region.hpp>
#include <coldbrick/smooth_region.hpp>
#include <coldbrick/text.hpp>

#include <functional>
#include <memory>
#include <string>
#include <vector>

namespace bench {

namespace {

// Twelve letters, capitals of ten pixels, all over the sheet.
std::vector<Text> labels(const Face& face) {
    std::vector<Text> all;
    for (int i = 0; i < 10'000; ++i) {
        all.push_back({.words = "Otter " + std::to_string(100'000 + i * 89 % 900'000),
                       .at = {20.0 + i * 37 % 1780, 20.0 + i * 53 % 1040},
                       .face = face,
                       .height = 10});
    }
    return all;
}

// Each as it is, and once more what it covers.
template <class Ready>
void add_labels(const std::string& name, const Face& face, Edge edge) {
    const auto bitmap = shared_bitmap<Rgba8>();
    const auto texts = std::make_shared<std::vector<Text>>(labels(face));
    const auto ready = std::make_shared<std::vector<Ready>>();
    for (const auto& text : *texts) ready->push_back(Ready{filled(text, {.edge = edge})});
    add({.name = name,
         .reference = "what they cover, ready in memory",
         .allowed = 2,
         .items = static_cast<double>(texts->size()),
         .ours =
             [=] {
                 for (const auto& text : *texts) benchmark::DoNotOptimize(fill(*bitmap, text, edge, ink));
             },
         .other =
             [=] {
                 for (const auto& area : *ready) {
                     if constexpr (std::is_same_v<Ready, Region>) {
                         benchmark::DoNotOptimize(fill(*bitmap, area, ink));
                     } else {
                         benchmark::DoNotOptimize(fill(bitmap->within(area), area.bounds(), ink));
                     }
                 }
             }});
}

// A label in a loop over places between the pixels, against the same at whole ones.
void add_at_fractions() {
    const auto bitmap = shared_bitmap<Rgba8>();
    const auto draw = [bitmap](double step) {
        const Text text{.words = "Otter 123456", .at = {20, 20}, .height = 10};
        constexpr auto places = 400;
        for (auto i = 0; i < places; ++i) {
            const auto by = Transform{}.move({i % 20 * step, i * step});
            benchmark::DoNotOptimize(fill(*bitmap, transformed(filled(text, {.edge = Edge::smooth}), by), ink));
        }
    };
    add({.name = "label of 12 letters, smooth, at places between the pixels",
         .reference = "at whole places",
         .allowed = 3,
         .items = 400,
         .ours = [=] { draw(1.137); },
         .other = [=] { draw(1); }});
}

// Letters that are too large to be kept.
void add_large() {
    const auto bitmap = shared_bitmap<Rgba8>();
    const Text text{.words = "Sluice!", .at = {20, 20}, .height = 200};
    const auto box = bounds(filled(text, {.edge = Edge::smooth}));
    add({.name = "7 letters, 200 pixels high, smooth",
         .reference = "a fill of their box",
         .allowed = 2,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(fill(*bitmap, text, Edge::smooth, ink)); },
         .other = [=] { benchmark::DoNotOptimize(fill(*bitmap, box, ink)); }});
}

// The first drawing of a face: what it is spent on.
void add_first(const std::string& name, const std::function<void()>& ours) {
    const auto bitmap = shared_bitmap<Rgba8>();
    add({.name = name, .reference = "memset of the sheet", .allowed = 0, .items = 1, .ours = ours, .other = [=] {
             benchmark::DoNotOptimize(fill(*bitmap, bitmap->box(), ink));
         }});
}

}  // namespace

void add_words() {
    add_labels<Region>("label of 12 letters, 10 high, crisp", faces::line(), Edge::crisp);
    add_labels<SmoothRegion>("label of 12 letters, 10 high, smooth", faces::line(), Edge::smooth);
    if (can_load_faces()) {
        const std::string file = "/usr/share/fonts/truetype/dejavu/DejaVuSans.ttf";
        const auto sans = load_face(file);
        add_labels<SmoothRegion>("label of 12 letters, 10 high, smooth, DejaVu Sans", sans, Edge::smooth);
        add_first("a font file of 740 KB read", [=] { benchmark::DoNotOptimize(load_face(file)); });
        add_first("first label of a font file, with reading it", [=] {
            const Text text{.words = "Otter 123456", .at = {20, 20}, .face = load_face(file), .height = 10};
            benchmark::DoNotOptimize(fill(*shared_bitmap<Rgba8>(), text, Edge::smooth, ink));
        });
    }
    // A height that has not been before.
    add_first("first label of the line face in a height, smooth", [height = std::make_shared<double>(10)] {
        *height += 1.0 / 1024;
        if (*height > 90) *height = 10;
        const Text text{.words = "Otter 123456", .at = {20, 20}, .height = *height};
        benchmark::DoNotOptimize(fill(*shared_bitmap<Rgba8>(), text, Edge::smooth, ink));
    });
    add_at_fractions();
    add_large();
    const auto layouts = std::make_shared<std::vector<Text>>(labels(faces::line()));
    const auto bitmap = shared_bitmap<Rgba8>();
    add({.name = "layout of a label",
         .reference = "what it covers, ready in memory",
         .allowed = 0,
         .items = static_cast<double>(layouts->size()),
         .ours =
             [=] {
                 for (const auto& text : *layouts) benchmark::DoNotOptimize(lay_out(text));
             },
         .other =
             [=, region = std::make_shared<Region>(layouts->front())] {
                 for (std::size_t i = 0; i < layouts->size(); ++i)
                     benchmark::DoNotOptimize(fill(*bitmap, *region, ink));
             }});
}

}  // namespace bench
