// BMP: numbers in a palette or 24 bits with a BITMAPINFOHEADER, 32 bits with alpha with a BITMAPV4HEADER.
#include "files/writers.hpp"

#include "coldbrick/error.hpp"

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

}  // namespace

Bytes write_bmp(const Surface& surface, const SaveOptions& options) {
    const auto picture = pack_for_bmp(surface);
    const auto has_alpha = picture.channels == 4;
    const auto has_palette = picture.channels == 1;
    const std::uint32_t header = has_alpha ? 108 : 40;
    const auto colors = !has_palette ? 0 : picture.palette ? picture.palette->size() : 256;
    const auto pixels = 14 + header + 4 * static_cast<std::uint32_t>(colors);
    const auto row_bytes = (static_cast<std::uint64_t>(picture.row_bytes()) + 3) / 4 * 4;
    const auto length = pixels + row_bytes * static_cast<std::uint64_t>(picture.size.height);
    if (length > 0xffffffffU) throw Error{"bmp: the file would have over 4 GiB, more than it can say"};
    Bytes file;
    file.reserve(static_cast<std::size_t>(length));
    put_text(file, "BM");
    put_little(file, static_cast<std::uint32_t>(length), 4);
    put_little(file, 0, 4);
    put_little(file, pixels, 4);
    put_little(file, header, 4);
    put_little(file, static_cast<std::uint32_t>(picture.size.width), 4);
    put_little(file, static_cast<std::uint32_t>(picture.size.height), 4);
    put_little(file, 1, 2);
    put_little(file, static_cast<std::uint32_t>(8 * picture.channels), 2);
    put_little(file, has_alpha ? 3 : 0, 4);
    put_little(file, static_cast<std::uint32_t>(length - pixels), 4);
    const auto density = options.density.value_or(Density{});
    put_little(file, per_meter(density.across, density.unit), 4);
    put_little(file, per_meter(density.down, density.unit), 4);
    put_little(file, static_cast<std::uint32_t>(colors), 4);
    put_little(file, 0, 4);
    if (has_alpha) put_masks(file);
    if (has_palette) put_palette(file, picture);
    put_rows(file, picture);
    return file;
}

}  // namespace coldbrick::inline v0::detail
