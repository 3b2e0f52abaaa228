// Inks on pixels: every blend mode on every format against the formulas of W3C Compositing and Blending Level 1, in
// exact fractions written apart from the library.
#include "oracle.hpp"
#include "own_format.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <array>
#include <cmath>

namespace {

using namespace coldbrick;
using namespace oracle;

// A fraction that stays exact.
struct Exact {
    Wide n = 0;
    Wide d = 1;
    friend Exact operator+(Exact a, Exact b) { return reduced({a.n * b.d + b.n * a.d, a.d * b.d}); }
    friend Exact operator-(Exact a, Exact b) { return reduced({a.n * b.d - b.n * a.d, a.d * b.d}); }
    friend Exact operator*(Exact a, Exact b) { return reduced({a.n * b.n, a.d * b.d}); }
    friend Exact operator/(Exact a, Exact b) { return reduced({a.n * b.d, a.d * b.n}); }
    friend bool operator<(Exact a, Exact b) { return a.n * b.d < b.n * a.d; }
    friend bool operator==(Exact a, Exact b) { return a.n * b.d == b.n * a.d; }

    static Exact reduced(Exact of) {
        auto a = of.n < 0 ? -of.n : of.n;
        auto b = of.d;
        while (b != 0) std::swap(a %= b, b);
        return {of.n / (a == 0 ? 1 : a), of.d / (a == 0 ? 1 : a)};
    }
    // The nearest whole number, halves up.
    [[nodiscard]] Wide rounded() const { return (2 * n + d) / (2 * d); }
};

constexpr Exact one{1, 1};
constexpr Exact two{2, 1};

struct ModeRule {
    Blend mode;
    Exact (*mix)(Exact below, Exact ink);
};

Exact multiply(Exact b, Exact s) { return b * s; }
Exact screen(Exact b, Exact s) { return b + s - b * s; }
Exact hard_light(Exact b, Exact s) {
    return s < Exact{1, 2} || s == Exact{1, 2} ? multiply(b, two * s) : screen(b, two * s - one);
}

// B(cb, cs) of section 10.1.
const std::vector<ModeRule>& separable() {
    static const std::vector<ModeRule> rules{
        {Blend::over, [](Exact, Exact s) { return s; }},
        {Blend::multiply, multiply},
        {Blend::screen, screen},
        {Blend::overlay, [](Exact b, Exact s) { return hard_light(s, b); }},
        {Blend::darken, [](Exact b, Exact s) { return std::min(b, s); }},
        {Blend::lighten, [](Exact b, Exact s) { return std::max(b, s); }},
        {Blend::color_dodge,
         [](Exact b, Exact s) {
             if (b == Exact{}) return b;
             return s == one ? one : std::min(one, b / (one - s));
         }},
        {Blend::color_burn,
         [](Exact b, Exact s) {
             if (b == one) return b;
             return s == Exact{} ? s : one - std::min(one, (one - b) / s);
         }},
        {Blend::hard_light, hard_light},
        {Blend::difference, [](Exact b, Exact s) { return b < s ? s - b : b - s; }},
        {Blend::exclusion, [](Exact b, Exact s) { return b + s - two * b * s; }}};
    return rules;
}

// A pixel as the numbers of its channels; m is the whole.
struct Texel {
    std::array<Wide, 3> color;
    Wide alpha;
    friend bool operator==(const Texel&, const Texel&) = default;
};

std::ostream& operator<<(std::ostream& out, const Texel& t) {
    for (const auto c : t.color) out << static_cast<long>(c) << ' ';
    return out << '/' << static_cast<long>(t.alpha);
}

Texel composed(const ModeRule& rule, const Texel& below, const Texel& ink, Wide m) {
    const auto part = [m](Wide value) { return Exact{value, m}; };
    const auto as = part(ink.alpha);
    const auto ab = part(below.alpha);
    const auto ao = as + ab - as * ab;
    if (ink.alpha == 0) return below;
    Texel result{.color = {}, .alpha = (ao * Exact{m, 1}).rounded()};
    for (std::size_t i = 0; i < 3; ++i) {
        const auto cb = part(below.color[i]);
        const auto cs = part(ink.color[i]);
        // Sections 5.1 and 10: the mixed colour where both are, each alone where the other is not.
        const auto sum = as * (one - ab) * cs + as * ab * rule.mix(cb, cs) + (one - as) * ab * cb;
        result.color[i] = (sum / ao * Exact{m, 1}).rounded();
    }
    return result;
}

template <PixelFormat Format>
constexpr bool is_deep = std::is_same_v<Format, Gray16> || std::is_same_v<Format, Rgba16>;
template <PixelFormat Format>
constexpr bool is_gray = std::is_same_v<Format, Gray16> || std::is_same_v<Format, Gray8>;
template <PixelFormat Format>
constexpr bool holds_alpha =
    std::is_same_v<Format, Rgba8> || std::is_same_v<Format, Bgra8> || std::is_same_v<Format, Rgba16>;

template <PixelFormat Format>
Texel texel_of(Color16 color) {
    const auto narrow = [](std::uint16_t v) -> Wide { return is_deep<Format> ? v : v / 257; };
    if (is_gray<Format>)
        color.red = color.green = color.blue = is_deep<Format> ? luma(color) : widened(gray(luma(narrowed(color)))).red;
    return {.color = {narrow(color.red), narrow(color.green), narrow(color.blue)}, .alpha = narrow(color.alpha)};
}

// A random colour that the format can hold; with many extremes.
template <PixelFormat Format>
Color16 random_texel(Dice& dice) {
    const auto channel = [&]() -> std::uint16_t {
        const auto kind = dice.number(0, 5);
        if (kind == 0) return 0;
        if (kind == 1) return 65535;
        return is_deep<Format> ? static_cast<std::uint16_t>(dice.number(0, 65535))
                               : static_cast<std::uint16_t>(257 * dice.number(0, 255));
    };
    return {channel(), channel(), channel(), channel()};
}

template <class Format>
class BlendsOn : public testing::Test {};
using AllFormats = testing::Types<Gray8, Rgb8, Bgr8, Rgba8, Bgra8, Gray16, Rgba16>;
TYPED_TEST_SUITE(BlendsOn, AllFormats);

TYPED_TEST(BlendsOn, EveryModeAsTheStandardSays) {
    using Format = TypeParam;
    constexpr Wide m = is_deep<Format> ? 65535 : 255;
    Dice dice{71};
    Bitmap<Format> pixel{{1, 1}};
    for (const auto& rule : separable()) {
        for (int i = 0; i < 300; ++i) {
            auto ground = random_texel<Format>(dice);
            if (!holds_alpha<Format>) ground.alpha = 65535;
            const auto ink = random_texel<Format>(dice);
            mark(pixel, {0, 0}, Ink{ground, {.blend = Blend::replace}});
            mark(pixel, {0, 0}, Ink{ink, {.blend = rule.mode}});
            auto expected = composed(rule, texel_of<Format>(ground), texel_of<Format>(ink), m);
            if (!holds_alpha<Format>) expected.alpha = m;
            ASSERT_EQ(texel_of<Format>(pixel.color16_at({0, 0})), expected)
                << "mode " << static_cast<int>(rule.mode) << ": " << texel_of<Format>(ink) << " on "
                << texel_of<Format>(ground);
        }
    }
}

TYPED_TEST(BlendsOn, SoftLightAndSums) {
    using Format = TypeParam;
    constexpr auto m = is_deep<Format> ? 65535.0L : 255.0L;
    Dice dice{72};
    Bitmap<Format> pixel{{1, 1}};
    for (int i = 0; i < 300; ++i) {
        auto ground = random_texel<Format>(dice);
        ground.alpha = 65535;
        auto ink = random_texel<Format>(dice);
        const auto below = texel_of<Format>(ground);
        const auto above = texel_of<Format>(ink);
        const auto alpha = static_cast<long double>(above.alpha) / m;
        mark(pixel, {0, 0}, ground);
        mark(pixel, {0, 0}, Ink{ink, {.blend = Blend::soft_light}});
        const auto soft = texel_of<Format>(pixel.color16_at({0, 0}));
        mark(pixel, {0, 0}, ground);
        mark(pixel, {0, 0}, Ink{ink, {.blend = Blend::add}});
        const auto sum = texel_of<Format>(pixel.color16_at({0, 0}));
        for (std::size_t c = 0; c < 3; ++c) {
            const auto b = static_cast<long double>(below.color[c]) / m;
            const auto s = static_cast<long double>(above.color[c]) / m;
            const auto lifted = b <= 0.25L ? ((16 * b - 12) * b + 4) * b : std::sqrt(b);
            const auto mixed = s <= 0.5L ? b - (1 - 2 * s) * b * (1 - b) : b + (2 * s - 1) * (lifted - b);
            EXPECT_NEAR(static_cast<double>(soft.color[c]), static_cast<double>(m * ((1 - alpha) * b + alpha * mixed)),
                        0.501);
            EXPECT_NEAR(static_cast<double>(sum.color[c]), static_cast<double>(m * std::min(1.0L, b + alpha * s)),
                        0.501);
        }
    }
}

TYPED_TEST(BlendsOn, LinearLightByTheCurve) {
    using Format = TypeParam;
    constexpr auto m = is_deep<Format> ? 65535.0L : 255.0L;
    const auto light = [](long double v) { return v <= 0.04045L ? v / 12.92L : std::pow((v + 0.055L) / 1.055L, 2.4L); };
    const auto back = [](long double l) {
        return l <= 0.0031308L ? l * 12.92L : 1.055L * std::pow(l, 1 / 2.4L) - 0.055L;
    };
    Dice dice{73};
    Bitmap<Format> pixel{{1, 1}};
    for (int i = 0; i < 200; ++i) {
        auto ground = random_texel<Format>(dice);
        ground.alpha = 65535;
        const auto ink = random_texel<Format>(dice);
        mark(pixel, {0, 0}, ground);
        mark(pixel, {0, 0}, Ink{ink, {.light = Light::linear}});
        const auto below = texel_of<Format>(ground);
        const auto above = texel_of<Format>(ink);
        const auto found = texel_of<Format>(pixel.color16_at({0, 0}));
        const auto alpha = static_cast<long double>(above.alpha) / m;
        for (std::size_t c = 0; c < 3; ++c) {
            const auto mixed = alpha * light(static_cast<long double>(above.color[c]) / m) +
                               (1 - alpha) * light(static_cast<long double>(below.color[c]) / m);
            EXPECT_NEAR(static_cast<double>(found.color[c]), static_cast<double>(m * back(mixed)), 0.51) << i;
        }
    }
}

TYPED_TEST(BlendsOn, ExclusiveOrIsUndoneByItself) {
    using Format = TypeParam;
    Bitmap<Format> sheet{{40, 40}};
    Dice dice{74};
    for (int y = 0; y < 40; ++y) {
        for (int x = 0; x < 40; ++x) mark(sheet, {x, y}, Ink{random_texel<Format>(dice), {.blend = Blend::replace}});
    }
    const auto before = sheet.bytes();
    const auto cursor = Ink{colors::gold, {.blend = Blend::exclusive_or}};
    fill(sheet, Circle{.center = {20, 20}, .radius = 12}, cursor);
    EXPECT_NE(sheet.bytes(), before);
    fill(sheet, Circle{.center = {20, 20}, .radius = 12}, cursor);
    EXPECT_EQ(sheet.bytes(), before);
}

// Wholes go by quick ways, single pixels by others: the bytes are the same.
TYPED_TEST(BlendsOn, QuickWaysGiveTheSameBytes) {
    using Format = TypeParam;
    Dice dice{75};
    constexpr auto size = Size{151, 7};
    std::vector<Compositing> options{{}, {.opacity = 0.4}, {.light = Light::linear}, {.channels = Channels::red}};
    for (int mode = 1; mode <= static_cast<int>(Blend::exclusive_or); ++mode) {
        options.push_back({.opacity = mode % 3 == 0 ? 0.7 : 1, .blend = static_cast<Blend>(mode)});
    }
    for (const auto& compositing : options) {
        for (const int alpha : {0, 1, 100, 254, 255}) {
            Bitmap<Format> whole{size};
            for (int x = 0; x < size.width; ++x) {
                for (int y = 0; y < size.height; ++y)
                    mark(whole, {x, y}, Ink{random_texel<Format>(dice), {.blend = Blend::replace}});
            }
            auto single = whole;
            const auto ink = Ink{with_alpha(colors::coral, static_cast<std::uint8_t>(alpha)), compositing};
            fill(whole, Box{.at = {}, .size = size}, ink);
            for (int x = 0; x < size.width; ++x) {
                for (int y = 0; y < size.height; ++y) mark(single, {x, y}, ink);
            }
            EXPECT_EQ(whole.bytes(), single.bytes()) << alpha << ", mode " << static_cast<int>(compositing.blend);
        }
    }
}

// Of a palette's numbers, too, some of which have no colour.
TEST(Blending, RunsOfNumbersAsOneByOne) {
    Dice dice{76};
    constexpr auto size = Size{190, 9};
    Bitmap<Gray8> numbers{size};
    for (int y = 0; y < size.height; ++y) {
        for (int x = 0; x < size.width; ++x)
            mark(numbers, {x, y}, gray(static_cast<std::uint8_t>(dice.number(0, 255))));
    }
    for (int mode = 0; mode <= static_cast<int>(Blend::exclusive_or); ++mode) {
        const auto ink = Ink{with_alpha(colors::coral, 140), {.opacity = 0.8, .blend = static_cast<Blend>(mode)}};
        auto memory = numbers.bytes();
        auto other = memory;
        const Pixels<Index8> whole{{.top_left = memory.data(), .size = size}};
        const Pixels<Index8> single{{.top_left = other.data(), .size = size}};
        fill(whole, Box{.at = {}, .size = size}, ink);
        for (int y = 0; y < size.height; ++y) {
            for (int x = 0; x < size.width; ++x) mark(single, {x, y}, ink);
        }
        EXPECT_EQ(memory, other) << mode;
    }
}

// On a whole run of opaque pixels a byte follows from that byte alone: every byte there is.
TEST(Blending, EveryByteOfARunAsTheStandardSays) {
    constexpr auto size = Size{256, 1};
    for (const auto& rule : separable()) {
        for (const int alpha : {1, 77, 200, 255}) {
            if (is_sanitized && alpha != 200) continue;
            for (int value = 0; value < 256; value += value % 15 == 0 ? 1 : 14) {
                Bitmap<Gray8> run{size};
                for (int x = 0; x < size.width; ++x) mark(run, {x, 0}, gray(static_cast<std::uint8_t>(x)));
                const auto color = with_alpha(gray(static_cast<std::uint8_t>(value)), static_cast<std::uint8_t>(alpha));
                fill(run, run.box(), Ink{color, {.blend = rule.mode}});
                for (int x = 0; x < size.width; ++x) {
                    const auto expected = composed(rule, {.color = {x, x, x}, .alpha = 255},
                                                   {.color = {value, value, value}, .alpha = alpha}, 255);
                    ASSERT_EQ(run.bytes()[static_cast<std::size_t>(x)], expected.color[0])
                        << static_cast<int>(rule.mode) << ": " << value << "/" << alpha << " on " << x;
                }
            }
        }
    }
}

// The same of 16 bits, where what becomes of a number bends, and elsewhere.
TEST(Blending, NumbersOfARunAsTheStandardSays) {
    Dice dice{78};
    constexpr auto size = Size{203, 1};
    for (const auto& rule : separable()) {
        for (int n = 0; n < (is_sanitized ? 4 : 40); ++n) {
            const auto extreme = std::array{0, 1, 32767, 32768, 65534, 65535}[static_cast<std::size_t>(n % 6)];
            const auto value = n % 2 == 0 ? extreme : dice.number(0, 65535);
            const auto alpha = n % 3 == 0 ? 65535 : dice.number(1, 65535);
            std::vector<std::uint16_t> below;
            for (const auto from : {0, value, 65535 - value, 32767, 65535}) {
                for (int i = -10; i < 10; ++i)
                    below.push_back(static_cast<std::uint16_t>(std::clamp(from + i, 0, 65535)));
            }
            while (below.size() < 203) below.push_back(static_cast<std::uint16_t>(dice.number(0, 65535)));
            auto run = below;
            const auto ink = static_cast<std::uint16_t>(value);
            fill(Pixels<Gray16>{{.top_left = run.data(), .size = size}}, Box{.at = {}, .size = size},
                 Ink{Color16{ink, ink, ink, static_cast<std::uint16_t>(alpha)}, {.blend = rule.mode}});
            for (std::size_t i = 0; i < run.size(); ++i) {
                const auto expected = composed(rule, {.color = {below[i], below[i], below[i]}, .alpha = 65535},
                                               {.color = {value, value, value}, .alpha = alpha}, 65535);
                ASSERT_EQ(run[i], expected.color[0])
                    << static_cast<int>(rule.mode) << ": " << value << "/" << alpha << " on " << below[i];
            }
        }
    }
}

// A format of one's own holds colours: long runs, opaque and not, become what they become in a format that does.
TEST(Blending, RunsOfOwnPixelsAsOfColors) {
    for (int mode = 0; mode <= static_cast<int>(Blend::exclusive_or); ++mode) {
        for (const auto light : {Light::encoded, Light::linear}) {
            const auto ink = Ink{with_alpha(colors::coral, 150),
                                 {.opacity = 0.9, .blend = static_cast<Blend>(mode), .light = light}};
            Bitmap<OwnRgb565> screen{{300, 2}};
            for (int x = 0; x < 300; ++x)
                fill(screen, Box{.at = {x, 0}, .size = {1, 2}},
                     Color{static_cast<std::uint8_t>(x), 90, static_cast<std::uint8_t>(3 * x)});
            const auto before = convert<Rgb8>(screen);
            auto wanted = before;
            fill(wanted, wanted.box(), ink);
            auto rounded = Bitmap<OwnRgb565>{{300, 2}};
            paste(rounded, wanted);
            fill(screen, screen.box(), ink);
            EXPECT_EQ(screen.bytes(), rounded.bytes()) << mode;
        }
    }
}

// Coverage weakens the ink as its alpha does, rounded once.
TYPED_TEST(BlendsOn, SmoothEdgesAreWeakerInk) {
    using Format = TypeParam;
    const auto disc = filled(Circle{.center = {12, 12}, .radius = 9}, {.edge = Edge::smooth});
    const SmoothRegion cover{disc};
    Bitmap<Format> drawn{{25, 25}, colors::teal};
    Bitmap<Format> expected{{25, 25}, colors::teal};
    const auto ink = with_alpha(colors::gold, 180);
    fill(drawn, disc, ink);
    for (const auto& part : cover.parts()) {
        const auto alpha = static_cast<std::uint16_t>((2 * 257 * 180 * part.coverage + 255) / 510);
        auto weak = widened(ink);
        weak.alpha =
            is_deep<Format> ? alpha : static_cast<std::uint16_t>(257 * ((2 * 180 * part.coverage + 255) / 510));
        for (int i = 0; i < part.length; ++i) mark(expected, {part.x + i, part.y}, weak);
    }
    EXPECT_EQ(drawn.bytes(), expected.bytes());
    // Covered in part, an ink that replaces lies between both.
    Bitmap<Format> replaced{{25, 25}, colors::teal};
    fill(replaced, disc, Ink{colors::gold, {.blend = Blend::replace}});
    EXPECT_EQ(replaced.color_at({12, 12}), Bitmap<Format>({1, 1}, colors::gold).color_at({0, 0}));
    Bitmap<Format> over{{25, 25}, colors::teal};
    fill(over, disc, colors::gold);
    const auto at = Point{4, 7};
    EXPECT_NEAR(replaced.color_at(at).green, over.color_at(at).green, 1);
}

TEST(Channels, AreDrawnIntoAlone) {
    Bitmap<Rgba8> sheet{{4, 1}, 0x10203040_rgba};
    mark(sheet, {0, 0}, Ink{gray(255), {.blend = Blend::replace, .channels = Channels::alpha}});
    mark(sheet, {1, 0}, Ink{0xaabbccff_rgba, {.blend = Blend::replace, .channels = Channels::red}});
    mark(sheet, {2, 0}, Ink{0xaabbccff_rgba, {.blend = Blend::replace, .channels = Channels::green | Channels::blue}});
    mark(sheet, {3, 0}, Ink{0xaabbccff_rgba, {.blend = Blend::replace, .channels = Channels::none}});
    EXPECT_EQ(sheet.color_at({0, 0}), 0x102030ff_rgba);
    EXPECT_EQ(sheet.color_at({1, 0}), 0xaa203040_rgba);
    EXPECT_EQ(sheet.color_at({2, 0}), 0x10bbcc40_rgba);
    EXPECT_EQ(sheet.color_at({3, 0}), 0x10203040_rgba);
    Bitmap<Gray8> small{{1, 1}};
    mark(small, {0, 0}, Ink{gray(9), {.channels = Channels::alpha}});
    EXPECT_EQ(small.color_at({0, 0}), gray(0));
}

TEST(Channels, AreViewsToDrawOn) {
    Bitmap<Bgra8> frame{{30, 20}, 0x102030ff_rgba};
    const auto red = channel(frame, Channels::red);
    fill(red, Circle{.center = {9, 9}, .radius = 6}, {.edge = Edge::smooth}, gray(200));
    EXPECT_EQ(frame.color_at({9, 9}), 0xc82030ff_rgba);
    EXPECT_EQ(red.color_at({9, 9}), gray(200));
    clear(channel(frame, Channels::alpha).within({.at = {20, 0}, .size = {10, 20}}), gray(7));
    EXPECT_EQ(frame.color_at({25, 3}), 0x10203007_rgba);
    EXPECT_EQ(frame.color_at({3, 19}), 0x102030ff_rgba);
    EXPECT_EQ(convert<Gray8>(channel(frame, Channels::blue)).color_at({0, 0}), gray(0x30));
    Bitmap<Rgba16> deep{{3, 3}};
    mark(channel(deep, Channels::green), {1, 1}, Color16{1000, 1000, 1000});
    EXPECT_EQ(deep.color16_at({1, 1}), (Color16{0, 1000, 0, 0}));
    Bitmap<Rgb8> opaque{{3, 3}};
    EXPECT_THROW((void)channel(opaque, Channels::alpha), Error);
    EXPECT_THROW((void)channel(opaque, Channels::color), Error);
}

TEST(Opacity, MultipliesTheInksAlpha) {
    Bitmap<Rgb8> a{{1, 1}, colors::black};
    Bitmap<Rgb8> b{{1, 1}, colors::black};
    mark(a, {0, 0}, Ink{gray(255), {.opacity = 0.4}});
    mark(b, {0, 0}, with_alpha(gray(255), 102));
    EXPECT_EQ(a.bytes(), b.bytes());
    for (const auto opacity : {-0.1, 1.1, std::nan("")}) EXPECT_THROW((Ink{gray(1), {.opacity = opacity}}), Error);
}

}  // namespace
