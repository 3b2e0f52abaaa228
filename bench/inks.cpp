// Inks on the whole sheet: against memset of its bytes, and in other formats against the same in Rgba8.
#include "spans.hpp"

#include <coldbrick/gradient.hpp>
#include <coldbrick/pattern.hpp>

#include <cstdint>
#include <string>
#include <utility>

namespace bench {

// A format of one's own: two bytes, a gray and an alpha.
struct GrayAlpha {};

}  // namespace bench

template <>
struct coldbrick::FormatTraits<bench::GrayAlpha> {
    static constexpr int pixel_bytes = 2;
    static constexpr bool has_alpha = true;
    static void store(coldbrick::Color color, std::uint8_t* pixel) {
        pixel[0] = luma(color);
        pixel[1] = color.alpha;
    }
    static coldbrick::Color load(const std::uint8_t* pixel) { return with_alpha(coldbrick::gray(pixel[0]), pixel[1]); }
};

namespace bench {

namespace {

constexpr auto whole_sheet = Box{.at = {.x = 0, .y = 0}, .size = sheet};

template <PixelFormat Format>
void add_ink(const std::string& name, const Ink& laid, double allowed) {
    const auto bitmap = shared_bitmap<Format>();
    add({.name = name,
         .reference = "memset of its rows",
         .allowed = allowed,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(fill(*bitmap, whole_sheet, laid)); },
         .other = memset_of(spans_of(whole_sheet), bitmap)});
}

// On pixels that are not opaque, a pale half.
void add_on_glass(const std::string& name, const Ink& laid) {
    const auto bitmap = std::make_shared<Bitmap<Rgba8>>(sheet);
    const auto pale = Ink{with_alpha(gray(200), 128), {.blend = Blend::replace}};
    add({.name = name + ", on translucent pixels",
         .reference = "memset of its rows",
         .allowed = 0,
         .items = 1,
         .ours =
             [=] {
                 fill(*bitmap, whole_sheet, pale);
                 benchmark::DoNotOptimize(fill(*bitmap, whole_sheet, laid));
             },
         .other = memset_of(spans_of(whole_sheet), bitmap)});
}

template <PixelFormat Format>
void add_format(const std::string& name, const Ink& laid) {
    constexpr auto allowed = 4;
    const auto bitmap = shared_bitmap<Format>();
    const auto other = shared_bitmap<Rgba8>();
    add({.name = name,
         .reference = "the same in Rgba8",
         .allowed = allowed,
         .items = 1,
         .ours = [=] { benchmark::DoNotOptimize(fill(*bitmap, whole_sheet, laid)); },
         .other = [=] { benchmark::DoNotOptimize(fill(*other, whole_sheet, laid)); }});
}

template <class Gradient>
Gradient with_stops(Gradient gradient, Dither dither = Dither::none) {
    gradient.stops = {{0, gray(20)}, {0.5, ink}, {1, gray(250)}};
    gradient.dither = dither;
    return gradient;
}

Bitmap<Rgba8> tile(Size size) {
    Bitmap<Rgba8> picture{size, gray(60)};
    fill(picture, Circle{.center = {size.width / 2, size.height / 2}, .radius = size.height / 3}, ink);
    return picture;
}

void add_gradients() {
    const auto slanted = LinearGradient{.from = {0, 0}, .to = {1919, 1079}};
    const auto upright = LinearGradient{.from = {0, 0}, .to = {0, 1079}};
    const auto radial = RadialGradient{.center = {960, 540}, .radius = 900};
    const auto conic = ConicGradient{.center = {960, 540}};
    add_ink<Rgba8>("conic gradient", with_stops(conic), 5);
    add_ink<Rgba8>("conic gradient, dithered", with_stops(conic, Dither::ordered), 7);
    add_ink<Rgba8>("radial gradient", with_stops(radial), 3.5);
    add_ink<Rgba8>("radial gradient, dithered", with_stops(radial, Dither::ordered), 5.5);
    add_ink<Rgba8>("linear gradient, slanted", with_stops(slanted), 2.5);
    add_ink<Rgba8>("linear gradient, slanted, dithered", with_stops(slanted, Dither::ordered), 4.5);
    add_ink<Rgba8>("linear gradient, from top to bottom", with_stops(upright), 2.5);
    add_ink<Rgba8>("linear gradient, from top to bottom, dithered", with_stops(upright, Dither::ordered), 4.5);
    add_ink<Rgb8>("linear gradient, slanted, 3 bytes", with_stops(slanted), 2.5);
    add_ink<Rgb8>("radial gradient, 3 bytes", with_stops(radial), 3.5);
    add_ink<Rgb8>("conic gradient, 3 bytes", with_stops(conic), 5);
}

void add_patterns() {
    constexpr auto allowed = 2.5;
    add_ink<Rgba8>("hatch", Hatch{.spacing = 6, .angle = 45_deg, .width = 1.5, .color = ink, .ground = gray(30)},
                   allowed);
    add_ink<Rgba8>("pattern of 12x10", Pattern::of(tile({12, 10})), allowed);
    add_ink<Rgb8>("pattern of 12x10, 3 bytes", Pattern::of(tile({12, 10})), allowed);
    add_ink<Rgba8>("picture as ink", PictureInk::of(tile(sheet)), allowed);
    add_ink<Rgba8>("function of the pixel", Ink{[](Point at) { return gray(static_cast<std::uint8_t>(at.x ^ at.y)); }},
                   0);
}

void add_blend_modes() {
    constexpr auto few = 4;
    constexpr auto more = 12;
    constexpr std::pair<Blend, const char*> modes[] = {{Blend::soft_light, "soft light"},
                                                       {Blend::color_dodge, "color dodge"},
                                                       {Blend::color_burn, "color burn"},
                                                       {Blend::hard_light, "hard light"},
                                                       {Blend::multiply, "multiply"},
                                                       {Blend::screen, "screen"},
                                                       {Blend::overlay, "overlay"},
                                                       {Blend::darken, "darken"},
                                                       {Blend::lighten, "lighten"},
                                                       {Blend::difference, "difference"},
                                                       {Blend::add, "add"},
                                                       {Blend::exclusion, "exclusion"},
                                                       {Blend::exclusive_or, "exclusive or"}};
    for (const auto& [mode, name] : modes) {
        const auto is_further = mode == Blend::soft_light || mode == Blend::color_dodge || mode == Blend::color_burn ||
                                mode == Blend::hard_light;
        add_ink<Rgba8>(name, Ink{with_alpha(ink, 200), {.blend = mode}}, is_further ? more : few);
        add_ink<Rgb8>(std::string{name} + ", 3 bytes", Ink{with_alpha(ink, 200), {.blend = mode}},
                      is_further ? more : few);
    }
    add_ink<Rgba8>("linear light", Ink{with_alpha(ink, 100), {.light = Light::linear}}, more);
    add_ink<Rgb8>("linear light, 3 bytes", Ink{with_alpha(ink, 100), {.light = Light::linear}}, more);
    const auto slanted = with_stops(LinearGradient{.from = {0, 0}, .to = {1919, 1079}});
    add_ink<Rgba8>("multiply by a linear gradient", Ink{slanted, {.blend = Blend::multiply}}, 0);
    add_ink<Rgba8>("translucent linear gradient", Ink{slanted, {.opacity = 0.5}}, 0);
    add_on_glass("multiply", Ink{with_alpha(ink, 200), {.blend = Blend::multiply}});
    add_on_glass("source-over", Ink{with_alpha(ink, 100)});
}

template <PixelFormat Format>
void add_formats(const std::string& name) {
    add_format<Format>(name + ", conic gradient", with_stops(ConicGradient{.center = {960, 540}}));
    add_format<Format>(name + ", radial gradient", with_stops(RadialGradient{.center = {960, 540}, .radius = 900}));
    add_format<Format>(name + ", linear gradient", with_stops(LinearGradient{.from = {0, 0}, .to = {1919, 1079}}));
    add_format<Format>(name + ", multiply", Ink{ink, {.blend = Blend::multiply}});
    add_format<Format>(name + ", translucent", with_alpha(ink, 100));
    add_format<Format>(name + ", pattern", Pattern::of(tile({12, 10})));
    add_format<Format>(name + ", opaque", ink);
}

}  // namespace

void add_inks() {
    add_gradients();
    add_patterns();
    add_blend_modes();
    const auto translucent = Ink{with_alpha(ink, 100)};
    add_ink<Rgba8>("translucent box 1920x1080, 4 bytes", translucent, 2.5);
    add_ink<Rgb8>("translucent box 1920x1080, 3 bytes", translucent, 2.5);
    // Twice the time of four bytes, of half the bytes.
    add_ink<Rgb565>("translucent box 1920x1080, Rgb565", translucent, 10);
    add_ink<Rgba4444>("translucent box 1920x1080, Rgba4444", translucent, 0);
    add_ink<Argb8>("translucent box 1920x1080, Argb8", translucent, 0);
    add_ink<PremultipliedRgba8>("translucent box 1920x1080, PremultipliedRgba8", translucent, 0);
    add_formats<Index8>("Index8");
    add_formats<Gray16>("Gray16");
    add_formats<Rgba16>("Rgba16");
    add_formats<GrayAlpha>("a format of one's own");
}

}  // namespace bench
