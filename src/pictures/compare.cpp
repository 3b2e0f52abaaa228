#include "coldbrick/compare.hpp"

#include "formats/kernels.hpp"
#include "geometry/limits.hpp"

#include "coldbrick/draw.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <cstring>
#include <iterator>
#include <string>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

// Differences of the channels, in 65535ths.
struct Steps {
    int red;
    int green;
    int blue;
    int alpha;

    [[nodiscard]] int most() const noexcept { return std::max({red, green, blue, alpha}); }
};

// Calls visit(at, color of a, steps) for each pixel, counted from the upper left ones.
template <class Visit>
void visit_both(const Surface& a, const Surface& b, const Visit& visit) {
    if (a.window.size != b.window.size) {
        throw Error{"the pictures have not the same size: " + in_words(a.window.size) + " and " +
                    in_words(b.window.size)};
    }
    std::vector<Color16> first;
    std::vector<Color16> second;
    for (int y = 0; y < a.window.size.height; ++y) {
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

constexpr auto deep_step = 257.0;

}  // namespace

Differences compare(const Surface& a, const Surface& b, double tolerance) {
    Differences found;
    visit_both(a, b, [&](Point at, const Color16&, const Steps& steps) {
        found.red = std::max(found.red, steps.red / deep_step);
        found.green = std::max(found.green, steps.green / deep_step);
        found.blue = std::max(found.blue, steps.blue / deep_step);
        found.alpha = std::max(found.alpha, steps.alpha / deep_step);
        if (steps.most() / deep_step <= tolerance) return;
        ++found.pixels;
        found.box = enclosing(found.box, Box{.at = at, .size = {.width = 1, .height = 1}});
    });
    return found;
}

Bitmap<Rgb8> differences_shown(const Surface& a, const Surface& b, double tolerance) {
    Bitmap<Rgb8> shown{a.window.size};
    visit_both(a, b, [&](Point at, const Color16& color, const Steps& steps) {
        if (steps.most() / deep_step <= tolerance) {
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

namespace {

// Calls visit(color) for the pixels, but not for each of a run, and not for rows that are as the one before.
template <class Visit>
void visit_changes(const Surface& picture, const Visit& visit) {
    std::vector<Color16> row;
    const auto& [at, size] = picture.window;
    const auto pixel_bytes = picture.kernel->pixel_bytes();
    const auto row_bytes = static_cast<std::size_t>(size.width) * static_cast<std::size_t>(pixel_bytes);
    for (int y = 0; y < size.height; ++y) {
        const auto* const bytes = pixel_address(picture, at.x, at.y + y);
        if (y > 0 && pixel_bytes > 0 && std::memcmp(bytes, bytes - picture.stride, row_bytes) == 0) continue;
        read_row(picture, y, row);
        for (std::size_t x = 0; x < row.size(); ++x) {
            if (x > 0 && row[x] == row[x - 1]) continue;
            if (!visit(row[x])) return;
        }
    }
}

constexpr std::uint64_t number_of(const Color16& c) noexcept {
    return std::uint64_t{c.red} << 48U | std::uint64_t{c.green} << 32U | std::uint64_t{c.blue} << 16U | c.alpha;
}

// A set of numbers, each found by its bits, spread by multiplying with 2^64 / the golden ratio.
class NumberSet {
  public:
    NumberSet() : slots_(std::size_t{1} << bits_) {}

    void add(std::uint64_t number) {
        if (number == 0) {
            has_zero_ = true;
            return;
        }
        if (2 * (used_ + 1) > slots_.size()) grow();
        put(number);
    }
    [[nodiscard]] std::size_t size() const noexcept { return used_ + (has_zero_ ? 1U : 0U); }
    [[nodiscard]] std::vector<std::uint64_t> sorted() const {
        std::vector<std::uint64_t> numbers;
        numbers.reserve(size());
        if (has_zero_) numbers.push_back(0);
        std::copy_if(slots_.begin(), slots_.end(), std::back_inserter(numbers), [](auto slot) { return slot != 0; });
        std::sort(numbers.begin(), numbers.end());
        return numbers;
    }

  private:
    void put(std::uint64_t number) {
        auto place = static_cast<std::size_t>(number * 0x9e3779b97f4a7c15U >> (64U - bits_));
        while (slots_[place] != 0 && slots_[place] != number) place = (place + 1) & (slots_.size() - 1);
        if (slots_[place] == 0) ++used_;
        slots_[place] = number;
    }
    void grow() {
        ++bits_;
        const auto old = std::exchange(slots_, std::vector<std::uint64_t>(std::size_t{1} << bits_));
        used_ = 0;
        for (const auto number : old) {
            if (number != 0) put(number);
        }
    }

    unsigned bits_ = 10;
    std::size_t used_ = 0;
    bool has_zero_ = false;
    std::vector<std::uint64_t> slots_;
};

}  // namespace

std::vector<Color16> colors_of(const Surface& picture, std::size_t most) {
    NumberSet numbers;
    visit_changes(picture, [&](const Color16& color) {
        numbers.add(number_of(color));
        return numbers.size() <= most;
    });
    const auto sorted = numbers.sorted();
    std::vector<Color16> colors;
    colors.reserve(sorted.size());
    for (const auto number : sorted) {
        const auto channel = [=](unsigned shift) { return static_cast<std::uint16_t>(number >> shift); };
        colors.push_back({.red = channel(48), .green = channel(32), .blue = channel(16), .alpha = channel(0)});
    }
    return colors;
}

Needs needs_of(const Surface& picture) {
    Needs needs;
    visit_changes(picture, [&](const Color16& color) {
        needs.color = needs.color || color.red != color.green || color.green != color.blue;
        needs.alpha = needs.alpha || color.alpha != 65535;
        needs.deep = needs.deep || widened(narrowed(color)) != color;
        return !(needs.color && needs.alpha && needs.deep);
    });
    return needs;
}

}  // namespace coldbrick::inline v0::detail
