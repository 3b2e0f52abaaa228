#include "coldbrick/resize.hpp"

#include "formats/kernels.hpp"
#include "geometry/integers.hpp"
#include "geometry/limits.hpp"
#include "geometry/trigonometry.hpp"
#include "geometry/vectors.hpp"
#include "pictures/packed_copy.hpp"

#include "coldbrick/detail/jobs.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstring>
#include <numbers>
#include <numeric>
#include <string>
#include <type_traits>

namespace coldbrick::inline v0::detail {

namespace {

// What a column (or row) of the result is made of: weights of columns from the first on, and their sum.
struct Mix {
    int first;
    std::vector<double> weights;
    double sum;
};

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
// places outside goes to the outermost pixels.
template <class Kernel>
Mix kernel_mix(int i, int from, int to, double reach, const Kernel& kernel) {
    const auto wide = std::max(1.0, double{1} * from / to);
    const auto center = (i + 0.5) * from / to - 0.5;
    const auto last = static_cast<int>(std::floor(center + reach * wide));
    const auto first = static_cast<int>(std::ceil(center - reach * wide));
    Mix mix{.first = std::clamp(first, 0, from - 1), .weights = {}, .sum = 0};
    mix.weights.resize(static_cast<std::size_t>(std::clamp(last, 0, from - 1) - mix.first) + 1);
    for (int k = first; k <= last; ++k) {
        const auto weight = kernel((k - center) / wide);
        mix.weights[static_cast<std::size_t>(std::clamp(k, 0, from - 1) - mix.first)] += weight;
        mix.sum += weight;
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

std::vector<Mix> mixes(int from, int to, Scaling how) {
    std::vector<Mix> all;
    all.reserve(static_cast<std::size_t>(to));
    for (int i = 0; i < to; ++i) {
        if (how == Scaling::box) all.push_back(box_mix(i, from, to));
        if (how == Scaling::bilinear) all.push_back(kernel_mix(i, from, to, 1, triangle));
        if (how == Scaling::lanczos) all.push_back(kernel_mix(i, from, to, 3, lanczos));
    }
    return all;
}

// Columns or rows of the result: of each the first one that it is mixed of, of as many for all, and their weights.
template <class Number>
struct Mixes {
    // Weights of 0 make up for those that one has fewer. By the sum of the weights, which is the same for all, or 1
    // where they need not stay whole numbers.
    Mixes(const std::vector<Mix>& all, int from, Scaling how) : sum{how == Scaling::box ? all.front().sum : 1} {
        for (const auto& mix : all) count = std::max(count, mix.weights.size());
        weights.resize(all.size() * count);
        for (std::size_t i = 0; i < all.size(); ++i) {
            const auto& mix = all[i];
            const auto begin = std::min(mix.first, from - static_cast<int>(count));
            first.push_back(begin);
            auto* const to = weights.data() + i * count + (mix.first - begin);
            const auto unit = how == Scaling::box ? 1 : mix.sum;
            std::transform(mix.weights.begin(), mix.weights.end(), to,
                           [=](double weight) { return static_cast<Number>(weight / unit); });
        }
    }

    double sum;
    std::size_t count = 1;
    std::vector<int> first;
    std::vector<Number> weights;
};

template <class Number>
struct FourOf;
template <>
struct FourOf<float> {
    using Type = float __attribute__((vector_size(16)));
};
template <>
struct FourOf<std::uint8_t> {
    using Type = std::uint8_t __attribute__((vector_size(4)));
};
template <>
struct FourOf<std::uint16_t> {
    using Type = std::uint16_t __attribute__((vector_size(8)));
};
template <>
struct FourOf<double> {
    using Type = double __attribute__((vector_size(32)));
};

// How a picture is mixed. In single precision whole numbers below 2^22 stay exact, and their quotients are rounded to
// the right whole number; of more, or of 16 bits a channel, in double precision.
template <class Number, class Texel>
class Resizer {
    // Red, green, blue and alpha; where not all is opaque, the colours are multiplied by alpha.
    using Pixel4 = typename FourOf<Number>::Type;
    using TexelChannels = typename FourOf<decltype(Texel::red)>::Type;
    using Row = std::vector<Number>;
    static constexpr auto whole = std::is_same_v<Texel, Color> ? 255 : 65535;

  public:
    Resizer(const Surface& from, const Surface& to, const Mixes<Number>& columns, const Mixes<Number>& rows)
        : from_{from},
          to_{to},
          columns_{columns},
          rows_{rows},
          kept_(rows.count, Row(4 * columns.first.size())),
          numbers_(rows.count, -1),
          colors_(static_cast<std::size_t>(from.window.size.width)),
          source_(4 * colors_.size()),
          sums_(4 * columns.first.size()),
          result_(columns.first.size()) {}

    // Rows of the result, from first to end - 1.
    void run(int first, int end) {
        for (auto y = first; y < end; ++y) {
            add_rows(static_cast<std::size_t>(y));
            from_.kernel->has_alpha ? round() : round_opaque();
            write_colors(to_, result_.data(), to_.size.width, {.x = 0, .y = y});
        }
    }

  private:
    // A row of the picture mixed to as many columns as the result has. The last few are kept.
    const Row& row(int y) {
        const auto place = static_cast<std::size_t>(y) % kept_.size();
        if (numbers_[place] != y) {
            read_row_of(y);
            mix_columns(kept_[place]);
            numbers_[place] = y;
        }
        return kept_[place];
    }

    void read_row_of(int y) {
        const auto& at = from_.window.at;
        read_colors(from_, {.x = at.x, .y = at.y + y}, static_cast<int>(colors_.size()), colors_.data());
        run_in_vectors([from = reinterpret_cast<const decltype(Texel::red)*>(colors_.data()), to = source_.data(),
                        count = source_.size()]() COLDBRICK_KERNEL {
            for (std::size_t i = 0; i < count; ++i) to[i] = static_cast<Number>(from[i]);
        });
        if (!from_.kernel->has_alpha) return;
        run_in_vectors([pixels = source_.data(), count = source_.size()]() COLDBRICK_KERNEL {
            for (std::size_t i = 0; i < count; i += 4) {
                Pixel4 pixel;
                read(pixels + i, pixel);
                const auto alpha = pixel[3];
                pixel *= Pixel4{alpha, alpha, alpha, 1};
                write(pixel, pixels + i);
            }
        });
    }

    void mix_columns(Row& row) {
        switch (columns_.count) {
            case 1:
                return mix_columns_of<1>(row);
            case 2:
                return mix_columns_of<2>(row);
            case 3:
                return mix_columns_of<3>(row);
            case 4:
                return mix_columns_of<4>(row);
            default:
                return mix_columns_of<0>(row);
        }
    }

    // Of so many columns each; 0: of any number.
    template <std::size_t known>
    void mix_columns_of(Row& row) {
        run_in_vectors([first = columns_.first.data(), weights = columns_.weights.data(), any = columns_.count,
                        source = source_.data(), to = row.data(), count = columns_.first.size()]() COLDBRICK_KERNEL {
            const auto taps = known > 0 ? known : any;
            for (std::size_t x = 0; x < count; ++x) {
                const auto* pixels = source + std::ptrdiff_t{4} * first[x];
                const auto* const weight = weights + x * taps;
                Pixel4 mixed{};
                for (std::size_t k = 0; k < taps; ++k, pixels += 4) {
                    Pixel4 pixel;
                    read(pixels, pixel);
                    mixed += pixel * weight[k];
                }
                write(mixed, to + 4 * x);
            }
        });
    }

    void add_rows(std::size_t y) {
        for (std::size_t k = 0; k < rows_.count; ++k) {
            const auto weight = rows_.weights[y * rows_.count + k];
            if (weight == 0 && k > 0) continue;
            const auto& more = row(rows_.first[y] + static_cast<int>(k));
            run_in_vectors([=, from = more.data(), to = sums_.data(), count = sums_.size()]() COLDBRICK_KERNEL {
                if (k == 0) {
                    for (std::size_t i = 0; i < count; ++i) to[i] = from[i] * weight;
                } else {
                    for (std::size_t i = 0; i < count; ++i) to[i] += from[i] * weight;
                }
            });
        }
    }

    // To the nearest values.
    void round_opaque() {
        const auto sum = static_cast<Number>(columns_.sum * rows_.sum);
        run_in_vectors([=, from = sums_.data(), to = reinterpret_cast<decltype(Texel::red)*>(result_.data()),
                        count = sums_.size()]() COLDBRICK_KERNEL {
            for (std::size_t i = 0; i < count; ++i) {
                const auto mixed = std::min(std::max(from[i] / sum, Number{0}), Number{whole});
                to[i] = static_cast<decltype(Texel::red)>(static_cast<std::int32_t>(mixed + Number{0.5}));
            }
        });
    }

    void round() {
        const auto sum = static_cast<Number>(columns_.sum * rows_.sum);
        run_in_vectors([=, from = sums_.data(), to = result_.data(), count = result_.size()]() COLDBRICK_KERNEL {
            using Whole4 = std::int32_t __attribute__((vector_size(16)));
            const auto most = Pixel4{} + Number{whole};
            for (std::size_t x = 0; x < count; ++x) {
                Pixel4 mixed;
                read(from + 4 * x, mixed);
                const auto alpha = mixed[3];
                const auto by = alpha > 0 ? alpha : Number{1};
                mixed /= Pixel4{by, by, by, sum};
                mixed = mixed > Number{0} ? mixed : Pixel4{};
                mixed *= alpha > 0 ? Number{1} : Number{0};
                mixed = mixed < most ? mixed : most;
                const auto nearest = __builtin_convertvector(mixed + Number{0.5}, Whole4);
                const auto channels = __builtin_convertvector(nearest, TexelChannels);
                write(channels, static_cast<void*>(to + x));
            }
        });
    }

    const Surface& from_;
    const Surface& to_;
    const Mixes<Number>& columns_;
    const Mixes<Number>& rows_;
    std::vector<Row> kept_;
    std::vector<int> numbers_;
    std::vector<Texel> colors_;
    Row source_;
    Row sums_;
    std::vector<Texel> result_;
};

template <class Number, class Texel>
void resize_as(const Surface& from, const Surface& to, Scaling how, unsigned threads) {
    const auto [width, height_before] = from.window.size;
    const Mixes<Number> columns{mixes(width, to.size.width, how), width, how};
    const Mixes<Number> rows{mixes(height_before, to.size.height, how), height_before, how};
    constexpr auto parts_of_thread = 4;
    const auto height = to.size.height;
    const auto parts = threads <= 1 ? 1 : std::min(height, static_cast<int>(threads) * parts_of_thread);
    for_each_number(static_cast<std::size_t>(parts), threads, [&](std::size_t part) {
        const auto begin_of = [&](std::size_t of) {
            return static_cast<int>(static_cast<std::int64_t>(of) * height / parts);
        };
        Resizer<Number, Texel>{from, to, columns, rows}.run(begin_of(part), begin_of(part + 1));
    });
}

// The greatest whole number that comes up where means of areas are found, whose weights are whole.
double most_of(const Surface& from, Size to) {
    const auto& size = from.window.size;
    const auto weights = box_mix(0, size.width, to.width).sum * box_mix(0, size.height, to.height).sum;
    return 255.0 * (from.kernel->has_alpha ? 255.0 : 1.0) * weights;
}

// The pixel under the centre of one of `in` pixels, of `of`.
int place_under(int i, int of, int in) noexcept {
    return static_cast<int>((2 * std::int64_t{i} + 1) * of / (2 * std::int64_t{in}));
}

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

}  // namespace

Size proportional(Size of, Size wanted) {
    if (wanted.width < 0 || wanted.height < 0 || (wanted.width == 0 && wanted.height == 0)) {
        throw Error{"resize: size is " + std::to_string(wanted.width) + "," + std::to_string(wanted.height) +
                    "; allowed is 1 or more, and 0 for one side that is to be in proportion"};
    }
    const auto side = [](int known, int of_known, int of_other) {
        const auto exact = (std::int64_t{2} * known * of_other + of_known) / (std::int64_t{2} * of_known);
        return static_cast<int>(std::clamp<std::int64_t>(exact, 1, max_coordinate));
    };
    if (wanted.width == 0) wanted.width = side(wanted.height, of.height, of.width);
    if (wanted.height == 0) wanted.height = side(wanted.width, of.width, of.height);
    return wanted;
}

void check_scaling(std::string_view what, Scaling how) {
    check_choice(what, "scaling", how, {"nearest", "box", "bilinear", "lanczos"});
}

void resize(const Surface& from, const Surface& to, Scaling how, int threads) {
    check_scaling("resize", how);
    if (how == Scaling::nearest) return resize_nearest(from, to);
    if (to.kernel == &index8_kernel) {
        throw Error{
            "resize: a picture with a palette can only be resized by nearest (give it colours instead of numbers "
            "first)"};
    }
    const auto allowed = allowed_threads("resize", threads);
    if (from.kernel->load_deep != nullptr || to.kernel->load_deep != nullptr) {
        return resize_as<double, Color16>(from, to, how, allowed);
    }
    constexpr auto most_exact = 4194304.0;  // 2^22
    const auto is_short = how != Scaling::box || most_of(from, to.size) <= most_exact;
    is_short ? resize_as<float, Color>(from, to, how, allowed) : resize_as<double, Color>(from, to, how, allowed);
}

}  // namespace coldbrick::inline v0::detail
