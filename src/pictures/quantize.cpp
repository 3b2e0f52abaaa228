#include "coldbrick/quantize.hpp"

#include "formats/kernels.hpp"
#include "geometry/integers.hpp"
#include "geometry/limits.hpp"

#include "coldbrick/compare.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <unordered_map>
#include <vector>

namespace coldbrick::inline v0::detail {

namespace {

using Channels4 = std::array<double, 4>;

// Colours that are near to each other, as one: their mean and their number.
struct Cell {
    Channels4 mean;
    double count;
};

Channels4 channels_of(Color color) noexcept {
    return {double{1} * color.red, double{1} * color.green, double{1} * color.blue, double{1} * color.alpha};
}

Color color_of(const Channels4& channels) noexcept {
    const auto byte = [](double value) { return nearest_whole<std::uint8_t>(std::clamp(value, 0.0, 255.0)); };
    return {byte(channels[0]), byte(channels[1]), byte(channels[2]), byte(channels[3])};
}

double distance(const Channels4& a, const Channels4& b) noexcept {
    auto sum = 0.0;
    for (std::size_t i = 0; i < 4; ++i) sum += (a[i] - b[i]) * (a[i] - b[i]);
    return sum;
}

// Colours by the upper six bits of their channels.
std::vector<Cell> cells_of(const Surface& picture) {
    std::unordered_map<std::uint32_t, Cell> cells;
    std::vector<Color16> row;
    for (int y = 0; y < picture.window.size.height; ++y) {
        read_row(picture, y, row);
        for (const auto& deep : row) {
            const auto color = narrowed(deep);
            const auto key =
                (color.red >> 2U) << 18U | (color.green >> 2U) << 12U | (color.blue >> 2U) << 6U | color.alpha >> 2U;
            auto& cell = cells[static_cast<std::uint32_t>(key)];
            const auto channels = channels_of(color);
            cell.count += 1;
            for (std::size_t i = 0; i < 4; ++i) cell.mean[i] += channels[i];
        }
    }
    std::vector<std::pair<std::uint32_t, Cell>> sorted{cells.begin(), cells.end()};
    std::sort(sorted.begin(), sorted.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    std::vector<Cell> result;
    result.reserve(sorted.size());
    for (auto& [key, cell] : sorted) {
        for (auto& channel : cell.mean) channel /= cell.count;
        result.push_back(cell);
    }
    return result;
}

// Some cells, one after the other: their mean, and how much they differ from it.
struct Group {
    std::size_t begin;
    std::size_t end;
    Channels4 mean{};
    Channels4 error{};  // of each channel

    [[nodiscard]] double whole_error() const noexcept { return error[0] + error[1] + error[2] + error[3]; }
};

Group measured(const std::vector<Cell>& cells, std::size_t begin, std::size_t end) {
    Group group{.begin = begin, .end = end};
    auto count = 0.0;
    for (auto k = begin; k < end; ++k) {
        count += cells[k].count;
        for (std::size_t i = 0; i < 4; ++i) group.mean[i] += cells[k].mean[i] * cells[k].count;
    }
    for (auto& channel : group.mean) channel /= count;
    for (auto k = begin; k < end; ++k) {
        for (std::size_t i = 0; i < 4; ++i) {
            const auto away = cells[k].mean[i] - group.mean[i];
            group.error[i] += away * away * cells[k].count;
        }
    }
    return group;
}

// Cuts a group where its channel differs most, so that what is left of the error is least.
std::pair<Group, Group> cut(std::vector<Cell>& cells, const Group& group) {
    const auto channel =
        static_cast<std::size_t>(std::max_element(group.error.begin(), group.error.end()) - group.error.begin());
    const auto at = [&](std::size_t k) { return cells.begin() + static_cast<std::ptrdiff_t>(k); };
    std::sort(at(group.begin), at(group.end),
              [=](const Cell& a, const Cell& b) { return a.mean[channel] < b.mean[channel]; });
    auto count = 0.0;
    auto sum = 0.0;
    for (auto k = group.begin; k < group.end; ++k) {
        count += cells[k].count;
        sum += cells[k].mean[channel] * cells[k].count;
    }
    auto best = group.begin + 1;
    auto most = -1.0;
    auto count_before = 0.0;
    auto sum_before = 0.0;
    for (auto k = group.begin; k + 1 < group.end; ++k) {
        count_before += cells[k].count;
        sum_before += cells[k].mean[channel] * cells[k].count;
        const auto sum_behind = sum - sum_before;
        const auto gain = sum_before * sum_before / count_before + sum_behind * sum_behind / (count - count_before);
        if (gain <= most) continue;
        most = gain;
        best = k + 1;
    }
    return {measured(cells, group.begin, best), measured(cells, best, group.end)};
}

// Each mean becomes that of the cells that are nearest to it.
void settle(const std::vector<Cell>& cells, std::vector<Channels4>& means) {
    std::vector<Cell> sums(means.size(), Cell{});
    for (const auto& cell : cells) {
        std::size_t nearest = 0;
        auto least = std::numeric_limits<double>::max();
        for (std::size_t k = 0; k < means.size(); ++k) {
            const auto away = distance(cell.mean, means[k]);
            if (away >= least) continue;
            least = away;
            nearest = k;
        }
        auto& sum = sums[nearest];
        sum.count += cell.count;
        for (std::size_t i = 0; i < 4; ++i) sum.mean[i] += cell.mean[i] * cell.count;
    }
    for (std::size_t k = 0; k < means.size(); ++k) {
        if (sums[k].count == 0) continue;
        for (std::size_t i = 0; i < 4; ++i) means[k][i] = sums[k].mean[i] / sums[k].count;
    }
}

}  // namespace

Palette palette_for(const Surface& picture, int most) {
    if (most < 1 || most > 256) refuse("palette", "number of colours", most, 1, 256);
    if (picture.window.empty()) throw Error{"palette: the view's clip is empty; it must have at least one pixel"};
    std::vector<Color> colors;
    for (const auto& own : colors_of(picture, 4096)) {
        const auto narrow = narrowed(own);
        if (colors.empty() || !(colors.back() == narrow)) colors.push_back(narrow);
    }
    if (colors.size() <= static_cast<std::size_t>(most)) return Palette{std::move(colors)};
    auto cells = cells_of(picture);
    std::vector<Group> groups{measured(cells, 0, cells.size())};
    while (groups.size() < static_cast<std::size_t>(most)) {
        const auto worst = std::max_element(groups.begin(), groups.end(), [](const Group& a, const Group& b) {
            return a.whole_error() < b.whole_error();
        });
        if (worst->end - worst->begin < 2) break;
        const auto [first, second] = cut(cells, *worst);
        *worst = first;
        groups.push_back(second);
    }
    std::vector<Channels4> means;
    means.reserve(groups.size());
    for (const auto& group : groups) means.push_back(group.mean);
    constexpr auto rounds = 3;
    for (auto i = 0; i < rounds; ++i) settle(cells, means);
    colors.clear();
    for (const auto& mean : means) colors.push_back(color_of(mean));
    std::sort(colors.begin(), colors.end(), [](Color a, Color b) { return channels_of(a) < channels_of(b); });
    colors.erase(std::unique(colors.begin(), colors.end()), colors.end());
    return Palette{std::move(colors)};
}

namespace {

// How far the colours of a palette are from those next to them, on average.
double spread_of(const Palette& palette) {
    if (palette.size() < 2) return 0;
    auto sum = 0.0;
    for (const auto& color : palette.colors()) {
        auto least = std::numeric_limits<double>::max();
        for (const auto& other : palette.colors()) {
            if (!(other == color)) least = std::min(least, distance(channels_of(color), channels_of(other)));
        }
        sum += least == std::numeric_limits<double>::max() ? 0 : std::sqrt(least);
    }
    return sum / static_cast<double>(palette.size());
}

// The value of Bayer's pattern at a place, from 0 to 63.
int threshold_at(int x, int y) noexcept {
    auto value = 0;
    for (auto bit = 0; bit < 3; ++bit) {
        const auto across = static_cast<unsigned>(x) >> static_cast<unsigned>(bit) & 1U;
        const auto down = static_cast<unsigned>(y) >> static_cast<unsigned>(bit) & 1U;
        value = value * 4 + static_cast<int>(2 * (across ^ down) + down);
    }
    return value;
}

}  // namespace

void order(const Surface& from, const Surface& to) {
    const auto& palette = palette_of(to);
    const auto spread = spread_of(palette);
    std::vector<Color16> row;
    for (int y = 0; y < from.window.size.height; ++y) {
        read_row(from, y, row);
        auto* const numbers = pixel_address(to, 0, y);
        for (int x = 0; x < from.window.size.width; ++x) {
            const auto exact = narrowed(row[static_cast<std::size_t>(x)]);
            // A colour that the palette has stays what it is.
            auto number = palette.nearest(exact);
            if (!(palette[number] == exact)) {
                constexpr auto steps = 64.0;
                const auto at = threshold_at(from.window.at.x + x, from.window.at.y + y);
                const auto more = ((at + 0.5) / steps - 0.5) * spread;
                auto wanted = channels_of(exact);
                for (std::size_t i = 0; i < 3; ++i) wanted[i] = std::clamp(wanted[i] + more, 0.0, 255.0);
                number = palette.nearest(color_of(wanted));
            }
            numbers[x] = static_cast<std::uint8_t>(number);
        }
    }
}

void diffuse(const Surface& from, const Surface& to) {
    const auto& palette = palette_of(to);
    const auto width = static_cast<std::size_t>(from.window.size.width);
    // What the pixels of this row and the next one lack, with one more on either side.
    std::vector<Channels4> here(width + 2, Channels4{});
    std::vector<Channels4> below(width + 2, Channels4{});
    std::vector<Color16> row;
    for (int y = 0; y < from.window.size.height; ++y) {
        read_row(from, y, row);
        auto* const numbers = pixel_address(to, 0, y);
        for (std::size_t x = 0; x < width; ++x) {
            auto wanted = channels_of(narrowed(row[x]));
            for (std::size_t i = 0; i < 4; ++i) wanted[i] = std::clamp(wanted[i] + here[x + 1][i], 0.0, 255.0);
            const auto number = palette.nearest(color_of(wanted));
            numbers[x] = static_cast<std::uint8_t>(number);
            const auto found = channels_of(palette[number]);
            for (std::size_t i = 0; i < 4; ++i) {
                const auto lacks = (wanted[i] - found[i]) / 16;
                here[x + 2][i] += 7 * lacks;
                below[x][i] += 3 * lacks;
                below[x + 1][i] += 5 * lacks;
                below[x + 2][i] += lacks;
            }
        }
        here.swap(below);
        std::fill(below.begin(), below.end(), Channels4{});
    }
}

}  // namespace coldbrick::inline v0::detail
