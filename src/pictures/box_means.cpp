#include "pictures/box_means.hpp"

#include "formats/kernels.hpp"
#include "formats/source_over.hpp"
#include "geometry/vectors.hpp"

#include <cstring>

namespace coldbrick::inline v0::detail {

namespace {

constexpr auto alpha_bits = is_little_endian ? 0xff000000U : 0xffU;

using Words4 = std::uint32_t __attribute__((vector_size(16)));
using Longs2 = std::uint64_t __attribute__((vector_size(16)));

// Every other byte of two rows added up, and of these numbers each two neighbours': those of a pixel of the result in
// the lower half of each long.
COLDBRICK_INLINE Longs2 pair_sums(EightNumbers upper, EightNumbers lower) noexcept {
    const auto sums = reinterpret_cast<Longs2>(upper + lower);
    return sums + (sums >> 32);
}

// A quarter of such sums, halves up.
COLDBRICK_INLINE EightNumbers quarter(Longs2 sums) noexcept { return (reinterpret_cast<EightNumbers>(sums) + 2) >> 2; }

// Two pixels of the result of four by two ones, in the lower half of each long.
COLDBRICK_INLINE Words4 mean_of_halves(const std::uint8_t* upper, const std::uint8_t* lower, Words4& common) noexcept {
    Words4 above;
    Words4 below;
    read(upper, above);
    read(lower, below);
    common &= above & below;
    const auto a = reinterpret_cast<EightNumbers>(above);
    const auto b = reinterpret_cast<EightNumbers>(below);
    const auto even = quarter(pair_sums(a & 255, b & 255));
    const auto odd = quarter(pair_sums(a >> 8, b >> 8));
    return reinterpret_cast<Words4>(even | (odd << 8));
}

// The mean of 2 by 2 pixels for each of so many; says whether all are opaque.
bool find_means_of_halves(const std::uint8_t* upper, const std::uint8_t* lower, std::size_t count,
                          Color* result) noexcept {
    auto all = std::uint32_t{0};
    run_in_vectors([=, opaque = &all]() COLDBRICK_KERNEL {
        Words4 common = Words4{} + 0xffffffffU;
        std::size_t i = 0;
        for (; i + 4 <= count; i += 4) {
            const auto first = mean_of_halves(upper + 8 * i, lower + 8 * i, common);
            const auto second = mean_of_halves(upper + 8 * i + 16, lower + 8 * i + 16, common);
            const auto means = is_little_endian ? __builtin_shufflevector(first, second, 0, 2, 4, 6)
                                                : __builtin_shufflevector(first, second, 1, 3, 5, 7);
            write(means, static_cast<void*>(result + i));
        }
        auto rest = std::uint32_t{0xffffffff};
        for (; i < count; ++i) {
            std::uint8_t means[4];
            for (std::size_t c = 0; c < 4; ++c) {
                const auto at = 8 * i + c;
                means[c] = static_cast<std::uint8_t>((upper[at] + upper[at + 4] + lower[at] + lower[at + 4] + 2) / 4);
            }
            for (const auto* const row : {upper, lower}) {
                std::uint32_t words[2];
                std::memcpy(words, row + 8 * i, sizeof words);
                rest &= words[0] & words[1];
            }
            std::memcpy(static_cast<void*>(result + i), means, sizeof means);
        }
        *opaque = common[0] & common[1] & common[2] & common[3] & rest;
    });
    return (all & alpha_bits) == alpha_bits;
}

// Adds so many bytes, those of pixels, each to its sum; says whether all pixels are opaque.
bool add_row(const std::uint8_t* bytes, std::size_t count, bool is_first, std::uint16_t* sums) noexcept {
    auto all = std::uint32_t{0};
    run_in_vectors([=, opaque = &all]() COLDBRICK_KERNEL {
        if (is_first) {
            for (std::size_t i = 0; i < count; ++i) sums[i] = bytes[i];
        } else {
            for (std::size_t i = 0; i < count; ++i) sums[i] = static_cast<std::uint16_t>(sums[i] + bytes[i]);
        }
        auto common = std::uint32_t{0xffffffff};
        for (std::size_t i = 0; i < count; i += 4) {
            std::uint32_t word = 0;
            std::memcpy(&word, bytes + i, sizeof word);
            common &= word;
        }
        *opaque = common;
    });
    return (all & alpha_bits) == alpha_bits;
}

}  // namespace

BoxMeans::BoxMeans(int columns, int rows, int width)
    : columns_{static_cast<std::size_t>(columns)}, rows_{rows}, width_{static_cast<std::size_t>(width)} {}

// Its bytes as those of colours, where they lie, or read to where they are kept.
const std::uint8_t* BoxMeans::row_of(const Surface& from, int y, std::vector<Color>& kept) const {
    const auto& at = from.window.at;
    if (from.kernel->is_color) return pixel_address(from, at.x, at.y + y);
    kept.resize(columns_ * width_);
    read_colors(from, {.x = at.x, .y = at.y + y}, static_cast<int>(kept.size()), kept.data());
    return reinterpret_cast<const std::uint8_t*>(kept.data());
}

bool BoxMeans::find_halves(const Surface& from, int y, Color* result) {
    const auto* const upper = row_of(from, 2 * y, kept_[0]);
    const auto* const lower = row_of(from, 2 * y + 1, kept_[1]);
    return find_means_of_halves(upper, lower, width_, result);
}

bool BoxMeans::find(const Surface& from, int y, Color* result) {
    if (columns_ == 2 && rows_ == 2) return find_halves(from, y, result);
    sums_.resize(4 * columns_ * width_);
    for (int row = 0; row < rows_; ++row) {
        const auto* const bytes = row_of(from, rows_ * y + row, kept_[0]);
        if (!add_row(bytes, sums_.size(), row == 0, sums_.data())) return false;
    }
    run_in_vectors([sums = sums_.data(), columns = columns_, width = width_,
                    of = static_cast<float>(rows_) * static_cast<float>(columns_), result]() COLDBRICK_KERNEL {
        using Numbers4 = std::uint16_t __attribute__((vector_size(8)));
        using Bytes4 = std::uint8_t __attribute__((vector_size(4)));
        using Floats4 = float __attribute__((vector_size(16)));
        using Whole4 = std::int32_t __attribute__((vector_size(16)));
        const auto* from_sums = sums;
        for (std::size_t x = 0; x < width; ++x) {
            Numbers4 sum{};
            for (std::size_t k = 0; k < columns; ++k, from_sums += 4) {
                Numbers4 more;
                read(from_sums, more);
                sum += more;
            }
            // Whole numbers below 2^16: their quotients are rounded to the right whole number.
            const auto mean = __builtin_convertvector(sum, Floats4) / of + 0.5F;
            const auto channels = __builtin_convertvector(__builtin_convertvector(mean, Whole4), Bytes4);
            write(channels, static_cast<void*>(result + x));
        }
    });
    return true;
}

std::optional<BoxMeans> box_means(Size from, Size to) {
    if (from.width % to.width != 0 || from.height % to.height != 0) return std::nullopt;
    const auto columns = from.width / to.width;
    const auto rows = from.height / to.height;
    constexpr auto most = std::int64_t{256};
    if (std::int64_t{columns} * rows > most) return std::nullopt;
    return BoxMeans{columns, rows, to.width};
}

}  // namespace coldbrick::inline v0::detail
