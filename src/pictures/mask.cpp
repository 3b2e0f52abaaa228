#include "coldbrick/mask.hpp"

#include "formats/kernels.hpp"
#include "geometry/limits.hpp"

#include "coldbrick/error.hpp"

#include <cstdint>
#include <limits>

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
    SpanGatherer found;
    const auto left = picture.window.at.x;
    for_each_row(picture, threshold.by, [&](int y, const std::vector<std::uint8_t>& values) {
        for (std::size_t i = 0; i < values.size(); ++i) {
            if (values[i] >= threshold.least) found.add({.x = left + static_cast<int>(i), .y = y});
        }
    });
    return found.region();
}

void check_mask_box(const Box& box) {
    constexpr auto most = std::int64_t{std::numeric_limits<int>::max()};
    const auto check_end = [](const char* what, std::int64_t end) {
        if (end > most) refuse("mask", what, end, std::numeric_limits<int>::min(), most);
    };
    if (box.size.width <= 0 || box.size.height <= 0) return;
    check_end("the last column", std::int64_t{box.at.x} + box.size.width);
    check_end("the last row", std::int64_t{box.at.y} + box.size.height);
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
