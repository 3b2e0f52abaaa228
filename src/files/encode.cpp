// Pictures to the bytes of files.
#include "files/writers.hpp"
#include "geometry/limits.hpp"

#include "coldbrick/convert.hpp"
#include "coldbrick/error.hpp"

#include <cmath>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

void check(const SaveOptions& options) {
    if (options.quality < 1 || options.quality > 100) {
        throw Error{"quality is " + std::to_string(options.quality) + "; allowed is 1 to 100"};
    }
    check_choice("save", "effort", options.effort, {"usual", "most"});
    check_choice("save", "storage", options.storage, {"as_it_is", "fewest_bits", "without_alpha"});
    check_choice("save", "notation", options.notation, {"binary", "plain"});
    if (options.density) {
        check_choice("save", "density.unit", options.density->unit, {"meter", "inch", "none"});
        const auto is_allowed = [](double density) { return density > 0 && density <= 1e6; };
        if (!is_allowed(options.density->across) || !is_allowed(options.density->down)) {
            throw Error{"density is " + in_digits(options.density->across) + "," + in_digits(options.density->down) +
                        "; allowed is more than 0, up to 1000000"};
        }
    }
}

// JPEG has 8 bits a channel.
Packed pack_for_jpeg(const Surface& picture) {
    auto fits = is_gray(picture) ? pack_gray(picture, "jpeg") : pack_rgb(picture, "jpeg");
    if (fits.bits == 8) return fits;
    auto narrow = fits;
    narrow.bits = 8;
    narrow.bytes.clear();
    for (std::size_t i = 0; i < fits.bytes.size(); i += 2) {
        const auto value = static_cast<unsigned>(fits.bytes[i] << 8U | fits.bytes[i + 1]);
        narrow.bytes.push_back(static_cast<std::uint8_t>((value + 128) / 257));
    }
    return narrow;
}

Packed pack_bits_for_pbm(const Surface& picture) {
    if (picture.kernel == &bit1_kernel) return pack_rows_of_bits(picture);
    auto packed = pack_fewest_bits(picture);
    const auto is_two_tone = packed.channels == 1 && packed.bits == 1 && !packed.palette;
    if (!is_two_tone) throw Error{"pbm: the file holds black and white only, and the picture has other colours"};
    return packed;
}

// Refuses 16 bits where a format has only 8.
Packed of_8_bits(Packed packed, std::string_view format) {
    if (packed.bits == 8) return packed;
    throw Error{
        std::string{format} +
        ": the file holds 8 bits a channel, and the picture has 16 (make it 8 bits first, or write png, ppm or pam)"};
}

Packed pack_for_png(const Surface& picture, Storage storage) {
    if (picture.kernel == &bit1_kernel) return pack_rows_of_bits(picture);
    if (storage == Storage::without_alpha && !is_gray(picture)) return pack_rgb(picture, "png");
    return storage == Storage::fewest_bits ? pack_fewest_bits(picture) : pack_with_palette(picture);
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

}  // namespace

std::uint32_t per_meter(double density, Density::Unit unit) noexcept {
    constexpr auto meters_to_an_inch = 0.0254;
    if (unit == Density::Unit::none) return 0;
    return static_cast<std::uint32_t>(std::lround(unit == Density::Unit::inch ? density / meters_to_an_inch : density));
}

std::vector<std::uint8_t> encode(const Surface& picture, FileFormat format, const SaveOptions& options) {
    if (picture.window.empty()) throw Error{"picture: the view's clip is empty; it must have at least one pixel"};
    check(options);
    switch (format) {
        case FileFormat::png:
            return write_png(pack_for_png(picture, options.storage), options);
        case FileFormat::jpeg:
            return write_jpeg(pack_for_jpeg(picture), options);
        case FileFormat::pbm:
            return write_pbm(pack_bits_for_pbm(picture), options.notation);
        case FileFormat::pgm:
            return write_pnm(pack_gray(picture, "pgm"), options.notation);
        case FileFormat::ppm:
            return write_pnm(pack_rgb(picture, "ppm"), options.notation);
        case FileFormat::pnm:
            return write_pnm(is_gray(picture) ? pack_gray(picture, "pnm") : pack_rgb(picture, "pnm"), options.notation);
        case FileFormat::pam:
            return write_pam(options.storage == Storage::without_alpha && !is_gray(picture) ? pack_rgb(picture, "pam")
                                                                                            : pack_as_is(picture));
        case FileFormat::bmp:
            return write_bmp(pack_for_bmp(picture), options);
        case FileFormat::qoi:
            return write_qoi(of_8_bits(pack_as_is(picture), "qoi"));
    }
    throw Error{"file format: it is none of png, jpeg, pbm, pgm, ppm, pnm, pam, bmp and qoi"};
}

}  // namespace coldbrick::inline v0::detail
