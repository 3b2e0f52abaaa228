// PNG (ISO/IEC 15948), compressed by libdeflate.
#include "files/band_encoder.hpp"
#include "files/png_parts.hpp"
#include "files/writers.hpp"

#include "coldbrick/error.hpp"

#include <algorithm>
#include <cmath>
#include <memory>
#include <string>
#include <utility>

namespace coldbrick::inline v0::detail {

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
    if (picture.kernel->pixel_bits == 1) return pack_rows_of_bits(picture);
    if (storage == Storage::without_alpha && !is_gray(picture)) return pack_rgb(picture, "png");
    return pack_with_palette(picture);
}

}  // namespace

namespace {

// What comes before the pixels.
Bytes png_header(const Packed& kind, const SaveOptions& options) {
    Bytes file;
    PngChunks chunks{file};
    add_header(chunks, kind);
    if (kind.palette) add_palette(chunks, *kind.palette);
    if (options.density) add_density(chunks, *options.density);
    for (const auto& text : options.texts) add_text(chunks, text);
    return file;
}

class PngBands final : public BandEncoder {
  public:
    PngBands(Packed kind, const SaveOptions& options) : kind_{std::move(kind)}, options_{options} {}

    [[nodiscard]] int unit() const noexcept override { return png_piece_rows(kind_.row_bytes()); }

    [[nodiscard]] Bytes begin() override {
        waiting_ = PngStream::begin(options_.effort);
        is_begun_ = false;
        return png_header(kind_, options_);
    }

    [[nodiscard]] Prepared prepare(const Band& band) const override {
        return pieces_of(pack_for_png(band.pixels, options_.storage), band.first, band.end);
    }

    // Of rows with the one above them, if they are not the first.
    [[nodiscard]] Prepared pieces_of(const Packed& rows, int first, int end) const {
        const auto above = first > 0 ? 1 : 0;
        Prepared prepared;
        for (auto at = first; at < end; at += std::min(unit(), end - at)) {
            const auto piece_end = at + std::min(unit(), end - at);
            prepared.pieces.push_back(png_piece(rows, at - first + above, piece_end - first + above, options_.effort,
                                                piece_end == kind_.size.height));
        }
        return prepared;
    }

    // The last bytes wait for what comes behind them: one chunk for each piece.
    [[nodiscard]] Bytes add(Prepared&& band) override {
        Bytes file;
        for (auto& piece : band.pieces) {
            if (is_begun_) add_pixels(file);
            is_begun_ = true;
            put_all(waiting_, stream_.add(std::move(piece)));
        }
        return file;
    }

    [[nodiscard]] Bytes end() override {
        put_all(waiting_, stream_.end());
        Bytes file;
        add_pixels(file);
        PngChunks{file, PngChunks::Place::within}.add("IEND", [](Bytes&) {});
        return file;
    }

  private:
    // Readers take chunks one at a time, which should not be larger than this.
    static constexpr std::size_t largest_chunk = std::size_t{1} << 30U;

    void add_pixels(Bytes& file) {
        PngChunks chunks{file, PngChunks::Place::within};
        for (std::size_t done = 0; done < waiting_.size(); done += largest_chunk) {
            const auto length = std::min(largest_chunk, waiting_.size() - done);
            chunks.add("IDAT", [&](Bytes& to) { put_all(to, std::span{waiting_.data() + done, length}); });
        }
        waiting_.clear();
    }

    Packed kind_;  // without pixels
    SaveOptions options_;
    PngStream stream_;
    Bytes waiting_;
    bool is_begun_ = false;
};

// Of a picture that has been looked at as a whole.
Bytes write_packed(Packed picture, const SaveOptions& options) {
    auto kind = Packed{.size = picture.size, .channels = picture.channels, .bits = picture.bits, .bytes = {}};
    kind.palette = picture.palette;
    PngBands bands{std::move(kind), options};
    auto file = bands.begin();
    put_all(file, bands.add(bands.pieces_of(picture, 0, picture.size.height)));
    put_all(file, bands.end());
    return file;
}

}  // namespace

std::unique_ptr<BandEncoder> png_bands(const Surface& like, Size size, const SaveOptions& options) {
    if (options.storage == Storage::fewest_bits) {
        throw Error{
            "png: storage is fewest_bits, which needs the whole picture; allowed are as_it_is and without_alpha"};
    }
    auto kind = pack_for_png(OnePixel{like}.surface(), options.storage);
    kind.size = size;
    return std::make_unique<PngBands>(std::move(kind), options);
}

Bytes write_png(const Surface& surface, const SaveOptions& options) {
    const auto needs_all = options.storage == Storage::fewest_bits && surface.kernel->pixel_bits != 1;
    if (needs_all) return write_packed(pack_fewest_bits(surface), options);
    auto as_it_is = options;
    if (surface.kernel->pixel_bits == 1) as_it_is.storage = Storage::as_it_is;
    return encode_in_bands(surface, png_bands, as_it_is);
}

}  // namespace coldbrick::inline v0::detail
