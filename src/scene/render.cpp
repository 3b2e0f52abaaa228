// What of a scene shows.
#include "scene/budget.hpp"

#include <cmath>
#include <optional>
#include <string>

namespace coldbrick::inline v0 {

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

std::string reason(const Box& around, const Box& sheet, const std::optional<Box>& clip) {
    if (around.empty()) return "it covers no pixel at all";
    if (clip && clip->empty()) return "the clip that it is in has no pixel on the sheet";
    if (clip && !intersection(around, sheet).empty()) {
        return "it lies within " + in_words(around) + ", and the clip that it is in within " + in_words(*clip) +
               "; they have no pixel in common";
    }
    if (!intersection(around, sheet).empty()) {
        return "it lies within " + in_words(around) + ", but none of its pixels is on the sheet, " + in_words(sheet);
    }
    return "it lies at " + in_words(around) + ", " + side_of(around, sheet) + " the sheet, " + in_words(sheet);
}

}  // namespace

namespace {

// Where a call stands in its scene's text.
std::string place_of(const Scene& scene, std::size_t number) {
    const auto [line, column] = scene.place_of(number);
    const auto file = scene.file_of(number);
    return printable(file.empty() ? scene.name : file) + ":" + std::to_string(line) + ":" + std::to_string(column) +
           ": ";
}

}  // namespace

void detail::render(const Scene& scene, const Surface& surface, const TellCall& tell) {
    const Stopwatch watch{scene.seconds};
    CallRenderer renderer{scene.drawing, surface};
    for (std::size_t number = 0; number < scene.drawing.size(); ++number) {
        constexpr std::size_t between_looks = 16;
        if (number % between_looks == 0 && watch.is_over()) {
            throw Error{place_of(scene, number) + "drawing has taken longer than the " + in_digits(scene.seconds) +
                        " seconds that it may (limit seconds)"};
        }
        // Some faults depend on what is seen, and come up only now.
        try {
            tell(number, renderer.draw(number));
        } catch (const Error& error) {
            throw Error{place_of(scene, number) + error.what()};
        }
    }
}

std::string explain_unseen(const Scene& scene, std::size_t number) {
    const auto sheet = Box{.at = {.x = 0, .y = 0}, .size = scene.size};
    const auto call = scene.drawing[number];
    return place_of(scene, number) + "nothing of this " + scene.kind_of(number) +
           " shows: " + reason(call.bounds(), sheet, call.clip());
}

}  // namespace coldbrick::inline v0
