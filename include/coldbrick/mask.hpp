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

// Throws Error for a box that reaches beyond the numbers (2^31 - 1).
void check_mask_box(const Box& box);

// Gathers pixels, row by row from left to right, into spans.
class SpanGatherer {
  public:
    void add(Point pixel) {
        if (!spans_.empty() && spans_.back().y == pixel.y && spans_.back().x + spans_.back().length == pixel.x) {
            ++spans_.back().length;
        } else {
            spans_.push_back({.y = pixel.y, .x = pixel.x, .length = 1});
        }
    }
    [[nodiscard]] Region region() const { return Region::of_spans(spans_); }

  private:
    std::vector<Span> spans_;
};

// Calls use(pixel) with each pixel of a box, row by row from left to right. Throws Error for one beyond the numbers.
template <class Use>
void for_each_pixel(const Box& box, const Use& use) {
    check_mask_box(box);
    for (auto y = 0; y < box.size.height; ++y) {
        for (auto x = 0; x < box.size.width; ++x) use(Point{.x = box.at.x + x, .y = box.at.y + y});
    }
}

}  // namespace detail

// The pixels of a picture that have enough of something. Throws Error for a threshold that is not from 0 to 256.
template <Picture P>
[[nodiscard]] Region region_of(const P& picture, const Threshold& threshold = {}) {
    return detail::region_of(detail::SurfaceAccess::of(picture), threshold);
}

// The pixels of a picture for whose colours a predicate holds. It is called once for each pixel.
template <Picture P, std::predicate<Color> Holds>
[[nodiscard]] Region region_where(const P& picture, const Holds& holds) {
    const auto& surface = detail::SurfaceAccess::of(picture);
    detail::SpanGatherer found;
    detail::for_each_pixel(surface.window, [&](Point pixel) {
        if (holds(detail::color_at(surface, pixel))) found.add(pixel);
    });
    return found.region();
}

// The pixels of a box for which a predicate holds. It is called once for each pixel. Throws Error for a box that
// reaches beyond the numbers (2^31 - 1).
template <std::predicate<Point> Holds>
[[nodiscard]] Region region_where(const Box& box, const Holds& holds) {
    detail::SpanGatherer found;
    detail::for_each_pixel(box, [&](Point pixel) {
        if (holds(pixel)) found.add(pixel);
    });
    return found.region();
}

// A picture as coverage: each pixel is covered by as many 255ths as it has of something.
template <Picture P>
[[nodiscard]] SmoothRegion smooth_region_of(const P& picture, MaskBy by = MaskBy::luma) {
    return detail::smooth_region_of(detail::SurfaceAccess::of(picture), by);
}

// The pixels of a box, each covered by as many 255ths as a function returns, of which less than 0 counts as 0 and more
// than 255 as 255. It is called once for each pixel. Throws Error as region_where() does.
template <class Covered>
requires std::is_invocable_r_v<int, const Covered&, Point>
[[nodiscard]] SmoothRegion smooth_region_where(const Box& box, const Covered& covered) {
    std::vector<SmoothRegion::Part> parts;
    detail::for_each_pixel(box, [&](Point pixel) {
        const auto coverage = static_cast<std::uint8_t>(detail::clamped<int>(covered(pixel), 0, 255));
        if (coverage == 0) return;
        if (!parts.empty()) {
            auto& last = parts.back();
            if (last.y == pixel.y && last.x + last.length == pixel.x && last.coverage == coverage) {
                ++last.length;
                return;
            }
        }
        parts.push_back({.y = pixel.y, .x = pixel.x, .length = 1, .coverage = coverage});
    });
    return SmoothRegion::of_parts(parts);
}

}  // namespace v0
}  // namespace coldbrick
