// What of a scene shows.
#include "scene/budget.hpp"

#include <cmath>
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

// The box around the clips that a call is in; nothing if it is in none.
std::optional<Box> clip_of(const DrawingCall& call) {
    if (!call.cover) return call.clip ? std::optional{call.clip->bounds()} : std::nullopt;
    return call.clip ? intersection(call.clip->bounds(), call.cover->bounds()) : call.cover->bounds();
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

constexpr Size one_pixel{.width = 1, .height = 1};

}  // namespace

Point detail::placed(Point at, const Transform& by) {
    if (by.is_identity()) return at;
    const auto [x, y] = by(at);
    const auto whole = [](double value) {
        constexpr auto most = double{max_coordinate};
        if (!(std::fabs(value) <= most)) throw Error{"transform: it takes a pixel beyond what a coordinate may be"};
        return static_cast<int>(std::floor(value + 0.5));
    };
    return {.x = whole(x), .y = whole(y)};
}

void detail::with_area(const Drawn& drawn, const Transform& by, const std::function<void(const AreaRef&)>& use) {
    std::visit(
        [&](const auto& area) {
            using Area = std::remove_cvref_t<decltype(area)>;
            if constexpr (std::is_same_v<Area, Mark>) {
                const auto pixel = Box{.at = placed(area.at, by), .size = one_pixel};
                use(area_ref(pixel));
            } else if constexpr (std::is_same_v<Area, Pasted>) {
                const auto box = Box{.at = area.at, .size = area.picture->size()};
                const auto moved = area.by.then(by);
                if (moved.is_identity()) return use(area_ref(box));
                const auto turned = transformed(filled(box, {.edge = Edge::smooth}), moved);
                use(area_ref(turned));
            } else if constexpr (std::is_same_v<Area, Figure>) {
                const auto moved = area.transform().then(by);
                auto where = as_area(area);
                where.by = &moved;
                use(where);
            }
        },
        drawn);
}

Box detail::draw(const Surface& surface, const Drawn& drawn, const Transform& by, const Ink& ink) {
    auto touched = Box{};
    if (const auto* const flooded = std::get_if<FloodFrom>(&drawn)) {
        auto from = *flooded;
        from.from = placed(from.from, by);
        if (!contains(surface, from.from)) return touched;
        const auto region = flood(surface, from);
        return paint(surface, ink, area_ref(region));
    }
    if (const auto* const pasted = std::get_if<Pasted>(&drawn)) {
        const Paste how{.at = pasted->at, .laying = ink.how()};
        return paste(surface, SurfaceAccess::of(*pasted->picture), how, pasted->by.then(by));
    }
    with_area(drawn, by, [&](const AreaRef& area) { touched = paint(surface, ink, area); });
    return touched;
}

namespace {

// Where a call stands in its scene's text.
std::string place_of(const Scene& scene, const DrawingCall& call) {
    return printable(scene.name) + ":" + std::to_string(call.place.line) + ":" + std::to_string(call.place.column) +
           ": ";
}

}  // namespace

std::vector<Box> detail::render(const Scene& scene, const Surface& surface) {
    const Stopwatch watch{scene.seconds};
    std::vector<Box> touched;
    touched.reserve(scene.calls.size());
    for (const auto& call : scene.calls) {
        if (watch.is_over()) {
            throw Error{place_of(scene, call) + "drawing has taken longer than the " + in_digits(scene.seconds) +
                        " seconds that it may (limit seconds)"};
        }
        auto narrowed = surface;
        if (call.clip) narrowed = masked(narrowed, *call.clip);
        if (call.cover) narrowed = masked(narrowed, *call.cover);
        // Some faults depend on what is seen, and come up only now.
        try {
            touched.push_back(draw(narrowed, call.drawn, call.by, call.ink));
        } catch (const Error& error) {
            throw Error{place_of(scene, call) + error.what()};
        }
    }
    return touched;
}

void check(const Drawn& drawn, const Transform& by) {
    if (const auto* const flooded = std::get_if<FloodFrom>(&drawn)) (void)detail::placed(flooded->from, by);
    constexpr auto somewhere = Box{.at = {}, .size = one_pixel};
    detail::with_area(drawn, by,
                      [&](const detail::AreaRef& area) { for_each_span(area, somewhere, [](const Span&) {}); });
}

Box bounds(const Drawn& drawn, const Transform& by) {
    if (const auto* const flooded = std::get_if<FloodFrom>(&drawn)) {
        return {.at = detail::placed(flooded->from, by), .size = one_pixel};
    }
    auto box = Box{};
    detail::with_area(drawn, by, [&](const detail::AreaRef& area) { box = detail::bounds_of(area); });
    return box;
}

std::string explain_unseen(const Scene& scene, const DrawingCall& call) {
    const auto sheet = Box{.at = {.x = 0, .y = 0}, .size = scene.size};
    return place_of(scene, call) + "nothing of this " + call.words +
           " shows: " + reason(bounds(call.drawn, call.by), sheet, clip_of(call));
}

}  // namespace coldbrick
