// What shapes cost by their size, in two plots: nanoseconds for a pixel of fills, strokes and smooth ones; and the time
// of smooth outlines, as a part of that of the textbook's loop. coldbrick_costs PLOT.png; what was measured goes to
// standard output, a line for each: kind, size, nanoseconds for a pixel, or the part.
#include "textbook_corners.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <array>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <exception>
#include <limits>
#include <numbers>
#include <string>
#include <vector>

namespace {

using namespace coldbrick;

constexpr auto sheet_size = Size{.width = 2100, .height = 2100};
constexpr std::array sizes{3, 5, 8, 12, 20, 32, 50, 80, 125, 200, 320, 500, 800, 1250, 2000};

struct Kind {
    std::string name;
    Color color;
    Figure (*figure)(Point at, int size);
    Ink ink;
};

Circle circle(Point at, int size) {
    const auto radius = (size - 1) / 2;
    return {.center = {at.x + radius, at.y + radius}, .radius = radius};
}

std::vector<Kind> kinds() {
    const auto gold = Ink{colors::gold};
    return {
        {"box", colors::gold,
         [](Point at, int size) {
             return Figure{Box{.at = at, .size = {size, size}}};
         },
         gold},
        {"circle", colors::coral, [](Point at, int size) { return Figure{circle(at, size)}; }, gold},
        {"circle, translucent", colors::hotpink, [](Point at, int size) { return Figure{circle(at, size)}; },
         Ink{with_alpha(colors::gold, 100)}},
        {"circle, smooth", colors::lightskyblue,
         [](Point at, int size) { return Figure{filled(circle(at, size), Fill{.edge = Edge::smooth})}; }, gold},
        {"outline of a circle", colors::palegreen, [](Point at, int size) { return Figure{stroked(circle(at, size))}; },
         gold},
        {"outline, smooth", colors::mediumpurple,
         [](Point at, int size) { return Figure{stroked(circle(at, size), Stroke{.edge = Edge::smooth})}; }, gold},
        {"hairline", colors::white,
         [](Point at, int size) {
             return Figure{stroked(Line{.from = at, .to = {at.x + size - 1, at.y + size / 3}})};
         },
         gold},
    };
}

// The pixels that it touches.
double pixels_of(const Figure& figure) {
    auto count = 0.0;
    for_each_span(figure, Box{.at = {}, .size = sheet_size}, [&](const Span& run) { count += run.length; });
    return count;
}

// The least of some runs, in nanoseconds.
template <class Draw>
double time_of(const Draw& draw) {
    draw();
    auto least = std::numeric_limits<double>::infinity();
    for (int run = 0; run < 9; ++run) {
        const auto begin = std::chrono::steady_clock::now();
        auto times = 0;
        auto passed = std::chrono::nanoseconds{};
        do {
            draw();
            ++times;
            passed = std::chrono::steady_clock::now() - begin;
        } while (passed < std::chrono::milliseconds{2});
        least = std::min(least, static_cast<double>(passed.count()) / times);
    }
    return least;
}

// In nanoseconds for a pixel.
double cost_of(Bitmap<Rgba8>& sheet, const Kind& kind, int size) {
    const auto room = sheet_size.width - size;
    std::vector<Figure> figures;
    const auto count = std::clamp(4000 / size, 3, 400);
    for (int i = 0; i < count; ++i)
        figures.push_back(kind.figure({i * 37 % std::min(room, 300), i * 53 % std::min(room, 300)}, size));
    return time_of([&] {
               for (const auto& figure : figures) fill(sheet, figure, kind.ink);
           }) /
           (pixels_of(figures.front()) * count);
}

// A smooth outline of a size, drawn by the library and by the textbook's loop, which fills so many pixels.
struct Outline {
    std::string name;
    Color color;
    Figure (*figure)(int size);
    void (*make)(bench::TextbookAreas& areas, int size);
    Size (*room)(int size);
};

constexpr auto beside = 4;  // pixels beside each

Size square(int size) { return {.width = size + size / 4 + 2 * beside, .height = size + size / 4 + 2 * beside}; }

constexpr auto chart_height = 250;

std::vector<Point> chart_points(int columns) {
    std::vector<Point> points;
    auto seed = 1U;
    for (int i = 0; i <= 4 * columns; ++i) {
        seed = seed * 1664525U + 1013904223U;
        const auto wave = static_cast<int>(std::lround(90 * std::sin(i * 0.004)));
        points.push_back({beside + i / 4, chart_height / 2 + wave + static_cast<int>(seed >> 27U)});
    }
    return points;
}

bench::Place middle_of(Point pixel) { return bench::placed(pixel.x + 0.5, pixel.y + 0.5); }

const auto thin = Stroke{.width = 2, .edge = Edge::smooth};
constexpr auto sweep = Sweep{.from = 20_deg, .by = 200_deg};

Polygon star_of(int size) {
    const auto radius = size / 2;
    return star({.center = {beside + radius, beside + radius}, .radius = radius, .points = 5});
}

std::vector<Outline> outlines() {
    using bench::Leaf;
    using bench::TextbookAreas;
    return {
        {"path of two cubics", colors::gold,
         [](int size) { return Figure{filled(Leaf{double{1} * size}.path({}), Fill{.edge = Edge::smooth})}; },
         [](TextbookAreas& areas, int size) { areas.contour(Leaf{double{1} * size}.corners()); }, square},
        {"its stroke of width 2", colors::coral,
         [](int size) { return Figure{stroked(Leaf{double{1} * size}.path({}), thin)}; },
         [](TextbookAreas& areas, int size) { areas.contour(bench::contour_of(Leaf{double{1} * size}.corners(), 2)); },
         square},
        {"arc of width 2", colors::lightskyblue,
         [](int size) {
             const auto radius = size / 2;
             return Figure{stroked(
                 Arc{.of = Circle{.center = {beside + radius, beside + radius}, .radius = radius}, .sweep = sweep},
                 thin)};
         },
         [](TextbookAreas& areas, int size) {
             const auto middle = middle_of({beside + size / 2, beside + size / 2});
             constexpr auto degree = std::numbers::pi / 180;
             bench::Corners corners;
             bench::Corners inner;
             bench::add_arc(corners, middle, size / 2 + 1, 20 * degree, 200 * degree);
             bench::add_arc(inner, middle, size / 2 - 1, 20 * degree, 200 * degree);
             corners.insert(corners.end(), inner.rbegin(), inner.rend());
             areas.contour(corners);
         },
         square},
        {"five-pointed star", colors::palegreen,
         [](int size) { return Figure{filled(star_of(size), Fill{.edge = Edge::smooth})}; },
         [](TextbookAreas& areas, int size) {
             bench::Corners corners;
             const auto shape = star_of(size);
             for (const auto at : shape.rings().front()) corners.push_back(middle_of(at));
             areas.contour(corners);
         },
         square},
        {"line of width 2", colors::white,
         [](int size) {
             return Figure{stroked(Line{.from = {beside, beside}, .to = {beside + size, beside + size / 3}}, thin)};
         },
         [](TextbookAreas& areas, int size) {
             bench::add_quad(areas, middle_of({beside, beside}), middle_of({beside + size, beside + size / 3}), 2);
         },
         [](int size) { return Size{.width = size + 2 * beside, .height = size / 3 + 2 * beside}; }},
        {"chart, 4 points in a column", colors::mediumpurple,
         [](int size) { return Figure{stroked(Polyline{.through = chart_points(size)}, thin)}; },
         [](TextbookAreas& areas, int size) {
             const auto points = chart_points(size);
             for (std::size_t i = 1; i < points.size(); ++i)
                 bench::add_quad(areas, middle_of(points[i - 1]), middle_of(points[i]), 2);
         },
         [](int size) { return Size{.width = size + 2 * beside, .height = chart_height}; }},
    };
}

// The library's time as a part of the textbook's.
double part_of(Bitmap<Rgba8>& sheet, const Outline& outline, int size) {
    const auto figure = outline.figure(size);
    const auto ours = time_of([&] { fill(sheet, figure, Ink{colors::gold}); });
    const auto room = outline.room(size);
    bench::TextbookAreas areas{room.width, room.height};
    auto* const pixels = reinterpret_cast<std::uint32_t*>(const_cast<std::uint8_t*>(sheet.bytes().data()));
    const auto other = time_of([&] {
        outline.make(areas, size);
        areas.paint(pixels, sheet_size.width, 0xff00d7ffU);
    });
    return ours / other;
}

// What a plot shows: both axes are logarithmic, the size from 2 to 2000.
struct Axes {
    std::string title;
    double least;
    double most;
    std::vector<std::string> marks;  // of the upright axis, numbers
};

class Plot {
  public:
    Plot(Bitmap<Rgb8>& sheet, int left, const Axes& axes) : sheet_{sheet}, left_{left}, axes_{axes} {
        const auto faint = with_alpha(colors::white, 50);
        for (const auto& mark : axes.marks) {
            const auto value = std::stod(mark);
            stroke(sheet_, Line{.from = place(2, value), .to = place(2000, value)}, faint);
            write(mark, place(2, value) - Point{10, 0}, TextAnchor::right);
        }
        for (const auto size : {2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000}) {
            stroke(sheet_, Line{.from = place(size, axes.least), .to = place(size, axes.most)}, faint);
            if (size != 1000) write(std::to_string(size), place(size, axes.least) + Point{0, 20}, TextAnchor::center);
        }
        write(axes.title, {left + width / 2, 36}, TextAnchor::center);
    }

