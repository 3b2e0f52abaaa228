// Spans to pixels.
#include "formats/kernels.hpp"
#include "geometry/limits.hpp"
#include "paint/blending_rows.hpp"
#include "paint/brush.hpp"
#include "paint/fast_shapes.hpp"
#include "paint/general_painter.hpp"
#include "paint/lines_16.hpp"
#include "paint/masks.hpp"
#include "paint/observer.hpp"
#include "paint/one_pixel.hpp"
#include "paint/opaque_writer.hpp"
#include "paint/over_16.hpp"
#include "paint/transfer_curves.hpp"

#include "coldbrick/draw.hpp"
#include "coldbrick/error.hpp"
#include "coldbrick/vertices.hpp"

#include <algorithm>
#include <array>
#include <limits>
#include <optional>
#include <string>
#include <variant>

namespace coldbrick::inline v0::detail {

namespace {

// One translucent colour, source-over.
struct BlendingPainter {
    const Surface& surface;
    Color color;

    static void take(void* context, std::span<const Span> spans) {
        const auto& [surface, color] = *static_cast<const BlendingPainter*>(context);
        surface.kernel->blend(surface, spans, color);
    }

    static void take_cover(void* context, std::span<const CoverSpan> spans) {
        const auto& [surface, color] = *static_cast<const BlendingPainter*>(context);
        cover_with(surface, spans, color);
    }

    static void take_down(void* context, const Trace& by_row) {
        const auto& [surface, color] = *static_cast<const BlendingPainter*>(context);
        const auto pixel_bytes = surface.kernel->pixel_bytes();
        surface.kernel->trace(surface, by_row, {.along = surface.stride, .across = pixel_bytes}, color);
    }

