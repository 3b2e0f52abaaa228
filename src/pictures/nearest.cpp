#include "pictures/nearest.hpp"

#include "formats/kernels.hpp"
#include "pictures/packed_copy.hpp"

#include <cstring>
#include <vector>

namespace coldbrick::inline v0::detail {

namespace {

template <std::size_t bytes>
void copy_places(const std::uint8_t* from, const std::vector<std::ptrdiff_t>& places, std::uint8_t* to) noexcept {
    for (const auto place : places) {
        std::memcpy(to, from + place, bytes);
        to += bytes;
    }
}

// Rows of pixels of whole bytes.
void copy_nearest(const Surface& from, const Surface& to) {
    const auto [at, size] = from.window;
    const auto bytes = from.kernel->pixel_bytes();
    std::vector<std::ptrdiff_t> places;
    for (int x = 0; x < to.size.width; ++x) {
        places.push_back(std::ptrdiff_t{place_under(x, size.width, to.size.width)} * bytes);
    }
    const auto copy = [=] {
        switch (bytes) {
            case 1:
                return copy_places<1>;
            case 2:
                return copy_places<2>;
            case 3:
                return copy_places<3>;
            case 4:
                return copy_places<4>;
            case 6:
                return copy_places<6>;
            default:
                return copy_places<8>;
        }
    }();
    auto last = -1;
    for (int y = 0; y < to.size.height; ++y) {
        const auto row = place_under(y, size.height, to.size.height);
        auto* const pixels = pixel_address(to, 0, y);
        if (row == last) {
            std::memcpy(pixels, pixels - to.stride, static_cast<std::size_t>(to.kernel->row_bytes(to.size.width)));
        } else {
            copy(pixel_address(from, at.x, at.y + row), places, pixels);
        }
        last = row;
    }
}

}  // namespace

void resize_nearest(const Surface& from, const Surface& to) {
    if (from.kernel == to.kernel && !from.kernel->is_sparse && from.kernel->pixel_bytes() > 0)
        return copy_nearest(from, to);
    const auto [at, size] = from.window;
    const PixelCopier copier{from, to};
    for (int y = 0; y < to.size.height; ++y) {
        const auto row = at.y + place_under(y, size.height, to.size.height);
        for (int x = 0; x < to.size.width; ++x) {
            copier.copy({.x = at.x + place_under(x, size.width, to.size.width), .y = row}, {.x = x, .y = y});
        }
    }
}

}  // namespace coldbrick::inline v0::detail
