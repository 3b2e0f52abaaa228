// Writes one pixel over and over: inks that replace what is below.
#pragma once

#include "formats/kernels.hpp"

namespace coldbrick::inline v0::detail {

// What an opaque ink is written with.
struct OpaquePainter {
    const Surface& surface;
    PixelPattern pattern;
    Color color;                // for what is covered in part,
    const SpanReceiver* parts;  // or who lays that on
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

    // Writes one pixel at each step along and, as the trace says, across; both in bytes. `before` is called with each
    // offset and place first.
    template <class Before>
    static void write_trace(const OpaquePainter& painter, const Trace& trace, std::ptrdiff_t along,
                            std::ptrdiff_t across, const Before& before) noexcept {
        std::uint8_t pixel[pixel_bytes];
        std::memcpy(pixel, painter.pattern.pixel(), pixel_bytes);
        auto* const top_left = painter.surface.top_left;
        auto offset = trace.first * along;
        auto place = trace.place;
        for (auto i = 0; i < trace.count; ++i) {
            before(offset, place);
            std::memcpy(top_left + offset + (place >> 32U) * across, pixel, pixel_bytes);
            offset += along;
            place += trace.step;
        }
    }

    // Each pixel lies in another row, which is rarely in the nearest cache: memory is asked for some rows ahead.
    static void write_down(void* context, const Trace& by_row) noexcept {
        constexpr auto ahead = 12;
        const auto& painter = painter_of(context);
        const auto offset_ahead = ahead * painter.surface.stride;
        const auto place_ahead = ahead * by_row.step;
        const auto* const top_left = painter.surface.top_left;
        const auto ask_ahead = [=](std::ptrdiff_t offset, std::int64_t place) {
            const auto column = static_cast<std::ptrdiff_t>((place + place_ahead) >> 32U);
            prefetch_at(top_left, offset + offset_ahead + column * pixel_bytes);
        };
        write_trace(painter, by_row, painter.surface.stride, pixel_bytes, ask_ahead);
    }

    static void write_across(void* context, const Trace& by_column) noexcept {
        const auto& painter = painter_of(context);
        write_trace(painter, by_column, pixel_bytes, painter.surface.stride, [](std::ptrdiff_t, std::int64_t) {});
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

    static SpanReceiver receiver(OpaquePainter& painter) noexcept {
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

    static SpanReceiver receiver(OpaquePainter& painter) noexcept {
        return {.context = &painter, .take = write_spans, .repeats = Repeats::harmless, .take_cover = write_cover};
    }
};

inline SpanReceiver opaque_receiver(OpaquePainter& painter) noexcept {
    switch (painter.surface.kernel->pixel_bytes()) {
        case 0:
            return BitWriter::receiver(painter);
        case 1:
            return OpaqueWriter<1>::receiver(painter);
        case 2:
            return OpaqueWriter<2>::receiver(painter);
        case 3:
            return OpaqueWriter<3>::receiver(painter);
        case 4:
            return OpaqueWriter<4>::receiver(painter);
        case 6:
            return OpaqueWriter<6>::receiver(painter);
        default:
            return OpaqueWriter<8>::receiver(painter);
    }
}

}  // namespace coldbrick::inline v0::detail
