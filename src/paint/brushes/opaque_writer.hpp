// Writes one pixel over and over: inks that replace what is below.
#pragma once

#include "formats/kernels.hpp"
#include "paint/brushes/general_painter.hpp"

namespace coldbrick::inline v0::detail {

// What an opaque ink is written with. What is covered in part is laid by the format's own function, or, where it has
// none, by a painter of colours.
struct OpaquePainter {
    OpaquePainter(const Surface& on, const Pixel& pixel, Color for_cover, GeneralPainter* for_parts) noexcept
        : surface{on}, pattern{pixel, on.kernel->pixel_bytes()}, color{for_cover}, parts{for_parts} {}

    const Surface& surface;
    PixelPattern pattern;
    Color color;
    GeneralPainter* parts;
};

inline OpaquePainter& painter_of(void* context) noexcept { return *static_cast<OpaquePainter*>(context); }

// Runs of up to 256 bytes, of pixels of which some are 16 bytes, which stay in a register.
template <int pixel_bytes>
class ShortRuns {
  public:
    // Of pixels one behind the other.
    explicit ShortRuns(const std::uint8_t* pixels) noexcept { std::memcpy(&block_, pixels, at_once); }

    // Returns whether it is one.
    COLDBRICK_INLINE bool write(std::uint8_t* bytes, std::ptrdiff_t count) const noexcept {
        if (at_once % pixel_bytes != 0 || count < at_once || count > thresholds::run_from_register) return false;
        store(bytes, count);
        return true;
    }
    // Of one that has at_once bytes at least.
    COLDBRICK_INLINE void store(std::uint8_t* bytes, std::ptrdiff_t count) const noexcept {
        // The last ones overlap those before.
        auto* const last = bytes + count - at_once;
        for (; bytes < last; bytes += at_once) std::memcpy(bytes, &block_, at_once);
        std::memcpy(last, &block_, at_once);
    }
    static constexpr std::ptrdiff_t at_once = 16;

  private:
    std::uint8_t block_ __attribute__((vector_size(16)));
};

// The writers for one pixel size. A single pixel, of which hairlines are made, is one or two stores.
template <int pixel_bytes>
struct OpaqueWriter {
    static void write_spans(void* context, std::span<const Span> spans) noexcept {
        auto& painter = painter_of(context);
        const ShortRuns<pixel_bytes> short_runs{painter.pattern.pixel()};
        const auto [first, stride] = std::pair{painter.surface.top_left, painter.surface.stride};
        for (const auto& run : spans) write_run(painter.pattern, short_runs, first + run.y * stride, run);
    }

    // In the row that begins there.
    COLDBRICK_INLINE static void write_run(PixelPattern& pattern, const ShortRuns<pixel_bytes>& short_runs,
                                           std::uint8_t* row, const Span& run) noexcept {
        auto* const first = row + std::ptrdiff_t{run.x} * pixel_bytes;
        const auto bytes = std::ptrdiff_t{run.length} * pixel_bytes;
        if (run.length == 1) {
            std::memcpy(first, pattern.pixel(), pixel_bytes);
        } else if (!short_runs.write(first, bytes)) {
            pattern.write(first, static_cast<std::size_t>(bytes));
        }
    }

    static void write_box(void* context, const Box& box) noexcept {
        auto& painter = painter_of(context);
        const ShortRuns<pixel_bytes> short_runs{painter.pattern.pixel()};
        const auto bytes = std::ptrdiff_t{box.size.width} * pixel_bytes;
        auto* row = pixel_address<pixel_bytes>(painter.surface, box.at);
        for (int i = 0; i < box.size.height; ++i, row += painter.surface.stride) {
            if (!short_runs.write(row, bytes)) painter.pattern.write(row, static_cast<std::size_t>(bytes));
        }
    }

    COLDBRICK_INLINE static void write_trace(const OpaquePainter& painter, const Trace& trace,
                                             const TraceSteps& steps) noexcept {
        std::uint8_t pixel[pixel_bytes];
        std::memcpy(pixel, painter.pattern.pixel(), pixel_bytes);
        for_each_traced(painter.surface.top_left, trace, steps,
                        [&](std::uint8_t* at) { std::memcpy(at, pixel, pixel_bytes); });
    }

    static void write_down(void* context, const Trace& by_row) noexcept {
        const auto& painter = painter_of(context);
        write_trace(painter, by_row, {.along = painter.surface.stride, .across = pixel_bytes});
    }

    static void write_across(void* context, const Trace& by_column) noexcept {
        const auto& painter = painter_of(context);
        write_trace(painter, by_column, {.along = pixel_bytes, .across = painter.surface.stride});
    }

    // What is covered whole is written first. The rest must be read, so its memory is asked for meanwhile, if there is
    // much of it.
    static void write_cover(void* context, std::span<const CoverSpan> spans) {
        auto& [surface, pattern, color, parts] = painter_of(context);
        const ShortRuns<pixel_bytes> short_runs{pattern.pixel()};
        for (const auto& [y, x, length, each, all] : spans) {
            const auto run = Span{.y = y, .x = x, .length = length};
            if (each != nullptr) {
                if (spans.size() > thresholds::few_spans)
                    prefetch_at(surface.top_left, y * surface.stride + std::ptrdiff_t{x} * pixel_bytes);
            } else if (all == 255) {
                write_run(pattern, short_runs, surface.top_left + y * surface.stride, run);
            } else if (parts == nullptr) {
                surface.kernel->blend(surface, {&run, 1}, with_alpha(color, all));
            }
        }
        if (parts == nullptr) return surface.kernel->cover(surface, spans, color);
        parts->paint_parts(spans);
    }

    static SpanSink sink(OpaquePainter& painter) noexcept {
        return {.context = &painter,
                .take = write_spans,
                .repeats = Repeats::harmless,
                .take_down = write_down,
                .take_across = write_across,
                .take_cover = write_cover,
                .take_box = write_box};
    }
};

// The same for eight pixels to a byte. Hairlines come as spans.
struct BitWriter {
    static void write_spans(void* context, std::span<const Span> spans) noexcept {
        const auto& painter = painter_of(context);
        const auto is_white = *painter.pattern.pixel() != 0;
        for (const auto& run : spans) write_bits(painter.surface, run, is_white);
    }

    static void write_cover(void* context, std::span<const CoverSpan> spans) {
        for (const auto& [y, x, length, each, all] : spans) {
            const auto run = Span{.y = y, .x = x, .length = length};
            if (each == nullptr && all == 255) write_spans(context, {&run, 1});
        }
        painter_of(context).parts->paint_parts(spans);
    }

    static SpanSink sink(OpaquePainter& painter) noexcept {
        return {.context = &painter, .take = write_spans, .repeats = Repeats::harmless, .take_cover = write_cover};
    }
};

inline SpanSink opaque_sink(OpaquePainter& painter) noexcept {
    switch (painter.surface.kernel->pixel_bytes()) {
        case 0:
            return BitWriter::sink(painter);
        case 1:
            return OpaqueWriter<1>::sink(painter);
        case 2:
            return OpaqueWriter<2>::sink(painter);
        case 3:
            return OpaqueWriter<3>::sink(painter);
        case 4:
            return OpaqueWriter<4>::sink(painter);
        case 6:
            return OpaqueWriter<6>::sink(painter);
        default:
            return OpaqueWriter<8>::sink(painter);
    }
}

}  // namespace coldbrick::inline v0::detail
