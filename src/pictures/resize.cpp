#include "coldbrick/resize.hpp"

#include "formats/kernels.hpp"
#include "geometry/integers.hpp"
#include "geometry/limits.hpp"
#include "geometry/vectors.hpp"
#include "pictures/mixes.hpp"
#include "pictures/nearest.hpp"

#include "coldbrick/detail/jobs.hpp"
#include "coldbrick/error.hpp"

#include <algorithm>
#include <string>
#include <type_traits>

namespace coldbrick::inline v0::detail {

namespace {

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
    const Mixes<Number> columns{mixes(width, to.size.width, how), width};
    const Mixes<Number> rows{mixes(height_before, to.size.height, how), height_before};
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
double most_of(const Surface& from, Size to) noexcept {
    const auto& size = from.window.size;
    const auto weights = box_sum(size.width, to.width) * box_sum(size.height, to.height);
    return 255.0 * (from.kernel->has_alpha ? 255.0 : 1.0) * weights;
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
    const auto allowed = allowed_threads("resize", threads);
    if (how == Scaling::nearest) return resize_nearest(from, to);
    if (to.kernel == &index8_kernel) {
        throw Error{
            "resize: a picture with a palette can only be resized by nearest (give it colours instead of numbers "
            "first)"};
    }
    if (from.kernel->load_deep != nullptr || to.kernel->load_deep != nullptr) {
        return resize_as<double, Color16>(from, to, how, allowed);
    }
    constexpr auto most_exact = 4194304.0;  // 2^22
    const auto is_short = how != Scaling::box || most_of(from, to.size) <= most_exact;
    is_short ? resize_as<float, Color>(from, to, how, allowed) : resize_as<double, Color>(from, to, how, allowed);
}

}  // namespace coldbrick::inline v0::detail
