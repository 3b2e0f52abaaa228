#include "raster/forms/forms.hpp"

#include "raster/strokes/outline_tracks.hpp"

#include <algorithm>
#include <limits>
#include <optional>
#include <variant>

namespace coldbrick::inline v0::detail {

namespace {

// Grows around places.
struct Around {
    Surroundings box{.least = {std::numeric_limits<double>::infinity(), std::numeric_limits<double>::infinity()},
                     .most = {-std::numeric_limits<double>::infinity(), -std::numeric_limits<double>::infinity()}};

    void add(Vec at) noexcept {
        box.least = {std::min(box.least.x, at.x), std::min(box.least.y, at.y)};
        box.most = {std::max(box.most.x, at.x), std::max(box.most.y, at.y)};
    }
};

Surroundings around_ellipse(const EllipseForm& form) noexcept {
    const auto reach = Vec{form.half_width(), form.half_height()};
    return {form.center() - reach, form.center() + reach};
}

// Whether a direction lies in a turn, ends included, and some more.
bool is_in(const Turn& turn, Vec direction) noexcept {
    constexpr auto hardly = 1e-6;
    const auto begin = turn.begin();
    const auto end = turn.end();
    const auto behind_begin = cross(begin, direction) >= -hardly;
    const auto before_end = cross(direction, end) >= -hardly;
    if (turn.is_whole) return true;
    return turn.degrees <= 180 ? behind_begin && before_end : behind_begin || before_end;
}

// The rim within the turn, the centre, and the ends.
Surroundings around_sweep(const EllipseForm& form, const Sweep& sweep) noexcept {
    const Turn turn{sweep};
    Around around;
    around.add(form.center());
    around.add(form.rim(turn.begin()));
    around.add(form.rim(turn.end()));
    // Where the rim reaches furthest to the right, and so on.
    const auto [c, s] = form.direction();
    const auto [w, h] = Vec{form.half_width(), form.half_height()};
    const auto a2 = form.a() * form.a();
    const auto b2 = form.b() * form.b();
    const auto rightmost = Vec{w, (a2 - b2) * c * s / w};
    const auto lowest = Vec{(a2 - b2) * c * s / h, h};
    for (const auto at : {rightmost, -rightmost, lowest, -lowest}) {
        if (is_in(turn, unit(at))) around.add(form.center() + at);
    }
    return around.box;
}

void add_nodes(const FlatPath& flat, Around& all) noexcept {
    for (const auto& track : flat.tracks) {
        for (const auto& node : track.nodes) all.add(node.at);
    }
}

Surroundings around_nodes(const LinesForm& lines) noexcept {
    Around all;
    add_nodes(lines.flat, all);
    return lines.margin == 0 ? all.box : all.box.grown(lines.margin);
}

Surroundings around_letters(const LettersForm& letters) noexcept {
    Around all;
    add_nodes(letters.lines, all);
    if (!letters.lines.tracks.empty()) all.box = all.box.grown(letters.weight / 2);
    add_nodes(letters.outlines, all);
    return all.box.grown(letters.margin);
}

// The ellipse that lies so far inside a circle; nothing if it has no area.
std::optional<EllipseForm> hole_of(const RingForm& ring) noexcept {
    const auto radius = ring.of.a() - ring.thickness;
    if (!(radius > 0)) return std::nullopt;
    return EllipseForm{ring.of.origin(), ring.of.center(), {radius, radius}, Angle{}};
}

Track rim_of(const EllipseForm& form, const Sweep& sweep, const Detail& detail) {
    Track track;
    form.add_rim(Turn{sweep}, detail.relative_to({double{1} * form.origin().x, double{1} * form.origin().y}), track);
    return track;
}

}  // namespace

Point origin_of(const Form& form) noexcept {
    return std::visit(
        [](const auto& of) -> Point {
            if constexpr (requires { of.of; }) return of.of.origin();
            if constexpr (requires { of.flat; }) return of.flat.origin;
            if constexpr (requires { of.outlines; }) return of.lines.origin;
            if constexpr (requires { of.bounds; }) return of.bounds.at;
            if constexpr (requires { of.corner_radius; }) return of.origin;
            if constexpr (requires { of.half_width(); }) return of.origin();
        },
        form);
}

bool is_straight(const Form& form) noexcept {
    if (const auto* const lines = as<LinesForm>(form)) return lines->is_straight;
    if (const auto* const box = as<BoxForm>(form)) return box->corner_radius == 0;
    if (const auto* const letters = as<LettersForm>(form)) return letters->is_straight;
    return as<PixelsForm>(form) != nullptr;
}

Surroundings surroundings_of(const Form& form) {
    if (const auto* const ellipse = as<EllipseForm>(form)) return around_ellipse(*ellipse);
    if (const auto* const box = as<BoxForm>(form)) return {{box->left, box->top}, {box->right, box->bottom}};
    if (const auto* const lines = as<LinesForm>(form)) return around_nodes(*lines);
    if (const auto* const letters = as<LettersForm>(form)) return around_letters(*letters);
    if (const auto* const pixels = as<PixelsForm>(form)) {
        const auto& size = pixels->bounds.size;
        return {{-1, -1}, {double{1} * size.width, double{1} * size.height}};
    }
    if (const auto* const ring = as<RingForm>(form)) {
        return ring->sweep ? around_sweep(ring->of, *ring->sweep) : around_ellipse(ring->of);
    }
    return std::visit(
        [](const auto& of) {
            if constexpr (requires { around_sweep(of.of, of.sweep); }) return around_sweep(of.of, of.sweep);
            return Surroundings{};
        },
        form);
}

RingsAndLines rings_and_lines(const LinesForm& form) {
    if (form.is_area_only) return split_rings(form.flat);
    auto none = FlatPath{.origin = form.flat.origin, .tracks = {}};
    if (form.has_inside) return {.rings = form.flat, .lines = std::move(none)};
    return {.rings = std::move(none), .lines = form.flat};
}

CountedVector<Track> edges_of(const EllipseForm& form, const Detail& detail) {
    // It begins where its first axis ends.
    auto track = rim_of(form, {.from = form.turn(), .by = Angle::degrees(360)}, detail);
    track.close();
    return {std::move(track)};
}

CountedVector<Track> edges_of(const SectorForm& form, const Detail& detail) {
    if (Turn{form.sweep}.is_whole) return edges_of(form.of, detail);
    Track track;
    track.add(form.of.center());
    form.of.add_rim(Turn{form.sweep}, of_form(form.of, detail), track);
    track.close();
    return {std::move(track)};
}

CountedVector<Track> edges_of(const ChordForm& form, const Detail& detail) {
    if (Turn{form.sweep}.is_whole) return edges_of(form.of, detail);
    auto track = rim_of(form.of, form.sweep, detail);
    if (!track.nodes.empty()) track.nodes.front().smooth = track.nodes.back().smooth = false;
    track.close();
    return {std::move(track)};
}

CountedVector<Track> edges_of(const RingForm& form, const Detail& detail) {
    const auto hole = hole_of(form);
    if (!form.sweep || Turn{*form.sweep}.is_whole) {
        auto edges = edges_of(form.of, detail);
        if (hole) {
            edges.push_back(edges_of(*hole, detail).front());
            edges.back().reverse();
        }
        return edges;
    }
    if (!hole) return edges_of(SectorForm{.of = form.of, .sweep = *form.sweep}, detail);
    auto track = rim_of(form.of, *form.sweep, detail);
    auto back = rim_of(*hole, *form.sweep, detail);
    back.reverse();
    for (auto* const of : {&track, &back}) {
        if (!of->nodes.empty()) of->nodes.front().smooth = of->nodes.back().smooth = false;
    }
    track.end_curve();
    for (auto& node : back.nodes) track.add(node);
    track.close();
    return {std::move(track)};
}

CountedVector<Track> edges_of(const PixelsForm& form, const Detail&) {
    return outline_tracks(form.spans, form.bounds.at);
}

Track track_of(const ArcForm& form, const Detail& detail) {
    auto track = rim_of(form.of, form.sweep, detail);
    if (Turn{form.sweep}.is_whole) track.close();
    return track;
}

CountedVector<Track> edges_of(const BoxForm& box, const Detail& detail) {
    const auto from_box = detail.relative_to({double{1} * box.origin.x, double{1} * box.origin.y});
    Track track;
    const auto k = box.corner_radius;
    const auto corner = [&](Vec tip, Vec from, Vec to) {
        if (k == 0) return track.add(tip);
        const auto place = RoundPlaces{.center = tip - (from + to) * k, .half_axes = {k, k}};
        track.add_joint(place(from), place.along(from));
        add_chords(from, to, place, from_box, track);
        track.add_joint(place(to), place.along(to));
    };
    corner({box.right, box.top}, {0, -1}, {1, 0});
    corner({box.right, box.bottom}, {1, 0}, {0, 1});
    corner({box.left, box.bottom}, {0, 1}, {-1, 0});
    corner({box.left, box.top}, {-1, 0}, {0, -1});
    // A path begins where its first straight side does.
    track.rotate_to_last();
    track.close();
    return {std::move(track)};
}

}  // namespace coldbrick::inline v0::detail
