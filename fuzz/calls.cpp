// A fuzz target for calls: shapes, pens, inks, formats, clips and transforms by the bytes, on memory with guards around
// it. Nothing is written outside of the clip, and the box that a call returns contains what has changed. A drawing that
// remembers the call paints the same.
#include <coldbrick/coldbrick.hpp>

#include <cstring>
#include <vector>

namespace {

using namespace coldbrick;

// Numbers from the bytes, as long as there are some; then zeros.
class Choices {
  public:
    Choices(const std::uint8_t* bytes, std::size_t count) : at_{bytes}, end_{bytes + count} {}

    unsigned byte() { return at_ == end_ ? 0U : *at_++; }
    int below(int count) { return static_cast<int>(byte()) % count; }

    // Mostly near the sheet; now and then anything that an int may be, or half of it.
    int coordinate() {
        const auto kind = byte();
        if (kind < 200) return static_cast<int>(byte()) - 96;
        auto value = 0U;
        for (int i = 0; i < 4; ++i) value = value << 8U | byte();
        return static_cast<int>(kind < 230 ? value % (1U << 30U) : value);
    }
    double number() {
        const auto kind = byte();
        if (kind < 200) return coordinate() / 7.0;
        if (kind < 220) return coordinate() * 1e9;
        if (kind < 240) return coordinate() * 1e-300;
        double value = 0;
        std::uint8_t bits[sizeof value];
        for (auto& of : bits) of = static_cast<std::uint8_t>(byte());
        std::memcpy(&value, bits, sizeof value);
        return value;
    }
    Point point() { return {coordinate(), coordinate()}; }
    Position position() { return {number(), number()}; }
    Angle angle() { return Angle::degrees(byte() < 200 ? coordinate() : number()); }
    Color color() {
        const auto next = [&] { return static_cast<std::uint8_t>(byte()); };
        return {next(), next(), next(), next()};
    }
    template <class Choice>
    Choice choice(int count) {
        return static_cast<Choice>(below(count + 1));
    }

