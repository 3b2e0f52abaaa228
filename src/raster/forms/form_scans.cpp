// Forms with smooth edges, under a transform, or between the pixels: drawn from their outlines.
#include "raster/forms/form_scans.hpp"

#include "geometry/budget_memory.hpp"
#include "raster/forms/outer_box.hpp"
#include "raster/forms/outline.hpp"
#include "raster/spans/span_sets.hpp"
#include "raster/strokes/flat_path_scans.hpp"
#include "raster/strokes/polygon_strokes.hpp"
#include "raster/strokes/round_cover.hpp"

#include <algorithm>

namespace coldbrick::inline v0::detail {

namespace {

Box scan_smooth(const Outline& outline, const Placement& placement, const Box& clip, const SpanReceiver& receiver) {
    const auto window = window_of(clip);
    if (window.empty()) return {};
    ContourMemory memory;
    Chains chains{window, &memory};
    const auto rule = draw_outline(outline, placement, chains);
    if (outline.is_simple && placement.move()) return scan_simple_chains(chains, receiver, &memory);
    return scan_chains(chains, rule, receiver, &memory);
}

Box scan_group(const Outline& outline, std::size_t group, const Placement& placement, const Box& clip,
               const SpanReceiver& receiver) {
    return scan_contours(outline.origin, outline.groups[group].rule, clip, receiver, [&](Contours& contours) {
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

Box scan_crisp(const Outline& outline, const Placement& placement, const Box& clip, const SpanReceiver& receiver) {
    if (outline.groups.size() == 1) return scan_group(outline, 0, placement, clip, receiver);
    CountedVector<SpanSet> sets;
    for (std::size_t i = 0; i < outline.groups.size(); ++i) {
        sets.push_back(spans_of([&](const SpanReceiver& gather) { scan_group(outline, i, placement, clip, gather); }));
    }
    return pass_on(combined(sets, outline.truth), receiver);
}

// Merges the spans of one row that touch, for who asks only for pixels.
class TouchingSpans {
  public:
    explicit TouchingSpans(const SpanReceiver& to) noexcept : to_{to} {}

    [[nodiscard]] SpanReceiver receiver() noexcept {
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

    SpanReceiver to_;
    Span last_{.y = 0, .x = 0, .length = 0};
};

// Has scan(receiver) tell coverage to whoever asks, for it or only for the pixels.
template <class Scan>
Box tell_covered(const SpanReceiver& receiver, const Scan& scan) {
    if (receiver.take_cover != nullptr) return scan(receiver);
    TouchingSpans touching{receiver};
    const auto touched = scan(touching.receiver());
    touching.finish();
    return touched;
}

// What of a form is a band around an ellipse or a box.
std::optional<RoundBand> round_band_of(const Form& form, const Fill&) {
    if (const auto* const ellipse = as<EllipseForm>(form)) return round_fill(*ellipse);
    if (const auto* const box = as<BoxForm>(form)) return round_fill(*box);
    const auto* const ring = as<RingForm>(form);
    const auto is_whole = ring != nullptr && (!ring->sweep || Turn{*ring->sweep}.is_whole);
    return is_whole ? round_stroke(ring->of, {0, ring->thickness}) : std::nullopt;
}
std::optional<RoundBand> round_band_of(const Form& form, const Stroke& how) {
    if (!how.dash.empty()) return std::nullopt;
    if (const auto* const ellipse = as<EllipseForm>(form)) return round_stroke(*ellipse, Band{how});
    if (const auto* const box = as<BoxForm>(form)) return round_stroke(*box, Band{how}, how.join);
    return std::nullopt;
}

template <class How>
Box scan_outline_of(const Form& form, const How& how, const Placement& placement, const Box& clip,
                    const SpanReceiver& receiver) {
    if (how.edge == Edge::crisp) {
        return scan_crisp(outline_of(form, how, placement.detail_in(clip, crisp_flatness, how)), placement, clip,
                          receiver);
    }
    if (const auto move = placement.whole_move()) {
        if (auto band = round_band_of(form, how)) {
            band->box.at = band->box.at + *move;
            return tell_covered(receiver, [&](const SpanReceiver& to) { return scan_round_cover(*band, clip, to); });
        }
    }
    const auto seen = seen_part(form, reach_of(how), placement, clip);
    const auto outline = outline_of(form, how, placement.detail_in(seen, smooth_flatness, how));
    return tell_covered(receiver, [&](const SpanReceiver& to) { return scan_smooth(outline, placement, seen, to); });
}

// Letters of which a pen of breadth 1 draws the lines: hairlines, and what is inside of the outlines.
bool is_of_hairlines(const LettersForm& letters, const Placement& placement) {
    return letters.weight == 1 && !letters.lines.tracks.empty() && placement.whole_move();
}
Box scan_thin_letters(const LettersForm& letters, const Placement& placement, const Box& clip,
                      const SpanReceiver& receiver) {
    const auto lines = spans_of(
        [&](const SpanReceiver& gather) { scan_thin_tracks(placement(letters.lines), Stroke{}, clip, gather); });
    if (letters.outlines.tracks.empty()) return pass_on(lines, receiver);
    const auto inside = spans_of([&](const SpanReceiver& gather) {
        scan_inside_tracks(placement(letters.outlines), FillRule::nonzero, clip, gather);
    });
    return pass_on(union_of(lines, inside), receiver);
}

// The pixels of a fill that have one of their four neighbours outside.
SpanSet rim_pixels(const Form& form, const Placement& placement, const Box& clip) {
    const auto inside =
        spans_of([&](const SpanReceiver& gather) { scan_form(form, Fill{}, placement, clip.inset(-1), gather); });
    return spans_of([&](const SpanReceiver& gather) { scan_set_outline(inside, clip, gather); });
}

// Width 1: the pixels along lines; of closed forms, and of arcs, the rim.
Box scan_hairline_of(const Form& form, const Placement& placement, const Box& clip, const SpanReceiver& receiver) {
    if (const auto* const lines = as<LinesForm>(form)) {
        return scan_thin_tracks(placement(lines->flat), Stroke{}, clip, receiver);
    }
    const auto* const arc = as<ArcForm>(form);
    if (arc == nullptr) return pass_on(rim_pixels(form, placement, clip), receiver);
    const auto rim = rim_pixels(arc->of, placement, clip);
    // Of the rim, what lies in the directions of the sweep.
    const auto thick = Stroke{.width = 8};
    const auto outline = outline_of(form, thick, placement.detail_in(clip, crisp_flatness, thick));
    if (outline.groups.size() < 2) return pass_on(rim, receiver);
    const auto wedge = spans_of([&](const SpanReceiver& gather) { scan_group(outline, 1, placement, clip, gather); });
    return pass_on(intersection_of(rim, wedge), receiver);
}

// A stroke of rings, and of lines beside them.
Box scan_rings_and_lines(const RingsAndLines& parts, const Stroke& how, const Placement& placement, const Box& clip,
                         const SpanReceiver& receiver) {
    const auto scan_tracks = [&](const FlatPath& tracks, const Pen& pen, const Stroke& along, const SpanReceiver& to) {
        if (is_hairline(along)) return scan_thin_tracks(placement(tracks), along, clip, to);
        return scan_crisp(stroke_along(tracks, pen, along), placement, clip, to);
    };
    const auto scan_trace = [&](const Stroke& trace, const SpanReceiver& to) {
        return scan_tracks(parts.rings, pen_along_rings(trace), trace, to);
    };
    const auto along_rings = spans_of([&](const SpanReceiver& gather) {
        if (PolygonStroke{how}.is_within_rim()) {
            auto covered =
                spans_of([&](const SpanReceiver& to) { scan_flat(placement(parts.rings), Fill{}, clip, to); });
            covered = difference_of(covered, spans_of([&](const SpanReceiver& to) {
                                        scan_inside_tracks(placement(parts.rings), FillRule::even_odd, clip, to);
                                    }));
            for (const auto& trace : PolygonStroke{how}.traces()) {
                covered = difference_of(covered, spans_of([&](const SpanReceiver& to) { scan_trace(trace, to); }));
            }
            pass_on(covered, gather);
            return;
        }
        scan_polygon_stroke(how, gather, scan_trace,
                            [&](const SpanReceiver& to) { scan_flat(placement(parts.rings), Fill{}, clip, to); });
    });
    if (parts.lines.tracks.empty()) return pass_on(along_rings, receiver);
    const auto along_lines =
        spans_of([&](const SpanReceiver& gather) { scan_tracks(parts.lines, pen_along(how), how, gather); });
    return pass_on(union_of(along_rings, along_lines), receiver);
}

}  // namespace

Box scan_form(const Form& form, const Fill& how, const Placement& placement, const Box& clip,
              const SpanReceiver& receiver) {
    if (const auto* const lines = as_polygonal(form); lines != nullptr && how.edge == Edge::crisp) {
        return scan_flat(placement(lines->flat), how, clip, receiver);
    }
    if (const auto* const letters = as<LettersForm>(form);
        letters != nullptr && how.edge == Edge::crisp && is_of_hairlines(*letters, placement)) {
        return scan_thin_letters(*letters, placement, clip, receiver);
    }
    return scan_outline_of(form, how, placement, clip, receiver);
}

Box scan_form(const Form& form, const Stroke& how, const Placement& placement, const Box& clip,
              const SpanReceiver& receiver) {
    check_stroke(how);
    if (how.edge == Edge::smooth) return scan_outline_of(form, how, placement, clip, receiver);
    const auto* const lines = as_polygonal(form);
    if (lines != nullptr && PolygonStroke{how}.needs_fill()) {
        const auto parts = rings_and_lines(*lines);
        if (!parts.rings.tracks.empty()) return scan_rings_and_lines(parts, how, placement, clip, receiver);
    }
    if (is_hairline(how)) return scan_hairline_of(form, placement, clip, receiver);
    return scan_outline_of(form, how, placement, clip, receiver);
}

Box seen_part(const Form& form, double reach, const Placement& placement, const Box& clip) {
    constexpr auto large = 1 << 20;
    if (clip.size.width <= large && clip.size.height <= large) return clip;
    return intersection(clip, outer_box(form, reach, placement));
}

}  // namespace coldbrick::inline v0::detail
