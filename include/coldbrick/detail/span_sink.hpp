// What rasterisers report to painters and other sinks: spans, and how much of each pixel is
// covered.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/geometry.hpp"

#include <cstddef>
#include <cstdint>
#include <limits>
#include <span>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// The pixels of row y in columns x to x + length - 1.
struct Span {
    int y;
    int x;
    int length;
    friend constexpr bool operator==(const Span&, const Span&) = default;
};

namespace detail {

// Whether a sink of spans may get a pixel twice.
enum class Repeats { harmless, never };

// One pixel in each of consecutive rows (or columns) from the first on. The k-th of count lies in the column (or row)
// that is the whole part of (place + k * step) / 2^32.
struct Trace {
    int first;
    int count;
    std::int64_t place;
    std::int64_t step;
};

// How many bytes it is to the next pixel along a trace, and across it.
struct TraceSteps {
    std::ptrdiff_t along;
    std::ptrdiff_t across;
};

// The pixels of row y in columns x to x + length - 1, and how much of each is covered, in 255ths: each by its own byte
// in turn, or all alike.
struct CoverSpan {
    int y;
    int x;
    int length;
    const std::uint8_t* each;  // null: all alike
    std::uint8_t all;
};

// Who takes the spans: called with up to some hundreds of them at a time.
struct SpanSink {
    void* context;
    void (*take)(void* context, std::span<const Span> spans);
    Repeats repeats;
    // Take what of a hairline lies inside the clip without making spans of it, each pixel of one line once. Null: as
    // spans.
    void (*take_down)(void* context, const Trace& by_row) = nullptr;
    void (*take_across)(void* context, const Trace& by_column) = nullptr;
    // Takes pixels that are covered in part, row by row from left to right, up to some hundreds of spans at a time.
    // Null: as spans, of what is covered at all.
    void (*take_cover)(void* context, std::span<const CoverSpan> spans) = nullptr;
    // Takes all pixels of a box that lies inside the clip and is not empty. Null: as spans.
    void (*take_box)(void* context, const Box& box) = nullptr;
};

// What of a clip may have pixels in it: no shape has any within some pixels of the least and the greatest number, so
// that rows and columns next to the clip's are numbers too.
constexpr Box within_numbers(const Box& clip) noexcept {
    constexpr auto least = std::int64_t{std::numeric_limits<int>::min()} + 16;
    constexpr auto most = std::int64_t{std::numeric_limits<int>::max()} - 2;
    const auto first = [=](int at) { return static_cast<int>(greater(std::int64_t{at}, least)); };
    const auto extent = [&](int at, int size) {
        const auto last = lesser<std::int64_t>(std::int64_t{at} + size - 1, most);
        const auto pixels = clamped<std::int64_t>(last - first(at) + 1, 0, std::numeric_limits<int>::max());
        return static_cast<int>(pixels);
    };
    return {.at = {.x = first(clip.at.x), .y = first(clip.at.y)},
            .size = {.width = extent(clip.at.x, clip.size.width), .height = extent(clip.at.y, clip.size.height)}};
}

}  // namespace detail

}  // namespace v0
}  // namespace coldbrick