    void add(const std::string& name, Color color, const std::vector<double>& costs) {
        std::vector<Point> points;
        for (std::size_t i = 0; i < costs.size(); ++i) points.push_back(place(sizes[i], costs[i]));
        stroke(sheet_, Polyline{.through = points}, {.width = 3, .join = Join::round, .edge = Edge::smooth}, color);
        for (const auto& point : points) fill(sheet_, Circle{.center = point, .radius = 4}, Edge::smooth, color);
        const auto at = Point{left_ + listed_ % 2 * 250, 660 + 28 * (listed_ / 2)};
        ++listed_;
        fill(sheet_, Box{.at = at, .size = {26, 5}}, color);
        write(name, at + Point{36, 3}, TextAnchor::left);
    }

  private:
    static constexpr auto width = 540;

    [[nodiscard]] Point place(double size, double cost) const {
        const auto across = std::log(size / 2) / std::log(1000);
        const auto down = std::log(axes_.most / cost) / std::log(axes_.most / axes_.least);
        return {static_cast<int>(std::lround(left_ + width * across)), static_cast<int>(std::lround(70 + 530 * down))};
    }
    void write(const std::string& words, Point at, TextAnchor anchor) {
        fill(sheet_, Text{.words = words, .at = {at.x + 0.0, at.y + 0.0}, .anchor = anchor, .height = 12}, Edge::smooth,
             colors::white);
    }

