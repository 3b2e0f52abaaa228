// A fuzz target for tables that become files: whatever the cells, each row has a file of its own, below the folder that
// the pattern names, and so has each of its frames.
#include "commands.hpp"
#include "repeats.hpp"
#include "row_names.hpp"

#include <coldbrick/error.hpp>

#include <algorithm>
#include <set>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t count) {
    using namespace coldbrick;
    if (count == 0) return 0;
    const std::string pattern = bytes[0] % 2 == 0 ? "out/{a}.png" : "out/{a}{frame}.png";
    try {
        const auto table = parse_table({reinterpret_cast<const char*>(bytes + 1), count - 1}, "fuzz.csv");
        const auto names = tool::names_of_rows(table, {}, pattern);
        std::set<std::string> files;
        for (const auto& name : names) {
            if (std::count(name.begin(), name.end(), '/') != 1 || name.find('\0') != std::string::npos)
                __builtin_trap();
            const auto brace = name.find("{frame}");
            for (auto frame = 0; frame < (brace == std::string::npos ? 1 : 120); ++frame) {
                auto file = name;
                if (brace != std::string::npos) file.replace(brace, 7, std::to_string(frame));
                if (!files.insert(file).second) __builtin_trap();
            }
        }
    } catch (const Error&) {
        return 0;
    } catch (const tool::WrongCall&) {
        return 0;
    }
    return 0;
}
