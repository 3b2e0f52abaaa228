// Spans to pixels.
#include "coldbrick/draw.hpp"
#include "geometry/limits.hpp"
#include "pixels/kernels.hpp"

namespace coldbrick::detail {

namespace {

// The opaque writer for one pixel size, so that single pixels, of which hairlines are made, are one or two stores.
template <int pixel_bytes>
void write_spans(const Surface& surface, std::span<const Span> spans, const std::uint8_t* pattern) noexcept {
    const auto top_left = surface.top_left;
    const auto stride = surface.stride;
    for (const auto& run : spans) {
        auto* const first = top_left + run.y * stride + std::ptrdiff_t{run.x} * pixel_bytes;
        if (run.length == 1) {
            std::memcpy(first, pattern, pixel_bytes);
        } else {
            fill_bytes(first, static_cast<std::size_t>(run.length) * pixel_bytes, pattern);
        }
    }
}

}  // namespace

Painter::Painter(const Surface& surface, const Ink& ink) noexcept : surface_{surface}, color_{ink.color()} {
    static_assert(sizeof pattern_ == pattern_bytes);
    make_pattern(*surface.kernel, color_, pattern_);
}

SpanReceiver Painter::receiver() noexcept {
    if (color_.alpha == 255) {
        const auto take = [](void* context, std::span<const Span> spans) {
            static_cast<const Painter*>(context)->paint_opaque(spans);
        };
        return {.context = this, .take = take, .repeats = Repeats::harmless};
    }
    const auto take = [](void* context, std::span<const Span> spans) {
        static_cast<const Painter*>(context)->blend(spans);
    };
    return {.context = this, .take = take, .repeats = Repeats::never};
}

void Painter::paint_opaque(std::span<const Span> spans) const noexcept {
    switch (surface_.kernel->pixel_bytes) {
        case 1: return write_spans<1>(surface_, spans, pattern_);
        case 3: return write_spans<3>(surface_, spans, pattern_);
        default: return write_spans<4>(surface_, spans, pattern_);
    }
}

void Painter::blend(std::span<const Span> spans) const noexcept {
    surface_.kernel->blend(surface_, spans, color_);
}

Box mark(const Surface& surface, Point at, const Ink& ink) {
    check_point("mark", "at", at);
    if (!contains(surface.clip, at)) return {};
    const auto pixel = Span{.y = at.y, .x = at.x, .length = 1};
    Painter painter{surface, ink};
    const auto receiver = painter.receiver();
    receiver.take(receiver.context, {&pixel, 1});
    return {.at = at, .size = {.width = 1, .height = 1}};
}

}  // namespace coldbrick::detail
