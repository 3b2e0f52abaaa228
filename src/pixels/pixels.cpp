#include "coldbrick/pixels.hpp"

#include "geometry/limits.hpp"
#include "pixels/kernels.hpp"
#include "pixels/packed_copy.hpp"

#include "coldbrick/convert.hpp"
#include "coldbrick/draw.hpp"
#include "coldbrick/error.hpp"
#include "coldbrick/region.hpp"
#include "coldbrick/smooth_region.hpp"

#include <cstdlib>
#include <cstring>
#include <string>

namespace coldbrick::detail {

namespace {

void check_size(std::string_view what, Size size) {
    if (size.width < 1 || size.width > max_coordinate) refuse(what, "size.width", size.width, 1, max_coordinate);
    if (size.height < 1 || size.height > max_coordinate) refuse(what, "size.height", size.height, 1, max_coordinate);
}

std::string in_words(Size size) { return std::to_string(size.width) + " x " + std::to_string(size.height); }

// Calls use(row of from, row of to, number of pixels) for each row of the clip of from.
template <class Use>
void for_each_row(const Surface& from, const Surface& to, const Use& use) {
    for (int row = 0; row < from.clip.size.height; ++row) {
        use(pixel_address(from, from.clip.at.x, from.clip.at.y + row), pixel_address(to, 0, row), from.clip.size.width);
    }
}

}  // namespace

Surface make_surface(const Memory& memory, int pixel_bytes, const FormatKernel& kernel) {
    if (memory.top_left == nullptr) throw Error{"pixels: top_left is null; it must point to the first pixel"};
    check_size("pixels", memory.size);
    const auto row_bytes = std::ptrdiff_t{memory.size.width} * pixel_bytes;
    const auto stride = memory.stride.value_or(row_bytes);
    if (memory.size.height > 1 && stride < row_bytes && stride > -row_bytes) {
        throw Error{"pixels: stride is " + std::to_string(stride) + "; allowed is " + std::to_string(row_bytes) +
                    " or more (a row of " + std::to_string(memory.size.width) + " pixels), or minus that"};
    }
    return {.top_left = static_cast<std::uint8_t*>(memory.top_left),
            .stride = stride,
            .size = memory.size,
            .clip = {.at = {.x = 0, .y = 0}, .size = memory.size},
            .kernel = &kernel};
}

Surface masked(const Surface& surface, const Region& region) {
    auto narrowed = surface;
    narrowed.mask = std::make_shared<const Region>(surface.mask ? intersection(*surface.mask, region)
                                                                : Region{region, surface.clip});
    narrowed.clip = intersection(surface.clip, narrowed.mask->bounds());
    return narrowed;
}

Surface masked(const Surface& surface, const SmoothRegion& region) {
    auto narrowed = surface;
    narrowed.cover =
        std::make_shared<const SmoothRegion>(surface.cover ? intersection(*surface.cover, region) : region);
    narrowed.clip = intersection(surface.clip, narrowed.cover->bounds());
    return narrowed;
}

Surface channel_of(const Surface& surface, Channels channel) {
    const auto& kernel = *surface.kernel;
    const auto is_reversed = &kernel == &bgr8_kernel || &kernel == &bgra8_kernel;
    const auto place = [&] {
        if (channel == Channels::red) return is_reversed ? 2 : 0;
        if (channel == Channels::green) return 1;
        if (channel == Channels::blue) return is_reversed ? 0 : 2;
        if (channel == Channels::alpha && kernel.has_alpha) return 3;
        throw Error{"channel: the view has no channel of that kind; allowed is one of red, green, blue" +
                    std::string{kernel.has_alpha ? ", alpha" : ""}};
    }();
    const auto is_deep = kernel.load_deep != nullptr;
    auto one = surface;
    one.top_left += is_deep ? 2 * place : place;
    one.kernel = is_deep ? &number_channel_kernel() : &byte_channel_of(kernel.pixel_bytes);
    return one;
}

bool contains(const Surface& surface, Point pixel) noexcept {
    return coldbrick::contains(surface.clip, pixel) && (!surface.mask || surface.mask->contains(pixel)) &&
           (!surface.cover || surface.cover->coverage_at(pixel) > 0);
}

namespace {

void check_seen(const Surface& surface, Point pixel) {
    if (coldbrick::contains(surface.clip, pixel)) return;
    const auto words = [](Point p) { return std::to_string(p.x) + "," + std::to_string(p.y); };
    const auto allowed = surface.clip.empty() ? "no pixel, as the view's clip is empty"
                                              : words(surface.clip.at) + " to " + words(surface.clip.last());
    throw Error{"color_at: pixel " + words(pixel) + " is outside; allowed is " + allowed};
}

}  // namespace

Color color_at(const Surface& surface, Point pixel) {
    check_seen(surface, pixel);
    return decode(surface, pixel_address(surface, pixel.x, pixel.y));
}

Color16 color16_at(const Surface& surface, Point pixel) {
    check_seen(surface, pixel);
    return decode_deep(surface, pixel_address(surface, pixel.x, pixel.y));
}

std::size_t bitmap_bytes(Size size, int pixel_bytes) {
    check_size("bitmap", size);
    const auto pixels = std::uint64_t{static_cast<unsigned>(size.width)} * static_cast<unsigned>(size.height);
    const auto bytes = pixels * static_cast<unsigned>(pixel_bytes);
    if (bytes > max_bitmap_bytes) {
        throw Error{"bitmap: size is " + in_words(size) + ", which takes " + std::to_string(bytes) +
                    " bytes; allowed are " + std::to_string(max_bitmap_bytes)};
    }
    return bytes;
}

void clear(const Surface& surface, Color color) {
    if (surface.clip.empty()) return;
    if (surface.mask || surface.cover || surface.kernel->is_sparse) {
        paint(surface, Ink{color, {.blend = Blend::replace}}, area_ref(surface.clip));
        return;
    }
    PixelPattern pattern{encode(surface, color), surface.kernel->pixel_bytes};
    const auto [at, size] = surface.clip;
    const auto row_bytes = static_cast<std::size_t>(size.width) * static_cast<std::size_t>(surface.kernel->pixel_bytes);
    for (int row = 0; row < size.height; ++row) {
        pattern.write(pixel_address(surface, at.x, at.y + row), row_bytes);
    }
}

namespace {

template <class Texel>
void convert_rows(const Surface& from, const Surface& to) {
    std::vector<Texel> colors(static_cast<std::size_t>(from.clip.size.width));
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
      surface{.top_left = bytes.data(),
              .stride = std::ptrdiff_t{size.width} * kernel.pixel_bytes,
              .size = size,
              .clip = {.at = {}, .size = size},
              .kernel = &kernel,
              .palette = like.palette} {}

PackedCopy::PackedCopy(const Surface& of) : PackedCopy{of, of.clip.size, packed_kernel(*of.kernel)} {
    convert(of, surface);
}

Size enlarged_size(const Surface& from, int factor) {
    if (from.clip.empty()) throw Error{"picture: the view's clip is empty; it must have at least one pixel"};
    if (factor < 1) refuse("enlarge", "factor", factor, 1, max_coordinate);
    const auto [width, height] = from.clip.size;
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
    const auto [at, size] = from.clip;
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

}  // namespace coldbrick::detail
