// Labels, against their spans and their coverage taken ready from memory.
#include "pairs.hpp"
#include "spans.hpp"

#include <coldbrick/region.hpp>
#include <coldbrick/smooth_region.hpp>
#include <coldbrick/text.hpp>

#include <memory>
#include <string>
#include <vector>

namespace bench {

namespace {

// Twelve letters, capitals of ten pixels, all over the sheet.
std::vector<Text> labels() {
    std::vector<Text> all;
    for (int i = 0; i < 200; ++i) {
        all.push_back({.words = "Tarn Quay " + std::to_string(10 + i % 90),
                       .at = {20.0 + i * 37 % 1780, 20.0 + i * 53 % 1040},
                       .height = 10});
    }
    return all;
}

// Each as it is, and once more what it covers.
template <class Ready>
void add_labels(const std::string& name, Edge edge) {
    const auto bitmap = shared_bitmap<Rgba8>();
    const auto texts = std::make_shared<std::vector<Text>>(labels());
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

}  // namespace

void add_words() {
    add_labels<Region>("label of 12 letters, 10 high, crisp", Edge::crisp);
    add_labels<SmoothRegion>("label of 12 letters, 10 high, smooth", Edge::smooth);
    const auto layouts = std::make_shared<std::vector<Text>>(labels());
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
