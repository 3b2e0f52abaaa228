#include "scene/evaluate.hpp"

#include "scene/grammar.hpp"
#include "scene/report.hpp"

#include <algorithm>
#include <array>

namespace coldbrick {

namespace detail {

namespace {

// The arguments of a statement that the grammar has passed, by name.
class Arguments {
  public:
    Arguments(const ParsedStatement& statement, ValueReader& values, Faults& faults)
        : statement_{statement}, values_{values}, faults_{faults} {}

    [[nodiscard]] bool has(std::string_view name) const { return find(name) != nullptr; }

    std::optional<Point> point(std::string_view name) { return pair(name, -max_coordinate); }

    std::optional<Size> size(std::string_view name) {
        const auto read = pair(name, 1);
        return read ? std::optional{Size{.width = read->x, .height = read->y}} : std::nullopt;
    }

    std::optional<Radii> radii(std::string_view name) {
        const auto read = pair(name, 0);
        return read ? std::optional{Radii{.x = read->x, .y = read->y}} : std::nullopt;
    }

    std::optional<int> radius(std::string_view name) { return values_.whole(value(name), 0, max_coordinate); }

    std::optional<Color> color(std::string_view name) { return values_.color(value(name)); }

    // One list for each time the keyword is given.
    std::optional<std::vector<Ring>> lists(std::string_view name) {
        std::vector<Ring> lists;
        auto complete = true;
        for (const auto& argument : statement_.arguments) {
            if (argument.keyword.text != name) continue;
            auto& list = lists.emplace_back();
            for (const auto& word : argument.values) {
                const auto point = values_.pair(word, -max_coordinate, max_coordinate);
                complete = complete && point;
                list.push_back(point.value_or(Point{}));
            }
        }
        return complete ? std::optional{std::move(lists)} : std::nullopt;
    }

    // Which of two words is given; the first if the keyword is not.
    template <class Choice>
    std::optional<Choice> choice(std::string_view name, std::string_view first_word, Choice first,
                                 std::string_view second_word, Choice second) {
        if (!has(name)) return first;
        const auto& word = value(name);
        if (word.text == first_word) return first;
        if (word.text == second_word) return second;
        faults_.add(word, "unknown " + std::string{name} + " " + quoted(word.text),
                    "allowed are " + std::string{first_word} + " and " + std::string{second_word});
        return std::nullopt;
    }

  private:
    [[nodiscard]] const Argument* find(std::string_view name) const {
        const auto found = std::find_if(statement_.arguments.begin(), statement_.arguments.end(),
                                        [&](const Argument& a) { return a.keyword.text == name; });
        return found == statement_.arguments.end() ? nullptr : &*found;
    }

    [[nodiscard]] const Word& value(std::string_view name) const { return find(name)->values.front(); }

    std::optional<Point> pair(std::string_view name, int least) {
        return values_.pair(value(name), least, max_coordinate);
    }

