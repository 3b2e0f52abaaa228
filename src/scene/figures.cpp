#include "scene/figures.hpp"

#include "scene/shape_statements.hpp"
#include "scene/texts.hpp"

#include <algorithm>
#include <cmath>
#include <functional>
#include <limits>
#include <optional>
#include <string>
#include <variant>

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

// A shape in whole pixels, or with coordinates that are not whole.
template <class Whole, class Fraction>
using Either = std::optional<std::variant<Whole, Fraction>>;

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

// An Arc, Sector or Chord.
template <class Whole, class Fraction>
Either<Whole, Fraction> read_round_part(Arguments& given) {
    const auto of = read_ellipse(given);
    const auto sweep = read_sweep(given);
    if (!of || !sweep) return std::nullopt;
    if (const auto* const ellipse = std::get_if<Ellipse>(&*of)) return Whole{.of = *ellipse, .sweep = *sweep};
    return Fraction{.of = std::get<subpixel::Ellipse>(*of), .sweep = *sweep};
}
constexpr auto read_arc = read_round_part<Arc, subpixel::Arc>;
constexpr auto read_sector = read_round_part<Sector, subpixel::Sector>;
constexpr auto read_chord = read_round_part<Chord, subpixel::Chord>;

bool are_whole(const std::vector<Position>& places) {
    return std::all_of(places.begin(), places.end(), [](Position at) { return is_whole(at); });
}

std::vector<Point> whole(const std::vector<Position>& places) {
    std::vector<Point> points;
    points.reserve(places.size());
    for (const auto at : places) points.push_back(whole(at));
    return points;
}

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

// "M 10,80 C ...": a fault is reported at its place in the string.
std::optional<std::variant<Path>> read_path(Arguments& given) { return read_path_data(given, "data"); }

std::optional<Fill> read_fill(Arguments& given) {
    if (!given.has_any({"rule", "edges"})) {
        const auto edge = given.edge();
        return edge ? std::optional{Fill{.edge = *edge}} : std::nullopt;
    }
    const auto rule =
        given.choice<FillRule>("rule", {{"even_odd", FillRule::even_odd}, {"nonzero", FillRule::nonzero}});
    const auto edges = given.choice<Edges>("edges", {{"inclusive", Edges::inclusive}, {"shared", Edges::shared}});
    const auto edge = given.edge();
    if (!rule || !edges || !edge) return std::nullopt;
    return Fill{.rule = *rule, .edges = *edges, .edge = *edge};
}

bool read_line(Arguments& given, std::optional<Drawn>& to) {
    auto how = read_stroke(given);
    std::vector<Position> places;
    if (given.has("through")) {
        auto lists = given.lists("through");
        if (!lists || !how) return false;
        places = std::move(lists->front());
    } else {
        const auto from = given.position("from");
        const auto end = given.position("to");
        if (!from || !end || !how) return false;
        places = {*from, *end};
    }
    const auto is_closed = given.has("closed");
    if (!are_whole(places)) {
        to.emplace(Figure{stroked(subpixel::Polyline{.through = std::move(places), .closed = is_closed}, *how)});
        return true;
    }
    if (given.has("from")) {
        to.emplace(Figure{stroked(Line{.from = whole(places[0]), .to = whole(places[1])}, *how)});
    } else {
        to.emplace(Figure{stroked(Polyline{.through = whole(places), .closed = is_closed}, *how)});
    }
    return true;
}

// A shape filled, and stroked.
template <auto read>
bool read_filled(Arguments& given, std::optional<Drawn>& to) {
    auto shape = read(given);
    const auto how = read_fill(given);
    if (!shape || !how) return false;
    std::visit([&](auto& of) { to.emplace(std::in_place_type<Figure>, filled(std::move(of), *how)); }, *shape);
    return true;
}

template <auto read>
bool read_stroked(Arguments& given, std::optional<Drawn>& to) {
    auto shape = read(given);
    const auto how = read_stroke(given);
    if (!shape || !how) return false;
    std::visit([&](auto& of) { to.emplace(std::in_place_type<Figure>, stroked(std::move(of), *how)); }, *shape);
    return true;
}

// What all texts take, and some more.
template <class... More>
std::vector<std::string_view> text_words(More... more) {
    return {more..., "face",           "height",       "em",        "weight",
            "slant", "letter_spacing", "line_spacing", "direction", "language"};
}

// Parts of circles and ellipses.
std::vector<StatementForm> round_parts() {
    return {{{"center", "radius", "sweep"}, {"by", "counterclockwise"}},
            {{"center", "radii", "sweep"}, {"by", "counterclockwise", "turned"}},
            {{"at", "size", "sweep"}, {"by", "counterclockwise", "turned", "anchor"}}};
}

std::vector<ShapeStatement> shapes_to_l() {
    return {{"arc",
             "circle's or ellipse's, and sweep FROM,TO",
             "or: sweep FROM by ANGLE [counterclockwise]. Only stroked",
             round_parts(),
             {},
             nullptr,
             read_stroked<read_arc>},
            {"box",
             "at X,Y size W,H",
             "or: from X,Y to X,Y (both corners belong to it); corner_radius R",
             {{{"at", "size"}, {"anchor", "corner_radius"}}, {{"from", "to"}, {"corner_radius"}}},
             {},
             read_filled<read_box>,
             read_stroked<read_box>},
            {"chord",
             "as arc",
             "what a straight line cuts off",
             round_parts(),
             {},
             read_filled<read_chord>,
             read_stroked<read_chord>},
            {"circle",
             "center X,Y radius R",
             "",
             {{{"center", "radius"}, {}}, {{"at", "radius"}, {"anchor"}}},
             {},
             read_filled<read_circle>,
             read_stroked<read_circle>},
            {"ellipse",
             "center X,Y radii RX,RY",
             "or: at X,Y size W,H; turned ANGLE",
             {{{"center", "radii"}, {"turned"}}, {{"at", "size"}, {"turned", "anchor"}}},
             {},
             read_filled<read_ellipse>,
             read_stroked<read_ellipse>},
            {"line",
             "from X,Y to X,Y",
             "or: through X,Y X,Y ... [closed]. Only stroked",
             {{{"from", "to"}, {}}, {{"through"}, {"closed"}}},
             {},
             nullptr,
             read_line}};
}

