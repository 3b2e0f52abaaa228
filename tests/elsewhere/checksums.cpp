// Draws pictures of every kind that the core has, and prints a checksum of each: the same on every processor.
// scripts/elsewhere.sh compares them.
#include <coldbrick/color_models.hpp>
#include <coldbrick/color_names.hpp>
#include <coldbrick/compare.hpp>
#include <coldbrick/compose.hpp>
#include <coldbrick/convert.hpp>
#include <coldbrick/draw.hpp>
#include <coldbrick/draw_each.hpp>
#include <coldbrick/drawing.hpp>
#include <coldbrick/flood.hpp>
#include <coldbrick/gradient.hpp>
#include <coldbrick/path.hpp>
#include <coldbrick/pattern.hpp>
#include <coldbrick/quantize.hpp>
#include <coldbrick/region.hpp>
#include <coldbrick/resize.hpp>
#include <coldbrick/smooth_region.hpp>
#include <coldbrick/text.hpp>

#include <array>
#include <cstdint>
#include <cstdio>
#include <string>
#include <vector>

using namespace coldbrick;

namespace {

// Numbers that are the same everywhere, which those of the standard's distributions are not. They are taken one after
// the other, never as arguments of one call, whose order is free.
class Numbers {
  public:
    explicit Numbers(std::uint32_t seed) noexcept : state_{seed} {}
    int up_to(int most) noexcept {
        state_ = state_ * 1664525U + 1013904223U;
        return static_cast<int>((state_ >> 8U) % static_cast<std::uint32_t>(most + 1));
    }
    int between(int least, int most) noexcept { return least + up_to(most - least); }
    double fraction(int least, int most) noexcept { return between(least * 64, most * 64) / 64.0; }
    Point point(int reach = 130) noexcept {
        const auto x = between(-30, reach);
        return {.x = x, .y = between(-30, reach)};
    }
    Position position() noexcept {
        const auto x = fraction(-30, 130);
        return {.x = x, .y = fraction(-30, 130)};
    }
    Angle angle() noexcept { return Angle::degrees(fraction(-400, 400)); }
    Color color() noexcept {
        const auto byte = [this] { return static_cast<std::uint8_t>(up_to(255)); };
        const auto red = byte();
        const auto green = byte();
        const auto blue = byte();
        return {.red = red, .green = green, .blue = blue, .alpha = byte()};
    }
    Stroke pen(Edge edge) noexcept {
        Stroke how{.width = between(1, 9), .edge = edge};
        how.align = static_cast<Align>(up_to(2));
        how.cap = static_cast<Cap>(up_to(2));
        how.join = static_cast<Join>(up_to(2));
        if (up_to(4) == 0) how.dash = {fraction(1, 9), fraction(1, 5)};
        if (edge == Edge::smooth && up_to(2) == 0) how.width = between(1, 900) / 256.0;
        return how;
    }
    Sweep sweep() noexcept {
        const auto from = angle();
        return {.from = from, .by = angle()};
    }
    Transform transform() noexcept {
        const auto turned = Transform{}.turn(angle());
        const auto scaled = turned.scale(Position{fraction(0, 2) + 0.25, fraction(-2, -1)});
        return scaled.shear({fraction(-1, 1) / 4, 0}).move({60 + fraction(-9, 9), 60 + fraction(-9, 9)});
    }

  private:
    std::uint32_t state_;
};

class Checksum {
  public:
    void add(std::uint64_t number) noexcept {
        for (auto shift = 0U; shift < 64; shift += 8) {
            sum_ = (sum_ ^ ((number >> shift) & 255U)) * 1099511628211ULL;
        }
    }
    // The numbers of the channels, whichever order their bytes have.
    template <class P>
    void add_picture(const P& picture) {
        for (int y = 0; y < picture.size().height; ++y) {
            for (int x = 0; x < picture.size().width; ++x) {
                const auto [red, green, blue, alpha] = picture.color16_at({x, y});
                add(std::uint64_t{red} << 48U | std::uint64_t{green} << 32U | std::uint64_t{blue} << 16U | alpha);
            }
        }
    }
    void add_box(const Box& box) noexcept {
        for (const auto number : {box.at.x, box.at.y, box.size.width, box.size.height}) {
            add(static_cast<std::uint32_t>(number));
        }
    }
    [[nodiscard]] std::uint64_t sum() const noexcept { return sum_; }

