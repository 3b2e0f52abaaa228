// Boxes, rounded boxes, circles and ellipses: fills and strokes.
#include "geometry/limits.hpp"
#include "raster/closed_shapes.hpp"
#include "raster/outline.hpp"
#include "raster/round_tables.hpp"
#include "raster/shape_scans.hpp"
#include "raster/span_sets.hpp"
#include "raster/stroker.hpp"

#include "coldbrick/error.hpp"

#include <string>

namespace coldbrick::detail {

namespace {

class BoxRows {
  public:
    explicit BoxRows(const Box& box) noexcept : window_{window_of(box)} {}
    [[nodiscard]] int top() const noexcept { return window_.top; }
    [[nodiscard]] int bottom() const noexcept { return window_.bottom; }
    [[nodiscard]] Run run(int) const noexcept { return {.left = window_.left, .right = window_.right}; }

  private:
    Window window_;
};

// Each shape's table at a distance from its edge, and its edge as a track from an origin.
void tabulate_shape(const Ellipse& shape, int distance, Join, const Window& rows, RunTable& table) {
    tabulate(shape, distance, rows, table);
}

void tabulate_shape(const RoundedBox& shape, int distance, Join join, const Window& rows, RunTable& table) {
    tabulate(shape, distance, join, rows, table);
}

Point origin_of(const Ellipse& shape) noexcept { return shape.box().at; }
Point origin_of(const RoundedBox& shape) noexcept { return shape.box.at; }

Track edge_of(const Ellipse& shape, const Detail& detail) {
    const EllipseForm form{shape};
    Track track;
    form.add_rim(Turn{{.from = shape.turn(), .by = Angle::degrees(360)}}, of_form(form, detail), track);
    track.close();
    return track;
}

Track edge_of(const RoundedBox& shape, const Detail& detail) { return edge_of(box_of_shape(&shape).value(), detail); }

// The outline's pixels, by the rows of the fill.
template <class Shape>
Box scan_outline_of(const Shape& shape, const Box& clip, const SpanReceiver& receiver) {
    TableMemory memory;
    RunTable fill{&memory.resource};
    auto rows = window_of(clip);
    --rows.top;
    ++rows.bottom;
    tabulate_shape(shape, 0, Join::miter, rows, fill);
    return scan_outline(fill, clip, receiver);
}

template <class Shape>
Box scan_band(const Shape& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    const Band band{how};
    const auto rows = window_of(clip);
    TableMemory memory;
    RunTable outer{&memory.resource};
    RunTable inner{&memory.resource};
    tabulate_shape(shape, band.out, how.join, rows, outer);
    tabulate_shape(shape, -band.in, how.join, rows, inner);
    return scan_between(outer, inner, NoCut{}, clip, receiver);
}

template <class Shape>
Box scan_closed(const Shape& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    if (how.dash.empty()) {
        if (how.width == 1 && how.align != Align::outside) return scan_outline_of(shape, clip, receiver);
        return scan_band(shape, how, clip, receiver);
    }
    return scan_around(
        {.edges = {edge_of(shape, detail_in(clip, crisp_flatness, how))}, .origin = origin_of(shape)}, how, clip,
        receiver, [&](const SpanReceiver& gather) { scan_fill(shape, clip, gather); },
        [&](const SpanReceiver& gather) { scan_outline_of(shape, clip, gather); });
}

void check_rounded(const RoundedBox& shape) {
    check_box("rounded box", shape.box);
    const auto most = std::min(shape.box.size.width, shape.box.size.height) / 2;
    if (shape.corner_radius < 0 || shape.corner_radius > most) {
        refuse("rounded box", "corner_radius", shape.corner_radius, 0, most);
    }
}

}  // namespace

Box scan_fill(const Box& shape, const Box& clip, const SpanReceiver& receiver) {
    check_box("box", shape);
    return scan_inside(BoxRows{shape}, clip, receiver);
}

Box scan_fill(const RoundedBox& shape, const Box& clip, const SpanReceiver& receiver) {
    check_rounded(shape);
    TableMemory memory;
    RunTable fill{&memory.resource};
    tabulate(shape, 0, Join::miter, window_of(clip), fill);
    return scan_inside(fill, clip, receiver);
}

Box scan_fill(const Ellipse& shape, const Box& clip, const SpanReceiver& receiver) {
    if (shape.turn() == Angle{}) return scan_ellipse(shape.box(), clip, receiver);
    TableMemory memory;
    RunTable fill{&memory.resource};
    tabulate(shape, 0, window_of(clip), fill);
    return scan_inside(fill, clip, receiver);
}

Box scan_stroke(const Box& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    check_box("box", shape);
    check_stroke(how);
    if (is_hairline(how)) return scan_outline(BoxRows{shape}, clip, receiver);
    return scan_closed(RoundedBox{.box = shape}, how, clip, receiver);
}

Box scan_stroke(const RoundedBox& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    check_rounded(shape);
    check_stroke(how);
    const auto most = max_coordinate - shape.corner_radius;
    if (Band{how}.out > most) refuse("stroke", "width outside of a rounded box", Band{how}.out, 0, most);
    return scan_closed(shape, how, clip, receiver);
}

Box scan_stroke(const Circle& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    const auto box = checked_box(shape);
    check_stroke(how);
    if (is_hairline(how)) {
        return with_ellipse_rows(box, [&](const auto& rows) { return scan_outline(rows, clip, receiver); });
    }
    return scan_closed(Ellipse{shape}, how, clip, receiver);
}

Box scan_stroke(const Ellipse& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    check_stroke(how);
    if (is_hairline(how) && shape.turn() == Angle{}) {
        return with_ellipse_rows(shape.box(), [&](const auto& rows) { return scan_outline(rows, clip, receiver); });
    }
    return scan_closed(shape, how, clip, receiver);
}

}  // namespace coldbrick::detail
