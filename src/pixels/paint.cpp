// Spans to pixels.
#include "geometry/limits.hpp"
#include "pixels/kernels.hpp"

#include "coldbrick/draw.hpp"
#include "coldbrick/region.hpp"

namespace coldbrick::detail {

namespace {

// What an opaque ink is written with.
struct OpaquePainter {
    const Surface& surface;
    PixelPattern pattern;
};

OpaquePainter& painter_of(void* context) noexcept { return *static_cast<OpaquePainter*>(context); }

// The writers for one pixel size. A single pixel, of which hairlines are made, is one or two stores.
template <int pixel_bytes>
struct OpaqueWriter {
    static void write_spans(void* context, std::span<const Span> spans) noexcept {
        auto& [surface, pattern] = painter_of(context);
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
        const auto top_left = reinterpret_cast<std::uintptr_t>(painter.surface.top_left);
        const auto ask_ahead = [=](std::ptrdiff_t offset, std::int64_t place) {
            const auto wanted = offset + offset_ahead + ((place + place_ahead) >> 32U) * pixel_bytes;
            // As a number, as it may lie beyond the buffer. NOLINTNEXTLINE(performance-no-int-to-ptr)
            __builtin_prefetch(reinterpret_cast<const void*>(top_left + static_cast<std::uintptr_t>(wanted)), 1);
        };
        write_trace(painter, by_row, painter.surface.stride, pixel_bytes, ask_ahead);
    }

    static void write_across(void* context, const Trace& by_column) noexcept {
        const auto& painter = painter_of(context);
        write_trace(painter, by_column, pixel_bytes, painter.surface.stride, [](std::ptrdiff_t, std::int64_t) {});
    }

    static SpanReceiver receiver(OpaquePainter& painter) noexcept {
        return {.context = &painter,
                .take = write_spans,
                .repeats = Repeats::harmless,
                .take_down = write_down,
                .take_across = write_across};
    }
};

SpanReceiver receiver_for(OpaquePainter& painter) noexcept {
    switch (painter.surface.kernel->pixel_bytes) {
        case 1:
            return OpaqueWriter<1>::receiver(painter);
        case 3:
            return OpaqueWriter<3>::receiver(painter);
        default:
            return OpaqueWriter<4>::receiver(painter);
    }
}

struct BlendingPainter {
    const Surface& surface;
    Color color;
};

void blend_spans(void* context, std::span<const Span> spans) {
    const auto& [surface, color] = *static_cast<const BlendingPainter*>(context);
    surface.kernel->blend(surface, spans, color);
}

// Passes on what of spans lies in a region, and keeps the box around it.
class MaskedReceiver {
  public:
    MaskedReceiver(const Region& region, const SpanReceiver& to) noexcept : region_{region}, to_{to} {}

    [[nodiscard]] SpanReceiver receiver() noexcept {
        const auto take = [](void* context, std::span<const Span> spans) {
            static_cast<MaskedReceiver*>(context)->take(spans);
        };
        return {.context = this, .take = take, .repeats = to_.repeats};
    }

    [[nodiscard]] const Box& touched() const noexcept { return touched_; }

  private:
    void take(std::span<const Span> spans) {
        inside_.clear();
        for (const auto& run : spans) {
            if (run.y != row_y_ || row_.empty()) {
                row_ = region_.row(run.y);
                row_y_ = run.y;
            }
            const auto end = run.x + run.length;
            auto part = std::partition_point(row_.begin(), row_.end(),
                                             [&](const Span& of) { return of.x + of.length <= run.x; });
            for (; part != row_.end() && part->x < end; ++part) {
                const auto left = std::max(run.x, part->x);
                const auto right = std::min(end, part->x + part->length);
                inside_.push_back({.y = run.y, .x = left, .length = right - left});
            }
        }
        if (inside_.empty()) return;
        to_.take(to_.context, inside_);
        for (const auto& run : inside_) {
            touched_ = enclosing(touched_, Box{.at = {.x = run.x, .y = run.y}, .size = {run.length, 1}});
        }
    }

    const Region& region_;
    SpanReceiver to_;
    std::span<const Span> row_;
    int row_y_ = 0;
    std::vector<Span> inside_;
    Box touched_;
};

Box scan_masked(const Surface& surface, const void* area, Scan scan, const SpanReceiver& receiver) {
    if (!surface.mask) return scan(area, surface.clip, receiver);
    MaskedReceiver masked{*surface.mask, receiver};
    scan(area, surface.clip, masked.receiver());
    return masked.touched();
}

}  // namespace

Box paint(const Surface& surface, const Ink& ink, const void* area, Scan scan) {
    const auto color = ink.color();
    if (color.alpha == 255) {
        OpaquePainter painter{.surface = surface, .pattern{*surface.kernel, color}};
        return scan_masked(surface, area, scan, receiver_for(painter));
    }
    BlendingPainter painter{.surface = surface, .color = color};
    return scan_masked(surface, area, scan, {.context = &painter, .take = blend_spans, .repeats = Repeats::never});
}

Box mark(const Surface& surface, Point at, const Ink& ink) {
    check_point("mark", "at", at);
    const auto pixel = Box{.at = at, .size = {.width = 1, .height = 1}};
    return paint(surface, ink, &pixel, [](const void* area, const Box& clip, const SpanReceiver& receiver) {
        return scan_fill(*static_cast<const Box*>(area), clip, receiver);
    });
}

}  // namespace coldbrick::detail
