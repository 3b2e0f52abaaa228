#include "coldbrick/resize.hpp"

#include "formats/kernels.hpp"
#include "geometry/integers.hpp"
#include "geometry/limits.hpp"
#include "geometry/trigonometry.hpp"
#include "pictures/packed_copy.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

// What a column (or row) of the result is made of: weights of columns from the first on, and their sum.
struct Mix {
    int first;
    std::vector<double> weights;
    double sum;
};

// In units of 1 / (from * to) of the whole, a pixel of one picture is as wide as the other has pixels: whole numbers.
Mix box_mix(int i, int from, int to) {
    const auto begin = std::int64_t{i} * from;
    const auto end = begin + from;
    Mix mix{.first = static_cast<int>(begin / to), .weights = {}, .sum = double{1} * from};
    for (auto k = std::int64_t{mix.first}; k * to < end; ++k) {
        mix.weights.push_back(static_cast<double>(std::min(end, (k + 1) * to) - std::max(begin, k * to)));
    }
    return mix;
}

// By a kernel of the distance in pixels that reaches so far; widened where the picture is reduced. What it gives to
// places outside goes to the outermost pixels.
template <class Kernel>
Mix kernel_mix(int i, int from, int to, double reach, const Kernel& kernel) {
    const auto wide = std::max(1.0, double{1} * from / to);
    const auto center = (i + 0.5) * from / to - 0.5;
    const auto last = static_cast<int>(std::floor(center + reach * wide));
    const auto first = static_cast<int>(std::ceil(center - reach * wide));
    Mix mix{.first = std::clamp(first, 0, from - 1), .weights = {}, .sum = 0};
    mix.weights.resize(static_cast<std::size_t>(std::clamp(last, 0, from - 1) - mix.first) + 1);
    for (int k = first; k <= last; ++k) {
        const auto weight = kernel((k - center) / wide);
        mix.weights[static_cast<std::size_t>(std::clamp(k, 0, from - 1) - mix.first)] += weight;
        mix.sum += weight;
    }
    return mix;
}

double triangle(double distance) noexcept { return std::max(0.0, 1 - std::fabs(distance)); }

double lanczos(double distance) noexcept {
    constexpr auto lobes = 3.0;
    if (std::fabs(distance) >= lobes) return 0;
    if (distance == 0) return 1;
    const auto x = std::numbers::pi * distance;
    const auto half_turns = [](double count) { return direction_of(Angle::degrees(180 * count)).y; };
    return lobes * half_turns(distance) * half_turns(distance / lobes) / (x * x);
}

std::vector<Mix> mixes(int from, int to, Scaling how) {
    std::vector<Mix> all;
    all.reserve(static_cast<std::size_t>(to));
    for (int i = 0; i < to; ++i) {
        if (how == Scaling::box) all.push_back(box_mix(i, from, to));
        if (how == Scaling::bilinear) all.push_back(kernel_mix(i, from, to, 1, triangle));
        if (how == Scaling::lanczos) all.push_back(kernel_mix(i, from, to, 3, lanczos));
    }
    return all;
}

// Red, green and blue times alpha, and alpha.
using Weighted = std::array<double, 4>;

// Rows of the picture, each mixed to as many columns as the result has. The last few are kept.
class MixedRows {
  public:
    MixedRows(const Surface& from, const std::vector<Mix>& columns, std::size_t kept)
        : from_{from},
          columns_{columns},
          rows_(kept),
          numbers_(kept, -1),
          source_(static_cast<std::size_t>(from.window.size.width)),
          colors_(source_.size()) {}

    const std::vector<Weighted>& row(int y) {
        const auto place = static_cast<std::size_t>(y) % rows_.size();
        if (numbers_[place] != y) {
            mix(y, rows_[place]);
            numbers_[place] = y;
        }
        return rows_[place];
    }

  private:
    void mix(int y, std::vector<Weighted>& row) {
        read(y);
        row.assign(columns_.size(), {});
        for (std::size_t x = 0; x < columns_.size(); ++x) {
            const auto& [first, weights, sum] = columns_[x];
            auto& mixed = row[x];
            const auto* source = source_.data() + first;
            for (const auto weight : weights) {
                for (std::size_t i = 0; i < 4; ++i) mixed[i] += weight * (*source)[i];
                ++source;
            }
        }
    }

