// Rows of every length: what goes through vectors by some pixels at a time is the same for what is left over, on views
// of any memory, as one pixel by itself.
#include "oracle.hpp"
#include "own_format.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <queue>
#include <set>

namespace {

using namespace coldbrick;
using namespace oracle;

template <PixelFormat Format>
Bitmap<Format> speckled(Dice& dice, Size size, bool is_opaque) {
    Bitmap<Format> bitmap{size};
    for (int y = 0; y < size.height; ++y) {
        for (int x = 0; x < size.width; ++x) {
            auto color = dice.color();
            if (is_opaque || dice.number(0, 2) > 0) color.alpha = 255;
            mark(bitmap, {x, y}, Ink{color, {.blend = Blend::replace}});
        }
    }
    return bitmap;
}

// Memory with gaps between the rows, which are stored from the last one to the first; and a view of it.
template <PixelFormat Format>
struct Gapped {
    explicit Gapped(Size size)
        : stride{row_bytes<Format>(size.width) + 13},
          memory(static_cast<std::size_t>(stride * size.height), std::uint8_t{0xa5}),
          view{{.top_left = memory.data() + stride * (size.height - 1), .size = size, .stride = -stride}} {}

    // Whether no byte beside the rows has changed.
    [[nodiscard]] bool has_kept_gaps() const {
        const auto row = row_bytes<Format>(view.size().width);
        for (std::size_t i = 0; i < memory.size(); ++i) {
            const auto is_gap = static_cast<std::ptrdiff_t>(i) % stride >= row;
            if (is_gap && memory[i] != 0xa5) return false;
        }
        return true;
    }

