#include "files/png_filters.hpp"

#include "geometry/vectors.hpp"

#include <algorithm>
#include <cmath>
#include <cstdlib>

namespace coldbrick::inline v0::detail {

namespace {

struct Row {
    const std::uint8_t* bytes;
    const std::uint8_t* above;  // of zeros for the first
    std::size_t count;
    std::size_t step;  // bytes to the pixel on the left, at least 1
};

COLDBRICK_INLINE std::uint8_t guess(PngFilter filter, int left, int above, int corner) noexcept {
    switch (filter) {
        case PngFilter::left:
            return static_cast<std::uint8_t>(left);
        case PngFilter::above:
            return static_cast<std::uint8_t>(above);
        case PngFilter::mean:
            return static_cast<std::uint8_t>((left + above) / 2);
        default: {
            // Whichever is nearest to left + above - corner.
            const auto number = [](int value) COLDBRICK_KERNEL { return static_cast<std::int16_t>(value); };
            const auto to_left = number(std::abs(above - corner));
            const auto to_above = number(std::abs(left - corner));
            const auto to_corner = number(std::abs(left + above - 2 * corner));
            const auto second = to_above <= to_corner ? above : corner;
            return static_cast<std::uint8_t>(to_left <= std::min(to_above, to_corner) ? left : second);
        }
    }
}

template <PngFilter filter>
void differences(const Row& row, std::uint8_t* to) noexcept {
    const auto first = std::min(row.step, row.count);
    for (std::size_t i = 0; i < first; ++i) {
        to[i] = static_cast<std::uint8_t>(row.bytes[i] - guess(filter, 0, row.above[i], 0));
    }
    run_in_vectors([=]() COLDBRICK_KERNEL {
        const auto* const bytes = row.bytes + first;
        const auto* const left = row.bytes;
        const auto* const above = row.above + first;
        const auto* const corner = row.above;
        for (std::size_t i = 0; i < row.count - first; ++i) {
            to[first + i] = static_cast<std::uint8_t>(bytes[i] - guess(filter, left[i], above[i], corner[i]));
        }
    });
}

void filter_row(const Row& row, PngFilter filter, std::uint8_t* to) noexcept {
    switch (filter) {
        case PngFilter::left:
            return differences<PngFilter::left>(row, to);
        case PngFilter::above:
            return differences<PngFilter::above>(row, to);
        case PngFilter::mean:
            return differences<PngFilter::mean>(row, to);
        case PngFilter::paeth:
            return differences<PngFilter::paeth>(row, to);
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
