// Forms with smooth edges, under a transform, or between the pixels: drawn from their outlines.
#include "raster/lowering/geometry_scans.hpp"

#include "geometry/budget_memory.hpp"
#include "raster/lowering/outer_box.hpp"
#include "raster/lowering/outline.hpp"
#include "raster/rounds/round_cover.hpp"
#include "raster/spans/span_sets.hpp"
#include "raster/strokes/flat_path_scans.hpp"
#include "raster/strokes/polygon_strokes.hpp"

#include <algorithm>

namespace coldbrick::inline v0::detail {

namespace {

Box scan_smooth(const Outline& outline, const Placement& placement, const Box& clip, const SpanSink& sink) {
    const auto window = window_of(clip);
    if (window.empty()) return {};
    ContourMemory memory;
    Chains chains{window, &memory};
    const auto rule = draw_outline(outline, placement, chains);
    if (outline.is_simple && placement.move()) return scan_simple_chains(chains, sink, &memory);
    return scan_chains(chains, rule, sink, &memory);
}

Box scan_group(const Outline& outline, std::size_t group, const Placement& placement, const Box& clip,
               const SpanSink& sink) {
    return scan_contours(outline.origin, outline.groups[group].rule, clip, sink, [&](Contours& contours) {
        placement.apply(contours, outline.origin);
        outline.groups[group].draw(contours);
    });
}

// What is covered by the groups' sets of pixels: goes along their rows from one begin or end to the next.
SpanSet combined(const CountedVector<SpanSet>& sets, GroupTruth truth) {
    struct Change {
        int y;
        int x;
        unsigned group;
    };
    CountedVector<Change> changes;
    for (std::size_t group = 0; group < sets.size(); ++group) {
        for (const auto& run : sets[group]) {
            changes.push_back({.y = run.y, .x = run.x, .group = 1U << group});
            changes.push_back({.y = run.y, .x = run.x + run.length, .group = 1U << group});
        }
    }
    sort_in_budget(changes.begin(), changes.end(),
                   [](const Change& a, const Change& b) { return a.y != b.y ? a.y < b.y : a.x < b.x; });
    SpanSet covered;
    auto inside = 0U;
    auto begin = 0;
    for (std::size_t i = 0; i < changes.size();) {
        const auto [y, x, first] = changes[i];
        const auto was_covered = ((truth >> inside) & 1U) != 0;
        for (; i < changes.size() && changes[i].y == y && changes[i].x == x; ++i) inside ^= changes[i].group;
        const auto is_covered = ((truth >> inside) & 1U) != 0;
        if (is_covered && !was_covered) begin = x;
        if (was_covered && !is_covered) covered.push_back({.y = y, .x = begin, .length = x - begin});
    }
    return covered;
}

Box scan_crisp(const Outline& outline, const Placement& placement, const Box& clip, const SpanSink& sink) {
    if (outline.groups.size() == 1) return scan_group(outline, 0, placement, clip, sink);
    CountedVector<SpanSet> sets;
    for (std::size_t i = 0; i < outline.groups.size(); ++i) {
        sets.push_back(spans_of([&](const SpanSink& gather) { scan_group(outline, i, placement, clip, gather); }));
    }
    return pass_on(combined(sets, outline.truth), sink);
}

// Merges the spans of one row that touch, for a sink of pixels alone.
class TouchingSpans {
  public:
    explicit TouchingSpans(const SpanSink& to) noexcept : to_{to} {}

    [[nodiscard]] SpanSink sink() noexcept {
        const auto take = [](void* context, std::span<const Span> spans) {
            for (const auto& run : spans) static_cast<TouchingSpans*>(context)->add(run);
        };
        return {.context = this, .take = take, .repeats = Repeats::never};
    }

    void finish() {
        if (last_.length > 0) to_.take(to_.context, {&last_, 1});
    }

  private:
    void add(const Span& run) {
        if (last_.y == run.y && last_.x + last_.length == run.x) {
            last_.length += run.length;
            return;
        }
        finish();
        last_ = run;
    }

