// What is declared in this namespace can be seen from outside a shared library.
//
// It is the first thing that each public header includes: where the language is too old, this line ends the
// compilation.
#pragma once

#if (defined(_MSVC_LANG) ? _MSVC_LANG : __cplusplus) < 202002L
#include "Cold Brick needs C++20: compile with -std=c++20 or later"
#endif

#ifdef __GNUC__
#define COLDBRICK_PUBLIC [[gnu::visibility("default")]]
#else
#define COLDBRICK_PUBLIC
#endif

namespace coldbrick::inline v0::detail {

// For functions that do not compile if they are called, and say what to write.
template <class...>
inline constexpr bool never = false;

}  // namespace coldbrick::inline v0::detail
