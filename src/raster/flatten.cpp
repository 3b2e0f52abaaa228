#include "raster/flatten.hpp"

#include "raster/ellipse_form.hpp"

#include <cmath>

namespace coldbrick::detail {

namespace {

// A cubic Bézier curve.
struct Curve {
    Vec p0;
    Vec p1;
    Vec p2;
    Vec p3;

    [[nodiscard]] Vec at(double t) const noexcept {
        const auto u = 1 - t;
        return p0 * (u * u * u) + p1 * (3 * u * u * t) + p2 * (3 * u * t * t) + p3 * (t * t * t);
    }

    [[nodiscard]] Vec slope(double t) const noexcept {
        const auto u = 1 - t;
        return (p1 - p0) * (3 * u * u) + (p2 - p1) * (6 * u * t) + (p3 - p2) * (3 * t * t);
    }

    // A bound of how far the part from t to end is from its chord. In the part's own terms, the distance is
    // 3 s (1-s)^2 a + 3 s^2 (1-s) b, with a and b those of its control points: at most 3/4 of the larger one if both
    // are on one side, at most 4/9 if not.
    [[nodiscard]] double away(double t, double end) const noexcept {
        const auto from = at(t);
        const auto chord = at(end) - from;
        const auto size = length(chord);
        const auto first = slope(t) * ((end - t) / 3);
        const auto second = chord - slope(end) * ((end - t) / 3);
        if (size == 0) return std::max(length(first), length(second));
        const auto along = chord * (1 / size);
        const auto a = cross(along, first);
        const auto b = cross(along, second);
        const auto sideways = std::max(std::fabs(a), std::fabs(b)) * (a * b >= 0 ? 3.0 / 4 : 4.0 / 9);
        // Parts that go back beyond an end of the chord are as far away as that.
        const auto forth_1 = dot(along, first);
        const auto forth_2 = dot(along, second);
        const auto beyond = std::max({-forth_1, -forth_2, forth_1 - size, forth_2 - size, 0.0});
        return std::max(sideways, beyond * (4.0 / 9));
    }
};

// The largest part from t on that is flat enough, but for some hundredths.
double flat_end(const Curve& curve, double t, double step, double flatness) {
    const auto wanted = flatness * 0.96;
    const auto enough = flatness * 0.9;
    constexpr auto least = 1e-9;
    auto good = t;
    for (auto tries = 0; tries < 24; ++tries) {
        const auto end = std::min(1.0, t + step);
        const auto away = curve.away(t, end);
        if (away <= flatness) {
            if (end == 1 || away >= enough || tries > 6) return end;
            good = std::max(good, end);
        }
        // The distance grows with the square of the step.
        const auto factor = away > 0 ? std::sqrt(wanted / away) : 4.0;
        step = std::max(step * std::clamp(factor, 0.2, 4.0), least);
        if (step <= least) break;
    }
    return good > t ? good : std::min(1.0, t + least * 10);
}

void add_curve(const Curve& curve, double flatness, Track& track) {
    auto step = 1.0;
    for (auto t = 0.0; t < 1;) {
        const auto end = flat_end(curve, t, step, flatness);
        step = end - t;
        t = end;
        track.add(t < 1 ? curve.at(t) : curve.p3, t < 1);
    }
}

// The arc from one place to another, as SVG 2, B.2.4 finds its centre.
void add_arc(Vec from, Vec to, const Path::EllipticalArc& arc, double flatness, Track& track) {
    const auto axis = direction_of(arc.turned);
    const auto own_axis = Vec{axis.x, -axis.y};
    auto rx = arc.radii.x;
    auto ry = arc.radii.y;
    const auto half = turned((from - to) * 0.5, own_axis);
    const auto too_small = dot({half.x / rx, half.y / ry}, {half.x / rx, half.y / ry});
    if (too_small > 1) {
        rx *= std::sqrt(too_small);
        ry *= std::sqrt(too_small);
    }
    // On the unit circle: both ends, and the centre on one of the two sides of them.
    const auto middle = Vec{half.x / rx, half.y / ry};
    const auto to_center = std::sqrt(std::max(0.0, 1 / dot(middle, middle) - 1));
    const auto side = arc.large == arc.clockwise ? -1.0 : 1.0;
    const auto center = left_of(middle) * (to_center * side);
    auto begin = unit(middle - center);
    auto end = unit(-middle - center);
    const auto place_of_center = (from + to) * 0.5 + turned({center.x * rx, center.y * ry}, axis);
    const auto place = [&](Vec on_circle) {
        return place_of_center + turned({on_circle.x * rx, on_circle.y * ry}, axis);
    };
    if (!arc.clockwise) std::swap(begin, end);
    Track chords;
    chords.add(place(begin), true);
    // Quarter turns first.
    const auto to_the_side = dot(begin, end) <= 0;
    const auto quarters = to_the_side ? (cross(begin, end) >= 0 ? 1 : 2) : (arc.large ? 3 : 0);
    for (auto i = 0; i < quarters; ++i) {
        const auto next = -left_of(begin);
        add_chords(begin, next, place, flatness, chords);
        chords.add(place(next), true);
        begin = next;
    }
    add_chords(begin, end, place, flatness, chords);
    if (!arc.clockwise) std::reverse(chords.nodes.begin(), chords.nodes.end());
    for (std::size_t i = arc.clockwise ? 1 : 0; i < chords.nodes.size(); ++i) {
        if (dot(chords.nodes[i].at - to, chords.nodes[i].at - to) > 1e-9) track.add(chords.nodes[i].at, true);
    }
    track.add(to);
}

}  // namespace

FlatPath flatten(const Path& path, double flatness) {
    if (path.empty()) throw Error{"path: it has no steps; it needs a move at least"};
    using Kind = Path::Step::Kind;
    const auto first = path.steps().front().to;
    FlatPath flat;
    flat.origin = {.x = static_cast<int>(std::floor(first.x)), .y = static_cast<int>(std::floor(first.y))};
    const auto relative = [&](Position place) { return Vec{place.x - flat.origin.x, place.y - flat.origin.y}; };
    auto at = Vec{};
    auto begins = true;
    auto is_bare = false;  // nothing but a move so far
    for (const auto& step : path.steps()) {
        const auto to = relative(step.to);
        if (step.kind == Kind::move || begins) {
            if (is_bare) flat.tracks.pop_back();
            flat.tracks.emplace_back().add(step.kind == Kind::move ? to : at);
            begins = false;
        }
        is_bare = step.kind == Kind::move;
        auto& track = flat.tracks.back();
        if (step.kind == Kind::line) track.add(to);
        if (step.kind == Kind::cubic) {
            add_curve({at, relative(step.control_1), relative(step.control_2), to}, flatness, track);
        }
        // An arc to where it begins is none (SVG 2, 9.5.1).
        if (step.kind == Kind::arc && to != at) add_arc(at, to, step.arc, flatness, track);
        if (step.kind == Kind::close) {
            track.close();
            begins = true;
        }
        at = to;
    }
    // A move alone is a dot only where there is nothing else.
    if (is_bare && flat.tracks.size() > 1) flat.tracks.pop_back();
    return flat;
}

}  // namespace coldbrick::detail

namespace coldbrick {

std::vector<std::vector<Position>> flattened(const Path& path) {
    const auto flat = detail::flatten(path, detail::crisp_flatness);
    std::vector<std::vector<Position>> lists;
    for (const auto& track : flat.tracks) {
        auto& list = lists.emplace_back();
        for (const auto& [at, smooth] : track.nodes) {
            list.push_back({.x = at.x + flat.origin.x, .y = at.y + flat.origin.y});
        }
        if (track.closed && list.size() > 1) list.push_back(list.front());
    }
    return lists;
}

}  // namespace coldbrick
