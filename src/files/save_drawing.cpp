#include "coldbrick/save_drawing.hpp"

#include "drawing/bands.hpp"
#include "files/band_encoder.hpp"
#include "files/codecs.hpp"
#include "formats/kernels.hpp"
#include "geometry/limits.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <ostream>
#include <string>

namespace coldbrick::inline v0 {

namespace detail {

namespace {

template <PixelFormat Format>
Bitmap<Format> new_rows(Size size, const Sheet& sheet) {
    return Bitmap<Format>{size, sheet.ground};
}
template <>
Bitmap<Index8> new_rows<Index8>(Size size, const Sheet& sheet) {
    return Bitmap<Index8>{size, *sheet.palette, sheet.ground};
}

// Pixels of rows of their own, which lie where those rows of the sheet are.
template <PixelFormat Format>
struct OwnRows {
    Bitmap<Format> bitmap;
    int top;
    int first;
    int end;

    [[nodiscard]] Band band() const noexcept {
        auto rows = SurfaceAccess::of(bitmap);
        static_cast<Target&>(rows) = moved_to(rows, {.x = 0, .y = -top});
        rows.size.height = end;
        rows.window = {.at = {.x = 0, .y = top}, .size = bitmap.size()};
        return {.pixels = rows, .first = first, .end = end};
    }
};

// Some 4 MiB.
int rows_of_band(const BandEncoder& encoder, std::int64_t row_bytes, int height) {
    constexpr auto band_bytes = std::int64_t{1} << 22U;
    const auto unit = std::int64_t{encoder.unit()};
    const auto units = std::max<std::int64_t>(1, band_bytes / (unit * row_bytes));
    return static_cast<int>(std::min<std::int64_t>(units * unit, height));
}

template <PixelFormat Format>
void write_drawing(const Drawing& drawing, const Sheet& sheet, MakeBandEncoder make, const SaveOptions& options,
                   const DrawingHooks& hooks, const ByteSink& sink) {
    const auto threads = allowed_threads("save", options.threads);
    const auto like = new_rows<Format>({.width = 1, .height = 1}, sheet);
    const auto encoder = make(SurfaceAccess::of(like), sheet.size, options);
    const auto rows = rows_of_band(*encoder, row_bytes<Format>(sheet.size.width), sheet.size.height);
    const BandedCalls calls{drawing, 0, drawing.size(), {.at = {}, .size = sheet.size}, rows, threads};
    const auto draw_rows = [&](int first, int end) {
        const auto top = std::max(0, first - 1);
        OwnRows<Format> own{new_rows<Format>({.width = sheet.size.width, .height = end - top}, sheet), top, first, end};
        const auto pixels = own.band().pixels;
        if (hooks.ground != nullptr) hooks.ground(hooks.context, pixels);
        CallRenderer renderer{drawing, pixels};
        for (auto band = top / rows; band <= (end - 1) / rows; ++band) {
            auto part = pixels;
            part.window = intersection(pixels.window, calls.band(static_cast<std::size_t>(band)));
            renderer.look_at(part);
            (void)all_touched({calls.draw(static_cast<std::size_t>(band), renderer, hooks)});
        }
        return own;
    };
    write_bands(*encoder, sheet.size.height, rows, threads, draw_rows, sink);
}

void check_sheet(const Drawing& drawing, const Sheet& sheet) {
    for (const auto& [field, side] : {std::pair{"size.width", sheet.size.width}, {"size.height", sheet.size.height}}) {
        if (side < 1 || side > max_coordinate) refuse("sheet", field, side, 1, max_coordinate);
    }
    constexpr auto most_row_bytes = std::int64_t{1} << 30U;
    if (std::int64_t{4} * sheet.size.width > most_row_bytes) {
        refuse("sheet", "size.width", sheet.size.width, 1, most_row_bytes / 4);
    }
    if (drawing.has_flood()) {
        throw Error{"save: the drawing has a flood, which looks at the whole sheet; render it to a bitmap first"};
    }
}

using Write = void (*)(const Drawing&, const Sheet&, MakeBandEncoder, const SaveOptions&, const DrawingHooks&,
                       const ByteSink&);

Write writer_for(const Sheet& sheet, FileFormat format) noexcept {
    if (format == FileFormat::pgm || format == FileFormat::pbm) return write_drawing<Gray8>;
    if (sheet.palette) return write_drawing<Index8>;
    return sheet.ground.alpha == 255 ? Write{write_drawing<Rgb8>} : Write{write_drawing<Rgba8>};
}

// What writes it to a sink.
std::function<void(const ByteSink&)> written(const Drawing& drawing, const Sheet& sheet, FileFormat format,
                                             const SaveOptions& options, const DrawingHooks& hooks) {
    check_sheet(drawing, sheet);
    check(options);
    const auto* const codec = codec_of(format);
    if (codec == nullptr || codec->bands == nullptr) {
        throw Error{
            "save: a drawing is written some rows at a time to png, pbm, pgm, ppm, pnm, pam, bmp and qoi files "
            "only; for others render it to a bitmap first"};
    }
    const auto write = writer_for(sheet, format);
    return [=, &drawing, &sheet, &options, &hooks](const ByteSink& sink) {
        write(drawing, sheet, codec->bands, options, hooks, sink);
    };
}

}  // namespace

void save_in_bands(const Drawing& drawing, const Sheet& sheet, const FilePath& path, FileFormat format,
                   const SaveOptions& options, const DrawingHooks& hooks) {
    write_file_in_parts(path, written(drawing, sheet, format, options, hooks));
}

}  // namespace detail

bool saves_by_rows(FileFormat format) noexcept {
    const auto* const codec = detail::codec_of(format);
    return codec != nullptr && codec->bands != nullptr;
}

void save(const Drawing& drawing, const Sheet& sheet, const FilePath& path, FileFormat format,
          const SaveOptions& options) {
    detail::save_in_bands(drawing, sheet, path, format, options, {});
}

void save(const Drawing& drawing, const Sheet& sheet, const FilePath& path, const SaveOptions& options) {
    save(drawing, sheet, path, file_format_of(path), options);
}

void save(const Drawing& drawing, const Sheet& sheet, std::ostream& stream, FileFormat format,
          const SaveOptions& options) {
    const detail::DrawingHooks hooks;
    detail::written(drawing, sheet, format, options, hooks)([&](std::span<const std::uint8_t> bytes) {
        stream.write(reinterpret_cast<const char*>(bytes.data()), static_cast<std::streamsize>(bytes.size()));
        if (!stream) throw Error{"stream: the picture cannot be written to it"};
    });
    write_stream(stream, {});
}

}  // namespace coldbrick::inline v0
