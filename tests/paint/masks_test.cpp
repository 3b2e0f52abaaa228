// Regions from pictures and functions, copies, colours replaced, paths put together: against the same pixel by pixel.
#include "oracle.hpp"

#include <coldbrick/coldbrick.hpp>

namespace {

using namespace coldbrick;
using namespace oracle;

Bitmap<Rgba8> speckled(unsigned seed, Size size) {
    Dice dice{seed};
    Bitmap<Rgba8> picture{size};
    for (int y = 0; y < size.height; ++y) {
        for (int x = 0; x < size.width; ++x) mark(picture, {x, y}, Ink{dice.color(), {.blend = Blend::replace}});
    }
    return picture;
}

TEST(Masks, HaveThePixelsThatAreMeant) {
    const auto picture = speckled(21, {37, 19});
    const auto view = picture.within({.at = {3, 2}, .size = {30, 14}});
    const auto by_luma = region_of(view);
    const auto by_alpha = region_of(view, {.by = MaskBy::alpha, .least = 200});
    const auto reds = region_where(view, [](Color color) { return color.red > color.blue; });
    const auto stripes = region_where(view.clip(), [](Point pixel) { return pixel.x % 5 < 2; });
    const auto soft = smooth_region_of(view, MaskBy::green);
    const auto slope = smooth_region_where(view.clip(), [](Point pixel) { return 20 * pixel.x - 100; });
    for (int y = 0; y < 19; ++y) {
        for (int x = 0; x < 37; ++x) {
            const auto pixel = Point{x, y};
            const auto color = picture.color_at(pixel);
            const auto is_seen = contains(view.clip(), pixel);
            EXPECT_EQ(by_luma.contains(pixel), is_seen && luma(color) >= 128) << pixel;
            EXPECT_EQ(by_alpha.contains(pixel), is_seen && color.alpha >= 200) << pixel;
            EXPECT_EQ(reds.contains(pixel), is_seen && color.red > color.blue) << pixel;
            EXPECT_EQ(stripes.contains(pixel), is_seen && x % 5 < 2) << pixel;
            EXPECT_EQ(soft.coverage_at(pixel), is_seen ? color.green : 0) << pixel;
            EXPECT_EQ(slope.coverage_at(pixel), is_seen ? std::clamp(20 * x - 100, 0, 255) : 0) << pixel;
            EXPECT_EQ(soft.shifted({-4, 7}).coverage_at(pixel + Point{-4, 7}), soft.coverage_at(pixel)) << pixel;
        }
    }
    EXPECT_TRUE(region_of(view, {.least = 256}).empty());
    EXPECT_EQ(region_of(view, {.least = 0}), Region{view.clip()});
    EXPECT_TRUE(region_where(Box{}, [](Point) { return true; }).empty());
    EXPECT_THROW((void)region_of(view, {.least = 257}), Error);
    EXPECT_THROW((void)region_of(view, {.by = static_cast<MaskBy>(9)}), Error);
    EXPECT_THROW((void)soft.shifted({std::numeric_limits<int>::max(), 0}), Error);
    const auto all = [](Point) { return true; };
    constexpr auto end = std::numeric_limits<int>::max();
    EXPECT_THROW((void)region_where(Box{{end - 1, 0}, {3, 1}}, all), Error);
    EXPECT_THROW((void)region_where(Box{{0, end}, {1, end}}, all), Error);
    EXPECT_EQ(region_where(Box{{end - 3, -5}, {3, 2}}, all).area(), 6);
    EXPECT_TRUE(smooth_region_where(Box{{0, 0}, {-4, 9}}, [](Point) { return 9; }).empty());
    const std::vector<SmoothRegion::Part> backward{{1, 5, 2, 9}, {1, 3, 1, 9}};
    EXPECT_THROW((void)SmoothRegion::of_parts(backward), Error);
}

TEST(Masks, OfASmoothShapeAreTheShape) {
    const Circle moon{.center = {20, 17}, .radius = 12};
    Bitmap<Gray8> stencil{{41, 35}};
    fill(stencil, moon, Edge::smooth, gray(255));
    EXPECT_EQ(smooth_region_of(stencil), SmoothRegion{filled(moon, {.edge = Edge::smooth})});
    Bitmap<Gray8> through{{41, 35}};
    fill(through.within(smooth_region_of(stencil)), through.box(), gray(255));
    EXPECT_EQ(through.bytes(), stencil.bytes());
}

TEST(Copies, HavePixelsOfTheirOwn) {
    auto picture = speckled(22, {12, 9});
    const auto part = Box{.at = {2, 3}, .size = {7, 5}};
    const auto copied = copy(picture.within(part));
    const auto cropped = crop(Bitmap<Rgba8>{picture}, part);
    ASSERT_EQ(copied.size(), part.size);
    const auto before = picture;
    clear(picture, colors::red);
    for (int y = 0; y < part.size.height; ++y) {
        for (int x = 0; x < part.size.width; ++x) {
            EXPECT_EQ(copied.color_at({x, y}), before.color_at(part.at + Point{x, y}));
            EXPECT_EQ(cropped.color_at({x, y}), before.color_at(part.at + Point{x, y}));
        }
    }
    const Bitmap<Index8> numbers{{3, 2}, palettes::cube()};
    EXPECT_EQ(copy(numbers).palette(), palettes::cube());
    EXPECT_THROW((void)copy(picture.within(Box{})), Error);
}

TEST(ReplaceColor, ChangesThoseThatAreMeant) {
    for (const auto tolerance : {0, 40}) {
        auto picture = speckled(23, {31, 17});
        const auto before = picture;
        const auto from = picture.color_at({9, 4});
        const Region every_other =
            region_where(picture.box(), [](Point pixel) { return (pixel.x + pixel.y) % 2 != 0; });
        const auto touched = replace_color(picture.within(every_other), from, colors::teal, tolerance);
        Box expected;
        for (int y = 0; y < 17; ++y) {
            for (int x = 0; x < 31; ++x) {
                const auto color = before.color_at({x, y});
                const auto is_near = [&](int a, int b) { return std::abs(a - b) <= tolerance; };
                const auto is_meant = every_other.contains({x, y}) && is_near(color.red, from.red) &&
                                      is_near(color.green, from.green) && is_near(color.blue, from.blue) &&
                                      is_near(color.alpha, from.alpha);
                EXPECT_EQ(picture.color_at({x, y}), is_meant ? colors::teal : color) << x << "," << y;
                if (is_meant) expected = enclosing(expected, Box{.at = {x, y}, .size = {1, 1}});
            }
        }
        EXPECT_EQ(touched, expected);
    }
    Bitmap<Rgb8> sheet{2, 2};
    EXPECT_THROW((void)replace_color(sheet, colors::black, colors::red, 256), Error);
}

TEST(Paths, TakeStepsOfOthers) {
    Path gull;
    gull.move({2, 3}).quadratic({.control = {9, 1}, .to = {14, 8}});
    Path two;
    two.move({1, 1}).line({5, 1}).close().add(gull);
    EXPECT_EQ(two.steps().size(), 5U);
    two.line({20, 20});
    EXPECT_EQ(two.steps().back().to, (Position{20, 20}));
    auto again = gull;
    again.add(again);
    EXPECT_EQ(again.steps().size(), 4U);
    EXPECT_EQ(Path{}.add(gull), gull);
    EXPECT_EQ(gull.add(Path{}).steps().size(), 2U);
}

TEST(TransformedShapes, AreDrawnAsTheirAreas) {
    const auto place = Transform{}.scale({2, 1.5}).turn(20_deg).move({30, 12});
    const Circle moon{.center = {8, 6}, .radius = 5};
    const auto pen = Stroke{.width = 2, .edge = Edge::smooth};
    Bitmap<Rgba8> by_shape{{64, 48}};
    Bitmap<Rgba8> by_area{{64, 48}};
    Drawing recorded;
    for (const auto& draw : {0, 1}) {
        const auto draw_shape = [&](auto& target) {
            draw == 0 ? stroke(target, transformed(moon, place), pen, colors::gold)
                      : fill(target, transformed(moon, place), Edge::smooth, with_alpha(colors::red, 90));
        };
        draw_shape(by_shape);
        draw_shape(recorded);
    }
    fill(by_area, transformed(stroked(moon, pen), place), colors::gold);
    fill(by_area, transformed(filled(moon, {.edge = Edge::smooth}), place), with_alpha(colors::red, 90));
    EXPECT_EQ(by_shape.bytes(), by_area.bytes());
    Bitmap<Rgba8> rendered{{64, 48}};
    render(recorded, rendered);
    EXPECT_EQ(rendered.bytes(), by_area.bytes());
}

}  // namespace
