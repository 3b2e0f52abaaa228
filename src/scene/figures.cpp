#include "scene/figures.hpp"

#include "scene/read_shapes.hpp"
#include "scene/shape_statements.hpp"
#include "scene/texts.hpp"

#include <algorithm>
#include <optional>
#include <string>
#include <variant>

namespace coldbrick::inline v0::detail {

namespace {

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
    auto points = whole(places);
    if (given.has("from")) {
        to.emplace(Figure{stroked(Line{.from = points[0], .to = points[1]}, *how)});
    } else {
        to.emplace(Figure{stroked(Polyline{.through = std::move(points), .closed = is_closed}, *how)});
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