    std::ptrdiff_t stride;
    std::vector<std::uint8_t> memory;
    Pixels<Format> view;
};

template <class From, class To>
void expect_converted(Dice& dice) {
    for (int width = 1; width < 70; width += width < 40 ? 1 : 7) {
        const auto picture = speckled<From>(dice, {width, 2}, width % 2 == 0);
        const auto converted = convert<To>(picture);
        Gapped<From> gapped{{width + 2, 4}};
        paste(gapped.view, picture, {.at = {1, 1}, .compositing = {.blend = Blend::replace}});
        EXPECT_TRUE(gapped.has_kept_gaps());
        EXPECT_EQ(convert<To>(gapped.view.within({.at = {1, 1}, .size = {width, 2}})).bytes(), converted.bytes())
            << width;
        for (int y = 0; y < 2; ++y) {
            for (int x = 0; x < width; ++x) {
                const auto single = convert<To>(crop(picture, {.at = {x, y}, .size = {1, 1}}));
                ASSERT_EQ(single.color16_at({0, 0}), converted.color16_at({x, y})) << x << " of " << width;
            }
        }
    }
}

template <class From>
void expect_converted_to_all(unsigned seed) {
    Dice dice{seed};
    expect_converted<From, Gray8>(dice);
    expect_converted<From, Rgb8>(dice);
    expect_converted<From, Rgba8>(dice);
    if (is_sanitized) return;
    expect_converted<From, Bgr8>(dice);
    expect_converted<From, Bgra8>(dice);
    expect_converted<From, Index8>(dice);
    expect_converted<From, Gray16>(dice);
    expect_converted<From, Rgba16>(dice);
    expect_converted<From, Rgb565>(dice);
    expect_converted<From, OwnRgb565>(dice);
}

TEST(RowsOfEveryLength, AreConvertedPixelByPixel) {
    expect_converted_to_all<Gray8>(801);
    expect_converted_to_all<Rgb8>(802);
    expect_converted_to_all<Bgr8>(803);
    expect_converted_to_all<Rgba8>(804);
    if (is_sanitized) return;
    expect_converted_to_all<Bgra8>(805);
    expect_converted_to_all<Index8>(806);
    expect_converted_to_all<Gray16>(807);
    expect_converted_to_all<Rgba16>(808);
    expect_converted_to_all<OwnRgb565>(809);
}

template <PixelFormat Format>
void expect_grayed_out(unsigned seed) {
    constexpr auto is_deep = std::is_same_v<Format, Rgba16>;
    Dice dice{seed};
    for (int width = 1; width < 40; ++width) {
        const auto before = speckled<Format>(dice, {width, 3}, false);
        Gapped<Format> gapped{{width, 3}};
        paste(gapped.view, before, {.compositing = {.blend = Blend::replace}});
        gray_out(gapped.view);
        EXPECT_TRUE(gapped.has_kept_gaps());
        auto clipped = before;
        const Region every_other =
            Region::of_spans({{.y = 0, .x = 0, .length = (width + 1) / 2}, {.y = 2, .x = width / 2, .length = 1}});
        gray_out(clipped.within(every_other));
        for (int y = 0; y < 3; ++y) {
            for (int x = 0; x < width; ++x) {
                const auto color = before.color16_at({x, y});
                const auto found = gapped.view.color16_at({x, y});
                ASSERT_EQ(found.red, found.green);
                ASSERT_EQ(found.red, found.blue);
                ASSERT_EQ(found.alpha, color.alpha);
                const auto wanted = is_deep ? luma(color) : widened(gray(luma(narrowed(color)))).red;
                ASSERT_EQ(found.red, wanted) << x << " of " << width;
                const auto is_seen = every_other.contains({x, y});
                ASSERT_EQ(clipped.color16_at({x, y}), is_seen ? found : color) << x << " of " << width;
            }
        }
    }
}

TEST(RowsOfEveryLength, AreGrayedOutPixelByPixel) {
    expect_grayed_out<Rgba8>(811);
    expect_grayed_out<Bgra8>(812);
    expect_grayed_out<Rgb8>(813);
    expect_grayed_out<Rgba16>(814);
}

// What is connected, pixel by pixel.
template <class P>
std::set<std::pair<int, int>> flooded(const P& picture, const FloodFrom& how, const Box& clip) {
    const auto apart = [](int a, int b) { return std::abs(a - b); };
    const auto first = picture.color_at(how.from);
    const auto is_like = [&](Point at) {
        const auto color = picture.color_at(at);
        return std::max({apart(color.red, first.red), apart(color.green, first.green), apart(color.blue, first.blue),
                         apart(color.alpha, first.alpha)}) <= how.tolerance;
    };
    std::set<std::pair<int, int>> found{{how.from.y, how.from.x}};
    std::queue<Point> waiting{{how.from}};
    while (!waiting.empty()) {
        const auto [x, y] = waiting.front();
        waiting.pop();
        for (int dy = -1; dy <= 1; ++dy) {
            for (int dx = -1; dx <= 1; ++dx) {
                const auto is_corner = dx != 0 && dy != 0;
                if ((dx == 0 && dy == 0) || (is_corner && how.neighbors == Neighbors::four)) continue;
                const auto next = Point{x + dx, y + dy};
                if (!contains(clip, next) || !is_like(next) || found.contains({next.y, next.x})) continue;
                found.insert({next.y, next.x});
                waiting.push(next);
            }
        }
    }
    return found;
}

template <PixelFormat Format>
void expect_flooded(unsigned seed) {
    Dice dice{seed};
    for (int i = 0; i < (is_sanitized ? 6 : 40); ++i) {
        const auto size = Size{dice.number(1, 60), dice.number(1, 12)};
        Gapped<Format> picture{size};
        const std::array inks{colors::navy, Color{3, 2, 130}, colors::gold};
        for (int y = 0; y < size.height; ++y) {
            for (int x = 0; x < size.width; ++x)
                mark(picture.view, {x, y}, inks[static_cast<std::size_t>(dice.number(0, 9) / 4)]);
        }
        const auto clip = Box{.at = {}, .size = {dice.number(1, size.width), dice.number(1, size.height)}};
        const auto how = FloodFrom{.from = dice.point(clip),
                                   .tolerance = dice.number(0, 2) * 20,
                                   .neighbors = i % 2 == 0 ? Neighbors::four : Neighbors::eight};
        const auto wanted = flooded(picture.view, how, clip);
        const auto found = flood(picture.view.within(clip), how);
        EXPECT_EQ(found.area(), static_cast<std::int64_t>(wanted.size()));
        for (const auto& [y, x] : wanted) ASSERT_TRUE(found.contains({x, y})) << x << "," << y << " in turn " << i;
    }
}

TEST(RowsOfEveryLength, AreFloodedPixelByPixel) {
    expect_flooded<Gray8>(821);
    expect_flooded<Rgb8>(822);
    expect_flooded<Bgr8>(823);
    expect_flooded<Rgba8>(824);
    expect_flooded<Bgra8>(825);
    expect_flooded<Index8>(826);
    expect_flooded<Gray16>(827);
    expect_flooded<Rgba16>(828);
    expect_flooded<Rgb565>(829);
    expect_flooded<OwnRgb565>(830);
}

// Rows that are looked at by parts of a thousand pixels.
TEST(RowsOfEveryLength, FloodsGoOnFromPartToPart) {
    for (const auto width : {1023, 1024, 1025, 3000}) {
        Bitmap<Rgba8> sheet{{width, 3}, colors::navy};
        mark(sheet, {width / 2, 1}, colors::gold);
        EXPECT_EQ(flood(sheet, {.from = {0, 1}}).area(), 3 * width - 1);
        EXPECT_EQ(flood(sheet, {.from = {width - 1, 2}}).area(), 3 * width - 1);
        fill(sheet, Box{.at = {1022, 0}, .size = {1, 3}}, colors::gold);
        EXPECT_EQ(flood(sheet, {.from = {0, 1}}).bounds().size.width, 1022);
    }
}

// In another size: from a view of any memory, from a file's rows, and on threads.
template <PixelFormat Format>
void expect_resized_alike(unsigned seed) {
    Dice dice{seed};
    for (int i = 0; i < (is_sanitized ? 4 : 24); ++i) {
        const auto factor = dice.number(1, 4);
        const auto to = Size{dice.number(1, 20), dice.number(1, 12)};
        // Every other time by whole factors.
        const auto from =
            i % 2 == 0 ? Size{factor * to.width, factor * to.height} : Size{dice.number(1, 60), dice.number(1, 30)};
        auto picture = speckled<Format>(dice, from, i % 3 == 0);
        if (i % 3 == 1 && from.height > 1)
            fill(picture, Box{.at = {}, .size = {from.width, from.height / 2}}, colors::coral);
        Gapped<Format> gapped{{from.width + 3, from.height + 2}};
        paste(gapped.view, picture, {.at = {2, 1}, .compositing = {.blend = Blend::replace}});
        const auto view = gapped.view.within({.at = {2, 1}, .size = from});
        const auto file = encode(picture, FileFormat::pam);
        for (const auto how : {Scaling::nearest, Scaling::box, Scaling::bilinear, Scaling::lanczos}) {
            const auto expected = resized(picture, to, how);
            EXPECT_EQ(resized(view, to, how).bytes(), expected.bytes());
            EXPECT_EQ(resized(picture, to, how, {.threads = 3}).bytes(), expected.bytes());
            const auto loaded = load<Format>(std::span<const std::uint8_t>{file}, Excerpt{.size = to, .scaling = how});
            EXPECT_EQ(loaded.bytes(), expected.bytes())
                << static_cast<int>(how) << ": " << from.width << "x" << from.height;
        }
    }
}

TEST(RowsOfEveryLength, AreResizedFromAnywhereAlike) {
    expect_resized_alike<Gray8>(831);
    expect_resized_alike<Rgb8>(832);
    expect_resized_alike<Rgba8>(833);
    expect_resized_alike<Gray16>(834);
    expect_resized_alike<Rgba16>(835);
}

// Turned pictures are sampled where they lie.
TEST(RowsOfEveryLength, AreSampledFromAnywhereAlike) {
    Dice dice{841};
    const auto picture = speckled<Rgb8>(dice, {33, 21}, true);
    Gapped<Rgb8> gapped{{40, 30}};
    paste(gapped.view, picture, {.at = {4, 5}});
    const auto by = Transform{}.turn(Angle::degrees(-71)).scale({2.5, 3.25}).move({3, 96});
    Bitmap<Rgba8> expected{{97, 101}, colors::navy};
    paste(expected, picture, by);
    Bitmap<Rgba8> found{{97, 101}, colors::navy};
    paste(found, gapped.view.within({.at = {4, 5}, .size = {33, 21}}), by);
    EXPECT_EQ(found.bytes(), expected.bytes());
    EXPECT_NE(found.bytes(), (Bitmap<Rgba8>{{97, 101}, colors::navy}.bytes()));
    // Onto itself, as from a copy.
    auto itself = expected;
    auto copied = expected;
    paste(itself, itself, Transform{}.turn(5_deg));
    paste(copied, expected, Transform{}.turn(5_deg));
    EXPECT_EQ(itself.bytes(), copied.bytes());
}

// Single pixels by any ink, as parts of a row of them.
template <PixelFormat Format>
void expect_marks_as_rows(unsigned seed) {
    Dice dice{seed};
    constexpr auto size = Size{37, 2};
    const auto ground = speckled<Format>(dice, size, false);
    const std::vector<Stop> stops{{0, colors::gold}, {0.4, with_alpha(colors::teal, 90)}, {1, colors::coral}};
    const auto tile = speckled<Rgba8>(dice, {5, 3}, false);
    std::vector<Ink> inks{LinearGradient{.from = {0, 0}, .to = {36, 1}, .stops = stops},
                          LinearGradient{.from = {0, 0}, .to = {36, 9}, .stops = stops, .dither = Dither::ordered},
                          RadialGradient{.center = {9, 1}, .radius = 20, .stops = stops},
                          ConicGradient{.center = {9, 1}, .from = 30_deg, .stops = stops},
                          Pattern::of(tile),
                          PictureInk::of(tile, {.at = {7, 0}}),
                          Hatch{.spacing = 3, .angle = 20_deg},
                          Color16{1000, 50000, 7, 40000},
                          with_alpha(colors::coral, 7),
                          [](Point at) { return gray(static_cast<std::uint8_t>(5 * at.x)); }};
    for (int mode = 0; mode <= static_cast<int>(Blend::exclusive_or); ++mode) {
        const auto how = Compositing{.opacity = mode % 2 == 0 ? 1 : 0.6, .blend = static_cast<Blend>(mode)};
        for (std::size_t i = 0; i < inks.size(); i += is_sanitized ? 4 : 1) {
            const Ink ink{inks[i], how};
            auto rows = ground;
            fill(rows, rows.box(), ink);
            auto marks = ground;
            auto boxes = ground;
            for (int y = 0; y < size.height; ++y) {
                for (int x = 0; x < size.width; ++x) {
                    EXPECT_EQ(mark(marks, {x, y}, ink), (Box{.at = {x, y}, .size = {1, 1}}));
                    fill(boxes, Box{.at = {x, y}, .size = {1, 1}}, ink);
                }
            }
            EXPECT_EQ(marks.bytes(), rows.bytes()) << "ink " << i << ", mode " << mode;
            EXPECT_EQ(boxes.bytes(), rows.bytes()) << "ink " << i << ", mode " << mode;
        }
    }
    auto outside = ground;
    for (const auto& ink : inks) {
        EXPECT_TRUE(mark(outside, {-1, 0}, ink).empty());
        EXPECT_TRUE(mark(outside.within(Box{{3, 0}, {2, 2}}), {7, 1}, ink).empty());
        EXPECT_TRUE(fill(outside, Box{.at = {37, 1}, .size = {1, 1}}, ink).empty());
    }
    EXPECT_EQ(outside.bytes(), ground.bytes());
}

TEST(SinglePixels, AreLaidAsPartsOfRows) {
    expect_marks_as_rows<Gray8>(851);
    expect_marks_as_rows<Rgba8>(852);
    expect_marks_as_rows<Rgba16>(853);
    if (is_sanitized) return;
    expect_marks_as_rows<Rgb8>(854);
    expect_marks_as_rows<Bgra8>(855);
    expect_marks_as_rows<Index8>(856);
    expect_marks_as_rows<Gray16>(857);
    expect_marks_as_rows<Rgb565>(858);
    expect_marks_as_rows<Bit1>(859);
    expect_marks_as_rows<OwnRgb565>(860);
}

// Whoever is told of what is touched is told of single pixels too, and of those that lie outside.
TEST(SinglePixels, AreExplained) {
    const LinearGradient gradient{.from = {0, 0}, .to = {9, 0}, .stops = {{0, colors::gold}, {1, colors::teal}}};
    Drawing plan;
    for (const auto x : {3, -1, 12}) {
        fill(plan, Box{.at = {x, 2}, .size = {1, 1}}, gradient);
        mark(plan, {x, 4}, Ink{colors::coral, {.blend = Blend::multiply}});
    }
    const Bitmap<Rgb8> ground{{10, 6}, colors::slategray};
    const auto all = explain(plan, ground);
    for (std::size_t i = 0; i < 6; ++i) {
        EXPECT_EQ(all.calls[i].showing, i < 2 ? Showing::seen : Showing::outside) << i;
        EXPECT_EQ(all.calls[i].touched, i < 2 ? 1 : 0) << i;
    }
    auto picture = ground;
    Owners owners;
    render(plan, picture, owners);
    EXPECT_EQ(owners.at({3, 2}), std::optional<std::size_t>{0});
    EXPECT_EQ(owners.at({3, 4}), std::optional<std::size_t>{1});
    EXPECT_FALSE(owners.at({4, 4}).has_value());
}

// A format of one's own that leaves a byte of its pixels alone.
struct Spaced {};

}  // namespace

