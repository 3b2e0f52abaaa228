// A fuzz target for path data: whatever the string, it is refused at a place in it, or filled and stroked.
#include "repeats.hpp"

#include <coldbrick/coldbrick.hpp>

#include <string_view>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t count) {
    using namespace coldbrick;
    const auto text = std::string_view{reinterpret_cast<const char*>(bytes), count};
    Bitmap<Rgba8> sheet{{40, 30}};
    try {
        const auto path = parse_path(text);
        if (path.empty()) return 0;
        for (const auto edge : {Edge::crisp, Edge::smooth}) {
            fill(sheet, path, {.edge = edge}, colors::gold);
            stroke(sheet, path, {.width = 1, .edge = edge}, colors::teal);
            stroke(sheet, path, {.width = 6, .cap = Cap::round, .dash = {5, 3}, .edge = edge}, colors::navy);
        }
    } catch (const PathError& error) {
        if (error.position() > count) __builtin_trap();
    } catch (const Error&) {
        return 0;
    }
    return 0;
}