    const ParsedStatement& statement_;
    ValueReader& values_;
    Faults& faults_;
};

std::optional<Figure> read_mark(Arguments& given) {
    const auto at = given.point("at");
    return at ? std::optional<Figure>{Mark{.at = *at}} : std::nullopt;
}

std::optional<Box> read_box(Arguments& given) {
    if (given.has("at")) {
        const auto at = given.point("at");
        const auto size = given.size("size");
        return at && size ? std::optional{Box{.at = *at, .size = *size}} : std::nullopt;
    }
    const auto from = given.point("from");
    const auto to = given.point("to");
    return from && to ? std::optional{Box::between({.from = *from, .to = *to})} : std::nullopt;
}

std::optional<Circle> read_circle(Arguments& given) {
    const auto center = given.point("center");
    const auto radius = given.radius("radius");
    return center && radius ? std::optional{Circle{.center = *center, .radius = *radius}} : std::nullopt;
}

std::optional<Ellipse> read_ellipse(Arguments& given) {
    if (given.has("at")) {
        const auto box = read_box(given);
        return box ? std::optional{Ellipse::within(*box)} : std::nullopt;
    }
    const auto center = given.point("center");
    const auto radii = given.radii("radii");
    return center && radii ? std::optional{Ellipse::around({.center = *center, .radii = *radii})} : std::nullopt;
}

std::optional<Polygon> read_polygon(Arguments& given) {
    auto rings = given.lists("through");
    return rings ? std::optional{Polygon{std::move(*rings)}} : std::nullopt;
}

std::optional<Figure> read_filled_polygon(Arguments& given) {
    auto polygon = read_polygon(given);
    const auto rule = given.choice("rule", "evenodd", FillRule::even_odd, "nonzero", FillRule::nonzero);
    const auto edges = given.choice("edges", "inclusive", Edges::inclusive, "shared", Edges::shared);
    if (!polygon || !rule || !edges) return std::nullopt;
    return filled(std::move(*polygon), {.rule = *rule, .edges = *edges});
}

std::optional<Figure> read_line(Arguments& given) {
    if (given.has("through")) {
        auto lists = given.lists("through");
        if (!lists) return std::nullopt;
        return stroked(Polyline{.through = std::move(lists->front()), .closed = given.has("closed")});
    }
    const auto from = given.point("from");
    const auto to = given.point("to");
    if (!from || !to) return std::nullopt;
    return stroked(Line{.from = *from, .to = *to});
}

// A shape filled, and stroked.
template <auto read>
std::optional<Figure> read_filled(Arguments& given) {
    auto shape = read(given);
    return shape ? std::optional<Figure>{std::move(*shape)} : std::nullopt;
}

template <auto read>
std::optional<Figure> read_stroked(Arguments& given) {
    auto shape = read(given);
    return shape ? std::optional<Figure>{stroked(std::move(*shape))} : std::nullopt;
}

std::optional<Figure> read_figure(const std::string& words, Arguments& given) {
    struct Reader {
        std::string_view words;
        std::optional<Figure> (*read)(Arguments&);
    };
    constexpr auto readers = std::to_array<Reader>({{"mark", read_mark},
                                                    {"fill box", read_filled<read_box>},
                                                    {"fill circle", read_filled<read_circle>},
                                                    {"fill ellipse", read_filled<read_ellipse>},
                                                    {"fill polygon", read_filled_polygon},
                                                    {"stroke line", read_line},
                                                    {"stroke box", read_stroked<read_box>},
                                                    {"stroke circle", read_stroked<read_circle>},
                                                    {"stroke ellipse", read_stroked<read_ellipse>},
                                                    {"stroke polygon", read_stroked<read_polygon>}});
    const auto* const reader =
        std::find_if(readers.begin(), readers.end(), [&](const Reader& r) { return r.words == words; });
    return reader->read(given);
}

}  // namespace

void check_start(const std::vector<Statement>& statements, Faults& faults) {
    constexpr auto advice = "begin with, for example: sheet size 720,450 ink navy";
    if (statements.empty()) {
        faults.add({.text = "", .place = {.line = 1, .column = 1}}, "the scene is empty", advice);
        return;
    }
    const auto& first = statements[0].words[0];
    const auto is_drawing = first.text != "sheet" && std::find(verbs.begin(), verbs.end(), first.text) != verbs.end();
    if (is_drawing) faults.add(first, "the first statement must be the sheet", advice);
}

void evaluate_sheet(const ParsedStatement& statement, ValueReader& values, Faults& faults, Scene& scene) {
    Arguments given{statement, values, faults};
    const auto size = given.size("size");
    const auto ground = given.has("ink") ? given.color("ink") : std::optional{gray(255)};
    if (!size || !ground) return;
    constexpr auto most_pixel_bytes = 4U;
    const auto bytes =
        std::uint64_t{most_pixel_bytes} * static_cast<unsigned>(size->width) * static_cast<unsigned>(size->height);
    if (bytes > max_bitmap_bytes) {
        const auto& word = statement.arguments.front().keyword.text == "size"
                               ? statement.arguments.front().values.front()
                               : statement.arguments.back().values.front();
        faults.add(word, "the sheet has too many pixels; allowed are " +
                             std::to_string(max_bitmap_bytes / most_pixel_bytes) + " in all");
    }
    scene.size = *size;
    scene.ground = *ground;
}

void evaluate_drawing(const ParsedStatement& statement, ValueReader& values, Faults& faults, Scene& scene) {
    Arguments given{statement, values, faults};
    auto figure = read_figure(statement.words(), given);
    const auto ink = given.color("ink");
    if (!figure || !ink) return;
    scene.calls.push_back(
        {.figure = std::move(*figure), .ink = *ink, .place = statement.verb.place, .words = statement.words()});
}

}  // namespace detail

Scene parse_scene(std::string_view text, std::string_view name) {
    detail::Faults faults;
    detail::ValueReader values{faults};
    Scene scene{.name = std::string{name}, .size = {}, .ground = {}, .calls = {}};
    const auto statements = detail::split_statements(text, faults);
    detail::check_start(statements, faults);
    auto sheet_seen = false;
    for (const auto& statement : statements) {
        const auto& verb = statement.words[0];
        const auto is_sheet = verb.text == "sheet";
        if (is_sheet && sheet_seen) {
            faults.add(verb, "the sheet is given twice", "a scene has one sheet, its first statement");
            continue;
        }
        sheet_seen = sheet_seen || is_sheet;
        const auto parsed = detail::parse_statement(statement, faults);
        if (!parsed) continue;
        (is_sheet ? detail::evaluate_sheet : detail::evaluate_drawing)(*parsed, values, faults, scene);
    }
    if (faults.count() == 0) return scene;
    detail::throw_scene_error(std::move(faults).sorted(), text, name);
}

}  // namespace coldbrick
