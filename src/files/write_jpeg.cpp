// JPEG, by libjpeg-turbo.
#include "files/jpeg_calls.hpp"
#include "files/writers.hpp"

#include <cmath>
#include <cstdlib>
#include <optional>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

struct JpegWriter {
    JpegWriter() noexcept = default;
    JpegWriter(const JpegWriter&) = delete;
    JpegWriter(JpegWriter&&) = delete;
    JpegWriter& operator=(const JpegWriter&) = delete;
    JpegWriter& operator=(JpegWriter&&) = delete;
    ~JpegWriter() {
        jpeg_destroy_compress(&jpeg);
        std::free(file);  // NOLINT(cppcoreguidelines-no-malloc): libjpeg took it from there.
    }

    JpegFaults faults;
    jpeg_compress_struct jpeg{};
    unsigned char* file = nullptr;
    unsigned long length = 0;
};

// Dots to the inch or the centimetre, whole numbers of 16 bits.
struct JpegDensity {
    UINT8 unit;
    UINT16 across;
    UINT16 down;
};

JpegDensity density_of(const Density& density) {
    const auto scale = density.unit == Density::Unit::meter ? 0.01 : 1.0;
    const auto whole = [&](double value) {
        const auto rounded = std::lround(value * scale);
        constexpr auto most = 65535;
        if (rounded <= most) return static_cast<UINT16>(rounded);
        throw Error{"jpeg: a density is " + std::to_string(rounded) +
                    " to the inch or centimetre; allowed is up to 65535"};
    };
    const auto unit = density.unit == Density::Unit::inch ? 1 : density.unit == Density::Unit::meter ? 2 : 0;
    return {.unit = static_cast<UINT8>(unit), .across = whole(density.across), .down = whole(density.down)};
}

// From this quality on colour is kept at full resolution.
constexpr auto full_color_quality = 90;

void write(JpegWriter& writer, const Packed& picture, int quality, const std::optional<JpegDensity>& density) {
    auto& jpeg = writer.jpeg;
    jpeg_create_compress(&jpeg);
    jpeg_mem_dest(&jpeg, &writer.file, &writer.length);
    jpeg.image_width = static_cast<JDIMENSION>(picture.size.width);
    jpeg.image_height = static_cast<JDIMENSION>(picture.size.height);
    jpeg.input_components = picture.channels;
    jpeg.in_color_space = picture.channels == 1 ? JCS_GRAYSCALE : JCS_RGB;
    jpeg_set_defaults(&jpeg);
    jpeg_set_quality(&jpeg, quality, TRUE);
    jpeg.optimize_coding = TRUE;
    if (picture.channels == 3 && quality >= full_color_quality) {
        jpeg.comp_info[0].h_samp_factor = 1;
        jpeg.comp_info[0].v_samp_factor = 1;
    }
    if (density) {
        jpeg.density_unit = density->unit;
        jpeg.X_density = density->across;
        jpeg.Y_density = density->down;
    }
    jpeg_start_compress(&jpeg, TRUE);
    for (int y = 0; y < picture.size.height; ++y) {
        JSAMPROW rows[] = {const_cast<JSAMPROW>(picture.row(y))};
        jpeg_write_scanlines(&jpeg, rows, 1);
    }
    jpeg_finish_compress(&jpeg);
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

}  // namespace

Bytes write_jpeg(const Surface& surface, const SaveOptions& options) {
    const auto picture = pack_for_jpeg(surface);
    JpegWriter writer;
    writer.jpeg.err = writer.faults.set_up();
    const auto density = options.density ? std::optional{density_of(*options.density)} : std::nullopt;
    writer.faults.run([&] { write(writer, picture, options.quality, density); });
    return {writer.file, writer.file + writer.length};
}

}  // namespace coldbrick::inline v0::detail
