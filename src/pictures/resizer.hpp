// Pictures in another size, mixed row by row.
#pragma once

#include "formats/kernels.hpp"
#include "geometry/vectors.hpp"
#include "pictures/mixes.hpp"

#include "coldbrick/pixels.hpp"

#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <type_traits>
#include <vector>

namespace coldbrick::inline v0::detail {

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
    // Of a picture so wide, with alpha or without.
    Resizer(int width, bool has_alpha, const Surface& to, const Mixes<Number>& columns, const Mixes<Number>& rows)
        : has_alpha_{has_alpha},
          to_{to},
          columns_{columns},
          rows_{rows},
          kept_(rows.count, Row(4 * columns.first.size())),
          numbers_(rows.count, -1),
          colors_(static_cast<std::size_t>(width)),
          source_(4 * colors_.size()),
          sums_(4 * columns.first.size()),
          result_(columns.first.size()) {}

    // Rows of the result, from first to end - 1.
    void run(const Surface& from, int first, int end) {
        const auto& at = from.window.at;
        for (auto y = first; y < end; ++y) {
            add_rows(static_cast<std::size_t>(y), [&](int row) { keep(from, {.x = at.x, .y = at.y + row}, row); });
            write(y);
        }
    }

    // The next row of the picture, at a place of a surface; all of the result is there after the last one.
    void take(const Surface& from, Point at, int row) {
        keep(from, at, row);
        for (; next_ < to_.size.height && last_of(next_) <= row; ++next_) {
            add_rows(static_cast<std::size_t>(next_), [](int) {});
            write(next_);
        }
    }

  private:
    [[nodiscard]] int last_of(int y) const noexcept {
        return rows_.first[static_cast<std::size_t>(y)] + static_cast<int>(rows_.count) - 1;
    }

    void write(int y) {
        has_alpha_ ? round() : round_opaque();
        write_colors(to_, result_.data(), to_.size.width, {.x = 0, .y = y});
    }

    // A row of the picture mixed to as many columns as the result has. The last few are kept.
    void keep(const Surface& from, Point at, int row) {
        const auto place = static_cast<std::size_t>(row) % kept_.size();
        if (numbers_[place] == row) return;
        read_row(from, at);
        mix_columns(kept_[place]);
        numbers_[place] = row;
    }

    void read_row(const Surface& from, Point at) {
        read_colors(from, at, static_cast<int>(colors_.size()), colors_.data());
        run_in_vectors([from = reinterpret_cast<const decltype(Texel::red)*>(colors_.data()), to = source_.data(),
                        count = source_.size()]() COLDBRICK_KERNEL {
            for (std::size_t i = 0; i < count; ++i) to[i] = static_cast<Number>(from[i]);
        });
        if (!has_alpha_) return;
        run_in_vectors([pixels = source_.data(), count = source_.size()]() COLDBRICK_KERNEL {
            for (std::size_t i = 0; i < count; i += 4) {
                Pixel4 pixel;
                detail::read(pixels + i, pixel);
                const auto alpha = pixel[3];
                pixel *= Pixel4{alpha, alpha, alpha, 1};
                detail::write(pixel, pixels + i);
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
                    detail::read(pixels, pixel);
                    mixed += pixel * weight[k];
                }
                detail::write(mixed, to + 4 * x);
            }
        });
    }

    // keep(row) makes sure that a row is kept.
    template <class Keep>
    void add_rows(std::size_t y, const Keep& keep_row) {
        for (std::size_t k = 0; k < rows_.count; ++k) {
            const auto weight = rows_.weights[y * rows_.count + k];
            if (weight == 0 && k > 0) continue;
            const auto number = rows_.first[y] + static_cast<int>(k);
            keep_row(number);
            const auto& more = kept_[static_cast<std::size_t>(number) % kept_.size()];
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
                detail::read(from + 4 * x, mixed);
                const auto alpha = mixed[3];
                const auto by = alpha > 0 ? alpha : Number{1};
                mixed /= Pixel4{by, by, by, sum};
                mixed = mixed > Number{0} ? mixed : Pixel4{};
                mixed *= alpha > 0 ? Number{1} : Number{0};
                mixed = mixed < most ? mixed : most;
                const auto nearest = __builtin_convertvector(mixed + Number{0.5}, Whole4);
                const auto channels = __builtin_convertvector(nearest, TexelChannels);
                detail::write(channels, static_cast<void*>(to + x));
            }
        });
    }

    bool has_alpha_;
    const Surface& to_;
    const Mixes<Number>& columns_;
    const Mixes<Number>& rows_;
    std::vector<Row> kept_;
    std::vector<int> numbers_;
    std::vector<Texel> colors_;
    Row source_;
    Row sums_;
    std::vector<Texel> result_;
    int next_ = 0;  // the row of the result that is to be written next
};

// Whether means of areas of such a picture come out exactly in single precision.
inline bool is_exact_in_short(bool has_alpha, Size from, Size to) noexcept {
    constexpr auto most_exact = 4194304.0;  // 2^22
    const auto weights = box_sum(from.width, to.width) * box_sum(from.height, to.height);
    return 255.0 * (has_alpha ? 255.0 : 1.0) * weights <= most_exact;
}

}  // namespace coldbrick::inline v0::detail
