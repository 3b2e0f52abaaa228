#include "coldbrick/convert.hpp"

#include "formats/color_rows.hpp"
#include "formats/kernels.hpp"
#include "formats/palette_numbers.hpp"
#include "geometry/limits.hpp"
#include "pictures/packed_copy.hpp"

#include "coldbrick/detail/jobs.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <cstring>
#include <string_view>

namespace coldbrick::inline v0::detail {

namespace {

// Rows that are colours as they lie in memory, on one of the sides.
bool convert_color_rows(const Surface& from, const Surface& to) {
    const auto [at, size] = from.window;
    if (!from.kernel->is_color && !to.kernel->is_color) return false;
    for (int y = 0; y < size.height; ++y) {
        const auto first = Point{.x = at.x, .y = at.y + y};
        if (to.kernel->is_color) {
            read_colors(from, first, size.width, reinterpret_cast<Color*>(pixel_address(to, 0, y)));
        } else {
            const auto* const colors = reinterpret_cast<const Color*>(pixel_address(from, first.x, first.y));
            write_colors(to, colors, size.width, {.x = 0, .y = y});
        }
    }
    return true;
}

// Rows of which the bytes change places.
bool convert_swapped_rows(const Surface& from, const Surface& to) {
    const auto has_order = [](const Surface& of) {
        return of.kernel->pixel_bits == 24 && of.kernel->order != ChannelOrder::other;
    };
    const auto is_swapped = has_order(from) && has_order(to) && from.kernel->order != to.kernel->order;
    if (!is_swapped) return false;
    const auto [at, size] = from.window;
    for (int y = 0; y < size.height; ++y) {
        swap_rgb_row(pixel_address(from, at.x, at.y + y), static_cast<std::size_t>(size.width),
                     pixel_address(to, 0, y));
    }
    return true;
}

// To numbers of a palette, of which those that were found are remembered.
void convert_to_numbers(const Surface& from, const Surface& to) {
    const auto [at, size] = from.window;
    std::vector<Color> colors(static_cast<std::size_t>(size.width));
    PaletteNumbers numbers{palette_of(to)};
    for (int y = 0; y < size.height; ++y) {
        read_colors(from, {.x = at.x, .y = at.y + y}, size.width, colors.data());
        numbers.find(colors.data(), size.width, pixel_address(to, 0, y));
    }
}

template <class Texel>
void convert_rows(const Surface& from, const Surface& to) {
    const auto [at, size] = from.window;
    std::vector<Texel> colors(static_cast<std::size_t>(size.width));
    for (int y = 0; y < size.height; ++y) {
        read_colors(from, {.x = at.x, .y = at.y + y}, size.width, colors.data());
        write_colors(to, colors.data(), size.width, {.x = 0, .y = y});
    }
}

void convert_part(const Surface& from, const Surface& to) {
    const auto has_same_colors = !from.kernel->is_indexed || palette_of(from) == palette_of(to);
    if (from.kernel == to.kernel && !from.kernel->is_sparse && has_same_colors) {
        const auto [at, size] = from.window;
        const auto bytes = static_cast<std::size_t>(to.kernel->row_bytes(size.width));
        for (int y = 0; y < size.height; ++y) {
            std::memcpy(pixel_address(to, 0, y), pixel_address(from, at.x, at.y + y), bytes);
        }
        return;
    }
    if (to.kernel->is_indexed) return convert_to_numbers(from, to);
    if (convert_color_rows(from, to) || convert_swapped_rows(from, to)) return;
    from.kernel->load_deep != nullptr ? convert_rows<Color16>(from, to) : convert_rows<Color>(from, to);
}

}  // namespace

void convert(const Surface& from, const Surface& to, int threads) {
    const auto allowed = threads == 1 ? 1 : allowed_threads("convert", threads);
    if (allowed == 1) return convert_part(from, to);
    const auto [at, size] = from.window;
    constexpr auto parts_of_thread = 4;
    const auto parts = std::min(size.height, static_cast<int>(allowed) * parts_of_thread);
    for_each_number(static_cast<std::size_t>(parts), allowed, [&, at = at, size = size](std::size_t part) {
        const auto begin_of = [&](std::size_t of) {
            return static_cast<int>(static_cast<std::int64_t>(of) * size.height / parts);
        };
        const auto begin = begin_of(part);
        auto rows = from;
        rows.window = {.at = {.x = at.x, .y = at.y + begin},
                       .size = {.width = size.width, .height = begin_of(part + 1) - begin}};
        auto result = to;
        static_cast<Target&>(result) = moved_to(to, {.x = 0, .y = begin});
        convert_part(rows, result);
    });
}

namespace {

// Bits that setting pixels may leave are 0.
PixelBytes unset_bytes(Size size, const FormatKernel& kernel) {
    const auto count = bitmap_bytes(size, kernel.pixel_bits);
    const auto sets_all = kernel.is_by_byte || kernel.load_deep != nullptr || kernel.is_indexed;
    return sets_all ? PixelBytes{count, PixelBytes::Unset{}} : PixelBytes{count};
}

}  // namespace

PackedCopy::PackedCopy(const Surface& like, Size size, const FormatKernel& kernel)
    : bytes{unset_bytes(size, kernel)},
      surface{{.top_left = bytes.data(),
               .stride = kernel.row_bytes(size.width),
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
    const auto row_bytes = static_cast<std::size_t>(to.kernel->row_bytes(to.size.width));
    const auto [at, size] = from.window;
    const PixelCopier copier{from, to};
    for (int row = 0; row < size.height; ++row) {
        const auto first = row * factor;
        for (int x = 0; x < size.width; ++x) {
            const auto from_pixel = Point{.x = at.x + x, .y = at.y + row};
            for (int i = 0; i < factor; ++i) copier.copy(from_pixel, {.x = x * factor + i, .y = first});
        }
        auto* const bytes = to.top_left + first * to.stride;
        for (int i = 1; i < factor; ++i) std::memcpy(bytes + i * to.stride, bytes, row_bytes);
    }
}

}  // namespace coldbrick::inline v0::detail
