#include "geometry/vectors.hpp"

#include <cstdlib>
#include <cstring>

namespace coldbrick::inline v0::detail {

bool has_wide_vectors() noexcept {
#if defined(COLDBRICK_SIMD) && defined(__x86_64__) && defined(__GNUC__)
    static const auto known = [] {
        const auto* const chosen = std::getenv("COLDBRICK_VECTORS");
        const auto is_portable = chosen != nullptr && std::strcmp(chosen, "portable") == 0;
        return !is_portable && __builtin_cpu_supports("avx2") != 0;
    }();
    return known;
#else
    return false;
#endif
}

}  // namespace coldbrick::inline v0::detail
