#include "files/band_encoder.hpp"

#include "files/writers.hpp"
#include "formats/kernels.hpp"

#include "coldbrick/threads.hpp"

namespace coldbrick::inline v0::detail {

OnePixel::OnePixel(const Surface& like)
    : bytes_(sizeof(Pixel)),
      surface_{{.top_left = bytes_.data(),
                .stride = static_cast<std::ptrdiff_t>(sizeof(Pixel)),
                .size = {.width = 1, .height = 1},
                .window = {.at = {}, .size = {.width = 1, .height = 1}},
                .kernel = like.kernel->pixel_bytes() == 0 ? like.kernel : &packed_kernel(*like.kernel),
                .palette = like.palette}} {
    const Color white{.red = 255, .green = 255, .blue = 255};
    write_colors(surface_, &white, 1, {});
}

namespace {

// Rows of a picture in memory.
struct LentBand {
    Surface picture;
    int first;
    int end;

    [[nodiscard]] Band band() const noexcept {
        auto part = picture;
        const auto above = first > 0 ? 1 : 0;
        part.window.at.y += first - above;
        part.window.size.height = end - first + above;
        return {.pixels = part, .first = first, .end = end};
    }
};

}  // namespace

Bytes encode_in_bands(const Surface& picture, MakeBandEncoder make, const SaveOptions& options) {
    const auto size = picture.window.size;
    const auto encoder = make(picture, size, options);
    // Some at a time, so that all threads have some.
    constexpr auto band_bytes = std::int64_t{1} << 20U;
    const auto row_bytes = picture.kernel->row_bytes(size.width);
    const auto unit = std::int64_t{encoder->unit()};
    const auto rows = unit > 1 ? unit : std::max<std::int64_t>(1, band_bytes / row_bytes);
    Bytes file;
    write_bands(
        *encoder, size.height, static_cast<int>(std::min<std::int64_t>(rows, size.height)),
        allowed_threads("save", options.threads),
        [&](int first, int end) {
            return LentBand{picture, first, end};
        },
        [&](std::span<const std::uint8_t> bytes) { put_all(file, bytes); });
    return file;
}

}  // namespace coldbrick::inline v0::detail
