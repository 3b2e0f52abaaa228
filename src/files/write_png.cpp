// PNG (ISO/IEC 15948), compressed by libdeflate.
#include "files/png_filters.hpp"
#include "files/png_parts.hpp"
#include "files/writers.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <cmath>
#include <memory>
#include <string>

#include <libdeflate.h>

namespace coldbrick::inline v0::detail {

namespace {

class Compressor {
  public:
    explicit Compressor(int level) : compressor_{libdeflate_alloc_compressor(level)} {
        if (!compressor_) throw Error{"png: there is no memory for it"};
    }

    // As a stream of zlib (RFC 1950).
    [[nodiscard]] PngBytes operator()(const PngBytes& bytes) {
        PngBytes compressed{libdeflate_zlib_compress_bound(compressor_.get(), bytes.size())};
        compressed.shorten(libdeflate_zlib_compress(compressor_.get(), bytes.begin(), bytes.size(), compressed.begin(),
                                                    compressed.size()));
        return compressed;
    }

  private:
    struct Free {
        void operator()(libdeflate_compressor* compressor) const noexcept { libdeflate_free_compressor(compressor); }
    };
    std::unique_ptr<libdeflate_compressor, Free> compressor_;
};

PngBytes filtered(const Packed& picture, PngFilter filter) {
    PngBytes rows{(picture.row_bytes() + 1) * static_cast<std::size_t>(picture.size.height)};
    filter_rows(picture, 0, picture.size.height, filter, rows.begin());
    return rows;
}

// Differences between numbers in a palette, or between a few bits, mean nothing.
bool has_steps(const Packed& picture) noexcept { return picture.bits >= 8 && !picture.palette; }

// The filter with which some rows here and there become smallest.
PngFilter promising_filter(const Packed& picture) {
    constexpr auto bands = 8;
    constexpr auto band_rows = 4;
    const auto first_of = [&](int band) { return static_cast<int>(std::int64_t{picture.size.height} * band / bands); };
    Compressor quick{1};
    auto best = PngFilter::none;
    auto least = ~std::size_t{0};
    for (const auto filter : {PngFilter::none, PngFilter::left, PngFilter::above, PngFilter::paeth}) {
        PngBytes rows{(picture.row_bytes() + 1) * bands * band_rows};
        std::size_t used = 0;
        for (int band = 0; band < bands; ++band) {
            const auto first = first_of(band);
            const auto end = std::min(first + band_rows, first_of(band + 1));
            filter_rows(picture, first, end, filter, rows.begin() + used);
            used += (picture.row_bytes() + 1) * static_cast<std::size_t>(end - first);
        }
        rows.shorten(used);
        const auto size = quick(rows).size();
        if (size >= least) continue;
        least = size;
        best = filter;
    }
    return best;
}

PngBytes compressed_usually(const Packed& picture) {
    constexpr auto level = 6;
    const auto filter = has_steps(picture) ? promising_filter(picture) : PngFilter::none;
    return Compressor{level}(filtered(picture, filter));
}

PngBytes compressed_most(const Packed& picture) {
    constexpr auto level = 12;
    Compressor compressor{level};
    auto best = compressor(filtered(picture, PngFilter::none));
    for (const auto filter : png_filters) {
        if (filter == PngFilter::none || !has_steps(picture)) continue;
        auto other = compressor(filtered(picture, filter));
        if (other.size() < best.size()) best = std::move(other);
    }
    return best;
}

}  // namespace

int png_kind(const Packed& picture) noexcept {
    if (picture.palette) return 3;
    constexpr std::array kinds{0, 4, 2, 6};
    return kinds[static_cast<std::size_t>(picture.channels - 1)];
}

void add_palette(PngChunks& chunks, const Palette& palette) {
    const auto colors = palette.colors();
    chunks.add("PLTE", [&](Bytes& file) {
        for (const auto& color : colors) put_bytes(file, {color.red, color.green, color.blue});
    });
    auto with_alpha = colors.size();
    while (with_alpha > 0 && colors[with_alpha - 1].alpha == 255) --with_alpha;
    if (with_alpha == 0) return;
    chunks.add("tRNS", [&](Bytes& file) {
        for (std::size_t i = 0; i < with_alpha; ++i) file.push_back(colors[i].alpha);
    });
}

void add_header(PngChunks& chunks, const Packed& picture) {
    chunks.add("IHDR", [&](Bytes& to) {
        put_big(to, static_cast<std::uint32_t>(picture.size.width), 4);
        put_big(to, static_cast<std::uint32_t>(picture.size.height), 4);
        put_big(to, static_cast<std::uint32_t>(picture.bits), 1);
        put_big(to, static_cast<std::uint32_t>(png_kind(picture)), 1);
        put_big(to, 0, 3);  // deflate, filters, not interlaced
    });
}

PngBytes png_pixels(const Packed& picture, Effort effort) {
    return effort == Effort::most ? compressed_most(picture) : compressed_usually(picture);
}

namespace {

void add_density(PngChunks& chunks, const Density& density) {
    const auto has_unit = density.unit != Density::Unit::none;
    const auto number = [&](double value) {
        return has_unit ? per_meter(value, density.unit) : static_cast<std::uint32_t>(std::lround(value));
    };
    chunks.add("pHYs", [&](Bytes& file) {
        put_big(file, number(density.across), 4);
        put_big(file, number(density.down), 4);
        put_big(file, has_unit ? 1 : 0, 1);
    });
}

bool is_ascii(std::string_view text) noexcept {
    return std::all_of(text.begin(), text.end(), [](char c) { return static_cast<unsigned char>(c) < 128; });
}

void add_text(PngChunks& chunks, const TextEntry& entry) {
    const auto& keyword = entry.keyword;
    const auto& text = entry.text;
    constexpr std::size_t longest = 79;
    if (keyword.empty() || keyword.size() > longest || keyword.find('\0') != std::string::npos ||
        text.find('\0') != std::string::npos) {
        throw Error{"png: the keyword of a text is \"" + keyword +
                    "\"; allowed are 1 to 79 characters, and no zero bytes in it or its text"};
    }
    const auto ends_keyword = std::string_view{"\0", 1};
    if (is_ascii(text)) {
        chunks.add("tEXt", [&](Bytes& file) {
            put_text(file, keyword);
            put_text(file, ends_keyword);
            put_text(file, text);
        });
        return;
    }
    chunks.add("iTXt", [&](Bytes& file) {
        put_text(file, keyword);
        put_text(file, ends_keyword);
        put_zeros(file, 4);  // not compressed, no language, no keyword in it
        put_text(file, text);
    });
}

Packed pack_for_png(const Surface& picture, Storage storage) {
    if (picture.kernel == &bit1_kernel) return pack_rows_of_bits(picture);
    if (storage == Storage::without_alpha && !is_gray(picture)) return pack_rgb(picture, "png");
    return storage == Storage::fewest_bits ? pack_fewest_bits(picture) : pack_with_palette(picture);
}

}  // namespace

Bytes write_png(const Surface& surface, const SaveOptions& options) {
    const auto picture = pack_for_png(surface, options.storage);
    const auto pixels = png_pixels(picture, options.effort);
    Bytes file;
    file.reserve(pixels.size() + 2000);
    PngChunks chunks{file};
    add_header(chunks, picture);
    if (picture.palette) add_palette(chunks, *picture.palette);
    if (options.density) add_density(chunks, *options.density);
    for (const auto& text : options.texts) add_text(chunks, text);
    // Readers take chunks one at a time, which should not be larger than this.
    constexpr std::size_t at_once = std::size_t{1} << 30U;
    for (std::size_t done = 0; done < pixels.size(); done += at_once) {
        const auto length = std::min(at_once, pixels.size() - done);
        chunks.add("IDAT", [&](Bytes& to) { put_all(to, std::span{pixels.begin() + done, length}); });
    }
    chunks.add("IEND", [](Bytes&) {});
    return file;
}

}  // namespace coldbrick::inline v0::detail
