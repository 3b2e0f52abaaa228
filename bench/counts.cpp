// Calls whose instructions are counted, by scripts/count.sh under valgrind's callgrind: what a call costs besides its
// pixels. Without valgrind it does nothing to speak of.
#include <coldbrick/draw.hpp>
#include <coldbrick/draw_each.hpp>
#include <coldbrick/drawing.hpp>
#include <coldbrick/gradient.hpp>
#include <coldbrick/path.hpp>
#include <coldbrick/pattern.hpp>

#include <cstdint>
#include <vector>

#include <valgrind/callgrind.h>

namespace {

using namespace coldbrick;

constexpr auto times = 1000;
constexpr auto gold = Color{.red = 0xe8, .green = 0xb2, .blue = 0x3a};

// What a textbook draws on: an array of pixels with a bounds check.
class PlainCanvas {
  public:
    explicit PlainCanvas(Size size) : size_{size}, pixels_(static_cast<std::size_t>(size.width * size.height)) {}
    // Not as a part of the loop around it, as calls are not.
    [[gnu::noinline]] void set(int x, int y, std::uint32_t pixel) {
        if (x < 0 || y < 0 || x >= size_.width || y >= size_.height) return;
        pixels_[static_cast<std::size_t>(y * size_.width + x)] = pixel;
    }

