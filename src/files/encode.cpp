// Pictures to the bytes of files.
#include "pixels/kernels.hpp"

#include "coldbrick/convert.hpp"
#include "coldbrick/error.hpp"
#include "coldbrick/files.hpp"

#include <algorithm>
#include <string>

#include <png.h>

namespace coldbrick::detail {

namespace {

using Bytes = std::vector<std::uint8_t>;

// A picture with its rows packed and its channels in the order of files.
struct Packed {
    Size size;
    int channels;  // 1: gray, 3: RGB, 4: RGBA
    Bytes bytes;
};

template <PixelFormat Format>
Packed pack(const Surface& picture) {
    Bitmap<Format> packed{picture.clip.size};
    convert(picture, SurfaceAccess::of(packed));
    return {.size = packed.size(), .channels = bytes_per_pixel<Format>, .bytes = packed.bytes()};
}

bool is_gray(const Surface& picture) noexcept { return picture.kernel->is_gray; }

// Throws the Error unless every pixel fits the file.
template <class Fits>
void check_pixels(const Surface& picture, const Fits& fits, std::string_view format, std::string_view why) {
    const auto [at, size] = picture.clip;
    for (int y = at.y; y < at.y + size.height; ++y) {
        for (int x = at.x; x < at.x + size.width; ++x) {
            if (fits(decode(picture, pixel_address(picture, x, y)))) continue;
            throw Error{std::string{format} + ": " + std::string{why} + ", as pixel " + std::to_string(x) + "," +
                        std::to_string(y)};
        }
    }
}

Packed pack_gray(const Surface& picture) {
    if (!is_gray(picture)) {
        check_pixels(
            picture, [](Color c) { return c == gray(c.red); }, "pgm",
            "the file holds opaque grays only, and the picture has other colours (convert it to Gray8, or "
            "write png, "
            "ppm or pam)");
    }
    return pack<Gray8>(picture);
}

// Whether it may have translucent pixels.
bool has_alpha(const Surface& picture) {
    if (picture.kernel != &index8_kernel) return picture.kernel->has_alpha;
    const auto colors = palette_of(picture).colors();
    return std::any_of(colors.begin(), colors.end(), [](Color color) { return color.alpha != 255; });
}

Packed pack_rgb(const Surface& picture) {
    if (has_alpha(picture)) {
        check_pixels(
            picture, [](Color c) { return c.alpha == 255; }, "ppm",
            "the file holds opaque colours only, and the picture has translucent pixels (write png or pam)");
    }
    return pack<Rgb8>(picture);
}

Packed pack_as_is(const Surface& picture) {
    if (is_gray(picture)) return pack<Gray8>(picture);
    return has_alpha(picture) ? pack<Rgba8>(picture) : pack<Rgb8>(picture);
}

Bytes with_header(const std::string& header, const Bytes& pixels) {
    Bytes file;
    file.reserve(header.size() + pixels.size());
    file.insert(file.end(), header.begin(), header.end());
    file.insert(file.end(), pixels.begin(), pixels.end());
    return file;
}

Bytes encode_pnm(const Packed& picture) {
    const auto* const kind = picture.channels == 1 ? "P5\n" : "P6\n";
    return with_header(
        kind + std::to_string(picture.size.width) + " " + std::to_string(picture.size.height) + "\n255\n",
        picture.bytes);
}

Bytes encode_pam(const Packed& picture) {
    const auto* const tuple = picture.channels == 1 ? "GRAYSCALE" : picture.channels == 3 ? "RGB" : "RGB_ALPHA";
    return with_header("P7\nWIDTH " + std::to_string(picture.size.width) + "\nHEIGHT " +
                           std::to_string(picture.size.height) + "\nDEPTH " + std::to_string(picture.channels) +
                           "\nMAXVAL 255\nTUPLTYPE " + tuple + "\nENDHDR\n",
                       picture.bytes);
}

Bytes encode_png(const Packed& picture) {
    png_image image{};
    image.version = PNG_IMAGE_VERSION;
    image.width = static_cast<png_uint_32>(picture.size.width);
    image.height = static_cast<png_uint_32>(picture.size.height);
    image.format = picture.channels == 1 ? PNG_FORMAT_GRAY : picture.channels == 3 ? PNG_FORMAT_RGB : PNG_FORMAT_RGBA;
    png_alloc_size_t length = PNG_IMAGE_PNG_SIZE_MAX(image);
    Bytes file(length);
    const auto written = png_image_write_to_memory(&image, file.data(), &length, 0, picture.bytes.data(), 0, nullptr);
    if (written == 0) throw Error{"png: " + std::string{image.message}};
    file.resize(length);
    return file;
}

}  // namespace

std::vector<std::uint8_t> encode(const Surface& picture, FileFormat format) {
    if (picture.clip.empty()) throw Error{"picture: the view's clip is empty; it must have at least one pixel"};
    switch (format) {
        case FileFormat::png:
            return encode_png(pack_as_is(picture));
        case FileFormat::pgm:
            return encode_pnm(pack_gray(picture));
        case FileFormat::ppm:
            return encode_pnm(pack_rgb(picture));
        case FileFormat::pnm:
            return encode_pnm(is_gray(picture) ? pack_gray(picture) : pack_rgb(picture));
        case FileFormat::pam:
            return encode_pam(pack_as_is(picture));
    }
    throw Error{"file format: it is none of png, pgm, ppm, pnm, pam"};
}

}  // namespace coldbrick::detail
