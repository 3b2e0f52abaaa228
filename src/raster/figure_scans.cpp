// Shapes with smooth edges, under a transform, or between the pixels: drawn from their outlines.
#include "raster/closed_shapes.hpp"
#include "raster/find_bounds.hpp"
#include "raster/flat_path_scans.hpp"
#include "raster/outline.hpp"
#include "raster/round_cover.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/region.hpp"

#include <cmath>
#include <string>

namespace coldbrick::detail {

namespace {

// A transform of places relative to an origin, and how much longer it makes anything at most.
class Placement {
  public:
    explicit Placement(const Transform& by) : by_{by} {
        if (by.is_identity()) return;
        const auto& [xx, xy, dx, yx, yy, dy] = by.rows();
        for (const auto number : {xx, xy, dx, yx, yy, dy}) {
            if (!std::isfinite(number)) throw Error{"transform: one of its numbers is not finite"};
        }
        const auto determinant = xx * yy - xy * yx;
        const auto sum = xx * xx + xy * xy + yx * yx + yy * yy;
        // The larger singular value.
        scale_ = std::sqrt((sum + std::sqrt(std::max(0.0, sum * sum - 4 * determinant * determinant))) / 2);
        constexpr auto hardly = 1e-9;
        if (!(std::fabs(determinant) > hardly * scale_ * scale_) || !(scale_ > hardly)) {
            throw Error{"transform: it flattens everything to a line or a point; its rows are " + numbers({xx, xy}) +
                        " and " + numbers({yx, yy}) + ", and what they make of a square must have an area"};
        }
    }

    [[nodiscard]] double scale() const noexcept { return scale_; }

    // The new origin, in whole pixels, and what relative places become.
    [[nodiscard]] std::pair<Point, Mapping> around(Point origin) const {
        const auto at = by_(origin);
        check_place({at.x, at.y});
        const auto whole = Point{.x = static_cast<int>(std::floor(at.x)), .y = static_cast<int>(std::floor(at.y))};
        const auto& rows = by_.rows();
        return {
            whole,
            {.xx = rows.xx, .xy = rows.xy, .yx = rows.yx, .yy = rows.yy, .shift = {at.x - whole.x, at.y - whole.y}}};
    }

    void apply(Contours& contours, Point origin) const {
        if (by_.is_identity()) return;
        const auto [whole, mapping] = around(origin);
        contours.map(mapping, whole, scale_);
    }

    [[nodiscard]] FlatPath operator()(FlatPath flat) const {
        if (by_.is_identity()) return flat;
        const auto [whole, mapping] = around(flat.origin);
        flat.origin = whole;
        for (auto& track : flat.tracks) {
            for (auto& node : track.nodes) {
                node.at = mapping(node.at);
                check_place({node.at.x + whole.x, node.at.y + whole.y});
            }
        }
        return flat;
    }

  private:
    static void check_place(Vec at) {
        constexpr auto most = double{1} * max_coordinate;
        if (std::fabs(at.x) <= most && std::fabs(at.y) <= most) return;
        throw Error{"transform: it takes the shape to " + numbers(at) + "; allowed is -" +
                    std::to_string(max_coordinate) + " to " + std::to_string(max_coordinate)};
    }

    static std::string numbers(Vec pair) { return std::to_string(pair.x) + "," + std::to_string(pair.y); }

