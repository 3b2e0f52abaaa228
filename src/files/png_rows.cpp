#include "files/png_rows.hpp"

#include "files/png_filters.hpp"
#include "geometry/vectors.hpp"

#include <algorithm>
#include <cstring>
#include <memory>
#include <string_view>
#include <vector>

#include <libdeflate.h>

namespace coldbrick::inline v0::detail {

namespace {

std::uint32_t big_number(const std::uint8_t* bytes) noexcept {
    return std::uint32_t{bytes[0]} << 24U | std::uint32_t{bytes[1]} << 16U | std::uint32_t{bytes[2]} << 8U | bytes[3];
}

struct Chunk {
    std::string_view kind;
    FileBytes bytes;
};

// The chunk at a place, which is moved behind it. Nothing where the file is too short.
std::optional<Chunk> chunk_at(FileBytes file, std::size_t& place) noexcept {
    constexpr std::size_t around = 12;
    if (file.size() - place < around) return std::nullopt;
    const auto* const begin = file.data() + place;
    const auto length = std::size_t{big_number(begin)};
    if (file.size() - place - around < length) return std::nullopt;
    place += around + length;
    return Chunk{.kind = {reinterpret_cast<const char*>(begin) + 4, 4}, .bytes = {begin + 8, length}};
}

bool is_sound(const Chunk& chunk) noexcept {
    const auto* const begin = chunk.bytes.data();
    const auto sum = libdeflate_crc32(0, begin - 4, chunk.bytes.size() + 4);
    return sum == big_number(begin + chunk.bytes.size());
}

// What is packed in the chunks of pixels, which follow each other and are followed by the end; and the bytes behind it.
struct PackedRows {
    FileBytes bytes;
    std::vector<std::uint8_t> joined;
    std::uint64_t rest = 0;
};

bool find_packed(FileBytes file, PackedRows& packed) {
    constexpr std::size_t signature = 8;
    auto place = signature;
    auto chunk = chunk_at(file, place);
    while (chunk && chunk->kind != "IDAT") chunk = chunk_at(file, place);
    for (auto count = 0; chunk && chunk->kind == "IDAT"; ++count, chunk = chunk_at(file, place)) {
        if (!is_sound(*chunk)) return false;
        if (count == 0) {
            packed.bytes = chunk->bytes;
            continue;
        }
        if (count == 1) {
            packed.joined.reserve(file.size());
            packed.joined.assign(packed.bytes.begin(), packed.bytes.end());
        }
        packed.joined.insert(packed.joined.end(), chunk->bytes.begin(), chunk->bytes.end());
        packed.bytes = packed.joined;
    }
    packed.rest = file.size() - place;
    return chunk && chunk->kind == "IEND" && chunk->bytes.empty() && is_sound(*chunk);
}

bool unpack(FileBytes packed, std::span<std::uint8_t> bytes) {
    const std::unique_ptr<libdeflate_decompressor, void (*)(libdeflate_decompressor*)> unpacker{
        libdeflate_alloc_decompressor(), libdeflate_free_decompressor};
    if (unpacker == nullptr) throw std::bad_alloc{};
    std::size_t read = 0;
    std::size_t written = 0;
    const auto result = libdeflate_zlib_decompress_ex(unpacker.get(), packed.data(), packed.size(), bytes.data(),
                                                      bytes.size(), &read, &written);
    return result == LIBDEFLATE_SUCCESS && read == packed.size() && written == bytes.size();
}

// Each undoes what png_filters.hpp says of a row, in place, by the row above.
struct FilteredRow {
    std::uint8_t* bytes;
    const std::uint8_t* above;
    std::size_t count;
};

template <std::size_t step>
void add_left(const FilteredRow& row) noexcept {
    for (auto i = step; i < row.count; ++i) {
        row.bytes[i] = static_cast<std::uint8_t>(row.bytes[i] + row.bytes[i - step]);
    }
}

void add_above(const FilteredRow& row) noexcept {
    run_in_vectors([=, bytes = row.bytes, above = row.above, count = row.count]() COLDBRICK_KERNEL {
        for (std::size_t i = 0; i < count; ++i) bytes[i] = static_cast<std::uint8_t>(bytes[i] + above[i]);
    });
}

template <std::size_t step>
void add_mean(const FilteredRow& row) noexcept {
    for (std::size_t i = 0; i < step; ++i) row.bytes[i] = static_cast<std::uint8_t>(row.bytes[i] + row.above[i] / 2);
    for (auto i = step; i < row.count; ++i) {
        row.bytes[i] = static_cast<std::uint8_t>(row.bytes[i] + (row.bytes[i - step] + row.above[i]) / 2);
    }
}

using Shorts8 = std::int16_t __attribute__((vector_size(16)));
using Bytes16 = std::uint8_t __attribute__((vector_size(16)));
using Lanes4 = std::uint32_t __attribute__((vector_size(16)));

// Four bytes are read, however many the pixel has.
COLDBRICK_INLINE Shorts8 pixel_at(const std::uint8_t* bytes) noexcept {
    std::uint32_t word = 0;
    std::memcpy(&word, bytes, sizeof word);
    const auto pixel = reinterpret_cast<Bytes16>(Lanes4{word, 0, 0, 0});
    return reinterpret_cast<Shorts8>(
        is_little_endian
            ? __builtin_shufflevector(pixel, Bytes16{}, 0, 16, 1, 17, 2, 18, 3, 19, 4, 20, 5, 21, 6, 22, 7, 23)
            : __builtin_shufflevector(pixel, Bytes16{}, 16, 0, 16, 1, 16, 2, 16, 3, 16, 16, 16, 16, 16, 16, 16, 16));
}

template <std::size_t step>
COLDBRICK_INLINE void put_pixel(Shorts8 pixel, std::uint8_t* bytes) noexcept {
    const auto channels = reinterpret_cast<Bytes16>(pixel);
    const auto packed = reinterpret_cast<Lanes4>(
        is_little_endian
            ? __builtin_shufflevector(channels, channels, 0, 2, 4, 6, 8, 10, 12, 14, 0, 2, 4, 6, 8, 10, 12, 14)
            : __builtin_shufflevector(channels, channels, 1, 3, 5, 7, 1, 3, 5, 7, 1, 3, 5, 7, 1, 3, 5, 7));
    const std::uint32_t word = packed[0];
    std::memcpy(bytes, &word, step);
}

COLDBRICK_INLINE Shorts8 size_of(Shorts8 number) noexcept { return number > -number ? number : -number; }

template <std::size_t step>
void add_paeth(const FilteredRow& row) noexcept {
    run_in_vectors([=, bytes = row.bytes, row_above = row.above, count = row.count]() COLDBRICK_KERNEL {
        Shorts8 left{};
        Shorts8 corner{};
        for (std::size_t i = 0; i < count; i += step) {
            const auto above = pixel_at(row_above + i);
            const auto from_corner = above - corner;
            const auto across = left - corner;
            const auto to_left = size_of(from_corner);
            const auto to_above = size_of(across);
            const auto to_corner = size_of(from_corner + across);
            const Shorts8 second = to_above <= to_corner ? above : corner;
            const Shorts8 least = to_above < to_corner ? to_above : to_corner;
            const Shorts8 guess = to_left <= least ? left : second;
            left = (pixel_at(bytes + i) + guess) & 255;
            corner = above;
            put_pixel<step>(left, bytes + i);
        }
    });
}

// Says whether there is such a filter.
template <std::size_t step>
bool unfilter(const FilteredRow& row, std::uint8_t filter) noexcept {
    switch (static_cast<PngFilter>(filter)) {
        case PngFilter::none:
            return true;
        case PngFilter::left:
            add_left<step>(row);
            return true;
        case PngFilter::above:
            add_above(row);
            return true;
        case PngFilter::mean:
            add_mean<step>(row);
            return true;
        case PngFilter::paeth:
            add_paeth<step>(row);
            return true;
        default:
            return false;
    }
}

}  // namespace

std::optional<PngRows> unpack_png_rows(FileBytes file, std::size_t row_bytes, int height, std::size_t pixel_bytes) {
    PackedRows packed;
    if (!find_packed(file, packed)) return std::nullopt;
    // Some more than are unpacked, as pixels are read with the bytes behind them.
    constexpr std::size_t behind = 3;
    const auto count = (row_bytes + 1) * static_cast<std::size_t>(height);
    PngRows rows{.bytes{count + behind, PixelBytes::Unset{}}, .row_bytes = row_bytes, .rest = packed.rest};
    if (!unpack(packed.bytes, {rows.bytes.data(), count})) return std::nullopt;
    std::fill_n(rows.bytes.data() + count, behind, std::uint8_t{0});
    const auto undo = pixel_bytes == 1 ? unfilter<1> : pixel_bytes == 3 ? unfilter<3> : unfilter<4>;
    const std::vector<std::uint8_t> zeros(row_bytes + behind);
    const auto* above = zeros.data();
    auto* bytes = rows.bytes.data();
    for (int y = 0; y < height; ++y, bytes += row_bytes + 1) {
        if (!undo({.bytes = bytes + 1, .above = above, .count = row_bytes}, *bytes)) return std::nullopt;
        above = bytes + 1;
    }
    return rows;
}

}  // namespace coldbrick::inline v0::detail
