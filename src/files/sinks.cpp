#include "files/sinks.hpp"

#include "files/readers.hpp"
#include "formats/kernels.hpp"
#include "geometry/integers.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/resize.hpp"

#include <algorithm>
#include <cstdint>
#include <cstdlib>
#include <string>

namespace coldbrick::inline v0::detail {

void PixelSink::begin(std::string_view kind, const StoredPixels& stored, const LoadLimits& limits,
                      std::uint64_t besides) {
    stored_ = stored;
    kept_ = kept_bytes();
    check_memory(kind, kept_ + besides, limits);
    take_memory(kept_ + besides);
    prepare();
}

Surface PixelSink::surface_of(const std::uint8_t* pixels, Size size) const noexcept {
    return {{.top_left = const_cast<std::uint8_t*>(pixels),
             .stride = stored_.kernel->pixel_bytes(),
             .size = size,
             .window = {.at = {}, .size = size},
             .kernel = stored_.kernel,
             .palette = stored_.palette ? &stored_.palette->palette : nullptr},
            nullptr,
            stored_.palette};
}

std::uint64_t PictureSink::kept_bytes() const {
    const auto& kernel = target_.kernel != nullptr ? *target_.kernel : *stored().kernel;
    const auto& [width, height] = stored().size;
    return static_cast<std::uint64_t>(kernel.row_bytes(width)) * static_cast<unsigned>(height);
}

void PictureSink::take_pixels(const std::uint8_t* pixels, int count, Point at, Point step) {
    store(pixels, count, at, step, surface_);
}

void PixelSink::store(const std::uint8_t* pixels, int count, Point at, Point step, const Surface& surface) const {
    // What is not a row is a column of a picture whose rows begin where its pixels lie.
    const auto is_row = step == Point{.x = 1, .y = 0};
    const auto pixel_bytes = surface.kernel->pixel_bytes();
    const auto size = is_row ? Size{.width = count, .height = 1} : Size{.width = 1, .height = count};
    const auto from = surface_of(pixels, size);
    if (!is_row && pixel_bytes == 0) {
        for (int i = 0; i < count; ++i) {
            const auto color = decode(from, {.x = 0, .y = i});
            write_colors(surface, &color, 1, {.x = at.x + i * step.x, .y = at.y + i * step.y});
        }
        return;
    }
    auto to = surface;
    static_cast<Target&>(to) = moved_to(surface, at);
    if (!is_row) to.stride = step.y * surface.stride + std::ptrdiff_t{step.x} * pixel_bytes;
    convert(from, to);
}

namespace {

std::uint64_t bytes_of(const FormatKernel& kernel, Size size) noexcept {
    return static_cast<std::uint64_t>(kernel.row_bytes(size.width)) * static_cast<unsigned>(size.height);
}

Scaling scaling_of(const Excerpt& excerpt, Size from, Size to) noexcept {
    return excerpt.scaling.value_or(usual_scaling(from, to));
}

bool is_resized(const Excerpt& excerpt) noexcept { return excerpt.size != Size{}; }

// From which number on, and up to which, the places begin, begin + by, begin + 2 by ... lie between 0 and length - 1.
struct Numbers {
    std::int64_t first;
    std::int64_t end;
};
Numbers numbers_within(std::int64_t begin, int by, int length) noexcept {
    const auto last = std::int64_t{length} - 1;
    if (by == 0) return {.first = 0, .end = begin >= 0 && begin <= last ? max_coordinate : 0};
    // Counted from the other side, steps go forward.
    if (by < 0) begin = last - begin;
    const auto step = std::abs(std::int64_t{by});
    return {.first = std::max<std::int64_t>(-floor_div(begin, step), 0), .end = floor_div(last - begin, step) + 1};
}

}  // namespace

Box ExcerptSink::wanted_part() const {
    const auto whole = Box{.at = {}, .size = stored().size};
    const auto part = excerpt_.part.value_or(whole);
    if (!part.empty() && intersection(part, whole) == part) return part;
    const auto number = [](int value) { return std::to_string(value); };
    throw Error{"the part " + number(part.at.x) + "," + number(part.at.y) + "," + number(part.size.width) + "," +
                number(part.size.height) + " is not in the picture, which has " + number(whole.size.width) + " x " +
                number(whole.size.height) + " pixels"};
}

StoredPixels ExcerptSink::result_of(const Box& part) const {
    auto result = stored();
    result.comes_in_rows = false;
    result.size = part.size;
    if (!is_resized(excerpt_)) return result;
    result.size = proportional(part.size, excerpt_.size);
    const auto is_mixed = scaling_of(excerpt_, part.size, result.size) != Scaling::nearest;
    if (result.kernel->is_indexed && is_mixed) {
        result.kernel = &rgba8_kernel;
        result.palette = nullptr;
    }
    return result;
}

std::uint64_t ExcerptSink::kept_bytes() const {
    const auto part = wanted_part();
    const auto result = result_of(part);
    const auto& kernel = target_.kernel != nullptr ? *target_.kernel : *result.kernel;
    auto bytes = bytes_of(kernel, result.size);
    if (!is_resized(excerpt_)) return bytes;
    if (!stored().comes_in_rows) return bytes + bytes_of(*stored().kernel, part.size);
    // The rows that are being mixed, of four numbers a pixel.
    constexpr std::uint64_t most_lobes = 6;
    constexpr std::uint64_t number_bytes = 8;
    const auto rows = most_lobes * static_cast<unsigned>(part.size.height / result.size.height + 1);
    return bytes + rows * 4 * number_bytes * static_cast<unsigned>(result.size.width);
}

void ExcerptSink::prepare() {
    part_ = wanted_part();
    const auto result = result_of(part_);
    result_ = target_.make(target_.context, result);
    if (!is_resized(excerpt_)) return;
    if (stored().comes_in_rows) {
        const auto rows = surface_of(nullptr, {.width = part_.size.width, .height = 1});
        resizer_.emplace(part_.size, rows, result_, scaling_of(excerpt_, part_.size, result.size));
        return;
    }
    bytes_.resize(static_cast<std::size_t>(bytes_of(*stored().kernel, part_.size)));
    kept_ = surface_of(bytes_.data(), part_.size);
    kept_.stride = static_cast<std::ptrdiff_t>(stored().kernel->row_bytes(part_.size.width));
}

void ExcerptSink::take_pixels(const std::uint8_t* pixels, int count, Point at, Point step) {
    const auto in_part = at - part_.at;
    const auto across = numbers_within(in_part.x, step.x, part_.size.width);
    const auto down = numbers_within(in_part.y, step.y, part_.size.height);
    const auto first = static_cast<int>(std::max(across.first, down.first));
    const auto end = static_cast<int>(std::min({across.end, down.end, std::int64_t{count}}));
    if (first >= end) return;
    const auto place = Point{.x = in_part.x + first * step.x, .y = in_part.y + first * step.y};
    const auto* const some = pixels + std::ptrdiff_t{first} * stored().kernel->pixel_bytes();
    if (resizer_) {
        const auto row = surface_of(some, {.width = end - first, .height = 1});
        return resizer_->take(row, {}, place.y);
    }
    store(some, end - first, place, step, bytes_.empty() ? result_ : kept_);
}

void ExcerptSink::finish() {
    if (bytes_.empty()) return;
    resize(kept_, result_, scaling_of(excerpt_, part_.size, result_.size));
}

void PlacesSink::prepare() {
    const auto size = stored().size;
    for (std::size_t i = 0; i < places_.size(); ++i) {
        const auto [x, y] = places_[i];
        if (!contains(Box{.at = {}, .size = size}, places_[i])) {
            throw Error{"pixel " + std::to_string(x) + "," + std::to_string(y) +
                        " is outside the picture, which has 0,0 to " + std::to_string(size.width - 1) + "," +
                        std::to_string(size.height - 1)};
        }
        by_row_.emplace(y, i);
        by_column_.emplace(x, i);
    }
}

void PlacesSink::take_pixels(const std::uint8_t* pixels, int count, Point at, Point step) {
    const auto pixels_there = surface_of(pixels, {.width = count, .height = 1});
    const auto look = [&](const auto& places, int key, const auto& way, int along, int by) {
        const auto [first, last] = places.equal_range(key);
        for (auto place = first; place != last; ++place) {
            const auto distance = way(places_[place->second]) - along;
            const auto number = distance / by;
            if (distance % by != 0 || number < 0 || number >= count) continue;
            colors_[place->second] = color16_at(pixels_there, {.x = number, .y = 0});
        }
    };
    const auto x_of = [](Point place) { return place.x; };
    const auto y_of = [](Point place) { return place.y; };
    if (step.y == 0) return look(by_row_, at.y, x_of, at.x, step.x);
    look(by_column_, at.x, y_of, at.y, step.y);
}

}  // namespace coldbrick::inline v0::detail
