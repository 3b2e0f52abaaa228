// Writes one pixel over and over: inks that replace what is below.
#pragma once

#include "formats/kernels.hpp"

namespace coldbrick::inline v0::detail {

// What an opaque ink is written with.
struct OpaquePainter {
    const Surface& surface;
    PixelPattern pattern;
    Color color;            // for what is covered in part,
    const SpanSink* parts;  // or the sink of that
};

inline OpaquePainter& painter_of(void* context) noexcept { return *static_cast<OpaquePainter*>(context); }

// The writers for one pixel size. A single pixel, of which hairlines are made, is one or two stores.
template <int pixel_bytes>
struct OpaqueWriter {
    static constexpr std::size_t most_parts = 64;

    static void write_spans(void* context, std::span<const Span> spans) noexcept {
        auto& painter = painter_of(context);
        const auto& surface = painter.surface;
        auto& pattern = painter.pattern;
        const auto [top_left, stride] = std::pair{surface.top_left, surface.stride};
        for (const auto& run : spans) {
            auto* const first = top_left + run.y * stride + std::ptrdiff_t{run.x} * pixel_bytes;
            if (run.length == 1) {
                std::memcpy(first, pattern.pixel(), pixel_bytes);
            } else {
                pattern.write(first, static_cast<std::size_t>(run.length) * pixel_bytes);
            }
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

    // What is covered whole is written first. The rest must be read, so its memory is asked for meanwhile.
    static void write_cover(void* context, std::span<const CoverSpan> spans) {
        auto& painter = painter_of(context);
        CoverSpan parts[most_parts];
        std::size_t count = 0;
        const auto lay_parts = [&] {
            if (painter.parts != nullptr) {
                painter.parts->take_cover(painter.parts->context, {parts, count});
            } else {
                cover_with(painter.surface, {parts, count}, painter.color);
            }
            count = 0;
        };
        for (const auto& span : spans) {
            if (span.each == nullptr && span.all == 255) {
                const auto run = Span{.y = span.y, .x = span.x, .length = span.length};
                write_spans(context, {&run, 1});
            } else {
                prefetch_at(painter.surface.top_left,
                            span.y * painter.surface.stride + std::ptrdiff_t{span.x} * pixel_bytes);
                parts[count++] = span;
                if (count == most_parts) lay_parts();
            }
        }
        if (count > 0) lay_parts();
    }

    static SpanSink sink(OpaquePainter& painter) noexcept {
        return {.context = &painter,
                .take = write_spans,
                .repeats = Repeats::harmless,
                .take_down = write_down,
                .take_across = write_across,
                .take_cover = write_cover};
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
        const auto& painter = painter_of(context);
        painter.parts->take_cover(painter.parts->context, spans);
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
