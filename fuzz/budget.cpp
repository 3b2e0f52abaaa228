// A fuzz target for budgets: a scene is read and drawn or refused, in not much more time than it was given.
#include "repeats.hpp"

#include <coldbrick/error.hpp>
#include <coldbrick/scene.hpp>

#include <chrono>
#include <string_view>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t count) {
    using namespace coldbrick;
    constexpr auto seconds = 0.2;
    const SceneLimits limits{.sheet_pixels = 1 << 20, .scene_memory = 1 << 26, .seconds = seconds};
    const auto begin = std::chrono::steady_clock::now();
    try {
        const auto scene = parse_scene({reinterpret_cast<const char*>(bytes), count}, "fuzz.brick", "/nowhere", limits);
        auto sheet = scene.sheet<Rgba8>();
        render(scene, sheet);
    } catch (const Error&) {
    }
    // With sanitizers and on a busy machine, some milliseconds become more.
    const std::chrono::duration<double> taken = std::chrono::steady_clock::now() - begin;
    if (taken.count() > seconds + 1) __builtin_trap();
    return 0;
}
