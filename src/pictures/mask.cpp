#include "coldbrick/mask.hpp"

#include "formats/kernels.hpp"
#include "geometry/limits.hpp"

#include "coldbrick/error.hpp"

#include <cstdint>

namespace coldbrick::inline v0::detail {

namespace {

std::uint8_t value_of(const Color& color, MaskBy by) noexcept {
    switch (by) {
        case MaskBy::red:
            return color.red;
        case MaskBy::green:
            return color.green;
        case MaskBy::blue:
            return color.blue;
        case MaskBy::alpha:
            return color.alpha;
        default:
            return luma(color);
    }
}

// Calls use(y, values) with the rows of the clip.
template <class Use>
void for_each_row(const Surface& picture, MaskBy by, const Use& use) {
    check_choice("mask", "by", by, {"luma", "red", "green", "blue", "alpha"});
    const auto& [at, size] = picture.window;
    std::vector<Color> colors(static_cast<std::size_t>(size.width));
    std::vector<std::uint8_t> values(colors.size());
    for (auto y = at.y; y < at.y + size.height; ++y) {
        read_colors(picture, {.x = at.x, .y = y}, size.width, colors.data());
        for (std::size_t i = 0; i < colors.size(); ++i) values[i] = value_of(colors[i], by);
        use(y, values);
    }
}

}  // namespace

Region region_of(const Surface& picture, const Threshold& threshold) {
    constexpr auto most = 256;
    if (threshold.least < 0 || threshold.least > most) refuse("mask", "least", threshold.least, 0, most);
    std::vector<Span> spans;
    const auto left = picture.window.at.x;
    for_each_row(picture, threshold.by, [&](int y, const std::vector<std::uint8_t>& values) {
        add_spans(
            y, left, left + static_cast<int>(values.size()),
            [&](int x) { return values[static_cast<std::size_t>(x - left)] >= threshold.least; }, spans);
    });
    return Region::of_spans(spans);
}

SmoothRegion smooth_region_of(const Surface& picture, MaskBy by) {
    std::vector<SmoothRegion::Part> parts;
    const auto left = picture.window.at.x;
    for_each_row(picture, by, [&](int y, const std::vector<std::uint8_t>& values) {
        for (std::size_t i = 0; i < values.size();) {
            const auto begin = i;
            while (i < values.size() && values[i] == values[begin]) ++i;
            parts.push_back({.y = y,
                             .x = left + static_cast<int>(begin),
                             .length = static_cast<int>(i - begin),
                             .coverage = values[begin]});
        }
    });
    return SmoothRegion::of_parts(parts);
}

}  // namespace coldbrick::inline v0::detail
