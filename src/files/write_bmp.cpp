// BMP: numbers in a palette or 24 bits with a BITMAPINFOHEADER, 32 bits with alpha with a BITMAPV4HEADER.
#include "files/band_encoder.hpp"
#include "files/writers.hpp"

#include "coldbrick/error.hpp"

#include <memory>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

void put_palette(Bytes& file, const Packed& picture) {
    const auto put = [&](Color color) { put_bytes(file, {color.blue, color.green, color.red, 0}); };
    if (!picture.palette) {
        for (unsigned i = 0; i < 256; ++i) put(gray(static_cast<std::uint8_t>(i)));
        return;
    }
    for (const auto& color : picture.palette->colors()) put(color);
}

void put_masks(Bytes& file) {
    for (const auto mask : {0x00ff0000U, 0x0000ff00U, 0x000000ffU, 0xff000000U}) put_little(file, mask, 4);
    put_text(file, "BGRs");  // sRGB
    put_zeros(file, 48);
}

// From bottom to top, each row of a multiple of 4 bytes; blue first.
void put_rows(Bytes& file, const Packed& picture) {
    const auto channels = static_cast<std::size_t>(picture.channels);
    const auto row_bytes = picture.row_bytes();
    for (auto y = picture.size.height; y-- > 0;) {
        const auto* const row = picture.row(y);
        if (channels == 1) put_all(file, std::span{row, row_bytes});
        for (std::size_t i = 0; channels > 1 && i < row_bytes; i += channels) {
            put_bytes(file, {row[i + 2], row[i + 1], row[i]});
            if (channels == 4) file.push_back(row[i + 3]);
        }
        put_zeros(file, (4 - row_bytes % 4) % 4);
    }
}

Packed pack_for_bmp(const Surface& picture) {
    auto packed = pack_with_palette(picture);
    if (packed.palette) {
        for (const auto& color : packed.palette->colors()) {
            if (color.alpha != 255) return pack_as_is(picture);
        }
    }
    return of_8_bits(std::move(packed), "bmp");
}

class BmpBands final : public BandEncoder {
  public:
    BmpBands(Packed kind, std::uint64_t length, const SaveOptions& options)
        : kind_{std::move(kind)},
          length_{static_cast<std::uint32_t>(length)},
          density_{options.density.value_or(Density{})} {}

    [[nodiscard]] bool goes_up() const noexcept override { return true; }
    [[nodiscard]] Bytes begin() override;
    [[nodiscard]] Prepared prepare(const Band& band) const override {
        Prepared prepared;
        put_rows(prepared.bytes, pack_for_bmp(band.rows()));
        return prepared;
    }

  private:
    Packed kind_;  // without pixels
    std::uint32_t length_;
    Density density_;
};

// The header's bytes but for the file's own 14, and how many colours its palette has.
std::uint32_t header_bytes(const Packed& kind) noexcept { return kind.channels == 4 ? 108 : 40; }
std::uint32_t colors_of(const Packed& kind) noexcept {
    if (kind.channels != 1) return 0;
    return kind.palette ? static_cast<std::uint32_t>(kind.palette->size()) : 256;
}
// Where the pixels begin.
std::uint32_t pixels_begin(const Packed& kind) noexcept { return 14 + header_bytes(kind) + 4 * colors_of(kind); }

Bytes BmpBands::begin() {
    const auto has_alpha = kind_.channels == 4;
    Bytes file;
    put_text(file, "BM");
    put_little(file, length_, 4);
    put_little(file, 0, 4);
    put_little(file, pixels_begin(kind_), 4);
    put_little(file, header_bytes(kind_), 4);
    put_little(file, static_cast<std::uint32_t>(kind_.size.width), 4);
    put_little(file, static_cast<std::uint32_t>(kind_.size.height), 4);
    put_little(file, 1, 2);
    put_little(file, static_cast<std::uint32_t>(8 * kind_.channels), 2);
    put_little(file, has_alpha ? 3 : 0, 4);
    put_little(file, length_ - pixels_begin(kind_), 4);
    put_little(file, per_meter(density_.across, density_.unit), 4);
    put_little(file, per_meter(density_.down, density_.unit), 4);
    put_little(file, colors_of(kind_), 4);
    put_little(file, 0, 4);
    if (has_alpha) put_masks(file);
    if (kind_.channels == 1) put_palette(file, kind_);
    return file;
}

}  // namespace

std::unique_ptr<BandEncoder> bmp_bands(const Surface& like, Size size, const SaveOptions& options) {
    auto kind = pack_for_bmp(OnePixel{like}.surface());
    kind.size = size;
    const auto row_bytes = (static_cast<std::uint64_t>(kind.row_bytes()) + 3) / 4 * 4;
    const auto length = pixels_begin(kind) + row_bytes * static_cast<std::uint64_t>(size.height);
    if (length > 0xffffffffU) throw Error{"bmp: the file would have over 4 GiB, more than it can say"};
    return std::make_unique<BmpBands>(std::move(kind), length, options);
}

Bytes write_bmp(const Surface& picture, const SaveOptions& options) {
    return encode_in_bands(picture, bmp_bands, options);
}

}  // namespace coldbrick::inline v0::detail
