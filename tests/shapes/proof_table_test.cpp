// One table of shapes, each with how far a place is from the edge of its fill; from that, by brute force, what each
// fill and stroke covers: with every align, crisp and smooth, in whole and in fractional coordinates, as it is and
// placed.
#include "coverage_oracle.hpp"

#include <coldbrick/figure.hpp>
#include <coldbrick/path.hpp>
#include <coldbrick/region.hpp>

namespace {

using namespace coldbrick;
using namespace oracle;

// How far a place is from an edge, negative inside.
using Distance = std::function<Real(oracle::Place)>;

Distance rectangle(Real left, Real top, Real width, Real height, Real radius) {
    return [=](oracle::Place p) {
        const auto middle = oracle::Place{left + width / 2, top + height / 2};
        const auto q = oracle::Place{std::abs(p.x - middle.x) - width / 2 + radius,
                                     std::abs(p.y - middle.y) - height / 2 + radius};
        const auto beyond = oracle::Place{std::max(q.x, Real{0}), std::max(q.y, Real{0})};
        return size_of(beyond) + std::min(std::max(q.x, q.y), Real{0}) - radius;
    };
}

Distance disc(oracle::Place center, Real radius) {
    return [=](oracle::Place p) { return size_of(p - center) - radius; };
}

Distance ring(oracle::Place center, Real outer, Real inner) {
    return [=](oracle::Place p) {
        const auto away = size_of(p - center);
        return std::max(away - outer, inner - away);
    };
}

// Exact near the edge, where strokes are; elsewhere a distance that is too small.
Distance oval(const RoundEdge& edge) {
    return [=](oracle::Place p) {
        constexpr auto near_edge = Real{5.5L};
        const auto q = edge.own(p);
        const auto at_least = (size_of({q.x / edge.a, q.y / edge.b}) - 1) * std::min(edge.a, edge.b);
        return std::abs(at_least) > near_edge ? at_least : edge.distance(p);
    };
}

Real away_from_segment(oracle::Place p, oracle::Place a, oracle::Place b) {
    const auto part = std::clamp(along(p - a, b - a) / along(b - a, b - a), Real{0}, Real{1});
    return size_of(p - a - (b - a) * part);
}

// What of a disc lies in a sweep from its centre, or beyond the line between the ends of the arc; 0 < by < 360.
Distance swept(oracle::Place center, Real radius, Real from, Real by, bool is_chord) {
    return [=](oracle::Place p) {
        const auto q = p - center;
        const auto begin = at_angle(from) * radius;
        const auto end = at_angle(from + by) * radius;
        const auto in_turn = in_sweep(q, from, by, 0);
        const auto to_arc = in_turn ? std::abs(size_of(q) - radius) : std::min(size_of(q - begin), size_of(q - end));
        const auto to_lines = is_chord ? away_from_segment(q, begin, end)
                                       : std::min(away_from_segment(q, {}, begin), away_from_segment(q, {}, end));
        const auto is_beyond = across(end - begin, q - begin) <= 0;
        const auto in_part = is_chord ? is_beyond : in_turn;
        const auto is_inside = size_of(q) <= radius && in_part;
        const auto least = std::min(to_arc, to_lines);
        return is_inside ? -least : least;
    };
}

struct Row {
    std::string name;
    std::function<Figure(const Fill&)> fill;
    std::function<Figure(const Stroke&)> stroke;
    Distance distance;
};

template <class Shape>
Row row(const std::string& name, const Shape& shape, const Distance& distance) {
    return {name, [=](const Fill& how) { return Figure{filled(shape, how)}; },
            [=](const Stroke& how) { return Figure{stroked(shape, how)}; }, distance};
}

// Whole coordinates are centres of pixels: edges lie half a pixel further.
std::vector<Row> table() {
    const Sweep sweep{.from = Angle::degrees(33), .by = Angle::degrees(212)};
    const Circle circle{.center = {31, 27}, .radius = 14};
    const subpixel::Circle fine{.center = {30.25, 27.5}, .radius = 13.75};
    const auto ellipse = Ellipse::around({.center = {31, 27}, .radii = {18, 12}, .turned = Angle::degrees(25)});
    return {
        row("box", Box{{14, 15}, {31, 22}}, rectangle(13.5L, 14.5L, 31, 22, 0)),
        row("fine box", subpixel::Box{{14.25, 15.5}, {30.5, 21.75}}, rectangle(13.75L, 15, 30.5L, 21.75L, 0)),
        row("rounded box", RoundedBox{.box = {{14, 15}, {31, 22}}, .corner_radius = 8},
            rectangle(13.5L, 14.5L, 31, 22, 8)),
        row("fine rounded box", subpixel::RoundedBox{.box = {{14.25, 15.5}, {30.5, 21.75}}, .corner_radius = 7.25},
            rectangle(13.75L, 15, 30.5L, 21.75L, 7.25L)),
        row("circle", circle, disc({31, 27}, 14.5L)),
        row("fine circle", fine, disc({30.25L, 27.5L}, 14.25L)),
        row("ellipse", ellipse, oval(RoundEdge::of(ellipse))),
        row("ring", Ring{.center = {31, 27}, .radius = 15, .inner_radius = 7}, ring({31, 27}, 15.5L, 6.5L)),
        row("fine ring", subpixel::Ring{.center = {30.25, 27.5}, .radius = 14.5, .inner_radius = 6.25},
            ring({30.25L, 27.5L}, 15, 5.75L)),
        row("sector", Sector{.of = circle, .sweep = sweep}, swept({31, 27}, 14.5L, 33, 212, false)),
        row("fine sector", subpixel::Sector{.of = fine, .sweep = sweep},
            swept({30.25L, 27.5L}, 14.25L, 33, 212, false)),
        row("chord", Chord{.of = circle, .sweep = sweep}, swept({31, 27}, 14.5L, 33, 212, true)),
        row("fine chord", subpixel::Chord{.of = fine, .sweep = sweep}, swept({30.25L, 27.5L}, 14.25L, 33, 212, true)),
    };
}

constexpr Box window{.at = {0, 0}, .size = {62, 56}};

// A set of places, and whether all places within a pixel of one, and some more, are alike in it.
struct Set {
    Plane has;
    Plane is_alike_around;
};

// What lies between two distances from an edge.
Set between_distances(const Distance& distance, Real least, Real most) {
    return {[=](oracle::Place p) {
                const auto away = distance(p);
                return away <= most && away >= least;
            },
            [=](oracle::Place p) {
                const auto away = distance(p);
                return std::abs(away - most) > 1 && std::abs(away - least) > 1;
            }};
}

constexpr auto everywhere_inside = Real{-1000};

// What a figure covers as it is, and once more turned, made larger and moved. Smooth, one of `stride` pixels is looked
// at.
void expect_set(const Figure& figure, const Set& set, Edge how, int stride, const std::string& what) {
    const auto turn = Transform{}.turn_about({31, 27}, Angle::degrees(20)).scale_about({31, 27}, {0.9, 1.15});
    const auto compare = [&](const auto& area, const std::function<oracle::Place(oracle::Place)>& back,
                             const std::string& name) {
        const auto plane = [&](oracle::Place p) { return set.has(back(p)); };
        if (how == Edge::crisp) {
            const auto near_edges = question(plane);
            const auto answer = [&](Point pixel) {
                const auto center = back(place(pixel));
                if (!set.is_alike_around(center)) return near_edges(pixel);
                return set.has(center) ? Answer::in : Answer::out;
            };
            return expect_answers(area, answer, window, name, 0.04);
        }
        const auto found = coverage_of(area, window);
        auto worst = 0.0;
        for (auto i = 0; i < window.size.width * window.size.height; i += stride) {
            const Point pixel{i % window.size.width, i / window.size.width};
            const auto center = back(place(pixel));
            const auto share =
                set.is_alike_around(center) ? (set.has(center) ? 1.0L : 0.0L) : plane_share(plane, pixel);
            worst = std::max(worst, std::abs(static_cast<double>(share) * 255 - found[index_in(window, pixel)]));
        }
        EXPECT_LE(worst, 4) << name;
    };
    compare(
        figure, [](oracle::Place p) { return p; }, what);
    const auto inverse = turn.inverse();
    const auto back = [&](oracle::Place p) {
        const auto [x, y] = inverse(Position{static_cast<double>(p.x), static_cast<double>(p.y)});
        return oracle::Place{x, y};
    };
    compare(transformed(figure, turn), back, what + ", placed");
}

class ProofTable : public testing::TestWithParam<int> {};

TEST_P(ProofTable, FillsAndStrokesAreWhatTheirDistanceSays) {
    const auto shape = table()[static_cast<std::size_t>(GetParam())];
    const auto distance = shape.distance;
    // The distance from an ellipse is found by trying.
    const auto is_slow = shape.name == "ellipse";
    const auto stride = is_slow ? 61 : 5;
    for (const auto edge : {Edge::crisp, Edge::smooth}) {
        const auto edges = edge == Edge::crisp ? " crisp " : " smooth ";
        expect_set(shape.fill({.edge = edge}), between_distances(distance, everywhere_inside, 0), edge, stride,
                   shape.name + edges + "fill");
        for (const auto align : {Align::center, Align::inside, Align::outside}) {
            for (const auto width : {4, 3}) {
                if (is_slow && width == 3) continue;
                const auto out = align == Align::center ? width / 2 : align == Align::inside ? 0 : width;
                expect_set(shape.stroke({.width = width, .align = align, .join = Join::round, .edge = edge}),
                           between_distances(distance, Real(out - width), Real(out)), edge, stride,
                           shape.name + edges + "stroke " + std::to_string(width) + " align " +
                               std::to_string(static_cast<int>(align)));
            }
        }
    }
}

INSTANTIATE_TEST_SUITE_P(Shapes, ProofTable, testing::Range(0, static_cast<int>(table().size())));

// Convex, clockwise; what is filled is grown by half a pixel on each side.
struct Corners {
    std::vector<oracle::Place> at;