    SpanSink to_;
    Span last_{.y = 0, .x = 0, .length = 0};
};

// Runs scan(sink) for a sink of coverage, or of pixels alone.
template <class Scan>
Box report_covered(const SpanSink& sink, const Scan& scan) {
    if (sink.take_cover != nullptr) return scan(sink);
    TouchingSpans touching{sink};
    const auto touched = scan(touching.sink());
    touching.finish();
    return touched;
}

// What of a geometry is a band around an ellipse or a box.
std::optional<RoundBand> round_band_of(const Geometry& geometry, const Fill&) {
    if (const auto* const ellipse = as<EllipseGeometry>(geometry)) return round_fill(*ellipse);
    if (const auto* const box = as<BoxGeometry>(geometry)) return round_fill(*box);
    const auto* const ring = as<RingGeometry>(geometry);
    const auto is_whole = ring != nullptr && (!ring->sweep || Turn{*ring->sweep}.is_whole);
    return is_whole ? round_stroke(ring->of, {0, ring->thickness}) : std::nullopt;
}
std::optional<RoundBand> round_band_of(const Geometry& geometry, const Stroke& how) {
    if (!how.dash.empty()) return std::nullopt;
    if (const auto* const ellipse = as<EllipseGeometry>(geometry)) return round_stroke(*ellipse, Band{how});
    if (const auto* const box = as<BoxGeometry>(geometry)) return round_stroke(*box, Band{how}, how.join);
    return std::nullopt;
}

template <class How>
Box scan_outline_of(const Geometry& geometry, const How& how, const Placement& placement, const Box& clip,
                    const SpanSink& sink) {
    if (how.edge == Edge::crisp) {
        return scan_crisp(outline_of(geometry, how, placement.detail_in(clip, crisp_flatness, how)), placement, clip,
                          sink);
    }
    if (const auto move = placement.whole_move()) {
        if (auto band = round_band_of(geometry, how)) {
            band->box.at = band->box.at + *move;
            return report_covered(sink, [&](const SpanSink& to) { return scan_round_cover(*band, clip, to); });
        }
    }
    const auto seen = seen_part(geometry, reach_of(how), placement, clip);
    const auto outline = outline_of(geometry, how, placement.detail_in(seen, smooth_flatness, how));
    return report_covered(sink, [&](const SpanSink& to) { return scan_smooth(outline, placement, seen, to); });
}

// Letters of which a pen of breadth 1 draws the lines: hairlines, and what is inside of the outlines.
bool is_of_hairlines(const LettersGeometry& letters, const Placement& placement) {
    return letters.weight == 1 && !letters.lines.subpaths.empty() && placement.whole_move();
}
Box scan_thin_letters(const LettersGeometry& letters, const Placement& placement, const Box& clip,
                      const SpanSink& sink) {
    const auto lines =
        spans_of([&](const SpanSink& gather) { scan_thin_subpaths(placement(letters.lines), Stroke{}, clip, gather); });
    if (letters.outlines.subpaths.empty()) return pass_on(lines, sink);
    const auto inside = spans_of([&](const SpanSink& gather) {
        scan_inside_subpaths(placement(letters.outlines), FillRule::nonzero, clip, gather);
    });
    return pass_on(union_of(lines, inside), sink);
}

// The pixels of a fill that have one of their four neighbours outside.
SpanSet rim_pixels(const Geometry& geometry, const Placement& placement, const Box& clip) {
    const auto inside =
        spans_of([&](const SpanSink& gather) { scan_geometry(geometry, Fill{}, placement, clip.inset(-1), gather); });
    return spans_of([&](const SpanSink& gather) { scan_set_outline(inside, clip, gather); });
}

// Width 1: the pixels along lines; of closed geometries, and of arcs, the rim.
Box scan_hairline_of(const Geometry& geometry, const Placement& placement, const Box& clip, const SpanSink& sink) {
    if (const auto* const lines = as<LinesGeometry>(geometry)) {
        return scan_thin_subpaths(placement(lines->flat), Stroke{}, clip, sink);
    }
    const auto* const arc = as<ArcGeometry>(geometry);
    if (arc == nullptr) return pass_on(rim_pixels(geometry, placement, clip), sink);
    const auto rim = rim_pixels(arc->of, placement, clip);
    // Of the rim, what lies in the directions of the sweep.
    const auto thick = Stroke{.width = 8};
    const auto outline = outline_of(geometry, thick, placement.detail_in(clip, crisp_flatness, thick));
    if (outline.groups.size() < 2) return pass_on(rim, sink);
    const auto wedge = spans_of([&](const SpanSink& gather) { scan_group(outline, 1, placement, clip, gather); });
    return pass_on(intersection_of(rim, wedge), sink);
}

// A stroke of rings, and of lines beside them.
Box scan_rings_and_lines(const RingsAndLines& parts, const Stroke& how, const Placement& placement, const Box& clip,
                         const SpanSink& sink) {
    const auto scan_subpaths = [&](const FlatPath& subpaths, const Pen& pen, const Stroke& along, const SpanSink& to) {
        if (is_hairline(along)) return scan_thin_subpaths(placement(subpaths), along, clip, to);
        return scan_crisp(stroke_along(subpaths, pen, along), placement, clip, to);
    };
    const auto scan_trace = [&](const Stroke& trace, const SpanSink& to) {
        return scan_subpaths(parts.rings, pen_along_rings(trace), trace, to);
    };
    const auto along_rings = spans_of([&](const SpanSink& gather) {
        if (PolygonStroke{how}.is_within_rim()) {
            auto covered = spans_of([&](const SpanSink& to) { scan_flat(placement(parts.rings), Fill{}, clip, to); });
            covered = difference_of(covered, spans_of([&](const SpanSink& to) {
                                        scan_inside_subpaths(placement(parts.rings), FillRule::even_odd, clip, to);
                                    }));
            for (const auto& trace : PolygonStroke{how}.traces()) {
                covered = difference_of(covered, spans_of([&](const SpanSink& to) { scan_trace(trace, to); }));
            }
            pass_on(covered, gather);
            return;
        }
        scan_polygon_stroke(how, gather, scan_trace,
                            [&](const SpanSink& to) { scan_flat(placement(parts.rings), Fill{}, clip, to); });
    });
    if (parts.lines.subpaths.empty()) return pass_on(along_rings, sink);
    const auto along_lines =
        spans_of([&](const SpanSink& gather) { scan_subpaths(parts.lines, pen_along(how), how, gather); });
    return pass_on(union_of(along_rings, along_lines), sink);
}

}  // namespace

Box scan_geometry(const Geometry& geometry, const Fill& how, const Placement& placement, const Box& clip,
                  const SpanSink& sink) {
    if (clip.empty() && placement.is_identity()) return {};
    if (const auto* const lines = as_polygonal(geometry); lines != nullptr && how.edge == Edge::crisp) {
        return scan_flat(placement(lines->flat), how, clip, sink);
    }
    if (const auto* const letters = as<LettersGeometry>(geometry);
        letters != nullptr && how.edge == Edge::crisp && is_of_hairlines(*letters, placement)) {
        return scan_thin_letters(*letters, placement, clip, sink);
    }
    return scan_outline_of(geometry, how, placement, clip, sink);
}

Box scan_geometry(const Geometry& geometry, const Stroke& how, const Placement& placement, const Box& clip,
                  const SpanSink& sink) {
    check_stroke(how);
    if (clip.empty() && placement.is_identity() && how.dash.empty()) return {};
    if (how.edge == Edge::smooth) return scan_outline_of(geometry, how, placement, clip, sink);
    const auto* const lines = as_polygonal(geometry);
    if (lines != nullptr && PolygonStroke{how}.needs_fill()) {
        const auto parts = rings_and_lines(*lines);
        if (!parts.rings.subpaths.empty()) return scan_rings_and_lines(parts, how, placement, clip, sink);
    }
    if (is_hairline(how)) return scan_hairline_of(geometry, placement, clip, sink);
    return scan_outline_of(geometry, how, placement, clip, sink);
}

Box seen_part(const Geometry& geometry, double reach, const Placement& placement, const Box& clip) {
    constexpr auto large = 1 << 20;
    if (clip.size.width <= large && clip.size.height <= large) return clip;
    return intersection(clip, outer_box(geometry, reach, placement));
}

}  // namespace coldbrick::inline v0::detail
