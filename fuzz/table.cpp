// A fuzz target for tables: whatever the bytes, all rows have as many cells as there are columns, or it is refused.
#include "repeats.hpp"

#include <coldbrick/error.hpp>
#include <coldbrick/table.hpp>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t count) {
    using namespace coldbrick;
    try {
        const auto table = parse_table({reinterpret_cast<const char*>(bytes), count}, "fuzz.csv");
        for (const auto& row : table.rows) {
            if (row.cells.size() != table.columns.size() || row.line < 2) __builtin_trap();
        }
    } catch (const Error&) {
        return 0;
    }
    return 0;
}
