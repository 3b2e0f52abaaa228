// BMP, by the structures BITMAPFILEHEADER, BITMAPCOREHEADER and BITMAPINFOHEADER to BITMAPV5HEADER as they are
// documented.
#include "files/samples.hpp"

#include <algorithm>
#include <array>
#include <bit>
#include <memory>
#include <string>
#include <vector>

namespace coldbrick::inline v0::detail {

namespace {

enum class Packing : std::uint32_t { none = 0, runs_of_8 = 1, runs_of_4 = 2, masks = 3, masks_with_alpha = 6 };

struct BmpHeader {
    std::size_t pixels;  // where they begin
    std::uint32_t header_bytes;
    Size size;
    bool is_top_down;
    int bits;
    Packing packing = Packing::none;
    std::array<std::uint32_t, 4> masks = {};  // red, green, blue, alpha
    std::size_t colors = 0;
    Density density = {};
};

[[noreturn]] void fail(const std::string& why) { throw Error{"bmp: " + why}; }

constexpr std::uint32_t core_header = 12;
constexpr std::uint32_t info_header = 40;

void check_kind(const BmpHeader& header) {
    const auto bits = header.bits;
    const auto has_runs = header.packing == Packing::runs_of_8 || header.packing == Packing::runs_of_4;
    const auto has_masks = header.packing == Packing::masks || header.packing == Packing::masks_with_alpha;
    if (static_cast<std::uint32_t>(header.packing) > 3 && !has_masks) {
        fail("its compression is " + std::to_string(static_cast<std::uint32_t>(header.packing)) +
             "; known are 0 to 3 and 6");
    }
    constexpr std::array known = {1, 4, 8, 16, 24, 32};
    if (std::find(known.begin(), known.end(), bits) == known.end()) {
        fail("it has " + std::to_string(bits) + " bits a pixel; allowed are 1, 4, 8, 16, 24 and 32");
    }
    if (has_runs && bits != (header.packing == Packing::runs_of_8 ? 8 : 4)) {
        fail("its runs do not go with " + std::to_string(bits) + " bits a pixel");
    }
    if (has_runs && header.is_top_down) fail("it has runs, and rows from top to bottom");
    if (has_masks && bits != 16 && bits != 32)
        fail("its masks do not go with " + std::to_string(bits) + " bits a pixel");
}

// The usual masks where the file has none.
std::array<std::uint32_t, 4> usual_masks(int bits) noexcept {
    if (bits == 16) return {0x7c00, 0x03e0, 0x001f, 0};
    return {0xff0000, 0x00ff00, 0x0000ff, 0};
}

BmpHeader read_header(ByteReader& reader, const LoadLimits& limits) {
    (void)reader.take(10);
    BmpHeader header{
        .pixels = reader.little(4), .header_bytes = reader.little(4), .size = {}, .is_top_down = false, .bits = 0};
    const auto is_core = header.header_bytes == core_header;
    if (!is_core && (header.header_bytes < info_header || header.header_bytes > 1000)) {
        fail("its header has " + std::to_string(header.header_bytes) + " bytes; known are 12, 40, 52, 56, 108 and 124");
    }
    const auto width = is_core ? std::int64_t{reader.little(2)} : static_cast<std::int32_t>(reader.little(4));
    const auto height = is_core ? std::int64_t{reader.little(2)} : static_cast<std::int32_t>(reader.little(4));
    header.is_top_down = height < 0;
    check_size("bmp", width, height < 0 ? -height : height, limits);
    header.size = {.width = static_cast<int>(width), .height = static_cast<int>(height < 0 ? -height : height)};
    (void)reader.take(2);
    header.bits = static_cast<int>(reader.little(2));
    header.masks = usual_masks(header.bits);
    if (!is_core) {
        header.packing = Packing{reader.little(4)};
        (void)reader.take(4);
        header.density.across = reader.little(4);
        header.density.down = reader.little(4);
        header.colors = reader.little(4);
        (void)reader.take(4);
    }
    check_kind(header);
    const auto has_masks = header.packing == Packing::masks || header.packing == Packing::masks_with_alpha;
    if (has_masks) {
        const auto has_alpha = header.packing == Packing::masks_with_alpha || header.header_bytes >= 56;
        for (std::size_t i = 0; i < (has_alpha ? 4 : 3); ++i) header.masks[i] = reader.little(4);
    }
    const auto header_end = std::size_t{14} + header.header_bytes;
    if (reader.place() < header_end) reader.go_to(header_end);
    return header;
}

// The palette stands between the header and the pixels.
Palette read_palette(ByteReader& reader, const BmpHeader& header) {
    const auto most = std::size_t{1} << static_cast<unsigned>(header.bits);
    const auto entry = header.header_bytes == core_header ? std::size_t{3} : std::size_t{4};
    auto count = header.colors == 0 ? most : header.colors;
    if (count > most)
        fail("its palette has " + std::to_string(count) + " colours; allowed are " + std::to_string(most));
    const auto room = header.pixels > reader.place() ? (header.pixels - reader.place()) / entry : 0;
    count = std::min(count, room);
    if (count == 0) fail("it has no palette");
    std::vector<Color> colors;
    colors.reserve(count);
    for (std::size_t i = 0; i < count; ++i) {
        const auto bytes = reader.take(entry);
        colors.push_back({.red = bytes[2], .green = bytes[1], .blue = bytes[0]});
    }
    return Palette{std::move(colors)};
}

// Rows as they follow in the file.
class FileRows {
  public:
    FileRows(const BmpHeader& header, PixelSink& sink) noexcept : header_{header}, sink_{sink} {}

