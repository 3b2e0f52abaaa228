// Pictures to the bytes of files.
#include "pixels/kernels.hpp"

#include "coldbrick/convert.hpp"
#include "coldbrick/error.hpp"
#include "coldbrick/files.hpp"

#include <algorithm>
#include <array>
#include <csetjmp>
#include <new>
#include <string>

#include <png.h>

namespace coldbrick::detail {

namespace {

using Bytes = std::vector<std::uint8_t>;

// A picture with its rows packed and its channels in the order of files; those of 16 bits the higher byte first.
struct Packed {
    Size size;
    int channels;  // 1: gray, 3: RGB, 4: RGBA
    int bits;      // 8 or 16 for each channel
    Bytes bytes;
};

template <PixelFormat Format>
Packed pack(const Surface& picture) {
    Bitmap<Format> packed{picture.clip.size};
    convert(picture, SurfaceAccess::of(packed));
    return {.size = packed.size(), .channels = bytes_per_pixel<Format>, .bits = 8, .bytes = packed.bytes()};
}

bool is_deep(const Surface& picture) noexcept { return picture.kernel->load_deep != nullptr; }

// In 16 bits: as many channels as are asked for.
Packed pack_deep(const Surface& picture, int channels) {
    Packed packed{.size = picture.clip.size, .channels = channels, .bits = 16, .bytes = {}};
    const auto [at, size] = picture.clip;
    for (int y = at.y; y < at.y + size.height; ++y) {
        for (int x = at.x; x < at.x + size.width; ++x) {
            const auto color = decode_deep(picture, pixel_address(picture, x, y));
            const auto values = std::array{color.red, color.green, color.blue, color.alpha};
            for (int channel = 0; channel < channels; ++channel) {
                const auto value = values[static_cast<std::size_t>(channel)];
                packed.bytes.push_back(static_cast<std::uint8_t>(value >> 8U));
                packed.bytes.push_back(static_cast<std::uint8_t>(value));
            }
        }
    }
    return packed;
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
    return is_deep(picture) ? pack_deep(picture, 1) : pack<Gray8>(picture);
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
    return is_deep(picture) ? pack_deep(picture, 3) : pack<Rgb8>(picture);
}

Packed pack_as_is(const Surface& picture) {
    if (is_deep(picture)) return pack_deep(picture, is_gray(picture) ? 1 : 4);
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

// The greatest value of a channel.
std::string most_of(const Packed& picture) { return picture.bits == 16 ? "65535" : "255"; }

Bytes encode_pnm(const Packed& picture) {
    const auto* const kind = picture.channels == 1 ? "P5\n" : "P6\n";
    return with_header(kind + std::to_string(picture.size.width) + " " + std::to_string(picture.size.height) + "\n" +
                           most_of(picture) + "\n",
                       picture.bytes);
}

Bytes encode_pam(const Packed& picture) {
    const auto* const tuple = picture.channels == 1 ? "GRAYSCALE" : picture.channels == 3 ? "RGB" : "RGB_ALPHA";
    return with_header("P7\nWIDTH " + std::to_string(picture.size.width) + "\nHEIGHT " +
                           std::to_string(picture.size.height) + "\nDEPTH " + std::to_string(picture.channels) +
                           "\nMAXVAL " + most_of(picture) + "\nTUPLTYPE " + tuple + "\nENDHDR\n",
                       picture.bytes);
}

// What a call of libpng has written, or what it says is wrong.
struct PngOutput {
    Bytes file;
    std::string fault;

    // libpng never sees an exception: it is left by its own long jump.
    static void append(png_structp png, png_bytep bytes, std::size_t count) {
        auto& file = static_cast<PngOutput*>(png_get_io_ptr(png))->file;
        auto has_room = true;
        try {
            file.insert(file.end(), bytes, bytes + count);
        } catch (const std::bad_alloc&) {
            has_room = false;
        }
        if (!has_room) png_error(png, "there is no memory for it");
    }
    [[noreturn]] static void on_error(png_structp png, png_const_charp message) {
        static_cast<PngOutput*>(png_get_error_ptr(png))->fault = message;
        png_longjmp(png, 1);
    }
    static void on_warning(png_structp, png_const_charp) {}
};

// Says whether all went well. There is nothing in it that a long jump could leave undone.
bool write_png(png_structp png, png_infop info, const Packed& picture) {
    // NOLINTNEXTLINE(cert-err52-cpp): libpng knows no other way.
    if (setjmp(png_jmpbuf(png)) != 0) return false;
    const auto kind = picture.channels == 1   ? PNG_COLOR_TYPE_GRAY
                      : picture.channels == 3 ? PNG_COLOR_TYPE_RGB
                                              : PNG_COLOR_TYPE_RGB_ALPHA;
    png_set_IHDR(png, info, static_cast<png_uint_32>(picture.size.width), static_cast<png_uint_32>(picture.size.height),
                 picture.bits, kind, PNG_INTERLACE_NONE, PNG_COMPRESSION_TYPE_DEFAULT, PNG_FILTER_TYPE_DEFAULT);
    png_write_info(png, info);
    const auto row_bytes =
        static_cast<std::size_t>(picture.size.width) * static_cast<std::size_t>(picture.channels * picture.bits / 8);
    for (int y = 0; y < picture.size.height; ++y) {
        png_write_row(png, picture.bytes.data() + static_cast<std::size_t>(y) * row_bytes);
    }
    png_write_end(png, info);
    return true;
}

Bytes encode_png(const Packed& picture) {
    PngOutput output;
    auto* png = png_create_write_struct(PNG_LIBPNG_VER_STRING, &output, PngOutput::on_error, PngOutput::on_warning);
    auto* info = png != nullptr ? png_create_info_struct(png) : nullptr;
    auto is_written = false;
    if (info != nullptr) {
        png_set_write_fn(png, &output, PngOutput::append, [](png_structp) {});
        is_written = write_png(png, info, picture);
    }
    png_destroy_write_struct(&png, &info);
    if (!is_written) throw Error{"png: " + (output.fault.empty() ? "there is no memory for it" : output.fault)};
    return std::move(output.file);
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
