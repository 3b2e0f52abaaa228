// PNG, by libpng.
#include "files/png_calls.hpp"
#include "files/png_texts.hpp"
#include "files/samples.hpp"

#include <bit>

namespace coldbrick::detail {

namespace {

// What stands before the pixels.
struct Header {
    png_uint_32 width = 0;
    png_uint_32 height = 0;
    int bits = 0;
    int kind = 0;
    int interlace = 0;
    bool has_transparency = false;  // a transparent colour, or palette entries with alpha
};

Header read_header(PngReader& reader, const LoadLimits& limits) {
    Header header;
    reader.run([&](png_structp png, png_infop info, png_infop) {
        // Sizes are checked below. Of the chunks that it can do without, libpng keeps none but tRNS; texts and density
        // are read without it.
        png_set_user_limits(png, 0x7fffffff, 0x7fffffff);
        png_set_keep_unknown_chunks(png, PNG_HANDLE_CHUNK_NEVER, nullptr, -1);
        png_read_info(png, info);
        png_get_IHDR(png, info, &header.width, &header.height, &header.bits, &header.kind, &header.interlace, nullptr,
                     nullptr);
        header.has_transparency = png_get_valid(png, info, PNG_INFO_tRNS) != 0;
    });
    check_size("png", header.width, header.height, limits);
    return header;
}

// Asks for bytes, or for numbers of 16 bits, as bitmaps have them. Gray with alpha becomes colour.
void set_transforms(PngReader& reader, const Header& header) {
    reader.run([&](png_structp png, png_infop info, png_infop) {
        if (header.kind == PNG_COLOR_TYPE_PALETTE) {
            png_set_packing(png);
        } else {
            if (header.bits < 8) png_set_expand_gray_1_2_4_to_8(png);
            if (header.has_transparency) png_set_tRNS_to_alpha(png);
            const auto has_alpha = (header.kind & PNG_COLOR_MASK_ALPHA) != 0 || header.has_transparency;
            const auto is_gray = (header.kind & PNG_COLOR_MASK_COLOR) == 0;
            if (is_gray && has_alpha) png_set_gray_to_rgb(png);
            const auto is_colour_of_16 = header.bits == 16 && !is_gray && !has_alpha;
            if (is_colour_of_16) png_set_add_alpha(png, 0xffff, PNG_FILLER_AFTER);
            if (header.bits == 16 && std::endian::native == std::endian::little) png_set_swap(png);
        }
        png_set_interlace_handling(png);
        png_read_update_info(png, info);
    });
}

template <PixelFormat Format>
void read_rows(PngReader& reader, Bitmap<Format>& bitmap) {
    std::vector<png_bytep> rows(static_cast<std::size_t>(bitmap.size().height));
    const auto row_bytes = static_cast<std::size_t>(bitmap.size().width) * bytes_per_pixel<Format>;
    for (std::size_t y = 0; y < rows.size(); ++y) rows[y] = bytes_of(bitmap) + y * row_bytes;
    auto fits = true;
    auto* const first = rows.data();
    reader.run([&](png_structp png, png_infop info, png_infop end_info) {
        fits = png_get_rowbytes(png, info) == row_bytes;
        if (!fits) return;
        png_read_image(png, first);
        png_read_end(png, end_info);
    });
    if (!fits) throw Error{"png: its rows have another length than its header says"};
}

Palette read_palette(PngReader& reader) {
    png_colorp colors = nullptr;
    int count = 0;
    png_bytep alphas = nullptr;
    int alpha_count = 0;
    reader.run([&](png_structp png, png_infop info, png_infop) {
        png_get_PLTE(png, info, &colors, &count);
        png_get_tRNS(png, info, &alphas, &alpha_count, nullptr);
    });
    std::vector<Color> palette;
    palette.reserve(static_cast<std::size_t>(count));
    for (int i = 0; i < count; ++i) {
        palette.push_back({.red = colors[i].red,
                           .green = colors[i].green,
                           .blue = colors[i].blue,
                           .alpha = i < alpha_count ? alphas[i] : std::uint8_t{255}});
    }
    return Palette{std::move(palette)};
}

Bitmap<Index8> read_numbers(PngReader& reader, Size size) {
    const auto palette = read_palette(reader);
    Bitmap<Index8> bitmap{size, palette};
    set_transforms(reader, {.kind = PNG_COLOR_TYPE_PALETTE});
    read_rows(reader, bitmap);
    for (const auto number : bitmap.bytes()) {
        if (number < palette.size()) continue;
        throw Error{"png: a pixel has colour " + std::to_string(number) + ", and the palette " +
                    std::to_string(palette.size()) + " colours"};
    }
    return bitmap;
}

template <PixelFormat Format>
AnyBitmap read_as(PngReader& reader, const Header& header, Size size) {
    Bitmap<Format> bitmap{size};
    set_transforms(reader, header);
    read_rows(reader, bitmap);
    return bitmap;
}

AnyBitmap read_pixels(PngReader& reader, const Header& header, Size size) {
    if (header.kind == PNG_COLOR_TYPE_PALETTE) return read_numbers(reader, size);
    const auto has_alpha = (header.kind & PNG_COLOR_MASK_ALPHA) != 0 || header.has_transparency;
    const auto is_gray = (header.kind & PNG_COLOR_MASK_COLOR) == 0 && !has_alpha;
    if (header.bits == 16) {
        return is_gray ? read_as<Gray16>(reader, header, size) : read_as<Rgba16>(reader, header, size);
    }
    if (is_gray) return read_as<Gray8>(reader, header, size);
    return has_alpha ? read_as<Rgba8>(reader, header, size) : read_as<Rgb8>(reader, header, size);
}

// Of the bitmap that read_pixels() makes.
unsigned bytes_of_pixel(const Header& header) noexcept {
    const auto has_alpha = (header.kind & PNG_COLOR_MASK_ALPHA) != 0 || header.has_transparency;
    const auto is_gray = (header.kind & PNG_COLOR_MASK_COLOR) == 0 && !has_alpha;
    if (header.kind == PNG_COLOR_TYPE_PALETTE) return 1;
    if (header.bits == 16) return is_gray ? 2 : 8;
    return is_gray ? 1 : has_alpha ? 4 : 3;
}

}  // namespace

LoadedPicture read_png(FileBytes file, const LoadLimits& limits) {
    PngReader reader{file};
    const auto header = read_header(reader, limits);
    const auto size = Size{.width = static_cast<int>(header.width), .height = static_cast<int>(header.height)};
    auto info = PictureInfo{.format = FileFormat::png,
                            .size = size,
                            .bits = header.bits,
                            .has_palette = header.kind == PNG_COLOR_TYPE_PALETTE,
                            .has_alpha = (header.kind & PNG_COLOR_MASK_ALPHA) != 0 || header.has_transparency,
                            .is_interlaced = header.interlace != PNG_INTERLACE_NONE};
    read_png_texts(file, limits, info);
    info.channels = info.has_palette ? 1
                                     : ((header.kind & PNG_COLOR_MASK_COLOR) != 0 ? 3 : 1) +
                                           ((header.kind & PNG_COLOR_MASK_ALPHA) != 0 ? 1 : 0);
    check_shrinkage("png", size, file.size(), limits);
    check_memory("png", pixel_count(size) * bytes_of_pixel(header), limits);
    auto bitmap = read_pixels(reader, header, size);
    for (const auto& warning : reader.warnings()) info.oddities.push_back(warning);
    if (header.has_transparency && !info.has_palette) info.oddities.emplace_back("one colour counts as transparent");
    note_rest(info, reader.rest());
    return {.bitmap = std::move(bitmap), .info = std::move(info)};
}

}  // namespace coldbrick::detail
