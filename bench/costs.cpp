// What a pixel costs by the size of the shape: measures fills, strokes and smooth ones of many sizes, and draws a plot
// of it. coldbrick_costs PLOT.png; what was measured goes to standard output, a line for each: kind, size, nanoseconds
// for a pixel.
#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <array>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <exception>
#include <limits>
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

// The least of some runs, in nanoseconds for a pixel.
double cost_of(Bitmap<Rgba8>& sheet, const Kind& kind, int size) {
    const auto room = sheet_size.width - size;
    std::vector<Figure> figures;
    const auto count = std::clamp(4000 / size, 3, 400);
    for (int i = 0; i < count; ++i)
        figures.push_back(kind.figure({i * 37 % std::min(room, 300), i * 53 % std::min(room, 300)}, size));
    const auto pixels = pixels_of(figures.front()) * count;
    const auto draw = [&] {
        for (const auto& figure : figures) fill(sheet, figure, kind.ink);
    };
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
        least = std::min(least, static_cast<double>(passed.count()) / times / pixels);
    }
    return least;
}

// Both axes are logarithmic: the size from 2 to 2000, the time from 0.05 to 100.
class Plot {
  public:
    Plot() : sheet_{{1280, 800}, 0x0b2239_rgb} {
        const auto faint = with_alpha(colors::white, 50);
        for (const auto value : {0.1, 1.0, 10.0, 100.0}) {
            stroke(sheet_, Line{.from = place(2, value), .to = place(2000, value)}, faint);
            write(in_words(value), place(2, value) - Point{12, 0}, TextAnchor::right);
        }
        for (const auto size : {2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000}) {
            stroke(sheet_, Line{.from = place(size, least), .to = place(size, most)}, faint);
            write(std::to_string(size), place(size, least) + Point{0, 22}, TextAnchor::center);
        }
        write("nanoseconds for a pixel, by the size of the shape in pixels (Rgba8, one thread)", {640, 36},
              TextAnchor::center);
    }

    void add(const Kind& kind, const std::vector<double>& costs) {
        std::vector<Point> points;
        for (std::size_t i = 0; i < costs.size(); ++i) points.push_back(place(sizes[i], costs[i]));
        stroke(sheet_, Polyline{.through = points}, {.width = 3, .join = Join::round, .edge = Edge::smooth},
               kind.color);
        for (const auto& point : points) fill(sheet_, Circle{.center = point, .radius = 4}, Edge::smooth, kind.color);
        const auto at = Point{120, 552 + 25 * listed_++};
        fill(sheet_, Box{.at = at, .size = {26, 5}}, kind.color);
        write(kind.name, at + Point{38, 3}, TextAnchor::left);
    }

    void save_as(const std::string& path) const { save(sheet_, path); }

  private:
    static constexpr auto least = 0.05;
    static constexpr auto most = 100.0;

    static Point place(double size, double cost) {
        const auto across = std::log(size / 2) / std::log(1000);
        const auto down = std::log(most / cost) / std::log(most / least);
        return {static_cast<int>(std::lround(100 + 1130 * across)), static_cast<int>(std::lround(70 + 660 * down))};
    }
    static std::string in_words(double value) { return value < 1 ? "0.1" : std::to_string(static_cast<int>(value)); }
    void write(const std::string& words, Point at, TextAnchor anchor) {
        fill(sheet_, Text{.words = words, .at = {at.x + 0.0, at.y + 0.0}, .anchor = anchor, .height = 13}, Edge::smooth,
             colors::white);
    }

    Bitmap<Rgb8> sheet_;
    int listed_ = 0;
};

}  // namespace

int main(int count, char** words) {
    if (count != 2) {
        std::fputs("coldbrick_costs PLOT.png\n", stderr);
        return 2;
    }
    try {
        Bitmap<Rgba8> sheet{sheet_size, gray(20)};
        Plot plot;
        for (const auto& kind : kinds()) {
            std::vector<double> costs;
            for (const auto size : sizes) {
                costs.push_back(cost_of(sheet, kind, size));
                std::printf("%s, %d, %.3f\n", kind.name.c_str(), size, costs.back());
            }
            plot.add(kind, costs);
        }
        plot.save_as(words[1]);
    } catch (const std::exception& error) {
        std::fprintf(stderr, "%s\n", error.what());
        return 1;
    }
    return 0;
}
