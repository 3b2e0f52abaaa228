#include "coldbrick/compare.hpp"

#include "pixels/kernels.hpp"

#include "coldbrick/draw.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <cstdlib>
#include <string>

namespace coldbrick::detail {

namespace {

std::string in_words(Size size) { return std::to_string(size.width) + " x " + std::to_string(size.height); }

// Differences of the channels, in 65535ths.
struct Steps {
    int red;
    int green;
    int blue;
    int alpha;

    [[nodiscard]] int most() const noexcept { return std::max({red, green, blue, alpha}); }
};

Color16 color_of(const Surface& picture, Point at) {
    return decode_deep(picture, pixel_address(picture, picture.clip.at.x + at.x, picture.clip.at.y + at.y));
}

// Calls visit(at, steps) for each pixel, counted from the upper left ones.
template <class Visit>
void visit_both(const Surface& a, const Surface& b, const Visit& visit) {
    if (a.clip.size != b.clip.size) {
        throw Error{"the pictures have not the same size: " + in_words(a.clip.size) + " and " + in_words(b.clip.size)};
    }
    for (int y = 0; y < a.clip.size.height; ++y) {
        for (int x = 0; x < a.clip.size.width; ++x) {
            const auto at = Point{.x = x, .y = y};
            const auto first = color_of(a, at);
            const auto second = color_of(b, at);
            visit(at, Steps{.red = std::abs(first.red - second.red),
                            .green = std::abs(first.green - second.green),
                            .blue = std::abs(first.blue - second.blue),
                            .alpha = std::abs(first.alpha - second.alpha)});
        }
    }
}

constexpr auto step = 257.0;

}  // namespace

Differences compare(const Surface& a, const Surface& b, double tolerance) {
    Differences found;
    visit_both(a, b, [&](Point at, const Steps& steps) {
        found.red = std::max(found.red, steps.red / step);
        found.green = std::max(found.green, steps.green / step);
        found.blue = std::max(found.blue, steps.blue / step);
        found.alpha = std::max(found.alpha, steps.alpha / step);
        if (steps.most() / step <= tolerance) return;
        ++found.pixels;
        found.box = enclosing(found.box, Box{.at = at, .size = {.width = 1, .height = 1}});
    });
    return found;
}

Bitmap<Rgb8> differences_shown(const Surface& a, const Surface& b, double tolerance) {
    Bitmap<Rgb8> shown{a.clip.size};
    visit_both(a, b, [&](Point at, const Steps& steps) {
        if (steps.most() / step <= tolerance) {
            const auto pale = 160 + luma(narrowed(color_of(a, at))) * 3 / 8;
            mark(shown, at, gray(static_cast<std::uint8_t>(pale)));
        } else {
            // Light red for a step, dark red for all.
            const auto share = steps.most() / 65535.0;
            mark(shown, at,
                 Color{.red = static_cast<std::uint8_t>(240 - 100 * share),
                       .green = static_cast<std::uint8_t>(110 - 110 * share),
                       .blue = static_cast<std::uint8_t>(100 - 100 * share)});
        }
    });
    return shown;
}

std::size_t count_colors(const Surface& picture) {
    std::vector<std::uint64_t> colors;
    const auto& size = picture.clip.size;
    colors.reserve(static_cast<std::size_t>(size.width) * static_cast<std::size_t>(size.height));
    for (int y = 0; y < size.height; ++y) {
        for (int x = 0; x < size.width; ++x) {
            const auto [red, green, blue, alpha] = color_of(picture, {.x = x, .y = y});
            colors.push_back(std::uint64_t{red} << 48U | std::uint64_t{green} << 32U | std::uint64_t{blue} << 16U |
                             alpha);
        }
    }
    std::sort(colors.begin(), colors.end());
    return static_cast<std::size_t>(std::unique(colors.begin(), colors.end()) - colors.begin());
}

}  // namespace coldbrick::detail
