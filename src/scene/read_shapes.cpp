#include "scene/read_shapes.hpp"

#include <algorithm>
#include <cmath>

namespace coldbrick::inline v0::detail {

std::optional<std::vector<std::vector<Position>>> Arguments::lists(Key key) {
    std::vector<std::vector<Position>> lists;
    auto complete = true;
    for (const auto& argument : of_.given) {
        if (argument.keyword != key.number()) continue;
        auto& list = lists.emplace_back();
        list.reserve(argument.value_count);
        for (std::uint32_t i = 0; i < argument.value_count; ++i) {
            const auto place = values_.position(given(argument.first_value + i), -max_coordinate, max_coordinate);
            complete = complete && place;
            list.push_back(place.value_or(Position{}));
        }
    }
    return complete ? std::optional{std::move(lists)} : std::nullopt;
}

namespace {

constexpr auto most_points = 1'000'000;

bool is_whole(double value) noexcept { return value == std::trunc(value); }
bool is_whole(Position at) noexcept { return is_whole(at.x) && is_whole(at.y); }
int whole(double value) noexcept { return static_cast<int>(value); }
Point whole(Position at) noexcept { return {.x = whole(at.x), .y = whole(at.y)}; }

std::optional<Anchor> read_anchor(Arguments& given) {
    return given.choice<Anchor>("anchor", {{"top_left", Anchor::top_left},
                                           {"top", Anchor::top},
                                           {"top_right", Anchor::top_right},
                                           {"left", Anchor::left},
                                           {"center", Anchor::center},
                                           {"right", Anchor::right},
                                           {"bottom_left", Anchor::bottom_left},
                                           {"bottom", Anchor::bottom},
                                           {"bottom_right", Anchor::bottom_right}});
}

std::optional<Box> read_plain_box(Arguments& given) {
    if (given.has("at")) {
        const auto at = given.point("at");
        const auto size = given.size("size");
        const auto anchor = read_anchor(given);
        if (!at || !size || !anchor) return std::nullopt;
        return Box::placed({.anchor = *anchor, .at = *at, .size = *size});
    }
    const auto from = given.point("from");
    const auto to = given.point("to");
    return from && to ? std::optional{Box::between({.from = *from, .to = *to})} : std::nullopt;
}

// sweep 197,243: from, to, clockwise unless it says counterclockwise; or sweep 197 by -46.
std::optional<Sweep> read_sweep(Arguments& given) {
    const auto sweep = given.value("sweep");
    constexpr auto advice = "a sweep is two angles, as in 197,243, or one and how far, as in 197 by -46";
    const auto is_pair = sweep.size() == 1 && sweep[0].value.kind == ValueKind::pair;
    if (sweep.size() + (is_pair ? 1 : 0) != (given.has("by") ? 1U : 2U)) {
        given.faults().add(sweep.word(), in_quotes(sweep.word().text) + " is no sweep", advice);
        return std::nullopt;
    }
    const auto both = sweep[0].value;
    const auto end = [&](bool is_second) {
        if (!is_pair) return given.values().angle(sweep[is_second ? 1 : 0]);
        return given.values().angle({sweep.of, 0, Value::number(is_second ? both.y : both.x)});
    };
    const auto from = end(false);
    if (given.has("by")) {
        const auto by = given.angle_or("by", {});
        if (given.has("counterclockwise")) {
            given.faults().add(given.word("by"), "the sign of 'by' says which way round", advice);
            return std::nullopt;
        }
        return from && by ? std::optional{Sweep{.from = *from, .by = *by}} : std::nullopt;
    }
    const auto to = end(true);
    if (!from || !to) return std::nullopt;
    const auto ends = Sweep::Ends{.from = *from, .to = *to};
    return given.has("counterclockwise") ? Sweep::counter_clockwise(ends) : Sweep::clockwise(ends);
}

}  // namespace

bool are_whole(const std::vector<Position>& places) {
    return std::all_of(places.begin(), places.end(), [](Position at) { return is_whole(at); });
}

std::vector<Point> whole(const std::vector<Position>& places) {
    std::vector<Point> points;
    points.reserve(places.size());
    for (const auto at : places) points.push_back(whole(at));
    return points;
}

Either<RoundedBox, subpixel::RoundedBox> read_box(Arguments& given) {
    constexpr auto least = 1.0 / 256;
    if (given.has("at") && !given.has("anchor")) {
        const auto at = given.position("at");
        const auto size = given.position("size", least);
        if (!at || !size) return std::nullopt;
        const auto radius = given.real_or("corner_radius", 0, 0, std::min(size->x, size->y) / 2);
        if (!radius) return std::nullopt;
        if (!is_whole(*at) || !is_whole(*size) || !is_whole(*radius)) {
            return subpixel::RoundedBox{.box = {.at = *at, .size = {size->x, size->y}}, .corner_radius = *radius};
        }
        return RoundedBox{.box = {.at = whole(*at), .size = {whole(size->x), whole(size->y)}},
                          .corner_radius = whole(*radius)};
    }
    const auto box = read_plain_box(given);
    if (!box) return std::nullopt;
    const auto radius = given.whole_or("corner_radius", 0, 0, std::min(box->size.width, box->size.height) / 2);
    if (!radius) return std::nullopt;
    return RoundedBox{.box = *box, .corner_radius = *radius};
}

Either<Circle, subpixel::Circle> read_circle(Arguments& given) {
    if (given.has("center")) {
        const auto center = given.position("center");
        const auto radius = given.real_or("radius", 0, 0, max_coordinate);
        if (!center || !radius) return std::nullopt;
        if (!is_whole(*center) || !is_whole(*radius)) return subpixel::Circle{.center = *center, .radius = *radius};
        return Circle{.center = whole(*center), .radius = whole(*radius)};
    }
    const auto radius = given.whole("radius", 0, max_coordinate);
    const auto at = given.point("at");
    const auto anchor = read_anchor(given);
    if (!at || !radius || !anchor) return std::nullopt;
    return Circle::placed({.anchor = *anchor, .at = *at, .radius = *radius});
}

Either<Ellipse, subpixel::Ellipse> read_ellipse(Arguments& given) {
    const auto turned = given.angle_or("turned", {});
    if (given.has("radius")) {
        const auto circle = read_circle(given);
        if (!circle) return std::nullopt;
        if (const auto* const of = std::get_if<Circle>(&*circle)) return Ellipse{*of};
        return subpixel::Ellipse{std::get<subpixel::Circle>(*circle)};
    }
    if (given.has("at")) {
        const auto box = read_plain_box(given);
        if (!box || !turned) return std::nullopt;
        return Ellipse::within(*box).turned(*turned);
    }
    const auto center = given.position("center");
    const auto radii = given.position("radii", 0);
    if (!center || !radii || !turned) return std::nullopt;
    if (!is_whole(*center) || !is_whole(*radii)) {
        return subpixel::Ellipse::around({.center = *center, .radii = *radii, .turned = *turned});
    }
    return Ellipse::around({.center = whole(*center), .radii = {whole(radii->x), whole(radii->y)}, .turned = *turned});
}

namespace {

// An Arc, Sector or Chord.
template <class Whole, class Fraction>
Either<Whole, Fraction> read_round_part(Arguments& given) {
    const auto of = read_ellipse(given);
    const auto sweep = read_sweep(given);
    if (!of || !sweep) return std::nullopt;
    if (const auto* const ellipse = std::get_if<Ellipse>(&*of)) return Whole{.of = *ellipse, .sweep = *sweep};
    return Fraction{.of = std::get<subpixel::Ellipse>(*of), .sweep = *sweep};
}

}  // namespace

Either<Arc, subpixel::Arc> read_arc(Arguments& given) { return read_round_part<Arc, subpixel::Arc>(given); }
Either<Sector, subpixel::Sector> read_sector(Arguments& given) {
    return read_round_part<Sector, subpixel::Sector>(given);
}
Either<Chord, subpixel::Chord> read_chord(Arguments& given) { return read_round_part<Chord, subpixel::Chord>(given); }

Either<Polygon, subpixel::Polygon> read_polygon(Arguments& given) {
    if (given.has("through")) {
        auto rings = given.lists("through");
        if (!rings) return std::nullopt;
        if (!std::all_of(rings->begin(), rings->end(), are_whole)) return subpixel::Polygon{std::move(*rings)};
        std::vector<Polygon::Vertices> whole_rings;
        for (const auto& ring : *rings) whole_rings.push_back(whole(ring));
        return Polygon{std::move(whole_rings)};
    }
    const auto center = given.position("center");
    const auto radius = given.real_or("radius", 0, 0, max_coordinate);
    const auto points = given.whole("points", 3, most_points);
    const auto turned = given.angle_or("turned", {});
    if (!center || !radius || !points || !turned) return std::nullopt;
    if (!is_whole(*center) || !is_whole(*radius)) {
        return subpixel::regular_polygon({.center = *center, .radius = *radius, .points = *points, .turned = *turned});
    }
    return regular_polygon({.center = whole(*center), .radius = whole(*radius), .points = *points, .turned = *turned});
}

Either<Polygon, subpixel::Polygon> read_star(Arguments& given) {
    const auto center = given.position("center");
    const auto radius = given.real_or("radius", 0, 0, max_coordinate);
    const auto points = given.whole("points", 2, most_points);
    const auto turned = given.angle_or("turned", {});
    auto inner = std::optional<double>{};
    if (given.has("inner_radius")) {
        inner = given.real_or("inner_radius", 0, 0, radius.value_or(max_coordinate));
        if (!inner) return std::nullopt;
    }
    if (!center || !radius || !points || !turned) return std::nullopt;
    if (!is_whole(*center) || !is_whole(*radius) || !is_whole(inner.value_or(0))) {
        return subpixel::star(
            {.center = *center, .radius = *radius, .points = *points, .inner_radius = inner, .turned = *turned});
    }
    const auto inner_pixels = inner ? std::optional{whole(*inner)} : std::nullopt;
    return star({.center = whole(*center),
                 .radius = whole(*radius),
                 .points = *points,
                 .inner_radius = inner_pixels,
                 .turned = *turned});
}

// ring center 80,60 radius 40 inner_radius 28, and for a part of it a sweep.
Either<Ring, subpixel::Ring> read_ring(Arguments& given) {
    const auto center = given.position("center");
    const auto radius = given.real_or("radius", 0, 0, max_coordinate);
    const auto inner = given.real_or("inner_radius", 0, 0, radius.value_or(max_coordinate));
    auto sweep = std::optional<Sweep>{};
    if (given.has("sweep")) {
        sweep = read_sweep(given);
        if (!sweep) return std::nullopt;
    }
    if (!center || !radius || !inner) return std::nullopt;
    if (!is_whole(*center) || !is_whole(*radius) || !is_whole(*inner)) {
        return subpixel::Ring{.center = *center, .radius = *radius, .inner_radius = *inner, .sweep = sweep};
    }
    return Ring{.center = whole(*center), .radius = whole(*radius), .inner_radius = whole(*inner), .sweep = sweep};
}

}  // namespace coldbrick::inline v0::detail
