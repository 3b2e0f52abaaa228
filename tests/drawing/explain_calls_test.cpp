// Explaining every kind of call, on every kind of target: the same colours as drawing gives.
#include "oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <set>
#include <string>
#include <vector>

#include <gtest/gtest.h>

namespace {

using namespace coldbrick;
using namespace coldbrick::literals;
using oracle::Dice;

constexpr Size size{61, 47};

// Calls of all kinds but floods, which look at the pixels of others.
void record_all(Drawing& plan, unsigned seed) {
    Dice dice{seed};
    const Box window{{-10, -10}, {80, 66}};
    const auto color = [&] { return with_alpha(dice.color(), dice.number(0, 1) == 0 ? 255 : 140); };
    clear(plan.within(Box{{3, 4}, {40, 30}}), color());
    fill(plan, Ring{.center = dice.point(window), .radius = 20, .inner_radius = 9}, Edge::smooth, color());
    fill(plan, Polygon{dice.ring(3, 8, window)},
         LinearGradient{{0, 0}, {1, 1}, {{0, color()}, {1, color()}}, Spread::pad, Placing::shape});
    stroke(plan, Polygon{dice.ring(3, 6, window)}, {.width = 3, .align = Align::outside},
           Hatch{.spacing = 3, .color = color()});
    stroke(plan, Line{.from = dice.point(window), .to = dice.point(window)},
           Ink{color(), {.blend = Blend::exclusive_or}});
    fill(plan, Text{.words = "Quay", .at = {8, 12}, .height = 11}, Edge::smooth, color());
    fill(plan, Box{{30, 0}, {31, 47}}, [seed](Point at) {
        const auto byte = [](int value) { return static_cast<std::uint8_t>(value); };
        return Color{byte(at.x * 4), byte(static_cast<int>(seed)), 90, byte(at.y * 5)};
    });
    const std::vector<Point> corners{{5, 5}, {40, 9}, {20, 40}, {58, 44}};
    const VertexList mesh{.as = Elements::triangle_strip, .at = corners};
    fill_each(plan, mesh, std::vector<Color>{color(), color()});
    stroke_each(plan, mesh, {.width = 2, .edge = Edge::smooth}, std::vector<Color>{color(), color()});
    Bitmap<Rgba8> stamp{{13, 9}, with_alpha(colors::teal, 160)};
    fill(stamp, Circle{.center = {6, 4}, .radius = 3}, colors::crimson);
    paste(plan, stamp, {.at = dice.point(window)});
    paste(plan, stamp, {.at = dice.point(window), .compositing = {.opacity = 0.4, .blend = Blend::screen}});
    paste(plan, stamp, Transform{}.turn(25_deg).move({30, 12}));
    paste(plan, stamp, {.at = {20, 20}, .without = colors::crimson});
    const SmoothRegion smooth{filled(Circle{.center = {30, 25}, .radius = 18}, {.edge = Edge::smooth})};
    paste(plan.within(smooth).within(Region{Box{{20, 10}, {30, 30}}}), stamp, {.at = {26, 18}, .size = {.width = 30}});
    fill(plan.under(Transform{}.turn(30_deg)), Box{{20, -8}, {22, 9}}, Ink{color(), {.channels = Channels::green}});
    mark(plan, dice.point(window), Ink{color(), {.blend = Blend::replace}});
}

template <class Format>
void expect_stories_as_drawn(unsigned seed) {
    Drawing plan;
    record_all(plan, seed);
    EXPECT_FALSE(plan.has_flood());
    const Bitmap<Format> ground{size, 0x304050_rgb};
    auto drawn = ground;
    render(plan, drawn);
    auto explained = ground;
    const auto all = render_explained(plan, explained);
    EXPECT_EQ(explained.bytes(), drawn.bytes());
    auto owned = ground;
    Owners owners;
    render(plan, owned, owners);
    EXPECT_EQ(owned.bytes(), drawn.bytes());
    std::vector<std::int64_t> touched(plan.size());
    for (int y = 0; y < size.height; ++y) {
        for (int x = 0; x < size.width; ++x) {
            const auto story = explain(plan, ground, Point{x, y});
            auto before = story.ground;
            for (const auto& step : story.steps) {
                EXPECT_EQ(step.before, before);
                before = step.after;
                ++touched[step.call];
            }
            ASSERT_EQ(before, drawn.color_at({x, y})) << x << ',' << y << " seed " << seed;
            const auto owner = owners.at({x, y});
            ASSERT_EQ(owner ? static_cast<int>(*owner) : -1,
                      story.steps.empty() ? -1 : static_cast<int>(story.steps.back().call));
        }
    }
    for (std::size_t i = 0; i < plan.size(); ++i) {
        const auto& call = all.calls[i];
        EXPECT_EQ(call.touched, touched[i]) << i;
        EXPECT_LE(call.seen, call.changed) << i;
        EXPECT_LE(call.changed, call.touched) << i;
        std::int64_t covered = 0;
        for (const auto& cover : call.covered_by) covered += cover.pixels;
        EXPECT_LE(covered, call.changed - call.seen) << i;
        if (call.covered_by.size() < CallStory::most_told) {
            EXPECT_EQ(covered, call.changed - call.seen) << i;
        }
    }
}

TEST(ExplainCalls, OfAllKindsOnAllFormats) {
    for (unsigned seed = 0; seed < (is_sanitized ? 1 : 4); ++seed) {
        expect_stories_as_drawn<Bgra8>(seed);
        expect_stories_as_drawn<Bit1>(seed);
        if (is_sanitized) continue;
        expect_stories_as_drawn<Rgba16>(seed);
        expect_stories_as_drawn<Index8>(seed);
        expect_stories_as_drawn<Rgb8>(seed);
        expect_stories_as_drawn<Gray8>(seed);
        expect_stories_as_drawn<Gray16>(seed);
        expect_stories_as_drawn<Rgb565>(seed);
    }
}

// On memory of somebody else: with gaps, upside down, one channel of it.
TEST(ExplainCalls, OnViewsOfAnyMemory) {
    Drawing plan;
    record_all(plan, 9);
    std::vector<std::uint8_t> memory(240 * 47, 77);
    Pixels<Rgb8> upside_down{{.top_left = memory.data() + 240 * 46, .size = size, .stride = -240}};
    const auto before = memory;
    const auto story = explain(plan, upside_down, Point{20, 20});
    const auto all = explain(plan, upside_down);
    EXPECT_EQ(memory, before);  // nothing is drawn
    Owners owners;
    render(plan, upside_down, owners);
    EXPECT_EQ(story.steps.back().after, upside_down.color_at({20, 20}));
    EXPECT_EQ(owners.at({20, 20}), std::optional{story.steps.back().call});
    for (int y = 0; y < 47; ++y) {
        for (int x = 61 * 3; x < 240; ++x) ASSERT_EQ(memory[static_cast<std::size_t>(y * 240 + x)], 77);
    }
    Bitmap<Rgb8> chart{size, colors::navy};
    Drawing plain;
    fill(plain, Box{{5, 5}, {20, 20}}, gray(200));
    const auto red = channel(chart, Channels::red);
    EXPECT_EQ(explain(plain, red).calls[0].seen, 400);
    EXPECT_EQ(explain(plain, red, Point{6, 6}).steps[0].after, gray(200));
}

TEST(ExplainCalls, WhatThrowsTellsNothing) {
    Drawing plan;
    fill(plan, Box{{0, 0}, {3, 3}}, PaletteEntry{2});
    Bitmap<Rgb8> picture{size, colors::navy};
    const auto before = picture.bytes();
    Owners owners;
    EXPECT_THROW(render(plan, picture, owners), Error);
    EXPECT_THROW((void)explain(plan, picture), Error);
    EXPECT_THROW((void)render_explained(plan, picture), Error);
    EXPECT_EQ(picture.bytes(), before);
}

// The tables of words: what they say can be written.
TEST(SceneWords, AreThoseOfTheParser) {
    const auto& words = scene_words();
    std::set<std::string> keywords;
    for (const auto& keyword : words.keywords) EXPECT_TRUE(keywords.insert(keyword.name).second) << keyword.name;
    std::set<std::string> verbs;
    for (const auto& verb : words.verbs) EXPECT_TRUE(verbs.insert(verb.name).second) << verb.name;
    std::set<std::string> shapes;
    for (const auto& shape : words.shapes) shapes.insert(shape.name);
    for (const auto& statement : words.statements) {
        const auto space = statement.words.find(' ');
        EXPECT_TRUE(verbs.contains(statement.words.substr(0, space))) << statement.words;
        for (const auto& [needed, optional] : statement.forms) {
            for (const auto& list : {needed, optional}) {
                for (const auto& word : list) EXPECT_TRUE(keywords.contains(word)) << statement.words << ": " << word;
            }
        }
    }
    EXPECT_TRUE(shapes.contains("circle"));
    EXPECT_TRUE(shapes.contains("region"));
    EXPECT_FALSE(words.functions.empty());
    EXPECT_EQ(words.joiners.size(), 4U);
}

TEST(SceneWords, AWordThatIsNeededIsMissed) {
    for (const auto& statement : scene_words().statements) {
        if (!statement.words.starts_with("fill ") || statement.words == "fill region") continue;
        try {
            (void)parse_scene("sheet size 9,9\n" + statement.words + " ink red\n");
            FAIL() << statement.words;
        } catch (const SceneError& error) {
            // One of its forms is told.
            const std::string told = error.what();
            EXPECT_NE(told.find(statement.forms.front().needed.front()), std::string::npos) << told;
        }
    }
}

}  // namespace
