#include "raster/outer_box.hpp"

#include "raster/outline.hpp"

#include "coldbrick/region.hpp"

#include <array>

namespace coldbrick::detail {

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
Surroundings around_sweep(const SweptForm& of) noexcept {
    const auto& form = of.of;
    const Turn turn{of.sweep};
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

// Arcs are followed roughly, and the box is as much larger.
constexpr auto rough = 16.0;

// Curves lie between their control points.
std::pair<Point, Surroundings> around_path(const Path& path) {
    using Kind = Path::Step::Kind;
    if (path.empty()) (void)flatten(path, {rough});  // throws Error
    Around around;
    const auto add = [&](Position at) { around.add({at.x, at.y}); };
    auto at = path.steps().front().to;
    for (const auto& step : path.steps()) {
        add(step.to);
        if (step.kind == Kind::cubic) {
            add(step.control_1);
            add(step.control_2);
        } else if (step.kind == Kind::arc) {
            auto arc = Path{}.move(at).arc(step.arc);
            const auto flat = flatten(arc, {rough});
            for (const auto& node : flat.tracks.front().nodes) {
                const auto place = node.at + Vec{double{1} * flat.origin.x, double{1} * flat.origin.y};
                around.add(place - Vec{rough, rough});
                around.add(place + Vec{rough, rough});
            }
        }
        at = step.to;
    }
    return {Point{}, around.box};
}

std::pair<Point, Surroundings> around(const ShapeRef& shape) {
    if (const auto form = ellipse_of(shape)) return {form->origin(), around_ellipse(*form)};
    if (const auto box = box_of_shape(shape)) return {box->origin, {{box->left, box->top}, {box->right, box->bottom}}};
    for (const auto& of : {sector_of(shape), chord_of(shape), arc_of(shape)}) {
        if (of) return {of->of.origin(), around_sweep(*of)};
    }
    if (const auto* const region = std::get_if<const Region*>(&shape)) {
        const auto& box = (*region)->bounds();
        return {box.at, {{-1, -1}, {double{1} * box.size.width, double{1} * box.size.height}}};
    }
    if (const auto* const path = std::get_if<const Path*>(&shape)) return around_path(**path);
    const auto flat = lines_of(shape, {rough}).value();
    Around all;
    for (const auto& track : flat.tracks) {
        for (const auto& node : track.nodes) all.add(node.at);
    }
    return {flat.origin, all.box};
}

int as_int(double value) noexcept { return static_cast<int>(std::clamp(value, -2147483000.0, 2147483000.0)); }

}  // namespace

bool is_straight(const ShapeRef& shape) noexcept {
    return std::holds_alternative<const Box*>(shape) || std::holds_alternative<const Line*>(shape) ||
           std::holds_alternative<const Polyline*>(shape) || std::holds_alternative<const Polygon*>(shape) ||
           std::holds_alternative<const Region*>(shape) || std::holds_alternative<const VertexList*>(shape) ||
           std::holds_alternative<const VertexElement*>(shape) || std::holds_alternative<const subpixel::Box*>(shape) ||
           std::holds_alternative<const subpixel::Line*>(shape) ||
           std::holds_alternative<const subpixel::Polyline*>(shape) ||
           std::holds_alternative<const subpixel::Polygon*>(shape);
}

Box outer_box(const ShapeRef& shape, double reach, const Placement& placement) {
    const auto [origin, own] = around(shape);
    if (!(own.least.x <= own.most.x)) return {};
    const auto [least, most] = own.grown(reach).relative_to({-double{1} * origin.x, -double{1} * origin.y});
    Around placed;
    for (const auto corner : {least, most, Vec{least.x, most.y}, Vec{most.x, least.y}}) placed.add(placement(corner));
    const auto& box = placed.box;
    return box_of({.left = as_int(std::floor(box.least.x)) - 1,
                   .top = as_int(std::floor(box.least.y)) - 1,
                   .right = as_int(std::ceil(box.most.x)) + 2,
                   .bottom = as_int(std::ceil(box.most.y)) + 2});
}

}  // namespace coldbrick::detail
