// Many small shapes: against textbook loops that test each pixel, and the time for each of a million.
#include "spans.hpp"

#include <coldbrick/draw.hpp>
#include <coldbrick/draw_each.hpp>
#include <coldbrick/drawing.hpp>

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <memory>
#include <random>
#include <string>

namespace bench {

namespace {

using namespace coldbrick;

// What a textbook draws on: an array of pixels with a bounds check. The same memory as ours, so that both find the same
// in the caches.
template <class Pixel>
struct PlainCanvas {
    Pixel* pixels;

    void set(int x, int y) const {
        if (x < 0 || y < 0 || x >= sheet.width || y >= sheet.height) return;
        pixels[static_cast<std::size_t>(y) * sheet.width + static_cast<std::size_t>(x)] =
            static_cast<Pixel>(0xff3ab2e8U);
    }
};

// The midpoint line for all directions, one pixel after the other.
template <class Pixel>
void textbook_line(PlainCanvas<Pixel> canvas, const Line& line) {
    auto [x, y] = line.from;
    const auto dx = std::abs(line.to.x - x);
    const auto dy = -std::abs(line.to.y - y);
    const auto step_x = x < line.to.x ? 1 : -1;
    const auto step_y = y < line.to.y ? 1 : -1;
    auto error = dx + dy;
    while (true) {
        canvas.set(x, y);
        if (x == line.to.x && y == line.to.y) return;
        const auto twice = 2 * error;
        if (twice >= dy) {
            error += dy;
            x += step_x;
        }
        if (twice <= dx) {
            error += dx;
            y += step_y;
        }
    }
}

template <class Pixel>
void textbook_circle(PlainCanvas<Pixel> canvas, const Circle& circle) {
    const auto r = circle.radius;
    for (int dy = -r; dy <= r; ++dy) {
        for (int dx = -r; dx <= r; ++dx) {
            if (dx * dx + dy * dy <= r * r + r) canvas.set(circle.center.x + dx, circle.center.y + dy);
        }
    }
}

template <class Pixel>
void textbook_box(PlainCanvas<Pixel> canvas, const Box& box) {
    for (int y = box.at.y; y < box.at.y + box.size.height; ++y) {
        for (int x = box.at.x; x < box.at.x + box.size.width; ++x) canvas.set(x, y);
    }
}

// Each pixel of the box around it is tested against the three sides, in whole numbers.
template <class Pixel>
void textbook_triangle(PlainCanvas<Pixel> canvas, const Polygon& triangle) {
    const auto& p = triangle.rings().front();
    const auto [left, right] = std::minmax({p[0].x, p[1].x, p[2].x});
    const auto [top, bottom] = std::minmax({p[0].y, p[1].y, p[2].y});
    const auto side = [](Point a, Point b, int x, int y) { return (b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x); };
    for (int y = top; y <= bottom; ++y) {
        for (int x = left; x <= right; ++x) {
            const auto a = side(p[0], p[1], x, y);
            const auto b = side(p[1], p[2], x, y);
            const auto c = side(p[2], p[0], x, y);
            if ((a >= 0 && b >= 0 && c >= 0) || (a <= 0 && b <= 0 && c <= 0)) canvas.set(x, y);
        }
    }
}

template <class Shape, class Make>
std::shared_ptr<std::vector<Shape>> many_shapes(std::size_t count, const Make& make) {
    std::mt19937 random{20};
    auto shapes = std::make_shared<std::vector<Shape>>();
    const auto number = [&](int least, int most) { return std::uniform_int_distribution{least, most}(random); };
    while (shapes->size() < count) shapes->push_back(make(number));
    return shapes;
}

template <PixelFormat Format, class Pixel, class Shape, class Ours, class Other>
void add_against(const std::string& name, const std::string& reference, double allowed,
                 const std::shared_ptr<std::vector<Shape>>& shapes, const Ours& ours, const Other& other) {
    const auto memory = std::make_shared<std::vector<Pixel>>(std::size_t{sheet.width} * sheet.height);
    add({.name = name,
         .reference = reference,
         .allowed = allowed,
         .items = static_cast<double>(shapes->size()),
         .ours =
             [=] {
                 Pixels<Format> view{{.top_left = memory->data(), .size = sheet}};
                 for (const auto& shape : *shapes) benchmark::DoNotOptimize(ours(view, shape));
             },
         .other =
             [=] {
                 const PlainCanvas<Pixel> canvas{memory->data()};
                 for (const auto& shape : *shapes) other(canvas, shape);
                 written(memory->data());
             }});
}

// Drawing against only finding the spans: the rest of the time is spent on writing pixels.
template <class Area>
void add_million(const std::string& name, const std::shared_ptr<std::vector<Area>>& areas) {
    const auto bitmap = std::make_shared<Bitmap<Rgba8>>(sheet, gray(20));
    add({.name = "each of 1 million: " + name,
         .reference = "its spans alone",
         .allowed = 0,
         .items = static_cast<double>(areas->size()),
         .ours =
             [=] {
                 for (const auto& area : *areas) benchmark::DoNotOptimize(fill(*bitmap, area, ink));
             },
         .other =
             [=] {
                 for (const auto& area : *areas) {
                     benchmark::DoNotOptimize(for_each_span(area, {.at = {}, .size = sheet}, [](const Span& run) {
                         benchmark::DoNotOptimize(run.length);
                     }));
                 }
             }});
}

// Translucent ones against opaque ones.
template <class Shape, class Draw>
void add_translucent(const std::string& name, const std::shared_ptr<std::vector<Shape>>& shapes, const Draw& draw) {
    constexpr auto asked = 2;
    const auto bitmap = std::make_shared<Bitmap<Rgba8>>(sheet, gray(20));
    const auto with = [=](const Ink& laid) {
        return [=] {
            for (const auto& shape : *shapes) benchmark::DoNotOptimize(draw(*bitmap, shape, laid));
        };
    };
    add({.name = name,
         .reference = "opaque",
         .allowed = asked,
         .items = static_cast<double>(shapes->size()),
         .ours = with(with_alpha(ink, 100)),
         .other = with(ink)});
}

// A million circles on two threads, against one.
void add_threads(const std::shared_ptr<std::vector<Circle>>& circles) {
    const auto bitmap = std::make_shared<Bitmap<Rgba8>>(sheet, gray(20));
    const auto drawing = std::make_shared<Drawing>();
    for (const auto& circle : *circles) fill(*drawing, circle, ink);
    constexpr auto asked = 1 / 1.8;
    add({.name = "each of 1 million circles, from a Drawing on 2 threads",
         .reference = "on one",
         .allowed = asked,
         .items = static_cast<double>(circles->size()),
         .ours = [=] { benchmark::DoNotOptimize(render(*drawing, *bitmap, {.threads = 2})); },
         .other = [=] { benchmark::DoNotOptimize(render(*drawing, *bitmap)); }});
}

// A million circles from a drawing that remembers them, against the calls themselves.
void add_drawing(const std::shared_ptr<std::vector<Circle>>& circles) {
    const auto bitmap = std::make_shared<Bitmap<Rgba8>>(sheet, gray(20));
    const auto drawing = std::make_shared<Drawing>();
    for (const auto& circle : *circles) fill(*drawing, circle, ink);
    constexpr auto allowed = 1.15;
    add({.name = "each of 1 million circles, from a Drawing",
         .reference = "the calls themselves",
         .allowed = allowed,
         .items = static_cast<double>(circles->size()),
         .ours = [=] { benchmark::DoNotOptimize(render(*drawing, *bitmap)); },
         .other =
             [=] {
                 for (const auto& circle : *circles) benchmark::DoNotOptimize(fill(*bitmap, circle, ink));
             }});
}

// A million circles in one call, against a call for each.
void add_list(const std::shared_ptr<std::vector<Circle>>& circles) {
    const auto bitmap = std::make_shared<Bitmap<Rgba8>>(sheet, gray(20));
    add({.name = "each of 1 million circles, in a list",
         .reference = "the calls themselves",
         .allowed = 1,
         .items = static_cast<double>(circles->size()),
         .ours = [=] { benchmark::DoNotOptimize(fill_each(*bitmap, *circles, ink)); },
         .other =
             [=] {
                 for (const auto& circle : *circles) benchmark::DoNotOptimize(fill(*bitmap, circle, ink));
             }});
}

}  // namespace

void add_small_shapes() {
    const auto within = [](const auto& number, Size part) {
        return Point{.x = number(0, part.width - 1), .y = number(0, part.height - 1)};
    };
    const auto somewhere = [=](const auto& number) { return within(number, sheet); };
    const auto beside = [](const auto& number, Point p, int reach) {
        return Point{.x = p.x + number(-reach, reach), .y = p.y + number(-reach, reach)};
    };
    const auto hairlines = [&](Size part) {
        return many_shapes<Line>(1000, [&](const auto& number) {
            while (true) {
                const auto from = within(number, part);
                const auto to = beside(number, from, 220);
                const auto length = std::max(std::abs(to.x - from.x), std::abs(to.y - from.y));
                if (length > 180) return Line{.from = from, .to = to};
            }
        });
    };
    const auto draw_line = [](const auto& view, const Line& line) { return stroke(view, line, ink); };
    const auto draw_textbook_line = [](const auto& canvas, const Line& line) { textbook_line(canvas, line); };
    add_against<Rgba8, std::uint32_t>("hairline of about 200 pixels, anywhere", "textbook loop", 0.9, hairlines(sheet),
                                      draw_line, draw_textbook_line);
    add_against<Gray8, std::uint8_t>("hairline of about 200 pixels, anywhere, 1 byte", "textbook loop", 0.5,
                                     hairlines(sheet), draw_line, draw_textbook_line);
    add_against<Rgba8, std::uint32_t>("hairline of about 200 pixels, in a corner of 300x300", "textbook loop", 0.4,
                                      hairlines({.width = 300, .height = 300}), draw_line, draw_textbook_line);
    // In a corner that stays in the nearest caches.
    constexpr auto near = 300;
    constexpr auto asked = 0.4;
    const auto inside = [](const auto& number) { return Point{number(20, near - 20), number(20, near - 20)}; };
    const auto fill_it = [](const auto& view, const auto& shape) { return fill(view, shape, ink); };
    const auto near_circles =
        many_shapes<Circle>(1000, [&](const auto& number) { return Circle{.center = inside(number), .radius = 4}; });
    const auto near_lines = many_shapes<Line>(1000, [&](const auto& number) {
        const auto p = inside(number);
        return Line{.from = beside(number, p, 6), .to = beside(number, p, 6)};
    });
    const auto near_triangles = many_shapes<Polygon>(1000, [&](const auto& number) {
        const auto p = inside(number);
        return Polygon{beside(number, p, 6), beside(number, p, 6), beside(number, p, 6)};
    });
    add_against<Rgba8, std::uint32_t>(
        "triangle within 13x13", "textbook loop", asked, near_triangles, fill_it,
        [](const auto& canvas, const Polygon& shape) { textbook_triangle(canvas, shape); });
    add_against<Rgba8, std::uint32_t>("hairline within 13x13", "textbook loop", asked, near_lines, draw_line,
                                      draw_textbook_line);
    add_against<Rgba8, std::uint32_t>(
        "filled circle of radius 4", "textbook double loop", asked, near_circles, fill_it,
        [](const auto& canvas, const Circle& circle) { textbook_circle(canvas, circle); });
    add_against<Rgba8, std::uint32_t>("box 9x9", "textbook double loop", asked,
                                      many_shapes<Box>(1000,
                                                       [&](const auto& number) {
                                                           return Box{.at = inside(number), .size = {9, 9}};
                                                       }),
                                      fill_it, [](const auto& canvas, const Box& box) { textbook_box(canvas, box); });
    add_translucent("translucent circle of radius 4", near_circles,
                    [](auto& target, const Circle& circle, const Ink& with) { return fill(target, circle, with); });
    add_translucent("translucent hairline within 13x13", near_lines,
                    [](auto& target, const Line& line, const Ink& with) { return stroke(target, line, with); });
    add_translucent("translucent hairline of about 200 pixels", hairlines({.width = near, .height = near}),
                    [](auto& target, const Line& line, const Ink& with) { return stroke(target, line, with); });
    constexpr std::size_t million = 1'000'000;
    add_million("box of one pixel", many_shapes<Box>(million, [&](const auto& number) {
                    return Box{.at = somewhere(number), .size = {.width = 1, .height = 1}};
                }));
    add_million("box 9x9", many_shapes<Box>(million, [&](const auto& number) {
                    return Box{.at = somewhere(number), .size = {.width = 9, .height = 9}};
                }));
    const auto circles = many_shapes<Circle>(
        million, [&](const auto& number) { return Circle{.center = somewhere(number), .radius = 4}; });
    add_million("circle of radius 4", circles);
    add_drawing(circles);
    add_list(circles);
    add_threads(circles);
    add_million("circle outline of radius 4", many_shapes<Stroked<Circle>>(million, [&](const auto& number) {
                    return stroked(Circle{.center = somewhere(number), .radius = 4});
                }));
    add_million("ellipse 13x9", many_shapes<Ellipse>(million, [&](const auto& number) {
                    return Ellipse::around({.center = somewhere(number), .radii = {.x = 6, .y = 4}});
                }));
    add_million("triangle within 13x13", many_shapes<Polygon>(million, [&](const auto& number) {
                    const auto p = somewhere(number);
                    return Polygon{beside(number, p, 6), beside(number, p, 6), beside(number, p, 6)};
                }));
    add_million("hairline within 13x13", many_shapes<Stroked<Line>>(million, [&](const auto& number) {
                    const auto p = somewhere(number);
                    return stroked(Line{.from = beside(number, p, 6), .to = beside(number, p, 6)});
                }));
}

}  // namespace bench
