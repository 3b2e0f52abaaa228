// coldbrick/ink.hpp - what is laid on the pixels of a shape, and how.
//
//     fill(chart, shoal, colors::seagreen);                              // a colour is an ink
//     fill(chart, shoal, with_alpha(colors::seagreen, 96));              // translucent: blends source-over
//     fill(chart, shoal, Ink{colors::seagreen, {.opacity = 0.4, .blend = Blend::multiply}});
//     fill(chart, mask, Ink{gray(255), {.channels = Channels::alpha}});  // draws into one channel only
//     fill(chart, sky, LinearGradient{{0, 0}, {0, 300}, {{0, navy}, {1, gold}}});   // gradient.hpp
//     fill(chart, water, Hatch{.spacing = 6, .angle = 45_deg});          // pattern.hpp
//     fill(chart, sand, [](Point at) { return gray((at.x * 7 + at.y * 3) % 256); });   // a function of the pixel
#pragma once

#include "coldbrick/color.hpp"
#include "coldbrick/detail/public.hpp"
#include "coldbrick/detail/shared.hpp"
#include "coldbrick/geometry.hpp"
#include "coldbrick/palette.hpp"

#include <array>
#include <concepts>
#include <cstdint>
#include <span>
#include <string_view>
#include <utility>
#include <variant>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// How an ink and what is below it become one colour. over: source-over, the ink in front of what is below. replace: the
// ink instead of what is below, with its alpha. multiply to exclusion: the separable blend modes of W3C Compositing and
// Blending Level 1, section 10.1, composited source-over. add: the sum of both (plus-lighter of the standard's draft,
// section 9.1.14). exclusive_or: each bit of the colour channels turned over where the ink's is set, whatever its
// alpha, so that the same drawing once more undoes it; pixels covered by less than half stay as they are.
enum class Blend {
    over,
    replace,
    multiply,
    screen,
    overlay,
    darken,
    lighten,
    color_dodge,
    color_burn,
    hard_light,
    soft_light,
    difference,
    exclusion,
    add,
    exclusive_or
};

namespace detail {

// The names of the blend modes, in their order: in messages and in scenes.
inline constexpr std::array<std::string_view, 15> blend_names = {
    "over",       "replace",    "multiply",   "screen",     "overlay",   "darken", "lighten",     "color_dodge",
    "color_burn", "hard_light", "soft_light", "difference", "exclusion", "add",    "exclusive_or"};
static_assert(static_cast<std::size_t>(Blend::exclusive_or) + 1 == blend_names.size());

}  // namespace detail

// In which numbers blending is done: those of the channels as they are (encoded as sRGB), or in proportion to light
// (IEC 61966-2-1).
enum class Light { encoded, linear };

// A set of channels. Gray formats have all three colour channels in one; formats without alpha have no alpha to draw
// into.
enum class Channels : std::uint8_t { none = 0, red = 1, green = 2, blue = 4, alpha = 8, color = 7, all = 15 };
constexpr Channels operator|(Channels a, Channels b) noexcept {
    return static_cast<Channels>(static_cast<unsigned>(a) | static_cast<unsigned>(b));
}
constexpr bool has(Channels set, Channels some) noexcept {
    return (static_cast<unsigned>(set) & static_cast<unsigned>(some)) != 0;
}

// How an ink is laid on.
struct Compositing {
    double opacity = 1;  // 0 to 1 (alpha is 0 to 255); the ink's alpha is multiplied by it
    Blend blend = Blend::over;
    Channels channels = Channels::all;
    Light light = Light::encoded;
    friend bool operator==(const Compositing&, const Compositing&) = default;
};

// Where a gradient's or a pattern's coordinates begin. target: at pixel (0, 0) of the buffer. shape: at the upper left
// corner of the box around what is drawn; the coordinates of gradients then count in widths and heights of that box,
// from 0 to 1, those of patterns in pixels.
enum class Placing { target, shape };

namespace detail {

// The colours of an ink that has more than one.
class InkSource : public Counted {
  public:
    // The colours of count pixels of a row from (x, y) on, for a shape in the box.
    virtual void fetch(Point from, int count, const Box& shape, Color* colors) const = 0;
    virtual void fetch(Point from, int count, const Box& shape, Color16* colors) const = 0;

    // The colour of one pixel.
    [[nodiscard]] virtual Color color_of_pixel(Point pixel, const Box& shape) const {
        Color color;
        fetch(pixel, 1, shape, &color);
        return color;
    }

