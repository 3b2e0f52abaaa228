#include "scene/figures.hpp"

#include <functional>
#include <limits>

namespace coldbrick::detail {

std::optional<std::vector<Ring>> Arguments::lists(std::string_view name) {
    std::vector<Ring> lists;
    auto complete = true;
    for (const auto& argument : given_) {
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

namespace {

constexpr auto most_points = 1'000'000;

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

std::optional<RoundedBox> read_box(Arguments& given) {
    const auto box = read_plain_box(given);
    if (!box) return std::nullopt;
    const auto radius = given.whole_or("round", 0, 0, std::min(box->size.width, box->size.height) / 2);
    return radius ? std::optional{RoundedBox{.box = *box, .corner_radius = *radius}} : std::nullopt;
}

std::optional<Circle> read_circle(Arguments& given) {
    const auto radius = given.whole("radius", 0, max_coordinate);
    if (given.has("center")) {
        const auto center = given.point("center");
        return center && radius ? std::optional{Circle{.center = *center, .radius = *radius}} : std::nullopt;
    }
    const auto at = given.point("at");
    const auto anchor = read_anchor(given);
    if (!at || !radius || !anchor) return std::nullopt;
    return Circle::placed({.anchor = *anchor, .at = *at, .radius = *radius});
}

std::optional<Ellipse> read_ellipse(Arguments& given) {
    const auto turned = given.angle_or("turned", {});
    if (given.has("radius")) {
        const auto circle = read_circle(given);
        return circle ? std::optional{Ellipse{*circle}} : std::nullopt;
    }
    if (given.has("at")) {
        const auto box = read_plain_box(given);
        return box && turned ? std::optional{Ellipse::within(*box).turned(*turned)} : std::nullopt;
    }
    const auto center = given.point("center");
    const auto radii = given.radii("radii");
    if (!center || !radii || !turned) return std::nullopt;
    return Ellipse::around({.center = *center, .radii = *radii, .turned = *turned});
}

// sweep 197,243: from, to, clockwise unless it says counterclockwise; or sweep 197 by -46.
std::optional<Sweep> read_sweep(Arguments& given) {
    const auto& word = given.value("sweep");
    const auto ends = split_at_commas(word);
    constexpr auto advice = "a sweep is two angles, as in 197,243, or one and how far, as in 197 by -46";
    if (ends.size() != (given.has("by") ? 1U : 2U)) {
        given.faults().add(word, quoted(word.text) + " is no sweep", advice);
        return std::nullopt;
    }
    const auto from = given.values().angle(ends[0]);
    if (given.has("by")) {
        const auto by = given.angle_or("by", {});
        if (given.has("counterclockwise")) {
            given.faults().add(given.value("by"), "the sign of 'by' says which way round", advice);
            return std::nullopt;
        }
        return from && by ? std::optional{Sweep{.from = *from, .by = *by}} : std::nullopt;
    }
    const auto to = given.values().angle(ends[1]);
    if (!from || !to) return std::nullopt;
    const auto both = Sweep::Ends{.from = *from, .to = *to};
    return given.has("counterclockwise") ? Sweep::counter_clockwise(both) : Sweep::clockwise(both);
}

// An Arc, Sector or Chord.
template <class Part>
std::optional<Part> read_round_part(Arguments& given) {
    const auto of = read_ellipse(given);
    const auto sweep = read_sweep(given);
    return of && sweep ? std::optional{Part{.of = *of, .sweep = *sweep}} : std::nullopt;
}

std::optional<Polygon> read_polygon(Arguments& given) {
    if (given.has("through")) {
        auto rings = given.lists("through");
        return rings ? std::optional{Polygon{std::move(*rings)}} : std::nullopt;
    }
    const auto center = given.point("center");
    const auto radius = given.whole("radius", 0, max_coordinate);
    const auto points = given.whole("points", 3, most_points);
    const auto turned = given.angle_or("turned", {});
    if (!center || !radius || !points || !turned) return std::nullopt;
    return regular_polygon({.center = *center, .radius = *radius, .points = *points, .turned = *turned});
}

std::optional<Polygon> read_star(Arguments& given) {
    const auto center = given.point("center");
    const auto radius = given.whole("radius", 0, max_coordinate);
    const auto points = given.whole("points", 2, most_points);
    const auto turned = given.angle_or("turned", {});
    auto inner = std::optional<int>{};
    if (given.has("inner_radius")) {
        inner = given.whole("inner_radius", 0, radius.value_or(max_coordinate));
        if (!inner) return std::nullopt;
    }
    if (!center || !radius || !points || !turned) return std::nullopt;
    return star({.center = *center, .radius = *radius, .points = *points, .inner_radius = inner, .turned = *turned});
}

// "M 10,80 C ...": a fault is told at its place in the string.
std::optional<Path> read_path(Arguments& given) {
    const auto& word = given.value("data");
    if (word.text.size() < 2 || !word.text.starts_with('"')) {
        given.faults().add(word, "path data stands between quotes",
                           "for example: data \"M 10,80 C 40,10 65,10 95,80\"");
        return std::nullopt;
    }
    try {
        return parse_path(std::string_view{word.text}.substr(1, word.text.size() - 2));
    } catch (const PathError& error) {
        const auto at = std::min(error.position() + 1, word.text.size() - 1);
        const auto what = std::string_view{error.what()};
        given.faults().add(part_of(word, at, at + 1),
                           "in the path data: " + std::string{what.substr(what.find(": ", 6) + 2)});
        return std::nullopt;
    }
}

std::optional<Fill> read_fill(Arguments& given) {
    const auto rule = given.choice<FillRule>("rule", {{"evenodd", FillRule::even_odd}, {"nonzero", FillRule::nonzero}});
    const auto edges = given.choice<Edges>("edges", {{"inclusive", Edges::inclusive}, {"shared", Edges::shared}});
    return rule && edges ? std::optional{Fill{.rule = *rule, .edges = *edges}} : std::nullopt;
}

std::optional<Figure> read_line(Arguments& given) {
    auto how = read_stroke(given);
    if (given.has("through")) {
        auto lists = given.lists("through");
        if (!lists || !how) return std::nullopt;
        return stroked(Polyline{.through = std::move(lists->front()), .closed = given.has("closed")}, *how);
    }
    const auto from = given.point("from");
    const auto to = given.point("to");
    if (!from || !to || !how) return std::nullopt;
    return stroked(Line{.from = *from, .to = *to}, *how);
}

std::optional<Figure> read_mark(Arguments& given) {
    const auto at = given.point("at");
    return at ? std::optional<Figure>{Mark{.at = *at}} : std::nullopt;
}

std::optional<Figure> read_flood(Arguments& given) {
    const auto from = given.point("from");
    const auto tolerance = given.whole_or("tolerance", 0, 0, 255);
    const auto neighbors =
        given.choice<Neighbors>("neighbors", {{"four", Neighbors::four}, {"eight", Neighbors::eight}});
    if (!from || !tolerance || !neighbors) return std::nullopt;
    return FloodFrom{.from = *from, .tolerance = *tolerance, .neighbors = *neighbors};
}

// A shape filled, filled by a rule, and stroked.
template <auto read>
std::optional<Figure> read_filled(Arguments& given) {
    auto shape = read(given);
    return shape ? std::optional<Figure>{std::move(*shape)} : std::nullopt;
}

template <auto read>
std::optional<Figure> read_filled_by_rule(Arguments& given) {
    auto shape = read(given);
    const auto how = read_fill(given);
    return shape && how ? std::optional<Figure>{filled(std::move(*shape), *how)} : std::nullopt;
}

template <auto read>
std::optional<Figure> read_stroked(Arguments& given) {
    auto shape = read(given);
    const auto how = read_stroke(given);
    return shape && how ? std::optional<Figure>{stroked(std::move(*shape), *how)} : std::nullopt;
}

struct FigureReader {
    std::string_view words;
    std::optional<Figure> (*read)(Arguments&);
};

constexpr auto readers = std::to_array<FigureReader>({{"mark", read_mark},
                                                      {"flood", read_flood},
                                                      {"fill box", read_filled<read_box>},
                                                      {"fill circle", read_filled<read_circle>},
                                                      {"fill ellipse", read_filled<read_ellipse>},
                                                      {"fill sector", read_filled<read_round_part<Sector>>},
                                                      {"fill chord", read_filled<read_round_part<Chord>>},
                                                      {"fill polygon", read_filled_by_rule<read_polygon>},
                                                      {"fill star", read_filled_by_rule<read_star>},
                                                      {"fill path", read_filled_by_rule<read_path>},
                                                      {"stroke line", read_line},
                                                      {"stroke arc", read_stroked<read_round_part<Arc>>},
                                                      {"stroke box", read_stroked<read_box>},
                                                      {"stroke circle", read_stroked<read_circle>},
                                                      {"stroke ellipse", read_stroked<read_ellipse>},
                                                      {"stroke sector", read_stroked<read_round_part<Sector>>},
                                                      {"stroke chord", read_stroked<read_round_part<Chord>>},
                                                      {"stroke polygon", read_stroked<read_polygon>},
                                                      {"stroke star", read_stroked<read_star>},
                                                      {"stroke path", read_stroked<read_path>}});

// The figure's pixels in a box, as a region.
Region region_of(const Figure& figure, const Box& within) {
    return std::visit(
        [&](const auto& area) {
            using Area = std::remove_cvref_t<decltype(area)>;
            if constexpr (std::is_same_v<Area, Mark> || std::is_same_v<Area, FloodFrom>) {
                return Region{};  // no part of a region
            } else {
                return Region{area, within};
            }
        },
        figure);
}

}  // namespace

std::optional<Figure> read_figure(std::string_view words, Arguments& given) {
    const auto* const reader =
        std::find_if(readers.begin(), readers.end(), [&](const FigureReader& r) { return r.words == words; });
    return reader->read(given);
}

std::optional<Stroke> read_stroke(Arguments& given) {
    const auto width = given.whole_or("width", 1, 1, max_coordinate);
    const auto align = given.choice<Align>(
        "align", {{"center", Align::center}, {"inside", Align::inside}, {"outside", Align::outside}});
    const auto cap = given.choice<Cap>("cap", {{"flush", Cap::flush}, {"square", Cap::square}, {"round", Cap::round}});
    const auto join =
        given.choice<Join>("join", {{"miter", Join::miter}, {"bevel", Join::bevel}, {"round", Join::round}});
    constexpr auto most_limit = 1e6;
    const auto limit = given.has("miter_limit") ? given.values().real(given.value("miter_limit"), 1, most_limit) : 4;
    auto dash = std::optional{std::vector<double>{}};
    if (given.has("dash")) dash = given.values().reals(given.value("dash"), 0, max_coordinate);
    const auto offset =
        given.has("dash_offset") ? given.values().real(given.value("dash_offset"), -max_coordinate, max_coordinate) : 0;
    if (!width || !align || !cap || !join || !limit || !dash || !offset) return std::nullopt;
    Stroke how{.width = *width,
               .align = *align,
               .cap = *cap,
               .join = *join,
               .miter_limit = *limit,
               .dash = std::move(*dash),
               .dash_offset = *offset};
    try {
        // What the numbers are together; it draws nothing.
        for_each_span(stroked(Line{}, how), Box{}, [](const Span&) {});
    } catch (const Error& error) {
        given.faults().add(given.value("dash"), std::string{error.what()});
        return std::nullopt;
    }
    return how;
}

std::optional<Region> read_region(const std::vector<RegionPart>& parts, const Box& within, ValueReader& values,
                                  Faults& faults) {
    auto region = std::optional{Region{}};
    for (const auto& part : parts) {
        Arguments given{part.arguments, values, faults};
        const auto words = (part.is_stroked ? "stroke " : "fill ") + part.shape.text;
        const auto figure = read_figure(words, given);
        if (!figure) {
            region = std::nullopt;
            continue;
        }
        if (!region) continue;
        const auto pixels = region_of(*figure, within);
        region = part.joiner == "minus"    ? difference(*region, pixels)
                 : part.joiner == "within" ? intersection(*region, pixels)
                 : part.joiner == "xor"    ? symmetric_difference(*region, pixels)
                                           : unite(*region, pixels);
    }
    return region;
}

}  // namespace coldbrick::detail
