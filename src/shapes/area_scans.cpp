// From an area of any kind to what finds its spans.
#include "geometry/limits.hpp"
#include "raster/lowering/geometry_bounds.hpp"
#include "raster/lowering/geometry_scans.hpp"
#include "shapes/shape_table.hpp"

#include "coldbrick/error.hpp"
#include "coldbrick/path.hpp"

#include <cmath>
#include <optional>

namespace coldbrick::inline v0::detail {

namespace {

constexpr Transform nowhere_else;

constexpr auto everything =
    Box::between({.from = {-max_coordinate, -max_coordinate}, .to = {max_coordinate, max_coordinate}});

const Transform& placing_of(const AreaRef& area) noexcept { return area.by == nullptr ? nowhere_else : *area.by; }

bool is_moved(const AreaRef& area) noexcept { return area.by != nullptr && !area.by->is_identity(); }

void check_each_of(const Fill& how) {
    check_rule("fill", how.rule);
    check_choice("fill", "edges", how.edges, {"inclusive", "shared"});
    check_edge("fill", how.edge);
}
void check_how(const Fill& how) {
    const auto is_usual = how.rule == FillRule::even_odd && how.edges == Edges::inclusive &&
                          (how.edge == Edge::crisp || how.edge == Edge::smooth);
    if (!is_usual) check_each_of(how);
}
void check_how(const Stroke& how) { check_stroke(how); }

// The geometry of a shape, with the tolerance that is needed where it is seen.
template <class How>
Geometry lowered(const ShapeRef& shape, const How& how, const Placement& placement, const Box& clip) {
    const auto geometry = entry_of(shape.kind).geometry;
    if (how.edge == Edge::crisp) return geometry(shape.shape, placement.detail_in(clip, crisp_flatness, how));
    // Curves matter to paths alone, and are followed where they are seen.
    constexpr auto rough = 16.0;
    constexpr auto large = 1 << 20;
    const auto is_large = clip.size.width > large || clip.size.height > large;
    const auto seen = is_large ? seen_part(geometry(shape.shape, {rough}), reach_of(how), placement, clip) : clip;
    return geometry(shape.shape, placement.detail_in(seen, smooth_flatness, how));
}

// By the shape's own scan, in whole numbers; nothing where it has none.
std::optional<Box> scan_whole(const ShapeRef& shape, const Fill& how, const Box& clip, const SpanSink& sink) {
    const auto& entry = entry_of(shape.kind);
    if (entry.fill == nullptr || (how.edge == Edge::smooth && !entry.is_of_pixels)) return std::nullopt;
    return entry.fill(shape.shape, how, clip, sink);
}
std::optional<Box> scan_whole(const ShapeRef& shape, const Stroke& how, const Box& clip, const SpanSink& sink) {
    const auto& entry = entry_of(shape.kind);
    if (entry.stroke == nullptr || how.edge == Edge::smooth) return std::nullopt;
    if (how.width.is_whole()) return entry.stroke(shape.shape, how, clip, sink);
    check_stroke(how);
    if (entry.has_whole_widths) check_whole_width(how);
    return std::nullopt;
}

// What a small round shape with smooth edges covers; nothing of others.
std::optional<RoundBand> small_band(const RoundPart& part, const Fill&) { return small_round_fill(part); }
std::optional<RoundBand> small_band(const RoundPart& part, const Stroke& how) {
    return how.dash.empty() ? small_round_stroke(part, Band{how}) : std::nullopt;
}
template <class How>
std::optional<Box> scan_round(const ShapeRef& shape, const How& how, const Box& clip, const SpanSink& sink) {
    const auto find = entry_of(shape.kind).round;
    if (find == nullptr || how.edge != Edge::smooth || sink.take_cover == nullptr) return std::nullopt;
    const auto part = find(shape.shape);
    const auto band = part ? small_band(*part, how) : std::nullopt;
    return band ? std::optional{scan_round_cover(*band, clip, sink)} : std::nullopt;
}

void check_fill_of(const ShapeRef& shape, const Fill&) {
    const auto& entry = entry_of(shape.kind);
    if (entry.check_fill != nullptr) entry.check_fill(shape.shape);
}
void check_fill_of(const ShapeRef&, const Stroke&) noexcept {}

template <class How>
Box scan_shape(const How& how, const AreaRef& area, const Box& clip, const SpanSink& sink) {
    if (!is_moved(area)) {
        if (const auto touched = scan_whole(area.shape, how, clip, sink)) return *touched;
        if (const auto touched = scan_round(area.shape, how, clip, sink)) return *touched;
    }
    const auto placement = area.by == nullptr ? Placement{} : Placement{*area.by};
    check_fill_of(area.shape, how);
    return scan_geometry(lowered(area.shape, how, placement, clip), how, placement, clip, sink);
}

// The box, where a formula gives it.
std::optional<Box> known_bounds(const ShapeRef& shape, const Fill& how) {
    const auto find = entry_of(shape.kind).fill_bounds;
    return find != nullptr ? find(shape.shape, how) : std::nullopt;
}
std::optional<Box> known_bounds(const ShapeRef& shape, const Stroke& how) {
    const auto find = entry_of(shape.kind).stroke_bounds;
    return find != nullptr ? find(shape.shape, how) : std::nullopt;
}

template <class How>
Box bounds_of_shape(const How& how, const AreaRef& area) {
    const auto scan = [&](const Box& clip) { return scan_shape(how, area, clip, null_sink); };
    if (!is_moved(area) && how.edge == Edge::crisp) {
        scan(Box{});  // which checks it
        if (const auto known = known_bounds(area.shape, how)) return *known;
    }
    const auto lower = [&](const Tolerance& tolerance) {
        return entry_of(area.shape.kind).geometry(area.shape.shape, tolerance);
    };
    return find_bounds({.lower = lower, .scan = scan}, how, placing_of(area));
}

// Whether it is the stroke of a box that has whole pixels, smooth edges or not.
bool has_whole_sides(const AreaRef& area) noexcept {
    const auto& how = *area.stroke;
    return how.edge == Edge::smooth && area.shape.kind == number_in<Box, AllShapes> && !is_moved(area) &&
           how.width.is_whole() && how.join == Join::miter && how.dash.empty();
}

// Calls use(how) with how an area is filled or stroked, once that is checked which does not depend on the shape.
template <class Use>
Box with_how_of(const AreaRef& area, const Use& use) {
    const auto with_how = [&](const auto& how) {
        check_how(how);
        return use(how);
    };
    if (area.stroke == nullptr) return with_how(*area.fill);
    if (!has_whole_sides(area)) return with_how(*area.stroke);
    auto crisp = *area.stroke;
    crisp.edge = Edge::crisp;
    return with_how(crisp);
}

// Of a shape of one's own, calls use(area) with an area of the library's in its place.
template <class Use>
Box with_own(const AreaRef& area, const Box& seen, const Use& use) {
    const auto& [shape, kind, calls] = area.shape;
    auto lent = area;
    if (calls->find_outline != nullptr) {
        Path outline;
        calls->find_outline(shape, outline);
        lent.shape = shape_ref(outline);
        return use(lent);
    }
    if (calls->find_lettering != nullptr) {
        Lettering letters;
        calls->find_lettering(shape, letters);
        lent.shape = shape_ref(letters);
        return use(lent);
    }
    const auto is_plain = area.fill != nullptr && area.fill->edge == Edge::crisp && !is_moved(area);
    const auto region = Region::of_spans(calls->find_spans(shape, is_plain ? seen : everything));
    lent.shape = shape_ref(region);
    return use(lent);
}

// By the pixels that a shape of one's own has ready, if it has them.
std::optional<Box> scan_ready(const AreaRef& area, const Box& clip, const SpanSink& sink) {
    const auto& [shape, kind, calls] = area.shape;
    if (calls->scan_ready == nullptr || area.stroke != nullptr) return std::nullopt;
    check_how(*area.fill);
    const auto move = is_moved(area) ? Placement{*area.by}.move() : Position{};
    if (!move) return std::nullopt;
    Box touched;
    const auto is_scanned = calls->scan_ready(shape, *area.fill, *move, clip, sink, touched);
    return is_scanned ? std::optional{touched} : std::nullopt;
}

}  // namespace

Box scan(const AreaRef& area, const Box& clip, const SpanSink& sink) {
    if (area.shape.own_calls != nullptr) {
        if (const auto touched = scan_ready(area, clip, sink)) return *touched;
        return with_own(area, clip, [&](const AreaRef& lent) { return scan(lent, clip, sink); });
    }
    return with_how_of(area, [&](const auto& how) { return scan_shape(how, area, clip, sink); });
}

const Box* single_pixel_of(const AreaRef& area) {
    if (area.shape.kind != number_in<Box, AllShapes> || area.shape.own_calls != nullptr || area.stroke != nullptr) {
        return nullptr;
    }
    const auto& box = *static_cast<const Box*>(area.shape.shape);
    if (box.size.width != 1 || box.size.height != 1 || is_moved(area)) return nullptr;
    check_how(*area.fill);
    check_box("box", box);
    return &box;
}

Box bounds_of(const AreaRef& area) {
    if (area.shape.own_calls != nullptr) {
        if (const auto touched = scan_ready(area, everything, null_sink)) return *touched;
        return with_own(area, everything, [](const AreaRef& lent) { return bounds_of(lent); });
    }
    return with_how_of(area, [&](const auto& how) { return bounds_of_shape(how, area); });
}

Box outer_bounds_of(const AreaRef& area) {
    if (area.shape.own_calls != nullptr) {
        if (const auto touched = scan_ready(area, everything, null_sink)) return *touched;
        return with_own(area, everything, [](const AreaRef& lent) { return outer_bounds_of(lent); });
    }
    return with_how_of(area, [&](const auto& how) {
        if (!is_moved(area) && how.edge == Edge::crisp) {
            if (const auto known = known_bounds(area.shape, how)) return *known;
        }
        const auto geometry = entry_of(area.shape.kind).geometry(area.shape.shape, {rough_flatness});
        return rough_bounds(geometry, how, placing_of(area));
    });
}

Point place_pixel(Point at, const Transform& by) {
    if (by.is_identity()) return at;
    const auto [x, y] = by(at);
    const auto whole = [](double value) {
        constexpr auto most = double{max_coordinate};
        if (!(std::fabs(value) <= most)) throw Error{"transform: it takes a pixel beyond what a coordinate may be"};
        return static_cast<int>(std::floor(value + 0.5));
    };
    return {.x = whole(x), .y = whole(y)};
}

}  // namespace coldbrick::inline v0::detail
