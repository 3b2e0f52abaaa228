#include "paint/blending/over_16.hpp"

#include "formats/kernels.hpp"
#include "geometry/integers.hpp"
#include "geometry/vectors.hpp"
#include "paint/blending/blending.hpp"
#include "paint/blending/blending_rows.hpp"

#include <algorithm>
#include <cstring>

namespace coldbrick::inline v0::detail {

namespace {

// t / 65535 rounded down, for t below 2^32 - 65536.
COLDBRICK_INLINE std::uint32_t by_whole(std::uint32_t t) noexcept { return (t + (t >> 16U) + 1) >> 16U; }

}  // namespace

bool are_deep_opaque(const std::uint8_t* pixels, std::size_t count) noexcept {
    auto all = std::uint64_t{0};
    run_in_vectors([=, opaque = &all]() COLDBRICK_KERNEL {
        auto common = ~std::uint64_t{0};
        for (std::size_t i = 0; i < count; ++i) {
            std::uint64_t pixel = 0;
            std::memcpy(&pixel, pixels + 8 * i, sizeof pixel);
            common &= pixel;
        }
        *opaque = common;
    });
    std::uint16_t alpha = 0;
    std::memcpy(&alpha, reinterpret_cast<const std::uint8_t*>(&all) + 6, sizeof alpha);
    return alpha == 65535;
}

Over16::Over16(const std::array<std::uint16_t, 4>& pixel, std::size_t channels, std::uint32_t alpha) noexcept
    : channels_{channels}, rest_{65535 - alpha} {
    for (std::size_t i = 0; i < period; ++i) source_[i] = pixel[i % channels] * alpha + 32767;
}

bool Over16::lay(const Surface& surface, const Span& run) const noexcept {
    auto* const pixels = pixel_address(surface, run.x, run.y);
    const auto count = static_cast<std::size_t>(run.length);
    if (channels_ == 4 && !are_deep_opaque(pixels, count)) return false;
    run_in_vectors([=, source = source_, rest = rest_, numbers = count * channels_]() COLDBRICK_KERNEL {
        using Numbers8 = std::uint16_t __attribute__((vector_size(16)));
        Words8 own;
        read(source.data(), own);
        std::size_t i = 0;
        for (; i + period <= numbers; i += period) {
            Numbers8 below;
            read(pixels + 2 * i, below);
            Words8 sum = __builtin_convertvector(below, Words8) * rest + own;
            sum = (sum + (sum >> 16) + 1) >> 16;
            const auto mixed = __builtin_convertvector(sum, Numbers8);
            write(mixed, pixels + 2 * i);
        }
        for (; i < numbers; ++i) {
            std::uint16_t below = 0;
            std::memcpy(&below, pixels + 2 * i, sizeof below);
            below = static_cast<std::uint16_t>(by_whole(below * rest + source[i % period]));
            std::memcpy(pixels + 2 * i, &below, sizeof below);
        }
    });
    return true;
}

std::optional<DeepInk> deep_ink_of(const FormatKernel& kernel, const Ink& ink) noexcept {
    if (kernel.load_deep == nullptr || kernel.is_sparse) return std::nullopt;
    auto color = Color16{};
    if (const auto* const shallow = ink.color()) {
        color = widened(*shallow);
    } else if (const auto* const deep = std::get_if<Color16>(&ink.of())) {
        color = *deep;
    } else {
        return std::nullopt;
    }
    return DeepInk{.color = color,
                   .alpha = nearest_whole<std::uint32_t>(color.alpha * whole_opacity(ink.how()) / 65535)};
}

std::optional<Over16> over_16_of(const FormatKernel& kernel, const Ink& ink) noexcept {
    const auto& how = ink.how();
    const auto is_usual = how.blend == Blend::over && how.light == Light::encoded && how.channels == Channels::all;
    const auto deep = is_usual ? deep_ink_of(kernel, ink) : std::nullopt;
    if (!deep) return std::nullopt;
    const auto& [color, alpha] = *deep;
    if (kernel.is_gray) return Over16{{luma(color)}, 1, alpha};
    return Over16{{color.red, color.green, color.blue, 65535}, 4, alpha};
}

}  // namespace coldbrick::inline v0::detail
