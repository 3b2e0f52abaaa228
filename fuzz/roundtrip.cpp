// A fuzz target for writers: what each of them writes, the readers give back.
#include <coldbrick/coldbrick.hpp>

#include <algorithm>
#include <cstring>

namespace {

using namespace coldbrick;

template <PixelFormat Format>
void check(const std::uint8_t* bytes, std::size_t count, int width, FileFormat format, const SaveOptions& options) {
    const auto row = static_cast<std::size_t>(width) * bytes_per_pixel<Format>;
    const auto height = std::max<std::size_t>(1, std::min<std::size_t>(count / row, 64));
    Bitmap<Format> picture{{width, static_cast<int>(height)}};
    std::memcpy(picture.pixels().data(), bytes, std::min(count, picture.bytes().size()));
    try {
        const auto read = load<Format>(encode(picture, format, options));
        if (read.bytes() != picture.bytes()) __builtin_trap();
        const auto file = encode(picture, format, options);
        if (file != encode(picture, format, options)) __builtin_trap();
    } catch (const Error&) {  // a kind that has no such pixels
        return;
    }
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t count) {
    if (count < 4) return 0;
    constexpr FileFormat lossless[] = {FileFormat::png, FileFormat::bmp, FileFormat::qoi, FileFormat::pam,
                                       FileFormat::webp};
    const auto format = lossless[bytes[0] % 5];
    const SaveOptions options{.effort = bytes[1] % 2 == 0 ? Effort::usual : Effort::most,
                              .storage = bytes[1] % 4 < 2 ? Storage::as_it_is : Storage::fewest_bits};
    const auto width = 1 + bytes[2] % 70;
    // Pixels that are not seen keep their colours in no kind; opaque ones do in all.
    if (bytes[3] % 3 == 0) check<Gray8>(bytes + 4, count - 4, width, format, options);
    if (bytes[3] % 3 == 1) check<Rgb8>(bytes + 4, count - 4, width, format, options);
    if (bytes[3] % 3 == 2 && format != FileFormat::webp) check<Rgba8>(bytes + 4, count - 4, width, format, options);
    return 0;
}
