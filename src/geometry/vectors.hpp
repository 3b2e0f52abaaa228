// Loops of plain arithmetic that are compiled twice: for any processor, and for those with wider vectors. The compiler
// makes the vectors; the results are the same to the bit.
#pragma once

#include <bit>
#include <cstdint>
#include <cstring>

namespace coldbrick::inline v0::detail {

#if defined(COLDBRICK_SIMD) && defined(__x86_64__) && defined(__GNUC__)
#define COLDBRICK_WIDE [[gnu::target("avx2")]]
#else
#define COLDBRICK_WIDE
#endif

// What a loop calls must become a part of it: COLDBRICK_INLINE before a function, COLDBRICK_KERNEL behind the
// parentheses of a lambda.
#if defined(__GNUC__)
#define COLDBRICK_INLINE [[gnu::always_inline]] inline
#define COLDBRICK_KERNEL __attribute__((always_inline))
#else
#define COLDBRICK_INLINE inline
#define COLDBRICK_KERNEL
#endif

// Before a loop over several rows of numbers: none that it writes is read by it elsewhere.
#if defined(__GNUC__) && !defined(__clang__)
#define COLDBRICK_APART _Pragma("GCC ivdep")
#else
#define COLDBRICK_APART
#endif

// Whether the processor has the wider vectors, the library was built for them, and the environment variable
// COLDBRICK_VECTORS, which is looked at once, does not say "portable".
bool has_wide_vectors() noexcept;

template <class Loop>
COLDBRICK_WIDE void run_wide(Loop loop) {
    loop();
}

// Runs the loop, which is a COLDBRICK_KERNEL. What it has captured by value is its own: nothing that it writes can
// change it, which the compiler must know to make vectors.
template <class Loop>
void run_in_vectors(Loop loop) {
    has_wide_vectors() ? run_wide(loop) : loop();
}

// Whether the first byte of a number in memory is its lowest.
inline constexpr bool is_little_endian = std::endian::native == std::endian::little;

// Eight numbers at a time, of which two instructions are made where vectors are shorter. They stay within a kernel.
using Words8 = std::uint32_t __attribute__((vector_size(32)));
using Ints8 = std::int32_t __attribute__((vector_size(32)));

COLDBRICK_INLINE void read(const void* bytes, auto& vector) noexcept { std::memcpy(&vector, bytes, sizeof vector); }
COLDBRICK_INLINE void write(const auto& vector, void* bytes) noexcept { std::memcpy(bytes, &vector, sizeof vector); }

}  // namespace coldbrick::inline v0::detail
