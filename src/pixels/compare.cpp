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

// The colours of a row, counted from the uppermost.
void read_row(const Surface& picture, int y, std::vector<Color16>& row) {
    const auto& [at, size] = picture.clip;
    row.resize(static_cast<std::size_t>(size.width));
    read_colors(picture, pixel_address(picture, at.x, at.y + y), size.width, row.data());
}

// Calls visit(at, color of a, steps) for each pixel, counted from the upper left ones.
template <class Visit>
void visit_both(const Surface& a, const Surface& b, const Visit& visit) {
    if (a.clip.size != b.clip.size) {
        throw Error{"the pictures have not the same size: " + in_words(a.clip.size) + " and " + in_words(b.clip.size)};
    }
    std::vector<Color16> first;
    std::vector<Color16> second;
    for (int y = 0; y < a.clip.size.height; ++y) {
        read_row(a, y, first);
        read_row(b, y, second);
        for (std::size_t x = 0; x < first.size(); ++x) {
            visit(Point{.x = static_cast<int>(x), .y = y}, first[x],
                  Steps{.red = std::abs(first[x].red - second[x].red),
                        .green = std::abs(first[x].green - second[x].green),
                        .blue = std::abs(first[x].blue - second[x].blue),
                        .alpha = std::abs(first[x].alpha - second[x].alpha)});
        }
    }
}

constexpr auto step = 257.0;

}  // namespace

Differences compare(const Surface& a, const Surface& b, double tolerance) {
    Differences found;
    visit_both(a, b, [&](Point at, const Color16&, const Steps& steps) {
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
    visit_both(a, b, [&](Point at, const Color16& color, const Steps& steps) {
        if (steps.most() / step <= tolerance) {
            const auto pale = 160 + luma(narrowed(color)) * 3 / 8;
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

std::vector<Color16> colors_of(const Surface& picture) {
    std::vector<Color16> colors;
    const auto& size = picture.clip.size;
    colors.reserve(static_cast<std::size_t>(size.width) * static_cast<std::size_t>(size.height));
    std::vector<Color16> row;
    for (int y = 0; y < size.height; ++y) {
        read_row(picture, y, row);
        colors.insert(colors.end(), row.begin(), row.end());
    }
    const auto number = [](const Color16& c) {
        return std::uint64_t{c.red} << 48U | std::uint64_t{c.green} << 32U | std::uint64_t{c.blue} << 16U | c.alpha;
    };
    std::sort(colors.begin(), colors.end(),
              [&](const Color16& one, const Color16& other) { return number(one) < number(other); });
    colors.erase(std::unique(colors.begin(), colors.end()), colors.end());
    return colors;
}

}  // namespace coldbrick::detail
