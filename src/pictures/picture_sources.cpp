#include "pictures/picture_sources.hpp"

#include "geometry/vectors.hpp"

#include <algorithm>
#include <type_traits>

namespace coldbrick::inline v0::detail {

namespace {

// A colour's channels in 16 bits, as numbers.
using Four = double __attribute__((vector_size(32)));

Color16 color_of(const Four& channels) noexcept {
    // Halves up; none is below 0.
    const auto rounded = [](double value) {
        // NOLINTNEXTLINE(bugprone-incorrect-roundings): halves go up, and no call stands in a loop of vectors.
        return static_cast<std::uint16_t>(static_cast<std::int32_t>(std::min(value, 65535.0) + 0.5));
    };
    return {.red = rounded(channels[0]),
            .green = rounded(channels[1]),
            .blue = rounded(channels[2]),
            .alpha = rounded(channels[3])};
}

void put(const Color16& color, Color& to) noexcept { to = narrowed(color); }
void put(const Color16& color, Color16& to) noexcept { to = color; }

}  // namespace

bool has_opaque_pixels(const Surface& picture) noexcept {
    if (picture.kernel != &index8_kernel) return !picture.kernel->has_alpha;
    const auto colors = palette_of(picture).colors();
    return std::all_of(colors.begin(), colors.end(), [](Color color) { return color.alpha == 255; });
}

// Calls read_pixel(column, row, channels) for the four pixels around where the centre of each one lies.
template <class Texel, class Read>
void SampledSource::sample(Point from, int count, Texel* colors, const Read& read_pixel) const {
    run_in_vectors([=, size = from_.window.size, by = back_.rows(), at = at_]() COLDBRICK_KERNEL {
        for (int i = 0; i < count; ++i) {
            const auto [place_x, place_y] = std::pair{double{1} * from.x + i, double{1} * from.y};
            const auto x = std::clamp(by.xx * place_x + by.xy * place_y + by.dx - at.x, 0.0, size.width - 1.0);
            const auto y = std::clamp(by.yx * place_x + by.yy * place_y + by.dy - at.y, 0.0, size.height - 1.0);
            const auto left = static_cast<int>(x);
            const auto upper = static_cast<int>(y);
            const auto right = std::min(left + 1, size.width - 1);
            const auto lower = std::min(upper + 1, size.height - 1);
            // Colours times alpha, and alpha.
            Four sums{};
            const auto add = [&](int column, int row, double weight) COLDBRICK_KERNEL {
                Four channels;
                read_pixel(column, row, channels);
                const auto alpha = weight * channels[3];
                channels[3] = 1;
                sums += channels * alpha;
            };
            add(left, upper, (left + 1 - x) * (upper + 1 - y));
            add(right, upper, (x - left) * (upper + 1 - y));
            add(left, lower, (left + 1 - x) * (y - upper));
            add(right, lower, (x - left) * (y - upper));
            const auto alpha = sums[3];
            if (alpha > 0) {
                sums /= Four{alpha, alpha, alpha, 1};
                put(color_of(sums), colors[i]);
            } else {
                put(Color16{.alpha = 0}, colors[i]);
            }
        }
    });
}

Color16 SampledSource::color_at(Point at) const {
    auto color = decode_deep(from_, from_.window.at + at);
    if (without_ && narrowed(color) == *without_) color.alpha = 0;
    return color;
}

void SampledSource::fetch(Point from, int count, const Box& /*shape*/, Color16* colors) const {
    sample(from, count, colors, [this](int column, int row, Four& channels) {
        const auto color = color_at({.x = column, .y = row});
        channels =
            Four{double{1} * color.red, double{1} * color.green, double{1} * color.blue, double{1} * color.alpha};
    });
}

void SampledSource::fetch(Point from, int count, const Box& shape, Color* colors) const {
    // Pixels that are as colours are need no stop on the way.
    if (from_.kernel->is_color && !without_) {
        const auto read_bytes = [first = pixel_address<4>(from_, from_.window.at), stride = from_.stride](
                                    int column, int row, Four& channels) COLDBRICK_KERNEL {
            using Bytes4 = std::uint8_t __attribute__((vector_size(4)));
            Bytes4 bytes;
            read(first + row * stride + std::ptrdiff_t{4} * column, bytes);
            channels = __builtin_convertvector(bytes, Four) * 257.0;
        };
        return sample(from, count, colors, read_bytes);
    }
    std::array<Color16, 128> deep;
    for (int done = 0; done < count; done += static_cast<int>(deep.size())) {
        const auto some = std::min(static_cast<int>(deep.size()), count - done);
        fetch({.x = from.x + done, .y = from.y}, some, shape, deep.data());
        std::transform(deep.begin(), deep.begin() + some, colors + done,
                       [](const Color16& color) { return narrowed(color); });
    }
}

}  // namespace coldbrick::inline v0::detail
