// How each pixel format is written and read, and where a pixel lies.
#pragma once

#include "geometry/thresholds.hpp"
#include "geometry/vectors.hpp"

#include "coldbrick/detail/span_sink.hpp"
#include "coldbrick/detail/target.hpp"
#include "coldbrick/formats.hpp"
#include "coldbrick/palette.hpp"

#include <algorithm>
#include <array>
#include <bit>
#include <cstddef>
#include <cstdint>
#include <cstdlib>
#include <cstring>
#include <span>
#include <type_traits>
#include <vector>

// The layers above the core use these too.
namespace COLDBRICK_PUBLIC coldbrick {
inline namespace v0 {
namespace detail {

// The first byte of a pixel of the buffer, whose format has whole bytes.
inline std::uint8_t* pixel_address(const Target& target, int x, int y) noexcept {
    return target.top_left + y * target.stride + std::ptrdiff_t{x} * target.kernel->pixel_bytes();
}

// The same for a format that is known.
template <int pixel_bytes>
std::uint8_t* pixel_address(const Target& target, Point at) noexcept {
    return target.top_left + at.y * target.stride + std::ptrdiff_t{at.x} * pixel_bytes;
}

// Every pixel size divides it, so bytes of a pattern of pixels can be taken from any multiple of it on.
inline constexpr std::size_t pattern_period = 48;

// The largest pixel's bytes.
using Pixel = std::array<std::uint8_t, 8>;

// The colours of so many pixels of a row, and back, whatever depth the format has. Of a channel's pixels only its own
// bytes are touched.
void read_colors(const Target& target, Point first, int count, Color* colors);
void read_colors(const Target& target, Point first, int count, Color16* colors);

// The colours of a row of the clip, counted from its uppermost.
inline void read_row(const Target& picture, int y, std::vector<Color16>& row) {
    const auto& [at, size] = picture.window;
    row.resize(static_cast<std::size_t>(size.width));
    read_colors(picture, {.x = at.x, .y = at.y + y}, size.width, row.data());
}
void write_colors(const Target& target, const Color* colors, int count, Point first);
void write_colors(const Target& target, const Color16* colors, int count, Point first);

// The bytes of a colour in the target's format; of Bit1, a byte of eight such pixels.
Pixel encode(const Target& target, Color color);
Pixel encode(const Target& target, Color16 color);

// The colour of a pixel.
Color decode(const Target& target, Point pixel);
Color16 decode_deep(const Target& target, Point pixel);

// The format in which a copy of such pixels is kept: the same, or, of one channel, gray without anything between.
const FormatKernel& packed_kernel(const FormatKernel& kernel) noexcept;

// The palette of an Index8 target.
const Palette& palette_of(const Target& target) noexcept;

// Lays a colour on what is covered in part, source-over, by the format's own function.
void cover_with(const Target& target, std::span<const CoverSpan> spans, Color color);

// The same pixels, of which that one is (0, 0). Its size and window are as they were.
Target moved_to(const Target& target, Point pixel) noexcept;

// Of Bit1: sets pixels of a row to white or black.
void write_bits(const Target& target, const Span& run, bool is_white) noexcept;

// One channel of a pixel of so many bytes, as gray.
const FormatKernel& byte_channel_of(int pixel_bytes) noexcept;
const FormatKernel& number_channel_kernel() noexcept;

// Asks for memory so many bytes further on, which is written soon. It may lie beyond the buffer: then nothing happens.
inline void prefetch_at(const std::uint8_t* from, std::ptrdiff_t offset) noexcept {
    const auto place = reinterpret_cast<std::uintptr_t>(from) + static_cast<std::uintptr_t>(offset);
    // As a number, as it may lie beyond the buffer. NOLINTNEXTLINE(performance-no-int-to-ptr)
    __builtin_prefetch(reinterpret_cast<const void*>(place), 1);
}

// Calls use(pixel) with the first byte of each pixel of a trace. Where each lies in another row, it is rarely in the
// nearest cache: memory is asked for some rows ahead.
template <class Use>
COLDBRICK_INLINE void for_each_traced(std::uint8_t* top_left, const Trace& trace, const TraceSteps& steps,
                                      const Use& use) noexcept {
    const auto along = steps.along;
    const auto across = steps.across;
    auto offset = trace.first * along;
    auto place = trace.place;
    const auto go = [&](const auto& before) {
        for (auto i = 0; i < trace.count; ++i) {
            before();
            use(top_left + offset + (place >> 32U) * across);
            offset += along;
            place += trace.step;
        }
    };
    if (std::abs(along) <= std::abs(across)) return go([] {});
    constexpr auto ahead = thresholds::steps_ahead;
    const auto offset_ahead = ahead * along;
    const auto place_ahead = ahead * trace.step;
    go([&] { prefetch_at(top_left, offset + offset_ahead + ((place + place_ahead) >> 32U) * across); });
}

// (a * b) / 255, rounded to the nearest.
constexpr std::uint8_t product_255(unsigned a, unsigned b) noexcept {
    const auto t = a * b + 128;
    return static_cast<std::uint8_t>((t + (t >> 8U)) >> 8U);
}

// One pixel over and over, to be written to runs of bytes.
class PixelPattern {
  public:
    PixelPattern(const Pixel& pixel, int pixel_bytes) noexcept {
        switch (pixel_bytes) {
            case 1:
                begin_with<1>(pixel);
                break;
            case 2:
                begin_with<2>(pixel);
                break;
            case 3:
                begin_with<3>(pixel);
                break;
            case 4:
                begin_with<4>(pixel);
                break;
            case 6:
                begin_with<6>(pixel);
                break;
            default:
                begin_with<8>(pixel);
        }
    }

    [[nodiscard]] const std::uint8_t* pixel() const noexcept { return row_; }

    // Fills the bytes, which begin with a whole pixel.
    void write(std::uint8_t* bytes, std::size_t count) noexcept {
        if (count < 16) {
            write_few(bytes, count);
        } else if (count < long_run) {
            write_some(bytes, count);
        } else {
            write_many(bytes, count);
        }
    }

  private:
    template <std::size_t pixel_bytes>
    void begin_with(const Pixel& pixel) noexcept {
        if constexpr (8 % pixel_bytes == 0) {
            // Eight bytes at a time.
            std::uint64_t word = 0;
            std::memcpy(&word, pixel.data(), 8);
            if constexpr (pixel_bytes < 8) {
                constexpr auto all = ~std::uint64_t{0};
                constexpr auto own = (std::uint64_t{1} << (8 * pixel_bytes)) - 1;
                if constexpr (std::endian::native == std::endian::big) word >>= 8 * (8 - pixel_bytes);
                word = (word & own) * (all / own);
            }
            for (std::size_t i = 0; i < block; i += 8) std::memcpy(row_ + i, &word, 8);
        } else if constexpr (std::endian::native == std::endian::little) {
            // Three words of eight bytes, after which it begins anew.
            constexpr auto bits = 8 * pixel_bytes;
            std::uint64_t word = 0;
            std::memcpy(&word, pixel.data(), pixel_bytes);
            std::array<std::uint64_t, 3> words{};
            for (std::size_t i = 0; i < words.size(); ++i) {
                // Where in the pixel it begins, and where the pixels behind that one.
                const auto from = 64 * i % bits;
                words[i] = word >> from;
                for (auto at = bits - from; at < 64; at += bits) words[i] |= word << at;
            }
            for (std::size_t i = 0; i < block / 8; ++i) std::memcpy(row_ + 8 * i, &words[i % 3], 8);
        } else {
            for (std::size_t i = 0; i < block; ++i) row_[i] = pixel[i % pixel_bytes];
        }
    }

    static constexpr std::size_t block = pattern_period + 16;     // what is set from the start
    static constexpr std::size_t longest = 170 * pattern_period;  // what is set when a long run comes
    static constexpr auto long_run = thresholds::run_by_copy;

    // Below 16 bytes: from both ends with stores that overlap.
    void write_few(std::uint8_t* bytes, std::size_t count) const noexcept {
        const auto store_both_ends = [=, this](auto width) {
            std::memcpy(bytes, row_, width);
            std::memcpy(bytes + count - width, row_ + count - width, width);
        };
        if (count >= 8) {
            store_both_ends(std::integral_constant<std::size_t, 8>{});
        } else if (count >= 4) {
            store_both_ends(std::integral_constant<std::size_t, 4>{});
        } else {
            for (std::size_t i = 0; i < count; ++i) bytes[i] = row_[i];
        }
    }

    // 16 bytes at a time; the last 16 overlap what is before.
    void write_some(std::uint8_t* bytes, std::size_t count) const noexcept {
        if (count <= block) {
            std::memcpy(bytes, row_, 16);
            if (count > 32) {
                std::memcpy(bytes + 16, row_ + 16, 16);
                std::memcpy(bytes + count - 32, row_ + count - 32, 16);
            }
            std::memcpy(bytes + count - 16, row_ + count - 16, 16);
            return;
        }
        auto* const end = bytes + count;
        while (end - bytes >= 48) {
            std::memcpy(bytes, row_, 16);
            std::memcpy(bytes + 16, row_ + 16, 16);
            std::memcpy(bytes + 32, row_ + 32, 16);
            bytes += 48;
        }
        const auto rest = static_cast<std::size_t>(end - bytes);
        if (rest == 0) return;
        if (rest > 16) std::memcpy(bytes, row_, 16);
        if (rest > 32) std::memcpy(bytes + 16, row_ + 16, 16);
        std::memcpy(end - 16, row_ + (rest >= 16 ? rest - 16 : rest + pattern_period - 16), 16);
    }

    void write_many(std::uint8_t* bytes, std::size_t count) noexcept {
        set_up_to(std::min(count, longest));
        for (; count > longest; bytes += longest, count -= longest) copy(bytes, longest);
        copy(bytes, count);
    }

    void set_up_to(std::size_t count) noexcept {
        while (set_ < count) {
            const auto more = std::min(set_, longest - set_);
            std::memcpy(row_ + set_, row_, more);
            set_ += more;
        }
    }

    // From the row, which is in the nearest cache. The processor's own string copy does not read the memory that it
    // is about to overwrite, which plain stores do.
    void copy(std::uint8_t* bytes, std::size_t count) const noexcept {
#if defined(__x86_64__) && defined(__GNUC__)
        const auto* source = row_;
        __asm__ volatile("rep movsb" : "+D"(bytes), "+S"(source), "+c"(count) : : "memory");
#else
        std::memcpy(bytes, row_, count);
#endif
    }

    std::size_t set_ = pattern_period;  // bytes of the row that repeat the pattern, a multiple of its period
    alignas(64) std::uint8_t row_[longest];
};

}  // namespace detail
}  // namespace v0
}  // namespace coldbrick
