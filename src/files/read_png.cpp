// PNG, by libpng; rows that are as they should be are unpacked by libdeflate.
#include "files/png_calls.hpp"
#include "files/png_rows.hpp"
#include "files/png_texts.hpp"
#include "files/read_frames.hpp"
#include "files/samples.hpp"

#include <algorithm>
#include <bit>
#include <memory>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

// What stands before the pixels.
struct PngHeader {
    png_uint_32 width = 0;
    png_uint_32 height = 0;
    int bits = 0;
    int kind = 0;
    int interlace = 0;
    bool has_transparency = false;  // a transparent colour, or palette entries with alpha
};

PngHeader read_header(PngReader& reader, const LoadLimits& limits) {
    PngHeader header;
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
void set_transforms(PngReader& reader, const PngHeader& header) {
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
        png_read_update_info(png, info);
    });
}

// One of the seven parts of an interlaced picture (the PNG specification, section 8.2), or a whole one.
struct Pass {
    Point first;
    Point step;
    Size size;
};

std::vector<Pass> passes_of(const PngHeader& header) {
    const auto width = static_cast<int>(header.width);
    const auto height = static_cast<int>(header.height);
    if (header.interlace == PNG_INTERLACE_NONE) {
        return {{.first = {}, .step = {.x = 1, .y = 1}, .size = {.width = width, .height = height}}};
    }
    std::vector<Pass> passes;
    for (int pass = 0; pass < PNG_INTERLACE_ADAM7_PASSES; ++pass) {
        const auto first = Point{.x = PNG_PASS_START_COL(pass), .y = PNG_PASS_START_ROW(pass)};
        const auto step = Point{.x = PNG_PASS_COL_OFFSET(pass), .y = PNG_PASS_ROW_OFFSET(pass)};
        const auto size = Size{.width = PNG_PASS_COLS(width, pass), .height = PNG_PASS_ROWS(height, pass)};
        if (size.width > 0 && size.height > 0) passes.push_back({.first = first, .step = step, .size = size});
    }
    return passes;
}

// Calls check(first, last) of each row's bytes before the sink takes them.
template <class Check>
void read_rows(PngReader& reader, const PngHeader& header, int pixel_bytes, PixelSink& sink, const Check& check) {
    const auto row_bytes = std::size_t{header.width} * static_cast<unsigned>(pixel_bytes);
    std::vector<std::uint8_t> row(row_bytes);
    auto* const bytes = row.data();
    auto fits = true;
    reader.run([&](png_structp png, png_infop info, png_infop) { fits = png_get_rowbytes(png, info) == row_bytes; });
    if (!fits) throw Error{"png: its rows have another length than its header says"};
    for (const auto& [first, step, size] : passes_of(header)) {
        for (int i = 0; i < size.height; ++i) {
            reader.run([&](png_structp png, png_infop, png_infop) { png_read_row(png, bytes, nullptr); });
            check(bytes, bytes + std::ptrdiff_t{size.width} * pixel_bytes);
            sink.take(bytes, size.width, {.x = first.x, .y = first.y + i * step.y}, {.x = step.x, .y = 0});
        }
    }
    reader.run([&](png_structp png, png_infop, png_infop end_info) { png_read_end(png, end_info); });
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

// That no pixel has a number beyond the palette.
void check_numbers(const std::uint8_t* first, const std::uint8_t* last, const Palette& palette) {
    const auto wrong = std::find_if(first, last, [&](std::uint8_t number) { return number >= palette.size(); });
    if (wrong == last) return;
    throw Error{"png: a pixel has colour " + std::to_string(*wrong) + ", and the palette " +
                std::to_string(palette.size()) + " colours"};
}

// The format of bitmaps that have such pixels.
const FormatKernel& kernel_for(const PngHeader& header) noexcept {
    if (header.kind == PNG_COLOR_TYPE_PALETTE) return index8_kernel;
    const auto has_alpha = (header.kind & PNG_COLOR_MASK_ALPHA) != 0 || header.has_transparency;
    const auto is_gray = (header.kind & PNG_COLOR_MASK_COLOR) == 0 && !has_alpha;
    if (header.bits == 16) return is_gray ? gray16_kernel : rgba16_kernel;
    if (is_gray) return gray8_kernel;
    return has_alpha ? rgba8_kernel : rgb8_kernel;
}

// Whether rows can be unpacked at once: of 8 bits a channel as bitmaps have them, if that takes at most an eighth more
// than the picture that is kept does.
bool can_unpack(const PngHeader& header, const StoredPixels& stored, const ByteSource& file, const LoadLimits& limits,
                const PixelSink& sink) noexcept {
    const auto is_palette = header.kind == PNG_COLOR_TYPE_PALETTE;
    const auto is_plain = header.bits == 8 && stored.comes_in_rows && header.kind != PNG_COLOR_TYPE_GRAY_ALPHA &&
                          (is_palette || !header.has_transparency);
    // The rows; the file, if it is read; and what is packed in several chunks, together.
    const auto rows = static_cast<std::uint64_t>(stored.kernel->row_bytes(stored.size.width) + 1) * header.height;
    const auto all = rows + (file.in_memory() ? 1 : 2) * file.size();
    constexpr auto most = std::uint64_t{1} << 28U;
    constexpr auto little = std::uint64_t{1} << 16U;
    const auto room = std::min(most, limits.memory - std::min(limits.memory, sink.kept()));
    return is_plain && all <= room && all <= sink.kept() + sink.kept() / 8 + little;
}

// Returns how many bytes follow the picture.
std::uint64_t read_pixels(PngReader& reader, const ByteSource& file, const PngHeader& header, const LoadLimits& limits,
                          PixelSink& sink) {
    auto stored =
        StoredPixels{.kernel = &kernel_for(header),
                     .size = {.width = static_cast<int>(header.width), .height = static_cast<int>(header.height)},
                     .comes_in_rows = header.interlace == PNG_INTERLACE_NONE};
    const auto has_palette = header.kind == PNG_COLOR_TYPE_PALETTE;
    if (has_palette) stored.palette = make_shared_value<KeptPalette>(read_palette(reader));
    const auto check = [&](const std::uint8_t* first, const std::uint8_t* last) {
        if (has_palette) check_numbers(first, last, stored.palette->palette);
    };
    sink.begin("png", stored, limits);
    const auto pixel_bytes = stored.kernel->pixel_bytes();
    if (can_unpack(header, stored, file, limits, sink)) {
        const auto row_bytes = static_cast<std::size_t>(stored.kernel->row_bytes(stored.size.width));
        if (const auto rows =
                unpack_png_rows(file.all(), row_bytes, stored.size.height, static_cast<std::size_t>(pixel_bytes))) {
            for (int y = 0; y < stored.size.height; ++y) {
                check(rows->row(y), rows->row(y) + row_bytes);
                sink.take_row(rows->row(y), y);
            }
            return rows->rest;
        }
    }
    set_transforms(reader, header);
    read_rows(reader, header, pixel_bytes, sink, check);
    return reader.rest();
}

}  // namespace

PictureInfo read_png(const ByteSource& file, const LoadLimits& limits, PixelSink& sink) {
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
    const auto rest = read_pixels(reader, file, header, limits, sink);
    for (const auto& warning : reader.warnings()) info.oddities.push_back(warning);
    if (header.has_transparency && !info.has_palette) info.oddities.emplace_back("one colour counts as transparent");
    read_png_control(file, info);
    note_rest(info, rest);
    return info;
}

}  // namespace coldbrick::inline v0::detail
