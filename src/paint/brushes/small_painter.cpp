#include "paint/brushes/small_painter.hpp"

#include "formats/kernels.hpp"
#include "geometry/vectors.hpp"
#include "paint/brushes/painter.hpp"
#include "shapes/small_areas.hpp"

#include <array>
#include <cstring>

namespace coldbrick::inline v0::detail {

namespace {

// Writes or blends rows, or pixels of a line, that lie in the window.
struct RowPainter {
    const Surface& surface;
    Color color;
    Pixel pixel;  // of an opaque one

    Box operator()(const LinePixels& line) const {
        const auto bytes = std::ptrdiff_t{surface.kernel->pixel_bytes()};
        const auto steps = line.is_steep ? TraceSteps{.along = surface.stride, .across = bytes}
                                         : TraceSteps{.along = bytes, .across = surface.stride};
        if (is_of_words()) {
            for_each_traced(surface.top_left, line.trace, steps,
                            [own = pixel](std::uint8_t* at) { std::memcpy(at, own.data(), 4); });
        } else {
            const auto set = color.alpha == 255 ? surface.kernel->put : surface.kernel->lay;
            for_each_traced(surface.top_left, line.trace, steps, [&](std::uint8_t* at) { set(at, color); });
        }
        return line.box;
    }

    template <class Rows>
    COLDBRICK_INLINE Box operator()(const Rows& rows) const {
        if (is_of_words()) return write_words(rows);
        if (color.alpha != 255) return scan_unclipped(rows, OverPainter{surface, color}.sink());
        return write_others(rows);
    }

  private:
    [[nodiscard]] bool is_of_words() const noexcept { return color.alpha == 255 && surface.kernel->pixel_bits == 32; }

    // Out of line, as it makes room for long runs.
    template <class Rows>
    [[gnu::noinline]] Box write_others(const Rows& rows) const {
        OpaquePainter painter{surface, pixel, color, nullptr};
        return scan_unclipped(rows, opaque_sink(painter));
    }

    // Pixels of four bytes.
    template <class Rows>
    COLDBRICK_INLINE Box write_words(const Rows& rows) const noexcept {
        std::array<std::uint8_t, ShortRuns<4>::at_once> four;
        for (std::size_t i = 0; i < four.size(); i += 4) std::memcpy(four.data() + i, pixel.data(), 4);
        const ShortRuns<4> runs{four.data()};
        const auto top = rows.top();
        const auto end = rows.bottom();
        auto* row = pixel_address<4>(surface, {.x = 0, .y = top});
        const auto stride = surface.stride;
        for (auto y = top; y < end; ++y, row += stride) {
            const auto [left, right] = rows.run(y);
            auto* bytes = row + 4 * std::ptrdiff_t{left};
            if (right - left >= 4) {
                runs.store(bytes, 4 * std::ptrdiff_t{right - left});
            } else {
                for (auto i = left; i < right; ++i, bytes += 4) std::memcpy(bytes, four.data(), 4);
            }
        }
        const auto [left, right] = rows.columns();
        return {.at = {.x = left, .y = top}, .size = {.width = right - left, .height = end - top}};
    }
};

}  // namespace

SmallPainter::SmallPainter(const Surface& surface, Color color) noexcept
    : surface_{surface},
      color_{color},
      is_served_{surface.kernel->put != nullptr && !surface.clips && surface.observer == nullptr} {
    if (is_served_ && color.alpha == 255) surface.kernel->put(pixel_.data(), color);
}

Box SmallPainter::paint(const AreaRef& area) const {
    if (!is_served_) return {};
    return with_small_rows(area, surface_.window, RowPainter{surface_, color_, pixel_});
}

}  // namespace coldbrick::inline v0::detail
