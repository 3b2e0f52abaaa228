// Arcs, sectors and chords.
#include "geometry/limits.hpp"
#include "raster/closed_shapes.hpp"
#include "raster/outline.hpp"
#include "raster/round_tables.hpp"
#include "raster/shape_scans.hpp"

namespace coldbrick::detail {

namespace {

void check_sweep(std::string_view shape, const Sweep& sweep) {
    check_angle(shape, "sweep.from", sweep.from);
    check_angle(shape, "sweep.by", sweep.by);
}

// The rows of an ellipse's fill, one more than the clip on either side, for outlines.
class EllipseTable {
  public:
    EllipseTable(const Ellipse& ellipse, int distance, const Box& clip) : table_{&memory_.resource} {
        auto rows = window_of(clip);
        --rows.top;
        ++rows.bottom;
        tabulate(ellipse, distance, rows, table_);
    }
    [[nodiscard]] const RunTable& rows() const noexcept { return table_; }

  private:
    TableMemory memory_;
    RunTable table_;
};

// The rows of a sector: of the ellipse, what lies in the wedge, and the centre pixel.
class SectorRows {
  public:
    SectorRows(const Sector& shape, const Box& clip)
        : fill_{shape.of, 0, clip}, form_{shape.of}, wedge_{form_.origin(), form_.center(), Turn{shape.sweep}} {
        const auto& [at, size] = shape.of.box();
        center_ = {.x = at.x + (size.width - 1) / 2, .y = at.y + (size.height - 1) / 2};
    }

    [[nodiscard]] int top() const noexcept { return fill_.rows().top(); }
    [[nodiscard]] int bottom() const noexcept { return fill_.rows().bottom(); }
    [[nodiscard]] Runs runs(int y) const noexcept {
        Runs cut;
        wedge_.row(y).cut(fill_.rows().run(y), [&](int left, int right) { cut.add({.left = left, .right = right}); });
        return y == center_.y ? cut | Runs{{.left = center_.x, .right = center_.x + 1}} : cut;
    }

  private:
    EllipseTable fill_;
    EllipseForm form_;
    Wedge wedge_;
    Point center_;
};

// The rows of a chord: of the ellipse, what lies on the arc's side of the line between its ends.
class ChordRows {
  public:
    ChordRows(const Chord& shape, const Box& clip)
        : fill_{shape.of, 0, clip}, form_{shape.of}, is_whole_{Turn{shape.sweep}.is_whole} {
        const Turn turn{shape.sweep};
        const auto begin = form_.rim(turn.begin());
        const auto side = left_of(form_.rim(turn.end()) - begin);
        line_ = HalfPlane{form_.origin(), begin - unit(side == Vec{} ? Vec{1, 0} : side) * fine_slack, side};
        is_nothing_ = side == Vec{} && !is_whole_;
    }

    [[nodiscard]] int top() const noexcept { return fill_.rows().top(); }
    [[nodiscard]] int bottom() const noexcept { return fill_.rows().bottom(); }
    [[nodiscard]] Runs runs(int y) const noexcept {
        const auto fill = Runs{fill_.rows().run(y)};
        if (is_whole_) return fill;
        return is_nothing_ ? Runs{} : fill & Runs{line_.run(y)};
    }

