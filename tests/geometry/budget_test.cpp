// Limits on time, memory and work: they bind inside every kind of call, what throws has drawn nothing, and what is
// allowed draws as without a budget.
#include "oracle.hpp"
#include "this_build.hpp"

#include <coldbrick/coldbrick.hpp>

#include <atomic>
#include <chrono>
#include <cmath>
#include <limits>
#include <thread>

namespace {

using namespace coldbrick;
using oracle::Dice;

constexpr auto sheet_size = Size{300, 200};

Path scribble(int pieces, int seed = 5) {
    Dice dice{static_cast<unsigned>(seed)};
    Path path;
    path.move({0, 0});
    const auto place = [&] { return Position{dice.number(-50, 350) + 0.25, dice.number(-50, 250) + 0.5}; };
    for (int i = 0; i < pieces; ++i) {
        const auto end = place();
        i % 3 == 0 ? path.cubic({.control_1 = place(), .control_2 = place(), .to = end}) : path.line(end);
    }
    return path;
}

// Calls of all kinds, with so many corners, curves, dashes or letters.
template <class Use>
void with_long_calls(int size, const Use& use) {
    const auto path = scribble(size);
    const auto spikes = star({.center = {150, 100}, .radius = 90, .points = std::max(2, size), .inner_radius = 3});
    use("smooth fill", [=](auto&& on) { fill(on, path, Edge::smooth, colors::teal); });
    use("crisp fill", [=](auto&& on) { fill(on, path, {.rule = FillRule::nonzero}, colors::teal); });
    use("smooth stroke", [=](auto&& on) {
        stroke(on, path, {.width = 9, .cap = Cap::round, .join = Join::round, .edge = Edge::smooth}, colors::teal);
    });
    use("crisp stroke", [=](auto&& on) { stroke(on, path, {.width = 9, .join = Join::round}, colors::teal); });
    use("hairlines", [=](auto&& on) { stroke(on, path, colors::teal); });
    use("dashes", [=](auto&& on) {
        stroke(on, path, {.width = 5, .cap = Cap::round, .dash = {2, 3}, .edge = Edge::smooth}, colors::teal);
    });
    use("star", [=](auto&& on) { fill(on, spikes, {.edge = Edge::smooth}, colors::teal); });
    use("star's stroke", [=](auto&& on) { stroke(on, spikes, {.width = 4, .align = Align::outside}, colors::teal); });
    use("polyline", [=](auto&& on) {
        Polyline line;
        for (int i = 0; i < 8 * size; ++i) line.through.push_back({(i * 37) % 300, (i * 91) % 200});
        stroke(on, line, {.width = 3}, with_alpha(colors::teal, 99));
    });
    use("turned", [=](auto&& on) {
        fill(on, transformed(stroked(path, {.width = 6, .edge = Edge::smooth}), Transform{}.turn(20_deg)),
             colors::teal);
    });
    use("region", [=](auto&& on) {
        fill(on.within(Region{filled(path, {.rule = FillRule::nonzero})}), Box{{0, 0}, {300, 200}}, colors::teal);
    });
    use("text", [=](auto&& on) {
        const std::string words(static_cast<std::size_t>(size), 'g');
        stroke(on, Text{.words = words, .at = {5, 90}, .height = 120}, {.width = 7, .edge = Edge::smooth},
               colors::teal);
    });
    use("path data", [=](auto&& on) {
        std::string text = "M0,0";
        for (int i = 0; i < 40 * size; ++i) text += "l3,1-2,2";
        stroke(on, parse_path(text), {.width = 3}, colors::teal);
    });
}

template <class Call>
std::optional<Limit> limit_met(Budget& budget, const Call& call) {
    try {
        budget.run(call);
        return std::nullopt;
    } catch (const LimitError& error) {
        return error.limit();
    }
}

TEST(Budgets, WhatIsAllowedDrawsAsWithoutOne) {
    with_long_calls(is_sanitized ? 20 : 60, [](const char* what, const auto& draw) {
        Bitmap<Rgba8> free{sheet_size};
        Bitmap<Rgba8> allowed{sheet_size};
        draw(free);
        Budget budget{{.seconds = 600, .memory = 1 << 30, .work = 1'000'000'000'000}};
        EXPECT_EQ(limit_met(budget, [&] { draw(allowed); }), std::nullopt) << what;
        EXPECT_EQ(free.bytes(), allowed.bytes()) << what;
        EXPECT_GT(budget.spent().work + budget.spent().memory, 0U) << what;
        EXPECT_FALSE(budget.is_spent());
    });
}

TEST(Budgets, EachLimitBindsAndNothingHasBeenDrawn) {
    with_long_calls(is_sanitized ? 400 : 3000, [](const char* what, const auto& draw) {
        const Bitmap<Rgba8> ground{sheet_size, colors::gold};
        const auto expect_limit = [&](const DrawLimits& limits, Limit limit) {
            auto sheet = ground;
            Budget budget{limits};
            EXPECT_EQ(limit_met(budget, [&] { draw(sheet); }), limit) << what;
            EXPECT_EQ(sheet.bytes(), ground.bytes()) << what;
            EXPECT_TRUE(budget.is_spent()) << what;
        };
        expect_limit({.seconds = 0}, Limit::seconds);
        expect_limit({.work = 20'000}, Limit::work);
        expect_limit({.memory = 16'000}, Limit::memory);
    });
}

// Wherever in a call the work ends: the lengths of curves are measured between places that throw and those that may
// not.
TEST(Budgets, WorkEndsAnywhere) {
    const auto sweep = Sweep{.from = 20_deg, .by = 300_deg};
    constexpr auto center = Point{150, 100};
    constexpr auto radius = 100'000;
    const auto how = Stroke{.width = radius, .cap = Cap::round, .dash = {4, 2}, .edge = Edge::smooth};
    const auto ellipse = Ellipse::around({.center = center, .radii = {radius, radius / 3}});
    Path curve;
    curve.move({0, 0}).cubic({.control_1 = {9e5, 0}, .control_2 = {0, 9e5}, .to = {9e5, 9e5}});
    const std::vector<Figure> large{
        stroked(Circle{.center = center, .radius = radius}, how),
        stroked(ellipse, how),
        stroked(RoundedBox{.box = {{0, 0}, {radius, radius}}, .corner_radius = radius / 3}, how),
        stroked(Arc{.of = ellipse, .sweep = sweep}, how),
        stroked(Sector{.of = ellipse, .sweep = sweep}, how),
        stroked(Chord{.of = ellipse, .sweep = sweep}, how),
        stroked(curve, how)};
    const Bitmap<Rgba8> ground{sheet_size, colors::gold};
    auto limits = 0;
    for (std::size_t i = 0; i < large.size(); ++i) {
        for (std::uint64_t work = 0; work < 200'000; work += is_sanitized ? 50'000 : 5'000) {
            auto sheet = ground;
            Budget budget{{.work = work}};
            const auto limit = limit_met(budget, [&] { fill(sheet, large[i], colors::teal); });
            EXPECT_TRUE(!limit || sheet.bytes() == ground.bytes()) << i << ' ' << work;
            limits += limit ? 1 : 0;
        }
    }
    EXPECT_GT(limits, 0);
}

TEST(Budgets, WorkIsTheSameEachTime) {
    const auto work_of = [](int size) {
        std::vector<std::uint64_t> all;
        with_long_calls(size, [&](const char*, const auto& draw) {
            Bitmap<Rgba8> sheet{sheet_size};
            Budget budget;
            budget.run([&] { draw(sheet); });
            all.push_back(budget.spent().work);
        });
        return all;
    };
    const auto some = is_sanitized ? 20 : 50;
    (void)work_of(some);  // after which letters are kept
    const auto once = work_of(some);
    EXPECT_EQ(once, work_of(some));
    EXPECT_EQ(std::count(once.begin(), once.end(), 0U), 0);
}

TEST(Budgets, MemoryIsGivenBack) {
    Budget budget{{.memory = 1 << 30}};
    Bitmap<Rgba8> sheet{sheet_size};
    for (int i = 0; i < (is_sanitized ? 1 : 5); ++i) {
        budget.run([&] { with_long_calls(60, [&](const char*, const auto& draw) { draw(sheet); }); });
    }
    EXPECT_LT(budget.spent().memory, 1U << 20U);
}

TEST(Budgets, AnotherThreadCancels) {
    Drawing plan;
    const auto spikes = star({.center = {150, 100}, .radius = 90, .points = 20'000, .inner_radius = 3});
    for (int i = 0; i < (is_sanitized ? 300 : 2000); ++i) fill(plan, spikes, with_alpha(colors::teal, 40));
    for (const auto threads : {1, 3}) {
        Budget budget;
        Bitmap<Rgba8> sheet{sheet_size};
        std::jthread other{[&] {
            std::this_thread::sleep_for(std::chrono::milliseconds{50});
            budget.cancel();
        }};
        const auto begin = std::chrono::steady_clock::now();
        EXPECT_EQ(limit_met(budget, [&] { render(plan, sheet, {.threads = threads}); }), Limit::cancelled);
        EXPECT_LT(std::chrono::steady_clock::now() - begin, std::chrono::seconds{5});
        EXPECT_EQ(limit_met(budget, [&] { fill(sheet, Box{{0, 0}, {9, 9}}, colors::red); }), Limit::cancelled);
    }
}

TEST(Budgets, OneInsideAnotherCountsForBoth) {
    Budget outer{{.work = 1'000'000}};
    Bitmap<Rgba8> sheet{sheet_size};
    const auto met = limit_met(outer, [&] {
        Budget inner;
        inner.run([&] { stroke(sheet, scribble(5000), {.width = 5, .edge = Edge::smooth}, colors::teal); });
    });
    EXPECT_EQ(met, Limit::work);
    Budget wide;
    Budget narrow{{.seconds = 3, .memory = 1000}, {.seconds = 2, .memory = 900, .work = 7}};
    EXPECT_NEAR(narrow.rest().seconds, 1, 0.5);
    EXPECT_EQ(narrow.rest().memory, 100U);
    EXPECT_EQ(narrow.spent().work, 7U);
}

TEST(Budgets, ListsAndMeshesEndToo) {
    const std::vector<Circle> many(2'000'000, Circle{.center = {900, 900}, .radius = 3});
    Bitmap<Rgba8> sheet{sheet_size};
    Budget budget{{.work = 100'000}};
    EXPECT_EQ(limit_met(budget, [&] { fill_each(sheet, many, colors::gold); }), Limit::work);
}

TEST(Budgets, SecondsAreANumberFromZeroOn) {
    EXPECT_THROW(Budget{{.seconds = -1}}, Error);
    EXPECT_THROW(Budget{{.seconds = std::nan("")}}, Error);
    EXPECT_NO_THROW(Budget{{.seconds = std::numeric_limits<double>::infinity()}});
    Budget none{{.seconds = 1e-320}};
    EXPECT_EQ(limit_met(none, [] {}), Limit::seconds);
}

TEST(Budgets, ReadersTakeThem) {
    const auto file = encode(Bitmap<Rgba8>{{900, 900}, colors::gold}, FileFormat::png);
    Budget budget;
    EXPECT_EQ(load<Rgba8>(file, {.budget = &budget}).size(), (Size{900, 900}));
    EXPECT_GT(budget.spent().work, 0U);
    EXPECT_EQ(budget.spent().memory, 0U);
    budget.cancel();
    for (const auto format : file_formats()) {
        if (format == FileFormat::pbm) continue;
        const auto bytes = encode(Bitmap<Rgb8>{{900, 900}, gray(90)}, format);
        EXPECT_THROW((void)load<Gray8>(bytes, {.budget = &budget}), LimitError) << name_of(format);
        EXPECT_THROW((void)load_frames(bytes, {.seconds = 0}), LimitError) << name_of(format);
    }
    EXPECT_THROW((void)load<Rgba8>(file, {.memory = 900 * 900 * 3}), Error);
}

}  // namespace
