// A fuzz target for font files in memory: whatever the bytes, they are a face or refused, and words in it are measured
// and drawn, or refused, and do no harm.
#include <coldbrick/draw.hpp>
#include <coldbrick/error.hpp>
#include <coldbrick/pixels.hpp>
#include <coldbrick/text.hpp>

#include <cmath>
#include <cstdint>
#include <span>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t count) {
    using namespace coldbrick;
    const std::span file{bytes, count};
    try {
        auto face = load_face(file, count_faces(file) - 1);
        const auto axes = face.axes();
        const auto features = face.features();
        if (!axes.empty()) face = face.with_axes({{.tag = axes.back().tag, .value = axes.back().most}});
        if (!features.empty()) face = face.with_features({{.tag = features.back(), .value = 1}});
        if (face.characters().size() > 0x110000) __builtin_trap();
        const Text text{.words = "fiAV\u0301 Ha1 \u0645\u0631\u0633\u0649 \u0915\u094d\u0937\u093f \u0e17\u0e48\u0e32",
                        .at = {40, 30},
                        .anchor = TextAnchor::center,
                        .face = face,
                        .height = count == 0 ? 12 : 1.0 + bytes[count / 2] % 120,
                        .wrap = count % 3 == 0 ? std::optional{60.0} : std::nullopt};
        for (const auto& line : lay_out(text).lines) {
            for (const auto& caret : line.carets) {
                if (!std::isfinite(caret.x)) __builtin_trap();
            }
        }
        Bitmap<Gray8> sheet{{80, 60}};
        fill(sheet, text, Edge::smooth, Color{.red = 255, .green = 255, .blue = 255});
        fill(sheet, text, Color{});
    } catch (const Error&) {
        return 0;
    }
    return 0;
}
