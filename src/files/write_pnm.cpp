// PNM, kinds P1 to P6, and PAM.
#include "files/band_encoder.hpp"
#include "files/writers.hpp"

#include "coldbrick/error.hpp"

#include <functional>
#include <memory>
#include <string>
#include <utility>

namespace coldbrick::inline v0::detail {

namespace {

// A plain file's lines are not longer than 70 characters.
class PlainSamples {
  public:
    explicit PlainSamples(Bytes& file) noexcept : file_{file} {}

    void add(unsigned value) {
        const auto digits = std::to_string(value);
        constexpr std::size_t longest = 70;
        if (line_ > 0 && line_ + 1 + digits.size() > longest) end_row();
        if (line_ > 0) put_text(file_, " ");
        put_text(file_, digits);
        line_ += digits.size() + 1;
    }
    void end_row() {
        if (line_ > 0) put_text(file_, "\n");
        line_ = 0;
    }

  private:
    Bytes& file_;
    std::size_t line_ = 0;
};

std::string size_line(Size size) { return std::to_string(size.width) + " " + std::to_string(size.height) + "\n"; }

// The greatest value of a channel.
std::string most_of(const Packed& picture) { return picture.bits == 16 ? "65535" : "255"; }

void put_rows(Bytes& file, const Packed& picture) {
    const auto row_bytes = picture.row_bytes();
    file.reserve(file.size() + row_bytes * static_cast<std::size_t>(picture.size.height));
    for (int y = 0; y < picture.size.height; ++y) put_all(file, std::span{picture.row(y), row_bytes});
}

void put_plain_rows(Bytes& file, const Packed& picture) {
    PlainSamples samples{file};
    const auto sample_bytes = static_cast<std::size_t>(picture.bits / 8);
    for (int y = 0; y < picture.size.height; ++y) {
        const auto* const row = picture.row(y);
        for (std::size_t i = 0; i < picture.row_bytes(); i += sample_bytes) {
            samples.add(sample_bytes == 1 ? row[i] : static_cast<unsigned>(row[i] << 8U | row[i + 1]));
        }
        samples.end_row();
    }
}

Packed pack_bits_for_pbm(const Surface& picture) {
    if (picture.kernel->pixel_bits == 1) return pack_rows_of_bits(picture);
    auto packed = pack_fewest_bits(picture);
    const auto is_two_tone = packed.channels == 1 && packed.bits == 1 && !packed.palette;
    if (!is_two_tone) throw Error{"pbm: the file holds black and white only, and the picture has other colours"};
    return packed;
}

// A bit is set for black.
void put_bits(Bytes& file, const Packed& picture, Notation notation) {
    const auto is_plain = notation == Notation::plain;
    PlainSamples samples{file};
    for (int y = 0; y < picture.size.height; ++y) {
        unsigned byte = 0;
        for (int x = 0; x < picture.size.width; ++x) {
            const auto shift = 7U - static_cast<unsigned>(x) % 8;
            const auto is_white = ((picture.row(y)[x / 8] >> shift) & 1U) != 0;
            if (is_plain) samples.add(is_white ? 0 : 1);
            if (!is_white) byte |= 1U << shift;
            const auto ends_byte = shift == 0 || x + 1 == picture.size.width;
            if (is_plain || !ends_byte) continue;
            put_big(file, byte, 1);
            byte = 0;
        }
        samples.end_row();
    }
}

// A header, and rows that pack(pixels) gives and put(file, rows) puts behind it.
class PnmBands final : public BandEncoder {
  public:
    using Pack = std::function<Packed(const Surface&)>;
    using Put = std::function<void(Bytes&, const Packed&)>;

    PnmBands(const std::string& header, Pack pack, Put put)
        : header_{header.begin(), header.end()}, pack_{std::move(pack)}, put_{std::move(put)} {}