  private:
    Size size_;
    std::vector<std::uint32_t> pixels_;
};

// Places all over a small bitmap.
Point place(int i) noexcept { return {.x = 20 + i * 37 % 260, .y = 20 + i * 53 % 260}; }

// Draws some to warm up, and then counts so many.
template <class Draw>
void count(const char* name, const Draw& draw) {
    for (int i = 0; i < 16; ++i) draw(place(i));
    CALLGRIND_ZERO_STATS;
    for (int i = 0; i < times; ++i) draw(place(i));
    CALLGRIND_DUMP_STATS_AT(name);
    (void)name;
}

// Counts one call that draws as many of a list.
template <class Make, class Draw>
void count_list(const char* name, const Make& make, const Draw& draw) {
    std::vector<decltype(make(Point{}))> list;
    for (int i = 0; i < times; ++i) list.push_back(make(place(i)));
    draw(list);
    CALLGRIND_ZERO_STATS;
    draw(list);
    CALLGRIND_DUMP_STATS_AT(name);
    (void)name;
}

void count_lists(Bitmap<Rgba8>& sheet) {
    const auto multiply = Ink{gold, {.blend = Blend::multiply}};
    const auto as_it_is = [](Point at) { return at; };
    const auto circle = [](Point at) { return Circle{.center = at, .radius = 4}; };
    const auto box = [](Point at) { return Box{.at = at, .size = {.width = 9, .height = 9}}; };
    const auto line = [](Point at) { return Line{.from = at, .to = {at.x + 12, at.y + 5}}; };
    count_list("mark, in a list", as_it_is, [&](const auto& list) { mark_each(sheet, list, gold); });
    count_list("mark, multiply, in a list", as_it_is, [&](const auto& list) { mark_each(sheet, list, multiply); });
    count_list("circle of radius 4, in a list", circle, [&](const auto& list) { fill_each(sheet, list, gold); });
    count_list("box 9x9, in a list", box, [&](const auto& list) { fill_each(sheet, list, gold); });
    count_list("hairline within 13x13, in a list", line, [&](const auto& list) { stroke_each(sheet, list, gold); });
    const PreparedInk ready{sheet, multiply};
    count("mark, multiply, prepared", [&](Point at) { mark(sheet, at, ready); });
    count("circle of radius 4, multiply", [&](Point at) { fill(sheet, circle(at), multiply); });
    count("circle of radius 4, multiply, prepared", [&](Point at) { fill(sheet, circle(at), ready); });
}

void count_pixels(Bitmap<Rgba8>& sheet) {
    const auto one = [](Point at) { return Box{.at = at, .size = {.width = 1, .height = 1}}; };
    const auto slanted = LinearGradient{.from = {0, 0}, .to = {300, 200}, .stops = {{0, gray(9)}, {1, gold}}};
    const auto translucent = Ink{with_alpha(gold, 100)};
    const auto gradient = Ink{slanted};
    const auto pattern = Ink{Pattern::of(Bitmap<Rgba8>{{8, 8}, gold})};
    const auto multiply = Ink{gold, {.blend = Blend::multiply}};
    PlainCanvas canvas{{300, 300}};
    count("textbook pixel", [&](Point at) { canvas.set(at.x, at.y, 0xff3ab2e8U); });
    count("mark", [&](Point at) { mark(sheet, at, gold); });
    count("mark, translucent", [&](Point at) { mark(sheet, at, translucent); });
    count("mark, gradient", [&](Point at) { mark(sheet, at, gradient); });
    count("mark, pattern", [&](Point at) { mark(sheet, at, pattern); });
    count("mark, multiply", [&](Point at) { mark(sheet, at, multiply); });
    count("box of one pixel", [&](Point at) { fill(sheet, one(at), gold); });
    count("box of one pixel, translucent", [&](Point at) { fill(sheet, one(at), translucent); });
    count("box of one pixel, gradient", [&](Point at) { fill(sheet, one(at), gradient); });
    count("box of one pixel, pattern", [&](Point at) { fill(sheet, one(at), pattern); });
    count("box of one pixel, multiply", [&](Point at) { fill(sheet, one(at), multiply); });
}

// Small ones of the rows in areas.cpp.
void count_outlines(Bitmap<Rgba8>& sheet) {
    constexpr auto smooth = Edge::smooth;
    const auto line = [](Point at) { return Line{.from = at, .to = {at.x + 10, at.y + 3}}; };
    count("line 10 pixels long, smooth, width 2",
          [&](Point at) { stroke(sheet, line(at), {.width = 2, .edge = smooth}, gold); });
    count("line 10 pixels long, smooth, width 2, dashed", [&](Point at) {
        stroke(sheet, line(at), {.width = 2, .dash = {5, 3}, .edge = smooth}, gold);
    });
    count("star of radius 5, smooth",
          [&](Point at) { fill(sheet, star({.center = at, .radius = 5, .points = 5}), smooth, gold); });
    constexpr auto sweep = Sweep{.from = 20_deg, .by = 200_deg};
    const auto circle = [](Point at) { return Circle{.center = at, .radius = 5}; };
    count("sector of radius 5, smooth",
          [&](Point at) { fill(sheet, Sector{.of = circle(at), .sweep = sweep}, smooth, gold); });
    count("arc of radius 5, smooth, width 2",
          [&](Point at) { stroke(sheet, Arc{.of = circle(at), .sweep = sweep}, {.width = 2, .edge = smooth}, gold); });
    const auto leaf = [](Point at) {
        const auto place = [&](double x, double y) { return Position{at.x + 10 * x, at.y + 10 * y}; };
        return Path{}
            .move(place(0, 0.3))
            .cubic({.control_1 = place(0.3, -0.2), .control_2 = place(0.7, 0.2), .to = place(1, 0.4)})
            .cubic({.control_1 = place(1.1, 0.9), .control_2 = place(0.2, 1.1), .to = place(0, 0.3)})
            .close();
    };
    count("path of two cubics, 10 pixels wide, smooth", [&](Point at) { fill(sheet, leaf(at), smooth, gold); });
}

void count_shapes(Bitmap<Rgba8>& sheet) {
    const auto translucent = Ink{with_alpha(gold, 100)};
    const auto circle = [](Point at) { return Circle{.center = at, .radius = 4}; };
    const auto line = [](Point at) { return Line{.from = at, .to = {at.x + 12, at.y + 5}}; };
    const auto triangle = [](Point at) { return Polygon{at, {at.x + 12, at.y + 4}, {at.x + 3, at.y + 12}}; };
    count("circle of radius 4", [&](Point at) { fill(sheet, circle(at), gold); });
    count("circle of radius 4, translucent", [&](Point at) { fill(sheet, circle(at), translucent); });
    count("circle of radius 4, smooth", [&](Point at) { fill(sheet, circle(at), Edge::smooth, gold); });
    count("circle of radius 4, outline", [&](Point at) { stroke(sheet, circle(at), gold); });
    count("circle of radius 4, smooth stroke of width 2",
          [&](Point at) { stroke(sheet, circle(at), {.width = 2, .edge = Edge::smooth}, gold); });
    const auto ellipse = [](Point at) { return Ellipse::around({.center = at, .radii = {6, 4}}); };
    count("ellipse of radii 6 and 4, smooth", [&](Point at) { fill(sheet, ellipse(at), Edge::smooth, gold); });
    count("ellipse of radii 6 and 4, smooth stroke of width 2",
          [&](Point at) { stroke(sheet, ellipse(at), {.width = 2, .edge = Edge::smooth}, gold); });
    count("box 9x9", [&](Point at) { fill(sheet, Box{.at = at, .size = {.width = 9, .height = 9}}, gold); });
    count("hairline within 13x13", [&](Point at) { stroke(sheet, line(at), gold); });
    count("hairline within 13x13, translucent", [&](Point at) { stroke(sheet, line(at), translucent); });
    count("triangle within 13x13", [&](Point at) { fill(sheet, triangle(at), gold); });
    count("triangle within 13x13, smooth", [&](Point at) { fill(sheet, triangle(at), Edge::smooth, gold); });
    count_outlines(sheet);
    Drawing drawing;
    count("circle of radius 4, recorded", [&](Point at) { fill(drawing, circle(at), gold); });
}

}  // namespace

int main() {
    Bitmap<Rgba8> sheet{{300, 300}, gray(20)};
    count_pixels(sheet);
    count_shapes(sheet);
    count_lists(sheet);
    return 0;
}
