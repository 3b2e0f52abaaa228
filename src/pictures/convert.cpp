#include "coldbrick/convert.hpp"

#include "formats/kernels.hpp"
#include "geometry/limits.hpp"
#include "pictures/packed_copy.hpp"

#include "coldbrick/error.hpp"

#include <cstring>
#include <string_view>

namespace coldbrick::inline v0::detail {

namespace {

// Calls use(row of from, row of to, number of pixels) for each row of the clip of from.
template <class Use>
void for_each_row(const Surface& from, const Surface& to, const Use& use) {
    for (int row = 0; row < from.window.size.height; ++row) {
        use(pixel_address(from, from.window.at.x, from.window.at.y + row), pixel_address(to, 0, row),
            from.window.size.width);
    }
}

template <class Texel>
void convert_rows(const Surface& from, const Surface& to) {
    std::vector<Texel> colors(static_cast<std::size_t>(from.window.size.width));
    for_each_row(from, to, [&](const std::uint8_t* source, std::uint8_t* result, int count) {
        read_colors(from, source, count, colors.data());
        write_colors(to, colors.data(), count, result);
    });
}

}  // namespace

void convert(const Surface& from, const Surface& to) {
    const auto has_same_colors = from.kernel != &index8_kernel || palette_of(from) == palette_of(to);
    if (from.kernel == to.kernel && !from.kernel->is_sparse && has_same_colors) {
        const auto pixel_bytes = static_cast<std::size_t>(to.kernel->pixel_bytes);
        for_each_row(from, to, [=](const std::uint8_t* source, std::uint8_t* result, int count) {
            std::memcpy(result, source, static_cast<std::size_t>(count) * pixel_bytes);
        });
        return;
    }
    from.kernel->load_deep != nullptr ? convert_rows<Color16>(from, to) : convert_rows<Color>(from, to);
}

PackedCopy::PackedCopy(const Surface& like, Size size, const FormatKernel& kernel)
    : bytes(bitmap_bytes(size, kernel.pixel_bytes)),
      surface{{.top_left = bytes.data(),
               .stride = std::ptrdiff_t{size.width} * kernel.pixel_bytes,
               .size = size,
               .window = {.at = {}, .size = size},
               .kernel = &kernel,
               .palette = like.palette},
              nullptr,
              like.kept_palette} {}

PackedCopy::PackedCopy(const Surface& of) : PackedCopy{of, of.window.size, packed_kernel(*of.kernel)} {
    convert(of, surface);
}

Size enlarged_size(const Surface& from, int factor) {
    if (from.window.empty()) throw Error{"picture: the view's clip is empty; it must have at least one pixel"};
    if (factor < 1) refuse("enlarge", "factor", factor, 1, max_coordinate);
    const auto [width, height] = from.window.size;
    const auto check_side = [factor](std::string_view field, int side) {
        const auto enlarged = std::int64_t{side} * factor;
        if (enlarged > max_coordinate) refuse("enlarge", field, enlarged, 1, max_coordinate);
    };
    check_side("the new width", width);
    check_side("the new height", height);
    return {.width = width * factor, .height = height * factor};
}

void enlarge(const Surface& from, const Surface& to, int factor) {
    if (from.kernel != to.kernel) return enlarge(PackedCopy{from}.surface, to, factor);
    const auto pixel_bytes = static_cast<std::size_t>(from.kernel->pixel_bytes);
    const auto row_bytes = static_cast<std::size_t>(to.size.width) * pixel_bytes;
    const auto [at, size] = from.window;
    for (int row = 0; row < size.height; ++row) {
        const auto* source = pixel_address(from, at.x, at.y + row);
        auto* const first = pixel_address(to, 0, row * factor);
        auto* result = first;
        for (int x = 0; x < size.width; ++x, source += pixel_bytes) {
            for (int i = 0; i < factor; ++i, result += pixel_bytes) std::memcpy(result, source, pixel_bytes);
        }
        for (int i = 1; i < factor; ++i) std::memcpy(pixel_address(to, 0, row * factor + i), first, row_bytes);
    }
}

}  // namespace coldbrick::inline v0::detail
