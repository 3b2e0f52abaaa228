// JPEG, by libjpeg-turbo.
#include "files/jpeg_calls.hpp"
#include "files/writers.hpp"

#include <cmath>
#include <cstdlib>

namespace coldbrick::detail {

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

void set_density(jpeg_compress_struct& jpeg, const Density& density) {
    const auto is_inch = density.unit == Density::Unit::inch;
    const auto scale = density.unit == Density::Unit::meter ? 0.01 : 1.0;  // to the centimetre
    jpeg.density_unit = is_inch ? 1 : density.unit == Density::Unit::meter ? 2 : 0;
    jpeg.X_density = static_cast<UINT16>(std::lround(density.across * scale));
    jpeg.Y_density = static_cast<UINT16>(std::lround(density.down * scale));
}

// From this quality on colour is kept at full resolution.
constexpr auto full_color_quality = 90;

void write(JpegWriter& writer, const Packed& picture, const SaveOptions& options) {
    auto& jpeg = writer.jpeg;
    jpeg_create_compress(&jpeg);
    jpeg_mem_dest(&jpeg, &writer.file, &writer.length);
    jpeg.image_width = static_cast<JDIMENSION>(picture.size.width);
    jpeg.image_height = static_cast<JDIMENSION>(picture.size.height);
    jpeg.input_components = picture.channels;
    jpeg.in_color_space = picture.channels == 1 ? JCS_GRAYSCALE : JCS_RGB;
    jpeg_set_defaults(&jpeg);
    jpeg_set_quality(&jpeg, options.quality, TRUE);
    jpeg.optimize_coding = TRUE;
    if (picture.channels == 3 && options.quality >= full_color_quality) {
        jpeg.comp_info[0].h_samp_factor = 1;
        jpeg.comp_info[0].v_samp_factor = 1;
    }
    if (options.density) set_density(jpeg, *options.density);
    jpeg_start_compress(&jpeg, TRUE);
    for (int y = 0; y < picture.size.height; ++y) {
        JSAMPROW rows[] = {const_cast<JSAMPROW>(picture.row(y))};
        jpeg_write_scanlines(&jpeg, rows, 1);
    }
    jpeg_finish_compress(&jpeg);
}

}  // namespace

Bytes write_jpeg(const Packed& picture, const SaveOptions& options) {
    JpegWriter writer;
    writer.jpeg.err = writer.faults.set_up();
    writer.faults.run([&] { write(writer, picture, options); });
    return {writer.file, writer.file + writer.length};
}

}  // namespace coldbrick::detail
