// coldbrick/source_place.hpp - where a call stands: in a program's source, or in a scene.
//
//     Drawing plan;
//     fill(plan, moon, gold);                                   // the place of this call, without being asked for
//     fill(plan, moon, gold, {.file = "moon.txt", .line = 3, .column = 7});
#pragma once

#include "coldbrick/detail/public.hpp"

#include <source_location>
#include <string_view>
#include <version>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

struct SourcePlace {
    const char* file = "";  // which must live as long as the place is used
    int line = 0;           // both from 1; 0: not known
    int column = 0;

    // The place of the call in whose default argument it stands.
#ifdef __cpp_lib_source_location
    static constexpr SourcePlace current(const std::source_location at = std::source_location::current()) noexcept {
        return {.file = at.file_name(), .line = static_cast<int>(at.line()), .column = static_cast<int>(at.column())};
    }
#else
    static constexpr SourcePlace current(const char* file = __builtin_FILE(), int line = __builtin_LINE(),
                                         int column = __builtin_COLUMN()) noexcept {
        return {.file = file, .line = line, .column = column};
    }
#endif

    friend constexpr bool operator==(const SourcePlace& a, const SourcePlace& b) noexcept {
        return a.line == b.line && a.column == b.column && std::string_view{a.file} == b.file;
    }
};

}  // namespace v0
}  // namespace coldbrick
