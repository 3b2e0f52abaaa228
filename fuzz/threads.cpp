// A fuzz target for scenes on several threads: the same pixels as on one.
#include "repeats.hpp"

#include <coldbrick/error.hpp>
#include <coldbrick/scene.hpp>

#include <string_view>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t count) {
    using namespace coldbrick;
    const SceneLimits limits{
        .statements = 500, .calls = 100, .sheet_pixels = 1 << 14, .scene_memory = 1 << 24, .seconds = 1};
    try {
        const auto scene = parse_scene({reinterpret_cast<const char*>(bytes), count}, "fuzz.brick", "/nowhere", limits);
        auto one = scene.sheet<Rgba8>();
        auto three = scene.sheet<Rgba8>();
        render(scene, one);
        render(scene, three, {.threads = 3});
        if (one.bytes() != three.bytes()) __builtin_trap();
    } catch (const Error&) {
        return 0;
    }
    return 0;
}