    static void take_across(void* context, const Trace& by_column) {
        const auto& [surface, color] = *static_cast<const BlendingPainter*>(context);
        const auto pixel_bytes = surface.kernel->pixel_bytes();
        surface.kernel->trace(surface, by_column, {.along = pixel_bytes, .across = surface.stride}, color);
    }
};

// The pixel that an ink of one colour, laid as usual, sets everywhere; nothing if it is not as simple.
std::optional<Pixel> simple_pixel(const Target& target, const Ink& ink) {
    const auto& how = ink.how();
    const auto is_usual =
        how.opacity == 1 && how.channels == Channels::all && (how.blend == Blend::over || how.blend == Blend::replace);
    // What is covered in part is mixed as light only where all colours are.
    const auto is_light = how.light == Light::linear && how.blend != Blend::replace;
    const auto is_channel = target.kernel->is_sparse && target.kernel->pixel_bits > 1;
    if (!is_usual || is_light || is_channel) return std::nullopt;
    if (const auto* const color = ink.color()) {
        if (color->alpha != 255 && how.blend != Blend::replace) return std::nullopt;
        return encode(target, *color);
    }
    if (const auto* const entry = std::get_if<PaletteEntry>(&ink.of())) {
        const auto is_whole = palette_of(target)[static_cast<std::size_t>(entry->number)].alpha == 255;
        if (!is_whole && how.blend != Blend::replace) return std::nullopt;
        return Pixel{static_cast<std::uint8_t>(entry->number)};
    }
    const auto* const deep = std::get_if<Color16>(&ink.of());
    if (deep == nullptr || (deep->alpha != 65535 && how.blend != Blend::replace)) return std::nullopt;
    return encode(target, *deep);
}

// Whether an ink of one colour is laid source-over, and the format knows how to.
bool is_blended(const Target& target, const Ink& ink) noexcept {
    auto how = ink.how();
    how.opacity = 1;
    return ink.color() != nullptr && how == Compositing{} && target.kernel->blend != nullptr;
}

OpaquePainter opaque_painter(const Surface& surface, const Brush& brush, const SpanSink* parts) noexcept {
    const auto* const color = brush.ink->color();
    return {.surface = surface,
            .pattern{brush.pixel, surface.kernel->pixel_bytes()},
            .color = color != nullptr ? *color : Color{},
            .parts = parts};
}

Box paint_opaque(const Surface& surface, const Brush& brush, const AreaRef& area) {
    const auto& ink = *brush.ink;
    if (surface.kernel->cover != nullptr && ink.color() != nullptr && ink.how().blend != Blend::replace) {
        auto painter = opaque_painter(surface, brush, nullptr);
        return scan_masked(surface, area, opaque_sink(painter));
    }
    // Where coverage cannot be laid on as quickly, it goes through the general painter; but most of a shape is whole.
    GeneralPainter for_parts{surface, ink, Box{}};
    const auto parts = for_parts.sink();
    auto painter = opaque_painter(surface, brush, &parts);
    return scan_masked(surface, area, opaque_sink(painter));
}

// The box around the shape, if it matters to the ink.
Box placing_box(const Ink& ink, const AreaRef& area) {
    const auto* const source = std::get_if<Ink::Source>(&ink.of());
    const auto needs_box = source != nullptr && (*source)->is_placed_in_shape();
    return needs_box ? bounds_of(area) : Box{};
}

// A box of pixels, which needs no scan.
Box paint_box(const Surface& surface, const SpanSink& sink, const Box& box) {
    const auto seen = intersection(box, surface.window);
    for_rows_of(seen, [&](std::span<const Span> rows) { sink.take(sink.context, rows); });
    report_box(surface, seen);
    return seen;
}

// The same of any area, with its box if it is one.
Box paint_area(const Surface& surface, const AreaRef& area, const Box* box, const SpanSink& sink) {
    return box != nullptr ? paint_box(surface, sink, *box) : scan_masked(surface, area, sink);
}

// Whether it is one colour, and what becomes of a byte below follows from that byte.
bool is_by_byte(const Target& target, const Ink& ink) noexcept {
    return ink.color() != nullptr && ink.how().blend != Blend::replace &&
           (target.kernel->is_by_byte || target.kernel == &index8_kernel);
}

// One colour, laid otherwise than source-over.
Box paint_one_color(const Surface& surface, const Brush& brush, const AreaRef& area, const Box* box) {
    const auto& ink = *brush.ink;
    struct Painters {
        OneColorPainter of_whole;
        SpanSink of_parts;
    };
    GeneralPainter general{surface, ink, Box{}};
    Painters painters{.of_whole{surface, ink.how(), *ink.color(), brush.curves}, .of_parts = general.sink()};
    const auto take = [](void* context, std::span<const Span> spans) {
        for (const auto& span : spans) static_cast<Painters*>(context)->of_whole.paint(span);
    };
    const auto take_cover = [](void* context, std::span<const CoverSpan> spans) {
        const auto& parts = static_cast<Painters*>(context)->of_parts;
        parts.take_cover(parts.context, spans);
    };
    return paint_area(surface, area, box,
                      {.context = &painters, .take = take, .repeats = Repeats::never, .take_cover = take_cover});
}

// One colour on numbers of 16 bits, which is laid on some runs.
template <class Deep>
Box paint_16(const Surface& surface, const Deep& deep, const Ink& ink, const AreaRef& area, const Box* box) {
    struct Painters {
        const Surface& surface;
        const Deep& of_whole;
        SpanSink others;
    };
    GeneralPainter general{surface, ink, Box{}};
    Painters painters{.surface = surface, .of_whole = deep, .others = general.sink()};
    const auto take = [](void* context, std::span<const Span> spans) {
        const auto& [on, of_whole, others] = *static_cast<Painters*>(context);
        for (const auto& span : spans) {
            if (!of_whole.lay(on, span)) others.take(others.context, {&span, 1});
        }
    };
    const auto take_cover = [](void* context, std::span<const CoverSpan> spans) {
        const auto& others = static_cast<Painters*>(context)->others;
        others.take_cover(others.context, spans);
    };
    return paint_area(surface, area, box,
                      {.context = &painters, .take = take, .repeats = Repeats::never, .take_cover = take_cover});
}

Box paint_general(const Surface& surface, const Brush& brush, const AreaRef& area, const Box* box) {
    const auto& ink = *brush.ink;
    if (is_by_byte(surface, ink)) return paint_one_color(surface, brush, area, box);
    if (const auto deep = over_16_of(surface, ink)) return paint_16(surface, *deep, ink, area, box);
    if (const auto deep = lines_16_of(surface, ink)) return paint_16(surface, *deep, ink, area, box);
    GeneralPainter painter{surface, ink, placing_box(ink, area)};
    return paint_area(surface, area, box, painter.sink());
}

SpanSink blending_sink(BlendingPainter& painter) noexcept {
    const auto has_traces = painter.surface.kernel->trace != nullptr;
    return {.context = &painter,
            .take = BlendingPainter::take,
            .repeats = Repeats::never,
            .take_down = has_traces ? BlendingPainter::take_down : nullptr,
            .take_across = has_traces ? BlendingPainter::take_across : nullptr,
            .take_cover = BlendingPainter::take_cover};
}

Box paint_blended(const Surface& surface, Color color, const AreaRef& area) {
    BlendingPainter painter{.surface = surface, .color = color};
    return scan_masked(surface, area, blending_sink(painter));
}

// One pixel of the window.
void put(const Surface& surface, const Pixel& pixel, Point at) noexcept {
    const auto bytes = surface.kernel->pixel_bytes();
    if (bytes == 0) return write_bits(surface, {.y = at.y, .x = at.x, .length = 1}, pixel[0] != 0);
    auto* const to = pixel_address(surface, at.x, at.y);
    if (bytes == 4) {
        std::memcpy(to, pixel.data(), 4);
    } else {
        for (int i = 0; i < bytes; ++i) to[i] = pixel[static_cast<std::size_t>(i)];
    }
}

constexpr auto one_pixel = Size{.width = 1, .height = 1};

Box paint_pixel(const Surface& surface, const Pixel& pixel, Point at) noexcept {
    if (!coldbrick::contains(surface.window, at)) return {};
    put(surface, pixel, at);
    report_box(surface, {.at = at, .size = one_pixel});
    return {.at = at, .size = one_pixel};
}

// Alpha, opacity and coverage are rounded once, together: what is covered in part cannot be laid in a colour whose
// alpha has been rounded with the opacity before.
Box paint_weakened(const Surface& surface, const Ink& ink, Color whole, const AreaRef& area) {
    struct Painters {
        BlendingPainter of_whole;
        SpanSink of_parts;
    };
    GeneralPainter general{surface, ink, Box{}};
    Painters painters{.of_whole = {.surface = surface, .color = whole}, .of_parts = general.sink()};
    const auto take = [](void* context, std::span<const Span> spans) {
        BlendingPainter::take(&static_cast<Painters*>(context)->of_whole, spans);
    };
    const auto take_cover = [](void* context, std::span<const CoverSpan> spans) {
        const auto& parts = static_cast<Painters*>(context)->of_parts;
        parts.take_cover(parts.context, spans);
    };
    return scan_masked(surface, area,
                       {.context = &painters, .take = take, .repeats = Repeats::never, .take_cover = take_cover});
}

}  // namespace

void check_ink(const Target& target, const Ink& ink) {
    const auto* const entry = std::get_if<PaletteEntry>(&ink.of());
    if (entry == nullptr) return;
    if (target.kernel != &index8_kernel) {
        throw Error{"ink: palette entry " + std::to_string(entry->number) +
                    " is given for a buffer without palette; allowed are colours, or Index8 buffers"};
    }
    const auto last = static_cast<int>(palette_of(target).size()) - 1;
    if (entry->number < 0 || entry->number > last) refuse("ink", "palette entry", entry->number, 0, last);
}

Brush brush_for(const Target& target, const Ink& ink) {
    check_ink(target, ink);
    if (const auto pixel = simple_pixel(target, ink)) {
        return {.ink = &ink, .way = Brush::Way::opaque, .pixel = *pixel};
    }
    if (!is_blended(target, ink)) return {.ink = &ink};
    return {.ink = &ink,
            .way = ink.how().opacity == 1 ? Brush::Way::blended : Brush::Way::weakened,
            .color = weakened(*ink.color(), ink.how())};
}

Box paint(const Surface& surface, const Brush& brush, const AreaRef& area) {
    if (surface.observer != nullptr) surface.observer->begin(*brush.ink, placing_box(*brush.ink, area));
    const auto* const box = surface.clips ? nullptr : whole_box(area);
    switch (brush.way) {
        case Brush::Way::opaque: {
            if (box == nullptr) return paint_opaque(surface, brush, area);
            if (box->size == one_pixel) return paint_pixel(surface, brush.pixel, box->at);
            auto painter = opaque_painter(surface, brush, nullptr);
            return paint_box(surface, opaque_sink(painter), *box);
        }
        case Brush::Way::blended:
        case Brush::Way::weakened: {
            if (box == nullptr) {
                return brush.way == Brush::Way::blended ? paint_blended(surface, brush.color, area)
                                                        : paint_weakened(surface, *brush.ink, brush.color, area);
            }
            BlendingPainter painter{.surface = surface, .color = brush.color};
            return paint_box(surface, blending_sink(painter), *box);
        }
        case Brush::Way::general:
            if (box == nullptr || box->size != one_pixel || surface.observer != nullptr) break;
            if (!coldbrick::contains(surface.window, box->at)) return {};
            if (brush.curves == nullptr && lay_on_pixel(surface, *brush.ink, box->at)) return *box;
    }
    return paint_general(surface, brush, area, box);
}

std::optional<TransferCurves> transfer_curves_for(const Target& target, const Brush& brush) {
    if (brush.way != Brush::Way::general || !is_by_byte(target, *brush.ink)) return std::nullopt;
    return TransferCurves{target, brush.ink->how(), *brush.ink->color()};
}

Box paint(const Surface& surface, const Ink& ink, const AreaRef& area) {
    if (const auto* const color = ink.plain_color()) {
        if (const auto touched = paint_fast(surface, *color, area)) return *touched;
    } else if (!surface.clips && surface.observer == nullptr) {
        const auto* const box = whole_box(area);
        const auto is_pixel = box != nullptr && box->size == one_pixel && coldbrick::contains(surface.window, box->at);
        if (is_pixel && lay_on_pixel(surface, ink, box->at)) return *box;
    }
    return paint(surface, brush_for(surface, ink), area);
}

Brushes::Brushes(const Target& target, const std::vector<Ink>& inks)
    : last_color{Color{}}, last{brush_for(target, last_color)} {
    by_number.reserve(inks.size());
    for (const auto& ink : inks) by_number.push_back(brush_for(target, ink));
}

const Brush& Brushes::of(const Target& target, Color color) {
    if (*last_color.color() == color) return last;
    last_color = Ink{color};
    last = brush_for(target, last_color);
    return last;
}

Box mark(const Surface& surface, Point at, const Brush& brush) {
    check_point("mark", "at", at);
    const auto is_plain = !surface.clips && surface.observer == nullptr;
    if (brush.way == Brush::Way::opaque && is_plain) return paint_pixel(surface, brush.pixel, at);
    const auto pixel = Box{.at = at, .size = one_pixel};
    if (brush.curves != nullptr && is_plain && coldbrick::contains(surface.window, at)) {
        auto* const bytes = pixel_address(surface, at.x, at.y);
        const auto pixel_bytes = static_cast<std::size_t>(surface.kernel->pixel_bytes());
        if (pixel_bytes < 4 || bytes[alpha_place] == 255) {
            (*brush.curves)(bytes, pixel_bytes);
            return pixel;
        }
    }
    return paint(surface, brush, area_ref(pixel));
}

Box mark(const Surface& surface, Point at, const Ink& ink) {
    const auto* const color = ink.plain_color();
    const auto is_plain_ink = color != nullptr && surface.kernel->put != nullptr;
    if (is_plain_ink && !surface.clips && surface.observer == nullptr && coldbrick::contains(surface.window, at)) {
        put_fast(surface, *color, at);
        return {.at = at, .size = one_pixel};
    }
    if (coldbrick::contains(surface.window, at) && lay_on_pixel(surface, ink, at)) {
        return {.at = at, .size = one_pixel};
    }
    return mark(surface, at, brush_for(surface, ink));
}

}  // namespace coldbrick::inline v0::detail
