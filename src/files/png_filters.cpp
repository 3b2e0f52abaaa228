#include "files/png_filters.hpp"

#include <algorithm>
#include <cmath>
#include <cstdlib>

namespace coldbrick::inline v0::detail {

namespace {

std::uint8_t paeth(int left, int above, int corner) noexcept {
    const auto guess = left + above - corner;
    const auto to_left = std::abs(guess - left);
    const auto to_above = std::abs(guess - above);
    const auto to_corner = std::abs(guess - corner);
    if (to_left <= to_above && to_left <= to_corner) return static_cast<std::uint8_t>(left);
    return static_cast<std::uint8_t>(to_above <= to_corner ? above : corner);
}

struct Row {
    const std::uint8_t* bytes;
    const std::uint8_t* above;  // of zeros for the first
    std::size_t count;
    std::size_t step;  // bytes to the pixel on the left, at least 1
};

// Calls guess(i, left, corner) for each byte and tells the differences.
template <class Guess>
void differences(const Row& row, std::uint8_t* to, const Guess& guess) noexcept {
    const auto first = std::min(row.step, row.count);
    for (std::size_t i = 0; i < first; ++i) to[i] = static_cast<std::uint8_t>(row.bytes[i] - guess(i, 0, 0));
    for (std::size_t i = first; i < row.count; ++i) {
        to[i] = static_cast<std::uint8_t>(row.bytes[i] - guess(i, row.bytes[i - row.step], row.above[i - row.step]));
    }
}

void filter_row(const Row& row, PngFilter filter, std::uint8_t* to) noexcept {
    switch (filter) {
        case PngFilter::left:
            return differences(row, to, [](std::size_t, int left, int) { return left; });
        case PngFilter::above:
            return differences(row, to, [&](std::size_t i, int, int) { return int{row.above[i]}; });
        case PngFilter::mean:
            return differences(row, to, [&](std::size_t i, int left, int) { return (left + row.above[i]) / 2; });
        case PngFilter::paeth:
            return differences(
                row, to, [&](std::size_t i, int left, int corner) { return int{paeth(left, row.above[i], corner)}; });
        default:
            std::copy_n(row.bytes, row.count, to);
    }
}

// Differences are small numbers, above or below 0.
std::uint64_t sum_of(const std::uint8_t* bytes, std::size_t count) noexcept {
    std::uint64_t sum = 0;
    for (std::size_t i = 0; i < count; ++i) sum += bytes[i] < 128 ? bytes[i] : 256U - bytes[i];
    return sum;
}

// The one that gives the least sum.
PngFilter filter_best(const Row& row, std::uint8_t* to, Bytes& tried) {
    auto chosen = PngFilter::none;
    filter_row(row, chosen, to);
    auto least = sum_of(to, row.count);
    tried.resize(row.count);
    for (const auto other : {PngFilter::left, PngFilter::above, PngFilter::mean, PngFilter::paeth}) {
        filter_row(row, other, tried.data());
        const auto sum = sum_of(tried.data(), row.count);
        if (sum >= least) continue;
        least = sum;
        chosen = other;
        std::copy(tried.begin(), tried.end(), to);
    }
    return chosen;
}

}  // namespace

void filter_rows(const Packed& picture, int first, int end, PngFilter filter, std::uint8_t* to) {
    const auto count = picture.row_bytes();
    const Bytes zeros(count);
    Bytes tried;
    for (int y = first; y < end; ++y, to += count + 1) {
        const auto row = Row{.bytes = picture.row(y),
                             .above = y > 0 ? picture.row(y - 1) : zeros.data(),
                             .count = count,
                             .step = static_cast<std::size_t>(std::max(1, picture.channels * picture.bits / 8))};
        if (filter == PngFilter::least_sum) {
            to[0] = static_cast<std::uint8_t>(filter_best(row, to + 1, tried));
        } else {
            filter_row(row, filter, to + 1);
            to[0] = static_cast<std::uint8_t>(filter);
        }
    }
}

}  // namespace coldbrick::inline v0::detail
