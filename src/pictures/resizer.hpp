// Pictures in another size, mixed row by row.
#pragma once

#include "formats/kernels.hpp"
#include "geometry/vectors.hpp"
#include "pictures/resampling_weights.hpp"

#include "coldbrick/pixels.hpp"

#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <cstring>
#include <type_traits>
#include <vector>

namespace coldbrick::inline v0::detail {

// Vectors of numbers that are mixed: of a pixel's four; of 32 bytes, and as many whole ones.
template <class Number>
struct VectorsOf;
template <>
struct VectorsOf<float> {
    using Four = float __attribute__((vector_size(16)));
    using Some = float __attribute__((vector_size(32)));
    using Whole = std::int32_t __attribute__((vector_size(32)));
};
template <>
struct VectorsOf<double> {
    using Four = double __attribute__((vector_size(32)));
    using Some = double __attribute__((vector_size(32)));
    using Whole = std::int32_t __attribute__((vector_size(16)));
};

// Of a pixel's four channels.
template <class Channel>
struct ChannelsOf;
template <>
struct ChannelsOf<std::uint8_t> {
    using Four = std::uint8_t __attribute__((vector_size(4)));
};
template <>
struct ChannelsOf<std::uint16_t> {
    using Four = std::uint16_t __attribute__((vector_size(8)));
};

// How a picture is mixed. In single precision whole numbers below 2^22 stay exact, and their quotients are rounded to
// the right whole number; of more, or of 16 bits a channel, in double precision.
template <class Number, class Texel>
class Resizer {
    // Red, green, blue and alpha; where not all is opaque, the colours are multiplied by alpha.
    using Pixel4 = typename VectorsOf<Number>::Four;
    using Vector = typename VectorsOf<Number>::Some;
    using Whole = typename VectorsOf<Number>::Whole;
    using Channel = decltype(Texel::red);
    using TexelChannels = typename ChannelsOf<decltype(Texel::red)>::Four;
    using Row = std::vector<Number>;
    static constexpr auto whole = std::is_same_v<Texel, Color> ? 255 : 65535;

  public:
    // Of a picture so wide, with alpha or without.
    Resizer(int width, bool has_alpha, const Surface& to, const Mixes<Number>& columns, const Mixes<Number>& rows)
        : has_alpha_{has_alpha},
          to_{to},
          columns_{columns},
          rows_{rows},
          kept_(rows.count, Row(padded(4 * columns.first.size()))),
          numbers_(rows.count, -1),
          are_opaque_(rows.count),
          mixed_(rows.count),
          colors_(static_cast<std::size_t>(width)),
          source_(padded(4 * colors_.size())),
          result_(padded(columns.first.size())) {}

    // A row of the result.
    void find(const Surface& from, int y) {
        const auto& at = from.window.at;
        const auto begin = rows_.first[static_cast<std::size_t>(y)];
        for (auto row = begin; row <= last_of(y); ++row) keep(from, {.x = at.x, .y = at.y + row}, row);
        write(y);
    }

    // The next row of the picture, at a place of a surface; all of the result is there after the last one.
    void take(const Surface& from, Point at, int row) {
        keep(from, at, row);
        for (; next_ < to_.size.height && last_of(next_) <= row; ++next_) write(next_);
    }

  private:
    // So many numbers are mixed at once: rows are as long as a multiple.
    static constexpr std::size_t at_once = 32;
    static constexpr std::size_t padded(std::size_t count) noexcept {
        return (count + at_once - 1) / at_once * at_once;
    }

    [[nodiscard]] int last_of(int y) const noexcept {
        return rows_.first[static_cast<std::size_t>(y)] + static_cast<int>(rows_.count) - 1;
    }

    void write(int y) {
        const auto are_opaque = find_rows(static_cast<std::size_t>(y));
        if constexpr (std::is_same_v<Texel, Color>) {
            // Where colours lie as they are, they need no copy.
            if (are_opaque && to_.kernel->is_color) return mix_opaque(pixel_address(to_, 0, y));
        }
        are_opaque ? mix_opaque(reinterpret_cast<Channel*>(result_.data())) : mix_weighted();
        write_colors(to_, result_.data(), to_.size.width, {.x = 0, .y = y});
    }

    // A row of the picture mixed to as many columns as the result has. The last few are kept.
    void keep(const Surface& from, Point at, int row) {
        const auto place = static_cast<std::size_t>(row) % kept_.size();
        if (numbers_[place] == row) return;
        are_opaque_[place] = read_row(from, at);
        mix_columns(kept_[place]);
        numbers_[place] = row;
    }

    // Says whether all of it is opaque. Else the colours are multiplied by alpha.
    bool read_row(const Surface& from, Point at) {
        const auto* const channels = channels_of(from, at);
        run_in_vectors([=, to = source_.data(), count = 4 * colors_.size()]() COLDBRICK_KERNEL {
            for (std::size_t i = 0; i < count; ++i) to[i] = static_cast<Number>(channels[i]);
        });
        if (!has_alpha_ || are_all_opaque(channels, colors_.size())) return true;
        run_in_vectors([pixels = source_.data(), count = 4 * colors_.size()]() COLDBRICK_KERNEL {
            for (std::size_t i = 0; i < count; i += 4) {
                Pixel4 pixel;
                detail::read(pixels + i, pixel);
                const auto alpha = pixel[3];
                pixel *= Pixel4{alpha, alpha, alpha, 1};
                detail::write(pixel, pixels + i);
            }
        });
        return false;
    }

