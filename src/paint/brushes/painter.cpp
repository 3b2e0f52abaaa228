#include "paint/brushes/painter.hpp"

#include "paint/brushes/mark.hpp"
#include "paint/brushes/small_painter.hpp"
#include "paint/surfaces/masks.hpp"
#include "paint/surfaces/observer.hpp"

namespace coldbrick::inline v0::detail {

SpanSink OverPainter::sink() noexcept {
    const auto take = [](void* context, std::span<const Span> spans) {
        const auto& painter = of(context);
        painter.surface_.kernel->blend(painter.surface_, spans, painter.color_);
    };
    const auto take_cover = [](void* context, std::span<const CoverSpan> spans) {
        const auto& painter = of(context);
        cover_with(painter.surface_, spans, painter.color_);
    };
    auto sink = SpanSink{.context = this, .take = take, .repeats = Repeats::never, .take_cover = take_cover};
    if (surface_.kernel->trace == nullptr) return sink;
    sink.take_down = [](void* context, const Trace& by_row) {
        const auto& surface = of(context).surface_;
        of(context).trace(by_row, {.along = surface.stride, .across = surface.kernel->pixel_bytes()});
    };
    sink.take_across = [](void* context, const Trace& by_column) {
        const auto& surface = of(context).surface_;
        of(context).trace(by_column, {.along = surface.kernel->pixel_bytes(), .across = surface.stride});
    };
    return sink;
}

Painter::Painter(const Surface& surface, const Brush& brush) : surface_{surface}, brush_{brush} {
    if (brush.runs == Brush::Runs::over) {
        sink_ = over_.emplace(surface, brush.color).sink();
    } else if (brush.runs != Brush::Runs::pixel) {
        sink_ = general_.emplace(surface, brush).sink();
    } else {
        auto* const parts = brush.covers ? nullptr : &general_.emplace(surface, brush);
        sink_ = opaque_sink(opaque_.emplace(surface, brush.pixel, brush.color, parts));
    }
}

Box Painter::paint(const AreaRef& area) {
    if (surface_.observer == nullptr && !brush_.is_placed) return scan_masked(surface_, area, sink_);
    const auto shape = brush_.is_placed ? bounds_of(area) : Box{};
    if (general_) general_->set_shape(shape);
    if (surface_.observer != nullptr) surface_.observer->begin(*brush_.ink, shape);
    return scan_masked(surface_, area, sink_);
}

Box paint(const Surface& surface, const Brush& brush, const AreaRef& area) {
    if (const auto* const color = brush.ink->plain_color()) {
        if (const auto touched = SmallPainter{surface, *color}.paint(area); !touched.empty()) return touched;
    }
    return Painter{surface, brush}.paint(area);
}

Box Brushes::paint(const Surface& surface, Color color, const AreaRef& area) {
    if (const auto touched = SmallPainter{surface, color}.paint(area); !touched.empty()) return touched;
    return Painter{surface, of(surface, color)}.paint(area);
}

Box paint(const Surface& surface, const Ink& ink, const AreaRef& area) {
    const auto* const pixel = single_pixel_of(area);
    if (pixel != nullptr && lay_on_pixel(surface, ink, pixel->at)) return *pixel;
    if (const auto* const color = ink.plain_color()) {
        if (const auto touched = SmallPainter{surface, *color}.paint(area); !touched.empty()) return touched;
    }
    const auto brush = brush_for(surface, ink);
    return Painter{surface, brush}.paint(area);
}

}  // namespace coldbrick::inline v0::detail