    // Whether all colours are opaque, and whether the box around the shape matters.
    [[nodiscard]] virtual bool is_opaque() const noexcept = 0;
    [[nodiscard]] virtual bool is_placed_in_shape() const noexcept = 0;

    // After how many pixels of a row its colours come again: 1 if they are all one. 0: never, or not known.
    [[nodiscard]] virtual int row_period() const noexcept { return 0; }
};

// A function that says the colour of a pixel, or fills in those of some pixels of a row, from one on to the right.
template <class Function>
concept PixelFunction = requires(const Function& function, Point pixel) {
    { function(pixel) } -> std::convertible_to<Color>;
};
template <class Function>
concept RowFunction = requires(const Function& function, Point first, std::span<Color> row) {
    function(first, row);
};

template <class Function>
class FunctionSource final : public InkSource {
  public:
    explicit FunctionSource(Function function) : function_{std::move(function)} {}

    void fetch(Point from, int count, const Box&, Color* colors) const override {
        if constexpr (RowFunction<Function>) {
            function_(from, std::span{colors, static_cast<std::size_t>(count)});
        } else {
            for (int i = 0; i < count; ++i) colors[i] = function_(Point{.x = from.x + i, .y = from.y});
        }
    }
    void fetch(Point from, int count, const Box& shape, Color16* colors) const override {
        std::vector<Color> shallow(static_cast<std::size_t>(count));
        fetch(from, count, shape, shallow.data());
        for (int i = 0; i < count; ++i) colors[i] = widened(shallow[static_cast<std::size_t>(i)]);
    }
    [[nodiscard]] bool is_opaque() const noexcept override { return false; }
    [[nodiscard]] bool is_placed_in_shape() const noexcept override { return false; }

  private:
    Function function_;
};

}  // namespace detail

// Anything that can be laid on pixels. Copies share what does not change.
class Ink {
  public:
    using Source = detail::Shared<detail::InkSource>;

    // Implicit, so that a colour can be given wherever an ink is asked for. With alpha 255 it replaces what is there,
    // with less it blends.
    Ink(Color color) noexcept : of_{color} {}
    Ink(Color16 color) noexcept : of_{color} {}
    // For Index8 buffers only; on others drawing throws Error.
    Ink(PaletteEntry entry) noexcept : of_{entry} {}

    // Of a function of the pixel's place in the target: Color(Point), or void(Point first, std::span<Color> row), which
    // sets the colours of some hundreds of pixels of a row at once. It is called for pixels that are drawn, in no
    // promised order; what it throws ends the call, with a part of it drawn.
    template <class Function>
    requires detail::PixelFunction<Function> || detail::RowFunction<Function> Ink(Function function)
        : of_{Source{detail::make_shared_value<detail::FunctionSource<Function>>(std::move(function))}} {}

    explicit Ink(Source source) noexcept : of_{std::move(source)} {}

    // Texts and numbers are no inks.
    template <class Given>
    requires std::is_arithmetic_v<Given> || std::is_convertible_v<Given, const char*>
    explicit Ink(const Given&) {
        static_assert(
            detail::never<Given>,
            "an ink is a colour, not its name or number: write colors::red, 0xff0000_rgb, or parse_color(\"red\")");
    }

    // The same ink, laid otherwise. Throws Error if the opacity is not from 0 to 1.
    Ink(const Ink& ink, const Compositing& how);

    [[nodiscard]] const std::variant<Color, Color16, PaletteEntry, Source>& of() const& noexcept { return of_; }
    [[nodiscard]] const Compositing& how() const& noexcept { return how_; }
    [[nodiscard]] std::variant<Color, Color16, PaletteEntry, Source> of() && noexcept { return std::move(of_); }
    [[nodiscard]] Compositing how() && noexcept { return how_; }

    // The colour, if it is of one colour of 8 bits a channel.
    [[nodiscard]] const Color* color() const noexcept { return std::get_if<Color>(&of_); }

    // The same if it is laid as usual, source-over and all of it.
    [[nodiscard]] const Color* plain_color() const noexcept { return is_usual_ ? color() : nullptr; }

    // Whether it is laid by Compositing{}.
    [[nodiscard]] bool is_usual() const noexcept { return is_usual_; }

    // Whether both are of the same colour or source, laid alike.
    friend bool operator==(const Ink&, const Ink&) = default;

  private:
    std::variant<Color, Color16, PaletteEntry, Source> of_;
    Compositing how_;
    bool is_usual_ = true;
};

}  // namespace v0
}  // namespace coldbrick
