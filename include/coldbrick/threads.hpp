// coldbrick/threads.hpp - on how many threads something is done.
#pragma once

#include "coldbrick/detail/public.hpp"

#include <string_view>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// At most 1024; 0: one for each processor. The results are the same for any number.
struct Threads {
    int count = 1;
    friend bool operator==(const Threads&, const Threads&) = default;
};

namespace detail {

// Throws Error "<what>: threads ..." for a number that is not allowed; 0 becomes that of the processors.
[[nodiscard]] unsigned allowed_threads(std::string_view what, int threads);

}  // namespace detail

}  // namespace v0
}  // namespace coldbrick