  private:
    const std::uint8_t* at_;
    const std::uint8_t* end_;
};

Ink ink_of(Choices& of) {
    const Compositing how{.opacity = of.byte() < 128 ? 1 : of.number(),
                          .blend = of.byte() < 128 ? Blend::over : of.choice<Blend>(15),
                          .light = of.byte() < 200 ? Light::encoded : of.choice<Light>(2)};
    const std::vector<Stop> stops{{0, of.color()}, {0.5, of.color()}, {1, of.color()}};
    const auto spread = of.choice<Spread>(3);
    const auto placing = of.choice<Placing>(2);
    const auto dither = of.choice<Dither>(2);
    switch (of.below(6)) {
        case 0:
            return Ink{LinearGradient{of.position(), of.position(), stops, spread, placing, dither}, how};
        case 1:
            return Ink{RadialGradient{of.position(), of.number(), stops, spread, placing, dither}, how};
        case 2:
            return Ink{ConicGradient{of.position(), of.angle(), stops, placing, dither}, how};
        case 3:
            return Ink{Hatch{of.number(), of.angle(), of.number(), of.color(), of.color(), of.position(), placing},
                       how};
        default:
            return Ink{of.color(), how};
    }
}

// Fills and strokes a shape, and does so under a transform.
template <class Target, class Shape>
Box draw_all(Target& target, Choices& of, const Shape& shape, const Ink& ink) {
    const Fill fill_how{of.choice<FillRule>(2), of.choice<Edges>(2), of.choice<Edge>(2)};
    const auto width = of.below(40);
    Stroke how{.width = of.byte() < 200   ? Width{width}
                        : of.byte() < 128 ? Width{of.coordinate()}
                                          : Width{of.number()},
               .align = of.choice<Align>(3),
               .cap = of.choice<Cap>(3),
               .join = of.choice<Join>(3),
               .miter_limit = of.byte() < 200 ? 4 : of.number(),
               .edge = of.choice<Edge>(2)};
    for (auto i = of.below(8); i > 5; --i) how.dash.push_back(of.number());
    how.dash_offset = of.byte() < 200 ? 0 : of.number();
    const auto by = Transform{}.turn(of.angle()).scale(of.position()).move(of.position());
    const auto kind = of.below(4);
    if (kind == 0) return fill(target, stroked(shape, how), ink);
    if (kind == 1) return fill(target, transformed(stroked(shape, how), by), ink);
    if constexpr (detail::Fillable<Shape>) {
        if (kind == 2) return fill(target, transformed(filled(shape, fill_how), by), ink);
        return fill(target, filled(shape, fill_how), ink);
    } else {
        return fill(target, stroked(shape, how), ink);
    }
}

template <class Target>
Box draw_shape(Target& target, Choices& of, const Ink& ink) {
    const auto circle = [&] { return Circle{.center = of.point(), .radius = of.coordinate()}; };
    const auto ellipse = [&] {
        return Ellipse::around(
            {.center = of.point(), .radii = {of.coordinate(), of.coordinate()}, .turned = of.angle()});
    };
    const auto box = [&] { return Box{of.point(), {of.coordinate(), of.coordinate()}}; };
    const auto sweep = [&] { return Sweep{of.angle(), of.angle()}; };
    switch (of.below(17)) {
        case 0:
            return draw_all(target, of, box(), ink);
        case 1:
            return draw_all(target, of, RoundedBox{.box = box(), .corner_radius = of.coordinate()}, ink);
        case 2:
            return draw_all(target, of, circle(), ink);
        case 3:
            return draw_all(target, of, ellipse(), ink);
        case 4:
            return draw_all(target, of, Sector{.of = ellipse(), .sweep = sweep()}, ink);
        case 5:
            return draw_all(target, of, Chord{.of = ellipse(), .sweep = sweep()}, ink);
        case 6:
            return draw_all(target, of, Arc{.of = ellipse(), .sweep = sweep()}, ink);
        case 7:
            return draw_all(target, of, Line{.from = of.point(), .to = of.point()}, ink);
        case 8:
            return draw_all(target, of, Polyline{.through = {of.point(), of.point(), of.point()}}, ink);
        case 9:
            return draw_all(target, of, Polygon{of.point(), of.point(), of.point(), of.point()}, ink);
        case 10: {
            Path path;
            path.move(of.position())
                .cubic({.control_1 = of.position(), .control_2 = of.position(), .to = of.position()})
                .arc({.radii = of.position(), .turned = of.angle(), .large = of.below(2) == 1, .to = of.position()});
            return draw_all(target, of, path, ink);
        }
        case 11:
            return draw_all(target, of, subpixel::Circle{.center = of.position(), .radius = of.number()}, ink);
        case 12:
            return draw_all(target, of,
                            Ring{.center = of.point(), .radius = of.coordinate(), .inner_radius = of.coordinate()},
                            ink);
        case 13:
            return draw_all(
                target, of,
                subpixel::Ring{
                    .center = of.position(), .radius = of.number(), .inner_radius = of.number(), .sweep = sweep()},
                ink);
        case 14: {
            Lettering letters{.weight = of.number()};
            letters.lines.move(of.position())
                .line(of.position())
                .cubic({.control_1 = of.position(), .control_2 = of.position(), .to = of.position()});
            if (of.below(2) == 1) letters.outlines.move(of.position()).line(of.position()).line(of.position()).close();
            return draw_all(target, of, letters, ink);
        }
        case 15: {
            Text text{.at = of.position(), .anchor = of.choice<TextAnchor>(12), .height = 1.0 * of.below(60)};
            for (auto i = of.below(12); i > 0; --i) text.words += static_cast<char>(of.byte());
            if (of.below(4) == 0) text.face = of.below(2) == 0 ? faces::pixel() : faces::tiny();
            if (of.below(4) == 0) text.weight = of.number();
            if (of.below(4) == 0) text.wrap = of.number();
            if (of.below(4) == 0) text.fit = TextFit{.box = {of.below(60), of.below(60)}, .by = of.choice<Overflow>(2)};
            if (of.below(4) == 0)
                text.along = TextPath::along(subpixel::Line{.from = of.position(), .to = of.position()});
            text.lines = of.choice<TextLines>(4);
            return draw_all(target, of, text, ink);
        }
        default:
            return draw_all(target, of, subpixel::Polygon{of.position(), of.position(), of.position()}, ink);
    }
}

constexpr auto width = 37;
constexpr auto height = 29;
constexpr std::size_t guard = 64;

// Draws a shape by way of a drawing on pixels as they were before, which become as those that it was drawn on directly.
template <class Format>
void expect_same_from_drawing(Choices of, const Ink& ink, const Box& clip, std::vector<std::uint8_t> memory,
                              const std::vector<std::uint8_t>& direct) {
    const auto row = (memory.size() - 2 * guard) / height;
    Pixels<Format> all{
        Memory{.top_left = memory.data() + guard, .size = {width, height}, .stride = static_cast<std::ptrdiff_t>(row)}};
    try {
        Drawing plan;
        auto view = plan.within(clip);
        draw_shape(view, of, ink);
        render(plan, all);
    } catch (const Error&) {
        return;  // boxes are searched in shapes that are not seen
    }
    if (memory != direct) __builtin_trap();
}

template <class Format>
void draw_on(Choices& of) {
    constexpr auto row = static_cast<std::size_t>(row_bytes<Format>(width)) + 5;
    std::vector<std::uint8_t> memory(2 * guard + row * height, 0xa5);
    Pixels<Format> all{
        Memory{.top_left = memory.data() + guard, .size = {width, height}, .stride = std::ptrdiff_t{row}}};
    const auto clip = of.below(3) == 0 ? Box{of.point(), {of.below(40), of.below(40)}} : all.clip();
    auto view = all.within(clip);
    const auto before = memory;
    auto touched = Box{};
    try {
        const auto ink = ink_of(of);
        const auto masks = of.below(4);
        if (masks == 1) view = view.within(Region{Circle{.center = {18, 14}, .radius = of.below(20)}});
        if (masks == 2) view = view.within(SmoothRegion{Circle{.center = {18, 14}, .radius = of.below(20)}});
        const auto same = of;
        touched = draw_shape(view, of, ink);
        if (masks == 0) expect_same_from_drawing<Format>(same, ink, clip, before, memory);
    } catch (const Error&) {
        if (memory != before) __builtin_trap();
        return;
    }
    const auto inside = intersection(touched, intersection(clip, all.clip()));
    if (!(inside == touched)) __builtin_trap();
    for (std::size_t i = 0; i < memory.size(); ++i) {
        if (memory[i] == before[i]) continue;
        const auto at = static_cast<std::ptrdiff_t>(i) - static_cast<std::ptrdiff_t>(guard);
        const auto y = static_cast<int>(at / static_cast<std::ptrdiff_t>(row));
        // The pixels that have a part of the byte, or the one of which it is a part.
        const auto x = static_cast<int>(at % static_cast<std::ptrdiff_t>(row)) * 8 / bits_per_pixel<Format>;
        const auto there = Box{.at = {x, y}, .size = {std::max(1, 8 / bits_per_pixel<Format>), 1}};
        if (at < 0 || intersection(there, touched).empty()) __builtin_trap();
    }
}

void draw(Choices& of) {
    switch (of.below(8)) {
        case 0:
            draw_on<Gray8>(of);
            break;
        case 1:
            draw_on<Rgb8>(of);
            break;
        case 2:
            draw_on<Bgr8>(of);
            break;
        case 3:
            draw_on<Index8>(of);
            break;
        case 4:
            draw_on<Gray16>(of);
            break;
        case 5:
            draw_on<Rgba16>(of);
            break;
        case 7:
            draw_on<Bit1>(of);
            break;
        default:
            draw_on<Rgba8>(of);
    }
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t count) {
    Choices of{bytes, count};
    // Dashes and wide pens may ask for work without end; what a budget ends has drawn nothing.
    Budget budget{{.seconds = 0.5, .memory = std::size_t{256} << 20U}};
    budget.run([&] { draw(of); });
    return 0;
}
