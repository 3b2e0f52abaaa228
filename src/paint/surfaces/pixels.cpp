#include "coldbrick/pixels.hpp"

#include "formats/kernels.hpp"
#include "geometry/limits.hpp"
#include "paint/surfaces/masks.hpp"

#include "coldbrick/detail/clips.hpp"
#include "coldbrick/draw.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <cstdlib>
#include <cstring>
#include <limits>
#include <memory>
#include <string>

namespace coldbrick::inline v0::detail {

namespace {

void check_size(std::string_view what, Size size) {
    if (size.width < 1 || size.width > max_coordinate) refuse(what, "size.width", size.width, 1, max_coordinate);
    if (size.height < 1 || size.height > max_coordinate) refuse(what, "size.height", size.height, 1, max_coordinate);
}

}  // namespace

Surface make_surface(const Memory& memory, const FormatKernel& kernel) {
    if (memory.top_left == nullptr) throw Error{"pixels: top_left is null; it must point to the first pixel"};
    check_size("pixels", memory.size);
    const auto row_bytes = kernel.row_bytes(memory.size.width);
    const auto stride = memory.stride.value_or(row_bytes);
    if (memory.size.height > 1 && stride < row_bytes && stride > -row_bytes) {
        throw Error{"pixels: stride is " + std::to_string(stride) + "; allowed is " + std::to_string(row_bytes) +
                    " or more (a row of " + std::to_string(memory.size.width) + " pixels), or minus that"};
    }
    // No byte of it lies further away than a pointer goes.
    const auto most = std::numeric_limits<std::ptrdiff_t>::max() / 2 / memory.size.height;
    if (memory.size.height > 1 && (stride > most || stride < -most)) {
        throw Error{"pixels: stride is " + std::to_string(stride) + "; allowed for " +
                    std::to_string(memory.size.height) + " rows is up to " + std::to_string(most) + ", or minus that"};
    }
    return Surface{{.top_left = static_cast<std::uint8_t*>(memory.top_left),
                    .stride = stride,
                    .size = memory.size,
                    .window = {.at = {.x = 0, .y = 0}, .size = memory.size},
                    .kernel = &kernel}};
}

const Region* mask_of(const Shared<Clips>& clips) noexcept { return clips->mask.get(); }
const SmoothRegion* cover_of(const Shared<Clips>& clips) noexcept { return clips->cover.get(); }

Shared<Clips> clipped(const Shared<Clips>& clips, const Region& region) {
    auto narrowed = clips ? *clips : Clips{};
    narrowed.mask = std::make_shared<const Region>(narrowed.mask ? intersection(*narrowed.mask, region) : region);
    return make_shared_value<Clips>(std::move(narrowed));
}

Shared<Clips> clipped(const Shared<Clips>& clips, const SmoothRegion& region) {
    auto narrowed = clips ? *clips : Clips{};
    const auto& cover = narrowed.cover;
    narrowed.cover = std::make_shared<const SmoothRegion>(cover ? intersection(*cover, region) : region);
    return make_shared_value<Clips>(std::move(narrowed));
}

Surface masked(const Surface& surface, const Region& region) {
    auto narrowed = surface;
    narrowed.clips = clipped(surface.clips, Region{region, surface.window});
    narrowed.window = intersection(surface.window, narrowed.mask()->bounds());
    return narrowed;
}

Surface masked(const Surface& surface, const SmoothRegion& region) {
    auto narrowed = surface;
    narrowed.clips = clipped(surface.clips, region);
    narrowed.window = intersection(surface.window, narrowed.cover()->bounds());
    return narrowed;
}

Surface channel_of(const Surface& surface, Channels channel) {
    const auto& kernel = *surface.kernel;
    const auto is_reversed = kernel.order == ChannelOrder::bgr;
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
    one.kernel = is_deep ? &number_channel_kernel() : &byte_channel_of(kernel.pixel_bytes());
    return one;
}

bool contains(const Surface& surface, Point pixel) noexcept {
    return coldbrick::contains(surface.window, pixel) &&
           (surface.mask() == nullptr || surface.mask()->contains(pixel)) &&
           (surface.cover() == nullptr || surface.cover()->coverage_at(pixel) > 0);
}

void check_seen(std::string_view call, const Surface& surface, Point pixel) {
    if (coldbrick::contains(surface.window, pixel)) return;
    const auto words = [](Point p) { return std::to_string(p.x) + "," + std::to_string(p.y); };
    const auto allowed = surface.window.empty() ? "no pixel, as the view's clip is empty"
                                                : words(surface.window.at) + " to " + words(surface.window.last());
    throw Error{std::string{call} + ": pixel " + words(pixel) + " is outside; allowed is " + allowed};
}

Color color_at(const Surface& surface, Point pixel) {
    check_seen("color_at", surface, pixel);
    return decode(surface, pixel);
}

Color16 color16_at(const Surface& surface, Point pixel) {
    check_seen("color_at", surface, pixel);
    return decode_deep(surface, pixel);
}

std::uint8_t byte_at(const Surface& surface, Point pixel) {
    check_seen("color_at", surface, pixel);
    return *pixel_address(surface, pixel.x, pixel.y);
}

std::size_t bitmap_bytes(Size size, int pixel_bits) {
    check_size("bitmap", size);
    const auto row_bits = std::uint64_t{static_cast<unsigned>(size.width)} * static_cast<unsigned>(pixel_bits);
    const auto bytes = (row_bits + 7) / 8 * static_cast<unsigned>(size.height);
    // Where addresses have 32 bits, there is less room.
    constexpr auto most = std::min<std::uint64_t>(max_bitmap_bytes, std::numeric_limits<std::ptrdiff_t>::max());
    if (bytes > most) {
        throw Error{"bitmap: size is " + in_words(size) + ", which takes " + std::to_string(bytes) +
                    " bytes; allowed are " + std::to_string(most)};
    }
    return static_cast<std::size_t>(bytes);
}

Size size_of(std::initializer_list<int> sides) {
    if (sides.size() == 2) return {.width = *sides.begin(), .height = *(sides.begin() + 1)};
    throw Error{"bitmap: " + std::to_string(sides.size()) +
                " numbers are given as its size; allowed are two, width and height"};
}

void clear(const Surface& surface, Color color) {
    if (surface.window.empty()) return;
    if (surface.clips || surface.kernel->is_sparse || surface.observer != nullptr) {
        paint(surface, Ink{color, {.blend = Blend::replace}}, area_ref(surface.window));
        return;
    }
    const auto pixel_bytes = surface.kernel->pixel_bytes();
    PixelPattern pattern{encode(surface, color), pixel_bytes};
    const auto [at, size] = surface.window;
    const auto row_bytes = static_cast<std::size_t>(size.width) * static_cast<std::size_t>(pixel_bytes);
    for (int row = 0; row < size.height; ++row) {
        pattern.write(pixel_address(surface, at.x, at.y + row), row_bytes);
    }
}

}  // namespace coldbrick::inline v0::detail
