// PNM, kinds P1 to P6, and PAM.
#include "files/writers.hpp"

#include "coldbrick/error.hpp"

#include <string>

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

Bytes with_pixels(const std::string& header, const Packed& picture) {
    Bytes file;
    const auto row_bytes = picture.row_bytes();
    file.reserve(header.size() + row_bytes * static_cast<std::size_t>(picture.size.height));
    put_text(file, header);
    for (int y = 0; y < picture.size.height; ++y) put_all(file, std::span{picture.row(y), row_bytes});
    return file;
}

Bytes with_samples(const Packed& picture, Notation notation) {
    const auto is_gray = picture.channels == 1;
    const auto is_plain = notation == Notation::plain;
    const auto* const kind = is_plain ? (is_gray ? "P2\n" : "P3\n") : (is_gray ? "P5\n" : "P6\n");
    const auto header = kind + size_line(picture.size) + most_of(picture) + "\n";
    if (!is_plain) return with_pixels(header, picture);
    Bytes file{header.begin(), header.end()};
    PlainSamples samples{file};
    const auto sample_bytes = static_cast<std::size_t>(picture.bits / 8);
    for (int y = 0; y < picture.size.height; ++y) {
        const auto* const row = picture.row(y);
        for (std::size_t i = 0; i < picture.row_bytes(); i += sample_bytes) {
            samples.add(sample_bytes == 1 ? row[i] : static_cast<unsigned>(row[i] << 8U | row[i + 1]));
        }
        samples.end_row();
    }
    return file;
}

Packed pack_bits_for_pbm(const Surface& picture) {
    if (picture.kernel == &bit1_kernel) return pack_rows_of_bits(picture);
    auto packed = pack_fewest_bits(picture);
    const auto is_two_tone = packed.channels == 1 && packed.bits == 1 && !packed.palette;
    if (!is_two_tone) throw Error{"pbm: the file holds black and white only, and the picture has other colours"};
    return packed;
}

}  // namespace

Bytes write_pbm(const Surface& surface, const SaveOptions& options) {
    const auto picture = pack_bits_for_pbm(surface);
    const auto is_plain = options.notation == Notation::plain;
    const auto header = (is_plain ? "P1\n" : "P4\n") + size_line(picture.size);
    Bytes file{header.begin(), header.end()};
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
    return file;
}

Bytes write_pgm(const Surface& picture, const SaveOptions& options) {
    return with_samples(pack_gray(picture, "pgm"), options.notation);
}

Bytes write_ppm(const Surface& picture, const SaveOptions& options) {
    return with_samples(pack_rgb(picture, "ppm"), options.notation);
}

Bytes write_pnm(const Surface& picture, const SaveOptions& options) {
    return with_samples(is_gray(picture) ? pack_gray(picture, "pnm") : pack_rgb(picture, "pnm"), options.notation);
}

Bytes write_pam(const Surface& surface, const SaveOptions& options) {
    const auto is_rgb = options.storage == Storage::without_alpha && !is_gray(surface);
    const auto picture = is_rgb ? pack_rgb(surface, "pam") : pack_as_is(surface);
    const auto* const tuple = picture.channels == 1 ? "GRAYSCALE" : picture.channels == 3 ? "RGB" : "RGB_ALPHA";
    return with_pixels("P7\nWIDTH " + std::to_string(picture.size.width) + "\nHEIGHT " +
                           std::to_string(picture.size.height) + "\nDEPTH " + std::to_string(picture.channels) +
                           "\nMAXVAL " + most_of(picture) + "\nTUPLTYPE " + tuple + "\nENDHDR\n",
                       picture);
}

}  // namespace coldbrick::inline v0::detail
