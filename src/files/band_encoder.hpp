// Picture files that are written some rows at a time.
#pragma once

#include "files/byte_sink.hpp"
#include "files/png_pieces.hpp"

#include "coldbrick/detail/jobs.hpp"

#include <algorithm>
#include <memory>
#include <utility>
#include <vector>

namespace coldbrick::inline v0::detail {

// Rows of a picture from first to end - 1. The pixels of the clip are theirs, and before them the row above, if they
// are not the picture's first.
struct Band {
    Surface pixels;
    int first;
    int end;

    [[nodiscard]] bool has_row_above() const noexcept { return first > 0; }
    // Without the row above.
    [[nodiscard]] Surface rows() const noexcept {
        auto own = pixels;
        if (!has_row_above()) return own;
        ++own.window.at.y;
        --own.window.size.height;
        return own;
    }
};

class BandEncoder {
  public:
    // What rows become by themselves.
    struct Prepared {
        Bytes bytes;
        std::vector<PngPiece> pieces;
    };

    BandEncoder() = default;
    BandEncoder(const BandEncoder&) = delete;
    BandEncoder(BandEncoder&&) = delete;
    BandEncoder& operator=(const BandEncoder&) = delete;
    BandEncoder& operator=(BandEncoder&&) = delete;
    virtual ~BandEncoder() = default;

    // Of how many rows bands have to be a multiple, and whether they come from the last one up.
    [[nodiscard]] virtual int unit() const noexcept { return 1; }
    [[nodiscard]] virtual bool goes_up() const noexcept { return false; }

    // What comes before the pixels.
    [[nodiscard]] virtual Bytes begin() = 0;
    // May be called on several threads. Throws Error for pixels that the file cannot hold.
    [[nodiscard]] virtual Prepared prepare(const Band& band) const = 0;
    // The bytes of the next rows, one band behind the other.
    [[nodiscard]] virtual Bytes add(Prepared&& band) { return std::move(band.bytes); }
    // What comes behind them.
    [[nodiscard]] virtual Bytes end() { return {}; }
};

// Of a picture of a size, in the format and with the palette of a surface: null where the picture has to be seen as a
// whole. Throws Error for a picture or a file that is too large, and for options that are for whole pictures.
using MakeBandEncoder = std::unique_ptr<BandEncoder> (*)(const Surface& like, Size size, const SaveOptions& options);

std::unique_ptr<BandEncoder> png_bands(const Surface& like, Size size, const SaveOptions& options);
std::unique_ptr<BandEncoder> pbm_bands(const Surface& like, Size size, const SaveOptions& options);
std::unique_ptr<BandEncoder> pgm_bands(const Surface& like, Size size, const SaveOptions& options);
std::unique_ptr<BandEncoder> ppm_bands(const Surface& like, Size size, const SaveOptions& options);
std::unique_ptr<BandEncoder> pnm_bands(const Surface& like, Size size, const SaveOptions& options);
std::unique_ptr<BandEncoder> pam_bands(const Surface& like, Size size, const SaveOptions& options);
std::unique_ptr<BandEncoder> bmp_bands(const Surface& like, Size size, const SaveOptions& options);
std::unique_ptr<BandEncoder> qoi_bands(const Surface& like, Size size, const SaveOptions& options);

// One opaque pixel of the format and palette of a surface: what it is packed to says how files have such pictures.
class OnePixel {
  public:
    explicit OnePixel(const Surface& like);
    [[nodiscard]] const Surface& surface() const noexcept { return surface_; }

  private:
    std::vector<std::uint8_t> bytes_;
    Surface surface_;
};

// Writes a picture, whose rows make_band(first, end) gives: an object whose band() they are. On several threads.
template <class MakeBand>
void write_bands(BandEncoder& encoder, int height, int rows, unsigned threads, const MakeBand& make_band,
                 const ByteSink& sink) {
    sink(encoder.begin());
    const auto count = (std::size_t{1} * static_cast<unsigned>(height) + static_cast<unsigned>(rows) - 1) /
                       static_cast<unsigned>(rows);
    in_order(
        count, threads,
        [&](std::size_t i) {
            const auto number = static_cast<int>(encoder.goes_up() ? count - 1 - i : i);
            const auto first = number * rows;
            const auto made = make_band(first, std::min(rows, height - first) + first);
            return encoder.prepare(made.band());
        },
        [&](std::size_t, BandEncoder::Prepared&& band) { sink(encoder.add(std::move(band))); });
    sink(encoder.end());
}

// The file of a picture that is in memory.
Bytes encode_in_bands(const Surface& picture, MakeBandEncoder make, const SaveOptions& options);

}  // namespace coldbrick::inline v0::detail
