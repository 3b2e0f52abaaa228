#include "paint/brushes/small_painter.hpp"

#include "formats/kernels.hpp"
#include "geometry/vectors.hpp"
#include "shapes/small_areas.hpp"

#include <cstring>

namespace coldbrick::inline v0::detail {

namespace {

// So many pixels of four bytes.
COLDBRICK_INLINE void write_pixels(std::uint32_t pixel, std::uint8_t* bytes, int count) noexcept {
    const std::array four = {pixel, pixel, pixel, pixel};
    constexpr std::size_t at_once = sizeof four;
    if (count < 4) {
        for (; count > 0; --count, bytes += 4) std::memcpy(bytes, &pixel, 4);
        return;
    }
    // The last ones overlap those before.
    auto* const last = bytes + 4 * std::ptrdiff_t{count} - at_once;
    for (; bytes < last; bytes += at_once) std::memcpy(bytes, four.data(), at_once);
    std::memcpy(last, four.data(), at_once);
}

// Writes or blends rows, or pixels of a line, that lie in the window.
struct RowPainter {
    const Surface& surface;
    Color color;
    std::uint32_t word;

    Box operator()(const LinePixels& line) const {
        if (is_of_words()) {
            set_each(line, 4, [pixel = word](std::uint8_t* at) { std::memcpy(at, &pixel, sizeof pixel); });
        } else {
            const auto set = color.alpha == 255 ? surface.kernel->put : surface.kernel->lay;
            set_each(line, surface.kernel->pixel_bytes(), [=, this](std::uint8_t* at) { set(at, color); });
        }
        return line.box;
    }

    template <class Rows>
    COLDBRICK_INLINE Box operator()(const Rows& rows) const {
        if (is_of_words()) return write_words(rows);
        return scan_unclipped(rows, {.context = const_cast<RowPainter*>(this),
                                     .take = color.alpha == 255 ? write : blend,
                                     .repeats = Repeats::never});
    }

  private:
    [[nodiscard]] bool is_of_words() const noexcept { return color.alpha == 255 && surface.kernel->pixel_bits == 32; }
    static const RowPainter& of(void* context) noexcept { return *static_cast<const RowPainter*>(context); }

    static void write(void* context, std::span<const Span> spans) {
        const auto& [surface, color, word] = of(context);
        Pixel pixel{};
        std::memcpy(pixel.data(), &word, sizeof word);
        PixelPattern pattern{pixel, surface.kernel->pixel_bytes()};
        const auto pixel_bytes = static_cast<std::size_t>(surface.kernel->pixel_bytes());
        for (const auto& [y, x, length] : spans) {
            pattern.write(pixel_address(surface, x, y), static_cast<std::size_t>(length) * pixel_bytes);
        }
    }

    static void blend(void* context, std::span<const Span> spans) {
        of(context).surface.kernel->blend(of(context).surface, spans, of(context).color);
    }

    template <class Rows>
    COLDBRICK_INLINE Box write_words(const Rows& rows) const noexcept {
        const auto top = rows.top();
        const auto end = rows.bottom();
        auto* bytes = pixel_address<4>(surface, {.x = 0, .y = top});
        const auto stride = surface.stride;
        for (auto y = top; y < end; ++y, bytes += stride) {
            const auto [left, right] = rows.run(y);
            write_pixels(word, bytes + 4 * std::ptrdiff_t{left}, right - left);
        }
        const auto [left, right] = rows.columns();
        return {.at = {.x = left, .y = top}, .size = {.width = right - left, .height = end - top}};
    }

    template <class Set>
    COLDBRICK_INLINE void set_each(const LinePixels& line, int pixel_bytes, const Set& set) const noexcept {
        const auto along = line.is_steep ? surface.stride : pixel_bytes;
        const auto across = line.is_steep ? pixel_bytes : surface.stride;
        const auto [first, count, begin, step] = line.trace;
        auto* at = surface.top_left + first * along;
        auto place = begin;
        for (int i = 0; i < count; ++i, at += along, place += step) set(at + (place >> 32U) * across);
    }
};

}  // namespace

SmallPainter::SmallPainter(const Surface& surface, Color color) noexcept
    : surface_{surface},
      color_{color},
      is_served_{surface.kernel->put != nullptr && !surface.clips && surface.observer == nullptr},
      word_{0} {
    if (!is_served_ || color.alpha != 255) return;
    Pixel pixel{};
    surface.kernel->put(pixel.data(), color);
    std::memcpy(&word_, pixel.data(), sizeof word_);
}

Box SmallPainter::paint(const AreaRef& area) const {
    if (!is_served_) return {};
    return with_small_rows(area, surface_.window, RowPainter{surface_, color_, word_});
}

}  // namespace coldbrick::inline v0::detail