    void read(int y) {
        const auto& at = from_.window.at;
        read_colors(from_, {.x = at.x, .y = at.y + y}, static_cast<int>(colors_.size()), colors_.data());
        for (std::size_t x = 0; x < colors_.size(); ++x) {
            const auto& color = colors_[x];
            const auto alpha = double{1} * color.alpha;
            source_[x] = {color.red * alpha, color.green * alpha, color.blue * alpha, alpha};
        }
    }

    const Surface& from_;
    const std::vector<Mix>& columns_;
    std::vector<std::vector<Weighted>> rows_;
    std::vector<int> numbers_;
    std::vector<Weighted> source_;
    std::vector<Color16> colors_;
};

// The nearest value of 16 bits, or of 8 where the format has no more.
Color16 color_of(const Weighted& mixed, double sum, bool is_deep) noexcept {
    const auto unit = is_deep ? 1.0 : 257.0;
    const auto most = 65535 / unit;
    const auto rounded = [&](double value) {
        return static_cast<std::uint16_t>(unit * nearest_whole<unsigned>(std::clamp(value / unit, 0.0, most)));
    };
    if (mixed[3] <= 0) return {.alpha = 0};
    return {.red = rounded(mixed[0] / mixed[3]),
            .green = rounded(mixed[1] / mixed[3]),
            .blue = rounded(mixed[2] / mixed[3]),
            .alpha = rounded(mixed[3] / sum)};
}

void resize_nearest(const Surface& from, const Surface& to) {
    const auto place = [](int i, int of, int in) {
        return static_cast<int>((2 * std::int64_t{i} + 1) * of / (2 * std::int64_t{in}));
    };
    const auto [at, size] = from.window;
    const PixelCopier copier{from, to};
    for (int y = 0; y < to.size.height; ++y) {
        const auto row = at.y + place(y, size.height, to.size.height);
        for (int x = 0; x < to.size.width; ++x) {
            copier.copy({.x = at.x + place(x, size.width, to.size.width), .y = row}, {.x = x, .y = y});
        }
    }
}

}  // namespace

Size proportional(Size of, Size wanted) {
    if (wanted.width < 0 || wanted.height < 0 || (wanted.width == 0 && wanted.height == 0)) {
        throw Error{"resize: size is " + std::to_string(wanted.width) + "," + std::to_string(wanted.height) +
                    "; allowed is 1 or more, and 0 for one side that is to be in proportion"};
    }
    const auto side = [](int known, int of_known, int of_other) {
        const auto exact = (std::int64_t{2} * known * of_other + of_known) / (std::int64_t{2} * of_known);
        return static_cast<int>(std::clamp<std::int64_t>(exact, 1, max_coordinate));
    };
    if (wanted.width == 0) wanted.width = side(wanted.height, of.height, of.width);
    if (wanted.height == 0) wanted.height = side(wanted.width, of.width, of.height);
    return wanted;
}

void check_scaling(std::string_view what, Scaling how) {
    check_choice(what, "scaling", how, {"nearest", "box", "bilinear", "lanczos"});
}

void resize(const Surface& from, const Surface& to, Scaling how) {
    check_scaling("resize", how);
    if (how == Scaling::nearest) return resize_nearest(from, to);
    if (to.kernel == &index8_kernel) {
        throw Error{
            "resize: a picture with a palette can only be resized by nearest (give it colours instead of numbers "
            "first)"};
    }
    const auto columns = mixes(from.window.size.width, to.size.width, how);
    const auto rows = mixes(from.window.size.height, to.size.height, how);
    std::size_t most = 1;
    for (const auto& of : rows) most = std::max(most, of.weights.size());
    MixedRows mixed{from, columns, most};
    std::vector<Weighted> sums(columns.size());
    std::vector<Color16> result(columns.size());
    const auto is_deep = to.kernel->load_deep != nullptr;
    for (int y = 0; y < to.size.height; ++y) {
        const auto& mix = rows[static_cast<std::size_t>(y)];
        std::fill(sums.begin(), sums.end(), Weighted{});
        for (std::size_t k = 0; k < mix.weights.size(); ++k) {
            const auto& row = mixed.row(mix.first + static_cast<int>(k));
            for (std::size_t x = 0; x < sums.size(); ++x) {
                for (std::size_t i = 0; i < 4; ++i) sums[x][i] += mix.weights[k] * row[x][i];
            }
        }
        for (std::size_t x = 0; x < sums.size(); ++x) {
            result[x] = color_of(sums[x], columns[x].sum * mix.sum, is_deep);
        }
        write_colors(to, result.data(), to.size.width, {.x = 0, .y = y});
    }
}

}  // namespace coldbrick::inline v0::detail
