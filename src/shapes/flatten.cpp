#include "shapes/flatten.hpp"

#include "geometry/limits.hpp"
#include "raster/edges/ellipse_geometry.hpp"

#include "coldbrick/budget.hpp"

#include <algorithm>
#include <cmath>
#include <optional>

namespace coldbrick::inline v0::detail {

namespace {

// A cubic Bézier curve.
class Curve {
  public:
    Curve(Vec p0, Vec p1, Vec p2, Vec p3) noexcept : p0_{p0}, p1_{p1}, p2_{p2}, p3_{p3} {}

    [[nodiscard]] Vec last() const noexcept { return p3_; }
    [[nodiscard]] bool may_come_into(const Surroundings& seen) const noexcept {
        return seen.may_have({p0_, p1_, p2_, p3_});
    }

    // A place on it, and how fast it goes on there.
    struct Spot {
        double t;
        Vec at;
        Vec slope;
    };
    [[nodiscard]] Spot spot(double t) const noexcept { return {t, at(t), slope(t)}; }

    [[nodiscard]] Vec at(double t) const noexcept { return ((cube_ * t + square_) * t + once_) * t + p0_; }

    // The direction at t; at an end where control points coincide, towards the next one that does not.
    [[nodiscard]] Vec direction(double t) const noexcept {
        for (const auto& along : {slope(t), t < 0.5 ? p2_ - p0_ : p3_ - p1_, p3_ - p0_}) {
            if (dot(along, along) > 1e-18) return unit(along);
        }
        return {};
    }

    [[nodiscard]] Curve half(bool is_second) const noexcept {
        const auto middle = [](Vec a, Vec b) { return (a + b) * 0.5; };
        const auto a = middle(p0_, p1_);
        const auto b = middle(p1_, p2_);
        const auto c = middle(p2_, p3_);
        const auto d = middle(a, b);
        const auto e = middle(b, c);
        return is_second ? Curve{middle(d, e), e, c, p3_} : Curve{p0_, a, d, middle(d, e)};
    }

    // How wide or high the control points lie at most.
    [[nodiscard]] double extent() const noexcept {
        const auto [left, right] = std::minmax({p0_.x, p1_.x, p2_.x, p3_.x});
        const auto [top, bottom] = std::minmax({p0_.y, p1_.y, p2_.y, p3_.y});
        return std::max(right - left, bottom - top);
    }
    [[nodiscard]] double distance_from_origin() const noexcept { return length(p0_); }

    // How many even parts have chords no further from them than the flatness, by the second derivative.
    [[nodiscard]] double even_parts(double flatness) const noexcept {
        const auto bend = std::max(length(square_), length(square_ + cube_ * 3));
        return std::sqrt(bend / (4 * flatness));
    }

    // How far the part between two places is from its chord, at most, compared with a distance. In the part's own
    // terms, the distance is 3 s (1-s)^2 a + 3 s^2 (1-s) b, with a and b those of its control points: at most 3/4 of
    // the larger one if both are on one side, at most 4/9 if not.
    [[nodiscard]] static double away(const Spot& from, const Spot& to, double compared_with) noexcept {
        const auto chord = to.at - from.at;
        const auto third = (to.t - from.t) / 3;
        const auto first = from.slope * third;
        const auto second = chord - to.slope * third;
        const auto square = dot(chord, chord);
        const auto size = std::sqrt(square);
        if (size == 0) return std::max(length(first), length(second)) / compared_with;
        const auto a = cross(chord, first);
        const auto b = cross(chord, second);
        auto most = std::max(std::fabs(a), std::fabs(b)) * (a * b >= 0 ? 3.0 / 4 : 4.0 / 9);
        // Parts that go back beyond an end of the chord are as far away as that.
        const auto forth_1 = dot(chord, first);
        const auto forth_2 = dot(chord, second);
        if (!(std::min(forth_1, forth_2) >= 0 && std::max(forth_1, forth_2) <= square)) {
            most = std::max({most, -forth_1 * (4.0 / 9), -forth_2 * (4.0 / 9), (forth_1 - square) * (4.0 / 9),
                             (forth_2 - square) * (4.0 / 9)});
        }
        return most / (size * compared_with);
    }

  private:
    [[nodiscard]] Vec slope(double t) const noexcept { return (cube_ * (3 * t) + square_ * 2) * t + once_; }

