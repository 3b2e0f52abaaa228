#include "files/sinks.hpp"

#include "files/readers.hpp"
#include "formats/kernels.hpp"

#include <string>

namespace coldbrick::inline v0::detail {

void PixelSink::begin(std::string_view kind, const StoredPixels& stored, const LoadLimits& limits,
                      std::uint64_t besides) {
    stored_ = stored;
    check_memory(kind, kept_bytes() + besides, limits);
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

void PictureSink::take(const std::uint8_t* pixels, int count, Point at, Point step) {
    // What is not a row is a column of a picture whose rows begin where its pixels lie.
    const auto is_row = step == Point{.x = 1, .y = 0};
    const auto pixel_bytes = surface_.kernel->pixel_bytes();
    const auto size = is_row ? Size{.width = count, .height = 1} : Size{.width = 1, .height = count};
    const auto from = surface_of(pixels, size);
    if (!is_row && pixel_bytes == 0) {
        for (int i = 0; i < count; ++i) {
            const auto color = decode(from, {.x = 0, .y = i});
            write_colors(surface_, &color, 1, {.x = at.x + i * step.x, .y = at.y + i * step.y});
        }
        return;
    }
    auto to = surface_;
    static_cast<Target&>(to) = moved_to(surface_, at);
    if (!is_row) to.stride = step.y * surface_.stride + std::ptrdiff_t{step.x} * pixel_bytes;
    convert(from, to);
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

void PlacesSink::take(const std::uint8_t* pixels, int count, Point at, Point step) {
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