    [[nodiscard]] bool is_filled(oracle::Place p) const {
        for (std::size_t i = 0; i < at.size(); ++i) {
            const auto along_edge = at[(i + 1) % at.size()] - at[i];
            if (across(along_edge, p - at[i]) < -size_of(along_edge) / 2) return false;
        }
        return true;
    }
    [[nodiscard]] Real away(oracle::Place p) const {
        auto least = Real{1e9L};
        for (std::size_t i = 0; i < at.size(); ++i)
            least = std::min(least, away_from_segment(p, at[i], at[(i + 1) % at.size()]));
        return least;
    }
};

// Rule 4 for polygons and closed paths, of the edge and the fill.
Set stroke_of(const Corners& corners, Align align, int width) {
    const auto has = [=](oracle::Place p) {
        const auto away = corners.away(p);
        const auto filled = corners.is_filled(p);
        const auto half = Real(width) / 2;
        if (align == Align::inside) return filled && away <= width - 0.5L;
        if (align == Align::outside) return !filled && away <= width + 0.5L;
        return width % 2 == 1 ? away <= half : away <= half - 0.5L || (away <= half + 0.5L && !filled);
    };
    return {has, [=](oracle::Place p) { return corners.away(p) > width + 3; }};
}

TEST(ProofTable, PolygonsAndClosedPathsAreWhatTheirEdgeSays) {
    struct Outline {
        std::string name;
        Corners corners;
        std::function<Figure(const Fill&)> fill;
        std::function<Figure(const Stroke&)> stroke;
    };
    const auto outline = [](const std::string& name, Corners corners, const auto& shape) {
        return Outline{name, std::move(corners), [=](const Fill& how) { return Figure{filled(shape, how)}; },
                       [=](const Stroke& how) { return Figure{stroked(shape, how)}; }};
    };
    const std::vector<Outline> outlines{
        outline("polygon", {{{20, 14}, {44, 18}, {46, 36}, {26, 42}, {14, 30}}},
                Polygon{{20, 14}, {44, 18}, {46, 36}, {26, 42}, {14, 30}}),
        outline("fine polygon", {{{20.25L, 14.5L}, {44, 18.75L}, {45.5L, 36}, {26, 41.25L}, {14.75L, 30}}},
                subpixel::Polygon{{20.25, 14.5}, {44, 18.75}, {45.5, 36}, {26, 41.25}, {14.75, 30}}),
        outline("closed path", {{{20.25L, 14.5L}, {44, 18.75L}, {45.5L, 36}, {26, 41.25L}, {14.75L, 30}}},
                parse_path("M 20.25,14.5 L 44,18.75 45.5,36 26,41.25 14.75,30 Z"))};
    for (const auto& [name, corners, fill, stroke] : outlines) {
        // Crisp, they are those of hairlines, which other tests look at.
        {
            constexpr auto edge = Edge::smooth;
            const auto of = corners;
            expect_set(
                fill({.edge = edge}),
                {[=](oracle::Place p) { return of.is_filled(p); }, [=](oracle::Place p) { return of.away(p) > 2; }},
                edge, 5, name + " fill");
            for (const auto align : {Align::center, Align::inside, Align::outside}) {
                for (const auto width : {4, 3, 1}) {
                    expect_set(stroke({.width = width, .align = align, .join = Join::round, .edge = edge}),
                               stroke_of(corners, align, width), edge, 5,
                               name + " stroke " + std::to_string(width) + " align " +
                                   std::to_string(static_cast<int>(align)));
                }
            }
        }
    }
}

// A line covers half its width on each side, from half a pixel before its first point to half a pixel behind its last
// one; of even width, moved to the upper left by half a pixel.
TEST(ProofTable, LinesAreRectangles) {
    const auto expect_line = [](const auto& shape, oracle::Place from, oracle::Place to, const std::string& name) {
        for (const auto edge : {Edge::crisp, Edge::smooth}) {
            for (const auto width : {4, 3, 7}) {
                const auto moved = width % 2 == 0 ? oracle::Place{-0.5L, -0.5L} : oracle::Place{0, 0};
                const auto way = (to - from) * (1 / size_of(to - from));
                const auto inside = [=](oracle::Place p, Real slack) {
                    const auto q = p - from;
                    const auto beside = std::abs(across(way, q - moved));
                    return beside <= Real(width) / 2 + slack && along(way, q) >= -0.5L - slack &&
                           along(way, q) <= size_of(to - from) + 0.5L + slack;
                };
                expect_set(Figure{stroked(shape, {.width = width, .edge = edge})},
                           {[=](oracle::Place p) { return inside(p, 0); },
                            [=](oracle::Place p) { return inside(p, 1.5L) == inside(p, -1.5L); }},
                           edge, 5, name + " " + std::to_string(width));
            }
        }
    };
    expect_line(Line{.from = {12, 18}, .to = {47, 33}}, {12, 18}, {47, 33}, "line");
    expect_line(subpixel::Line{.from = {12.25, 40.5}, .to = {44.75, 14}}, {12.25L, 40.5L}, {44.75L, 14}, "fine line");
    expect_line(parse_path("M 12.25,40.5 L 44.75,14"), {12.25L, 40.5L}, {44.75L, 14}, "open path");
}

}  // namespace