    const Transform& by_;
    double scale_ = 1;
};

Box scan_smooth(const Outline& outline, const Placement& placement, const Box& clip, const SpanReceiver& receiver) {
    const auto window = window_of(clip);
    if (window.empty()) return {};
    CoverEdges edges{window};
    Contours contours{edges, window, outline.origin};
    placement.apply(contours, outline.origin);
    auto rule = CoverRule{.truth = outline.truth};
    for (std::size_t i = 0; i < outline.groups.size(); ++i) {
        contours.begin_group(static_cast<int>(i));
        outline.groups[i].draw(contours);
        rule.masks[i] = outline.groups[i].rule == FillRule::even_odd ? 1 : -1;
    }
    return sweep_coverage(edges, rule, receiver);
}

Box scan_group(const Outline& outline, std::size_t group, const Placement& placement, const Box& clip,
               const SpanReceiver& receiver) {
    return scan_contours(outline.origin, outline.groups[group].rule, clip, receiver, [&](Contours& contours) {
        placement.apply(contours, outline.origin);
        outline.groups[group].draw(contours);
    });
}

// What is covered by the groups' sets of pixels.
SpanSet combined(const Outline& outline, const std::vector<SpanSet>& sets) {
    switch (outline.truth) {
        case Outline::in_either:
            return union_of(sets[0], sets[1]);
        case Outline::in_both:
            return intersection_of(sets[0], sets[1]);
        case Outline::in_second_only:
            return difference_of(sets[1], sets[0]);
        case Outline::in_third_and_another:
            return intersection_of(sets[2], union_of(sets[0], sets[1]));
        case Outline::in_third_only:
            return difference_of(sets[2], union_of(sets[0], sets[1]));
        case Outline::in_third_or_both_others:
            return union_of(sets[2], intersection_of(sets[0], sets[1]));
        default:
            return sets[0];
    }
}

Box scan_crisp(const Outline& outline, const Placement& placement, const Box& clip, const SpanReceiver& receiver) {
    if (outline.groups.size() == 1) return scan_group(outline, 0, placement, clip, receiver);
    std::vector<SpanSet> sets;
    for (std::size_t i = 0; i < outline.groups.size(); ++i) {
        sets.push_back(spans_of([&](const SpanReceiver& gather) { scan_group(outline, i, placement, clip, gather); }));
    }
    return pass_on(combined(outline, sets), receiver);
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
Box scan_covered(const SpanReceiver& receiver, const Scan& scan) {
    if (receiver.take_cover != nullptr) return scan(receiver);
    TouchingSpans touching{receiver};
    const auto touched = scan(touching.receiver());
    touching.finish();
    return touched;
}

template <class How>
Box scan_outline_of(const ShapeRef& shape, const How& how, const Placement& placement, const Box& clip,
                    const SpanReceiver& receiver) {
    if (how.edge == Edge::crisp) {
        return scan_crisp(outline_of(shape, how, crisp_flatness / placement.scale()), placement, clip, receiver);
    }
    const auto outline = outline_of(shape, how, smooth_flatness / placement.scale());
    return scan_covered(receiver, [&](const SpanReceiver& to) { return scan_smooth(outline, placement, clip, to); });
}

// The pixels of a fill that have one of their four neighbours outside.
SpanSet rim_pixels(const ShapeRef& shape, const Placement& placement, const Box& clip) {
    const auto around = grown(clip, 1);
    auto inside =
        spans_of([&](const SpanReceiver& gather) { scan_outline_of(shape, Fill{}, placement, around, gather); });
    return spans_of(
        [&](const SpanReceiver& gather) { scan_stroke(Region::of_spans(std::move(inside)), Stroke{}, clip, gather); });
}

// Width 1: the pixels along lines; of closed shapes, and of arcs, the rim.
Box scan_hairline_of(const ShapeRef& shape, const Placement& placement, const Box& clip, const SpanReceiver& receiver) {
    if (auto lines = lines_of(shape, crisp_flatness / placement.scale())) {
        return scan_thin_tracks(placement(*std::move(lines)), Stroke{}, clip, receiver);
    }
    const auto arc = arc_of(shape);
    if (!arc) return pass_on(rim_pixels(shape, placement, clip), receiver);
    const auto rim = std::visit(
        [&](const auto* of) {
            if constexpr (requires { of->of; }) return rim_pixels(&of->of, placement, clip);
            return SpanSet{};
        },
        shape);
    // Of the rim, what lies in the directions of the sweep.
    auto thick = Stroke{.width = 8};
    const auto outline = outline_of(shape, thick, crisp_flatness / placement.scale());
    if (outline.groups.size() < 2) return pass_on(rim, receiver);
    const auto wedge = spans_of([&](const SpanReceiver& gather) { scan_group(outline, 1, placement, clip, gather); });
    return pass_on(intersection_of(rim, wedge), receiver);
}

bool is_whole_pixels(const ShapeRef& shape) noexcept {
    return std::holds_alternative<const Box*>(shape) || std::holds_alternative<const Region*>(shape);
}

// The box of a circle, or of an ellipse that is not turned.
std::optional<Box> round_box(const ShapeRef& shape) {
    if (const auto* const circle = std::get_if<const Circle*>(&shape)) return Ellipse{**circle}.box();
    const auto* const ellipse = std::get_if<const Ellipse*>(&shape);
    if (ellipse == nullptr || (*ellipse)->turn() != Angle{}) return std::nullopt;
    return (*ellipse)->box();
}

// All corners of an outline, as pixels that they lie in.
std::vector<Point> corner_pixels(const Outline& outline, const Placement& placement) {
    std::vector<FinePoint> corners;
    Contours recording{outline.origin, corners};
    placement.apply(recording, outline.origin);
    for (const auto& group : outline.groups) group.draw(recording);
    std::vector<Point> pixels;
    pixels.reserve(corners.size());
    const auto pixel = [](std::int64_t at) {
        constexpr auto most = std::int64_t{2} * max_coordinate - 16;
        return static_cast<int>(std::clamp((at + fine_unit / 2) >> fine_bits, -most, most));
    };
    for (const auto& [x, y] : corners) pixels.push_back({.x = pixel(x), .y = pixel(y)});
    return pixels;
}

Box box_around(const std::vector<Point>& pixels, int margin) {
    if (pixels.empty()) return {};
    auto box = Window{
        .left = pixels.front().x, .top = pixels.front().y, .right = pixels.front().x, .bottom = pixels.front().y};
    for (const auto& [x, y] : pixels) {
        box.left = std::min(box.left, x);
        box.right = std::max(box.right, x);
        box.top = std::min(box.top, y);
        box.bottom = std::max(box.bottom, y);
    }
    return box_of({.left = box.left - margin,
                   .top = box.top - margin,
                   .right = box.right + margin + 1,
                   .bottom = box.bottom + margin + 1});
}

// The smallest box around what scan(clip) finds in a large one. It reaches furthest where a corner does: only what is
// near the outermost corners is looked at.
template <class Scan>
Box bounds_near(const std::vector<Point>& corners, const Scan& scan) {
    constexpr auto near = 8;
    const auto outer = box_around(corners, 0);
    auto known = Box{};
    for (const auto& at : corners) {
        const auto is_outermost = at.x <= outer.at.x + 1 || at.x >= outer.last().x - 1 || at.y <= outer.at.y + 1 ||
                                  at.y >= outer.last().y - 1;
        if (!is_outermost || contains(known, at)) continue;
        const auto around = Box{.at = {.x = at.x - near, .y = at.y - near}, .size = {2 * near + 1, 2 * near + 1}};
        known = enclosing(known, scan(around));
    }
    return known;
}

// The smallest box around what scan(clip) finds.
template <class Scan>
Box bounds_of_outline(const Outline& outline, const Placement& placement, const Scan& scan) {
    const auto corners = corner_pixels(outline, placement);
    const auto box = box_around(corners, 2);
    constexpr auto large = std::int64_t{1} << 26U;
    if (std::int64_t{box.size.width} * box.size.height > large) return bounds_near(corners, scan);
    return bounds_by_rows(box, scan);
}

template <class How>
Box bounds_of_figure(const ShapeRef& shape, const How& how, const Transform& by) {
    const Placement placement{by};
    const auto outline = outline_of(shape, how, crisp_flatness / placement.scale());
    return bounds_of_outline(outline, placement,
                             [&](const Box& clip) { return scan_figure(shape, how, by, clip, nobody); });
}

}  // namespace

Box scan_figure(const ShapeRef& shape, const Fill& how, const Transform& by, const Box& clip,
                const SpanReceiver& receiver) {
    const Placement placement{by};
    if (by.is_identity() && is_whole_pixels(shape)) {
        if (const auto* const box = std::get_if<const Box*>(&shape)) return scan_fill(**box, clip, receiver);
        return scan_fill(*std::get<const Region*>(shape), clip, receiver);
    }
    if (how.edge == Edge::smooth && by.is_identity()) {
        const auto round = round_box(shape);
        if (round && is_quick_round(*round)) {
            return scan_covered(receiver, [&](const SpanReceiver& to) { return scan_round_cover(*round, clip, to); });
        }
    }
    if (how.edge == Edge::crisp && has_inside(shape)) {
        return scan_flat(placement(lines_of(shape, crisp_flatness / placement.scale()).value()), how, clip, receiver);
    }
    return scan_outline_of(shape, how, placement, clip, receiver);
}

Box scan_figure(const ShapeRef& shape, const Stroke& how, const Transform& by, const Box& clip,
                const SpanReceiver& receiver) {
    check_stroke(how);
    const Placement placement{by};
    if (how.edge == Edge::crisp && is_hairline(how)) return scan_hairline_of(shape, placement, clip, receiver);
    return scan_outline_of(shape, how, placement, clip, receiver);
}

Box figure_bounds(const ShapeRef& shape, const Fill& how, const Transform& by) {
    return bounds_of_figure(shape, how, by);
}

Box figure_bounds(const ShapeRef& shape, const Stroke& how, const Transform& by) {
    return bounds_of_figure(shape, how, by);
}

}  // namespace coldbrick::detail
