// Areas with smooth edges against the textbook's loop, which has the same chords to work out in the call.
#include "spans.hpp"
#include "textbook_corners.hpp"

#include <coldbrick/path.hpp>
#include <coldbrick/smooth_region.hpp>

#include <cstdio>
#include <cstdlib>
#include <string>
#include <vector>

namespace bench {

namespace {

constexpr auto smooth = Edge::smooth;

constexpr auto place_on_sheet = Point{.x = 300, .y = 200};
std::ptrdiff_t first_pixel(const Bitmap<Rgba8>& of) {
    return std::ptrdiff_t{place_on_sheet.y} * of.size().width + place_on_sheet.x;
}

// Ours draws at a place on the sheet; the textbook fills what make(corners) makes of so many pixels.
template <class Draw, class Make>
void add_area(const std::string& name, double allowed, Size size, const Draw& draw, const Make& make,
              const std::shared_ptr<Bitmap<Rgba8>>& bitmap = shared_bitmap<Rgba8>()) {
    const auto areas = std::make_shared<TextbookAreas>(size.width, size.height);
    const auto at = place_on_sheet;
    add({.name = name,
         .reference = "textbook loop",
         .allowed = allowed,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(draw(*bitmap, at)); },
         .other =
             [=] {
                 make(*areas);
                 auto* const pixels =
                     reinterpret_cast<std::uint32_t*>(const_cast<std::uint8_t*>(bitmap->bytes().data()));
                 areas->paint(pixels + first_pixel(*bitmap), static_cast<std::size_t>(bitmap->size().width),
                              0xff3ab2e8U);
                 written(pixels);
             }});
}

// The textbook's loop measures the same areas, where outlines are simple: else its times would mean nothing.
void check_textbook() {
    constexpr auto size = 60;
    const auto leaf = Leaf{48};
    TextbookAreas areas{size, size};
    areas.contour(leaf.corners());
    std::vector<int> coverage(static_cast<std::size_t>(size) * size);
    areas.take([&](int x, int y, float part) {
        coverage[static_cast<std::size_t>(y * size + x)] = static_cast<int>(part * 255 + 0.5F);
    });
    // Pixels' centres are half a pixel away from their corners.
    const auto path = leaf.path({});
    const auto moved =
        transformed(filled(path, {.edges = Edges::shared, .edge = smooth}), Transform{}.move({-0.5, -0.5}));
    for_each_coverage(moved, {.at = {}, .size = {.width = size, .height = size}},
                      [&](int y, int x, int count, int part) {
                          for (auto i = x; i < x + count; ++i) coverage[static_cast<std::size_t>(y * size + i)] -= part;
                      });
    for (const auto off : coverage) {
        if (std::abs(off) <= 1) continue;
        std::fprintf(stderr, "the textbook's loop is off by %d of 255\n", off);
        std::exit(1);
    }
}

void add_leaves() {
    struct Row {
        int size;
        double fill;
        double stroke;
    };
    for (const auto& [size, most_fill, most_stroke] : {Row{10, 2, 3}, Row{40, 1.5, 2}, Row{200, 1, 1}}) {
        const auto leaf = Leaf{double{1} * size};
        const auto pixels = Size{.width = size + size / 10 + 9, .height = size + size / 10 + 9};
        const auto of_size = ", " + std::to_string(size) + " pixels wide";
        const auto path = leaf.path({.x = 300, .y = 200});
        add_area(
            "smooth path of two cubics" + of_size, most_fill, pixels,
            [=](auto& to, Point) { return fill(to, path, smooth, ink); },
            [=](TextbookAreas& areas) { areas.contour(leaf.corners()); });
        add_area(
            "its stroke of width 2" + of_size, most_stroke, pixels,
            [=](auto& to, Point) { return stroke(to, path, {.width = 2, .edge = smooth}, ink); },
            [=](TextbookAreas& areas) { areas.contour(contour_of(leaf.corners(), 2)); });
    }
}

void add_arcs() {
    struct Row {
        int radius;
        double arc;
        double sector;
    };
    constexpr auto sweep = Sweep{.from = 20_deg, .by = 200_deg};
    constexpr auto degree = std::numbers::pi / 180;
    for (const auto& [radius, most_arc, most_sector] : {Row{5, 1.5, 1.5}, Row{20, 1, 1}, Row{100, 0.7, 0.3}}) {
        const auto pixels = Size{.width = 2 * radius + 6, .height = 2 * radius + 6};
        const auto of_size = ", radius " + std::to_string(radius);
        const auto circle_at = [radius = radius](Point at) {
            return Circle{.center = {at.x + radius + 2, at.y + radius + 2}, .radius = radius};
        };
        const auto rim = [radius = radius](double beyond) {
            Corners corners;
            const auto middle = static_cast<float>(radius) + 2.5F;
            add_arc(corners, {middle, middle}, radius + beyond, 20 * degree, 200 * degree);
            return corners;
        };
        add_area(
            "smooth arc of width 2" + of_size, most_arc, pixels,
            [=](auto& to, Point at) {
                return stroke(to, Arc{.of = circle_at(at), .sweep = sweep}, {.width = 2, .edge = smooth}, ink);
            },
            [=](TextbookAreas& areas) {
                auto corners = rim(1);
                const auto inner = rim(-1);
                corners.insert(corners.end(), inner.rbegin(), inner.rend());
                areas.contour(corners);
            });
        add_area(
            "smooth sector" + of_size, most_sector, pixels,
            [=](auto& to, Point at) { return fill(to, Sector{.of = circle_at(at), .sweep = sweep}, smooth, ink); },
            [=, radius = radius](TextbookAreas& areas) {
                auto corners = rim(0.5);
                corners.push_back({static_cast<float>(radius) + 2.5F, static_cast<float>(radius) + 2.5F});
                areas.contour(corners);
            });
    }
}

void add_stars_and_lines() {
    for (const auto& [radius, allowed] : {std::pair{5, 1.5}, std::pair{20, 0.7}}) {
        const auto star_at = [radius = radius](Point at) {
            return star({.center = {at.x + radius + 2, at.y + radius + 2}, .radius = radius, .points = 5});
        };
        add_area(
            "smooth five-pointed star, radius " + std::to_string(radius), allowed,
            {.width = 2 * radius + 6, .height = 2 * radius + 6},
            [=](auto& to, Point at) { return fill(to, star_at(at), smooth, ink); },
            [=](TextbookAreas& areas) {
                Corners corners;
                const auto shape = star_at({});
                for (const auto at : shape.rings().front()) corners.push_back(placed(at.x + 0.5, at.y + 0.5));
                areas.contour(corners);
            });
    }
    for (const auto& [length, allowed, dashed] : {std::array{10.0, 1.0, 3.0}, std::array{40.0, 0.7, 2.5}}) {
        const auto far = static_cast<int>(length);
        const auto draw = [=](const Stroke& how) {
            return [=](auto& to, Point at) {
                return stroke(to, Line{.from = {at.x + 2, at.y + 2}, .to = {at.x + 2 + far, at.y + 2 + far / 3}}, how,
                              ink);
            };
        };
        const auto make = [=](TextbookAreas& areas) {
            add_quad(areas, {2.5F, 2.5F}, placed(2.5 + far, 2.5 + far / 3), 2);
        };
        const auto pixels = Size{.width = far + 6, .height = far / 3 + 6};
        const auto of_size = ", " + std::to_string(far) + " pixels long";
        add_area("smooth line of width 2" + of_size, allowed, pixels, draw({.width = 2, .edge = smooth}), make);
        add_area("the same, dashed 5,3" + of_size, dashed, pixels, draw({.width = 2, .dash = {5, 3}, .edge = smooth}),
                 make);
    }
}

void add_chart() {
    constexpr auto columns = 1160;
    constexpr auto height = 500;
    constexpr auto count = 5000;
    Polyline line;
    auto seed = 1U;
    for (auto i = 0; i < count; ++i) {
        seed = seed * 1664525U + 1013904223U;
        line.through.push_back({.x = 302 + i * columns / count,
                                .y = 450 + static_cast<int>(90 * std::sin(i * 0.004)) + static_cast<int>(seed >> 27U)});
    }
    auto below = line.through;
    below.push_back({.x = 302 + columns, .y = 690});
    below.push_back({.x = 302, .y = 690});
    const auto area = Polygon{below};
    const auto place = [](Point at) { return placed(at.x - 300 + 0.5, at.y - 200 + 0.5); };
    const auto pixels = Size{.width = columns + 8, .height = height};
    add_area(
        "smooth chart: polyline of 5,000 points, width 2", 1.5, pixels,
        [=](auto& to, Point) { return stroke(to, line, {.width = 2, .edge = smooth}, ink); },
        [=](TextbookAreas& areas) {
            for (std::size_t i = 1; i < line.through.size(); ++i) {
                add_quad(areas, place(line.through[i - 1]), place(line.through[i]), 2);
            }
        });
    add_area(
        "smooth area below it", 1.5, pixels, [=](auto& to, Point) { return fill(to, area, smooth, ink); },
        [=](TextbookAreas& areas) {
            Corners corners;
            for (const auto at : below) corners.push_back(place(at));
            areas.contour(corners);
        });
}

// A polygon of 5,000 points around a middle, each so far out.
Polygon::Vertices around(Point middle, const std::function<double(double angle)>& radius_at) {
    constexpr auto count = 5000;
    Polygon::Vertices points;
    for (auto i = 0; i < count; ++i) {
        const auto angle = 2 * std::numbers::pi * i / count;
        const auto radius = radius_at(angle);
        points.push_back({.x = middle.x + static_cast<int>(radius * std::cos(angle)),
                          .y = middle.y + static_cast<int>(radius * std::sin(angle))});
    }
    return points;
}

// Both rows of one polygon in a square of pixels.
void add_island(const std::string& name, double fill_allowed, double stroke_allowed, int pixels,
                const std::function<double(double angle)>& radius_at) {
    const auto middle = Point{.x = place_on_sheet.x + pixels / 2, .y = place_on_sheet.y + pixels / 2};
    const auto points = around(middle, radius_at);
    const auto island = Polygon{points};
    const auto make = [=](TextbookAreas& areas) {
        Corners corners;
        for (const auto at : points) {
            corners.push_back(placed(at.x - place_on_sheet.x + 0.5, at.y - place_on_sheet.y + 0.5));
        }
        areas.contour(corners);
    };
    const auto size = Size{.width = pixels, .height = pixels};
    const auto bitmap = std::make_shared<Bitmap<Rgba8>>(
        Size{.width = place_on_sheet.x + pixels, .height = place_on_sheet.y + pixels}, gray(20));
    add_area(
        name, fill_allowed, size, [=](auto& to, Point) { return fill(to, island, smooth, ink); }, make, bitmap);
    add_area(
        name + ", stroked by 2, against the fill", stroke_allowed, size,
        [=](auto& to, Point) { return stroke(to, island, {.width = 2, .edge = smooth}, ink); }, make, bitmap);
}

// A coast with bays and rocks; and one that is all spikes, each beside the next and 32 pixels long.
void add_coasts() {
    const auto seed = std::make_shared<unsigned>(1U);
    const auto rough = [seed](int bits) {
        *seed = *seed * 1664525U + 1013904223U;
        return static_cast<double>(*seed >> (32U - static_cast<unsigned>(bits)));
    };
    add_island("smooth coast: polygon of 5,000 points", 0.5, 2, 2160,
               [=](double angle) { return 1000 + 40 * std::sin(5 * angle) + 25 * std::sin(13 * angle) + rough(3); });
    add_island("smooth coast of 5,000 spikes", 0, 0, 804, [=](double) { return 360 + rough(5); });
}

// Against the same with crisp edges, and against a shape that is known by formula.
void add_unions() {
    const auto bitmap = shared_bitmap<Rgba8>();
    Path capsules;
    auto seed = 1U;
    const auto number = [&](int most) {
        seed = seed * 1664525U + 1013904223U;
        return static_cast<int>((seed >> 8U) % static_cast<unsigned>(most));
    };
    for (auto i = 0; i < 200; ++i) {
        const auto from = Point{.x = 300 + number(200), .y = 200 + number(150)};
        capsules.move(from).line({from.x + number(60) - 30, from.y + number(60) - 30});
    }
    const auto pen = [](Edge edge) { return Stroke{.width = 25, .cap = Cap::round, .edge = edge}; };
    add({.name = "path of 200 overlapping capsules, smooth",
         .reference = "the same, crisp",
         .allowed = 2,
         .items = 1,
         .ours = [=] { stroke(*bitmap, capsules, pen(Edge::smooth), ink); },
         .other = [=] { stroke(*bitmap, capsules, pen(Edge::crisp), ink); }});
    const auto circle = Circle{.center = {400, 400}, .radius = 320};
    const auto thin = Stroke{.width = 2, .edge = Edge::smooth};
    add({.name = "region of radius 320, stroked by 2, smooth",
         .reference = "the circle",
         .allowed = 6,
         .items = 1,
         .ours = [=, region = Region{circle}] { stroke(*bitmap, region, thin, ink); },
         .other = [=] { stroke(*bitmap, circle, thin, ink); }});
}

}  // namespace

void add_areas() {
    check_textbook();
    add_leaves();
    add_arcs();
    add_stars_and_lines();
    add_chart();
    add_coasts();
    add_unions();
}

}  // namespace bench