    void take(const std::uint8_t* pixels, int row) const {
        sink_.take_row(pixels, header_.is_top_down ? row : header_.size.height - 1 - row);
    }

  private:
    const BmpHeader& header_;
    PixelSink& sink_;
};

class PaletteNumbers {
  public:
    PaletteNumbers(const BmpHeader& header, std::size_t colors, PixelSink& sink)
        : header_{header},
          rows_{header, sink},
          colors_{colors},
          numbers_(static_cast<std::size_t>(header.size.width)) {}

    void packed(ByteReader& reader) {
        const auto bits = static_cast<unsigned>(header_.bits);
        const auto row_bytes = (static_cast<std::size_t>(header_.size.width) * bits + 31) / 32 * 4;
        const auto per_byte = 8 / bits;
        for (; row_ < header_.size.height; ++row_) {
            const auto bytes = reader.take(row_bytes);
            for (int x = 0; x < header_.size.width; ++x) {
                const auto column = static_cast<unsigned>(x);
                const auto shift = 8 - bits - column % per_byte * bits;
                set(x, (bytes[column / per_byte] >> shift) & ((1U << bits) - 1U));
            }
            rows_.take(numbers_.data(), row_);
        }
    }

    // Pairs of a count and what to repeat; a count of 0 begins what is to be done otherwise.
    void runs(ByteReader& reader) {
        for (;;) {
            const int count = reader.byte();
            const unsigned what = reader.byte();
            if (count > 0) {
                run(count, what);
            } else if (what == 0) {
                x_ = 0;
                go(0, 1);
            } else if (what == 1) {
                while (row_ < header_.size.height) go(0, 1);
                return;
            } else if (what == 2) {
                const int right = reader.byte();
                go(right, reader.byte());
            } else {
                single(reader, static_cast<int>(what));
            }
        }
    }

  private:
    [[nodiscard]] bool is_half() const noexcept { return header_.packing == Packing::runs_of_4; }

    void run(int count, unsigned what) {
        for (int i = 0; i < count; ++i) put(is_half() ? (i % 2 == 0 ? what >> 4U : what & 15U) : what);
    }

    // So many pixels one by one, up to an even number of bytes.
    void single(ByteReader& reader, int count) {
        const auto bytes = reader.take(static_cast<std::size_t>(is_half() ? (count + 3) / 4 * 2 : (count + 1) / 2 * 2));
        for (int i = 0; i < count; ++i) {
            const auto at = static_cast<std::size_t>(i);
            const unsigned byte = bytes[is_half() ? at / 2 : at];
            put(is_half() ? (i % 2 == 0 ? byte >> 4U : byte & 15U) : byte);
        }
    }

    // To the right and to rows read later: as far as the end of a row, and the row behind the last one. What is not
    // reported of a row has number 0.
    void go(int right, int rows) {
        if (right > header_.size.width - x_ || rows > header_.size.height - row_) fail_beyond();
        x_ += right;
        for (int i = 0; i < rows; ++i) {
            rows_.take(numbers_.data(), row_++);
            std::fill(numbers_.begin(), numbers_.end(), std::uint8_t{0});
        }
    }

    void put(unsigned number) {
        if (row_ >= header_.size.height || x_ >= header_.size.width) fail_beyond();
        set(x_++, number);
    }

    [[noreturn]] static void fail_beyond() { fail("its runs go beyond the picture"); }

    void set(int x, unsigned number) {
        if (number >= colors_) {
            fail("a pixel has colour " + std::to_string(number) + ", and the palette " + std::to_string(colors_) +
                 " colours");
        }
        numbers_[static_cast<std::size_t>(x)] = static_cast<std::uint8_t>(number);
    }