    // Of colours as they lie, or that are read first.
    const Channel* channels_of(const Surface& from, Point at) {
        if constexpr (std::is_same_v<Texel, Color>) {
            if (from.kernel->is_color) return pixel_address(from, at.x, at.y);
        }
        read_colors(from, at, static_cast<int>(colors_.size()), colors_.data());
        return reinterpret_cast<const Channel*>(colors_.data());
    }

    static bool are_all_opaque(const Channel* channels, std::size_t pixels) noexcept {
        auto common = Channel{whole};
        run_in_vectors([=, to = &common]() COLDBRICK_KERNEL {
            auto all = Channel{whole};
            for (std::size_t i = 0; i < pixels; ++i) all &= channels[4 * i + 3];
            *to = all;
        });
        return common == whole;
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
                Pixel4 even{};
                Pixel4 odd{};
                const auto add = [&](std::size_t k, Pixel4& to_sum) COLDBRICK_KERNEL {
                    Pixel4 pixel;
                    detail::read(pixels + 4 * k, pixel);
                    to_sum += pixel * weight[k];
                };
                std::size_t k = 0;
                for (; k + 2 <= taps; k += 2) {
                    add(k, even);
                    add(k + 1, odd);
                }
                if (k < taps) add(k, even);
                even += odd;
                detail::write(even, to + 4 * x);
            }
        });
    }

    // A row that is mixed to one of the result, by a weight.
    struct Mixed {
        const Number* numbers;
        Number weight;
        bool is_opaque;
    };

    // Those of a row of the result. Says whether all are opaque.
    bool find_rows(std::size_t y) {
        auto are_opaque = true;
        mixed_.clear();
        for (std::size_t k = 0; k < rows_.count; ++k) {
            const auto weight = rows_.weights[y * rows_.count + k];
            if (weight == 0 && k > 0) continue;
            const auto place = (static_cast<std::size_t>(rows_.first[y]) + k) % kept_.size();
            mixed_.push_back({.numbers = kept_[place].data(), .weight = weight, .is_opaque = are_opaque_[place] != 0});
            are_opaque = are_opaque && mixed_.back().is_opaque;
        }
        return are_opaque;
    }

    [[nodiscard]] Number sum() const noexcept { return static_cast<Number>(columns_.sum * rows_.sum); }

    // To the nearest values, as many as the row has.
    void mix_opaque(Channel* row) {
        run_in_vectors([=, rows = mixed_.data(), taps = mixed_.size(), sum = sum(), count = 4 * columns_.first.size(),
                        to = row]() COLDBRICK_KERNEL {
            constexpr auto lanes = sizeof(Vector) / sizeof(Number);
            constexpr auto vectors = at_once / lanes;
            for (std::size_t i = 0; i < count; i += at_once) {
                Vector mixed[vectors] = {};
                for (std::size_t k = 0; k < taps; ++k) {
                    const auto weight = rows[k].weight;
                    for (std::size_t v = 0; v < vectors; ++v) {
                        Vector more;
                        detail::read(rows[k].numbers + i + v * lanes, more);
                        mixed[v] += more * weight;
                    }
                }
                std::int32_t nearest[at_once];
                for (std::size_t v = 0; v < vectors; ++v) {
                    const auto rounded = __builtin_convertvector(mixed[v] / sum + Number{0.5}, Whole);
                    detail::write(rounded, nearest + v * lanes);
                }
                const auto put = [&](Channel* channels) COLDBRICK_KERNEL {
                    for (std::size_t k = 0; k < at_once; ++k) {
                        channels[k] = static_cast<Channel>(std::min(std::max(nearest[k], 0), whole));
                    }
                };
                if (i + at_once <= count) {
                    put(to + i);
                } else {
                    Channel last[at_once];
                    put(last);
                    std::memcpy(to + i, last, (count - i) * sizeof(Channel));
                }
            }
        });
    }

    // Colours multiplied by alpha. Those of opaque rows are not yet.
    void mix_weighted() {
        run_in_vectors([=, rows = mixed_.data(), taps = mixed_.size(), sum = sum(), to = result_.data(),
                        count = columns_.first.size()]() COLDBRICK_KERNEL {
            using Whole4 = std::int32_t __attribute__((vector_size(16)));
            const auto most = Pixel4{} + Number{whole};
            for (std::size_t x = 0; x < count; ++x) {
                Pixel4 mixed{};
                for (std::size_t k = 0; k < taps; ++k) {
                    const auto weight = rows[k].weight;
                    const auto of_color = rows[k].is_opaque ? weight * Number{whole} : weight;
                    Pixel4 pixel;
                    detail::read(rows[k].numbers + 4 * x, pixel);
                    mixed += pixel * Pixel4{of_color, of_color, of_color, weight};
                }
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
    std::vector<char> are_opaque_;
    std::vector<Mixed> mixed_;
    std::vector<Texel> colors_;
    Row source_;
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
