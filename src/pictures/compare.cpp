#include "coldbrick/compare.hpp"

#include "formats/kernels.hpp"
#include "geometry/limits.hpp"

#include "coldbrick/convert.hpp"
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

// Columns of a row, from first to end - 1.
struct Columns {
    int first;
    int end;
};

// Where two rows of items differ at all.
template <class Item>
Columns differing(const Item* a, const Item* b, int count, int items_of_pixel) noexcept {
    const auto items = std::ptrdiff_t{count} * items_of_pixel;
    if (std::memcmp(a, b, static_cast<std::size_t>(items) * sizeof(Item)) == 0) return {0, 0};
    auto first = std::ptrdiff_t{0};
    while (std::memcmp(a + first, b + first, sizeof(Item)) == 0) ++first;
    auto last = items - 1;
    while (std::memcmp(a + last, b + last, sizeof(Item)) == 0) --last;
    return {static_cast<int>(first / items_of_pixel), static_cast<int>(last / items_of_pixel) + 1};
}

// Rows of two pictures, of which those columns are looked at that may differ.
class RowPair {
  public:
    RowPair(const Surface& a, const Surface& b)
        : a_{a},
          b_{b},
          has_same_bytes_{a.kernel == b.kernel && !a.kernel->is_sparse && a.kernel->pixel_bytes() > 0 &&
                          (!a.kernel->is_indexed || palette_of(a) == palette_of(b))},
          is_shallow_{a.kernel->load != nullptr && b.kernel->load != nullptr} {}

    // Reads row y from the upper ones. Only of the columns that it returns the colours are set.
    Columns read(int y) {
        const auto columns = find(y);
        const auto count = static_cast<std::size_t>(a_.window.size.width);
        first.resize(count);
        second.resize(count);
        if (columns.first < columns.end) {
            const auto length = columns.end - columns.first;
            read_colors(a_, a_.window.at + Point{columns.first, y}, length, first.data() + columns.first);
            read_colors(b_, b_.window.at + Point{columns.first, y}, length, second.data() + columns.first);
        }
        return columns;
    }

    std::vector<Color16> first;
    std::vector<Color16> second;

  private:
    Columns find(int y) {
        const auto width = a_.window.size.width;
        const auto [at_a, at_b] = std::pair{a_.window.at + Point{0, y}, b_.window.at + Point{0, y}};
        if (has_same_bytes_) {
            return differing(pixel_address(a_, at_a.x, at_a.y), pixel_address(b_, at_b.x, at_b.y), width,
                             a_.kernel->pixel_bytes());
        }
        if (!is_shallow_) return {0, width};
        colors_a_.resize(static_cast<std::size_t>(width));
        colors_b_.resize(static_cast<std::size_t>(width));
        read_colors(a_, at_a, width, colors_a_.data());
        read_colors(b_, at_b, width, colors_b_.data());
        return differing(colors_a_.data(), colors_b_.data(), width, 1);
    }

    const Surface& a_;
    const Surface& b_;
    bool has_same_bytes_;
    bool is_shallow_;
    std::vector<Color> colors_a_;
    std::vector<Color> colors_b_;
};

void check_sizes(const Surface& a, const Surface& b) {
    if (a.window.size == b.window.size) return;
    throw Error{"the pictures have not the same size: " + in_words(a.window.size) + " and " + in_words(b.window.size)};
}

// Calls visit(at, color of a, steps) for pixels, counted from the upper left ones: for each one that differs, and for
// some of the others.
template <class Visit>
void visit_differing(const Surface& a, const Surface& b, const Visit& visit) {
    check_sizes(a, b);
    RowPair rows{a, b};
    for (int y = 0; y < a.window.size.height; ++y) {
        const auto columns = rows.read(y);
        for (auto x = columns.first; x < columns.end; ++x) {
            const auto& first = rows.first[static_cast<std::size_t>(x)];
            const auto& second = rows.second[static_cast<std::size_t>(x)];
            visit(Point{.x = x, .y = y}, first,
                  Steps{.red = std::abs(first.red - second.red),
                        .green = std::abs(first.green - second.green),
                        .blue = std::abs(first.blue - second.blue),
                        .alpha = std::abs(first.alpha - second.alpha)});
        }
    }
}

constexpr auto deep_step = 257.0;

}  // namespace

Differences compare(const Surface& a, const Surface& b, double tolerance) {
    Differences found;
    auto most = Steps{};
    visit_differing(a, b, [&](Point at, const Color16&, const Steps& steps) {
        most = {.red = std::max(most.red, steps.red),
                .green = std::max(most.green, steps.green),
                .blue = std::max(most.blue, steps.blue),
                .alpha = std::max(most.alpha, steps.alpha)};
        if (steps.most() / deep_step <= tolerance) return;
        ++found.pixels;
        found.box = enclosing(found.box, Box{.at = at, .size = {.width = 1, .height = 1}});
    });
    found.red = most.red / deep_step;
    found.green = most.green / deep_step;
    found.blue = most.blue / deep_step;
    found.alpha = most.alpha / deep_step;
    return found;
}

Bitmap<Rgb8> differences_shown(const Surface& a, const Surface& b, double tolerance) {
    check_sizes(a, b);
    // Pale where nothing differs.
    Bitmap<Gray8> grays{a.window.size};
    convert(a, SurfaceAccess::of(grays));
    Bitmap<Rgb8> shown{a.window.size};
    std::vector<Color> row(static_cast<std::size_t>(a.window.size.width));
    for (int y = 0; y < a.window.size.height; ++y) {
        read_colors(SurfaceAccess::of(grays), {.x = 0, .y = y}, a.window.size.width, row.data());
        for (auto& color : row) color = gray(static_cast<std::uint8_t>(160 + color.red * 3 / 8));
        write_colors(SurfaceAccess::of(shown), row.data(), a.window.size.width, {.x = 0, .y = y});
    }
    visit_differing(a, b, [&](Point at, const Color16&, const Steps& steps) {
        if (steps.most() / deep_step <= tolerance) return;
        // Light red for a step, dark red for all.
        const auto share = steps.most() / 65535.0;
        const auto red = Color{.red = static_cast<std::uint8_t>(240 - 100 * share),
                               .green = static_cast<std::uint8_t>(110 - 110 * share),
                               .blue = static_cast<std::uint8_t>(100 - 100 * share)};
        write_colors(SurfaceAccess::of(shown), &red, 1, at);
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

}  // namespace

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

namespace {

void add_needs(const Color16& color, Needs& needs) noexcept {
    needs.color = needs.color || color.red != color.green || color.green != color.blue;
    needs.alpha = needs.alpha || color.alpha != 65535;
    needs.deep = needs.deep || widened(narrowed(color)) != color;
}

}  // namespace

Needs needs_of(const Surface& picture) {
    Needs needs;
    visit_changes(picture, [&](const Color16& color) {
        add_needs(color, needs);
        return !(needs.color && needs.alpha && needs.deep);
    });
    return needs;
}

struct PixelSurvey::Numbers : NumberSet {};

PixelSurvey::PixelSurvey(std::size_t most) : most_{most}, numbers_{std::make_unique<Numbers>()} {}
PixelSurvey::~PixelSurvey() = default;

void PixelSurvey::take(const Surface& part) {
    visit_changes(part, [&](const Color16& color) {
        add_needs(color, needs_);
        if (numbers_->size() <= most_) numbers_->add(number_of(color));
        return true;
    });
}

std::size_t PixelSurvey::colors() const noexcept { return numbers_->size(); }

}  // namespace coldbrick::inline v0::detail