    [[nodiscard]] Bytes begin() override { return header_; }
    [[nodiscard]] Prepared prepare(const Band& band) const override {
        Prepared prepared;
        put_(prepared.bytes, pack_(band.rows()));
        return prepared;
    }

  private:
    Bytes header_;
    Pack pack_;
    Put put_;
};

std::unique_ptr<BandEncoder> with_samples(const Packed& kind, Size size, const PnmBands::Pack& pack,
                                          Notation notation) {
    const auto is_gray = kind.channels == 1;
    const auto is_plain = notation == Notation::plain;
    const auto* const number = is_plain ? (is_gray ? "P2\n" : "P3\n") : (is_gray ? "P5\n" : "P6\n");
    return std::make_unique<PnmBands>(number + size_line(size) + most_of(kind) + "\n", pack,
                                      is_plain ? put_plain_rows : put_rows);
}

}  // namespace

std::unique_ptr<BandEncoder> pbm_bands(const Surface& /*like*/, Size size, const SaveOptions& options) {
    const auto notation = options.notation;
    return std::make_unique<PnmBands>((notation == Notation::plain ? "P1\n" : "P4\n") + size_line(size),
                                      pack_bits_for_pbm,
                                      [=](Bytes& file, const Packed& rows) { put_bits(file, rows, notation); });
}

std::unique_ptr<BandEncoder> pgm_bands(const Surface& like, Size size, const SaveOptions& options) {
    const auto pack = [](const Surface& rows) { return pack_gray(rows, "pgm"); };
    return with_samples(pack(OnePixel{like}.surface()), size, pack, options.notation);
}

std::unique_ptr<BandEncoder> ppm_bands(const Surface& like, Size size, const SaveOptions& options) {
    const auto pack = [](const Surface& rows) { return pack_rgb(rows, "ppm"); };
    return with_samples(pack(OnePixel{like}.surface()), size, pack, options.notation);
}

std::unique_ptr<BandEncoder> pnm_bands(const Surface& like, Size size, const SaveOptions& options) {
    const auto pack = [](const Surface& rows) {
        return is_gray(rows) ? pack_gray(rows, "pnm") : pack_rgb(rows, "pnm");
    };
    return with_samples(pack(OnePixel{like}.surface()), size, pack, options.notation);
}

std::unique_ptr<BandEncoder> pam_bands(const Surface& like, Size size, const SaveOptions& options) {
    const auto is_rgb = options.storage == Storage::without_alpha && !is_gray(like);
    const auto pack = [=](const Surface& rows) { return is_rgb ? pack_rgb(rows, "pam") : pack_as_is(rows); };
    const auto kind = pack(OnePixel{like}.surface());
    const auto* const tuple = kind.channels == 1 ? "GRAYSCALE" : kind.channels == 3 ? "RGB" : "RGB_ALPHA";
    return std::make_unique<PnmBands>("P7\nWIDTH " + std::to_string(size.width) + "\nHEIGHT " +
                                          std::to_string(size.height) + "\nDEPTH " + std::to_string(kind.channels) +
                                          "\nMAXVAL " + most_of(kind) + "\nTUPLTYPE " + tuple + "\nENDHDR\n",
                                      pack, put_rows);
}

Bytes write_pbm(const Surface& picture, const SaveOptions& options) {
    return encode_in_bands(picture, pbm_bands, options);
}
Bytes write_pgm(const Surface& picture, const SaveOptions& options) {
    return encode_in_bands(picture, pgm_bands, options);
}
Bytes write_ppm(const Surface& picture, const SaveOptions& options) {
    return encode_in_bands(picture, ppm_bands, options);
}
Bytes write_pnm(const Surface& picture, const SaveOptions& options) {
    return encode_in_bands(picture, pnm_bands, options);
}
Bytes write_pam(const Surface& picture, const SaveOptions& options) {
    return encode_in_bands(picture, pam_bands, options);
}

}  // namespace coldbrick::inline v0::detail
