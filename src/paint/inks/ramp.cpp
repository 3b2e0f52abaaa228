#include "paint/inks/ramp.hpp"

#include "geometry/integers.hpp"
#include "geometry/vectors.hpp"

#include <algorithm>
#include <cmath>

namespace coldbrick::inline v0::detail {

namespace {

Dithered dithered(const Color16& color) noexcept {
    // A value v of 16 bits is v / 257 steps. With a threshold t it becomes (64 v + 257 t + 128) / (64 * 257), rounded
    // down: one step more if 257 t >= 64 * 257 - 128 - 64 (v mod 257).
    const auto floor = [](std::uint16_t value) { return static_cast<std::uint8_t>(value / 257U); };
    const auto up_from = [](std::uint16_t value) {
        return static_cast<std::uint8_t>((64U * 257U - 128U - 64U * (value % 257U) + 256U) / 257U);
    };
    const auto each = [&](const auto& of) {
        return Color{.red = of(color.red), .green = of(color.green), .blue = of(color.blue), .alpha = of(color.alpha)};
    };
    return {.floor = each(floor), .up_from = each(up_from)};
}

// A mixture of a first and a second stop's colours, weighted by alpha, at so many parts of the distance between them.
class Mixture {
  public:
    Mixture(const Stop& from, const Stop& to) noexcept
        : first_{channels(from.color)}, second_{channels(to.color)}, at_{from.at}, length_{to.at - from.at} {}

    // The colours at places on the ramp.
    void set(int begin, int end, Color16* colors) const noexcept {
        run_in_vectors([&]() COLDBRICK_KERNEL {
            for (int i = begin; i < end; ++i) colors[i] = at((i + 0.5) / ramp_size);
        });
    }

  private:
    static constexpr std::array<double, 4> channels(Color color) noexcept {
        return {double{1} * color.red, double{1} * color.green, double{1} * color.blue, double{1} * color.alpha};
    }

    [[nodiscard]] COLDBRICK_INLINE Color16 at(double place) const noexcept {
        const auto part = length_ > 0 ? (place - at_) / length_ : 1.0;
        const auto first_weight = first_[3] * (1 - part);
        const auto second_weight = second_[3] * part;
        const auto sum = first_weight + second_weight;
        const auto channel = [&](std::size_t i) {
            if (sum <= 0) return static_cast<std::uint16_t>(257 * (part < 0.5 ? first_[i] : second_[i]));
            const auto mean = (first_[i] * first_weight + second_[i] * second_weight) / sum;
            // NOLINTNEXTLINE(bugprone-incorrect-roundings): halves go up, and no call stands in a loop of vectors.
            return static_cast<std::uint16_t>(static_cast<std::int32_t>(257 * mean + 0.5));
        };
        return {.red = channel(0),
                .green = channel(1),
                .blue = channel(2),
                .alpha = nearest_whole<std::uint16_t>(257 * sum)};
    }

    std::array<double, 4> first_;
    std::array<double, 4> second_;
    double at_;
    double length_;
};

}  // namespace

void round_up(const Dithered* colors, const std::array<std::uint8_t, 8>& thresholds, int count, Color* to) noexcept {
    using Bytes32 = std::uint8_t __attribute__((vector_size(32)));
    run_in_vectors([&]() COLDBRICK_KERNEL {
        Words8 words;
        for (std::size_t i = 0; i < 8; ++i) words[i] = thresholds[i] * 0x01010101U;
        const auto threshold = reinterpret_cast<Bytes32>(words);
        int i = 0;
        for (; i + 8 <= count; i += 8) {
            Words8 first;
            Words8 second;
            read(colors + i, first);
            read(colors + i + 4, second);
            const auto floor =
                reinterpret_cast<Bytes32>(__builtin_shufflevector(first, second, 0, 2, 4, 6, 8, 10, 12, 14));
            const auto up_from =
                reinterpret_cast<Bytes32>(__builtin_shufflevector(first, second, 1, 3, 5, 7, 9, 11, 13, 15));
            const Bytes32 rounded = floor - reinterpret_cast<Bytes32>(threshold >= up_from);
            write(rounded, static_cast<void*>(to + i));
        }
        for (; i < count; ++i) {
            const auto& [floor, up_from] = colors[i];
            const auto each = [&](std::uint8_t value, std::uint8_t from) {
                return static_cast<std::uint8_t>(value + (thresholds[static_cast<std::size_t>(i) % 8] >= from ? 1 : 0));
            };
            to[i] = {.red = each(floor.red, up_from.red),
                     .green = each(floor.green, up_from.green),
                     .blue = each(floor.blue, up_from.blue),
                     .alpha = each(floor.alpha, up_from.alpha)};
        }
    });
}

Ramp::Ramp(const std::vector<Stop>& stops, Dither dither) {
    // The first place that is not before a part of the gradient.
    const auto place_of = [](double at) {
        return static_cast<int>(std::clamp(std::ceil(at * ramp_size - 0.5), 0.0, double{ramp_size}));
    };
    auto place = place_of(stops.front().at);
    std::fill_n(deep.begin(), place, widened(stops.front().color));
    for (std::size_t i = 1; i < stops.size(); ++i) {
        const auto end = place_of(stops[i].at);
        Mixture{stops[i - 1], stops[i]}.set(place, end, deep.data());
        place = end;
    }
    std::fill(deep.begin() + place, deep.end(), widened(stops.back().color));
    std::transform(deep.begin(), deep.end(), colors.begin(), [](const Color16& color) { return narrowed(color); });
    is_opaque = std::all_of(stops.begin(), stops.end(), [](const Stop& stop) { return stop.color.alpha == 255; });
    if (dither == Dither::none) return;
    dithered_colors.resize(ramp_size);
    std::transform(deep.begin(), deep.end(), dithered_colors.begin(), dithered);
}

}  // namespace coldbrick::inline v0::detail
