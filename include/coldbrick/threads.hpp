// coldbrick/threads.hpp - on how many threads something is done.
//
//     Drawing plan;
//     render(plan, chart, {.threads = 0});                               // on all processors
//     Bitmap<Rgb8> small = resized(photo, {.width = 96}, Scaling::box, {.threads = 2});
#pragma once

#include "coldbrick/detail/public.hpp"

#include <string_view>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

inline constexpr int max_threads = 1024;

// At most max_threads; 0: one for each processor. The results are the same for any number.
struct Threads {
    int threads = 1;
    friend bool operator==(const Threads&, const Threads&) = default;
};

namespace detail {

// Throws Error "<what>: threads ..." for a number that is not allowed; 0 becomes that of the processors.
[[nodiscard]] unsigned allowed_threads(std::string_view what, int threads);

}  // namespace detail

}  // namespace v0
}  // namespace coldbrick
