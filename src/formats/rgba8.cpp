// Rgba8 and Bgra8: rule 5 of docs/pixel-rules.md.
#include "formats/channel_bytes.hpp"
#include "formats/layers.hpp"

#include "coldbrick/formats.hpp"

namespace coldbrick::inline v0::detail {

namespace {

template <Order order>
class AlphaLayer {
  public:
    static constexpr int pixel_bytes = 4;
    explicit AlphaLayer(Color color) noexcept
        : full{encode<order>(with_alpha(color, 255))},
          bytes{read_bytes<4>(full.data())},
          spread_source{spread(bytes)} {}
    void operator()(std::uint8_t* pixel, unsigned alpha) const noexcept {
        if (pixel[alpha_place] == 255) {
            write_bytes<4>(mixed_bytes(spread_source, read_bytes<4>(pixel), alpha), pixel);
        } else {
            over(pixel, with_alpha_of(alpha).data());
        }
    }
    [[nodiscard]] auto ready(std::uint8_t alpha) const noexcept { return AlphaBlend{with_alpha_of(alpha)}; }
    // On a few pixels: four at a time where they are opaque. What is left over of more than four is mixed with those
    // before it, which are as they were: they are looked at first.
    template <class Alphas>
    void run(std::uint8_t* pixels, int count, const Alphas& alphas) const noexcept {
        if (count < 4) return run_few(pixels, count, alphas);
        const auto rest = count % 4;
        const auto most = count - rest;
        const auto last = read_four(pixels + 4 * std::ptrdiff_t{count - 4}, 8);
        for (int i = 0; i < most; i += 4) {
            auto* const at = pixels + 4 * std::ptrdiff_t{i};
            const auto four = read_four(at, 8);
            if (!are_opaque(four)) {
                lay_each(pixels, i, i + 4, alphas);
                continue;
            }
            auto words = as_words(four);
            alphas.mix(i, words);
            std::memcpy(at, &words, sizeof words);
        }
        if (rest == 0) return;
        if (!are_opaque(last)) return lay_each(pixels, most, count, alphas);
        auto words = as_words(last);
        alphas.mix(count - 4, words);
        std::memcpy(pixels + 4 * std::ptrdiff_t{count - 4}, &words, sizeof words);
    }

    [[nodiscard]] std::uint32_t word() const noexcept { return bytes; }

    [[nodiscard]] Bytes4 with_alpha_of(unsigned alpha) const noexcept {
        auto source = full;
        source[alpha_place] = static_cast<std::uint8_t>(alpha);
        return source;
    }

  private:
    // Two pixels, and the two that begin so many bytes behind the first.
    static FourPixels read_four(const std::uint8_t* pixels, std::ptrdiff_t second) noexcept {
        FourPixels four;
        std::memcpy(&four[0], pixels, 8);
        std::memcpy(&four[1], pixels + second, 8);
        return four;
    }
    static FourWords as_words(const FourPixels& four) noexcept {
        FourWords words;
        std::memcpy(&words, &four, sizeof words);
        return words;
    }

    // Where some are translucent, which is rare: it stays out of the loops above.
    template <class Alphas>
    [[gnu::noinline]] void lay_each(std::uint8_t* pixels, int begin, int end, const Alphas& alphas) const noexcept {
        for (auto i = begin; i < end; ++i) (*this)(pixels + 4 * std::ptrdiff_t{i}, alphas.at(i));
    }

    // Fewer than four: two or three are the first two and the last two.
    template <class Alphas>
    void run_few(std::uint8_t* pixels, int count, const Alphas& alphas) const noexcept {
        if (count < 2) return count == 1 ? (*this)(pixels, alphas.at(0)) : void();
        const auto second = 4 * std::ptrdiff_t{count - 2};
        const auto four = read_four(pixels, second);
        if (!are_opaque(four)) return lay_each(pixels, 0, count, alphas);
        auto words = as_words(four);
        alphas.mix_few(count, words);
        FourPixels mixed;
        std::memcpy(&mixed, &words, sizeof mixed);
        std::memcpy(pixels, &mixed[0], 8);
        std::memcpy(pixels + second, &mixed[1], 8);
    }

    Bytes4 full;
    std::uint32_t bytes;
    std::uint64_t spread_source;
};

template <Order order>
constexpr FormatKernel alpha_kernel() noexcept {
    return {.pixel_bits = 32,
            .order = order.channels(),
            .has_alpha = true,
            .is_color = order.red == 0,
            .is_by_byte = true,
            .load = load_channels<order, 4>,
            .store = store_channels<order, 4>,
            .blend = blend_layer<AlphaLayer<order>>,
            .cover = cover_layer<AlphaLayer<order>>,
            .trace = trace_layer<AlphaLayer<order>>,
            .put = put_one<order, 4>,
            .lay = lay_one<AlphaLayer<order>>};
}

}  // namespace

constexpr FormatKernel rgba8_kernel = alpha_kernel<rgb>();
constexpr FormatKernel bgra8_kernel = alpha_kernel<bgr>();

}  // namespace coldbrick::inline v0::detail
