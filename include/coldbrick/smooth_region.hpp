// coldbrick/smooth_region.hpp - how much of each pixel an area with smooth edges covers: to look at, and as a clip.
//
//     const SmoothRegion porthole{filled(Circle{.center = {80, 60}, .radius = 40}, {.edge = Edge::smooth})};
//     fill(chart.within(porthole), waves, colors::teal);            // fades out at the rim
//     int covered = porthole.coverage_at({40, 60});                 // in 255ths
//
//     for_each_coverage(area, clip, [&](int y, int x, int length, int coverage) { sum += length * coverage; });
#pragma once

#include "coldbrick/detail/public.hpp"
#include "coldbrick/region.hpp"
#include "coldbrick/spans.hpp"

#include <cstdint>
#include <vector>

namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {

// Calls visit(y, x, length, coverage) for the pixels of an area inside the clip, row by row from left to right: the
// pixels x to x + length - 1 of row y are covered by coverage/255 each, 1 to 255. Crisp areas cover 255. Gives the box
// around the pixels. Throws Error as drawing the area would.
template <class Area, class Visit>
Box for_each_coverage(const Area& area, const Box& clip, Visit&& visit) {
    using Called = std::remove_reference_t<Visit>;
    const auto take = [](void* context, std::span<const Span> spans) {
        for (const auto& [y, x, length] : spans) (*static_cast<Called*>(context))(y, x, length, 255);
    };
    const auto take_cover = [](void* context, std::span<const detail::CoverSpan> spans) {
        auto& call = *static_cast<Called*>(context);
        for (const auto& [y, x, length, each, all] : spans) {
            if (each == nullptr) call(y, x, length, int{all});
            for (int i = 0; each != nullptr && i < length; ++i) {
                if (each[i] != 0) call(y, x + i, 1, int{each[i]});
            }
        }
    };
    auto* context = const_cast<void*>(static_cast<const void*>(&visit));
    return detail::scan(
        detail::as_area(area), clip,
        {.context = context, .take = take, .repeats = detail::Repeats::never, .take_cover = take_cover});
}

class SmoothRegion {
  public:
    // Without pixels.
    SmoothRegion() noexcept = default;

    // What an area covers, all of it or what is in a box. Throws Error as drawing the area would.
    template <class Area>
    explicit SmoothRegion(const Area& area) : SmoothRegion{area, coldbrick::bounds(area)} {}
    template <class Area>
    SmoothRegion(const Area& area, const Box& within) {
        bounds_ = for_each_coverage(area, within, [&](int y, int x, int length, int coverage) {
            parts_.push_back({.y = y, .x = x, .length = length, .coverage = static_cast<std::uint8_t>(coverage)});
        });
    }

    // Pixels that are covered alike.
    struct Part {
        int y;
        int x;
        int length;
        std::uint8_t coverage;
        friend bool operator==(const Part&, const Part&) = default;
    };

    // In order of rows, from left to right.
    [[nodiscard]] std::span<const Part> parts() const& noexcept { return parts_; }
    [[nodiscard]] std::span<const Part> row(int y) const& noexcept;
    template <class Parts = Part>
    [[nodiscard]] std::span<const Part> parts() const&& {
        static_assert(detail::never<Parts>, "this region is gone at the end of the line: give it a name first");
        return {};
    }
    template <class Parts = Part>
    [[nodiscard]] std::span<const Part> row(int) const&& {
        static_assert(detail::never<Parts>, "this region is gone at the end of the line: give it a name first");
        return {};
    }

    [[nodiscard]] bool empty() const noexcept { return parts_.empty(); }
    [[nodiscard]] Box bounds() const noexcept { return bounds_; }

    // Of parts that come in order of rows, from left to right, and do not overlap; those of coverage 0 are left out.
    // Throws Error for others.
    static SmoothRegion of_parts(std::span<const Part> parts);

    // The same pixels further right and down. Throws Error if one would lie beyond the numbers (2^31 - 1).
    [[nodiscard]] SmoothRegion shifted(Point by) const;

    // How much of a pixel is covered, 0 to 255.
    [[nodiscard]] int coverage_at(Point pixel) const noexcept;

    // What is covered by both: the coverages multiplied, in 255ths rounded to the nearest.
    friend SmoothRegion intersection(const SmoothRegion& a, const SmoothRegion& b);

    friend bool operator==(const SmoothRegion& a, const SmoothRegion& b) noexcept { return a.parts_ == b.parts_; }

  private:
    std::vector<Part> parts_;
    Box bounds_;
};

}  // namespace v0
}  // namespace coldbrick