    Vec p0_;
    Vec p1_;
    Vec p2_;
    Vec p3_;
    // The same as a polynomial.
    Vec once_ = (p1_ - p0_) * 3;
    Vec square_ = (p0_ - p1_ * 2 + p2_) * 3;
    Vec cube_ = p3_ - p0_ + (p1_ - p2_) * 3;
};

// Where a part that begins somewhere ends, and how long the next one may be.
struct FlatPart {
    Curve::Spot end;
    double next_step;
};

// A part that is flat enough, and not much shorter than it may be.
FlatPart flat_part(const Curve& curve, const Curve::Spot& begin, double step, double flatness) {
    const auto t = begin.t;
    constexpr auto wanted = 0.92;  // of the flatness
    constexpr auto enough = 0.8;
    constexpr auto least = 1e-9;
    auto good = t;
    for (auto tries = 0; tries < 24; ++tries) {
        const auto end = curve.spot(t + step < 1 ? t + step : 1);
        const auto away = Curve::away(begin, end, flatness);
        if (away >= 0.86 && away <= 0.98) return {end, step};
        // The distance grows with the square of the step.
        const auto factor = std::clamp(away > 0 ? std::sqrt(wanted / away) : 4.0, 0.2, 4.0);
        const auto better = std::max(step * factor, least);
        if (away <= 1) {
            if (end.t == 1 || away >= enough || tries > 6) return {end, better};
            good = std::max(good, end.t);
        }
        step = better;
        if (step <= least) break;
    }
    return {curve.spot(good > t ? good : std::min(1.0, t + least * 10)), step};
}

// Large curves are cut in halves first, wherever they are seen from. A part that is out of sight is one piece.
void add_part(const Curve& curve, const Tolerance& tolerance, Subpath& subpath, int depth = 0) {
    const auto measure = [&](double from, double to) {
        if (!tolerance.is_measured) return;
        const auto at = [&](double t) { return curve.at(t); };
        const auto middle = [](double a, double b) { return (a + b) / 2; };
        subpath.measure(curve_length(from, to, at, middle) - length(curve.at(to) - curve.at(from)));
    };
    if (!curve.may_come_into(tolerance.seen)) {
        measure(0, 1);
        subpath.hide();
        subpath.add_joint(curve.last(), curve.direction(1));
        return;
    }
    // In pixels of the target, as much as the flatness is smaller.
    const auto large = std::min(4096.0, tolerance.flatness * 0x1p22);
    constexpr auto deepest = 40;
    if (curve.extent() > large && depth < deepest) {
        add_part(curve.half(false), tolerance, subpath, depth + 1);
        add_part(curve.half(true), tolerance, subpath, depth + 1);
        return;
    }
    const auto flatness = resolved_flatness(tolerance.flatness, curve.distance_from_origin() + curve.extent());
    const auto parts = std::min(curve.even_parts(flatness), 4096.0);
    subpath.expect(static_cast<std::size_t>(parts) + 2);
    auto step = std::min(1.0, 1 / parts);
    for (auto at = curve.spot(0); at.t < 1;) {
        spend_work(8);
        const auto [end, next_step] = flat_part(curve, at, step, flatness);
        measure(at.t, end.t);
        step = next_step;
        at = end;
        // Within a curve, directions matter only where lengths do.
        const auto direction = at.t == 1 || tolerance.is_measured ? curve.direction(at.t) : Vec{};
        subpath.add_joint(at.t < 1 ? at.at : curve.last(), direction);
    }
}

void add_curve(const Curve& curve, const Tolerance& tolerance, Subpath& subpath) {
    subpath.go_on(curve.direction(0));
    add_part(curve, tolerance, subpath);
    subpath.end_curve();
}

// The arc from one place to another, as SVG 2, B.2.4 finds its centre.
struct ArcParts {
    RoundPlaces place;
    Vec begin;  // on the unit circle
    Vec end;
};

// The arc of an ellipse between two places; nothing if it is of no height worth speaking of (SVG 2, appendix B.2.4).
std::optional<ArcParts> parts_of(Vec from, Vec to, const Path::EllipticalArc& arc) {
    const auto axis = direction_of(arc.turned);
    const auto own_axis = Vec{axis.x, -axis.y};
    const Position radii = arc.radii;
    auto rx = radii.x;
    auto ry = radii.y;
    const auto half = turned((from - to) * 0.5, own_axis);
    const auto too_small = length({half.x / rx, half.y / ry});
    constexpr auto most_times = 1e15;
    if (!(too_small < most_times)) return std::nullopt;
    constexpr auto most = 4.0 * max_coordinate;
    if (too_small * std::max(rx, ry) > most) {
        throw Error{"path: an arc of radii " + in_digits(rx) + "," + in_digits(ry) + " would have to grow " +
                    in_digits(too_small) + " times to reach its end; allowed are radii up to " + in_digits(most)};
    }
    if (too_small > 1) {
        rx *= too_small;
        ry *= too_small;
    }
    // On the unit circle: both ends, and the centre on one of the two sides of them.
    const auto middle = Vec{half.x / rx, half.y / ry};
    if (!(dot(middle, middle) > 0)) return std::nullopt;
    const auto to_center = std::sqrt(std::max(0.0, 1 / dot(middle, middle) - 1));
    const auto side = arc.large == arc.clockwise ? -1.0 : 1.0;
    const auto center = left_of(middle) * (to_center * side);
    return ArcParts{.place = {.center = (from + to) * 0.5 + turned({center.x * rx, center.y * ry}, axis),
                              .half_axes = {rx, ry},
                              .direction = axis},
                    .begin = unit(middle - center),
                    .end = unit(-middle - center)};
}

void add_arc(Vec from, Vec to, const Path::EllipticalArc& arc, const Tolerance& tolerance, Subpath& subpath) {
    const auto parts = parts_of(from, to, arc);
    if (!parts) return subpath.add(to);
    const auto& place = parts->place;
    auto begin = parts->begin;
    auto end = parts->end;
    if (!arc.clockwise) std::swap(begin, end);
    Subpath chords;
    const auto add_joint = [&](Vec on_circle) { chords.add_joint(place(on_circle), place.along(on_circle)); };
    add_joint(begin);
    // Quarter turns first.
    const auto to_the_side = dot(begin, end) <= 0;
    const auto quarters = to_the_side ? (cross(begin, end) >= 0 ? 1 : 2) : (arc.large ? 3 : 0);
    for (auto i = 0; i < quarters; ++i) {
        const auto next = -left_of(begin);
        add_chords(begin, next, place, tolerance, chords);
        add_joint(next);
        begin = next;
    }
    add_chords(begin, end, place, tolerance, chords);
    add_joint(end);
    if (!arc.clockwise) chords.reverse();
    subpath.go_on(chords.nodes.front().out);
    const auto last = chords.nodes.back();
    for (std::size_t i = 1; i + 1 < chords.nodes.size(); ++i) {
        if (length(chords.nodes[i].at - to) > 3e-5) subpath.add(chords.nodes[i]);
    }
    subpath.add({.at = to, .in = last.in, .longer = last.longer, .is_hidden = last.is_hidden});
}

}  // namespace

FlatPath flatten(const Path& path, const Tolerance& tolerance) {
    if (path.empty()) throw Error{"path: it has no steps; it needs a move at least"};
    using Kind = Path::Step::Kind;
    const auto first = path.steps().front().to;
    FlatPath flat;
    flat.origin = {.x = static_cast<int>(std::floor(first.x)), .y = static_cast<int>(std::floor(first.y))};
    const auto from_origin = tolerance.relative_to({double{1} * flat.origin.x, double{1} * flat.origin.y});
    const auto relative = [&](Position place) { return Vec{place.x - flat.origin.x, place.y - flat.origin.y}; };
    auto at = Vec{};
    auto begins = true;
    auto is_bare = false;  // nothing but a move so far
    for (const auto& step : path.steps()) {
        spend_work(2);
        const auto to = relative(step.to);
        if (step.kind == Kind::move || begins) {
            if (is_bare) flat.subpaths.pop_back();
            flat.subpaths.emplace_back().add(step.kind == Kind::move ? to : at);
            begins = false;
        }
        is_bare = step.kind == Kind::move;
        auto& subpath = flat.subpaths.back();
        if (step.kind == Kind::line) subpath.add(to);
        if (step.kind == Kind::cubic) {
            add_curve({at, relative(step.control_1), relative(step.control_2), to}, from_origin, subpath);
        }
        // An arc to where it begins is none (SVG 2, 9.5.1).
        if (step.kind == Kind::arc && to != at) add_arc(at, to, step.arc, from_origin, subpath);
        if (step.kind == Kind::close) {
            subpath.close();
            begins = true;
        }
        at = to;
    }
    // A move alone is a dot only where there is nothing else.
    if (is_bare && flat.subpaths.size() > 1) flat.subpaths.pop_back();
    return flat;
}

}  // namespace coldbrick::inline v0::detail

namespace coldbrick::inline v0 {

std::vector<std::vector<Position>> flattened(const Path& path) {
    const auto flat = detail::flatten(path, {detail::crisp_flatness});
    std::vector<std::vector<Position>> lists;
    for (const auto& subpath : flat.subpaths) {
        auto& list = lists.emplace_back();
        for (const auto& node : subpath.nodes) {
            list.push_back({.x = node.at.x + flat.origin.x, .y = node.at.y + flat.origin.y});
        }
        if (subpath.closed && list.size() > 1) list.push_back(list.front());
    }
    return lists;
}

}  // namespace coldbrick::inline v0
