#include "files/png_pieces.hpp"

#include "files/deflate_blocks.hpp"
#include "files/png_filters.hpp"
#include "files/writers.hpp"

#include "coldbrick/detail/jobs.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <memory>
#include <utility>

#include <libdeflate.h>

namespace coldbrick::inline v0::detail {

namespace {

constexpr auto usual_level = 6;
constexpr auto highest_level = 12;

class Compressor {
  public:
    explicit Compressor(int level) : compressor_{libdeflate_alloc_compressor(level)} {
        if (!compressor_) throw std::bad_alloc{};
    }

    // As a complete stream of deflate.
    [[nodiscard]] Bytes operator()(const Bytes& bytes) {
        Bytes compressed(libdeflate_deflate_compress_bound(compressor_.get(), bytes.size()));
        compressed.resize(libdeflate_deflate_compress(compressor_.get(), bytes.data(), bytes.size(), compressed.data(),
                                                      compressed.size()));
        return compressed;
    }

  private:
    struct Free {
        void operator()(libdeflate_compressor* compressor) const noexcept { libdeflate_free_compressor(compressor); }
    };
    std::unique_ptr<libdeflate_compressor, Free> compressor_;
};

struct Rows {
    int first;
    int end;
};

void add_filtered(const Packed& picture, const Rows& rows, PngFilter filter, Bytes& to) {
    const auto before = to.size();
    to.resize(before + (picture.row_bytes() + 1) * static_cast<std::size_t>(rows.end - rows.first));
    filter_rows(picture, rows.first, rows.end, filter, to.data() + before);
}

Bytes filtered(const Packed& picture, const Rows& rows, PngFilter filter) {
    Bytes bytes;
    add_filtered(picture, rows, filter, bytes);
    return bytes;
}

// Differences between numbers in a palette, or between a few bits, mean nothing.
bool has_steps(const Packed& picture) noexcept { return picture.bits >= 8 && !picture.palette; }

// The filter with which some rows here and there become smallest.
PngFilter promising_filter(const Packed& picture, const Rows& rows) {
    const auto count = rows.end - rows.first;
    const auto bands = std::clamp(count / 12, 1, 4);
    const auto band_rows = std::max(1, count / 48);
    const auto first_of = [&](int band) { return rows.first + static_cast<int>(std::int64_t{count} * band / bands); };
    Compressor quick{1};
    auto best = PngFilter::none;
    auto least = ~std::size_t{0};
    for (const auto filter : {PngFilter::none, PngFilter::left, PngFilter::above, PngFilter::paeth}) {
        Bytes some;
        for (int band = 0; band < bands; ++band) {
            const auto first = first_of(band);
            add_filtered(picture, {first, std::min(first + band_rows, first_of(band + 1))}, filter, some);
        }
        const auto size = quick(some).size();
        if (size >= least) continue;
        least = size;
        best = filter;
    }
    return best;
}

// The bytes of the rows, filtered, and what becomes of them.
struct Compressed {
    Bytes rows;
    Bytes deflated;
};

Compressed compressed_usually(const Packed& picture, const Rows& rows) {
    const auto filter = has_steps(picture) ? promising_filter(picture, rows) : PngFilter::none;
    auto bytes = filtered(picture, rows, filter);
    auto deflated = Compressor{usual_level}(bytes);
    return {std::move(bytes), std::move(deflated)};
}

Compressed compressed_most(const Packed& picture, const Rows& rows) {
    Compressor compressor{highest_level};
    Compressed best{filtered(picture, rows, PngFilter::none), {}};
    best.deflated = compressor(best.rows);
    for (const auto filter : png_filters) {
        if (filter == PngFilter::none || !has_steps(picture)) continue;
        auto bytes = filtered(picture, rows, filter);
        auto other = compressor(bytes);
        if (other.size() < best.deflated.size()) best = {std::move(bytes), std::move(other)};
    }
    return best;
}

}  // namespace

int png_piece_rows(std::size_t row_bytes) noexcept {
    constexpr std::size_t piece_bytes = std::size_t{1} << 20U;
    return static_cast<int>(std::max<std::size_t>(1, piece_bytes / (row_bytes + 1)));
}

PngPiece png_piece(const Packed& picture, int first, int end, Effort effort, bool is_last) {
    const auto rows = Rows{first, end};
    auto [bytes, deflated] =
        effort == Effort::most ? compressed_most(picture, rows) : compressed_usually(picture, rows);
    if (!is_last) make_deflate_go_on(deflated);
    return {std::move(deflated), libdeflate_adler32(1, bytes.data(), bytes.size()), bytes.size()};
}

Bytes PngStream::begin(Effort effort) {
    // A window of 32 KiB; the level is stored, and makes both bytes together a multiple of 31.
    return {0x78, effort == Effort::most ? std::uint8_t{0xda} : std::uint8_t{0x9c}};
}

Bytes PngStream::add(PngPiece&& piece) {
    adler_ = joined_adler(adler_, piece.adler, piece.bytes);
    return std::move(piece.deflated);
}

Bytes PngStream::end() const {
    Bytes bytes;
    put_big(bytes, adler_, 4);
    return bytes;
}

Bytes png_pixels(const Packed& picture, Effort effort, unsigned threads) {
    const auto height = picture.size.height;
    const auto rows = png_piece_rows(picture.row_bytes());
    const auto pieces = static_cast<std::size_t>((std::int64_t{height} + rows - 1) / rows);
    auto all = PngStream::begin(effort);
    PngStream stream;
    in_order(
        pieces, threads,
        [&](std::size_t piece) {
            const auto first = static_cast<int>(piece) * rows;
            return png_piece(picture, first,
                             static_cast<int>(std::min<std::int64_t>(height, std::int64_t{first} + rows)), effort,
                             piece + 1 == pieces);
        },
        [&](std::size_t, PngPiece&& piece) { put_all(all, stream.add(std::move(piece))); });
    put_all(all, stream.end());
    return all;
}

}  // namespace coldbrick::inline v0::detail