  private:
    EllipseTable fill_;
    EllipseForm form_;
    bool is_whole_;
    bool is_nothing_ = false;
    HalfPlane line_{{}, {}, {}};
};

template <class Rows>
Box scan_runs(const Rows& rows, const Box& clip, const SpanReceiver& receiver) {
    SpanBatch batch{window_of(clip), receiver};
    const auto begin = std::max(rows.top(), batch.window().top);
    const auto end = std::min(rows.bottom(), batch.window().bottom);
    batch.add_rows(begin, end, [&](int y, const auto& emit) {
        for (const auto& [left, right] : rows.runs(y)) emit(left, right);
        return true;
    });
    return batch.finish();
}

// The pixels that have one of their four neighbours outside.
template <class Rows>
Box scan_runs_outline(const Rows& rows, const Box& clip, const SpanReceiver& receiver) {
    SpanBatch batch{window_of(clip), receiver};
    const auto begin = std::max(rows.top(), batch.window().top);
    const auto end = std::min(rows.bottom(), batch.window().bottom);
    if (begin >= end) return {};
    auto above = rows.runs(begin - 1);
    auto here = rows.runs(begin);
    batch.add_rows(begin, end, [&](int y, const auto& emit) {
        const auto below = rows.runs(y + 1);
        for (const auto& [left, right] : here - (here.shrunk() & above & below)) emit(left, right);
        above = here;
        here = below;
        return true;
    });
    return batch.finish();
}

using EdgeOf = Track (*)(const SweptForm&, const Detail&);

template <class Rows, class Shape>
Box scan_stroke_of(const Shape& shape, const Stroke& how, EdgeOf edge, const Box& clip, const SpanReceiver& receiver) {
    if (Turn{shape.sweep}.is_whole) return scan_stroke(shape.of, how, clip, receiver);
    const auto scan_fill_of = [&](const SpanReceiver& gather) { return scan_runs(Rows{shape, clip}, clip, gather); };
    const auto scan_hairline_of = [&](const SpanReceiver& gather) {
        return scan_runs_outline(Rows{shape, clip}, clip, gather);
    };
    if (is_hairline(how)) return scan_hairline_of(receiver);
    const auto swept = SweptForm{.of = EllipseForm{shape.of}, .sweep = shape.sweep};
    return scan_around({.edges = {edge(swept, detail_in(clip, crisp_flatness, how))}, .origin = swept.of.origin()}, how,
                       clip, receiver, scan_fill_of, scan_hairline_of);
}

// The width-1 arc: what of the outline lies in the wedge.
Box scan_thin_arc(const Arc& shape, const Box& clip, const SpanReceiver& receiver) {
    const EllipseForm form{shape.of};
    const Wedge wedge{form.origin(), form.center(), Turn{shape.sweep}};
    const EllipseTable fill{shape.of, 0, clip};
    return scan_outline(fill.rows(), clip, receiver, wedge);
}

// The pixel that stands for an arc too short to have a pixel's centre in its directions: of the outline's pixels near
// its beginning, the one nearest to it.
Box scan_short_arc(const Arc& shape, const Box& clip, const SpanReceiver& receiver) {
    const EllipseForm form{shape.of};
    const auto place = form.rim(Turn{shape.sweep}.begin());
    const auto near = Point{.x = form.origin().x + static_cast<int>(std::floor(place.x)),
                            .y = form.origin().y + static_cast<int>(std::floor(place.y))};
    constexpr auto reach = 4;
    const auto around = Box{.at = {.x = near.x - reach, .y = near.y - reach}, .size = {2 * reach + 1, 2 * reach + 1}};
    if (!scan_thin_arc(shape, around,
                       {.context = nullptr, .take = [](void*, std::span<const Span>) {}, .repeats = Repeats::never})
             .empty()) {
        return scan_thin_arc(shape, clip, receiver);
    }
    const auto outline = spans_of([&](const SpanReceiver& gather) { scan_stroke(shape.of, Stroke{}, around, gather); });
    auto nearest = Box{};
    auto least = std::numeric_limits<double>::infinity();
    for (const auto& run : outline) {
        for (auto x = run.x; x < run.x + run.length; ++x) {
            const auto away = length(Vec{double{1} * x - form.origin().x, double{1} * run.y - form.origin().y} - place);
            if (away >= least) continue;
            least = away;
            nearest = {.at = {.x = x, .y = run.y}, .size = {1, 1}};
        }
    }
    return scan_fill(nearest, clip, receiver);
}

Box scan_hairline_arc(const Arc& shape, const Box& clip, const SpanReceiver& receiver) {
    const Turn turn{shape.sweep};
    const auto& size = shape.of.box().size;
    const auto longest = turn.degrees * (std::numbers::pi / 360) * std::max(size.width, size.height);
    constexpr auto few_pixels = 3;
    const auto is_short = !turn.is_whole && longest < few_pixels;
    return is_short ? scan_short_arc(shape, clip, receiver) : scan_thin_arc(shape, clip, receiver);
}

Box scan_wide_arc(const Arc& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    const Band band{how};
    const EllipseForm form{shape.of};
    const Turn turn{shape.sweep};
    const Wedge wedge{form.origin(), form.center(), turn};
    const EllipseTable outer{shape.of, band.out, clip};
    const EllipseTable inner{shape.of, -band.in, clip};
    const auto scan_body = [&](const SpanReceiver& gather) {
        return scan_between(outer.rows(), inner.rows(), wedge, clip, gather);
    };
    if (turn.is_whole || how.cap == Cap::flush) return scan_body(receiver);
    return scan_merged(receiver, [&](const SpanReceiver& gather) {
        const auto body = scan_body(gather);
        return enclosing(body, scan_contours(form.origin(), FillRule::nonzero, clip, gather,
                                             [&](Contours& contours) { draw_arc_caps(form, turn, how, contours); }));
    });
}

}  // namespace

void draw_arc_caps(const EllipseForm& form, const Turn& turn, const Stroke& how, Contours& contours) {
    const auto half = how.width / 2.0;
    const Band band{how};
    const auto draw = [&](Vec direction, double outward) {
        const auto normal = form.normal(direction);
        const auto middle = form.rim(direction) + normal * (band.out - half);
        if (how.cap == Cap::round) return contours.circle(middle, half + fine_slack);
        // From where the ray, which may be askew to the edge, cuts the band's sides on; a little before, so that no
        // pixel between is left out.
        const auto along = -left_of(normal) * outward;
        const auto slack = contours.is_smooth() ? 0.0 : 2 * fine_slack;
        const auto side = normal * ((half + fine_slack) * outward);
        const auto on_ray = [&](double away) {
            return form.rim(direction) + direction * (away / std::max(dot(direction, normal), 0.1)) - along * slack;
        };
        const auto outer = on_ray(band.out + fine_slack);
        const auto inner = on_ray(-(2 * half - band.out) - fine_slack);
        const auto beyond = middle + along * half;
        const auto begins_outside = outward > 0;
        for (const auto corner :
             {begins_outside ? outer : inner, beyond + side, beyond - side, begins_outside ? inner : outer}) {
            contours.to(corner);
        }
        contours.close();
    };
    draw(turn.begin(), -1);
    draw(turn.end(), 1);
}

Box scan_fill(const Sector& shape, const Box& clip, const SpanReceiver& receiver) {
    check_sweep("sector", shape.sweep);
    return scan_runs(SectorRows{shape, clip}, clip, receiver);
}

Box scan_fill(const Chord& shape, const Box& clip, const SpanReceiver& receiver) {
    check_sweep("chord", shape.sweep);
    return scan_runs(ChordRows{shape, clip}, clip, receiver);
}

Box scan_stroke(const Sector& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    check_sweep("sector", shape.sweep);
    check_stroke(how);
    return scan_stroke_of<SectorRows>(shape, how, edge_of_sector, clip, receiver);
}

Box scan_stroke(const Chord& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    check_sweep("chord", shape.sweep);
    check_stroke(how);
    return scan_stroke_of<ChordRows>(shape, how, edge_of_chord, clip, receiver);
}

Box scan_stroke(const Arc& shape, const Stroke& how, const Box& clip, const SpanReceiver& receiver) {
    check_sweep("arc", shape.sweep);
    check_stroke(how);
    auto centered = how;
    centered.align = Align::center;
    if (how.dash.empty()) {
        return how.width == 1 ? scan_hairline_arc(shape, clip, receiver)
                              : scan_wide_arc(shape, centered, clip, receiver);
    }
    const Turn turn{shape.sweep};
    const EllipseForm form{shape.of};
    Track track;
    form.add_rim(turn, of_form(form, detail_in(clip, crisp_flatness, how)), track);
    if (turn.is_whole) track.close();
    const auto scan_hairline_of = [&](const SpanReceiver& gather) { return scan_hairline_arc(shape, clip, gather); };
    if (how.width > 1) {
        // An arc has no inside: its dashes are what the pen covers.
        const auto pen = pen_around(centered);
        return scan_contours(form.origin(), FillRule::nonzero, clip, receiver,
                             [&](Contours& contours) { draw_stroke(track, pen, centered, contours); });
    }
    return scan_around({.edges = {std::move(track)}, .origin = form.origin()}, centered, clip, receiver,
                       scan_hairline_of, scan_hairline_of);
}

}  // namespace coldbrick::detail