  private:
    std::uint64_t sum_ = 14695981039346656037ULL;
};

// Calls use(shape) with some shape.
template <class Use>
void with_shape(Numbers& numbers, const Use& use) {
    const auto at = numbers.point();
    const auto place = numbers.position();
    const auto radius = numbers.up_to(40);
    const Sweep sweep = numbers.sweep();
    const auto ellipse =
        Ellipse::around({.center = at, .radii = {radius, numbers.up_to(40)}, .turned = numbers.angle()});
    switch (numbers.up_to(14)) {
        case 0:
            return use(Box{.at = at, .size = {radius + 1, numbers.between(1, 40)}});
        case 1:
            return use(RoundedBox{.box = {at, {radius + 9, 30}}, .corner_radius = numbers.up_to(4)});
        case 2:
            return use(Circle{.center = at, .radius = radius});
        case 3:
            return use(ellipse);
        case 4:
            return use(Ring{.center = at, .radius = radius, .inner_radius = radius / 2, .sweep = sweep});
        case 5:
            return use(Sector{.of = ellipse, .sweep = sweep});
        case 6:
            return use(Chord{.of = ellipse, .sweep = sweep});
        case 7:
            return use(Polygon{at, numbers.point(), numbers.point(), numbers.point()});
        case 8:
            return use(star({.center = at, .radius = radius + 2, .points = 5, .turned = numbers.angle()}));
        case 9:
            return use(Path{}
                           .move(place)
                           .cubic({numbers.position(), numbers.position(), numbers.position()})
                           .arc({.radii = {20, 31}, .turned = 20_deg, .to = numbers.position()})
                           .close());
        case 10:
            return use(subpixel::Circle{.center = place, .radius = numbers.fraction(1, 40)});
        case 11:
            return use(subpixel::Polygon{place, numbers.position(), numbers.position()});
        case 12:
            return use(subpixel::Ellipse::around({.center = place, .radii = {radius + 0.5, 17.25}, .turned = 33_deg}));
        case 13:
            return use(Region{Circle{.center = at, .radius = radius}});
        default:
            return use(subpixel::Box{.at = place, .size = {numbers.fraction(1, 40), numbers.fraction(1, 40)}});
    }
}

template <class Use>
void with_line(Numbers& numbers, const Use& use) {
    const auto from = numbers.point();
    switch (numbers.up_to(3)) {
        case 0:
            return use(Line{.from = from, .to = numbers.point()});
        case 1:
            return use(Arc{.of = Circle{.center = from, .radius = numbers.between(1, 40)}, .sweep = numbers.sweep()});
        case 2:
            return use(subpixel::Line{.from = numbers.position(), .to = numbers.position()});
        default:
            return use(Polyline{.through = {from, numbers.point(), numbers.point()}, .closed = numbers.up_to(1) == 1});
    }
}

template <class Format>
void draw_shapes(Bitmap<Format>& sheet, Numbers& numbers, Edge edge, bool is_placed, Checksum& sum) {
    for (int i = 0; i < 150; ++i) {
        const auto by = is_placed ? numbers.transform() : Transform{};
        const auto ink = numbers.color();
        const auto pen = numbers.pen(edge);
        with_shape(numbers, [&](const auto& shape) {
            sum.add_box(fill(sheet, transformed(filled(shape, {.edge = edge}), by), ink));
            sum.add_box(fill(sheet, transformed(stroked(shape, pen), by), gray(90)));
        });
        with_line(numbers,
                  [&](const auto& line) { sum.add_box(fill(sheet, transformed(stroked(line, pen), by), ink)); });
    }
}

Checksum shapes(Edge edge, bool is_placed) {
    Checksum sum;
    Numbers numbers{7};
    Bitmap<Rgba8> sheet{{100, 100}, gray(200)};
    draw_shapes(sheet, numbers, edge, is_placed, sum);
    sum.add_picture(sheet);
    return sum;
}

// Coordinates so large that products need more than 64 bits.
Checksum giants() {
    Checksum sum;
    constexpr auto far = max_coordinate / 2;
    const Box clip{.at = {far - 50, -50}, .size = {100, 100}};
    const auto add = [&](const auto& area) {
        for_each_span(area, clip, [&](const Span& run) {
            sum.add_box({.at = {run.x, run.y}, .size = {run.length, 1}});
        });
    };
    add(Ellipse::around({.center = {0, 0}, .radii = {far, far / 3}}));
    add(stroked(Ellipse::around({.center = {0, 0}, .radii = {far, far / 5}}), {.width = 4}));
    add(Polygon{{far - 40, -far}, {far + 30, far}, {-far, 1}});
    add(subpixel::Polygon{{far - 40.25, -far + 0.5}, {far + 30.75, far - 0.25}, {-1.0 * far, 1}});
    add(stroked(Line{.from = {-far, -far / 7}, .to = {far + 90, 11}}, {.width = 9}));
    add(Circle{.center = {0, 0}, .radius = far});
    return sum;
}

template <class Format>
Checksum blends() {
    Checksum sum;
    Numbers numbers{11};
    Bitmap<Format> sheet{{60, 40}};
    for (int mode = 0; mode <= static_cast<int>(Blend::exclusive_or); ++mode) {
        for (const auto light : {Light::encoded, Light::linear}) {
            for (int i = 0; i < 6; ++i) {
                const auto how = Compositing{
                    .opacity = numbers.between(1, 255) / 255.0, .blend = static_cast<Blend>(mode), .light = light};
                const auto at = Point{numbers.up_to(60), numbers.up_to(40)};
                fill(sheet, Circle{.center = at, .radius = 14}, Edge::smooth, Ink{numbers.color(), how});
            }
        }
    }
    sum.add_picture(sheet);
    return sum;
}

Checksum inks() {
    Checksum sum;
    Numbers numbers{13};
    Bitmap<Rgba16> deep{{120, 90}};
    Bitmap<Rgb8> flat{{120, 90}};
    const std::vector<Stop> stops{{0, colors::navy}, {0.3, colors::gold}, {1, Color{200, 40, 10, 120}}};
    for (const auto spread : {Spread::pad, Spread::repeat, Spread::reflect}) {
        for (const auto dither : {Dither::none, Dither::ordered}) {
            const auto lay = [&](const Ink& ink) {
                fill(deep, Box{numbers.point(90), {70, 60}}, ink);
                fill(flat, Circle{numbers.point(90), 40}, Edge::smooth, ink);
            };
            lay(LinearGradient{numbers.position(), {55.5, 70.25}, stops, spread, Placing::target, dither});
            lay(RadialGradient{numbers.position(), 23.75, stops, spread, Placing::target, dither});
            lay(ConicGradient{numbers.position(), numbers.angle(), stops, Placing::target, dither});
            lay(Hatch{
                .spacing = numbers.fraction(2, 9), .angle = numbers.angle(), .width = 1.5, .color = colors::teal});
        }
    }
    sum.add_picture(deep);
    sum.add_picture(flat);
    return sum;
}

Checksum pictures() {
    Checksum sum;
    Numbers numbers{17};
    Bitmap<Rgba8> photo{{90, 70}, colors::slategray};
    draw_shapes(photo, numbers, Edge::smooth, false, sum);
    for (const auto how : {Scaling::nearest, Scaling::box, Scaling::bilinear, Scaling::lanczos}) {
        sum.add_picture(resized(photo, {131, 47}, how));
        sum.add_picture(resized(photo, {40, 101}, how));
    }
    Bitmap<Rgb8> wall{{120, 90}, gray(30)};
    for (int i = 0; i < 8; ++i) paste(wall, photo, Transform{}.turn(numbers.angle()).move(numbers.position()));
    sum.add_picture(wall);
    const auto palette = palette_for(wall, 24);
    for (const auto& color : palette.colors()) {
        sum.add(std::uint64_t{color.red} << 16U | std::uint64_t{color.green} << 8U | color.blue);
    }
    sum.add_picture(diffused(wall, palette));
    sum.add_picture(convert<Rgb565>(wall));
    sum.add_picture(convert<Gray16>(photo));
    fill(wall, FloodFrom{.from = {60, 45}, .tolerance = 40}, colors::gold);
    sum.add_picture(wall);
    return sum;
}

Checksum regions() {
    Checksum sum;
    Numbers numbers{19};
    Bitmap<Rgba8> sheet{{100, 100}, gray(255)};
    Drawing plan;
    for (int i = 0; i < 40; ++i) {
        const Region a{Circle{.center = numbers.point(), .radius = 25}};
        const Region b{star({.center = numbers.point(), .radius = 30, .points = 7})};
        const auto pen = numbers.pen(Edge::smooth);
        const auto light = Circle{.center = numbers.point(), .radius = 20};
        fill(plan.within(unite(a, b)), sheet.box(), numbers.color());
        stroke(plan, symmetric_difference(a, b), pen, numbers.color());
        fill(plan.within(SmoothRegion{filled(light, {.edge = Edge::smooth})}), a, numbers.color());
    }
    sum.add_box(render(plan, sheet));
    sum.add_picture(sheet);
    const std::vector<Position> places{{3, 4}, {50.25, 9}, {40, 61.5}, {90, 80}, {12, 77}};
    fill_each(sheet, {.as = Elements::triangle_strip, .at = places}, {.edge = Edge::smooth},
              std::array{colors::gold, colors::teal, colors::navy});
    sum.add_picture(sheet);
    return sum;
}

// Fitted and not, in all faces, crisp, smooth, stroked, along a circle; and on one bit a pixel.
Checksum words() {
    Checksum sum;
    Bitmap<Gray8> sheet{{400, 120}};
    Bitmap<Bit1> bits{{400, 120}};
    const std::string all = "Tarn Quay, berth 4: \u00c5ng\u0123 \u03a9\u03c6 \u0416\u0434 3.2 m \u2192 \u25a0";
    for (const auto height : {7.0, 14.0, 23.5}) {
        Text text{.words = all, .at = {3, 60}, .anchor = TextAnchor::baseline, .height = height};
        fill(sheet, text, Edge::crisp, gray(255));
        fill(bits, text, Edge::crisp, gray(255));
        text.at = {5.25, 90.5};
        text.slant = Angle::degrees(13);
        fill(sheet, text, Edge::smooth, gray(200));
        text.weight = height / 4;
        stroke(sheet, text, {.width = 1.5, .edge = Edge::smooth}, gray(90));
        text.along = TextPath::along(subpixel::Circle{.center = {200, 60}, .radius = 55});
        fill(sheet, text, Edge::smooth, gray(150));
        const auto box = lay_out({.words = all, .height = height, .wrap = 90}).box;
        sum.add(static_cast<std::uint64_t>(box.size.width * 1024) << 32U |
                static_cast<std::uint64_t>(box.size.height * 1024));
    }
    fill(bits, Text{.words = all, .at = {3, 9}, .face = faces::pixel(), .height = 7}, gray(255));
    fill(sheet, Text{.words = "tiny 0123", .at = {3, 29}, .face = faces::tiny(), .height = 10}, gray(255));
    sum.add_picture(sheet);
    sum.add_picture(bits);
    return sum;
}

Checksum colors_of_models() {
    Checksum sum;
    for (int i = 0; i < 360; i += 7) {
        const auto hue = Angle::degrees(i);
        for (const auto& color : {color_of(Hsl{.hue = hue, .saturation = 0.7, .lightness = i / 400.0}),
                                  color_of(Hsv{.hue = hue, .saturation = i / 400.0, .value = 0.8}),
                                  random_color(static_cast<std::uint64_t>(i))}) {
            sum.add(std::uint64_t{color.red} << 16U | std::uint64_t{color.green} << 8U | color.blue);
        }
    }
    return sum;
}

void tell(const char* name, const Checksum& sum) {
    std::printf("%-28s %016llx\n", name, static_cast<unsigned long long>(sum.sum()));
}

}  // namespace

int main() {
    tell("crisp shapes", shapes(Edge::crisp, false));
    tell("smooth shapes", shapes(Edge::smooth, false));
    tell("crisp shapes, transformed", shapes(Edge::crisp, true));
    tell("smooth shapes, transformed", shapes(Edge::smooth, true));
    tell("giant shapes", giants());
    tell("blends, 8 bits", blends<Rgba8>());
    tell("blends, 16 bits", blends<Rgba16>());
    tell("blends, gray", blends<Gray8>());
    tell("blends, gray of 16 bits", blends<Gray16>());
    tell("blends, 565", blends<Rgb565>());
    tell("blends, palette", blends<Index8>());
    tell("blends, one bit", blends<Bit1>());
    tell("inks", inks());
    tell("pictures", pictures());
    tell("regions", regions());
    tell("colour models", colors_of_models());
    tell("words", words());
}