    const BmpHeader& header_;
    FileRows rows_;
    std::size_t colors_;
    std::vector<std::uint8_t> numbers_;  // of the row at hand
    int x_ = 0;
    int row_ = 0;
};

// The value of a mask's bits, as 0 to 255.
std::uint8_t channel_of(std::uint32_t pixel, std::uint32_t mask) noexcept {
    if (mask == 0) return 0;
    const auto shift = static_cast<unsigned>(std::countr_zero(mask));
    const std::uint64_t most = mask >> shift;
    return static_cast<std::uint8_t>((2 * std::uint64_t{(pixel & mask) >> shift} * 255 + most) / (2 * most));
}

// The bytes of a row, of more than 8 bits a pixel.
std::size_t row_bytes_of(const BmpHeader& header) noexcept {
    return (static_cast<std::size_t>(header.size.width) * static_cast<std::size_t>(header.bits / 8) + 3) / 4 * 4;
}

void read_colors(FileBytes file_rows, const BmpHeader& header, PixelSink& sink) {
    const auto pixel_bytes = header.bits / 8;
    const auto& masks = header.masks;
    const auto channels = masks[3] != 0 ? std::size_t{4} : std::size_t{3};
    const FileRows rows{header, sink};
    std::vector<std::uint8_t> pixels(static_cast<std::size_t>(header.size.width) * channels);
    for (int row = 0; row < header.size.height; ++row) {
        const auto* bytes = file_rows.data() + static_cast<std::size_t>(row) * row_bytes_of(header);
        for (auto at = pixels.begin(); at != pixels.end(); bytes += pixel_bytes) {
            std::uint32_t pixel = 0;
            for (int i = 0; i < pixel_bytes; ++i) pixel |= std::uint32_t{bytes[i]} << static_cast<unsigned>(8 * i);
            for (std::size_t i = 0; i < channels; ++i) *at++ = channel_of(pixel, masks[i]);
        }
        rows.take(pixels.data(), row);
    }
}

// 32 bits a pixel without masks: by the format's first description the fourth byte means nothing, but many programs
// write alpha there. It is meant if any pixel has some.
void find_meant_alpha(FileBytes rows, BmpHeader& header, PictureInfo& info) {
    if (header.bits != 32 || header.packing != Packing::none) return;
    auto has_alpha = false;
    auto is_translucent = false;
    for (std::size_t i = 3; i < rows.size(); i += 4) {
        has_alpha = has_alpha || rows[i] != 0;
        is_translucent = is_translucent || rows[i] != 255;
    }
    if (!has_alpha || !is_translucent) return;
    header.masks[3] = 0xff000000;
    info.oddities.emplace_back("its pixels' fourth bytes are read as alpha, which its header does not tell");
}

// That a mask is one run of bits.
void check_masks(const BmpHeader& header) {
    for (const auto mask : header.masks) {
        const auto low = mask == 0 ? 0 : mask >> static_cast<unsigned>(std::countr_zero(mask));
        if ((low & (low + 1)) != 0) fail("a mask is not one run of bits");
    }
}

}  // namespace

PictureInfo read_bmp(FileBytes file, const LoadLimits& limits, PixelSink& sink) {
    ByteReader reader{"bmp", file};
    auto header = read_header(reader, limits);
    check_masks(header);
    auto info = PictureInfo{.format = FileFormat::bmp, .size = header.size, .channels = 3, .bits = 8};
    if (header.density.across > 0 && header.density.down > 0) info.density = header.density;
    if (header.is_top_down) info.oddities.emplace_back("its rows go from top to bottom");
    if (header.bits > 8) {
        if (header.bits == 16) info.oddities.emplace_back("it has 16 bits a pixel");
        reader.go_to(header.pixels);
        const auto rows = reader.take(row_bytes_of(header) * static_cast<std::size_t>(header.size.height));
        find_meant_alpha(rows, header, info);
        info.has_alpha = header.masks[3] != 0;
        info.channels = info.has_alpha ? 4 : 3;
        const auto& kernel = info.has_alpha ? rgba8_kernel : rgb8_kernel;
        sink.begin("bmp", {.kernel = &kernel, .size = header.size}, limits);
        read_colors(rows, header, sink);
        note_rest(info, reader.rest());
        return info;
    }
    info.channels = 1;
    info.bits = header.bits;
    info.has_palette = true;
    const auto palette = make_shared_value<KeptPalette>(read_palette(reader, header));
    reader.go_to(header.pixels);
    const auto has_runs = header.packing != Packing::none;
    // Each pixel takes its bits, or a run of up to 255 of them two bytes.
    const auto least = pixel_count(header.size) * static_cast<unsigned>(header.bits) / 8;
    if (!has_runs && least > reader.rest()) fail("the file is too short for its pixels");
    if (has_runs) check_shrinkage("bmp", header.size, file.size(), limits);
    sink.begin("bmp", {.kernel = &index8_kernel, .size = header.size, .palette = palette}, limits);
    PaletteNumbers numbers{header, palette->palette.size(), sink};
    has_runs ? numbers.runs(reader) : numbers.packed(reader);
    note_rest(info, reader.rest());
    return info;
}

}  // namespace coldbrick::inline v0::detail
