// Four threads draw at once, each on its own sheet, with the same shapes, inks and clips: nothing of the library is
// shared that changes. Built with ThreadSanitizer, which tells of any memory that two of them touch.
#include <coldbrick/coldbrick.hpp>

#include <chrono>
#include <cstdio>
#include <thread>
#include <vector>

namespace {

using namespace coldbrick;

// What all threads read.
struct Shared {
    Path path = parse_path("M 5,30 C 20,-20 40,60 58,10 A 9 6 20 1 0 40 40 Z");
    Region clip{star({.center = {32, 24}, .radius = 22, .points = 7})};
    SmoothRegion cover{Circle{.center = {32, 24}, .radius = 20}};
    Bitmap<Rgba8> stamp{{16, 12}, 0xd0a02080_rgba};
    std::vector<Ink> inks;

    Shared() {
        const std::vector<Stop> stops{{0, colors::white}, {0.5, 0x20304080_rgba}, {1, colors::navy}};
        inks = {colors::gold,
                with_alpha(colors::gold, 99),
                LinearGradient{.from = {0, 0}, .to = {60, 40}, .stops = stops, .dither = Dither::ordered},
                RadialGradient{.center = {0.5, 0.5}, .radius = 0.5, .stops = stops, .placing = Placing::shape},
                ConicGradient{.center = {32, 24}, .from = 30_deg, .stops = stops},
                Pattern::of(stamp),
                PictureInk::of(stamp),
                Hatch{.spacing = 5, .angle = 20_deg, .color = colors::teal}};
        for (int blend = 0; blend <= static_cast<int>(Blend::exclusive_or); ++blend) {
            inks.push_back(Ink{colors::coral, {.opacity = 0.7, .blend = static_cast<Blend>(blend)}});
            if (blend == 0) inks.push_back(Ink{colors::coral, {.opacity = 0.7, .light = Light::linear}});
        }
    }
};

// Three shapes, others each time.
template <class View>
void draw_shapes(View view, const Shared& shared, const Ink& ink, std::size_t turn) {
    const auto edge = turn % 2 == 0 ? Edge::crisp : Edge::smooth;
    const auto ellipse = Ellipse::around({.center = {32, 24}, .radii = {25, 9}, .turned = 30_deg});
    const auto sector = Sector{.of = Circle{.center = {30, 20}, .radius = 12}, .sweep = {10_deg, 200_deg}};
    switch (turn / 2 % 3) {
        case 0:
            fill(view, shared.path, {.edge = edge}, ink);
            stroke(view, ellipse, {.width = 4, .edge = edge}, ink);
            paste(view, shared.stamp, Transform{}.turn(20_deg).move({20, 9}));
            break;
        case 1:
            stroke(view, shared.path, {.width = 3, .dash = {5, 4}, .edge = edge}, ink);
            fill(view, Circle{.center = {32, 24}, .radius = 15}, {.edge = edge}, ink);
            stroke(view, Line{.from = {1, 3}, .to = {60, 40}}, {.edge = edge}, ink);
            break;
        default:
            fill(view, star({.center = {20, 20}, .radius = 15}), {.edge = edge}, ink);
            fill(view, transformed(filled(sector, {.edge = edge}), Transform{}.turn(10_deg)), ink);
    }
}

template <PixelFormat Format>
std::vector<std::uint8_t> drawn(const Shared& shared) {
    Bitmap<Format> sheet{{64, 48}};
    std::size_t turn = 0;
    for (const auto& ink : shared.inks) {
        draw_shapes(sheet.pixels(), shared, ink, turn++);
        draw_shapes(sheet.within(shared.clip), shared, ink, turn++);
        draw_shapes(sheet.within(shared.cover), shared, ink, turn++);
    }
    return {sheet.bytes().begin(), sheet.bytes().end()};
}

std::vector<std::vector<std::uint8_t>> all_drawn(const Shared& shared) {
    return {drawn<Gray8>(shared), drawn<Rgb8>(shared),   drawn<Bgr8>(shared),   drawn<Rgba8>(shared),
            drawn<Bgra8>(shared), drawn<Index8>(shared), drawn<Gray16>(shared), drawn<Rgba16>(shared)};
}

// A drawing on three threads, within a budget that a fourth one ends at some time.
bool draws_in_budgets(const Shared& shared) {
    Drawing plan;
    for (const auto& ink : shared.inks) {
        fill(plan, shared.path, Edge::smooth, ink);
        stroke(plan, star({.center = {32, 24}, .radius = 22, .points = 400}), {.width = 3, .edge = Edge::smooth}, ink);
    }
    Bitmap<Rgba8> whole{{64, 48}};
    render(plan, whole);
    for (auto microseconds = 0; microseconds < 40'000; microseconds += 2'000) {
        Bitmap<Rgba8> sheet{{64, 48}};
        Budget budget{{.memory = 1 << 28, .work = 1'000'000'000'000}};
        std::thread other{[&] {
            std::this_thread::sleep_for(std::chrono::microseconds{microseconds});
            budget.cancel();
        }};
        auto is_whole = true;
        try {
            budget.run([&] { render(plan, sheet, {.threads = 3}); });
        } catch (const LimitError&) {
            is_whole = false;
        }
        other.join();
        if (is_whole && sheet.bytes() != whole.bytes()) return false;
    }
    return true;
}

}  // namespace

int main() {
    const Shared shared;
    std::vector<std::vector<std::vector<std::uint8_t>>> results(4);
    std::vector<std::thread> threads;
    threads.reserve(results.size());
    for (auto& result : results) threads.emplace_back([&] { result = all_drawn(shared); });
    for (auto& thread : threads) thread.join();
    for (const auto& result : results) {
        if (result == results.front()) continue;
        std::puts("two threads have drawn different bytes");
        return 1;
    }
    if (!draws_in_budgets(shared)) {
        std::puts("three threads have drawn other bytes within a budget");
        return 1;
    }
    std::puts("four threads have drawn the same bytes");
    return 0;
}
