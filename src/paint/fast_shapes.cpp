#include "paint/fast_shapes.hpp"

#include "geometry/vectors.hpp"
#include "paint/fast_pixels.hpp"
#include "paint/fast_rounds.hpp"
#include "paint/observer.hpp"
#include "raster/rows/edge_rows.hpp"
#include "raster/rows/ellipse_rows.hpp"
#include "raster/rows/row_ends.hpp"

#include <algorithm>
#include <array>
#include <cstring>

namespace coldbrick::inline v0::detail {

namespace {

// Whether it is the usual fill of a shape of the library's, but for its edge, where it is.
COLDBRICK_INLINE bool is_fast_fill(const AreaRef& area) noexcept {
    return area.shape.own_calls == nullptr && area.stroke == nullptr &&
           (area.by == nullptr || area.by->is_identity()) && area.fill->rule == FillRule::even_odd &&
           area.fill->edges == Edges::inclusive;
}

struct RowRun {
    int x;
    int length;
};

// Whether one colour can take the fast paths below: by rows also where there is an observer.
COLDBRICK_INLINE bool can_go_by_rows(const Surface& surface) noexcept {
    return surface.kernel->put != nullptr && !surface.clips;
}
COLDBRICK_INLINE bool can_be_fast(const Surface& surface) noexcept {
    return can_go_by_rows(surface) && surface.observer == nullptr;
}

COLDBRICK_INLINE bool serves_shape(const Surface& surface, Color color, const AreaRef& area) noexcept {
    if (!is_fast_fill(area)) return false;
    return area.fill->edge == Edge::crisp ||
           (area.fill->edge == Edge::smooth && color.alpha == 255 && surface.kernel->cover != nullptr);
}

// A colour and, if it is opaque, the bytes of a pixel.
struct FastInk {
    Color color;
    std::uint32_t word;
};

// Opaque rows of pixels that have not four bytes. Out of line, as they make room for long runs.
template <class RowOf>
[[gnu::noinline]] void paint_other_rows(const Surface& surface, std::uint32_t word, int y, int count, RowOf row) {
    auto pattern = pattern_of(surface, word);
    const auto pixel_bytes = static_cast<std::size_t>(surface.kernel->pixel_bytes());
    for (int i = 0; i < count; ++i) {
        const auto [x, length] = row(i);
        pattern.write(pixel_address(surface, x, y + i), static_cast<std::size_t>(length) * pixel_bytes);
    }
}

// Calls use(spans) with the rows from the uppermost on, some at a time.
template <class RowOf, class Use>
COLDBRICK_INLINE void in_spans(Point at, int count, const RowOf& row, const Use& use) {
    constexpr auto at_once = 16;
    for (int done = 0; done < count; done += at_once) {
        std::array<Span, at_once> spans;
        const auto some = std::min(at_once, count - done);
        for (int i = 0; i < some; ++i) {
            const auto [x, length] = row(done + i);
            spans[static_cast<std::size_t>(i)] = {.y = at.y + done + i, .x = x, .length = length};
        }
        use(std::span<const Span>{spans.data(), static_cast<std::size_t>(some)});
    }
}

// Reports rows that are there to the surface's observer.
template <class RowOf>
[[gnu::noinline]] void report_rows(const Surface& surface, Color color, Point at, int count, RowOf row) {
    surface.observer->begin(Ink{color}, Box{});
    in_spans(at, count, row, [&](std::span<const Span> spans) { surface.observer->touched(spans); });
}

// Rows from the uppermost on, of which row(i) gives the first column and the length. All lie in the surface.
template <class RowOf>
COLDBRICK_INLINE void lay_rows(const Surface& surface, const FastInk& ink, Point at, int count, const RowOf& row) {
    if (ink.color.alpha != 255) {
        return in_spans(at, count, row,
                        [&](std::span<const Span> spans) { surface.kernel->blend(surface, spans, ink.color); });
    }
    if (surface.kernel->pixel_bits != 32) return paint_other_rows(surface, ink.word, at.y, count, row);
    auto* bytes = pixel_address<4>(surface, {.x = 0, .y = at.y});
    for (int i = 0; i < count; ++i, bytes += surface.stride) {
        const auto [x, length] = row(i);
        write_pixels(ink.word, bytes + 4 * std::ptrdiff_t{x}, length);
    }
}

template <class RowOf>
COLDBRICK_INLINE void paint_rows(const Surface& surface, const FastInk& ink, Point at, int count, const RowOf& row) {
    lay_rows(surface, ink, at, count, row);
    if (surface.observer != nullptr) report_rows(surface, ink.color, at, count, row);
}

COLDBRICK_INLINE std::optional<Box> paint_box(const Surface& surface, const FastInk& ink, const Box& box) {
    // Long rows are written at memory speed elsewhere.
    constexpr auto most_width = 64;
    const auto& size = box.size;
    if (size.width < 1 || size.width > most_width || size.height < 1 || !is_inside(box, surface.window)) return {};
    if (size.width == 1 && size.height == 1) {
        if (surface.observer != nullptr) return {};
        put_fast(surface, ink.color, box.at);
    } else {
        paint_rows(surface, ink, box.at, size.height, [part = RowRun{box.at.x, size.width}](int) { return part; });
    }
    return box;
}

COLDBRICK_INLINE std::optional<Box> paint_circle(const Surface& surface, const FastInk& ink, const Circle& circle) {
    const auto& [center, radius] = circle;
    const auto is_center_inside = is_inside(Box{.at = center, .size = {1, 1}}, surface.window);
    if (radius < 0 || radius > (largest_small - 1) / 2 || !is_center_inside) return {};
    const auto diameter = 2 * radius + 1;
    const auto box = Box{.at = {.x = center.x - radius, .y = center.y - radius}, .size = {diameter, diameter}};
    if (!is_inside(box, surface.window)) return {};
    const auto* const margins = small_circles.margins[diameter];
    paint_rows(surface, ink, box.at, diameter, [=, left = box.at.x](int i) {
        return RowRun{left + margins[i], diameter - 2 * margins[i]};
    });
    return box;
}

// A hairline, of which set(pixel) sets each pixel's bytes: one pixel for each step along (rule 3): the k-th one lies
// floor((2*across*k + along - 1) / (2*along)) pixels across from its beginning.
template <class Set>
COLDBRICK_INLINE std::optional<Box> paint_hairline(const Surface& surface, const Line& line, int pixel_bytes,
                                                   const Set& set) {
    // Of longer ones, memory is asked for ahead elsewhere.
    constexpr auto longest = 64;
    const auto edge = PointEdge::between(line.from, line.to);
    if (!contains(surface.window, edge.upper) || !contains(surface.window, edge.lower)) return {};
    const auto is_steep = edge.steep();
    const auto along = static_cast<int>(is_steep ? edge.height() : edge.width());
    const auto across = static_cast<int>(is_steep ? edge.width() : edge.height());
    if (along > longest) return {};
    const auto is_leftward = edge.lower.x < edge.upper.x;
    const auto begin = is_steep || !is_leftward ? edge.upper : edge.lower;
    const auto step_along = is_steep ? surface.stride : std::ptrdiff_t{pixel_bytes};
    const auto forth = is_steep ? std::ptrdiff_t{pixel_bytes} : surface.stride;
    const auto step_across = is_leftward ? -forth : forth;
    // Beyond this, going in the direction of the numbers, the next pixel is nearer; of two as near the lesser is taken.
    const auto limit = is_leftward ? along - 1 : along;
    auto* pixel = pixel_address(surface, begin.x, begin.y);
    auto place = 0;
    for (int k = 0; k <= along; ++k, pixel += step_along) {
        set(pixel);
        place += 2 * across;
        const auto is_beyond = place > limit;
        pixel += is_beyond ? step_across : 0;
        place -= is_beyond ? 2 * along : 0;
    }
    return Box::between({.from = line.from, .to = line.to});
}

// A triangle with its hairline: whatever lies in a row between two pixels of that is inside.
std::optional<Box> paint_triangle(const Surface& surface, const FastInk& ink, const Polygon& polygon) {
    if (polygon.rings().size() != 1 || polygon.rings().front().size() != 3) return std::nullopt;
    const auto& corners = polygon.rings().front();
    for (const auto at : corners) {
        if (!contains(surface.window, at)) return std::nullopt;
    }
    const auto [left, right] = std::minmax({corners[0].x, corners[1].x, corners[2].x});
    const auto [top, bottom] = std::minmax({corners[0].y, corners[1].y, corners[2].y});
    if (right - left >= RowEnds::most || bottom - top >= RowEnds::most) return std::nullopt;
    RowEnds ends;
    const auto height = bottom - top + 1;
    ends.clear(height);
    auto from = corners[2];
    for (const auto to : corners) {
        ends.add_hairline(PointEdge::between(from, to), top);
        from = to;
    }
    const auto corner = Point{.x = left, .y = top};
    paint_rows(surface, ink, corner, height, [first = ends.first.data(), last = ends.last.data()](int i) {
        return RowRun{first[i], last[i] - first[i] + 1};
    });
    return Box{.at = corner, .size = {.width = right - left + 1, .height = height}};
}

COLDBRICK_INLINE bool is_usual_hairline(const Stroke& how) noexcept {
    return how.width == Width{1} && how.edge == Edge::crisp && how.dash.empty() && how.align == Align::center &&
           how.cap == Cap::flush && how.join == Join::miter && how.miter_limit == Stroke{}.miter_limit &&
           how.dash_offset == 0;
}

// A hairline, or a round stroke with smooth edges, if that is what the area is.
[[gnu::noinline]] std::optional<Box> paint_stroke(const Surface& surface, Color color, const AreaRef& area) {
    const auto is_plain = area.shape.own_calls == nullptr && (area.by == nullptr || area.by->is_identity());
    if (!is_plain) return std::nullopt;
    if (area.stroke->edge == Edge::smooth) return paint_smooth_ring(surface, color, area);
    const auto* const line = is_usual_hairline(*area.stroke) ? as<Line>(area) : nullptr;
    if (line == nullptr) return std::nullopt;
    if (color.alpha == 255 && surface.kernel->pixel_bits == 32) {
        return paint_hairline(surface, *line, 4, [word = word_of(surface, color)](std::uint8_t* pixel) {
            std::memcpy(pixel, &word, sizeof word);
        });
    }
    const auto set = color.alpha == 255 ? surface.kernel->put : surface.kernel->lay;
    return paint_hairline(surface, *line, surface.kernel->pixel_bytes(),
                          [=](std::uint8_t* pixel) { set(pixel, color); });
}

COLDBRICK_INLINE FastInk fast_ink(const Surface& surface, Color color) noexcept {
    return {.color = color, .word = color.alpha == 255 ? word_of(surface, color) : 0};
}

}  // namespace

std::optional<Box> paint_fast(const Surface& surface, Color color, const AreaRef& area) {
    if (!can_go_by_rows(surface)) return std::nullopt;
    if (area.stroke != nullptr) return surface.observer == nullptr ? paint_stroke(surface, color, area) : std::nullopt;
    if (!serves_shape(surface, color, area)) return std::nullopt;
    if (area.fill->edge == Edge::smooth) {
        return surface.observer == nullptr ? paint_smooth_round(surface, color, area) : std::nullopt;
    }
    if (const auto* const box = as<Box>(area)) return paint_box(surface, fast_ink(surface, color), *box);
    if (const auto* const circle = as<Circle>(area)) return paint_circle(surface, fast_ink(surface, color), *circle);
    if (const auto* const polygon = as<Polygon>(area)) {
        return paint_triangle(surface, fast_ink(surface, color), *polygon);
    }
    return std::nullopt;
}

bool can_paint_fast(const Surface& surface, Color color, const AreaRef& area) noexcept {
    if (!can_be_fast(surface)) return false;
    if (area.stroke == nullptr) return serves_shape(surface, color, area);
    const auto can_be_smooth = color.alpha == 255 && surface.kernel->cover != nullptr;
    return is_usual_hairline(*area.stroke) || (can_be_smooth && is_usual_smooth_stroke(*area.stroke));
}

FastList::FastList(const Surface& surface, Color color) noexcept
    : surface_{surface}, color_{color}, word_{fast_ink(surface, color).word} {}

std::optional<Box> FastList::paint(const Box& box) const { return paint_box(surface_, {color_, word_}, box); }

std::optional<Box> FastList::paint(const Circle& circle) const {
    return paint_circle(surface_, {color_, word_}, circle);
}

}  // namespace coldbrick::inline v0::detail
