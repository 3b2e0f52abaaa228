// A fuzz target for scenes: whatever the text, it is drawn or refused, within limits, and explained.
#include "repeats.hpp"

#include <coldbrick/error.hpp>
#include <coldbrick/scene.hpp>

#include <string_view>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t count) {
    using namespace coldbrick;
    const auto text = std::string_view{reinterpret_cast<const char*>(bytes), count};
    const SceneLimits limits{.statements = 2000,
                             .calls = 200,
                             .depth = 50,
                             .frames = 100,
                             .sheet_pixels = 1 << 14,
                             .scene_memory = 1 << 22,
                             .seconds = 1};
    // Reading, drawing and explaining together.
    Budget whole{{.seconds = 1}};
    try {
        const detail::BudgetScope scope{&whole};
        // Two frames, of which the second may not be there.
        const auto program = parse_program(text, "fuzz.brick", "/nowhere", limits);
        if (program.evaluate().frames.count > 1) (void)program.evaluate({.frame = 1});
        const auto scene = program.evaluate();
        auto sheet = scene.sheet<Rgba8>();
        const auto touched = render(scene, sheet);
        for (std::size_t i = 0; i < touched.size() && i < 20; ++i) {
            if (touched[i].empty() && explain_unseen(scene, i).empty()) __builtin_trap();
        }
        // Explaining draws the same, and what is seen was changed, and touched.
        auto explained = scene.sheet<Rgba8>();
        const auto all = render_explained(scene, explained);
        if (explained.bytes() != sheet.bytes()) __builtin_trap();
        for (std::size_t i = 0; i < all.calls.size(); ++i) {
            const auto& [showing, touches, changes, seen, box, over, covers] = all.calls[i];
            if (seen > changes || changes > touches || (showing == Showing::seen) != (seen > 0)) __builtin_trap();
            if (showing != Showing::seen && i < 20 && explain_unseen(scene, i, all.calls[i]).empty()) __builtin_trap();
        }
    } catch (const Error&) {
        return 0;
    }
    return 0;
}
