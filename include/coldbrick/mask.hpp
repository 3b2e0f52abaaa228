// coldbrick/mask.hpp - regions from pictures and from functions.
//
//     const Bitmap<Gray8> stencil = load<Gray8>("stencil.png");
//     const Region land = region_of(stencil);                                         // half white and more
//     const Region badge = region_of(photo, {.by = MaskBy::alpha, .least = 1});
//     const Region red = region_where(photo, [](Color color) { return color.red > 200 && color.green < 80; });
//     const Region stripes = region_where(Box{{0, 0}, {80, 60}}, [](Point pixel) { return pixel.x % 8 < 4; });
//     const SmoothRegion soft = smooth_region_of(stencil).shifted({40, 25});           // as opaque as it is white
//
// A picture's pixels have the places in the region that they have in the picture: of a view, those in its clip.
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/pixels.hpp"
#include "coldbrick/region.hpp"
#include "coldbrick/smooth_region.hpp"

#include <concepts>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// What of a pixel's colour counts, from 0 to 255: its luma, or a channel.
enum class MaskBy { luma, red, green, blue, alpha };

struct Threshold {
    MaskBy by = MaskBy::luma;
    int least = 128;  // 0 to 256: pixels that have as much or more belong to the region
};

namespace detail {

// Throws Error for a threshold that is not allowed.
Region region_of(const Surface& picture, const Threshold& threshold);
SmoothRegion smooth_region_of(const Surface& picture, MaskBy by);

// Spans of a row, of the pixels for which holds(x) from one on to another.
template <class Holds>
void add_spans(int y, int from, int to, const Holds& holds, std::vector<Span>& spans) {
    for (auto x = from; x < to; ++x) {
        if (!holds(x)) continue;
        const auto begin = x;
        while (x < to && (x == begin || holds(x))) ++x;
        spans.push_back({.y = y, .x = begin, .length = x - begin});
    }
}

}  // namespace detail

// The pixels of a picture that have enough of something. Throws Error for a threshold that is not from 0 to 256.
template <Picture P>
[[nodiscard]] Region region_of(const P& picture, const Threshold& threshold = {}) {
    return detail::region_of(detail::SurfaceAccess::of(picture), threshold);
}

// The pixels of a picture for whose colours a predicate holds. It is asked once for each pixel.
template <Picture P, std::predicate<Color> Holds>
[[nodiscard]] Region region_where(const P& picture, const Holds& holds) {
    const auto& surface = detail::SurfaceAccess::of(picture);
    const auto& [at, size] = surface.window;
    std::vector<Span> spans;
    std::vector<bool> row(static_cast<std::size_t>(size.width));
    for (auto y = at.y; y < at.y + size.height; ++y) {
        for (auto x = 0; x < size.width; ++x) {
            row[static_cast<std::size_t>(x)] = holds(detail::color_at(surface, {.x = at.x + x, .y = y}));
        }
        detail::add_spans(
            y, at.x, at.x + size.width, [&, left = at.x](int x) { return row[static_cast<std::size_t>(x - left)]; },
            spans);
    }
    return Region::of_spans(spans);
}

// The pixels of a box for which a predicate holds. It is asked once for each pixel.
template <std::predicate<Point> Holds>
[[nodiscard]] Region region_where(const Box& box, const Holds& holds) {
    std::vector<Span> spans;
    std::vector<bool> row(static_cast<std::size_t>(detail::greater(box.size.width, 0)));
    for (auto y = box.at.y; y < box.at.y + box.size.height; ++y) {
        for (auto x = 0; x < box.size.width; ++x) {
            row[static_cast<std::size_t>(x)] = holds(Point{.x = box.at.x + x, .y = y});
        }
        detail::add_spans(
            y, box.at.x, box.at.x + box.size.width, [&](int x) { return row[static_cast<std::size_t>(x - box.at.x)]; },
            spans);
    }
    return Region::of_spans(spans);
}

// A picture as coverage: each pixel is covered by as many 255ths as it has of something.
template <Picture P>
[[nodiscard]] SmoothRegion smooth_region_of(const P& picture, MaskBy by = MaskBy::luma) {
    return detail::smooth_region_of(detail::SurfaceAccess::of(picture), by);
}

// The pixels of a box, each covered by as many 255ths as a function says; it is asked once for each. What it says below
// 0 and above 255 counts as these.
template <class Covered>
requires std::is_invocable_r_v<int, const Covered&, Point>
[[nodiscard]] SmoothRegion smooth_region_where(const Box& box, const Covered& covered) {
    std::vector<SmoothRegion::Part> parts;
    for (auto y = box.at.y; y < box.at.y + box.size.height; ++y) {
        for (auto x = box.at.x; x < box.at.x + box.size.width; ++x) {
            const auto coverage = detail::clamped<int>(covered(Point{.x = x, .y = y}), 0, 255);
            parts.push_back({.y = y, .x = x, .length = 1, .coverage = static_cast<std::uint8_t>(coverage)});
        }
    }
    return SmoothRegion::of_parts(parts);
}

}  // namespace v0
}  // namespace coldbrick