template <>
struct coldbrick::FormatTraits<Spaced> {
    static constexpr int pixel_bytes = 4;
    static constexpr bool has_alpha = false;
    static void store(Color color, std::uint8_t* pixel) {
        pixel[0] = color.red;
        pixel[1] = color.green;
        pixel[3] = color.blue;
    }
    static Color load(const std::uint8_t* pixel) { return {.red = pixel[0], .green = pixel[1], .blue = pixel[3]}; }
};

namespace {

TEST(Bitmaps, HaveNoBytesThatNobodyHasSet) {
    // Memory that has been used is taken again.
    for (int i = 0; i < 20; ++i) {
        std::vector<std::vector<std::uint8_t>> used(4, std::vector<std::uint8_t>(60 * 40 * 4, std::uint8_t{0xee}));
        used.clear();
        const Bitmap<Rgb8> picture{{60, 40}, colors::coral};
        for (const auto& spaced : {Bitmap<Spaced>{{60, 40}, colors::coral}, convert<Spaced>(picture),
                                   resized(convert<Spaced>(picture), {60, 40}, Scaling::bilinear),
                                   turned(convert<Spaced>(picture), Quarters::two)}) {
            for (std::size_t at = 2; at < spaced.bytes().size(); at += 4) ASSERT_EQ(spaced.bytes()[at], 0);
        }
        const auto bits = convert<Bit1>(Bitmap<Gray8>{{5, 9}, colors::white});
        for (const auto byte : bits.bytes()) ASSERT_EQ(byte, 0xf8);
        const Bitmap<Rgba8> empty{{60, 40}};
        for (const auto byte : empty.bytes()) ASSERT_EQ(byte, 0);
    }
}

TEST(Bitmaps, BytesAreARangeOfTheirOwn) {
    Bitmap<Gray8> chart{{4, 2}, gray(7)};
    auto bytes = chart.bytes();
    EXPECT_EQ(bytes.size(), 8U);
    EXPECT_FALSE(bytes.empty());
    EXPECT_EQ(std::vector<std::uint8_t>(bytes.begin(), bytes.end()), std::vector<std::uint8_t>(8, 7));
    EXPECT_EQ(bytes, chart.bytes());
    mark(chart, {3, 1}, gray(9));
    EXPECT_EQ(chart.bytes()[7], 9);
    EXPECT_NE(bytes, chart.bytes());
    bytes.data()[7] = 9;
    EXPECT_EQ(bytes, chart.bytes());
    EXPECT_EQ(bytes, (std::vector<std::uint8_t>{7, 7, 7, 7, 7, 7, 7, 9}));
    const auto moved = std::move(bytes);
    EXPECT_EQ(moved, chart.bytes());
    auto copy = chart;
    const auto before = chart.bytes();
    mark(copy, {0, 0}, gray(1));
    EXPECT_EQ(chart.bytes(), before);
    copy = chart;
    EXPECT_EQ(copy.bytes(), before);
    chart = Bitmap<Gray8>{{1, 1}, gray(3)};
    EXPECT_EQ(chart.bytes(), (std::vector<std::uint8_t>{3}));
    EXPECT_TRUE(Bitmap<Gray8>{}.bytes().empty());
}

}  // namespace
