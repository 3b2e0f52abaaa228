#include "pictures/resampling_weights.hpp"

#include "geometry/integers.hpp"
#include "geometry/trigonometry.hpp"

#include <cmath>
#include <cstdint>
#include <numbers>
#include <numeric>

namespace coldbrick::inline v0::detail {

namespace {

// A pixel of one picture counts as as wide as the other has pixels, in lowest terms: whole numbers.
Mix box_mix(int i, int from, int to) {
    const auto common = std::gcd(from, to);
    from /= common;
    to /= common;
    const auto begin = std::int64_t{i} * from;
    const auto end = begin + from;
    Mix mix{.first = static_cast<int>(begin / to), .weights = {}, .sum = double{1} * from};
    for (auto k = std::int64_t{mix.first}; k * to < end; ++k) {
        mix.weights.push_back(static_cast<double>(std::min(end, (k + 1) * to) - std::max(begin, k * to)));
    }
    return mix;
}

// By a kernel of the distance in pixels that reaches so far; widened where the picture is reduced. What it gives to
// places outside goes to the outermost pixels. Where both sizes have a common divisor, pixels lie alike again and
// again.
template <class Kernel>
class KernelMixes {
  public:
    KernelMixes(int from, int to, double reach, const Kernel& kernel)
        : from_{from}, step_{from / std::gcd(from, to)}, period_{to / std::gcd(from, to)} {
        const auto wide = std::max(1.0, double{1} * from / to);
        for (int i = 0; i < period_; ++i) {
            const auto center = (i + 0.5) * from / to - 0.5;
            auto& phase = phases_.emplace_back();
            phase.first = static_cast<int>(std::ceil(center - reach * wide));
            const auto last = static_cast<int>(std::floor(center + reach * wide));
            for (int k = phase.first; k <= last; ++k) phase.weights.push_back(kernel((k - center) / wide));
        }
    }

    [[nodiscard]] Mix operator()(int i) const {
        const auto& phase = phases_[static_cast<std::size_t>(i % period_)];
        const auto begin = std::int64_t{phase.first} + std::int64_t{i / period_} * step_;
        const auto clamped = [&](std::size_t k) {
            return static_cast<int>(std::clamp<std::int64_t>(begin + static_cast<std::int64_t>(k), 0, from_ - 1));
        };
        const auto count = phase.weights.size();
        Mix mix{.first = clamped(0), .weights = {}, .sum = 0};
        mix.weights.resize(static_cast<std::size_t>(clamped(count - 1) - mix.first) + 1);
        for (std::size_t k = 0; k < count; ++k) {
            mix.weights[static_cast<std::size_t>(clamped(k) - mix.first)] += phase.weights[k];
            mix.sum += phase.weights[k];
        }
        return mix;
    }

  private:
    // Of a pixel: the first one that it is mixed of, which may lie outside.
    struct Phase {
        int first = 0;
        std::vector<double> weights;
    };
    int from_;
    int step_;
    int period_;
    std::vector<Phase> phases_;
};

// By a triangle as wide as two of the picture's pixels, where it is not reduced: in units of half a pixel of the
// result, in lowest terms. What it gives to places outside goes to the outermost pixels.
Mix triangle_mix(int i, int from, int to) {
    const auto common = std::gcd(from, to);
    const auto unit = std::int64_t{2} * (to / common);
    const auto center = (std::int64_t{2} * i + 1) * (from / common) - to / common;
    const auto left = floor_div(center, unit);
    const auto right_weight = center - left * unit;
    const auto clamped = [&](std::int64_t k) { return static_cast<int>(std::clamp<std::int64_t>(k, 0, from - 1)); };
    Mix mix{.first = clamped(left),
            .weights = {static_cast<double>(unit - right_weight)},
            .sum = static_cast<double>(unit)};
    if (clamped(left + 1) == mix.first) {
        mix.weights.front() = mix.sum;
    } else if (right_weight > 0) {
        mix.weights.push_back(static_cast<double>(right_weight));
    }
    return mix;
}

double triangle(double distance) noexcept { return std::max(0.0, 1 - std::fabs(distance)); }

double lanczos(double distance) noexcept {
    constexpr auto lobes = 3.0;
    if (std::fabs(distance) >= lobes) return 0;
    if (distance == 0) return 1;
    const auto x = std::numbers::pi * distance;
    const auto half_turns = [](double count) { return direction_of(Angle::degrees(180 * count)).y; };
    return lobes * half_turns(distance) * half_turns(distance / lobes) / (x * x);
}

}  // namespace

double box_sum(int from, int to) noexcept {
    const auto in_lowest_terms = from / std::gcd(from, to);
    return in_lowest_terms;
}

std::vector<Mix> mixes(int from, int to, Scaling how) {
    std::vector<Mix> all;
    all.reserve(static_cast<std::size_t>(to));
    const auto add_all = [&](const auto& mix_of) {
        for (int i = 0; i < to; ++i) all.push_back(mix_of(i));
    };
    if (how == Scaling::box) {
        add_all([=](int i) { return box_mix(i, from, to); });
    } else if (how == Scaling::lanczos) {
        add_all(KernelMixes{from, to, 3, lanczos});
    } else if (from <= to) {
        add_all([=](int i) { return triangle_mix(i, from, to); });
    } else {
        add_all(KernelMixes{from, to, 1, triangle});
    }
    return all;
}

}  // namespace coldbrick::inline v0::detail