    Bitmap<Rgb8>& sheet_;
    int left_;
    Axes axes_;
    int listed_ = 0;
};

void add_kinds(Plot& plot, Bitmap<Rgba8>& sheet) {
    for (const auto& kind : kinds()) {
        std::vector<double> costs;
        for (const auto size : sizes) {
            costs.push_back(cost_of(sheet, kind, size));
            std::printf("%s, %d, %.3f\n", kind.name.c_str(), size, costs.back());
        }
        plot.add(kind.name, kind.color, costs);
    }
}

void add_outlines(Plot& plot, Bitmap<Rgba8>& sheet) {
    for (const auto& outline : outlines()) {
        std::vector<double> parts;
        for (const auto size : sizes) {
            if (size + size / 4 + 2 * beside > sheet_size.width) break;
            parts.push_back(part_of(sheet, outline, size));
            std::printf("%s, %d, %.3f\n", outline.name.c_str(), size, parts.back());
        }
        plot.add(outline.name, outline.color, parts);
    }
}

}  // namespace

int main(int count, char** words) {
    if (count != 2) {
        std::fputs("coldbrick_costs PLOT.png\n", stderr);
        return 2;
    }
    try {
        Bitmap<Rgba8> sheet{sheet_size, gray(20)};
        Bitmap<Rgb8> picture{{1280, 800}, 0x0b2239_rgb};
        Plot pixels{picture, 70, {"nanoseconds for a pixel, by size in pixels", 0.05, 100, {"0.1", "1", "10", "100"}}};
        add_kinds(pixels, sheet);
        Plot outlines{
            picture,
            710,
            {"smooth outlines: time / textbook's, by size", 0.01, 10, {"0.01", "0.1", "0.5", "1", "2", "5", "10"}}};
        add_outlines(outlines, sheet);
        save(picture, words[1]);
    } catch (const std::exception& error) {
        std::fprintf(stderr, "%s\n", error.what());
        return 1;
    }
    return 0;
}
