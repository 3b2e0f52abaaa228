// Explaining: what every call does to every pixel, against rendering call by call.
#include "oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <map>
#include <string>

#include <gtest/gtest.h>

namespace {

using namespace coldbrick;
using namespace coldbrick::literals;
using oracle::Dice;

constexpr Size sheet{70, 50};

// Calls by themselves, to be drawn one by one, with what is known of them without the library.
struct Known {
    std::function<void(Drawing&)> draw;
    bool is_opaque = true;  // whether it covers completely what it covers whole
};

Ink some_ink(Dice& dice, bool& is_opaque) {
    const auto color = with_alpha(dice.color(), 255);
    is_opaque = true;
    switch (dice.number(0, 9)) {
        case 0:
            is_opaque = false;
            return with_alpha(color, 128);
        case 1:
            is_opaque = false;
            return Ink{color, {.blend = Blend::multiply}};
        case 2:
            is_opaque = false;
            return Ink{color, {.opacity = 0.5}};
        case 3:
            return Ink{with_alpha(color, 40), {.blend = Blend::replace}};
        case 4:
            is_opaque = false;
            return with_alpha(color, 0);
        case 5:
            return LinearGradient{{0, 0}, {60, 20}, {{0, color}, {1, colors::navy}}};
        case 6:
            is_opaque = false;
            return Ink{color, {.channels = Channels::red}};
        default:
            return color;
    }
}

std::vector<Known> some_calls(Dice& dice, int count, bool with_floods) {
    const Box window{{-15, -15}, {100, 80}};
    std::vector<Known> calls;
    for (int i = 0; i < count; ++i) {
        Known known;
        const auto ink = some_ink(dice, known.is_opaque);
        const auto at = dice.point(window);
        const auto to = dice.point(window);
        const auto radius = dice.number(0, 25);
        const auto edge = dice.number(0, 1) == 0 ? Edge::crisp : Edge::smooth;
        switch (dice.number(0, with_floods ? 6 : 5)) {
            case 0:
                known.draw = [=](Drawing& on) { fill(on, Circle{.center = at, .radius = radius}, edge, ink); };
                break;
            case 1:
                known.draw = [=](Drawing& on) { fill(on, Box{.at = at, .size = {radius + 1, 12}}, ink); };
                break;
            case 2:
                known.draw = [=](Drawing& on) { stroke(on, Line{.from = at, .to = to}, {.edge = edge}, ink); };
                break;
            case 3:
                known.draw = [=](Drawing& on) {
                    const SmoothRegion clip{filled(Circle{.center = to, .radius = 20}, {.edge = Edge::smooth})};
                    fill(on.within(clip), Box{.at = at, .size = {40, 30}}, ink);
                };
                break;
            case 4:
                known.draw = [=](Drawing& on) {
                    const Region clip{Circle{.center = to, .radius = 20}};
                    stroke(on.within(clip), Circle{.center = at, .radius = radius}, {.width = 5}, ink);
                };
                break;
            case 5:
                known.draw = [=](Drawing& on) {
                    Bitmap<Rgba8> stamp{{9, 7}, colors::teal};
                    fill(stamp, Box{.at = {2, 2}, .size = {3, 3}},
                         Ink{with_alpha(colors::gold, 90), {.blend = Blend::replace}});
                    paste(on, stamp, {.at = at});
                };
                known.is_opaque = false;  // not everywhere; looked at by its own pixels
                break;
            default:
                known.draw = [=](Drawing& on) { fill(on, FloodFrom{.from = {at.x / 2 + 9, at.y / 2 + 9}}, ink); };
                break;
        }
        calls.push_back(std::move(known));
    }
    return calls;
}

// What a call does when it is drawn alone on a ground: which pixels it changes.
template <class Format>
struct Steps {
    std::vector<Bitmap<Format>> after;  // each call drawn on the picture before
};

template <class Format>
Steps<Format> one_by_one(const Bitmap<Format>& ground, const std::vector<Known>& calls) {
    Steps<Format> steps;
    auto picture = ground;
    for (const auto& call : calls) {
        Drawing alone;
        call.draw(alone);
        render(alone, picture);
        steps.after.push_back(picture);
    }
    return steps;
}

// Whether a call leaves nothing of what is below at a pixel: drawn over any of many grounds it gives one colour. Where
// it floods, the grounds have to be alike around.
template <class Format>
bool covers_at(const Known& call, Point at, const Bitmap<Format>& below) {
    Drawing alone;
    call.draw(alone);
    std::optional<Color16> first;
    for (const auto color :
         {0x000000ff_rgba, 0xffffffff_rgba, 0x40a02080_rgba, 0xc05fdf40_rgba, 0x808080ff_rgba, 0x00ff0010_rgba}) {
        auto picture = below;
        fill(picture, picture.box(), Ink{color, {.blend = Blend::replace}});
        render(alone, picture.within(Box{at, {1, 1}}));
        const auto now = picture.color16_at(at);
        if (first && now != *first) return false;
        first = now;
    }
    return true;
}

template <class Format>
void expect_steps_as_drawn(unsigned seed) {
    Dice dice{seed};
    const auto calls = some_calls(dice, 25, true);
    Drawing drawing;
    for (const auto& call : calls) call.draw(drawing);
    const Bitmap<Format> ground{sheet, 0x203040_rgb};
    const auto steps = one_by_one(ground, calls);
    for (int i = 0; i < 60; ++i) {
        const auto at = dice.point(ground.box());
        const auto story = explain(drawing, ground, at);
        ASSERT_EQ(story.ground, ground.color_at(at));
        auto color = ground.color_at(at);
        std::size_t next = 0;
        for (std::size_t k = 0; k < calls.size(); ++k) {
            const auto after = steps.after[k].color_at(at);
            const auto& before = k == 0 ? ground : steps.after[k - 1];
            const auto changes = steps.after[k].color16_at(at) != before.color16_at(at);
            const auto is_told = next < story.steps.size() && story.steps[next].call == k;
            ASSERT_TRUE(is_told || !changes) << "call " << k << " at " << at;
            if (!is_told) continue;
            const auto& step = story.steps[next++];
            EXPECT_EQ(step.before, color);
            EXPECT_EQ(step.after, after);
            EXPECT_EQ(step.changes, changes);
            EXPECT_GE(step.coverage, 1);
            EXPECT_LE(step.coverage, 255);
            color = after;
        }
        EXPECT_EQ(next, story.steps.size());
    }
}

TEST(Explain, APixelsStepsAreThoseOfDrawingCallByCall) {
    for (unsigned seed = 0; seed < (is_sanitized ? 1 : 6); ++seed) {
        expect_steps_as_drawn<Rgb8>(seed);
        expect_steps_as_drawn<Rgba8>(seed);
        expect_steps_as_drawn<Gray16>(seed);
        expect_steps_as_drawn<Index8>(seed);
        expect_steps_as_drawn<Bit1>(seed);
    }
}

TEST(Explain, CoverageAndInkOfAPixel) {
    Drawing plan;
    const auto moon = filled(Circle{.center = {30, 20}, .radius = 12}, {.edge = Edge::smooth});
    fill(plan, moon, 0xe8b23a_rgb);
    fill(plan, Box{.at = {0, 0}, .size = {70, 50}},
         LinearGradient{{0, 0}, {69, 0}, {{0, colors::black}, {1, colors::white}}});
    fill(plan, Circle{.center = {30, 20}, .radius = 12}, with_alpha(colors::teal, 100));
    const Bitmap<Rgb8> ground{sheet, colors::navy};
    for (int y = 5; y < 36; ++y) {
        for (int x = 15; x < 46; ++x) {
            auto expected = 0;
            for_each_coverage(moon, Box{{x, y}, {1, 1}}, [&](int, int, int, int coverage) { expected = coverage; });
            const auto story = explain(plan, ground, Point{x, y});
            const auto is_touched = !story.steps.empty() && story.steps[0].call == 0;
            EXPECT_EQ(is_touched ? story.steps[0].coverage : 0, expected) << x << ',' << y;
            const auto& behind = story.steps[is_touched ? 1 : 0];
            EXPECT_EQ(behind.call, 1U);
            EXPECT_EQ(behind.coverage, 255);
            EXPECT_EQ(behind.after, behind.ink);
            EXPECT_TRUE(behind.covers);
            if (is_touched) {
                EXPECT_EQ(story.steps[0].covers, expected == 255);
            }
            if (story.steps.back().call == 2) {
                EXPECT_EQ(story.steps.back().ink, with_alpha(colors::teal, 100));
                EXPECT_FALSE(story.steps.back().covers);
            }
        }
    }
    EXPECT_THROW((void)explain(plan, ground, Point{70, 0}), Error);
    EXPECT_THROW((void)explain(plan, ground, Point{-1, 0}), Error);
}

// The whole picture by brute force: each call alone, each pixel by itself.
template <class Format>
void expect_story_by_brute_force(unsigned seed, bool with_floods) {
    Dice dice{seed};
    const auto calls = some_calls(dice, 14, with_floods);
    Drawing drawing;
    for (const auto& call : calls) call.draw(drawing);
    const Bitmap<Format> ground{sheet, 0x203040_rgb};
    const auto steps = one_by_one(ground, calls);
    const auto all = explain(drawing, ground);
    auto drawn = ground;
    const auto same = render_explained(drawing, drawn);
    EXPECT_EQ(drawn.bytes(), steps.after.back().bytes());
    ASSERT_EQ(all.calls.size(), calls.size());
    std::vector<std::int64_t> changed(calls.size());
    std::vector<std::int64_t> seen(calls.size());
    for (int y = 0; y < sheet.height; ++y) {
        for (int x = 0; x < sheet.width; ++x) {
            std::vector<std::size_t> live;
            const auto story = explain(drawing, ground, Point{x, y});
            for (std::size_t k = 0; k < calls.size(); ++k) {
                const auto& before = k == 0 ? ground : steps.after[k - 1];
                const auto told = std::find_if(story.steps.begin(), story.steps.end(),
                                               [&](const PixelStep& step) { return step.call == k; });
                const auto is_touched = told != story.steps.end();
                if (is_touched && !with_floods) {
                    EXPECT_EQ(told->covers, covers_at(calls[k], {x, y}, before))
                        << x << ',' << y << " call " << k << " seed " << seed;
                }
                if (is_touched && told->covers) live.clear();
                if (steps.after[k].color16_at({x, y}) == before.color16_at({x, y})) continue;
                ++changed[k];
                live.push_back(k);
            }
            for (const auto k : live) ++seen[k];
            EXPECT_EQ(all.layers.color16_at({x, y}).red, story.steps.size());
        }
    }
    for (std::size_t k = 0; k < calls.size(); ++k) {
        const auto& story = all.calls[k];
        EXPECT_EQ(story.changed, changed[k]) << k;
        EXPECT_EQ(story.seen, seen[k]) << k;
        EXPECT_EQ(story.showing == Showing::seen, seen[k] > 0) << k;
        EXPECT_EQ(same.calls[k].seen, seen[k]);
        if (story.showing == Showing::covered) {
            ASSERT_FALSE(story.covered_by.empty());
            for (const auto& cover : story.covered_by) EXPECT_GT(cover.call, k);
        }
    }
}

TEST(Explain, WhatIsSeenOfEachCallByBruteForce) {
    for (unsigned seed = 100; seed < (is_sanitized ? 100 : 103); ++seed) {
        expect_story_by_brute_force<Rgb8>(seed, false);
        expect_story_by_brute_force<Rgba8>(seed, false);
        expect_story_by_brute_force<Rgb8>(seed, true);
    }
    expect_story_by_brute_force<Bgra8>(4, true);
    if (is_sanitized) return;
    expect_story_by_brute_force<Gray16>(3, false);
}

TEST(Explain, ReasonsWhyNothingShows) {
    Drawing plan;
    const Bitmap<Rgb8> ground{sheet, colors::navy};
    const Box middle{.at = {20, 10}, .size = {20, 20}};
    fill(plan, Box{.at = {90, 10}, .size = {5, 5}}, colors::gold);                            // 0 outside
    fill(plan.within(Box{{0, 0}, {5, 5}}), middle, colors::gold);                             // 1 clipped
    fill(plan, middle, with_alpha(colors::gold, 0));                                          // 2 transparent
    fill(plan, middle, Ink{colors::gold, {.opacity = 0}});                                    // 3 transparent
    fill(plan, middle, colors::navy);                                                         // 4 there already
    fill(plan, middle, colors::gold);                                                         // 5 covered
    fill(plan, Box{.at = {20, 10}, .size = {20, 12}}, colors::coral);                         // 6 seen
    fill(plan, Box{.at = {20, 22}, .size = {20, 12}}, colors::teal);                          // 7 seen
    fill(plan, filled(Polygon{{3, 40}, {9, 40}}, {.edges = Edges::shared}), colors::teal);    // 8 nothing
    fill(plan, Box{.at = {-8, 40}, .size = {90, 30}}, colors::teal);                          // 9 seen, reaches over
    fill(plan, Box{.at = {0, 0}, .size = {70, 3}}, [](Point) { return Color{9, 9, 9, 0}; });  // 10 transparent
    stroke(plan, Box{.at = {-5, -5}, .size = {90, 90}}, colors::gold);                        // 11 around the sheet
    // 12 in the middle, and apart from that beside the sheet
    using Corners = Polygon::Vertices;
    fill(plan,
         Polygon{std::vector{Corners{{30, 36}, {33, 36}, {33, 38}, {30, 38}},
                             Corners{{80, 36}, {83, 36}, {83, 38}, {80, 38}}}},
         colors::gold);
    clear(plan.within(Box{{60, 5}, {4, 4}}), colors::gold);  // 13
    const auto all = explain(plan, ground);
    const std::vector<Showing> expected{Showing::outside,     Showing::clipped,     Showing::transparent,
                                        Showing::transparent, Showing::unchanged,   Showing::covered,
                                        Showing::seen,        Showing::seen,        Showing::nothing,
                                        Showing::seen,        Showing::transparent, Showing::outside};
    for (std::size_t i = 0; i < expected.size(); ++i) EXPECT_EQ(all.calls[i].showing, expected[i]) << i;
    ASSERT_EQ(all.calls[5].covered_by.size(), 2U);
    EXPECT_EQ(all.calls[5].covered_by[0].call, 6U);
    EXPECT_EQ(all.calls[5].covered_by[0].pixels, 240);
    EXPECT_EQ(all.calls[5].covered_by[1].call, 7U);
    EXPECT_EQ(all.calls[5].covered_by[1].pixels, 160);
    EXPECT_EQ(all.calls[5].touched, 400);
    EXPECT_EQ(all.calls[4].changed, 0);
    const auto& over = all.calls[9].over;
    EXPECT_EQ(over.left, 8);
    EXPECT_EQ(over.top, 0);
    EXPECT_EQ(over.right, 12);
    EXPECT_EQ(over.bottom, 20);
    EXPECT_EQ(all.calls[0].over.right, 25);
    EXPECT_EQ(all.calls[12].over.right, 14);
    EXPECT_EQ(all.calls[13].over.right, 0);
    EXPECT_EQ(all.calls[13].seen, 16);
    EXPECT_EQ(all.calls[9].seen, 70 * 10);
    EXPECT_EQ(all.layers.color16_at({25, 25}).red, 5);
}

template <class Format>
void expect_owners_as_stories(unsigned seed) {
    Dice dice{seed};
    const auto calls = some_calls(dice, 30, true);
    Drawing drawing;
    for (const auto& call : calls) call.draw(drawing);
    const Bitmap<Format> ground{sheet, 0x203040_rgb};
    auto plain = ground;
    render(drawing, plain);
    auto owned = ground;
    Owners owners;
    render(drawing, owned, owners);
    EXPECT_EQ(owned.bytes(), plain.bytes());
    EXPECT_EQ(owners.size(), sheet);
    for (int y = 0; y < sheet.height; ++y) {
        for (int x = y % 9; x < sheet.width; x += 9) {  // each column, in some row
            const auto story = explain(drawing, ground, Point{x, y});
            const auto owner = owners.at({x, y});
            ASSERT_EQ(owner.has_value(), !story.steps.empty()) << x << ',' << y;
            if (owner) {
                ASSERT_EQ(*owner, story.steps.back().call) << x << ',' << y;
            }
        }
    }
    EXPECT_FALSE(owners.at({-1, 0}).has_value());
    EXPECT_FALSE(owners.at({70, 0}).has_value());
    EXPECT_FALSE(owners.at({0, 50}).has_value());
}

TEST(Explain, OwnersAreTheLastCallsThatTouch) {
    for (unsigned seed = 40; seed < (is_sanitized ? 41 : 44); ++seed) {
        expect_owners_as_stories<Rgb8>(seed);
        if (is_sanitized) continue;
        expect_owners_as_stories<Bit1>(seed);
        expect_owners_as_stories<Bgra8>(seed);
        expect_owners_as_stories<Index8>(seed);
    }
}

TEST(Explain, OnAViewAndItsClip) {
    Drawing plan;
    clear(plan, colors::gold);
    stroke(plan, Line{.from = {0, 0}, .to = {69, 49}}, colors::teal);
    Bitmap<Rgb8> picture{sheet, colors::navy};
    const Region clip{Circle{.center = {35, 25}, .radius = 10}};
    Owners owners;
    render(plan, picture.within(clip), owners);
    std::int64_t owned = 0;
    for (int y = 0; y < sheet.height; ++y) {
        for (int x = 0; x < sheet.width; ++x) {
            const auto owner = owners.at({x, y});
            ASSERT_EQ(owner.has_value(), clip.contains({x, y}));
            if (owner) {
                ASSERT_EQ(picture.color_at({x, y}), *owner == 0 ? colors::gold : colors::teal);
            }
            owned += owner ? 1 : 0;
        }
    }
    EXPECT_EQ(owned, clip.area());
    const Bitmap<Rgb8> ground{sheet, colors::navy};
    EXPECT_EQ(explain(plan, ground.within(Box{{10, 10}, {8, 8}})).calls[0].touched, 64);
    EXPECT_THROW((void)explain(plan, ground.within(Box{{10, 10}, {8, 8}}), Point{9, 9}), Error);
}

TEST(Explain, NothingAndManyInOnePlace) {
    const Bitmap<Rgb8> ground{sheet, colors::navy};
    const Drawing empty;
    EXPECT_TRUE(explain(empty, ground).calls.empty());
    EXPECT_TRUE(explain(empty, ground, Point{3, 3}).steps.empty());
    EXPECT_EQ(overdraw_shown(explain(empty, ground)).color_at({3, 3}), colors::black);

    Drawing many;
    for (int i = 0; i < 70'000; ++i) mark(many, Point{3, 3}, gray(static_cast<std::uint8_t>(i)));
    const auto all = explain(many, ground);
    EXPECT_EQ(all.layers.color16_at({3, 3}).red, 65535);
    EXPECT_EQ(all.calls.front().showing, Showing::covered);
    EXPECT_EQ(all.calls.front().covered_by.at(0).call, 69'999U);
    EXPECT_EQ(all.calls.back().showing, Showing::seen);
    EXPECT_EQ(explain(many, ground, Point{3, 3}).steps.size(), 70'000U);
    const auto shown = overdraw_shown(all);
    EXPECT_NE(shown.color_at({3, 3}), colors::black);
    EXPECT_EQ(shown.color_at({4, 3}), colors::black);
}

std::vector<std::string> reasons_in(const std::string& text) {
    const auto scene = parse_scene("sheet size 60,40 ink navy\n" + text, "quay.brick");
    const auto all = explain(scene);
    std::vector<std::string> reasons;
    for (std::size_t i = 0; i < all.calls.size(); ++i) {
        if (all.calls[i].showing != Showing::seen) reasons.push_back(explain_unseen(scene, i, all.calls[i]));
    }
    return reasons;
}

TEST(Explain, ScenesSayWhyNothingShows) {
    using Reasons = std::vector<std::string>;
    EXPECT_EQ(reasons_in("fill circle center 9,9 radius 4 ink gold\n"), Reasons{});
    EXPECT_EQ(
        reasons_in("fill box at 3,3 size 4,2 ink navy\n"),
        Reasons{"quay.brick:2:1: nothing of this fill box shows: the 8 pixels that it touches have the colour already "
                "that it would give"});
    EXPECT_EQ(
        reasons_in("mark at 3,3 ink #ff000000\n"),
        Reasons{"quay.brick:2:1: nothing of this mark shows: its ink is transparent in the pixel that it touches"});
    EXPECT_EQ(
        reasons_in("mark at 60,3 ink red\n"),
        Reasons{
            "quay.brick:2:1: nothing of this mark shows: it lies at 60,3, 1 pixel right of the sheet, 0,0 to 59,39"});
    EXPECT_EQ(
        reasons_in("mark at 3,3 ink red\nfill box at 2,2 size 3,3 ink gold\n"),
        Reasons{"quay.brick:2:1: nothing of this mark shows: the pixel that it changes is covered later by fill box, "
                "line 3"});
    EXPECT_EQ(
        reasons_in("fill box at 0,0 size 4,1 ink red\nrepeat 4 as i\nmark at i,0 ink gray(9*i)\nend\n"),
        Reasons{
            "quay.brick:2:1: nothing of this fill box shows: the 4 pixels that it changes are covered later by mark, "
            "line 4 (1 of them), mark, line 4 (1 of them), mark, line 4 (1 of them) and others"});
    // What is translucent, or smooth, hides nothing.
    EXPECT_EQ(reasons_in("mark at 3,3 ink red\nfill box at 2,2 size 3,3 ink gold opacity 99%\n"), Reasons{});
}

TEST(Explain, ScenesTellTheirPixelsAndOwners) {
    const auto scene = parse_scene(
        "sheet size 60,40 ink navy\nfill box at 0,0 size 9,9 ink teal\n"
        "shape buoy at\n    fill circle center 0,0 radius 3 ink gold opacity 50%\nend\nuse buoy at 5,5\n",
        "quay.brick");
    const auto story = explain(scene, Point{5, 5});
    ASSERT_EQ(story.steps.size(), 2U);
    EXPECT_EQ(scene.place_of(story.steps[0].call), (Place{2, 1}));
    EXPECT_EQ(scene.place_of(story.steps[1].call), (Place{4, 5}));
    auto picture = scene.sheet<Rgba8>();
    Owners owners;
    render(scene, picture, owners);
    EXPECT_EQ(story.steps.back().after, picture.color_at({5, 5}));
    EXPECT_EQ(owners.at({5, 5}), std::optional<std::size_t>{1});
    EXPECT_EQ(owners.at({0, 0}), std::optional<std::size_t>{0});
    EXPECT_EQ(owners.at({30, 30}), std::nullopt);
    // Slow ones end.
    auto slow = scene;
    slow.limits.seconds = 0;
    EXPECT_THROW((void)explain(slow), Error);
    EXPECT_THROW((void)explain(slow, Point{5, 5}), Error);
}

// Rows that end with, before and behind a block of 16 pixels; each pixel, span and line by itself.
TEST(Explain, OwnersOnSheetsOfAllWidths) {
    for (const auto width : {1, 2, 15, 16, 17, 31, 32, 33, 48}) {
        Bitmap<Rgb8> picture{{width, 140}};
        std::vector<int> expected(static_cast<std::size_t>(width) * 140, -1);
        const auto own = [&](int x, int y, int number) {
            if (x >= 0 && y >= 0 && x < width && y < 140) expected[static_cast<std::size_t>(y * width + x)] = number;
        };
        Dice dice{static_cast<unsigned>(width)};
        Drawing plan;
        for (int i = 0; i < 200; ++i) {
            const auto at = dice.point({{-3, -3}, {width + 6, 146}});
            const auto length = dice.number(1, 40);
            const auto color = with_alpha(dice.color(), i % 2 == 0 ? 255 : 100);
            switch (i % 3) {
                case 0:
                    mark(plan, at, color);
                    own(at.x, at.y, i);
                    break;
                case 1:
                    fill(plan, Box{at, {length, 2}}, color);
                    for (int k = 0; k < 2 * length; ++k) own(at.x + k / 2, at.y + k % 2, i);
                    break;
                default:
                    // Down: a trace that goes over bands of rows.
                    stroke(plan, Line{.from = at, .to = {at.x, at.y + 3 * length - 1}}, color);
                    for (int k = 0; k < 3 * length; ++k) own(at.x, at.y + k, i);
            }
        }
        Owners owners;
        for (int times = 0; times < 2; ++times) render(plan, picture, owners);  // its memory is used again
        for (int y = 0; y < 140; ++y) {
            for (int x = 0; x < width; ++x) {
                const auto owner = owners.at({x, y});
                ASSERT_EQ(owner ? static_cast<int>(*owner) : -1, expected[static_cast<std::size_t>(y * width + x)])
                    << x << ',' << y << " of " << width;
            }
        }
    }
}

}  // namespace