std::vector<ShapeStatement> shapes_from_p() {
    const std::vector<std::string_view> rules{"rule", "edges"};
    return {
        {"path",
         "data \"M 10,80 C 40,10 65,10 95,80\"",
         "path data as in SVG",
         {{{"data"}, {}}},
         rules,
         read_filled<read_path>,
         read_stroked<read_path>},
        {"polygon",
         "through X,Y X,Y X,Y ...",
         "or: center X,Y radius R points N. Also rule even_odd|nonzero,\nedges inclusive|shared; 'through' again "
         "begins another ring",
         {{{"through"}, {}}, {{"center", "radius", "points"}, {"turned"}}},
         rules,
         read_filled<read_polygon>,
         read_stroked<read_polygon>},
        {"ring",
         "center X,Y radius R inner_radius R",
         "a part of it with sweep FROM,TO",
         {{{"center", "radius", "inner_radius"}, {"sweep", "by", "counterclockwise"}}},
         {},
         read_filled<read_ring>,
         read_stroked<read_ring>},
        {"sector", "as arc", "a slice of it", round_parts(), {}, read_filled<read_sector>, read_stroked<read_sector>},
        {"star",
         "center X,Y radius R points N",
         "also inner_radius R, turned ANGLE",
         {{{"center", "radius", "points"}, {"inner_radius", "turned"}}},
         rules,
         read_filled<read_star>,
         read_stroked<read_star>},
        {"text",
         "\"WORDS\" at X,Y height N",
         "capitals are N high; anchor, also baseline|baseline_center|baseline_right;\nface line|pixel|tiny|NAME, "
         "weight N, slant ANGLE, wrap N, fit W,H [overflow shrink|cut],\nlines left|center|right|justified, "
         "letter_spacing N, line_spacing N, language TAG,\ndirection by_words|left_to_right|right_to_left; or "
         "along \"PATH\" [place start|center|end]",
         {{{"words", "at"}, text_words("anchor", "lines", "wrap", "fit", "overflow")},
          {{"words", "along"}, text_words("place", "side", "offset")}},
         {},
         read_filled<read_text>,
         read_stroked<read_text>}};
}

std::vector<ShapeStatement> all_shapes() {
    auto all = shapes_to_l();
    for (auto& shape : shapes_from_p()) all.push_back(std::move(shape));
    return all;
}

}  // namespace

std::optional<Drawn> read_mark(Arguments& given) {
    const auto at = given.point("at");
    return at ? std::optional<Drawn>{Mark{.at = *at}} : std::nullopt;
}

std::optional<Drawn> read_flood(Arguments& given) {
    const auto from = given.point("from");
    const auto tolerance = given.whole_or("tolerance", 0, 0, 255);
    const auto neighbors =
        given.choice<Neighbors>("neighbors", {{"four", Neighbors::four}, {"eight", Neighbors::eight}});
    if (!from || !tolerance || !neighbors) return std::nullopt;
    return FloodFrom{.from = *from, .tolerance = *tolerance, .neighbors = *neighbors};
}

std::optional<Path> read_path_data(Arguments& given, Key key) {
    const auto value = given.value(key);
    const auto& word = value.word();
    const auto text = given.values().text(value);
    if (!text) return std::nullopt;
    if (value.size() == 1 && value[0].value.kind == ValueKind::number) {
        given.faults().add(word, "path data stands between quotes",
                           "for example: " + std::string{key.name()} + " \"M 10,80 C 40,10 65,10 95,80\"");
        return std::nullopt;
    }
    try {
        return parse_path(*text);
    } catch (const PathError& error) {
        const auto what = std::string_view{error.what()};
        // As it is written only where nothing has been filled in.
        const auto is_as_written = word.text.size() == text->size() + 2;
        const auto at = std::min(error.position() + 1, word.text.size() - 1);
        given.faults().add(is_as_written ? part_of(word, at, at + 1) : word,
                           "in the path data: " + std::string{what.substr(what.find(": ", 6) + 2)});
        return std::nullopt;
    }
}

std::span<const ShapeStatement> shape_statements() {
    static const auto all = all_shapes();
    return all;
}

const ShapeStatement* shape_statement(std::string_view name) {
    const auto all = shape_statements();
    const auto found =
        std::find_if(all.begin(), all.end(), [&](const ShapeStatement& shape) { return shape.name == name; });
    return found == all.end() ? nullptr : &*found;
}

bool read_figure(const ShapeStatement& shape, bool is_stroked, Arguments& given, std::optional<Drawn>& to) {
    const auto is_filled = !is_stroked && shape.read_filled != nullptr;
    return is_filled ? shape.read_filled(given, to) : shape.read_stroked(given, to);
}

}  // namespace coldbrick::inline v0::detail
