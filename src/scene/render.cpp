// What of a scene shows.
#include "coldbrick/scene.hpp"

#include <string>

namespace coldbrick {

namespace {

std::string in_words(Point point) { return std::to_string(point.x) + "," + std::to_string(point.y); }

std::string in_words(const Box& box) {
    const auto first = in_words(box.at);
    return box.last() == box.at ? first : first + " to " + in_words(box.last());
}

// On which side of the sheet a box lies that does not meet it.
std::string side_of(const Box& box, const Box& sheet) {
    std::string side;
    if (box.last().y < sheet.at.y) side = "above";
    if (box.at.y > sheet.last().y) side = "below";
    if (box.last().x < sheet.at.x) side += side.empty() ? "left of" : " and left of";
    if (box.at.x > sheet.last().x) side += side.empty() ? "right of" : " and right of";
    return side;
}

std::string reason(const Box& around, const Box& sheet, const Region* clip) {
    if (around.empty()) return "it covers no pixel at all";
    if (clip != nullptr && clip->empty()) return "the clip that it is in has no pixel on the sheet";
    if (clip != nullptr && !intersection(around, sheet).empty()) {
        return "it lies within " + in_words(around) + ", and the clip that it is in within " +
               in_words(clip->bounds()) + "; they have no pixel in common";
    }
    if (!intersection(around, sheet).empty()) {
        return "it lies within " + in_words(around) + ", but none of its pixels is on the sheet, " + in_words(sheet);
    }
    return "it lies at " + in_words(around) + ", " + side_of(around, sheet) + " the sheet, " + in_words(sheet);
}

}  // namespace

void check(const Figure& figure) {
    std::visit(
        [](const auto& area) {
            using Area = std::remove_cvref_t<decltype(area)>;
            if constexpr (!std::is_same_v<Area, Mark> && !std::is_same_v<Area, FloodFrom>) {
                for_each_span(area, Box{}, [](const Span&) {});
            }
        },
        figure);
}

Box bounds(const Figure& figure) {
    return std::visit(
        [](const auto& area) {
            if constexpr (std::is_same_v<decltype(area), const Mark&>) {
                return Box{.at = area.at, .size = {.width = 1, .height = 1}};
            } else if constexpr (std::is_same_v<decltype(area), const FloodFrom&>) {
                return Box{.at = area.from, .size = {.width = 1, .height = 1}};
            } else {
                return bounds(area);
            }
        },
        figure);
}

std::string explain_unseen(const Scene& scene, const DrawingCall& call) {
    const auto sheet = Box{.at = {.x = 0, .y = 0}, .size = scene.size};
    return scene.name + ":" + std::to_string(call.place.line) + ":" + std::to_string(call.place.column) +
           ": nothing of this " + call.words + " shows: " + reason(bounds(call.figure), sheet, call.clip.get());
}

}  // namespace coldbrick
